// Package priority decides which heads should grow: from wishes, the coach's
// ratings, measured gaps and the client's stance to an emphasis per head, with
// the reasons.
package priority

import (
	"fmt"
	"slices"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/measure"
	"musculus/internal/core/person"
	"musculus/internal/core/stance"
)

// Level is how much a head is asked to grow.
type Level string

// The levels, each more than the one before.
const (
	Maintain   Level = "maintain"
	Build      Level = "build"
	Prioritise Level = "prioritise"
)

// Levels in their order.
var Levels = []Level{Maintain, Build, Prioritise}

// Views of the pose checklist.
var Views = []string{"front_straight", "front_bent", "side_straight", "side_bent", "back_straight", "back_bent"}

// Rating is how one head looks against the rest, by a coach's eye on one day.
type Rating struct {
	On         day.Day        `json:"on"`
	Heads      map[string]int `json:"heads"`      // id → −2 far behind … +2 far ahead
	Confidence int            `json:"confidence"` // 1 a guess, 2 fairly, 3 sure
	Views      []string       `json:"views"`      // looked at
	Note       string         `json:"note,omitempty"`
}

// Check returns what is wrong, one error a field.
func (r *Rating) Check(today day.Day) []person.FieldError {
	var out []person.FieldError
	fault := func(ok bool, field, reason string, args ...any) {
		if !ok {
			out = append(out, person.FieldError{Field: field, Reason: fmt.Sprintf(reason, args...)})
		}
	}
	fault(r.On <= today, "on", "%s is in the future", r.On.Words())
	fault(len(r.Heads) > 0, "heads", "nothing is rated")
	for id, x := range r.Heads {
		_, ok := arm.HeadByID(id)
		fault(ok, "heads."+id, "there is no head %q", id)
		fault(x >= -2 && x <= 2, "heads."+id, "%d is outside −2…2", x)
	}
	fault(r.Confidence >= 1 && r.Confidence <= 3, "confidence", "%d is outside 1…3", r.Confidence)
	fault(len(r.Views) > 0, "views", "say which views were looked at")
	for _, v := range r.Views {
		fault(slices.Contains(Views, v), "views", "there is no view %q", v)
	}
	fault(len([]rune(r.Note)) <= 500, "note", "longer than 500 characters")
	return out
}

// staleAfter is how long a rating speaks, days.
const staleAfter = 120

// Weight is what one head gets, with the reasons.
type Weight struct {
	Score   float64
	Level   Level // proposed
	Reasons []string
}

// What things weigh.
const (
	wishWeight       = 1.0
	firstWishWeight  = 1.5 // the first wish is the one meant most
	ratingWeight     = 0.5 // a step behind, surely seen
	pairShare        = 0.5 // of a head that the stance does not tell apart from its neighbour
	prioritiseFrom   = 1.5
	buildFrom        = 0.5
	mostPrioritised  = 3
	prioritisedWeeks = 8 // an emphasis has an end
)

// Scale says from which score what is proposed.
func Scale() string {
	return fmt.Sprintf("%g or more proposes build, %g or more prioritise, less maintain", buildFrom, prioritiseFrom)
}

// DefaultEnd is when an emphasis ends unless the coach says otherwise.
func DefaultEnd(today day.Day) day.Day { return today + prioritisedWeeks*7 }

// pairs are heads that lie so near together that a stance may not tell them apart.
var pairs = [][2]arm.HeadIndex{{arm.BicepsLong, arm.BicepsShort}, {arm.TricepsLateral, arm.TricepsMedial}}

// Neighbour is the head that lies so near to one that a stance may not tell them
// apart; false for a head without one.
func Neighbour(h arm.HeadIndex) (arm.HeadIndex, bool) {
	for _, p := range pairs {
		switch h {
		case p[0]:
			return p[1], true
		case p[1]:
			return p[0], true
		}
	}
	return 0, false
}

// Apart says whether a stance has a rule, whose mechanism holds, that gives two
// heads different tilts.
func Apart(st *stance.Stance, a, b arm.HeadIndex) bool {
	for _, id := range st.Rules {
		if r := stance.Shipped.Rule(id); r != nil && r.Counts() && r.Tilt[a] != r.Tilt[b] {
			return true
		}
	}
	return false
}

// Propose weighs everything for every head. rating may be nil; gaps are the
// answers of the tape, which never weigh a head. What the client's time does not hold
// is proposed lower, and told.
func Propose(
	wishes []person.Wish,
	rating *Rating,
	gaps []measure.Answer,
	st *stance.Stance,
	t Time,
	today day.Day,
) (out [arm.HeadCount]Weight, notes []string) {
	add := func(h arm.HeadIndex, x float64, why string, args ...any) {
		out[h].Score += x
		out[h].Reasons = append(out[h].Reasons, fmt.Sprintf("%+.1f ", x)+fmt.Sprintf(why, args...))
	}
	for i, w := range wishes {
		weight := wishWeight
		if i == 0 {
			weight = firstWishWeight
		}
		for _, id := range w.Heads {
			if h, ok := arm.HeadByID(id); ok {
				add(h, weight, "wished: “%s”", w.Text)
			}
		}
	}
	switch {
	case rating == nil:
		notes = append(notes, "No pose rating yet: wishes alone decide.")
	case today-rating.On > staleAfter:
		notes = append(
			notes,
			fmt.Sprintf("The pose rating of %s is over four months old and no longer counts.", rating.On.Words()),
		)
	default:
		for h := range arm.HeadIndex(arm.HeadCount) {
			if x := rating.Heads[arm.Heads[h].ID]; x != 0 {
				sure := float64(rating.Confidence) / 3
				add(
					arm.HeadIndex(h),
					-float64(x)*ratingWeight*2*sure,
					"looks %s the rest, %s",
					aheadWords(x),
					[]string{"a guess", "fairly sure", "sure"}[rating.Confidence-1],
				)
			}
		}
	}
	for _, p := range pairs {
		if Apart(st, p[0], p[1]) {
			continue
		}
		for _, way := range [][2]arm.HeadIndex{{p[0], p[1]}, {p[1], p[0]}} {
			own, other := out[way[0]].Score, out[way[1]].Score
			if share := pairShare * (own - other); share > 0 && own > 0 {
				add(way[1], share, "the stance %s does not tell it apart from the %s", st.Name, arm.Heads[way[0]].Name)
				break
			}
		}
	}
	for h := range out {
		switch s := out[h].Score; {
		case s >= prioritiseFrom-1e-9:
			out[h].Level = Prioritise
		case s >= buildFrom-1e-9:
			out[h].Level = Build
		default:
			out[h].Level = Maintain
		}
		if len(out[h].Reasons) == 0 {
			out[h].Reasons = []string{"nothing asks for it"}
		}
	}
	notes = append(notes, capPriorities(&out)...)
	notes = append(notes, t.fit(&out)...)
	for _, g := range gaps {
		if g.Real {
			notes = append(notes, g.Words+" A girth never tells a head: it asks for one-arm work, the smaller arm first.")
		}
	}
	return out, notes
}

