package week

import (
	"math"

	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/stance"
)

// Shelf is the catalogue as fixes take from it: every movement at its defaults,
// counted for one body under one stance. It is made once and read by many.
type Shelf struct{ items []item }

type item struct {
	shape fitting.Shape
	gives SlotCount // of one hard set
}

// Stock fills a shelf; movements a body cannot do at their defaults are left out.
func Stock(c *movement.Catalogue, y *effort.Yardstick, st *stance.Stance) *Shelf {
	out := &Shelf{}
	for _, m := range c.Movements {
		shape, ok := fitting.ShapeOf(m.Default(), y, st)
		if !ok {
			continue
		}
		one := plan.Of(m.Default(), dose.Dose{Sets: 1})
		out.items = append(out.items, item{shape, CountSlot(&one, y, st)})
	}
	return out
}

// fits says whether the client may do a set-up in her room.
func (a *auditor) fits(s movement.SetUp) bool {
	key := memoKey{s.Movement, s.Key()}
	ok, asked := a.allowed[key]
	if !asked {
		v := a.t.Fence.Judge(s, a.t.memo().look(s).profile)
		ok = v.Ruling != person.Modify && !v.Barred() && len(a.t.Room.Missing(s)) == 0 && a.t.Caps.Lying(s) == ""
		a.allowed[key] = ok
	}
	return ok
}

// best is what gives a head most, at a length (−1: any), of what the client may
// do and the session has not; nil when nothing gives at least least a set.
func (a *auditor) best(s *plan.Session, h arm.HeadIndex, zone int, least float64) *item {
	var found *item
	most := least - 1e-9
	for i := range a.shelf.items {
		it := &a.shelf.items[i]
		x := it.worth(h, zone)
		if x <= most || !a.fits(it.shape.SetUp) || a.has(s, it) {
			continue
		}
		found, most = it, x
	}
	return found
}

// worth is what a set gives a head, at a length.
func (it *item) worth(h arm.HeadIndex, zone int) float64 {
	if zone < 0 {
		return it.gives.Heads[h].Mid
	}
	return it.gives.Zones[h][zone]
}

// has says whether a session has the idea already.
func (a *auditor) has(s *plan.Session, it *item) bool {
	for i := range s.Slots {
		if shape := a.t.memo().look(s.Slots[i].SetUp).shape; shape != nil && fitting.Distance(shape, &it.shape) < fitting.SameIdea {
			return true
		}
	}
	return false
}

// instead is the nearest set-up that the client may do in her room.
func (a *auditor) instead(s movement.SetUp) (movement.SetUp, bool) {
	of := a.t.memo().look(s).shape
	if of == nil { // it cannot even be computed: its movement at the defaults is near enough
		if of = a.t.memo().look(s.Movement.Default()).shape; of == nil {
			return s, false
		}
	}
	found, best := s, math.Inf(1)
	for i := range a.shelf.items {
		it := &a.shelf.items[i]
		if it.shape.SetUp.Movement == s.Movement {
			continue
		}
		if d := fitting.Distance(of, &it.shape); d < best && a.fits(it.shape.SetUp) {
			found, best = it.shape.SetUp, d
		}
	}
	return found, !math.IsInf(best, 1)
}
