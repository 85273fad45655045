// Package checkin says what a client is told after she trained, and which one question she is
// asked: chosen by what happened, never at random, often none.
package checkin

import (
	"fmt"
	"slices"
	"strings"

	"github.com/google/uuid"

	"musculus/internal/core/decide"
	"musculus/internal/core/entry"
	"musculus/internal/core/floor"
	"musculus/internal/core/log"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/text"
)

// Kind is how a question is answered.
type Kind string

// The kinds.
const (
	Scale  Kind = "scale"  // 0–10
	Choice Kind = "choice" // one of the options
)

// The answers that say that recovery was poor.
const (
	poorSleep = "badly"
	poorWeek  = "too much"
)

// Question is the one question.
type Question struct {
	Key     string   `json:"key"`
	Says    string   `json:"says"`
	Kind    Kind     `json:"kind" enum:"scale,choice"`
	Options []string `json:"options"`
}

// What may be asked; a joint's key has the joint and the side behind it.
const (
	AskJoint    = "joint"
	AskKinder   = "kinder"
	AskRests    = "rests"
	AskSleep    = "sleep"
	AskStress   = "stress"
	AskSoreness = "soreness"
)

// Summary is what a client is told.
type Summary struct {
	Done     []string  `json:"done"`
	Changed  []string  `json:"changed"`
	Next     string    `json:"next"`
	Question *Question `json:"question,omitempty"`
}

// Facts are what a summary is made from.
type Facts struct {
	Session *plan.Planned
	Entries []entry.Entry
	Events  []floor.Event        // standing
	Joints  []person.JointReport // told in this session
	First   map[string]bool      // series that were done for the first time in it, by key
	Before  []decide.Taken       // decisions since it that were taken
	Next    *plan.Planned        // nil: nothing is planned
	When    func(p *plan.Planned) string
	// Load tells a load as it is marked there; nil: weights are kept from her.
	Load func(s movement.SetUp, hand float64) string
	// After says that she was away for two weeks or more before it.
	After bool
}

// Of is the summary of a session.
func Of(f *Facts) *Summary {
	out := &Summary{Done: []string{}, Changed: []string{}}
	out.Done = append(out.Done, log.Words(&f.Session.Session, log.Counting(f.Entries)))
	for i := range f.Session.Slots {
		if words := f.slot(i); words != "" {
			out.Done = append(out.Done, words)
		}
	}
	for i := range f.Before {
		t := &f.Before[i]
		if t.NotNow || t.Undone || t.Steps.Nothing() {
			continue
		}
		words := t.Says
		if f.Load == nil {
			words = hidden(&t.Proposal)
		}
		if words == "" {
			continue
		}
		if t.Name != "" {
			words = t.Name + ": " + words
		}
		out.Changed = append(out.Changed, words+".")
	}
	if f.Next != nil {
		out.Next = f.Next.Name + ", " + f.When(f.Next) + "."
	}
	out.Question = f.question()
	return out
}

// hidden tells what a decision changes without any weight: from what it does, not from how it was
// said to a coach.
func hidden(p *decide.Proposal) string {
	x := &p.Steps
	var out []string
	switch {
	case x.Halve:
		return "A lighter week: half the sets, the same loads"
	case x.ToID != "" && x.To.Movement != nil:
		return x.To.Title() + " instead"
	case x.HandKg > 0 && p.Kind == decide.Lighter:
		out = append(out, "a mark lighter")
	case x.HandKg > 0:
		out = append(out, "another mark")
	}
	plural := func(n int, one, more, less string) {
		switch {
		case n == 1:
			out = append(out, "a "+one+" more")
		case n == -1:
			out = append(out, "a "+one+" less")
		case n > 0:
			out = append(out, fmt.Sprintf("%d %s", n, more))
		case n < 0:
			out = append(out, fmt.Sprintf("%d %s", -n, less))
		}
	}
	plural(x.Reps, "rep", "reps more", "reps fewer")
	plural(x.Sets, "set", "sets more", "sets fewer")
	if x.RestS > 0 {
		out = append(out, fmt.Sprintf("%d s rest", x.RestS))
	}
	if x.LowerS > 0 {
		out = append(out, "lowered more slowly")
	}
	if x.Cue != "" {
		out = append(out, "another cue first")
	}
	return text.Capital(strings.Join(out, ", "))
}

// slot tells what was done of one slot, by its sets.
func (f *Facts) slot(i int) string {
	slot := &f.Session.Slots[i]
	var reps []string
	hand := -1.0
	for k := range f.Entries {
		e := &f.Entries[k]
		if e.SlotID != slot.ID || e.TwiceOf != nil {
			continue
		}
		n := fmt.Sprint(e.Reps)
		switch e.Side {
		case entry.Left:
			n += " left"
		case entry.Right:
			n += " right"
		}
		reps = append(reps, n)
		if hand < 0 {
			hand = e.LoadKg
		}
	}
	if len(reps) == 0 {
		return ""
	}
	words := slot.SetUp.Title() + ": " + strings.Join(reps, ", ")
	if f.Load != nil {
		words += " at " + f.Load(slot.SetUpOf(0), hand)
	}
	return words + "."
}

// offBy is by how many reps told reserve is off the plan to count, and in which part of the sets.
const (
	offBy   = 2
	offPart = 0.5
	veryFew = 2
	hard    = 9
)

