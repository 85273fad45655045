package trend

import (
	"context"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/decide"
	"musculus/internal/core/floor"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

type beginInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		ID     uuid.UUID      `json:"id" doc:"made by the asker; sending it again begins it once"`
		Series string         `json:"series" minLength:"1" maxLength:"400"`
		Joint  movement.Joint `json:"joint" maxLength:"40"`
		Side   person.Side    `json:"side" enum:"left,right"`
	}
}

type stopInput struct {
	Client uuid.UUID `path:"client"`
	Plan   uuid.UUID `path:"plan"`
}

func (s *place) registerTolerance(api huma.API) {
	const path = "/clients/{client}/tolerance"
	huma.Register(
		api,
		op.Operation("begin-tolerance", op.Planners, http.MethodPost, path, "Lead up to a set-up again, a step at a time"),
		s.beginTolerance,
	)
	huma.Register(
		api,
		op.Operation("stop-tolerance", op.Planners, http.MethodDelete, path+"/{plan}", "Stop leading up to it"),
		s.stopTolerance,
	)
}

func (s *place) beginTolerance(ctx context.Context, in *beginInput) (*struct{}, error) {
	return nil, s.InStudio(ctx, func(tx *store.Tx, a store.Account) error {
		c, err := tx.Client(ctx, in.Client)
		if err != nil {
			return err
		}
		today := s.DayOf(&c)
		standing := c.Standing(today)
		if why := floor.MayBegin(&c.Dossier, c.Screening, &standing, today); why != "" {
			return op.FieldProblem("body.joint", "%s", why)
		}
		if !slices.Contains(movement.Joints, in.Body.Joint) {
			return op.FieldProblem("body.joint", "there is no joint %q", string(in.Body.Joint))
		}
		past, err := tx.SeriesEntries(ctx, in.Client, in.Body.Series, op.Movements(ctx))
		if err != nil {
			return err
		}
		if len(past) == 0 {
			return op.FieldProblem("body.series", "nothing of it was done yet")
		}
		return tx.AddTolerance(ctx, in.Client, &decide.Tolerance{ID: in.Body.ID, Series: in.Body.Series, Joint: in.Body.Joint,
			Side: in.Body.Side, Started: today}, a.ID)
	})
}

func (s *place) stopTolerance(ctx context.Context, in *stopInput) (*struct{}, error) {
	return nil, s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		c, err := tx.Client(ctx, in.Client)
		if err != nil {
			return err
		}
		return tx.StopTolerance(ctx, in.Client, in.Plan, s.DayOf(&c))
	})
}
