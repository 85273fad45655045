package week

import (
	"context"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/entry"
	"musculus/internal/core/floor"
	"musculus/internal/core/week"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// weekRead is a week that was read, with what was done of it.
type weekRead struct {
	op.WeekRead
	done   map[uuid.UUID][]entry.Entry
	events map[uuid.UUID][]floor.Event
}

// readWeekOf reads what a week is audited against, and what was done of it.
func (s *place) readWeekOf(ctx context.Context, tx *store.Tx, c *store.Client, in week.Span, kept []store.Session) (r weekRead, err error) {
	if r.WeekRead, err = s.ReadWeekOf(ctx, tx, c, in, kept); err != nil {
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
	for _, e := range floor.Seen(events, c.Dossier.HealthConsent != nil) {
		r.events[e.Session] = append(r.events[e.Session], e)
	}
	return r, err
}

// showDone tells the board what was done of each session, and the ledger what each head got of it.
func (r *weekRead) showDone(a *op.AuditedWeek, today day.Day, out *WeekView) {
	var sum floor.Sum
	for i := range a.Week.Sessions {
		id := r.Kept[i].ID
		ran := floor.Ran{Session: &a.Week.Sessions[i].Session, Over: r.Kept[i].On < today, Entries: r.done[id], Events: r.events[id]}
		out.Sessions[i].Done = sum.CameOf(a.T, &ran)
	}
	for h := range out.Ledger.Heads {
		if sum.Began {
			out.Ledger.Heads[h].Done = &HeadDone{view.Round4(sum.Done[h]), view.Round4(sum.Undone[h])}
		}
	}
}

// HeadDone is what of a head's effective sets was done so far, and what will not be.
type HeadDone struct {
	Done   float64 `json:"done"`
	Undone float64 `json:"undone"`
}
