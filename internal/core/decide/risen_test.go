package decide

import (
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/day"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
)

// Direct sets go first where pressing elsewhere rose, gives their head too, and it has enough
// without them.
func TestElsewhereRose(t *testing.T) {
	press := func(sets int) []person.Elsewhere {
		return []person.Elsewhere{{Kind: "press", Weekday: "tue", Sets: sets}}
	}
	ask := func(before, now []person.Elsewhere, level priority.Level) []string {
		tr := trainee(t)
		for h := range tr.Aims.Levels {
			tr.Aims.Levels[h] = level
		}
		tr.Aims.Elsewhere = now
		f := &Facts{T: tr, Today: today, Elsewhere: &Elsewhere{before, today - 10},
			Sessions: []plan.Planned{{ID: uuid.New(), Name: "Rope", On: today + 1, Session: plan.Session{
				Slots: []plan.Slot{slotOf("pushdown_rope", 3), slotOf("overhead_cable_low", 5)},
			}}}}
		c, _ := Gather(f)
		return c.Duplicates
	}
	said := ask(press(4), press(12), priority.Maintain)
	require.Len(t, said, 1)
	assert.Contains(t, said[0], "rose by 8 hard sets a week")
	assert.Equal(t, LessDirect, Whole(&Client{Today: today, Duplicates: said}, nil).Kind)
	assert.Empty(t, ask(press(12), press(12), priority.Maintain), "it did not rise")
	assert.Empty(t, ask(press(12), press(4), priority.Maintain), "it fell")
	assert.Empty(t, ask(press(4), press(12), priority.Prioritise), "its head needs the direct sets")
	assert.Empty(t, ask(nil, press(12), priority.Maintain), "it was said for the first time")
}

// What is planned beyond the caps of today asks for other doses.
func TestCapsThatBegan(t *testing.T) {
	tr := trainee(t)
	s := plan.Planned{ID: uuid.New(), Name: "Rope", On: today + 1,
		Session: plan.Session{WarmUpMin: 5, Slots: []plan.Slot{slotOf("curl_standing_dumbbells", 3)}}}
	f := &Facts{T: tr, Today: today, Sessions: []plan.Planned{s}}
	c, _ := Gather(f)
	assert.Empty(t, c.Begun)
	tr.Caps.MinReserve = 3
	c, _ = Gather(f)
	require.Len(t, c.Begun, 1)
	assert.Contains(t, c.Begun[0], "at least 3 in reserve")
	assert.Equal(t, Doses, Whole(c, nil).Kind)
}

// A head that looked behind when it was made the emphasis, and does no longer, asks for another.
func TestAHeadCatchesUp(t *testing.T) {
	e := &priority.Emphasis{Levels: map[string]priority.Level{"triceps_long": priority.Prioritise}, SetOn: today - 40}
	rated := func(ago, score, sure int) priority.Rating {
		return priority.Rating{On: today - day.Day(ago), Heads: map[string]int{"triceps_long": score}, Confidence: sure}
	}
	assert.NotEmpty(t, CaughtUp(e, []priority.Rating{rated(50, -1, 2), rated(3, 0, 3)}, today))
	assert.Empty(t, CaughtUp(e, []priority.Rating{rated(50, -1, 2), rated(3, -1, 3)}, today), "behind still")
	assert.Empty(t, CaughtUp(e, []priority.Rating{rated(50, -1, 2), rated(3, 0, 1)}, today), "a guess")
	assert.Empty(t, CaughtUp(e, []priority.Rating{rated(3, 0, 3)}, today), "nothing to hold it against")
	assert.Empty(t, CaughtUp(nil, nil, today))
}
