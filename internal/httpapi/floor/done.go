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
	Session  uuid.UUID   `json:"session"`
	Version  int         `json:"version"` // of the plan
	Now      time.Time   `json:"now"`     // the server's clock
	Blocked  string      `json:"blocked"` // why there is no training now, empty where there is
	Sets     []SetDone   `json:"sets"`
	Events   []EventDone `json:"events"`
	Next     []string    `json:"next"`     // what the next session's loads become
	Referral string      `json:"referral"` // for whoever examines what hurt, empty where nothing did over 3
}

// SetDone is a set that stands.
type SetDone struct {
	ID        uuid.UUID    `json:"id"`
	Slot      uuid.UUID    `json:"slot"`
	Side      string       `json:"side"             enum:"both,left,right"`
	SetNo     int          `json:"set_no"`
	Reps      int          `json:"reps"`
	WholeKg   float64      `json:"whole_kg"`
	Load      string       `json:"load_words"`
	Reserve   int          `json:"reserve"`
	Parts     []entry.Part `json:"parts"`
	PartWords string       `json:"part_words"`
	Faults    []string     `json:"faults"`
	Technical bool         `json:"technical"`
	Note      string       `json:"note"`
	At        time.Time    `json:"at"`
	RestS     *float32     `json:"rest_s,omitempty"`
	By        string       `json:"by"` // who told it
	ByLink    bool         `json:"by_link"`
	SetUp     view.SetUpAt `json:"set_up"`
	Title     string       `json:"title"`
	Ask       string       `json:"ask"`   // what is still to be asked about it, empty for nothing
	Twice     bool         `json:"twice"` // another device told another set in its place
}

// EventDone is what was told beside sets.
type EventDone struct {
	ID     uuid.UUID `json:"id"`
	Kind   string    `json:"kind"    enum:"pain,left_out,swap,end,line"`
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
		Sets:    []SetDone{},
		Events:  []EventDone{},
		Next:    []string{},
	}
	rigging := r.c.Room().Rigging(r.c.Dossier.Body().BodyMass)
	for i := range r.entries {
		e := &r.entries[i]
		if e.SetUp.Movement == nil {
			continue
		}
		whole := view.TenGrams(person.CarryOf(e.SetUp).Whole(e.LoadKg, rigging))
		d := SetDone{ID: e.ID, Slot: e.SlotID, Side: string(e.Side), SetNo: e.SetNo, Reps: e.Reps, WholeKg: whole,
			Load: r.c.Room().Words(whole, e.SetUp), Reserve: e.Reserve, Parts: e.Parts, PartWords: e.PartsWords(), Faults: e.Faults,
			Technical: e.Technical, Note: e.Note, At: e.DoneAt, RestS: e.RestS, ByLink: e.Link != nil, By: byLink,
			SetUp: view.SetUpAt{Movement: e.SetUp.Movement.ID, Settings: e.SetUp.Turned()}, Title: e.SetUp.Title(), Twice: e.TwiceOf != nil}
		if d.Parts == nil {
			d.Parts = []entry.Part{}
		}
		if e.By != nil {
			d.By = r.names[*e.By]
		}
		switch {
		case d.Twice:
			d.Ask = askTwice
		case e.Unsure:
			d.Ask = "Was it so?"
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

// askTwice asks about a set that another device told otherwise.
const askTwice = "Two devices told this set differently: was it another one?"

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
