package store

import (
	"context"
	"encoding/json"
	"maps"
	"math"
	"slices"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/entry"
	"musculus/internal/core/movement"
	"musculus/internal/store/db"
)

// keptSetUp is a set-up as it is kept with an entry.
type keptSetUp struct {
	Movement string                          `json:"movement"`
	Settings map[movement.Key]movement.Value `json:"settings"`
}

// AddEntry logs a set told by an account, uuid.Nil where a link told it; sending it twice logs it once, sending another under its id
// is ErrTaken.
func (t *Tx) AddEntry(ctx context.Context, e entry.Entry, by uuid.UUID) error {
	setUp, err := json.Marshal(keptSetUp{e.SetUp.Movement.ID, e.SetUp.Turned()})
	if err != nil {
		return err
	}
	parts, err := json.Marshal(append([]entry.Part{}, e.Parts...))
	if err != nil {
		return err
	}
	n, err := t.q.AddSetEntry(ctx, db.AddSetEntryParams{EntryID: e.ID, ClientID: e.ClientID, SessionID: e.SessionID, SlotID: e.SlotID,
		Series: e.SetUp.Key(), SetUp: setUp, Side: string(e.Side), SetNo: e.SetNo, Reps: e.Reps, LoadKg: e.LoadKg, Reserve: e.Reserve,
		Note: e.Note, DoneAt: e.DoneAt, LoggedBy: orNobody(by), Replaces: e.Replaces, Withdrawn: e.Withdrawn,
		Faults: append([]string{}, e.Faults...), Technical: e.Technical, Mark: string(e.Mark), Unsure: e.Unsure, RowID: e.RowID,
		Parts: parts, Hollow: e.Hollow, LinkID: e.Link, Device: e.Device, DeviceNo: e.DeviceNo, DeviceAt: e.DeviceAt,
		RestS: e.RestS, SameAs: e.SameAs, TwiceOf: e.TwiceOf})
	return once(n, err, func() (bool, error) {
		r, err := t.q.SetEntryByID(ctx, db.SetEntryByIDParams{EntryID: e.ID, SessionID: e.SessionID})
		if classify(err) == ErrNotFound {
			return false, nil
		}
		var was keptSetUp
		if err == nil {
			err = json.Unmarshal(r.SetUp, &was)
		}
		return r.SlotID == e.SlotID && r.Series == e.SetUp.Key() && maps.Equal(was.Settings, e.SetUp.Turned()) &&
			r.Side == string(e.Side) && r.SetNo == e.SetNo && r.Reps == e.Reps &&
			math.Abs(r.LoadKg-e.LoadKg) < 1e-6 && r.Reserve == e.Reserve && r.Note == e.Note && samePointer(r.Replaces, e.Replaces) &&
			r.Withdrawn == e.Withdrawn &&
			r.Technical == e.Technical && slices.Equal(r.Faults, e.Faults) &&
			sameParts(r.Parts, e.Parts), err
	})
}

// sameParts says whether what is kept are some parts.
func sameParts(kept json.RawMessage, parts []entry.Part) bool {
	var was []entry.Part
	return json.Unmarshal(kept, &was) == nil && slices.EqualFunc(was, parts, entry.Part.Same)
}

// orNobody is an account, nil for nobody's.
func orNobody(by uuid.UUID) *uuid.UUID {
	if by == uuid.Nil {
		return nil
	}
	return &by
}

func samePointer(a, b *uuid.UUID) bool {
	return a == b || a != nil && b != nil && *a == *b
}

// setUpOfEntry reads a set-up that was kept with a set; the zero value where its
// movement is gone.
func setUpOfEntry(b json.RawMessage, c *movement.Catalogue) (movement.SetUp, error) {
	var kept keptSetUp
	if err := json.Unmarshal(b, &kept); err != nil {
		return movement.SetUp{}, err
	}
	m := c.Get(kept.Movement)
	if m == nil {
		return movement.SetUp{}, nil
	}
	s, err := m.SetUp(kept.Settings)
	if err != nil {
		s = m.Default() // the limits have become narrower since
	}
	return s, nil
}

