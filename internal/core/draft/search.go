package draft

import (
	"musculus/internal/core/plan"
)

// Effort is how long a search goes on: the same effort gives the same week.
type Effort struct {
	Steps int    // looks over everything that could be changed
	Seed  uint64 // of taste: another seed may find another week as good
	// Stop ends the search early; nil: nothing does. It is asked often.
	Stop func() bool
	// Better is told a week that is better than what was found before; nil: nobody is.
	Better func(Week)
}

// Slot is a candidate with its sets on a day of a composed week.
type Slot struct {
	Candidate int `json:"candidate"`
	Sets      int `json:"sets"`
}

// Week is a composed week: the slots of each day beside what is locked.
type Week struct {
	Objective float64  `json:"objective"`
	Steps     int      `json:"steps"`
	Stopped   bool     `json:"stopped,omitempty"`
	Days      [][]Slot `json:"slots"`

	cost int64
}

// Clone copies a week.
func (w *Week) Clone() Week {
	out := *w
	out.Days = make([][]Slot, len(w.Days))
	for i := range w.Days {
		out.Days[i] = append([]Slot{}, w.Days[i]...)
	}
	return out
}

// week reads the slots off a state.
func (c *compiled) week(s *state, steps int) Week {
	out := Week{Objective: c.objective(s.cost), Steps: steps, Days: make([][]Slot, len(c.p.Days)), cost: s.cost}
	for d := range c.p.Days {
		out.Days[d] = []Slot{}
		for i := range s.days[d].n {
			out.Days[d] = append(out.Days[d], Slot{int(s.days[d].slots[i].c), int(s.days[d].slots[i].x)})
		}
	}
	return out
}

func (c *compiled) objective(cost int64) float64 { return float64(cost) / (unit * perWeight) }

// Search composes a week for a checked problem.
//
// It takes the week apart, some slots, a day, a muscle group or a set-up at a time, mends it
// by the best change until none helps, and goes on from what is not much worse (threshold
// accepting). It counts in whole numbers and draws from the seed alone, so that the same
// effort gives the same week on every machine. from is where it begins, nil: with what is
// locked.
func Search(p *Problem, way Way, e Effort, from *Week) Week {
	c := compile(p, way)
	r := runner{c: c, e: &e, rng: newDice(e.Seed, 0x6d757363)}
	return r.run(from)
}

type runner struct {
	c       *compiled
	e       *Effort
	rng     *dice
	skipped []bool
	looks   int
	stopped bool
}

// How a search goes.
const (
	threshold  = 0.05 // of the objective, that a week may be worse at first
	leastWorse = 1.2  // objective, that it may be worse at first in any case
	perRound   = 1500 // steps after which it may be as much worse again
	polishNear = 0.02 // of the best, within which every slot is looked at once more
	stopEvery  = 8    // steps after which is asked whether to stop
)

// blinks are the parts of the candidates that are not looked at in one mending, drawn anew
// for each: a few, so that it ends well, or many, so that it ends otherwise.
var blinks = []float64{0.03, 0.1, 0.3, 0.6}

func (r *runner) stop() bool {
	if r.looks++; !r.stopped && r.e.Stop != nil && r.looks%stopEvery == 0 {
		r.stopped = r.e.Stop()
	}
	return r.stopped
}

func (r *runner) run(from *Week) Week {
	c := r.c
	r.skipped = make([]bool, len(c.cands))
	now := c.base
	if from != nil {
		c.lay(&now, from)
	}
	r.mend(&now, false)
	r.polish(&now)
	best := now
	tell := func() {
		if r.e.Better != nil {
			r.e.Better(c.week(&best, r.looks))
		}
	}
	tell()
	var try state
	for r.looks < r.e.Steps && !r.stop() {
		try = now
		r.ruin(&try)
		r.mend(&try, true)
		if float64(try.cost) < float64(best.cost)*(1+polishNear) {
			r.polish(&try)
		}
		round := float64(r.looks%perRound) / perRound
		worse := max(threshold*float64(best.cost), leastWorse*unit*perWeight*float64(c.w.all)/perWeight) * (1 - round)
		if r.stopped { // half mended
			break
		}
		if try.cost <= now.cost || float64(try.cost) < float64(best.cost)+worse {
			now = try
		}
		if try.cost < best.cost {
			best = try
			tell()
		}
	}
	out := c.week(&best, r.looks)
	out.Stopped = r.stopped
	return out
}

// lay puts the slots of a week in, those that still may be.
func (c *compiled) lay(s *state, w *Week) {
	for d := range w.Days {
		if d >= len(c.p.Days) {
			break
		}
		for _, o := range w.Days[d] {
			if c.may(s, d, o.Candidate, o.Sets) {
				c.put(s, d, o.Candidate, o.Sets)
			}
		}
	}
}

