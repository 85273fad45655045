package week

import (
	"fmt"
	"math"
	"slices"

	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// Join is the method by which a slot would be done in turns with the next one,
// each with the combo it is already in.
func (s *Session) Join(i int) string {
	first, last := i-s.Place(i), i+1
	for last+1 < len(s.Slots) && s.joined(last, last+1) {
		last++
	}
	for j := first; j <= last; j++ {
		if GroupOf(s.Slots[j].SetUp) != GroupOf(s.Slots[first].SetUp) {
			return dose.Opposing
		}
	}
	if last-first > 1 {
		return dose.ThreeInRow
	}
	return dose.SupersetSame
}

// comboFault is what is wrong with a combo, at one of its slots.
type comboFault struct {
	slot   int
	reason string
}

// checkCombos holds combos to the caps by what their members are, not by what their
// method is called: a combo of one muscle group is a superset of the same muscle,
// three or more of a group in it are three in a row. What rests between members is
// each slot's own rest, held to the cap like every other.
func (s *Session) checkCombos(t *Trainee) []comboFault {
	var out []comboFault
	for first := 0; first < len(s.Slots); {
		last := first
		groups := map[string]int{GroupOf(s.Slots[first].SetUp): 1}
		for last+1 < len(s.Slots) && s.joined(last, last+1) {
			last++
			groups[GroupOf(s.Slots[last].SetUp)]++
		}
		most := max(groups[flexors], groups[extensors])
		switch {
		case last == first:
		case len(groups) == 1 && slices.Contains(t.Caps.Closed, dose.SupersetSame):
			out = append(out, comboFault{first, "a combo of one muscle group is closed by this client’s caps"})
		case most >= 3 && slices.Contains(t.Caps.Closed, dose.ThreeInRow):
			out = append(out, comboFault{first, "three or more of one muscle group in turns are closed by this client’s caps"})
		}
		first = last + 1
	}
	return out
}

// Apart says why two slots cannot be done in turns by a method, the second at its
// place in the combo, "" if they can: bench, pulley height and the load on a
// shared bar must be the same for both, and a superset of one muscle has no time
// to walk to a cable and back.
func (t *Trainee) Apart(a, b *Slot, method string, place int) string {
	ea, eb := a.SetUp.Effort(), b.SetUp.Effort()
	cables := 0
	for _, e := range []effort.Setup{ea, eb} {
		if e.Load.Kind == effort.Cable {
			cables++
		}
	}
	switch {
	case cables == 1 && method != dose.Opposing:
		return "one is at the cable, the other is not"
	case cables == 2 && pulleyHeight(ea) != pulleyHeight(eb) && !(method == dose.Opposing && t.Room.Cable != nil && t.Room.Cable.Columns > 1):
		return "the pulley stands at another height"
	}
	for _, k := range []movement.Key{movement.Bench, movement.PadSlope} {
		va, oka := a.SetUp.Value(k)
		vb, okb := b.SetUp.Value(k)
		if oka && okb && va != vb {
			return fmt.Sprintf("the %s is at %s° for one and at %s° for the other", map[movement.Key]string{movement.Bench: "bench", movement.PadSlope: "pad"}[k], va, vb)
		}
	}
	if i := a.SetUp.Implement(); i == b.SetUp.Implement() && person.CarryOf(a.SetUp) == person.TwoHands && i != movement.Shared {
		mass := t.Yardstick.Body().BodyMass
		one, other := a.Dose.Loads(dose.RackOf(a.SetUp, t.Room, mass), 0, place-1), b.Dose.Loads(dose.RackOf(b.SetUp, t.Room, mass), 0, place)
		if len(one) > 0 && len(other) > 0 && math.Abs(one[0]-other[0]) > 1e-6 {
			return fmt.Sprintf("the bar would have to carry %s for one and %s for the other", person.Kg(one[0]), person.Kg(other[0]))
		}
	}
	return ""
}

// pulleyHeight tells where the pulley stands: high, at the shoulder or low, as far
// as the model knows it, m above the shoulder.
func pulleyHeight(e effort.Setup) float64 { return math.Round(e.Load.Pulley[1]*20) / 20 }

// takeApart ends the combo of a slot.
func (a *auditor) takeApart(i, j int) *Fix {
	return a.change("Take them apart", func(w *Week) bool {
		combo := w.Sessions[i].Slots[j].Combo
		for k := range w.Sessions[i].Slots {
			if slot := &w.Sessions[i].Slots[k]; slot.Combo == combo {
				slot.Combo, slot.Dose.Method = "", dose.Use{}
				slot.Dose.RestS = max(slot.Dose.RestS, dose.PlainRestS(a.t.Caps))
			}
		}
		return true
	})
}
