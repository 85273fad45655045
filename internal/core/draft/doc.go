// Package draft composes a client's week: which set-ups on which day with how many sets, so
// that the heads get what they are aimed at within minutes, joints, spacing and room.
//
// A Problem is all of it in whole numbers: credits in ten-thousandths of a set, times in
// seconds. Candidates makes a problem out of a client; Search composes weeks; WriteLP writes
// the same problem for an outside solver; what a week gives up, what carries it and what a
// limit is worth are read off the same counts. Only what the ledger of package week counts is
// optimised, so that a draft and the board never disagree.
//
// How a week is looked over, and what a client may do, is not decided here.
package draft
