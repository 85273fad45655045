package floor

import (
	"fmt"
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/dose"
	"musculus/internal/core/entry"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

// Pair is two neighbouring slots of opposing muscles that could be done in turns when time runs
// over: nothing about their sets changes, the one's work is the other's rest.
type Pair struct {
	With int   `json:"with"` // the later slot
	Ways []Way `json:"ways"` // by how many sets of the earlier one are done
}

// Way is how a pair goes on.
type Way struct {
	Saves float64    `json:"saves"` // minutes; 0: not offered
	Words string     `json:"words"`
	Steps []SetAhead `json:"steps"` // what is ahead of both, in turns
	Ahead []float64  `json:"ahead"` // minutes that are left, by how many of the steps are done
}

// PairOf is slot i in turns with the next one; nil where that may not be, or saves nothing: they
// are of one group or in turns already, locked, in the way of each other, or a cap forbids it.
func PairOf(t *week.Trainee, s *plan.Session, i int) *Pair {
	j := i + 1
	if j >= len(s.Slots) || s.Slots[i].Locked || s.Slots[j].Locked || s.Slots[i].Combo != "" || s.Slots[j].Combo != "" ||
		s.Join(i).Kind != dose.Opposing || isDense(s, i) || isDense(s, j) {
		return nil
	}
	turns, ok := joined(t, s, i)
	if !ok {
		return nil
	}
	out, offered := &Pair{With: j}, false
	for n := range s.Slots[i].Sets() {
		w := wayOf(t, s, turns, i, n)
		offered = offered || w.Saves > 0
		out.Ways = append(out.Ways, w)
	}
	if !offered {
		return nil
	}
	return out
}

// joined is a session with slot i in turns with the next one, and whether it may be so.
func joined(t *week.Trainee, s *plan.Session, i int) (*plan.Session, bool) {
	turns := *s
	join := plan.Arrange{Do: plan.Join, Slot: s.Slots[i].ID, IDs: []uuid.UUID{s.Slots[i].ID}}
	fault := turns.Arrange(&join, t.Caps)
	c := turns.ComboOf(turns.Slots[i].Combo)
	if fault != nil || c == nil {
		return nil, false
	}
	b := t.Between(&turns, i, i+1, c.BetweenS)
	if b.Cannot != "" {
		return nil, false
	}
	c.BetweenS = max(c.BetweenS, b.Seconds)
	return &turns, len(t.Check(&turns)) <= len(t.Check(s))
}

// wayOf is how a pair goes on once n sets of its first slot are done: with the second one, whose
// set is the first one's rest. turns is the session with the two in turns.
func wayOf(t *week.Trainee, s, turns *plan.Session, i, n int) Way {
	order := []int{i, i + 1}
	if n > 0 {
		order = []int{i + 1, i}
	}
	alone := func(of *plan.Session) *plan.Session {
		return &plan.Session{Slots: []plan.Slot{of.Slots[order[0]], of.Slots[order[1]]}, Combos: of.Combos}
	}
	pair, done := alone(turns), make([]int, 2)
	done[slices.Index(order, i)] = n
	ahead := Ahead(pair, done)
	w := Way{Steps: stepsOf(&ahead), Ahead: []float64{}}
	saves := Forecast(t, alone(s), done) - Forecast(t, pair, done)
	for k := range w.Steps { // as they are numbered in the whole session
		st := &w.Steps[k]
		w.Ahead = append(w.Ahead, Forecast(t, pair, done))
		if k+1 == len(w.Steps) || w.Steps[k+1].Slot != st.Slot || w.Steps[k+1].Set != st.Set {
			done[st.Slot]++ // the last arm of a set
		}
		if st.Slot = order[st.Slot]; st.Slot == i && n > 0 {
			st.renumber(&s.Slots[i], n)
		}
	}
	w.Ahead = append(w.Ahead, 0)
	if n > 0 && len(w.Steps) > 0 {
		w.Steps[0].RestS = turns.ComboOf(turns.Slots[i].Combo).BetweenS
	}
	if saves >= leastSaved {
		w.Saves = saves
		w.Words = fmt.Sprintf("%s and %s in turns: %s less, every set stays.", s.Slots[i].SetUp.Short(),
			s.Slots[i+1].SetUp.Short(), minutesWords(saves))
	}
	return w
}

// renumber makes a set of what is ahead of a slot the set it is in the whole slot, n of which are
// done; where the arms begin in turn, it is the right one's turn by that number.
func (st *SetAhead) renumber(slot *plan.Slot, n int) {
	st.Set += n
	st.Row = slot.RowOf(st.Set)
	st.InRow = st.Set
	for r := range st.Row {
		st.InRow -= slot.Rows[r].Each()
	}
	if slot.Starts == plan.StartsInTurn && n%2 == 1 && st.Side != entry.BothSides {
		st.Side = map[entry.Side]entry.Side{entry.Left: entry.Right, entry.Right: entry.Left}[st.Side]
	}
}
