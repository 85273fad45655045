package stances

import (
	"context"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/stance"
	"musculus/internal/httpapi/op"
	"musculus/internal/view"
)

type tipInput struct {
	Body struct {
		Lever string   `json:"lever,omitempty" maxLength:"40" doc:"one of the contrasts that are known by name"`
		From  *tipSide `json:"from,omitempty" doc:"or from one set-up …"`
		To    *tipSide `json:"to,omitempty" doc:"… to another"`
		Head  string   `json:"head,omitempty" maxLength:"40"`
		Up    bool     `json:"up,omitempty" doc:"the tip says that the head gets more"`
		Words string   `json:"words,omitempty" maxLength:"300" doc:"or whatever was heard"`
	}
}

type tipSide struct {
	Movement string            `json:"movement" maxLength:"60"`
	Settings movement.Settings `json:"settings,omitempty"`
}

// TipView is what the model and the rules say of going from one set-up to another.
type TipView struct {
	Between  string       `json:"between"` // the two set-ups, empty where the lever's name says it
	Verdict  string       `json:"verdict"`
	Plain    float64      `json:"plain"`
	Stretch  float64      `json:"stretch"`
	Graded   bool         `json:"graded"`
	SayingSo []RuleView   `json:"saying_so"`
	Opposite []RuleView   `json:"opposite"`
	Dispute  *DisputeView `json:"dispute,omitempty"`
}

// HeardView is the answer to a tip.
type HeardView struct {
	Known    bool          `json:"known"` // false: we do not know this one
	Tip      *TipView      `json:"tip,omitempty"`
	Claims   []WrongView   `json:"claims"`
	Rules    []RuleView    `json:"rules"`
	Disputes []DisputeView `json:"disputes"`
}

type tipOutput struct{ Body HeardView }

func (s *place) checkTip(ctx context.Context, in *tipInput) (*tipOutput, error) {
	y, err := s.Yardstick(arm.DefaultBody)
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	out := &tipOutput{HeardView{Claims: []WrongView{}, Rules: []RuleView{}, Disputes: []DisputeView{}}}
	if in.Body.Words != "" {
		viewHeard(ctx, in.Body.Words, y, &out.Body)
		return out, nil
	}
	head, ok := arm.HeadByID(in.Body.Head)
	if !ok {
		return nil, op.FieldProblem("body.head", "there is no head %q", in.Body.Head)
	}
	out.Body.Known = true
	if in.Body.From != nil || in.Body.To != nil {
		var sides [2]movement.SetUp
		for i, side := range []*tipSide{in.Body.From, in.Body.To} {
			at := "body." + []string{"from", "to"}[i] + "."
			if side == nil {
				return nil, op.FieldProblem(at+"movement", "a contrast has two sides")
			}
			set, fault := op.Movements(ctx).SetUp(at, side.Movement, side.Settings)
			if fault != nil {
				return nil, op.FieldProblem(fault.Field, "%s", fault.Reason)
			}
			sides[i] = set
		}
		tip := fitting.Contrast(sides[0], sides[1], head, in.Body.Up, y)
		out.Body.Tip = viewTip(&tip, sides[0].Name()+" → "+sides[1].Name())
		return out, nil
	}
	tip, err := fitting.CheckTip(in.Body.Lever, head, in.Body.Up, y)
	if err != nil {
		return nil, op.FieldProblem("body.lever", "%v", err)
	}
	out.Body.Tip = viewTip(&tip, "")
	return out, nil
}

// viewHeard answers free words.
func viewHeard(ctx context.Context, words string, y *effort.Yardstick, out *HeardView) {
	h := op.OwnOf(ctx).Reader.Heard(words, y)
	out.Known = h.Known()
	if h.Tip != nil {
		out.Tip = viewTip(h.Tip, arm.Heads[h.Head].Name+": "+h.From.Name()+" → "+h.To.Name())
	}
	for _, c := range h.Claims {
		out.Claims = append(out.Claims, viewClaim(&c))
	}
	for _, r := range h.Rules {
		out.Rules = append(out.Rules, viewRule(r))
	}
	for _, d := range h.Disputes {
		out.Disputes = append(out.Disputes, viewDispute(&d))
	}
}

func viewClaim(w *stance.Wrong) WrongView {
	return WrongView{w.Says, w.But, w.Kind, map[string]string{"wrong": "Wrong", "unsupported": "Nothing supports it", "partly": "Partly so",
		"disputed": "Disputed"}[w.Kind]}
}

func viewTip(tip *fitting.Tip, between string) *TipView {
	v := &TipView{
		Between:  between,
		Verdict:  tip.Verdict,
		Plain:    view.Round4(tip.Plain),
		Stretch:  view.Round4(tip.Stretch),
		Graded:   tip.Graded,
		SayingSo: []RuleView{},
		Opposite: []RuleView{},
	}
	for _, r := range tip.SayingSo {
		v.SayingSo = append(v.SayingSo, viewRule(r))
	}
	for _, r := range tip.Opposite {
		v.Opposite = append(v.Opposite, viewRule(r))
	}
	if tip.Dispute != nil {
		d := viewDispute(tip.Dispute)
		v.Dispute = &d
	}
	return v
}
