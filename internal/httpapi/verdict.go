package httpapi

import (
	"context"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/effort"
	"musculus/internal/core/entry"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/series"
	"musculus/internal/store"
)

// VerdictView is what a client may do with a set-up, with the reasons.
type VerdictView struct {
	Ruling     string       `json:"ruling" enum:"allowed,modify,avoid"`
	Barred     bool         `json:"barred"` // not offered
	Reasons    []ReasonView `json:"reasons"`
	ByCaps     bool         `json:"by_caps"` // cannot be overridden
	Overridden string       `json:"overridden"`
}

// ReasonView is one thing that speaks against a set-up.
type ReasonView struct {
	Ruling string `json:"ruling" enum:"allowed,modify,avoid"`
	Words  string `json:"words"`
	// Follow is the set-up turned to what the reason asks for; absent where
	// nothing can be turned.
	Follow movement.Settings `json:"follow,omitempty"`
	Turn   string            `json:"turn"` // what that changes, in words
}

// LoadFit says whether a room's loads suit a set-up for the client.
type LoadFit struct {
	Fit     string   `json:"fit" enum:"not_known,too_heavy,fits,too_light"`
	Words   string   `json:"words"`
	Instead []string `json:"instead"`
}

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
		Loads   LoadFit      `json:"loads"`
		TryOuts []TryOutView `json:"try_outs"`
	}
}

type verdictOutput struct {
	Body struct {
		Verdict VerdictView `json:"verdict"` // of the movement at its defaults
	}
}

type tryOutsOutput struct {
	Body struct {
		TryOuts []TryOutView `json:"try_outs"`
	}
}

func (s *server) registerVerdicts(api huma.API) {
	huma.Register(api, operation("override", http.MethodPost, "/clients/{client}/overrides/{movement}", "Override a verdict, or let it stand again"), s.override)
	huma.Register(api, operation("record-of", http.MethodPost, "/clients/{client}/record", "Whether a set-up's loads fit the client, and what was tried"), s.recordOf)
	huma.Register(api, operation("try-outs", http.MethodGet, "/clients/{client}/try-outs", "What the client has tried"), s.tryOuts)
	huma.Register(api, operation("add-try-out", http.MethodPost, "/clients/{client}/try-outs", "Record what a set-up felt like"), s.addTryOut)
}

// viewVerdict tells a verdict on a set-up.
func viewVerdict(set movement.SetUp, v *person.Verdict) VerdictView {
	out := VerdictView{Ruling: string(v.Ruling), Barred: v.Barred(), Reasons: []ReasonView{}, ByCaps: v.ByCaps, Overridden: v.Overridden}
	for i := range v.Reasons {
		r := &v.Reasons[i]
		line := ReasonView{Ruling: string(r.Ruling), Words: r.Words}
		if to, ok := r.Follow(set); ok && to.Key() != set.Key() {
			line.Follow, line.Turn = to.Turned(), turnWords(set, to)
		}
		out.Reasons = append(out.Reasons, line)
	}
	return out
}

// turnWords tells what differs between two set-ups of one movement.
func turnWords(from, to movement.SetUp) string {
	var out []string
	for i := range to.Movement.Settings {
		setting := &to.Movement.Settings[i]
		was, _ := from.Value(setting.Key)
		is, _ := to.Value(setting.Key)
		if was != is {
			out = append(out, strings.ToLower(setting.Label)+" "+setting.ValueWords(is))
		}
	}
	return strings.Join(out, ", ")
}

// judged is the verdict on a set-up for a client, nil without one.
func judged(f *person.Fence, set movement.SetUp, p *effort.Profile) *VerdictView {
	if f == nil {
		return nil
	}
	v := f.Judge(set, p)
	out := viewVerdict(set, &v)
	return &out
}

// offered says what may be offered to a client: what the room has, unless any
// room will do, and nothing that is to be avoided.
func (s *server) offered(c *store.Client, anyRoom bool) func(movement.SetUp, *effort.Profile) bool {
	fence := s.fence(c)
	return func(o movement.SetUp, p *effort.Profile) bool {
		v := fence.Judge(o, p)
		return !v.Barred() && (anyRoom || len(lacks(c, o)) == 0)
	}
}

// How a set-up is dosed where only its fit is asked for.
const (
	usualLow, usualHigh = 8, 12
	usualReserve        = 2
)