// question is the one question; nil where nothing asks for one.
func (f *Facts) question() *Question {
	if q := f.joint(); q != nil {
		return q
	}
	if q := f.kinder(); q != nil {
		return q
	}
	if f.off() {
		return &Question{AskRests, "Were the rests timed?", Choice, []string{"yes", "mostly", "no"}}
	}
	for i := range f.Events {
		e := f.Events[i].End
		switch {
		case e == nil:
		case e.Hard >= hard:
			return &Question{AskSleep, "How did you sleep before it?", Choice, []string{"well", "so-so", poorSleep}}
		case e.Good > 0 && e.Good <= veryFew:
			return &Question{AskStress, "How was the week?", Choice, []string{"calm", "full", poorWeek}}
		}
	}
	if f.After {
		return &Question{AskSoreness, "How sore are you?", Choice, []string{"not at all", "a little", "very"}}
	}
	return nil
}

// joint asks after the joint that hurt most.
func (f *Facts) joint() *Question {
	var worst *person.JointReport
	for i := range f.Joints {
		if r := &f.Joints[i]; r.Score > 0 && (worst == nil || r.Score > worst.Score) {
			worst = r
		}
	}
	if worst == nil {
		return nil
	}
	return &Question{AskJoint + ":" + string(worst.Joint) + ":" + string(worst.Side),
		fmt.Sprintf("The %s, %s, was %d of 10. How is it today?", worst.Joint.Words(), worst.Side, worst.Score), Scale, []string{}}
}

// JointOf is the joint a key asks after; false for another question.
func JointOf(key string) (j movement.Joint, side person.Side, ok bool) {
	parts := strings.Split(key, ":")
	if len(parts) != 3 || parts[0] != AskJoint {
		return "", "", false
	}
	j, side = movement.Joint(parts[1]), person.Side(parts[2])
	return j, side, slices.Contains(movement.Joints, j) && (side == person.Left || side == person.Right)
}

// kinder asks about a set-up that was new, beside another one of its group.
func (f *Facts) kinder() *Question {
	for i := range f.Session.Slots {
		fresh := &f.Session.Slots[i]
		if !f.First[fresh.SetUp.Key()] {
			continue
		}
		for k := range f.Session.Slots {
			other := &f.Session.Slots[k]
			if k != i && !f.First[other.SetUp.Key()] && plan.GroupOf(other.SetUp) == plan.GroupOf(fresh.SetUp) {
				return &Question{AskKinder, fmt.Sprintf("%s was new. Which felt kinder to your joints?", fresh.SetUp.Title()), Choice,
					[]string{fresh.SetUp.Short(), other.SetUp.Short(), "the same"}}
			}
		}
	}
	return nil
}

// off says whether told reserve was often off the plan.
func (f *Facts) off() bool {
	off, all := 0, 0
	for i := range f.Entries {
		e := &f.Entries[i]
		k := slices.IndexFunc(f.Session.Slots, func(s plan.Slot) bool { return s.ID == e.SlotID })
		if k < 0 || e.TwiceOf != nil {
			continue
		}
		all++
		by := e.Reserve - f.Session.Slots[k].DoseOf(e.SetNo-1).Reserve
		if by >= offBy || by <= -offBy {
			off++
		}
	}
	return all > 0 && float64(off) >= offPart*float64(all)
}

// Told is an answer as it is kept.
type Told struct {
	ID      uuid.UUID `json:"id"`
	Session uuid.UUID `json:"session"`
	Key     string    `json:"key"`  // of the question, "" for none
	Says    string    `json:"says"` // the question as it was asked
	Answer  string    `json:"answer"`
	Asks    string    `json:"asks"` // a question of hers
}

// Words tell an answer in a line: to a coach, or hers back to her.
func (t *Told) Words(toHer bool) string {
	var out []string
	if t.Answer != "" {
		out = append(out, t.Says+" "+t.Answer+".")
	}
	if t.Asks != "" {
		who := "She asks"
		if toHer {
			who = "You asked"
		}
		out = append(out, who+": “"+t.Asks+"”")
	}
	return strings.Join(out, " ")
}

// Poor says whether an answer says that sleep or the week was poor.
func (t *Told) Poor() bool {
	return t.Key == AskSleep && t.Answer == poorSleep || t.Key == AskStress && t.Answer == poorWeek
}

// Score is an answer on the scale, 0 where it is none.
func (t *Told) Score() (n int) {
	_, _ = fmt.Sscanf(t.Answer, "%d", &n)
	return n
}

// Longest is how long her own words may be.
const Longest = 300

// Check returns what is wrong with an answer, one error a field; asked is the question, nil for
// none.
func (t *Told) Check(asked *Question) (out []*movement.FieldError) {
	fault := func(wrong bool, field, reason string, args ...any) {
		if wrong {
			out = append(out, &movement.FieldError{Field: field, Reason: fmt.Sprintf(reason, args...)})
		}
	}
	fault(strings.TrimSpace(t.Answer) == "" && strings.TrimSpace(t.Asks) == "", "answer", "neither an answer nor a question")
	fault(len([]rune(t.Asks)) > Longest, "asks", "longer than %d characters", Longest)
	if t.Answer == "" {
		return out
	}
	switch {
	case asked == nil || asked.Key != t.Key:
		fault(true, "key", "this is not what is asked now")
	case asked.Kind == Scale:
		n := -1
		_, err := fmt.Sscanf(t.Answer, "%d", &n)
		fault(err != nil || n < 0 || n > 10 || fmt.Sprint(n) != t.Answer, "answer", "%q is no score of 0 to 10", t.Answer)
	default:
		fault(!slices.Contains(asked.Options, t.Answer), "answer", "%q is none of the answers", t.Answer)
	}
	return out
}
