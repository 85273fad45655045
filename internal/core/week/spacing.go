package week

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"musculus/internal/core/day"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
)

// This file knows when days are too near each other for hard work of a muscle group; the
// audit finds by it and what composes weeks keeps to it.

// When a day is hard for a muscle group, by its hard sets, elsewhere's of that weekday
// included.
const (
	EasySets  = 3 // more make a hard day
	DailySets = 4 // the most of a day, where a client trains often and little
	ApartDays = 2 // hard days of a group are so far apart: 48 h
)

// Days are the seven of a week, Monday first.
const Days = 7

// TooNear says whether two days of a cycle, counted from 0, are nearer than hard work of a
// group may be; the cycle comes round, so that Sunday is next to Monday.
func TooNear(i, j, cycle int) bool {
	gap := abs(i - j)
	return i != j && min(gap, cycle-gap) < ApartDays
}

// Weekday is the place of a weekday in the week, "mon" 0; −1 for none.
func Weekday(id string) int { return slices.Index(Weekdays[:], id) }

// Weekdays are the days of a week as the dossier names them.
var Weekdays = [Days]string{"mon", "tue", "wed", "thu", "fri", "sat", "sun"}

// ElsewhereSets are the hard sets of a muscle group done elsewhere, by day of the week.
func ElsewhereSets(elsewhere []person.Elsewhere, group string) (out [Days]int) {
	for _, e := range elsewhere {
		if i := Weekday(e.Weekday); i >= 0 && (e.Kind == "pull") == (group == plan.Flexors) {
			out[i] += e.Sets
		}
	}
	return out
}

// tight is what is too near: a day with its session that can move, and what it clashes
// with.
type tight struct {
	later, earlier int // sessions; earlier −1: what is done elsewhere, or the day itself
	groups         []string
	words          string // of what is not a session
}

// spacing looks for hard work of a muscle group on days that are too near.
func (a *auditor) spacing() {
	var found []tight
	put := func(later, earlier int, group, words string) {
		for i := range found {
			if found[i].later == later && found[i].earlier == earlier && found[i].words == words {
				found[i].groups = append(found[i].groups, group)
				return
			}
		}
		found = append(found, tight{later, earlier, []string{group}, words})
	}
	for _, group := range []string{plan.Flexors, plan.Extensors} {
		a.tightDays(group, put)
	}
	for _, f := range found {
		a.tell(f)
	}
}

// tightDays finds a group's days that are too near, by how the client spreads her work.
func (a *auditor) tightDays(group string, put func(later, earlier int, group, words string)) {
	if a.t.Prefer.Is(person.AxisSpread, "one_day") {
		return
	}
	aims, days := a.t.Aims, a.t.Aims.days()
	elsewhere := aims.elsewhere(group)
	ours := make([]int, days)
	last := make([]int, days) // the day's last session with work of the group
	for d := range last {
		last[d] = -1
	}
	for i := range a.week.Sessions {
		if n := a.ledger.Sessions[i].Hard(group); n > 0 {
			d := aims.place(a.week.Sessions[i].On)
			ours[d] += n
			last[d] = i
		}
	}
	total := func(d int) int { return ours[d] + elsewhere[d] }
	if a.t.Prefer.Is(person.AxisSpread, "daily") {
		for d := range ours {
			if ours[d] > 0 && total(d) > max(DailySets, elsewhere[d]) {
				put(last[d], -1, group, fmt.Sprintf("asks %d hard sets on one day, over the %d of often and little", total(d), DailySets))
			}
		}
		return
	}
	for i := range ours {
		for j := i + 1; j < days; j++ {
			if !TooNear(i, j, days) || total(i) <= EasySets || total(j) <= EasySets || elsewhere[i] > EasySets && elsewhere[j] > EasySets {
				continue
			}
			switch {
			case ours[i] > 0 && ours[j] > 0:
				put(last[j], last[i], group, "")
			case ours[j] > 0:
				put(last[j], -1, group, a.besides(i, group))
			case ours[i] > 0:
				put(last[i], -1, group, a.besides(j, group))
			}
		}
	}
}

