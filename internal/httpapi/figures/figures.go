// Package figures holds the operations that draw set-ups: small, many at once, and as a repetition
// that is played.
package figures

import (
	"context"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/stance"
	"musculus/internal/core/text"
	"musculus/internal/figure"
	"musculus/internal/httpapi/op"
	"musculus/internal/view"
)

// place is the server as this place sees it.
type place struct{ *op.Server }

// Register adds the operations of this place.
func Register(api huma.API, s *op.Server) {
	p := &place{s}
	huma.Register(api, op.Operation("figures", op.Everybody, http.MethodPost, "/figures", "Set-ups as small figures"), p.figures)
	huma.Register(api, op.Operation("rep", op.Everybody, http.MethodPost, "/rep", "A repetition in pictures, to be played"), p.rep)
}

// DrawnInput is a set-up that a figure is asked for.
type DrawnInput struct {
	Movement string            `json:"movement"           maxLength:"60"`
	Settings movement.Settings `json:"settings,omitempty"`
}

type figuresInput struct {
	Body struct {
		Client *uuid.UUID   `json:"client,omitempty"`
		Stance string       `json:"stance,omitempty" maxLength:"40"`
		SetUps []DrawnInput `json:"set_ups"          maxItems:"250"`
	}
}

type figuresOutput struct {
	Body struct {
		Figures []figure.Card `json:"figures"` // in the order of what was asked for
	}
}

// figures draws set-ups in small, each arm filled by what its heads get.
func (s *place) figures(ctx context.Context, in *figuresInput) (*figuresOutput, error) {
	c, err := s.ClientOf(ctx, in.Body.Client)
	if err != nil {
		return nil, err
	}
	body, st, err := s.Wearer(ctx, c, in.Body.Stance)
	if err != nil {
		return nil, err
	}
	y, err := s.Yardstick(body)
	if err != nil {
		return nil, op.ProblemIf(err)
	}
	out := &figuresOutput{}
	out.Body.Figures = make([]figure.Card, len(in.Body.SetUps))
	for i, asked := range in.Body.SetUps {
		set, err := op.SetUp(ctx, fmt.Sprintf("body.set_ups[%d].", i), asked.Movement, asked.Settings)
		if err != nil {
			return nil, err
		}
		var fill *figure.Fill
		if p, err := set.Profile(y); err == nil || !set.Movement.Computed() { // what cannot be done so is drawn unfilled
			r := stance.Shipped.Read(st, set, p)
			fill = view.FillOf(&r)
		}
		out.Body.Figures[i] = figure.MakeCard(set, body, fill)
	}
	return out, nil
}

type repInput struct {
	Body struct {
		op.WornInput
		Fault string `json:"fault,omitempty" maxLength:"60" doc:"with this fault; absent: as it should be"`
	}
}

type repOutput struct{ Body figure.Stills }

// rep is a set-up's repetition, to be played, as it should be or with a fault.
func (s *place) rep(ctx context.Context, in *repInput) (*repOutput, error) {
	set, y, st, _, err := s.Worn(ctx, &in.Body.WornInput)
	if err != nil {
		return nil, err
	}
	setup, says := set.EffortFor(y.Body().Stature), ""
	for _, f := range set.Movement.FaultsOf() {
		if faulty, ok := fitting.Faulty(f, set, y.Body().Stature); ok && f.ID == in.Body.Fault {
			setup, says = faulty, "This is it: "+f.Seen+". "+text.Capital(fitting.CostOf(f, set, y).Words)+"."
		}
	}
	if in.Body.Fault != "" && says == "" {
		return nil, op.FieldProblem("body.fault", "this fault moves nothing that could be played")
	}
	var fill *figure.Fill
	if !set.Movement.Computed() {
		r := stance.Shipped.Read(st, set, nil)
		fill = view.FillOf(&r)
	}
	stills, err := figure.MakeStillsAs(set, setup, y.Body(), fill)
	if err != nil {
		return nil, op.FieldProblem("body.movement", "%s", err)
	}
	stills.Says = says
	return &repOutput{*stills}, nil
}
