package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/checkin"
	"musculus/internal/core/day"
	"musculus/internal/core/decide"
	"musculus/internal/core/floor"
	"musculus/internal/core/movement"
	"musculus/internal/store/db"
)

// Answer is what was answered to a proposal.
type Answer string

// The answers.
const (
	Took   Answer = "taken"
	NotNow Answer = "not_now"
	Undone Answer = "undone"
)

// Decision is one answer as it is kept.
type Decision struct {
	ID     uuid.UUID
	Answer Answer
	Of     *uuid.UUID // the one that is taken back
	On     day.Day
	By     uuid.UUID
	Decided
}

// Decided is what was answered.
type Decided struct {
	decide.Proposal
	Heads []float64 `json:"heads,omitempty"` // effective sets a week it changed, by head
	Wrote []Wrote   `json:"wrote,omitempty"`
}

// Wrote is a session that taking a proposal wrote into.
type Wrote struct {
	Session uuid.UUID `json:"session"`
	Before  int       `json:"before"` // its version
	After   int       `json:"after"`
}

// AddDecision keeps an answer; sending it twice keeps it once, sending another under its id is
// ErrTaken.
func (t *Tx) AddDecision(ctx context.Context, client uuid.UUID, d *Decision) error {
	b, err := json.Marshal(d.Decided)
	if err != nil {
		return err
	}
	n, err := t.q.AddDecision(
		ctx,
		db.AddDecisionParams{DecisionID: d.ID, ClientID: client, Series: d.Series, Answer: string(d.Answer), OfDecision: d.Of,
			Content: b, MadeOn: d.On, MadeBy: d.By},
	)
	return once(n, err, func() (bool, error) {
		return t.q.SameDecision(
			ctx,
			db.SameDecisionParams{DecisionID: d.ID, ClientID: client, Series: d.Series, Answer: string(d.Answer), OfDecision: d.Of,
				Kind: string(d.Kind)},
		)
	})
}

