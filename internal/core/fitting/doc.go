// Package fitting finds set-ups: tuning one for a head, the nearest equivalents
// when one cannot be done, whether two are one idea twice, and the arithmetic
// of benches, pads, pulleys and pins. It decides nothing about a dose.
package fitting
