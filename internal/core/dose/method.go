package dose

import (
	"fmt"
	"slices"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// Use is a method as a slot uses it; the zero value is straight sets.
type Use struct {
	ID string `json:"id,omitempty"`
	N  int    `json:"n,omitempty"` // the method's one parameter; 0: its default
}

// Method is a way of doing sets. Its numbers are defaults, not laws.
type Method struct {
	ID, Name string
	Of       string // what its parameter counts, "" for none
	Default  int
	Least    int
	Most     int
	Load     string  // the load rule, in words
	Factor   float64 // of the load of straight sets, 0: the same
	OwnReps  bool    // its parameter says the reps; the band does not
	Caution  string  // what keeps somebody safe with it, "" for nothing
	// credit and extra are per set: what it counts, and how many seconds it adds
	// to a straight set of reps each of repS.
	credit func(n int) float64
	extra  func(n int, reps, repS float64) float64
	// refuse says why it is not offered, "" if it is.
	refuse func(s movement.SetUp, where *Where) string
}

// Where is what decides whether a method is offered.
type Where struct {
	Room   *person.Room
	Caps   person.Caps
	Scores person.Scores
}

// A quick change of load or grip, s.
const changeS = 10.0

func fixed(x float64) func(int) float64     { return func(int) float64 { return x } }
func each(per float64) func(int) float64    { return func(n int) float64 { return 1 + per*float64(n) } }
func noTime(int, float64, float64) float64  { return 0 }
func offered(movement.SetUp, *Where) string { return "" }
func several(s movement.SetUp) bool         { return !s.Movement.Computed() }
func heavyUnpinned(s movement.SetUp, w *Where) string {
	if several(s) && s.SafeAlone() != movement.AloneYes && !w.Room.Pins && !w.Room.Rails {
		return "heavy several-joint work needs pins or rails for it"
	}
	return ""
}

// What a method lifts of the straight sets' load, and how long its pauses are, s.
const (
	thirdsLoad   = 0.7
	ladderLoad   = 0.75
	holdLoad     = 0.85
	partialsLoad = 0.9
	contractLoad = 0.8
	contractFrom = 8 // reps
	leastPauseS  = 15
	mostPauseS   = 20
)

// less tells a part of a load: "20 % less".
func less(factor float64) string { return fmt.Sprintf("%.0f %% less", 100*(1-factor)) }

// Methods in the order they are offered; credits, loads and parameters are the
// field's usual ones.
var Methods = []Method{
	{ID: "straight", Name: "straight sets", Load: "one load", credit: fixed(1), extra: noTime, refuse: offered},
	{
		ID:      "drops",
		Name:    "drops",
		Of:      "rungs after the first",
		Default: 2,
		Least:   1,
		Most:    4,
		Load:    less(rung) + " each rung, down to a real step",
		credit:  each(0.35),
		extra:   func(n int, reps, repS float64) float64 { return float64(n) * (rungReps*reps*repS + changeS) },
		refuse:  heavyUnpinned,
	},
	{
		ID:      "rest_pause",
		Name:    "rest-pause",
		Of:      fmt.Sprintf("pauses of %d–%d s", leastPauseS, mostPauseS),
		Default: 2,
		Least:   1,
		Most:    4,
		Load:    "the same load",
		credit:  each(0.35),
		extra: func(n int, reps, repS float64) float64 {
			return float64(n) * ((leastPauseS+mostPauseS)/2.0 + burstReps*reps*repS)
		},
		refuse: heavyUnpinned,
	},
	{
		ID:      "thirds",
		Name:    "thirds: lower half, upper half, full",
		Of:      "reps each",
		Default: 7,
		Least:   4,
		Most:    10,
		Load:    less(thirdsLoad) + " at first",
		Factor:  thirdsLoad,
		OwnReps: true,
		credit:  fixed(1.5),
		extra:   func(n int, reps, repS float64) float64 { return 2*float64(n)*repS - reps*repS },
		refuse:  offered,
	},
	{
		ID:      Ladder,
		Name:    "one-arm ladder: right, left, alternating, together",
		Of:      "reps each",
		Default: 5,
		Least:   3,
		Most:    10,
		Load:    less(ladderLoad),
		Factor:  ladderLoad,
		OwnReps: true,
		credit:  fixed(1.5),
		extra:   func(n int, reps, repS float64) float64 { return 5*float64(n)*repS - reps*repS },
		refuse:  oneHanded,
	},
	{
		ID:      StaticHold,
		Name:    "static hold of one arm at 90° while the other works",
		Caution: "Keep breathing while you hold.",
		Of:      "reps a side",
		Default: 8,
		Least:   4,
		Most:    15,
		Load:    less(holdLoad),
		Factor:  holdLoad,
		OwnReps: true,
		credit:  fixed(1.2),
		extra:   func(n int, reps, repS float64) float64 { return 2*float64(n)*repS - reps*repS },
		refuse:  oneHanded,
	},
	{
		ID:      HandPhases,
		Name:    "hand phases: wide palms up, neutral apart, neutral together",
		Of:      "reps each",
		Default: 7,
		Least:   4,
		Most:    10,
		Load:    "that of the weakest phase",
		OwnReps: true,
		credit:  fixed(1.5),
		extra:   func(n int, reps, repS float64) float64 { return 3*float64(n)*repS - reps*repS },
		refuse: func(s movement.SetUp, _ *Where) string {
			if s.Movement.Action != movement.Flexion || s.Implement() != movement.Dumbbell && s.Implement() != movement.Rope {
				return "only where the hands can turn: dumbbells or a rope"
			}
			return ""
		},
	},
	{
		ID:      StrongPartials,
		Name:    "strong-range partials",
		Caution: "Only with pins or rails set.",
		Of:      "clean weeks so far",
		Most:    12,
		Load: fmt.Sprintf("from this band’s full-range load, %.0f %% more a week, at most %.0f %% of the full-range maximum",
			100*(weeklyPartials-1), 100*mostOfE1RM),
		credit: fixed(0.7),
		extra:  noTime,
		refuse: func(_ movement.SetUp, w *Where) string {
			if !w.Room.Pins && !w.Room.Rails {
				return "needs pins or rails"
			}
			return ""
		},
	},
	{
		ID:     "partials_long",
		Name:   "long-range partials",
		Load:   less(partialsLoad),
		Factor: partialsLoad,
		credit: fixed(1),
		extra:  noTime,
		refuse: offered,
	},
	{
		ID:      loadedLowering,
		Name:    "loaded lowering with a partner",
		Caution: "Always with a partner.",
		Of:      "reps",
		Default: 4,
		Least:   3,
		Most:    5,
		Load:    fmt.Sprintf("%.0f–%.0f %% more on the way down", 100*(leastLowering-1), 100*(mostLowering-1)),
		OwnReps: true,
		credit:  fixed(1.2),
		extra:   func(n int, reps, repS float64) float64 { return float64(n)*repS - reps*repS },
		refuse: func(_ movement.SetUp, w *Where) string {
			switch {
			case !w.Room.Partner:
				return "needs a partner"
			case max(w.Scores.Worse(movement.ElbowFront), w.Scores.Worse(movement.ElbowBack)) >= 2:
				return "not with sore elbows"
			}
			return ""
		},
	},
	{
		ID:      "assisted",
		Name:    "assisted last reps",
		Caution: "Only with the partner or the free hand already there.",
		Of:      "reps",
		Default: 2,
		Least:   1,
		Most:    3,
		Load:    "the same load",
		credit:  fixed(1.2),
		extra:   func(n int, _, repS float64) float64 { return float64(n) * repS },
		refuse: func(s movement.SetUp, w *Where) string {
			if !w.Room.Partner && s.ArmsInTurn() != 2 {
				return "needs a partner, or a free hand"
			}
			return ""
		},
	},
	{
		ID:      ContractFirst,
		Name:    "contract first",
		Caution: "Three cues: tighten the muscle, then move, then hold the end a moment.",
		Load:    less(contractLoad),
		Factor:  contractLoad,
		credit:  fixed(1),
		extra:   noTime,
		refuse: func(s movement.SetUp, _ *Where) string {
			if several(s) {
				return "it is a drill for one joint"
			}
			return ""
		},
	},
	{
		ID:      StrictThenSwing,
		Name:    "strict, then swing",
		Caution: "Swing only after the strict reps ended, back long, nobody near.",
		Of:      "swung reps after the strict ones ended",
		Default: 2,
		Least:   1,
		Most:    3,
		Load:    "the same load",
		credit:  fixed(1.15),
		extra:   func(n int, _, repS float64) float64 { return float64(n) * repS },
		refuse:  offered,
	},
	{
		ID:      "last_rep_hold",
		Name:    "last-rep hold, then lower",
		Caution: "Keep breathing while you hold.",
		Of:      "seconds",
		Default: 10,
		Least:   5,
		Most:    15,
		Load:    "the same load",
		credit:  fixed(1.1),
		extra:   func(n int, _, _ float64) float64 { return float64(n) },
		refuse:  offered,
	},
}

// Phases are how the hand is held through the phases of HandPhases, forearm
// rotation in degrees: wide with the palms up, neutral apart, neutral together.
var Phases = []float64{80, 0, 0}

func oneHanded(s movement.SetUp, _ *Where) string {
	if i := s.Implement(); i != movement.Dumbbell && i != movement.Handle {
		return "each hand needs its own weight"
	}
	return ""
}

// MethodOf finds a method; "" is straight sets, nil an unknown id.
func MethodOf(id string) *Method {
	if id == "" {
		id = "straight"
	}
	if i := slices.IndexFunc(Methods, func(m Method) bool { return m.ID == id }); i >= 0 {
		return &Methods[i]
	}
	return nil
}

// Refused says why a method is not offered for a set-up there, "" if it is. Caps
// close methods whatever else holds.
func (m *Method) Refused(s movement.SetUp, w *Where) string {
	if slices.Contains(w.Caps.Closed, m.ID) {
		return "closed by this client’s caps"
	}
	return m.refuse(s, w)
}

// n is the parameter in use.
func (m *Method) n(u Use) int {
	if u.N == 0 {
		return m.Default
	}
	return u.N
}

// Credit is what one set counts with the method.
func (u Use) Credit() float64 {
	m := MethodOf(u.ID)
	if m == nil {
		return 1
	}
	return m.credit(m.n(u))
}

// Words tells the method with its parameter, "" for straight sets.
func (u Use) Words() string {
	m := MethodOf(u.ID)
	switch {
	case m == nil || m.ID == "straight":
		return ""
	case m.Of == "" || m.n(u) == 0:
		return m.Name
	}
	out := fmt.Sprintf("%s, %d %s", m.Name, m.n(u), m.Of)
	if m.ID == Ladder { // each arm works in three of the four rungs
		out += fmt.Sprintf(", %d per arm", 3*m.n(u))
	}
	return out
}

// check returns what is wrong with a method's use.
func (u Use) check(s movement.SetUp, w *Where) []*movement.FieldError {
	m := MethodOf(u.ID)
	if m == nil {
		return []*movement.FieldError{{Field: "method", Reason: fmt.Sprintf("there is no method %q", u.ID)}}
	}
	var out []*movement.FieldError
	if n := m.n(u); m.Of != "" && (n < m.Least || n > m.Most) {
		out = append(out, &movement.FieldError{Field: "method", Reason: fmt.Sprintf("%d is outside %d…%d %s", n, m.Least, m.Most, m.Of)})
	}
	if why := m.Refused(s, w); why != "" {
		out = append(out, &movement.FieldError{Field: "method", Reason: m.Name + ": " + why})
	}
	return out
}
