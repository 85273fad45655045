package httpapi

import (
	"context"

	"musculus/internal/core/arm"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"

	"musculus/internal/core/stance"
)

// TunedView is one set-up that tuning found.
type TunedView struct {
	Settings movement.Settings `json:"settings"`
	Name     string            `json:"name"`
	Glyph    Glyph             `json:"glyph"`
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
		WornInput
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

func (s *server) tune(ctx context.Context, in *tuneInput) (*tuneOutput, error) {
	set, y, st, c, err := s.worn(ctx, &in.Body.WornInput)
	if err != nil {
		return nil, err
	}
	head, ok := arm.HeadByID(in.Body.Head)
	if !ok {
		return nil, fieldProblem("body.head", "there is no head %q", in.Body.Head)
	}
	aim := fitting.Aim{Head: head, Zone: arm.Zone(in.Body.Zone), Stance: st, KeepRange: in.Body.Keep, Allowed: s.offered(c, false)}
	out := &tuneOutput{}
	out.Body.Found = []TunedView{}
	for _, f := range fitting.Tune(set, y, aim) {
		r := stance.Shipped.Read(st, f.SetUp, f.Profile)
		v := TunedView{f.SetUp.Turned(), f.SetUp.Name(), glyph(f.SetUp, f.Profile, &r), round4(f.Bias), round4(f.InZone), round4(f.Profile.IdleFraction()), round4(f.Score), []WorthView{}}
		for _, w := range f.Worth {
			setting := set.Movement.Setting(w.Key)
			v.Worth = append(v.Worth, WorthView{setting.Label, setting.ValueWords(w.From), setting.ValueWords(w.To), round4(w.Score)})
		}
		out.Body.Found = append(out.Body.Found, v)
	}
	out.Body.Now = round4(fitting.Score(set, y, aim))
	return out, nil
}