// loadFit answers from the set-up's own series.
func (s *server) loadFit(ctx context.Context, tx *store.Tx, c *store.Client, set movement.SetUp) (LoadFit, error) {
	past, err := tx.SeriesEntries(ctx, c.ID, set.Key(), movements(ctx))
	if err != nil {
		return LoadFit{}, err
	}
	body := c.Dossier.Body()
	e1rm, logged := series.Says(entry.SaidOf(past), s.day(ctx))
	f := series.DoesFit(set, c.Room(), body.BodyMass, e1rm, logged, usualLow, usualHigh, usualReserve)
	return viewFit(f), nil
}

func viewFit(f series.Fitted) LoadFit {
	out := LoadFit{string(f.Fit), f.Words, f.Instead}
	if out.Instead == nil {
		out.Instead = []string{}
	}
	return out
}

// recordOf tells what is known of a client and a set-up: whether the loads fit and
// what was tried.
func (s *server) recordOf(ctx context.Context, in *recordInput) (*recordOutput, error) {
	set, err := setUp(ctx, "body.", in.Body.Movement, in.Body.Settings)
	if err != nil {
		return nil, err
	}
	out := &recordOutput{}
	out.Body.TryOuts = []TryOutView{}
	return out, s.inClient(ctx, in.Client, func(tx *store.Tx, _ store.Account, c *store.Client) error {
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
	out := TryOutView{ID: t.ID, On: t.On.Words(), Movement: t.Movement, Settings: t.Settings, Name: t.Movement, Comfort: t.Comfort, Felt: t.Felt, Outcome: t.Outcome, Note: t.Note}
	if m := movements(ctx).Get(t.Movement); m != nil {
		if set, err := m.SetUp(t.Settings); err == nil {
			out.Name = set.Name()
		}
	}
	return out
}

func (s *server) override(ctx context.Context, in *overrideInput) (*verdictOutput, error) {
	m := movements(ctx).Get(in.Movement)
	if m == nil {
		return nil, problem(http.StatusNotFound, "there is no movement "+in.Movement)
	}
	reason := strings.TrimSpace(in.Body.Reason)
	if in.Body.Allowed && reason == "" {
		return nil, fieldProblem("body.reason", "an override is kept with its reason")
	}
	out := &verdictOutput{}
	return out, s.inClient(ctx, in.Client, func(tx *store.Tx, a store.Account, c *store.Client) error {
		if err := tx.AddOverride(ctx, in.Body.ID, c.ID, store.Override{Movement: m.ID, Allowed: in.Body.Allowed, Reason: reason}, a.ID); err != nil {
			return err
		}
		after, err := tx.Client(ctx, in.Client)
		if err != nil {
			return err
		}
		y, err := s.yardstick(c.Dossier.Body())
		if err != nil {
			return err
		}
		p, _ := m.Default().Profile(y) // a body that cannot do it is still judged by the joints
		out.Body.Verdict = *judged(s.fence(&after), m.Default(), p)
		return nil
	})
}

func (s *server) tryOuts(ctx context.Context, in *clientInput) (*tryOutsOutput, error) {
	out := &tryOutsOutput{}
	out.Body.TryOuts = []TryOutView{}
	return out, s.inClient(ctx, in.Client, func(tx *store.Tx, _ store.Account, _ *store.Client) error {
		tried, err := tx.TryOuts(ctx, in.Client)
		for _, t := range tried {
			out.Body.TryOuts = append(out.Body.TryOuts, viewTryOut(ctx, t))
		}
		return err
	})
}

func (s *server) addTryOut(ctx context.Context, in *tryOutInput) (*struct{}, error) {
	set, err := setUp(ctx, "body.", in.Body.Movement, in.Body.Settings)
	if err != nil {
		return nil, err
	}
	return nil, s.inClient(ctx, in.Client, func(tx *store.Tx, a store.Account, _ *store.Client) error {
		return tx.AddTryOut(ctx, in.Client, store.TryOut{ID: in.Body.ID, On: s.day(ctx), Movement: set.Movement.ID, Settings: set.Turned(), Comfort: in.Body.Comfort,
			Felt: strings.TrimSpace(in.Body.Felt), Outcome: in.Body.Outcome, Note: strings.TrimSpace(in.Body.Note)}, a.ID)
	})
}