// besides tells the work of a group done elsewhere on a day.
func (a *auditor) besides(d int, group string) string {
	what := map[string]string{plan.Flexors: "pulling", plan.Extensors: "pressing"}[group]
	return fmt.Sprintf("is a day from the %s elsewhere on %s; both are hard", what, daysWords([]string{Weekdays[a.t.Aims.weekday(d)]}))
}

// tell tells what is too near, with what puts it apart.
func (a *auditor) tell(f tight) {
	later := &a.week.Sessions[f.later]
	groups := make([]string, len(f.groups))
	for i, g := range f.groups {
		groups[i] = "elbow " + g
	}
	found := Found{Code: "spacing", Severity: Warn, Session: f.later, Slot: -1, Why: whys["spacing"]}
	only := f.groups[0]
	if len(f.groups) > 1 {
		only = ""
	}
	fewer := func() *Fix {
		return a.fewer(f.later, only, func(l *Ledger) bool { return !a.stillTight(f, l) })
	}
	if f.earlier >= 0 {
		earlier := &a.week.Sessions[f.earlier]
		found.Key = "spacing:" + earlier.ID.String() + ":" + later.ID.String()
		found.Text = fmt.Sprintf("%s and %s are a day apart and both hard for the %s.", earlier.Name, later.Name, strings.Join(groups, " and "))
		a.add(found, func() *Fix { return cmp.Or(a.move(f.later), a.move(f.earlier), fewer()) })
		return
	}
	found.Key = "spacing:" + later.ID.String() + ":" + f.words
	found.Text = fmt.Sprintf("%s %s for the %s.", later.Name, f.words, strings.Join(groups, " and "))
	if a.t.Prefer.Is(person.AxisSpread, "daily") { // another day would not make it less
		a.add(found, fewer)
		return
	}
	a.add(found, func() *Fix { return cmp.Or(a.move(f.later), fewer()) })
}

// stillTight says whether what is too near still is, counted anew.
func (a *auditor) stillTight(f tight, l *Ledger) (still bool) {
	again := auditor{week: a.week, t: a.t, ledger: l}
	for _, group := range f.groups {
		again.tightDays(group, func(later, earlier int, _, _ string) {
			still = still || later == f.later && earlier == f.earlier
		})
	}
	return still
}

// move puts a session on the nearest day on which nothing is too near.
func (a *auditor) move(j int) *Fix {
	s := &a.week.Sessions[j]
	if s.Locked {
		return nil
	}
	first := a.t.Aims.first(s.On)
	best, found := day.Day(0), false
	for d := first; d < first+day.Day(a.t.Aims.days()); d++ {
		if d < a.t.Aims.today() || !a.t.Aims.trainsOn(d) || a.crowded(j, a.t.Aims.place(d)) {
			continue
		}
		if gap := abs(int(d - s.On)); !found || gap < abs(int(best-s.On)) {
			best, found = d, true
		}
	}
	if !found {
		return nil
	}
	return a.change("Move "+s.Name+" to "+best.Weekday(), func(w *Week) bool {
		w.Sessions[j].On = best
		return true
	})
}

// crowded says whether a day has a session already, one the day before or after, or work
// elsewhere that is too near for what a session asks.
func (a *auditor) crowded(j, on int) bool {
	for k := range a.week.Sessions {
		if other := a.t.Aims.place(a.week.Sessions[k].On); k != j && (other == on || TooNear(other, on, a.t.Aims.days())) {
			return true
		}
	}
	for _, group := range []string{plan.Flexors, plan.Extensors} {
		n := a.ledger.Sessions[j].Hard(group)
		elsewhere := a.t.Aims.elsewhere(group)
		for d := range elsewhere {
			if n > 0 && n+elsewhere[on] > EasySets && TooNear(d, on, a.t.Aims.days()) && elsewhere[d] > EasySets {
				return true
			}
		}
	}
	return false
}
