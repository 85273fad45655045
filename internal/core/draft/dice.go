package draft

import "math/bits"

// dice draws numbers from a seed alone, so that what is drawn is the same on every machine:
// splitmix64 (Steele, Lea and Flood 2014, "Fast splittable pseudorandom number generators").
type dice uint64

// newDice draws from a seed and a number beside it.
func newDice(seed, beside uint64) *dice {
	d := dice(seed)
	d = dice(d.next() ^ beside)
	return &d
}

func (d *dice) next() uint64 {
	*d += 0x9e3779b97f4a7c15
	z := uint64(*d)
	z = (z ^ z>>30) * 0xbf58476d1ce4e5b9
	z = (z ^ z>>27) * 0x94d049bb133111eb
	return z ^ z>>31
}

// IntN draws from 0 to n−1.
func (d *dice) IntN(n int) int {
	high, _ := bits.Mul64(d.next(), uint64(n))
	return int(high)
}

// Float64 draws from 0 to under 1.
func (d *dice) Float64() float64 { return float64(d.next()>>11) / (1 << 53) }
