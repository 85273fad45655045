package floor

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

// ReadyView is everything a device needs to run a session with nobody to ask.
type ReadyView struct {
	Client  uuid.UUID `json:"client"`
	Name    string    `json:"name"`
	Session uuid.UUID `json:"session"`
	On      day.Day   `json:"on" format:"date"`
	When    string    `json:"when"`
	Version int       `json:"version"` // of the plan
	Blocked string    `json:"blocked"` // why there is no training now, empty where there is
	view.Running
	Done DoneView `json:"done"`
}

// readyRead is what a session is made ready from.
type readyRead struct {
	doneRead
	week  week.Week
	at    int // the session in the week
	t     *week.Trainee
	past  map[string][]entry.Entry
	faced *store.Client // with the joints as before the session
}

// readReady reads a session to be run; version 0 is the plan as it is kept.
func (s *place) readReady(ctx context.Context, tx *store.Tx, at op.SessionPath, version int) (r readyRead, err error) {
	c, err := tx.Client(ctx, at.Client)
	if err != nil {
		return r, err
	}
	kept, err := tx.Session(ctx, at.Client, at.Session, op.Movements(ctx))
	if err != nil {
		return r, err
	}
	if version != 0 && version != kept.Version {
		if kept, err = tx.SessionAt(ctx, at.Client, at.Session, version, op.Movements(ctx)); err != nil {
			return r, err
		}
	}
	if len(kept.Faults) > 0 {
		return r, kept.Faults[0]
	}
	if r.doneRead, err = readDone(ctx, tx, &c, kept); err != nil {
		return r, err
	}
	r.faced = asBefore(&c, kept.ID)
	span, err := tx.SpanOf(ctx, c.ID, kept.On)
	if err != nil {
		return r, err
	}
	others, err := tx.SessionsBetween(ctx, c.ID, span.From, span.Last(), op.Movements(ctx))
	if err != nil {
		return r, err
	}
	read, err := s.ReadWeekOf(ctx, tx, r.faced, span, others)
	if err != nil {
		return r, err
	}
	r.t = read.T
	for i := range others {
		if len(others[i].Faults) > 0 {
			continue
		}
		if others[i].ID == kept.ID {
			continue
		}
		r.week.Sessions = append(r.week.Sessions, others[i].Planned)
	}
	r.at = len(r.week.Sessions)
	r.week.Sessions = append(r.week.Sessions, kept.Planned)
	var keys []string
	for i := range kept.Slots {
		for _, set := range kept.Slots[i].SetUps() {
			keys = append(keys, set.Key())
		}
	}
	past, err := tx.LastOfSeries(ctx, c.ID, keys, op.Movements(ctx))
	r.past = map[string][]entry.Entry{}
	for key, list := range past { // what was done before this session
		for _, e := range list {
			if e.SessionID != kept.ID {
				r.past[key] = append(r.past[key], e)
			}
		}
	}
	return r, err
}

// showReady makes a session ready.
func (s *place) showReady(ctx context.Context, r *readyRead, who reader) ReadyView {
	script := floor.ScriptOf(r.t, op.Movements(ctx), &r.week, r.at, r.past)
	c, kept := r.c, &r.kept
	return ReadyView{
		Client:  c.ID,
		Name:    c.Dossier.Name,
		Session: kept.ID,
		On:      kept.On,
		When:    kept.On.FromToday(s.Day(ctx)),
		Version: kept.Version,
		Blocked: s.Blocked(c),
		Running: view.RunningOf(eyes(c, s.DayOf(c)), r.t, kept.Name, &kept.Session, script, r.past, who.hidden),
		Done:    s.showDone(&r.doneRead, who),
	}
}

// eyes is a client as what she reads is told to her.
func eyes(c *store.Client, today day.Day) *view.Eyes {
	return &view.Eyes{Room: c.Room(), Dossier: &c.Dossier, Zone: c.Zone, Today: today}
}
