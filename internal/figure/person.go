package figure

import (
	"math"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
)

// The person: one body of nobody in particular, from the side: a cap so that front is plain,
// a tapered trunk, legs with feet on something, the farther limbs paler behind.

// hangs says whether the hands stay where they are and the body moves: it is drawn at one place.
func (sc *scene) hangs() bool {
	switch sc.setUp.Position() {
	case movement.OnBars, movement.Hanging, movement.Plank:
		return true
	}
	return sc.setUp.Implement() == movement.BarFixed
}

// held is the posture that is drawn in full: the end of the way up, of a dip its bottom, where
// depth is judged.
func (sc *scene) held() (arm.Posture, *arm.Limb) {
	if sc.setUp.Movement.Action == movement.Dip {
		return sc.e.From, &sc.from
	}
	return sc.e.To, &sc.to
}

// legs returns knee, ankle and toe for the position.
func (sc *scene) legs() (knee, ankle, toe Point) {
	hip, k := sc.hip(), sc.k
	ground := -sc.floor
	flat := func(knee, ankle Point) (Point, Point, Point) {
		return knee, ankle, Point{ankle.X + 0.17*k, ground - 0.02*k}
	}
	switch sc.setUp.Position() {
	case movement.Seated, movement.Reclined:
		return flat(hip.plus(0.43*k, -0.02*k), Point{hip.X + 0.40*k, ground - 0.06*k})
	case movement.ChestSupported:
		knee, ankle = hip.plus(0.16*k, 0.36*k), Point{hip.X - 0.20*k, ground - 0.05*k}
		return knee, ankle, ankle.plus(-0.05*k, 0.035*k)
	case movement.Kneeling:
		knee, ankle = Point{hip.X + 0.02*k, ground - 0.06*k}, Point{hip.X - 0.42*k, ground - 0.05*k}
		return knee, ankle, ankle.plus(-0.06*k, 0.035*k)
	case movement.OnBench:
		if sc.upright() {
			return flat(hip.plus(0.43*k, -0.02*k), Point{hip.X + 0.40*k, ground - 0.06*k})
		}
		return flat(hip.plus(0.40*k, -0.04*k), Point{hip.X + 0.46*k, ground - 0.06*k})
	case movement.OnFloor:
		return flat(hip.plus(0.30*k, -0.26*k), Point{hip.X + 0.52*k, ground - 0.06*k})
	case movement.Plank:
		knee, ankle = sc.onTrunk(0, -0.92), sc.onTrunk(0, -1.32)
		return knee, ankle, ankle.plus(0.03*k, 0.15*k)
	case movement.OnBars, movement.Hanging:
		if sc.setUp.Implement() == movement.BenchEdge {
			knee, ankle = hip.plus(0.40*k, -0.02*k), Point{hip.X + 0.66*k, ground - 0.05*k}
			return knee, ankle, ankle.plus(0.05*k, -0.15*k)
		}
		knee, ankle = hip.plus(0.12*k, 0.41*k), hip.plus(-0.20*k, 0.66*k)
		return knee, ankle, ankle.plus(-0.10*k, 0.10*k)
	}
	return flat(Point{hip.X + 0.03*k, (hip.Y+ground)/2 - 0.02*k}, Point{hip.X - 0.01*k, ground - 0.06*k})
}

// upright says whether a bench that can lie flat is set up so far that one sits on it.
func (sc *scene) upright() bool { return sc.e.TrunkLean > -70 }

// Half widths of the limbs, m at the default stature.
const (
	thighTop, thighLow = 0.085, 0.058
	shinTop, shinLow   = 0.056, 0.036
)

// leg draws a leg from the hip down.
func (sc *scene) leg(class string, hip, knee, ankle, toe Point) {
	k := sc.k
	sc.area(class, tapered(hip, knee, thighTop*k, thighLow*k)...)
	sc.disc(class, knee, thighLow*k)
	sc.area(class, tapered(knee, ankle, shinTop*k, shinLow*k)...)
	sc.disc(class, ankle, 0.038*k)
	heel := Point{ankle.X - 0.35*(toe.X-ankle.X), ankle.Y + 0.9*(toe.Y-ankle.Y)}
	sc.area(
		class,
		ankle.plus(-0.03*k, -0.02*k),
		ankle.plus(0.035*k, -0.02*k),
		toe.plus(0, -0.012*k),
		toe.plus(0, 0.016*k),
		heel.plus(0, 0.016*k),
	)
}

