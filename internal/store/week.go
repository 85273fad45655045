package store

import (
	"context"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/entry"
	"musculus/internal/core/movement"
	"musculus/internal/core/series"
	"musculus/internal/store/db"
)

// SessionsBetween returns a client's sessions of some days, both included.
func (t *Tx) SessionsBetween(ctx context.Context, client uuid.UUID, first, last day.Day, c *movement.Catalogue) ([]Session, error) {
	rows, err := t.q.SessionsBetween(ctx, db.SessionsBetweenParams{ClientID: client, FirstDay: first, LastDay: last})
	if err != nil {
		return nil, err
	}
	return sessions(rows, c)
}

// Longest look back for a series, and the longest pause in which it is still the
// same stretch of training.
const (
	lookBack     = 400 * 24 * time.Hour
	longestPause = 21 * 24 * time.Hour
)

// Since tells from which day each series has been trained, those done within
// three weeks of now.
func (t *Tx) Since(ctx context.Context, client uuid.UUID, now time.Time) (map[string]day.Day, error) {
	rows, err := t.q.SeriesSince(ctx, db.SeriesSinceParams{ClientID: client, After: now.Add(-lookBack)})
	if err != nil {
		return nil, err
	}
	out := map[string]day.Day{}
	for _, r := range rows {
		if now.Sub(r.LastAt) <= longestPause {
			out[r.Series] = day.At(r.FirstAt.In(t.zone))
		}
	}
	return out, nil
}

// How many of a series' sets are looked at, and how far back clean weeks are
// counted, days.
const (
	lookedAt   = 60
	cleanWeeks = 256
)

// Own tells what each series of a client says by now; clean weeks are counted
// further back.
func (t *Tx) Own(ctx context.Context, client uuid.UUID, now time.Time, c *movement.Catalogue) (map[string]series.Own, error) {
	rows, err := t.q.LastSets(ctx, db.LastSetsParams{ClientID: client, After: now.AddDate(0, 0, -cleanWeeks), Most: lookedAt})
	if err != nil {
		return nil, err
	}
	out, sets, weeks := map[string]series.Own{}, map[string][]entry.Said{}, map[string]map[int]bool{}
	for _, r := range rows {
		own, known := out[r.Series]
		if !known {
			weeks[r.Series] = map[int]bool{}
			if own.SetUp, err = setUpOfEntry(r.SetUp, c); err != nil {
				return nil, err
			}
		}
		if !r.Technical && r.Hollow == "" && len(r.Faults) == 0 {
			weeks[r.Series][int(day.At(r.DoneAt.In(t.zone)).Monday())] = true
			own.Weeks = len(weeks[r.Series])
		}
		sets[r.Series] = append(
			sets[r.Series],
			entry.Said{
				On:        day.At(r.DoneAt.In(t.zone)),
				LoadKg:    r.LoadKg,
				Reps:      r.Reps,
				Reserve:   r.Reserve,
				Technical: r.Technical,
				Hollow:    r.Hollow != "",
			},
		)
		out[r.Series] = own
	}
	for key, own := range out {
		own.E1RM, own.Logged = series.Says(sets[key], day.At(now.In(t.zone)))
		out[key] = own
	}
	return out, nil
}

// Accepted is a finding the coach let stand, with her reason.
type Accepted struct {
	Reason, By string
	At         time.Time
}

// AcceptFinding keeps that a finding is accepted, or no longer is; sending it
// twice keeps it once, sending another under its id is ErrTaken.
func (t *Tx) AcceptFinding(ctx context.Context, id, client uuid.UUID, key string, accepted bool, reason string, by uuid.UUID) error {
	n, err := t.q.AcceptFinding(
		ctx,
		db.AcceptFindingParams{AcceptedID: id, ClientID: client, Finding: key, Accepted: accepted, Reason: reason, MadeBy: by},
	)
	return once(n, err, func() (bool, error) {
		return t.q.SameAcceptance(
			ctx,
			db.SameAcceptanceParams{AcceptedID: id, ClientID: client, Finding: key, Accepted: accepted, Reason: reason},
		)
	})
}

// AcceptedFindings returns what is accepted, by the finding's key.
func (t *Tx) AcceptedFindings(ctx context.Context, client uuid.UUID) (map[string]Accepted, error) {
	rows, err := t.q.AcceptedFindings(ctx, client)
	if err != nil {
		return nil, err
	}
	out := map[string]Accepted{}
	for _, r := range rows {
		out[r.Finding] = Accepted{r.Reason, r.ByName, r.MadeAt}
	}
	return out, nil
}

// PlannedIn are the clients of the studio who have a session planned between two days.
func (t *Tx) PlannedIn(ctx context.Context, first, last day.Day) (map[uuid.UUID]bool, error) {
	rows, err := t.q.PlannedIn(ctx, db.PlannedInParams{FirstDay: first, LastDay: last})
	out := map[uuid.UUID]bool{}
	for _, id := range rows {
		out[id] = true
	}
	return out, err
}
