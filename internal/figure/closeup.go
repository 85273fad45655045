package figure

import (
	"fmt"
	"math"
	"strings"

	"musculus/internal/core/arm"
)

// CloseUp is the arm by itself, from within: seen from its outer side along the hinge of the
// elbow, the upper arm upright, so that set-ups can be laid side by side, with an arrow to where
// down is in the set-up. Metres, from the shoulder, y toward the elbow.
type CloseUp struct {
	Box    [4]float64 `json:"box"`
	Shapes []Shape    `json:"shapes"`
	Text   string     `json:"text"`
}

// closeBox is what is seen of it, in parts of the upper arm's length: x, y, width, height.
var closeBox = [4]float64{-0.44, -0.34, 1.12, 1.92}

// closeUp draws the arm of a posture by itself.
type closeUp struct {
	canvas
	frame
	u float64
}

// MakeCloseUp draws the arm in a posture, its heads filled so far; the trunk leans so far forward, °.
func MakeCloseUp(body arm.Body, p arm.Posture, lean float64, fill *Fill) CloseUp {
	c := closeUpOf(body, p, lean, fill)
	out := CloseUp{Shapes: c.shapes, Text: closeText(p)}
	for i, x := range closeBox {
		out.Box[i] = round(x * c.u)
	}
	return out
}

func closeUpOf(body arm.Body, p arm.Posture, lean float64, fill *Fill) *closeUp {
	c := &closeUp{frame: frameOf(body, p), u: body.UpperArm()}
	w := LimbWithin(body, p)
	wrist, hand := c.flat(w.Wrist), c.flat(w.Hand)
	c.skin(&w, wrist, hand)
	c.blade()
	c.inside(&w, c.u, c.flat, fill, true)
	c.fist(wrist, hand, 0.105*c.u)
	c.letters()
	c.down(arm.LeanTrunk(lean).FromWorld(arm.Vec{0, -1, 0}))
	return c
}

// flat puts a place of the trunk frame on the paper.
func (c *closeUp) flat(v arm.Vec) Point { return Point{v.Dot(c.x), -v.Dot(c.y)} }

// skinStations are the places down the upper arm where its outline is drawn.
const skinStations = 10

// skin is the outline of the arm: as far out as the bellies under it stand.
func (c *closeUp) skin(w *Within, wrist, hand Point) {
	const least, over = 0.115, 0.018 // of skin beside the bone, of skin over a belly
	var front, back []Point
	for k := range skinStations {
		y := c.u * (0.02 + 0.96*float64(k)/(skinStations-1))
		ahead, behind := 0.0, 0.0
		for h := range w.Bellies {
			b := &w.Bellies[h]
			if arm.HeadIndex(h) == arm.Brachioradialis { // it lies on the forearm
				continue
			}
			for i := 1; i < stations; i++ {
				p, q := c.flat(b.Line[i-1]), c.flat(b.Line[i])
				if p.Y == q.Y || (y-p.Y)*(y-q.Y) > 0 {
					continue
				}
				t := (y - p.Y) / (q.Y - p.Y)
				x, half := p.X+t*(q.X-p.X), b.Half[i-1]+t*(b.Half[i]-b.Half[i-1])
				there := min(1, 2.5*half/b.Half[stations/2]) // it goes out with the belly's end
				ahead, behind = max(ahead, there*(x+half-(least-over)*c.u)), max(behind, there*(half-x-(least-over)*c.u))
			}
		}
		front, back = append(front, Point{least*c.u + ahead, y}), append(back, Point{-least*c.u - behind, y})
	}
	edge := append([]Point{{0.10 * c.u, -0.10 * c.u}}, front...)
	for k := len(back) - 1; k >= 0; k-- {
		edge = append(edge, back[k])
	}
	edge = append(edge, Point{-0.12 * c.u, -0.10 * c.u})
	elbow := c.flat(w.Elbow)
	c.disc("skin", elbow, 0.15*c.u)
	c.area("skin", tapered(elbow, wrist, 0.150*c.u, 0.085*c.u)...)
	c.stroke("skin", 0.13*c.u, wrist, hand)
	path := polyline(edge, true)
	path.Smooth = true
	c.shapes = append(c.shapes, Shape{Class: "skin", Path: path})
	c.fold(elbow, wrist)
}

