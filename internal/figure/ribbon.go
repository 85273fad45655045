package figure

import (
	"fmt"
	"math"
	"strings"

	"musculus/internal/core/effort"
)

// Ribbon is the range of a movement from stretched to shortened in a unit box:
// its thickness is demand over capacity.
type Ribbon struct {
	Solid  []Path  `json:"solid"`  // filled stretches
	Hollow []Path  `json:"hollow"` // idle stretches, outlined only
	Tick   float64 `json:"tick"`   // x where it is hardest
	Marks  []Mark  `json:"marks"`  // elbow angles along the axis
	Reads  []Read  `json:"reads"`  // a reading at each sample, for pointing at
	Text   string  `json:"text"`
}

// Mark is an angle on the ribbon's axis.
type Mark struct {
	X     float64 `json:"x"`
	Elbow float64 `json:"elbow"` // degrees
}

// Read is one sample.
type Read struct {
	X      float64 `json:"x"`
	Elbow  float64 `json:"elbow"`  // degrees
	Demand float64 `json:"demand"` // over capacity
}

// thickest is the ribbon's thickness at the working effort, box heights;
// thinnest keeps an empty stretch visible.
const (
	thickest = 0.92
	thinnest = 0.05
)

// MakeRibbon draws a profile's demand curve.
func MakeRibbon(p *effort.Profile) Ribbon {
	out := Ribbon{Solid: []Path{}, Hollow: []Path{}, Text: RibbonText(p)}
	from, to := p.Elbow[0], p.Elbow[effort.Samples-1]
	x := func(elbow float64) float64 { return (elbow - from) / (to - from) }
	half := func(demand float64) float64 {
		return max(thinnest, thickest*demand/effort.WorkingEffort) / 2
	}
	// Cut the range at the ends of the idle stretches.
	cuts := []float64{0}
	hollow := []bool{false}
	for _, idle := range p.Idle {
		a, b := x(idle[0]), x(idle[1])
		if a <= cuts[len(cuts)-1]+1e-9 {
			hollow[len(hollow)-1] = true
		} else {
			cuts, hollow = append(cuts, a), append(hollow, true)
		}
		if b < 1-1e-9 {
			cuts, hollow = append(cuts, b), append(hollow, false)
		}
	}
	cuts = append(cuts, 1)
	demandAt := func(t float64) float64 {
		at := t * (effort.Samples - 1)
		i := min(int(at), effort.Samples-2)
		return p.Curve[i] + (at-float64(i))*(p.Curve[i+1]-p.Curve[i])
	}
	for k := range hollow {
		path := ribbonPiece(cuts[k], cuts[k+1], demandAt, half)
		if hollow[k] {
			out.Hollow = append(out.Hollow, path)
		} else {
			out.Solid = append(out.Solid, path)
		}
	}
	out.Tick = round(x(p.HardestAt()))
	for i := range 5 {
		t := float64(i) / 4
		out.Marks = append(out.Marks, Mark{t, math.Round(from + (to-from)*t)})
	}
	for i := range p.Curve {
		out.Reads = append(out.Reads, Read{round(x(p.Elbow[i])), math.Round(p.Elbow[i]), math.Round(p.Curve[i]*100) / 100})
	}
	return out
}

func ribbonPiece(from, to float64, demand, half func(float64) float64) Path {
	const steps = 40
	inside := []float64{from}
	for i := range steps + 1 {
		if t := float64(i) / steps; t > from+1e-6 && t < to-1e-6 {
			inside = append(inside, t)
		}
	}
	inside = append(inside, to)
	var points []Point
	for _, t := range inside {
		points = append(points, Point{t, 0.5 - half(demand(t))})
	}
	for i := len(inside) - 1; i >= 0; i-- {
		t := inside[i]
		points = append(points, Point{t, 0.5 + half(demand(t))})
	}
	return polyline(points, true)
}

// RibbonText tells the ribbon in words.
func RibbonText(p *effort.Profile) string {
	text := fmt.Sprintf("From %.0f° to %.0f° of elbow bend, hardest at %.0f°", p.Elbow[0], p.Elbow[effort.Samples-1], p.HardestAt())
	if len(p.Idle) == 0 {
		return text + ", nothing idle"
	}
	parts := make([]string, len(p.Idle))
	for i, s := range p.Idle {
		parts[i] = fmt.Sprintf("%.0f° to %.0f°", s[0], s[1])
	}
	return text + ", idle from " + strings.Join(parts, " and ")
}
