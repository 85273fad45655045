package floor

import (
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

// pain works out beforehand what may be tried with each joint.
func (l *Line) pain(t *week.Trainee, c *movement.Catalogue, slot *plan.Slot) {
	at := map[string]int{}
	for k, j := range movement.Joints {
		l.After[k] = AfterPain(slot, j)
		for n, now := range []int{leastNow, overPain} {
			l.Ladder[k][n] = -1
			r := Report{Side: person.Right, Joint: j, Score: overPain + 1, First: -1}
			offers := Ladder(t, c, slot.SetUp, &r, now)
			if len(offers) == 0 {
				continue
			}
			o := offers[0]
			key := string(o.Kind) + o.SetUp.Key()
			if _, known := at[key]; !known {
				at[key] = len(l.Tries)
				l.Tries = append(l.Tries, l.try(t, o))
			}
			l.Ladder[k][n] = at[key]
		}
	}
}

// Where a try begins: two marks lighter in the same set-up, else half of what was lifted.
const (
	tryMarks = 2
	tryShare = 0.5
)

// try is an offer with the loads there are for it.
func (l *Line) try(t *week.Trainee, o Offer) Try {
	rack := t.Floor().Rack(o.SetUp)
	out := Try{Offer: o, Steps: byHand(&rack)}
	planned := 0
	if len(l.Rows) > 0 && len(l.Rows[0].Loads) > 0 {
		planned = l.Rows[0].Loads[0]
	}
	if o.Kind == Lighter {
		out.Start = max(0, planned-tryMarks)
		return out
	}
	most := 0.0
	if len(l.Advice.Marks) > 0 {
		most = tryShare * l.Advice.Marks[l.Advice.Rows[0].Mark]
	}
	for k, whole := range out.Steps {
		if rack.Carry.PerHand(whole, rack.Rigging) <= most {
			out.Start = k
		}
	}
	return out
}
