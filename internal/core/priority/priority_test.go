package priority_test

import (
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/measure"
	"musculus/internal/core/person"
	"musculus/internal/core/priority"
	"musculus/internal/core/stance"
)

const today = day.Day(20_782)

var (
	leverage = stance.ByID("leverage")
	hand     = stance.ByID("hand")
)

func wish(text string) person.Wish {
	return person.Wish{Text: text, Heads: person.WishHeads(text)[0].Heads}
}

func TestWishesAndRatingsWeigh(t *testing.T) {
	rating := &priority.Rating{
		On:         today - 5,
		Confidence: 3,
		Views:      []string{"side_bent"},
		Heads:      map[string]int{"triceps_long": -2, "biceps_long": 1},
	}
	require.Empty(t, rating.Check(today))
	got, notes := priority.Propose([]person.Wish{wish("the long head of the triceps")}, rating, nil, leverage, priority.Time{}, today)
	assert.Equal(t, priority.Prioritise, got[arm.TricepsLong].Level)
	assert.InDelta(t, 1.5+2, got[arm.TricepsLong].Score, 1e-9)
	assert.Contains(t, strings.Join(got[arm.TricepsLong].Reasons, "; "), "far behind the rest, sure")
	assert.Equal(t, priority.Maintain, got[arm.BicepsLong].Level)
	assert.Empty(t, notes)
	_, notes = priority.Propose(nil, nil, nil, leverage, priority.Time{}, today)
	assert.Contains(t, notes[0], "No pose rating yet")
	old := *rating
	old.On = today - 200
	got, notes = priority.Propose(nil, &old, nil, leverage, priority.Time{}, today)
	assert.Zero(t, got[arm.TricepsLong].Score)
	assert.Contains(t, notes[0], "no longer counts")
}

func TestAStanceThatDoesNotTellNeighboursApartSharesTheWish(t *testing.T) {
	w := []person.Wish{{Text: "outer triceps", Heads: []string{"triceps_lateral"}}}
	got, _ := priority.Propose(w, nil, nil, leverage, priority.Time{}, today)
	assert.InDelta(t, 0.75, got[arm.TricepsMedial].Score, 1e-9)
	assert.Equal(t, priority.Build, got[arm.TricepsMedial].Level)
	assert.False(t, priority.Apart(leverage, arm.BicepsLong, arm.BicepsShort))
	assert.True(t, priority.Apart(stance.ByID("arm_path"), arm.BicepsLong, arm.BicepsShort))
	_ = hand
}

// Never more than three heads come first; a gap never weighs a head; more wishes
// for a head never lower its level.
func TestProposalsOverRandomClients(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 12))
	rank := map[priority.Level]int{priority.Maintain: 0, priority.Build: 1, priority.Prioritise: 2}
	for range 400 {
		var wishes []person.Wish
		for range r.IntN(4) {
			wishes = append(wishes, wish(person.WishKinds[r.IntN(9)].Says))
		}
		rating := &priority.Rating{On: today - day.Day(r.IntN(100)), Confidence: 1 + r.IntN(3), Heads: map[string]int{}}
		for h := range arm.HeadCount {
			rating.Heads[arm.Heads[h].ID] = r.IntN(5) - 2
		}
		st := &stance.Stances[r.IntN(len(stance.Stances))]
		got, _ := priority.Propose(wishes, rating, nil, st, priority.Time{}, today)
		first := 0
		for h := range got {
			if got[h].Level == priority.Prioritise {
				first++
			}
			assert.NotEmpty(t, got[h].Reasons)
		}
		assert.LessOrEqual(t, first, 3)
		gap := measure.Answer{Real: true, By: 1.1, Words: "flexed: the right is 1.1 cm bigger."}
		again, notes := priority.Propose(wishes, rating, []measure.Answer{gap}, st, priority.Time{}, today)
		assert.Equal(t, got, again)
		assert.Contains(t, strings.Join(notes, " "), "one-arm work")
		inside := measure.Answer{By: 0.4, Words: "no gap a tape can show"}
		_, notes = priority.Propose(wishes, rating, []measure.Answer{inside}, st, priority.Time{}, today)
		assert.NotContains(t, strings.Join(notes, " "), "no gap a tape can show", "a gap inside the noise is no finding")
		more, _ := priority.Propose(
			append(wishes, person.Wish{Text: "x", Heads: []string{"brachialis"}}),
			rating,
			nil,
			st,
			priority.Time{},
			today,
		)
		assert.GreaterOrEqual(t, rank[more[arm.Brachialis].Level], rank[got[arm.Brachialis].Level])
	}
}

