package arm

import "math"

// perOctave is into how many steps an octave is cut for exp.
const perOctave = 32

// powers are 2^(i/32).
var powers = func() (out [perOctave]float64) {
	for i := range out {
		out[i] = math.Exp2(float64(i) / perOctave)
	}
	return out
}()

// ln 2 / 32 in two parts, the first with few enough digits that a whole multiple of it is
// exact.
const (
	stepHigh = 0x1.62e42fep-06
	stepLow  = math.Ln2/perOctave - stepHigh
)

// exp is e to the x for x from −700 to 700, to within two units in the last place: a table of
// 32 steps an octave and a polynomial between (after Tang 1989, "Table-driven implementation
// of the exponential function"). A profile asks for some hundred of them, at a third of its
// time with the library's.
func exp(x float64) float64 {
	n := math.Floor(x*(perOctave/math.Ln2) + 0.5)
	r := (x - n*stepHigh) - n*stepLow
	k := int(n)
	p := r * r * (1.0/2 + r*(1.0/6+r*(1.0/24+r*(1.0/120+r*(1.0/720)))))
	t := powers[k&(perOctave-1)]
	return math.Float64frombits(math.Float64bits(t+t*(r+p)) + uint64(k>>5)<<52)
}
