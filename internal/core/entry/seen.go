package entry

import (
	"slices"

	"musculus/internal/core/movement"
)

// SeenLast lists the faults ticked in a set-up's family, by id, as past has them: the latest
// first.
func SeenLast(past []Entry, set movement.SetUp) (out []string) {
	for i := range past {
		if e := &past[i]; e.SetUp.Movement != nil && e.SetUp.Movement.Family == set.Movement.Family {
			for _, f := range e.Faults {
				if !slices.Contains(out, f) {
					out = append(out, f)
				}
			}
		}
	}
	return out
}
