package plan

import (
	"fmt"
	"math"
	"slices"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// How far the upper arm may go another way and the grip still be all that
// differs, degrees: a wider grip turns the arms out too.
const (
	sameElevation = 15.0
	sameRotation  = 35.0
)

// OnlyTheHand says whether two set-ups differ in nothing but how the hand holds the
// same weight: same action, station, way of carrying and path of the upper arm.
func OnlyTheHand(a, b movement.SetUp) bool {
	if a.Movement.Action != b.Movement.Action || StationOf(a) != StationOf(b) || person.CarryOf(a) != person.CarryOf(b) ||
		a.ArmsInTurn() != b.ArmsInTurn() {
		return false
	}
	ea, eb := a.Effort(), b.Effort()
	for _, ends := range [][2]arm.Posture{{ea.From, eb.From}, {ea.To, eb.To}} {
		if math.Abs(ends[0].ShoulderElevation-ends[1].ShoulderElevation) > sameElevation ||
			math.Abs(ends[0].ShoulderRotation-ends[1].ShoulderRotation) > sameRotation {
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
		if err == nil && OnlyTheHand(s, to) &&
			!slices.ContainsFunc(out, func(x movement.SetUp) bool { return x.Movement == to.Movement && x.Key() == to.Key() }) {
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

// StationOf names the station a set-up needs: implement, position, and where
// bench and pulley are.
func StationOf(s movement.SetUp) string {
	e := s.Effort()
	return fmt.Sprint(s.Implement(), s.Position(), s.Number(movement.Bench), s.Number(movement.PadSlope), e.Load.Kind, e.Load.Pulley)
}
