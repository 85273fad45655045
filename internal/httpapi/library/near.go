package library

import (
	"context"

	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/series"
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
		Room  bool `json:"room,omitempty" doc:"only what the client's room allows"`
		Clean *int `json:"clean_reps,omitempty" minimum:"0" maximum:"100" doc:"how many the weight there is gave: only what suits it better"`
	}
}

type nearOutput struct {
	Body struct {
		Near  []NearView `json:"near"`
		Fit   series.Fit `json:"fit,omitempty"`   // of the weight, by the clean reps
		Words string     `json:"words,omitempty"` // what follows from it
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
	offered := s.Offered(c, !in.Body.Room)
	if in.Body.Clean != nil {
		var caps *person.Caps
		var rigging person.Rigging
		if c != nil {
			t, err := s.Trainee(c)
			if err != nil {
				return nil, err
			}
			caps, rigging = &t.Caps, c.Room().Rigging(y.Body().BodyMass)
		}
		fit, words := series.CleanFit(*in.Body.Clean, set, caps)
		out.Body.Fit, out.Body.Words = fit, words
		any := offered
		offered = func(to movement.SetUp, p *effort.Profile) bool {
			shape, ok := fitting.ShapeOf(to, y, st)
			return ok && any(to, p) && series.SuitsWeight(fit, &of, &shape, rigging)
		}
		for _, way := range set.Ways() {
			if shape, ok := fitting.ShapeOf(way, y, st); ok {
				others = append(others, shape)
			}
		}
	}
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
	for _, e := range fitting.Equivalents(&of, others, 10, offered) {
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
