package store

import (
	"context"
	"encoding/json"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/entry"
	"musculus/internal/core/floor"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/store/db"
)

// Teller is who tells something on the floor: an account, or a client by her link.
type Teller struct {
	Account uuid.UUID // uuid.Nil where a link tells
	Link    *uuid.UUID
}

// AddFloorEvent keeps what was told of a session; sending it twice keeps it once, sending
// another under its id is ErrTaken.
func (t *Tx) AddFloorEvent(ctx context.Context, client uuid.UUID, e *floor.Event, by Teller) error {
	b, err := json.Marshal(e.Content)
	if err != nil {
		return err
	}
	n, err := t.q.AddFloorEvent(
		ctx,
		db.AddFloorEventParams{EventID: e.ID, ClientID: client, SessionID: e.Session, Kind: e.Kind, Content: b,
			ToldBy: orNobody(by.Account), LinkID: by.Link, HappenedAt: e.At},
	)
	return once(n, err, func() (bool, error) {
		return t.q.SameFloorEvent(
			ctx,
			db.SameFloorEventParams{EventID: e.ID, ClientID: client, SessionID: e.Session, Kind: e.Kind, Content: b},
		)
	})
}

// FloorEvents returns what was told of some of a client's sessions, in the order it happened.
func (t *Tx) FloorEvents(ctx context.Context, client uuid.UUID, sessions ...uuid.UUID) ([]floor.Event, error) {
	rows, err := t.q.FloorEvents(ctx, db.FloorEventsParams{ClientID: client, Sessions: sessions})
	if err != nil {
		return nil, err
	}
	out := make([]floor.Event, len(rows))
	for i, r := range rows {
		if out[i], err = t.floorEvent(r); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// floorEvent reads one event.
func (t *Tx) floorEvent(r db.FloorEventsRow) (floor.Event, error) {
	e := floor.Event{
		ID:      r.EventID,
		Session: r.SessionID,
		Kind:    r.Kind,
		At:      r.HappenedAt.In(t.zone),
		By:      r.ByName,
		ByLink:  r.LinkID != nil,
	}
	return e, json.Unmarshal(r.Content, &e.Content)
}

// EntriesOf returns the sets that count of some sessions, by session.
func (t *Tx) EntriesOf(ctx context.Context, sessions []uuid.UUID, c *movement.Catalogue) (map[uuid.UUID][]entry.Entry, error) {
	rows, err := t.q.EntriesOfSessions(ctx, sessions)
	if err != nil {
		return nil, err
	}
	all, err := t.entries(rows, c)
	out := map[uuid.UUID][]entry.Entry{}
	for _, e := range all {
		out[e.SessionID] = append(out[e.SessionID], e)
	}
	return out, err
}

// TellFloor tells every process that something was told of a session, once it is kept.
func (t *Tx) TellFloor(ctx context.Context, client, session uuid.UUID) error {
	return t.q.TellFloor(ctx, db.TellFloorParams{Client: client.String(), Session: session.String()})
}

// NamesOf returns the names of some accounts.
func (t *Tx) NamesOf(ctx context.Context, accounts []uuid.UUID) (map[uuid.UUID]string, error) {
	rows, err := t.q.NamesOf(ctx, accounts)
	out := map[uuid.UUID]string{}
	for _, r := range rows {
		out[r.AccountID] = r.Name
	}
	return out, err
}

// FloorKey is the key with which an account's devices lock what they keep, made when it is
// first asked for.
func (t *Tx) FloorKey(ctx context.Context, account uuid.UUID, fresh []byte) ([]byte, error) {
	key, err := t.q.FloorKey(ctx, account)
	if err != nil || key != nil {
		return key, err
	}
	return t.q.SetFloorKey(ctx, db.SetFloorKeyParams{AccountID: account, Fresh: fresh})
}

// SessionsOn returns the studio's sessions of some days, the first day first.
func (t *Tx) SessionsOn(ctx context.Context, since, until day.Day, c *movement.Catalogue) ([]Session, error) {
	rows, err := t.q.SessionsOn(ctx, db.SessionsOnParams{Since: since, Until: until})
	if err != nil {
		return nil, err
	}
	return sessions(rows, c)
}

// SessionAt returns a session as one of its versions had it, ErrNotFound where there is none.
func (t *Tx) SessionAt(ctx context.Context, client, session uuid.UUID, version int, c *movement.Catalogue) (Session, error) {
	r, err := t.q.SessionAt(ctx, db.SessionAtParams{SessionID: session, ClientID: client, Version: version})
	if err != nil {
		return Session{}, classify(err)
	}
	out := Session{Planned: plan.Planned{ID: session, Name: r.Name, On: r.PlannedOn}, ClientID: client, Version: r.Version}
	return out, out.read(r.Content, c)
}

// SentVersion is the version of a session that its last sheet was made of, ErrNotFound where
// none has left.
func (t *Tx) SentVersion(ctx context.Context, client, session uuid.UUID) (int, error) {
	n, err := t.q.SentVersion(ctx, db.SentVersionParams{SessionID: session, ClientID: client})
	return n, classify(err)
}

// FirstTold is the set that stands for one that two devices told, itself where it was told
// once or is not known.
func (t *Tx) FirstTold(ctx context.Context, entry uuid.UUID) (uuid.UUID, error) {
	id, err := t.q.FirstTold(ctx, entry)
	if classify(err) == ErrNotFound {
		return entry, nil
	}
	return id, err
}
