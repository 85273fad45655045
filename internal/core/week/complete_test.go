package week_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/week"
)

func TestASheetSaysWhatItLacks(t *testing.T) {
	good := week.Session{Slots: []week.Slot{slot("curl_reclined", 3, 2), slot("pushdown_bar", 3, 2)}}
	assert.Empty(t, good.Incomplete())
	var empty week.Session
	assert.Len(t, empty.Incomplete(), 1)
	for field, change := range map[string]func(*week.Slot){
		"slots[1].dose.sets":     func(s *week.Slot) { s.Dose.Sets = 0 },
		"slots[1].dose.reps_low": func(s *week.Slot) { s.Dose.RepsLow = 0 },
		"slots[1].dose.reserve":  func(s *week.Slot) { s.Dose.Reserve = -1 },
		"slots[1].dose.rest_s":   func(s *week.Slot) { s.Dose.RestS = 0 },
	} {
		s := week.Session{Slots: []week.Slot{slot("curl_reclined", 3, 2), with(slot("pushdown_bar", 3, 2), change)}}
		lacks := s.Incomplete()
		require.Len(t, lacks, 1, field)
		assert.Equal(t, field, lacks[0].Field)
		assert.Contains(t, lacks[0].Reason, "slot 2, Push-down")
	}
	joined := week.Session{Slots: []week.Slot{with(slot("curl_standing_dumbbells", 3, 2), inCombo), with(slot("curl_neutral", 3, 2), func(s *week.Slot) { inCombo(s); s.Dose.RestS = 90 })}}
	assert.Empty(t, joined.Incomplete(), "between the members of a combo there is no rest")
	joined.Slots[1].Dose.RestS = 0
	assert.Len(t, joined.Incomplete(), 1)
}

// Joined slots: no move between them at one station, there and back each round
// between two; the third of three in a row counts less.
func TestCombosAreCountedAsTheyRun(t *testing.T) {
	y := trainee(t).Yardstick
	one := week.Session{Slots: []week.Slot{with(slot("curl_standing_dumbbells", 3, 2), inCombo), slot("curl_neutral", 3, 2)}}
	one.Slots[1].Combo = "a"
	apart := week.Session{Slots: []week.Slot{with(slot("curl_standing_dumbbells", 3, 2), inCombo), slot("pushdown_bar", 3, 2)}}
	apart.Slots[1].Combo = "a"
	assert.InDelta(t, (5*30+60)/60.0, apart.Count(y, leverage).Minutes-one.Count(y, leverage).Minutes, 1e-9, "five moves and a station more")
	row := week.Session{}
	for range 3 {
		row.Slots = append(row.Slots, with(slot("curl_standing_dumbbells", 1, 2), func(s *week.Slot) { s.Combo, s.Dose.Method.ID = "a", "three_in_row" }))
	}
	assert.InDelta(t, 1+0.9+0.8, row.Count(y, leverage).Heads[0].Mid, 1e-9)
}
