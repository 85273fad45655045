package library

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/movement"
	"musculus/internal/httpapi/op"
	"musculus/internal/view"
)

type fitInput struct {
	Body struct {
		Movement string            `json:"movement" maxLength:"60"`
		Settings movement.Settings `json:"settings,omitempty"`
		Client   *uuid.UUID        `json:"client,omitempty" doc:"whose body and stance are used; absent: the average adult"`
		Stance   string            `json:"stance,omitempty" maxLength:"40" doc:"id of a stance instead of the client's, or of the default"`
		Turning  string            `json:"turning,omitempty" maxLength:"40" doc:"a setting that is being turned: the answer brings its neighbouring steps along"`
	}
}

type fitOutput struct{ Body view.Fitted }

func (s *place) registerFitting(api huma.API) {
	huma.Register(api, op.Operation("fit", op.Everybody, http.MethodPost, "/fit", "What a set-up does to each head"), s.fit)
}

func (s *place) fit(ctx context.Context, in *fitInput) (*fitOutput, error) {
	set, y, st, c, err := s.Worn(
		ctx,
		&op.WornInput{Movement: in.Body.Movement, Settings: in.Body.Settings, Client: in.Body.Client, Stance: in.Body.Stance},
	)
	if err != nil {
		return nil, err
	}
	out := view.FittedOf(set, y, st, s.Fence(c), movement.Key(in.Body.Turning))
	out.Blocked = s.Blocked(c)
	return &fitOutput{out}, nil
}