// SessionEntries returns the sets that stand in a session's log.
func (t *Tx) SessionEntries(ctx context.Context, session uuid.UUID, c *movement.Catalogue) ([]entry.Entry, error) {
	rows, err := t.q.EntriesOfSession(ctx, session)
	if err != nil {
		return nil, err
	}
	return t.entries(rows, c)
}

// LastOfSeries returns the last sets of some of the client's series, by their keys,
// newest first.
func (t *Tx) LastOfSeries(ctx context.Context, client uuid.UUID, keys []string, c *movement.Catalogue) (map[string][]entry.Entry, error) {
	rows, err := t.q.EntriesOfSeveral(
		ctx,
		db.EntriesOfSeveralParams{ClientID: client, Keys: slices.Compact(slices.Sorted(slices.Values(keys)))},
	)
	if err != nil {
		return nil, err
	}
	all, err := t.entries(rows, c)
	out := map[string][]entry.Entry{}
	for i, e := range all {
		out[rows[i].Series] = append(out[rows[i].Series], e)
	}
	return out, err
}

// SeriesEntries returns the last sets of one of the client's series, newest first.
func (t *Tx) SeriesEntries(ctx context.Context, client uuid.UUID, series string, c *movement.Catalogue) ([]entry.Entry, error) {
	all, err := t.LastOfSeries(ctx, client, []string{series}, c)
	return all[series], err
}

// Logged is how many sets of a session stand in the log.
type Logged struct {
	Sets   int
	LastAt time.Time
}

// EntriesSince returns a client's sets after a time, the latest first.
func (t *Tx) EntriesSince(ctx context.Context, client uuid.UUID, after time.Time, c *movement.Catalogue) ([]entry.Entry, error) {
	rows, err := t.q.EntriesSince(ctx, db.EntriesSinceParams{ClientID: client, After: after})
	if err != nil {
		return nil, err
	}
	return t.entries(rows, c)
}

// LoggedSessions returns what is logged of each of the client's sessions.
func (t *Tx) LoggedSessions(ctx context.Context, client uuid.UUID) (map[uuid.UUID]Logged, error) {
	rows, err := t.q.SetsPerSession(ctx, client)
	if err != nil {
		return nil, err
	}
	out := map[uuid.UUID]Logged{}
	for _, r := range rows {
		out[r.SessionID] = Logged{int(r.Sets), r.LastAt.In(t.zone)}
	}
	return out, nil
}

// LastTraining returns when each client of the studio last logged a set.
func (t *Tx) LastTraining(ctx context.Context) (map[uuid.UUID]time.Time, error) {
	rows, err := t.q.LastTraining(ctx)
	if err != nil {
		return nil, err
	}
	out := map[uuid.UUID]time.Time{}
	for _, r := range rows {
		out[r.ClientID] = r.LastAt.In(t.zone)
	}
	return out, nil
}

func (t *Tx) entries(rows []db.StandingSet, c *movement.Catalogue) ([]entry.Entry, error) {
	out := make([]entry.Entry, 0, len(rows))
	for _, r := range rows {
		set, err := setUpOfEntry(r.SetUp, c)
		if err != nil {
			return nil, err
		}
		e := entry.Entry{
			SetUp:     set,
			Mark:      entry.Mark(r.Mark),
			Unsure:    r.Unsure,
			ID:        r.EntryID,
			ClientID:  r.ClientID,
			SessionID: r.SessionID,
			SlotID:    r.SlotID,
			Side:      entry.Side(r.Side),
			SetNo:     r.SetNo,
			Reps:      r.Reps,
			LoadKg:    r.LoadKg,
			Reserve:   r.Reserve,
			Note:      r.Note,
			DoneAt:    r.DoneAt.In(t.zone),
			Replaces:  r.Replaces,
			Faults:    r.Faults,
			Technical: r.Technical,
			RowID:     r.RowID,
			Hollow:    r.Hollow,
			By:        r.LoggedBy,
			Link:      r.LinkID,
			Device:    r.Device,
			DeviceNo:  r.DeviceNo,
			DeviceAt:  r.DeviceAt,
			RestS:     r.RestS,
			TwiceOf:   r.TwiceOf,
		}
		if err := json.Unmarshal(r.Parts, &e.Parts); err != nil {
			return nil, err
		}
		out = append(out, e)
	}
	return out, nil
}
