package figure

import (
	"math"

	"musculus/internal/core/arm"
)

// This file draws the arm from within: bones, and the seven heads as bellies with tendons on
// paths over them. A belly is as long along its path as the model says that its fibres are, and
// as thick as its volume leaves; what is left of the path is tendon. Places of bones and
// attachments are of this drawing, in parts of the upper arm's length; they follow no plate.

// stations are the places along a belly where its outline is drawn; equal in every still, so
// that one can be drawn between two.
const stations = 8

// route is where a head runs, in parts of the upper arm's length, x forward, y up from the shoulder
// (along the humerus from it downward is negative), z outward.
type route struct {
	home   float64 // half of its greatest thickness at its reference length
	long   float64 // of the belly at the reference length
	anchor float64 // down the humerus: the belly's end that stays; 0: beside its origin
	distal bool    // that end is the lower one
}

// routes are those of the heads, by their index.
var routes = [arm.HeadCount]route{
	arm.BicepsLong:      {home: 0.083, long: 0.460, anchor: 0.27},
	arm.BicepsShort:     {home: 0.076, long: 0.445, anchor: 0.27},
	arm.Brachialis:      {home: 0.071, long: 0.338, anchor: 0.515},
	arm.Brachioradialis: {home: 0.052, long: 0.460},
	arm.TricepsLong:     {home: 0.085, long: 0.415, anchor: 0.80, distal: true},
	arm.TricepsLateral:  {home: 0.073, long: 0.369, anchor: 0.80, distal: true},
	arm.TricepsMedial:   {home: 0.059, long: 0.290, anchor: 0.87, distal: true},
}

// reference is the posture of the fibre lengths that routes are measured at.
var reference = arm.Posture{ElbowFlexion: 20, ForearmRotation: 80}

// slackUnder is the length, over the best, under which a belly is drawn no shorter: the tendon
// takes the rest.
const slackUnder = 0.5

// Belly is one head in one posture.
type Belly struct {
	Line   [stations]arm.Vec // its middle, from the upper end, m
	Half   [stations]float64 // half its thickness there, m
	Upper  []arm.Vec         // the tendon to its origin
	Lower  []arm.Vec         // and to its insertion
	Slack  bool
	Length float64 // along the path, m
}

// Within is the arm from within, in the trunk frame, m.
type Within struct {
	Shoulder, Elbow, Wrist, Hand arm.Vec
	Ulna, Radius                 [2]arm.Vec
	Bellies                      [arm.HeadCount]Belly
}

// frame is the upper arm's: places on the humerus and on the forearm to the trunk frame.
type frame struct {
	unit                 float64 // the upper arm's length, m
	x, y, z              arm.Vec
	elbow                arm.Vec
	along, bent, outward arm.Vec // the forearm: toward the hand, forward of it, outward
	thumb                arm.Vec
	fore                 float64 // elbow to wrist, m
	palm                 float64 // 0 palm down … 1 palm up
}

// frameOf places the bones of a posture.
func frameOf(b arm.Body, p arm.Posture) frame {
	l := b.Place(p)
	f := frame{unit: b.UpperArm(), elbow: l.Elbow}
	f.y = l.Elbow.Scale(-1 / f.unit)
	f.along = l.Hand.Sub(l.Elbow)
	f.fore = f.along.Norm() * 0.80
	f.along = f.along.Scale(1 / f.along.Norm())
	sin, cos := math.Sincos(arm.Radians(p.ElbowFlexion))
	f.z = hingeOf(b, p)
	f.x = f.y.Cross(f.z)
	f.bent = f.x.Scale(cos).Add(f.y.Scale(sin))
	f.outward = f.z
	turn := arm.Radians(p.ForearmRotation)
	f.thumb = f.bent.Scale(math.Cos(turn)).Add(f.z.Scale(math.Sin(turn)))
	f.palm = (p.ForearmRotation + 80) / 160
	return f
}

// hingeOf is the axis of the elbow, pointing outward.
func hingeOf(b arm.Body, p arm.Posture) arm.Vec {
	square := p
	square.ElbowFlexion = 90
	l := b.Place(square)
	forward := l.Hand.Sub(l.Elbow)
	down := l.Elbow
	z := forward.Cross(down.Scale(-1))
	return z.Scale(1 / z.Norm())
}

