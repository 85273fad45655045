package week_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
	"musculus/internal/core/week"
)

// What is proposed is nothing the audit would speak against.
func TestNoLoadIsProposedThatTheAuditIsAgainst(t *testing.T) {
	tr := aimed(t)
	tr.Room.Things = append(tr.Room.Things, person.BeltOf(5, 10, 20, 30))
	ask := func(id string, low, high int) *series.Ask {
		return &series.Ask{
			SetUp:     movement.Shipped.Get(id).Default(),
			Room:      tr.Room,
			Yardstick: tr.Yardstick,
			Stance:    tr.Stance,
			Low:       low,
			High:      high,
			Reserve:   2,
			Today:     1000,
		}
	}
	known := func(id string, e1rm float64) []series.Known {
		return []series.Known{{SetUp: movement.Shipped.Get(id).Default(), Points: []series.Point{{On: 995, E1RM: e1rm}}}}
	}
	find := func(seed series.Seed, id string, a *series.Ask) []week.Finding {
		x := slot(id, 3, 2)
		x.Rows[0].Dose = dose.Dose{
			Sets:     3,
			RepsLow:  a.Low,
			RepsHigh: a.High,
			Reserve:  2,
			RestS:    120,
			Load:     dose.Carried(tr.Floor().Rack(x.SetUp), seed.PerHand),
		}
		s := &plan.Session{Slots: []plan.Slot{x}}
		return tr.Findings(s, week.Count(s, tr.Yardstick, tr.Stance), 0)
	}
	tr.Fence = &person.Fence{Mobility: person.Mobility{DipLevel: "bars", CleanDips: 9}}
	dips, strong := ask("dip_bars", 6, 8), person.BodyWeight.PerHand(60, tr.Room.Rigging(tr.Yardstick.Body().BodyMass))
	seed := tr.Seed(dips, known("dip_bars", strong))
	assert.Contains(t, seed.Words, "Body weight alone")
	assert.False(t, contains(find(seed, "dip_bars", dips), "ladder", week.Warn))
	tr.Fence.Mobility.CleanDips = 12
	assert.Positive(t, tr.Seed(dips, known("dip_bars", strong)).Whole, "earned")

	pins := ask("press_pin_top", 6, 10)
	full := movement.Shipped.Get("press_bench_close").Default()
	tr.Own = map[string]series.Own{full.Key(): {SetUp: full, E1RM: 35, Logged: 6}}
	plain := series.Propose(pins, known("press_pin_top", 60))
	course, ok := series.CourseOf(pins.SetUp, tr.Own, pins.Low, pins.High, pins.Reserve)
	require.True(t, ok)
	require.Greater(t, plain.PerHand, course.Now, "its own series alone would propose more")
	seed = tr.Seed(pins, known("press_pin_top", 60))
	assert.LessOrEqual(t, seed.PerHand, course.Now)
	assert.Positive(t, seed.PerHand)
	assert.False(t, contains(find(seed, "press_pin_top", pins), "top_range", week.Warn))
	tr.Own = nil
	assert.Equal(t, series.FindIt, tr.Seed(pins, known("press_pin_top", 60)).Source, "nothing to hold it against")
}
