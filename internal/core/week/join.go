package week

import (
	"fmt"
	"math"
	"slices"

	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
)

// Apart says why slot i and the next one cannot be done in turns, "" if they can: bench, pulley height and the load on a
// shared bar must be the same for both, and a superset of one muscle has no time
// to walk to a cable and back.
func (t *Trainee) Apart(s *plan.Session, i int) string {
	a, b, turns := &s.Slots[i], &s.Slots[i+1], s.Join(i)
	ea, eb := a.SetUp.Effort(), b.SetUp.Effort()
	cables := 0
	for _, e := range []effort.Setup{ea, eb} {
		if e.Load.Kind == effort.Cable {
			cables++
		}
	}
	switch {
	case cables == 1 && turns.Kind != dose.Opposing:
		return "one is at the cable, the other is not"
	case cables == 2 && pulleyHeight(ea) != pulleyHeight(eb) && !(turns.Kind == dose.Opposing && t.Room.Has(person.Cable, 2)):
		return "the pulley stands at another height"
	}
	for _, k := range []movement.Key{movement.Bench, movement.PadSlope} {
		va, oka := a.SetUp.Value(k)
		vb, okb := b.SetUp.Value(k)
		if oka && okb && va != vb {
			return fmt.Sprintf(
				"the %s is at %s° for one and at %s° for the other",
				map[movement.Key]string{movement.Bench: "bench", movement.PadSlope: "pad"}[k],
				va,
				vb,
			)
		}
	}
	if held := a.SetUp.Implement(); held == b.SetUp.Implement() && person.CarryOf(a.SetUp) == person.TwoHands && held != movement.Shared {
		one, other := t.inTurns(s, i, turns.Place-1, turns), t.inTurns(s, i+1, turns.Place, turns)
		if one > 0 && other > 0 && math.Abs(one-other) > 1e-6 {
			return fmt.Sprintf("the bar would have to carry %s for one and %s for the other", person.Kg(one), person.Kg(other))
		}
	}
	return ""
}

// pulleyHeight tells where the pulley stands: high, at the shoulder or low, as far
// as the model knows it, m above the shoulder.
func pulleyHeight(e effort.Setup) float64 { return math.Round(e.Load.Pulley[1]*20) / 20 }

// inTurns is the whole load of a slot's first set, were it done in turns at a place;
// 0 where it is not known.
func (t *Trainee) inTurns(s *plan.Session, i, place int, turns plan.Turns) float64 {
	turns.Place = max(place, 0)
	hand := s.Hand(i, 0, t.Floor())
	if hand == nil {
		return 0
	}
	slot := &s.Slots[i]
	if loads := slot.First().Loads(t.Floor().Rack(slot.SetUp), *hand, turns.Load()); len(loads) > 0 {
		return loads[0]
	}
	return 0
}

// takeApart ends the combo of a slot.
func (a *auditor) takeApart(i, j int) *Fix {
	return a.change("Take them apart", func(w *Week) bool {
		combo := w.Sessions[i].Slots[j].Combo
		for k := range w.Sessions[i].Slots {
			if slot := &w.Sessions[i].Slots[k]; slot.Combo == combo {
				slot.Combo = ""
				slot.RestAtLeast(dose.PlainRestS(a.t.Caps))
			}
		}
		w.Sessions[i].Combos = slices.DeleteFunc(slices.Clone(w.Sessions[i].Combos), func(c plan.Combo) bool { return c.ID == combo })
		return true
	})
}
