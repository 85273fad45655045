package library

import (
	"context"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/entry"
	"musculus/internal/core/movement"
	"musculus/internal/core/series"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// TryOutView is a set-up that was tried.
type TryOutView struct {
	ID       uuid.UUID         `json:"id"`
	On       string            `json:"on"`
	Movement string            `json:"movement"`
	Settings movement.Settings `json:"settings"`
	Name     string            `json:"name"`
	Comfort  int               `json:"comfort"`
	Felt     string            `json:"felt"`
	Outcome  string            `json:"outcome" enum:"kept,dropped,open"`
	Note     string            `json:"note"`
}

type overrideInput struct {
	Client   uuid.UUID `path:"client"`
	Movement string    `path:"movement"`
	Body     struct {
		ID      uuid.UUID `json:"id"`
		Allowed bool      `json:"allowed" doc:"false: the verdict stands again"`
		Reason  string    `json:"reason" maxLength:"300"`
	}
}

type tryOutInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		ID       uuid.UUID         `json:"id"`
		Movement string            `json:"movement" maxLength:"60"`
		Settings movement.Settings `json:"settings,omitempty"`
		Comfort  int               `json:"comfort" minimum:"0" maximum:"10"`
		Felt     string            `json:"felt" maxLength:"100"`
		Outcome  string            `json:"outcome" enum:"kept,dropped,open"`
		Note     string            `json:"note,omitempty" maxLength:"300"`
	}
}

type recordInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		Movement string            `json:"movement" maxLength:"60"`
		Settings movement.Settings `json:"settings,omitempty"`
	}
}

type recordOutput struct {
	Body struct {
		Loads   view.LoadFit `json:"loads"`
		TryOuts []TryOutView `json:"try_outs"`
	}
}

type verdictOutput struct {
	Body struct {
		Verdict view.VerdictView `json:"verdict"` // of the movement at its defaults
	}
}

type tryOutsOutput struct {
	Body struct {
		TryOuts []TryOutView `json:"try_outs"`
	}
}

func (s *place) registerVerdicts(api huma.API) {
	huma.Register(
		api,
		op.Operation(
			"override",
			op.Planners,
			http.MethodPost,
			"/clients/{client}/overrides/{movement}",
			"Override a verdict, or let it stand again",
		),
		s.override,
	)
	huma.Register(
		api,
		op.Operation(
			"record-of",
			op.Everybody,
			http.MethodPost,
			"/clients/{client}/record",
			"Whether a set-up's loads fit the client, and what was tried",
		),
		s.recordOf,
	)
	huma.Register(
		api,
		op.Operation("try-outs", op.Everybody, http.MethodGet, "/clients/{client}/try-outs", "What the client has tried"),
		s.tryOuts,
	)
	huma.Register(
		api,
		op.Operation("add-try-out", op.Everybody, http.MethodPost, "/clients/{client}/try-outs", "Record what a set-up felt like"),
		s.addTryOut,
	)
}

// How a set-up is dosed where only its fit is asked for.
const (
	usualLow, usualHigh = 8, 12
	usualReserve        = 2
)

// loadFit answers from the set-up's own series.
func (s *place) loadFit(ctx context.Context, tx *store.Tx, c *store.Client, set movement.SetUp) (view.LoadFit, error) {
	past, err := tx.SeriesEntries(ctx, c.ID, set.Key(), op.Movements(ctx))
	if err != nil {
		return view.LoadFit{}, err
	}
	body := c.Dossier.Body()
	e1rm, logged := series.Says(entry.SaidOf(past), s.Day(ctx))
	f := series.DoesFit(set, c.Room(), body.BodyMass, e1rm, logged, usualLow, usualHigh, usualReserve)
	return view.FitOf(f), nil
}

