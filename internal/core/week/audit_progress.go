package week

import (
	"fmt"

	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
)

// standingStill finds set-ups that have been trained all along for eight weeks.
func (a *auditor) standingStill() {
	if a.t.Prefer.Is(person.AxisVariety, "keep") {
		return
	}
	most := sameFor
	if a.t.Prefer.Is(person.AxisVariety, "often") {
		most = sameFor / 2
	}
	for i := range a.week.Sessions {
		for j := range a.week.Sessions[i].Slots {
			s := &a.week.Sessions[i].Slots[j]
			since, ok := a.t.Aims.Since[s.SetUp.Key()]
			if !ok || int(a.t.Aims.Today-since) < most {
				continue
			}
			a.add(Found{Key: "same:" + s.ID.String(), Code: "same", Severity: Note, Session: i, Slot: j, Why: whys["same"],
				Text: fmt.Sprintf(
					"%s: %s has been the same since %s.",
					a.week.Sessions[i].Name,
					names(s.SetUp),
					since.Words(),
				)}, func() *Fix {
				return a.rotate(i, j)
			})
		}
	}
}

// rotate takes the nearest other set-up.
func (a *auditor) rotate(i, j int) *Fix {
	to, ok := a.instead(a.week.Sessions[i].Slots[j].SetUp)
	if !ok {
		return nil
	}
	return a.change("Use "+names(to)+" instead, one thing at a time", func(w *Week) bool {
		a.t.TakeUp(&w.Sessions[i].Session, j, to)
		return true
	})
}

// unchanged finds a week that asks for exactly what the one before asked for.
func (a *auditor) unchanged() {
	before := a.t.Aims.Before
	if before == nil {
		return
	}
	var was []*plan.Slot
	for i := range before.Sessions {
		for j := range before.Sessions[i].Slots {
			was = append(was, &before.Sessions[i].Slots[j])
		}
	}
	slots := 0
	for i := range a.week.Sessions {
		for j := range a.week.Sessions[i].Slots {
			slot := &a.week.Sessions[i].Slots[j]
			found := -1
			for k, o := range was {
				if o != nil && slot.SameWork(o) {
					found = k
				}
			}
			if found < 0 {
				return
			}
			was[found] = nil
			slots++
		}
	}
	if slots == 0 || slots != len(was) {
		return
	}
	a.add(
		Found{
			Key:      "unchanged:" + a.week.Sessions[0].ID.String(),
			Code:     "unchanged",
			Severity: Note,
			Session:  -1,
			Slot:     -1,
			Why:      whys["unchanged"],
			Text:     "Nothing has changed since the week before: the same set-ups, sets, reps and loads.",
		},
		func() *Fix {
			return a.oneRepMore()
		},
	)
}

// oneRepMore asks for a rep more where it serves what is aimed at most.
func (a *auditor) oneRepMore() *Fix {
	si, sj := a.week.most(func(i, j int) (x float64, ok bool) {
		for h, e := range a.ledger.Sessions[i].Slots[j].Heads {
			if a.ledger.Heads[h].Level == priority.Prioritise {
				x += 2 * e.Mid
			}
			x += e.Mid
		}
		return x, true
	})
	if si < 0 {
		return nil
	}
	s := &a.week.Sessions[si]
	return a.change("One rep more of "+names(s.Slots[sj].SetUp)+" in "+s.Name, func(w *Week) bool {
		w.Sessions[si].Slots[sj].Each(func(r *plan.Row) { r.RepsLow, r.RepsHigh = r.RepsLow+1, r.RepsHigh+1 })
		return len(a.t.checkSlot(&w.Sessions[si].Session, sj)) == 0
	})
}
