package floor

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/dose"
	"musculus/internal/core/entry"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

func doneIn(steps []SetAhead) (out [][3]any) {
	for _, s := range steps {
		out = append(out, [3]any{s.Slot, s.Set, s.Side})
	}
	return out
}

// Sets come in the order they are done: arm after arm, each in its turn to begin, round by
// round in turns, a member that is through left out.
func TestTheStepsOfASession(t *testing.T) {
	one := slotOf("curl_pad_one_dumbbell", 2)
	assert.Equal(t, [][3]any{{0, 0, entry.Left}, {0, 0, entry.Right}, {0, 1, entry.Right}, {0, 1, entry.Left}},
		doneIn(stepsOf(&plan.Session{Slots: []plan.Slot{one}})))
	one.Starts = plan.StartsRight
	steps := stepsOf(&plan.Session{Slots: []plan.Slot{one}})
	assert.Equal(t, [][3]any{{0, 0, entry.Right}, {0, 0, entry.Left}, {0, 1, entry.Right}, {0, 1, entry.Left}}, doneIn(steps))
	assert.Equal(t, 90, steps[2].OwnS, "the other arm's set was rest: what is left counts from the same arm's last")
	assert.Zero(t, steps[1].RestS, "straight on with the other arm")

	a, b := slotOf("curl_standing_dumbbells", 3), slotOf("pushdown_rope", 2)
	a.Combo, b.Combo = "x", "x"
	s := &plan.Session{Slots: []plan.Slot{a, b, one}, Combos: []plan.Combo{{ID: "x", BetweenS: 10, AfterS: 100}}}
	steps = stepsOf(s)
	assert.Equal(t, [][3]any{{0, 0, entry.BothSides}, {1, 0, entry.BothSides}, {0, 1, entry.BothSides}, {1, 1, entry.BothSides},
		{0, 2, entry.BothSides}}, doneIn(steps[:5]))
	var rests []int
	for _, st := range steps[:6] {
		rests = append(rests, st.RestS)
	}
	assert.Equal(t, []int{0, 10, 100, 10, 100, 100}, rests)
}

// A script has a table for every slot with loads, what is planned among the marks in reach,
// and for every joint what may be tried, which the verdict does not avoid.
func TestAScript(t *testing.T) {
	tr := trainee(t, ample()...)
	tr.Aims = &week.Aims{}
	w := &week.Week{Sessions: []plan.Planned{{Session: *session(slotOf("curl_standing_bar", 3), slotOf("pushdown_rope", 3),
		slotOf("curl_pad_one_dumbbell", 2), slotOf("overhead_one_dumbbell_two_hands", 2))}}}
	p := named(&w.Sessions[0].Session)
	for i := range p.Slots {
		p.Slots[i].Rows[0].Load = dose.Kg([]float64{10, 10, 8, 7}[i])
	}
	s := ScriptOf(tr, movement.Shipped, w, 0, Past{})
	require.Len(t, s.Lines, len(p.Slots))
	sets := 0
	for i := range p.Slots {
		sets += p.Slots[i].Sets() * p.Slots[i].SetUp.ArmsInTurn()
	}
	assert.Len(t, s.Steps, sets)
	for i := range s.Lines {
		l := &s.Lines[i]
		assert.LessOrEqual(t, len(l.Advice.Marks), MostMarks)
		assert.True(t, slices.IsSorted(l.Advice.Marks))
		require.NotNil(t, l.Table)
		for k, r := range l.Rows {
			require.NotEmpty(t, r.Loads)
			assert.Equal(t, r.Loads[0], l.In[l.Advice.Rows[k].Mark], "what is planned is in reach")
		}
		assert.Len(t, l.Ahead, p.Slots[i].Sets()+1)
		assert.True(t, slices.IsSortedFunc(l.Ahead, func(a, b float64) int { return int(1000 * (b - a)) }), "less and less is left")
		for k, j := range movement.Joints {
			for n, now := range []int{2, 3} {
				if try := l.Ladder[k][n]; try >= 0 {
					o := l.Tries[try]
					v := hurting(tr, &Report{Side: person.Right, Joint: j}, now).Fence.Judge(o.SetUp, tr.Profile(o.SetUp))
					assert.NotEqual(t, person.Avoid, v.Ruling, "%s %s", o.SetUp.Title(), j)
					assert.Less(t, o.Start, max(1, len(o.Steps)))
				}
			}
		}
	}
}

// Reps that are taken for done as planned are those of the last time, as far as the band goes.
func TestWhatIsTakenForDoneAsPlanned(t *testing.T) {
	slot := slotOf("curl_standing_bar", 3)
	key := slot.SetUp.Key()
	past := func(reps ...int) Past {
		var out []entry.Entry
		for i, n := range reps {
			out = append(out, entry.Entry{SetNo: i + 1, Reps: n})
		}
		return Past{key: out}
	}
	assert.Equal(t, 12, aimOf(&slot, 0, Past{}), "nothing is known: the high end")
	assert.Equal(t, 10, aimOf(&slot, 0, past(10, 9, 9)))
	assert.Equal(t, 9, aimOf(&slot, 1, past(10, 9, 9)))
	assert.Equal(t, 12, aimOf(&slot, 0, past(6)), "under the band it is no aim")
}
