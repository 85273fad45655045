package draft

import (
	"bufio"
	"fmt"
	"io"
	"slices"
	"strings"

	"musculus/internal/core/plan"
)

// WriteLP writes a checked problem for one way in the text format that linear solvers read
// (minimise, subject to, bounds, binaries), so that any of them can say how good a composed
// week is. Times are in seconds, credits in ten-thousandths of a set; the objective is that
// of Search. Without AtMost there is no least time to write: it is then written without
// bounds.
func WriteLP(w io.Writer, p *Problem, way Way) error {
	l := &lp{c: compile(p, way), out: bufio.NewWriter(w), cost: map[string]int64{}}
	l.write()
	return l.out.Flush()
}

// lp gathers rows and costs; costs are in what the search counts in.
type lp struct {
	c        *compiled
	out      *bufio.Writer
	rows     []string
	binaries []string
	cost     map[string]int64
	names    []string // of cost, in the order they came
	constant int64
}

func (l *lp) costs(name string, c int64) {
	if c == 0 {
		return
	}
	if _, ok := l.cost[name]; !ok {
		l.names = append(l.names, name)
	}
	l.cost[name] += c
}

// sum is a linear sum that is being written.
type sum struct{ b strings.Builder }

func (s *sum) add(n int, name string) {
	switch {
	case n == 0:
	case n > 0:
		fmt.Fprintf(&s.b, " + %d %s", n, name)
	default:
		fmt.Fprintf(&s.b, " - %d %s", -n, name)
	}
}

func (l *lp) row(s *sum, op string, right int) {
	if s.b.Len() == 0 {
		return // nothing that could change it
	}
	l.rows = append(l.rows, fmt.Sprintf("%s %s %d", s.b.String(), op, right))
}

func (l *lp) binary(name string) string {
	l.binaries = append(l.binaries, name)
	return name
}

func z(d, c, x int) string { return fmt.Sprintf("z_%d_%d_%d", d, c, x) }

// sets lists the numbers of sets a candidate may have on a day.
func (l *lp) sets(d, c int) (out []int) {
	if l.c.p.Days[d].Closed || l.c.onDay(&l.c.base, d, c) {
		return nil
	}
	for x := fewestSets; x <= l.c.cands[c].most; x++ {
		out = append(out, x)
	}
	return out
}

// slots adds n for each slot of a candidate on a day.
func (l *lp) slots(s *sum, d, c, n int) {
	for _, x := range l.sets(d, c) {
		s.add(n, z(d, c, x))
	}
}

// hard adds n for each set of a candidate on a day.
func (l *lp) hard(s *sum, d, c, n int) {
	for _, x := range l.sets(d, c) {
		s.add(n*x, z(d, c, x))
	}
}

func (l *lp) write() {
	l.choices()
	l.days()
	l.limits()
	l.spacing()
	l.heads()
	l.wants()
	fmt.Fprintf(l.out, "\\ %s, %s\nMinimize\n obj:", strings.ReplaceAll(l.c.p.Name, "\n", " "), l.c.way)
	for i, name := range l.names {
		fmt.Fprintf(l.out, " %+.12g %s", l.c.objective(l.cost[name]), name)
		if i%8 == 7 {
			fmt.Fprint(l.out, "\n")
		}
	}
	fmt.Fprintf(l.out, " %+.12g one\nSubject To\n", l.c.objective(l.constant))
	for i, r := range l.rows {
		fmt.Fprintf(l.out, " r%d:%s\n", i, r)
	}
	fmt.Fprint(l.out, "Bounds\n one = 1\nBinaries\n")
	for i, name := range l.binaries {
		fmt.Fprintf(l.out, " %s", name)
		if i%10 == 9 {
			fmt.Fprint(l.out, "\n")
		}
	}
	fmt.Fprint(l.out, "\nEnd\n")
}

