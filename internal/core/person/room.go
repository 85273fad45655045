package person

import (
	"math"
	"slices"

	"musculus/internal/core/movement"
)

// Room is a place to train in, with what is really there.
type Room struct {
	Name      string                 `json:"name"`
	Dumbbells []Dumbbell             `json:"dumbbells,omitempty"`
	Bars      []Bar                  `json:"bars,omitempty"`
	Cable     *Cable                 `json:"cable,omitempty"`
	Bench     *Bench                 `json:"bench,omitempty"`
	Pads      bool                   `json:"pads,omitempty"`   // curl pads
	Slopes    []float64              `json:"slopes,omitempty"` // of the pads, degrees; none listed: any
	Pins      bool                   `json:"pins,omitempty"`   // a rack with pins
	Rails     bool                   `json:"rails,omitempty"`
	Partner   bool                   `json:"partner,omitempty"` // somebody is there to spot
	DipBars   bool                   `json:"dip_bars,omitempty"`
	DipLoads  []float64              `json:"dip_loads_kg,omitempty"` // what can be added in a dip
	Others    []movement.ImplementID `json:"others,omitempty"`       // machines, pull-up bar, lever, guided rails …
}

// Dumbbell is one mass and how many of it there are.
type Dumbbell struct {
	Kg    float64 `json:"kg"`
	Count int     `json:"count"`
}

// Bar is a bar with the masses it can be loaded to, its own included.
type Bar struct {
	Kind  movement.ImplementID `json:"kind"`
	OwnKg float64              `json:"own_kg,omitempty"`
	Loads []float64            `json:"loads_kg"` // whole masses, ascending
}

// Cable is the room's cable columns.
type Cable struct {
	Columns     int                    `json:"columns"`
	Stack       []float64              `json:"stack_kg"` // ascending
	Ratio       float64                `json:"ratio"`    // stack over pull
	Attachments []movement.ImplementID `json:"attachments"`
	LowM        float64                `json:"low_m,omitempty"`  // of the pulley above the floor
	HighM       float64                `json:"high_m,omitempty"` // 0: as high as is asked for
}

// Bench is the room's adjustable bench.
type Bench struct {
	Min float64 `json:"min_deg"`
	Max float64 `json:"max_deg"`
	// Notches it can be set to; none listed: any angle between.
	Notches []float64 `json:"notches,omitempty"`
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
	if r.Cable != nil {
		out.PulleyRatio = r.Cable.Ratio
	}
	return out
}

func (r *Room) bar(kind movement.ImplementID) *Bar {
	for i := range r.Bars {
		if r.Bars[i].Kind == kind {
			return &r.Bars[i]
		}
	}
	return nil
}

// Steps lists the whole loads the room really has for a set-up, ascending, kg.
// For body weight they are what is added.
func (r *Room) Steps(s movement.SetUp) []float64 {
	switch CarryOf(s) {
	case BodyWeight:
		return append([]float64{0}, r.DipLoads...)
	case StackOne, StackTwo:
		if r.Cable != nil {
			return r.Cable.Stack
		}
		return nil
	case TwoHands:
		if s.Implement() == movement.Shared {
			return r.masses(1)
		}
		if b := r.bar(s.Implement()); b != nil {
			return b.Loads
		}
		return nil
	}
	if s.Hands() == movement.OneArm {
		return r.masses(1)
	}
	return r.masses(2)
}

// masses lists the dumbbells there are at least count of.
func (r *Room) masses(count int) []float64 {
	var out []float64
	for _, d := range r.Dumbbells {
		if d.Count >= count {
			out = append(out, d.Kg)
		}
	}
	slices.Sort(out)
	return out
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
	switch s.Movement.SafeAlone {
	case movement.AloneYes:
		return true
	case movement.AloneWithPins:
		return r.Pins || r.Rails && s.Implement() == movement.BarRail || r.Partner
	}
	return r.Partner
}
