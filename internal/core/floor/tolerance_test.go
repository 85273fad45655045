package floor

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/day"
	"musculus/internal/core/person"
)

func score(n int) *int { return &n }

// A step only after a quiet session and a quiet morning; back where it was not; twice back and it
// ends and refers; never longer than twelve weeks.
func TestTheCourseOfATolerancePlan(t *testing.T) {
	start := day.Of(2026, 11, 2)
	plan := Tolerance{Started: start, Steps: 2}
	for i, c := range []struct {
		a     Answered
		want  Course
		steps int
	}{
		{Answered{start + 1, 1, 3, score(1)}, CourseUp, 3},
		{Answered{start + 1, 1, 2, score(0)}, CourseUp, 3},
		{Answered{start + 1, 1, 2, nil}, CourseStay, 2},
		{Answered{start + 1, 1, 4, score(1)}, CourseBack, 1},
		{Answered{start + 1, 1, 4, nil}, CourseBack, 1},
		{Answered{start + 1, 1, 2, score(2)}, CourseBack, 1},
		{Answered{start + 84, 1, 2, score(1)}, CourseEnd, 2},
	} {
		next, got, why := plan.Next(c.a)
		assert.Equal(t, c.want, got, "%d: %s", i, why)
		assert.Equal(t, c.steps, next.Steps, i)
		assert.NotEmpty(t, why)
	}
	once, _, _ := plan.Next(Answered{start + 1, 1, 5, nil})
	quiet, _, _ := once.Next(Answered{start + 3, 1, 2, score(1)})
	assert.Zero(t, quiet.Backs, "a quiet one forgives")
	twice, got, why := once.Next(Answered{start + 3, 1, 5, nil})
	assert.Equal(t, CourseRefer, got)
	assert.Contains(t, why, "clinician")
	_, got, _ = twice.Next(Answered{start + 5, 0, 0, score(0)})
	assert.Equal(t, CourseEnd, got, "what has ended stays so")
	assert.Equal(t, []string{"a load without pain.",
		"the same load, 2 reps more than at first.", "the reps of the beginning, 1 mark heavier."},
		[]string{Tolerance{}.Words(), Tolerance{Steps: 2}.Words(), Tolerance{Steps: 4}.Words()})
}

// Nobody begins one who is not to.
func TestWhoMayBeginATolerancePlan(t *testing.T) {
	today := day.Of(2026, 11, 27)
	consent := today - 30
	d := person.Dossier{Name: "Noor", BornYear: 1990, HealthConsent: &consent}
	s := &person.Screening{On: today, Answers: map[string]person.Answer{}}
	standing := func() *person.Standing { st := person.StandingOf(&d, s, nil, today); return &st }
	assert.Empty(t, MayBegin(&d, s, standing(), today))
	assert.NotEmpty(t, MayBegin(&d, nil, standing(), today))
	s.Answers["snap"] = person.Answer{Yes: true}
	assert.Contains(t, MayBegin(&d, s, standing(), today), "open")
	cleared := today - 1
	s.Answers = map[string]person.Answer{"tendon": {Yes: true, ClearedOn: &cleared}}
	assert.Contains(t, MayBegin(&d, s, standing(), today), "injection", "though it is cleared")
}
