package studio

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/core/day"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// StudioView is the studio itself.
type StudioView struct {
	Name  string `json:"name"`
	Zone  string `json:"zone" doc:"in which its days are counted, as the zones' database names it"`
	Today string `json:"today" doc:"what day it is there, in words"`
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
}

func (s *place) studio(ctx context.Context, _ *struct{}) (*studioOutput, error) {
	out := &studioOutput{}
	return out, s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		studio, err := tx.Studio(ctx)
		out.Body = StudioView{studio.Name, studio.Zone, day.At(s.Now().In(studio.Location())).Long()}
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
		out.Body = StudioView{studio.Name, studio.Zone, day.At(s.Now().In(zone)).Long()}
		return err
	})
}
