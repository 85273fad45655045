package week

import (
	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
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
		one := Slot{SetUp: m.Default(), Dose: dose.Dose{Sets: 1}}
		out.items = append(out.items, item{shape, one.Count(y, st)})
	}
	return out
}

// fits says whether a client may do a set-up in her room.
func fits(t *Trainee, s movement.SetUp, p *effort.Profile) bool {
	v := t.Fence.Judge(s, p)
	return !v.Barred() && v.Ruling != person.Modify && len(t.Room.Missing(s)) == 0 && !(t.Caps.NoFlatOnBack && person.FlatOnBack(s))
}

// best is what gives a head most, at a length (−1: any), of what the client may
// do and the session has not; nil when nothing gives at least least a set.
func (sh *Shelf) best(t *Trainee, s *Session, h arm.HeadIndex, zone int, least float64) *item {
	var found *item
	most := least - 1e-9
	for i := range sh.items {
		it := &sh.items[i]
		x := it.worth(h, zone)
		if x <= most || !fits(t, it.shape.SetUp, it.shape.Profile) || s != nil && sh.twice(t, s, it) {
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

// twice says whether a session has the idea already.
func (sh *Shelf) twice(t *Trainee, s *Session, it *item) bool {
	for i := range s.Slots {
		if shape, ok := fitting.ShapeOf(s.Slots[i].SetUp, t.Yardstick, t.Stance); ok && fitting.Distance(&shape, &it.shape) < fitting.SameIdea {
			return true
		}
	}
	return false
}

// instead is the nearest set-up that the client may do in her room.
func (sh *Shelf) instead(t *Trainee, s movement.SetUp) (movement.SetUp, bool) {
	of, ok := fitting.ShapeOf(s, t.Yardstick, t.Stance)
	if !ok { // it cannot even be computed: its movement at the defaults is near enough
		if of, ok = fitting.ShapeOf(s.Movement.Default(), t.Yardstick, t.Stance); !ok {
			return s, false
		}
	}
	shapes := make([]fitting.Shape, len(sh.items))
	for i := range sh.items {
		shapes[i] = sh.items[i].shape
	}
	near := fitting.Equivalents(&of, shapes, 1, func(o movement.SetUp, p *effort.Profile) bool { return fits(t, o, p) })
	if len(near) == 0 {
		return s, false
	}
	return near[0].Shape.SetUp, true
}
