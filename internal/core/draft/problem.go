package draft

import (
	"encoding/json"
	"fmt"
	"slices"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
	"musculus/internal/core/stance"
)

// Version is what a written problem says it is.
const Version = 1

// Per is how many of what credits are counted in make one effective set.
const Per = 10000

// Heads is a number for each head, in the order of arm.Heads: credits in ten-thousandths of
// a set.
type Heads [arm.HeadCount]int

// Under is a number for each head under each of the shipped stances, graded work at its low
// end.
type Under [stance.Readings]Heads

// Gives is what sets give the heads.
type Gives struct {
	Mid   Heads `json:"mid" doc:"by the client's stance"`
	Under Under `json:"under" doc:"by each shipped stance, graded work at its low end"`
	Short Heads `json:"short" doc:"of mid, at short length"`
	Long  Heads `json:"long" doc:"of mid, at long length"`
}

// Candidate is a set-up that may be used, with how it would be done.
type Candidate struct {
	ID       string            `json:"id"`
	Name     string            `json:"name"`
	Movement string            `json:"movement"`
	Settings movement.Settings `json:"settings,omitempty"`
	Group    string            `json:"group" enum:"flexors,extensors"`
	Gives                      // of one hard set
	Joints   Joints            `json:"joints" doc:"score of each joint a hard set"`
	SetS     int               `json:"set_s" doc:"a set with the rest after it, s"`
	RampS    int               `json:"ramp_s" doc:"the sets that lead to its load, s"`
	Most     int               `json:"most_sets" doc:"of one slot"`
	Days     int               `json:"most_days,omitempty" doc:"it may be on; absent: two"`
	Comfort  int               `json:"comfort" doc:"0–10, 5 where nothing is known"`
	Series   bool              `json:"series" doc:"the client has trained it before"`
	Ideas    []Idea            `json:"ideas,omitempty"`

	setUp movement.SetUp
}

// Joints is a number for each joint, in the order of movement.Joints.
type Joints [movement.JointCount]int

// Day is one on which the client can train.
type Day struct {
	Name    string `json:"name"`
	On      int    `json:"on" doc:"its place in the cycle, from 0"`
	Seconds int    `json:"seconds" doc:"there are for the session"`
	WarmUpS int    `json:"warm_up_s"`
	Slots   int    `json:"slots" doc:"the most there may be"`
	LockedS int    `json:"locked_s,omitempty" doc:"what is locked takes, without warm-up and ramp"`
	Closed  bool   `json:"closed,omitempty" doc:"nothing may be added"`
}

// Locked is a slot that stays as it is.
type Locked struct {
	Day     int    `json:"day"`
	Name    string `json:"name"`
	Like    int    `json:"like" doc:"the candidate of the same set-up, −1: none"`
	Sets    int    `json:"sets"`
	Hard    int    `json:"hard_sets"`
	Group   string `json:"group" enum:"flexors,extensors"`
	Gives          // all of it
	Joints  Joints `json:"joints" doc:"all of it"`
	Seconds int    `json:"seconds" doc:"it takes by itself"`
	RampS   int    `json:"ramp_s"`
	Ideas   []Idea `json:"ideas,omitempty"`
}

// Target is what a head is aimed at.
type Target struct {
	Level priority.Level `json:"level"`
	Low   int            `json:"low" doc:"ten-thousandths of a set"`
	High  int            `json:"high"`
}

// Elsewhere is the pressing and pulling that is done apart from the sessions.
type Elsewhere struct {
	Gives
	Flexors   []int  `json:"flexors" doc:"hard sets by day of the cycle"`
	Extensors []int  `json:"extensors"`
	Ideas     []Idea `json:"ideas,omitempty"`
}

// Want is a number of slots that a week should have, or not have, of some candidates on some
// days: what a pattern asks for.
type Want struct {
	Words      string  `json:"words"`
	Candidates []int   `json:"candidates"`
	Days       []int   `json:"days,omitempty" doc:"absent: all of them together"`
	Least      int     `json:"least"`
	Most       int     `json:"most" doc:"0: no bound"`
	Weight     float64 `json:"weight" doc:"of each slot too few or too many"`
}

// AtMost bounds what a week may lack; the least time is looked for within it.
type AtMost struct {
	Under Heads `json:"under"`
	Short Heads `json:"short"`
	Long  Heads `json:"long"`
	Ideas int   `json:"ideas"`
}

