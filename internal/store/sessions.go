package store

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"

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
	// CueReason is why a cue stays that asks for what a cap forbids.
	CueReason string `json:"cue_reason,omitempty"`
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
		slot := week.Slot{Ref: p.ID.String(), Combo: p.Combo, SetUp: s, Dose: p.Dose, Cues: p.Cues, Starts: p.Starts, Locked: p.Locked, CueReason: p.CueReason}
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

// AddSession adds a planned session; sending it twice adds it once. ErrTaken: the
// id is another session's, or the write was sent with other content.
func (t *Tx) AddSession(ctx context.Context, s Session, by, write uuid.UUID) error {
	b, err := json.Marshal(s.Content)
	if err != nil {
		return err
	}
	n, err := t.q.AddSession(ctx, db.AddSessionParams{SessionID: s.ID, ClientID: s.ClientID, Name: s.Name, PlannedOn: s.PlannedOn, Content: b, SavedBy: by})
	if err == nil && n == 1 {
		return t.addVersion(ctx, s.ID, write)
	}
	return once(n, err, func() (bool, error) {
		if _, err := t.Session(ctx, s.ClientID, s.ID); err != nil { // another client's, or another studio's
			if classify(err) == ErrNotFound {
				err = nil
			}
			return false, err
		}
		version, err := t.writtenAs(ctx, s, write)
		return version > 0, err
	})
}

// addVersion keeps what a save wrote.
func (t *Tx) addVersion(ctx context.Context, session, write uuid.UUID) error {
	n, err := t.q.AddSessionVersion(ctx, db.AddSessionVersionParams{SessionID: session, WriteID: write})
	if err == nil && n == 0 { // the write was another one
		return ErrTaken
	}
	return err
}

// writtenAs is the version under which a write kept just this, 0 for none.
func (t *Tx) writtenAs(ctx context.Context, s Session, write uuid.UUID) (int, error) {
	r, err := t.q.VersionByWrite(ctx, db.VersionByWriteParams{WriteID: write, SessionID: s.ID})
	if classify(err) == ErrNotFound {
		return 0, nil
	}
	if err != nil {
		return 0, err
	}
	was := Session{Name: r.Name, PlannedOn: r.PlannedOn, Removed: r.Removed}
	if err := json.Unmarshal(r.Content, &was.Content); err != nil {
		return 0, err
	}
	if !was.SameAs(&s) {
		return 0, ErrTaken
	}
	return r.Version, nil
}

// SameAs says whether two sessions plan the same: name, day and content.
func (s *Session) SameAs(o *Session) bool {
	if s.Name != o.Name || !s.PlannedOn.Equal(o.PlannedOn) || s.Removed != o.Removed {
		return false
	}
	a, err := json.Marshal(s.Content.plain())
	b, err2 := json.Marshal(o.Content.plain())
	return err == nil && err2 == nil && bytes.Equal(a, b)
}

// plain is the content with nothing written in the place of none, so that two ways
// to say none are one.
func (c *Content) plain() Content {
	out := *c
	out.Slots = append([]PlannedSlot{}, c.Slots...)
	for i := range out.Slots {
		slot := &out.Slots[i]
		slot.Cues = append([]string{}, slot.Cues...)
		slot.Grips = slices.Clone(slot.Grips)
		all := []*map[movement.Key]movement.Value{&slot.Settings}
		for n := range slot.Grips {
			all = append(all, &slot.Grips[n].Settings)
		}
		for _, settings := range all {
			if *settings == nil {
				*settings = map[movement.Key]movement.Value{}
			}
		}
	}
	return out
}

// SaveSession writes a session over the version it was read as. What is there
// already is no new version. A *Stale error brings the version that is there
// instead; a write that was already taken counts as done, with other content it is
// ErrTaken.
func (t *Tx) SaveSession(ctx context.Context, s Session, by, write uuid.UUID) (Session, error) {
	current, err := t.Session(ctx, s.ClientID, s.ID)
	if err != nil {
		return Session{}, err
	}
	taken, err := t.writtenAs(ctx, s, write)
	switch {
	case err != nil:
		return Session{}, err
	case current.SameAs(&s):
		return current, nil
	case taken > 0: // it was done, and somebody saved since
		return Session{}, &Stale{current}
	}
	b, err := json.Marshal(s.Content)
	if err != nil {
		return Session{}, err
	}
	n, err := t.q.UpdateSession(ctx, db.UpdateSessionParams{SessionID: s.ID, Version: s.Version, Name: s.Name, PlannedOn: s.PlannedOn, Content: b, SavedBy: by, Removed: s.Removed})
	if err != nil {
		return Session{}, err
	}
	if n == 0 {
		if current, err = t.Session(ctx, s.ClientID, s.ID); err != nil {
			return Session{}, err
		}
		return Session{}, &Stale{current}
	}
	if err := t.addVersion(ctx, s.ID, write); err != nil {
		return Session{}, err
	}
	return t.Session(ctx, s.ClientID, s.ID)
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
