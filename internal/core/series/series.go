// Package series reads the log of one set-up: what a set says about the load a
// client could lift once, and which load follows for other reps. Only like is
// compared with like; which sets belong to a series is decided by the set-up's
// key, in package movement.
package series

import (
	"fmt"
	"math"
	"slices"
)

// MostReps is how many reps, reserve included, a one-repetition maximum is
// estimated from; beyond, the estimate is worthless and progress is reps.
const MostReps = 12

// factor is the load for one rep over that for n reps to the limit:
// the mean of Epley (1985), 1 + n/30, and Brzycki (1993), 36/(37 − n).
// n is in 1…MostReps.
func factor(n float64) float64 { return ((1 + n/30) + 36/(37-n)) / 2 }

// E1RM estimates the one-repetition maximum from a set of reps at a load with
// some reps in reserve, in the load's unit. It is false where reps + reserve
// are not 1…12 or the load is not positive.
func E1RM(load float64, reps, reserve int) (float64, bool) {
	n := reps + reserve
	if reps < 1 || reserve < 0 || n > MostReps || !(load > 0) || math.IsInf(load, 1) {
		return 0, false
	}
	return load * factor(float64(n)), true
}

// E1RMWords tells how a set's estimate comes from its load: "× 1.28 for 9 reps to the limit (7
// done, 2 left), the mean of two published formulas"; "" where there is none.
func E1RMWords(reps, reserve int) string {
	if _, ok := E1RM(1, reps, reserve); !ok {
		return ""
	}
	n := reps + reserve
	if n == 1 {
		return "lifted once, to the limit: that is the estimate"
	}
	return fmt.Sprintf("× %.2f for %d reps to the limit (%d done, %d left), the mean of two published formulas",
		factor(float64(n)), n, reps, reserve)
}

// LoadFor is the load for reps with reserve at a one-repetition maximum; false
// as in E1RM.
func LoadFor(e1rm float64, reps, reserve int) (float64, bool) {
	n := reps + reserve
	if reps < 1 || reserve < 0 || n > MostReps || !(e1rm > 0) || math.IsInf(e1rm, 1) {
		return 0, false
	}
	return e1rm / factor(float64(n)), true
}

// Median of the values; 0 for none. The slice is not changed.
func Median(values []float64) float64 {
	if len(values) == 0 {
		return 0
	}
	v := slices.Clone(values)
	slices.Sort(v)
	if mid := len(v) / 2; len(v)%2 == 1 {
		return v[mid]
	} else {
		return (v[mid-1] + v[mid]) / 2
	}
}
