package week

import (
	"context"
	"fmt"
	"math"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/entry"
	"musculus/internal/core/measure"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
	"musculus/internal/core/week"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// Proposal is what the tool would prescribe for a slot.
type Proposal struct {
	Load  LoadProposal `json:"load"`
	Fit   view.LoadFit `json:"fit"`   // whether the room's loads suit it, from its own series
	Cues  []ChosenCue  `json:"cues"`  // at most three, the most needed first
	Known []KnownView  `json:"known"` // what the client's log says, the nearest by name
	// Grips are the ways to hold the same weight, the weakest first; Plan gives each
	// set one, from weak to strong, empty where there is but one way.
	Grips []GripView  `json:"grips"`
	Plan  []GripDraft `json:"grip_plan"`
	// Starts is the arm a real gap says should begin, empty where there is none.
	Starts     string `json:"starts" enum:",left,right"`
	StartsWhy  string `json:"starts_why"`
	TakesTurns bool   `json:"takes_turns"` // one arm begins
}

// GripDraft is how a row holds the same weight, as the row says it: nothing where it
// is as the slot says.
type GripDraft struct {
	Movement string            `json:"movement,omitempty"`
	Settings movement.Settings `json:"settings,omitempty"`
}

// GripView is one way to hold the same weight.
type GripView struct {
	GripDraft
	Words   string  `json:"words"`
	Part    float64 `json:"part"` // of the strongest one
	FromLog bool    `json:"from_log"`
}

// gripOf is a set-up as a row of a slot says it.
func gripOf(slot, row movement.SetUp) GripDraft {
	one := plan.Of(slot, dose.Dose{})
	one.Rows[0].SetUp = &row
	j := one.JSON().Rows[0]
	return GripDraft{j.Movement, j.Settings}
}

// LoadProposal is a seeded load with where it comes from.
type LoadProposal struct {
	Source string     `json:"source" enum:"own,ratio,model,find"`
	Load   *dose.Load `json:"load"` // as a row takes it; null: to be found
	Words  string     `json:"words"`
	Guess  bool       `json:"guess"`
}

// ChosenCue is a cue with why it was chosen.
type ChosenCue struct {
	Cue string `json:"cue"`
	Why string `json:"why"`
}

// KnownView is one series and how it stands to the client's strongest of its kind.
type KnownView struct {
	Name  string  `json:"name"`
	Max   string  `json:"max"` // estimated load for one repetition
	Ratio float64 `json:"ratio"`
	When  string  `json:"when"`
	Why   string  `json:"why"` // which sets it is the median of, and what the ratio is against
}

type proposeInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		Movement string            `json:"movement" maxLength:"60"`
		Settings movement.Settings `json:"settings,omitempty"`
		First    *GripDraft        `json:"first,omitempty" doc:"how the first row is done where it is not as the slot says; the load is for it"`
		RepsLow  int               `json:"reps_low" minimum:"1" maximum:"60"`
		RepsHigh int               `json:"reps_high" minimum:"1" maximum:"60"`
		Reserve  int               `json:"reserve" minimum:"0" maximum:"6"`
		Sets     int               `json:"sets,omitempty" minimum:"1" maximum:"12" doc:"how many a grip plan is for"`
		Method   string            `json:"method,omitempty" maxLength:"40"`
	}
}

type proposeOutput struct{ Body Proposal }

func (s *place) registerProposals(api huma.API) {
	huma.Register(
		api,
		op.Operation("propose", op.Everybody, http.MethodPost, "/clients/{client}/propose", "Load and cues for a slot"),
		s.propose,
	)
}

// proposeRead is what a load and cues are proposed from.
type proposeRead struct {
	t        *week.Trainee
	past     []entry.Entry
	measured []store.Measuring
}

