package draft

import (
	"slices"
	"sync"

	"github.com/google/uuid"

	"musculus/internal/core/plan"
	"musculus/internal/core/stance"
	"musculus/internal/core/week"
)

// Compose composes the three weeks of a client. Where a day is full by the sum of its slots
// but not on the board, where a station is shared or a last rest falls away, the search goes
// on with what is left there.
func (d *Dated) Compose(stage Stage, seed uint64, stop func() bool, from *[3]Composed) [3]Composed {
	out := Compose(d.Problem, stage, seed, stop, from)
	if stage != Final {
		return out
	}
	var wait sync.WaitGroup
	for i := range out {
		wait.Go(func() { out[i] = d.fill(d.vary(out[i], seed, stop), seed, stop) })
	}
	wait.Wait()
	return out
}

// finishPart is how much of the final stage goes into each thing that finishes a week.
const finishPart = 8

// mayCost is how much of the objective variety may cost: as much as an idea.
const mayCost = 1

// vary composes on where one movement carries too much of a group, or all of it is hardest in
// one part of the range, as far as that costs no more than an idea.
func (d *Dated) vary(c Composed, seed uint64, stop func() bool) Composed {
	bare := Finish{Bare: true, NewID: func() uuid.UUID { return uuid.Nil }}
	seen := func(p *Problem, w *Week) (wants []Want) {
		wants = twins(p, w)
		laid := week.Week{Sessions: d.Lay(p, c.Way, w, &bare).Sessions}
		for _, group := range []string{plan.Flexors, plan.Extensors} {
			slots := 0
			for _, day := range w.Days {
				for _, s := range day {
					if p.Candidates[s.Candidate].Group == group {
						slots++
					}
				}
			}
			other := func(words string, least int, is func(*Candidate) bool) {
				o := Want{Words: words, Least: least, Weight: mayCost}
				for i := range p.Candidates {
					if k := &p.Candidates[i]; k.Group == group && is(k) {
						o.Candidates = append(o.Candidates, i)
					}
				}
				if len(o.Candidates) > 0 {
					wants = append(wants, o)
				}
			}
			if id := laid.OneMovement(group); id != "" {
				other("other movements for the elbow "+group, max(1, slots/3), func(k *Candidate) bool { return k.Movement != id })
			}
			if part, _ := laid.OnePart(d.client.Trainee, group); part != "" {
				other("the elbow "+group+" hard in another part of the range", 1, func(k *Candidate) bool {
					profile := d.client.Trainee.Profile(k.setUp)
					return profile != nil && stance.HardestPart(profile) != part
				})
			}
		}
		return wants
	}
	wants := seen(c.Problem, &c.Week)
	if len(wants) == 0 || stop != nil && stop() || len(c.Problem.Wants)+len(wants) > mostPatternWants {
		return c
	}
	more := *c.Problem
	more.Wants = append(slices.Clone(c.Problem.Wants), wants...)
	found := Search(&more, c.Way, Effort{Steps: Final.Steps(d.Problem) / finishPart, Seed: seed, Stop: stop}, &c.Week)
	cost := Objective(c.Problem, c.Way, &found)
	if cost > c.Week.Objective+mayCost || len(seen(c.Problem, &found)) >= len(wants) {
		return c
	}
	found.Objective, found.cost = cost, costOf(c.Problem, c.Way, &found)
	return Composed{c.Way, c.Problem, found}
}

// Monotony says where one movement carries too much of a muscle group, or all of it is
// hardest in one part of the range: what a week gives up rather than pay for.
func (d *Dated) Monotony(c *Composed) (out []string) {
	laid := week.Week{Sessions: d.Lay(c.Problem, c.Way, &c.Week, &Finish{Bare: true, NewID: func() uuid.UUID { return uuid.Nil }}).Sessions}
	for _, group := range []string{plan.Flexors, plan.Extensors} {
		if laid.OneMovement(group) != "" {
			out = append(out, "a second movement for the elbow "+group)
		}
		if part, _ := laid.OnePart(d.client.Trainee, group); part != "" {
			out = append(out, "the elbow "+group+" hard in another part of the range")
		}
	}
	return out
}

// twins wants one of each two slots of a day that are one idea.
func twins(p *Problem, w *Week) (out []Want) {
	for d, day := range w.Days {
		for i := range day {
			for j := range i {
				a, b := min(day[i].Candidate, day[j].Candidate), max(day[i].Candidate, day[j].Candidate)
				if slices.Contains(p.Twins, [2]int{a, b}) {
					out = append(out, Want{Words: "one idea once", Candidates: []int{a, b}, Days: []int{d}, Most: 1, Weight: mayCost})
				}
			}
		}
	}
	return out
}

func costOf(p *Problem, way Way, w *Week) int64 {
	_, s := stateOf(p, way, w)
	return s.cost
}

// fill composes on with the time that the board has left on full days.
func (d *Dated) fill(c Composed, seed uint64, stop func() bool) Composed {
	limit := make([]int, len(d.Days))
	more, board := c.Problem.with(func(*Problem) {}), d.Board(c.Problem, c.Way, &c.Week)
	more.AtMost = c.Problem.AtMost
	compiled, s := stateOf(c.Problem, c.Way, &c.Week)
	least := mostSeconds
	for i := range d.Candidates {
		least = min(least, slotS+fewestSets*d.Candidates[i].SetS)
	}
	again := false
	for i := range d.Days {
		limit[i] = d.Days[i].Seconds
		took, t := int(board[i]*perMinute), compiled.seconds(s, i)
		if t > 0 && limit[i]-t < least && limit[i]-took >= least {
			more.Days[i].Seconds += t - took
			again = true
		}
	}
	if !again || stop != nil && stop() {
		return c
	}
	found := Search(more, c.Way, Effort{Steps: Final.Steps(d.Problem) / finishPart, Seed: seed, Stop: stop}, &c.Week)
	if found.cost >= c.Week.cost {
		return c
	}
	for i, m := range d.Board(more, c.Way, &found) {
		if int(m*perMinute) > limit[i] {
			return c
		}
	}
	return Composed{c.Way, more, found}
}