// Decisions returns a client's answers, the earliest first.
func (t *Tx) Decisions(ctx context.Context, client uuid.UUID) ([]Decision, error) {
	rows, err := t.q.Decisions(ctx, client)
	if err != nil {
		return nil, err
	}
	out := make([]Decision, len(rows))
	for i, r := range rows {
		out[i] = Decision{ID: r.DecisionID, Answer: Answer(r.Answer), Of: r.OfDecision, On: r.MadeOn, By: r.MadeBy}
		if err := json.Unmarshal(r.Content, &out[i].Decided); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// TakenOf are the answers as decisions read them: what was taken back says so.
func TakenOf(all []Decision, c *movement.Catalogue) (out []decide.Taken) {
	undone := map[uuid.UUID]bool{}
	for i := range all {
		if all[i].Of != nil {
			undone[*all[i].Of] = true
		}
	}
	for i := range all {
		d := &all[i]
		if d.Answer == Undone {
			continue
		}
		t := decide.Taken{ID: d.ID, On: d.On, NotNow: d.Answer == NotNow, Undone: undone[d.ID], Proposal: d.Proposal}
		copy(t.Heads[:], d.Heads)
		for _, w := range d.Wrote {
			t.Wrote = append(t.Wrote, w.Session)
		}
		if d.Steps.ToID != "" {
			if set, fault := c.SetUp("to", d.Steps.ToID, d.Steps.Turned); fault == nil {
				t.Steps.To = set
			}
		}
		out = append(out, t)
	}
	return out
}

// Reading returns what was read of a client's log, and whether it still holds on a day.
func (t *Tx) Reading(ctx context.Context, client uuid.UUID, today day.Day) (r decide.Reading, holds bool, err error) {
	row, err := t.q.ClientReading(ctx, client)
	if classify(err) == ErrNotFound {
		return r, false, nil
	}
	if err != nil {
		return r, false, err
	}
	return r, !row.Stale && row.ReadFor == today, json.Unmarshal(row.Content, &r)
}

// BeginReading says that a client's log is about to be read: what is written from now on makes
// the reading stale before it is even kept.
func (t *Tx) BeginReading(ctx context.Context, client uuid.UUID) error {
	return t.q.ClaimReading(ctx, client)
}

// KeepReading keeps what was read of a client's log since BeginReading.
func (t *Tx) KeepReading(ctx context.Context, client uuid.UUID, r *decide.Reading) error {
	b, err := json.Marshal(r)
	if err != nil {
		return err
	}
	asks, err := json.Marshal(r.Asks())
	if err != nil {
		return err
	}
	return t.q.KeepReading(ctx, db.KeepReadingParams{ClientID: client, ReadFor: r.For, Hash: r.Hash, Content: b, Asks: asks})
}

// ToRead are the clients whose log has to be read again by a day.
func (t *Tx) ToRead(ctx context.Context, today day.Day) ([]uuid.UUID, error) {
	return t.q.ToRead(ctx, today)
}

// EventsSince returns what was told of a client's sessions after a time, beside sets.
func (t *Tx) EventsSince(ctx context.Context, client uuid.UUID, after time.Time) ([]floor.Event, error) {
	rows, err := t.q.EventsOfClient(ctx, db.EventsOfClientParams{ClientID: client, After: after})
	if err != nil {
		return nil, err
	}
	var out []floor.Event
	for _, r := range rows {
		e, err := t.floorEvent(db.FloorEventsRow(r))
		if err != nil {
			return nil, err
		}
		out = append(out, e)
	}
	return out, nil
}

// Arounds are what a day looks at of each client, but for who she is: what was done of late and
// is due, as far as it is kept.
func (t *Tx) Arounds(ctx context.Context, now time.Time, since, until day.Day) (map[uuid.UUID]*decide.Around, error) {
	rows, err := t.q.DuesOfClients(ctx, now)
	if err != nil {
		return nil, err
	}
	out := map[uuid.UUID]*decide.Around{}
	for _, r := range rows {
		a := &decide.Around{Measured: r.MeasuredOn, Rated: r.RatedOn, Links: r.Links, Opened: r.OpenedAt,
			BlockEnd: r.BlockEnd}
		if r.Until != "" {
			if a.Until, err = day.Parse(r.Until); err != nil {
				return nil, err
			}
		}
		if err := json.Unmarshal(r.Asks, &a.Asks); err != nil {
			return nil, err
		}
		var told *checkin.Told
		if err := json.Unmarshal(r.Told, &told); err != nil {
			return nil, err
		}
		if told != nil {
			a.Told, a.ToldOn = told.Words(false), day.At(r.ToldAt.In(t.zone))
		}
		out[r.ClientID] = a
	}
	sessions, err := t.q.SessionsAround(ctx, db.SessionsAroundParams{Since: since, Until: until})
	for _, s := range sessions {
		if a := out[s.ClientID]; a != nil {
			d := decide.Dated{ID: s.SessionID, Name: s.Name, On: s.PlannedOn, Sets: s.Sets, Block: s.OfBlock}
			if s.IssuedAt.Unix() > 0 {
				d.Issued = s.IssuedAt
			}
			a.Sessions = append(a.Sessions, d)
			a.Known = a.Known || s.Sets > 0
		}
	}
	return out, err
}

// ElsewhereBefore is what a client pressed and pulled elsewhere before she first said otherwise
// since a day; nil where she did not.
func (t *Tx) ElsewhereBefore(ctx context.Context, client uuid.UUID, since day.Day) (*decide.Elsewhere, error) {
	r, err := t.q.ElsewhereBefore(ctx, db.ElsewhereBeforeParams{ClientID: client, Since: time.Unix(int64(since)*24*60*60, 0)})
	if classify(err) == ErrNotFound {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	out := &decide.Elsewhere{Until: day.At(r.ChangedAt.In(t.zone))}
	return out, json.Unmarshal(r.Was, &out.Sets)
}
