package decide

import (
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"

	"musculus/internal/core/block"
	"musculus/internal/core/plan"
)

// The calendar's lighter turn is asked about where it is not one yet, silences what would rise
// while it is on, and what may change in a block decides how soon set-ups do.
func TestTheBlocksCalendar(t *testing.T) {
	tr := trainee(t)
	b := block.Block{ID: uuid.New(), Start: today - 42, Every: block.Week, Turns: 7,
		Course: block.Course{From: 3, To: 1, Lighter: true, Change: block.Varied}}
	light := plan.Planned{ID: uuid.New(), On: today + 1, Session: plan.Session{Slots: []plan.Slot{slotOf("curl_standing_dumbbells", 2)}}}
	full := light
	full.Slots = []plan.Slot{slotOf("curl_standing_dumbbells", 4)}
	look := func(now plan.Planned) (*Client, map[uuid.UUID]bool) {
		c, lighter := &Client{Variety: "keep"}, map[uuid.UUID]bool{}
		f := &Facts{T: tr, Today: today, Block: &InBlock{Block: b, Made: []block.Made{{Turn: 6, As: light, Now: now}}}}
		c.inBlock(f, lighter)
		return c, lighter
	}
	c, lighter := look(light)
	assert.Empty(t, c.Calendar)
	assert.True(t, c.Lighter)
	assert.True(t, lighter[light.ID])
	assert.Equal(t, "often", c.Variety)

	c, _ = look(full)
	assert.Contains(t, c.Calendar, "1 session of it is not")
	assert.False(t, c.Lighter)
	assert.Equal(t, LighterWeek, Whole(&Client{Today: today, Calendar: c.Calendar}, nil).Kind)
}

// What was decided goes into what is made later, in its order; what was put off, taken back or is
// over does not.
func TestDecisionsAreCarried(t *testing.T) {
	tr := trainee(t)
	slot := slotOf("curl_standing_dumbbells", 3)
	key := slot.SetUp.Key()
	taken := []Taken{
		{Proposal: Proposal{Kind: Heavier, Series: key, Steps: Steps{HandKg: 14}}},
		{Proposal: Proposal{Kind: MoreSets, Series: key, Steps: Steps{Sets: 1}}, Undone: true},
		{Proposal: Proposal{Kind: MoreSets, Series: key, Steps: Steps{Sets: 1}}, NotNow: true},
		{Proposal: Proposal{Kind: MoreReps, Series: key, Steps: Steps{Reps: 1}}},
		{Proposal: Proposal{Kind: LighterWeek, Steps: Steps{Halve: true}}},
	}
	s := plan.Session{Slots: []plan.Slot{slot}}
	Carry(tr, taken, &s, func(x *Taken) bool { return x.Kind != LighterWeek })
	row := s.Slots[0].Rows[0]
	assert.InDelta(t, 14, *row.Load.Kg, 1e-9)
	assert.Equal(t, [3]int{3, 9, 13}, [3]int{row.Sets, row.RepsLow, row.RepsHigh})
	assert.Equal(t, 8, slot.Rows[0].RepsLow, "what was read stays as it was")
}
