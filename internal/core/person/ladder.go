package person

import (
	"fmt"

	"musculus/internal/core/movement"
)

// Says tells what the mobility checks and the dip ladder lead to, in sentences.
func (m *Mobility) Says() []string {
	var out []string
	if m.OneWeight == "" && m.TwoWeights == "" {
		out = append(
			out,
			"Overhead not checked yet: can the elbows stay forward with one weight in two hands, and, apart from that, with two weights?",
		)
	}
	for _, check := range []struct{ answer, with, no string }{
		{m.OneWeight, "one weight in two hands", "a cable or one arm leaves the elbows free, tilted lying extensions keep the length"},
		{m.TwoWeights, "two weights", "a cable or one arm asks for less control, tilted lying extensions keep the length"},
	} {
		switch {
		case check.answer == "yes":
			out = append(out, "Overhead with "+check.with+": as the plan asks for it.")
		case check.answer == "no":
			out = append(out, "Elbows drift overhead with "+check.with+": not that; "+check.no+".")
		case m.OneWeight != "" || m.TwoWeights != "":
			out = append(out, "Overhead with "+check.with+" is not checked yet; the other check does not speak for it.")
		}
	}
	switch m.DipLevel {
	case "":
		out = append(out, "Dip ladder not tried yet: it begins with assisted dips or close push-ups.")
	case "assisted":
		out = append(
			out,
			fmt.Sprintf(
				"Dips: assisted, or close push-ups. The bars from %d reps to a level upper arm without pain, swing or dropping (%d now).",
				cleanDips,
				m.CleanDips,
			),
		)
	case "bars":
		out = append(out, fmt.Sprintf("Dips: on the bars. Load from %d clean reps on (%d now).", loadedFrom, m.CleanDips))
	case "loaded":
		out = append(
			out,
			fmt.Sprintf(
				"Dips: loaded, once %d clean reps are recorded (%d now). A sore shoulder presses instead, a sore wrist dips "+
					"instead; bench dips stay optional.",
				loadedFrom,
				m.CleanDips,
			),
		)
	}
	if m.CleanPulls > 0 {
		out = append(
			out,
			fmt.Sprintf("Pull-ups: load from %d clean reps on (%d now); clean dips do not speak for them.", loadedFrom, m.CleanPulls),
		)
	}
	return out
}

// loadedFrom is how many clean reps without load come before any load is added.
const loadedFrom = 10

// onLadder says whether load added to a set-up is earned by clean reps without it,
// and how many of those are recorded. Dips and pull-ups never speak for each other.
func (m *Mobility) onLadder(s movement.SetUp) (clean int, what string, ok bool) {
	switch {
	case s.Movement.Action == movement.Dip:
		return m.CleanDips, "dips", true
	case s.Movement.Action == movement.Pull && CarryOf(s) == BodyWeight:
		return m.CleanPulls, "pull-ups", true
	}
	return 0, "", false
}

// byLadder rules on load added to a dip or pull-up.
func (v *Verdict) byLadder(s movement.SetUp, m Mobility) {
	clean, what, ok := m.onLadder(s)
	switch {
	case !ok || clean >= loadedFrom:
	case clean > 0 || s.Movement.Action == movement.Dip && m.DipLevel == "assisted":
		v.add(Avoid, fmt.Sprintf("No load on %s before %d clean reps without it (%d recorded).", what, loadedFrom, clean))
	default:
		v.add(
			Modify,
			fmt.Sprintf(
				"No clean %s are recorded: check first whether %d clean reps without load are there, and record them under Joints.",
				what,
				loadedFrom,
			),
		)
	}
}

// LeastAdded is over what something counts as load added to the body, kg.
const LeastAdded = 0.05

// JudgeAdded rules on what is added to the body in a dip or pull-up, kg, by the
// load and not by the movement's name; allowed without any.
func (f *Fence) JudgeAdded(s movement.SetUp, addedKg float64) Verdict {
	v := Verdict{Ruling: Allowed}
	if f == nil || !(addedKg > LeastAdded) || s.Movement.Added { // what its name says is judged with the set-up
		return v
	}
	v.byLadder(s, f.Mobility)
	v.Overridden = f.Overrides[s.Movement.ID]
	return v
}
