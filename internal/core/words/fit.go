package words

import (
	"math"
	"slices"

	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// This file says whether a movement can be what words ask for, and what of it they turn.

var implements = map[string]movement.ImplementID{
	"bar": movement.BarStraight, "cambered": movement.BarCambered, "v": movement.BarV, "parallel": movement.BarParallel,
	"dumbbell": movement.Dumbbell, "rope": movement.Rope, "handle": movement.Handle, "machine": movement.Machine,
	"band": movement.Band, "rail": movement.BarRail, "lever": movement.Lever,
}

// implementFacet is the facet of something that is held, "" where no word has it.
func implementFacet(i movement.ImplementID) facet {
	for name, id := range implements {
		if id == i {
			return facet("imp=" + name)
		}
	}
	return ""
}

// widths are what close and wide mean in shoulder breadths, by what is done.
var widths = map[movement.Action]map[string]float64{
	movement.Flexion:   {"close": 0.7, "wide": 1.4},
	movement.Extension: {"close": 0.6, "wide": 1.2},
	movement.Press:     {"close": 1.0, "wide": 1.6},
	movement.PushUp:    {"close": 1.0, "wide": 1.6, "diamond": 0.6},
	movement.Pull:      {"close": 0.8, "wide": 1.6},
}

// Benches where words only say that it is set up, or head down.
const (
	inclineBench = 45.0
	declineBench = -15.0
)

// fitted is a movement held against what words ask for.
type fitted struct {
	a       *answer
	setUp   movement.SetUp
	open    int // of its needs that no word names, and how loosely its action is said
	matched int // of its needs that words name
}

// fit turns a movement to all that is asked for; false where a word contradicts it.
func (a *answer) fit(asked []facet, soft []facet, angle float64) (fitted, bool) {
	out := fitted{a: a}
	turned := movement.Settings{}
	said := map[facet]bool{}
	for _, f := range asked {
		said[f] = true
	}
	for _, f := range soft {
		said[f] = true
	}
	for _, f := range asked {
		if a.not[f] {
			return out, false
		}
		switch f.key() {
		case "act":
			loosely, ok := a.acts[f]
			if !ok {
				return out, false
			}
			out.open += loosely
		case "side":
			if !a.works(f.value()) {
				return out, false
			}
		case "head", "method":
		default:
			if !a.can(f, turned) && !a.names(f) {
				return out, false
			}
		}
	}
	for _, f := range soft { // what is usual, where the movement lets it
		if f.key() == "hand" && !a.can(f, turned) && !a.names(f) {
			return out, false
		}
	}
	for _, group := range a.needs {
		if group[0].key() == "never" {
			out.open += never
		} else if slices.ContainsFunc(group, func(f facet) bool { return said[f] }) {
			out.matched++
		} else {
			out.open++
		}
	}
	if angle > 0 {
		for _, k := range []movement.Key{movement.Bench, movement.PadSlope} {
			if s := a.m.Setting(k); s != nil {
				turned[k] = movement.Num(angle)
			}
		}
	}
	var err error
	out.setUp, err = a.m.SetUp(turned)
	return out, err == nil
}

// names says whether a movement's own words have a facet.
func (a *answer) names(f facet) bool {
	return a.may[f] || slices.ContainsFunc(a.needs, func(group []facet) bool { return slices.Contains(group, f) })
}

// works says whether a movement is one of the flexors' or of the extensors'.
func (a *answer) works(side string) bool {
	flexes := a.m.Action == movement.Flexion || a.m.Action == movement.Pull || a.m.Action == movement.Turn
	return flexes == (side == "flexors")
}

// can says whether a movement's own settings give what a facet asks for, and turns them.
func (a *answer) can(f facet, turned movement.Settings) bool {
	m, value := a.m, f.value()
	choose := func(k movement.Key, word string) bool {
		s := m.Setting(k)
		if s == nil || !slices.Contains(s.Choices, word) {
			return false
		}
		if s.Default.Word != word {
			turned[k] = movement.Word(word)
		}
		return true
	}
	switch f.key() {
	case "imp":
		if value == "cable" {
			return m.Default().Pulls() == effort.Cable
		}
		id := implements[value]
		return id != "" && (m.Implement == id || choose(movement.Implement, string(id)))
	case "place":
		switch value {
		case "incline", "decline":
			bench := m.Setting(movement.Bench)
			if bench == nil || m.Position != movement.OnBench {
				return false
			}
			angle := map[string]float64{"incline": inclineBench, "decline": declineBench}[value]
			if angle < bench.Min || angle > bench.Max {
				return false
			}
			turned[movement.Bench] = movement.Num(angle)
			return true
		}
		return string(m.Position) == value && m.Setting(movement.PositionKey) != nil || choose(movement.PositionKey, value)
	case "hand":
		if g := m.Setting(movement.Grip); g != nil {
			return choose(
				movement.Grip,
				map[string]string{"up": "underhand", "reverse": "underhand", "down": "overhand", "thumb": "neutral"}[value],
			)
		}
		if m.Default().HandKind() == value {
			return true
		}
		phi, ok := map[string]float64{"up": 80, "thumb": 0, "down": -80}[value]
		from, to := m.Setting(movement.PhiFrom), m.Setting(movement.PhiTo)
		if !ok || from == nil || to == nil || math.Abs(phi) > from.Max {
			return false
		}
		turned[movement.PhiFrom], turned[movement.PhiTo] = movement.Num(phi), movement.Num(phi)
		return true
	case "width":
		w := m.Setting(movement.GripWidth)
		if w == nil {
			return false
		}
		if value == "middle" {
			return true
		}
		if a.names(f) && value != "diamond" {
			return true // its own width is what the word means
		}
		x, ok := widths[m.Action][value]
		if !ok || x < w.Min || x > w.Max {
			return false
		}
		if x != w.Default.Number {
			turned[movement.GripWidth] = movement.Num(x)
		}
		return true
	case "arms":
		return a.arms(value, turned, choose)
	case "count":
		d := m.Default()
		if value == "one" {
			return d.Hands() == movement.Together && d.Pulls() != effort.Cable && m.Implement != movement.Machine ||
				choose(movement.Implement, string(movement.Shared))
		}
		return d.Hands() == movement.BothArms || d.Hands() == movement.Alternate
	}
	return false
}

// arms turns a movement to one arm, both or in turn; a bar gives way to what one hand
// can hold.
func (a *answer) arms(value string, turned movement.Settings, choose func(movement.Key, string) bool) bool {
	with := func() (movement.SetUp, bool) {
		s, err := a.m.SetUp(turned)
		return s, err == nil
	}
	s, ok := with()
	if !ok {
		return false
	}
	if s.Hands() == value || value == movement.BothArms && s.Hands() == movement.Together {
		return true
	}
	if s.Uses(movement.Hands) {
		return choose(movement.Hands, value)
	}
	if _, said := turned[movement.Implement]; said {
		return false
	}
	for _, i := range []movement.ImplementID{movement.Handle, movement.Dumbbell} {
		if !choose(movement.Implement, string(i)) {
			continue
		}
		if s, ok = with(); ok && s.Hands() == value || choose(movement.Hands, value) {
			return true
		}
		delete(turned, movement.Implement)
	}
	return false
}
