package decide

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/entry"
	"musculus/internal/core/measure"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
)

// A pair trial does one set-up with the left arm and another with the right, sets and effort
// alike, for some weeks: which arm came further is then asked of the tape and of both courses.

// How long a trial lasts.
const (
	ShortestTrial = 6 // weeks
	LongestTrial  = 12
)

// Trial is a pair trial as it was begun.
type Trial struct {
	ID      uuid.UUID
	Started day.Day
	Weeks   int
	Left    movement.SetUp // what the left arm does
	Right   movement.SetUp
}

// Verdict is what a trial answers.
type Verdict string

// The verdicts.
const (
	LeftBetter  Verdict = "left"
	RightBetter Verdict = "right"
	CannotTell  Verdict = "cannot_tell"
	NotYet      Verdict = "not_yet"
)

// TrialSays is where a trial stands.
type TrialSays struct {
	Week    int // from 1
	Verdict Verdict
	Words   string
	Found   []string // what tape and courses say
	Differs []string // what is not alike in the arms beside the set-up
}

// May says why two set-ups are no pair, "" where they are: each done by one arm at a time, of one
// muscle group, and not the same.
func (t *Trial) May() string {
	switch {
	case t.Weeks < ShortestTrial || t.Weeks > LongestTrial:
		return fmt.Sprintf("a pair trial takes %d to %d weeks", ShortestTrial, LongestTrial)
	case t.Left.ArmsInTurn() != 2 || t.Right.ArmsInTurn() != 2:
		return "both have to be done one arm at a time"
	case plan.GroupOf(t.Left) != plan.GroupOf(t.Right):
		return "one bends and the other straightens the elbow"
	case t.Left.Key() == t.Right.Key():
		return "both arms would do the same"
	}
	return ""
}

// Split makes of a slot that both arms do in turn two, each for one arm, the first one first in
// every other session; false where the session has none. other is looked up for the arm that does
// another set-up: rows as the slot's, its load to be found. n counts sessions.
func (t *Trial) Split(s *plan.Session, n int) bool {
	for i := range s.Slots {
		was := &s.Slots[i]
		key := was.SetUp.Key()
		if was.Locked || was.OneArm() || was.Combo != "" || was.Differs() || key != t.Left.Key() && key != t.Right.Key() ||
			len(s.Slots) >= plan.MostSlots {
			continue
		}
		left, right := t.arm(was, t.Left, plan.LeftOnly), t.arm(was, t.Right, plan.RightOnly)
		both := []plan.Slot{left, right}
		if n%2 == 1 {
			slices.Reverse(both)
		}
		slots := slices.Clone(s.Slots[:i])
		slots = append(slots, both...)
		s.Slots = append(slots, s.Slots[i+1:]...)
		return true
	}
	return false
}

// arm is a slot for one arm.
func (t *Trial) arm(was *plan.Slot, set movement.SetUp, which plan.Starts) plan.Slot {
	out := *was
	out.ID = uuid.NewSHA1(was.ID, []byte(which))
	out.Rows = slices.Clone(was.Rows)
	for k := range out.Rows {
		out.Rows[k].ID = uuid.NewSHA1(was.Rows[k].ID, []byte(which))
	}
	out.Starts = which
	if set.Key() != was.SetUp.Key() {
		out.Turn(set)
		out.Cues = nil
		out.Each(func(r *plan.Row) { r.Load = nil })
	}
	return out
}

// Join makes of the two one slot for both arms again, in one of the set-ups; false where the
// session has none of them.
func (t *Trial) Join(s *plan.Session, keep movement.SetUp) bool {
	own := func(x *plan.Slot) bool {
		return x.OneArm() && !x.Locked && (x.SetUp.Key() == t.Left.Key() || x.SetUp.Key() == t.Right.Key())
	}
	kept := slices.IndexFunc(s.Slots, func(x plan.Slot) bool { return own(&x) && x.SetUp.Key() == keep.Key() })
	if kept < 0 {
		return false
	}
	id := s.Slots[kept].ID
	s.Slots = slices.DeleteFunc(slices.Clone(s.Slots), func(x plan.Slot) bool { return own(&x) && x.ID != id })
	for i := range s.Slots {
		if s.Slots[i].ID == id {
			s.Slots[i].Starts = plan.StartsInTurn
		}
	}
	return true
}

// armCourse is what one arm did of its set-up since the trial began.
type armCourse struct {
	sets    int
	reserve float64
	look    *series.Look
	other   int // sets of what the other arm should have done alone
}

// Read reads a trial from the log, the tape and the plan to come.
func (t *Trial) Read(entries []entry.Entry, tape []measure.Session, sessions []plan.Planned, growth float64, today day.Day) TrialSays {
	out := TrialSays{Week: int(today-t.Started)/7 + 1, Verdict: NotYet}
	left, right := t.course(entries, entry.Left, t.Left, t.Right, growth), t.course(entries, entry.Right, t.Right, t.Left, growth)
	out.Differs = t.differs(left, right, sessions, today)
	votes := map[Verdict]bool{}
	var least []string
	if v, said, small, ok := tapeSays(tape, t.Started); ok {
		votes[v] = true
		out.Found, least = append(out.Found, said), append(least, small)
	} else {
		out.Found = append(out.Found, "Both arms have to be measured at its beginning and later.")
	}
	if v, said, small, ok := coursesSay(left.look, right.look, float64(today-t.Started)/7); ok {
		votes[v] = true
		out.Found, least = append(out.Found, said), append(least, small)
	} else {
		out.Found = append(out.Found, "The courses of both arms are too short to be held against each other yet.")
	}
	over := int(today-t.Started) >= 7*t.Weeks
	switch l, r := votes[LeftBetter], votes[RightBetter]; {
	case !over:
		out.Words = fmt.Sprintf("Week %d of %d: it answers at its end.", out.Week, t.Weeks)
		return out
	case l && !r:
		out.Verdict, out.Words = LeftBetter, "The left came further: "+t.Left.Title()+"."
	case r && !l:
		out.Verdict, out.Words = RightBetter, "The right came further: "+t.Right.Title()+"."
	default:
		out.Verdict, out.Words = CannotTell, "Cannot tell, as most of them cannot."
	}
	if len(least) > 0 {
		out.Words += " Differences under " + strings.Join(least, " and ") + " could not have been seen."
	}
	return out
}

