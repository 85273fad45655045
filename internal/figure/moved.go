package figure

import (
	"math"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
)

// Where the hands stay and the body moves, a repetition is drawn with the body in each of its
// places: hanging and on bars it goes up and down as a whole; with the feet on the floor it turns
// about them.

// bodyAt draws the person in a posture, the hand where it is held, and returns by how much the
// trunk leans further forward than it is set up, °.
func (sc *scene) bodyAt(held *scene, p arm.Posture) float64 {
	_, there := held.held()
	fixed := held.point(there.Hand)
	limb := sc.body.Place(p)
	hand := sc.point(limb.Hand)
	by := Point{fixed.X - hand.X, fixed.Y - hand.Y}
	turned := 0.0
	about := Point{}
	if sc.onFeet() {
		_, _, about = held.legs()
		// Turned until the hand is as high as what it holds; what is left the feet stand nearer or further.
		x, y := hand.X-about.X, hand.Y-about.Y
		far := math.Hypot(x, y)
		to := math.Asin(max(-1, min(1, (fixed.Y-about.Y)/far)))
		if x < 0 {
			to = math.Pi - to
		}
		turned = math.Remainder(to-math.Atan2(y, x), 2*math.Pi)
		by = Point{fixed.X - hand.turned(about, turned).X, 0}
	} else {
		sc.floor = held.floor + by.Y // as it is seen from the body
	}
	if sc.setUp.ArmsInTurn() != 2 {
		sc.farArm(&limb)
	}
	sc.plays = true // the farther arm is there already
	sc.kneePlate(-sc.floor)
	sc.person()
	sc.within(p, nil)
	sc.hung()
	for i := range sc.shapes {
		path := &sc.shapes[i].Path
		for k, at := range path.Points {
			at = at.turned(about, turned)
			path.Points[k] = at.plus(by.X, by.Y)
		}
	}
	return turned * 180 / math.Pi
}

// onFeet says whether the feet stay on the floor while the body turns about them.
func (sc *scene) onFeet() bool {
	return sc.setUp.Position() == movement.Plank || sc.setUp.Implement() == movement.BarFixed
}

// turned is a place turned about another, in radians, from x toward y.
func (p Point) turned(about Point, by float64) Point {
	if by == 0 {
		return p
	}
	sin, cos := math.Sincos(by)
	x, y := p.X-about.X, p.Y-about.Y
	return Point{about.X + x*cos - y*sin, about.Y + x*sin + y*cos}
}
