package figure

import (
	"fmt"
	"math"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// Stills are a repetition in as many pictures as it is sampled in, with the same points in each,
// so that what draws them can go from one to the next: what stays once, what moves as the changes
// of its points.
type Stills struct {
	Box     [4]float64  `json:"box"`
	Behind  []Shape     `json:"behind"`  // benches and columns
	Far     int         `json:"far"`     // so many parts move behind who is drawn: the farther arm
	Stays   []Shape     `json:"stays"`   // the person
	Parts   []StillPart `json:"parts"`   // in the order they are drawn
	Close   int         `json:"close"`   // from this part on it is the arm by itself
	ArmBox  [4]float64  `json:"arm_box"` // in which that is seen
	Unit    float64     `json:"unit"`    // m, of the numbers below
	First   []int       `json:"first"`   // x and y of every point of every part
	Bends   [][]int     `json:"bends"`   // what is added, for each picture after, to what was added for the one before
	Tension [][]int     `json:"tension"` // of each head at each, hundredths of the most of the repetition
	Slack   []int       `json:"slack"`   // heads that are slack, a bit each
	Words   []string    `json:"words"`   // each in a line of words
	Tempo   [4]float64  `json:"tempo"`   // s: down, hold, up, hold
	Says    string      `json:"says"`    // of a fault: what is seen and what it costs; empty for none
}

// StillPart is one line or area that moves.
type StillPart struct {
	Class  string  `json:"class"`
	Points int     `json:"points"`
	Width  float64 `json:"width,omitempty"`
	R      float64 `json:"r,omitempty"` // of a disc round its only point
	Closed bool    `json:"closed,omitempty"`
	Smooth bool    `json:"smooth,omitempty"` // round its points, not through them
	Head   string  `json:"head,omitempty"`
}

// stillUnit is how fine places are told, m.
const stillUnit = 0.0005

// usualTempo is how a repetition is played where nobody asked for a tempo, s.
var usualTempo = effort.Tempo{2, 0.4, 1.6, 0.4}

// MakeStills draws the repetition of a set-up for a body; errors are those of its profile. What is
// graded, not computed, has no tension: its heads are filled by what they get.
func MakeStills(s movement.SetUp, body arm.Body, fill *Fill) (*Stills, error) {
	return MakeStillsAs(s, s.EffortFor(body.Stature), body, fill)
}

// MakeStillsAs draws it as it is done otherwise than it is set up: with a fault.
func MakeStillsAs(s movement.SetUp, setup effort.Setup, body arm.Body, fill *Fill) (*Stills, error) {
	rep := effort.WayOf(&setup)
	if s.Movement.Computed() {
		var err error
		if rep, err = effort.RepOf(body, &setup); err != nil {
			return nil, err
		}
	}
	sc := sceneOf(s, setup, body)
	sc.plays = true
	sc.furniture()
	out := &Stills{Behind: sc.shapes, Unit: stillUnit, Tempo: usualTempo, Stays: []Shape{}}
	sc.shapes = nil
	if !sc.hangs() {
		sc.person()
	}
	sc.inFront()
	out.Stays = append(out.Stays, sc.shapes...)
	if setup.Tempo.Total() > 0 {
		out.Tempo = setup.Tempo
	}
	out.Box = MakePose(s, body, nil, nil).Box
	for i, x := range closeBox {
		out.ArmBox[i] = round(x * body.UpperArm())
	}
	flat := sc.seenFlat(rep)
	var before, stepped []int
	for i := range rep.Posture {
		now := sceneOf(s, setup, body)
		now.plain = true
		lean := setup.TrunkLean
		if now.hangs() {
			lean += now.bodyAt(sc, rep.Posture[i])
		} else {
			limb := body.Place(rep.Posture[i])
			if s.ArmsInTurn() != 2 {
				now.farArm(&limb)
				out.Far = len(now.shapes)
			}
			now.within(rep.Posture[i], nil)
			now.loadIn(&limb, flat)
		}
		out.Close = len(now.shapes)
		if now.hangs() {
			out.see(now.shapes)
		}
		now.shapes = append(now.shapes, closeUpOf(body, rep.Posture[i], lean, nil).shapes...)
		var places []int
		for k := range now.shapes {
			shape := &now.shapes[k]
			if i == 0 {
				out.Parts = append(out.Parts, StillPart{
					Class: shape.Class, Points: len(shape.Path.Points), Width: round(shape.Width), R: round(shape.Path.R),
					Closed: shape.Path.Closed && shape.Path.R == 0, Smooth: shape.Path.Smooth, Head: shape.Head,
				})
			}
			for _, p := range shape.Path.Points {
				places = append(places, int(math.Round(p.X/stillUnit)), int(math.Round(p.Y/stillUnit)))
			}
		}
		if i == 0 {
			out.First = places
			before, stepped = places, make([]int, len(places))
		}
		bend := make([]int, len(places))
		for k := range bend {
			step := places[k] - before[k]
			bend[k], stepped[k] = step-stepped[k], step
		}
		if i > 0 {
			out.Bends = append(out.Bends, bend)
		}
		before = places
		out.Words = append(out.Words, instantWords(rep, i, s.Movement.Computed(), fill))
	}
	out.pulls(rep, s.Movement.Computed(), fill)
	return out, nil
}

// see has a body that moves stay inside the picture.
func (out *Stills) see(shapes []Shape) {
	const margin = 0.04 // m, of a line's own width
	x, y := out.Box[0], out.Box[1]
	right, low := x+out.Box[2], y+out.Box[3]
	for i := range shapes {
		for _, p := range shapes[i].Path.Points {
			by := max(margin, shapes[i].Path.R)
			x, y, right, low = min(x, p.X-by), min(y, p.Y-by), max(right, p.X+by), max(low, p.Y+margin)
		}
	}
	out.Box = [4]float64{round(x), round(y), round(right - x), round(low - y)}
}

// pulls fills in how hard each head pulls in each picture, and which are slack.
func (out *Stills) pulls(rep *effort.Rep, computed bool, fill *Fill) {
	most := 0.0
	for i := range rep.Tension {
		for _, x := range rep.Tension[i] {
			most = max(most, x)
		}
	}
	for i := range rep.Posture {
		tension, slack := make([]int, arm.HeadCount), 0
		for h := range tension {
			switch {
			case computed:
				tension[h] = int(math.Round(100 * rep.Tension[i][h] / most))
			case fill != nil:
				tension[h] = int(math.Round(100 * fill[h]))
			}
			if rep.Length[i][h] < slackUnder {
				slack |= 1 << h
			}
		}
		out.Tension, out.Slack = append(out.Tension, tension), append(out.Slack, slack)
	}
}

// seenFlat says whether a dumbbell is seen so far from its end that it is drawn as a disc all along.
func (sc *scene) seenFlat(rep *effort.Rep) bool {
	for i := range rep.Posture {
		l := sc.body.Place(rep.Posture[i])
		little := sc.trunk.ToWorld(l.Little)
		if math.Hypot(little[0], little[1]) < 0.4 {
			return true
		}
	}
	return false
}

// loadIn is load for a still: as many lines in each, whichever way the hand turns.
func (sc *scene) loadIn(l *arm.Limb, flat bool) {
	if sc.setUp.Implement() != movement.Dumbbell {
		sc.load(l, "weight")
		return
	}
	at := sc.point(l.Grip(sc.e.GripOffset))
	little := sc.trunk.ToWorld(l.Little)
	if flat {
		sc.dumbbell("weight", at, 0, 0)
		return
	}
	sc.dumbbell("weight", at, little[0], -little[1])
}

// instantWords tell an instant: the bend, who carries most, what is long, what is slack, and how
// hard it is; of graded work only what the arm's place says.
func instantWords(rep *effort.Rep, i int, computed bool, fill *Fill) string {
	var long, slack []string
	lead := arm.HeadIndex(0)
	for h := range arm.Heads {
		head := &arm.Heads[h]
		if rep.Tension[i][h] > rep.Tension[i][lead] {
			lead = arm.HeadIndex(h)
		}
		works := arm.HeadIndex(h).Flexor() == rep.Flexion
		if !computed {
			works = fill != nil && fill[h] > 0
		}
		switch l := rep.Length[i][h]; {
		case l < slackUnder:
			slack = append(slack, head.Code)
		case works && head.Zone(l) == arm.Long:
			long = append(long, head.Code)
		}
	}
	words := fmt.Sprintf("Elbow at %.0f°: ", rep.Elbow[i])
	switch {
	case !computed:
		words += "several joints share it, how hard is not computed"
	case rep.Curve[i] < effort.IdleBelow:
		words += "hardly any demand"
	default:
		words += fmt.Sprintf("%.0f %% of what the muscles can do, most in the %s", 100*rep.Curve[i], arm.Heads[lead].Name)
	}
	if len(long) > 0 {
		words += "; long: " + strings.Join(long, ", ")
	}
	if len(slack) > 0 {
		words += "; slack: " + strings.Join(slack, ", ")
	}
	return words + "."
}
