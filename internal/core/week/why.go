package week

import (
	"fmt"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
)

// Why tells a client in plain words what a session is for: what gets most, then
// what each slot adds.
func Why(s *plan.Session, c *Totals) []string {
	if len(s.Slots) == 0 {
		return nil
	}
	var out []string
	if most := leaders(&c.Heads, 0.85); len(most) > 0 {
		out = append(out, "Today is mostly for "+movement.Join(most)+".")
	}
	for i := range s.Slots {
		k := &c.Slots[i]
		lead := leaders(&k.Heads, 0.95)
		if len(lead) == 0 {
			continue
		}
		line := fmt.Sprintf("%s works most on %s", names(s.Slots[i].SetUp), movement.Join(lead))
		if p := k.Profile; p != nil {
			switch third := (p.HardestAt() - p.Elbow[0]) / (p.Elbow[len(p.Elbow)-1] - p.Elbow[0]); {
			case third < 1.0/3:
				line += ", and is hardest at the beginning of each rep"
			case third > 2.0/3:
				line += ", and is hardest at the end of each rep"
			default:
				line += ", and is hardest in the middle of each rep"
			}
		}
		out = append(out, line+".")
	}
	return out
}

// leaders names the heads that get nearly as much as the one that gets most.
func leaders(heads *[arm.HeadCount]Effective, near float64) []string {
	most := 0.0
	for _, e := range heads {
		most = max(most, e.Mid)
	}
	var out []string
	for h, e := range heads {
		if e.Mid > 0 && e.Mid >= near*most && len(out) < 3 {
			out = append(out, movement.PlainNames[h])
		}
	}
	return out
}
