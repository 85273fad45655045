// Package decide says what to do about a client's series, one thing at a time: go up, hold, go
// back, change, rest. Every proposal is a pure function of history, plan and settings, with its
// reason in numbers; what came of earlier ones is told with the noise, never as a cause.
package decide

import (
	"fmt"

	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/series"
)

// Kind is what a proposal asks for.
type Kind string

// The kinds. Of each series and of the client as a whole at most one is proposed.
const (
	Screen      Kind = "screen"       // a warning sign waits
	Doses       Kind = "doses"        // caps ended or began
	LighterWeek Kind = "lighter_week" // half the sets, 3 in reserve
	LessDirect  Kind = "less_direct"  // what presses or pulls elsewhere already give
	NewEmphasis Kind = "new_emphasis" // one ended, or its head caught up
	Change      Kind = "change"       // another set-up
	Cue         Kind = "cue"          // no rise: what was seen first
	Lighter     Kind = "lighter"      // a mark down
	Heavier     Kind = "heavier"      // the next mark
	MoreReps    Kind = "more_reps"
	Harder      Kind = "harder" // without load
	Spacing     Kind = "spacing"
	MoreSets    Kind = "more_sets"
	LessSets    Kind = "less_sets"
	Hold        Kind = "hold"
)

// Steps is what taking a proposal writes into the sessions to come; nothing of it: it is only
// told.
type Steps struct {
	HandKg  float64           `json:"hand_kg,omitempty"` // the load, as one hand carries it
	Reps    int               `json:"reps,omitempty"`    // added to both ends of the band
	Sets    int               `json:"sets,omitempty"`    // more or fewer of the slot
	RestS   int               `json:"rest_s,omitempty"`  // instead of its own
	LowerS  float64           `json:"lower_s,omitempty"` // how slowly it is lowered
	Reserve int               `json:"reserve,omitempty"` // at least so many in reserve
	Cue     string            `json:"cue,omitempty"`     // a fault whose cue stands first
	To      movement.SetUp    `json:"-"`                 // another set-up
	ToID    string            `json:"to,omitempty"`
	Turned  movement.Settings `json:"turned,omitempty"`
	Halve   bool              `json:"halve,omitempty"` // half the sets of everything, for a week
}

// Nothing says whether taking it would change nothing.
func (s *Steps) Nothing() bool {
	return s.HandKg == 0 && s.Reps == 0 && s.Sets == 0 && s.RestS == 0 && s.LowerS == 0 && s.Reserve == 0 && s.Cue == "" &&
		s.ToID == "" && !s.Halve
}

// Proposal is one thing to do.
type Proposal struct {
	Kind   Kind     `json:"kind"`
	Series string   `json:"series"` // its key; "" for the client as a whole
	Name   string   `json:"name"`   // of the set-up, "" for the whole
	Says   string   `json:"says"`
	Why    []string `json:"why"`
	Steps  Steps    `json:"steps"`
}

// Band is a dose as decisions read it.
type Band struct {
	Low     int `json:"low"`
	High    int `json:"high"`
	Reserve int `json:"reserve"`
	Sets    int `json:"sets"`
}

// Next is how a series is planned next.
type Next struct {
	Band
	RestS     int
	LeastRest int     // what the dose or caps ask for at least
	LowerS    float64 // chosen lowering, 0: controlled
	HandKg    float64 // planned; 0: as the last time
	Marks     []float64
	Body      bool                      // the body is (part of) the load
	Words     func(hand float64) string `json:"-"` // a load as it is marked there
	// Kinder and Other are what it would be changed to: the kindest set-up near it, and another one
	// for the same head at a length or region the week lacks. nil: nothing is known.
	Kinder, Other func() (movement.SetUp, bool) `json:"-"`
	Head          string                        // the head it serves that has least
	HeadName      string
	Weekly        float64
	LowSets, Top  float64 // the head’s target
}

// Score is what a joint scored in a session, with this set-up.
type Score struct {
	On    day.Day
	Joint movement.Joint
	Score int
}

// Series is one series as it is decided about.
type Series struct {
	SetUp    movement.SetUp `json:"-"`
	Key      string
	Sessions []series.Session // the earliest first
	Bands    []Band           // as each was planned; Sets 0: not known
	Looks    []series.Look    // of its comparing sessions
	Since    day.Day          // in the plan all along since
	Scores   []Score          // the earliest first
	Next     *Next            // nil: not planned
	NextOn   day.Day          // the day of it; 0: as it was last, nothing to come has it
	Taken    []Taken          // what was decided about it, the latest last
	Led      *Led             // the tolerance plan it is led up to by; nil: none
	Paired   bool             // in a pair trial: its sets and set-up stay
}

// Taken is a proposal that was answered.
type Taken struct {
	ID     uuid.UUID
	On     day.Day
	NotNow bool
	Undone bool
	Proposal
	Wrote []uuid.UUID            // the sessions it was written into
	Heads [arm.HeadCount]float64 // effective sets a week it changed
}

