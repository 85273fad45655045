package figure

import (
	"math"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// Sizes of the body and of things, m at a stature of 1.75 m.
const (
	hipDown     = 0.50
	headRadius  = 0.105
	padOff      = 0.165 // how far a pad's middle lies from the trunk's
	padThick    = 0.06
	plateRadius = 0.125
	bellRadius  = 0.062
	bellReach   = 0.095
	wheelRadius = 0.04
)

// scene draws one set-up: body, arm, load, bench and cable.
type scene struct {
	setUp movement.SetUp
	e     effort.Setup
	body  arm.Body
	trunk arm.Trunk
	k     float64 // stature over the default one
	floor float64 // y of the floor, world, m

	from, to arm.Limb
	shapes   []Shape
}

func newScene(s movement.SetUp, body arm.Body) *scene {
	e := s.EffortFor(body.Stature)
	return &scene{
		setUp: s, e: e, body: body, trunk: arm.LeanTrunk(e.TrunkLean), k: body.Stature / arm.DefaultStature,
		floor: -movement.FloorBelow(s.Position(), e.TrunkLean, body.Stature),
		from:  body.Place(e.From), to: body.Place(e.To),
	}
}

// point puts a trunk-frame vector on the paper.
func (sc *scene) point(v arm.Vec) Point {
	w := sc.trunk.ToWorld(v)
	return Point{w[0], -w[1]}
}

// onTrunk puts a place of the trunk (forward, up; m at 1.75 m) on the paper.
func (sc *scene) onTrunk(forward, up float64) Point {
	return sc.point(arm.Vec{forward * sc.k, up * sc.k, 0})
}

func (sc *scene) stroke(class string, width float64, points ...Point) {
	sc.shapes = append(sc.shapes, Shape{Class: class, Path: polyline(points, false), Width: width})
}

func (sc *scene) area(class string, points ...Point) {
	sc.shapes = append(sc.shapes, Shape{Class: class, Path: polyline(points, true)})
}

func (sc *scene) disc(class string, at Point, r float64) {
	sc.shapes = append(sc.shapes, Shape{Class: class, Path: disc(at, r)})
}

func (p Point) plus(x, y float64) Point { return Point{p.X + x, p.Y + y} }

// hip is where the legs begin.
func (sc *scene) hip() Point { return sc.onTrunk(0, -hipDown) }

// legs returns knee and ankle for the position.
func (sc *scene) legs() (knee, ankle Point) {
	hip, k := sc.hip(), sc.k
	ground := -sc.floor
	switch sc.setUp.Position() {
	case movement.Seated, movement.Reclined:
		return hip.plus(0.43*k, -0.02*k), Point{hip.X + 0.40*k, ground - 0.05*k}
	case movement.ChestSupported:
		return hip.plus(0.16*k, 0.36*k), Point{hip.X - 0.20*k, ground - 0.05*k}
	case movement.Kneeling:
		return Point{hip.X + 0.02*k, ground - 0.06*k}, Point{hip.X - 0.42*k, ground - 0.05*k}
	case movement.OnBench:
		if sc.upright() {
			return hip.plus(0.43*k, -0.02*k), Point{hip.X + 0.40*k, ground - 0.05*k}
		}
		return hip.plus(0.40*k, -0.04*k), Point{hip.X + 0.46*k, ground - 0.05*k}
	case movement.OnFloor:
		return hip.plus(0.30*k, -0.26*k), Point{hip.X + 0.52*k, ground - 0.05*k}
	case movement.Plank:
		return sc.onTrunk(0, -0.92), sc.onTrunk(0, -1.32)
	case movement.OnBars, movement.Hanging:
		return hip.plus(0.10*k, 0.42*k), hip.plus(-0.20*k, 0.68*k)
	}
	return Point{hip.X + 0.03*k, (hip.Y+ground)/2 - 0.02*k}, Point{hip.X - 0.01*k, ground - 0.05*k}
}

// upright says whether a bench that can lie flat is set up so far that one sits on it.
func (sc *scene) upright() bool { return sc.e.TrunkLean > -70 }

// person draws head, trunk and legs.
func (sc *scene) person() {
	k := sc.k
	knee, ankle := sc.legs()
	hip := sc.hip()
	foot := ankle.plus(0.15*k, 0.02*k)
	switch sc.setUp.Position() {
	case movement.ChestSupported, movement.OnBars, movement.Hanging, movement.Plank, movement.Kneeling:
		foot = ankle.plus(-0.02*k, 0.05*k)
	}
	sc.stroke("body", 0.075*k, ankle, foot)
	sc.stroke("body", 0.10*k, knee, ankle)
	sc.stroke("body", 0.155*k, hip, knee)
	sc.stroke("body", 0.10*k, sc.onTrunk(-0.01, 0.02), sc.onTrunk(0.015, 0.14))
	var trunk []Point
	for _, p := range [][2]float64{{-0.07, 0.03}, {0.06, 0.02}, {0.10, -0.12}, {0.075, -0.30}, {0.085, -0.50}, {-0.09, -0.52},
		{-0.065, -0.32}, {-0.105, -0.14}} {
		trunk = append(trunk, sc.onTrunk(p[0], p[1]))
	}
	sc.area("trunk", trunk...)
	head := sc.onTrunk(0.03, 0.245)
	sc.disc("body", head, headRadius*k)
	sc.area("body", sc.onTrunk(0.115, 0.28), sc.onTrunk(0.155, 0.235), sc.onTrunk(0.12, 0.21))
}

// limb draws the arm in one posture.
func (sc *scene) limb(l *arm.Limb, class string) {
	k := sc.k
	shoulder, elbow, hand := sc.point(arm.Vec{}), sc.point(l.Elbow), sc.point(l.Hand)
	sc.stroke(class, 0.095*k, shoulder, elbow)
	sc.stroke(class, 0.07*k, elbow, hand)
	sc.disc(class+"-hand", hand, 0.042*k)
	sc.disc(class+"-joint", elbow, 0.018*k)
}

// load draws what the hand holds, and the cable.
func (sc *scene) load(l *arm.Limb, class string) {
	at := sc.point(l.Grip(sc.e.GripOffset))
	if sc.e.Load.Kind == effort.Cable {
		pulley := Point{sc.e.Load.Pulley[0], -sc.e.Load.Pulley[1]}
		cable := "cable"
		if class != "weight" {
			cable = "ghost-cable"
		}
		sc.stroke(cable, 0.012, at, pulley)
	}
	little := sc.trunk.ToWorld(l.Little)
	switch sc.setUp.Implement() {
	case movement.BarStraight, movement.BarCambered, movement.BarV, movement.BarParallel, movement.BarRail:
		if sc.e.Load.Kind == effort.Cable {
			sc.disc(class, at, 0.032)
			break
		}
		sc.disc(class, at, plateRadius)
		sc.disc(class+"-sleeve", at, 0.026)
	case movement.Dumbbell:
		sc.dumbbell(class, at, little[0], -little[1])
	case movement.Lever:
		sc.lever(class, at, sc.point(l.Hand))
	case movement.Shared:
		sc.dumbbell(class, at.plus(0, bellReach), 0, 1)
	case movement.Rope, movement.Handle:
		sc.stroke(class, 0.03, at.plus(-0.05*little[0], 0.05*little[1]), at.plus(0.05*little[0], -0.05*little[1]))
	}
}

// lever draws a weight at one end of its handle: from the hand past the weight's middle.
func (sc *scene) lever(class string, at, hand Point) {
	sc.stroke(class, 0.03, hand, at)
	sc.disc(class, at, bellRadius)
}

// dumbbell draws two bells on a handle whose direction on the paper is (dx, dy);
// seen from its end it is a disc.
func (sc *scene) dumbbell(class string, at Point, dx, dy float64) {
	long := math.Hypot(dx, dy)
	if long < 0.4 {
		sc.disc(class, at, bellRadius+0.012)
		sc.disc(class+"-sleeve", at, 0.022)
		return
	}
	a, b := at.plus(-bellReach*dx, -bellReach*dy), at.plus(bellReach*dx, bellReach*dy)
	sc.stroke(class, 0.03, a, b)
	nx, ny := -dy/long*bellRadius, dx/long*bellRadius
	for _, end := range []Point{a, b} {
		sc.shapes = append(sc.shapes, Shape{Class: class + "-bell", Width: 0.055,
			Path: polyline([]Point{end.plus(nx, ny), end.plus(-nx, -ny)}, false)})
	}
}

// furniture draws floor, bench, pad, bars and cable column.
func (sc *scene) furniture() {
	k, ground := sc.k, -sc.floor
	sc.stroke("floor", 0.012, Point{-3, ground}, Point{3, ground})
	hip := sc.hip()
	switch sc.setUp.Position() {
	case movement.Reclined:
		low := sc.onTrunk(-padOff, -0.55)
		sc.frame(low.plus(0.10*k, 0.06*k), ground)
		sc.stroke("bench", padThick, sc.onTrunk(-padOff, 0.14), low)
		sc.stroke("bench", padThick, Point{low.X + 0.03*k, hip.Y + 0.13*k}, Point{hip.X + 0.30*k, hip.Y + 0.13*k})
		sc.stroke("frame", 0.03, sc.onTrunk(-padOff-0.03, -0.10), Point{low.X - 0.02*k, ground})
	case movement.ChestSupported:
		low := sc.onTrunk(padOff, -0.50)
		sc.frame(low, ground)
		sc.stroke("bench", padThick, sc.onTrunk(padOff, -0.09), low)
		sc.stroke("frame", 0.03, sc.onTrunk(padOff, -0.14), Point{sc.onTrunk(padOff, -0.14).X + 0.05*k, ground})
	case movement.OnBench:
		if sc.upright() {
			low := sc.onTrunk(-padOff, -0.55)
			sc.stroke("bench", padThick, sc.onTrunk(-padOff, 0.30), low)
			sc.stroke("bench", padThick, Point{low.X, hip.Y + 0.15*k}, Point{hip.X + 0.34*k, hip.Y + 0.15*k})
			sc.frame(Point{hip.X + 0.05*k, hip.Y + 0.15*k}, ground)
			sc.stroke("frame", 0.03, sc.onTrunk(-padOff-0.03, 0.10), Point{low.X - 0.05*k, ground})
			break
		}
		sc.stroke("bench", padThick, sc.onTrunk(-padOff, 0.38), sc.onTrunk(-padOff, -0.66))
		for _, up := range []float64{0.28, -0.55} {
			foot := sc.onTrunk(-padOff-0.04, up)
			sc.stroke("frame", 0.035, foot, Point{foot.X, ground})
		}
	case movement.Seated:
		y := hip.Y + 0.13*k
		sc.stroke("bench", padThick, Point{hip.X - 0.16*k, y}, Point{hip.X + 0.26*k, y})
		sc.frame(Point{hip.X + 0.05*k, y}, ground)
	case movement.OnBars:
		hand := sc.point(sc.from.Hand)
		sc.stroke("frame", 0.035, Point{hand.X, hand.Y}, Point{hand.X, ground})
		sc.disc("bench", hand, 0.035)
	case movement.Hanging:
		sc.disc("bench", sc.point(sc.from.Hand), 0.035)
	}
	switch sc.setUp.Movement.Anchor {
	case "pad":
		sc.pad(ground)
	case "brace":
		elbow := sc.point(sc.from.Elbow)
		sc.stroke("bench", 0.05, elbow.plus(-0.07*k, -0.10*k), elbow.plus(-0.07*k, 0.06*k))
	}
	if sc.e.Load.Kind == effort.Cable {
		x, y := sc.e.Load.Pulley[0], -sc.e.Load.Pulley[1]
		if sc.setUp.Position() == movement.OnBench && y < -0.6 { // above who lies there: it hangs from a boom
			sc.stroke("column", 0.06, Point{-0.8 * k, y - 0.05}, Point{-0.8 * k, ground})
			sc.stroke("column", 0.05, Point{-0.8 * k, y - 0.05}, Point{x, y - 0.05})
			sc.disc("pulley", Point{x, y}, wheelRadius)
			return
		}
		away := math.Copysign(0.07, x)
		sc.stroke("column", 0.06, Point{x + away, min(y-0.2, -0.6)}, Point{x + away, ground})
		sc.disc("pulley", Point{x, y}, wheelRadius)
	}
}

// frame is the post of a bench with its foot.
func (sc *scene) frame(top Point, ground float64) {
	sc.stroke("frame", 0.035, top, Point{top.X, ground - 0.015})
	sc.stroke("frame", 0.03, Point{top.X - 0.18*sc.k, ground - 0.015}, Point{top.X + 0.22*sc.k, ground - 0.015})
}

// pad is the curl pad the upper arm lies on.
func (sc *scene) pad(ground float64) {
	elbow := sc.from.Elbow
	long := elbow.Norm()
	dx, dy := elbow[0]/long, elbow[1]/long
	nx, ny := dy, -dx // below the arm
	off := 0.085 * sc.k
	at := func(t float64) Point {
		return sc.point(arm.Vec{dx*t + nx*off, dy*t + ny*off, 0})
	}
	if ny > 0 {
		nx, ny = -nx, -ny
	}
	top, low := at(0.06*sc.k), at(long+0.04*sc.k)
	mid := at(long * 0.55)
	sc.frame(mid, ground)
	sc.stroke("bench", 0.075, top, low)
}
