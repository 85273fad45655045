package figure

import (
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
	benchHigh   = 0.44
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
	canvas
	plays bool // it is drawn to be played
	plain bool // the arm is drawn by itself beside it: here only its outside
}

// canvas is what is drawn so far.
type canvas struct{ shapes []Shape }

func newScene(s movement.SetUp, body arm.Body) *scene {
	return sceneOf(s, s.EffortFor(body.Stature), body)
}

// sceneOf is a set-up done otherwise than it is set up: with a fault.
func sceneOf(s movement.SetUp, e effort.Setup, body arm.Body) *scene {
	sc := &scene{
		setUp: s, e: e, body: body, trunk: arm.LeanTrunk(e.TrunkLean), k: body.Stature / arm.DefaultStature,
		floor: -movement.FloorBelow(s.Position(), e.TrunkLean, body.Stature),
		from:  body.Place(e.From), to: body.Place(e.To),
	}
	_, held := sc.held()
	hand := sc.point(held.Hand)
	switch {
	case s.Implement() == movement.BenchEdge: // the bench the hands are on stands on it
		sc.floor = -(hand.Y + benchHigh*sc.k)
	case s.Position() == movement.Plank:
		sc.floor = -(hand.Y + 0.03*sc.k)
	case s.Position() == movement.Hanging || s.Position() == movement.OnBars: // the feet are clear of it
		_, ankle, toe := sc.legs()
		lower := max(0, hand.Y-sc.point(sc.from.Hand).Y, hand.Y-sc.point(sc.to.Hand).Y) // at the low end of the way
		sc.floor = min(sc.floor, -(max(ankle.Y, toe.Y) + lower + 0.08*sc.k))
	}
	return sc
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

func (c *canvas) stroke(class string, width float64, points ...Point) {
	c.shapes = append(c.shapes, Shape{Class: class, Path: polyline(points, false), Width: width})
}

func (c *canvas) area(class string, points ...Point) {
	c.shapes = append(c.shapes, Shape{Class: class, Path: polyline(points, true)})
}

func (c *canvas) disc(class string, at Point, r float64) {
	c.shapes = append(c.shapes, Shape{Class: class, Path: disc(at, r)})
}

func (p Point) plus(x, y float64) Point { return Point{p.X + x, p.Y + y} }

// hip is where the legs begin.
func (sc *scene) hip() Point { return sc.onTrunk(0, -hipDown) }

// limb draws the arm in one posture.
func (sc *scene) limb(l *arm.Limb, class string) {
	k := sc.k
	shoulder, elbow, hand := sc.point(arm.Vec{}), sc.point(l.Elbow), sc.point(l.Hand)
	sc.stroke(class, 0.095*k, shoulder, elbow)
	sc.stroke(class, 0.07*k, elbow, hand)
	sc.disc(class+"-hand", hand, 0.042*k)
	sc.disc(class+"-joint", elbow, 0.018*k)
}
