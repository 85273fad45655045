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

// Side is which arm did a set.
type Side string

// The sides.
const (
	BothSides Side = "both"
	Left      Side = "left"
	Right     Side = "right"
)

// Entry is one logged set. Entries are never changed: a correction replaces an
// earlier one, a withdrawn one only takes its predecessor away.
type Entry struct {
	ID        uuid.UUID
	ClientID  uuid.UUID
	SessionID uuid.UUID
	SlotID    uuid.UUID
	SetUp     movement.SetUp
	Side      Side
	SetNo     int
	Reps      int
	LoadKg    float64 // what one hand carried
	Reserve   int
	Note      string
	DoneAt    time.Time
	Replaces  *uuid.UUID
	Withdrawn bool
	Faults    []string   // ids of what was seen
	Technical bool       // ended because form went, not the muscle
	Mark      entry.Mark // why it stands although training was stopped
	Unsure    bool       // kept as it came, still to be asked about; no series is fed by it
}

// keptSetUp is a set-up as it is kept with an entry.
type keptSetUp struct {
	Movement string                          `json:"movement"`
	Settings map[movement.Key]movement.Value `json:"settings"`
}

// AddEntry logs a set; sending it twice logs it once, sending another under its id
// is ErrTaken.
func (t *Tx) AddEntry(ctx context.Context, e Entry, by uuid.UUID) error {
	setUp, err := json.Marshal(keptSetUp{e.SetUp.Movement.ID, e.SetUp.Turned()})
	if err != nil {
		return err
	}
	n, err := t.q.AddSetEntry(ctx, db.AddSetEntryParams{EntryID: e.ID, ClientID: e.ClientID, SessionID: e.SessionID, SlotID: e.SlotID,
		Series: e.SetUp.Key(), SetUp: setUp, Side: string(e.Side), SetNo: e.SetNo, Reps: e.Reps, LoadKg: e.LoadKg, Reserve: e.Reserve,
		Note: e.Note, DoneAt: e.DoneAt, LoggedBy: by, Replaces: e.Replaces, Withdrawn: e.Withdrawn, Faults: append([]string{}, e.Faults...), Technical: e.Technical, Mark: string(e.Mark), Unsure: e.Unsure})
	return once(n, err, func() (bool, error) {
		r, err := t.q.SetEntryByID(ctx, db.SetEntryByIDParams{EntryID: e.ID, SessionID: e.SessionID})
		if classify(err) == ErrNotFound {
			return false, nil
		}
		var was keptSetUp
		if err == nil {
			err = json.Unmarshal(r.SetUp, &was)
		}
		return r.SlotID == e.SlotID && r.Series == e.SetUp.Key() && maps.Equal(was.Settings, e.SetUp.Turned()) && r.Side == string(e.Side) && r.SetNo == e.SetNo && r.Reps == e.Reps &&
			math.Abs(r.LoadKg-e.LoadKg) < 1e-6 && r.Reserve == e.Reserve && r.Note == e.Note && samePointer(r.Replaces, e.Replaces) && r.Withdrawn == e.Withdrawn &&
			r.Technical == e.Technical && slices.Equal(r.Faults, e.Faults), err
	})
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
func (t *Tx) SessionEntries(ctx context.Context, session uuid.UUID, c *movement.Catalogue) ([]Entry, error) {
	rows, err := t.q.EntriesOfSession(ctx, session)
	if err != nil {
		return nil, err
	}
	return t.entries(rows, c)
}

// LastOfSeries returns the last sets of some of the client's series, by their keys,
// newest first.
func (t *Tx) LastOfSeries(ctx context.Context, client uuid.UUID, keys []string, c *movement.Catalogue) (map[string][]Entry, error) {
	rows, err := t.q.EntriesOfSeveral(ctx, db.EntriesOfSeveralParams{ClientID: client, Keys: slices.Compact(slices.Sorted(slices.Values(keys)))})
	if err != nil {
		return nil, err
	}
	all, err := t.entries(rows, c)
	out := map[string][]Entry{}
	for i, e := range all {
		out[rows[i].Series] = append(out[rows[i].Series], e)
	}
	return out, err
}

// SeriesEntries returns the last sets of one of the client's series, newest first.
func (t *Tx) SeriesEntries(ctx context.Context, client uuid.UUID, series string, c *movement.Catalogue) ([]Entry, error) {
	all, err := t.LastOfSeries(ctx, client, []string{series}, c)
	return all[series], err
}

// Logged is how many sets of a session stand in the log.
type Logged struct {
	Sets   int
	LastAt time.Time
}

// EntriesSince returns a client's sets after a time, the latest first.
func (t *Tx) EntriesSince(ctx context.Context, client uuid.UUID, after time.Time, c *movement.Catalogue) ([]Entry, error) {
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

func (t *Tx) entries(rows []db.SetEntry, c *movement.Catalogue) ([]Entry, error) {
	out := make([]Entry, 0, len(rows))
	for _, r := range rows {
		set, err := setUpOfEntry(r.SetUp, c)
		if err != nil {
			return nil, err
		}
		e := Entry{SetUp: set, Mark: entry.Mark(r.Mark), Unsure: r.Unsure, ID: r.EntryID, ClientID: r.ClientID, SessionID: r.SessionID, SlotID: r.SlotID, Side: Side(r.Side), SetNo: r.SetNo,
			Reps: r.Reps, LoadKg: r.LoadKg, Reserve: r.Reserve, Note: r.Note, DoneAt: r.DoneAt.In(t.zone), Replaces: r.Replaces, Faults: r.Faults, Technical: r.Technical}
		out = append(out, e)
	}
	return out, nil
}