// choices are the slots there may be and what each costs by itself.
func (l *lp) choices() {
	c := l.c
	for i := range c.cands {
		k := &c.cands[i]
		var days, sets sum
		name := fmt.Sprintf("s_%d", i)
		for d := range c.p.Days {
			var once sum
			for _, x := range l.sets(d, i) {
				v := l.binary(z(d, i, x))
				l.costs(v, c.w.all*(k.slot+c.dose(x)+c.w.twins*int64(c.lockedTwins[d][i])))
			}
			l.slots(&once, d, i, 1)
			l.row(&once, "<=", 1)
			if c.base.inDays[i] == 0 {
				var in sum
				l.slots(&in, d, i, 1)
				if in.b.Len() > 0 {
					in.add(-1, name)
					l.row(&in, "<=", 0)
				}
			}
			l.slots(&days, d, i, 1)
			l.hard(&sets, d, i, 1)
			for j := range i {
				if !c.isTwin(i, j) {
					continue
				}
				var both sum
				l.slots(&both, d, i, 1)
				if both.b.Len() == 0 || len(l.sets(d, j)) == 0 {
					continue
				}
				l.slots(&both, d, j, 1)
				pair := fmt.Sprintf("p_%d_%d_%d", d, j, i)
				both.add(-1, pair)
				l.row(&both, "<=", 1)
				l.costs(pair, c.w.all*c.w.twins)
			}
		}
		l.row(&days, "<=", k.days-int(c.base.inDays[i]))
		l.row(&sets, "<=", mostOfOne-int(c.base.sets[i]))
		if c.base.inDays[i] == 0 {
			l.costs(name, c.w.all*k.setUp)
		} else {
			l.constant += c.w.all * k.setUp
		}
	}
	for i := range c.p.Locked {
		o := &c.p.Locked[i]
		l.constant += c.w.all * (whole(c.p.Weights.Slot) + c.dose(o.Sets))
		if o.Like < 0 {
			l.constant += c.w.all * whole(c.p.Weights.SetUp)
		} else {
			l.constant += c.w.all * (c.cands[o.Like].slot - whole(c.p.Weights.Slot))
		}
	}
	for _, n := range c.lockedPairs {
		l.constant += c.w.all * c.w.twins * int64(n)
	}
}

// time adds how long a day takes.
func (l *lp) time(s *sum, d, n int) { l.timeBut(s, d, n, 0) }

// timeBut adds how long a day takes, and so much more if it is used.
func (l *lp) timeBut(s *sum, d, n, used int) {
	c := l.c
	s.add(n*c.p.Days[d].WarmUpS+used, fmt.Sprintf("u_%d", d))
	for _, r := range l.ramps(d) {
		s.add(n*r, fmt.Sprintf("r_%d_%d", d, r))
	}
	s.add(n*c.p.Days[d].LockedS, "one")
	for i := range c.cands {
		for _, x := range l.sets(d, i) {
			s.add(n*(slotS+x*c.cands[i].setS), z(d, i, x))
		}
	}
}

// ramps are the lengths the ramp of a day may have.
func (l *lp) ramps(d int) []int {
	out := []int{l.c.base.days[d].ramp}
	for i := range l.c.cands {
		if r := l.c.cands[i].rampS; r > out[0] && len(l.sets(d, i)) > 0 && !slices.Contains(out, r) {
			out = append(out, r)
		}
	}
	slices.Sort(out)
	return out
}

