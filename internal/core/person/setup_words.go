package person

import (
	"fmt"
	"math"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// SetUpWords are the numbers that decide how a set-up is put together on the floor, for
// a body and with what is in the room: bench, pad, pulley from the floor, attachment,
// hands in cm and at the bar's mark, pins, tuck, depth, lean.
func (r *Room) SetUpWords(s movement.SetUp, body arm.Body) []string {
	var out []string
	say := func(format string, args ...any) { out = append(out, fmt.Sprintf(format, args...)) }
	cm := func(m float64) float64 { return math.Round(100 * m) }
	if onBench(s) {
		switch angle := angleOf(s); {
		case angle == 0:
			say("bench flat")
		case angle < 0:
			say("bench %.0f° head down", -angle)
		default:
			say("bench at %.0f°", angle)
		}
	}
	if slope, ok := s.Value(movement.PadSlope); ok {
		say("pad at %.0f°", slope.Number)
	}
	if s.Pulls() == effort.Cable && s.Movement.Computed() {
		e := s.EffortFor(body.Stature)
		say("pulley %.0f cm above the floor", max(0, cm(heightOf(s, body.Stature))))
		switch x := e.Load.Pulley[0]; {
		case math.Abs(x) < 0.05:
			say("stand at the pulley")
		case x > 0:
			say("%.0f cm from it, facing it", cm(x))
		default:
			say("%.0f cm from it, your back to it", cm(-x))
		}
		say("%s", movement.ChoiceWords(movement.Implement, string(s.Implement())))
	}
	if width, ok := s.Value(movement.GripWidth); ok {
		apart := width.Number * body.ShoulderBreadth()
		words := fmt.Sprintf("hands %.0f cm apart", cm(apart))
		if bar := r.Thing(s.Implement()); bar != nil && bar.Width > 0 {
			words += ", " + atTheMark(apart, bar.Width)
		}
		out = append(out, words)
	}
	for _, k := range []struct {
		key  movement.Key
		says func(x float64) string
	}{
		{movement.PinHeight, func(x float64) string {
			if s.Implement() == movement.BarFixed {
				return fmt.Sprintf("bar %.0f cm above the floor", cm(x))
			}
			return fmt.Sprintf("pins %.0f cm above the chest", cm(x))
		}},
		{movement.Tuck, func(x float64) string { return fmt.Sprintf("elbows %.0f° from the ribs", x) }},
		{movement.Tilt, func(x float64) string { return fmt.Sprintf("upper arms tilted back %.0f°", x) }},
		{movement.HandHeight, func(x float64) string { return fmt.Sprintf("hands raised %.0f cm", cm(x)) }},
		{movement.FootHeight, func(x float64) string { return fmt.Sprintf("feet raised %.0f cm", cm(x)) }},
	} {
		v, ok := s.Value(k.key)
		raised := k.key == movement.HandHeight || k.key == movement.FootHeight
		if ok && !(raised && v.Number == 0) {
			out = append(out, k.says(v.Number))
		}
	}
	if s.Movement.Action == movement.Dip {
		if lean, ok := s.Value(movement.Lean); ok {
			say("trunk leaning %.0f°", lean.Number)
		}
		switch depth := s.Number(movement.Depth); {
		case depth < 0:
			say("down to %.0f° above level upper arms", -depth)
		case depth > 0:
			say("down to %.0f° below level upper arms", depth)
		default:
			say("down to level upper arms")
		}
	} else if lean, ok := s.Value(movement.Lean); ok && lean.Number != 0 {
		say("%s", strings.TrimSpace(map[bool]string{true: "leaning back", false: "leaning forward"}[lean.Number < 0]+
			fmt.Sprintf(" %.0f°", math.Abs(lean.Number))))
	}
	return out
}

// nearMark is how near to the end of a bar's smooth middle a hand is at it, m.
const nearMark = 0.015

// atTheMark tells where hands so far apart are on a bar with a smooth middle, m.
func atTheMark(apart, smooth float64) string {
	const thumb = 0.06
	each := (apart - smooth) / 2
	switch {
	case math.Abs(each) <= nearMark:
		return fmt.Sprintf("at the ends of the smooth part, %.0f cm", 100*smooth)
	case each > 0 && each <= thumb+nearMark:
		return fmt.Sprintf("a thumb outside the smooth part, %.0f cm", 100*smooth)
	case each > 0:
		return fmt.Sprintf("%.0f cm outside the smooth part on each side", 100*each)
	case -each <= thumb+nearMark:
		return fmt.Sprintf("a thumb inside the smooth part, %.0f cm", 100*smooth)
	}
	return fmt.Sprintf("%.0f cm inside the smooth part on each side", -100*each)
}
