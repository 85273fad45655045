package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/week"
	"musculus/internal/store/db"
)

// PlannedSlot is a slot as it is kept: the movement's id and the settings that
// were turned, so that it outlives changes of the catalogue's defaults.
type PlannedSlot struct {
	ID       uuid.UUID                       `json:"id"`
	Movement string                          `json:"movement"`
	Settings map[movement.Key]movement.Value `json:"settings"`
	Dose     dose.Dose                       `json:"dose"`
	Cues     []string                        `json:"cues"`
	Combo    string                          `json:"combo,omitempty"` // neighbours with the same one are done in turns
	Grips    []PlannedGrip                   `json:"grips,omitempty"` // of the sets one by one, where they differ
	Starts   week.Starts                     `json:"starts,omitempty"`
	Locked   bool                            `json:"locked,omitempty"`
}

// PlannedGrip is the set-up of one set as it is kept.
type PlannedGrip struct {
	Movement string                          `json:"movement"`
	Settings map[movement.Key]movement.Value `json:"settings"`
}

// Content is what a session prescribes.
type Content struct {
	WarmUpMin float64       `json:"warm_up_min"`
	Intent    string        `json:"intent,omitempty"` // heavy, light
	Slots     []PlannedSlot `json:"slots"`
	Locked    bool          `json:"locked,omitempty"`
}

// Week turns the content into the core's session. Slots whose movement is
// unknown or whose settings are wrong are told, one error a field; the session
// is complete only when there are none.
func (c *Content) Week(catalogue *movement.Catalogue) (week.Session, []*movement.FieldError) {
	out := week.Session{WarmUpMin: c.WarmUpMin, Locked: c.Locked}
	var faults []*movement.FieldError
	for i, p := range c.Slots {
		s, fault := setUpOf(catalogue, p.Movement, p.Settings, fmt.Sprintf("slots[%d].", i))
		if fault != nil {
			faults = append(faults, fault)
			continue
		}
		slot := week.Slot{Ref: p.ID.String(), Combo: p.Combo, SetUp: s, Dose: p.Dose, Cues: p.Cues, Starts: p.Starts, Locked: p.Locked}
		for n, g := range p.Grips {
			grip, fault := setUpOf(catalogue, g.Movement, g.Settings, fmt.Sprintf("slots[%d].grips[%d].", i, n))
			if fault != nil {
				faults = append(faults, fault)
				continue
			}
			slot.Grips = append(slot.Grips, grip)
		}
		out.Slots = append(out.Slots, slot)
	}
	return out, faults
}

// setUpOf builds a kept set-up; the error names the field behind at.
func setUpOf(catalogue *movement.Catalogue, id string, settings map[movement.Key]movement.Value, at string) (movement.SetUp, *movement.FieldError) {
	m := catalogue.Get(id)
	if m == nil {
		return movement.SetUp{}, &movement.FieldError{Field: at + "movement", Reason: fmt.Sprintf("there is no movement %q", id)}
	}
	s, err := m.SetUp(settings)
	if err == nil {
		return s, nil
	}
	fault := &movement.FieldError{Field: at + "settings", Reason: err.Error()}
	var field *movement.FieldError
	if errors.As(err, &field) {
		fault.Field += "." + field.Field
		fault.Reason = field.Reason
	}
	return s, fault
}

// Session is one planned session of a client.
type Session struct {
	ID        uuid.UUID `json:"id"`
	ClientID  uuid.UUID `json:"client_id"`
	Name      string    `json:"name"`
	PlannedOn time.Time `json:"planned_on"`
	Content   Content   `json:"content"`
	Version   int       `json:"version"`
	SavedAt   time.Time `json:"saved_at"`
	SavedBy   string    `json:"saved_by"`          // name; "" in lists
	Removed   bool      `json:"removed,omitempty"` // taken out of the plan; what was logged in it stays
}

// Stale says that somebody saved in between; nothing was written.
type Stale struct{ Current Session }

func (s *Stale) Error() string {
	return fmt.Sprintf("saved by %s in between, as version %d", s.Current.SavedBy, s.Current.Version)
}

// AddSession adds a planned session; sending it twice adds it once.
func (t *Tx) AddSession(ctx context.Context, s Session, by, write uuid.UUID) error {
	b, err := json.Marshal(s.Content)
	if err != nil {
		return err
	}
	n, err := t.q.AddSession(ctx, db.AddSessionParams{SessionID: s.ID, ClientID: s.ClientID, Name: s.Name, PlannedOn: s.PlannedOn, Content: b, SavedBy: by})
	if err != nil || n == 0 {
		return err
	}
	return t.q.AddSessionVersion(ctx, db.AddSessionVersionParams{SessionID: s.ID, WriteID: write})
}

// SaveSession writes a session over the version it was read as. A *Stale error
// brings the version that is there instead; a write that was already taken
// counts as done.
func (t *Tx) SaveSession(ctx context.Context, s Session, by, write uuid.UUID) (Session, error) {
	b, err := json.Marshal(s.Content)
	if err != nil {
		return Session{}, err
	}
	n, err := t.q.UpdateSession(ctx, db.UpdateSessionParams{SessionID: s.ID, Version: s.Version, Name: s.Name, PlannedOn: s.PlannedOn, Content: b, SavedBy: by, Removed: s.Removed})
	if err != nil {
		return Session{}, err
	}
	if n == 1 {
		if err := t.q.AddSessionVersion(ctx, db.AddSessionVersionParams{SessionID: s.ID, WriteID: write}); err != nil {
			return Session{}, err
		}
		return t.Session(ctx, s.ClientID, s.ID)
	}
	current, err := t.Session(ctx, s.ClientID, s.ID)
	if err != nil {
		return Session{}, err
	}
	taken, err := t.q.VersionByWrite(ctx, db.VersionByWriteParams{WriteID: write, SessionID: s.ID})
	if err == nil && taken == current.Version {
		return current, nil
	}
	if err != nil && !errors.Is(err, pgx.ErrNoRows) {
		return Session{}, err
	}
	return Session{}, &Stale{current}
}

// Session returns one session of a client, ErrNotFound if there is none.
func (t *Tx) Session(ctx context.Context, client, id uuid.UUID) (Session, error) {
	r, err := t.q.SessionByID(ctx, db.SessionByIDParams{SessionID: id, ClientID: client})
	if err != nil {
		return Session{}, err
	}
	out, err := session(r.TrainingSession)
	out.SavedBy = r.SavedByName
	return out, err
}

// Sessions returns the sessions of one client by day, or of all with uuid.Nil.
func (t *Tx) Sessions(ctx context.Context, client uuid.UUID) ([]Session, error) {
	var rows []db.TrainingSession
	var err error
	if client == uuid.Nil {
		rows, err = t.q.Sessions(ctx)
	} else {
		rows, err = t.q.SessionsOfClient(ctx, client)
	}
	if err != nil {
		return nil, err
	}
	return sessions(rows)
}

func sessions(rows []db.TrainingSession) ([]Session, error) {
	out := make([]Session, len(rows))
	for i, r := range rows {
		one, err := session(r)
		if err != nil {
			return nil, err
		}
		out[i] = one
	}
	return out, nil
}

func session(r db.TrainingSession) (Session, error) {
	out := Session{ID: r.SessionID, ClientID: r.ClientID, Name: r.Name, PlannedOn: r.PlannedOn, Version: r.Version, SavedAt: r.SavedAt, Removed: r.Removed}
	if err := json.Unmarshal(r.Content, &out.Content); err != nil {
		return out, fmt.Errorf("session %s: %w", r.SessionID, err)
	}
	return out, nil
}
