package movement

import (
	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
)

// Action is what the movement asks of the elbow or, for several joints, its kind.
type Action string

// The actions of the catalogue.
const (
	Flexion   Action = "flexion"
	Extension Action = "extension"
	Press     Action = "press"
	Dip       Action = "dip"
	PushUp    Action = "pushup"
	Pull      Action = "pull"
	Turn      Action = "turn"
)

// Position is how the body is held; it decides where the floor is and what the
// figure shows.
type Position string

// The positions.
const (
	Standing       Position = "standing"
	Kneeling       Position = "kneeling"
	Seated         Position = "seated"
	Reclined       Position = "reclined"
	ChestSupported Position = "chest_supported"
	OnBench        Position = "bench"
	OnFloor        Position = "floor"
	OnBars         Position = "bars"
	Hanging        Position = "hanging"
	Plank          Position = "plank"
)

// ImplementID is what the hand holds.
type ImplementID string

// The implements.
const (
	BarStraight ImplementID = "bar_straight"
	BarCambered ImplementID = "bar_cambered"
	BarV        ImplementID = "bar_v"
	Dumbbell    ImplementID = "dumbbell"
	Shared      ImplementID = "shared" // one weight in two hands
	Rope        ImplementID = "rope"
	Handle      ImplementID = "handle"
	DipBars     ImplementID = "dip_bars"
	BarParallel ImplementID = "bar_parallel"
	BarRail     ImplementID = "bar_rail"  // a bar on guided rails
	BarFixed    ImplementID = "bar_fixed" // a fixed bar to lean on
	PullBar     ImplementID = "pull_bar"
	DipMachine  ImplementID = "dip_machine" // dips and pull-ups with assistance from a stack
	Band        ImplementID = "band"        // the same with an elastic band
	BenchEdge   ImplementID = "bench_edge"
	Machine     ImplementID = "machine"
	Lever       ImplementID = "lever"
	Ground      ImplementID = "body" // the floor under the hands
)

// Alone says whether a set may be failed without help.
type Alone string

// The answers.
const (
	AloneYes      Alone = "yes"
	AloneNo       Alone = "no"
	AloneWithPins Alone = "pins"
)

// Movement is one entry of the catalogue.
type Movement struct {
	ID        string
	Action    Action
	Family    *Family
	Position  Position // default
	Implement ImplementID
	Hands     string // default laterality: together, both, alternate, one
	ArmsKeep  bool   // turning the bench leaves the upper arms' direction in the world
	HoldWord  string // where on the implement the hand is by default: middle unless it matters
	Wrist     string // level, cupped, tilted_up
	Anchor    string // what holds the upper arm: pad, thigh, knee, floor, brace; "" for none
	Partner   string // when one is needed, "" for never
	UpperArm  string // fixed / small deliberate / travels
	Joints    JointScores
	SafeAlone Alone
	Stop      string    // when a set ends
	Added     bool      // its name says that load is added to the body
	TopRange  bool      // only the strong top of a press, from pins or on rails
	Settings  []Setting // in the order they are shown
	Graded    *Graded   // nil for computed movements

	lead   string // name with placeholders
	base   effort.Setup
	source row     // as it was read
	safety *Family // whose cautions it has

	lowersAs *Movement            // whose way down this one takes; nil for its own
	gripAs   map[string]*Movement // whose credits and hand it has, by the grip; nil where there is none to choose
}

// Computed says whether mechanics computes the movement; otherwise its credits
// are a graded table.
func (m *Movement) Computed() bool { return m.Graded == nil }

// Setting returns the setting of a key, nil when the movement has none.
func (m *Movement) Setting(k Key) *Setting {
	for i := range m.Settings {
		if m.Settings[i].Key == k {
			return &m.Settings[i]
		}
	}
	return nil
}

// Credit is a graded credit per hard set: low, middle, high.
type Credit struct{ Low, Mid, High float64 }

// Credits holds one credit per head.
type Credits [arm.HeadCount]Credit

// Graded is what is known of a movement that uses several joints.
type Graded struct {
	Grade        string // of the evidence, A…E
	usual, other Credits
	hasOther     bool
	fromW, toW   float64 // grip widths between which usual and other are mixed; 0, 0: width decides nothing
	wideIsUsual  bool    // which row elbows far from the ribs take
}

// Thresholds beyond which a graded movement takes its other row.
const (
	tuckWide  = 60.0 // degrees: elbows so far from the ribs count as a wide grip
	leanChest = 15.0 // degrees: leaning so far gives a dip to the chest
)

// Family groups movements that share faults, a stop rule and joint scores.
type Family struct {
	ID       string
	Label    string
	Stop     string // when a set ends
	UpperArm string // fixed / small deliberate / travels
	Joints   JointScores
	Harder   []Harder
	Says     []Caution
	Faults   []Fault // this family's, then those of every family
}

// Fault is what a coach sees go wrong, and the cue that mends it.
type Fault struct {
	ID, Seen, View, Cause, Cue, Joint, Remedy string
	Only                                      string             // the one movement it is about, "" for all of the family
	Change                                    map[string]float64 // fields of the set-up it moves, by how much ("name=": to what)
	Costs                                     string             // what it costs in words, where nothing can be computed
}

// FaultsOf lists the faults that can be seen in the movement, its family's first.
func (m *Movement) FaultsOf() []Fault {
	var out []Fault
	for _, f := range m.Family.Faults {
		if f.Only == "" || f.Only == m.ID {
			out = append(out, f)
		}
	}
	return out
}
