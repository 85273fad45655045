package decide

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// A plan goes on over weeks: up where a session was quiet and the morning after, too; nothing
// while the answer is waited for; back where it was not; twice back and it ends and refers.
func TestATolerancePlan(t *testing.T) {
	s := history(twos, "8,8,8@6", "8,8,8@6", "9,9,9@6")
	p := Tolerance{Series: s.Key, Joint: movement.ElbowBack, Side: person.Right, Started: today - 30}
	report := func(on day.Day, score int, in string) person.JointReport {
		return person.JointReport{On: on, Joint: p.Joint, Side: p.Side, Score: score, In: in}
	}
	on := func(i int) day.Day { return s.Sessions[i].On }
	quiet := []person.JointReport{report(on(0), 1, ""), report(on(0), 2, s.Sessions[0].ID.String()), report(on(0)+1, 1, ""),
		report(on(1)+1, 1, ""), report(on(2)+1, 0, "")}
	step := func(reports []person.JointReport, at day.Day) (*Led, *Proposal) {
		l := p.Follow(s.Sessions, reports, at)
		s.Led = &l
		c := attending()
		c.Today = at
		return &l, For(c, nil, s)
	}
	l, got := step(quiet, today)
	assert.Equal(t, 3, l.At.Steps)
	require.NotNil(t, got)
	assert.Equal(t, Steps{Reps: 1}, got.Steps)

	l, got = step(quiet[:4], on(2)+1)
	assert.True(t, l.Waiting)
	assert.Nil(t, got, "nobody has said how it is this morning")
	assert.Contains(t, l.Words(), "decides")
	l, got = step(quiet[:4], on(2)+2)
	assert.False(t, l.Waiting)
	assert.Equal(t, 2, l.At.Steps, "no answer, no step")
	assert.Nil(t, got)

	loud := append(quiet[:4:4], report(on(2), 5, s.Sessions[2].ID.String()))
	l, got = step(loud, today)
	assert.Equal(t, 1, l.At.Steps)
	require.NotNil(t, got)
	assert.Equal(t, Steps{Reps: -1}, got.Steps)
	twice := append(loud, report(on(1), 4, s.Sessions[1].ID.String()))
	l, got = step(twice, today)
	assert.True(t, l.At.Over)
	require.NotNil(t, got)
	assert.Contains(t, got.Says, "looked at")
	assert.True(t, got.Steps.Nothing())

	s.Taken = []Taken{{On: on(2), Proposal: Proposal{Kind: ToleranceStep}}}
	_, got = step(quiet, today)
	assert.Nil(t, got, "a step is taken once")
	s.Taken = nil
	s.Led = &Led{Tolerance: p, At: l.At, Course: "up", On: on(2), before: 3}
	s.Led.At.Over = false
	assert.Equal(t, Steps{HandKg: 8, Reps: -3}, For(attending(), nil, s).Steps, "after three reps the next mark")
}
