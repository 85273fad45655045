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

// within draws the arm of a posture: from within, or where it is drawn by itself beside the figure
// only from outside; levels are how far each head is filled, 0…1, nil for none.
func (sc *scene) within(p arm.Posture, levels *Fill) {
	w := LimbWithin(sc.body, p)
	u := sc.body.UpperArm()
	shoulder, elbow, wrist, hand := sc.point(w.Shoulder), sc.point(w.Elbow), sc.point(w.Wrist), sc.point(w.Hand)
	sc.stroke("halo", 0.36*u, shoulder, elbow, wrist)
	sc.stroke("skin", 0.31*u, shoulder, elbow)
	sc.area("skin", tapered(elbow, wrist, 0.125*u, 0.075*u)...)
	sc.stroke("skin", 0.13*u, wrist, hand)
	if !sc.plain {
		sc.inside(&w, u, sc.point, levels, false)
	}
	sc.fist(wrist, hand, 0.105*u)
}

// inside draws bones, tendons and bellies, from the deepest to the nearest; large: with the bones'
// shapes and tendons, and smooth.
func (c *canvas) inside(w *Within, u float64, on func(arm.Vec) Point, levels *Fill, large bool) {
	shoulder, elbow := on(w.Shoulder), on(w.Elbow)
	points := func(of []arm.Vec) []Point {
		out := make([]Point, len(of))
		for i, v := range of {
			out[i] = on(v)
		}
		return out
	}
	for _, h := range drawnOrder {
		switch h {
		case arm.BicepsShort:
			if large {
				c.disc("shaft", shoulder, headRound*u*0.9)
				c.shaft(shoulder, toward(shoulder, elbow, 1.03), u, 0.055, 0.034, 0.029, 0.038, 0.066)
				break
			}
			c.stroke("bone", boneWide*u, toward(shoulder, elbow, 0.05), toward(elbow, shoulder, 0.04))
			c.disc("bone", shoulder, headRound*u*0.9)
			c.disc("bone", elbow, 0.062*u)
		case arm.Brachioradialis:
			if large {
				ulna, radius := points(w.Ulna[:]), points(w.Radius[:])
				c.shaft(toward(ulna[0], ulna[1], -0.04), ulna[1], u, 0.052, 0.036, 0.021, 0.018, 0.020)
				c.shaft(radius[0], radius[1], u, 0.026, 0.020, 0.021, 0.024, 0.034)
				break
			}
			c.stroke("bone", foreboneWide*u, points(w.Ulna[:])...)
			c.stroke("bone", foreboneWide*u, points(w.Radius[:])...)
		}
		b := &w.Bellies[h]
		if large { // on a card they would be thinner than a dot
			c.stroke("tendon", tendonWide*u, points(b.Upper)...)
			c.stroke("tendon", tendonWide*u, points(b.Lower)...)
		}
		level := 0.0
		if levels != nil {
			level = levels[h]
		}
		path := polyline(outline(points(b.Line[:]), &b.Half), true)
		path.Smooth = large
		c.shapes = append(c.shapes, Shape{Class: "belly", Path: path, Head: arm.Heads[h].ID, Level: round2(level), Slack: b.Slack})
	}
}

// shaft is a bone with its ends: half as wide as it says, in parts of the upper arm, at five places
// from one end to the other.
func (c *canvas) shaft(a, b Point, u float64, half ...float64) {
	dx, dy := b.X-a.X, b.Y-a.Y
	long := max(math.Hypot(dx, dy), 1e-9)
	nx, ny := -dy/long*u, dx/long*u
	var left, right []Point
	for k, t := range []float64{-0.02, 0.10, 0.5, 0.90, 1.02} {
		on := toward(a, b, t)
		left, right = append(left, on.plus(nx*half[k], ny*half[k])), append(right, on.plus(-nx*half[k], -ny*half[k]))
	}
	for k := len(right) - 1; k >= 0; k-- {
		left = append(left, right[k])
	}
	path := polyline(left, true)
	path.Smooth = true
	c.shapes = append(c.shapes, Shape{Class: "shaft", Path: path})
}

// fist is a hand round what it holds: knuckles toward who looks, the thumb over them.
func (c *canvas) fist(wrist, hand Point, r float64) {
	dx, dy := hand.X-wrist.X, hand.Y-wrist.Y
	long := max(math.Hypot(dx, dy), 1e-9)
	dx, dy = dx/long, dy/long
	at := func(along, across float64) Point { return hand.plus(r*(along*dx-across*dy), r*(along*dy+across*dx)) }
	c.area("hand", at(-0.9, -0.55), at(-0.2, -0.95), at(0.75, -0.8), at(1.05, 0), at(0.75, 0.8), at(-0.2, 0.95), at(-0.9, 0.55))
	c.stroke("crease", 0.05*r, at(0.3, -0.3), at(0.98, -0.25)) // between the fingers
	c.stroke("thumb", 0.42*r, at(-0.55, -0.6), at(0.2, -0.15), at(0.45, 0.35))
}

func round2(x float64) float64 { return math.Round(100*x) / 100 }

// toward is a place a part of the way from one point to another.
func toward(a, b Point, t float64) Point {
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
func outline(middle []Point, half *[stations]float64) []Point {
	var left, right []Point
	ends := Point{middle[stations-1].X - middle[0].X, middle[stations-1].Y - middle[0].Y}
	for k := 1; k < stations-1; k++ {
		dx, dy := middle[k+1].X-middle[k-1].X, middle[k+1].Y-middle[k-1].Y
		long := math.Hypot(dx, dy)
		if long < 1e-4 { // it points at who looks: as the whole of it lies
			dx, dy = ends.X, ends.Y
			long = max(math.Hypot(dx, dy), 1e-9)
		}
		nx, ny := -dy/long*half[k], dx/long*half[k]
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