// course reads what one arm did.
func (t *Trial) course(entries []entry.Entry, side entry.Side, own, other movement.SetUp, growth float64) (out armCourse) {
	var did []entry.Entry
	for i := range entries {
		e := &entries[i]
		if e.Side != side || e.SetUp.Movement == nil || e.TwiceOf != nil || day.At(e.DoneAt) < t.Started {
			continue
		}
		switch e.SetUp.Key() {
		case own.Key():
			did = append(did, *e)
			out.sets++
			out.reserve += float64(e.Reserve)
		case other.Key():
			out.other++
		}
	}
	if out.sets > 0 {
		out.reserve /= float64(out.sets)
	}
	compared := series.ComparedOf(series.SessionsOf(did, func(uuid.UUID) series.Around { return series.Around{} }))
	if looks := series.Watch(compared, growth); len(looks) > 0 {
		out.look = &looks[len(looks)-1]
	}
	return out
}

// What may differ between the arms before it is told.
const (
	setsApart    = 2
	reserveApart = 0.75
)

// differs tells what is not alike.
func (t *Trial) differs(left, right armCourse, sessions []plan.Planned, today day.Day) (out []string) {
	tell := func(format string, args ...any) { out = append(out, fmt.Sprintf(format, args...)) }
	if d := left.sets - right.sets; d > setsApart || d < -setsApart {
		tell("The left did %d sets, the right %d.", left.sets, right.sets)
	}
	if left.sets > 0 && right.sets > 0 && math.Abs(left.reserve-right.reserve) > reserveApart {
		tell("The left stopped with %.1f left on the average, the right with %.1f.", left.reserve, right.reserve)
	}
	if left.other > 0 {
		tell("The left also did %d sets of the right’s set-up.", left.other)
	}
	if right.other > 0 {
		tell("The right also did %d sets of the left’s set-up.", right.other)
	}
	for i := range sessions {
		s := &sessions[i]
		if s.On < today {
			continue
		}
		var l, r *plan.Slot
		for k := range s.Slots {
			switch x := &s.Slots[k]; {
			case x.Starts == plan.LeftOnly && x.SetUp.Key() == t.Left.Key():
				l = x
			case x.Starts == plan.RightOnly && x.SetUp.Key() == t.Right.Key():
				r = x
			case x.OneArm():
				tell("On %s %s is for one arm alone.", s.On.Words(), x.SetUp.Short())
			}
		}
		if (l == nil) != (r == nil) || l != nil && !alikeRows(l, r) {
			tell("On %s the arms are not planned alike.", s.On.Words())
		}
	}
	return out
}

// alikeRows says whether two slots ask for the same sets and effort; loads are each set-up's own.
func alikeRows(a, b *plan.Slot) bool {
	if len(a.Rows) != len(b.Rows) {
		return false
	}
	for k := range a.Rows {
		x, y := a.Rows[k].Dose, b.Rows[k].Dose
		x.Load, y.Load = nil, nil
		x.Word, y.Word = "", ""
		if x != y {
			return false
		}
	}
	return true
}

// tapeSays holds the arms' growth by the tape against each other.
func tapeSays(tape []measure.Session, since day.Day) (v Verdict, said, small string, ok bool) {
	for _, id := range []string{"flexed", "relaxed"} {
		i := slices.IndexFunc(measure.Kinds, func(k measure.Kind) bool { return k.ID == id })
		k := &measure.Kinds[i]
		left, right := measure.CourseOf(tape, k.Left), measure.CourseOf(tape, k.Right)
		l, lok := left.Change(since)
		r, rok := right.Change(since)
		if !lok || !rok {
			continue
		}
		by, least := r.By-l.By, math.Sqrt2*max(l.Least, r.Least)
		said = fmt.Sprintf("By the tape (%s) the left changed by %+.1f cm, the right by %+.1f: %.1f apart, of %.1f that a tape can mistake.",
			k.Name, l.By, r.By, math.Abs(by), least)
		return apartBy(by, least), said, fmt.Sprintf("%.1f cm", least), true
	}
	return "", "", "", false
}

// coursesSay holds the arms' courses against each other, each by its own set-up.
func coursesSay(l, r *series.Look, weeks float64) (v Verdict, said, small string, ok bool) {
	if l == nil || r == nil || l.Error == 0 || r.Error == 0 {
		return "", "", "", false
	}
	by, least := weeks*(r.Slope-l.Slope), 2*weeks*math.Hypot(l.Error, r.Error)
	said = fmt.Sprintf("By the log the left rose by %.1f %% in its set-up, the right by %.1f %%: %.1f apart, of %.1f that sessions scatter.",
		100*weeks*l.Slope, 100*weeks*r.Slope, 100*math.Abs(by), 100*least)
	return apartBy(by, least), said, fmt.Sprintf("%.1f %%", 100*least), true
}

func apartBy(right, least float64) Verdict {
	switch {
	case right > least:
		return RightBetter
	case right < -least:
		return LeftBetter
	}
	return CannotTell
}
