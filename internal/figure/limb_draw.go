package figure

import (
	"math"

	"musculus/internal/core/arm"
)

// drawnOrder is from the deepest head to the one nearest to who looks at the outer side of the
// arm; the humerus lies under the brachialis, the forearm's bones under the brachioradialis.
var drawnOrder = []arm.HeadIndex{
	arm.TricepsLong, arm.TricepsMedial, arm.BicepsShort, arm.Brachialis, arm.BicepsLong, arm.TricepsLateral, arm.Brachioradialis,
}

// Widths of bones and tendons, in parts of the upper arm's length.
const (
	boneWide     = 0.062
	foreboneWide = 0.038
	tendonWide   = 0.020
)

// within draws the arm of a posture from within; levels are how far each head is filled, 0…1,
// nil for none.
func (sc *scene) within(p arm.Posture, levels *[arm.HeadCount]float64) {
	w := LimbWithin(sc.body, p)
	u := sc.body.UpperArm()
	shoulder, elbow, wrist, hand := sc.point(w.Shoulder), sc.point(w.Elbow), sc.point(w.Wrist), sc.point(w.Hand)
	sc.stroke("halo", 0.36*u, shoulder, elbow, wrist)
	sc.stroke("skin", 0.31*u, shoulder, elbow)
	sc.area("skin", tapered(elbow, wrist, 0.125*u, 0.075*u)...)
	sc.stroke("skin", 0.13*u, wrist, hand)
	for _, h := range drawnOrder {
		switch h {
		case arm.BicepsShort:
			sc.stroke("bone", boneWide*u, sc.toward(shoulder, elbow, 0.05), sc.toward(elbow, shoulder, 0.04))
			sc.disc("bone", shoulder, headRound*u*0.9)
			sc.disc("bone", elbow, 0.062*u)
		case arm.Brachioradialis:
			sc.stroke("bone", foreboneWide*u, sc.point(w.Ulna[0]), sc.point(w.Ulna[1]))
			sc.stroke("bone", foreboneWide*u, sc.point(w.Radius[0]), sc.point(w.Radius[1]))
		}
		b := &w.Bellies[h]
		for _, tendon := range [][]arm.Vec{b.Upper, b.Lower} {
			sc.stroke("tendon", tendonWide*u, sc.points(tendon)...)
		}
		level := 0.0
		if levels != nil {
			level = levels[h]
		}
		sc.shapes = append(sc.shapes, Shape{Class: "belly", Path: polyline(sc.outline(b), true), Head: arm.Heads[h].ID,
			Level: round2(level), Slack: b.Slack})
	}
	sc.fist(wrist, hand, 0.105*u)
}

// fist is a hand round what it holds: knuckles toward who looks, the thumb over them.
func (sc *scene) fist(wrist, hand Point, r float64) {
	dx, dy := hand.X-wrist.X, hand.Y-wrist.Y
	long := max(math.Hypot(dx, dy), 1e-9)
	dx, dy = dx/long, dy/long
	at := func(along, across float64) Point { return hand.plus(r*(along*dx-across*dy), r*(along*dy+across*dx)) }
	sc.area("hand", at(-0.9, -0.55), at(-0.2, -0.95), at(0.75, -0.8), at(1.05, 0), at(0.75, 0.8), at(-0.2, 0.95), at(-0.9, 0.55))
	sc.stroke("crease", 0.05*r, at(0.3, -0.3), at(0.98, -0.25)) // between the fingers
	sc.stroke("thumb", 0.42*r, at(-0.55, -0.6), at(0.2, -0.15), at(0.45, 0.35))
}

func round2(x float64) float64 { return math.Round(100*x) / 100 }

func (sc *scene) points(of []arm.Vec) []Point {
	out := make([]Point, len(of))
	for i, v := range of {
		out[i] = sc.point(v)
	}
	return out
}

// toward is a place a part of the way from one point to another.
func (sc *scene) toward(a, b Point, t float64) Point {
	return Point{a.X + (b.X-a.X)*t, a.Y + (b.Y-a.Y)*t}
}

// tapered is the outline of a limb that gets thinner from one end to the other.
func tapered(a, b Point, wide, narrow float64) []Point {
	dx, dy := b.X-a.X, b.Y-a.Y
	long := math.Hypot(dx, dy)
	if long < 1e-6 {
		return []Point{a, a, b, b}
	}
	nx, ny := -dy/long, dx/long
	mid := Point{a.X + 0.3*dx, a.Y + 0.3*dy}
	return []Point{a.plus(nx*wide, ny*wide), mid.plus(nx*wide*1.06, ny*wide*1.06), b.plus(nx*narrow, ny*narrow),
		b.plus(-nx*narrow, -ny*narrow), mid.plus(-nx*wide*1.06, -ny*wide*1.06), a.plus(-nx*wide, -ny*wide)}
}

// outline is a belly's edge on the paper: down one side of its middle and up the other.
func (sc *scene) outline(b *Belly) []Point {
	var middle [stations]Point
	for k := range middle {
		middle[k] = sc.point(b.Line[k])
	}
	var left, right []Point
	ends := Point{middle[stations-1].X - middle[0].X, middle[stations-1].Y - middle[0].Y}
	for k := 1; k < stations-1; k++ {
		dx, dy := middle[k+1].X-middle[k-1].X, middle[k+1].Y-middle[k-1].Y
		long := math.Hypot(dx, dy)
		if long < 1e-4 { // it points at who looks: as the whole of it lies
			dx, dy = ends.X, ends.Y
			long = max(math.Hypot(dx, dy), 1e-9)
		}
		nx, ny := -dy/long*b.Half[k], dx/long*b.Half[k]
		left = append(left, middle[k].plus(nx, ny))
		right = append(right, middle[k].plus(-nx, -ny))
	}
	out := append([]Point{middle[0]}, left...)
	out = append(out, middle[stations-1])
	for k := len(right) - 1; k >= 0; k-- {
		out = append(out, right[k])
	}
	return out
}
