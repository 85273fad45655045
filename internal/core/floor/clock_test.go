package floor

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
	"musculus/internal/core/week"
)

func TestTheRest(t *testing.T) {
	at := time.Date(2026, 11, 27, 18, 0, 0, 0, time.UTC)
	r := RestAfter(at, 90, 0)
	assert.InDelta(t, 90, r.Left(at), 1e-9)
	assert.InDelta(t, 30, r.Left(at.Add(time.Minute)), 1e-9)
	assert.InDelta(t, -10, r.Left(at.Add(100*time.Second)), 1e-9, "after a minute asleep it is the true time")
	assert.False(t, r.Long(at.Add(112*time.Second)))
	assert.True(t, r.Long(at.Add(113*time.Second)))
	other := RestAfter(at, 90, 40)
	assert.InDelta(t, 50, other.Left(at), 1e-9, "the other arm's set is rest")
	assert.False(t, RestAfter(at, 0, 0).Long(at.Add(time.Hour)), "none was planned")
	assert.InDelta(t, 80, RealRest(at, at.Add(2*time.Minute), 40), 1e-9)
	assert.Zero(t, RealRest(at, at.Add(10*time.Second), 40))
}

func session(slots ...plan.Slot) *plan.Session { return &plan.Session{WarmUpMin: 5, Slots: slots} }

func slotOf(id string, sets int) plan.Slot {
	return plan.Of(movement.Shipped.Get(id).Default(), dose.Dose{Sets: sets, RepsLow: 8, RepsHigh: 12, Reserve: 2, RestS: 90})
}

// What is ahead shrinks set by set, and the forecast with it; what is planned is not touched.
func TestTheForecast(t *testing.T) {
	tr := tr0(t)
	s := session(slotOf("curl_standing_dumbbells", 3), slotOf("pushdown_bar", 3))
	whole := tr.Count(s).Minutes
	assert.InDelta(t, whole, Forecast(tr, s, nil), 1e-9)
	last := whole
	for _, done := range [][]int{{1, 0}, {2, 0}, {3, 0}, {3, 1}, {3, 2}} {
		left := Forecast(tr, s, done)
		assert.Less(t, left, last, done)
		last = left
	}
	assert.Zero(t, Forecast(tr, s, []int{3, 3}))
	assert.Zero(t, Forecast(tr, s, []int{9, 9}), "more than planned")
	assert.Equal(t, 3, s.Slots[0].Sets())
	assert.Len(t, Ahead(s, []int{3, 1}).Slots, 1)
}

// What can be left out costs the week least for its time: first what nobody is aimed at.
func TestWhatCanBeLeftOut(t *testing.T) {
	tr := tr0(t)
	tr.Aims = &week.Aims{}
	for h := range tr.Aims.Levels {
		tr.Aims.Levels[h] = priority.Maintain
	}
	tr.Aims.Levels[arm.TricepsLong] = priority.Prioritise
	w := &week.Week{Sessions: []plan.Planned{{On: day.Of(2026, 11, 27), Session: *session(slotOf("overhead_cable_low", 4),
		slotOf("curl_standing_dumbbells", 4), slotOf("curl_reclined", 4))}}}
	got := LeaveOut(tr, w, 0, []int{1, 0, 0})
	require.Len(t, got, 3)
	assert.NotEqual(t, 0, got[0].Slot, "not what is prioritised")
	assert.Equal(t, 0, got[2].Slot)
	assert.Contains(t, got[2].Words, "Without 3 sets of ")
	assert.Contains(t, got[2].Words, "effective sets under target")
	for i := 1; i < len(got); i++ {
		assert.LessOrEqual(t, got[i-1].Loses/got[i-1].Minutes, got[i].Loses/got[i].Minutes)
	}
	assert.Empty(t, LeaveOut(tr, w, 0, []int{4, 4, 4}))
	assert.Equal(t, 4, w.Sessions[0].Slots[0].Sets(), "the plan is not touched")
}
