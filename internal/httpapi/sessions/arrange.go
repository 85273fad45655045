package sessions

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/plan"
	"musculus/internal/httpapi/op"
)

// Arranged is what of a session a command changes.
type Arranged struct {
	Slots  []plan.Slot  `json:"slots"`
	Combos []plan.Combo `json:"combos"`
}

type arrangeInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		plan.Arrange
		Slots  []plan.Slot  `json:"slots" maxItems:"40"`
		Combos []plan.Combo `json:"combos,omitempty" maxItems:"20"`
	}
}

type arrangeOutput struct{ Body Arranged }

func (s *place) registerArranging(api huma.API) {
	huma.Register(
		api,
		op.Operation("arrange", op.Planners, http.MethodPost, "/clients/{client}/arrange",
			"Slots and rows after a command: in turns, apart, split, merged, moved; nothing is kept"),
		s.arrange,
	)
}

func (s *place) arrange(ctx context.Context, in *arrangeInput) (*arrangeOutput, error) {
	c, err := s.ClientOf(ctx, &in.Client)
	if err != nil {
		return nil, err
	}
	t, err := s.Trainee(c)
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	session := plan.Session{Slots: in.Body.Slots, Combos: in.Body.Combos}
	// Half-typed numbers are told when they are saved; what cannot be read, here.
	wrong := session.Resolve(op.Movements(ctx))
	if len(wrong) > 0 {
		return nil, op.Faults("body.", wrong)
	}
	session.Tidy(t.Fill)
	if fault := session.Arrange(&in.Body.Arrange, t.Caps); fault != nil {
		wrong = append(wrong, fault)
	}
	session.Tidy(t.Fill) // what is new has ids
	wrong = append(wrong, session.Resolve(op.Movements(ctx))...)
	if len(wrong) > 0 {
		return nil, op.Faults("body.", wrong)
	}
	out := &arrangeOutput{Arranged{session.Slots, session.Combos}}
	if out.Body.Combos == nil {
		out.Body.Combos = []plan.Combo{}
	}
	return out, nil
}
