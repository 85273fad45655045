package block

import (
	"fmt"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

// Effort climbs from the first turn to the last hard one, in every length of a block, and never
// falls; the lighter turn has half the sets with 3 left.
func TestEffortClimbs(t *testing.T) {
	for turns := FewestTurns; turns <= MostTurns; turns++ {
		for _, lighter := range []bool{false, true} {
			b := eight()
			b.Turns, b.Lighter = turns, lighter
			require.Empty(t, b.Says())
			assert.Equal(t, 3, b.Reserve(0))
			last := turns - 1
			if lighter {
				assert.Equal(t, plan.LighterReserve, b.Reserve(last))
				last--
			}
			assert.Equal(t, 1, b.Reserve(last))
			for k := 1; k <= last; k++ {
				assert.LessOrEqual(t, b.Reserve(k), b.Reserve(k-1))
			}
		}
	}
	tr := trainee(t)
	all := eight().All(tr, nil)
	for k, turn := range all {
		for i := range turn {
			for j := range turn[i].Slots {
				slot := &turn[i].Slots[j]
				assert.Equal(t, eight().Reserve(k), slot.Rows[0].Reserve)
				want := 3
				if k == 7 {
					want = 2 // half, rounded up
				}
				assert.Equal(t, want, slot.Sets())
			}
			assert.Empty(t, tr.Check(&turn[i].Session))
		}
	}
}

// What is locked, what has a method and what is planned far from the limit stay as they are; how
// the sets of a slot differ from each other stays; caps hold.
func TestEffortLeavesAlone(t *testing.T) {
	tr := trainee(t)
	b := eight()
	slots := b.Days[0].Slots
	slots[0].Locked = true
	slots[1].Rows = append(slots[1].Rows, plan.Row{ID: uuid.New(), Dose: slots[1].Rows[0].Dose})
	slots[1].Rows[1].Sets, slots[1].Rows[1].Reserve, slots[1].Rows[1].Load = 1, 1, nil
	first := b.All(tr, nil)[0][0]
	assert.Equal(t, 2, first.Slots[0].Rows[0].Reserve)
	assert.Equal(t, []int{3, 2}, []int{first.Slots[1].Rows[0].Reserve, first.Slots[1].Rows[1].Reserve})

	slots[0].Locked = false
	slots[0].Rows[0].Reserve = 5
	assert.Equal(t, 5, b.All(tr, nil)[6][0].Slots[0].Rows[0].Reserve)

	slots[0].Rows[0].Reserve = 2
	tr.Caps = person.Caps{MinReserve: 3}
	for _, turn := range b.All(tr, nil) {
		assert.GreaterOrEqual(t, turn[0].Slots[0].Rows[0].Reserve, 3)
	}
}

// The last hard turn touches the limit with one set, where failing alone is safe, and no other.
func TestTouchingTheLimit(t *testing.T) {
	tr := trainee(t)
	b := eight()
	b.Limit = true
	for k, turn := range b.All(tr, nil) {
		for i := range turn {
			for j := range turn[i].Slots {
				want := 0
				if k == 6 {
					want = 1
				}
				assert.Equal(t, want, turn[i].Slots[j].Failures(), "turn %d", k+1)
				assert.Empty(t, tr.Check(&turn[i].Session))
			}
		}
	}
}

// Sets climb by at most one a head from turn to turn, inside its target, and never into what the
// audit would find.
func TestSetsClimbInsideTheirTargets(t *testing.T) {
	tr := trainee(t)
	for _, by := range []int{1, -1} {
		b := eight()
		b.Sets = by
		all := b.All(tr, nil)
		count := func(k int) week.Ledger { w := week.Week{Sessions: all[k]}; return w.Count(tr) }
		before := count(0)
		moved := false
		for k := 1; k < 7; k++ {
			now := count(k)
			for h := range now.Heads {
				a, x := &before.Heads[h], &now.Heads[h]
				d := x.Total.Mid - a.Total.Mid
				assert.LessOrEqual(t, d*float64(by), 1.001)
				assert.GreaterOrEqual(t, d*float64(by), -1e-9)
				assert.LessOrEqual(t, x.Total.Mid, max(x.Target.High, a.Total.Mid))
				assert.GreaterOrEqual(t, x.Total.Mid, min(x.Target.Low, a.Total.Mid))
				moved = moved || d != 0
			}
			for i := range now.Sessions {
				assert.LessOrEqual(t, now.Sessions[i].Hard(plan.Flexors), week.MostGroupSets)
			}
			before = now
		}
		assert.True(t, moved)
	}
}

// Near the date rests are as short as the band takes, and the load starts a mark lower.
func TestDenseNearTheDate(t *testing.T) {
	tr := trainee(t)
	b := eight()
	b.Dense, b.Ready = true, b.Start+8*7
	require.Empty(t, b.Says())
	for k, turn := range b.All(tr, nil) {
		row := turn[0].Slots[0].Rows[0]
		if k == 5 || k == 6 {
			assert.Equal(t, 60, row.RestS)
			assert.Less(t, *row.Load.Kg, 12.0)
			continue
		}
		assert.Equal(t, 120, row.RestS)
		assert.InDelta(t, 12, *row.Load.Kg, 1e-9)
	}
}

// Days of a block: turns, slides and the stretch that is looked at with a day follow one another
// without a gap and without an overlap.
func TestSpansFollowOneAnother(t *testing.T) {
	for every := Shortest; every <= Longest; every++ {
		b := eight()
		b.Start, b.Every, b.Turns = monday+2, every, 5
		if every != Week {
			b.Slides = []Slide{{1, 2, 2}, {3, 0, 1}}
		}
		next := b.Start.Monday() - 7
		for next < b.Last()+20 {
			span := SpanOf([]*Block{b}, next)
			require.Equal(t, next, span.From, "every %d", every)
			require.Positive(t, span.Days)
			for on := next; on <= span.Last(); on++ {
				require.Equal(t, span, SpanOf([]*Block{b}, on))
			}
			next = span.Last() + 1
		}
		for k := range b.Turns {
			assert.Equal(t, k, b.TurnOf(b.Date(k, 0)))
			assert.Equal(t, k, b.TurnOf(b.Date(k+1, 0)-1))
		}
		assert.Equal(t, -1, b.TurnOf(b.Start-1))
		assert.Equal(t, -1, b.TurnOf(b.Last()+1))
	}
	assert.Equal(t, monday, Backwards(monday+56, 7, 8))
}

func TestWhatABlockCannotBe(t *testing.T) {
	for field, change := range map[string]func(*Block){
		"turns":  func(b *Block) { b.Turns = 9 },
		"every":  func(b *Block) { b.Every = 2 },
		"from":   func(b *Block) { b.From = 4 },
		"to":     func(b *Block) { b.From, b.To = 1, 2 },
		"sets":   func(b *Block) { b.Sets = 2 },
		"change": func(b *Block) { b.Change = "sometimes" },
		"dense":  func(b *Block) { b.Dense = true },
		"ready":  func(b *Block) { b.Ready = b.Start + 50 },
		"days":   func(b *Block) { b.Days = nil },
	} {
		b := eight()
		change(b)
		says := b.Says()
		require.NotEmpty(t, says, field)
		assert.Equal(t, field, says[0].Field)
	}
}

// What is kept of a block reads as it was written.
func TestKeptAsWritten(t *testing.T) {
	b := eight()
	d := &b.Days[1]
	written, err := d.MarshalJSON()
	require.NoError(t, err)
	var read Day
	require.NoError(t, read.UnmarshalJSON(written))
	again, err := read.MarshalJSON()
	require.NoError(t, err)
	assert.Equal(t, string(written), string(again))
	assert.Error(t, read.UnmarshalJSON([]byte(`{"plan": {"version": 99}}`)))
}

// A missed day: in a week it moves to the next free day, its sets fold into what is left as far
// as that takes them, or it is dropped; each says what it costs.
func TestMissedDays(t *testing.T) {
	const today = monday + 9 // Wednesday of the second week
	tr := trainee(t)
	b := eight()
	made := madeOf(t, b, today)
	assert.Empty(t, b.Missed(tr, made, nil, today))
	made[3].Shut = "" // its Monday
	missed := b.Missed(tr, made, nil, today)
	require.Len(t, missed, 1)
	by := map[Way]Option{}
	for _, o := range missed[0].Options {
		by[o.Way] = o
	}
	assert.Equal(t, monday+10, by[SlideOn].Moved[0].On)
	assert.Equal(t, "no sets; a day from Day 2", by[SlideOn].Costs)
	assert.Len(t, by[FoldIn].Moved, 2)
	for _, s := range by[FoldIn].Moved {
		assert.Empty(t, tr.Check(&s.Session))
		for j := range s.Slots {
			assert.LessOrEqual(t, s.Slots[j].Sets(), 5)
		}
	}
	for h := range by[Drop].Lost {
		assert.LessOrEqual(t, by[FoldIn].Lost[h], by[Drop].Lost[h]+1e-9)
	}
	assert.Contains(t, by[Drop].Costs, "in effective sets: ")
	made[3].Missed = Drop
	assert.Empty(t, b.Missed(tr, made, nil, today), "it is asked once")
}

// A rotation slides as a whole: every session from the missed one on is later, and a date to be
// ready for is not run past unsaid.
func TestARotationSlides(t *testing.T) {
	tr := trainee(t)
	b := eight()
	b.Every, b.Turns, b.Lighter = 5, 4, false
	const today = monday + 6 // day 2 of the second turn; its first was missed yesterday
	made := madeOf(t, b, today)
	made[3].Shut = ""
	missed := b.Missed(tr, made, nil, today)
	require.Len(t, missed, 1)
	o := missed[0].Options[0]
	require.Equal(t, SlideOn, o.Way)
	assert.Contains(t, o.Says, "1 day later")
	slid := *b
	slid.Slides = o.Slides
	assert.Equal(t, b.Date(1, 0)+1, slid.Date(1, 0))
	assert.Equal(t, b.Date(0, 4), slid.Date(0, 4))
	assert.Equal(t, b.Last()+1, slid.Last())
	steps := slid.Flow(tr, made, nil, nil, today)
	for _, s := range steps {
		assert.Equal(t, Changed, s.What, fmt.Sprint(s.Turn, s.Was.On.Words()))
	}
	b.Ready = b.Last() + 1
	assert.Contains(t, b.Missed(tr, made, nil, today)[0].Options[0].Costs, "past the date")
}
