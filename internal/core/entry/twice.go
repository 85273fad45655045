package entry

import (
	"slices"
	"time"
)

// onceWithin is how far apart two devices may tell one and the same set.
const onceWithin = 90 * time.Second

// Doubled is a set that is told while another one stands in its place, of the same slot,
// number and arm: the one it is the same as, or the one it is asked about against. Both nil
// where the place is free. One that corrects another stands in no other's place.
func Doubled(e *Entry, standing []Entry) (same, other *Entry) {
	if e.Replaces != nil || e.Withdrawn {
		return nil, nil
	}
	for i := range standing {
		o := &standing[i]
		if o.ID == e.ID || o.SlotID != e.SlotID || o.SetNo != e.SetNo || o.Side != e.Side || o.TwiceOf != nil {
			continue
		}
		if o.Reps == e.Reps && o.LoadKg == e.LoadKg && o.Reserve == e.Reserve && sameRow(o, e) && sameSetUp(o, e) &&
			slices.EqualFunc(o.Parts, e.Parts, Part.Same) &&
			e.DoneAt.Sub(o.DoneAt).Abs() <= onceWithin {
			return o, nil
		}
		other = o
	}
	return nil, other
}

func sameSetUp(a, b *Entry) bool {
	return a.SetUp.Movement == nil || b.SetUp.Movement == nil || a.SetUp.Key() == b.SetUp.Key()
}

func sameRow(a, b *Entry) bool {
	return a.RowID == nil || b.RowID == nil || *a.RowID == *b.RowID
}

// Same says whether two parts are alike.
func (p Part) Same(o Part) bool {
	a, b := p.LoadKg, o.LoadKg
	p.LoadKg, o.LoadKg = nil, nil
	return p == o && (a == nil) == (b == nil) && (a == nil || *a == *b)
}

// Free is the first number of an arm's sets in a slot that none stands in.
func Free(standing []Entry, like *Entry) int {
	n := 0
	for i := range standing {
		if o := &standing[i]; o.SlotID == like.SlotID && o.Side == like.Side && o.ID != like.ID && o.TwiceOf == nil {
			n = max(n, o.SetNo)
		}
	}
	return n + 1
}
