package store

import (
	"bytes"
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/store/db"
)

// Session is one planned session of a client as it is kept.
type Session struct {
	plan.Planned
	ClientID uuid.UUID
	Version  int
	SavedAt  time.Time
	SavedBy  string // name; "" in lists
	Removed  bool   // taken out of the plan; what was logged in it stays
	// Faults are what of it can no longer be done: a movement that is gone, a setting
	// whose limits have become narrower. It can be counted only without any.
	Faults []*movement.FieldError
}

// Stale says that somebody saved in between; nothing was written.
type Stale struct{ Current Session }

func (s *Stale) Error() string {
	return fmt.Sprintf("saved by %s in between, as version %d", s.Current.SavedBy, s.Current.Version)
}

// AddSession adds a planned session; sending it twice adds it once. ErrTaken: the
// id is another session's, or the write was sent with other content.
func (t *Tx) AddSession(ctx context.Context, s Session, by, write uuid.UUID, c *movement.Catalogue) error {
	b, err := s.Write()
	if err != nil {
		return err
	}
	n, err := t.q.AddSession(
		ctx,
		db.AddSessionParams{SessionID: s.ID, ClientID: s.ClientID, Name: s.Name, PlannedOn: s.On, Content: b, SavedBy: by},
	)
	if err == nil && n == 1 {
		return t.addVersion(ctx, s.ID, write)
	}
	return once(n, err, func() (bool, error) {
		if _, err := t.Session(ctx, s.ClientID, s.ID, c); err != nil { // another client's, or another studio's
			if classify(err) == ErrNotFound {
				err = nil
			}
			return false, err
		}
		version, err := t.writtenAs(ctx, s, write, c)
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
func (t *Tx) writtenAs(ctx context.Context, s Session, write uuid.UUID, c *movement.Catalogue) (int, error) {
	r, err := t.q.VersionByWrite(ctx, db.VersionByWriteParams{WriteID: write, SessionID: s.ID})
	if classify(err) == ErrNotFound {
		return 0, nil
	}
	if err != nil {
		return 0, err
	}
	was := Session{Planned: plan.Planned{Name: r.Name, On: r.PlannedOn}, Removed: r.Removed}
	if err := was.read(r.Content, c); err != nil {
		return 0, err
	}
	if !was.SameAs(&s) {
		return 0, ErrTaken
	}
	return r.Version, nil
}

// SameAs says whether two sessions plan the same: name, day and what is done.
func (s *Session) SameAs(o *Session) bool {
	if s.Name != o.Name || s.On != o.On || s.Removed != o.Removed {
		return false
	}
	a, err := s.Write()
	b, err2 := o.Write()
	return err == nil && err2 == nil && bytes.Equal(a, b)
}

// read reads what is kept of a session, its set-ups from a catalogue.
func (s *Session) read(content []byte, c *movement.Catalogue) (err error) {
	if s.Session, err = plan.Read(content); err == nil {
		s.Faults = s.Resolve(c)
	}
	return err
}

// SaveSession writes a session over the version it was read as. What is there
// already is no new version. A *Stale error brings the version that is there
// instead; a write that was already taken counts as done, with other content it is
// ErrTaken.
func (t *Tx) SaveSession(ctx context.Context, s Session, by, write uuid.UUID, c *movement.Catalogue) (Session, error) {
	current, err := t.Session(ctx, s.ClientID, s.ID, c)
	if err != nil {
		return Session{}, err
	}
	taken, err := t.writtenAs(ctx, s, write, c)
	switch {
	case err != nil:
		return Session{}, err
	case current.SameAs(&s):
		return current, nil
	case taken > 0: // it was done, and somebody saved since
		return Session{}, &Stale{current}
	}
	b, err := s.Write()
	if err != nil {
		return Session{}, err
	}
	n, err := t.q.UpdateSession(
		ctx,
		db.UpdateSessionParams{
			SessionID: s.ID,
			Version:   s.Version,
			Name:      s.Name,
			PlannedOn: s.On,
			Content:   b,
			SavedBy:   by,
			Removed:   s.Removed,
		},
	)
	if err != nil {
		return Session{}, err
	}
	if n == 0 {
		if current, err = t.Session(ctx, s.ClientID, s.ID, c); err != nil {
			return Session{}, err
		}
		return Session{}, &Stale{current}
	}
	if err := t.addVersion(ctx, s.ID, write); err != nil {
		return Session{}, err
	}
	return t.Session(ctx, s.ClientID, s.ID, c)
}

// Session returns one session of a client, its set-ups from a catalogue;
// ErrNotFound if there is none.
func (t *Tx) Session(ctx context.Context, client, id uuid.UUID, c *movement.Catalogue) (Session, error) {
	r, err := t.q.SessionByID(ctx, db.SessionByIDParams{SessionID: id, ClientID: client})
	if err != nil {
		return Session{}, err
	}
	out, err := session(r.TrainingSession, c)
	out.SavedBy = r.SavedByName
	return out, err
}

// Sessions returns the sessions of one client by day, or of all with uuid.Nil.
func (t *Tx) Sessions(ctx context.Context, client uuid.UUID, c *movement.Catalogue) ([]Session, error) {
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
	return sessions(rows, c)
}

// CurrentSessions returns the session to open of each client, of one with her id: the
// next one not before today, else the last one. They are shared with others who read
// them: not to be changed.
func (t *Tx) CurrentSessions(ctx context.Context, client *uuid.UUID, today day.Day, c *movement.Catalogue) (map[uuid.UUID]*Session, error) {
	rows, err := t.q.CurrentSessions(ctx, db.CurrentSessionsParams{Client: client, Today: today})
	if err != nil {
		return nil, err
	}
	out := map[uuid.UUID]*Session{}
	var unread []uuid.UUID
	for _, r := range rows {
		if known, ok := t.read.sessions.Get(readSession{r.SessionID, r.Version, r.SavedAt.UnixMicro(), c}); ok {
			out[r.ClientID] = known
		} else {
			unread = append(unread, r.SessionID)
		}
	}
	if len(unread) == 0 {
		return out, nil
	}
	whole, err := t.q.SessionsByID(ctx, unread)
	if err != nil {
		return nil, err
	}
	list, err := sessions(whole, c)
	for i := range list {
		s := &list[i]
		t.read.sessions.Add(readSession{s.ID, s.Version, s.SavedAt.UnixMicro(), c}, s)
		out[s.ClientID] = s
	}
	return out, err
}

// SessionLine is one session of a list.
type SessionLine struct {
	ID    uuid.UUID
	Name  string
	On    day.Day
	Slots int
}

// SessionLines lists a client's sessions by day, without what is in them.
func (t *Tx) SessionLines(ctx context.Context, client uuid.UUID) ([]SessionLine, error) {
	rows, err := t.q.SessionLines(ctx, client)
	if err != nil {
		return nil, err
	}
	out := make([]SessionLine, len(rows))
	for i, r := range rows {
		out[i] = SessionLine{r.SessionID, r.Name, r.PlannedOn, r.Slots}
	}
	return out, nil
}

func sessions(rows []db.TrainingSession, c *movement.Catalogue) ([]Session, error) {
	out := make([]Session, len(rows))
	for i, r := range rows {
		one, err := session(r, c)
		if err != nil {
			return nil, err
		}
		out[i] = one
	}
	return out, nil
}

func session(r db.TrainingSession, c *movement.Catalogue) (Session, error) {
	out := Session{Planned: plan.Planned{ID: r.SessionID, Name: r.Name, On: r.PlannedOn}, ClientID: r.ClientID,
		Version: r.Version, SavedAt: r.SavedAt, Removed: r.Removed}
	if err := out.read(r.Content, c); err != nil {
		return out, fmt.Errorf("session %s: %w", r.SessionID, err)
	}
	return out, nil
}
