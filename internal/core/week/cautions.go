package week

import (
	"slices"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
)

// Cautions says what keeps somebody safe in one slot, a sentence each: the set-up's
// own, and what its load and method add to them.
func (t *Trainee) Cautions(s *plan.Session, i int) []string {
	slot := &s.Slots[i]
	out := slot.SetUp.Cautions()
	if slot.SetUp.Movement.Action == movement.Dip && t.added(s, i) > 0 || slot.SetUp.Movement.Added {
		out[0] = "With load not to the limit alone: keep at least one rep." // instead of what the set-up without it says
	}
	for k := range slot.Rows {
		if m := dose.MethodOf(slot.Rows[k].Method.ID); m != nil && m.Caution != "" && !slices.Contains(out, m.Caution) {
			out = append(out, m.Caution)
		}
	}
	return out
}
