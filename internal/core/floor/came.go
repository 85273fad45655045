package floor

import (
	"fmt"
	"strings"

	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/entry"
	"musculus/internal/core/log"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

// Ran is a session with what was told of it.
type Ran struct {
	Session *plan.Session
	Over    bool // its day is past: what it lacks is not done
	Entries []entry.Entry
	Events  []Event // standing
}

// Came is what of a session was done.
type Came struct {
	Sets    int    `json:"sets"` // of all arms
	Planned int    `json:"planned"`
	Words   string `json:"words"` // what is not done and why, empty for nothing
}

// Sum is what of some sessions was done and what will not be, effective sets by head.
type Sum struct {
	Done, Undone [arm.HeadCount]float64
	Began        bool // any of them
}

// CameOf counts a session against its plan; nil for one that is to come. Of one that is not over
// only what was left out is not done.
func (sum *Sum) CameOf(t *week.Trainee, r *Ran) *Came {
	left, why := leftOut(r.Events)
	if len(r.Entries) == 0 && len(left) == 0 && !r.Over {
		return nil
	}
	s := r.Session
	out := &Came{Sets: len(r.Entries)}
	var lacks []string
	missed := map[uuid.UUID]int{}
	for k := range s.Slots {
		out.Planned += s.Slots[k].Sets() * len(log.Sides(&s.Slots[k]))
	}
	for _, m := range log.MissedOf(s, r.Entries) {
		slot, n := &s.Slots[m.Slot], m.Sets
		if !r.Over {
			n = min(n, left[slot.ID])
		}
		if n == 0 {
			continue
		}
		missed[slot.ID] = n
		words := fmt.Sprintf("%d of %s", n, slot.SetUp.Short())
		if why[slot.ID] != "" {
			words += " (" + why[slot.ID].Words() + ")"
		}
		lacks = append(lacks, words)
	}
	if len(lacks) > 0 {
		out.Words = "not done: " + strings.Join(lacks, ", ")
	}
	sum.Began = true
	did, not := log.Came(s, r.Entries), log.Undone(s, missed)
	add(t, &sum.Done, &did)
	add(t, &sum.Undone, &not)
	return out
}

func add(t *week.Trainee, to *[arm.HeadCount]float64, s *plan.Session) {
	if len(s.Slots) == 0 {
		return
	}
	counted := t.Count(s)
	for h := range to {
		to[h] += counted.Heads[h].Mid
	}
}

// leftOut are the sets that were left out of each slot, of all arms, and why at last.
func leftOut(events []Event) (sets map[uuid.UUID]int, why map[uuid.UUID]Reason) {
	sets, why = map[uuid.UUID]int{}, map[uuid.UUID]Reason{}
	for i := range events {
		if l := events[i].LeftOut; l != nil {
			sets[l.Slot] += l.Sets
			why[l.Slot] = l.Reason
		}
	}
	return sets, why
}
