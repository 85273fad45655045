package store

import (
	"context"
	"encoding/json"

	"github.com/google/uuid"

	"musculus/internal/core/movement"
	"musculus/internal/store/db"
)

// OwnMovement is a studio's own movement with the version it stands at.
type OwnMovement struct {
	movement.Own
	Version int
}

// OwnSetUp is a set-up kept under a name.
type OwnSetUp struct {
	ID       uuid.UUID
	Name     string
	Movement string
	Settings map[movement.Key]movement.Value
}

// OwnMovements returns the studio's own movements, oldest first.
func (t *Tx) OwnMovements(ctx context.Context) ([]OwnMovement, error) {
	rows, err := t.q.OwnMovements(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]OwnMovement, len(rows))
	for i, r := range rows {
		out[i] = OwnMovement{movement.Own{ID: r.MovementID, Text: r.Entry, Retired: r.Retired}, r.Version}
	}
	return out, nil
}

// SaveOwnMovement writes an entry over the version it was read as; version 0
// adds it. False when somebody saved it, or took its id, in between.
func (t *Tx) SaveOwnMovement(ctx context.Context, m OwnMovement, by uuid.UUID) (bool, error) {
	if m.Version == 0 {
		n, err := t.q.AddOwnMovement(ctx, db.AddOwnMovementParams{MovementID: m.ID, Entry: m.Text, MadeBy: by})
		return n == 1, err
	}
	n, err := t.q.SaveOwnMovement(ctx, db.SaveOwnMovementParams{MovementID: m.ID, Version: m.Version, Entry: m.Text, Retired: m.Retired})
	return n == 1, err
}

// OwnSetUps returns the studio's kept set-ups by name.
func (t *Tx) OwnSetUps(ctx context.Context) ([]OwnSetUp, error) {
	rows, err := t.q.OwnSetUps(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]OwnSetUp, len(rows))
	for i, r := range rows {
		out[i] = OwnSetUp{ID: r.SetupID, Name: r.Name, Movement: r.Movement}
		if err := json.Unmarshal(r.Settings, &out[i].Settings); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// AddOwnSetUp keeps a set-up under a name; sending it twice keeps it once, sending
// another under its id is ErrTaken.
func (t *Tx) AddOwnSetUp(ctx context.Context, s OwnSetUp, by uuid.UUID) error {
	settings, err := json.Marshal(s.Settings)
	if err != nil {
		return err
	}
	n, err := t.q.AddOwnSetUp(ctx, db.AddOwnSetUpParams{SetupID: s.ID, Name: s.Name, Movement: s.Movement, Settings: settings, MadeBy: by})
	return once(n, err, func() (bool, error) {
		return t.q.SameOwnSetUp(ctx, db.SameOwnSetUpParams{SetupID: s.ID, Name: s.Name, Movement: s.Movement, Settings: settings})
	})
}

// DropOwnSetUp forgets one, ErrNotFound if there is none.
func (t *Tx) DropOwnSetUp(ctx context.Context, id uuid.UUID) error {
	n, err := t.q.DropOwnSetUp(ctx, id)
	if err == nil && n == 0 {
		err = ErrNotFound
	}
	return err
}
