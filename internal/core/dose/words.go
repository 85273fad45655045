package dose

import (
	"fmt"
	"strings"
)

// Words tells a dose in one line, without the load; see DoneWords for arms.
func (d *Dose) Words(arms int) string {
	out := fmt.Sprintf("%s · %s · %s", d.DoneWords(arms), d.reserveWords(), d.RestWords())
	if d.Tempo.Total() > 0 {
		out += " · " + d.TempoWords()
	}
	return out
}

// DoneWords tells sets, reps and method as they are done: "3 × 8–12", "3 × 8–12
// each arm" where arms have their turns, "2 × one-arm ladder …, 15 per arm".
func (d *Dose) DoneWords(arms int) string {
	m, words := MethodOf(d.Method.ID), d.Method.Words()
	if m != nil && m.OwnReps {
		return fmt.Sprintf("%d × %s", d.Sets, words)
	}
	out := d.SetsWords()
	if arms == 2 {
		out += " each arm"
	}
	if words != "" {
		out += ", " + words
	}
	return out
}

// SetsWords tells sets and reps: "3 × 8–12".
func (d *Dose) SetsWords() string {
	if d.RepsLow == d.RepsHigh {
		return fmt.Sprintf("%d × %d", d.Sets, d.RepsLow)
	}
	return fmt.Sprintf("%d × %d–%d", d.Sets, d.RepsLow, d.RepsHigh)
}

func (d *Dose) reserveWords() string {
	switch list, differ := d.reserveList(); {
	case differ:
		return list + " left"
	case d.ReserveOf(0) == 0:
		return "to the limit"
	}
	return fmt.Sprintf("%d left", d.ReserveOf(0))
}

// reserveList lists what is left set by set; false where it is the same for all.
func (d *Dose) reserveList() (string, bool) {
	differ := false
	var list []string
	for i := range d.Each() {
		differ = differ || d.ReserveOf(i) != d.ReserveOf(0)
		list = append(list, fmt.Sprint(d.ReserveOf(i)))
	}
	return strings.Join(list, ", "), differ
}

// EffortWords tells the effort for the client.
func (d *Dose) EffortWords() string {
	if list, differ := d.reserveList(); differ {
		return "set by set, stop with " + list + " reps left"
	}
	switch d.ReserveOf(0) {
	case 0:
		return "until no clean rep is left"
	case 1:
		return "stop with 1 rep left"
	}
	return fmt.Sprintf("stop with %d reps left", d.ReserveOf(0))
}

// RestWords tells the rest after each set.
func (d *Dose) RestWords() string {
	if d.RestS == 0 { // within a combo
		return "no rest"
	}
	if d.RestS >= 120 && d.RestS%60 == 0 {
		return fmt.Sprintf("rest %d min", d.RestS/60)
	}
	return fmt.Sprintf("rest %d s", d.RestS)
}

// TempoWords tells the tempo: seconds down, held, up, held.
func (d *Dose) TempoWords() string {
	if d.Tempo.Total() == 0 {
		return "controlled, no bounce"
	}
	parts := make([]string, len(d.Tempo))
	for i, s := range d.Tempo {
		parts[i] = fmt.Sprintf("%g", s)
	}
	return "tempo " + strings.Join(parts, "-")
}
