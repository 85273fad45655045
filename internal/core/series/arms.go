package series

import (
	"math"
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/entry"
)

// ArmsApart is how far the right arm is ahead of the left in a set-up done arm by arm.
type ArmsApart struct {
	Reps  float64 `json:"reps"`  // right less left, at the same load
	Error float64 `json:"error"` // of that
	Pairs int     `json:"pairs"` // of sets
	Days  int     `json:"days"`  // from the first to the last of them
}

// Beyond says whether an arm is ahead beyond what sets scatter.
func (a *ArmsApart) Beyond() bool { return a.Pairs >= leastPairs && math.Abs(a.Reps) > 2*a.Error }

// leastPairs are how many pairs say anything.
const leastPairs = 6

// ApartOf compares the arms by pairs of sets of the same number and load, those in which the
// left began and those in which the right did weighing alike; false without any pair.
func ApartOf(entries []entry.Entry) (ArmsApart, bool) {
	type at struct {
		session uuid.UUID
		no      int
	}
	arms := map[at][2]*entry.Entry{}
	for i := range entries {
		e := &entries[i]
		if e.Unsure || e.TwiceOf != nil || e.Said().Hollow || e.Technical || e.Side != entry.Left && e.Side != entry.Right {
			continue
		}
		k := 0
		if e.Side == entry.Right {
			k = 1
		}
		both := arms[at{e.SessionID, e.SetNo}]
		both[k] = e
		arms[at{e.SessionID, e.SetNo}] = both
	}
	var groups [2][]float64 // by which arm began
	var first, last day.Day
	for _, both := range arms {
		l, r := both[0], both[1]
		if l == nil || r == nil || math.Abs(l.LoadKg-r.LoadKg) > 1e-9 {
			continue
		}
		k := 0
		if r.DoneAt.Before(l.DoneAt) {
			k = 1
		}
		groups[k] = append(groups[k], float64(r.Reps+r.Reserve-l.Reps-l.Reserve))
		d := day.At(l.DoneAt)
		if first == 0 || d < first {
			first = d
		}
		last = max(last, d)
	}
	out := ArmsApart{Pairs: len(groups[0]) + len(groups[1]), Days: int(last - first)}
	variance, sides := 0.0, 0.0
	for _, g := range groups {
		if len(g) == 0 {
			continue
		}
		slices.Sort(g) // the order of a map is not one
		mean, square := 0.0, 0.0
		for _, x := range g {
			mean += x / float64(len(g))
		}
		for _, x := range g {
			square += (x - mean) * (x - mean)
		}
		own := 1.0 // a rep, where few tell
		if len(g) > 2 {
			own = max(0.25, square/float64(len(g)-1))
		}
		out.Reps, variance, sides = out.Reps+mean, variance+own/float64(len(g)), sides+1
	}
	if sides == 0 {
		return out, false
	}
	out.Reps, out.Error = out.Reps/sides, math.Sqrt(variance)/sides
	return out, true
}
