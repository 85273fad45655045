package plan

import (
	"fmt"
	"math"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// Floor is what a plan's loads are worked out for: the loads there are, the body
// that may be one of them.
type Floor struct {
	Room     *person.Room
	BodyMass float64
	// Most is what one hand carries in a set-up for some reps with some left, by the
	// client's own series; false where it is not known. nil: nothing is known.
	Most func(s movement.SetUp, reps, reserve int) (hand float64, ok bool)
}

// Rack is what a set-up can be loaded with there.
func (f *Floor) Rack(s movement.SetUp) dose.Rack { return dose.RackOf(s, f.Room, f.BodyMass) }

// Asked is the load a row asks for: its own, or that of the row above; nil where
// none says one.
func (s *Slot) Asked(row int) *dose.Load {
	for ; row >= 0; row-- {
		if row < len(s.Rows) && s.Rows[row].Load != nil {
			return s.Rows[row].Load
		}
	}
	return nil
}

// Hand is what one hand carries in straight sets of a row, before method and combo;
// nil where it is to be found.
func (s *Session) Hand(i, row int, f *Floor) *float64 {
	slot := &s.Slots[i]
	l := slot.Asked(row)
	rack := f.Rack(slot.SetUpIn(row))
	if l == nil || l.Find { // where a room holds one load there is nothing to find
		if only, ok := rack.Only(); ok {
			return &only
		}
		return nil
	}
	var hand float64
	ok := true
	switch {
	case l.AddedKg != nil:
		hand = rack.Carry.PerHand(*l.AddedKg, rack.Rigging)
	case l.Kg != nil && rack.Carry == person.BodyWeight: // of version 1: the body's mass stood in it
		hand = rack.Carry.PerHand(rack.Nearest(rack.Carry.Whole(*l.Kg, rack.Rigging)), rack.Rigging)
	case l.Kg != nil:
		hand = *l.Kg
	case l.Combo:
		hand, ok = s.one(i, f)
	default:
		if slot.Asked(0) == l { // a part of itself
			return nil
		}
		first := s.Hand(i, 0, f)
		if first == nil {
			return nil
		}
		if l.Steps != nil {
			hand, ok = rack.Off(*first, *l.Steps)
		} else {
			hand, ok = rack.Share(*first, l.Share)
		}
	}
	if !ok {
		return nil
	}
	return &hand
}

// one is the one load of a combo: the largest real step at which every member still
// reaches its lowest reps at its reserve, for the hand of slot i. False where a
// member has no series.
func (s *Session) one(i int, f *Floor) (hand float64, ok bool) {
	if f.Most == nil {
		return 0, false
	}
	rack := f.Rack(s.Slots[i].SetUp)
	least := math.Inf(1)
	first, last := s.Members(i)
	for j := first; j <= last; j++ {
		d := s.Slots[j].First()
		most, known := f.Most(s.Slots[j].SetUpIn(0), d.RepsLow, d.Reserve)
		if !known {
			return 0, false
		}
		other := f.Rack(s.Slots[j].SetUp)
		least = min(least, other.Carry.Whole(most, other.Rigging))
	}
	whole, ok := person.RoundDown(rack.Steps, least)
	return rack.Carry.PerHand(whole, rack.Rigging), ok
}

// Loads lists the whole loads of one set, counted from 0, rung by rung where its
// method has rungs; nil where the load is to be found or no step is that light.
func (s *Session) Loads(i, set int, f *Floor) []float64 {
	row := s.Slots[i].RowOf(set)
	hand := s.Hand(i, row, f)
	if hand == nil {
		return nil
	}
	factor := s.TurnsOf(i).Load()
	if l := s.Slots[i].Asked(row); l != nil && l.Combo {
		factor = 1 // it is the combo's already
	}
	return s.Slots[i].DoseOf(set).Loads(f.Rack(s.Slots[i].SetUpIn(row)), *hand, factor)
}

// checkLoad says what is wrong with a row's load, nil for nothing.
func (s *Session) checkLoad(i, row int, f *Floor) *movement.FieldError {
	slot := &s.Slots[i]
	l := slot.Rows[row].Load
	if l == nil {
		return nil
	}
	fault := func(field, reason string, args ...any) *movement.FieldError {
		return &movement.FieldError{Field: "load." + field, Reason: fmt.Sprintf(reason, args...)}
	}
	if why := l.Fault(); why != "" {
		return &movement.FieldError{Field: "load", Reason: why}
	}
	rack := f.Rack(slot.SetUpIn(row))
	body := rack.Carry == person.BodyWeight
	switch {
	case l.AddedKg != nil && !body:
		return fault("added_kg", "only where the body itself is lifted")
	case l.Share != 0 && body:
		return fault("share", "there are no parts of the body’s weight")
	case row == 0 && (l.Share != 0 || l.Steps != nil):
		return &movement.FieldError{Field: "load", Reason: "the first row has a load of its own for the others to refer to"}
	case l.Combo && !s.sharesLoad(i):
		return fault("combo", "only in a combo of one load for all")
	}
	field, whole := "kg", 0.0
	switch {
	case l.Kg != nil && body:
		return nil // of version 1; it is taken for the nearest there is
	case l.Kg != nil:
		whole = rack.Carry.Whole(*l.Kg, rack.Rigging)
	case l.AddedKg != nil:
		field, whole = "added_kg", *l.AddedKg
	default:
		if hand := s.Hand(i, 0, f); l.Share != 0 && hand != nil {
			if _, ok := rack.Share(*hand, l.Share); !ok {
				return fault("share", "%s has nothing that light", f.Room.Name)
			}
		}
		return nil
	}
	if person.IsStep(rack.Steps, whole) {
		return nil
	}
	reason := "there is no " + rack.Amount(whole) + " in " + f.Room.Name
	if down, ok := person.RoundDown(rack.Steps, whole); ok {
		reason += ", the next lighter is " + rack.Amount(down)
	}
	return fault(field, "%s", reason)
}

// sharesLoad says whether a slot is in a combo of one load for all.
func (s *Session) sharesLoad(i int) bool {
	c := s.ComboOf(s.Slots[i].Combo)
	return c != nil && c.Loads == OneLoad
}
