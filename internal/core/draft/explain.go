package draft

import (
	"cmp"
	"fmt"
	"slices"

	"musculus/internal/core/arm"
	"musculus/internal/core/priority"
	"musculus/internal/core/stance"
)

// enough is how much of a set is too little to be told, ten-thousandths.
const enough = Per / 20

// GivenUp is something that a week lacks of what it is asked for.
type GivenUp struct {
	Head  int // −1: of no head
	Words string
	Lacks float64 // effective sets, 0 where it is not counted in sets

	costs int64
}

func effective(n int) string { return fmt.Sprintf("%.1f", float64(n)/Per) }

// tight writes what a week has so that it does not read as its limit.
func tight(n, limit int) string {
	if s := effective(n); s != effective(limit) {
		return s
	}
	return fmt.Sprintf("%.2f", float64(n)/Per)
}

// GivesUp lists what a week gives up, the gravest first.
func GivesUp(p *Problem, w *Week) (out []GivenUp) {
	c, s := stateOf(p, Robust, w)
	for h := range c.aims {
		a, name := &c.aims[h], arm.Heads[h].Name
		worst, under, by := s.sums.under[h][0], 0, 0
		for k, x := range s.sums.under[h] {
			if x < worst {
				worst, by = x, k
			}
			if a.low-x > enough {
				under++
			}
		}
		lack := max(0, a.low-s.sums.mid[h])
		switch {
		case lack > enough:
			out = append(out, GivenUp{h, fmt.Sprintf("%s: %s of %s sets", name, tight(s.sums.mid[h], a.low), effective(a.low)),
				float64(lack) / Per, a.under * int64(lack)})
		case under > 0:
			out = append(out, GivenUp{h, fmt.Sprintf("%s, by %s: %s of %s sets as %s counts", name, stances(under), tight(worst, a.low),
				effective(a.low), stance.Stances[by].Name), float64(a.low-worst) / Per, a.under * int64(a.low-worst)})
		}
		if over := s.sums.mid[h] - a.high; over > Per && p.Targets[h].Level != priority.Maintain {
			out = append(out, GivenUp{h, fmt.Sprintf("%s gets %s sets, over %s", name, effective(s.sums.mid[h]), effective(a.high)), 0,
				a.over * int64(over)})
		}
		if !a.lengths {
			continue
		}
		for _, z := range []struct {
			words string
			has   int
		}{{"short", s.sums.short[h]}, {"long", s.sums.long[h]}} {
			if lack := covered - z.has; lack > enough {
				out = append(out, GivenUp{h, fmt.Sprintf("%s at %s length: %s of %s sets", name, z.words, tight(z.has, covered),
					effective(covered)), float64(lack) / Per, c.w.length * int64(lack)})
			}
		}
	}
	for i := range c.wants {
		if o := &c.wants[i]; o.off(s.wants[i]) > 0 {
			words := "no " + trimArticle(o.words)
			if o.idea == "" {
				words = o.words
			}
			out = append(out, GivenUp{-1, words, 0, o.cost})
		}
	}
	for _, o := range twins(p, w) {
		out = append(out, GivenUp{-1, "one idea twice on " + p.Days[o.Days[0]].Name, 0, c.w.twins})
	}
	used, _, _ := c.ends(s)
	if p.Spread == "days" && used < c.wantDays && used > 0 {
		out = append(out, GivenUp{-1, "a second day", 0, c.w.few})
	}
	slices.SortStableFunc(out, func(a, b GivenUp) int { return cmp.Compare(b.costs, a.costs) })
	return out
}

func stances(n int) string {
	switch n {
	case 1:
		return "one stance"
	case stance.Readings:
		return "the careful count of every stance"
	}
	return fmt.Sprintf("%d stances", n)
}

// Why says what a slot is there for.
type Why struct {
	Carries string   // "3.1 of the triceps, long head's 12.0"
	Head    int      // that it carries most of, by what is aimed at; −1 for none
	Also    []string // what else the week has from it alone
	Loses   float64  // objective, without it
}

