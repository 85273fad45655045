package store

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"musculus/internal/store/db"
)

// UndoDays is how long a deletion can be undone.
const UndoDays = 30

// Event is what was done with a whole client.
type Event struct {
	Client uuid.UUID
	What   string // exported, deleted, restored, erased
	By     string // "" for the daily round
	At     time.Time
}

// DeletedClient can still be brought back.
type DeletedClient struct {
	ID       uuid.UUID
	Name     string
	At       time.Time
	ErasedOn time.Time
}

// DeleteClient takes a client out of sight; ErrNotFound if there is none.
func (t *Tx) DeleteClient(ctx context.Context, id, by uuid.UUID, at time.Time) error {
	n, err := t.q.DeleteClient(ctx, db.DeleteClientParams{ClientID: id, DeletedAt: &at, DeletedBy: &by})
	if err != nil {
		return err
	}
	if n == 0 {
		return ErrNotFound
	}
	return t.AddEvent(ctx, id, "deleted", by)
}

// RestoreClient brings a deleted client back; ErrNotFound if there is none.
func (t *Tx) RestoreClient(ctx context.Context, id, by uuid.UUID) error {
	n, err := t.q.RestoreClient(ctx, id)
	if err != nil {
		return err
	}
	if n == 0 {
		return ErrNotFound
	}
	return t.AddEvent(ctx, id, "restored", by)
}

// DeletedClients lists who can still be brought back.
func (t *Tx) DeletedClients(ctx context.Context) ([]DeletedClient, error) {
	rows, err := t.q.DeletedClients(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]DeletedClient, len(rows))
	for i, r := range rows {
		out[i] = DeletedClient{ID: r.ClientID, At: *r.DeletedAt, ErasedOn: r.DeletedAt.AddDate(0, 0, UndoDays)}
		if r.Name != nil {
			out[i].Name = *r.Name
		}
	}
	return out, nil
}

// Consented is what a consent lets be kept.
type Consented string

// What consents are given to.
const (
	Health Consented = "health" // screening, joints, mobility, and what came of them
	Body   Consented = "body"   // measures and photos
)

// EraseConsented erases what was kept by a consent that was withdrawn; false while
// it still holds, or there is no such client. Photos' files are the caller's.
func (t *Tx) EraseConsented(ctx context.Context, client uuid.UUID, what Consented, by uuid.UUID) (bool, error) {
	return t.q.EraseConsented(ctx, db.EraseConsentedParams{OfClient: client, What: string(what), ByAccount: by})
}

// AddEvent notes what was done with a whole client.
func (t *Tx) AddEvent(ctx context.Context, client uuid.UUID, what string, by uuid.UUID) error {
	return t.q.AddStudioEvent(ctx, db.AddStudioEventParams{ClientID: client, What: what, ByAccount: &by})
}

// Events lists what was done with whole clients, the latest first.
func (t *Tx) Events(ctx context.Context) ([]Event, error) {
	rows, err := t.q.StudioEvents(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]Event, len(rows))
	for i, r := range rows {
		out[i] = Event{r.ClientID, r.What, r.ByName, r.HappenedAt}
	}
	return out, nil
}

// StudioNamed is a studio by its name.
type StudioNamed struct {
	ID   uuid.UUID
	Name string
}

// Studios are all there are, for what goes round them.
func (s *Store) Studios(ctx context.Context) ([]StudioNamed, error) {
	var out []StudioNamed
	round := pgx.TxOptions{BeginQuery: "begin; select set_config('musculus.round', 'on', true)"}
	return out, classify(pgx.BeginTxFunc(ctx, s.Pool, round, func(tx pgx.Tx) error {
		rows, err := db.New(tx).Studios(ctx)
		for _, r := range rows {
			out = append(out, StudioNamed{r.StudioID, r.Name})
		}
		return err
	}))
}

// EraseDue erases for good every client of every studio whose month is over.
// forget is told of each photo before its line is gone for good, to take the file
// away.
func (s *Store) EraseDue(ctx context.Context, now time.Time, forget func(studio, photo uuid.UUID) error) (erased int, err error) {
	studios, err := s.Studios(ctx)
	before := now.AddDate(0, 0, -UndoDays) // the database counts once more, by its own clock
	for _, studio := range studios {
		if err != nil {
			return erased, err
		}
		err = s.In(ctx, studio.ID, func(tx *Tx) error {
			deleted, err := tx.DeletedClients(ctx)
			if err != nil {
				return err
			}
			for _, d := range deleted {
				if !d.At.Before(before) {
					continue
				}
				photos, err := tx.Photos(ctx, d.ID)
				if err != nil {
					return err
				}
				gone, err := tx.q.EraseClient(ctx, d.ID)
				if err != nil {
					return err
				}
				if !gone { // the database's clock says otherwise: nothing of hers goes
					continue
				}
				for _, p := range photos {
					if err := forget(studio.ID, p.ID); err != nil {
						return fmt.Errorf("photo %s: %w", p.ID, err)
					}
				}
				erased++
			}
			return nil
		})
	}
	return erased, err
}
