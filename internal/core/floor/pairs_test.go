package floor

import (
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/dose"
	"musculus/internal/core/entry"
	"musculus/internal/core/plan"
)

// named gives every slot an id of its own.
func named(s *plan.Session) *plan.Session {
	for i := range s.Slots {
		s.Slots[i].ID = uuid.New()
	}
	return s
}

// A curl and a push-down may go on in turns: every set stays, and it takes less time. Once the
// first one is begun the second's turn is next.
func TestAPair(t *testing.T) {
	tr := trainee(t, ample()...)
	s := named(session(slotOf("curl_standing_dumbbells", 3), slotOf("pushdown_rope", 3)))
	p := PairOf(tr, s, 0)
	require.NotNil(t, p)
	assert.Equal(t, 1, p.With)
	require.Len(t, p.Ways, 3)
	both := entry.BothSides
	assert.Equal(t, [][3]any{{0, 0, both}, {1, 0, both}, {0, 1, both}, {1, 1, both}, {0, 2, both}, {1, 2, both}}, doneIn(p.Ways[0].Steps))
	assert.Equal(t, [][3]any{{1, 0, both}, {0, 1, both}, {1, 1, both}, {0, 2, both}, {1, 2, both}}, doneIn(p.Ways[1].Steps))
	assert.Equal(t, [][3]any{{1, 0, both}, {0, 2, both}, {1, 1, both}, {1, 2, both}}, doneIn(p.Ways[2].Steps))
	assert.Zero(t, p.Ways[1].Steps[0].RestS, "its set is the other one's rest")
	for n, w := range p.Ways {
		require.Len(t, w.Ahead, len(w.Steps)+1)
		if n > 0 { // before the first set the warm-up stands on both sides
			assert.InDelta(t, Forecast(tr, s, []int{n, 0}), w.Ahead[0]+w.Saves, 1e-9, n)
		}
		assert.Zero(t, w.Ahead[len(w.Steps)])
		for k := 1; k < len(w.Ahead); k++ {
			assert.LessOrEqual(t, w.Ahead[k], w.Ahead[k-1]+1e-9, "%d sets done, step %d", n, k)
		}
	}
	assert.Greater(t, p.Ways[0].Saves, p.Ways[2].Saves, "the earlier, the more it saves")
	assert.Contains(t, p.Ways[0].Words, "every set stays")
	assert.Empty(t, s.Slots[0].Combo, "the plan is not touched")
}

// Arms that begin in turn keep their order.
func TestAPairOfArmsInTurn(t *testing.T) {
	tr := trainee(t, ample()...)
	one := slotOf("curl_pad_one_dumbbell", 3)
	s := named(session(one, slotOf("pushdown_rope", 3)))
	p := PairOf(tr, s, 0)
	require.NotNil(t, p)
	whole := map[[3]any]bool{}
	for _, st := range stepsOf(s) {
		whole[[3]any{st.Slot, st.Set, st.Side}] = true
	}
	for _, w := range p.Ways {
		for _, st := range doneIn(w.Steps) {
			assert.True(t, whole[st], st)
		}
	}
	first := p.Ways[1].Steps[1]
	assert.Equal(t, [3]any{0, 1, entry.Right}, [3]any{first.Slot, first.Set, first.Side}, "the second set is the right arm's to begin")
}

func TestWhatIsNoPair(t *testing.T) {
	tr := trainee(t, ample()...)
	curl, press := slotOf("curl_standing_dumbbells", 3), slotOf("pushdown_rope", 3)
	for name, change := range map[string]func(s *plan.Session){
		"one group":       func(s *plan.Session) { s.Slots[1] = slotOf("curl_pad_one_dumbbell", 3) },
		"locked":          func(s *plan.Session) { s.Slots[1].Locked = true },
		"dense":           func(s *plan.Session) { s.Slots[0].Rows[0].Method = dose.Use{ID: "drops"} },
		"the last of all": func(s *plan.Session) { s.Slots = s.Slots[:1] },
	} {
		s := named(session(curl, press))
		change(named(s))
		assert.Nil(t, PairOf(tr, s, 0), name)
	}
	slow := *tr
	slow.Caps.MinRestS = 120
	if p := PairOf(&slow, named(session(curl, press)), 0); p != nil {
		for _, st := range p.Ways[0].Steps[1:] {
			assert.GreaterOrEqual(t, st.RestS, 90, "a rest that is asked for stays")
		}
	}
}
