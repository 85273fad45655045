package draft

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

// ample is a made client with the room that has all and two long days.
func ample(t *testing.T) (*Client, *Ask) {
	t.Helper()
	cl, ask, err := Made(1, 10)
	require.NoError(t, err)
	cl.Trainee.Aims.Minutes, cl.Trainee.Aims.Weekdays = 75, []string{"tue", "fri"}
	cl.Trainee.Caps, cl.Trainee.Fence.Caps, cl.Trainee.Prefer = person.Caps{}, person.Caps{}, nil
	ask.Board = nil
	return cl, ask
}

// Every pattern is a week within all limits that has what the pattern asks for, and whose
// slots are put together so that they can be done in the time there is.
func TestEveryPatternIsAWeek(t *testing.T) {
	cl, ask := ample(t)
	pool := Stock(cl)
	for i := range Patterns {
		p := &Patterns[i]
		t.Run(p.ID, func(t *testing.T) {
			ask.Pattern = p
			d := Build(cl, pool, ask)
			require.Empty(t, d.Check())
			require.Empty(t, Empty(d.Problem))
			w := d.Compose(More, 0, nil, nil)[0]
			c, s := stateOf(w.Problem, Robust, &w.Week)
			require.Empty(t, broken(c, s))
			for k := range c.wants {
				if c.wants[k].idea == "" {
					assert.Zero(t, c.wants[k].off(s.wants[k]), c.wants[k].words)
				}
			}
			if p.Only != nil {
				for _, day := range w.Week.Days {
					for _, o := range day {
						assert.True(t, p.Only(&d.Candidates[o.Candidate]))
					}
				}
			}
			laid := d.Lay(w.Problem, Robust, &w.Week, &Finish{NewID: newID})
			joined := 0
			for k := range laid.Sessions {
				session := &laid.Sessions[k].Session
				assert.Empty(t, cl.Trainee.Check(session))
				count := cl.Trainee.Count(session)
				assert.False(t, count.Over(75), "%.1f minutes", count.Minutes)
				joined += len(session.Combos)
				for j := range session.Slots {
					joined += len(session.Slots[j].Rows) - 1
				}
			}
			if p.Combos != NoPairs {
				assert.Positive(t, joined, "something is done in turns, or a row more")
			}
		})
	}
}

// A studio's own week leads a draft, and a joint that does not bear what a pattern asks for
// is told with what stands in.
func TestOwnPatternsAndSwaps(t *testing.T) {
	cl, ask := ample(t)
	own := week.Week{Sessions: []plan.Planned{{Session: plan.Session{Slots: []plan.Slot{
		{SetUp: movement.Shipped.Get("curl_reclined").Default()}, {SetUp: movement.Shipped.Get("pushdown_rope").Default()}}}}}}
	ask.Pattern = Own("x", "Ours", &own)
	d := Build(cl, Stock(cl), ask)
	w := d.Compose(More, 0, nil, nil)[0]
	got := map[string]bool{}
	for _, day := range w.Week.Days {
		for _, o := range day {
			got[d.Candidates[o.Candidate].Movement] = true
		}
	}
	assert.True(t, got["curl_reclined"] && got["pushdown_rope"], got)

	cl, ask = ample(t)
	cl.Trainee.Fence.Scores[person.Right][movement.ShoulderFront] = 3
	ask.Pattern = PatternOf("press_isolate")
	d = Build(cl, Stock(cl), ask)
	assert.Contains(t, d.Swaps(), "No dips while the front of the shoulder scores 3: a close press instead.")
	for _, day := range d.Compose(More, 0, nil, nil)[0].Week.Days {
		for _, o := range day {
			assert.NotEqual(t, movement.Dip, d.Candidates[o.Candidate].setUp.Movement.Action)
		}
	}
	assert.Nil(t, PatternOf("none"))
}
