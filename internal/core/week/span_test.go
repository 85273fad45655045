package week_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

// A span of n days is asked for, and may hold, n/7 of a week, limits rounded down; what is done
// elsewhere counts on the weekdays it has.
func TestASpanIsAPartOfAWeek(t *testing.T) {
	count := func(s week.Span) (week.Ledger, *week.Trainee) {
		tr := aimed(t)
		tr.Aims.Elsewhere = []person.Elsewhere{{Kind: "press", Weekday: "tue", Sets: 4}}
		tr.Aims.Over(s)
		w := week.Week{}
		return w.Count(tr), tr
	}
	whole, of := count(week.WeekOf(monday + 3))
	require.True(t, week.WeekOf(monday+3).IsWeek())
	for n := 3; n <= 10; n++ {
		l, tr := count(week.Span{From: monday + 2, Days: n}) // from a Wednesday: a Tuesday is in it from 7 days on
		for h := range l.Heads {
			assert.InDelta(t, whole.Heads[h].Target.Low*float64(n)/7, l.Heads[h].Target.Low, 1e-9)
			times := 0.0
			if n >= 7 {
				times = 1
			}
			assert.InDelta(t, whole.Heads[h].Elsewhere.Mid*times, l.Heads[h].Elsewhere.Mid, 1e-9, "%d days", n)
		}
		assert.Equal(t, 24*n/7, tr.MostSets())
		for _, j := range movement.Joints {
			assert.Equal(t, of.MostJoint(j)*n/7, tr.MostJoint(j))
		}
	}
}

// Days of a rotation come round by its own length: the last one is next to the first.
func TestSpacingComesRound(t *testing.T) {
	found := func(first, second, days int) (n int) {
		tr := aimed(t)
		tr.Aims.Over(week.Span{From: monday, Days: days})
		hard := func() []plan.Slot { return []plan.Slot{slot("curl_standing_dumbbells", 5, 2)} }
		w := planned(map[int][]plan.Slot{first: hard(), second: hard()})
		l := w.Count(tr)
		for _, f := range w.Audit(tr, nil, &l, 0) {
			if f.Code == "spacing" {
				n++
			}
		}
		return n
	}
	assert.Zero(t, found(0, 2, 5))
	assert.Equal(t, 1, found(0, 4, 5), "day 5 of a rotation of five is a day from day 1")
	assert.Zero(t, found(0, 4, 7))
	assert.Equal(t, 1, found(0, 6, 7))
}
