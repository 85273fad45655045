package draft

import "math"

// room is how many more hard sets of a group a day takes: by the day's own limit, by the
// spacing and, with everything elsewhere counted, by what a day may hold at all.
func (c *compiled) room(s *state, d, group int) int {
	left := c.p.GroupDay - s.days[d].hard[group]
	on := c.p.Days[d].On
	elsewhere := c.elsewhere[group][on]
	total := s.at[on][group] + elsewhere
	switch c.p.Spread {
	case "daily":
		return min(left, max(elsewhere, dailySets)-total)
	case "days":
		most := max(elsewhere, c.p.GroupDay)
		for _, o := range c.near[on] {
			there := c.elsewhere[group][o]
			if s.at[o][group]+there > easySets && !(elsewhere > easySets && there > easySets) {
				most = max(elsewhere, easySets) // the other day is hard: this one stays easy
				if elsewhere > easySets {       // and it is hard without us already
					most = elsewhere
				}
			}
		}
		return min(left, most-total)
	}
	return left
}

// most is the most sets that a candidate can have on a day beyond what its slot has there
// already (has, 0: it is not there), by everything but the time.
func (c *compiled) mostMore(s *state, cand, has int) int {
	k := &c.cands[cand]
	left := min(k.most-has, mostOfOne-int(s.sets[cand]), c.p.GroupWeek[k.group]-s.hard[k.group])
	for j, per := range k.joints {
		if per > 0 {
			left = min(left, (c.p.Joints[j]-s.joints[j])/per)
		}
	}
	return left
}

// change is one change to a week: slot −1 puts a candidate there, otherwise the slot gets
// other sets.
type change struct {
	day, slot, cand, sets int
	delta                 int64
	score                 float64 // what it is chosen by, the least first
}

var none = change{day: -1, delta: math.MaxInt64, score: math.Inf(1)}

// taste is how one mending chooses.
type taste struct {
	// easy leaves out what the first slot of a day costs for being alone: the next one may
	// come.
	easy bool
	// perTime chooses what gains most for its time, not what gains most.
	perTime bool
	skip    func(cand int) bool // candidates that are not looked at; nil: all are
	most    int                 // sets of a new slot; 0: as many as there may be
	notOn   int                 // a day that gets no new slot, counted from 1; 0: every day may
}

// score is what a change is chosen by that takes so many seconds more.
func (t *taste) score(delta int64, seconds int) float64 {
	if t.perTime && delta < 0 {
		return float64(delta) / float64(max(seconds, slotS))
	}
	return float64(delta)
}

// headsDelta is what the heads cost more after so many more sets of a candidate.
func (c *compiled) headsDelta(s *state, k *cand, dx int) (delta int64) {
	for _, h := range k.heads {
		mid := s.sums.mid[h] + dx*k.mid[h]
		has := mid
		if c.way != Stance {
			is, per := &s.sums.under[h], &k.under[h]
			has = is[0] + dx*per[0]
			for i := 1; i < len(is); i++ {
				has = min(has, is[i]+dx*per[i])
			}
		}
		delta += c.headPrice(h, has, mid, s.sums.short[h]+dx*k.short[h], s.sums.long[h]+dx*k.long[h]) - s.heads[h]
	}
	return delta
}

// spread is what the week's days cost as they stand, asked once for many changes.
type spread struct {
	used, longest, shortest int
	seconds                 [mostProblemDays]int
	others                  [mostProblemDays][2]int // longest and shortest of the other days
	cost                    int64
}

func (c *compiled) spreadOf(s *state) (out spread) {
	out.used, out.longest, out.shortest = c.ends(s)
	out.cost = c.daysCost(out.used) + c.w.balance*int64(out.longest-out.shortest)
	for d := range c.p.Days {
		out.seconds[d] = c.seconds(s, d)
		longest, shortest := 0, math.MaxInt
		for o := range c.p.Days {
			if o != d && s.days[o].used() {
				t := c.seconds(s, o)
				longest, shortest = max(longest, t), min(shortest, t)
			}
		}
		out.others[d] = [2]int{longest, shortest}
	}
	return out
}

// timeDelta is what a day's other length costs; used: whether it was used before.
func (c *compiled) timeDelta(sp *spread, d, seconds int, used bool) (delta, first int64) {
	n := sp.used
	if !used {
		n++
	}
	longest, shortest := max(sp.others[d][0], seconds), min(sp.others[d][1], seconds)
	more := int64(seconds - sp.seconds[d])
	delta = c.w.second*more + c.daysCost(n) + c.w.balance*int64(longest-shortest) - sp.cost
	if c.way == LeastTime {
		first = perWeight * perSecond * more
	}
	return delta, first
}

