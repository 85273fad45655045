// Package plan is the prescription: slots with their rows, combos, sessions on
// their days. What is kept, what is sent and what is counted are these types. It
// knows what a plan says and whether it can be said; what it comes to is package
// week's.
package plan

import (
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
)

// Row is n sets alike.
type Row struct {
	ID uuid.UUID
	dose.Dose
	// SetUp is how these sets are done where it is not as the slot says: another hand
	// on the same weight, another notch; nil: as the slot says.
	SetUp *movement.SetUp

	own asked // as it was read, until it is resolved
}

// Starts says which arm begins where the arms take turns.
type Starts string

// The answers.
const (
	StartsInTurn Starts = "" // the arms take turns in beginning
	StartsLeft   Starts = "left"
	StartsRight  Starts = "right"
	LeftOnly     Starts = "left_only" // one arm does it and the other does something else: a pair trial
	RightOnly    Starts = "right_only"
)

// Slot is a set-up, its rows in the order they are done, and its cues.
type Slot struct {
	ID     uuid.UUID // the client's; the zero id for one that a fix added
	SetUp  movement.SetUp
	Rows   []Row
	Cues   []string // at most MostCues, for the client
	Starts Starts   // the arm that begins, where the arms take turns, or the one that does it alone
	Combo  string   // slots next to each other with the same one are done in turns
	// CueReason is why a cue stays that asks for what a cap forbids, "" for none.
	CueReason string
	Locked    bool // no fix and no draft touches it

	own asked // as it was read, until it is resolved
}

// Of is a slot of one set-up and one row.
func Of(s movement.SetUp, d dose.Dose) Slot { return Slot{SetUp: s, Rows: []Row{{Dose: d}}} }

// Session is slots in the order they are done.
type Session struct {
	WarmUpMin float64 `json:"warm_up_min" doc:"general warm-up, minutes"`
	Intent    string  `json:"intent,omitempty" enum:",heavy,light"`
	Locked    bool    `json:"locked,omitempty" doc:"no fix and no draft touches its day or its slots"`
	Combos    []Combo `json:"combos,omitempty" maxItems:"20"`
	Slots     []Slot  `json:"slots" maxItems:"40"`
}

// Planned is a session on its day.
type Planned struct {
	ID   uuid.UUID `json:"id"`
	Name string    `json:"name" minLength:"1" maxLength:"60"`
	On   day.Day   `json:"planned_on" format:"date"`
	Session
}

// Limits of a session.
const (
	MostSlots     = 20
	MostRows      = 8
	MostSlotSets  = 20
	MostCues      = 3
	MostName      = 60
	LongestCue    = 60 // characters
	longestReason = 200
	longestCombo  = 40
	mostWarmUp    = 60.0
)

// Sets is how many sets a slot has.
func (s *Slot) Sets() (n int) {
	for i := range s.Rows {
		n += s.Rows[i].Each()
	}
	return n
}

// HardSets is how many of them are hard, for an arm on the average.
func (s *Slot) HardSets() (n int) {
	for i := range s.Rows {
		n += s.Rows[i].HardSets()
	}
	return s.PerArm(n)
}

// Failures is how many of them go to the limit.
func (s *Slot) Failures() (n int) {
	for i := range s.Rows {
		n += s.Rows[i].Failures()
	}
	return n
}

// Efforts is the sets, each by its effort.
func (s *Slot) Efforts() (sum float64) {
	for i := range s.Rows {
		sum += s.Rows[i].Efforts()
	}
	return sum
}

// First is a slot's first row, which its other rows' loads refer to; a row of no sets
// where there is none.
func (s *Slot) First() *Row {
	if len(s.Rows) == 0 {
		return &Row{}
	}
	return &s.Rows[0]
}

// RowOf is the row of a set, counted from 0; the last one holds on.
func (s *Slot) RowOf(set int) int {
	for i := range s.Rows {
		if set -= s.Rows[i].Each(); set < 0 {
			return i
		}
	}
	return max(len(s.Rows)-1, 0)
}

// DoseOf is how a set is done, counted from 0; the last row's holds on.
func (s *Slot) DoseOf(set int) *dose.Dose {
	if len(s.Rows) == 0 {
		return &s.First().Dose
	}
	return &s.Rows[s.RowOf(set)].Dose
}

// SetUpIn is the set-up of a row.
func (s *Slot) SetUpIn(row int) movement.SetUp {
	if row < len(s.Rows) && s.Rows[row].SetUp != nil {
		return *s.Rows[row].SetUp
	}
	return s.SetUp
}

// SetUpOf is the set-up of one set, counted from 0.
func (s *Slot) SetUpOf(set int) movement.SetUp { return s.SetUpIn(s.RowOf(set)) }

// Differs says whether the set-up is not the same in all rows.
func (s *Slot) Differs() bool {
	for i := range s.Rows {
		if s.Rows[i].SetUp != nil {
			return true
		}
	}
	return false
}

// SetUps lists the set-ups of the rows, each once.
func (s *Slot) SetUps() []movement.SetUp {
	out := []movement.SetUp{}
	for i := range s.Rows {
		set := s.SetUpIn(i)
		if !slices.ContainsFunc(out, func(o movement.SetUp) bool { return o.Key() == set.Key() }) {
			out = append(out, set)
		}
	}
	if len(out) == 0 {
		return append(out, s.SetUp)
	}
	return out
}

// TakesTurns says whether the arms of a slot work one after the other, so that
// one of them begins.
func (s *Slot) TakesTurns() bool {
	if s.OneArm() {
		return false
	}
	for i := range s.Rows {
		if m := s.Rows[i].Method.ID; m == dose.Ladder || m == dose.StaticHold {
			return true
		}
	}
	return s.SetUp.ArmsInTurn() == 2
}

// OneArm says whether one arm alone does it.
func (s *Slot) OneArm() bool { return s.Starts == LeftOnly || s.Starts == RightOnly }

// Arms is how many arms do a set of it one after the other: 1 where both work together, too.
func (s *Slot) Arms() int {
	if s.OneArm() {
		return 1
	}
	return s.SetUp.ArmsInTurn()
}

// PerArm is what a number for both arms is for each of them, on the average: a half where one arm
// alone does it.
func (s *Slot) PerArm(n int) int {
	if s.OneArm() {
		return (n + 1) / 2
	}
	return n
}

// The muscle groups.
const (
	Flexors   = "flexors"
	Extensors = "extensors"
)

// GroupOf is a set-up's muscle group.
func GroupOf(s movement.SetUp) string {
	if act := s.Movement.Action; act == movement.Flexion || act == movement.Pull {
		return Flexors
	}
	return Extensors
}
