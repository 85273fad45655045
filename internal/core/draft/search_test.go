package draft

import (
	"runtime"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/movement"
	"musculus/internal/core/week"
)

// made is a made client with her problem.
func made(t *testing.T, n int) (*Client, *Dated) {
	t.Helper()
	cl, ask, err := Made(1, n)
	require.NoError(t, err)
	d := Build(cl, Stock(cl), ask)
	require.Empty(t, d.Check())
	return cl, d
}

// What a change is said to cost is what the week costs more after it, and no limit is passed.
func TestEveryChangeCostsWhatItSays(t *testing.T) {
	rng := newDice(3, 4)
	for n := range 10 {
		_, d := made(t, n)
		for _, way := range Ways {
			p := d.Problem
			if way == LeastTime {
				first := Search(p, Robust, Effort{Steps: 50}, nil)
				p = p.Within(&first)
			}
			c := compile(p, way)
			s := c.base
			for range 40 {
				by := taste{skip: func(int) bool { return rng.IntN(3) == 0 }, perTime: rng.IntN(2) == 0, most: 2 + rng.IntN(4)}
				sp := c.spreadOf(&s)
				m := c.bestInsert(&s, &sp, &by)
				if rng.IntN(2) == 0 || m.day < 0 {
					m = c.bestResize(&s, &sp, &by)
				}
				if m.day < 0 {
					break
				}
				was := s.cost
				c.apply(&s, m)
				require.Equal(t, m.delta, s.cost-was, "%d %s: %+v", n, way, m)
				require.Empty(t, broken(c, &s))
				if day := &s.days[m.day]; rng.IntN(4) == 0 && day.n > 0 {
					c.drop(&s, m.day, rng.IntN(day.n))
				}
			}
			w := c.week(&s, 0)
			again := c.base
			c.lay(&again, &w)
			assert.Equal(t, s.cost, again.cost, "counted anew it is the same")
		}
	}
}

// broken lists the limits that a week passes, counted one by one.
func broken(c *compiled, s *state) (out []string) {
	p := c.p
	say := func(is bool, what string) {
		if is {
			out = append(out, what)
		}
	}
	var weekly [2]int
	var joints Joints
	sets, days := map[int]int{}, map[int]int{}
	at := make([][2]int, p.Cycle)
	for d := range p.Days {
		secs, ramp, hard, n := p.Days[d].LockedS, 0, [2]int{}, 0
		count := func(group string, sets int, j Joints, each int) {
			hard[groupIndex(group)] += sets
			for k := range joints {
				joints[k] += each * j[k]
			}
			n++
		}
		for _, l := range p.Locked {
			if l.Day == d {
				count(l.Group, l.Hard, l.Joints, 1)
				ramp = max(ramp, l.RampS)
				if l.Like >= 0 {
					sets[l.Like], days[l.Like] = sets[l.Like]+l.Sets, days[l.Like]+1
				}
			}
		}
		for i := range s.days[d].n {
			o := s.days[d].slots[i]
			k := &p.Candidates[o.c]
			count(k.Group, int(o.x), k.Joints, int(o.x))
			secs, ramp = secs+slotS+int(o.x)*k.SetS, max(ramp, k.RampS)
			sets[int(o.c)], days[int(o.c)] = sets[int(o.c)]+int(o.x), days[int(o.c)]+1
		}
		if n > 0 {
			secs += p.Days[d].WarmUpS + ramp
		}
		say(s.days[d].n > 0 && secs > p.Days[d].Seconds, "minutes")
		say(s.days[d].n > 0 && n > p.Days[d].Slots, "slots")
		for g := range hard {
			weekly[g] += hard[g]
			at[p.Days[d].On][g] += hard[g]
			say(hard[g] > p.GroupDay, "group of a day")
		}
	}
	for g := range weekly {
		say(weekly[g] > p.GroupWeek[g], "group of the week")
		for i := range at {
			there := c.elsewhere[g][i]
			say(p.Spread == "daily" && at[i][g] > 0 && at[i][g]+there > max(there, dailySets), "often and little")
			for j := range at {
				other := c.elsewhere[g][j]
				say(p.Spread == "days" && week.TooNear(i, j, p.Cycle) && at[i][g]+there > easySets && at[j][g]+other > easySets &&
					!(there > easySets && other > easySets), "spacing")
			}
		}
	}
	for j := range joints {
		say(joints[j] > p.Joints[j], "joint")
	}
	for i := range p.Candidates {
		say(sets[i] > mostOfOne || days[i] > mostDays, "one set-up too often")
	}
	return out
}

