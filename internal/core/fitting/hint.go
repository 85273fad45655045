package fitting

import (
	"fmt"
	"math"
	"strings"

	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// Hint is what set-up arithmetic has to say about a set-up: a sentence and, where
// something can be turned, to what.
type Hint struct {
	About string // pad, bench, pulley, lock-out, grip, off-centre, pins
	Words string
	Turn  map[movement.Key]movement.Value // nil: nothing to turn, or all is so already
}

// Hints works out everything set-up arithmetic knows of a set-up. Elbow and want
// say where a cable should pull how hard.
func Hints(s movement.SetUp, y *effort.Yardstick, elbow float64, want Pull) []Hint {
	var out []Hint
	add := func(about, words string, turn map[movement.Key]movement.Value) {
		out = append(out, Hint{about, words, stillToTurn(s, turn)})
	}
	m, e, body := s.Movement, s.Effort(), y.Body()
	if _, ok := s.Value(movement.PadSlope); ok {
		slope := s.Number(movement.PadSlope)
		from, to := PadRange(slope)
		add(
			"pad",
			fmt.Sprintf(
				"A pad at %.0f° puts the arm %.0f° in front. The forearm is level at %.0f° of the elbow and upright at %.0f°: there "+
					"the weight begins and stops pulling.",
				slope,
				PadShoulder(slope),
				from,
				to,
			),
			map[movement.Key]movement.Value{movement.ElbowFrom: movement.Num(from), movement.ElbowTo: movement.Num(to)},
		)
	}
	if bench, ok := s.Value(movement.Bench); ok {
		at := BenchShoulder(bench.Number, m.Position == movement.ChestSupported)
		where := "in front of"
		if at < 0 {
			where = "behind"
		}
		if m.Action == movement.Flexion {
			add(
				"bench",
				fmt.Sprintf("On a bench at %.0f° an arm that hangs straight down is %.0f° %s the body.", bench.Number, math.Abs(at), where),
				nil,
			)
		}
	}
	if best, ok := BestPulley(s, y, elbow, want); ok {
		turn := map[movement.Key]movement.Value{}
		var where []string
		if m.Setting(movement.PulleyDistance) != nil {
			turn[movement.PulleyDistance] = movement.Num(best.Distance)
			where = append(where, fmt.Sprintf("stand %.2f m from it", best.Distance))
		}
		if m.Setting(movement.PulleyHeight) != nil {
			turn[movement.PulleyHeight] = movement.Num(best.Height)
			where = append(
				where,
				fmt.Sprintf(
					"put the pulley %.2f m %s the shoulder",
					math.Abs(best.Height),
					map[bool]string{true: "above", false: "below"}[best.Height >= 0],
				),
			)
		}
		add(
			"pulley",
			fmt.Sprintf(
				"For %s at %.0f° of the elbow: %s. It then pulls there with %.0f %% of its hardest.",
				pullWords(want),
				elbow,
				strings.Join(where, " and "),
				100*best.Demand/hardestDemand,
			),
			turn,
		)
	}
	if tilt := m.Setting(movement.Tilt); tilt != nil {
		if least, ok := LeastTilt(s, y); ok {
			add(
				"lock-out",
				fmt.Sprintf(
					"With the arms tilted back %.0f° or more, no part of the range is idle: the weight still pulls at lock-out.",
					least,
				),
				map[movement.Key]movement.Value{movement.Tilt: movement.Num(max(least, s.Number(movement.Tilt)))},
			)
		} else {
			add("lock-out", fmt.Sprintf("No tilt up to %.0f° keeps the whole range loaded; stop short of lock-out instead.", tilt.Max), nil)
		}
	}
	switch {
	case !m.Computed():
	case s.Implement() == movement.BarCambered && e.From.ForearmRotation > 0:
		add("hand", "A cambered bar turns the palms half up: easier on the wrist, and a little less for the biceps than fully up.", nil)
	case s.Implement() == movement.BarCambered && m.Action == movement.Flexion:
		add("hand", "A cambered bar turns the palms half down. The model gives the biceps less there than fully down; take the "+
			"difference for what it is, a few hundredths of a computed curve.", nil)
	}
	if m.Setting(movement.GripOffset) != nil {
		add("off-centre", OffsetWords(e.GripOffset, e.From.ForearmRotation, e.To.ForearmRotation), nil)
	}
	if width, ok := s.Value(movement.GripWidth); ok {
		add("grip", fmt.Sprintf("A grip of %.1f shoulder breadths is %s.", width.Number, GripWords(width.Number, body)), nil)
	}
	if pins := m.Setting(movement.PinHeight); pins != nil {
		for _, part := range PressParts {
			height := PinHeight(body, part)
			turn := map[movement.Key]movement.Value{movement.PinHeight: movement.Num(height)}
			if height < pins.Min || height > pins.Max {
				turn = nil
			}
			add("pins", fmt.Sprintf("For the top %s of the press put the pins %.2f m above the chest.", partWords(part), height), turn)
		}
	}
	return out
}

// stillToTurn keeps what a set-up can be turned to and has not yet; nil when that
// is nothing, or it cannot be done.
func stillToTurn(s movement.SetUp, turn map[movement.Key]movement.Value) map[movement.Key]movement.Value {
	turned := s.Turned()
	for k, v := range turn {
		turned[k] = v
	}
	there, err := s.Movement.SetUp(turned)
	if err != nil || there.Key() == s.Key() {
		return nil
	}
	out := map[movement.Key]movement.Value{}
	for k := range turn {
		out[k], _ = there.Value(k)
	}
	return out
}

func pullWords(p Pull) string {
	if p == FullPull {
		return "the hardest pull"
	}
	return fmt.Sprintf("%.0f %% of the hardest pull", 100*float64(p))
}

func partWords(part float64) string {
	switch {
	case part >= 0.5:
		return "half"
	case part > 0.3:
		return "third"
	}
	return "quarter"
}