func TestEmphasisEnds(t *testing.T) {
	until := today + 10
	e := &priority.Emphasis{
		Levels: map[string]priority.Level{"triceps_long": priority.Prioritise, "brachialis": priority.Build},
		Until:  &until,
	}
	assert.Empty(t, e.Check(today))
	assert.Equal(t, priority.Prioritise, e.Of(arm.TricepsLong, today+10))
	assert.Equal(t, priority.Build, e.Of(arm.TricepsLong, today+11))
	assert.Equal(t, priority.Maintain, e.Of(arm.BicepsLong, today))
	var none *priority.Emphasis
	assert.Equal(t, priority.Maintain, none.Of(arm.BicepsLong, today))
	e.Until = nil
	assert.Len(t, e.Check(today), 1)
	bad := &priority.Emphasis{Levels: map[string]priority.Level{"calf": "huge"}}
	assert.Len(t, bad.Check(today), 2)
	assert.Equal(t, priority.Target{Low: 12, High: 18}, priority.TargetOf(priority.Prioritise, false))
	assert.InDelta(t, 8, priority.TargetOf(priority.Prioritise, true).Low, 1e-9)
}

// What the week has no time for is not proposed, the least asked for first; the first
// year asks less.
func TestProposalsKnowTheTime(t *testing.T) {
	asked := func(text, head string) person.Wish { return person.Wish{Text: text, Heads: []string{head}} }
	wishes := []person.Wish{asked("a", "triceps_long"), asked("b", "triceps_long"), asked("c", "brachialis"), asked("d", "brachialis")}
	free, notes := priority.Propose(wishes, nil, nil, leverage, priority.Time{}, today)
	assert.Equal(t, priority.Prioritise, free[arm.TricepsLong].Level)
	assert.Equal(t, priority.Prioritise, free[arm.Brachialis].Level)
	assert.Len(t, notes, 1, "no rating; nothing of time")
	for _, c := range []struct {
		time      priority.Time
		long, arm priority.Level
		told      bool
		hard      int
	}{
		{priority.Time{Minutes: 60, Days: 3}, priority.Prioritise, priority.Prioritise, false, 60},
		{priority.Time{Minutes: 30, Days: 2}, priority.Prioritise, priority.Maintain, true, 16},
		{priority.Time{Minutes: 30, Days: 2, FirstYear: true}, priority.Prioritise, priority.Prioritise, false, 16},
		{priority.Time{Minutes: 15, Days: 1}, priority.Maintain, priority.Maintain, true, 2},
		{priority.Time{Minutes: 5, Days: 1}, priority.Maintain, priority.Maintain, true, 0},
	} {
		holds, known := c.time.Holds()
		assert.True(t, known)
		assert.Equal(t, c.hard, holds)
		got, notes := priority.Propose(wishes, nil, nil, leverage, c.time, today)
		assert.Equal(
			t,
			[2]priority.Level{c.long, c.arm},
			[2]priority.Level{got[arm.TricepsLong].Level, got[arm.Brachialis].Level},
			"%+v",
			c.time,
		)
		assert.Equal(t, c.told, strings.Contains(strings.Join(notes, " "), "hard sets"), "%+v: %v", c.time, notes)
	}
}
