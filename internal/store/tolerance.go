package store

import (
	"context"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/decide"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/store/db"
)

// AddTolerance begins a tolerance plan; sending it twice begins it once. ErrTaken: the id is
// another one's, or the series has one already.
func (t *Tx) AddTolerance(ctx context.Context, client uuid.UUID, p *decide.Tolerance, by uuid.UUID) error {
	n, err := t.q.AddTolerance(ctx, db.AddToleranceParams{PlanID: p.ID, ClientID: client, Series: p.Series, Joint: string(p.Joint),
		Side: string(p.Side), StartedOn: p.Started, StartedBy: by})
	return once(n, err, func() (bool, error) {
		return t.q.SameTolerance(ctx, db.SameToleranceParams{PlanID: p.ID, ClientID: client, Series: p.Series, Joint: string(p.Joint),
			Side: string(p.Side)})
	})
}

// Tolerances returns a client's tolerance plans that were not stopped.
func (t *Tx) Tolerances(ctx context.Context, client uuid.UUID) ([]decide.Tolerance, error) {
	rows, err := t.q.Tolerances(ctx, client)
	out := make([]decide.Tolerance, len(rows))
	for i, r := range rows {
		out[i] = decide.Tolerance{ID: r.PlanID, Series: r.Series, Joint: movement.Joint(r.Joint), Side: person.Side(r.Side),
			Started: r.StartedOn}
	}
	return out, err
}

// StopTolerance ends a plan; ErrNotFound where there is none of the client's.
func (t *Tx) StopTolerance(ctx context.Context, client, id uuid.UUID, today day.Day) error {
	n, err := t.q.StopTolerance(ctx, db.StopToleranceParams{PlanID: id, ClientID: client, Today: today})
	if err == nil && n == 0 {
		return ErrNotFound
	}
	return err
}
