package movement

import (
	"fmt"
	"math"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
)

// Tell says in sentences what a profile does, the most useful first.
func Tell(p *effort.Profile) []string {
	var out []string
	for _, zone := range []struct {
		zone arm.Zone
		says string
	}{{arm.Long, "At long length"}, {arm.Short, "At short length"}} {
		var names []string
		for h := range p.Heads {
			if p.Heads[h].Agonist && p.Heads[h].Zone == zone.zone && p.Heads[h].Share > 0 {
				names = append(names, arm.Heads[h].Name)
			}
		}
		if len(names) > 0 {
			out = append(out, zone.says+": "+strings.Join(names, "; ")+".")
		}
	}
	from, to := p.Elbow[0], p.Elbow[effort.Samples-1]
	third := "in the stretched third"
	switch t := (p.HardestAt() - from) / (to - from); {
	case t > 2.0/3:
		third = "in the shortened third"
	case t > 1.0/3:
		third = "in the middle of the range"
	}
	out = append(out, fmt.Sprintf("Hardest at %.0f°, %s.", p.HardestAt(), third))
	for _, idle := range p.Idle {
		end := "in the middle"
		if idle[0] == from {
			end = "at the start"
		} else if idle[1] == to {
			end = "at the end"
		}
		out = append(out, fmt.Sprintf("Hardly anything is loaded %s, from %.0f° to %.0f°: %.0f %% of the range.",
			end, idle[0], idle[1], 100*math.Abs(idle[1]-idle[0])/math.Abs(to-from)))
	}
	if p.PullsBack {
		out = append(out, "Somewhere in the range the load pulls the other way.")
	}
	return out
}

// RangeWords tells the range of the elbow for the client; "" for graded
// movements, whose depth is in their name.
func (s SetUp) RangeWords() string {
	if !s.Movement.Computed() {
		return ""
	}
	e := s.Effort()
	return fmt.Sprintf("elbow %.0f°\u00a0→\u00a0%.0f°", e.From.ElbowFlexion, e.To.ElbowFlexion)
}

// EndsWords tells where a repetition starts and ends, as a client would say it: "from a
// straight elbow to a fully bent one"; "" for graded movements.
func (s SetUp) EndsWords() string {
	if !s.Movement.Computed() {
		return ""
	}
	e := s.Effort()
	return fmt.Sprintf("from %s elbow to %s one", bentWords(e.From.ElbowFlexion), bentWords(e.To.ElbowFlexion))
}

func bentWords(e float64) string {
	switch {
	case e <= 8:
		return "a straight"
	case e <= 30:
		return "a nearly straight"
	case e <= 70:
		return "a half bent"
	case e <= 105:
		return "a square"
	case e <= 125:
		return "a well bent"
	}
	return "a fully bent"
}

// LoadWords tells the working load against the plain movement of its side.
func LoadWords(p *effort.Profile) string {
	plain := "plain push-down"
	if p.Flexion {
		plain = "plain curl"
	}
	switch percent := 100 * (p.Ratio - 1); {
	case percent > -1.5 && percent < 1.5:
		return "Takes about the load of a " + plain + ", for the same effort"
	case percent < 0:
		return fmt.Sprintf("Takes %.0f\u00a0%% less load than a %s, for the same effort", -percent, plain)
	default:
		return fmt.Sprintf("Takes %.0f\u00a0%% more load than a %s, for the same effort", percent, plain)
	}
}

// Caveat says what the computation cannot tell of a movement.
func (m *Movement) Caveat() string {
	switch {
	case !m.Computed():
		return "Several joints share this work: credits are a graded table with a range, not a computation."
	case m.Action == Extension:
		return "Lateral and medial head have the same leverage here; mechanics cannot tell them apart. Forces are an average adult’s."
	}
	return "Both biceps heads cross the shoulder, so the arm’s place changes both. Forces are an average adult’s."
}

// ChoiceWords tells a word setting's value as people say it.
func ChoiceWords(k Key, word string) string {
	if k == Implement {
		return map[string]string{"bar_straight": "straight bar", "bar_cambered": "cambered bar", "bar_v": "V-shaped bar",
			"dumbbell": "dumbbells", "shared": "one in two hands", "handle": "handle", "rope": "rope", "lever": "one-sided weight",
			"dip_machine": "machine", "band": "band"}[word]
	}
	return map[string]string{
		BothArms: "both arms", Alternate: "in turn", OneArm: "one arm", "middle": "middle of the handle, firm",
		"against_plate": "against the plate",
		"thumb_over":    "thumb over", "loose": "loose", "level": "level", "cupped": "cupped", "tilted_up": "tilted up", yes: "yes", no: "no",
		"overhand": "overhand", "neutral": "thumbs facing", "underhand": "underhand",
		"seated": "seated", "standing": "standing", "kneeling": "kneeling", "bench": "on a bench", "floor": "on the floor",
	}[word]
}

// ValueWords tells a setting's value with its unit, or as a word.
func (s *Setting) ValueWords(v Value) string {
	if s.isWord {
		return ChoiceWords(s.Key, v.Word)
	}
	switch s.Unit {
	case degrees:
		return trim(v.Number) + degrees
	case "":
		return trim(v.Number)
	}
	if s.Key == GripOffset {
		return trim(v.Number*100) + " cm"
	}
	return trim(v.Number) + " " + s.Unit
}
