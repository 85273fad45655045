package week

import (
	"context"
	"fmt"
	"strings"

	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/entry"
	"musculus/internal/core/floor"
	"musculus/internal/core/log"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// BoardDone is what of a session was done so far.
type BoardDone struct {
	Sets    int    `json:"sets"` // of all arms
	Planned int    `json:"planned"`
	Words   string `json:"words"` // what is not done and why, empty for nothing
}

// weekRead is a week that was read, with what was done of it.
type weekRead struct {
	op.WeekRead
	done   map[uuid.UUID][]entry.Entry
	events map[uuid.UUID][]floor.Event
}

// readWeekOf reads what a week is audited against, and what was done of it.
func (s *place) readWeekOf(ctx context.Context, tx *store.Tx, c *store.Client, from day.Day, kept []store.Session) (r weekRead, err error) {
	if r.WeekRead, err = s.ReadWeekOf(ctx, tx, c, from, kept); err != nil {
		return r, err
	}
	var ids []uuid.UUID
	for i := range kept {
		ids = append(ids, kept[i].ID)
	}
	if r.done, err = tx.EntriesOf(ctx, ids, op.Movements(ctx)); err != nil {
		return r, err
	}
	events, err := tx.FloorEvents(ctx, c.ID, ids...)
	r.events = map[uuid.UUID][]floor.Event{}
	for _, e := range floor.Standing(events) {
		r.events[e.Session] = append(r.events[e.Session], e)
	}
	return r, err
}

// came is what of a week was done, and what will not be.
type came struct {
	boards       map[uuid.UUID]*BoardDone
	done, undone [arm.HeadCount]float64 // effective sets
	began        bool
}

// cameOf counts what was done of each session against its plan: what a session that is over
// lacks is not done, of today's only what was left out.
func (r *weekRead) cameOf(t *week.Trainee, w *week.Week, kept []store.Session, today day.Day) came {
	out := came{boards: map[uuid.UUID]*BoardDone{}}
	add := func(to *[arm.HeadCount]float64, s *plan.Session) {
		if len(s.Slots) > 0 {
			counted := t.Count(s)
			for h := range to {
				to[h] += counted.Heads[h].Mid
			}
		}
	}
	for i := range w.Sessions {
		s, id := &w.Sessions[i].Session, kept[i].ID
		entries, events := r.done[id], r.events[id]
		left, why := leftOf(events)
		if len(entries) == 0 && len(left) == 0 && kept[i].On >= today {
			continue // it is to come
		}
		board := &BoardDone{Sets: len(entries)}
		var lacks []string
		missed := map[uuid.UUID]int{}
		for k := range s.Slots {
			board.Planned += s.Slots[k].Sets() * len(log.Sides(&s.Slots[k]))
		}
		for _, m := range log.MissedOf(s, entries) {
			slot := &s.Slots[m.Slot]
			n := m.Sets
			if kept[i].On >= today {
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
			board.Words = "not done: " + strings.Join(lacks, ", ")
		}
		out.boards[id] = board
		out.began = true
		did, not := log.Came(s, entries), log.Undone(s, missed)
		add(&out.done, &did)
		add(&out.undone, &not)
	}
	return out
}

// leftOf are the sets that were left out of each slot, of all arms, and why at last.
func leftOf(events []floor.Event) (sets map[uuid.UUID]int, why map[uuid.UUID]floor.Reason) {
	sets, why = map[uuid.UUID]int{}, map[uuid.UUID]floor.Reason{}
	for i := range events {
		if l := events[i].LeftOut; l != nil {
			sets[l.Slot] += l.Sets
			why[l.Slot] = l.Reason
		}
	}
	return sets, why
}

// show tells the board what was done.
func (c *came) show(out *WeekView) {
	for i := range out.Sessions {
		out.Sessions[i].Done = c.boards[out.Sessions[i].ID]
	}
	if !c.began {
		return
	}
	for h := range out.Ledger.Heads {
		out.Ledger.Heads[h].Done = &HeadDone{view.Round4(c.done[h]), view.Round4(c.undone[h])}
	}
}

// HeadDone is what of a head's effective sets was done so far, and what will not be.
type HeadDone struct {
	Done   float64 `json:"done"`
	Undone float64 `json:"undone"`
}