// capPriorities keeps the heads with the greatest weights: extra work for one
// head is taken from another, so not everything can come first.
func capPriorities(out *[arm.HeadCount]Weight) []string {
	var first []arm.HeadIndex
	for h := range out {
		if out[h].Level == Prioritise {
			first = append(first, arm.HeadIndex(h))
		}
	}
	if len(first) <= mostPrioritised {
		return nil
	}
	slices.SortStableFunc(first, func(a, b arm.HeadIndex) int {
		if out[a].Score > out[b].Score {
			return -1
		}
		if out[a].Score < out[b].Score {
			return 1
		}
		return 0
	})
	var names []string
	for _, h := range first[mostPrioritised:] {
		out[h].Level = Build
		out[h].Reasons = append(
			out[h].Reasons,
			fmt.Sprintf("built rather than first: %d heads are first already", mostPrioritised),
		)
		names = append(names, arm.Heads[h].Name)
	}
	return []string{
		fmt.Sprintf(
			"Extra work for one head is taken from another: %s build, they do not come first too.",
			strings.Join(names, "; "),
		),
	}
}

func aheadWords(x int) string {
	return map[int]string{-2: "far behind", -1: "behind", 1: "ahead of", 2: "far ahead of"}[x]
}

// Emphasis is what the coach set for the heads, until a day.
type Emphasis struct {
	Levels map[string]Level `json:"levels"` // by head id; what is missing is maintained
	Until  *day.Day         `json:"until"`
	SetOn  day.Day          `json:"set_on"`
}

// Check returns what is wrong, one error a field.
func (e *Emphasis) Check(today day.Day) []person.FieldError {
	var out []person.FieldError
	first := false
	for id, l := range e.Levels {
		if _, ok := arm.HeadByID(id); !ok {
			out = append(out, person.FieldError{Field: "levels." + id, Reason: fmt.Sprintf("there is no head %q", id)})
		}
		if !slices.Contains(Levels, l) {
			out = append(
				out,
				person.FieldError{Field: "levels." + id, Reason: fmt.Sprintf("%q is none of maintain, build, prioritise", l)},
			)
		}
		first = first || l == Prioritise
	}
	switch {
	case first && e.Until == nil:
		out = append(out, person.FieldError{Field: "until", Reason: "an emphasis has an end date"})
	case e.Until != nil && *e.Until < today:
		out = append(out, person.FieldError{Field: "until", Reason: e.Until.Words() + " is past"})
	case e.Until != nil && *e.Until > today+365:
		out = append(out, person.FieldError{Field: "until", Reason: "more than a year ahead is no end"})
	}
	return out
}

// Of returns a head's level on a day: past its end an emphasis falls back to build.
func (e *Emphasis) Of(h arm.HeadIndex, today day.Day) Level {
	if e == nil {
		return Maintain
	}
	l, ok := e.Levels[arm.Heads[h].ID]
	switch {
	case !ok:
		return Maintain
	case l == Prioritise && e.Until != nil && *e.Until < today:
		return Build
	}
	return l
}

// Target is how many effective sets a week a head shall get.
type Target struct{ Low, High float64 }

// Targets by level; first-year clients get two thirds.
var targets = map[Level]Target{Maintain: {4, 6}, Build: {8, 12}, Prioritise: {12, 18}}

const firstYearShare = 2.0 / 3

// TargetWords tells the targets: "maintain 4–6, build 8–12, …".
func TargetWords() string {
	var out []string
	for _, l := range Levels {
		out = append(out, fmt.Sprintf("%s %g–%g", l, targets[l].Low, targets[l].High))
	}
	return strings.Join(out, ", ") + " effective sets a week; two thirds in the first year"
}

// BandWords tells where a head's target band comes from.
func BandWords(l Level, firstYear bool) string {
	t := targets[l]
	if !firstYear {
		return fmt.Sprintf("%s: %g–%g effective sets a week", l, t.Low, t.High)
	}
	mine := TargetOf(l, true)
	return fmt.Sprintf(
		"%s: %g–%g effective sets a week, in the first year two thirds of them: %.1f–%.1f",
		l,
		t.Low,
		t.High,
		mine.Low,
		mine.High,
	)
}

// TargetOf is the week's target of a level.
func TargetOf(l Level, firstYear bool) Target {
	t := targets[l]
	if firstYear {
		t.Low, t.High = t.Low*firstYearShare, t.High*firstYearShare
	}
	return t
}
