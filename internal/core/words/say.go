package words

import (
	"fmt"
	"strings"

	"musculus/internal/core/dose"
)

// Says tells what is understood of a part besides its movement: "3 × 8–12, 25 lb each, to
// the limit, rest 2 min"; "" for nothing.
func (p *Part) Says() string {
	var out []string
	span := func(x [2]int) string {
		if x[0] == x[1] {
			return fmt.Sprint(x[0])
		}
		return fmt.Sprintf("%d–%d", x[0], x[1])
	}
	switch {
	case p.Sets > 0 && p.Reps[0] > 0:
		out = append(out, fmt.Sprintf("%d × %s", p.Sets, span(p.Reps)))
	case p.Sets > 0 && p.Seconds[0] > 0:
		out = append(out, fmt.Sprintf("%d × %s s", p.Sets, span(p.Seconds)))
	case p.Sets > 0:
		out = append(out, fmt.Sprintf("%d sets", p.Sets))
	case p.Reps[0] > 0:
		out = append(out, span(p.Reps)+" reps")
	case p.Seconds[0] > 0:
		out = append(out, span(p.Seconds)+" s")
	}
	if l := p.Load; l != nil {
		as := map[string]string{"each": " each", "whole": " in all"}[l.As]
		unit := map[bool]string{true: " (kg or lb?)"}[l.Unit == ""]
		out = append(out, strings.TrimSpace(fmt.Sprintf("%g %s", l.Value, l.Unit))+unit+as)
	}
	switch r := p.Reserve; {
	case r != nil && *r == 0:
		out = append(out, "to the limit")
	case r != nil:
		out = append(out, fmt.Sprintf("%d left", *r))
	}
	if p.RestS > 0 {
		out = append(out, fmt.Sprintf("rest %d s", p.RestS))
	}
	if p.Tempo != "" {
		out = append(out, "tempo "+p.Tempo)
	}
	if p.Method != "" {
		out = append(out, dose.Use{ID: p.Method}.Words())
	}
	if p.Joined {
		out = append(out, "in turns with its neighbour")
	}
	return strings.Join(out, ", ")
}

// CountsWords says what counts elsewhere or not at all, "" for what is a movement.
func CountsWords(counts string) string {
	return map[string]string{CountsPress: "counts as pressing elsewhere", CountsPull: "counts as pulling elsewhere",
		CountsNothing: "not arm work"}[counts]
}
