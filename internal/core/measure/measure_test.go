package measure_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/day"
	"musculus/internal/core/measure"
)

const today = day.Day(20_000)

func girths(on day.Day, left, right float64) measure.Session {
	return measure.Session{On: on, Girths: map[measure.Site][]float64{measure.FlexedLeft: {left}, measure.FlexedRight: {right}}}
}

var flexed = measure.KindOf(measure.FlexedLeft)

func TestBadReadingsAreToldAtTheirField(t *testing.T) {
	mass := 700.0
	bad := measure.Session{On: today + 1, MassKg: &mass, Skinfold: []float64{1.2},
		Girths: map[measure.Site][]float64{
			measure.RelaxedLeft:  {14.2},
			measure.RelaxedRight: {360},
			measure.ForearmLeft:  {},
			"waist":              {80},
			measure.FlexedLeft:   {36, math.NaN()},
		}}
	got := map[string]string{}
	for _, f := range bad.Check(today) {
		got[f.Field] = f.Reason
	}
	assert.Contains(t, got["girths.relaxed_left[0]"], "were these inches?")
	assert.Contains(t, got["girths.relaxed_left[0]"]+" ", "36.1 cm")
	assert.Contains(t, got["girths.relaxed_right[0]"], "outside 15…70")
	assert.Contains(t, got["girths.forearm_left"], "0 readings")
	assert.Contains(t, got["girths.waist"], "no such site")
	assert.Contains(t, got["girths.flexed_left[1]"], "outside")
	assert.Contains(t, got["on"], "future")
	assert.Contains(t, got["mass_kg"], "outside")
	assert.Contains(t, got["skinfold_mm[0]"], "outside")
	empty := measure.Session{On: today}
	assert.Len(t, empty.Check(today), 1)
	swapped := girths(today, 24, 38)
	require.Len(t, swapped.Check(today), 1)
	assert.Contains(t, swapped.Check(today)[0].Reason, "cannot both be right")
	good := girths(today, 36, 37.1)
	assert.Empty(t, good.Check(today))
}

func TestAWideSpreadAsksForAnother(t *testing.T) {
	s := measure.Session{
		Girths: map[measure.Site][]float64{
			measure.FlexedLeft:  {36, 36.6},
			measure.FlexedRight: {36, 36.5},
			measure.RelaxedLeft: {33, 34, 33.2},
		},
	}
	assert.Equal(t, []measure.Site{measure.FlexedLeft}, s.NeedsAnother())
	m, ok := s.Median(measure.RelaxedLeft)
	assert.True(t, ok)
	assert.Equal(t, 33.2, m)
}

func TestTheUsualNoiseAndTheClientsOwn(t *testing.T) {
	assert.InDelta(t, 0.83, measure.Noise{TE: measure.UsualTE}.Threshold(), 0.005)
	var sessions []measure.Session
	for i := range 4 { // three pairs of both arms, each 0.1 apart
		sessions = append(sessions, girths(today-day.Day(30-7*i), 36+0.1*float64(i%2), 37-0.1*float64(i%2)))
	}
	own := measure.NoiseOf(sessions, flexed)
	assert.Equal(t, 6, own.Pairs)
	assert.InDelta(t, math.Max(0.1/math.Sqrt2, 0.1), own.TE, 1e-9)
	assert.Equal(t, measure.UsualTE, measure.NoiseOf(sessions[:3], flexed).TE, "four repeats are too few")
	far := []measure.Session{girths(today-300, 30, 30), girths(today-200, 33, 33), girths(today-100, 35, 35), girths(today, 38, 38)}
	assert.Zero(t, measure.NoiseOf(far, flexed).Pairs, "what may have grown in between is no repeat")
}

func TestAreas(t *testing.T) {
	assert.InDelta(t, math.Pow(33-math.Pi*1.2, 2)/(4*math.Pi), measure.Area(33, 12, ""), 1e-12)
	assert.InDelta(t, 3.5, measure.Area(33, 12, measure.Woman)-measure.Area(33, 12, measure.Man), 1e-12)
	s := girths(today, 36, 36)
	s.Girths[measure.RelaxedLeft], s.Skinfold = []float64{33}, []float64{12}
	points, noise := measure.AreaChange([]measure.Session{s}, measure.RelaxedLeft, measure.Man)
	require.Len(t, points, 1)
	assert.Greater(t, noise, 1.0)
}

// Whatever is measured: a change or gap inside the noise is never called real,
// one beyond it always is, and a mirrored client gets the mirrored answer.
func TestAnswersKeepToTheNoiseAndMirror(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 8))
	for range 500 {
		var sessions, mirrored []measure.Session
		on := today - 120
		for range 2 + r.IntN(8) {
			l, rt := 34+4*r.Float64(), 34+4*r.Float64()
			sessions, mirrored = append(sessions, girths(on, l, rt)), append(mirrored, girths(on, rt, l))
			on += day.Day(1 + r.IntN(20))
		}
		a, ok := measure.Gap(sessions, flexed)
		require.True(t, ok)
		b, _ := measure.Gap(mirrored, flexed)
		assert.InDelta(t, a.By, -b.By, 1e-12)
		assert.Equal(t, a.Real, b.Real)
		assert.Equal(t, math.Abs(a.By) > a.Least, a.Real)
		left, right := measure.CourseOf(sessions, measure.FlexedLeft), measure.CourseOf(mirrored, measure.FlexedRight)
		c, cok := left.Change(today - 200)
		d, dok := right.Change(today - 200)
		require.True(t, cok && dok)
		assert.Equal(t, c.By, d.By)
		assert.Equal(t, math.Abs(c.By) > c.Least, c.Real)
		if !c.Real {
			assert.Contains(t, c.Words, "No change a tape can show yet")
		}
	}
	_, ok := measure.Gap(nil, flexed)
	assert.False(t, ok)
}

// The smaller arm is told only where a tape shows a real gap of the upper arm.
func TestTheSmallerArm(t *testing.T) {
	for name, c := range map[string]struct {
		sessions []measure.Session
		side     string
	}{
		"nothing measured": {nil, ""},
		"within the noise": {[]measure.Session{girths(today, 36.0, 36.8)}, ""},
		"the left":         {[]measure.Session{girths(today, 35.0, 36.2)}, "left"},
		"the right":        {[]measure.Session{girths(today, 36.2, 35.0)}, "right"},
		"caught up":        {[]measure.Session{girths(today-30, 35.0, 36.2), girths(today, 36.0, 36.3)}, ""},
		"only a forearm": {[]measure.Session{{On: today, Girths: map[measure.Site][]float64{measure.ForearmLeft: {28},
			measure.ForearmRight: {31}}}}, ""},
	} {
		side, words := measure.Smaller(c.sessions)
		assert.Equal(t, c.side, side, name)
		assert.Equal(t, c.side != "", words != "", name)
	}
}
