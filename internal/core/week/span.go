package week

import (
	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/priority"
)

// This file knows how a span of another length than a week is counted: a rotation of n days, or
// what is left of a week beside a block. What a week is asked for and may hold is × n/7, limits
// rounded down.

// Span is a stretch of days that is counted as one.
type Span struct {
	From day.Day
	Days int
}

// WeekOf is the week of a day.
func WeekOf(on day.Day) Span { return Span{on.Monday(), Days} }

// Last is its last day.
func (s Span) Last() day.Day { return s.From + day.Day(s.Days) - 1 }

// IsWeek says whether it is a week from a Monday.
func (s Span) IsWeek() bool { return s == WeekOf(s.From) }

// Over makes the aims those of a span.
func (m *Aims) Over(s Span) {
	if m.From, m.Span = s.From, s.Days; s.IsWeek() {
		m.From, m.Span = 0, 0
	}
}

// days is how many days are counted.
func (m *Aims) days() int {
	if m == nil || m.Span == 0 {
		return Days
	}
	return m.Span
}

// place is a day's place in the span.
func (m *Aims) place(on day.Day) int {
	if m == nil || m.Span == 0 {
		return int(on - on.Monday())
	}
	return min(max(int(on-m.From), 0), m.Span-1)
}

// first is the first day of the span a day is in.
func (m *Aims) first(on day.Day) day.Day { return on - day.Day(m.place(on)) }

// share is a week's limit for the span.
func (m *Aims) share(limit int) int { return limit * m.days() / Days }

// target is what a head is asked for in the span.
func (m *Aims) target(l priority.Level) priority.Target {
	out := priority.TargetOf(l, m.FirstYear)
	if n := m.days(); n != Days {
		out.Low, out.High = out.Low*float64(n)/Days, out.High*float64(n)/Days
	}
	return out
}

// weekday is the weekday of a place in the span, Monday 0.
func (m *Aims) weekday(place int) int {
	if m == nil || m.Span == 0 {
		return place
	}
	on := m.From + day.Day(place)
	return int(on - on.Monday())
}

// elsewhere are the hard sets of a muscle group done elsewhere, by place in the span.
func (m *Aims) elsewhere(group string) []int {
	out := make([]int, m.days())
	if m == nil {
		return out
	}
	by := ElsewhereSets(m.Elsewhere, group)
	for i := range out {
		out[i] = by[m.weekday(i)]
	}
	return out
}

// times is how often what is done elsewhere falls into the span.
func (m *Aims) times(e *person.Elsewhere) (n int) {
	if m.Span == 0 || Weekday(e.Weekday) < 0 {
		return 1
	}
	for i := range m.days() {
		if m.weekday(i) == Weekday(e.Weekday) {
			n++
		}
	}
	return n
}

// MostSets is how many hard sets of one muscle group the span takes.
func (t *Trainee) MostSets() int { return t.Aims.share(MostWeekSets) }

// MostJoint is a joint's budget for the span: hard sets times the movements' score.
func (t *Trainee) MostJoint(j movement.Joint) int {
	if score := t.Scores().Worse(j); score >= 1 && score <= 3 {
		return t.Aims.share(mostSoreJoint)
	}
	return t.Aims.share(mostJoint)
}
