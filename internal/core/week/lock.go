package week

import (
	"slices"

	"musculus/internal/core/plan"
)

// locked says whether a fix must leave a slot alone.
func locked(p *plan.Planned, slot int) bool { return p.Locked || p.Slots[slot].Locked }

// keeps says whether a week after a fix has everything that is locked as it was.
func (w *Week) keeps(after *Week) bool {
	for i := range w.Sessions {
		was, is := &w.Sessions[i], &after.Sessions[i]
		if was.Locked && (was.On != is.On || was.WarmUpMin != is.WarmUpMin || len(was.Slots) != len(is.Slots)) {
			return false
		}
		for j := range was.Slots {
			if !locked(was, j) {
				continue
			}
			if c := was.ComboOf(was.Slots[j].Combo); c != nil { // its rests are part of what is locked
				if now := is.ComboOf(c.ID); now != nil && *now != *c {
					return false
				}
			}
			k := slices.IndexFunc(is.Slots, func(s plan.Slot) bool { return s.ID == was.Slots[j].ID })
			if k < 0 || !was.Slots[j].Same(&is.Slots[k]) || was.Slots[j].Combo != is.Slots[k].Combo || was.Locked && k != j {
				return false
			}
		}
	}
	return true
}
