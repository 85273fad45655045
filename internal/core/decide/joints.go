package decide

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"musculus/internal/core/day"
	"musculus/internal/core/movement"
)

// JointSays is what was told of a joint, and which set-ups were done on the day of it or the day
// before: counts, not causes.
type JointSays struct {
	Joint string `json:"joint"`
	Says  string `json:"says"`
}

// Bounds of what is told of joints.
const (
	jointsBack = 16 * 7
	mostWith   = 4
)

// jointsOf counts what was done before joints were told of.
func jointsOf(f *Facts) []JointSays {
	out := []JointSays{}
	done := map[day.Day]map[string]bool{}
	for i := range f.Entries {
		if e := &f.Entries[i]; e.SetUp.Movement != nil {
			on := day.At(e.DoneAt)
			if done[on] == nil {
				done[on] = map[string]bool{}
			}
			done[on][e.SetUp.Short()] = true
		}
	}
	for _, j := range movement.Joints {
		told, over, with := 0, 0, map[string]int{}
		for _, r := range f.Joints {
			if r.Joint != j || r.Score == 0 || int(f.Today-r.On) > jointsBack {
				continue
			}
			told++
			if r.Score > overPain {
				over++
			}
			before := map[string]bool{}
			for _, on := range []day.Day{r.On - 1, r.On} {
				for name := range done[on] {
					before[name] = true
				}
			}
			for name := range before {
				with[name]++
			}
		}
		if told == 0 {
			continue
		}
		says := fmt.Sprintf("told of %s, %s over %d", times(told), times(over), overPain)
		names := make([]string, 0, len(with))
		for name := range with {
			names = append(names, name)
		}
		slices.SortFunc(names, func(a, b string) int { return cmp.Or(with[b]-with[a], cmp.Compare(a, b)) })
		for i, name := range names[:min(len(names), mostWith)] {
			names[i] = fmt.Sprintf("%s %s", name, times(with[name]))
		}
		if n := min(len(names), mostWith); n > 0 {
			says += ". Done that day or the day before: " + strings.Join(names[:n], ", ")
		}
		out = append(out, JointSays{j.Words(), says + "."})
	}
	return out
}

func times(n int) string {
	switch n {
	case 0:
		return "never"
	case 1:
		return "once"
	case 2:
		return "twice"
	}
	return fmt.Sprintf("%d times", n)
}
