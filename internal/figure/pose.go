package figure

import (
	"fmt"
	"math"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// Shape is one stroke or area of the pose figure. A width draws the path as a
// stroke with round ends, none fills it.
type Shape struct {
	Class string  `json:"class"` // what it shows: body, bench, floor, cable, arm, ghost, weight …
	Path  Path    `json:"path"`
	Width float64 `json:"width,omitempty"` // m
	// Of a belly: whose it is, how far it is filled, 0…1, and whether it is slack.
	Head  string  `json:"head,omitempty"`
	Level float64 `json:"level,omitempty"`
	Slack bool    `json:"slack,omitempty"`
}

// Handle is a place of the figure that can be grabbed to turn a setting. Its
// track lists where it would be for every value the setting can take, so that
// dragging it needs no computation.
type Handle struct {
	Key   movement.Key `json:"key"`
	Label string       `json:"label"`
	At    Point        `json:"at"`
	Track []Stop       `json:"track"`
}

// Stop is one value of a setting and where its handle is then.
type Stop struct {
	Value float64 `json:"value"`
	At    Point   `json:"at"`
}

// Pose is the side view of a set-up, in metres from the shoulder, y down.
type Pose struct {
	Box     [4]float64 `json:"box"` // x, y, width, height
	Shapes  []Shape    `json:"shapes"`
	Path    Path       `json:"path"` // the hand's way
	Hardest *Point     `json:"hardest,omitempty"`
	Handles []Handle   `json:"handles"`
	Text    string     `json:"text"`
	Close   *CloseUp   `json:"close,omitempty"` // the arm by itself; absent: it is in the figure
}

// Fill is how far each head is filled, 0…1.
type Fill = [arm.HeadCount]float64

// MakePose draws a set-up for a body to be turned, the arm by itself beside it, its heads filled so far
// (nil: not at all); the profile, where there is one, marks the hardest place.
func MakePose(s movement.SetUp, body arm.Body, p *effort.Profile, fill *Fill) Pose {
	out := makePose(s, body, p, nil, handles(s, body), true)
	out.closeUp(s, body, fill)
	return out
}

// MakeLookedAt is the same to be only looked at, without anything to grab.
func MakeLookedAt(s movement.SetUp, body arm.Body, p *effort.Profile, fill *Fill) Pose {
	out := makePose(s, body, p, nil, []Handle{}, true)
	out.closeUp(s, body, fill)
	return out
}

// Card is the figure as small as on a card: the arm from within is in it, not beside it.
type Card struct {
	Box    [4]float64 `json:"box"`
	Shapes []Shape    `json:"shapes"`
	Text   string     `json:"text"`
}

// MakeCard draws a set-up in small.
func MakeCard(s movement.SetUp, body arm.Body, fill *Fill) Card {
	p := makePose(s, body, nil, fill, []Handle{}, false)
	return Card{p.Box, p.Shapes, p.Text}
}

func (p *Pose) closeUp(s movement.SetUp, body arm.Body, fill *Fill) {
	sc := newScene(s, body)
	held, _ := sc.held()
	c := MakeCloseUp(body, held, sc.e.TrunkLean, fill)
	p.Close = &c
}

// Mirror turns a figure round: the left arm is the nearer one. Only what has no handles is turned.
func (p *Pose) Mirror() {
	flip := func(path *Path) {
		points := make([]Point, len(path.Points))
		for i, at := range path.Points {
			points[i] = Point{-at.X, at.Y}
		}
		path.Points = points
	}
	for i := range p.Shapes {
		flip(&p.Shapes[i].Path)
	}
	flip(&p.Path)
	if p.Hardest != nil {
		p.Hardest = &Point{-p.Hardest.X, p.Hardest.Y}
	}
	p.Box[0] = round(-p.Box[0] - p.Box[2])
	if p.Close != nil {
		for i := range p.Close.Shapes {
			flip(&p.Close.Shapes[i].Path)
			if p.Close.Shapes[i].Class == "down-word" { // it is still read from left to right
				p.Close.Shapes[i].Path.Points[0].X -= downWide
			}
		}
		p.Close.Box[0] = round(-p.Close.Box[0] - p.Close.Box[2])
	}
}

func makePose(s movement.SetUp, body arm.Body, p *effort.Profile, levels *Fill, grabbed []Handle, plain bool) Pose {
	sc := newScene(s, body)
	sc.plain = plain
	sc.furniture()
	sc.person()
	sc.inFront()
	if held, _ := sc.held(); sc.hangs() { // drawn at one place: the body moves, not the hand
		sc.within(held, levels)
		sc.hung()
	} else {
		sc.limb(&sc.from, "ghost")
		sc.load(&sc.from, "ghost-weight")
		sc.within(sc.e.To, levels)
		sc.load(&sc.to, "weight")
	}
	out := Pose{Shapes: sc.shapes, Text: sc.text()}
	var way []Point
	for i := range effort.Samples {
		l := body.Place(sc.e.From.Between(sc.e.To, float64(i)/(effort.Samples-1)))
		way = append(way, sc.point(l.Hand))
	}
	if !sc.hangs() {
		out.Path = polyline(way, false)
	}
	if p != nil {
		at := way[p.Hardest]
		out.Hardest = &Point{round(at.X), round(at.Y)}
	}
	out.Handles = grabbed
	out.Box = sc.box(way, out.Handles)
	return out
}

// spot is where a setting is grabbed, false when it cannot be seen from the side.
func (sc *scene) spot(key movement.Key) (Point, bool) {
	pulley := sc.pulley()
	switch key {
	case movement.ElbowFrom:
		return sc.point(sc.from.Hand), true
	case movement.ElbowTo:
		return sc.point(sc.to.Hand), true
	case movement.ShoulderTo:
		return sc.point(sc.to.Elbow), true
	case movement.Tilt, movement.Depth:
		return sc.point(sc.from.Elbow), true
	case movement.PadSlope:
		return sc.point(sc.from.Elbow), true
	case movement.Lean:
		return sc.hip(), true
	case movement.Bench:
		if sc.setUp.Position() == movement.ChestSupported {
			return sc.onTrunk(padOff, -0.50), true
		}
		return sc.onTrunk(-padOff, -0.55), true
	case movement.PulleyHeight:
		return pulley, true
	case movement.PulleyDistance:
		if sc.setUp.Movement.Setting(movement.PulleyHeight) != nil {
			return Point{pulley.X, -sc.floor - 0.06}, true
		}
		return pulley, true
	}
	return Point{}, false
}

// handles makes the handles of a set-up with their tracks.
func handles(s movement.SetUp, body arm.Body) []Handle {
	out := []Handle{}
	here := newScene(s, body)
	for i := range s.Movement.Settings {
		setting := &s.Movement.Settings[i]
		at, ok := here.spot(setting.Key)
		if !ok {
			continue
		}
		h := Handle{Key: setting.Key, Label: setting.Label, At: Point{round(at.X), round(at.Y)}, Track: []Stop{}}
		for _, v := range setting.Steps() {
			there, err := s.With(setting.Key, movement.Num(v))
			if err != nil {
				continue
			}
			p, _ := newScene(there, body).spot(setting.Key)
			h.Track = append(h.Track, Stop{v, Point{round(p.X), round(p.Y)}})
		}
		if len(h.Track) > 1 {
			out = append(out, h)
		}
	}
	return out
}

// box frames what matters (head, trunk, the hand's way, bench or floor) for the
// set-up and for both ends of every setting, so that the picture does not jump
// while one of them is dragged.
func (sc *scene) box(way []Point, here []Handle) [4]float64 {
	lo, hi := Point{math.Inf(1), math.Inf(1)}, Point{math.Inf(-1), math.Inf(-1)}
	see := func(p Point, margin float64) {
		lo = Point{min(lo.X, p.X-margin), min(lo.Y, p.Y-margin)}
		hi = Point{max(hi.X, p.X+margin), max(hi.Y, p.Y+margin)}
	}
	for _, p := range way {
		if !sc.hangs() {
			see(p, 0.16)
		}
	}
	for _, h := range here {
		for _, stop := range h.Track {
			see(stop.At, 0.1)
		}
	}
	scenes := []*scene{sc}
	for i := range sc.setUp.Movement.Settings {
		if len(here) == 0 { // it is only looked at: nothing is dragged
			break
		}
		if steps := sc.setUp.Movement.Settings[i].Steps(); len(steps) > 0 {
			for _, end := range []float64{steps[0], steps[len(steps)-1]} {
				if s, err := sc.setUp.With(sc.setUp.Movement.Settings[i].Key, movement.Num(end)); err == nil {
					scenes = append(scenes, newScene(s, sc.body))
				}
			}
		}
	}
	for _, scene := range scenes {
		see(scene.onTrunk(0.03, 0.245), 0.13*sc.k)
		see(scene.hip(), 0.12*sc.k)
		knee, ankle, toe := scene.legs()
		for _, p := range []Point{knee, ankle, toe} {
			see(p, 0.08*sc.k)
		}
		_, held := scene.held()
		see(scene.point(held.Hand), 0.1)
		see(Point{scene.hip().X, -scene.floor}, 0.03)
		if len(scene.shapes) == 0 {
			scene.furniture()
		}
		for i := range scene.shapes {
			if s := &scene.shapes[i]; s.Class != "floor" {
				for _, p := range s.Path.Points {
					see(p, max(s.Width/2, s.Path.R)+0.01)
				}
			}
		}
	}
	return [4]float64{round(lo.X), round(lo.Y), round(hi.X - lo.X), round(hi.Y - lo.Y)}
}

// text tells the picture in words.
func (sc *scene) text() string {
	how := map[movement.Position]string{
		movement.Standing: "Standing", movement.Kneeling: "Kneeling", movement.Seated: "Seated", movement.Reclined: "Reclined on a bench",
		movement.ChestSupported: "Chest on an inclined bench",
		movement.OnBench:        "Lying on a bench", movement.OnFloor: "Lying on the floor", movement.OnBars: "On dip bars",
		movement.Hanging: "Hanging", movement.Plank: "Hands on the floor",
	}[sc.setUp.Position()]
	text := how
	if sc.setUp.Position() == movement.Standing && sc.e.TrunkLean != 0 {
		text += fmt.Sprintf(", leaning %.0f° forward", sc.e.TrunkLean)
	}
	place := func(s float64) string {
		switch {
		case s < -0.5:
			return fmt.Sprintf("%.0f° behind the trunk", -s)
		case s <= 0.5:
			return "along the trunk"
		}
		return fmt.Sprintf("%.0f° in front of the trunk", s)
	}
	text += ", upper arm " + place(sc.e.From.ShoulderElevation)
	if sc.e.To.ShoulderElevation != sc.e.From.ShoulderElevation {
		text += ", ending " + place(sc.e.To.ShoulderElevation)
	}
	text += fmt.Sprintf("; the elbow goes from %.0f° to %.0f°", sc.e.From.ElbowFlexion, sc.e.To.ElbowFlexion)
	if sc.e.Load.Kind == effort.Cable {
		height := "above"
		if sc.e.Load.Pulley[1] < 0 {
			height = "below"
		}
		side := "in front"
		if sc.e.Load.Pulley[0] < 0 {
			side = "behind"
		}
		text += fmt.Sprintf(
			"; the pulley is %.2f m %s and %.2f m %s the shoulder",
			math.Abs(sc.e.Load.Pulley[0]),
			side,
			math.Abs(sc.e.Load.Pulley[1]),
			height,
		)
	}
	if !sc.setUp.Movement.Computed() {
		text += "; drawn, not computed"
	}
	return text
}
