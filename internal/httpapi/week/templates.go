package week

import (
	"context"
	"encoding/json"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/formats"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// TemplateView is a week kept for other clients.
type TemplateView struct {
	ID    uuid.UUID `json:"id"`
	Name  string    `json:"name"`
	Holds string    `json:"holds"` // its sessions, in words
}

type templatesOutput struct {
	Body struct {
		Templates []TemplateView `json:"templates"`
	}
}

type keepTemplateInput struct {
	ID   uuid.UUID `path:"template"`
	Body struct {
		Client uuid.UUID `json:"client" doc:"whose week it is made of; loads stay with her"`
		Of     string    `json:"of" doc:"a day of that week"`
		Name   string    `json:"name" maxLength:"60"`
	}
}

type templatePath struct {
	ID uuid.UUID `path:"template"`
}

type layTemplateInput struct {
	Client uuid.UUID `path:"client"`
	ID     uuid.UUID `path:"template"`
	Of     string    `query:"of" doc:"a day of the week it is laid on"`
}

func (s *place) registerTemplates(api huma.API) {
	huma.Register(api, op.Operation("templates", op.Everybody, http.MethodGet, "/templates", "Weeks kept for other clients"), s.templates)
	huma.Register(
		api,
		op.Operation("keep-template", op.Planners, http.MethodPut, "/templates/{template}", "Keep a client's week as a template"),
		s.keepTemplate,
	)
	huma.Register(
		api,
		op.Operation("drop-template", op.Planners, http.MethodDelete, "/templates/{template}", "Forget a template"),
		s.dropTemplate,
	)
	huma.Register(
		api,
		op.Operation(
			"lay-template",
			op.Planners,
			http.MethodPost,
			"/clients/{client}/templates/{template}",
			"What laying a template on a week would change; nothing is kept",
		),
		s.layTemplate,
	)
}

func (s *place) templates(ctx context.Context, _ *struct{}) (*templatesOutput, error) {
	out := &templatesOutput{}
	out.Body.Templates = []TemplateView{}
	return out, s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		list, err := tx.Templates(ctx)
		for _, x := range list {
			var names []string
			for _, session := range formats.ReadPlanJSON(x.Plan).Plan.Sessions {
				names = append(names, session.Name)
			}
			out.Body.Templates = append(out.Body.Templates, TemplateView{x.ID, x.Name, strings.Join(names, ", ")})
		}
		return err
	})
}

// keepTemplate keeps a week without its loads: those are the client's.
func (s *place) keepTemplate(ctx context.Context, in *keepTemplateInput) (*struct{}, error) {
	name := strings.TrimSpace(in.Body.Name)
	if name == "" {
		return nil, op.FieldProblem("body.name", "a template is kept under a name")
	}
	on, err := s.DayIn(ctx, in.Body.Of)
	if err != nil {
		return nil, err
	}
	from := on.Monday()
	return nil, s.InStudio(ctx, func(tx *store.Tx, a store.Account) error {
		c, err := tx.Client(ctx, in.Body.Client)
		if err != nil {
			return err
		}
		kept, err := tx.SessionsBetween(ctx, c.ID, from, from+6, op.Movements(ctx))
		if err != nil {
			return err
		}
		if len(kept) == 0 {
			return op.FieldProblem("body.of", "there is no session in this week to keep")
		}
		week, err := planOf(&c, kept)
		if err != nil {
			return err
		}
		week.Client = ""
		for i := range week.Sessions {
			week.Sessions[i].DropLoads()
		}
		week.Format, week.Version = formats.PlanFormat, formats.PlanVersion
		b, err := json.Marshal(week)
		if err != nil {
			return err
		}
		return tx.AddTemplate(ctx, store.Template{ID: in.ID, Name: name, Monday: from, Plan: b}, a.ID)
	})
}

func (s *place) dropTemplate(ctx context.Context, in *templatePath) (*struct{}, error) {
	return nil, s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error { return tx.DropTemplate(ctx, in.ID) })
}

func (s *place) layTemplate(ctx context.Context, in *layTemplateInput) (*importPlanOutput, error) {
	on, err := s.DayIn(ctx, in.Of)
	if err != nil {
		return nil, err
	}
	onto := on.Monday()
	out := &importPlanOutput{}
	return out, s.InClient(ctx, in.Client, func(tx *store.Tx, _ store.Account, c *store.Client) error {
		x, err := tx.Template(ctx, in.ID)
		if err != nil {
			return err
		}
		read := formats.ReadPlanJSON(x.Plan)
		for i := range read.Plan.Sessions {
			if d, err := day.Parse(read.Plan.Sessions[i].Date); err == nil {
				read.Plan.Sessions[i].Date = (d - x.Monday + onto).String()
			}
		}
		out.Body, err = s.wouldChange(ctx, tx, c, &read, "")
		return err
	})
}
