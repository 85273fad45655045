package series

import (
	"fmt"
	"math"

	"musculus/internal/core/movement"
)

// Own is what the log says of one series.
type Own struct {
	SetUp  movement.SetUp
	E1RM   float64 // what one hand could lift once, kg; 0: its sets tell none
	Logged int     // sets
	Weeks  int     // in which it was done cleanly
}

// Course is how far the load of a top-range press has come, as one hand carries
// it, kg.
type Course struct {
	Now   float64 // what it may be this week
	Limit float64 // what it may never be over: 120 % of the full-range maximum
	Full  float64 // that maximum, as it was taken
	Words string  // where it comes from
}

// What a top-range press is held to, and what a press at another width tells of it
// (the middle of the field's usual factor for another hand).
const (
	weeklyTop    = 1.05
	MostOfFull   = 1.2
	otherWidth   = 0.9
	sameWidth    = 0.05 // shoulder breadths
	nearLeanDeg  = 30.0
	mostTopWeeks = 12
)

// CourseOf is the course of a top-range press for a band: it starts at the band's
// full-range working load and rises 5 % a clean week. The full-range maximum is
// that of the client's press at the same hand width, else of the nearest width by
// ratio; false where she has none.
func CourseOf(s movement.SetUp, own map[string]Own, low, high, reserve int) (Course, bool) {
	full, words, ok := fullPress(s, own)
	if !ok {
		return Course{}, false
	}
	return along(full, own[s.Key()].Weeks, low, high, reserve, words)
}

// CourseFrom is the course of the strong part of a set-up whose full range has a
// series of its own, after some clean weeks.
func CourseFrom(own Own, weeks, low, high, reserve int) (Course, bool) {
	if !(own.E1RM > 0) {
		return Course{}, false
	}
	return along(own.E1RM, weeks, low, high, reserve, own.SetUp.Title())
}

func along(full float64, weeks, low, high, reserve int, words string) (Course, bool) {
	working, ok := LoadFor(full, max(1, min((low+high)/2, MostReps-reserve)), reserve)
	if !ok {
		return Course{}, false
	}
	limit := MostOfFull * full
	return Course{
		Now:   min(limit, working*math.Pow(weeklyTop, float64(min(weeks, mostTopWeeks)))),
		Limit: limit,
		Full:  full,
		Words: words,
	}, true
}

// fullPress finds the full-range press that speaks for a top-range one.
func fullPress(s movement.SetUp, own map[string]Own) (float64, string, bool) {
	best, found := Own{}, false
	gap := func(o movement.SetUp) float64 {
		return math.Abs(o.Number(movement.GripWidth) - s.Number(movement.GripWidth))
	}
	lean := s.Effort().TrunkLean
	for _, o := range own {
		m := o.SetUp.Movement
		if m == nil || m.Action != movement.Press || m.TopRange || !(o.E1RM > 0) ||
			math.Abs(o.SetUp.Effort().TrunkLean-lean) > nearLeanDeg {
			continue
		}
		if i := o.SetUp.Implement(); i != movement.BarStraight && i != movement.BarCambered && i != movement.BarRail {
			continue
		}
		// Of equally near ones the weaker speaks, so that no order of a map decides.
		if d := gap(o.SetUp) - gap(best.orSelf(s)); !found || d < -1e-9 || d < 1e-9 && o.E1RM < best.E1RM {
			best, found = o, true
		}
	}
	if !found {
		return 0, "", false
	}
	if gap(best.SetUp) > sameWidth {
		return otherWidth * best.E1RM, fmt.Sprintf("%.1f × %s", otherWidth, best.SetUp.Title()), true
	}
	return best.E1RM, best.SetUp.Title(), true
}

// orSelf is the series' set-up, or another before there is one.
func (o Own) orSelf(s movement.SetUp) movement.SetUp {
	if o.SetUp.Movement == nil {
		return s
	}
	return o.SetUp
}
