package sessions

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

type sessionOutput struct{ Body view.SessionView }

type saveInput struct {
	op.SessionPath
	Body struct {
		plan.Planned
		Version int       `json:"version" minimum:"1" maximum:"1000000" doc:"the version that was edited"`
		Write   uuid.UUID `json:"write" doc:"made for this save; sending it again saves once"`
		Sure    bool      `json:"sure,omitempty" doc:"answers a question: on a past day all the same"`
	}
}

type addInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		plan.Planned
		Write uuid.UUID `json:"write"`
		Sure  bool      `json:"sure,omitempty" doc:"answers a question: on a past day all the same"`
	}
}

type previewInput struct {
	op.SessionPath
	Body struct {
		plan.Planned
		Active  *uuid.UUID `json:"active,omitempty" doc:"the slot whose set-up is shown in full"`
		Turning string     `json:"turning,omitempty" maxLength:"40"`
	}
}

// Preview is an unsaved session, with the active slot's set-up in full.
type Preview struct {
	Session view.SessionView  `json:"session"`
	Active  *view.Fitted      `json:"active,omitempty"`
	Faults  []view.FieldFault `json:"faults"` // what keeps it from being saved
}

type previewOutput struct{ Body Preview }

func (s *place) registerSessions(api huma.API) {
	const path = "/clients/{client}/sessions/{session}"
	huma.Register(api, op.Operation("get-session", op.Everybody, http.MethodGet, path, "One session"), s.getSession)
	huma.Register(
		api,
		op.Operation("add-session", op.Planners, http.MethodPost, "/clients/{client}/sessions", "Plan a session"),
		s.addSession,
	)
	huma.Register(api, op.Operation("save-session", op.Planners, http.MethodPut, path, "Save a session"), s.saveSession)
	huma.Register(
		api,
		op.Operation("preview-session", op.Everybody, http.MethodPost, path+"/preview", "What an unsaved session comes to"),
		s.previewSession,
	)
}

func (s *place) getSession(ctx context.Context, in *op.SessionPath) (*sessionOutput, error) {
	return s.answer(ctx, in.Client, func(tx *store.Tx, _ store.Account, c *store.Client) (store.Session, error) {
		return tx.Session(ctx, in.Client, in.Session, op.Movements(ctx))
	})
}

func (s *place) addSession(ctx context.Context, in *addInput) (*sessionOutput, error) {
	return s.answer(ctx, in.Client, func(tx *store.Tx, a store.Account, c *store.Client) (kept store.Session, err error) {
		draft, err := s.Checked(ctx, c, &in.Body.Planned)
		if err != nil {
			return kept, err
		}
		draft.ClientID = in.Client
		if err := s.DayAsked(ctx, tx, &draft, "body.planned_on", in.Body.Sure); err != nil {
			return kept, err
		}
		if err := tx.AddSession(ctx, draft, a.ID, in.Body.Write, op.Movements(ctx)); err != nil {
			return kept, err
		}
		if err := s.WeekHolds(ctx, tx, c, draft.On); err != nil {
			return kept, err
		}
		return tx.Session(ctx, in.Client, in.Body.ID, op.Movements(ctx))
	})
}

func (s *place) saveSession(ctx context.Context, in *saveInput) (*sessionOutput, error) {
	return s.answer(ctx, in.Client, func(tx *store.Tx, a store.Account, c *store.Client) (kept store.Session, err error) {
		draft, err := s.Checked(ctx, c, &in.Body.Planned)
		if err != nil {
			return kept, err
		}
		draft.ID, draft.ClientID, draft.Version = in.Session, in.Client, in.Body.Version
		if err := s.DayAsked(ctx, tx, &draft, "body.planned_on", in.Body.Sure); err != nil {
			return kept, err
		}
		if kept, err = tx.SaveSession(ctx, draft, a.ID, in.Body.Write, op.Movements(ctx)); err != nil {
			return kept, s.StaleProblem(ctx, tx, c, err)
		}
		return kept, s.WeekHolds(ctx, tx, c, kept.On)
	})
}

// answer shows the session that do finds or keeps.
func (s *place) answer(
	ctx context.Context,
	client uuid.UUID,
	do func(*store.Tx, store.Account, *store.Client) (store.Session, error),
) (*sessionOutput, error) {
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *op.KeptSession) error {
		c, err := tx.Client(ctx, client)
		if err != nil {
			return err
		}
		kept, err := do(tx, op.AccountOf(ctx), &c)
		if err != nil {
			return err
		}
		*r, err = s.ReadKept(ctx, tx, &c, kept)
		return err
	}, func(r *op.KeptSession) (*sessionOutput, error) {
		v, err := s.ViewSession(ctx, r.T, r.C, r.Kept)
		return &sessionOutput{v}, err
	})
}

func (s *place) previewSession(ctx context.Context, in *previewInput) (*previewOutput, error) {
	var c store.Client
	var t *week.Trainee
	err := s.InStudio(ctx, func(tx *store.Tx, _ store.Account) (err error) {
		if c, err = tx.Client(ctx, in.Client); err == nil {
			t, err = s.Informed(ctx, tx, &c)
		}
		return err
	})
	if err != nil {
		return nil, err
	}
	out := &previewOutput{}
	draft, wrong := s.Read(ctx, &c, &in.Body.Planned)
	if len(wrong) > 0 { // a set-up that cannot even be read
		return nil, op.Faults("body.", wrong)
	}
	draft.ID = in.Session
	out.Body.Faults = []view.FieldFault{}
	for _, f := range t.Check(&draft.Session) {
		out.Body.Faults = append(out.Body.Faults, view.FieldFault{Field: f.Field, Reason: f.Reason, Asks: f.Asks})
	}
	if out.Body.Session, err = s.ViewSession(ctx, t, &c, draft); err != nil {
		return nil, op.ProblemOf(err)
	}
	for _, slot := range draft.Slots {
		if in.Body.Active != nil && slot.ID == *in.Body.Active {
			fitted := view.FittedOf(slot.SetUp, t.Yardstick, t.Stance, t.Fence, movement.Key(in.Body.Turning))
			out.Body.Active = &fitted
		}
	}
	return out, nil
}
