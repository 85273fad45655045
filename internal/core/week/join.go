package week

import (
	"fmt"
	"math"
	"slices"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
)

// Between is what stands between two slots that are done in turns.
type Between struct {
	Changes []person.Move
	Seconds int    // what they take together
	Cannot  string // why it cannot be at all, "" if it can
}

// Words tells the changes: "the walk and the pulley, 50 s".
func (b *Between) Words() string {
	var what []string
	for _, c := range b.Changes {
		what = append(what, c.What)
	}
	return fmt.Sprintf("%s, %d s", movement.Join(what), b.Seconds)
}

// Between says what has to be changed in going from slot i to slot j in turns, with a
// rest between them, s.
func (t *Trainee) Between(s *plan.Session, i, j, rest int) Between {
	a, b, turns := &s.Slots[i], &s.Slots[j], s.Join(min(i, j))
	out := Between{Changes: t.room().Between(a.SetUp, b.SetUp, t.Yardstick.Body().Stature)}
	if held := a.SetUp.Implement(); held == b.SetUp.Implement() && person.CarryOf(a.SetUp) == person.TwoHands && held != movement.Shared &&
		!t.room().Has(held, 2) {
		one, other := t.inTurns(s, i, turns.Place-1, turns), t.inTurns(s, j, turns.Place, turns)
		if one > 0 && other > 0 && math.Abs(one-other) > 1e-6 {
			if rest == 0 {
				out.Cannot = fmt.Sprintf("the bar would have to carry %s for one and %s for the other, with no rest to change it",
					t.room().Amount(a.SetUp, one), t.room().Amount(b.SetUp, other))
			}
			out.Changes = append(out.Changes, t.room().Plates())
		}
	}
	for _, c := range out.Changes {
		out.Seconds += c.Seconds
	}
	return out
}

// room is where the client trains; where none is known nothing has to be changed twice.
func (t *Trainee) room() *person.Room {
	if t.Room == nil {
		return &person.Room{}
	}
	return t.Room
}

// changeS is how long going from slot i to slot j of a combo takes, s.
func (t *Trainee) changeS(s *plan.Session) func(i, j int) int {
	return func(i, j int) int {
		b := t.Between(s, i, j, 1)
		return b.Seconds
	}
}

// turnsFindings says what stands between the members of combos.
func (t *Trainee) turnsFindings(s *plan.Session, add func(code string, severity Severity, slot int, text string, args ...any)) {
	for j := 1; j < len(s.Slots); j++ {
		if !s.Joined(j-1, j) {
			continue
		}
		c := s.ComboOf(s.Slots[j].Combo)
		if c == nil {
			continue
		}
		b := t.Between(s, j-1, j, c.BetweenS)
		walkOnly := len(b.Changes) == 1 && b.Changes[0].What == "the walk" && c.BetweenS == 0 // no rest means the walk
		switch {
		case b.Cannot != "":
			add("apart", Stop, j, "Slots %d and %d are in turns, but %s.", j, j+1, b.Cannot)
		case b.Seconds > c.BetweenS && !walkOnly:
			add("apart", Warn, j, "Between slots %d and %d there is %s to change, and a rest of %d s: it takes the longer.",
				j, j+1, b.Words(), c.BetweenS)
		case b.Seconds > 0:
			add("turns", Note, j, "Between slots %d and %d: %s.", j, j+1, b.Words())
		}
	}
}

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

// restBetween gives a combo the rest that its changes take.
func (a *auditor) restBetween(i, j int) *Fix {
	s := &a.week.Sessions[i]
	first, last := s.Members(j)
	need := 0
	for k := first; k < last; k++ {
		b := a.t.Between(&s.Session, k, k+1, 1)
		need = max(need, b.Seconds)
	}
	return a.change(fmt.Sprintf("Rest %d s between them", need), func(w *Week) bool {
		w.Sessions[i].Combos = slices.Clone(w.Sessions[i].Combos)
		c := w.Sessions[i].ComboOf(w.Sessions[i].Slots[j].Combo)
		if c == nil || c.BetweenS >= need {
			return false
		}
		c.BetweenS = need
		return true
	})
}

// takeApart ends the combo of a slot.
func (a *auditor) takeApart(i, j int) *Fix {
	return a.change("Split the combo", func(w *Week) bool {
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