// bestInsert is the best slot that may be put in.
func (c *compiled) bestInsert(s *state, sp *spread, by *taste) change {
	best := none
	all := c.w.all
	_, missing := c.wantsCost(s)
	for i := range c.cands {
		k := &c.cands[i]
		if k.most < fewestSets || int(s.inDays[i]) >= k.days || by.skip != nil && by.skip(i) {
			continue
		}
		most := c.mostMore(s, i, 0)
		if most < fewestSets {
			continue
		}
		if by.most > 0 {
			most = min(most, by.most)
		}
		on, there := c.where(s, i, k, most, by)
		if on < fewestSets {
			continue
		}
		var heads [mostSets + 1]int64
		for x := fewestSets; x <= on; x++ {
			heads[x] = c.headsDelta(s, k, x) + all*(k.slot+c.dose(x))
		}
		fixed := int64(0)
		if s.inDays[i] == 0 {
			fixed = all * k.setUp
		}
		for d := range c.p.Days {
			if there[d] < fewestSets {
				continue
			}
			day, o := &s.days[d], &c.p.Days[d]
			base := o.WarmUpS + max(day.ramp, k.rampS) + day.secs + slotS
			add := int64(0)
			switch n := day.n + day.locked; {
			case n == 0 && !by.easy:
				add += c.w.one
			case n == 1:
				add -= c.w.one
			}
			add += c.w.twins * int64(c.twinsOn(s, d, i, day.n))
			wants := c.wantsDelta(s, c.member[d][i], missing)
			for x := fewestSets; x <= there[d]; x++ {
				t := base + x*k.setS
				time, first := c.timeDelta(sp, d, t, day.used())
				if len(c.p.Days) > 1 {
					time += c.w.crowd * int64(max(0, day.hard[k.group]+x-crowded)-max(0, day.hard[k.group]-crowded))
				}
				delta := heads[x] + fixed + wants + all*(add+time) + first
				if score := by.score(delta, t-sp.seconds[d]); score < best.score {
					best = change{d, -1, i, x, delta, score}
				}
			}
		}
	}
	return best
}

// where is how many sets a candidate may have on each day, most at most, and on any.
func (c *compiled) where(s *state, i int, k *cand, most int, by *taste) (on int, there [mostProblemDays]int) {
	for d := range c.p.Days {
		day, o := &s.days[d], &c.p.Days[d]
		left := o.Seconds - o.WarmUpS - max(day.ramp, k.rampS) - day.secs - slotS
		if left < fewestSets*k.setS || o.Closed || d == by.notOn-1 || day.n+day.locked >= o.Slots || c.onDay(s, d, i) {
			continue
		}
		there[d] = min(most, left/k.setS, c.room(s, d, k.group))
		on = max(on, there[d])
	}
	return on, there
}

// onDay says whether a day has a candidate already, as what is locked too.
func (c *compiled) onDay(s *state, d, cand int) bool {
	for i := range s.days[d].n {
		if int(s.days[d].slots[i].c) == cand {
			return true
		}
	}
	for i := range c.p.Locked {
		if c.p.Locked[i].Day == d && c.p.Locked[i].Like == cand {
			return true
		}
	}
	return false
}

// bestResize is the slot that gains most by other sets.
func (c *compiled) bestResize(s *state, sp *spread, by *taste) change {
	best := none
	for d := range c.p.Days {
		day, o := &s.days[d], &c.p.Days[d]
		t := sp.seconds[d]
		for i := range day.n {
			cur := day.slots[i]
			k, has := &c.cands[cur.c], int(cur.x)
			most := has + min(c.mostMore(s, int(cur.c), has), c.room(s, d, k.group))
			for x := fewestSets; x <= max(most, has); x++ {
				dx := x - has
				if dx == 0 || t+dx*k.setS > o.Seconds {
					continue
				}
				time, first := c.timeDelta(sp, d, t+dx*k.setS, true)
				time += c.dose(x) - c.dose(has)
				if len(c.p.Days) > 1 {
					time += c.w.crowd * int64(max(0, day.hard[k.group]+dx-crowded)-max(0, day.hard[k.group]-crowded))
				}
				delta := c.headsDelta(s, k, dx) + c.w.all*time + first
				if score := by.score(delta, dx*k.setS); score < best.score {
					best = change{d, i, int(cur.c), x, delta, score}
				}
			}
		}
	}
	return best
}

// apply makes a change.
func (c *compiled) apply(s *state, m change) {
	if m.slot < 0 {
		c.put(s, m.day, m.cand, m.sets)
		return
	}
	c.resize(s, m.day, m.slot, m.sets)
}
