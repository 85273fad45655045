package dose

import (
	"fmt"
	"strings"
)

// DoneWords tells sets, reps and method as they are done: "3 × 8–12", "3 × 8–12
// each arm" where arms have their turns, "2 × one-arm ladder …, 15 per arm".
func (d *Dose) DoneWords(arms int) (out string) {
	m, words := MethodOf(d.Method.ID), d.Method.Words()
	if d.Word != "" {
		defer func() { out += " “" + d.Word + "”" }()
	}
	if m != nil && m.OwnReps {
		return fmt.Sprintf("%d × %s", d.Sets, words)
	}
	out = d.SetsWords()
	if arms == 2 {
		out += " each arm"
	}
	if words != "" {
		out += ", " + words
	}
	return out
}

// SetsWords tells sets and reps, or how long they are held: "3 × 8–12", "3 × 20–30 s".
func (d *Dose) SetsWords() string {
	if d.IsHold() && d.SecondsLow == d.SecondsHigh {
		return fmt.Sprintf("%d × %d s held", d.Sets, d.SecondsLow)
	} else if d.IsHold() {
		return fmt.Sprintf("%d × %d–%d s held", d.Sets, d.SecondsLow, d.SecondsHigh)
	}
	if d.RepsLow == d.RepsHigh {
		return fmt.Sprintf("%d × %d", d.Sets, d.RepsLow)
	}
	return fmt.Sprintf("%d × %d–%d", d.Sets, d.RepsLow, d.RepsHigh)
}

// EffortWords tells the effort for the client.
func (d *Dose) EffortWords() string {
	switch d.Reserve {
	case 0:
		return "until no clean rep is left"
	case 1:
		return "stop with 1 rep left"
	}
	return fmt.Sprintf("stop with %d reps left", d.Reserve)
}

// RestWords tells a rest in seconds.
func RestWords(s int) string {
	if s == 0 { // within a combo
		return "no rest"
	}
	if s >= 120 && s%60 == 0 {
		return fmt.Sprintf("rest %d min", s/60)
	}
	return fmt.Sprintf("rest %d s", s)
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
