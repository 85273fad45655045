package httpapi

import (
	"context"
	"errors"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
	"musculus/internal/store"
)

type fitInput struct {
	Body struct {
		Movement string         `json:"movement" maxLength:"60"`
		Settings map[string]any `json:"settings,omitempty"`
		Client   *uuid.UUID     `json:"client,omitempty" doc:"whose body is used; absent: the average adult"`
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
	body := arm.DefaultBody
	if in.Body.Client != nil {
		err := s.inStudio(ctx, func(tx *store.Tx, _ store.Account) error {
			c, err := tx.Client(ctx, *in.Body.Client)
			body = c.Body
			return err
		})
		if err != nil {
			return nil, err
		}
	}
	set, err := setUp("body.", in.Body.Movement, in.Body.Settings)
	if err != nil {
		return nil, err
	}
	fitted, err := s.fitted(set, body, movement.Key(in.Body.Turning))
	return &fitOutput{fitted}, err
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
func (s *server) fitted(set movement.SetUp, body arm.Body, turning movement.Key) (Fitted, error) {
	y, err := s.bodies.of(body)
	if err != nil {
		return Fitted{}, problemOf(err)
	}
	out := Fitted{View: viewSetUp(set, y), Neighbours: []Neighbour{}}
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
				out.Neighbours = append(out.Neighbours, Neighbour{*next, viewSetUp(there, y)})
			}
		}
	}
	return out, nil
}
