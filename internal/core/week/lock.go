package week

import (
	"slices"

	"musculus/internal/core/dose"
)

// same says whether two slots prescribe the same, whatever they are called.
func (s *Slot) same(o *Slot) bool {
	return s.SetUp.Key() == o.SetUp.Key() && sameDose(&s.Dose, &o.Dose) && s.Starts == o.Starts && slices.Equal(s.Cues, o.Cues) && s.sameGrips(o)
}

func (s *Slot) sameGrips(o *Slot) bool {
	if len(s.Grips) != len(o.Grips) {
		return false
	}
	for i := range s.Grips {
		if s.Grips[i].Key() != o.Grips[i].Key() {
			return false
		}
	}
	return true
}

func sameDose(a, b *dose.Dose) bool {
	if (a.LoadKg == nil) != (b.LoadKg == nil) || a.LoadKg != nil && *a.LoadKg != *b.LoadKg {
		return false
	}
	for n := range max(a.Each(), b.Each()) {
		if a.ReserveOf(n) != b.ReserveOf(n) {
			return false
		}
	}
	return a.Sets == b.Sets && a.RepsLow == b.RepsLow && a.RepsHigh == b.RepsHigh && a.RestS == b.RestS && a.Tempo == b.Tempo && a.Method == b.Method
}

// locked says whether a fix must leave a slot alone.
func (p *Planned) locked(slot int) bool { return p.Locked || p.Slots[slot].Locked }

// keeps says whether a week after a fix has everything that is locked as it was.
func (w *Week) keeps(after *Week) bool {
	for i := range w.Sessions {
		was, is := &w.Sessions[i], &after.Sessions[i]
		if was.Locked && (was.On != is.On || was.WarmUpMin != is.WarmUpMin || len(was.Slots) != len(is.Slots)) {
			return false
		}
		for j := range was.Slots {
			if !was.locked(j) {
				continue
			}
			k := slices.IndexFunc(is.Slots, func(s Slot) bool { return s.Ref == was.Slots[j].Ref })
			if k < 0 || !was.Slots[j].same(&is.Slots[k]) || was.Slots[j].Combo != is.Slots[k].Combo || was.Locked && k != j {
				return false
			}
		}
	}
	return true
}
