package dose

import (
	"fmt"
	"math"
	"strings"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/series"
)

// Load is what a row asks for, one of: a number in kg, a number beside the body's
// own weight, to be found, a part of the slot's first row or steps from it, the one
// load of its combo. It is the load of straight sets: what the method and the combo
// make of it is worked out.
type Load struct {
	Kg      *float64 `json:"kg,omitempty" doc:"what one hand carries"`
	AddedKg *float64 `json:"added_kg,omitempty" doc:"beside the body: + load, − assistance"`
	Find    bool     `json:"find,omitempty" doc:"to be found"`
	Share   float64  `json:"share,omitempty" doc:"of the first row's load, 0.3…1"`
	Steps   *int     `json:"steps,omitempty" doc:"real steps from the first row's load, −5…5"`
	Combo   bool     `json:"combo,omitempty" doc:"the combo's one load"`

	Mark  *float64 `json:"mark,omitempty" doc:"as it is marked on the thing"`
	Unit  string   `json:"unit,omitempty" enum:",kg,lb"`
	Thing string   `json:"thing,omitempty" maxLength:"60"`
}

// ToFind is a load that is not known yet.
func ToFind() *Load { return &Load{Find: true} }

// Kg is a load in one hand.
func Kg(hand float64) *Load { return &Load{Kg: &hand} }

// Added is a load beside the body's own weight, kg; assistance is less than 0.
func Added(kg float64) *Load { return &Load{AddedKg: &kg} }

// StepsOff is so many real steps from the first row's load.
func StepsOff(n int) *Load { return &Load{Steps: &n} }

// Carried is the load of a set-up's carry for what one hand carries: beside the
// body where that is what is lifted, so that it stays what it is when the body's
// mass changes.
func Carried(rack Rack, hand float64) *Load {
	if rack.Carry == person.BodyWeight {
		return Added(math.Round(100*rack.Carry.Whole(hand, rack.Rigging)) / 100)
	}
	return Kg(hand)
}

// Limits of a load.
const (
	mostLoadKg   = 300.0
	mostAssisted = -150.0
	leastShare   = 0.3
	mostSteps    = 5
	poundKg      = 0.45359237
	markSlack    = 0.02 // how far a mark and its kg may lie apart, of the kg
)

// Fault says what is wrong with a load as it is written, "" for nothing.
func (l *Load) Fault() string {
	kinds := 0
	for _, is := range []bool{l.Kg != nil, l.AddedKg != nil, l.Find, l.Share != 0, l.Steps != nil, l.Combo} {
		if is {
			kinds++
		}
	}
	switch {
	case kinds != 1:
		return "is one of kg, added_kg, find, share, steps and combo"
	case l.Kg != nil && !(*l.Kg > 0 && *l.Kg <= mostLoadKg):
		return fmt.Sprintf("%g kg is outside 0…%g kg", *l.Kg, mostLoadKg)
	case l.AddedKg != nil && !(*l.AddedKg >= mostAssisted && *l.AddedKg <= mostLoadKg):
		return fmt.Sprintf("%g kg is outside %g…%g kg", *l.AddedKg, mostAssisted, mostLoadKg)
	case l.Share != 0 && !(l.Share >= leastShare && l.Share <= 1):
		return fmt.Sprintf("%g %% is outside %g…100 %%", 100*l.Share, 100*leastShare)
	case l.Steps != nil && (*l.Steps < -mostSteps || *l.Steps > mostSteps):
		return fmt.Sprintf("%d is outside −%d…%d steps", *l.Steps, mostSteps, mostSteps)
	case l.Unit != "" && l.Unit != "kg" && l.Unit != "lb":
		return fmt.Sprintf("%q is neither kg nor lb", l.Unit)
	}
	return ""
}

// Same says whether two loads ask for the same.
func (l *Load) Same(o *Load) bool {
	if l == nil || o == nil {
		return l == o
	}
	same := func(a, b *float64) bool { return a == b || a != nil && b != nil && math.Abs(*a-*b) < 1e-9 }
	return same(l.Kg, o.Kg) && same(l.AddedKg, o.AddedKg) && l.Find == o.Find && l.Share == o.Share && l.Combo == o.Combo &&
		(l.Steps == o.Steps || l.Steps != nil && o.Steps != nil && *l.Steps == *o.Steps) && same(l.Mark, o.Mark) &&
		l.Unit == o.Unit && l.Thing == o.Thing
}

// Rack is what a set-up can be loaded with in a room.
type Rack struct {
	Steps   []float64 // whole loads, ascending, kg
	Carry   person.Carry
	Rigging person.Rigging

	room  *person.Room
	setUp movement.SetUp
}

// Amount writes a whole load as it is marked there.
func (r *Rack) Amount(whole float64) string {
	if r.room == nil {
		return person.Kg(math.Abs(whole))
	}
	return r.room.Amount(r.setUp, whole)
}

// Words tells a whole load as it is read on the floor, as it is marked there.
func (r *Rack) Words(whole float64) string { return r.Carry.Tell(r.Amount(whole), whole, r.setUp) }

// Only is the one load there is, in one hand; false where there are none or more.
func (r *Rack) Only() (hand float64, ok bool) {
	if len(r.Steps) != 1 {
		return 0, false
	}
	return r.Carry.PerHand(r.Steps[0], r.Rigging), true
}

