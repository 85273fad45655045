package series

import (
	"time"

	"musculus/internal/core/day"
	"musculus/internal/core/entry"
	"musculus/internal/core/movement"
)

// Point is what one set says could be lifted once, by one hand, kg.
type Point struct {
	On   day.Day
	E1RM float64
}

// PointOf is what a set says could be lifted once; false where it tells nothing.
func PointOf(s entry.Said) (Point, bool) {
	if s.Technical || s.Hollow {
		return Point{}, false
	}
	most, ok := E1RM(s.LoadKg, s.Reps, s.Reserve)
	return Point{s.On, most}, ok
}

// How long after a set a series still speaks by it, days, and how many of its last
// sets that tell anything an estimate comes from.
const (
	SpeaksFor  = 56
	lastPoints = 6
)

// Says is what a series says on a day: what one hand could lift once, the median of
// its last sets that tell (kg, 0: none does), and how many sets it speaks by. sets
// has the latest first.
func Says(sets []entry.Said, today day.Day) (e1rm float64, logged int) {
	var points []Point
	for _, s := range sets {
		if !speaks(s.On, today) {
			continue
		}
		logged++
		if p, ok := PointOf(s); ok {
			points = append(points, p)
		}
	}
	return estimate(points, today), logged
}

// speaks says whether a set of one day speaks on another.
func speaks(on, today day.Day) bool { return int(today-on) <= SpeaksFor }

// Counted are the points the estimate of a day is the median of, the latest first.
func (k *Known) Counted(today day.Day) []Point {
	if !k.Speaks(today) {
		today = k.Last()
	}
	return counted(k.Points, today)
}

// counted are the last points that speak on a day.
func counted(points []Point, today day.Day) (out []Point) {
	for _, p := range points {
		if speaks(p.On, today) && len(out) < lastPoints {
			out = append(out, p)
		}
	}
	return out
}

// estimate is the median of the last points that speak on a day, 0 without any.
func estimate(points []Point, today day.Day) float64 {
	var values []float64
	for _, p := range counted(points, today) {
		values = append(values, p.E1RM)
	}
	return Median(values)
}

// Known is what a client's log says of one set-up.
type Known struct {
	SetUp  movement.SetUp
	Points []Point // the latest first
}

// E1RM is what the series says on a day; one that is silent by then tells what it
// said on the day it was last done. 0 without any point.
func (k *Known) E1RM(today day.Day) float64 {
	if !k.Speaks(today) {
		today = k.Last()
	}
	return estimate(k.Points, today)
}

// Last is when the set-up was last done.
func (k *Known) Last() day.Day {
	if len(k.Points) == 0 {
		return 0
	}
	return k.Points[0].On
}

// Speaks says whether the series still speaks for itself on a day.
func (k *Known) Speaks(today day.Day) bool { return len(k.Points) > 0 && speaks(k.Last(), today) }

// LooksBack is how far back the log is looked at for loads.
const LooksBack = 300 * 24 * time.Hour

// Gather gathers a log by series, the latest sets first.
func Gather(past []entry.Entry) []Known {
	var out []Known
	at := map[string]int{}
	for i := range past {
		e := &past[i]
		p, ok := PointOf(e.Said())
		if !ok || e.SetUp.Movement == nil {
			continue
		}
		key := e.SetUp.Key()
		k, found := at[key]
		if !found {
			k = len(out)
			at[key] = k
			out = append(out, Known{SetUp: e.SetUp})
		}
		out[k].Points = append(out[k].Points, p)
	}
	return out
}
