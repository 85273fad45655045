package movement

import (
	"fmt"
	"math"
	"slices"
)

// This file reads the settings of a movement's row: limits, choices, and defaults
// taken off the table.

func (r *row) setting(m *Movement, s settingRow) (Setting, error) {
	k, ok := kinds[s.Key]
	if !ok {
		return Setting{}, fmt.Errorf("there is no such setting")
	}
	out := Setting{Key: s.Key, Label: k.label, Unit: k.unit, Step: k.step, isWord: k.word}
	if k.word {
		out.Choices = r.choices(m, s.Key)
		if len(out.Choices) < 2 {
			return out, fmt.Errorf("a choice needs at least two words")
		}
		out.Default = Word(out.Choices[0])
		return out, nil
	}
	if s.Min == nil || s.Max == nil || *s.Min >= *s.Max {
		return out, fmt.Errorf("needs min below max")
	}
	out.Min, out.Max = *s.Min, *s.Max
	if s.Default != nil {
		out.Default = Num(*s.Default)
	} else {
		out.Default = Num(r.defaultOf(m, s.Key))
	}
	if d := out.Default.Number; d < out.Min || d > out.Max {
		return out, fmt.Errorf("default %s is outside %s…%s", trim(d), trim(out.Min), trim(out.Max))
	}
	return out, nil
}

func (r *row) choices(m *Movement, k Key) (out []string) {
	switch k {
	case Implement:
		for _, w := range r.Implements {
			out = append(out, string(w))
		}
	case Hands:
		out = r.Hands
	case Hold:
		out = []string{m.HoldWord}
		for _, h := range holds {
			switch {
			case h == bothHands || h == m.HoldWord,
				len(r.Holds) > 0 && !slices.Contains(r.Holds, h),
				h == "thumb_over" && slices.Contains(overTheBody, r.Family),
				h == "against_plate" && !slices.Contains(r.Implements, Dumbbell):
				continue
			}
			out = append(out, h)
		}
	case WristKey:
		out = firstWord(wrists, m.Wrist)
	case ThickHandle:
		out = []string{no, yes}
		if r.Thick {
			out = []string{yes, no}
		}
	case Grip:
		for _, g := range r.Grips {
			out = append(out, g.Grip)
		}
	case PositionKey:
		for _, w := range r.Positions {
			out = append(out, string(w))
		}
	}
	return out
}

// defaultOf reads a setting's default off the base set-up: the inverse of the
// appliers at the table's values.
func (r *row) defaultOf(m *Movement, k Key) float64 {
	e := &m.base
	switch k {
	case Bench:
		if m.Position == ChestSupported {
			return 90 - e.TrunkLean
		}
		return 90 + e.TrunkLean
	case PadSlope:
		return 90 - e.From.ShoulderElevation
	case Tilt:
		return e.From.ShoulderElevation - 90
	case Lean:
		return e.TrunkLean
	case GripWidth:
		return 1
	case PulleyDistance:
		return math.Abs(e.Load.Pulley[0])
	case PulleyHeight:
		return e.Load.Pulley[1]
	case GripOffset:
		return e.GripOffset
	case ShoulderTo:
		return e.To.ShoulderElevation
	case Rho:
		return e.From.ShoulderRotation
	case PhiFrom:
		return e.From.ForearmRotation
	case PhiTo:
		return e.To.ForearmRotation
	case ElbowFrom:
		return e.From.ElbowFlexion
	}
	return e.To.ElbowFlexion
}

// The answers of a setting that says yes or no.
const (
	yes = "yes"
	no  = "no"
)

// firstWord lists words with one of them first.
func firstWord(words []string, one string) []string {
	out := []string{one}
	for _, w := range words {
		if w != one {
			out = append(out, w)
		}
	}
	return out
}
