package floor

import (
	"bytes"
	"compress/gzip"
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// plain is three sets of 8–12 with 2 left at 14 kg, dumbbells from 8 to 24 by 2.
func plain(change ...func(*Slot)) *Slot {
	c := &Slot{Rows: []Row{{Sets: 3, Low: 8, High: 12, Reserve: 2, RestS: 90, Mark: 3}},
		Marks: []float64{8, 10, 12, 14, 16, 18, 20, 22, 24}, Least: 1, Left: 10}
	for _, f := range change {
		f(c)
	}
	return c
}

func dense(c *Slot)   { c.Dense = true }
func written(c *Slot) { c.Written = true }
func sparse(c *Slot)  { c.Marks, c.Rows[0].Mark, c.Least = []float64{10, 20}, 0, 0 }
func single(c *Slot)  { c.Marks, c.Rows[0].Mark, c.Least = []float64{14}, 0, 0 }
func heavy(c *Slot)   { c.Rows[0].Low, c.Rows[0].High, c.Rows[0].Reserve = 5, 8, 2 }
func high(c *Slot)    { c.Rows[0].Low, c.Rows[0].High, c.Rows[0].Reserve = 12, 20, 2 }
func left(n int) func(*Slot) {
	return func(c *Slot) { c.Left = n }
}

// limit is a last row to the limit.
func limit(c *Slot) {
	c.Rows[0].Sets = 2
	c.Rows = append(c.Rows, Row{Sets: 1, Low: 8, High: 12, RestS: 90, Mark: 3})
}

// backOff is a last row two marks lighter for more reps.
func backOff(c *Slot) {
	c.Rows = append(c.Rows, Row{Sets: 1, Low: 15, High: 20, Reserve: 2, RestS: 60, Mark: 1})
}

// climb are three rows of one set, a mark heavier each.
func climb(c *Slot) {
	c.Written = true
	c.Rows = nil
	for i := range 3 {
		c.Rows = append(c.Rows, Row{Sets: 1, Low: 8 - i, High: 12 - i, Reserve: 2, RestS: 120, Mark: 2 + i})
	}
}

// What is advised in each situation, written down from the reasons there are: form, first
// contacts, dense and written work, the band, limits, last sets.
func TestWhatIsAdvised(t *testing.T) {
	bad, ok := false, true
	first, second, third := State{Mark: 3}, State{Set: 1, Mark: 3}, State{Set: 2, Mark: 3}
	find := func(mark, first int) State { return State{Mark: mark, First: first} }
	for i, c := range []struct {
		c    *Slot
		s    State
		over int
		held bool
		mark int
		say  Say
		end  bool
	}{
		// the band
		{plain(), first, 0, ok, 3, SayStay, false},
		{plain(), first, 1, ok, 3, SayStay, false},
		{plain(), first, 2, ok, 4, SayUp, false},
		{plain(), first, 4, ok, 4, SayUp, false},
		{plain(), first, 6, ok, 4, SayUp, false}, // one mark at a time
		{plain(), first, -1, ok, 3, SayRestLonger, false},
		{plain(), first, -2, ok, 3, SayRestLonger, false},
		{plain(), first, -3, ok, 2, SayLighter, false},
		{plain(), first, -4, ok, 2, SayLighter, false},
		{plain(), first, -6, ok, 1, SayLighter, false}, // as far as the band's middle is to be had
		{plain(), second, 2, ok, 4, SayUp, false},
		{plain(), third, 2, ok, 4, SayDone, true},
		{plain(), third, -6, ok, 1, SayDone, true},
		{plain(), State{Mark: 8}, 3, ok, 8, SayOneMore, false},     // no heavier one there
		{plain(), State{Mark: 1}, -5, ok, 1, SayRestLonger, false}, // never under the ramp
		{plain(heavy), first, 2, ok, 3, SayOneMore, false},         // 16 kg would give four
		{plain(heavy), first, 4, ok, 4, SayUp, false},
		{plain(heavy), first, 1, ok, 3, SayStay, false},
		{plain(heavy), first, -3, ok, 2, SayLighter, false},
		{plain(high), first, 2, ok, 4, SayUp, false},
		{plain(high), first, -3, ok, 1, SayLighter, false}, // 12 kg would give 15, the middle is 16
		{plain(high), first, -1, ok, 3, SayRestLonger, false},
		// loads far apart, and one load
		{plain(sparse), State{}, 2, ok, 0, SayOneMore, false},
		{plain(sparse), State{}, 6, ok, 0, SayOneMore, false},
		{plain(sparse), State{Mark: 1}, -3, ok, 0, SayLighter, false},
		{plain(single), State{}, 2, ok, 0, SayOneMore, false},
		{plain(single), State{}, 0, ok, 0, SayStay, false},
		{plain(single), State{}, -6, ok, 0, SayRestLonger, false},
		// form
		{plain(), first, 0, bad, 2, SayFormLighter, false},
		{plain(), first, 3, bad, 2, SayFormLighter, false}, // many reps that were not clean
		{plain(), first, -2, bad, 1, SayFormLighter, false},
		{plain(), State{Mark: 2, Set: 1, Strikes: 1}, 0, bad, 2, SayFormEnds, true},
		{plain(), State{Mark: 2, Set: 1, Strikes: 1}, 0, ok, 2, SayStay, false},
		{plain(), State{Mark: 2, Set: 1, Strikes: 1}, 2, ok, 2, SayOneMore, false}, // 14 kg would give seven
		{plain(), State{Mark: 2, Set: 1, Strikes: 1}, 3, ok, 3, SayUp, false},
		{plain(), State{Mark: 1}, 0, bad, 1, SayFormLeast, false},
		{plain(single), State{}, -1, bad, 0, SayFormLeast, false},
		{plain(dense), first, 0, bad, 2, SayFormLighter, false},
		{plain(written), first, 0, bad, 2, SayFormLighter, false},
		{plain(), find(3, 1), 0, bad, 2, SayFormLighter, false},
		// a first contact
		{plain(), find(3, 1), 0, ok, 3, SayFindAgain, false},
		{plain(), find(3, 2), 0, ok, 3, SayFound, false},
		{plain(), find(3, 1), 2, ok, 4, SayFindHeavier, false},
		{plain(), find(3, 1), 5, ok, 5, SayFindHeavier, false},
		{plain(), find(3, 2), 1, ok, 4, SayFindHeavier, false},
		{plain(), find(3, 1), -1, ok, 2, SayFindLighter, false},
		{plain(), find(3, 1), -6, ok, 2, SayFindLighter, false},
		{plain(), find(0, 1), -3, ok, 0, SayFindAgain, false}, // nothing lighter: it is what it is
		{plain(), find(8, 1), 6, ok, 8, SayFindAgain, false},
		{plain(dense), find(3, 1), 3, ok, 4, SayFindHeavier, false},
		// dense work
		{plain(dense), first, 2, ok, 3, SayDense, false},
		{plain(dense), first, 6, ok, 3, SayDense, false},
		{plain(dense), first, 0, ok, 3, SayStay, false},
		{plain(dense), first, -2, ok, 3, SayRestLonger, false},
		{plain(dense), first, -4, ok, 2, SayLighter, false},
		// climbs, back-off sets, last sets
		{plain(climb), State{Mark: 2}, 3, ok, 3, SayWritten, false},
		{plain(climb), State{Row: 1, Mark: 3}, -2, ok, 4, SayWritten, false},
		{plain(climb), State{Row: 2, Mark: 4}, 0, ok, 4, SayDone, true},
		{plain(backOff), third, 0, ok, 1, SayStay, false},
		{plain(backOff), State{Set: 2, Mark: 4}, 0, ok, 2, SayStay, false}, // as much lighter as planned
		{plain(limit), second, 0, ok, 3, SayLimit, false},
		{plain(limit), second, 2, ok, 4, SayUp, false},
		{plain(limit), State{Row: 1, Mark: 3}, 0, ok, 3, SayDone, true},
		// caps, joints, the ten sets of a group
		{plain(left(2)), first, 0, ok, 3, SayStay, false},
		{plain(left(2)), second, 0, ok, 3, SayEnough, true},
		{plain(left(1)), first, 3, ok, 4, SayEnough, true},
		{plain(left(0)), first, 0, ok, 3, SayEnough, true},
	} {
		m := Next(c.c, c.s, Outcome{c.over, c.held})
		name := fmt.Sprintf("%d: %+v over %d held %v", i, c.s, c.over, c.held)
		assert.Equal(t, c.say, m.Say, "%s: %s", name, m.Say.Words())
		assert.Equal(t, c.mark, m.Next.Mark, name)
		assert.Equal(t, c.end, m.End, name)
		assert.NotEmpty(t, m.Say.Words())
	}
	m := Next(plain(sparse), State{}, Outcome{3, true})
	assert.Equal(t, [2]int{9, 13}, [2]int{m.Low, m.High}, "one rep more")
	m = Next(plain(), first, Outcome{-1, true})
	assert.Equal(t, 135, m.RestS, "half as much rest again")
	m = Next(plain(backOff), third, Outcome{0, true})
	assert.Equal(
		t,
		[3]int{15, 20, 60},
		[3]int{m.Low, m.High, Next(plain(backOff), State{Row: 1, Mark: 1}, Outcome{-1, true}).RestS * 2 / 3},
	)
}

// slots are those the properties are held for.
func slots() []*Slot {
	return []*Slot{
		plain(),
		plain(dense),
		plain(written),
		plain(sparse),
		plain(single),
		plain(heavy),
		plain(high),
		plain(left(2)),
		plain(limit),
		plain(backOff),
		plain(climb),
		plain(dense, limit),
		plain(heavy, backOff),
	}
}

// In every state and for every outcome the table says what the function says; it is small.
func TestTheTableIsTheFunction(t *testing.T) {
	for i, c := range slots() {
		for _, first := range []bool{false, true} {
			table := TableOf(c, Begin(c, first))
			require.Equal(t, Begin(c, first), table.States[0])
			for _, s := range table.States {
				for over := -MostOver; over <= MostOver; over++ {
					for _, held := range []bool{true, false} {
						got, ok := table.Next(s, Outcome{over, held})
						require.True(t, ok)
						require.Equal(t, Next(c, s, Outcome{over, held}), got)
					}
				}
			}
			b, err := json.Marshal(table)
			require.NoError(t, err)
			var packed bytes.Buffer
			w := gzip.NewWriter(&packed)
			_, _ = w.Write(b)
			require.NoError(t, w.Close())
			assert.LessOrEqual(t, packed.Len(), 8<<10, "%d: %d states, %d moves", i, len(table.States), len(table.Moves))
		}
	}
}

// Never a load that is not there, never more sets than are left, and more reps done never
// advise less load, all else equal.
func TestAdviceKeepsItsBounds(t *testing.T) {
	for i, c := range slots() {
		for _, first := range []bool{false, true} {
			for _, s := range TableOf(c, Begin(c, first)).States {
				require.Less(t, c.done(s), max(c.Left, 1), "slot %d", i)
				for _, held := range []bool{true, false} {
					was := -1
					for over := -MostOver; over <= MostOver; over++ {
						m := Next(c, s, Outcome{over, held})
						require.GreaterOrEqual(t, m.Next.Mark, was, "slot %d %+v over %d", i, s, over)
						was = m.Next.Mark
						require.Less(t, m.Next.Mark, len(c.Marks))
						require.GreaterOrEqual(t, m.Next.Mark, 0)
						require.GreaterOrEqual(t, m.Reserve, 0)
						require.GreaterOrEqual(t, m.RestS, 0)
						if !held {
							require.LessOrEqual(
								t,
								m.Next.Mark,
								max(s.Mark, c.Rows[min(s.Row+1, len(c.Rows)-1)].Mark),
								"never up after form went",
							)
						}
					}
				}
			}
		}
	}
}

// A weight that is taken: the free ones near it with what they give.
func TestATakenWeight(t *testing.T) {
	c := plain()
	got := Taken(c, State{Mark: 4}, func(m int) bool { return m != 5 })
	assert.Equal(t, []Expected{{2, 21, 26}, {3, 13, 18}, {6, 1, 3}}, got)
	assert.Empty(t, Taken(plain(single), State{}, nil))
}

func TestEffectiveReps(t *testing.T) {
	assert.Equal(t, 11, EffectiveReps([]int{12, 10}, 3, 2), "the lower arm decides")
	assert.Equal(t, 8, EffectiveReps([]int{10}, 0, 2), "more was given than planned")
	assert.Equal(t, 0, EffectiveReps(nil, 2, 2))
	row := &Row{Low: 8, High: 12}
	assert.Equal(t, Outcome{0, true}, OutcomeOf(10, row, true))
	assert.Equal(t, Outcome{-6, false}, OutcomeOf(0, row, false))
	assert.Equal(t, Outcome{3, true}, OutcomeOf(15, row, true))
}
