package draft

import (
	"math"

	"musculus/internal/core/arm"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
	"musculus/internal/core/stance"
	"musculus/internal/core/week"
)

// unit is an objective of one, in what the search counts in: weights in thousandths times
// credits in ten-thousandths times the seconds of a minute, so that every term is whole.
const (
	perWeight = 1000
	perMinute = 60
	unit      = perWeight * Per * perMinute
	perSecond = unit / perMinute // a minute's second, of an objective of one a minute
)

// tooMuch is what lies outside the bounds of AtMost costs, an effective set, and the least
// that any of it costs; nothing within is worth it.
const (
	tooMuch      = 1000 * unit
	tooMuchAtAll = 500 * unit
)

// whole turns a weight to what one of it counts.
func whole(w float64) int64 { return int64(math.Round(w*perWeight)) * Per * perMinute }

// perCredit turns a weight to what a ten-thousandth of a set of it counts.
func perCredit(w float64) int64 { return int64(math.Round(w*perWeight)) * perMinute }

// sums are what a week gives the heads.
type sums struct {
	mid, short, long Heads
	under            [arm.HeadCount][stance.Readings]int
}

func (s *sums) add(n int, g *gives) {
	for _, h := range g.heads {
		s.mid[h] += n * g.mid[h]
		s.short[h] += n * g.short[h]
		s.long[h] += n * g.long[h]
		for k := range s.under[h] {
			s.under[h][k] += n * g.under[h][k]
		}
	}
}

// gives is Gives by head, with the heads that get anything.
type gives struct {
	heads []int
	sums
}

func givesOf(g *Gives) gives {
	out := gives{sums: sums{mid: g.Mid, short: g.Short, long: g.Long}}
	for h := range g.Mid {
		any := g.Mid[h] > 0
		for k := range g.Under {
			out.under[h][k] = g.Under[k][h]
			any = any || g.Under[k][h] > 0
		}
		if any {
			out.heads = append(out.heads, h)
		}
	}
	return out
}

// cand is a candidate as the search reads it.
type cand struct {
	gives
	group       int
	joints      Joints
	setS, rampS int
	most, days  int
	slot, setUp int64 // what a slot of it costs, and that it is in the week at all
}

// want is a Want, or an idea, as the search reads it.
type want struct {
	least, most int // most 0: no bound
	cost        int64
	idea        Idea // "" for what a pattern asks
	words       string
}

// off is how many slots are too few or too many.
func (w *want) off(n int) int {
	off := max(0, w.least-n)
	if w.most > 0 {
		off += max(0, n-w.most)
	}
	return off
}

// mostWants are ideas and wants together.
const mostWants = 32

// aim is a head's target as the search reads it.
type aim struct {
	low, half, high int // high: from where more costs
	under, over     int64
	lengths         bool
}

// compiled is a problem made ready for one way.
type compiled struct {
	p           *Problem
	way         Way
	cands       []cand
	twins       [][]uint64 // by candidate: a bit for each candidate that is one idea with it
	lockedTwins [][]int    // by day and candidate: how many locked slots are one idea with it
	lockedPairs []int      // by day: pairs among what is locked
	aims        [arm.HeadCount]aim
	base        state
	elsewhere   [2][]int // hard sets by group and day of the cycle
	near        [][]int  // by day of the cycle: those too near
	wants       []want
	member      [][]uint32 // by day and candidate: a bit for each want that its slots count for
	wantDays    int
	w           ints
}

// ints are the weights that are not of heads or candidates.
type ints struct {
	length, two, five, crowd, few, many, balance, one, twins, idea int64
	second                                                         int64 // of a second of a session
	all                                                            int64 // what everything but time counts, in thousandths
}

func groupIndex(g string) int {
	if g == plan.Flexors {
		return 0
	}
	return 1
}

