package person

import (
	"cmp"
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
	Partner bool      `json:"partner,omitempty"`      // somebody is there to spot
	AsPad   bool      `json:"bench_as_pad,omitempty"` // the bench at a pad's slope serves pad curls
	Changes *Changes  `json:"changes,omitempty"`      // how long going from one exercise to the next takes; nil: as usual

	Prefer Unit `json:"-"` // the client's, where two marks are one step
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

// Marks lists the same as they are marked there; nil where it is not said. Assistance
// is a load below the body's weight: its kg are less than 0, its mark is not.
func (r *Room) Marks(s movement.SetUp) []Mark {
	least := 1
	i := s.Implement()
	switch CarryOf(s) {
	case BodyWeight:
		return r.bodyMarks(i)
	case StackOne, StackTwo:
		return r.marks(Cable, 1)
	case TwoHands:
		if i != movement.Shared {
			return r.marks(i, 1)
		}
	default:
		if s.Hands() != movement.OneArm {
			least = 2
		}
		if i == movement.Lever {
			return r.marks(movement.Lever, least)
		}
	}
	return r.marks(movement.Dumbbell, least)
}

// bodyMarks are what can be added to a body on an implement, or taken off it.
func (r *Room) bodyMarks(i movement.ImplementID) []Mark {
	var out []Mark
	switch i {
	case movement.DipMachine:
		for _, m := range slices.Backward(r.marks(i, 1)) {
			m.Kg = -m.Kg
			out = append(out, m)
		}
		return append(out, Mark{})
	case movement.Band: // it helps with at least its low figure
		for k := range r.Things {
			if t := &r.Things[k]; t.Kind == movement.Band && t.Low > 0 {
				out = append(out, Mark{-t.Unit.In(t.Low), t.Low, t.Unit, t.ID})
			}
		}
		slices.SortFunc(out, func(a, b Mark) int { return cmp.Compare(a.Kg, b.Kg) })
		return append(out, Mark{})
	}
	return append([]Mark{{}}, r.marks(Belt, 1)...)
}

// Amount writes a whole load as it is marked on the thing a set-up is done with: in
// pounds where the thing is marked so, also what is only reckoned.
func (r *Room) Amount(s movement.SetUp, whole float64) string {
	pounds := false
	for _, m := range r.Marks(s) {
		if m.Unit == Pound && math.Abs(m.Kg-whole) < 1e-3 {
			return Amount(math.Abs(m.Mark), Pound)
		}
		if m.Kg != 0 {
			if m.Unit != Pound {
				return Kg(math.Abs(whole))
			}
			pounds = true
		}
	}
	if pounds {
		return Amount(math.Round(math.Abs(whole)/poundKg*10)/10, Pound)
	}
	return Kg(math.Abs(whole))
}

// MarkOf is the number a whole load bears on the thing a set-up is done with, and its
// unit, "" for kg; assistance is less than 0.
func (r *Room) MarkOf(s movement.SetUp, whole float64) (float64, Unit) {
	for _, m := range r.Marks(s) {
		if m.Unit == Pound && math.Abs(m.Kg-whole) < 1e-3 {
			return math.Copysign(m.Mark, whole), Pound
		}
	}
	return whole, ""
}

// Words tells a whole load of a set-up as it is read on the floor, as it is marked.
func (r *Room) Words(whole float64, s movement.SetUp) string {
	return CarryOf(s).tell(r.Amount(s, whole), whole, s)
}

// UnitOf is the unit in which a set-up's loads are marked in the room: pounds only
// where all of them are.
func (r *Room) UnitOf(s movement.SetUp) Unit {
	unit := Kilogram
	for _, m := range r.Marks(s) {
		switch {
		case m.Kg == 0:
		case m.Unit != Pound:
			return Kilogram
		default:
			unit = Pound
		}
	}
	return unit
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
