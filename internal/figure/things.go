package figure

import (
	"math"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// load draws what the hand holds, and the cable.
func (sc *scene) load(l *arm.Limb, class string) {
	at := sc.point(l.Grip(sc.e.GripOffset))
	if sc.e.Load.Kind == effort.Cable {
		pulley := sc.pulley()
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
			sc.cableBar(class, at)
			break
		}
		sc.disc(class, at, plateRadius)
		sc.disc(class+"-sleeve", at, 0.026)
		sc.bend(class+"-sleeve", at)
	case movement.Dumbbell:
		sc.dumbbell(class, at, little[0], -little[1])
	case movement.Lever:
		sc.lever(class, at, sc.point(l.Hand))
	case movement.Shared:
		sc.dumbbell(class, at.plus(0, bellReach), 0, 1)
	case movement.Rope: // thick from where the cable ends, with a knot below the hand
		on := sc.toPulley(at)
		sc.stroke(class, 0.034, at.plus(0.13*on.X, 0.13*on.Y), at, at.plus(-0.07*on.X, -0.07*on.Y))
		sc.disc(class, at.plus(-0.075*on.X, -0.075*on.Y), 0.034)
	case movement.Handle: // a stirrup
		on := sc.toPulley(at)
		sc.stroke(class, 0.020, at.plus(0.11*on.X, 0.11*on.Y), at.plus(-0.055*on.Y, 0.055*on.X), at.plus(0.055*on.Y, -0.055*on.X),
			at.plus(0.11*on.X, 0.11*on.Y))
	}
}

// toPulley is the way from a place to the pulley, of length 1.
func (sc *scene) toPulley(at Point) Point {
	to := sc.pulley()
	x, y := to.X-at.X, to.Y-at.Y
	long := max(math.Hypot(x, y), 1e-9)
	return Point{x / long, y / long}
}

// cableBar is a bar on a cable: seen from its end, a V as one.
func (sc *scene) cableBar(class string, at Point) {
	if sc.setUp.Implement() == movement.BarV {
		on := sc.toPulley(at)
		top := at.plus(0.11*on.X, 0.11*on.Y)
		sc.stroke(class, 0.028, at.plus(-0.06*on.Y, 0.06*on.X), top, at.plus(0.06*on.Y, -0.06*on.X))
		return
	}
	sc.disc(class, at, 0.032)
	sc.bend(class+"-sleeve", at)
}

// bend shows of a bar seen from its end how it is bent: not at all, to and fro, or with handles across.
func (sc *scene) bend(class string, at Point) {
	switch sc.setUp.Implement() {
	case movement.BarCambered:
		sc.stroke(class, 0.012, at.plus(-0.075, 0.03), at.plus(-0.03, -0.03), at.plus(0.03, 0.03), at.plus(0.075, -0.03))
	case movement.BarParallel:
		sc.stroke(class, 0.012, at.plus(-0.035, -0.06), at.plus(-0.035, 0.06))
		sc.stroke(class, 0.012, at.plus(0.035, -0.06), at.plus(0.035, 0.06))
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
	if sc.setUp.Movement.NeedsPartner() {
		sc.partner(ground)
	}
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
	case movement.OnBars, movement.Hanging, movement.Plank:
		sc.hold(ground)
	}
	if sc.setUp.Implement() == movement.BarFixed {
		sc.hold(ground)
	}
	switch sc.setUp.Movement.Anchor {
	case "pad":
		sc.pad(ground)
	}
	if sc.setUp.Implement() == movement.BarRail || sc.setUp.Movement.TopRange {
		sc.rack(ground)
	}
	if sc.setUp.Implement() == movement.Machine {
		sc.machine(ground)
	}
	if sc.e.Load.Kind == effort.Cable {
		sc.column(ground)
	}
}

// hold draws what the hands hold on to where the body moves: dip bars, a bar overhead, the edge of a
// bench, a bar to lean on.
func (sc *scene) hold(ground float64) {
	_, l := sc.held()
	hand, k := sc.point(l.Hand), sc.k
	switch sc.setUp.Implement() {
	case movement.BenchEdge:
		sc.stroke("bench", padThick, Point{hand.X - 0.42*k, hand.Y + 0.045*k}, Point{hand.X + 0.02*k, hand.Y + 0.045*k})
		for _, x := range []float64{-0.36, -0.04} {
			sc.stroke("frame", 0.035, Point{hand.X + x*k, hand.Y + 0.06*k}, Point{hand.X + x*k, ground})
		}
	case movement.DipBars, movement.DipMachine, movement.Band:
		if sc.setUp.Position() == movement.Hanging {
			sc.gallows(hand, ground)
		} else {
			sc.stroke("frame", 0.035, Point{hand.X - 0.16*k, hand.Y + 0.03*k}, Point{hand.X - 0.16*k, ground})
			sc.stroke("bench", 0.04, Point{hand.X - 0.24*k, hand.Y + 0.03*k}, Point{hand.X + 0.22*k, hand.Y + 0.03*k})
			sc.stroke("frame", 0.03, Point{hand.X - 0.36*k, ground - 0.015}, Point{hand.X + 0.10*k, ground - 0.015})
		}
		if !sc.plays { // else it moves
			sc.kneePlate(ground)
		}
	case movement.PullBar:
		sc.gallows(hand, ground)
	case movement.BarFixed:
		sc.stroke("frame", 0.035, hand, Point{hand.X, ground})
		sc.stroke("frame", 0.03, Point{hand.X - 0.2*k, ground - 0.015}, Point{hand.X + 0.2*k, ground - 0.015})
		sc.disc("bench", hand, 0.038)
	}
}

