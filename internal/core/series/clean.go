package series

import (
	"fmt"

	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// The clean reps that say, without a series, whether the weight there is suits a set-up.
const (
	fewClean, manyClean = 8, 12
	lighterBy           = 0.95 // of the load a set-up needs for the same effort: what counts as another need
	heavierBy           = 1.05
)

// CleanFit judges the weight there is by the clean reps it gave, and says what follows for the
// dose: to the limit only where that is safe alone and no cap asks for reps in reserve.
func CleanFit(reps int, s movement.SetUp, caps *person.Caps) (Fit, string) {
	rest := func(low, high int) string {
		if caps != nil && caps.MinRestS > low {
			low, high = caps.MinRestS, max(high, caps.MinRestS)
		}
		if low == high {
			return fmt.Sprintf("%d s rest", low)
		}
		return fmt.Sprintf("%d–%d s rest", low, high)
	}
	switch {
	case reps < fewClean:
		return TooHeavy, fmt.Sprintf("Too heavy: %d clean reps. Below is what the same weight suits.", reps)
	case reps <= manyClean:
		return Fits, fmt.Sprintf("Right: %d clean reps. %s.", reps, rest(90, 120))
	}
	left := "to the limit"
	switch {
	case caps != nil && caps.MinReserve > 0:
		left = fmt.Sprintf("with %d left, as the caps ask", caps.MinReserve)
	case s.SafeAlone() != movement.AloneYes:
		left = "with 1 left, for it is not safe to fail alone"
	}
	return TooLight, fmt.Sprintf("Too light: %d clean reps. %s, %s; or what asks more of the same weight, below.",
		reps, left, rest(45, 60))
}

// SuitsWeight says whether the same weight suits another set-up better: one that needs more load
// for the same effort where it was too heavy, less where it was too light. Both must be computed
// and held by the same thing; one dumbbell counts as such in one hand or in both.
func SuitsWeight(f Fit, of, to *fitting.Shape, rigging person.Rigging) bool {
	if of.Profile == nil || to.Profile == nil || thing(of.SetUp) != thing(to.SetUp) {
		return false
	}
	whole := func(s *fitting.Shape) float64 { return person.CarryOf(s.SetUp).Whole(s.Profile.Working, rigging) }
	ratio := whole(to) / whole(of)
	return f == TooHeavy && ratio > heavierBy || f == TooLight && ratio < lighterBy
}

func thing(s movement.SetUp) movement.ImplementID {
	if i := s.Implement(); i != movement.Shared {
		return i
	}
	return movement.Dumbbell
}
