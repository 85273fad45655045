package decide

import (
	"cmp"
	"math"
	"slices"

	"musculus/internal/core/arm"
	"musculus/internal/core/fitting"
	"musculus/internal/core/floor"
	"musculus/internal/core/log"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

// nearlyAsMuch is which part of what a set gives a head another set-up must give it, too.
const nearlyAsMuch = 0.7

// mainHead is the head a set-up serves most.
func mainHead(t *week.Trainee, s movement.SetUp) arm.HeadIndex {
	gives, _ := t.Gives(s)
	best := arm.HeadIndex(0)
	for h := range gives {
		if gives[h].Mid > gives[best].Mid {
			best = arm.HeadIndex(h)
		}
	}
	return best
}

// served is which part of what it gives its main head a set-up has to give another one to serve it.
const served = 0.75

// needs is the head that a set-up serves and that the week leaves shortest: a set more is for it, and
// a set less only where even it has enough.
func needs(t *week.Trainee, s movement.SetUp, l *week.Ledger) arm.HeadIndex {
	gives, _ := t.Gives(s)
	best := mainHead(t, s)
	most := gives[best].Mid
	room := func(h arm.HeadIndex) float64 { return l.Heads[h].Total.Mid - l.Heads[h].Target.Low }
	for h := range gives {
		if i := arm.HeadIndex(h); gives[h].Mid >= served*most && room(i) < room(best) {
			best = i
		}
	}
	return best
}

// otherOf is the nearest set-up that serves a head about as much and gives more at the length the
// week has least of; false where there is none.
func otherOf(t *week.Trainee, c *movement.Catalogue, s movement.SetUp, h arm.HeadIndex, zones [3]float64) (found movement.SetUp, ok bool) {
	shape := t.Shape(s)
	if shape == nil {
		return s, false
	}
	heads, own := t.Gives(s)
	lacks := 0
	for z := range zones {
		if zones[z] < zones[lacks] {
			lacks = z
		}
	}
	best := math.Inf(1)
	for _, m := range c.Movements {
		if m == s.Movement || m.TopRange || m.Action == movement.Turn {
			continue
		}
		for _, o := range m.Default().Ways() {
			of := t.Shape(o)
			if of == nil || plan.GroupOf(o) != plan.GroupOf(s) || !t.May(o) {
				continue
			}
			gives, at := t.Gives(o)
			d := fitting.Distance(shape, of)
			if gives[h].Mid < nearlyAsMuch*heads[h].Mid || at[h][lacks] <= own[h][lacks] || d >= best {
				continue
			}
			found, best, ok = o, d, true
		}
	}
	return found, ok
}

// kinderOf is the nearest set-up that is kinder to the joint that scored worst of late.
func kinderOf(t *week.Trainee, c *movement.Catalogue, s movement.SetUp, scores []Score) (movement.SetUp, bool) {
	worst := Score{Score: -1}
	for _, x := range scores {
		if x.Score >= worst.Score {
			worst = x
		}
	}
	if worst.Score < 0 {
		return s, false
	}
	r := floor.Report{Side: person.Left, Joint: worst.Joint, Score: worst.Score, First: -1}
	for _, o := range floor.Ladder(t, c, s, &r, worst.Score) {
		if o.Kind == floor.Kinder || o.Kind == floor.ByCable {
			return o.SetUp, true
		}
	}
	return s, false
}

// nextOf is how a row of a slot is planned.
func nextOf(t *week.Trainee, s *plan.Session, i, row int) *Next {
	slot, f := &s.Slots[i], t.Floor()
	r := &slot.Rows[row]
	rack := f.Rack(slot.SetUpIn(row))
	n := &Next{Band: bandOf(slot, row), RestS: s.RestAfter(i, row), LeastRest: t.LeastRest(r.RepsLow), LowerS: r.Tempo[0],
		Body:  rack.Carry == person.BodyWeight,
		Words: func(hand float64) string { return rack.Words(rack.Carry.Whole(hand, rack.Rigging)) }}
	if hand := s.Hand(i, row, f); hand != nil {
		n.HandKg = *hand
	}
	for _, whole := range rack.Steps {
		n.Marks = append(n.Marks, rack.Carry.PerHand(whole, rack.Rigging))
	}
	return n
}

// bandOf is the dose of a row, with the sets of all rows like it.
func bandOf(slot *plan.Slot, row int) Band {
	r := &slot.Rows[row]
	b := Band{Low: r.RepsLow, High: r.RepsHigh, Reserve: r.Reserve}
	key := slot.SetUpIn(row).Key()
	for k := range slot.Rows {
		if slot.SetUpIn(k).Key() == key {
			b.Sets += slot.Rows[k].Each()
		}
	}
	return b
}

// rowOf is the first row of a session that a series is fed by; false for none.
func rowOf(s *plan.Session, key string, f *plan.Floor) (slot, row int, ok bool) {
	for i := range s.Slots {
		for k := range s.Slots[i].Rows {
			if s.Slots[i].SetUpIn(k).Key() == key && log.Hollow(s, i, k, f) == "" {
				return i, k, true
			}
		}
	}
	return 0, 0, false
}

// mostPartners are how many set-ups are offered for the other arm of a pair trial.
const mostPartners = 8

// PartnersOf are the set-ups nearest to one by profile that one arm can do alone, of the same
// muscle group and free for the client: what the other arm may do in a pair trial.
func PartnersOf(t *week.Trainee, c *movement.Catalogue, s movement.SetUp) []movement.SetUp {
	shape := t.Shape(s)
	if shape == nil {
		return nil
	}
	type near struct {
		set movement.SetUp
		by  float64
	}
	var all []near
	for _, m := range c.Movements {
		if m.TopRange || m.Action == movement.Turn || m == s.Movement {
			continue
		}
		best := near{by: math.Inf(1)}
		for _, o := range m.Default().Ways() {
			of := t.Shape(o)
			if of == nil || o.ArmsInTurn() != 2 || plan.GroupOf(o) != plan.GroupOf(s) || !t.May(o) {
				continue
			}
			if d := fitting.Distance(shape, of); d < best.by {
				best = near{o, d}
			}
		}
		if best.set.Movement != nil {
			all = append(all, best)
		}
	}
	slices.SortStableFunc(all, func(a, b near) int { return cmp.Compare(a.by, b.by) })
	var out []movement.SetUp
	for _, x := range all[:min(len(all), mostPartners)] {
		out = append(out, x.set)
	}
	return out
}