// compile makes a checked problem ready.
func compile(p *Problem, way Way) *compiled {
	c := &compiled{p: p, way: way, elsewhere: [2][]int{p.Elsewhere.Flexors, p.Elsewhere.Extensors}}
	w := &p.Weights
	c.w = ints{length: perCredit(w.Length), two: whole(w.Two), five: whole(w.Five), crowd: whole(w.Crowd), few: whole(w.FewDays),
		many: whole(
			w.ManyDays,
		), balance: whole(w.Balance) / perMinute, one: whole(w.OneSlot), twins: whole(w.Twins), idea: whole(w.Idea),
		second: whole(w.Minute) / perMinute, all: perWeight}
	if way == LeastTime {
		c.w.all = int64(math.Round(w.TimeFirst * perWeight))
	}
	for i := range p.Candidates {
		o := &p.Candidates[i]
		k := cand{
			gives:  givesOf(&o.Gives),
			group:  groupIndex(o.Group),
			joints: o.Joints,
			setS:   o.SetS,
			rampS:  o.RampS,
			most:   o.Most,
			days:   o.Days,
			slot:   whole(w.Slot) + whole(max(w.Comfort*float64(5-o.Comfort), -w.Liked)),
			setUp:  whole(w.SetUp),
		}
		if k.days == 0 {
			k.days = mostDays
		}
		if !o.Series {
			k.setUp += whole(w.New)
		}
		c.cands = append(c.cands, k)
	}
	c.compileTwins()
	for h, t := range p.Targets {
		a := aim{low: t.Low, half: t.Low / 2, high: t.High, under: perCredit(w.Under[t.Level]), over: perCredit(w.Over[t.Level]),
			lengths: t.Level == priority.Prioritise}
		if t.Level == priority.Maintain {
			a.high = t.High + t.High/2
		}
		c.aims[h] = a
	}
	for i := range p.Cycle {
		var near []int
		for j := range p.Cycle {
			if p.Spread == "days" && week.TooNear(i, j, p.Cycle) {
				near = append(near, j)
			}
		}
		c.near = append(c.near, near)
	}
	c.compileWants()
	c.wantDays = min(2, len(p.Days))
	c.start()
	return c
}

// compileTwins spreads the pairs that are one idea.
func (c *compiled) compileTwins() {
	n := len(c.cands)
	words := (n + 63) / 64
	c.twins = make([][]uint64, n)
	for i := range c.twins {
		c.twins[i] = make([]uint64, words)
	}
	c.lockedTwins = make([][]int, len(c.p.Days))
	for d := range c.lockedTwins {
		c.lockedTwins[d] = make([]int, n)
	}
	c.lockedPairs = make([]int, len(c.p.Days))
	for _, t := range c.p.Twins {
		i, j := min(t[0], t[1]), max(t[0], t[1])
		switch {
		case j < n:
			c.twins[i][j/64] |= 1 << (j % 64)
			c.twins[j][i/64] |= 1 << (i % 64)
		case i < n:
			c.lockedTwins[c.p.Locked[j-n].Day][i]++
		case c.p.Locked[i-n].Day == c.p.Locked[j-n].Day:
			c.lockedPairs[c.p.Locked[i-n].Day]++
		}
	}
}

func (c *compiled) isTwin(i, j int) bool { return c.twins[i][j/64]&(1<<(j%64)) != 0 }

// slot is a candidate on a day with its sets.
type slot struct{ c, x int16 }

// daily is one day of a week that is being composed.
type daily struct {
	slots  [plan.MostSlots]slot
	n      int    // of the slots
	locked int    // slots that stay
	secs   int    // of all slots, without warm-up and ramp
	ramp   int    // the longest
	hard   [2]int // hard sets by group
}

func (d *daily) used() bool { return d.n+d.locked > 0 }

// state is a week that is being composed; copying it copies all of it.
type state struct {
	days   [mostProblemDays]daily
	at     [14][2]int // hard sets by day of the cycle and group, without elsewhere's
	sums   sums
	joints Joints
	hard   [2]int
	inDays [mostCandidates]uint8 // days a candidate is on, by candidate
	sets   [mostCandidates]uint8 // its sets
	wants  [mostWants]int        // slots that count for each want
	heads  [arm.HeadCount]int64  // what each head costs
	cost   int64
}

// start fills the state that every week begins with: what is elsewhere and what is locked.
func (c *compiled) start() {
	s := &c.base
	e := givesOf(&c.p.Elsewhere.Gives)
	s.sums.add(1, &e)
	for i := range c.p.Days {
		s.days[i].secs = c.p.Days[i].LockedS
	}
	for i := range c.p.Locked {
		l := &c.p.Locked[i]
		g, group := givesOf(&l.Gives), groupIndex(l.Group)
		s.sums.add(1, &g)
		d := &s.days[l.Day]
		d.locked++
		d.ramp = max(d.ramp, l.RampS)
		d.hard[group] += l.Hard
		s.at[c.p.Days[l.Day].On][group] += l.Hard
		s.hard[group] += l.Hard
		for j := range s.joints {
			s.joints[j] += l.Joints[j]
		}
		if l.Like >= 0 {
			s.inDays[l.Like]++
			s.sets[l.Like] += uint8(l.Sets)
		}
	}
	c.lockedWants(s)
	for h := range s.heads {
		s.heads[h] = c.headCost(h, &s.sums)
	}
	s.cost = c.total(s)
}
