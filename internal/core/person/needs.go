package person

import (
	"fmt"
	"math"
	"slices"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// nearHeight is how far off a pulley may be and still do, m.
const nearHeight = 0.1

// need is one thing a set-up cannot be done without.
type need struct {
	what string
	met  func(*Room) bool
}

// stationNames are implements that stand in the room, by what they are called.
var stationNames = map[movement.ImplementID]string{
	movement.BarParallel: "a parallel-grip bar", movement.BarRail: "a guided-rail bar", movement.BarFixed: "a fixed bar",
	movement.PullBar: "a pull-up bar", Thick: "thick handles",
	movement.DipMachine: "a machine that assists", movement.Band: "a band", movement.Machine: "a press machine", movement.Lever: "a lever",
}

var barNames = map[movement.ImplementID]string{movement.BarStraight: "a straight bar", movement.BarCambered: "a cambered bar"}

var attachmentNames = map[movement.ImplementID]string{
	movement.BarStraight: "the bar for the cable", movement.BarCambered: "the cambered bar for the cable",
	movement.BarV: "the V-shaped bar for the cable", movement.BarParallel: "the parallel handles for the cable",
	movement.Rope: "the rope for the cable", movement.Handle: "the handle for the cable"}

// needs lists what a set-up cannot be done without.
func needs(s movement.SetUp) []need {
	var out []need
	add := func(what string, met func(*Room) bool) { out = append(out, need{what, met}) }
	i, cable := s.Implement(), s.Pulls() == effort.Cable
	switch i {
	case movement.Dumbbell:
		if s.Hands() == movement.BothArms || s.Hands() == movement.Alternate {
			add("a pair of dumbbells", func(r *Room) bool {
				return r.Has(movement.Dumbbell, 2)
			})
			break
		}
		fallthrough
	case movement.Shared:
		add("a dumbbell", func(r *Room) bool { return r.Has(movement.Dumbbell, 1) })
	case movement.DipBars:
		add("dip bars", func(r *Room) bool { return r.Has(movement.DipBars, 1) })
	case movement.BenchEdge:
		add("a bench", func(r *Room) bool { return r.Bench != nil })
	case movement.BarStraight, movement.BarCambered:
		if !cable {
			add(barNames[i], func(r *Room) bool { return r.Has(i, 1) })
		}
	default:
		if name := stationNames[i]; name != "" {
			add(name, func(r *Room) bool { return r.Has(i, 1) })
		}
	}
	if v, ok := s.Value(movement.ThickHandle); ok && v.Word == "yes" {
		add(stationNames[Thick], func(r *Room) bool { return r.Has(Thick, 1) })
	}
	if cable { // what hangs on a column that is not there is not told as well
		if columnsOf(s) == 2 {
			add("two cable columns", func(r *Room) bool { return r.Has(Cable, 2) })
		} else {
			add("a cable column", func(r *Room) bool { return r.Has(Cable, 1) })
		}
		if name := attachmentNames[i]; name != "" {
			add(name, func(r *Room) bool { return !r.Has(Cable, 1) || r.Has(OnCable(i), 1) })
		}
	}
	if cable && s.Movement.Computed() {
		e := s.Effort()
		height := movement.FloorBelow(s.Position(), e.TrunkLean, arm.DefaultStature) + e.Load.Pulley[1]
		add(fmt.Sprintf("a pulley at %.1f m", max(height, 0)), func(r *Room) bool {
			c := r.Thing(Cable)
			return c == nil || c.High == 0 || height >= c.Low-nearHeight && height <= c.High+nearHeight
		})
	}
	switch s.Position() {
	case movement.Reclined, movement.ChestSupported, movement.OnBench:
		angle := 0.0
		if v, ok := s.Value(movement.Bench); ok {
			angle = v.Number
		} else if HeadDown(s) {
			angle = s.Effort().TrunkLean + 90
		}
		what := fmt.Sprintf("a bench at %.0f°", angle)
		switch {
		case angle == 0:
			what = "a flat bench"
		case angle < 0:
			what = fmt.Sprintf("a bench %.0f° head down", -angle)
		}
		add(what, func(r *Room) bool { return r.Bench.Allows(angle) })
	}
	if s.Movement.Anchor == "pad" {
		slope, sloped := s.Value(movement.PadSlope)
		what := "a pad"
		if sloped {
			what = fmt.Sprintf("a pad at %.0f°", slope.Number)
		}
		add(what, func(r *Room) bool {
			return r.AsPad && sloped && r.Bench.Allows(slope.Number) || r.Pads &&
				(!sloped || len(r.Slopes) == 0 || slices.ContainsFunc(r.Slopes, func(x float64) bool { return math.Abs(x-slope.Number) <= nearAngle }))
		})
	}
	return out
}

// Needs lists what a set-up cannot be done without, in words.
func Needs(s movement.SetUp) []string {
	out := []string{}
	for _, n := range needs(s) {
		out = append(out, n.what)
	}
	return out
}

// Missing lists what the room lacks for a set-up; empty when it can be done.
func (r *Room) Missing(s movement.SetUp) []string {
	var out []string
	for _, n := range needs(s) {
		if !n.met(r) {
			out = append(out, n.what)
		}
	}
	return out
}

// Way is the first way to hold a set-up for which the room has everything, itself where
// it has; false where there is none.
func (r *Room) Way(s movement.SetUp) (movement.SetUp, bool) {
	for _, way := range s.Ways() {
		if len(r.Missing(way)) == 0 {
			return way, true
		}
	}
	return s, false
}
