package floor

import (
	"context"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/entry"
	"musculus/internal/core/floor"
	"musculus/internal/core/log"
	"musculus/internal/core/person"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// DoneView is what was told of a session so far: what one device reads of another.
type DoneView struct {
	Session  uuid.UUID      `json:"session"`
	Version  int            `json:"version"` // of the plan
	Now      time.Time      `json:"now"`     // the server's clock
	Blocked  string         `json:"blocked"` // why there is no training now, empty where there is
	Sets     []view.SetDone `json:"sets"`
	Events   []EventDone    `json:"events"`
	Next     []string       `json:"next"`     // what the next session's loads become
	Referral string         `json:"referral"` // for whoever examines what hurt, empty where nothing did over 3
}

// EventDone is what was told beside sets.
type EventDone struct {
	ID     uuid.UUID `json:"id"`
	Kind   string    `json:"kind"    enum:"pain,left_out,swap,paired,end,line"`
	At     time.Time `json:"at"`
	By     string    `json:"by"`
	ByLink bool      `json:"by_link"`
	floor.Content
}

// doneRead is what was told of a session.
type doneRead struct {
	c       *store.Client
	kept    store.Session
	entries []entry.Entry
	events  []floor.Event // that stand, as far as they may be seen
	names   map[uuid.UUID]string
}

func readDone(ctx context.Context, tx *store.Tx, c *store.Client, kept store.Session) (r doneRead, err error) {
	r.c, r.kept = c, kept
	if r.entries, err = tx.SessionEntries(ctx, kept.ID, op.Movements(ctx)); err != nil {
		return r, err
	}
	events, err := tx.FloorEvents(ctx, c.ID, kept.ID)
	if err != nil {
		return r, err
	}
	r.events = floor.Seen(events, c.Dossier.HealthConsent != nil)
	var by []uuid.UUID
	for i := range r.entries {
		if r.entries[i].By != nil {
			by = append(by, *r.entries[i].By)
		}
	}
	r.names, err = tx.NamesOf(ctx, by)
	return r, err
}

// byLink is who tells by a link.
const byLink = "the client"

// reader is who reads of a session.
type reader struct {
	byLink bool
	hidden bool // weights are kept from her
}

func (s *place) showDone(r *doneRead, who reader) DoneView {
	out := DoneView{
		Session: r.kept.ID,
		Version: r.kept.Version,
		Now:     s.Now(),
		Blocked: s.Blocked(r.c),
		Sets:    []view.SetDone{},
		Events:  []EventDone{},
		Next:    []string{},
	}
	rigging := r.c.Room().Rigging(r.c.Dossier.Body().BodyMass)
	reads := eyes(r.c, s.DayOf(r.c))
	for i := range r.entries {
		e := &r.entries[i]
		if e.SetUp.Movement == nil {
			continue
		}
		d := view.SetDoneOf(reads, e)
		d.By = byLink
		if e.By != nil {
			d.By = r.names[*e.By]
		}
		if who.hidden {
			d.Load = ""
		}
		if who.byLink && e.Link == nil { // what a coach notes is hers
			d.Note = ""
		}
		out.Sets = append(out.Sets, d)
	}
	for i := range r.events {
		e := &r.events[i]
		d := EventDone{ID: e.ID, Kind: e.Kind, At: e.At, By: e.By, ByLink: e.ByLink, Content: e.Content}
		if e.ByLink {
			d.By = byLink
		}
		out.Events = append(out.Events, d)
	}
	if !who.hidden {
		for _, n := range log.NextLoads(&r.kept.Session, r.entries) {
			set := r.kept.Slots[n.Slot].SetUpOf(0)
			whole := view.TenGrams(person.CarryOf(set).Whole(n.LoadKg, rigging))
			out.Next = append(out.Next, set.Title()+" starts at "+r.c.Room().Words(whole, set)+" the next time.")
		}
		out.Referral = r.referral()
	}
	return out
}

// referral is what the client takes along where something hurt.
func (r *doneRead) referral() string {
	words := func(at time.Time) string { return op.DateWords(at.In(r.c.Zone)) }
	return floor.ReferralOf(r.c.Dossier.Name, r.events, &r.kept.Session, words)
}

// asBefore is a client whose joints are as they were before a session: what was told in it is
// judged at the score it has now, not at its peak.
func asBefore(c *store.Client, session uuid.UUID) *store.Client {
	out := *c
	out.Joints = nil
	for _, r := range c.Joints {
		if r.In != session.String() {
			out.Joints = append(out.Joints, r)
		}
	}
	return &out
}