// on is a place on the humerus: forward, down from the shoulder, outward, in parts of its length.
func (f *frame) on(forward, down, outward float64) arm.Vec {
	return f.x.Scale(forward * f.unit).Add(f.y.Scale(-down * f.unit)).Add(f.z.Scale(outward * f.unit))
}

// onForearm is a place on the forearm: along it from the elbow, forward of it, in parts of the upper arm.
func (f *frame) onForearm(along, forward float64) arm.Vec {
	return f.elbow.Add(f.along.Scale(along * f.unit)).Add(f.bent.Scale(forward * f.unit))
}

// trunkAt is a place on the shoulder blade, which stays with the trunk.
func (f *frame) trunkAt(forward, up, outward float64) arm.Vec {
	return arm.Vec{forward * f.unit, up * f.unit, outward * f.unit}
}

// round the head of the humerus a tendon runs on a sphere of this radius; round the end of the
// elbow on an arc, in parts of the upper arm.
const (
	headRound  = 0.078
	elbowRound = 0.072
)

// arcOn goes on a sphere round the shoulder from one direction to another.
func arcOn(from, to arm.Vec, r float64) []arm.Vec {
	a, b := from.Scale(1/from.Norm()), to.Scale(1/to.Norm())
	angle := math.Acos(min(1, max(-1, a.Dot(b))))
	var out []arm.Vec
	for k := range 7 {
		t := float64(k) / 6
		if angle < 1e-6 {
			out = append(out, a.Scale(r))
			continue
		}
		v := a.Scale(math.Sin((1-t)*angle) / math.Sin(angle)).Add(b.Scale(math.Sin(t*angle) / math.Sin(angle)))
		out = append(out, v.Scale(r))
	}
	return out
}

// path is where a head runs in a posture, from its origin to its insertion.
func (f *frame) path(h arm.HeadIndex) []arm.Vec {
	tuberosity := f.onForearm(0.135, 0.012+0.030*f.palm)
	crook := func(points []arm.Vec, via, to arm.Vec) []arm.Vec { // over the front of the elbow, as far as it stands in the way
		last := points[len(points)-1]
		way := to.Sub(last)
		along := min(0.95, max(0.05, via.Sub(last).Dot(way)/way.Dot(way)))
		on := last.Add(way.Scale(along))
		if out := via.Sub(on).Dot(f.x); out > 0 {
			points = append(points, on.Add(f.x.Scale(out)))
		}
		return append(points, to)
	}
	switch h {
	case arm.BicepsLong:
		points := arcOn(f.trunkAt(0.01, 1, 0.1), f.on(1, 0.15, 0.25), headRound*f.unit)
		points = append(points, f.on(0.086, 0.27, 0.03), f.on(0.100, 0.52, 0.03))
		return crook(points, f.on(0.100, 0.88, 0.01), tuberosity)
	case arm.BicepsShort:
		points := []arm.Vec{f.trunkAt(0.10, 0.015, -0.08), f.on(0.112, 0.27, -0.035), f.on(0.148, 0.52, -0.03)}
		return crook(points, f.on(0.100, 0.88, -0.01), tuberosity)
	case arm.Brachialis:
		return crook([]arm.Vec{f.on(0.046, 0.50, 0.01), f.on(0.066, 0.66, 0.01)}, f.on(0.080, 0.93, 0.005), f.onForearm(0.105, 0.030))
	case arm.Brachioradialis:
		wrist := f.elbow.Add(f.along.Scale(f.fore)).Add(f.thumb.Scale(0.055 * f.unit))
		return crook([]arm.Vec{f.on(0.036, 0.72, 0.055)}, f.on(0.085, 0.97, 0.06), wrist)
	case arm.TricepsLong:
		return f.behind(
			[]arm.Vec{
				f.trunkAt(-0.045, -0.085, -0.05),
				f.on(-0.086, 0.14, -0.045),
				f.on(-0.128, 0.36, -0.035),
				f.on(-0.124, 0.56, -0.02),
			},
		)
	case arm.TricepsLateral:
		return f.behind([]arm.Vec{f.on(-0.042, 0.20, 0.04), f.on(-0.062, 0.40, 0.045), f.on(-0.070, 0.58, 0.03)})
	default:
		return f.behind([]arm.Vec{f.on(-0.046, 0.40, 0.0), f.on(-0.062, 0.55, 0), f.on(-0.066, 0.66, 0)})
	}
}

