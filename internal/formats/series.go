package formats

import (
	"errors"
	"fmt"
	"math"

	"musculus/internal/core/day"
	"musculus/internal/core/series"
)

// Bounds of a course that is read from a line.
const (
	mostPoints = 5000
	mostGrowth = 0.1
	mostE1RM   = 1000
)

// SeriesLine is a course: the sessions of one set-up that compare, in their order.
type SeriesLine struct {
	Points []SeriesPoint `json:"points"`
	Growth *float64      `json:"growth_per_week"` // that is looked for, as a part; absent: 0.01
}

// SeriesPoint is one session of it.
type SeriesPoint struct {
	Day     day.Day  `json:"day"`
	E1RM    float64  `json:"e1rm"`
	Reserve *float64 `json:"reserve"` // told reps in reserve; absent: not told
}

// SeriesAnswer is what a course says after its last point, having looked after each one.
type SeriesAnswer struct {
	State  series.State `json:"state" enum:"plateau,rising,falling,unknown"`
	LnOdds float64      `json:"ln_odds_still"`
	Slope  float64      `json:"slope_per_week"`
	Noise  float64      `json:"noise"`
}

// Series answers a course.
func Series(line []byte) (any, error) {
	var in SeriesLine
	if err := strict(line, &in); err != nil {
		return nil, err
	}
	growth := series.GrowthFirstYear
	if in.Growth != nil {
		growth = *in.Growth
	}
	switch {
	case !(growth > 0 && growth <= mostGrowth):
		return nil, fmt.Errorf("growth_per_week: %g is outside 0…%g", growth, mostGrowth)
	case len(in.Points) == 0:
		return nil, errors.New("points: there are none")
	case len(in.Points) > mostPoints:
		return nil, fmt.Errorf("points: %d are more than %d", len(in.Points), mostPoints)
	}
	var points []series.Compared
	for i, p := range in.Points {
		at := fmt.Sprintf("points[%d].", i)
		q := series.Compared{On: p.Day, E1RM: p.E1RM, Reserve: math.NaN()}
		switch {
		case !(p.E1RM > 0 && p.E1RM <= mostE1RM):
			return nil, fmt.Errorf("%se1rm: %g is outside 0…%d", at, p.E1RM, mostE1RM)
		case i > 0 && p.Day < in.Points[i-1].Day:
			return nil, errors.New(at + "day: it is earlier than the one before")
		case p.Reserve != nil && !(*p.Reserve >= 0 && *p.Reserve <= 20):
			return nil, fmt.Errorf("%sreserve: %g is outside 0…20", at, *p.Reserve)
		case p.Reserve != nil:
			q.Reserve = *p.Reserve
		}
		points = append(points, q)
	}
	looks := series.Watch(points, growth)
	l := &looks[len(looks)-1]
	return SeriesAnswer{l.State, l.LnOdds, l.Slope, l.Noise}, nil
}
