package movement

import (
	"fmt"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
)

// Explain tells a client on one page why a set-up is as it is: in plain words,
// from the same numbers.
func (s SetUp) Explain(p *effort.Profile) []string {
	if p == nil {
		return []string{
			"This movement uses several joints at once. How much of it each part of your arm does is known from studies and " +
				"practice only roughly, so your coach counts it with a range.",
			"It brings load and strength; the parts it leaves out are trained on their own.",
		}
	}
	plain := "a plain push-down"
	side := "the back of your upper arm"
	if p.Flexion {
		plain, side = "a plain curl", "the front of your upper arm"
	}
	var more, less []string
	for h := range p.Heads {
		if !p.Heads[h].Agonist {
			continue
		}
		switch b := p.Heads[h].Bias(); {
		case b > 1.05:
			more = append(more, PlainNames[h])
		case b < 0.95:
			less = append(less, PlainNames[h])
		}
	}
	first := fmt.Sprintf("This works %s.", side)
	if len(more) > 0 {
		first += fmt.Sprintf(" Compared with %s it gives more to %s.", plain, Join(more))
	}
	if len(less) > 0 {
		first += fmt.Sprintf(" It gives less to %s.", Join(less))
	}
	if len(more)+len(less) == 0 {
		first += fmt.Sprintf(" Every part gets about what %s gives it.", plain)
	}
	out := []string{first}
	var long []string
	for h := range p.Heads {
		if p.Heads[h].Agonist && p.Heads[h].Zone == arm.Long {
			long = append(long, PlainNames[h])
		}
	}
	if len(long) > 0 {
		out = append(
			out,
			fmt.Sprintf("While you lift, %s works while it is long. Muscles seem to grow at least as well from that.", Join(long)),
		)
	}
	if p.Flexion {
		out = append(
			out,
			"Both parts of your biceps begin above the shoulder joint. Taking the elbow behind you lengthens both, bringing it "+
				"forward shortens both; neither can be switched off.",
			"Turning the palm up brings the biceps in; thumbs up or palms down moves work to the two muscles beside and beneath "+
				"it, which only bend the elbow.",
		)
	} else {
		out = append(out,
			"Only the long part of the triceps begins above the shoulder joint. With the arm overhead it is long, behind the "+
				"body it is short; the other two parts do not notice.",
			"How you hold the bar does not choose a part of the triceps: all three end on a bone that does not turn. Hold it as "+
				"your wrists like it.")
	}
	return append(out, fmt.Sprintf("It is hardest with the elbow bent about %.0f°. %s", p.HardestAt(), idleWords(p)))
}

func idleWords(p *effort.Profile) string {
	if len(p.Idle) == 0 {
		return "It pulls all the way, so use the whole range."
	}
	s := p.Idle[len(p.Idle)-1]
	return fmt.Sprintf("Between %.0f° and %.0f° hardly anything pulls: nothing is lost if you turn round there.", s[0], s[1])
}

// PlainNames are the heads as a client would be told.
var PlainNames = [arm.HeadCount]string{
	"the long (outer) part of the biceps", "the short (inner) part of the biceps", "the muscle beneath the biceps",
	"the muscle on the thumb side of the forearm",
	"the long part of the triceps", "the outer part of the triceps", "the deep part of the triceps",
}

// Join writes a list as people do: a, b and c.
func Join(list []string) string {
	if len(list) < 2 {
		return strings.Join(list, "")
	}
	return strings.Join(list[:len(list)-1], ", ") + " and " + list[len(list)-1]
}

// Either writes a choice as people do: a, b or c.
func Either(list []string) string {
	if len(list) < 2 {
		return strings.Join(list, "")
	}
	return strings.Join(list[:len(list)-1], ", ") + " or " + list[len(list)-1]
}
