package week

import (
	"fmt"
	"math"

	"musculus/internal/core/dose"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
)

// heaviest is the heaviest whole load that any set of a slot asks for, its methods
// and its combo counted in; false where no load is known.
func (t *Trainee) heaviest(s *plan.Session, i int) (most float64, known bool) {
	for n := range s.Slots[i].Sets() {
		for _, x := range s.Loads(i, n, t.Floor()) {
			if !known || x > most {
				most, known = x, true
			}
		}
	}
	return most, known
}

// added is what a slot adds to the body, kg; 0 where the body is not what is lifted.
func (t *Trainee) added(s *plan.Session, i int) float64 {
	if person.CarryOf(s.Slots[i].SetUp) != person.BodyWeight {
		return 0
	}
	most, _ := t.heaviest(s, i)
	return most
}

// byLoad are the findings on what a slot's load is, whatever its movement is
// called: load added to a dip or pull-up, and top-range presses against the full
// range.
func (t *Trainee) byLoad(s *plan.Session, i int, add func(code string, severity Severity, slot int, text string, args ...any)) {
	slot := &s.Slots[i]
	switch v := t.Fence.JudgeAdded(slot.SetUp, t.added(s, i)); {
	case v.Barred():
		add("ladder", Warn, i, "Slot %d is to be avoided: %s", i+1, v.Reasons[0].Words)
	case v.Overridden == "" && v.Ruling == person.Modify:
		add("ladder", Note, i, "Slot %d, to modify: %s", i+1, v.Reasons[0].Words)
	}
	course, known, isTop := t.courseOf(slot)
	most, loaded := t.heaviest(s, i)
	if !isTop || !loaded {
		return
	}
	carry, rigging := person.CarryOf(slot.SetUp), t.Room.Rigging(t.Yardstick.Body().BodyMass)
	says := func(hand float64) string {
		return t.Room.Words(math.Round(10*carry.Whole(hand, rigging))/10, slot.SetUp)
	}
	hand := carry.PerHand(most, rigging)
	switch {
	case !known:
		add(
			"top_range",
			Warn,
			i,
			"Slot %d is a top-range press with no full-range press to hold its load against: find it, under what could be pressed ten times.",
			i+1,
		)
	case hand > course.Limit+1e-9:
		add(
			"top_range",
			Stop,
			i,
			"Slot %d asks for %s in the strong top of a press, over %.0f %% of the full range (%s for one rep, by %s).",
			i+1,
			t.Room.Words(most, slot.SetUp),
			100*series.MostOfFull,
			says(course.Full),
			course.Words,
		)
	case hand > course.Now+1e-9:
		add(
			"top_range",
			Warn,
			i,
			"Slot %d asks for %s in the strong top of a press, above its course: %s now, from the full range of this band (%s), "+
				"5 %% more a clean week.",
			i+1,
			t.Room.Words(most, slot.SetUp),
			says(course.Now),
			course.Words,
		)
	}
}

// courseOf is what a slot's top-range work is held to: known says whether there is
// a series to take it from, isTop whether it is such work at all.
func (t *Trainee) courseOf(s *plan.Slot) (course series.Course, known, isTop bool) {
	d := s.First()
	switch {
	case s.SetUp.Movement.TopRange:
		course, known = series.CourseOf(s.SetUp, t.Own, d.RepsLow, d.RepsHigh, d.Reserve)
		return course, known, true
	case d.Method.ID == dose.StrongPartials:
		own := t.Own[s.SetUp.Key()]
		course, known = series.CourseFrom(own, d.Method.N, d.RepsLow, d.RepsHigh, d.Reserve)
		return course, known, known // without a series the method's own rule holds
	}
	return course, false, false
}

// soften is the fix of a finding by load: body weight alone, or the course.
func (a *auditor) soften(i, j int) *Fix {
	s := &a.week.Sessions[i]
	slot := &s.Slots[j]
	carry, rigging := person.CarryOf(slot.SetUp), a.t.Room.Rigging(a.t.Yardstick.Body().BodyMass)
	if carry == person.BodyWeight {
		return a.change("Use body weight alone", func(w *Week) bool {
			to := &w.Sessions[i].Slots[j]
			to.Each(func(r *plan.Row) { r.Method, r.Load = dose.Use{}, nil })
			to.Take(dose.Added(0))
			return a.t.added(&w.Sessions[i].Session, j) == 0
		})
	}
	course, known, _ := a.t.courseOf(slot)
	if down, ok := person.RoundDown(a.t.Room.Steps(slot.SetUp), carry.Whole(course.Now, rigging)); known && ok &&
		slot.First().Method.ID == "" {
		return a.change("Use "+a.t.Room.Words(down, slot.SetUp), func(w *Week) bool {
			w.Sessions[i].Slots[j].Take(dose.Kg(carry.PerHand(down, rigging)))
			return true
		})
	}
	return a.change(fmt.Sprintf("Let the load be found: %s", series.FindWords), func(w *Week) bool {
		w.Sessions[i].Slots[j].Take(dose.ToFind())
		return true
	})
}