// The objective is the ledger's: heads, stances, lengths, hard sets and joints agree to the
// last digit that is counted, and no day takes longer on the board than was reckoned.
func TestADraftAndTheBoardAgree(t *testing.T) {
	for n := range 22 {
		cl, d := made(t, n)
		w := Search(d.Problem, Robust, Effort{Steps: 120}, nil)
		c, s := stateOf(d.Problem, Robust, &w)
		require.Empty(t, broken(c, s), n)
		laid := d.Lay(d.Problem, Robust, &w, &Finish{Bare: true, NewID: uuid.New})
		board := week.Week{Sessions: laid.Sessions}
		l := board.Count(cl.Trainee)
		for h := range l.Heads {
			line := &l.Heads[h]
			assert.InDelta(t, float64(s.sums.mid[h])/Per, line.Total.Mid, 1e-6, "%d %d", n, h)
			assert.InDelta(t, float64(worst(c, s, h))/Per, line.Total.Low, 1e-6, "%d %d", n, h)
			assert.InDelta(t, float64(s.sums.short[h])/Per, line.Zones[0], 1e-6)
			assert.InDelta(t, float64(s.sums.long[h])/Per, line.Zones[2], 1e-6)
			assert.InDelta(t, float64(d.Targets[h].Low)/Per, line.Target.Low, 1e-4)
		}
		assert.Equal(t, [2]int{l.Flexors, l.Extensors}, s.hard)
		for j := range movement.Joints {
			assert.Equal(t, l.Joints[j], s.joints[j])
		}
		for at, minutes := range d.Board(d.Problem, Robust, &w) {
			assert.LessOrEqual(t, minutes*60, float64(c.seconds(s, at))+1, "%d: day %d", n, at)
		}
	}
}

// The same input gives the same week, however many processors there are.
func TestTheSameInputGivesTheSameWeek(t *testing.T) {
	_, d := made(t, 5)
	was := runtime.GOMAXPROCS(1)
	one := d.Compose(More, 7, nil, nil)
	runtime.GOMAXPROCS(8)
	cl, ask, err := Made(1, 5)
	require.NoError(t, err)
	again := Build(cl, Stock(cl), ask)
	eight := again.Compose(More, 7, nil, nil)
	runtime.GOMAXPROCS(was)
	assert.Equal(t, d.Problem, d.Problem)
	for i := range one {
		assert.Equal(t, one[i].Week, eight[i].Week)
	}
	other := d.Compose(More, 8, nil, nil)
	assert.InDelta(t, one[0].Week.Objective, other[0].Week.Objective, 0.1*one[0].Week.Objective, "another taste is about as good")
}

// Asked to stop, a search stops within 50 ms and has a week.
func TestASearchStops(t *testing.T) {
	_, d := made(t, 15)
	begun := time.Now()
	three := d.Compose(Final, 0, func() bool { return time.Since(begun) > 100*time.Millisecond }, nil)
	assert.Less(t, time.Since(begun), 100*time.Millisecond+10*50*time.Millisecond)
	assert.True(t, three[0].Week.Stopped)
	assert.Positive(t, len(three[0].Week.Days[0]))
}

// Least time takes no longer than the first week and lacks hardly more.
func TestLeastTimeLacksHardlyMore(t *testing.T) {
	for n := range 12 {
		_, d := made(t, n)
		three := Compose(d.Problem, More, 0, nil, nil)
		minutes := func(w *Week) (sum int) {
			c, s := stateOf(d.Problem, Robust, w)
			for i := range d.Days {
				sum += c.seconds(s, i)
			}
			return sum
		}
		assert.LessOrEqual(t, minutes(&three[2].Week), minutes(&three[0].Week), n)
		c, first := stateOf(d.Problem, Robust, &three[0].Week)
		_, least := stateOf(d.Problem, Robust, &three[2].Week)
		for h := range c.aims {
			assert.LessOrEqual(t, c.lack(h, &least.sums), c.lack(h, &first.sums)+mayLack)
		}
	}
}

// Five small weeks are as good as an outside solver proved they can be (make draft-check).
func TestSmallWeeksAreOptimal(t *testing.T) {
	for n, optimum := range map[int]float64{0: 6.823, 1: 22.318, 2: 8.031, 3: 10.447, 4: 7.596} {
		_, d := made(t, n)
		best := searchAll(d.Problem, Robust, Effort{Steps: Final.Steps(d.Problem)}, nil)
		assert.InDelta(t, optimum, best.Objective, 1e-3, n)
	}
}
