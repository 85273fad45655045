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

// mayCost is how much of the objective each thing that varies a week may cost: as much as an
// idea.
const mayCost = 1

// varyRounds are how often a week is varied at most.
const varyRounds = 3

// vary composes on where one movement carries too much of a group, all of it is hardest in
// one part of the range or a day has one idea twice, as far as that costs no more than an
// idea each.
func (d *Dated) vary(c Composed, seed uint64, stop func() bool) Composed {
	begun := d.tedious(c.Problem, c.Way, &c.Week)
	more, now, left := *c.Problem, c.Week, begun
	for range varyRounds { // what takes the place of one thing may be another one too often
		if len(left) == 0 || stop != nil && stop() || len(more.Wants)+len(left) > mostPatternWants {
			break
		}
		more.Wants, more.Candidates = slices.Clone(more.Wants), slices.Clone(more.Candidates)
		for _, o := range left {
			o.mend(&more)
		}
		now = Search(&more, c.Way, Effort{Steps: Final.Steps(d.Problem) / finishPart, Seed: seed, Stop: stop}, &now)
		left = d.tedious(c.Problem, c.Way, &now)
	}
	cost := Objective(c.Problem, c.Way, &now)
	if len(left) >= len(begun) || cost > c.Week.Objective+mayCost*float64(len(begun)) {
		return c
	}
	now.Objective, now.cost = cost, costOf(c.Problem, c.Way, &now)
	return Composed{c.Way, c.Problem, now}
}

// tedium is something that makes a week monotonous, and what is asked of it instead.
type tedium struct {
	words string
	mend  func(*Problem)
}

// tedious lists what makes a week monotonous.
func (d *Dated) tedious(p *Problem, way Way, w *Week) (out []tedium) {
	for _, o := range twins(p, w) {
		out = append(out, tedium{o.Words, func(p *Problem) { p.Wants = append(p.Wants, o) }})
	}
	laid := week.Week{Sessions: d.Lay(p, way, w, &Finish{Bare: true, NewID: func() uuid.UUID { return uuid.Nil }}).Sessions}
	for _, group := range []string{plan.Flexors, plan.Extensors} {
		if id := laid.OneMovement(group); id != "" {
			out = append(out, tedium{"a second movement for the elbow " + group, func(p *Problem) { // each set-up on one day, this movement once
				for i := range p.Candidates {
					if p.Candidates[i].Group == group {
						p.Candidates[i].Days = 1
					}
				}
				p.want("one movement less", 0, 1, func(k *Candidate) bool { return k.Movement == id })
			}})
		}
		if part, _ := laid.OnePart(d.client.Trainee, group); part != "" {
			out = append(out, tedium{"the elbow " + group + " hard in another part of the range", func(p *Problem) {
				p.want("another part of the range", 1, 0, func(k *Candidate) bool {
					profile := d.client.Trainee.Profile(k.setUp)
					return k.Group == group && profile != nil && stance.HardestPart(profile) != part
				})
			}})
		}
	}
	return out
}

// want asks for slots of the candidates that are something.
func (p *Problem) want(words string, least, most int, is func(*Candidate) bool) {
	o := Want{Words: words, Least: least, Most: most, Weight: mayCost}
	for i := range p.Candidates {
		if is(&p.Candidates[i]) {
			o.Candidates = append(o.Candidates, i)
		}
	}
	if len(o.Candidates) > 0 {
		p.Wants = append(p.Wants, o)
	}
}

// Monotony tells what makes a week monotonous: what it gives up rather than pay for.
func (d *Dated) Monotony(c *Composed) (out []string) {
	for _, o := range d.tedious(c.Problem, c.Way, &c.Week) {
		if o.words != oneIdeaOnce { // told with what else is given up
			out = append(out, o.words)
		}
	}
	return out
}

// oneIdeaOnce is what is asked of two slots of a day that are one idea.
const oneIdeaOnce = "one idea once"

// twins wants one of each two slots of a day that are one idea.
func twins(p *Problem, w *Week) (out []Want) {
	for d, day := range w.Days {
		for i := range day {
			for j := range i {
				a, b := min(day[i].Candidate, day[j].Candidate), max(day[i].Candidate, day[j].Candidate)
				if slices.Contains(p.Twins, [2]int{a, b}) {
					out = append(out, Want{Words: oneIdeaOnce, Candidates: []int{a, b}, Days: []int{d}, Most: 1, Weight: mayCost})
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
