package dose

import (
	"math"
	"slices"
	"strings"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/series"
)

// Rack is what a set-up can be loaded with in a room.
type Rack struct {
	Steps   []float64 // whole loads, ascending, kg
	Carry   person.Carry
	Rigging person.Rigging
}

// RackOf is a room's rack for a set-up and a client of some body mass, kg.
func RackOf(s movement.SetUp, room *person.Room, bodyMass float64) Rack {
	return Rack{room.Steps(s), person.CarryOf(s), room.Rigging(bodyMass)}
}

// part is the whole load whose hand carries f times as much.
func (r *Rack) part(whole, f float64) float64 {
	return r.Carry.Whole(f*r.Carry.PerHand(whole, r.Rigging), r.Rigging)
}

// down is part, rounded down to a step.
func (r *Rack) down(whole, f float64) (float64, bool) {
	return person.RoundDown(r.Steps, r.part(whole, f))
}

// What the methods do to a load.
const (
	rung           = 0.8  // a drop's next rung
	secondOfCombo  = 0.85 // of its own series
	thirdOfCombo   = 0.75
	weeklyPartials = 1.05 // strong-range partials, while clean
	mostOfE1RM     = 1.2  // strong-range partials
	leastLowering  = 1.1  // loaded lowering, on the way down
	mostLowering   = 1.2
)

// Methods of which more is known than their table says.
const (
	Pyramid        = "pyramid"
	Opposing       = "superset_opposing"
	HandPhases     = "hand_phases"
	Ladder         = "ladder"
	StaticHold     = "static_hold"
	loadedLowering = "loaded_lowering"
	StrongPartials = "partials_strong"
	SupersetSame   = "superset_same"
	ThreeInRow     = "three_in_row"
)

// Loads lists the whole loads of one set, rung by rung where the method has
// rungs, each rounded down to a step of the rack; nil without a load or a step.
// set counts from 0, place is the slot's in its combo.
func (d *Dose) Loads(rack Rack, set, place int) []float64 {
	m := MethodOf(d.Method.ID)
	if m == nil || d.LoadKg == nil || len(rack.Steps) == 0 {
		return nil
	}
	whole := rack.Carry.Whole(*d.LoadKg, rack.Rigging)
	one := func(f float64) []float64 {
		if x, ok := rack.down(whole, f); ok {
			return []float64{x}
		}
		return nil
	}
	switch m.ID {
	case "drops":
		var out []float64
		for i := range m.n(d.Method) + 1 {
			x, ok := rack.down(whole, math.Pow(rung, float64(i)))
			if !ok || len(out) > 0 && x == out[len(out)-1] {
				break // no lighter step is there
			}
			out = append(out, x)
		}
		return out
	case Pyramid:
		at := slices.IndexFunc(rack.Steps, func(x float64) bool { return x >= whole-1e-6 })
		if at < 0 {
			return nil
		}
		return []float64{rack.Steps[min(max(at+set*m.n(d.Method), 0), len(rack.Steps)-1)]}
	case SupersetSame, ThreeInRow:
		return one([]float64{1, secondOfCombo, thirdOfCombo}[min(place, 2)])
	case StrongPartials:
		return one(min(math.Pow(weeklyPartials, float64(m.n(d.Method))), d.mostPartials()))
	case loadedLowering:
		up := one(1)
		if down, ok := rack.down(whole, mostLowering); ok && len(up) > 0 && down >= rack.part(whole, leastLowering)-1e-9 {
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
func (d *Dose) mostPartials() float64 {
	if max, ok := series.E1RM(*d.LoadKg, (d.RepsLow+d.RepsHigh)/2, d.ReserveOf(0)); ok {
		return mostOfE1RM * max / *d.LoadKg
	}
	return mostOfE1RM
}

// LoadWords tells a slot's load as it is read on the floor: rung by rung or set by
// set where the method changes it.
func (d *Dose) LoadWords(s movement.SetUp, rack Rack, place int) string {
	if d.LoadKg == nil {
		return series.FindWords
	}
	whole := rack.Carry.Whole(*d.LoadKg, rack.Rigging)
	var loads []float64
	if d.Method.ID == Pyramid {
		for set := range d.Each() {
			loads = append(loads, d.Loads(rack, set, place)...)
		}
	} else {
		loads = d.Loads(rack, 0, place)
	}
	if len(loads) == 0 || len(loads) == 1 && loads[0] == whole {
		return rack.Carry.Words(whole, s)
	}
	if d.Method.ID == loadedLowering && len(loads) == 2 {
		return rack.Carry.Words(loads[0], s) + " up, " + person.Kg(loads[1]) + " down"
	}
	words := make([]string, len(loads))
	for i, x := range loads {
		words[i] = strings.TrimSuffix(person.Kg(x), " kg")
	}
	words[len(words)-1] = rack.Carry.Words(loads[len(loads)-1], s)
	return strings.Join(words, " → ")
}
