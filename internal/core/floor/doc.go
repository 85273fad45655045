// Package floor is the session while it happens: what the next set should be after one is
// done, what to do when a weight is taken, how long the rest is and when the session will
// end. All of it are pure functions; the same advice is made beforehand as a table of moves
// for whoever trains without network.
//
// What a set was is package entry's, what was planned package plan's.
package floor
