package draft

import "musculus/internal/core/week"

// What the audit holds days to, a week is composed by.
const (
	easySets  = week.EasySets
	dailySets = week.DailySets
)

// has is what a head has by the way that counts: the stance's, or the least that any gives.
func (c *compiled) has(h int, s *sums) int {
	if c.way == Stance {
		return s.mid[h]
	}
	has := s.under[h][0]
	for _, x := range s.under[h][1:] {
		has = min(has, x)
	}
	return has
}

// lack is what a head has too little, by the way that counts.
func (c *compiled) lack(h int, s *sums) int { return max(0, c.aims[h].low-c.has(h, s)) }

// headCost is what a head costs.
func (c *compiled) headCost(h int, s *sums) int64 {
	return c.headPrice(h, c.has(h, s), s.mid[h], s.short[h], s.long[h])
}

// headPrice is what a head costs that has so much: what it is short, at lengths too, and
// what is over.
func (c *compiled) headPrice(h, has, mid, short, long int) int64 {
	a := &c.aims[h]
	lack := max(0, a.low-has)
	cost := a.under * int64(lack+max(0, lack-a.half))
	short, long = max(0, covered-short), max(0, covered-long)
	if a.lengths {
		cost += c.w.length * int64(short+long)
	}
	cost += a.over * int64(max(0, mid-a.high))
	cost *= c.w.all
	if m := c.p.AtMost; m != nil {
		over := max(0, lack-m.Under[h])
		if a.lengths {
			over += max(0, short-m.Short[h]) + max(0, long-m.Long[h])
		}
		if over > 0 {
			cost += perWeight * (tooMuchAtAll + tooMuch/Per*int64(over))
		}
	}
	return cost
}

// seconds is how long a day takes; 0 for one that is free.
func (c *compiled) seconds(s *state, d int) int {
	if day := &s.days[d]; day.used() {
		return c.p.Days[d].WarmUpS + day.ramp + day.secs
	}
	return 0
}

// ends are the longest and the shortest day that is used, s.
func (c *compiled) ends(s *state) (used, longest, shortest int) {
	for d := range c.p.Days {
		if !s.days[d].used() {
			continue
		}
		t := c.seconds(s, d)
		if used == 0 || t < shortest {
			shortest = t
		}
		longest = max(longest, t)
		used++
	}
	return used, longest, shortest
}

// daysCost is what the number of days costs.
func (c *compiled) daysCost(used int) int64 {
	given := len(c.p.Days)
	switch c.p.Spread {
	case "daily":
		return c.w.many * int64(given-used)
	case "one_day":
		return c.w.few * int64(max(0, used-1))
	}
	return c.w.few*int64(max(0, c.wantDays-used)) + c.w.many*int64(max(0, used-3))
}

// dayCost is what a day costs by itself.
func (c *compiled) dayCost(s *state, d int) int64 {
	day := &s.days[d]
	cost := c.w.second * int64(c.seconds(s, d))
	if day.n+day.locked == 1 {
		cost += c.w.one
	}
	if len(c.p.Days) > 1 {
		for _, n := range day.hard {
			cost += c.w.crowd * int64(max(0, n-crowded))
		}
	}
	pairs := c.lockedPairs[d]
	for i := range day.n {
		pairs += c.twinsOn(s, d, int(day.slots[i].c), i)
	}
	return cost + c.w.twins*int64(pairs)
}

// twinsOn is how many of the first slots of a day, and of what is locked, are one idea with
// a candidate.
func (c *compiled) twinsOn(s *state, d, cand, first int) int {
	n := c.lockedTwins[d][cand]
	for i := range first {
		if c.isTwin(cand, int(s.days[d].slots[i].c)) {
			n++
		}
	}
	return n
}

// dose is what a slot's number of sets costs.
func (c *compiled) dose(x int) int64 {
	switch x {
	case fewestSets:
		return c.w.two
	case mostSets:
		return c.w.five
	}
	return 0
}

// total is what a week costs, counted anew; the heads as they stand in the state.
func (c *compiled) total(s *state) int64 {
	var heads, rest, seconds int64
	for h := range s.heads {
		heads += s.heads[h]
	}
	for d := range c.p.Days {
		rest += c.dayCost(s, d)
		seconds += int64(c.seconds(s, d))
		for i := range s.days[d].n {
			o := s.days[d].slots[i]
			rest += c.cands[o.c].slot + c.dose(int(o.x))
		}
	}
	for i := range c.p.Locked {
		l := &c.p.Locked[i]
		rest += whole(c.p.Weights.Slot) + c.dose(l.Sets)
		if l.Like < 0 {
			rest += whole(c.p.Weights.SetUp)
		} else {
			rest += c.cands[l.Like].slot - whole(c.p.Weights.Slot)
		}
	}
	for i := range c.cands {
		if s.inDays[i] > 0 {
			rest += c.cands[i].setUp
		}
	}
	used, longest, shortest := c.ends(s)
	rest += c.daysCost(used) + c.w.balance*int64(longest-shortest)
	wants, missing := c.wantsCost(s)
	rest += wants
	out := heads + c.w.all*rest
	if c.way == LeastTime {
		out += perWeight * perSecond * seconds
	}
	if m := c.p.AtMost; m != nil {
		out += perWeight * bound(missing-m.Ideas)
	}
	return out
}

// put adds a slot of a candidate to a day; x sets.
func (c *compiled) put(s *state, d, cand, x int) {
	k, day := &c.cands[cand], &s.days[d]
	day.slots[day.n] = slot{int16(cand), int16(x)}
	day.n++
	day.secs += slotS
	day.ramp = max(day.ramp, k.rampS)
	s.inDays[cand]++
	c.countWants(s, c.member[d][cand], 1)
	c.addSets(s, d, cand, x)
	s.cost = c.total(s)
}

// addSets counts sets of a candidate on a day, or takes them off.
func (c *compiled) addSets(s *state, d, cand, dx int) {
	k, day := &c.cands[cand], &s.days[d]
	day.secs += dx * k.setS
	day.hard[k.group] += dx
	s.at[c.p.Days[d].On][k.group] += dx
	s.hard[k.group] += dx
	s.sets[cand] = uint8(int(s.sets[cand]) + dx)
	for j := range s.joints {
		s.joints[j] += dx * k.joints[j]
	}
	s.sums.add(dx, &k.gives)
	for _, h := range k.heads {
		s.heads[h] = c.headCost(h, &s.sums)
	}
}

// drop takes a slot off a day.
func (c *compiled) drop(s *state, d, i int) {
	day := &s.days[d]
	o := day.slots[i]
	c.addSets(s, d, int(o.c), -int(o.x))
	copy(day.slots[i:day.n], day.slots[i+1:day.n])
	day.n--
	day.slots[day.n] = slot{}
	day.secs -= slotS
	s.inDays[o.c]--
	c.countWants(s, c.member[d][o.c], -1)
	day.ramp = 0
	for n := range day.n {
		day.ramp = max(day.ramp, c.cands[day.slots[n].c].rampS)
	}
	for n := range c.p.Locked {
		if c.p.Locked[n].Day == d {
			day.ramp = max(day.ramp, c.p.Locked[n].RampS)
		}
	}
	s.cost = c.total(s)
}

// resize gives a slot other sets.
func (c *compiled) resize(s *state, d, i, x int) {
	o := &s.days[d].slots[i]
	dx := x - int(o.x)
	o.x = int16(x)
	c.addSets(s, d, int(o.c), dx)
	s.cost = c.total(s)
}
