package library

import (
	"context"

	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/stance"
	"musculus/internal/httpapi/op"
	"musculus/internal/view"
)

// NearView is an equivalent with what is kept and lost.
type NearView struct {
	Movement string            `json:"movement"`
	Settings movement.Settings `json:"settings"`
	Name     string            `json:"name"`
	Glyph    view.Glyph        `json:"glyph"`
	Distance float64           `json:"distance"`
	Same     bool              `json:"same_idea"`
	Keeps    string            `json:"keeps"`
	Loses    string            `json:"loses"`
	Lacks    []string          `json:"lacks"`
}

type nearInput struct {
	Body struct {
		op.WornInput
		Room bool `json:"room,omitempty" doc:"only what the client's room allows"`
	}
}

type nearOutput struct {
	Body struct {
		Near []NearView `json:"near"`
	}
}

func (s *place) near(ctx context.Context, in *nearInput) (*nearOutput, error) {
	set, y, st, c, err := s.Worn(ctx, &in.Body.WornInput)
	if err != nil {
		return nil, err
	}
	out := &nearOutput{}
	out.Body.Near = []NearView{}
	of, ok := fitting.ShapeOf(set, y, st)
	if !ok {
		return out, nil
	}
	var others []fitting.Shape
	for _, m := range op.Movements(ctx).Movements {
		to := m.Default()
		if m == set.Movement { // the same with what is there
			if to = set; len(op.Lacks(c, set)) == 0 {
				continue
			}
		}
		if way, ok := op.WayFor(c, to); ok {
			to = way
		}
		if shape, ok := fitting.ShapeOf(to, y, st); ok {
			others = append(others, shape)
		}
	}
	for _, e := range fitting.Equivalents(&of, others, 10, s.Offered(c, !in.Body.Room)) {
		r := stance.Shipped.Read(st, e.Shape.SetUp, e.Shape.Profile)
		out.Body.Near = append(
			out.Body.Near,
			NearView{
				e.Shape.SetUp.Movement.ID,
				e.Shape.SetUp.Turned(),
				e.Shape.SetUp.Name(),
				view.GlyphOf(e.Shape.SetUp, e.Shape.Profile, &r),
				view.Round4(e.Distance),
				e.Distance < fitting.SameIdea,
				e.Keeps,
				e.Loses,
				op.Lacks(c, e.Shape.SetUp),
			},
		)
	}
	return out, nil
}
