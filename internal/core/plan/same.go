package plan

import "slices"

// Same says whether two slots prescribe the same, whatever they are called.
func (s *Slot) Same(o *Slot) bool {
	return s.SameWork(o) && s.Starts == o.Starts && s.CueReason == o.CueReason && slices.Equal(s.Cues, o.Cues)
}

// SameWork says whether two slots ask for the same sets of the same set-ups.
func (s *Slot) SameWork(o *Slot) bool {
	if s.SetUp.Key() != o.SetUp.Key() || len(s.Rows) != len(o.Rows) {
		return false
	}
	for i := range s.Rows {
		a, b := &s.Rows[i], &o.Rows[i]
		x, y := a.Dose, b.Dose
		x.Load, y.Load = nil, nil
		if x != y || !s.Asked(i).Same(o.Asked(i)) || s.SetUpIn(i).Key() != o.SetUpIn(i).Key() {
			return false
		}
	}
	return true
}

// Same says whether two sessions ask for the same in the same order.
func (s *Session) Same(o *Session) bool {
	if s.WarmUpMin != o.WarmUpMin || s.Intent != o.Intent || s.Locked != o.Locked || len(s.Slots) != len(o.Slots) ||
		!slices.Equal(s.Combos, o.Combos) {
		return false
	}
	for i := range s.Slots {
		a, b := &s.Slots[i], &o.Slots[i]
		if a.ID != b.ID || a.Combo != b.Combo || a.Locked != b.Locked || !a.Same(b) {
			return false
		}
	}
	return true
}
