package httpapi

import (
	"context"
	"errors"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
	"musculus/internal/core/stance"
	"musculus/internal/store"
)

type fitInput struct {
	Body struct {
		Movement string         `json:"movement" maxLength:"60"`
		Settings map[string]any `json:"settings,omitempty"`
		Client   *uuid.UUID     `json:"client,omitempty" doc:"whose body and stance are used; absent: the average adult"`
		Stance   string         `json:"stance,omitempty" maxLength:"40" doc:"id of a stance instead of the client's, or of the default"`
		Turning  string         `json:"turning,omitempty" maxLength:"40" doc:"a setting that is being turned: the answer brings its neighbouring steps along"`
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
	Neighbours []Neighbour `json:"neighbours"`
}

type fitOutput struct{ Body Fitted }

func (s *server) registerFitting(api huma.API) {
	huma.Register(api, operation("fit", http.MethodPost, "/fit", "What a set-up does to each head"), s.fit)
}

func (s *server) fit(ctx context.Context, in *fitInput) (*fitOutput, error) {
	body, st, err := s.wearer(ctx, in.Body.Client, in.Body.Stance)
	if err != nil {
		return nil, err
	}
	set, err := setUp("body.", in.Body.Movement, in.Body.Settings)
	if err != nil {
		return nil, err
	}
	fitted, err := s.fitted(set, body, st, movement.Key(in.Body.Turning))
	return &fitOutput{fitted}, err
}

// wearer is whose body and stance a fitting is for: the client's, or the average
// adult's under the default stance; a stance asked for by id goes before.
func (s *server) wearer(ctx context.Context, client *uuid.UUID, id string) (arm.Body, *stance.Stance, error) {
	body, own := arm.DefaultBody, stance.Default
	if client != nil {
		err := s.inStudio(ctx, func(tx *store.Tx, _ store.Account) error {
			c, err := tx.Client(ctx, *client)
			body, own = c.Body, c.Stance
			return err
		})
		if err != nil {
			return body, nil, err
		}
	}
	if id != "" {
		own = id
	}
	st := stance.ByID(own)
	if st == nil {
		return body, nil, fieldProblem("body.stance", "there is no stance %q", own)
	}
	return body, st, nil
}

// setUp reads a set-up out of a request; errors name the field.
func setUp(at, id string, settings map[string]any) (movement.SetUp, error) {
	m := movement.Shipped.Get(id)
	if m == nil {
		return movement.SetUp{}, fieldProblem(at+"movement", "there is no movement %q", id)
	}
	turned, fault := values(settings)
	if fault != nil {
		return movement.SetUp{}, faults(at+"settings.", []*movement.FieldError{fault})
	}
	set, err := m.SetUp(turned)
	var field *movement.FieldError
	if errors.As(err, &field) {
		return set, faults(at+"settings.", []*movement.FieldError{field})
	}
	return set, err
}

// fitted views a set-up and the next steps of the setting being turned.
func (s *server) fitted(set movement.SetUp, body arm.Body, st *stance.Stance, turning movement.Key) (Fitted, error) {
	y, err := s.bodies.of(body)
	if err != nil {
		return Fitted{}, problemOf(err)
	}
	out := Fitted{View: viewSetUp(set, y, st), Neighbours: []Neighbour{}}
	setting := set.Movement.Setting(turning)
	if setting == nil || setting.IsWord() {
		return out, nil
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
				out.Neighbours = append(out.Neighbours, Neighbour{*next, viewSetUp(there, y, st)})
			}
		}
	}
	return out, nil
}
