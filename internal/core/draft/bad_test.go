package draft

import (
	"bytes"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

// What cannot be drafted is told in a sentence, and nothing hangs.
func TestWhatCannotBeDrafted(t *testing.T) {
	for name, c := range map[string]struct {
		change func(*Client, *Ask, *Pool)
		says   string
	}{
		"no day":      {func(cl *Client, _ *Ask, _ *Pool) { cl.Trainee.Aims.Weekdays = nil }, "no day to train on"},
		"no minutes":  {func(cl *Client, _ *Ask, _ *Pool) { cl.Trainee.Aims.Minutes = 5 }, "5 minutes are under a warm-up and two sets"},
		"a past week": {func(cl *Client, a *Ask, _ *Pool) { cl.Trainee.Aims.Today = a.Monday + 8 }, "lies in the past"},
		"all forbidden": {func(_ *Client, a *Ask, p *Pool) {
			for i := range p.Candidates {
				a.Forbid = append(a.Forbid, p.Candidates[i].Movement)
			}
		}, "nothing the client may do"},
	} {
		t.Run(name, func(t *testing.T) {
			cl, ask, err := Made(1, 1)
			require.NoError(t, err)
			pool := Stock(cl)
			c.change(cl, ask, pool)
			d := Build(cl, pool, ask)
			assert.Contains(t, Empty(d.Problem), c.says)
			three := d.Compose(First, 0, nil, nil)
			for _, day := range three[0].Week.Days {
				assert.Empty(t, day)
			}
		})
	}
}

// A client whose every joint is sore, and one with two hundred movements of the studio's own,
// get a week or a sentence at once.
func TestOddClients(t *testing.T) {
	cl, ask, err := Made(1, 5)
	require.NoError(t, err)
	for _, j := range movement.Joints {
		cl.Trainee.Fence.Scores[person.Right][j] = 3
	}
	d := Build(cl, Stock(cl), ask)
	if Empty(d.Problem) == "" {
		three := d.Compose(First, 0, nil, nil)
		c, s := stateOf(d.Problem, Robust, &three[0].Week)
		assert.Empty(t, broken(c, s))
	}
	for i := range d.Candidates {
		assert.True(t, cl.Trainee.May(d.Candidates[i].setUp), d.Candidates[i].ID)
	}

	cl, ask, err = Made(1, 5)
	require.NoError(t, err)
	many := *movement.Shipped
	for i := range 200 {
		m := *movement.Shipped.Movements[i%40]
		m.ID += strings.Repeat("x", 1+i/40)
		many.Movements = append(many.Movements, &m)
	}
	cl.Catalogue = &many
	begun := time.Now()
	pool := Stock(cl)
	assert.LessOrEqual(t, len(pool.Candidates), mostPooled)
	assert.Less(t, time.Since(begun), 20*time.Second)
	w := Build(cl, pool, ask).Compose(First, 0, nil, nil)
	assert.NotEmpty(t, w[0].Week.Days)
}

// Locks beyond limits are told as the fewest that clash, and the rest is drafted round them.
func TestLocksBeyondLimits(t *testing.T) {
	cl, ask, err := Made(1, 2) // two days in the room of cables
	require.NoError(t, err)
	cl.Trainee.Aims.Minutes = 60
	locked := func(id string, sets int) plan.Slot {
		s := plan.Of(movement.Shipped.Get(id).Default(), dose.Dose{Sets: sets, RepsLow: 8, RepsHigh: 12, Reserve: 2, RestS: 90})
		s.Locked = true
		return s
	}
	on := ask.Monday
	for i, d := range cl.Trainee.Aims.Weekdays {
		if i == 0 {
			on += dayOf(d)
		}
	}
	ask.Board = &week.Week{Sessions: []plan.Planned{{Name: "Much", On: on, Session: plan.Session{WarmUpMin: 5, Slots: []plan.Slot{
		locked("curl_cable_low", 7), locked("curl_rope_neutral", 6), locked("pushdown_rope", 3)}}}}}
	d := Build(cl, Stock(cl), ask)
	clashes := Clashes(d.Problem)
	require.NotEmpty(t, clashes)
	assert.Equal(t, 2, len(clashes[len(clashes)-1].Locks))
	assert.Contains(t, clashes[0].Words, "hard sets of the elbow flexors on", "%+v", clashes)
	assert.Contains(t, clashes[0].Words, "by 3 sets")
	three := d.Compose(First, 0, nil, nil)
	for i := range three {
		for _, s := range three[i].Week.Days[0] {
			assert.Equal(t, plan.Extensors, d.Candidates[s.Candidate].Group, "nothing is added where it is too much already")
		}
	}
	laid := d.Lay(d.Problem, Robust, &three[0].Week, &Finish{Bare: true, NewID: newID})
	kept := 0
	for i := range laid.Sessions {
		for _, s := range laid.Sessions[i].Slots {
			if s.Locked {
				kept++
			}
		}
	}
	assert.Equal(t, 3, kept, "what is locked stays")
}

// A problem is read as it is written; what is wrong with one is told by field.
func TestProblemsAreReadAndRefused(t *testing.T) {
	_, d := made(t, 0)
	var lp bytes.Buffer
	require.NoError(t, WriteLP(&lp, d.Problem, Robust))
	assert.Contains(t, lp.String(), "Minimize")
	assert.Contains(t, lp.String(), "one = 1")
	b := jsonOf(t, d.Problem)
	p, err := ReadProblem(b)
	require.NoError(t, err)
	assert.Equal(t, Search(d.Problem, Robust, Effort{Steps: 200}, nil).Days, Search(p, Robust, Effort{Steps: 200}, nil).Days)
	for change, says := range map[string]string{
		`"cycle":7`:    "cycle",
		`"version":1`:  "version",
		`"slots":6`:    "slots",
		`"group_day"`:  "",
		`"spread":"`:   "spread",
		`"most_sets":`: "most_sets",
	} {
		broken := strings.Replace(string(b), change, strings.Replace(change, ":", ":9", 1), 1)
		if change == `"spread":"` {
			broken = strings.Replace(string(b), change, change+"x", 1)
		}
		_, err := ReadProblem([]byte(broken))
		if says == "" {
			continue
		}
		assert.ErrorContains(t, err, says, change)
	}
	for _, junk := range []string{"", "null", "[]", `{"version":1}`, `{"version":1,"cycle":7,"spread":"days","days":[{"on":9}]}`, "\x00"} {
		_, err := ReadProblem([]byte(junk))
		assert.Error(t, err, junk)
	}
}

// What lies in the past, or is done, stays and counts; the rest of the week is drafted.
func TestWhatHasGoneByStays(t *testing.T) {
	cl, ask, err := Made(1, 5)
	require.NoError(t, err)
	cl.Trainee.Aims.Weekdays, cl.Trainee.Aims.Elsewhere = []string{"mon", "thu"}, nil
	cl.Trainee.Aims.Today = ask.Monday + 2
	past := plan.Planned{ID: newID(), Name: "Monday", On: ask.Monday, Session: plan.Session{WarmUpMin: 5, Slots: []plan.Slot{
		plan.Of(movement.Shipped.Get("curl_neutral").Default(), dose.Usual(cl.Trainee.Caps))}}}
	coming := plan.Planned{ID: newID(), Name: "Thursday", On: ask.Monday + 3, Session: plan.Session{WarmUpMin: 5, Slots: []plan.Slot{
		plan.Of(movement.Shipped.Get("curl_neutral").Default(), dose.Usual(cl.Trainee.Caps))}}}
	ask.Board = &week.Week{Sessions: []plan.Planned{past, coming}}
	d := Build(cl, Stock(cl), ask)
	require.Len(t, d.Days, 2)
	assert.True(t, d.Days[0].Closed)
	require.Len(t, d.Locked, 1, "it counts")
	w := d.Compose(First, 0, nil, nil)[0]
	laid := d.Lay(w.Problem, Robust, &w.Week, &Finish{NewID: newID})
	require.Len(t, laid.Sessions, 2)
	for i := range laid.Sessions {
		if laid.Sessions[i].ID == past.ID {
			assert.Equal(t, past.Slots, laid.Sessions[i].Slots)
			assert.False(t, laid.Changed[i])
		} else {
			assert.Equal(t, coming.ID, laid.Sessions[i].ID, "a session keeps its id and name")
		}
	}
	l := (&week.Week{Sessions: laid.Sessions}).Count(cl.Trainee)
	_, s := stateOf(w.Problem, Robust, &w.Week)
	for h := range l.Heads {
		assert.InDelta(t, l.Heads[h].Total.Mid, float64(s.sums.mid[h])/Per, 1e-6)
	}
}

// What is kept is held to the same as what is found, whichever way it came; minutes nobody
// said are an hour, and that is told.
func TestWhatIsKeptIsHeldToTheSame(t *testing.T) {
	cl, ask, err := Made(1, 5)
	require.NoError(t, err)
	cl.Trainee.Aims.Minutes, ask.Board = 0, nil
	cl.Trainee.Fence.Scores[person.Right][movement.ElbowBack] = 3
	on := ask.Monday + dayOf(cl.Trainee.Aims.Weekdays[0])
	pool, barred := Stock(cl), movement.Shipped.Get("lying_bar").Default()
	require.False(t, cl.Trainee.May(barred))
	ask.Keep = []Kept{{on, barred, 3}, {on, pool.Candidates[0].setUp, 3}}
	d := Build(cl, pool, ask)
	require.Len(t, d.Locked, 1)
	w := d.Compose(First, 0, nil, nil)[0]
	laid := d.Lay(w.Problem, Robust, &w.Week, &Finish{NewID: newID})
	for i := range laid.Sessions {
		for _, s := range laid.Sessions[i].Slots {
			assert.NotEqual(t, barred.Key(), s.SetUp.Key())
		}
	}
	assert.Contains(t, d.TimeWords(), "of 60 minutes (the Dossier says none)")
}
