// Package trials holds the operations of pair trials: one set-up an arm for some weeks.
package trials

import (
	"context"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/decide"
	"musculus/internal/core/entry"
	"musculus/internal/core/measure"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
	"musculus/internal/core/week"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// place is the server as this place sees it.
type place struct{ *op.Server }

// TrialView is a pair trial and where it stands.
type TrialView struct {
	ID      uuid.UUID      `json:"id"`
	Started day.Day        `json:"started"                                      format:"date"`
	Weeks   int            `json:"weeks"`
	Week    int            `json:"week"    doc:"of today, from 1"`
	Left    WornView       `json:"left"`
	Right   WornView       `json:"right"`
	Verdict decide.Verdict `json:"verdict" enum:"left,right,cannot_tell,not_yet"`
	Words   string         `json:"words"`
	Found   []string       `json:"found"   doc:"what tape and courses say"`
	Differs []string       `json:"differs" doc:"what is not alike in the arms beside the set-up"`
	Stopped bool           `json:"stopped"`
	Caveat  string         `json:"caveat"`
}

// WornView is a set-up by its name and as it is asked for.
type WornView struct {
	Movement string            `json:"movement"           maxLength:"60"`
	Settings movement.Settings `json:"settings,omitempty"`
	Name     string            `json:"name,omitempty"     maxLength:"400" doc:"not asked for"`
}

const caveat = "One person, one pair: it tells of these two arms and these weeks, and no more."

type trialsOutput struct {
	Body struct {
		Trials []TrialView `json:"trials"` // the one that runs first
	}
}

type clientInput struct {
	Client uuid.UUID `path:"client"`
}

type partnersInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		SetUp WornView `json:"set_up"`
	}
}

type partnersOutput struct {
	Body struct {
		Partners []WornView `json:"partners"` // the nearest first
		Why      string     `json:"why"`      // there is none
	}
}

type beginTrialInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		ID    uuid.UUID `json:"id" doc:"made by the asker; sending it again begins it once"`
		Left  WornView  `json:"left"`
		Right WornView  `json:"right"`
		Weeks int       `json:"weeks" minimum:"1" maximum:"100"`
	}
}

type stopTrialInput struct {
	Client uuid.UUID `path:"client"`
	Trial  uuid.UUID `path:"trial"`
	Body   struct {
		Keep string `json:"keep" enum:"left,right" doc:"whose set-up both arms do from now on"`
	}
}

type wroteOutput struct {
	Body struct {
		Words string `json:"words"`
	}
}

// Register adds the operations of this place.
func Register(api huma.API, s *op.Server) {
	p := &place{s}
	const path = "/clients/{client}/trials"
	huma.Register(api, op.Operation("get-trials", op.Everybody, http.MethodGet, path, "Pair trials and where they stand"), p.get)
	huma.Register(
		api,
		op.Operation("trial-partners", op.Everybody, http.MethodPost, path+"/partners", "What the other arm may do in a pair trial"),
		p.partners,
	)
	huma.Register(api, op.Operation("begin-trial", op.Planners, http.MethodPost, path, "Plan one set-up an arm, for some weeks"), p.begin)
	huma.Register(
		api,
		op.Operation("stop-trial", op.Planners, http.MethodPost, path+"/{trial}/stop", "End a pair trial; both arms do one set-up again"),
		p.stop,
	)
}

// facts is what trials are read from.
type facts struct {
	c        store.Client
	t        *week.Trainee
	today    day.Day
	trials   []store.KeptTrial
	entries  []entry.Entry
	tape     []measure.Session
	sessions []store.Session // to come, as far as they can be read
}

// ahead is how far sessions to come are looked at, days.
const ahead = 8 * 7

func (s *place) read(ctx context.Context, tx *store.Tx, client uuid.UUID) (f facts, err error) {
	if f.c, err = tx.Client(ctx, client); err != nil {
		return f, err
	}
	f.today = s.DayOf(&f.c)
	w, err := s.ReadWeekOf(ctx, tx, &f.c, week.WeekOf(f.today), nil)
	if err != nil {
		return f, err
	}
	f.t = w.T
	if f.trials, err = tx.Trials(ctx, client, op.Movements(ctx)); err != nil {
		return f, err
	}
	kept, err := tx.SessionsBetween(ctx, client, f.today, f.today+ahead, op.Movements(ctx))
	if err != nil {
		return f, err
	}
	f.sessions = slices.DeleteFunc(kept, func(x store.Session) bool { return len(x.Faults) > 0 })
	if len(f.trials) == 0 {
		return f, nil
	}
	first := f.trials[len(f.trials)-1].Started
	back := s.Now().AddDate(0, 0, int(first-f.today)-1)
	if f.entries, err = tx.EntriesSince(ctx, client, back, op.Movements(ctx)); err != nil {
		return f, err
	}
	measured, err := s.Measurings(ctx, tx, &f.c)
	f.tape = op.SessionsOf(measured)
	return f, err
}

func (s *place) get(ctx context.Context, in *clientInput) (*trialsOutput, error) {
	return op.Showing(ctx, s.Server, func(tx *store.Tx, f *facts) (err error) {
		*f, err = s.read(ctx, tx, in.Client)
		return err
	}, func(f *facts) (*trialsOutput, error) {
		out := &trialsOutput{}
		out.Body.Trials = []TrialView{}
		for i := range f.trials {
			out.Body.Trials = append(out.Body.Trials, f.view(&f.trials[i]))
		}
		return out, nil
	})
}

