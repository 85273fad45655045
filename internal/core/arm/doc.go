// Package arm is the model of one right arm: posture, kinematics, the seven
// heads that cross the elbow, their fibre lengths and moment arms.
//
// It knows nothing of loads, effort, movements or people beyond stature and
// body mass: those live in package effort and above. Nothing here does I/O.
//
// Frames: X forward, Y up, Z to the right of a standing person; the trunk frame
// coincides with the world when the trunk is upright. Angles are degrees at the
// package's borders and radians inside, lengths metres, moment arms
// centimetres, forces newtons.
//
// What the model cannot separate: the lateral and medial triceps heads have the
// same leverage; both biceps heads cross the shoulder, so the place of the
// upper arm changes the length of both. Forces, fibre lengths and moment arms
// are those of an average adult and do not scale with the person.
package arm
