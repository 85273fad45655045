package week

import (
	"fmt"

	"musculus/internal/core/person"
	"musculus/internal/core/series"
)

// Seed proposes a load that the audit would not speak against: load added to the
// body only once it is earned, the strong top of a press along its course.
func (t *Trainee) Seed(ask *series.Ask, known []series.Known) series.Seed {
	seed := series.Propose(ask, known)
	if seed.Source == series.FindIt {
		return seed
	}
	carry, rigging := person.CarryOf(ask.SetUp), t.Room.Rigging(t.Yardstick.Body().BodyMass)
	if v := t.Fence.JudgeAdded(ask.SetUp, seed.Whole); carry == person.BodyWeight && v.Ruling != person.Allowed {
		return series.Seed{Source: seed.Source, PerHand: carry.PerHand(0, rigging), Words: "Body weight alone. " + v.Reasons[0].Words}
	}
	if !ask.SetUp.Movement.TopRange {
		return seed
	}
	course, ok := series.CourseOf(ask.SetUp, t.Own, ask.Low, ask.High, ask.Reserve)
	if !ok {
		return series.Seed{
			Source: series.FindIt,
			Words:  series.FindWords + ". There is no full-range press to hold it against: stay under what could be pressed ten times.",
		}
	}
	if seed.PerHand <= course.Now {
		return seed
	}
	down, ok := person.RoundDown(t.Room.Steps(ask.SetUp), carry.Whole(course.Now, rigging))
	if !ok {
		return series.Seed{Source: series.FindIt, Words: series.FindWords}
	}
	return series.Seed{
		Source:  series.FromRatio,
		Whole:   down,
		PerHand: carry.PerHand(down, rigging),
		Words: fmt.Sprintf(
			"%s, along the course of a top-range press: from the full range of this band (%s), 5 %% more a clean week.",
			t.Room.Words(down, ask.SetUp),
			course.Words,
		),
	}
}