// Problem is a week to be composed.
type Problem struct {
	Version    int                   `json:"version"`
	Name       string                `json:"name,omitempty"`
	Cycle      int                   `json:"cycle" doc:"days after which the week comes round"`
	Spread     string                `json:"spread" enum:"days,daily,one_day"`
	Days       []Day                 `json:"days"`
	Candidates []Candidate           `json:"candidates"`
	Locked     []Locked              `json:"locked,omitempty"`
	Twins      [][2]int              `json:"twins,omitempty" doc:"candidates that are one idea; from their number on: what is locked"`
	Targets    [arm.HeadCount]Target `json:"targets" doc:"in the order of the heads"`
	Elsewhere  Elsewhere             `json:"elsewhere"`
	GroupDay   int                   `json:"group_day" doc:"hard sets of a muscle group a day"`
	GroupWeek  [2]int                `json:"group_week" doc:"flexors, extensors; what is elsewhere taken off"`
	Joints     Joints                `json:"joints" doc:"budget of each joint"`
	Weights    Weights               `json:"weights"`
	Wants      []Want                `json:"wants,omitempty"`
	AtMost     *AtMost               `json:"at_most,omitempty"`
	Cut        int                   `json:"cut,omitempty" doc:"so many more candidates were left out"`
}

// Weights are what the terms of the objective count; settings, not laws.
type Weights struct {
	Under     map[priority.Level]float64 `json:"under" doc:"an effective set short; what is beyond half the target again"`
	Length    float64                    `json:"length" doc:"an effective set short of two at a length, of what is prioritised"`
	Over      map[priority.Level]float64 `json:"over" doc:"an effective set over the target, over one and a half of it where maintained"`
	Slot      float64                    `json:"slot"`
	Two       float64                    `json:"two" doc:"a slot of two sets"`
	Five      float64                    `json:"five" doc:"a slot of five sets"`
	SetUp     float64                    `json:"set_up" doc:"a different set-up in the week"`
	New       float64                    `json:"new" doc:"one without a series"`
	Comfort   float64                    `json:"comfort" doc:"a point under 5, a slot"`
	Liked     float64                    `json:"liked" doc:"the most that a point over 5 is worth, a slot"`
	Crowd     float64                    `json:"crowd" doc:"a set of a group over seven a day"`
	FewDays   float64                    `json:"few_days" doc:"a day less than wanted"`
	ManyDays  float64                    `json:"many_days" doc:"a day more than wanted"`
	Balance   float64                    `json:"balance" doc:"a minute between the longest and the shortest day"`
	OneSlot   float64                    `json:"one_slot" doc:"a day of one slot"`
	Twins     float64                    `json:"twins" doc:"two slots of a day that are one idea"`
	Minute    float64                    `json:"minute"`
	Idea      float64                    `json:"idea" doc:"one that the week lacks"`
	TimeFirst float64                    `json:"time_first" doc:"what everything else counts where the least time is looked for"`
}

// Usual are the shipped weights.
func Usual() Weights {
	return Weights{
		Under:  map[priority.Level]float64{priority.Prioritise: 10, priority.Build: 5, priority.Maintain: 3},
		Length: 4,
		Over:   map[priority.Level]float64{priority.Prioritise: 0.5, priority.Build: 0.5, priority.Maintain: 0.1},
		Slot:   0.35, Two: 0.4, Five: 0.25, SetUp: 0.15, New: 0.4, Comfort: 0.1, Liked: 0.17, Crowd: 0.4, FewDays: 3, ManyDays: 1,
		Balance: 0.03, OneSlot: 2, Twins: 1.5, Minute: 0.02, Idea: 1, TimeFirst: 0.01,
	}
}

// What a slot costs beside its sets, s; the ways of its sets, and how a day is bounded.
const (
	slotS      = 90
	fewestSets = 2
	mostSets   = 5
	mostDays   = 2 // of one set-up
	mostOfOne  = 8 // sets of one set-up a week
	crowded    = 7 // hard sets of a group a day; what is over costs
	MostSlots  = 6 // of a day, as it comes
	covered    = 2 * Per
)

// Way is what a week is composed for.
type Way string

// The ways.
const (
	Robust    Way = "robust"     // holds under every stance: the worst of them decides each head
	Stance    Way = "stance"     // best by the client's stance
	LeastTime Way = "least_time" // the fewest minutes within what AtMost lets it lack
)

// Ways are the three, in the order they are shown.
var Ways = []Way{Robust, Stance, LeastTime}

