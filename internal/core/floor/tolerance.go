package floor

import (
	"fmt"

	"musculus/internal/core/day"
	"musculus/internal/core/person"
)

// Tolerance is a plan by which a set-up that is remedy and irritant at once is led up to again:
// first without pain, then with more reps, then with more load, a step at a time.
type Tolerance struct {
	Started day.Day
	Steps   int  // above the painless beginning
	Backs   int  // in a row
	Over    bool // it has ended
}

// Course of a plan.
const (
	longestTolerance = 12 * 7 // days
	mostBacks        = 2      // in a row, then it ends and refers
	repsSteps        = 3      // rep by rep before any load
)

// MayBegin says why no such plan is started, "" where one may be: only by whoever plans, never
// under a warning sign, an open clearance or a recent injection, nor for a minor without a
// guardian.
func MayBegin(d *person.Dossier, s *person.Screening, st *person.Standing, today day.Day) string {
	switch {
	case d.HealthConsent == nil || s == nil:
		return "the questions of the screening come first"
	case !st.MayTrain():
		return "not while something is open: " + st.Heading()
	case s.Answers["tendon"].Yes:
		return "not after a recent injection into a tendon, or with drugs known to weaken tendons"
	case d.MayBeMinor(today) && d.GuardianOn == nil:
		return "a minor’s guardian has to agree first"
	}
	return ""
}

// Answered is how a session of a plan went: the joint's score in the morning before it, at its
// worst while it was done, and the morning after; nil where nobody answered.
type Answered struct {
	On              day.Day
	Morning, During int
	After           *int
}

// Course is what a session of a plan leads to.
type Course string

// The courses.
const (
	CourseUp    Course = "up"
	CourseStay  Course = "stay"
	CourseBack  Course = "back"
	CourseEnd   Course = "end"
	CourseRefer Course = "refer"
)

// Next is the plan after a session, what that session leads to and why. A step up only after at
// most 3 while it was done and back at the morning's score the day after; without an answer none.
func (t Tolerance) Next(a Answered) (next Tolerance, c Course, why string) {
	next = t
	settled := a.After != nil && *a.After <= a.Morning
	switch {
	case t.Over:
		return next, CourseEnd, "The plan has ended."
	case int(a.On-t.Started) >= longestTolerance:
		next.Over = true
		return next, CourseEnd, fmt.Sprintf("Twelve weeks are over: the plan ends at step %d.", t.Steps)
	case a.During > overPain || a.After != nil && !settled:
		next.Backs, next.Steps = t.Backs+1, max(0, t.Steps-1)
		why = fmt.Sprintf("%d of 10 while it was done: one step back.", a.During)
		if a.During <= overPain {
			why = fmt.Sprintf("%d of 10 the day after, %d before: one step back.", *a.After, a.Morning)
		}
		if next.Backs >= mostBacks {
			next.Over = true
			return next, CourseRefer, why + " Twice in a row: the plan ends. See a clinician."
		}
		return next, CourseBack, why
	case a.After == nil:
		return next, CourseStay, "Nobody said how it was the day after: no step."
	}
	next.Backs, next.Steps = 0, t.Steps+1
	return next, CourseUp, "At most 3 of 10, and settled the day after: " + next.Words()
}

// Words tell where a plan stands.
func (t Tolerance) Words() string {
	switch {
	case t.Steps == 0:
		return "a load without pain."
	case t.Steps <= repsSteps:
		return fmt.Sprintf("the same load, %d reps more than at first.", t.Steps)
	}
	return fmt.Sprintf("the reps of the beginning, %s heavier.", markWords(t.Steps-repsSteps))
}

func markWords(n int) string {
	if n == 1 {
		return "1 mark"
	}
	return fmt.Sprintf("%d marks", n)
}
