package stances

import (
	"context"

	"musculus/internal/core/arm"
	"musculus/internal/core/fitting"
	"musculus/internal/httpapi/op"
	"musculus/internal/view"
)

type tipInput struct {
	Body struct {
		Lever string `json:"lever" maxLength:"40"`
		Head  string `json:"head" maxLength:"40"`
		Up    bool   `json:"up" doc:"the tip says that the head gets more"`
	}
}

// TipView is what can be said of a tip.
type TipView struct {
	Verdict  string       `json:"verdict"`
	Plain    float64      `json:"plain"`
	Stretch  float64      `json:"stretch"`
	Graded   bool         `json:"graded"`
	SayingSo []RuleView   `json:"saying_so"`
	Opposite []RuleView   `json:"opposite"`
	Dispute  *DisputeView `json:"dispute,omitempty"`
}

type tipOutput struct{ Body TipView }

func (s *place) checkTip(_ context.Context, in *tipInput) (*tipOutput, error) {
	head, ok := arm.HeadByID(in.Body.Head)
	if !ok {
		return nil, op.FieldProblem("body.head", "there is no head %q", in.Body.Head)
	}
	y, err := s.Yardstick(arm.DefaultBody)
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	tip, err := fitting.CheckTip(in.Body.Lever, head, in.Body.Up, y)
	if err != nil {
		return nil, op.FieldProblem("body.lever", "%v", err)
	}
	out := &tipOutput{
		TipView{
			Verdict:  tip.Verdict,
			Plain:    view.Round4(tip.Plain),
			Stretch:  view.Round4(tip.Stretch),
			Graded:   tip.Graded,
			SayingSo: []RuleView{},
			Opposite: []RuleView{},
		},
	}
	for _, r := range tip.SayingSo {
		out.Body.SayingSo = append(out.Body.SayingSo, viewRule(r))
	}
	for _, r := range tip.Opposite {
		out.Body.Opposite = append(out.Body.Opposite, viewRule(r))
	}
	if tip.Dispute != nil {
		d := viewDispute(tip.Dispute)
		out.Body.Dispute = &d
	}
	return out, nil
}
