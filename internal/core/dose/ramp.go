package dose

import (
	"fmt"
	"strings"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// RampSet is one set on the way to the first working load.
type RampSet struct {
	Part float64 // of the working load
	Reps int
}

// fullRamp goes before heavy and several-joint work; light one-joint work takes
// its first step only.
var fullRamp = []RampSet{{0.5, 8}, {0.7, 4}, {0.85, 2}}

// lightFrom is the fewest reps of a band that is not heavy.
const lightFrom = 8

// rampRestS is the pause after a ramp set, in which the load is changed, s.
const rampRestS = 30.0

// Ramp lists the sets that lead to a slot's working load; none where the body
// itself is the load.
func Ramp(s movement.SetUp, d *Dose) []RampSet { return rampOf(s.Movement, person.CarryOf(s), d) }

func rampOf(m *movement.Movement, carry person.Carry, d *Dose) []RampSet {
	switch {
	case carry == person.BodyWeight:
		return nil
	case m.Computed() && d.RepsLow >= lightFrom:
		return fullRamp[:1]
	}
	return fullRamp
}

// RampSeconds is how long the ramp of a set-up that is carried so takes, pauses
// included; 0 without one.
func RampSeconds(s movement.SetUp, carry person.Carry, d *Dose) float64 {
	out := 0.0
	for _, r := range rampOf(s.Movement, carry, d) {
		out += float64(r.Reps)*d.repS()*float64(s.ArmsInTurn()) + rampRestS
	}
	return out
}

// RampWords tells the ramp to what one hand carries with the loads the rack really
// has: "bar 20 kg × 8, bar 30 kg × 4". Where hand is nil, not known or to be kept
// from the client, parts of the working load stand for it.
func RampWords(s movement.SetUp, d *Dose, rack Rack, hand *float64) string {
	var out []string
	for _, r := range Ramp(s, d) {
		what := fmt.Sprintf("%.0f %%", 100*r.Part)
		if hand != nil {
			what = "without weight"
			if step, ok := person.RoundDown(rack.Steps, rack.part(rack.Carry.Whole(*hand, rack.Rigging), r.Part)); ok {
				what = rack.Words(step)
			}
		}
		out = append(out, fmt.Sprintf("%s × %d", what, r.Reps))
	}
	words := strings.Join(out, ", ")
	if words != "" && hand == nil {
		words += " of the load that follows"
	}
	return words
}
