package series

import "math"

// oneRep is by how much the told reserve of neighbours may differ where their difference tells
// the noise.
const oneRep = 1.0

// Of what a told rep in reserve goes with nothing is known but that it is small, as a part; and
// beyond how many times the noise a point weighs less.
const (
	priorStep = 0.015
	huberAt   = 3.0
	rounds    = 6
)

// line is a straight line through the logarithms of a window.
type line struct {
	slope float64 // a week, as a part
	error float64 // of the slope; 0: there is no line
	step  float64 // a told rep in reserve, as a part
	level float64 // on the last day, kg
}

// fit draws the line through a window of at least three points. Points far off weigh less
// (Huber's weights). Where the told reserve differs by a rep or more, a step a rep is found
// together with the line, held near nothing by its prior: by simulation a block whose reserve is
// told wrong at its end misleads half as often so as where only more than a rep counts.
func fit(points []Compared, noise float64) line {
	n := len(points)
	if n < 3 || points[0].On == points[n-1].On {
		return line{}
	}
	low, high, sum, told := math.Inf(1), math.Inf(-1), 0.0, 0
	for i := range points {
		if r := points[i].Reserve; !math.IsNaN(r) {
			low, high, sum, told = min(low, r), max(high, r), sum+r, told+1
		}
	}
	steps := told > 0 && high-low >= oneRep
	mean := sum / float64(max(told, 1))
	x := make([][3]float64, n)
	y := make([]float64, n)
	w := make([]float64, n)
	for i := range points {
		x[i] = [3]float64{1, float64(points[i].On-points[0].On) / 7, 0}
		if r := points[i].Reserve; steps && !math.IsNaN(r) {
			x[i][2] = r - mean
		}
		y[i], w[i] = math.Log(points[i].E1RM), 1
	}
	prior := math.Inf(1)
	if steps {
		prior = noise * noise / (priorStep * priorStep)
	}
	var at [3]float64
	var variance float64
	for range rounds {
		at, variance = solve(x, y, w, prior)
		for i := range y {
			off := math.Abs(y[i] - at[0] - at[1]*x[i][1] - at[2]*x[i][2])
			w[i] = 1
			if off > huberAt*noise {
				w[i] = huberAt * noise / off
			}
		}
	}
	if math.IsInf(variance, 1) {
		return line{}
	}
	return line{slope: at[1], error: noise * math.Sqrt(variance), step: at[2], level: math.Exp(at[0] + at[1]*x[n-1][1])}
}

// solve finds the weighted least squares of a + b·t + c·r, c held near 0 by prior (infinite: it
// is 0), and the variance of b at a noise of 1.
func solve(x [][3]float64, y, w []float64, prior float64) (at [3]float64, variance float64) {
	size := 3
	if math.IsInf(prior, 1) {
		size = 2
	}
	var m [3][4]float64 // the normal equations, and beside them what b alone would be
	var v [3]float64
	for i := range y {
		for a := range size {
			for b := range size {
				m[a][b] += w[i] * x[i][a] * x[i][b]
			}
			v[a] += w[i] * x[i][a] * y[i]
		}
	}
	if size == 3 {
		m[2][2] += prior
	}
	m[1][3] = 1
	for a := range size { // Gauss and Jordan
		p := m[a][a]
		if math.Abs(p) < 1e-12 {
			return at, math.Inf(1)
		}
		for b := range m[a] {
			m[a][b] /= p
		}
		v[a] /= p
		for c := range size {
			if c == a {
				continue
			}
			f := m[c][a]
			for b := range m[c] {
				m[c][b] -= f * m[a][b]
			}
			v[c] -= f * v[a]
		}
	}
	copy(at[:], v[:size])
	return at, m[1][3]
}