// person draws the far limbs, legs, trunk and head.
func (sc *scene) person() {
	k := sc.k
	hip := sc.hip()
	knee, ankle, toe := sc.legs()
	away := func(p Point, by float64) Point { return p.plus(by*k, -0.012*k) }
	switch sc.setUp.Position() { // the other leg, a little to the side, where one sees it
	case movement.Standing:
		sc.leg("far", away(hip, 0.01), away(knee, 0.05), away(ankle, 0.09), away(toe, 0.09))
	case movement.Seated, movement.Reclined, movement.OnBench, movement.OnFloor:
		sc.leg("far", away(hip, 0.01), away(knee, 0.03), away(ankle, 0.05), away(toe, 0.05))
	}
	if sc.setUp.ArmsInTurn() != 2 && !sc.plays { // while it plays the other arm moves, too
		_, l := sc.held()
		sc.farArm(l)
	}
	sc.leg("body", hip, knee, ankle, toe)
	var trunk []Point
	for _, p := range [][2]float64{{-0.085, 0}, {-0.045, 0.045}, {0.040, 0.045}, {0.085, -0.01}, {0.108, -0.13}, {0.092, -0.27},
		{0.078, -0.38}, {0.084, -0.50}, {0.05, -0.575}, {-0.05, -0.575}, {-0.098, -0.50}, {-0.082, -0.38}, {-0.078, -0.28}, {-0.108, -0.14}} {
		trunk = append(trunk, sc.onTrunk(p[0], p[1]))
	}
	sc.area("trunk", trunk...)
	sc.area("body", tapered(sc.onTrunk(-0.012, 0.0), sc.onTrunk(0.018, 0.16), 0.058*k, 0.048*k)...)
	sc.head()
}

// farArm is the other arm, where both do the same: paler, a little to the side.
func (sc *scene) farArm(l *arm.Limb) {
	k := sc.k
	away := func(p Point, by float64) Point { return p.plus(by*k, -0.012*k) }
	elbow, hand := away(sc.point(l.Elbow), 0.035), away(sc.point(l.Hand), 0.035)
	sc.area("far", tapered(away(Point{}, 0.025), elbow, 0.050*k, 0.040*k)...)
	sc.area("far", tapered(elbow, hand, 0.040*k, 0.026*k)...)
	sc.disc("far", hand, 0.034*k)
}

// head draws face, nose and the cap of hair behind it.
func (sc *scene) head() {
	k := sc.k
	sc.disc("hair", sc.onTrunk(0.018, 0.258), 1.05*headRadius*k)
	sc.area("body", sc.onTrunk(0.122, 0.270), sc.onTrunk(0.158, 0.228), sc.onTrunk(0.118, 0.195))
	sc.disc("body", sc.onTrunk(0.048, 0.232), 0.86*headRadius*k)
}

// partner is whoever presses the load down or takes it: standing at the head's end, a hand on it,
// paler than who trains.
func (sc *scene) partner(ground float64) {
	k := sc.k
	hand := sc.point(sc.to.Hand)
	shoulder := Point{0, ground - 1.40*k}
	reach := 0.58 * k
	high := hand.Y - shoulder.Y
	shoulder.X = min(hand.X-math.Sqrt(max(0.04*k*k, reach*reach-high*high)), sc.onTrunk(-padOff, 0.38).X-0.12*k)
	hip := shoulder.plus(-0.03*k, 0.50*k)
	ankle := Point{hip.X - 0.02*k, ground - 0.06*k}
	knee := Point{hip.X + 0.02*k, (hip.Y+ground)/2 - 0.02*k}
	sc.stroke("far", 0.17*k, shoulder, hip)
	sc.stroke("far", 0.13*k, hip, knee)
	sc.stroke("far", 0.085*k, knee, ankle)
	sc.stroke("far", 0.045*k, ankle.plus(0, 0.035*k), ankle.plus(0.17*k, 0.035*k))
	sc.stroke("far", 0.09*k, shoulder, shoulder.plus(0.02*k, -0.16*k))
	sc.disc("far", shoulder.plus(0.03*k, -0.235*k), 0.98*headRadius*k)
	sc.stroke("far", 0.075*k, shoulder, toward(shoulder, hand, 0.5).plus(0.02*k, 0.07*k), hand)
}
