package library

import (
	"context"

	"musculus/internal/core/arm"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/stance"
	"musculus/internal/httpapi/op"
	"musculus/internal/view"
)

// TunedView is one set-up that tuning found.
type TunedView struct {
	Settings movement.Settings `json:"settings"`
	Name     string            `json:"name"`
	Glyph    view.Glyph        `json:"glyph"`
	Bias     float64           `json:"bias"`
	InZone   float64           `json:"in_zone"`
	Idle     float64           `json:"idle"`
	Score    float64           `json:"score"`
	Worth    []WorthView       `json:"worth"`
}

// WorthView is what one changed setting adds to the score.
type WorthView struct {
	Label string  `json:"label"`
	From  string  `json:"from"`
	To    string  `json:"to"`
	Score float64 `json:"score"`
}

type tuneInput struct {
	Body struct {
		op.WornInput
		Head string `json:"head" maxLength:"40"`
		Zone string `json:"zone,omitempty" enum:"short,middle,long" doc:"absent: any length"`
		Keep bool   `json:"keep_range,omitempty" doc:"leave both ends of the elbow's range as they are"`
	}
}

type tuneOutput struct {
	Body struct {
		Now   float64     `json:"now"` // the score of the set-up as it stands
		Found []TunedView `json:"found"`
	}
}

func (s *place) tune(ctx context.Context, in *tuneInput) (*tuneOutput, error) {
	set, y, st, c, err := s.Worn(ctx, &in.Body.WornInput)
	if err != nil {
		return nil, err
	}
	head, ok := arm.HeadByID(in.Body.Head)
	if !ok {
		return nil, op.FieldProblem("body.head", "there is no head %q", in.Body.Head)
	}
	aim := fitting.Aim{Head: head, Zone: arm.Zone(in.Body.Zone), Stance: st, KeepRange: in.Body.Keep, Allowed: s.Offered(c, false)}
	out := &tuneOutput{}
	out.Body.Found = []TunedView{}
	for _, f := range fitting.Tune(set, y, aim) {
		r := stance.Shipped.Read(st, f.SetUp, f.Profile)
		v := TunedView{
			f.SetUp.Turned(),
			f.SetUp.Name(),
			view.GlyphOf(f.SetUp, f.Profile, &r),
			view.Round4(f.Bias),
			view.Round4(f.InZone),
			view.Round4(f.Profile.IdleFraction()),
			view.Round4(f.Score),
			[]WorthView{},
		}
		for _, w := range f.Worth {
			setting := set.Movement.Setting(w.Key)
			v.Worth = append(v.Worth, WorthView{setting.Label, setting.ValueWords(w.From), setting.ValueWords(w.To), view.Round4(w.Score)})
		}
		out.Body.Found = append(out.Body.Found, v)
	}
	out.Body.Now = view.Round4(fitting.Score(set, y, aim))
	return out, nil
}