// RackOf is a room's rack for a set-up and a client of some body mass, kg.
func RackOf(s movement.SetUp, room *person.Room, bodyMass float64) Rack {
	return Rack{Steps: room.Steps(s), Carry: person.CarryOf(s), Rigging: room.Rigging(bodyMass), room: room, setUp: s}
}

// part is the whole load whose hand carries f times as much.
func (r *Rack) part(whole, f float64) float64 {
	return r.Carry.Whole(f*r.Carry.PerHand(whole, r.Rigging), r.Rigging)
}

// down is part, rounded down to a step.
func (r *Rack) down(whole, f float64) (float64, bool) {
	return person.RoundDown(r.Steps, r.part(whole, f))
}

// Share is the hand's part of a hand load, rounded down to a real step; false where
// no step is that light.
func (r *Rack) Share(hand, f float64) (float64, bool) {
	whole, ok := r.down(r.Carry.Whole(hand, r.Rigging), f)
	return r.Carry.PerHand(whole, r.Rigging), ok
}

// Off is the hand load some real steps from another one, as far as there are steps.
func (r *Rack) Off(hand float64, n int) (float64, bool) {
	whole := r.Carry.Whole(hand, r.Rigging)
	for at, x := range r.Steps {
		if x >= whole-1e-6 {
			return r.Carry.PerHand(r.Steps[min(max(at+n, 0), len(r.Steps)-1)], r.Rigging), true
		}
	}
	return 0, false
}

// Nearest is the real step nearest to a whole load, itself where there are none.
func (r *Rack) Nearest(whole float64) float64 {
	best, found := whole, false
	for _, x := range r.Steps {
		if !found || math.Abs(x-whole) < math.Abs(best-whole) {
			best, found = x, true
		}
	}
	return best
}

// What the methods do to a load.
const (
	rung           = 0.8  // a drop's next rung
	weeklyPartials = 1.05 // strong-range partials, while clean
	mostOfE1RM     = 1.2  // strong-range partials
	leastLowering  = 1.1  // loaded lowering, on the way down
	mostLowering   = 1.2
)

// Methods of which more is known than their table says.
const (
	HandPhases     = "hand_phases"
	Ladder         = "ladder"
	StaticHold     = "static_hold"
	loadedLowering = "loaded_lowering"
	StrongPartials = "partials_strong"
	ContractFirst  = "contract_first"

	StrictThenSwing = "strict_then_swing"
)

// Loads lists the whole loads of one set whose straight sets one hand does with
// hand kg, rung by rung where the method has rungs, each rounded down to a step of
// the rack once; nil without a step. combo is what the set's combo makes of it, 1
// for nothing.
func (d *Dose) Loads(rack Rack, hand, combo float64) []float64 {
	m := MethodOf(d.Method.ID)
	if m == nil || len(rack.Steps) == 0 {
		return nil
	}
	whole := rack.Carry.Whole(hand, rack.Rigging)
	one := func(f float64) []float64 {
		if x, ok := rack.down(whole, f*combo); ok {
			return []float64{x}
		}
		return nil
	}
	switch m.ID {
	case "drops":
		var out []float64
		for i := range m.n(d.Method) + 1 {
			x, ok := rack.down(whole, combo*math.Pow(rung, float64(i)))
			if !ok || len(out) > 0 && x == out[len(out)-1] {
				break // no lighter step is there
			}
			out = append(out, x)
		}
		return out
	case StrongPartials:
		return one(min(math.Pow(weeklyPartials, float64(m.n(d.Method))), d.mostPartials(hand)))
	case loadedLowering:
		up := one(1)
		if down, ok := rack.down(whole, combo*mostLowering); ok && len(up) > 0 && down >= rack.part(whole, combo*leastLowering)-1e-9 {
			return append(up, down)
		}
		return up // no step is a tenth to a fifth heavier: the partner presses instead
	}
	if m.Factor > 0 {
		return one(m.Factor)
	}
	return one(1)
}

// mostPartials is how many times the load strong-range partials may grow to: 120 %
// of the full-range maximum that the load, reps and reserve tell; where they tell
// none, 120 % of the load.
func (d *Dose) mostPartials(hand float64) float64 {
	if max, ok := series.E1RM(hand, (d.RepsLow+d.RepsHigh)/2, d.Reserve); ok {
		return mostOfE1RM * max / hand
	}
	return mostOfE1RM
}

// LoadWords tells the loads of one set, or of sets that follow each other, as they
// are read on the floor: "14 → 10 → 8 kg a hand".
func (d *Dose) LoadWords(s movement.SetUp, rack Rack, loads []float64) string {
	if d.Method.ID == loadedLowering && len(loads) == 2 {
		return rack.Words(loads[0]) + " up, " + rack.Amount(loads[1]) + " down"
	}
	words := make([]string, len(loads))
	if rack.Carry == person.BodyWeight { // each may be on another side of the body's weight
		for i, x := range loads {
			words[i] = rack.Words(x)
		}
		return strings.Join(words, " → ")
	}
	for i, x := range loads {
		if words[i] = rack.Amount(x); i < len(loads)-1 {
			words[i], _, _ = strings.Cut(words[i], " ")
		}
	}
	return rack.Carry.Tell(strings.Join(words, " → "), loads[0], s)
}

// The kinds of combo, as caps close them.
const (
	SupersetSame = "superset_same"
	Opposing     = "superset_opposing"
	ThreeInRow   = "three_in_row"
)
