package week

import (
	"math"

	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
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
		ok = a.t.May(s)
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
		if it.worth(h, zone) <= most*nearlyAll {
			continue
		}
		way, ok := a.way(it)
		if !ok {
			continue
		}
		x := way.worth(h, zone)
		if x <= most || a.has(s, way) {
			continue
		}
		found, most = way, x
	}
	return found
}

// nearlyAll is how much of what a default gives another way to hold it may give, at
// the least: what is hopeless by it is not looked at.
const nearlyAll = 0.8

// way is an item as the client may do it in her room: as it is, or with what is there
// instead; false where it cannot be.
func (a *auditor) way(it *item) (*item, bool) {
	if a.fits(it.shape.SetUp) {
		return it, true
	}
	if got, asked := a.ways[it]; asked {
		return got, got != nil
	}
	var out *item
	for _, way := range it.shape.SetUp.Ways()[1:] {
		if !a.fits(way) {
			continue
		}
		if shape := a.t.memo().look(way).shape; shape != nil {
			one := plan.Of(way, dose.Dose{Sets: 1})
			out = &item{*shape, a.t.memo().countSlot(&one, plan.Turns{})}
			break
		}
	}
	if a.ways == nil {
		a.ways = map[*item]*item{}
	}
	a.ways[it] = out
	return out, out != nil
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

// instead is the nearest set-up of the same muscle group that the client may do in her room: a
// curl is no extension, however near their profiles.
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
		if it.shape.SetUp.Key() == s.Key() || plan.GroupOf(it.shape.SetUp) != plan.GroupOf(s) ||
			fitting.Distance(of, &it.shape) >= best+fitting.SameIdea {
			continue
		}
		if way, ok := a.way(it); ok && way.shape.SetUp.Key() != s.Key() {
			if d := fitting.Distance(of, &way.shape); d < best {
				found, best = way.shape.SetUp, d
			}
		}
	}
	return found, !math.IsInf(best, 1)
}

// nearest is the item nearest to a shape, of those the client may do and that are
// wanted; nil for none.
func (a *auditor) nearest(of *fitting.Shape, wanted func(*effort.Profile, *item) bool) *item {
	var found *item
	best := math.Inf(1)
	for i := range a.shelf.items {
		it := &a.shelf.items[i]
		d := fitting.Distance(of, &it.shape)
		if d >= best || !wanted(it.shape.Profile, it) {
			continue
		}
		if way, ok := a.way(it); ok && wanted(way.shape.Profile, way) {
			found, best = way, d
		}
	}
	return found
}