// recordOf tells what is known of a client and a set-up: whether the loads fit and
// what was tried.
func (s *place) recordOf(ctx context.Context, in *recordInput) (*recordOutput, error) {
	set, err := op.SetUp(ctx, "body.", in.Body.Movement, in.Body.Settings)
	if err != nil {
		return nil, err
	}
	out := &recordOutput{}
	out.Body.TryOuts = []TryOutView{}
	return out, s.InClient(ctx, in.Client, func(tx *store.Tx, _ store.Account, c *store.Client) error {
		if out.Body.Loads, err = s.loadFit(ctx, tx, c, set); err != nil {
			return err
		}
		tried, err := tx.TryOuts(ctx, c.ID)
		for _, t := range tried {
			if t.Movement == set.Movement.ID {
				out.Body.TryOuts = append(out.Body.TryOuts, viewTryOut(ctx, t))
			}
		}
		return err
	})
}

func viewTryOut(ctx context.Context, t store.TryOut) TryOutView {
	out := TryOutView{
		ID:       t.ID,
		On:       t.On.Words(),
		Movement: t.Movement,
		Settings: t.Settings,
		Name:     t.Movement,
		Comfort:  t.Comfort,
		Felt:     t.Felt,
		Outcome:  t.Outcome,
		Note:     t.Note,
	}
	if m := op.Movements(ctx).Get(t.Movement); m != nil {
		if set, err := m.SetUp(t.Settings); err == nil {
			out.Name = set.Name()
		}
	}
	return out
}

func (s *place) override(ctx context.Context, in *overrideInput) (*verdictOutput, error) {
	m := op.Movements(ctx).Get(in.Movement)
	if m == nil {
		return nil, op.Problem(http.StatusNotFound, "there is no movement "+in.Movement)
	}
	reason := strings.TrimSpace(in.Body.Reason)
	if in.Body.Allowed && reason == "" {
		return nil, op.FieldProblem("body.reason", "an override is kept with its reason")
	}
	out := &verdictOutput{}
	return out, s.InClient(ctx, in.Client, func(tx *store.Tx, a store.Account, c *store.Client) error {
		if err := tx.AddOverride(ctx, in.Body.ID, c.ID, store.Override{Movement: m.ID, Allowed: in.Body.Allowed, Reason: reason},
			a.ID); err != nil {
			return err
		}
		after, err := tx.Client(ctx, in.Client)
		if err != nil {
			return err
		}
		y, err := s.Yardstick(c.Dossier.Body())
		if err != nil {
			return err
		}
		p, _ := m.Default().Profile(y) // a body that cannot do it is still judged by the joints
		out.Body.Verdict = *view.Judged(s.Fence(&after), m.Default(), p)
		return nil
	})
}

func (s *place) tryOuts(ctx context.Context, in *op.ClientInput) (*tryOutsOutput, error) {
	out := &tryOutsOutput{}
	out.Body.TryOuts = []TryOutView{}
	return out, s.InClient(ctx, in.Client, func(tx *store.Tx, _ store.Account, _ *store.Client) error {
		tried, err := tx.TryOuts(ctx, in.Client)
		for _, t := range tried {
			out.Body.TryOuts = append(out.Body.TryOuts, viewTryOut(ctx, t))
		}
		return err
	})
}

func (s *place) addTryOut(ctx context.Context, in *tryOutInput) (*struct{}, error) {
	set, err := op.SetUp(ctx, "body.", in.Body.Movement, in.Body.Settings)
	if err != nil {
		return nil, err
	}
	return nil, s.InClient(ctx, in.Client, func(tx *store.Tx, a store.Account, _ *store.Client) error {
		return tx.AddTryOut(
			ctx,
			in.Client,
			store.TryOut{ID: in.Body.ID, On: s.Day(ctx), Movement: set.Movement.ID, Settings: set.Turned(), Comfort: in.Body.Comfort,
				Felt: strings.TrimSpace(in.Body.Felt), Outcome: in.Body.Outcome, Note: strings.TrimSpace(in.Body.Note)},
			a.ID,
		)
	})
}
