package person

import (
	"math"
	"slices"

	"musculus/internal/core/movement"
)

// Room is a place to train in, with what is really there.
type Room struct {
	Name    string    `json:"name"`
	Things  []Thing   `json:"things,omitempty"`
	Bench   *Bench    `json:"bench,omitempty"`
	Pads    bool      `json:"pads,omitempty"`   // curl pads
	Slopes  []float64 `json:"slopes,omitempty"` // of the pads, degrees; none listed: any
	Pins    bool      `json:"pins,omitempty"`   // a rack with pins
	Rails   bool      `json:"rails,omitempty"`
	Partner bool      `json:"partner,omitempty"` // somebody is there to spot
	AsPad   bool      `json:"bench_as_pad,omitempty"` // the bench at a pad's slope serves pad curls
	Changes *Changes  `json:"changes,omitempty"` // how long going from one exercise to the next takes; nil: as usual
}

// Bench is the room's adjustable bench.
type Bench struct {
	Min float64 `json:"min_deg"`
	Max float64 `json:"max_deg"`
	// Notches it can be set to; none listed: any angle between.
	Notches []float64 `json:"notches,omitempty"`
	Count   int       `json:"count,omitempty"` // how many there are; 0: one
}

// nearAngle is how far off a notch or a pad may be and still do, degrees.
const nearAngle = 3.0

// Allows says whether the bench can be set to an angle.
func (b *Bench) Allows(angle float64) bool {
	if b == nil || angle < b.Min-nearAngle || angle > b.Max+nearAngle {
		return false
	}
	return len(b.Notches) == 0 || slices.ContainsFunc(b.Notches, func(n float64) bool { return math.Abs(n-angle) <= nearAngle })
}

// Rigging returns what conversions of loads need in this room for a client of
// the given body mass, kg.
func (r *Room) Rigging(bodyMass float64) Rigging {
	out := Rigging{PulleyRatio: 1, BodyMass: bodyMass}
	if c := r.Thing(Cable); c != nil {
		out.PulleyRatio = c.Ratio
	}
	return out
}

// Steps lists the whole loads the room really has for a set-up, ascending, kg.
// For body weight they are what is added.
func (r *Room) Steps(s movement.SetUp) []float64 {
	marks := r.Marks(s)
	if marks == nil {
		return nil
	}
	out := make([]float64, len(marks))
	for i, m := range marks {
		out[i] = m.Kg
	}
	return out
}

// Marks lists the same as they are marked there; nil where it is not said.
func (r *Room) Marks(s movement.SetUp) []Mark {
	least := 1
	switch CarryOf(s) {
	case BodyWeight:
		return append([]Mark{{}}, r.marks(Belt, 1)...)
	case StackOne, StackTwo:
		return r.marks(Cable, 1)
	case TwoHands:
		if s.Implement() != movement.Shared {
			return r.marks(s.Implement(), 1)
		}
	default:
		if s.Hands() != movement.OneArm {
			least = 2
		}
	}
	return r.marks(movement.Dumbbell, least)
}

// RoundDown returns the greatest step not above whole; false when every step is
// heavier, or there is none.
func RoundDown(steps []float64, whole float64) (float64, bool) {
	best, found := 0.0, false
	for _, s := range steps {
		if s <= whole+1e-9 && (!found || s > best) {
			best, found = s, true
		}
	}
	return best, found
}

// IsStep says whether whole is one of the steps (to a gram).
func IsStep(steps []float64, whole float64) bool {
	return slices.ContainsFunc(steps, func(s float64) bool { return math.Abs(s-whole) < 1e-3 })
}

// CanFailAlone says whether a set of the set-up may be taken to the limit in
// this room with nobody near.
func (r *Room) CanFailAlone(s movement.SetUp) bool {
	switch s.SafeAlone() {
	case movement.AloneYes:
		return true
	case movement.AloneWithPins:
		return r.Pins || r.Rails && s.Implement() == movement.BarRail || r.Partner
	}
	return r.Partner
}
