package priority

import (
	"fmt"
	"math"
	"strings"

	"musculus/internal/core/arm"
)

// Time is how long a client trains: minutes of a session and days of a week, 0 where
// nothing is said, and whether it is the first year.
type Time struct {
	Minutes, Days int
	FirstYear     bool
}

// What a session is made of, minutes: before the first hard set, and each of them with
// its rest, as sessions of single exercises usually come out.
const (
	beforehandMin = 8.0
	perHardSetMin = 2.5
)

// Holds is about how many hard sets a week has time for; false where the time is not
// said.
func (t Time) Holds() (int, bool) {
	if t.Minutes <= 0 || t.Days <= 0 {
		return 0, false
	}
	return t.Days * int(max(0, float64(t.Minutes)-beforehandMin)/perHardSetMin), true
}

// asks is about how many hard sets a week's targets ask: one serves every head of its
// group, so that of each group the head that asks most decides.
func asks(out *[arm.HeadCount]Weight, firstYear bool) (sets int) {
	for _, flexor := range []bool{true, false} {
		most, _ := top(out, flexor)
		sets += int(math.Ceil(TargetOf(most, firstYear).Low))
	}
	return sets
}

// top is the highest level of a group's heads, and which are at it.
func top(out *[arm.HeadCount]Weight, flexor bool) (level Level, at []arm.HeadIndex) {
	level = Maintain
	for h := range out {
		if arm.HeadIndex(h).Flexor() != flexor {
			continue
		}
		switch l := out[h].Level; {
		case rank(l) > rank(level):
			level, at = l, []arm.HeadIndex{arm.HeadIndex(h)}
		case l == level:
			at = append(at, arm.HeadIndex(h))
		}
	}
	return level, at
}

func rank(l Level) int {
	for i := range Levels {
		if Levels[i] == l {
			return i
		}
	}
	return 0
}

// fit lowers what is proposed until the client's time holds it, the group first whose
// heads are asked for least.
func (t Time) fit(out *[arm.HeadCount]Weight) []string {
	holds, known := t.Holds()
	wanted := asks(out, t.FirstYear)
	if !known || wanted <= holds {
		return nil
	}
	var names []string
	for asks(out, t.FirstYear) > holds {
		var least []arm.HeadIndex
		score := math.Inf(1)
		for _, flexor := range []bool{true, false} {
			level, at := top(out, flexor)
			best := math.Inf(-1)
			for _, h := range at {
				best = max(best, out[h].Score)
			}
			if level != Maintain && best < score {
				least, score = at, best
			}
		}
		if least == nil {
			break // nothing asks for less than to be maintained
		}
		for _, h := range least {
			out[h].Level = Levels[rank(out[h].Level)-1]
			out[h].Reasons = append(out[h].Reasons, fmt.Sprintf("%s rather than more: the time does not hold it", out[h].Level))
			names = append(names, arm.Heads[h].Name)
		}
	}
	words := fmt.Sprintf(
		"%d × %d minutes a week hold about %d hard sets; what asks for more would take about %d.",
		t.Days,
		t.Minutes,
		holds,
		wanted,
	)
	if len(names) > 0 {
		words += fmt.Sprintf(" Proposed lower for it: %s.", strings.Join(names, "; "))
	}
	return []string{words}
}
