package fitting

import (
	"fmt"
	"math"
	"sort"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/stance"
)

// Shape is what makes a set-up one idea: how much each head gets, at which
// length, and where in the range it is hard.
type Shape struct {
	SetUp    movement.SetUp
	Profile  *effort.Profile // nil for graded movements
	Bias     [arm.HeadCount]float64
	computed bool
}

// ShapeOf computes a set-up's shape under a stance; false when it cannot be
// done.
func ShapeOf(s movement.SetUp, y *effort.Yardstick, st *stance.Stance) (Shape, bool) {
	out := Shape{SetUp: s, computed: s.Movement.Computed()}
	if out.computed {
		p, err := s.Profile(y)
		if err != nil {
			return out, false
		}
		out.Profile = p
	}
	r := stance.Shipped.Read(st, s, out.Profile)
	return ShapeFrom(s, out.Profile, &r), true
}

// ShapeFrom is ShapeOf for a set-up that was profiled and read already; p is nil
// for graded work.
func ShapeFrom(s movement.SetUp, p *effort.Profile, r *stance.Reading) Shape {
	out := Shape{SetUp: s, Profile: p, computed: s.Movement.Computed()}
	for h, b := range r {
		out.Bias[h] = b.Bar
	}
	return out
}

// Weights of the three parts of a distance: biases, mean lengths over the
// head's reach, and the demand curve along the range.
const (
	biasWeight   = 1.0
	lengthWeight = 1.2
	curveWeight  = 0.5
	gradedFar    = 0.9 // between a computed and a graded set-up, of which length and curve are not known
)

// Distance says how far two set-ups are from being one idea; 0 is the same
// profile.
func Distance(a, b *Shape) float64 {
	var bias, length, weight float64
	for h := range a.Bias {
		d := a.Bias[h] - b.Bias[h]
		bias += d * d
		if a.computed && b.computed && a.Profile.Heads[h].Agonist && b.Profile.Heads[h].Agonist {
			reach := arm.Reaches[h]
			w := (a.Profile.Heads[h].Share + b.Profile.Heads[h].Share) / 2
			l := (a.Profile.Heads[h].Mean - b.Profile.Heads[h].Mean) / (reach.Longest - reach.Shortest) * 2
			length += w * l * l
			weight += w
		}
	}
	d := biasWeight * math.Sqrt(bias/2)
	if weight > 0 {
		d += lengthWeight * math.Sqrt(length/weight)
	}
	if a.computed != b.computed {
		return d + gradedFar
	}
	if !a.computed && a.SetUp.Movement.Action != b.SetUp.Movement.Action {
		d += SameIdea // heads alone do not make a dip a press
	}
	if a.computed {
		var curve float64
		for i := range a.Profile.Curve {
			x := a.Profile.Curve[i] - b.Profile.Curve[i]
			curve += x * x
		}
		d += curveWeight * math.Sqrt(curve/effort.Samples) / effort.WorkingEffort
	}
	return d
}

// SameIdea is the distance under which two set-ups are one idea twice.
const SameIdea = 0.21

// Equivalent is a set-up near another, with what is kept and what is lost.
type Equivalent struct {
	Shape    Shape
	Distance float64
	Keeps    string
	Loses    string
}

// Equivalents lists the nearest shapes to one among others, at most n, leaving
// out the set-up itself and whatever allowed refuses (nil allows all).
func Equivalents(of *Shape, others []Shape, n int, allowed func(movement.SetUp, *effort.Profile) bool) []Equivalent {
	var out []Equivalent
	for i := range others {
		o := &others[i]
		if o.SetUp.Key() == of.SetUp.Key() || allowed != nil && !allowed(o.SetUp, o.Profile) {
			continue
		}
		out = append(out, Equivalent{Shape: *o, Distance: Distance(of, o)})
	}
	sort.SliceStable(out, func(i, j int) bool { return out[i].Distance < out[j].Distance })
	out = out[:min(n, len(out))]
	for i := range out {
		out[i].Keeps, out[i].Loses = compare(of, &out[i].Shape)
	}
	return out
}

// How much a number must change to be worth a word.
const (
	biasWord   = 0.08
	lengthWord = 0.05
)

// compare says what going from a to b keeps and loses, a sentence each.
func compare(a, b *Shape) (keeps, loses string) {
	var kept, lost []string
	heads := 0
	for h := range a.Bias {
		name := arm.Heads[h].Name
		if a.Bias[h] < 0.3 && b.Bias[h] < 0.3 {
			continue
		}
		heads++
		switch d := b.Bias[h] - a.Bias[h]; {
		case d < -biasWord:
			lost = append(lost, fmt.Sprintf("%s %.2f → %.2f", name, a.Bias[h], b.Bias[h]))
		default:
			kept = append(kept, name)
		}
	}
	if len(kept) == heads && heads > 1 {
		kept = []string{"every head"}
	}
	if a.Profile != nil && b.Profile != nil {
		var longer, shorter []string
		for h := range a.Bias {
			pa, pb := &a.Profile.Heads[h], &b.Profile.Heads[h]
			if !pa.Agonist || !pb.Agonist {
				continue
			}
			switch d := pb.Mean - pa.Mean; {
			case d < -lengthWord && pa.Zone == arm.Long:
				shorter = append(shorter, arm.Heads[h].Name)
			case pa.Zone == arm.Long && pb.Zone == arm.Long:
				longer = append(longer, arm.Heads[h].Name)
			}
		}
		if len(longer) > 0 {
			kept = append(kept, "length of "+strings.Join(longer, ", "))
		}
		if len(shorter) > 0 {
			lost = append(lost, "length of "+strings.Join(shorter, ", "))
		}
		ends := [2]string{"the stretched end", "the shortened end"}
		for i, at := range [2]int{0, effort.Samples - 1} {
			was, is := a.Profile.Curve[at] >= effort.IdleBelow, b.Profile.Curve[at] >= effort.IdleBelow
			if was && !is {
				lost = append(lost, "load at "+ends[i])
			}
		}
	} else if a.Profile != nil {
		lost = append(lost, "a computed profile: this one is graded")
	}
	say := func(word string, list []string) string {
		if len(list) == 0 {
			return ""
		}
		return word + " " + strings.Join(list, "; ") + "."
	}
	return say("Keeps", kept), say("Loses", lost)
}
