package person

import "fmt"

// Says tells what the mobility checks and the dip ladder lead to, in sentences.
func (m *Mobility) Says() []string {
	var out []string
	switch {
	case m.OneWeight == "" && m.TwoWeights == "":
		out = append(out, "Overhead not checked yet: can the elbows stay forward with one weight in two hands, with two weights?")
	case m.OneWeight == "no":
		out = append(out, "Elbows drift even with one weight: no overhead extension with a free weight; tilted lying extensions keep the length.")
	case m.TwoWeights == "no":
		out = append(out, "Overhead with one weight in two hands or a cable, not with two weights yet.")
	case m.OneWeight == "yes" && m.TwoWeights == "yes":
		out = append(out, "Overhead work as the plan asks for it.")
	}
	switch m.DipLevel {
	case "":
		out = append(out, "Dip ladder not tried yet: it begins with assisted dips or close push-ups.")
	case "assisted":
		out = append(out, fmt.Sprintf("Dips: assisted, or close push-ups. The bars from %d reps to a level upper arm without pain, swing or dropping (%d now).", cleanDips, m.CleanDips))
	case "bars":
		out = append(out, fmt.Sprintf("Dips: on the bars. Load from %d clean reps on (%d now).", loadedDips, m.CleanDips))
	case "loaded":
		out = append(out, "Dips: loaded. A sore shoulder presses instead, a sore wrist dips instead; bench dips stay optional.")
	}
	return out
}
