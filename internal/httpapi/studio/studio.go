package studio

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/core/day"
	"musculus/internal/core/person"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// StudioView is the studio itself.
type StudioView struct {
	Name  string `json:"name"`
	Zone  string `json:"zone" doc:"in which its days are counted, as the zones' database names it"`
	Today string `json:"today" doc:"what day it is there, in words"`

	Axes        []AxisView        `json:"axes"`        // how one may like to train
	Preferences map[string]string `json:"preferences"` // the studio's choices by axis; what is not there is the default
}

// AxisView is something that coaches do one way or another; the first choice is the
// default.
type AxisView struct {
	ID      string       `json:"id"`
	Label   string       `json:"label"`
	Acts    string       `json:"acts"`
	Choices []AxisChoice `json:"choices"`
}

// AxisChoice is one way of an axis, with its reason.
type AxisChoice struct {
	ID    string `json:"id"`
	Words string `json:"words"`
	Why   string `json:"why"`
}

type preferencesInput struct {
	Body struct {
		Preferences map[string]string `json:"preferences" doc:"by axis; what is not there is the default"`
	}
}

type studioOutput struct{ Body StudioView }

type zoneInput struct {
	Body struct {
		Zone string `json:"zone" minLength:"1" maxLength:"60"`
	}
}

func (s *place) registerStudio(api huma.API) {
	huma.Register(api, op.Operation("studio", op.Everybody, http.MethodGet, "/studio", "The studio itself"), s.studio)
	huma.Register(
		api,
		op.Operation("set-zone", op.Owners, http.MethodPut, "/studio/zone", "In which zone the studio's days are counted"),
		s.setZone,
	)
	huma.Register(
		api,
		op.Operation("set-preferences", op.Planners, http.MethodPut, "/studio/preferences", "How the studio likes to train"),
		s.setPreferences,
	)
}

// viewStudio views the studio on a day.
func viewStudio(s *store.Studio, today day.Day) StudioView {
	out := StudioView{Name: s.Name, Zone: s.Zone, Today: today.Long(), Axes: []AxisView{}, Preferences: map[string]string{}}
	for _, a := range person.Axes {
		v := AxisView{ID: string(a.ID), Label: a.Label, Acts: a.Acts}
		for _, c := range a.Choices {
			v.Choices = append(v.Choices, AxisChoice{c.ID, c.Words, c.Why})
		}
		out.Axes = append(out.Axes, v)
	}
	for axis, choice := range s.Preferences {
		out.Preferences[string(axis)] = choice
	}
	return out
}

func (s *place) setPreferences(ctx context.Context, in *preferencesInput) (*studioOutput, error) {
	prefers := person.Preferences{}
	for axis, choice := range in.Body.Preferences {
		prefers[person.AxisID(axis)] = choice
	}
	if err := op.FieldFaults("body.", prefers.Check()); err != nil {
		return nil, err
	}
	defer s.Catalogues.Forget(op.AccountOf(ctx).Studio)
	out := &studioOutput{}
	return out, s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		if err := tx.SetPreferences(ctx, prefers); err != nil {
			return err
		}
		studio, err := tx.Studio(ctx)
		out.Body = viewStudio(&studio, day.At(s.Now().In(studio.Location())))
		return err
	})
}

func (s *place) studio(ctx context.Context, _ *struct{}) (*studioOutput, error) {
	out := &studioOutput{}
	return out, s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		studio, err := tx.Studio(ctx)
		out.Body = viewStudio(&studio, day.At(s.Now().In(studio.Location())))
		return err
	})
}

func (s *place) setZone(ctx context.Context, in *zoneInput) (*studioOutput, error) {
	zone, err := time.LoadLocation(in.Body.Zone)
	if err != nil || in.Body.Zone == "Local" {
		return nil, op.FieldProblem("body.zone", "there is no zone %q; they are written like Europe/Lisbon", in.Body.Zone)
	}
	defer s.Catalogues.Forget(op.AccountOf(ctx).Studio)
	out := &studioOutput{}
	return out, s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		if err := tx.SetZone(ctx, in.Body.Zone); err != nil {
			return err
		}
		studio, err := tx.Studio(ctx)
		out.Body = viewStudio(&studio, day.At(s.Now().In(zone)))
		return err
	})
}
