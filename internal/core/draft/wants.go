package draft

import (
	"math/bits"
	"slices"

	"musculus/internal/core/arm"
	"musculus/internal/core/priority"
)

// compileWants makes wants of the ideas that the week should have, those of a group that is
// built where some candidate is one, and of what a pattern asks for.
func (c *compiled) compileWants() {
	c.member = make([][]uint32, len(c.p.Days))
	for d := range c.member {
		c.member[d] = make([]uint32, len(c.cands))
	}
	var built [2]bool
	for h, t := range c.p.Targets {
		if t.Level == priority.Maintain {
			continue
		}
		if arm.HeadIndex(h).Flexor() {
			built[0] = true
		} else {
			built[1] = true
		}
	}
	for i := range ideas {
		o := &ideas[i]
		var can []int
		for k := range c.cands {
			if c.cands[k].most >= fewestSets && slices.Contains(c.p.Candidates[k].Ideas, o.id) {
				can = append(can, k)
			}
		}
		if built[groupIndex(o.group)] && len(can) > 0 && !slices.Contains(c.p.Elsewhere.Ideas, o.id) {
			c.want(want{least: 1, cost: c.w.idea, idea: o.id, words: o.words}, can, nil)
		}
	}
	for i := range c.p.Wants {
		w := &c.p.Wants[i]
		c.want(want{least: w.Least, most: w.Most, cost: whole(w.Weight), words: w.Words}, w.Candidates, w.Days)
	}
}

func (c *compiled) want(w want, cands, days []int) {
	bit := uint32(1) << len(c.wants)
	c.wants = append(c.wants, w)
	for d := range c.member {
		if len(days) > 0 && !slices.Contains(days, d) {
			continue
		}
		for _, k := range cands {
			c.member[d][k] |= bit
		}
	}
}

// lockedWants counts what is locked for the wants: by its ideas, and as the candidate it is
// like for what a pattern asks.
func (c *compiled) lockedWants(s *state) {
	for i := range c.p.Locked {
		l := &c.p.Locked[i]
		for k := range c.wants {
			w := &c.wants[k]
			if w.idea != "" && slices.Contains(l.Ideas, w.idea) ||
				w.idea == "" && l.Like >= 0 && c.member[l.Day][l.Like]&(1<<k) != 0 {
				s.wants[k]++
			}
		}
	}
}

func (c *compiled) countWants(s *state, member uint32, by int) {
	for b := member; b != 0; b &= b - 1 {
		s.wants[bits.TrailingZeros32(b)] += by
	}
}

// wantsCost is what the wants that are not met cost, and how many ideas the week lacks.
func (c *compiled) wantsCost(s *state) (cost int64, missing int) {
	for i := range c.wants {
		off := c.wants[i].off(s.wants[i])
		cost += c.wants[i].cost * int64(off)
		if c.wants[i].idea != "" {
			missing += off
		}
	}
	return cost, missing
}

// wantsDelta is what another slot that counts for these wants costs.
func (c *compiled) wantsDelta(s *state, member uint32, missing int) (delta int64) {
	fills := 0
	for b := member; b != 0; b &= b - 1 {
		i := bits.TrailingZeros32(b)
		w := &c.wants[i]
		by := w.off(s.wants[i]+1) - w.off(s.wants[i])
		delta += w.cost * int64(by)
		if w.idea != "" {
			fills -= by
		}
	}
	delta *= c.w.all
	if m := c.p.AtMost; m != nil && fills != 0 {
		delta += perWeight * (bound(missing-fills-m.Ideas) - bound(missing-m.Ideas))
	}
	return delta
}

// bound is what ideas over those that may be lacking cost.
func bound(over int) int64 {
	if over <= 0 {
		return 0
	}
	return tooMuchAtAll + tooMuch*int64(over)
}
