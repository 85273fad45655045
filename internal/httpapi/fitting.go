package httpapi

import (
	"context"
	"errors"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/stance"
	"musculus/internal/store"
)

// WornInput is a set-up and who it is for.
type WornInput struct {
	Movement string            `json:"movement" maxLength:"60"`
	Settings movement.Settings `json:"settings,omitempty"`
	Client   *uuid.UUID        `json:"client,omitempty"`
	Stance   string            `json:"stance,omitempty" maxLength:"40"`
}

type fitInput struct {
	Body struct {
		Movement string            `json:"movement" maxLength:"60"`
		Settings movement.Settings `json:"settings,omitempty"`
		Client   *uuid.UUID        `json:"client,omitempty" doc:"whose body and stance are used; absent: the average adult"`
		Stance   string            `json:"stance,omitempty" maxLength:"40" doc:"id of a stance instead of the client's, or of the default"`
		Turning  string            `json:"turning,omitempty" maxLength:"40" doc:"a setting that is being turned: the answer brings its neighbouring steps along"`
	}
}

// Neighbour is the view one step further along the setting being turned.
type Neighbour struct {
	Value float64   `json:"value"`
	View  SetUpView `json:"view"`
}

// Fitted is a set-up and, while a setting is turned, its neighbours.
type Fitted struct {
	View       SetUpView   `json:"view"`
	Blocked    string      `json:"blocked"` // why the client may not train, empty if she may, or without one
	Neighbours []Neighbour `json:"neighbours"`
}

type fitOutput struct{ Body Fitted }

func (s *server) registerFitting(api huma.API) {
	huma.Register(api, operation("fit", http.MethodPost, "/fit", "What a set-up does to each head"), s.fit)
}

func (s *server) fit(ctx context.Context, in *fitInput) (*fitOutput, error) {
	set, y, st, c, err := s.worn(ctx, &WornInput{in.Body.Movement, in.Body.Settings, in.Body.Client, in.Body.Stance})
	if err != nil {
		return nil, err
	}
	out := s.fitted(set, y, st, s.fence(c), movement.Key(in.Body.Turning))
	out.Blocked = s.blocked(c)
	return &fitOutput{out}, nil
}

// wearer is whose body and stance a fitting is for: the client's, or the average
// adult's under the default stance; a stance asked for by id goes before.
func (s *server) wearer(ctx context.Context, c *store.Client, id string) (arm.Body, *stance.Stance, error) {
	body, st := arm.DefaultBody, stance.ByID(stance.Default)
	if c != nil {
		body, st = c.Dossier.Body(), c.Stance
	}
	if id == "" {
		return body, st, nil
	}
	if shipped := stance.ByID(id); shipped != nil {
		return body, shipped, nil
	}
	err := s.inStudio(ctx, func(tx *store.Tx, _ store.Account) (err error) {
		st, err = stanceOf(ctx, tx, id)
		return err
	})
	return body, st, err
}

// stanceOf finds a stance by id: a shipped one or the studio's own.
func stanceOf(ctx context.Context, tx *store.Tx, id string) (*stance.Stance, error) {
	if st := stance.ByID(id); st != nil {
		return st, nil
	}
	none := fieldProblem("body.stance", "there is no stance %q", id)
	own, err := uuid.Parse(id)
	if err != nil {
		return nil, none
	}
	st, err := tx.OwnStance(ctx, own)
	if errors.Is(err, pgx.ErrNoRows) {
		return nil, none
	}
	return &st.Stance, err
}

// worn reads a set-up, the body that wears it and the stance it is seen under.
func (s *server) worn(ctx context.Context, in *WornInput) (movement.SetUp, *effort.Yardstick, *stance.Stance, *store.Client, error) {
	var none movement.SetUp
	c, err := s.clientOf(ctx, in.Client)
	if err != nil {
		return none, nil, nil, nil, err
	}
	body, st, err := s.wearer(ctx, c, in.Stance)
	if err != nil {
		return none, nil, nil, nil, err
	}
	set, err := setUp(ctx, "body.", in.Movement, in.Settings)
	if err != nil {
		return none, nil, nil, nil, err
	}
	y, err := s.yardstick(body)
	return set, y, st, c, problemIf(err)
}

// setUp reads a set-up out of a request; errors name the field.
func setUp(ctx context.Context, at, id string, settings movement.Settings) (movement.SetUp, error) {
	set, fault := movements(ctx).SetUp(at, id, settings)
	if fault != nil {
		return set, faults("", []*movement.FieldError{fault})
	}
	return set, nil
}

// fitted views a set-up and the next steps of the setting being turned.
func (s *server) fitted(set movement.SetUp, y *effort.Yardstick, st *stance.Stance, fence *person.Fence, turning movement.Key) Fitted {
	out := Fitted{View: viewSetUp(set, y, st, fence), Neighbours: []Neighbour{}}
	setting := set.Movement.Setting(turning)
	if setting == nil || setting.IsWord() {
		return out
	}
	for _, c := range out.View.Controls {
		if c.Key != string(turning) {
			continue
		}
		for _, next := range []*float64{c.Down, c.Up} {
			if next == nil {
				continue
			}
			if there, err := set.With(turning, movement.Num(*next)); err == nil {
				out.Neighbours = append(out.Neighbours, Neighbour{*next, viewSetUp(there, y, st, fence)})
			}
		}
	}
	return out
}
