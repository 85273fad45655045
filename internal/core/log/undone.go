package log

import (
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/plan"
)

// Undone is what of a plan is not done, as a session to be counted: of each slot the last sets,
// so many as left says, of all arms.
func Undone(s *plan.Session, left map[uuid.UUID]int) plan.Session {
	out := plan.Session{Combos: s.Combos}
	for i := range s.Slots {
		slot := s.Slots[i]
		arms := len(Sides(&slot))
		n := (left[slot.ID] + arms - 1) / arms
		if n <= 0 {
			continue
		}
		slot.Rows = slices.Clone(slot.Rows)
		for k := range slot.Rows {
			if over := slot.Sets() - n; over > 0 {
				slot.Rows[k].Sets -= min(over, slot.Rows[k].Sets)
			}
		}
		slot.Rows = slices.DeleteFunc(slot.Rows, func(r plan.Row) bool { return r.Sets == 0 })
		if len(slot.Rows) > 0 {
			out.Slots = append(out.Slots, slot)
		}
	}
	return out
}
