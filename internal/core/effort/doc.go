// Package effort turns a set-up into its profile: the load that fits, how hard
// each part of the range is, which head does how much of the work and at which
// length.
//
// It stands on package arm and knows nothing of catalogues, people or doses.
// Everything is quasi-static: slow, controlled repetitions of one arm.
//
// Angles are degrees, forces newtons, torques newton metres. Activations are
// relative efforts, never percentages of anything measured, and a working load
// is not a prescription: it is only ever shown as a ratio to the plain movement
// of its side until a client's own log calibrates it.
package effort