// Spreads are the ways to spread hard work over days.
var spreads = []string{"days", "daily", "one_day"}

// Bounds of a problem, so that none takes for ever.
const (
	mostProblemDays  = 14
	mostCandidates   = 400
	mostLockedSlots  = 120
	mostLockedSets   = 20
	mostPatternWants = 20
	mostProblemTwins = 20000
	mostSeconds      = 6 * 3600
	mostCreditGiven  = 40 * Per
)

// Check returns what is wrong with a problem, by field; a checked one can be searched.
func (p *Problem) Check() []*person.FieldError {
	var out []*person.FieldError
	fault := func(ok bool, field, reason string, args ...any) {
		if !ok && len(out) < 20 {
			out = append(out, &person.FieldError{Field: field, Reason: fmt.Sprintf(reason, args...)})
		}
	}
	fault(p.Version == Version, "version", "this is version %d, not %d", Version, p.Version)
	fault(p.Cycle >= 1 && p.Cycle <= 14, "cycle", "a cycle is 1 to 14 days, not %d", p.Cycle)
	fault(slices.Contains(spreads, p.Spread), "spread", "%q is none of %v", p.Spread, spreads)
	fault(len(p.Days) <= mostProblemDays, "days", "%d days are more than %d", len(p.Days), mostProblemDays)
	fault(len(p.Candidates) <= mostCandidates, "candidates", "%d are more than %d", len(p.Candidates), mostCandidates)
	fault(len(p.Locked) <= mostLockedSlots, "locked", "%d are more than %d", len(p.Locked), mostLockedSlots)
	fault(len(p.Twins) <= mostProblemTwins, "twins", "%d are more than %d", len(p.Twins), mostProblemTwins)
	fault(len(p.Elsewhere.Flexors) == p.Cycle, "elsewhere.flexors", "%d days, not the cycle's %d", len(p.Elsewhere.Flexors), p.Cycle)
	fault(len(p.Elsewhere.Extensors) == p.Cycle, "elsewhere.extensors", "%d days, not the cycle's %d", len(p.Elsewhere.Extensors), p.Cycle)
	for _, n := range append(slices.Clone(p.Elsewhere.Flexors), p.Elsewhere.Extensors...) {
		fault(n >= 0 && n <= 200, "elsewhere", "%d hard sets on a day are not 0 to 200", n)
	}
	p.Elsewhere.Gives.check("elsewhere", fault)
	group := func(g, field string) {
		fault(g == plan.Flexors || g == plan.Extensors, field+".group", "%q is no muscle group", g)
	}
	for i := range p.Days {
		d, at := &p.Days[i], fmt.Sprintf("days[%d]", i)
		fault(d.On >= 0 && d.On < p.Cycle, at+".on", "%d is outside the cycle of %d", d.On, p.Cycle)
		fault(d.Seconds >= 0 && d.Seconds <= mostSeconds, at+".seconds", "0 to %d, not %d", mostSeconds, d.Seconds)
		fault(d.WarmUpS >= 0 && d.WarmUpS <= 3600, at+".warm_up_s", "0 to 3600, not %d", d.WarmUpS)
		fault(d.LockedS >= 0 && d.LockedS <= 20*mostSeconds, at+".locked_s", "not %d", d.LockedS)
		fault(d.Slots >= 0 && d.Slots <= plan.MostSlots, at+".slots", "0 to %d, not %d", plan.MostSlots, d.Slots)
	}
	ids := map[string]bool{}
	for i := range p.Candidates {
		c, at := &p.Candidates[i], fmt.Sprintf("candidates[%d]", i)
		fault(c.ID != "" && !ids[c.ID], at+".id", "%q is empty or there twice", c.ID)
		ids[c.ID] = true
		group(c.Group, at)
		c.Gives.check(at, fault)
		fault(c.SetS > 0 && c.SetS <= 3600, at+".set_s", "1 to 3600, not %d", c.SetS)
		fault(c.RampS >= 0 && c.RampS <= 3600, at+".ramp_s", "0 to 3600, not %d", c.RampS)
		fault(c.Most >= 0 && c.Most <= mostSets, at+".most_sets", "0 to %d, not %d", mostSets, c.Most)
		fault(c.Days >= 0 && c.Days <= mostDays, at+".most_days", "0 to %d, not %d", mostDays, c.Days)
		fault(c.Comfort >= 0 && c.Comfort <= 10, at+".comfort", "0 to 10, not %d", c.Comfort)
		for _, n := range c.Joints {
			fault(n >= 0 && n <= 100, at+".joints", "0 to 100, not %d", n)
		}
		fault(known(c.Ideas), at+".ideas", "%v are not all known", c.Ideas)
	}
	for i := range p.Locked {
		l, at := &p.Locked[i], fmt.Sprintf("locked[%d]", i)
		fault(l.Day >= 0 && l.Day < len(p.Days), at+".day", "there is no day %d", l.Day)
		fault(l.Like >= -1 && l.Like < len(p.Candidates), at+".like", "there is no candidate %d", l.Like)
		fault(l.Sets >= 1 && l.Sets <= mostLockedSets, at+".sets", "1 to %d, not %d", mostLockedSets, l.Sets)
		fault(l.Hard >= 0 && l.Hard <= l.Sets, at+".hard_sets", "0 to its sets, not %d", l.Hard)
		fault(l.Seconds >= 0 && l.Seconds <= 20*mostSeconds, at+".seconds", "not %d", l.Seconds)
		fault(l.RampS >= 0 && l.RampS <= 3600, at+".ramp_s", "0 to 3600, not %d", l.RampS)
		group(l.Group, at)
		l.Gives.check(at, fault)
		fault(known(l.Ideas), at+".ideas", "%v are not all known", l.Ideas)
	}
	most := len(p.Candidates) + len(p.Locked)
	for i, t := range p.Twins {
		fault(t[0] >= 0 && t[1] >= 0 && t[0] < most && t[1] < most && t[0] != t[1], fmt.Sprintf("twins[%d]", i), "no pair of candidates: %v", t)
	}
	for h, t := range p.Targets {
		at := fmt.Sprintf("targets[%d]", h)
		fault(slices.Contains(priority.Levels, t.Level), at+".level", "%q is no level", t.Level)
		fault(t.Low >= 0 && t.High >= t.Low && t.High <= 100*Per, at, "%d to %d is no band", t.Low, t.High)
	}
	fault(len(p.Wants) <= mostPatternWants, "wants", "%d are more than %d", len(p.Wants), mostPatternWants)
	for i := range p.Wants {
		w, at := &p.Wants[i], fmt.Sprintf("wants[%d]", i)
		fault(w.Least >= 0 && w.Most >= 0 && (w.Most == 0 || w.Most >= w.Least) && w.Least <= 100 && w.Most <= 100, at, "%d to %d is no bound",
			w.Least, w.Most)
		fault(w.Weight >= 0 && w.Weight <= 1000, at+".weight", "a weight is 0 to 1000, not %g", w.Weight)
		for _, c := range w.Candidates {
			fault(c >= 0 && c < len(p.Candidates), at+".candidates", "there is no candidate %d", c)
		}
		for _, d := range w.Days {
			fault(d >= 0 && d < len(p.Days), at+".days", "there is no day %d", d)
		}
	}
	p.Weights.check(fault)
	return out
}

