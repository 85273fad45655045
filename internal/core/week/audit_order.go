package week

import (
	"cmp"
	"fmt"
	"slices"

	"musculus/internal/core/arm"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
)

// rank is where a slot belongs in a session, the smaller the earlier.
func (a *auditor) rank(s *plan.Slot, heads [arm.HeadCount]Effective) int {
	first := false
	if a.t.Aims != nil {
		for h, e := range heads {
			first = first || a.t.Aims.Levels[h] == priority.Prioritise && e.Mid >= leastSetWorth*float64(s.Sets())
		}
	}
	several := !s.SetUp.Movement.Computed()
	switch {
	case a.t.Prefer.Is(person.AxisOrder, "isolate_first"):
		if several {
			return 1
		}
		return 0
	case first && a.t.Prefer.Is(person.AxisOrder, "priority_first"):
		return 0
	case several && s.First().RepsLow <= heavyReps:
		return 0 // heavy, several joints
	case first:
		return 1
	case !s.SetUp.Movement.Computed():
		return 2
	}
	return 3
}

// run is a slot by itself or the slots of a combo, which go as one.
type run struct {
	from, to int // slots, to excluded
	rank     int // of the one that belongs first
}

func (a *auditor) runs(i int) []run {
	s := &a.week.Sessions[i]
	var out []run
	for j := range s.Slots {
		rank := a.rank(&s.Slots[j], a.ledger.Sessions[i].Slots[j].Heads)
		if j > 0 && s.Joined(j-1, j) {
			last := &out[len(out)-1]
			last.to, last.rank = j+1, min(last.rank, rank)
			continue
		}
		out = append(out, run{j, j + 1, rank})
	}
	return out
}

// Order puts a session's slots in the order that the client's preferences ask for, combos
// as one; what is equal stays as it is.
func (t *Trainee) Order(s *plan.Session) {
	w := Week{Sessions: []plan.Planned{{Session: *s}}}
	l := w.Count(t)
	a := &auditor{week: &w, t: t, ledger: &l}
	s.Slots = a.inOrder(0, a.runs(0))
}

// inOrder are a session's slots by the rank of their runs.
func (a *auditor) inOrder(i int, runs []run) []plan.Slot {
	slices.SortStableFunc(runs, func(x, y run) int { return cmp.Compare(x.rank, y.rank) })
	s := &a.week.Sessions[i]
	sorted := make([]plan.Slot, 0, len(s.Slots))
	for _, r := range runs {
		sorted = append(sorted, s.Slots[r.from:r.to]...)
	}
	return sorted
}

// order looks at what comes first: heavy several-joint work, then what comes
// first for this client.
func (a *auditor) order(i int) {
	s := &a.week.Sessions[i]
	runs := a.runs(i)
	for k := 1; k < len(runs); k++ {
		is, was := runs[k], runs[k-1]
		heavy := is.rank == 0 && was.rank > 0
		fresh := is.rank == 1 && was.rank == 3 && plan.GroupOf(s.Slots[is.from].SetUp) == plan.GroupOf(s.Slots[was.to-1].SetUp)
		if !heavy && !fresh {
			continue
		}
		what := "what comes first for this client is done fresh"
		switch {
		case a.t.Prefer.Is(person.AxisOrder, "isolate_first"):
			what = "this client’s order is the arm alone first"
		case heavy && a.t.Prefer.Is(person.AxisOrder, "priority_first"):
			what = "this client’s order is priority first"
		case heavy:
			what = "heavy work of several joints goes first; one-joint triceps work before a press costs the chest"
		}
		a.add(Found{Key: "order:" + s.ID.String(), Code: "order", Severity: Note, Session: i, Slot: is.from, Why: whys["order"],
			Text: fmt.Sprintf("%s: slot %d comes late: %s.", s.Name, is.from+1, what)}, func() *Fix {
			return a.change("Put the session in that order", func(w *Week) bool {
				w.Sessions[i].Slots = a.inOrder(i, runs)
				return true
			})
		})
		return
	}
}

// cold finds sessions that begin with what is hard on the elbow without a warm-up.
func (a *auditor) cold(i int) {
	s := &a.week.Sessions[i]
	if len(s.Slots) == 0 || s.WarmUpMin >= warmUpForDeep {
		return
	}
	scores := a.t.memo().look(s.Slots[0].SetUp).joints
	if scores.ElbowBack >= 3 || scores.ElbowFront >= 3 {
		a.add(Found{Key: "cold:" + s.ID.String(), Code: "cold", Severity: Warn, Session: i, Slot: 0, Why: whys["cold"],
			Text: fmt.Sprintf(
				"%s begins with %s, hard on the elbow, after %g minutes of warm-up.",
				s.Name,
				names(s.Slots[0].SetUp),
				s.WarmUpMin,
			)}, func() *Fix {
			return a.change("Warm up 5 minutes first", func(w *Week) bool {
				w.Sessions[i].WarmUpMin = 5
				return true
			})
		})
	}
}
