package library

import (
	"context"
	"fmt"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/datafile"
	"musculus/internal/core/movement"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// TextFault is what is wrong with a written entry.
type TextFault struct {
	Line   int    `json:"line"`
	Field  string `json:"field"`
	Reason string `json:"reason"`
}

// OwnMovementView is one of the studio's movements as it is written.
type OwnMovementView struct {
	ID      string      `json:"id"`
	Name    string      `json:"name"`
	Text    string      `json:"text"`
	Retired bool        `json:"retired"`
	Version int         `json:"version"`
	Faults  []TextFault `json:"faults"` // why it is not in the catalogue just now
}

// OwnSetUpView is a set-up kept under a name.
type OwnSetUpView struct {
	ID       uuid.UUID         `json:"id"`
	Name     string            `json:"name"`
	Movement string            `json:"movement"`
	Settings movement.Settings `json:"settings"`
	Says     string            `json:"says"`   // its composed name
	Broken   string            `json:"broken"` // why it cannot be worn any more
}

type ownOutput struct {
	Body struct {
		Movements []OwnMovementView `json:"movements"`
		SetUps    []OwnSetUpView    `json:"set_ups"`
	}
}

type ownTextInput struct {
	Body struct {
		Movement string            `json:"movement" maxLength:"60"`
		Settings movement.Settings `json:"settings,omitempty"`
		Name     string            `json:"name" minLength:"1" maxLength:"60"`
	}
}

type ownTextOutput struct {
	Body struct {
		ID   string `json:"id"`
		Text string `json:"text"`
	}
}

type checkOwnInput struct {
	Body struct {
		ID   string `json:"id" maxLength:"60"`
		Text string `json:"text" maxLength:"20000"`
	}
}

type checkOwnOutput struct {
	Body struct {
		Faults []TextFault     `json:"faults"`
		View   *view.SetUpView `json:"view,omitempty"` // at its defaults, when nothing is wrong
	}
}

type saveOwnInput struct {
	ID   string `path:"movement" maxLength:"60"`
	Body struct {
		Text    string `json:"text" maxLength:"20000"`
		Retired bool   `json:"retired,omitempty"`
		Version int    `json:"version" minimum:"0" maximum:"1000000" doc:"the version it was read as; 0: it is new"`
	}
}

type keepInput struct {
	ID   uuid.UUID `path:"set_up"`
	Body struct {
		Name     string            `json:"name" maxLength:"60"`
		Movement string            `json:"movement" maxLength:"60"`
		Settings movement.Settings `json:"settings,omitempty"`
	}
}

type dropInput struct {
	ID uuid.UUID `path:"set_up"`
}

func (s *place) registerOwn(api huma.API) {
	huma.Register(api, op.Operation("own", op.Everybody, http.MethodGet, "/own", "The studio's own movements and set-ups"), s.own)
	huma.Register(
		api,
		op.Operation("own-text", op.Planners, http.MethodPost, "/own/text", "A set-up written as a movement of one's own"),
		s.ownText,
	)
	huma.Register(
		api,
		op.Operation("check-own", op.Planners, http.MethodPost, "/own/check", "What is wrong with a written movement"),
		s.checkOwn,
	)
	huma.Register(
		api,
		op.Operation("save-own", op.Planners, http.MethodPut, "/own/movements/{movement}", "Keep a movement of one's own"),
		s.saveOwn,
	)
	huma.Register(
		api,
		op.Operation("keep-set-up", op.Planners, http.MethodPut, "/own/set-ups/{set_up}", "Keep a set-up under a name"),
		s.keepSetUp,
	)
	huma.Register(
		api,
		op.Operation("drop-set-up", op.Planners, http.MethodDelete, "/own/set-ups/{set_up}", "Forget a kept set-up"),
		s.dropSetUp,
	)
}

func viewFaults(faults []*datafile.Fault, of string) []TextFault {
	out := []TextFault{}
	for _, f := range faults {
		if f.File == of {
			out = append(out, TextFault{f.Line, f.Field, f.Reason})
		}
	}
	return out
}

func (s *place) own(ctx context.Context, _ *struct{}) (*ownOutput, error) {
	o := op.OwnOf(ctx)
	out := &ownOutput{}
	out.Body.Movements, out.Body.SetUps = []OwnMovementView{}, []OwnSetUpView{}
	for _, m := range o.Movements {
		v := OwnMovementView{ID: m.ID, Name: m.ID, Text: m.Text, Retired: m.Retired, Version: m.Version, Faults: viewFaults(o.Faults, m.ID)}
		if read := o.Catalogue.Get(m.ID); read != nil {
			v.Name = read.Default().Title()
		}
		out.Body.Movements = append(out.Body.Movements, v)
	}
	for _, k := range o.SetUps {
		v := OwnSetUpView{ID: k.ID, Name: k.Name, Movement: k.Movement, Settings: k.Settings}
		if set, err := k.SetUp(o.Catalogue); err != nil {
			v.Broken = err.Error()
		} else {
			v.Says = set.Name()
		}
		out.Body.SetUps = append(out.Body.SetUps, v)
	}
	return out, nil
}

func (s *place) ownText(ctx context.Context, in *ownTextInput) (*ownTextOutput, error) {
	set, err := op.SetUp(ctx, "body.", in.Body.Movement, in.Body.Settings)
	if err != nil {
		return nil, err
	}
	out := &ownTextOutput{}
	out.Body.ID = movement.OwnID(in.Body.Name)
	if !strings.HasPrefix(out.Body.ID, movement.OwnPrefix) {
		return nil, op.FieldProblem("body.name", "the name needs at least one letter or digit")
	}
	out.Body.Text, err = movement.OwnText(set, out.Body.ID, strings.TrimSpace(in.Body.Name))
	return out, op.ProblemIf(err)
}

func (s *place) checkOwn(ctx context.Context, in *checkOwnInput) (*checkOwnOutput, error) {
	out := &checkOwnOutput{}
	m, faults := op.Movements(ctx).CheckOwn(movement.Own{ID: in.Body.ID, Text: in.Body.Text})
	out.Body.Faults = viewFaults(faults, in.Body.ID)
	if m != nil {
		body, st, err := s.Wearer(ctx, nil, "")
		if err != nil {
			return nil, err
		}
		y, err := s.Yardstick(body)
		if err != nil {
			return nil, op.ProblemOf(err)
		}
		v := view.SetUpOf(m.Default(), y, st, nil)
		out.Body.View = &v
	}
	return out, nil
}

func (s *place) saveOwn(ctx context.Context, in *saveOwnInput) (*struct{}, error) {
	m := store.OwnMovement{Own: movement.Own{ID: in.ID, Text: in.Body.Text, Retired: in.Body.Retired}, Version: in.Body.Version}
	if _, wrong := op.Movements(ctx).CheckOwn(m.Own); len(wrong) > 0 {
		p := op.Problem(http.StatusUnprocessableEntity, wrong[0].Error())
		for _, f := range wrong {
			p.Errors = append(p.Errors, &huma.ErrorDetail{Location: fmt.Sprintf("body.text:%d", f.Line), Message: f.Error()})
		}
		return nil, p
	}
	defer s.Catalogues.Forget(op.AccountOf(ctx).Studio)
	return nil, s.InStudio(ctx, func(tx *store.Tx, a store.Account) error {
		done, err := tx.SaveOwnMovement(ctx, m, a.ID)
		if err == nil && !done {
			return op.Problem(http.StatusConflict, "somebody changed this movement, or took its name, in between; look again")
		}
		return err
	})
}

func (s *place) keepSetUp(ctx context.Context, in *keepInput) (*struct{}, error) {
	set, err := op.SetUp(ctx, "body.", in.Body.Movement, in.Body.Settings)
	if err != nil {
		return nil, err
	}
	name := strings.TrimSpace(in.Body.Name)
	if name == "" {
		return nil, op.FieldProblem("body.name", "a set-up is kept under a name")
	}
	defer s.Catalogues.Forget(op.AccountOf(ctx).Studio)
	return nil, s.InStudio(ctx, func(tx *store.Tx, a store.Account) error {
		return tx.AddOwnSetUp(ctx, store.OwnSetUp{ID: in.ID, Name: name, Movement: set.Movement.ID, Settings: set.Turned()}, a.ID)
	})
}

func (s *place) dropSetUp(ctx context.Context, in *dropInput) (*struct{}, error) {
	defer s.Catalogues.Forget(op.AccountOf(ctx).Studio)
	return nil, s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error { return tx.DropOwnSetUp(ctx, in.ID) })
}