// kneePlate is the plate under the knees that takes a part of the weight, where there is one.
func (sc *scene) kneePlate(ground float64) {
	if sc.setUp.Implement() != movement.DipMachine {
		return
	}
	knee, _, _ := sc.legs()
	k := sc.k
	sc.stroke("bench", 0.05, knee.plus(-0.16*k, 0.10*k), knee.plus(0.14*k, 0.10*k))
	sc.stroke("frame", 0.03, knee.plus(0, 0.12*k), Point{knee.X, ground})
}

// gallows is a bar overhead, seen from its end, on an arm from a post behind.
func (sc *scene) gallows(hand Point, ground float64) {
	k := sc.k
	post := hand.X + 0.62*k
	sc.stroke("frame", 0.045, Point{post, hand.Y - 0.02*k}, Point{post, ground})
	sc.stroke("frame", 0.04, Point{post, hand.Y - 0.02*k}, Point{hand.X, hand.Y - 0.02*k})
	sc.stroke("frame", 0.03, Point{post - 0.3*k, ground - 0.015}, Point{post + 0.12*k, ground - 0.015})
	sc.disc("bench", hand, 0.040)
}

// rack is two posts with pins, or the rails a bar runs on, beside the bar's way.
func (sc *scene) rack(ground float64) {
	hand := sc.point(sc.from.Hand)
	top := min(sc.point(sc.to.Hand).Y, hand.Y) - 0.25
	sc.stroke("frame", 0.04, Point{hand.X, top}, Point{hand.X, ground})
	if sc.setUp.Implement() != movement.BarRail {
		sc.stroke("bench", 0.03, Point{hand.X - 0.10, hand.Y + plateRadius*0.25}, Point{hand.X + 0.12, hand.Y + plateRadius*0.25})
	}
}

// machine is a lever that the hand moves, hinged above and behind who sits in it.
func (sc *scene) machine(ground float64) {
	k := sc.k
	hip := sc.hip()
	pivot := Point{hip.X - 0.16*k, sc.onTrunk(0, 0.42).Y}
	sc.stroke("frame", 0.05, Point{hip.X - 0.22*k, pivot.Y}, Point{hip.X - 0.22*k, ground})
	sc.stroke("bench", padThick, sc.onTrunk(-padOff, 0.12), sc.onTrunk(-padOff, -0.50))
	hand := sc.point(sc.to.Hand)
	sc.stroke("column", 0.035, pivot, Point{hand.X, pivot.Y + 0.02*k}, hand)
	sc.disc("pulley", pivot, wheelRadius)
}

// pulley is where the cable comes from: as the set-up says, of graded work as its line of pull runs.
func (sc *scene) pulley() Point {
	if sc.setUp.Movement.Computed() {
		return Point{sc.e.Load.Pulley[0], -sc.e.Load.Pulley[1]}
	}
	from, to := sc.point(sc.from.Hand), sc.point(sc.to.Hand)
	if math.Abs(from.X-to.X) > math.Abs(from.Y-to.Y) { // a row: straight in front
		return Point{from.X + 0.45*sc.k, from.Y + 0.05*sc.k}
	}
	return Point{from.X + 0.02*sc.k, from.Y - 0.38*sc.k}
}

// column is the post the cable runs over: clear of the person, with an arm to its pulley.
func (sc *scene) column(ground float64) {
	at, k := sc.pulley(), sc.k
	side := 1.0
	if at.X < 0 {
		side = -1
	}
	post := at.X + side*0.08
	clear := 0.52 * k
	if sc.setUp.Position() != movement.Standing && sc.setUp.Position() != movement.Kneeling {
		knee, _, toe := sc.legs()
		clear = max(knee.X, toe.X) + 0.16*k
		if side < 0 {
			clear = 0.46 * k
		}
		if sc.setUp.Position() == movement.OnBench || sc.setUp.Position() == movement.Reclined || sc.setUp.Position() == movement.OnFloor {
			if side < 0 {
				clear = 0.62 * k
			}
		}
	}
	if side*post < clear && (at.Y < -0.35 || at.Y > ground-0.55 || side*at.X < 0.3) {
		post = side * clear
	}
	top := min(at.Y-0.14, -0.62*k)
	sc.stroke("column", 0.06, Point{post, top}, Point{post, ground})
	sc.stroke("frame", 0.03, Point{post - 0.16*k, ground - 0.015}, Point{post + 0.16*k, ground - 0.015})
	if math.Abs(post-at.X) > 0.1 {
		sc.stroke("column", 0.035, Point{post, at.Y}, at)
	}
	sc.disc("pulley", at, wheelRadius)
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

// inFront draws what lies between the person and who looks: the plate the elbows are braced on.
func (sc *scene) inFront() {
	if sc.setUp.Movement.Anchor != "brace" {
		return
	}
	elbow := sc.point(sc.from.Elbow)
	sc.stroke("bench", 0.045, elbow.plus(-0.03*sc.k, -0.16*sc.k), elbow.plus(-0.05*sc.k, 0.05*sc.k))
}

// hung draws what hangs on a body that moves: a plate between the knees' height.
func (sc *scene) hung() {
	if !sc.setUp.Movement.Added {
		return
	}
	hip := sc.hip()
	at := hip.plus(0.12*sc.k, 0.26*sc.k)
	sc.stroke("cable", 0.012, hip.plus(0.08*sc.k, 0), at)
	sc.disc("weight", at, plateRadius*0.8)
	sc.disc("weight-sleeve", at, 0.024)
}
