package series

import (
	"fmt"
	"math"
	"slices"
)

// Mark tells a load without its number, for a client whose weights are hidden:
// against the last one, in steps of what the room has. when names the last time,
// "" when there was none.
func Mark(steps []float64, last, now float64, when string) string {
	if when == "" {
		return "your coach sets the weight"
	}
	at := func(x float64) int {
		i := slices.IndexFunc(steps, func(s float64) bool { return s >= x-1e-6 })
		if i < 0 {
			return len(steps)
		}
		return i
	}
	n := at(now) - at(last)
	switch way := map[bool]string{true: "up", false: "down"}[n > 0]; {
	case n == 0 && math.Abs(now-last) < 1e-6:
		return "the same as " + when
	case n == 0:
		return "a little different from " + when
	case n == 1 || n == -1:
		return fmt.Sprintf("one step %s from %s", way, when)
	default:
		return fmt.Sprintf("%d steps %s from %s", max(n, -n), way, when)
	}
}