func (s *place) propose(ctx context.Context, in *proposeInput) (*proposeOutput, error) {
	asked := plan.SlotJSON{Movement: in.Body.Movement, Settings: in.Body.Settings, Rows: []plan.RowJSON{{}}}
	if in.Body.First != nil {
		asked.Rows[0].Movement, asked.Rows[0].Settings = in.Body.First.Movement, in.Body.First.Settings
	}
	session := plan.Session{Slots: []plan.Slot{asked.Slot()}}
	if wrong := session.Resolve(op.Movements(ctx)); len(wrong) > 0 {
		wrong[0].Field = strings.NewReplacer("slots[0].", "", "rows[0].", "first.").Replace(wrong[0].Field)
		return nil, op.Faults("body.", wrong)
	}
	base, set := session.Slots[0].SetUp, session.Slots[0].SetUpIn(0)
	slot := plan.Of(base, dose.Dose{Method: dose.Use{ID: in.Body.Method}})
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *proposeRead) error {
		c, err := tx.Client(ctx, in.Client)
		if err != nil {
			return err
		}
		if r.t, err = s.Informed(ctx, tx, &c); err != nil {
			return err
		}
		if r.past, err = tx.EntriesSince(ctx, c.ID, s.Now().Add(-series.LooksBack), op.Movements(ctx)); err == nil &&
			slot.TakesTurns() {
			r.measured, err = s.Measurings(ctx, tx, &c)
		}
		return err
	}, func(r *proposeRead) (*proposeOutput, error) {
		t, past := r.t, r.past
		out := &proposeOutput{Proposal{Cues: []ChosenCue{}, Known: []KnownView{}, Grips: []GripView{}, Plan: []GripDraft{}}}
		known := series.Gather(past)
		ask := &series.Ask{
			SetUp:     set,
			Room:      t.Room,
			Yardstick: t.Yardstick,
			Stance:    t.Stance,
			Low:       in.Body.RepsLow,
			High:      max(in.Body.RepsLow, in.Body.RepsHigh),
			Reserve:   max(in.Body.Reserve, t.Caps.MinReserve),
			Today:     s.Day(ctx),
		}
		seed := t.Seed(ask, known)
		out.Body.Load = LoadProposal{Source: string(seed.Source), Words: seed.Words, Guess: seed.Guess}
		if seed.PerHand > 0 {
			out.Body.Load.Load = dose.Carried(t.Floor().Rack(set), seed.PerHand)
		}
		said := t.Own[set.Key()]
		out.Body.Fit = view.FitOf(
			series.DoesFit(set, t.Room, t.Yardstick.Body().BodyMass, said.E1RM, said.Logged, ask.Low, ask.High, ask.Reserve),
		)
		for _, cue := range week.CuesFor(set, t, entry.SeenLast(past, set)) {
			out.Body.Cues = append(out.Body.Cues, ChosenCue{cue.Fault.Cue, cue.Why})
		}
		out.Body.Known = s.viewKnown(ctx, t, known)
		own := map[string]float64{}
		for i := range known {
			own[known[i].SetUp.Key()] = known[i].E1RM(s.Day(ctx))
		}
		var allowed []movement.SetUp
		for _, g := range plan.OtherGrips(base, op.Movements(ctx)) {
			p, _ := g.Profile(t.Yardstick) // one that has none is left out below
			if v := t.Fence.Judge(g, p); len(t.Room.Missing(g)) == 0 && !v.Barred() {
				allowed = append(allowed, g)
			}
		}
		ordered := series.OrderGrips(allowed, t.Yardstick, own)
		for _, g := range ordered {
			out.Body.Grips = append(out.Body.Grips, GripView{gripOf(base, g.SetUp), g.SetUp.Name(), view.Round4(g.Part), g.FromLog})
		}
		for _, g := range series.PlanGrips(ordered, in.Body.Sets) {
			out.Body.Plan = append(out.Body.Plan, gripOf(base, g))
		}
		if out.Body.TakesTurns = slot.TakesTurns(); out.Body.TakesTurns {
			out.Body.Starts, out.Body.StartsWhy = measure.Smaller(op.SessionsOf(r.measured))
		}
		return out, nil
	})
}

// knownWhy tells what a series' estimate and its ratio are made of, in what one hand carries.
func knownWhy(k *series.Known, t *week.Trainee, today day.Day, most float64) string {
	var sets []string
	for _, p := range k.Counted(today) {
		sets = append(sets, person.Kg(math.Round(p.E1RM*10)/10))
	}
	return fmt.Sprintf("per hand the median of %s, the estimates of the last sets; against %s, the strongest of its kind",
		strings.Join(sets, ", "), person.Kg(math.Round(most*10)/10))
}

// viewKnown is the client's ratio table: each series against the strongest of its
// action, by what one hand could lift once.
func (s *place) viewKnown(ctx context.Context, t *week.Trainee, known []series.Known) []KnownView {
	most := map[movement.Action]float64{}
	for i := range known {
		a := known[i].SetUp.Movement.Action
		most[a] = max(most[a], known[i].E1RM(s.Day(ctx)))
	}
	out := []KnownView{}
	rigging := t.Room.Rigging(t.Yardstick.Body().BodyMass)
	for i := range known {
		k := &known[i]
		carry := person.CarryOf(k.SetUp)
		out = append(
			out,
			KnownView{
				k.SetUp.Name(),
				t.Room.Words(math.Round(carry.Whole(k.E1RM(s.Day(ctx)), rigging)*10)/10, k.SetUp),
				view.Round4(k.E1RM(s.Day(ctx)) / most[k.SetUp.Movement.Action]),
				s.Ago(ctx, k.Last()),
				knownWhy(k, t, s.Day(ctx), most[k.SetUp.Movement.Action]),
			},
		)
	}
	slices.SortFunc(out, func(a, b KnownView) int {
		switch {
		case a.Ratio > b.Ratio:
			return -1
		case a.Ratio < b.Ratio:
			return 1
		}
		return 0
	})
	return out
}
