package store

import (
	"context"
	"encoding/json"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/decide"
	"musculus/internal/core/movement"
	"musculus/internal/store/db"
)

// trialKept is a pair trial as it is kept.
type trialKept struct {
	Weeks int  `json:"weeks"`
	Left  worn `json:"left"`
	Right worn `json:"right"`
}

// worn is a set-up as it is kept: what was turned of a movement.
type worn struct {
	Movement string            `json:"movement"`
	Turned   movement.Settings `json:"turned,omitempty"`
}

// AddTrial begins a pair trial; sending it twice begins it once. ErrTaken: the id is another
// one's, or the client is in one already.
func (t *Tx) AddTrial(ctx context.Context, client uuid.UUID, x *decide.Trial, by uuid.UUID) error {
	content, err := json.Marshal(trialKept{Weeks: x.Weeks, Left: worn{x.Left.Movement.ID, x.Left.Turned()},
		Right: worn{x.Right.Movement.ID, x.Right.Turned()}})
	if err != nil {
		return err
	}
	n, err := t.q.AddTrial(ctx, db.AddTrialParams{TrialID: x.ID, ClientID: client, Content: content, StartedOn: x.Started, StartedBy: by})
	return once(n, err, func() (bool, error) {
		return t.q.SameTrial(ctx, db.SameTrialParams{TrialID: x.ID, ClientID: client, Content: content})
	})
}

// KeptTrial is a trial with the day it was stopped on; 0: it runs.
type KeptTrial struct {
	decide.Trial
	Stopped day.Day
}

// Trials returns a client's pair trials, the latest first; those whose set-ups can no longer be
// done are left out.
func (t *Tx) Trials(ctx context.Context, client uuid.UUID, c *movement.Catalogue) (out []KeptTrial, err error) {
	rows, err := t.q.Trials(ctx, client)
	for _, r := range rows {
		var kept trialKept
		if err := json.Unmarshal(r.Content, &kept); err != nil {
			return nil, err
		}
		x := KeptTrial{Trial: decide.Trial{ID: r.TrialID, Started: r.StartedOn, Weeks: kept.Weeks}}
		var wrong, wrong2 *movement.FieldError
		x.Left, wrong = c.SetUp("left", kept.Left.Movement, kept.Left.Turned)
		x.Right, wrong2 = c.SetUp("right", kept.Right.Movement, kept.Right.Turned)
		if r.StoppedOn != nil {
			x.Stopped = *r.StoppedOn
		}
		if wrong == nil && wrong2 == nil {
			out = append(out, x)
		}
	}
	return out, err
}

// StopTrial ends a trial; ErrNotFound where there is none of the client's.
func (t *Tx) StopTrial(ctx context.Context, client, id uuid.UUID, today day.Day) error {
	n, err := t.q.StopTrial(ctx, db.StopTrialParams{TrialID: id, ClientID: client, Today: today})
	if err == nil && n == 0 {
		return ErrNotFound
	}
	return err
}
