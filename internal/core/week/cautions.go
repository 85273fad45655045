package week

import (
	"slices"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
)

// Cautions says what keeps somebody safe in one slot, a sentence each: the set-up's
// own, and what its load and method add to them.
func (s *Session) Cautions(t *Trainee, i int) []string {
	slot := &s.Slots[i]
	out := slot.SetUp.Cautions()
	if slot.SetUp.Movement.Action == movement.Dip && t.added(slot, s.Place(i)) > 0 || slot.SetUp.Movement.Added {
		out[0] = "With load not to the limit alone: keep at least one rep." // instead of what the set-up without it says
	}
	if m := dose.MethodOf(slot.Dose.Method.ID); m != nil && m.Caution != "" && !slices.Contains(out, m.Caution) {
		out = append(out, m.Caution)
	}
	return out
}
