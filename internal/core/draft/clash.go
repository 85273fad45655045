package draft

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
)

// Clash is a limit that what is locked exceeds by itself: limits only forbid more, so that
// nothing else makes a week impossible.
type Clash struct {
	Limit string // in words
	Over  int    // by so much, in what the limit counts
	Locks []int  // the fewest of what is locked that exceed it, the largest first
	Words string
}

// Clashes are the limits that what is locked exceeds, the fewest locks first.
func Clashes(p *Problem) (out []Clash) {
	add := func(limit string, most int, unit string, of func(*Locked) int, in func(*Locked) bool, besides int) {
		var all []int
		sum := besides
		for i := range p.Locked {
			if l := &p.Locked[i]; in(l) && of(l) > 0 {
				all = append(all, i)
				sum += of(l)
			}
		}
		if sum <= most || len(all) == 0 {
			return
		}
		slices.SortStableFunc(all, func(a, b int) int { return cmp.Compare(of(&p.Locked[b]), of(&p.Locked[a])) })
		n, part := 0, besides
		for n < len(all) && part <= most {
			part += of(&p.Locked[all[n]])
			n++
		}
		c := Clash{Limit: limit, Over: sum - most, Locks: all[:n]}
		names := make([]string, n)
		for i, k := range c.Locks {
			names[i] = p.Locked[k].Name
		}
		c.Words = fmt.Sprintf("What stays is over %s by %d %s: %s.", limit, c.Over, unit, strings.Join(names, "; "))
		out = append(out, c)
	}
	c := compile(p, Robust)
	for d := range p.Days {
		day, on := &p.Days[d], func(l *Locked) bool { return l.Day == d }
		over := c.seconds(&c.base, d) - day.Seconds
		if over > 0 && c.base.days[d].locked > 0 {
			rest := c.seconds(&c.base, d)
			for i := range p.Locked {
				if p.Locked[i].Day == d {
					rest -= p.Locked[i].Seconds
				}
			}
			add(fmt.Sprintf("the %d minutes of %s", day.Seconds/perMinute, day.Name), day.Seconds, "seconds",
				func(l *Locked) int { return l.Seconds }, on, max(0, rest))
		}
		add(fmt.Sprintf("the %d slots of %s", day.Slots, day.Name), day.Slots, "slots", func(*Locked) int { return 1 }, on, 0)
		for g, group := range []string{plan.Flexors, plan.Extensors} {
			add(fmt.Sprintf("the %d hard sets of the elbow %s on %s", p.GroupDay, group, day.Name), p.GroupDay, "sets",
				func(l *Locked) int { return l.Hard }, func(l *Locked) bool { return on(l) && groupIndex(l.Group) == g }, 0)
		}
	}
	for g, group := range []string{plan.Flexors, plan.Extensors} {
		is := func(l *Locked) bool { return groupIndex(l.Group) == g }
		hard := func(l *Locked) int { return l.Hard }
		add(fmt.Sprintf("the %d hard sets of the elbow %s in the week", p.GroupWeek[g], group), p.GroupWeek[g], "sets", hard, is, 0)
		c.spacingClashes(g, group, func(limit string, most int, on func(day int) bool, besides int) {
			add(limit, most, "sets", hard, func(l *Locked) bool { return is(l) && on(p.Days[l.Day].On) }, besides)
		})
	}
	for j, joint := range movement.Joints {
		add(fmt.Sprintf("the %d that the %s bears in a week", p.Joints[j], joint.Words()), p.Joints[j], "of load",
			func(l *Locked) int { return l.Joints[j] }, func(*Locked) bool { return true }, 0)
	}
	for i := range p.Candidates {
		like := func(l *Locked) bool { return l.Like == i }
		add(fmt.Sprintf("the %d sets a week of one set-up", mostOfOne), mostOfOne, "sets", func(l *Locked) int { return l.Sets }, like, 0)
		add(fmt.Sprintf("the %d days of one set-up", mostDays), mostDays, "days", func(*Locked) int { return 1 }, like, 0)
	}
	slices.SortStableFunc(out, func(a, b Clash) int { return cmp.Compare(len(a.Locks), len(b.Locks)) })
	return out
}

// spacingClashes asks for each day of the cycle that must stay easy.
func (c *compiled) spacingClashes(g int, group string, ask func(limit string, most int, on func(int) bool, besides int)) {
	for on := range c.p.Cycle {
		is := func(o int) bool { return o == on }
		elsewhere := c.elsewhere[g][on]
		switch c.p.Spread {
		case "daily":
			ask(fmt.Sprintf("the %d hard sets of the elbow %s a day of often and little", dailySets, group), max(elsewhere, dailySets), is,
				elsewhere)
		case "days":
			for _, o := range c.near[on] {
				there := c.elsewhere[g][o]
				if c.base.at[o][g]+there > easySets && !(elsewhere > easySets && there > easySets) && (o < on || there > easySets) {
					ask(fmt.Sprintf("the %d hard sets of the elbow %s next to a hard day", easySets, group), max(elsewhere, easySets), is,
						elsewhere)
					break
				}
			}
		}
	}
}

// Empty says why no week can be composed at all, "" if one can.
func Empty(p *Problem) string {
	open, long := 0, 0
	for d := range p.Days {
		if p.Days[d].Closed {
			continue
		}
		open++
		for i := range p.Candidates {
			k := &p.Candidates[i]
			if p.Days[d].WarmUpS+k.RampS+p.Days[d].LockedS+slotS+fewestSets*k.SetS <= p.Days[d].Seconds {
				long++
				break
			}
		}
	}
	switch {
	case len(p.Days) == 0:
		return "There is no day to train on: choose the days in the Dossier."
	case open == 0:
		return "No day of this week is left to draft for: what there is lies in the past, or stays as it is."
	case len(p.Candidates) == 0:
		return "There is nothing the client may do in this room as it is: look at joints, caps and the room."
	case long == 0:
		return fmt.Sprintf("%d minutes are under a warm-up and two sets.", p.Days[0].Seconds/perMinute)
	}
	return ""
}
