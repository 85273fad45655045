package decide

import (
	"math"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/entry"
	"musculus/internal/core/measure"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
)

func pair() *Trial {
	get := func(id string) movement.SetUp { return movement.Shipped.Get(id).Default() }
	return &Trial{ID: uuid.New(), Started: today - 70, Weeks: 10, Left: get("kickback_cable"), Right: get("pushdown_one_arm")}
}

// didInTrial are sets of a trial: so many sessions an arm, growing by so much a week.
func didInTrial(x *Trial, left, right float64, reserve int) (out []entry.Entry) {
	for k := range 20 {
		at := time.Unix(int64(x.Started)*86400, 0).UTC().Add(time.Duration(k) * 84 * time.Hour).Add(12 * time.Hour)
		session := uuid.New()
		for n := 1; n <= 3; n++ {
			for side, grows := range map[entry.Side]float64{entry.Left: left, entry.Right: right} {
				set, left := x.Left, reserve
				if side == entry.Right {
					set, left = x.Right, 2
				}
				scatter := 0.4 * math.Sin(float64(7*k+len(side)))
				reps := 8 + int(math.Round(float64(k)/2*grows*33+scatter))
				out = append(out, entry.Entry{ID: uuid.New(), SessionID: session, SetUp: set, Side: side, SetNo: n, LoadKg: 10,
					Reps: reps, Reserve: left, DoneAt: at.Add(time.Duration(n) * time.Minute)})
			}
		}
	}
	return out
}

func measured(on day.Day, left, right float64) measure.Session {
	return measure.Session{On: on, Girths: map[measure.Site][]float64{
		measure.FlexedLeft: {left, left}, measure.FlexedRight: {right, right},
	}}
}

// A trial answers at its end, by what is beyond noise; usually it cannot tell, and says what it
// could not have seen.
func TestPairTrialsAnswer(t *testing.T) {
	x := pair()
	same := []measure.Session{measured(x.Started, 36, 36), measured(today, 36.2, 36.3)}
	grew := []measure.Session{measured(x.Started, 36, 36), measured(today, 38.5, 36.2)}
	for name, c := range map[string]struct {
		left, right float64
		tape        []measure.Session
		weeks       int
		want        Verdict
	}{
		"alike":                      {0.01, 0.01, same, 10, CannotTell},
		"the tape says left":         {0.01, 0.01, grew, 10, LeftBetter},
		"the log says right":         {0, 0.025, same, 10, RightBetter},
		"tape and log disagree":      {0, 0.025, grew, 10, CannotTell},
		"it runs still":              {0, 0.025, grew, 12, NotYet},
		"nobody measured, no series": {0.01, 0.01, nil, 10, CannotTell},
	} {
		x.Weeks = c.weeks
		says := x.Read(didInTrial(x, c.left, c.right, 2), c.tape, nil, 0.01, today)
		assert.Equal(t, c.want, says.Verdict, name)
		assert.Equal(t, 11, says.Week)
		assert.Empty(t, says.Differs, name)
		if c.want == CannotTell {
			assert.Contains(t, says.Words, "could not have been seen", name)
		}
		for _, words := range append(says.Found, says.Words) {
			assert.NotRegexp(t, `(?i)because|caus|due to|thanks to|led to`, words)
		}
	}
}

// What else differs between the arms is told: sets, effort, doing the other's, a plan not alike.
func TestPairTrialsCheckThemselves(t *testing.T) {
	x := pair()
	all := didInTrial(x, 0.01, 0.01, 3)
	all = append(
		all,
		entry.Entry{ID: uuid.New(), SessionID: uuid.New(), SetUp: x.Right, Side: entry.Left, SetNo: 1, LoadKg: 10, Reps: 8,
			DoneAt: all[0].DoneAt},
	)
	says := x.Read(all[3:], nil, nil, 0.01, today)
	assert.Contains(t, says.Differs, "The left stopped with 3.0 left on the average, the right with 2.0.")
	assert.Contains(t, says.Differs, "The left also did 1 sets of the right’s set-up.")

	s := plan.Planned{
		On:      today + 1,
		Session: plan.Session{Slots: []plan.Slot{plan.Of(x.Left, dose.Dose{Sets: 3, RepsLow: 8, RepsHigh: 12})}},
	}
	require.True(t, x.Split(&s.Session, 0))
	assert.Empty(t, x.Read(nil, nil, []plan.Planned{s}, 0.01, today).Differs)
	s.Slots[0].Add(1)
	assert.Len(t, x.Read(nil, nil, []plan.Planned{s}, 0.01, today).Differs, 1)
}

// A slot becomes one for each arm, the first in turn from session to session, sets and effort
// alike; joined again it is one for both.
func TestSplittingForATrial(t *testing.T) {
	tr := trainee(t)
	x := pair()
	was := plan.Session{Slots: []plan.Slot{slotOf("pushdown_rope", 3), slotOf("kickback_cable", 3)}}
	was.Slots[1].ID = uuid.New()
	before := tr.Count(&was)
	for n, first := range []plan.Starts{plan.LeftOnly, plan.RightOnly} {
		s := was
		require.True(t, x.Split(&s, n))
		require.Len(t, s.Slots, 3)
		assert.Len(t, was.Slots, 2, "what was read stays")
		assert.Equal(t, first, s.Slots[1].Starts)
		assert.NotEqual(t, s.Slots[1].ID, s.Slots[2].ID)
		after := tr.Count(&s)
		assert.Equal(t, before.Extensors, after.Extensors-s.Slots[1].HardSets()-s.Slots[2].HardSets()+was.Slots[1].HardSets())
		for i := range 2 {
			assert.InDelta(
				t,
				tr.Count(&plan.Session{Slots: []plan.Slot{plan.Of(s.Slots[1+i].SetUp, was.Slots[1].Rows[0].Dose)}}).Slots[0].Heads[4].Mid/2,
				after.Slots[1+i].Heads[4].Mid,
				1e-3,
				"an arm alone counts a half",
			)
		}
		assert.False(t, x.Split(&s, n), "once")
		require.True(t, x.Join(&s, x.Right))
		require.Len(t, s.Slots, 2)
		assert.Equal(t, [2]any{plan.StartsInTurn, x.Right.Key()}, [2]any{s.Slots[1].Starts, s.Slots[1].SetUp.Key()})
	}
	assert.NotEmpty(t, (&Trial{Weeks: 5, Left: x.Left, Right: x.Right}).May())
	assert.NotEmpty(t, (&Trial{Weeks: 8, Left: x.Left, Right: x.Left}).May())
	assert.NotEmpty(t, (&Trial{Weeks: 8, Left: x.Left, Right: movement.Shipped.Get("curl_turning").Default()}).May())
	assert.Empty(t, (&Trial{Weeks: 8, Left: x.Left, Right: x.Right}).May())
}
