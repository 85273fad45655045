package week_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

func TestASheetSaysWhatItLacks(t *testing.T) {
	good := plan.Session{Slots: []plan.Slot{slot("curl_reclined", 3, 2), slot("pushdown_bar", 3, 2)}}
	assert.Empty(t, good.Incomplete())
	var empty plan.Session
	assert.Len(t, empty.Incomplete(), 1)
	for field, change := range map[string]func(*plan.Slot){
		"slots[1].rows[0].sets":     func(s *plan.Slot) { s.Rows[0].Sets = 0 },
		"slots[1].rows[0].reps_low": func(s *plan.Slot) { s.Rows[0].RepsLow = 0 },
		"slots[1].rows[0].reserve":  func(s *plan.Slot) { s.Rows[0].Reserve = -1 },
		"slots[1].rows[0].rest_s":   func(s *plan.Slot) { s.Rows[0].RestS = 0 },
	} {
		s := plan.Session{Slots: []plan.Slot{slot("curl_reclined", 3, 2), with(slot("pushdown_bar", 3, 2), change)}}
		lacks := s.Incomplete()
		require.Len(t, lacks, 1, field)
		assert.Equal(t, field, lacks[0].Field)
		assert.Contains(t, lacks[0].Reason, "slot 2, Push-down")
	}
	joined := plan.Session{
		Slots: []plan.Slot{with(slot("curl_standing_dumbbells", 3, 2), inCombo), with(slot("curl_neutral", 3, 2), inCombo)},
	}
	joined.Combos = combos(joined.Slots)
	assert.Empty(t, joined.Incomplete(), "between the members of a combo there is no rest")
	joined.Combos[0].AfterS = 0
	assert.Len(t, joined.Incomplete(), 1)
}

// Joined slots take no move; the third of three in a row counts less.
func TestCombosAreCountedAsTheyRun(t *testing.T) {
	y := trainee(t).Yardstick
	row := plan.Session{}
	for range 3 {
		row.Slots = append(row.Slots, with(slot("curl_standing_dumbbells", 1, 2), inCombo))
	}
	assert.InDelta(t, 1+0.9+0.8, week.Count(&row, y, leverage).Heads[0].Mid, 1e-9)
}
