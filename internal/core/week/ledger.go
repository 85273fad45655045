package week

import (
	"slices"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
)

// Week is the sessions of a span of days, seven unless its aims say otherwise, by day.
type Week struct{ Sessions []plan.Planned }

// Aims is what a week is counted against.
type Aims struct {
	Levels    [arm.HeadCount]priority.Level
	FirstYear bool
	Elsewhere []person.Elsewhere // pressing and pulling apart from these sessions
	Minutes   int                // of one session; 0: not said
	Weekdays  []string           // the client trains on; none: any
	Since     map[string]day.Day // by series: the day from which it has been trained all along
	Before    *Week              // the week before this one; nil: nothing was planned in it
	Today     day.Day
	From      day.Day // the first day of the span that is counted
	Span      int     // its days; 0: the seven from a Monday
}

// HeadLine is what one head gets in a week.
type HeadLine struct {
	Direct    Effective
	Elsewhere Effective
	Total     Effective
	Zones     [3]float64 // short, middle, long; graded work is not split
	Level     priority.Level
	Target    priority.Target
}

// nearTarget is how far from a target counts as meeting it, effective sets: less
// than what is shown.
const nearTarget = 0.05

// Short says whether a head gets less than its target.
func (h *HeadLine) Short() bool { return h.Total.Mid < h.Target.Low-nearTarget }

// covered is how many effective sets make a length covered.
const covered = 2.0

// Covered says whether a length gets enough: 0 short, 1 middle, 2 long.
func (h *HeadLine) Covered(zone int) bool { return h.Zones[zone] >= covered-1e-9 }

// Ledger is what a week comes to.
type Ledger struct {
	Heads              [arm.HeadCount]HeadLine
	Flexors, Extensors int // hard sets
	Failures           int // sets to the limit or beyond it
	Joints             JointLoad
	Sessions           []Totals
}

// Hard is the hard sets of a muscle group.
func (l *Ledger) Hard(group string) int {
	if group == plan.Flexors {
		return l.Flexors
	}
	return l.Extensors
}

// OverGroups lists the muscle groups with more hard sets than the span takes.
func (l *Ledger) OverGroups(t *Trainee) []string {
	out := []string{}
	for _, group := range []string{plan.Flexors, plan.Extensors} {
		if l.Hard(group) > t.MostSets() {
			out = append(out, group)
		}
	}
	return out
}

// What pressing and pulling elsewhere count as.
const (
	elsewherePress = "press_bench_wide"
	elsewherePull  = "row_neutral"
)

// Count counts a week for a trainee, whose aims may be nil.
func (w *Week) Count(t *Trainee) Ledger {
	sessions := make([]Totals, len(w.Sessions))
	for i := range w.Sessions {
		sessions[i] = t.Count(&w.Sessions[i].Session)
	}
	elsewhere := t.ElsewhereGives()
	return t.sum(sessions, &elsewhere)
}

// Elsewhere is what pulling or pressing that is done elsewhere counts as.
func Elsewhere(pull bool) movement.SetUp {
	if pull {
		return movement.Shipped.Get(elsewherePull).Default()
	}
	return movement.Shipped.Get(elsewherePress).Default()
}

// elsewhereSlot is what work done apart from the sessions counts as.
func elsewhereSlot(e person.Elsewhere) plan.Slot {
	return plan.Of(Elsewhere(e.Kind == "pull"), dose.Dose{Sets: e.Sets, RepsLow: 8, RepsHigh: 12, Reserve: 2})
}

// recount is the ledger after one session of the week has changed: one slot of it,
// or with −1 all.
func (l *Ledger) recount(t *Trainee, w *Week, session, slot int) Ledger {
	sessions := slices.Clone(l.Sessions)
	var known []SlotCount
	if slot >= 0 && len(w.Sessions[session].Slots) == len(sessions[session].Slots) {
		known = l.Sessions[session].Slots
	}
	sessions[session] = t.memo().count(&w.Sessions[session].Session, known, slot, t.changeS(&w.Sessions[session].Session))
	var elsewhere [arm.HeadCount]Effective
	for h := range elsewhere {
		elsewhere[h] = l.Heads[h].Elsewhere
	}
	return t.sum(sessions, &elsewhere)
}

// sum adds counted sessions and what is done elsewhere up to a ledger.
func (t *Trainee) sum(sessions []Totals, elsewhere *[arm.HeadCount]Effective) Ledger {
	aims := t.Aims
	if aims == nil {
		aims = &Aims{}
	}
	out := Ledger{Sessions: sessions}
	for i := range sessions {
		c := &sessions[i]
		out.Flexors, out.Extensors, out.Failures = out.Flexors+c.Flexors, out.Extensors+c.Extensors, out.Failures+c.Failures
		for k, n := range c.Joints {
			out.Joints[k] += n
		}
		for h := range c.Heads {
			out.Heads[h].Direct.add(&c.Heads[h])
			for z := range c.Zones[h] {
				out.Heads[h].Zones[z] += c.Zones[h][z]
			}
		}
	}
	for h := range out.Heads {
		line := &out.Heads[h]
		line.Elsewhere = elsewhere[h]
		line.Total.add(&line.Direct)
		line.Total.add(&line.Elsewhere)
		line.Level = aims.Levels[h]
		if line.Level == "" {
			line.Level = priority.Maintain
		}
		line.Target = aims.target(line.Level)
	}
	return out
}