// behind goes on down the back of the humerus and round the end of the elbow to the ulna.
func (f *frame) behind(points []arm.Vec) []arm.Vec {
	points = append(points, f.on(-elbowRound, 0.80, 0.005), f.on(-elbowRound, 0.90, 0))
	sin, cos := f.bent.Dot(f.y), f.bent.Dot(f.x)
	bent := math.Atan2(sin, cos)
	for k := range 7 {
		s, c := math.Sincos(bent * float64(k) / 6)
		points = append(points, f.elbow.Add(f.x.Scale(-c*elbowRound*f.unit)).Add(f.y.Scale(-s*elbowRound*f.unit)))
	}
	return points
}

// LimbWithin draws the arm of a body in a posture from within.
func LimbWithin(b arm.Body, p arm.Posture) Within {
	f := frameOf(b, p)
	wrist := f.elbow.Add(f.along.Scale(f.fore))
	out := Within{Elbow: f.elbow, Wrist: wrist, Hand: b.Place(p).Hand,
		Ulna:   [2]arm.Vec{f.onForearm(-0.02, -0.045), wrist.Sub(f.thumb.Scale(0.050 * f.unit))},
		Radius: [2]arm.Vec{f.onForearm(0.03, 0.025).Add(f.z.Scale(0.03 * f.unit)), wrist.Add(f.thumb.Scale(0.050 * f.unit))}}
	for h := range out.Bellies {
		out.Bellies[h] = f.belly(arm.HeadIndex(h), p)
	}
	return out
}

// belly lays a head on its path.
func (f *frame) belly(h arm.HeadIndex, p arm.Posture) Belly {
	r := &routes[h]
	head := &arm.Heads[h]
	l := head.Length(p)
	out := Belly{Slack: l < slackUnder}
	out.Length = r.long * f.unit * max(l, slackUnder) / head.Length(reference)
	points := f.path(h)
	whole := lengthOf(points)
	end := 0.05 * f.unit // where the end that stays is
	if r.anchor > 0 {
		end = alongOf(points, f.on(0, r.anchor, 0), f)
	}
	from, to := end, end+out.Length
	if r.distal {
		from, to = end-out.Length, end
	}
	const least = 0.012 // of tendon at either end, m
	if to > whole-least {
		from, to = from-(to-whole+least), whole-least
	}
	if from < least {
		from, to = least, to+least-from
	}
	thick := r.home * f.unit * math.Sqrt(r.long*f.unit/out.Length)
	for k := range out.Line {
		t := float64(k) / (stations - 1)
		out.Line[k] = at(points, from+(to-from)*t)
		out.Half[k] = thick * math.Pow(math.Sin(math.Pi*t), 0.8)
	}
	out.Upper = cut(points, 0, from, upperPoints)
	out.Lower = cut(points, to, whole, lowerPoints)
	return out
}

func lengthOf(points []arm.Vec) (sum float64) {
	for i := 1; i < len(points); i++ {
		sum += points[i].Sub(points[i-1]).Norm()
	}
	return sum
}

// alongOf is how far along a path the place is that lies as far down the humerus as a mark.
func alongOf(points []arm.Vec, mark arm.Vec, f *frame) float64 {
	want := -mark.Dot(f.y)
	sum := 0.0
	for i := 1; i < len(points); i++ {
		a, b := -points[i-1].Dot(f.y), -points[i].Dot(f.y)
		long := points[i].Sub(points[i-1]).Norm()
		if a <= want && b >= want && b > a {
			return sum + long*(want-a)/(b-a)
		}
		sum += long
	}
	return sum
}

// at is the place so far along a path.
func at(points []arm.Vec, s float64) arm.Vec {
	for i := 1; i < len(points); i++ {
		d := points[i].Sub(points[i-1])
		long := d.Norm()
		if s <= long || i == len(points)-1 {
			if long == 0 {
				return points[i]
			}
			return points[i-1].Add(d.Scale(s / long))
		}
		s -= long
	}
	return points[0]
}

// The places along a tendon that are drawn: the lower ones go round the elbow.
const upperPoints, lowerPoints = 3, 4

// cut is the part of a path between two places along it, in equally many points.
func cut(points []arm.Vec, from, to float64, n int) []arm.Vec {
	out := make([]arm.Vec, n)
	for k := range out {
		out[k] = at(points, from+(to-from)*float64(k)/float64(n-1))
	}
	return out
}
