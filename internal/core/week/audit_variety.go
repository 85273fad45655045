package week

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/plan"
	"musculus/internal/core/stance"
)

// This file looks at how varied a week is, and whether its days are the client's.

// When a group's week is told to be monotonous.
const (
	mostOfGroup   = 2.0 / 3 // of a group's hard sets on one movement
	leastForShare = 6       // hard sets of the group from which that is told
	leastForPart  = 3       // slots of the group from which one part of the range is told
)

// variety finds a group's week that is one movement, or hard in one part of the range.
func (a *auditor) variety() {
	for _, group := range []string{plan.Flexors, plan.Extensors} {
		a.oneMovement(group)
		a.onePart(group)
	}
}

// carried is the movement that carries most of a group's hard sets, how many of how
// many, and the slot of it with most.
func (w *Week) carried(group string) (n, all int, at [2]int) {
	sets, slot := map[string]int{}, map[string][2]int{}
	for i := range w.Sessions {
		for j := range w.Sessions[i].Slots {
			s := &w.Sessions[i].Slots[j]
			if plan.GroupOf(s.SetUp) != group {
				continue
			}
			id := s.SetUp.Movement.ID
			sets[id] += s.HardSets()
			all += s.HardSets()
			if was, ok := slot[id]; !ok || s.HardSets() > w.Sessions[was[0]].Slots[was[1]].HardSets() {
				slot[id] = [2]int{i, j}
			}
		}
	}
	for id, x := range sets {
		if x > n || x == n && slot[id][0] < at[0] {
			n, at = x, slot[id]
		}
	}
	return n, all, at
}

// overShare says whether so many of a group's sets are too many for one movement.
func overShare(n, all int) bool { return all >= leastForShare && float64(n) > mostOfGroup*float64(all) }

// OneMovement is the movement that carries too much of a muscle group, "" for none.
func (w *Week) OneMovement(group string) string {
	n, all, at := w.carried(group)
	if !overShare(n, all) {
		return ""
	}
	return w.Sessions[at[0]].Slots[at[1]].SetUp.Movement.ID
}

// OnePart is the part of the range that every slot of a muscle group is hardest in, with the
// last of them; "" where they differ or are few.
func (w *Week) OnePart(t *Trainee, group string) (part string, at [2]int) {
	slots := 0
	for i := range w.Sessions {
		for j := range w.Sessions[i].Slots {
			s := &w.Sessions[i].Slots[j]
			p := t.Profile(s.SetUp)
			if plan.GroupOf(s.SetUp) != group || p == nil {
				continue
			}
			is := stance.HardestPart(p)
			if slots > 0 && is != part {
				return "", at
			}
			part, at = is, [2]int{i, j}
			slots++
		}
	}
	if slots < leastForPart {
		return "", at
	}
	return part, at
}

// oneMovement finds one movement that carries nearly all of a group.
func (a *auditor) oneMovement(group string) {
	n, all, at := a.week.carried(group)
	if !overShare(n, all) {
		return
	}
	name := names(a.week.Sessions[at[0]].Slots[at[1]].SetUp)
	a.add(Found{Key: "one_movement:" + group, Code: "one_movement", Severity: Note, Session: at[0], Slot: at[1], Why: whys["one_movement"],
		Text: fmt.Sprintf("%d of the week’s %d hard sets for the elbow %s are one movement: %s.", n, all, group, name)}, func() *Fix {
		return a.spread(at[0], at[1], n, all)
	})
}

// spread gives as many of a slot's sets to the nearest other movement as it takes.
func (a *auditor) spread(i, j, n, all int) *Fix {
	s := &a.week.Sessions[i].Slots[j]
	of := a.t.memo().look(s.SetUp).shape
	give := int(math.Ceil(float64(n) - mostOfGroup*float64(all)))
	if of == nil || give >= s.HardSets() || s.Combo != "" || len(a.week.Sessions[i].Slots) >= plan.MostSlots {
		return nil
	}
	found := a.nearest(of, func(_ *effort.Profile, it *item) bool {
		return it.shape.SetUp.Movement != s.SetUp.Movement && plan.GroupOf(it.shape.SetUp) == plan.GroupOf(s.SetUp) &&
			fitting.Distance(of, &it.shape) >= fitting.SameIdea // the same idea twice would be no change
	})
	if found == nil {
		return nil
	}
	to := found.shape.SetUp
	return a.change(fmt.Sprintf("Give %d of its sets to %s", give, names(to)), func(w *Week) bool {
		session := &w.Sessions[i]
		slot := &session.Slots[j]
		other := plan.Of(to, slot.First().Dose)
		other.Rows[0].Sets, other.Rows[0].Method, other.Rows[0].Load = give, dose.Use{}, dose.ToFind()
		slot.AtMost(slot.Sets() - give)
		session.Slots = slices.Insert(session.Slots, j+1, other)
		a.t.clamp(&session.Session, j+1)
		left, of, _ := w.carried(plan.GroupOf(to))
		return len(a.t.checkSlot(&session.Session, j+1)) == 0 && float64(left) <= mostOfGroup*float64(of)
	})
}

// onePart finds a group that is hardest in the same third of the range in every slot.
func (a *auditor) onePart(group string) {
	part, at := a.week.OnePart(a.t, group)
	if part == "" {
		return
	}
	where := map[string]string{"long": "at the stretched end", "middle": "in the middle of the range", "short": "at the shortened end"}[part]
	a.add(Found{Key: "one_part:" + group, Code: "one_part", Severity: Note, Session: at[0], Slot: at[1], Why: whys["one_part"],
		Text: fmt.Sprintf("Everything for the elbow %s is hardest %s.", group, where)}, func() *Fix {
		return a.elsewhere(at[0], at[1], part)
	})
}

// elsewhere takes the nearest set-up that is hard in another part of the range.
func (a *auditor) elsewhere(i, j int, part string) *Fix {
	s := &a.week.Sessions[i].Slots[j]
	of := a.t.memo().look(s.SetUp).shape
	if of == nil {
		return nil
	}
	found := a.nearest(of, func(p *effort.Profile, it *item) bool {
		return p != nil && stance.HardestPart(p) != part && plan.GroupOf(it.shape.SetUp) == plan.GroupOf(s.SetUp)
	})
	if found == nil {
		return nil
	}
	to := found.shape.SetUp
	return a.change("Use "+names(to)+" instead", func(w *Week) bool {
		a.t.TakeUp(&w.Sessions[i].Session, j, to)
		return true
	})
}

// weekdays finds sessions on days the client does not have.
func (a *auditor) weekdays() {
	if a.t.Aims == nil || len(a.t.Aims.Weekdays) == 0 {
		return
	}
	for i := range a.week.Sessions {
		s := &a.week.Sessions[i]
		if a.t.Aims.trainsOn(s.On) {
			continue
		}
		a.add(Found{Key: "weekday:" + s.ID.String(), Code: "weekday", Severity: Note, Session: i, Slot: -1, Why: whys["weekday"],
			Text: fmt.Sprintf("%s is on a %s; this client’s days are %s.", s.Name, s.On.Weekday(), daysWords(a.t.Aims.Weekdays))}, func() *Fix {
			return a.move(i)
		})
	}
}

func daysWords(days []string) string {
	full := map[string]string{"mon": "Monday", "tue": "Tuesday", "wed": "Wednesday", "thu": "Thursday", "fri": "Friday", "sat": "Saturday",
		"sun": "Sunday"}
	out := make([]string, len(days))
	for i, d := range days {
		out[i] = full[d]
	}
	return strings.Join(out, ", ")
}
