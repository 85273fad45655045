package week

import (
	"fmt"
	"slices"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
)

// targets holds each head against its target.
func (a *auditor) targets() {
	for h := range a.ledger.Heads {
		line := &a.ledger.Heads[h]
		head := &arm.Heads[h]
		sets := func(x float64) string { return fmt.Sprintf("%.1f", x) }
		against := fmt.Sprintf("%s effective sets against %s–%s", sets(line.Total.Mid), trim(line.Target.Low), trim(line.Target.High))
		index := arm.HeadIndex(h)
		a.distance += max(0, line.Target.Low-line.Total.Mid)
		switch {
		case line.Short():
			severity := Warn
			if line.Level == priority.Maintain {
				severity = Note
			}
			a.add(Found{Key: "under:" + head.ID, Code: "under", Severity: severity, Session: -1, Slot: -1, Why: whys["under"],
				Text: fmt.Sprintf("The week gives the %s %s (%s).", head.Name, against, line.Level)}, func() *Fix {
				return a.more(index, -1, func(l *Ledger) bool { return !l.Heads[h].Short() })
			})
		case line.Total.Mid > line.Target.High+nearTarget && line.Level != priority.Prioritise && line.Direct.Mid > 0 && !a.ridesAlong(index):
			a.distance += line.Total.Mid - line.Target.High
			a.add(Found{Key: "over:" + head.ID, Code: "over", Severity: Note, Session: -1, Slot: -1, Why: whys["over"],
				Text: fmt.Sprintf("The week gives the %s %s (%s).", head.Name, against, line.Level)}, func() *Fix {
				return a.fewerFor(index, func(l *Ledger) bool { return l.Heads[h].Total.Mid <= line.Target.High+nearTarget })
			})
		case line.Total.Low < line.Target.Low-nearTarget && line.Level != priority.Maintain:
			a.add(Found{Key: "disputed:" + head.ID, Code: "disputed", Severity: Note, Session: -1, Slot: -1, Why: whys["disputed"],
				Text: fmt.Sprintf(
					"Who counts the %s decides: %s sets by this stance, only %s by the one that counts least, under its target.",
					head.Name,
					sets(line.Total.Mid),
					sets(line.Total.Low),
				)}, func() *Fix {
				return a.more(index, -1, func(l *Ledger) bool { return l.Heads[h].Total.Low >= line.Target.Low-nearTarget })
			})
		}
	}
}

// apart writes a number with at least so many digits after the point, and with as
// many as it takes not to read like its limit.
func apart(x, limit float64, digits int) string {
	for d := digits; d < 4; d++ {
		if said := fmt.Sprintf("%.*f", d, x); said != fmt.Sprintf("%.*f", d, limit) {
			return said
		}
	}
	return fmt.Sprintf("%g", x)
}

func trim(x float64) string { return strings.TrimSuffix(fmt.Sprintf("%.1f", x), ".0") }

// ridesAlong says whether a head gets its sets only from work that is for others:
// every slot that gives it something serves a head that is aimed higher.
func (a *auditor) ridesAlong(h arm.HeadIndex) bool {
	rank := func(o int) int { return slices.Index(priority.Levels, a.ledger.Heads[o].Level) }
	for i := range a.week.Sessions {
		for j := range a.week.Sessions[i].Slots {
			heads := &a.ledger.Sessions[i].Slots[j].Heads
			if heads[h].Mid == 0 {
				continue
			}
			serves := false
			for o := range heads {
				serves = serves || rank(o) > rank(int(h)) && heads[o].Mid >= heads[h].Mid/2
			}
			if !serves {
				return false
			}
		}
	}
	return true
}

// lengths looks for prioritised heads that are not trained at length or short.
func (a *auditor) lengths() {
	for h := range a.ledger.Heads {
		line := &a.ledger.Heads[h]
		if line.Level != priority.Prioritise {
			continue
		}
		for _, z := range []int{2, 0} {
			if line.Covered(z) {
				continue
			}
			name := []string{"short", "middle", "long"}[z]
			a.add(
				Found{
					Key:      fmt.Sprintf("length:%s:%s", arm.Heads[h].ID, name),
					Code:     "length",
					Severity: Warn,
					Session:  -1,
					Slot:     -1,
					Why:      whys["length"],
					Text: fmt.Sprintf(
						"The %s gets %s effective sets at %s length, under %g.",
						arm.Heads[h].Name,
						apart(line.Zones[z], covered, 1),
						name,
						covered,
					),
				},
				func() *Fix {
					return a.more(arm.HeadIndex(h), z, func(l *Ledger) bool { return l.Heads[h].Covered(z) })
				},
			)
		}
	}
}

func abs(x int) int { return max(x, -x) }

func (m *Aims) today() day.Day {
	if m == nil {
		return 0
	}
	return m.Today
}

func (m *Aims) trainsOn(d day.Day) bool {
	return m == nil || len(m.Weekdays) == 0 || slices.Contains(m.Weekdays, strings.ToLower(d.Weekday()[:3]))
}

// groups counts hard sets of a muscle group over the week.
func (a *auditor) groups() {
	for _, group := range a.ledger.OverGroups(a.t) {
		n, most := a.ledger.Hard(group), a.t.MostSets()
		a.add(Found{Key: "group_week:" + group, Code: "group_week", Severity: Warn, Session: -1, Slot: -1, Why: whys["group_week"],
			Text: fmt.Sprintf("%d hard sets for the elbow %s in the week, over %d.", n, group, most)}, func() *Fix {
			return a.fewer(-1, group, func(l *Ledger) bool { return l.Hard(group) <= most })
		})
	}
}

// joints holds the joint load against its budget.
func (a *auditor) joints() {
	for _, j := range movement.Joints {
		most, n := a.t.MostJoint(j), a.ledger.Joints.Of(j)
		if n <= most {
			continue
		}
		a.add(Found{Key: "joint:" + string(j), Code: "joint", Severity: Warn, Session: -1, Slot: -1, Why: whys["joint"],
			Text: fmt.Sprintf("The %s carries %d of a week’s %d.", j.Words(), n, most)}, func() *Fix {
			return a.spare(j, most)
		})
	}
}

// failures looks at how many sets go to the limit.
func (a *auditor) failures() {
	hard := a.ledger.Flexors + a.ledger.Extensors
	tooMany := func(l *Ledger) bool {
		return l.Failures >= fewestFailures && float64(l.Failures) > failureShare*float64(l.Flexors+l.Extensors)
	}
	if !tooMany(a.ledger) {
		return
	}
	a.add(Found{Key: "failure", Code: "failure", Severity: Warn, Session: -1, Slot: -1, Why: whys["failure"],
		Text: fmt.Sprintf("%d of %d hard sets go to the limit, over a third.", a.ledger.Failures, hard)}, func() *Fix {
		return a.change("Leave 1 in reserve where it is most often", func(w *Week) bool {
			for range 40 {
				l := w.Count(a.t)
				if !tooMany(&l) {
					return true
				}
				var most *plan.Slot
				for i := range w.Sessions {
					for j := range w.Sessions[i].Slots {
						if s := &w.Sessions[i].Slots[j]; !locked(&w.Sessions[i], j) && s.Failures() > 0 &&
							(most == nil || s.Failures() > most.Failures()) {
							most = s
						}
					}
				}
				if most == nil {
					return false
				}
				most.KeepAtLeast(max(1, a.t.Caps.MinReserve))
			}
			return false
		})
	})
}