func (l *lp) days() {
	c := l.c
	var used sum
	for d := range c.p.Days {
		u := l.binary(fmt.Sprintf("u_%d", d))
		used.add(1, u)
		var all, one sum
		locked := c.base.days[d].locked
		for i := range c.cands {
			var on sum
			l.slots(&on, d, i, 1)
			if on.b.Len() == 0 {
				continue
			}
			on.add(-1, u)
			l.row(&on, "<=", 0)
			l.slots(&all, d, i, 1)
			l.slots(&one, d, i, 1)
		}
		if locked > 0 {
			var is sum
			is.add(1, u)
			l.row(&is, "=", 1)
		} else {
			var empty sum
			empty.add(1, u)
			for i := range c.cands {
				l.slots(&empty, d, i, -1)
			}
			l.row(&empty, "<=", 0)
		}
		l.row(&all, "<=", min(c.p.Days[d].Slots, plan.MostSlots)-locked)
		alone := fmt.Sprintf("o_%d", d)
		one.add(1, alone)
		one.add(-2, u)
		l.row(&one, ">=", -locked)
		l.costs(alone, c.w.all*c.w.one)
		l.ramp(d)
		var long, hi, lo sum
		l.time(&long, d, 1)
		if !c.p.Days[d].Closed {
			l.row(&long, "<=", c.p.Days[d].Seconds)
		}
		hi.add(1, "hi")
		l.time(&hi, d, -1)
		l.row(&hi, ">=", 0)
		const far = 100000 // longer than any day
		lo.add(1, "lo")
		l.timeBut(&lo, d, -1, far)
		l.row(&lo, "<=", far)
		l.minutes(d)
		if len(c.p.Days) > 1 {
			for g := range 2 {
				var crowd sum
				for i := range c.cands {
					if c.cands[i].group == g {
						l.hard(&crowd, d, i, 1)
					}
				}
				if crowd.b.Len() == 0 && c.base.days[d].hard[g] <= crowded {
					continue
				}
				name := fmt.Sprintf("c_%d_%d", d, g)
				crowd.add(-1, name)
				l.row(&crowd, "<=", crowded-c.base.days[d].hard[g])
				l.costs(name, c.w.all*c.w.crowd)
			}
		}
	}
	var between sum
	between.add(1, "hi")
	between.add(-1, "lo")
	l.row(&between, ">=", 0)
	l.costs("hi", c.w.all*c.w.balance)
	l.costs("lo", -c.w.all*c.w.balance)
	given := len(c.p.Days)
	switch c.p.Spread {
	case "daily":
		l.constant += c.w.all * c.w.many * int64(given)
		for d := range c.p.Days {
			l.costs(fmt.Sprintf("u_%d", d), -c.w.all*c.w.many)
		}
	case "one_day":
		used.add(-1, "more")
		l.row(&used, "<=", 1)
		l.costs("more", c.w.all*c.w.few)
	default:
		few := sum{}
		few.b.WriteString(used.b.String())
		few.add(1, "few")
		l.row(&few, ">=", c.wantDays)
		used.add(-1, "more")
		l.row(&used, "<=", 3)
		l.costs("few", c.w.all*c.w.few)
		l.costs("more", c.w.all*c.w.many)
	}
}

// ramp chooses the longest ramp of a day, exactly.
func (l *lp) ramp(d int) {
	c := l.c
	ramps := l.ramps(d)
	var one sum
	for _, r := range ramps {
		one.add(1, l.binary(fmt.Sprintf("r_%d_%d", d, r)))
	}
	l.row(&one, "=", 1)
	for i := range c.cands {
		if c.cands[i].rampS <= ramps[0] || len(l.sets(d, i)) == 0 {
			continue
		}
		var long sum
		l.slots(&long, d, i, 1)
		for _, r := range ramps {
			if r >= c.cands[i].rampS {
				long.add(-1, fmt.Sprintf("r_%d_%d", d, r))
			}
		}
		l.row(&long, "<=", 0)
	}
	for _, r := range ramps[1:] {
		var some sum
		some.add(1, fmt.Sprintf("r_%d_%d", d, r))
		for i := range c.cands {
			if c.cands[i].rampS == r {
				l.slots(&some, d, i, -1)
			}
		}
		l.row(&some, "<=", 0)
	}
}

// minutes costs a day's time.
func (l *lp) minutes(d int) {
	c := l.c
	per := c.w.all * c.w.second
	if c.way == LeastTime {
		per += perWeight * perSecond
	}
	l.costs(fmt.Sprintf("u_%d", d), per*int64(c.p.Days[d].WarmUpS))
	for _, r := range l.ramps(d) {
		l.costs(fmt.Sprintf("r_%d_%d", d, r), per*int64(r))
	}
	l.constant += per * int64(c.p.Days[d].LockedS)
	for i := range c.cands {
		for _, x := range l.sets(d, i) {
			l.costs(z(d, i, x), per*int64(slotS+x*c.cands[i].setS))
		}
	}
}