func (g *Gives) check(at string, fault func(bool, string, string, ...any)) {
	all := append(append([]Heads{g.Mid, g.Short, g.Long}, g.Under[:]...), Heads{})
	for _, heads := range all {
		for _, x := range heads {
			fault(x >= 0 && x <= mostCreditGiven, at, "a credit is 0 to %d, not %d", mostCreditGiven, x)
		}
	}
}

func (w *Weights) check(fault func(bool, string, string, ...any)) {
	for _, x := range w.all() {
		fault(x >= 0 && x <= 1000, "weights", "a weight is 0 to 1000, not %g", x)
	}
}

func (w *Weights) all() []float64 {
	out := []float64{w.Length, w.Slot, w.Two, w.Five, w.SetUp, w.New, w.Comfort, w.Liked, w.Crowd, w.FewDays, w.ManyDays, w.Balance,
		w.OneSlot, w.Twins, w.Minute, w.Idea, w.TimeFirst}
	for _, l := range priority.Levels {
		out = append(out, w.Under[l], w.Over[l])
	}
	return out
}

// ReadProblem reads a written problem; what it does not know is refused.
func ReadProblem(b []byte) (*Problem, error) {
	p := &Problem{Weights: Usual()}
	if err := json.Unmarshal(b, p); err != nil {
		return nil, fmt.Errorf("this is no problem: %w", err)
	}
	if wrong := p.Check(); len(wrong) > 0 {
		return nil, fmt.Errorf("%s: %s", wrong[0].Field, wrong[0].Reason)
	}
	return p, nil
}
