// Package measure is the tape: girths and their repeats, what a tape can and
// cannot show, areas, and left against right. Lengths in cm.
package measure

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"musculus/internal/core/day"
	"musculus/internal/core/movement"
)

// Site is where the tape lies.
type Site string

// The sites, on the left and on the right arm. Upper arm: halfway between the
// tip of the shoulder and the tip of the elbow.
const (
	RelaxedLeft  Site = "relaxed_left"
	RelaxedRight Site = "relaxed_right"
	FlexedLeft   Site = "flexed_left"
	FlexedRight  Site = "flexed_right"
	ForearmLeft  Site = "forearm_left"
	ForearmRight Site = "forearm_right"
	WristLeft    Site = "wrist_left"
	WristRight   Site = "wrist_right"
)

// Kind is what is measured, on either side.
type Kind struct {
	ID, Name    string
	Left, Right Site
	lo, hi      float64 // what anybody has, cm
}

// Kinds are what is measured, in the order it is done.
var Kinds = []Kind{
	{"relaxed", "upper arm relaxed", RelaxedLeft, RelaxedRight, 15, 70},
	{"flexed", "upper arm flexed", FlexedLeft, FlexedRight, 15, 75},
	{"forearm", "forearm", ForearmLeft, ForearmRight, 14, 50},
	{"wrist", "wrist", WristLeft, WristRight, 10, 28},
}

// KindOf finds the kind of a site, nil for an unknown one.
func KindOf(s Site) *Kind {
	for i := range Kinds {
		if k := &Kinds[i]; k.Left == s || k.Right == s {
			return k
		}
	}
	return nil
}

// SiteName tells a site in words.
func SiteName(s Site) string {
	k := KindOf(s)
	if k == nil {
		return string(s)
	}
	if k.Left == s {
		return k.Name + ", left"
	}
	return k.Name + ", right"
}

// Session is one measuring session.
type Session struct {
	On       day.Day            `json:"on"`
	Girths   map[Site][]float64 `json:"girths"`                // readings, cm
	Skinfold []float64          `json:"skinfold_mm,omitempty"` // triceps, readings, mm
	MassKg   *float64           `json:"mass_kg,omitempty"`
	Note     string             `json:"note,omitempty"` // what differed: after training, other hand on the tape
}

// Limits of a session.
const (
	mostReadings = 3
	mostSpread   = 0.5 // cm; beyond it another reading is asked for
	inch         = 2.54
	mostNote     = 500
)

// FieldError is what is wrong with one field.
type FieldError = movement.FieldError

// Check returns what is wrong, one error a field. A girth that only makes sense
// in inches says so.
func (s *Session) Check(today day.Day) []FieldError {
	var out []FieldError
	fault := func(field, reason string, args ...any) {
		out = append(out, FieldError{Field: field, Reason: fmt.Sprintf(reason, args...)})
	}
	if s.On > today {
		fault("on", "%s is in the future", s.On.Words())
	}
	if len(s.Girths) == 0 && len(s.Skinfold) == 0 && s.MassKg == nil {
		fault("girths", "nothing was measured")
	}
	for site, readings := range s.Girths {
		k := KindOf(site)
		if k == nil {
			fault("girths."+string(site), "there is no such site")
			continue
		}
		if len(readings) == 0 || len(readings) > mostReadings {
			fault("girths."+string(site), "%d readings, not 1…%d", len(readings), mostReadings)
		}
		for i, x := range readings {
			at := fmt.Sprintf("girths.%s[%d]", site, i)
			switch {
			case x >= k.lo && x <= k.hi:
			case x*inch >= k.lo && x*inch <= k.hi && x > 0:
				fault(at, "%g cm is too little for the %s; %g in would be %.1f cm: were these inches?", x, k.Name, x, x*inch)
			default:
				fault(at, "%g cm is outside %g…%g cm for the %s", x, k.lo, k.hi, k.Name)
			}
		}
	}
	if len(s.Skinfold) > mostReadings {
		fault("skinfold_mm", "%d readings, not 1…%d", len(s.Skinfold), mostReadings)
	}
	for i, x := range s.Skinfold {
		if !(x >= 2 && x <= 60) {
			fault(fmt.Sprintf("skinfold_mm[%d]", i), "%g mm is outside 2…60 mm", x)
		}
	}
	if s.MassKg != nil && !(*s.MassKg >= 25 && *s.MassKg <= 300) {
		fault("mass_kg", "%g kg is outside 25…300 kg", *s.MassKg)
	}
	if len([]rune(s.Note)) > mostNote {
		fault("note", "longer than %d characters", mostNote)
	}
	for _, k := range Kinds { // one arm a half again as big as the other is a slip
		l, lok := s.Median(k.Left)
		r, rok := s.Median(k.Right)
		if lok && rok && len(out) == 0 && math.Max(l, r) > 1.3*math.Min(l, r) {
			fault("girths."+string(k.Right), "left %.1f and right %.1f cm cannot both be right; look at both readings again", l, r)
		}
	}
	slices.SortStableFunc(out, func(a, b FieldError) int { return strings.Compare(a.Field, b.Field) })
	return out
}

// Median is the kept reading of a site; false when it was not measured.
func (s *Session) Median(site Site) (float64, bool) { return median(s.Girths[site]) }

// FoldMedian is the kept skinfold, mm.
func (s *Session) FoldMedian() (float64, bool) { return median(s.Skinfold) }

func median(values []float64) (float64, bool) {
	if len(values) == 0 {
		return 0, false
	}
	v := slices.Clone(values)
	slices.Sort(v)
	if mid := len(v) / 2; len(v)%2 == 1 {
		return v[mid], true
	} else {
		return (v[mid-1] + v[mid]) / 2, true
	}
}

// NeedsAnother lists the sites whose readings are so far apart that another is
// asked for.
func (s *Session) NeedsAnother() []Site {
	var out []Site
	for _, k := range Kinds {
		for _, site := range []Site{k.Left, k.Right} {
			r := s.Girths[site]
			if len(r) >= 2 && len(r) < mostReadings && slices.Max(r)-slices.Min(r) > mostSpread+1e-9 {
				out = append(out, site)
			}
		}
	}
	return out
}

// Sex is asked only where a bone-free area is wanted.
type Sex string

// The sexes the formula knows.
const (
	Woman Sex = "woman"
	Man   Sex = "man"
)

// Bone areas taken off the muscle-and-bone area, cm².
var boneArea = map[Sex]float64{Man: 10, Woman: 6.5}

// Area is the upper arm's muscle-and-bone area, cm², from the relaxed girth (cm)
// and the triceps skinfold (mm); with a sex, less the bone. Source: Heymsfield
// et al. 1982, American Journal of Clinical Nutrition 36.
func Area(girth, skinfoldMm float64, sex Sex) float64 {
	a := math.Pow(girth-math.Pi*skinfoldMm/10, 2) / (4 * math.Pi)
	return a - boneArea[sex]
}
