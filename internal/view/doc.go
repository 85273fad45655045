// Package view turns values of the core into what a screen shows. It is pure: no
// database, no HTTP, nothing of a request.
package view