// may says whether a slot may be put in by every limit.
func (c *compiled) may(s *state, d, cand, x int) bool {
	if cand < 0 || cand >= len(c.cands) || x < fewestSets {
		return false
	}
	k, day, o := &c.cands[cand], &s.days[d], &c.p.Days[d]
	return !o.Closed && day.n+day.locked < min(o.Slots, plan.MostSlots) && !c.onDay(s, d, cand) && int(s.inDays[cand]) < k.days &&
		x <= c.mostMore(s, cand, 0) && x <= c.room(s, d, k.group) &&
		o.WarmUpS+max(day.ramp, k.rampS)+day.secs+slotS+x*k.setS <= o.Seconds
}

// mend makes the best change until none helps; with taste some candidates are not looked
// at, or time counts, so that it does not always end the same way.
func (r *runner) mend(s *state, tasting bool) {
	c, by := r.c, taste{easy: true}
	if tasting {
		blink := blinks[r.rng.IntN(len(blinks))]
		for i := range r.skipped {
			r.skipped[i] = r.rng.Float64() < blink
		}
		by.skip, by.perTime = func(i int) bool { return r.skipped[i] }, r.rng.IntN(2) == 0
		by.most = fewestSets + r.rng.IntN(mostSets-fewestSets+1)
		if n := len(c.p.Days); n > 1 && r.rng.IntN(2) == 0 {
			by.notOn = 1 + r.rng.IntN(n)
		}
	}
	for !r.stop() {
		sp := c.spreadOf(s)
		m := better(c.bestInsert(s, &sp, &by), c.bestResize(s, &sp, &by))
		if m.delta >= 0 && (by.most > 0 || by.notOn > 0) { // so far by taste, from here on by what helps
			by.most, by.notOn = 0, 0
			continue
		}
		if m.delta >= 0 {
			break
		}
		c.apply(s, m)
	}
	r.shed(s)
}

// shed takes out every slot that the week is better without.
func (r *runner) shed(s *state) {
	var without state
	for again := true; again && !r.stop(); {
		again = false
		for d := range r.c.p.Days {
			for i := 0; i < s.days[d].n; i++ {
				without = *s
				r.c.drop(&without, d, i)
				if without.cost < s.cost {
					*s, again = without, true
					i--
				}
			}
		}
	}
}

func better(a, b change) change {
	if b.score < a.score {
		return b
	}
	return a
}

// plain looks at everything, by what it gains.
var plain = taste{}

// polish replaces each slot once by what is best in its place or anywhere.
func (r *runner) polish(s *state) {
	var try state
	for again := true; again && !r.stop(); {
		again = false
		for d := range r.c.p.Days {
			for i := 0; i < s.days[d].n && !r.stop(); i++ {
				try = *s
				r.c.drop(&try, d, i)
				for range 2 { // what took one slot may be two
					sp := r.c.spreadOf(&try)
					m := better(r.c.bestInsert(&try, &sp, &plain), r.c.bestResize(&try, &sp, &plain))
					if m.delta >= 0 {
						break
					}
					r.c.apply(&try, m)
				}
				if try.cost < s.cost {
					*s, again = try, true
				}
			}
		}
	}
}

// ruin takes part of a week out.
func (r *runner) ruin(s *state) {
	c := r.c
	var all [][2]int
	for d := range c.p.Days {
		for i := range s.days[d].n {
			all = append(all, [2]int{d, i})
		}
	}
	if len(all) == 0 {
		return
	}
	picked := all[r.rng.IntN(len(all))]
	which := s.days[picked[0]].slots[picked[1]]
	var out func(d int, o slot) bool
	switch n := r.rng.IntN(10); {
	case n < 6: // some slots
		left := 1 + r.rng.IntN(4)
		for range left {
			if len(all) == 0 {
				return
			}
			at := r.rng.IntN(len(all))
			d, i := all[at][0], all[at][1]
			c.drop(s, d, i)
			all = append(all[:at], all[at+1:]...)
			for k := range all {
				if all[k][0] == d && all[k][1] > i {
					all[k][1]--
				}
			}
		}
		return
	case n < 8: // a day
		out = func(d int, _ slot) bool { return d == picked[0] }
	case n < 9: // a group of a day, or of the week
		group, day := c.cands[which.c].group, picked[0]
		everywhere := r.rng.IntN(2) == 0
		out = func(d int, o slot) bool { return c.cands[o.c].group == group && (everywhere || d == day) }
	default: // a set-up
		out = func(_ int, o slot) bool { return o.c == which.c }
	}
	for d := range c.p.Days {
		for i := s.days[d].n - 1; i >= 0; i-- {
			if out(d, s.days[d].slots[i]) {
				c.drop(s, d, i)
			}
		}
	}
}