// Felt is how a session was, as far as it was said.
type Felt struct {
	On   day.Day
	Hard int  // 0–10; −1: not said
	Poor bool // sleep and stress were said to be poor
}

// Client is what is known of the client as a whole.
type Client struct {
	Today    day.Day
	Blocked  string   // why she may not train, "" where she may
	Ended    []string // caps that ended since her last session, in words
	Begun    []string
	Felt     []Felt // the latest last
	Budget   string // which joint's budget is over, in words; "" for none
	Calendar string // what of the block's calendar asks for a lighter week
	Lighter  bool   // this week or the next one is one already
	Done     int    // sessions of the last four weeks
	Planned  int
	Variety  string // rotate, keep, often
	// Duplicates are direct slots that presses or pulls elsewhere came to give, in words.
	Duplicates []string
	Emphasis   string // an emphasis that ends or whose head caught up, in words
	Taken      []Taken
}

// How long things are watched, and how often something has to be before it counts.
const (
	watchSessions = 2  // a change of load or reps is watched for
	watchSetsDays = 56 // a change of sets or set-up: the tape needs as long
	backAfter     = 2  // sessions after which "not now" asks again
	changedBySets = 0.5
)

// For answers about one series; whole is what is proposed for the client. nil where nothing is
// known or its last change is still watched.
func For(c *Client, whole *Proposal, s *Series) *Proposal {
	if s.Next == nil || len(s.Sessions) == 0 {
		return nil
	}
	if s.Led != nil && !s.Led.At.Over { // step by step, whatever else the log says of it
		if p := led(c, s); p != nil {
			return s.ask(p)
		}
		return nil
	}
	for _, rule := range []func(*Client, *Series) *Proposal{led, hurts, form} {
		if p := rule(c, s); p != nil {
			return s.ask(p)
		}
	}
	if c.Blocked != "" { // whether that was seen or not: nothing rises
		return nil
	}
	if whole != nil && whole.Kind == LighterWeek || c.Lighter || s.watched() != "" {
		return nil
	}
	for _, rule := range []func(*Client, *Series) *Proposal{up, under, attendance} {
		if p := rule(c, s); p != nil {
			if s.Paired && (p.Kind == MoreReps || p.Kind == Harder) { // one arm's dose would differ; its load may
				break
			}
			return s.ask(p)
		}
	}
	if s.Paired { // both arms alike until it answers
		return s.ask(hold(s))
	}
	first := whole != nil && (whole.Kind == LessDirect || whole.Kind == NewEmphasis) // comes before another set
	for _, rule := range []func(*Client, *Series) *Proposal{sets, other} {
		if p := rule(c, s); p != nil && watchedSets(c, s) == "" && (!first || p.Kind != MoreSets) {
			return s.ask(p)
		}
	}
	return s.ask(hold(s))
}

// ask puts a proposal, but for one that was put off a short while ago.
func (s *Series) ask(p *Proposal) *Proposal {
	p.Series, p.Name = s.Key, s.SetUp.Title()
	for i := range s.Taken {
		t := &s.Taken[i]
		if t.NotNow && !t.Undone && t.Kind == p.Kind && s.since(t.On) < backAfter {
			return nil
		}
	}
	return p
}

// since is how many sessions of the series were done after a day.
func (s *Series) since(on day.Day) (n int) {
	for i := range s.Sessions {
		if s.Sessions[i].On > on {
			n++
		}
	}
	return n
}

// watched tells what of a series is still watched, "" for nothing: a change of load, reps, rest
// or lowering for two sessions.
func (s *Series) watched() string {
	for i := range s.Taken {
		t := &s.Taken[i]
		if t.NotNow || t.Undone || t.Kind == Cue || t.Kind == Hold {
			continue
		}
		if n := s.since(t.On); n < watchSessions && t.Kind != MoreSets && t.Kind != LessSets && t.Kind != Change {
			return fmt.Sprintf("%s, decided on %s, is watched: %d of %d sessions since.", t.Says, t.On.Words(), n, watchSessions)
		}
	}
	return ""
}

// watchedSets tells a change of sets or set-ups that is still watched for the head a series
// serves, whichever series it was of; "" for none.
func watchedSets(c *Client, s *Series) string {
	for _, list := range [][]Taken{c.Taken, s.Taken} {
		for i := range list {
			t := &list[i]
			if t.NotNow || t.Undone || int(c.Today-t.On) >= watchSetsDays ||
				t.Kind != MoreSets && t.Kind != LessSets && t.Kind != Change {
				continue
			}
			for h := range t.Heads {
				if arm.Heads[h].ID == s.Next.Head && (t.Heads[h] >= changedBySets || t.Heads[h] <= -changedBySets) {
					return fmt.Sprintf("%s, decided on %s, is watched for %d weeks.", t.Says, t.On.Words(), watchSetsDays/7)
				}
			}
		}
	}
	return ""
}

// Watching tells what of a series is being watched, "" for nothing.
func Watching(c *Client, s *Series) string {
	if w := s.watched(); w != "" || s.Next == nil {
		return w
	}
	return watchedSets(c, s)
}
