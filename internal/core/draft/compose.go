package draft

import (
	"sync"

	"musculus/internal/core/priority"
)

// Stage is how far composing goes before it answers: the same stage of the same problem
// gives the same weeks.
type Stage string

// The stages.
const (
	First Stage = "first" // at once
	More  Stage = "more"  // while it is watched
	Final Stage = "final"
)

// How many steps a stage takes: fewer the more there is to look at in each. By measurement a
// step takes as long as a few candidates and, of each, a part and a bit for every day.
const (
	workOf      = 400_000.0 // of the final stage
	perStep     = 4.0
	perCand     = 0.3
	perCandDay  = 0.04
	mostSteps   = 20_000
	firstPart   = 1.0 / 30
	morePart    = 1.0 / 4
	streams     = 2 // searches of a way, of which the better one is kept
	leastAtOnce = 150
)

// Steps is how many steps a stage takes for a problem.
func (s Stage) Steps(p *Problem) int {
	n := min(mostSteps, workOf/(perStep+float64(len(p.Candidates))*(perCand+perCandDay*float64(len(p.Days)))))
	switch s {
	case First:
		n *= firstPart
	case More:
		n *= morePart
	}
	return max(leastAtOnce, int(n))
}

// Composed is a week composed for one way, with the problem that it is of: the least time
// has bounds of its own.
type Composed struct {
	Way     Way
	Problem *Problem
	Week    Week
}

// Compose composes the three weeks. stop ends it early, nil: nothing does; from are weeks to
// go on from, nil: none.
func Compose(p *Problem, stage Stage, seed uint64, stop func() bool, from *[3]Composed) [3]Composed {
	e := Effort{Steps: stage.Steps(p), Seed: seed, Stop: stop}
	start := func(i int) *Week {
		if from == nil {
			return nil
		}
		return &from[i].Week
	}
	var out [3]Composed
	both := side(
		func() Week { return searchAll(p, Robust, e, start(0)) },
		func() Week { return searchAll(p, Stance, e, start(1)) },
	)
	out[0], out[1] = Composed{Robust, p, both[0]}, Composed{Stance, p, both[1]}
	within := p.Within(&out[0].Week)
	out[2] = Composed{LeastTime, within, searchAll(within, LeastTime, e, &out[0].Week)}
	return out
}

// side does two things at the same time.
func side(a, b func() Week) (out [2]Week) {
	var wait sync.WaitGroup
	wait.Go(func() { out[0] = a() })
	out[1] = b()
	wait.Wait()
	return out
}

// searchAll searches with the seeds of all streams, and keeps the best, the earlier one
// between equals.
func searchAll(p *Problem, way Way, e Effort, from *Week) Week {
	found := make([]Week, streams)
	var wait sync.WaitGroup
	for i := range found {
		wait.Go(func() {
			own := e
			own.Seed = e.Seed*streams + uint64(i)
			found[i] = Search(p, way, own, from)
		})
	}
	wait.Wait()
	best := 0
	for i := range found {
		if found[i].cost < found[best].cost {
			best = i
		}
	}
	out := found[best]
	for i := range found {
		out.Stopped = out.Stopped || found[i].Stopped
	}
	return out
}

// How much more than the first week may a week of least time lack, ten-thousandths of a set,
// of what is not prioritised.
const mayLack = Per / 2

// Within is the problem with bounds on what a week may lack: hardly more than the given one.
func (p *Problem) Within(w *Week) *Problem {
	out := *p
	c, s := stateOf(p, Robust, w)
	m := &AtMost{}
	for h := range c.aims {
		m.Under[h] = c.lack(h, &s.sums)
		if p.Targets[h].Level != priority.Prioritise {
			m.Under[h] += mayLack
		}
		if c.aims[h].lengths {
			m.Short[h], m.Long[h] = max(0, covered-s.sums.short[h]), max(0, covered-s.sums.long[h])
		}
	}
	_, m.Ideas = c.wantsCost(s)
	out.AtMost = m
	return &out
}

// stateOf counts a week of a problem.
func stateOf(p *Problem, way Way, w *Week) (*compiled, *state) {
	c := compile(p, way)
	s := new(state)
	*s = c.base
	c.lay(s, w)
	return c, s
}

// Objective counts a week anew, as a way counts it.
func Objective(p *Problem, way Way, w *Week) float64 {
	c, s := stateOf(p, way, w)
	return c.objective(s.cost)
}

// Value counts a week that may pass limits: every slot that a limit refuses is left out and
// counted.
func Value(p *Problem, way Way, w *Week) (objective float64, refused int) {
	c := compile(p, way)
	s := c.base
	for d := range w.Days {
		for _, o := range w.Days[d] {
			if !c.may(&s, d, o.Candidate, o.Sets) {
				refused++
				continue
			}
			c.put(&s, d, o.Candidate, o.Sets)
		}
	}
	return c.objective(s.cost), refused
}
