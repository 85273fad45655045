package draft

import "fmt"

// limits bound groups and joints.
func (l *lp) limits() {
	c := l.c
	var week [2]sum
	joints := make([]sum, len(c.p.Joints))
	for d := range c.p.Days {
		var day [2]sum
		for i := range c.cands {
			k := &c.cands[i]
			l.hard(&day[k.group], d, i, 1)
			l.hard(&week[k.group], d, i, 1)
			for j := range joints {
				l.hard(&joints[j], d, i, k.joints[j])
			}
		}
		for g := range day {
			l.row(&day[g], "<=", c.p.GroupDay-c.base.days[d].hard[g])
		}
	}
	for g := range week {
		l.row(&week[g], "<=", c.p.GroupWeek[g]-c.base.hard[g])
	}
	for j := range joints {
		l.row(&joints[j], "<=", c.p.Joints[j]-c.base.joints[j])
	}
}

// spacing keeps hard days of a group apart.
func (l *lp) spacing() {
	c := l.c
	if c.p.Spread == "one_day" {
		return
	}
	for g := range 2 {
		for on := range c.p.Cycle {
			var total sum
			for d := range c.p.Days {
				if c.p.Days[d].On != on {
					continue
				}
				for i := range c.cands {
					if c.cands[i].group == g {
						l.hard(&total, d, i, 1)
					}
				}
			}
			elsewhere, there := c.elsewhere[g][on], c.base.at[on][g]
			if c.p.Spread == "daily" {
				l.row(&total, "<=", max(elsewhere, dailySets)-elsewhere-there)
				continue
			}
			v := l.binary(fmt.Sprintf("v_%d_%d", on, g))
			if elsewhere > easySets || there+elsewhere > easySets {
				var is sum
				is.add(1, v)
				l.row(&is, "=", 1)
			}
			easy := max(elsewhere, easySets)
			total.add(-(max(easy, c.p.GroupDay) - easy), v)
			l.row(&total, "<=", easy-elsewhere-there)
			for _, o := range c.near[on] {
				if o < on || elsewhere > easySets && c.elsewhere[g][o] > easySets {
					continue
				}
				var both sum
				both.add(1, v)
				both.add(1, fmt.Sprintf("v_%d_%d", o, g))
				l.row(&both, "<=", 1)
			}
		}
	}
}

// heads are the targets.
func (l *lp) heads() {
	c := l.c
	gives := func(s *sum, of func(*cand) int) {
		for d := range c.p.Days {
			for i := range c.cands {
				l.hard(s, d, i, of(&c.cands[i]))
			}
		}
	}
	for h := range c.aims {
		a := &c.aims[h]
		under, half, over := fmt.Sprintf("under_%d", h), fmt.Sprintf("half_%d", h), fmt.Sprintf("over_%d", h)
		l.costs(under, c.w.all*a.under)
		l.costs(half, c.w.all*a.under)
		l.costs(over, c.w.all*a.over)
		if c.way == Stance {
			var s sum
			gives(&s, func(k *cand) int { return k.mid[h] })
			s.add(1, under)
			l.row(&s, ">=", a.low-c.base.sums.mid[h])
		} else {
			for k := range c.base.sums.under[h] {
				var s sum
				gives(&s, func(o *cand) int { return o.under[h][k] })
				s.add(1, under)
				l.row(&s, ">=", a.low-c.base.sums.under[h][k])
			}
		}
		var s, o sum
		s.add(1, half)
		s.add(-1, under)
		l.row(&s, ">=", -a.half)
		gives(&o, func(k *cand) int { return k.mid[h] })
		o.add(-1, over)
		l.row(&o, "<=", a.high-c.base.sums.mid[h])
		m := c.p.AtMost
		l.atMost(under, m, func(m *AtMost) int { return m.Under[h] })
		if !a.lengths {
			continue
		}
		for _, zone := range []struct {
			name string
			of   func(*sums) int
			most func(*AtMost) int
		}{
			{"short", func(s *sums) int { return s.short[h] }, func(m *AtMost) int { return m.Short[h] }},
			{"long", func(s *sums) int { return s.long[h] }, func(m *AtMost) int { return m.Long[h] }},
		} {
			name := fmt.Sprintf("%s_%d", zone.name, h)
			l.costs(name, c.w.all*c.w.length)
			var s sum
			gives(&s, func(k *cand) int { return zone.of(&k.sums) })
			s.add(1, name)
			l.row(&s, ">=", covered-zone.of(&c.base.sums))
			l.atMost(name, m, zone.most)
		}
	}
}

func (l *lp) atMost(name string, m *AtMost, most func(*AtMost) int) {
	if m == nil {
		return
	}
	var s sum
	s.add(1, name)
	l.row(&s, "<=", most(m))
}

// wants are the ideas a week should have, and what a pattern asks for.
func (l *lp) wants() {
	c := l.c
	var missing sum
	for k := range c.wants {
		w := &c.wants[k]
		few, many := fmt.Sprintf("few_%d", k), fmt.Sprintf("many_%d", k)
		var least, most sum
		for d := range c.p.Days {
			for i := range c.cands {
				if c.member[d][i]&(1<<k) != 0 {
					l.slots(&least, d, i, 1)
					l.slots(&most, d, i, 1)
				}
			}
		}
		if w.least > c.base.wants[k] {
			least.add(1, few)
			l.row(&least, ">=", w.least-c.base.wants[k])
			l.costs(few, c.w.all*w.cost)
			if w.idea != "" {
				missing.add(1, few)
			}
		}
		if w.most > 0 {
			most.add(-1, many)
			l.row(&most, "<=", w.most-c.base.wants[k])
			l.costs(many, c.w.all*w.cost)
		}
	}
	if m := c.p.AtMost; m != nil {
		l.row(&missing, "<=", m.Ideas)
	}
}