// view tells where a trial stands; one that was stopped as it stood then.
func (f *facts) view(x *store.KeptTrial) TrialView {
	today, entries := f.today, f.entries
	sessions := plans(f.sessions)
	if x.Stopped != 0 {
		today, sessions = x.Stopped, nil
		entries = slices.DeleteFunc(slices.Clone(entries), func(e entry.Entry) bool { return day.At(e.DoneAt) > today })
	}
	growth := series.GrowthLater
	if f.t.Aims.FirstYear {
		growth = series.GrowthFirstYear
	}
	says := x.Read(entries, f.tape, sessions, growth, today)
	v := TrialView{ID: x.ID, Started: x.Started, Weeks: x.Weeks, Week: says.Week, Left: wornOf(x.Left), Right: wornOf(x.Right),
		Verdict: says.Verdict, Words: says.Words, Found: says.Found, Differs: says.Differs, Stopped: x.Stopped != 0, Caveat: caveat}
	if v.Differs == nil {
		v.Differs = []string{}
	}
	return v
}

func plans(kept []store.Session) []plan.Planned {
	out := make([]plan.Planned, len(kept))
	for i := range kept {
		out[i] = kept[i].Planned
	}
	return out
}

func wornOf(s movement.SetUp) WornView { return WornView{s.Movement.ID, s.Turned(), s.Title()} }

// setUp reads a set-up that is asked for.
func setUp(ctx context.Context, at string, w *WornView) (movement.SetUp, error) {
	set, wrong := op.Movements(ctx).SetUp("", w.Movement, w.Settings)
	if wrong != nil {
		return set, op.FieldProblem(at, "%s", wrong.Reason)
	}
	return set, nil
}

func (s *place) partners(ctx context.Context, in *partnersInput) (*partnersOutput, error) {
	set, err := setUp(ctx, "body.set_up", &in.Body.SetUp)
	if err != nil {
		return nil, err
	}
	out := &partnersOutput{}
	out.Body.Partners = []WornView{}
	err = s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		f, err := s.read(ctx, tx, in.Client)
		if err != nil {
			return err
		}
		if set.ArmsInTurn() == 2 {
			for _, x := range decide.PartnersOf(f.t, op.Movements(ctx), set) {
				out.Body.Partners = append(out.Body.Partners, wornOf(x))
			}
		} else {
			out.Body.Why = "Both arms work in it at once: a pair trial needs one that is done arm by arm."
		}
		return nil
	})
	return out, err
}

// begin plans one set-up an arm into the sessions to come that are open, and into the block's
// turn.
func (s *place) begin(ctx context.Context, in *beginTrialInput) (*wroteOutput, error) {
	left, err := setUp(ctx, "body.left", &in.Body.Left)
	if err != nil {
		return nil, err
	}
	right, err := setUp(ctx, "body.right", &in.Body.Right)
	if err != nil {
		return nil, err
	}
	out := &wroteOutput{}
	return out, s.InStudio(ctx, func(tx *store.Tx, a store.Account) error {
		f, err := s.read(ctx, tx, in.Client)
		if err != nil {
			return err
		}
		trial := decide.Trial{ID: in.Body.ID, Started: f.today, Weeks: in.Body.Weeks, Left: left, Right: right}
		if why := trial.May(); why != "" {
			return op.FieldProblem("body.weeks", "%s", why)
		}
		for at, set := range map[string]movement.SetUp{"body.left": left, "body.right": right} {
			if !f.t.May(set) {
				return op.FieldProblem(at, "%s is not for this client, or not in this room", set.Title())
			}
		}
		for i := range f.trials {
			if f.trials[i].ID == trial.ID && f.trials[i].Weeks == trial.Weeks { // sent again: AddTrial says whether it is the same
				out.Body.Words = "It runs."
				return tx.AddTrial(ctx, f.c.ID, &trial, a.ID)
			}
			if f.trials[i].Stopped == 0 {
				return op.Problem(http.StatusConflict, "one runs already: one thing at a time")
			}
		}
		if err := tx.AddTrial(ctx, f.c.ID, &trial, a.ID); err != nil {
			return err
		}
		n, err := s.write(ctx, tx, &f, a.ID, trial.ID, trial.Split)
		if err == nil && n == 0 {
			return op.FieldProblem("body.left", "no session to come has it that is neither issued nor begun: plan it there first")
		}
		out.Body.Words = wrote(n)
		return err
	})
}

// stop ends a trial: both arms do one set-up again.
func (s *place) stop(ctx context.Context, in *stopTrialInput) (*wroteOutput, error) {
	out := &wroteOutput{}
	return out, s.InStudio(ctx, func(tx *store.Tx, a store.Account) error {
		f, err := s.read(ctx, tx, in.Client)
		if err != nil {
			return err
		}
		i := slices.IndexFunc(f.trials, func(x store.KeptTrial) bool { return x.ID == in.Trial })
		if i < 0 {
			return store.ErrNotFound
		}
		x := &f.trials[i]
		if err := tx.StopTrial(ctx, f.c.ID, x.ID, f.today); err != nil || x.Stopped != 0 {
			out.Body.Words = "It is over."
			return err
		}
		keep := x.Left
		if in.Body.Keep == "right" {
			keep = x.Right
		}
		n, err := s.write(ctx, tx, &f, a.ID, x.ID, func(p *plan.Session, _ int) bool { return x.Join(p, keep) })
		out.Body.Words = wrote(n)
		return err
	})
}
