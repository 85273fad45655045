package person

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
)

// Limits of typed load steps.
const (
	mostSteps  = 400
	mostStepKg = 500.0
)

// ParseSteps reads load steps as people write them: "2–20 by 2, 25, 30". Commas,
// semicolons or lines part them; a decimal comma inside a number is read where a
// space follows the parting comma. Ascending, without repeats, kg.
func ParseSteps(text string) ([]float64, error) {
	return parseList(text, kind{"kg", "load", 0.01, mostStepKg, "2–20 by 2, 25, 30"})
}

// ParseAngles reads notches or slopes the same way, degrees: "0–60 by 15, 85".
func ParseAngles(text string) ([]float64, error) {
	return parseList(text, kind{"°", "angle", 0, 90, "0–60 by 15, 85"})
}

// kind is what a list is of.
type kind struct {
	unit, what  string
	least, most float64
	like        string
}

func parseList(text string, k kind) ([]float64, error) {
	var out []float64
	for _, part := range splitSteps(text) {
		part = strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(part), k.unit))
		if part == "" {
			continue
		}
		steps, err := k.part(part)
		if err != nil {
			return nil, err
		}
		if out = append(out, steps...); len(out) > mostSteps {
			return nil, fmt.Errorf("more than %d steps", mostSteps)
		}
	}
	slices.Sort(out)
	return slices.Compact(out), nil
}

// splitSteps parts at "; ", lines, and commas that no digit follows or that stand
// between whole entries.
func splitSteps(text string) []string {
	text = strings.NewReplacer(";", "\n", ", ", "\n", ",\t", "\n").Replace(text)
	var out []string
	for _, line := range strings.Split(text, "\n") {
		// What is left of commas is a decimal comma, or "2,4,6" without spaces.
		if strings.Count(line, ",") > 1 || strings.Contains(line, ",") && strings.Contains(line, ".") {
			out = append(out, strings.Split(line, ",")...)
			continue
		}
		out = append(out, strings.ReplaceAll(line, ",", "."))
	}
	return out
}

func (k kind) part(part string) ([]float64, error) {
	number := func(s string) (float64, error) {
		s = strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(s), k.unit))
		x, err := strconv.ParseFloat(s, 64)
		if err != nil || math.IsNaN(x) || math.IsInf(x, 0) {
			return 0, fmt.Errorf("%q is no %s; write it like “%s”", s, k.what, k.like)
		}
		if x < k.least || x > k.most {
			return 0, fmt.Errorf("%s %s is outside 0…%g %s", s, k.unit, k.most, k.unit)
		}
		return math.Round(x*1000) / 1000, nil
	}
	span, by, ranged := cutAny(part, " by ", " step ", " in ")
	from, to, isRange := cutAny(span, "–", "—", "…", "-", " to ")
	if !isRange {
		if ranged {
			return nil, fmt.Errorf("%q has steps but no range; write it like “2–20 by 2”", part)
		}
		x, err := number(part)
		return []float64{x}, err
	}
	a, err := number(from)
	if err != nil {
		return nil, err
	}
	b, err := number(to)
	if err != nil {
		return nil, err
	}
	if !ranged {
		return nil, fmt.Errorf("%q says from where to where but not in which steps; write it like “%s by 2”", part, part)
	}
	step, err := number(by)
	if err != nil {
		return nil, err
	}
	if b < a {
		return nil, fmt.Errorf("%q runs backwards", part)
	}
	if (b-a)/step > mostSteps {
		return nil, fmt.Errorf("%q is more than %d steps", part, mostSteps)
	}
	var out []float64
	for i := 0; a+float64(i)*step <= b+1e-9; i++ {
		out = append(out, math.Round((a+float64(i)*step)*1000)/1000)
	}
	return out, nil
}

func cutAny(s string, seps ...string) (before, after string, found bool) {
	for _, sep := range seps {
		if b, a, ok := strings.Cut(s, sep); ok {
			return b, a, true
		}
	}
	return s, "", false
}

// StepWords writes steps the way they are typed: runs of at least three equal
// steps as a range.
func StepWords(steps []float64) string {
	var parts []string
	num := func(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }
	for i := 0; i < len(steps); {
		j := i + 1
		for j+1 < len(steps) && math.Abs((steps[j+1]-steps[j])-(steps[j]-steps[j-1])) < 1e-6 {
			j++
		}
		if j < len(steps) && j-i >= 2 {
			parts = append(parts, fmt.Sprintf("%s–%s by %s", num(steps[i]), num(steps[j]), num(math.Round((steps[i+1]-steps[i])*1000)/1000)))
			i = j + 1
			continue
		}
		parts = append(parts, num(steps[i]))
		i++
	}
	return strings.Join(parts, ", ")
}

// Gaps lists the places where a step is half again as wide as is usual in the
// list, and more than a tenth over the load below.
func Gaps(steps []float64) [][2]float64 {
	var out [][2]float64
	var wide []float64
	for i := 1; i < len(steps); i++ {
		wide = append(wide, steps[i]-steps[i-1])
	}
	slices.Sort(wide)
	for i := 1; i < len(steps); i++ {
		if step := steps[i] - steps[i-1]; step > 1.5*wide[len(wide)/2] && step > 0.1*steps[i-1] {
			out = append(out, [2]float64{steps[i-1], steps[i]})
		}
	}
	return out
}
