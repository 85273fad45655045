package movement

import (
	"fmt"
	"math"
	"strings"
)

// Name composes the set-up's full name: two different set-ups never share one.
func (s SetUp) Name() string {
	if d := s.Details(); d != "" {
		return s.Title() + ", " + d
	}
	return s.Title()
}

// Title is the name without the finer settings: movement, implement, hand.
func (s SetUp) Title() string {
	parts := []string{s.lead(), s.implementWords()}
	if hand := s.handWords(); hand != "" {
		parts = append(parts, hand)
	}
	return strings.Join(parts, ", ")
}

// Details names the finer settings that differ from the default, "" for none.
func (s SetUp) Details() string {
	var parts []string
	for _, k := range keyOrder {
		v, ok := s.turned[k]
		if !ok || strings.Contains(s.Movement.lead, "{"+string(k)+"}") {
			continue
		}
		if words := detailWords(s, k, v); words != "" {
			parts = append(parts, words)
		}
	}
	return strings.Join(parts, ", ")
}

func (s SetUp) lead() string {
	out := s.Movement.lead
	for _, setting := range s.Movement.Settings {
		v, _ := s.Value(setting.Key)
		out = strings.ReplaceAll(out, "{"+string(setting.Key)+"}", v.String())
	}
	return out
}

func (s SetUp) implementWords() string {
	switch s.Implement() {
	case BarStraight:
		return "straight bar"
	case BarCambered:
		return "cambered bar"
	case BarV:
		return "V-shaped bar"
	case Shared:
		return "one dumbbell in two hands"
	case DipBars, BenchEdge, Ground, PullBar, BarFixed:
		return "body weight"
	case DipMachine:
		return "machine"
	case Band:
		return "band"
	case BarParallel:
		return "parallel-grip bar"
	case BarRail:
		return "guided-rail bar"
	case Machine:
		return "machine"
	case Lever:
		if s.Movement.source.OneSided {
			return "one-sided weight" + map[string]string{OneArm: ", one arm", Alternate: "s in turn"}[s.Hands()]
		}
		return "lever, one arm"
	case Rope:
		if s.Hands() == OneArm {
			return "rope, one arm"
		}
		return "rope"
	case Handle:
		switch s.Hands() {
		case BothArms:
			return "two handles"
		case Alternate:
			return "two handles in turn"
		}
		return "one arm"
	}
	switch s.Hands() {
	case Alternate:
		return "dumbbells in turn"
	case OneArm:
		return "one arm, dumbbell"
	}
	return "two dumbbells"
}

// handWords say how the hand is turned; "" where the movement leaves it open.
func (s SetUp) handWords() string {
	if !s.Movement.Computed() {
		return ""
	}
	e := s.Effort()
	from, to := turnWords(e.From.ForearmRotation), turnWords(e.To.ForearmRotation)
	if from == to {
		return from
	}
	return from + " to " + to
}

// HandKind sorts the hand's turn: up, thumb, down, or turning.
func (s SetUp) HandKind() string {
	e := s.Effort()
	from, to := turnWords(e.From.ForearmRotation), turnWords(e.To.ForearmRotation)
	if from != to {
		return "turning"
	}
	return map[string]string{"palms up": "up", "palms half up": "up", "thumbs up": "thumb", "palms half down": "down",
		"palms down": "down"}[from]
}

// turnWords names a turn of the forearm. Supinated and pronated are told as
// palm up and palm down, neutral as thumb up, since "neutral" means several
// things in the field.
func turnWords(phi float64) string {
	switch {
	case phi >= 60:
		return "palms up"
	case phi > 20:
		return "palms half up"
	case phi >= -20:
		return "thumbs up"
	case phi > -60:
		return "palms half down"
	}
	return "palms down"
}

func detailWords(s SetUp, k Key, v Value) string {
	x := v.Number
	switch k {
	case Implement, Hands:
		return "" // in the title
	case Hold:
		return map[string]string{"middle": "hand in the middle", "against_plate": "hand against the plate", "thumb_over": "thumb over",
			"loose": "held loosely"}[v.Word]
	case WristKey:
		return map[string]string{"level": "wrist level", "cupped": "wrist cupped", "tilted_up": "wrist tilted up"}[v.Word]
	case ThickHandle:
		return map[string]string{yes: "thick handle", no: "thin handle"}[v.Word]
	case PositionKey:
		return v.Word
	case GripWidth:
		return fmt.Sprintf("grip %s shoulder breadths", trim(x))
	case PulleyDistance:
		return fmt.Sprintf("%s m from the pulley", trim(x))
	case PulleyHeight:
		if x < 0 {
			return fmt.Sprintf("pulley %s m below the shoulder", trim(-x))
		}
		return fmt.Sprintf("pulley %s m above the shoulder", trim(x))
	case GripOffset:
		side := "little-finger"
		if x < 0 {
			side = "thumb"
		}
		return fmt.Sprintf("weight %s cm to the %s side", trim(math.Abs(x)*100), side)
	case ShoulderTo:
		if s.Movement.Action == Extension {
			return fmt.Sprintf("upper arm ends at %s°", trim(x))
		}
		return fmt.Sprintf("elbow ends %s° forward", trim(x))
	case Rho:
		if x < 0 {
			return fmt.Sprintf("arms turned %s° in", trim(-x))
		}
		return fmt.Sprintf("arms turned %s° out", trim(x))
	case PhiFrom:
		return fmt.Sprintf("hand starts at %s°", trim(x))
	case PhiTo:
		return fmt.Sprintf("hand ends at %s°", trim(x))
	case ElbowFrom:
		return fmt.Sprintf("elbow from %s°", trim(x))
	case ElbowTo:
		return fmt.Sprintf("elbow to %s°", trim(x))
	case Lean:
		if x < 0 {
			return fmt.Sprintf("leaning back %s°", trim(-x))
		}
		return fmt.Sprintf("leaning %s°", trim(x))
	case Tuck:
		return fmt.Sprintf("elbows %s° from the ribs", trim(x))
	case Depth:
		if x < 0 {
			return fmt.Sprintf("stopping %s° above level", trim(-x))
		}
		return fmt.Sprintf("%s° below level", trim(x))
	case PinHeight:
		return fmt.Sprintf("pins %s m above the chest", trim(x))
	case HandHeight:
		return fmt.Sprintf("hands raised %s m", trim(x))
	case FootHeight:
		return fmt.Sprintf("feet raised %s m", trim(x))
	case Bench, PadSlope, Tilt:
		if x < 0 {
			return fmt.Sprintf("bench %s° head down", trim(-x))
		}
		return fmt.Sprintf("%s %s°", strings.ToLower(kinds[k].label), trim(x))
	}
	return string(k) + " " + v.String()
}
