package figure

import (
	"fmt"
	"math"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
)

// Trace is one quantity over a range in a unit box, with its scale.
type Trace struct {
	Path  Path      `json:"path"`
	Low   float64   `json:"low"`  // at the bottom of the box
	High  float64   `json:"high"` // at its top
	Reads []float64 `json:"reads"`
	Text  string    `json:"text"`
}

// HeadTrace is a head's length and leverage over a range.
type HeadTrace struct {
	Elbow    []float64 `json:"elbow"`    // degrees, at each sample
	Length   Trace     `json:"length"`   // fibre length over optimal length
	Leverage Trace     `json:"leverage"` // elbow moment arm, cm, without its sign
}

// MakeHeadTrace draws a head's length and elbow leverage over a set-up's range.
func MakeHeadTrace(e effort.Setup, h arm.HeadIndex) HeadTrace {
	var out HeadTrace
	var lengths, levers []float64
	head := &arm.Heads[h]
	for i := range effort.Samples {
		p := e.From.Between(e.To, float64(i)/(effort.Samples-1))
		out.Elbow = append(out.Elbow, math.Round(p.ElbowFlexion))
		lengths = append(lengths, head.Length(p))
		levers = append(levers, math.Abs(head.MomentArms(p)[arm.Elbow]))
	}
	out.Length = trace(lengths, 0.1, fmt.Sprintf("Length of %s", head.Name), "of its best")
	out.Leverage = trace(levers, 0.5, fmt.Sprintf("Leverage of %s at the elbow", head.Name), "cm")
	return out
}

// trace draws values evenly along the box, its scale rounded outward to steps.
func trace(values []float64, step float64, what, unit string) Trace {
	lo, hi := math.Inf(1), math.Inf(-1)
	for _, v := range values {
		lo, hi = min(lo, v), max(hi, v)
	}
	out := Trace{Low: math.Floor(lo/step) * step, High: math.Ceil(hi/step) * step,
		Text: fmt.Sprintf("%s goes from %.2f to %.2f %s, between %.2f and %.2f", what, values[0], values[len(values)-1], unit, lo, hi)}
	if out.High-out.Low < step {
		out.High = out.Low + step
	}
	points := make([]Point, len(values))
	for i, v := range values {
		points[i] = Point{float64(i) / float64(len(values)-1), 1 - (v-out.Low)/(out.High-out.Low)}
		out.Reads = append(out.Reads, round(v))
	}
	out.Low, out.High = round(out.Low), round(out.High)
	out.Path = polyline(points, false)
	return out
}
