package library

import (
	"context"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/figure"
	"musculus/internal/httpapi/op"
)

// FaultView is a fault and what it costs in this set-up.
type FaultView struct {
	ID       string `json:"id"`
	Seen     string `json:"seen"`
	View     string `json:"view"`
	Cue      string `json:"cue"`
	Remedy   string `json:"remedy"`
	Computed bool   `json:"computed"`
	Costs    string `json:"costs"`
}

type lookInput struct {
	Body struct {
		op.WornInput
		Head string `json:"head" maxLength:"40"`
	}
}

type lookOutput struct {
	Body struct {
		Trace   *figure.HeadTrace `json:"trace,omitempty"` // absent for graded work
		Explain []string          `json:"explain"`         // for the client, in plain words
	}
}

type hintsInput struct {
	Body struct {
		op.WornInput
		Elbow float64 `json:"elbow,omitempty" minimum:"0" maximum:"150" doc:"where a cable should pull, degrees"`
		Pull  float64 `json:"pull,omitempty" minimum:"0" maximum:"1" doc:"how hard, as a part of its hardest; absent: as hard as can be"`
	}
}

// HintView is what set-up arithmetic says, and the settings that follow it.
type HintView struct {
	About string            `json:"about"`
	Words string            `json:"words"`
	Turn  movement.Settings `json:"turn,omitempty"`
}

type hintsOutput struct {
	Body struct {
		Hints []HintView `json:"hints"`
	}
}

type faultsInput struct{ Body op.WornInput }

type faultsOutput struct {
	Body struct {
		Faults []FaultView `json:"faults"`
	}
}

func (s *place) look(ctx context.Context, in *lookInput) (*lookOutput, error) {
	set, y, _, _, err := s.Worn(ctx, &in.Body.WornInput)
	if err != nil {
		return nil, err
	}
	head, ok := arm.HeadByID(in.Body.Head)
	if !ok {
		return nil, op.FieldProblem("body.head", "there is no head %q", in.Body.Head)
	}
	out := &lookOutput{}
	var p *effort.Profile
	if set.Movement.Computed() {
		if p, err = set.Profile(y); err != nil {
			out.Body.Explain = []string{"This cannot be done like this: " + err.Error() + "."}
			return out, nil
		}
		t := figure.MakeHeadTrace(set.Effort(), head)
		out.Body.Trace = &t
	}
	out.Body.Explain = set.Explain(p)
	return out, nil
}

func (s *place) hints(ctx context.Context, in *hintsInput) (*hintsOutput, error) {
	set, y, _, _, err := s.Worn(ctx, &in.Body.WornInput)
	if err != nil {
		return nil, err
	}
	want := fitting.Pull(in.Body.Pull)
	if want == 0 {
		want = fitting.FullPull
	}
	out := &hintsOutput{}
	out.Body.Hints = []HintView{}
	for _, h := range fitting.Hints(set, y, in.Body.Elbow, want) {
		v := HintView{About: h.About, Words: h.Words}
		if h.Turn != nil {
			v.Turn = h.Turn
		}
		out.Body.Hints = append(out.Body.Hints, v)
	}
	return out, nil
}

func (s *place) faultCosts(ctx context.Context, in *faultsInput) (*faultsOutput, error) {
	set, y, _, _, err := s.Worn(ctx, &in.Body)
	if err != nil {
		return nil, err
	}
	out := &faultsOutput{}
	out.Body.Faults = []FaultView{}
	for _, f := range set.Movement.FaultsOf() {
		c := fitting.CostOf(f, set, y)
		out.Body.Faults = append(out.Body.Faults, FaultView{f.ID, f.Seen, f.View, f.Cue, f.Remedy, c.Computed, c.Words})
	}
	return out, nil
}
