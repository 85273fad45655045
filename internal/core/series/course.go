package series

import (
	"math"
	"slices"

	"musculus/internal/core/day"
)

// Compared is one session of a series that compares with the others.
type Compared struct {
	On      day.Day
	E1RM    float64 // what one hand could lift once, kg; > 0
	Reserve float64 // told reps in reserve; NaN: not told
}

// State is what a series does.
type State string

// The states.
const (
	Unknown State = "unknown" // cannot tell yet
	Rising  State = "rising"
	Plateau State = "plateau" // does not rise by what is looked for
	Falling State = "falling"
)

// Growth a week that is looked for, in the first year of training and after.
const (
	GrowthFirstYear = 0.01
	GrowthLater     = 0.005
)

// A window of a course, and what it has to weigh before it says anything.
const (
	leastWindow, mostWindow = 8, 32
	windowDays              = 16 * 7
	leastInfo               = 4.6 // g²/2e²: from there on two statements can be told apart
)

// The odds from which a state is called, and under which it is given up.
var (
	lnFalling = math.Log(19)
	lnCalled  = math.Log(9)
	lnHeld    = math.Log(3)
)

// Look is what a course says after its last session.
type Look struct {
	State State
	// LnOdds are for standing still against rising by the growth looked for; where nothing can be
	// weighed yet they are 0.
	LnOdds float64
	Slope  float64 // a week, as a part; of the window
	Level  float64 // where the line is on its last day, kg; 0: no line yet
	Error  float64 // of the slope, a week; 0: no line yet
	Noise  float64 // of one session, as a part
	Window int     // sessions it is about
	Step   float64 // what a rep more told in reserve went with, as a part; 0 where it was not needed
	Growth float64 // a week, that was looked for
	Enough bool    // the window weighs enough to say anything
	// More is how many sessions more, as far apart as the last ones, would tell; 0: not even a
	// full window would, or it is told. Only the last look says it.
	More int
}

// Flat says whether "stands still" may be said: the slope's interval lies inside half the growth
// that was looked for, either way.
func (l *Look) Flat() bool {
	return l.State == Plateau && l.Error > 0 && math.Abs(l.Slope)+2*l.Error <= l.Growth/2
}

// Watch looks at a course after every session, in their order; growth is a week, as a part. A
// state that was called holds until its odds fall under 3 : 1.
func Watch(points []Compared, growth float64) []Look {
	out := make([]Look, len(points))
	state := Unknown
	for n := range points {
		out[n] = lookAt(points[:n+1], growth, state)
		state = out[n].State
	}
	if n := len(out); n > 0 {
		out[n-1].More = out[n-1].more(points)
	}
	return out
}

// lookAt weighs a course after its last session; was is what it was called before.
func lookAt(points []Compared, growth float64, was State) Look {
	noise := Noise(points)
	out := Look{State: Unknown, Noise: noise, Growth: growth}
	most := len(windowOf(points))
	var f line
	for n := min(leastWindow, most); n <= most; n++ {
		f = fit(points[len(points)-n:], noise)
		out.Window = n
		if n >= leastWindow && f.error > 0 && growth*growth/(2*f.error*f.error) >= leastInfo {
			out.Enough = true
			break
		}
	}
	out.Slope, out.Error, out.Step, out.Level = f.slope, f.error, f.step, f.level
	if !(f.error > 0) {
		return out
	}
	e2 := 2 * f.error * f.error
	out.LnOdds = (growth*growth - 2*growth*f.slope) / e2
	if !out.Enough {
		return out
	}
	falls := (-growth*growth - 2*growth*f.slope) / e2
	switch {
	case falls >= lnFalling, was == Falling && falls >= lnHeld:
		out.State = Falling
	case out.LnOdds <= -lnCalled, was == Rising && out.LnOdds <= -lnHeld:
		out.State = Rising
	case out.LnOdds >= lnCalled, was == Plateau && out.LnOdds >= lnHeld:
		out.State = Plateau
	}
	return out
}

// more is how many sessions more would tell.
func (l *Look) more(history []Compared) int {
	if l.State != Unknown || len(history) < 2 {
		return 0
	}
	points := slices.Clone(history[max(0, len(history)-mostWindow):])
	first := points[max(0, len(points)-5)]
	gap := float64(points[len(points)-1].On-first.On) / float64(min(4, len(points)-1))
	if !(gap > 0) {
		return 0
	}
	at := float64(points[len(points)-1].On)
	if e := fit(flat(windowOf(points)), l.Noise).error; !l.Enough && e > 0 && l.Growth*l.Growth/(2*e*e) >= leastInfo {
		return 0 // it is what lies far off that keeps it from telling
	}
	for n := 1; n <= mostWindow; n++ {
		at += gap
		points = append(points, Compared{On: day.Day(math.Round(at)), E1RM: 1, Reserve: math.NaN()})
		window := windowOf(points)
		if len(window) < leastWindow {
			continue
		}
		e := fit(flat(window), l.Noise).error
		if !(e > 0) || l.Growth*l.Growth/(2*e*e) < leastInfo {
			continue
		}
		if odds := (l.Growth*l.Growth - 2*l.Growth*l.Slope) / (2 * e * e); !l.Enough || math.Abs(odds) >= lnCalled {
			return n
		}
	}
	return 0
}

// windowOf are the last points that a look may be about.
func windowOf(points []Compared) []Compared {
	window := points[max(0, len(points)-mostWindow):]
	for len(window) > 1 && int(window[len(window)-1].On-window[0].On) > windowDays {
		window = window[1:]
	}
	return window
}

// flat are points of which only the days count.
func flat(points []Compared) []Compared {
	out := slices.Clone(points)
	for i := range out {
		out[i].E1RM, out[i].Reserve = 1, math.NaN()
	}
	return out
}

// How much one session scatters, as a part: what is assumed of anybody, as much as so many
// differences weigh, and what it is at least.
const (
	priorNoise, priorWeight = 0.025, 6
	leastNoise              = 0.012
)

// Noise is how much one session of a series scatters, as a part of what is lifted: 1.4826 times
// the median absolute difference of neighbours over √2, at least 1.2 %, mixed with a prior of
// 2.5 % that weighs as much as six differences. Neighbours whose told reserve differs by more
// than a rep tell nothing.
func Noise(points []Compared) float64 {
	points = points[max(0, len(points)-mostWindow):]
	var all []float64
	for i := 1; i < len(points); i++ {
		if !(math.Abs(points[i].Reserve-points[i-1].Reserve) > oneRep) { // NaN: not told
			all = append(all, math.Log(points[i].E1RM/points[i-1].E1RM))
		}
	}
	if len(all) == 0 {
		return priorNoise
	}
	mid := Median(all)
	for i := range all {
		all[i] = math.Abs(all[i] - mid)
	}
	own := max(leastNoise, 1.4826*Median(all)/math.Sqrt2)
	n := float64(len(all))
	return math.Sqrt((n*own*own + priorWeight*priorNoise*priorNoise) / (n + priorWeight))
}
