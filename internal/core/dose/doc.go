// Package dose is what a slot prescribes beside its set-up: sets, reps, effort,
// rest, tempo and load, their limits and caps, how long they take, and what a
// set counts.
package dose
