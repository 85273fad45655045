package figure

import (
	"fmt"
	"math"
	"sort"
	"strings"

	"musculus/internal/core/arm"
)

// Region is one head's place in the slice.
type Region struct {
	Head  string  `json:"head"` // id
	Code  string  `json:"code"`
	Name  string  `json:"name"`
	Path  Path    `json:"path"`
	Label Point   `json:"label"`
	Hatch float64 `json:"hatch"` // direction of its hatch, degrees
	Pitch float64 `json:"pitch"` // spacing of its hatch, box units
}

// Slice is the cross-section of one arm in a unit box: front up, outer side
// right for the right arm.
type Slice struct {
	Outline Path     `json:"outline"`
	Bone    Point    `json:"bone"`
	BoneR   float64  `json:"bone_r"`
	Regions []Region `json:"regions"`
}

// Half-width and half-height of the outline, and the place of the bone.
const (
	sliceW, sliceH = 0.47, 0.48
	boneX, boneY   = 0.5, 0.52
	boneRadius     = 0.062
	squareness     = 2.25 // exponent of the superellipse: a little fuller than an ellipse
)

// front and back are the outline's upper and lower edge at x.
func front(x float64) float64 { return 0.5 - bulge(x) }
func back(x float64) float64  { return 0.5 + bulge(x) }

func bulge(x float64) float64 {
	u := min(math.Abs(x-0.5)/sliceW, 1)
	return sliceH * math.Pow(1-math.Pow(u, squareness), 1/squareness)
}

// under is the lower edge of the biceps, over the upper edge of the triceps:
// the brachialis lies between them.
func under(x float64) float64 { u := (x - 0.5) / sliceW; return 0.375 + 0.085*u*u }
func over(x float64) float64  { u := (x - 0.5) / sliceW; return 0.615 - 0.10*u*u }

// cup is the lower edge of the medial head, which lies on the back of the bone.
func cup(x float64) float64 {
	u := (x - 0.5) / cupHalf
	return over(x) + 0.16*math.Sqrt(max(0, 1-u*u))
}

const (
	cupHalf  = 0.235
	outerEnd = 0.735 // where the brachialis ends and the brachioradialis begins
)

// hatches of the heads: direction in degrees and spacing.
var hatches = [arm.HeadCount][2]float64{
	arm.BicepsLong: {45, 0.06}, arm.BicepsShort: {135, 0.06}, arm.Brachialis: {0, 0.05}, arm.Brachioradialis: {90, 0.04},
	arm.TricepsLong: {135, 0.085}, arm.TricepsLateral: {45, 0.085}, arm.TricepsMedial: {90, 0.06},
}

// band is a region between two edges over a stretch of x.
func band(from, to float64, top, bottom func(float64) float64) []Point {
	const steps = 24
	var upper, lower []Point
	for i := range steps + 1 {
		x := from + (to-from)*float64(i)/steps
		t, b := max(top(x), front(x)), min(bottom(x), back(x))
		if b < t {
			continue
		}
		upper = append(upper, Point{x, t})
		lower = append(lower, Point{x, b})
	}
	for i := len(lower) - 1; i >= 0; i-- {
		upper = append(upper, lower[i])
	}
	return upper
}

// MakeSlice draws the right arm, or the left one as its mirror image.
func MakeSlice(left bool) Slice {
	const west, east = 0.5 - sliceW, 0.5 + sliceW
	bands := [arm.HeadCount][]Point{
		arm.BicepsShort:     band(west, 0.5, front, under),
		arm.BicepsLong:      band(0.5, east, front, under),
		arm.Brachialis:      band(west, outerEnd, under, over),
		arm.Brachioradialis: band(outerEnd, east, under, over),
		arm.TricepsLong:     band(west, 0.5, func(x float64) float64 { return inCup(x) }, back),
		arm.TricepsLateral:  band(0.5, east, func(x float64) float64 { return inCup(x) }, back),
		arm.TricepsMedial:   band(0.5-cupHalf, 0.5+cupHalf, over, cup),
	}
	labels := [arm.HeadCount]Point{
		arm.BicepsShort: {0.30, 0.235}, arm.BicepsLong: {0.70, 0.235}, arm.Brachialis: {0.27, 0.50}, arm.Brachioradialis: {0.845, 0.50},
		arm.TricepsLong: {0.27, 0.765}, arm.TricepsLateral: {0.73, 0.765}, arm.TricepsMedial: {0.5, 0.69},
	}
	mirror := func(p Point) Point {
		if left {
			p.X = 1 - p.X
		}
		return p
	}
	out := Slice{Bone: mirror(Point{boneX, boneY}), BoneR: boneRadius}
	var outline []Point
	for i := range 97 {
		x := 0.5 - sliceW*math.Cos(math.Pi*float64(i)/96)
		outline = append(outline, mirror(Point{x, front(x)}))
	}
	for i := 95; i > 0; i-- {
		x := 0.5 - sliceW*math.Cos(math.Pi*float64(i)/96)
		outline = append(outline, mirror(Point{x, back(x)}))
	}
	out.Outline = polyline(outline, true)
	for h, points := range bands {
		for i := range points {
			points[i] = mirror(points[i])
		}
		head := &arm.Heads[h]
		hatch := hatches[h][0]
		if left {
			hatch = math.Mod(180-hatch, 180)
		}
		out.Regions = append(out.Regions, Region{head.ID, head.Code, head.Name, polyline(points, true), mirror(labels[h]), hatch, hatches[h][1]})
	}
	return out
}

// inCup is the upper edge of the long and the lateral head: under the medial
// one where it lies, else under the brachialis.
func inCup(x float64) float64 {
	if math.Abs(x-0.5) < cupHalf {
		return cup(x)
	}
	return over(x)
}

// headValue is a head's number in a slice.
type headValue struct {
	Head  arm.HeadIndex
	Value float64
}

// BiasLevel turns a bias into a fill of the slice, 0…1: empty up to half of
// what the plain movement gives, full from 1.3 times of it.
func BiasLevel(bias float64) float64 { return level(bias, 0.5, 1.3) }

// SetsLevel turns a session's effective sets into a fill: full from 8.
func SetsLevel(sets float64) float64 { return level(sets, 0, 8) }

// level is 0 for nothing, else between 0.06 (just seen) and 1.
func level(v, empty, full float64) float64 {
	if v <= 0 {
		return 0
	}
	return round(max(0.06, min((v-empty)/(full-empty), 1)))
}

// SliceText tells the slice in words, the greatest first.
func SliceText(what string, values [arm.HeadCount]float64) string {
	list := make([]headValue, 0, arm.HeadCount)
	for h, v := range values {
		if v > 0 {
			list = append(list, headValue{arm.HeadIndex(h), v})
		}
	}
	if len(list) == 0 {
		return what + ": no head gets anything"
	}
	sort.SliceStable(list, func(i, j int) bool { return list[i].Value > list[j].Value })
	parts := make([]string, len(list))
	for i, hv := range list {
		parts[i] = fmt.Sprintf("%s %.2f", arm.Heads[hv.Head].Name, hv.Value)
	}
	return what + ": " + strings.Join(parts, "; ")
}

// Legend tells the letters of the regions: "BL biceps, long head; …".
func Legend() string {
	parts := make([]string, arm.HeadCount)
	for h := range arm.Heads {
		parts[h] = arm.Heads[h].Code + " " + arm.Heads[h].Name
	}
	return strings.Join(parts, "; ") + "."
}
