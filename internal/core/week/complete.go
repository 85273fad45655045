package week

import (
	"fmt"

	"musculus/internal/core/movement"
)

// Incomplete lists what a sheet still lacks: sets, reps, effort and rest of every
// slot, one error a field. A set-up whose load is to be found is complete.
func (s *Session) Incomplete() []*movement.FieldError {
	var out []*movement.FieldError
	lacks := func(i int, field, what string) {
		out = append(out, &movement.FieldError{Field: fmt.Sprintf("slots[%d].%s", i, field), Reason: fmt.Sprintf("slot %d, %s, has no %s", i+1, names(s.Slots[i].SetUp), what)})
	}
	if len(s.Slots) == 0 {
		out = append(out, &movement.FieldError{Field: "slots", Reason: "there is nothing in the session yet"})
	}
	for i := range s.Slots {
		d := &s.Slots[i].Dose
		if d.Sets < 1 {
			lacks(i, "dose.sets", "sets")
		}
		if d.RepsLow < 1 {
			lacks(i, "dose.reps_low", "reps")
		}
		if d.Reserve < 0 {
			lacks(i, "dose.reserve", "effort")
		}
		if d.RestS == 0 && !(i+1 < len(s.Slots) && s.joined(i, i+1)) {
			lacks(i, "dose.rest_s", "rest")
		}
	}
	return out
}
