package week

import (
	"slices"

	"musculus/internal/core/dose"
)

// same says whether two slots prescribe the same, whatever they are called.
func (s *Slot) same(o *Slot) bool {
	return s.SetUp.Key() == o.SetUp.Key() && sameDose(&s.Dose, &o.Dose) && s.Starts == o.Starts && s.CueReason == o.CueReason && slices.Equal(s.Cues, o.Cues) && s.sameGrips(o)
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