// fold is the crease in the crook of the elbow: the longer, the more it is bent.
func (c *closeUp) fold(elbow, wrist Point) {
	dx, dy := wrist.X-elbow.X, wrist.Y-elbow.Y
	long := math.Hypot(dx, dy)
	dx, dy = dx/long, dy/long
	open := math.Sqrt((1 + dy) / 2) // the sine of half the angle between forearm and upper arm
	x, y := dx+1e-3, dy-1           // the way to the crook, between them
	across := math.Hypot(x, y)
	x, y = x/across, y/across
	crook := min(0.42, 0.125/max(open, 0.2)) * c.u // how far the skins meet from the elbow's middle
	deep := 0.26 * c.u * max(0, 0.95-open)
	c.stroke("crease", 0.012*c.u, elbow.plus(crook*x, crook*y), elbow.plus((crook-deep)*x, (crook-deep)*y))
}

// blade is the shoulder blade, which stays with the trunk: a long head crosses to it.
func (c *closeUp) blade() {
	at := func(forward, up float64) Point { return c.flat(c.trunkAt(forward, up, -0.05)) }
	c.shaft(at(-0.03, -0.02), at(-0.10, -0.26), c.u, 0.050, 0.042, 0.034, 0.020, 0.010)
	var hook []Point
	for _, p := range [][2]float64{{-0.03, 0.04}, {0.03, 0.085}, {0.085, 0.065}, {0.115, 0.005}, {0.09, 0.0}, {0.06, 0.035}, {0.0, 0.02}} {
		hook = append(hook, at(p[0], p[1]))
	}
	var roof []Point
	for _, p := range [][2]float64{{-0.10, 0.03}, {-0.09, 0.12}, {-0.03, 0.165}, {0.04, 0.165}, {0.045, 0.135},
		{-0.03, 0.125}, {-0.055, 0.09}, {-0.06, 0.03}} {
		roof = append(roof, at(p[0], p[1]))
	}
	for _, of := range [][]Point{hook, roof} {
		path := polyline(of, true)
		path.Smooth = true
		c.shapes = append(c.shapes, Shape{Class: "shaft", Path: path})
	}
}

// letterAt is where a head's letters stand: so far from the middle of its belly to one of its outline's
// points, that those of neighbours do not cover each other.
var letterAt = [arm.HeadCount]struct {
	point int
	far   float64
}{
	arm.BicepsLong: {3, 0.3}, arm.BicepsShort: {11, 1.0}, arm.Brachialis: {0, 0}, arm.Brachioradialis: {7, 0.15},
	arm.TricepsLong: {2, 0.85}, arm.TricepsLateral: {0, 0.1}, arm.TricepsMedial: {7, 0.5},
}

// letters are where the heads' codes are written, above everything else.
func (c *closeUp) letters() {
	for _, s := range c.shapes {
		if s.Head == "" {
			continue
		}
		head, _ := arm.HeadByID(s.Head)
		var middle Point
		for _, p := range s.Path.Points {
			middle = middle.plus(p.X/float64(len(s.Path.Points)), p.Y/float64(len(s.Path.Points)))
		}
		at := toward(middle, s.Path.Points[letterAt[head].point], letterAt[head].far)
		c.shapes = append(c.shapes, Shape{Class: "letter", Path: polyline([]Point{at}, false), Head: s.Head, Level: s.Level})
	}
}

// downWide is how wide the word at the arrow is at most, m.
const downWide = 0.08

// down is an arrow to where down is, at the edge of the picture.
func (c *closeUp) down(d arm.Vec) {
	at, to := c.flat(d), Point{-0.34 * c.u, -0.22 * c.u}
	x, y := 0.075*c.u*at.X, 0.075*c.u*at.Y
	c.stroke("down", 0.016*c.u, to.plus(-x, -y), to.plus(x, y))
	c.shapes = append(c.shapes, Shape{Class: "down-word", Path: polyline([]Point{to.plus(-0.09*c.u, 0.15*c.u)}, false)})
	c.stroke("down", 0.016*c.u, to.plus(0.4*x-0.5*y, 0.4*y+0.5*x), to.plus(x, y), to.plus(0.4*x+0.5*y, 0.4*y-0.5*x))
}

// closeText tells it in words: the bend, how long each head is, what is slack.
func closeText(p arm.Posture) string {
	heads := make([]string, arm.HeadCount)
	for h := range arm.Heads {
		l := arm.Heads[h].Length(p)
		heads[h] = fmt.Sprintf("%s %.2f", arm.Heads[h].Name, l)
		if l < slackUnder {
			heads[h] += " (slack)"
		}
	}
	return fmt.Sprintf("The arm from within, elbow at %.0f°. Lengths, of each head's best: %s", p.ElbowFlexion, strings.Join(heads, ", "))
}
