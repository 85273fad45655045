package person

import (
	"math"

	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// Changes is how long it takes in a room to go from one exercise to the next, s; 0 is
// the usual time.
type Changes struct {
	WalkS       int `json:"walk_s,omitempty"`
	BenchS      int `json:"bench_s,omitempty"`
	PulleyS     int `json:"pulley_s,omitempty"`
	AttachmentS int `json:"attachment_s,omitempty"`
	PlatesS     int `json:"plates_s,omitempty"`
}

// The usual times.
const (
	walkS       = 30
	benchS      = 30
	pulleyS     = 20
	attachmentS = 20
	platesS     = 45
	mostChangeS = 300
)

// Usual is the times with the usual ones where none is said.
func (c *Changes) Usual() Changes {
	or := func(x, usual int) int {
		if x == 0 {
			return usual
		}
		return x
	}
	if c == nil {
		c = &Changes{}
	}
	return Changes{or(c.WalkS, walkS), or(c.BenchS, benchS), or(c.PulleyS, pulleyS), or(c.AttachmentS, attachmentS), or(c.PlatesS, platesS)}
}

// Move is something that has to be done between two exercises.
type Move struct {
	What    string
	Seconds int
}

// Plates is the change of a bar's plates.
func (r *Room) Plates() Move { return Move{"the plates", r.Changes.Usual().PlatesS} }

// sameHeight is how near two pulleys are one height, m.
const sameHeight = 0.05

// Between lists what has to be changed in going from one set-up to another, for a
// stature, m. Where there are two of a thing, nothing of it is changed.
func (r *Room) Between(a, b movement.SetUp, stature float64) []Move {
	var out []Move
	t := r.Changes.Usual()
	cables := 0
	for _, s := range []movement.SetUp{a, b} {
		if s.Pulls() == effort.Cable {
			cables++
		}
	}
	if from, to := spotOf(a), spotOf(b); from != to && from != "" && to != "" {
		out = append(out, Move{"the walk", t.WalkS})
	}
	if angle, other, both := angleOf(a), angleOf(b), onBench(a) && onBench(b); both && math.Abs(angle-other) > nearAngle && r.benches() < 2 {
		out = append(out, Move{"the bench", t.BenchS})
	}
	if x, ok := a.Value(movement.PadSlope); ok {
		if y, also := b.Value(movement.PadSlope); also && math.Abs(x.Number-y.Number) > nearAngle && len(r.Slopes) < 2 {
			out = append(out, Move{"the pad", t.BenchS})
		}
	}
	if cables == 2 && !r.Has(Cable, columnsOf(a)+columnsOf(b)) {
		if math.Abs(heightOf(a, stature)-heightOf(b, stature)) > sameHeight {
			out = append(out, Move{"the pulley", t.PulleyS})
		}
		if a.Implement() != b.Implement() {
			out = append(out, Move{"the attachment", t.AttachmentS})
		}
	}
	return out
}

// spotOf is where a set-up is done, "" where what it needs is carried along.
func spotOf(s movement.SetUp) string {
	switch i := s.Implement(); {
	case s.Pulls() == effort.Cable:
		return "cable"
	case onBench(s):
		return "bench"
	case s.Movement.Anchor == "pad":
		return "pad"
	case i == movement.Dumbbell, i == movement.Shared, i == movement.Ground, i == movement.Lever:
		return ""
	case i == movement.BenchEdge:
		return "bench"
	default:
		return string(i)
	}
}

func onBench(s movement.SetUp) bool {
	switch s.Position() {
	case movement.Reclined, movement.ChestSupported, movement.OnBench:
		return true
	}
	return false
}

// angleOf is at what angle a bench stands for a set-up, degrees.
func angleOf(s movement.SetUp) float64 {
	if v, ok := s.Value(movement.Bench); ok {
		return v.Number
	}
	lean := s.Effort().TrunkLean
	if s.Position() == movement.ChestSupported {
		return 90 - lean
	}
	return 90 + lean
}

func (r *Room) benches() int {
	if r.Bench == nil {
		return 0
	}
	return max(r.Bench.Count, 1)
}

// columnsOf is how many cable columns a set-up takes.
func columnsOf(s movement.SetUp) int {
	if h := s.Hands(); s.Pulls() == effort.Cable && (h == movement.BothArms || h == movement.Alternate) {
		return 2
	}
	return 1
}

// heightOf is how high a set-up's pulley stands above the floor, m.
func heightOf(s movement.SetUp, stature float64) float64 {
	e := s.EffortFor(stature)
	return movement.FloorBelow(s.Position(), e.TrunkLean, stature) + e.Load.Pulley[1]
}