// Whys says what each slot of a week is there for, by day and slot.
func Whys(p *Problem, way Way, w *Week) [][]Why {
	c, s := stateOf(p, way, w)
	out := make([][]Why, len(p.Days))
	for d := range p.Days {
		out[d] = []Why{}
		for i := range s.days[d].n {
			o := s.days[d].slots[i]
			without := *s
			c.drop(&without, d, i)
			out[d] = append(out[d], c.why(s, d, o, c.objective(without.cost-s.cost)))
		}
	}
	return out
}

func (c *compiled) why(s *state, d int, o slot, loses float64) Why {
	k := &c.cands[o.c]
	y := Why{Head: -1, Also: []string{}, Loses: loses}
	best := 0
	for h, per := range k.mid {
		gives := per * int(o.x)
		counts := gives
		if c.p.Targets[h].Level != priority.Maintain {
			counts *= int(1 + c.aims[h].under/perCredit(1))
		}
		if counts > best {
			best, y.Head = counts, h
			y.Carries = fmt.Sprintf("%s of the %s’s %s", effective(gives), arm.Heads[h].Name, effective(s.sums.mid[h]))
		}
	}
	for h := range c.aims {
		if !c.aims[h].lengths {
			continue
		}
		for _, z := range []struct {
			words    string
			per, has int
		}{{"short", k.short[h], s.sums.short[h]}, {"long", k.long[h], s.sums.long[h]}} {
			if gives := z.per * int(o.x); gives > enough && z.has-gives < covered {
				y.Also = append(y.Also, fmt.Sprintf("%s of its %s at %s length (%s)", effective(gives), effective(z.has), z.words,
					arm.Heads[h].Code))
			}
		}
	}
	for i := range c.wants {
		w := &c.wants[i]
		if c.member[d][o.c]&(1<<i) != 0 && w.least > 0 && s.wants[i] <= w.least {
			words := "the only " + trimArticle(w.words)
			if w.idea == "" {
				words = w.words
			}
			y.Also = append(y.Also, words)
		}
	}
	return y
}

func trimArticle(words string) string {
	for _, a := range []string{"an ", "a "} {
		if len(words) > len(a) && words[:len(a)] == a {
			return words[len(a):]
		}
	}
	return words
}

// Short is how many effective sets a week lacks of what is to grow, worst stance by worst
// stance, lengths included.
func Short(p *Problem, w *Week) float64 {
	c, s := stateOf(p, Robust, w)
	return float64(c.short(s)) / Per
}

func (c *compiled) short(s *state) (n int) {
	for h := range c.aims {
		if c.p.Targets[h].Level == priority.Maintain {
			continue
		}
		n += c.lack(h, &s.sums)
		if c.aims[h].lengths {
			n += max(0, covered-s.sums.short[h]) + max(0, covered-s.sums.long[h])
		}
	}
	return n
}

// Weighed is what a term of the objective counts, in words.
type Weighed struct {
	Words string
	Value float64
}

// Words lists the weights, the heaviest first within what they are of.
func (w *Weights) Words() []Weighed {
	return []Weighed{
		{"a set short of a target that is prioritised; what is beyond half of it counts twice", w.Under[priority.Prioritise]},
		{"a set short of a target that is built", w.Under[priority.Build]},
		{"a set short of a target that is maintained", w.Under[priority.Maintain]},
		{"a set short of two at short or long length, where prioritised", w.Length},
		{"a set over a target that is built or prioritised", w.Over[priority.Build]},
		{"a set over one and a half of a target that is maintained", w.Over[priority.Maintain]},
		{"a day less than two", w.FewDays},
		{"a day of one slot", w.OneSlot},
		{"two slots of a day that are one idea", w.Twins},
		{"a kind of set-up that the week lacks", w.Idea},
		{"a day more than three, or unused where it is often and little", w.ManyDays},
		{"a slot", w.Slot},
		{"a slot of two sets, beside", w.Two},
		{"a slot of five sets, beside", w.Five},
		{"a set of a muscle group over seven a day", w.Crowd},
		{"a different set-up", w.SetUp},
		{"one that was never trained, beside", w.New},
		{"a point of comfort under five", w.Comfort},
		{"a minute", w.Minute},
		{"a minute between the longest and the shortest day", w.Balance},
	}
}
