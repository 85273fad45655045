package week

import (
	"fmt"
	"math"
	"slices"

	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// Starts says which arm begins where the arms take turns.
type Starts string

// The answers.
const (
	StartsInTurn Starts = "" // the arms take turns in beginning
	StartsLeft   Starts = "left"
	StartsRight  Starts = "right"
)

// TakesTurns says whether the arms of a slot work one after the other, so that
// one of them begins.
func (s *Slot) TakesTurns() bool {
	return s.SetUp.ArmsInTurn() == 2 || s.Dose.Method.ID == dose.Ladder || s.Dose.Method.ID == dose.StaticHold
}

// StartsWords tells the client which arm begins, "" where both work together.
func (s *Slot) StartsWords() string {
	switch {
	case !s.TakesTurns():
		return ""
	case s.Starts == StartsLeft:
		return "left arm first, the right does no more"
	case s.Starts == StartsRight:
		return "right arm first, the left does no more"
	}
	return "take turns in which arm begins"
}

// SetUpOf is the set-up of one set, counted from 0.
func (s *Slot) SetUpOf(set int) movement.SetUp {
	if len(s.Grips) == 0 {
		return s.SetUp
	}
	return s.Grips[min(set, len(s.Grips)-1)]
}

// grips lists the set-ups of the sets, each once.
func (s *Slot) grips() []movement.SetUp {
	if len(s.Grips) == 0 {
		return []movement.SetUp{s.SetUp}
	}
	var out []movement.SetUp
	seen := map[string]bool{}
	for _, g := range s.Grips {
		if !seen[g.Key()] {
			seen[g.Key()] = true
			out = append(out, g)
		}
	}
	return out
}

// GripWords tells the grip set by set, "" where they are all one.
func (s *Slot) GripWords() string {
	if len(s.Grips) == 0 {
		return ""
	}
	out := ""
	for from := 0; from < s.Dose.Each(); {
		set := s.SetUpOf(from)
		to := from
		for to+1 < s.Dose.Each() && s.SetUpOf(to+1).Key() == set.Key() {
			to++
		}
		if out != "" {
			out += "; "
		}
		if to > from {
			out += fmt.Sprintf("sets %d–%d: %s", from+1, to+1, names(set))
		} else {
			out += fmt.Sprintf("set %d: %s", from+1, names(set))
		}
		if d := set.Details(); d != "" {
			out += ", " + d
		}
		from = to + 1
	}
	return out
}

// How far the upper arm may go another way and the grip still be all that
// differs, degrees: a wider grip turns the arms out too.
const (
	sameElevation = 15.0
	sameRotation  = 35.0
)

// OnlyTheHand says whether two set-ups differ in nothing but how the hand holds the
// same weight: same action, station, way of carrying and path of the upper arm.
func OnlyTheHand(a, b movement.SetUp) bool {
	if a.Movement.Action != b.Movement.Action || stationOf(a) != stationOf(b) || person.CarryOf(a) != person.CarryOf(b) || a.ArmsInTurn() != b.ArmsInTurn() {
		return false
	}
	ea, eb := a.Effort(), b.Effort()
	for _, ends := range [][2]arm.Posture{{ea.From, eb.From}, {ea.To, eb.To}} {
		if math.Abs(ends[0].ShoulderElevation-ends[1].ShoulderElevation) > sameElevation || math.Abs(ends[0].ShoulderRotation-ends[1].ShoulderRotation) > sameRotation {
			return false
		}
	}
	return true
}

// OtherGrips lists the ways to hold the same weight in a set-up's place, itself
// first: other movements of the catalogue, and the bar narrow and wide.
func OtherGrips(s movement.SetUp, c *movement.Catalogue) []movement.SetUp {
	out := []movement.SetUp{s}
	add := func(to movement.SetUp, err error) {
		if err == nil && OnlyTheHand(s, to) && !slices.ContainsFunc(out, func(x movement.SetUp) bool { return x.Movement == to.Movement && x.Key() == to.Key() }) {
			out = append(out, to)
		}
	}
	if !s.Movement.Computed() {
		return out
	}
	for _, m := range c.Movements {
		if m == s.Movement || !m.Computed() || m.Action != s.Movement.Action {
			continue
		}
		to := m.Default()
		for _, k := range []movement.Key{movement.Implement, movement.Hands, movement.Bench, movement.PadSlope} {
			if v, ok := s.Value(k); ok && m.Setting(k) != nil {
				if next, err := to.With(k, v); err == nil {
					to = next
				}
			}
		}
		add(to, nil)
	}
	if w := s.Movement.Setting(movement.GripWidth); w != nil {
		for _, x := range []float64{w.Min, w.Max} {
			add(s.With(movement.GripWidth, movement.Num(x)))
		}
	}
	return out
}

// checkGrips returns what is wrong with the grips and who starts.
func (s *Slot) checkGrips(t *Trainee) []*movement.FieldError {
	var out []*movement.FieldError
	fault := func(i int, reason string, args ...any) {
		out = append(out, &movement.FieldError{Field: fmt.Sprintf("grips[%d]", i), Reason: fmt.Sprintf(reason, args...)})
	}
	if len(s.Grips) > s.Dose.Sets {
		fault(s.Dose.Sets, "%d grips are more than the %d sets", len(s.Grips), s.Dose.Sets)
	}
	for i, g := range s.Grips {
		switch {
		case !OnlyTheHand(s.SetUp, g):
			fault(i, "%s is not the same weight in another grip", names(g))
		case t.memo().look(g).refused != "":
			fault(i, "%s", t.memo().look(g).refused)
		case t.Caps.Lying(g) != "":
			fault(i, "%s", t.Caps.Lying(g))
		}
	}
	switch s.Starts {
	case StartsInTurn, StartsLeft, StartsRight:
	default:
		out = append(out, &movement.FieldError{Field: "starts", Reason: fmt.Sprintf("%q is neither left nor right", string(s.Starts))})
	}
	return out
}
