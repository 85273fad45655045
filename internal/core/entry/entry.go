// Package entry is one logged set: what of it cannot be and is asked about before
// it is kept, and whether it may be kept while training is stopped.
package entry

import (
	"fmt"
	"math"
	"time"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/text"
)

// What is taken for a slip rather than a feat.
const (
	mostOfMax  = 1.5 // times what the series can lift once
	mostOfBand = 2   // times the band's reps
)

// Told is a set as it was entered.
type Told struct {
	Whole float64 // as it is read, kg; for body weight what is added
	Reps  int
}

// Against is what a set is held against.
type Against struct {
	SetUp   movement.SetUp
	Steps   []float64 // whole loads the room has, ascending, kg; none: nobody knows
	Carry   person.Carry
	Rigging person.Rigging
	Room    *person.Room
	E1RM    float64 // what one hand could lift once by its series, kg; 0: not known
	High    int     // reps of the band; 0: not planned
}

// Doubt asks back what cannot be, "" where nothing is odd: a load the room has not,
// half as much again as its series can lift, twice the reps of the band. field is
// the one that is asked about.
func Doubt(t Told, a *Against) (question, field string) {
	words := a.Room.Words(t.Whole, a.SetUp)
	if len(a.Steps) > 0 && !person.IsStep(a.Steps, t.Whole) && t.Whole != 0 {
		nearest := a.Steps[0]
		for _, s := range a.Steps {
			if math.Abs(s-t.Whole) < math.Abs(nearest-t.Whole) {
				nearest = s
			}
		}
		return fmt.Sprintf("%s? %s has %s.", text.Capital(words), a.Room.Name, a.has(nearest)), "whole_kg"
	}
	hand := a.Carry.PerHand(t.Whole, a.Rigging)
	if a.E1RM > 0 && hand > mostOfMax*a.E1RM && a.Carry != person.BodyWeight {
		return fmt.Sprintf(
			"%s? By its series about %s could be lifted once.",
			text.Capital(words),
			a.Room.Words(math.Round(10*a.Carry.Whole(a.E1RM, a.Rigging))/10, a.SetUp),
		), "whole_kg"
	}
	if a.High > 0 && t.Reps > mostOfBand*a.High {
		return fmt.Sprintf("%d reps? The band ends at %d.", t.Reps, a.High), "reps"
	}
	return "", ""
}

// has tells the loads there are: the only one, or the nearest.
func (a *Against) has(nearest float64) string {
	if len(a.Steps) == 1 {
		return a.Room.Words(nearest, a.SetUp)
	}
	return "none, the nearest is " + a.Room.Words(nearest, a.SetUp)
}

// Mark says why a set is in the log although training is stopped.
type Mark string

// The marks.
const (
	Plain     Mark = ""
	Earlier   Mark = "earlier"   // done before the answer that stopped it
	Corrected Mark = "corrected" // puts right what was entered before
	Waited    Mark = "waited"    // done and entered without network after the answer
)

// Words tells a mark, "" for none.
func (m Mark) Words() string {
	return map[Mark]string{Earlier: "done before training was stopped", Corrected: "corrected while training was stopped",
		Waited: "done without network after training was stopped"}[m]
}

// Standing is what stands in the way of a set.
type Standing struct {
	MayTrain bool
	Since    time.Time // from which it may not; zero: it never might
}

// Take decides whether a set is kept: while training is stopped only what was done
// before it, what corrects something, and what waited on a device without network;
// each with its mark.
func Take(st Standing, done time.Time, corrects, waited bool) (Mark, bool) {
	switch {
	case st.MayTrain:
		return Plain, true
	case corrects:
		return Corrected, true
	case !st.Since.IsZero() && done.Before(st.Since):
		return Earlier, true
	case waited:
		return Waited, true
	}
	return Plain, false
}
