package op

import (
	"context"
	"errors"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/stance"
	"musculus/internal/store"
)

// WornInput is a set-up and who it is for.
type WornInput struct {
	Movement string            `json:"movement" maxLength:"60"`
	Settings movement.Settings `json:"settings,omitempty"`
	Client   *uuid.UUID        `json:"client,omitempty"`
	Stance   string            `json:"stance,omitempty" maxLength:"40"`
}

// Wearer is whose body and stance a fitting is for: the client's, or the average
// adult's under the default stance; a stance asked for by id goes before.
func (s *Server) Wearer(ctx context.Context, c *store.Client, id string) (arm.Body, *stance.Stance, error) {
	body, st := arm.DefaultBody, stance.ByID(stance.Default)
	if c != nil {
		body, st = c.Dossier.Body(), c.Stance
	}
	if id == "" {
		return body, st, nil
	}
	if shipped := stance.ByID(id); shipped != nil {
		return body, shipped, nil
	}
	err := s.InStudio(ctx, func(tx *store.Tx, _ store.Account) (err error) {
		st, err = StanceOf(ctx, tx, id)
		return err
	})
	return body, st, err
}

// StanceOf finds a stance by id: a shipped one or the studio's own.
func StanceOf(ctx context.Context, tx *store.Tx, id string) (*stance.Stance, error) {
	if st := stance.ByID(id); st != nil {
		return st, nil
	}
	none := FieldProblem("body.stance", "there is no stance %q", id)
	own, err := uuid.Parse(id)
	if err != nil {
		return nil, none
	}
	st, err := tx.OwnStance(ctx, own)
	if errors.Is(err, pgx.ErrNoRows) {
		return nil, none
	}
	return &st.Stance, err
}

// Worn reads a set-up, the body that wears it and the stance it is seen under.
func (s *Server) Worn(ctx context.Context, in *WornInput) (movement.SetUp, *effort.Yardstick, *stance.Stance, *store.Client, error) {
	var none movement.SetUp
	c, err := s.ClientOf(ctx, in.Client)
	if err != nil {
		return none, nil, nil, nil, err
	}
	body, st, err := s.Wearer(ctx, c, in.Stance)
	if err != nil {
		return none, nil, nil, nil, err
	}
	set, err := SetUp(ctx, "body.", in.Movement, in.Settings)
	if err != nil {
		return none, nil, nil, nil, err
	}
	y, err := s.Yardstick(body)
	return set, y, st, c, ProblemIf(err)
}

// SetUp reads a set-up out of a request; errors name the field.
func SetUp(ctx context.Context, at, id string, settings movement.Settings) (movement.SetUp, error) {
	set, fault := Movements(ctx).SetUp(at, id, settings)
	if fault != nil {
		return set, Faults("", []*movement.FieldError{fault})
	}
	return set, nil
}

// mostBodies is how many bodies' plain movements are remembered.
const mostBodies = 2000

// Yardstick is what a body's set-ups are told in terms of.
func (s *Server) Yardstick(body arm.Body) (*effort.Yardstick, error) {
	return s.bodies.Of(context.Background(), body, func(context.Context) (*effort.Yardstick, error) { return effort.NewYardstick(body) })
}
