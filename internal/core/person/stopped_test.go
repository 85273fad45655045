package person_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// Training is stopped from the answer on, not from the day it is asked about.
func TestSinceWhenTrainingIsStopped(t *testing.T) {
	d := consenting()
	at := func(daysAgo int) time.Time {
		return time.Unix(int64(today-day.Day(daysAgo))*24*60*60, 0).Add(10 * time.Hour)
	}
	round := func(daysAgo int, yes ...string) person.Recorded {
		s := allNo()
		s.On = today - day.Day(daysAgo)
		for _, q := range yes {
			s.Answers[q] = person.Answer{Yes: true}
		}
		return person.Recorded{At: at(daysAgo), Day: s.On, Round: s}
	}
	ache := func(daysAgo, score int) person.Recorded {
		r := person.JointReport{On: today - day.Day(daysAgo), Joint: movement.Wrist, Side: person.Left, Score: score}
		return person.Recorded{At: at(daysAgo), Day: r.On, Report: &r}
	}
	since := func(records ...person.Recorded) time.Time { return person.StoppedSince(&d, records, today) }
	assert.Zero(t, since(), "never screened")
	assert.Equal(t, at(2), since(round(30), round(2, "chest")))
	assert.Equal(t, at(9), since(round(30), round(9, "chest"), round(2, "chest")), "asked again, the same")
	assert.Equal(t, at(2), since(round(30, "chest"), round(9), round(2, "chest")), "it was cleared in between")
	assert.Zero(t, since(round(9, "chest"), round(2, "chest")), "from the first answer on")
	assert.Equal(t, at(1), since(round(30), ache(9, 5), ache(1, 5)), "over 3 twice in a row")
	assert.Equal(t, today-5, day.Day(since(round(30), ache(20, 5)).Unix()/(24*60*60)), "two weeks without easing")
}
