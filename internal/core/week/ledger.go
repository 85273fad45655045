package week

import (
	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/priority"
)

// Planned is a session on its day.
type Planned struct {
	Ref    string // the caller's name for it, carried along
	Name   string
	On     day.Day
	Intent string // heavy, light, or ""
	Session
}

// Week is the sessions of seven days, by day.
type Week struct{ Sessions []Planned }

// Aims is what a week is counted against.
type Aims struct {
	Levels    [arm.HeadCount]priority.Level
	FirstYear bool
	Elsewhere []person.Elsewhere // pressing and pulling apart from these sessions
	Minutes   int                // of one session; 0: not said
	Weekdays  []string           // the client trains on; none: any
	Since     map[string]day.Day // by series: the day from which it has been trained all along
	Today     day.Day
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

// covered is how many effective sets make a length covered.
const covered = 2.0

// Covered says whether a length gets enough: 0 short, 1 middle, 2 long.
func (h *HeadLine) Covered(zone int) bool { return h.Zones[zone] >= covered-1e-9 }

// Ledger is what a week comes to.
type Ledger struct {
	Heads              [arm.HeadCount]HeadLine
	Flexors, Extensors int // hard sets
	Failures           int // sets to the limit or beyond it
	Joints             map[movement.Joint]int
	Sessions           []Totals
}

// What pressing and pulling elsewhere count as.
const (
	elsewherePress = "press_bench_wide"
	elsewherePull  = "row_neutral"
)

// Count counts a week for a trainee, whose aims may be nil.
func (w *Week) Count(t *Trainee) Ledger {
	out := Ledger{Joints: map[movement.Joint]int{}, Sessions: make([]Totals, len(w.Sessions))}
	aims := t.Aims
	if aims == nil {
		aims = &Aims{}
	}
	for i := range w.Sessions {
		s := &w.Sessions[i]
		c := s.Session.count(t.memo())
		out.Sessions[i] = c
		out.Flexors, out.Extensors = out.Flexors+c.Flexors, out.Extensors+c.Extensors
		for h := range c.Heads {
			out.Heads[h].Direct.add(c.Heads[h])
			for z := range c.Zones[h] {
				out.Heads[h].Zones[z] += c.Zones[h][z]
			}
		}
		for _, slot := range s.Slots {
			if slot.Dose.Reserve == 0 {
				out.Failures += slot.Dose.Sets
			}
			if slot.Dose.Hard() {
				scores := t.memo().look(slot.SetUp).joints
				for _, j := range movement.Joints {
					out.Joints[j] += slot.Dose.Sets * scores.Of(j)
				}
			}
		}
	}
	for _, e := range aims.Elsewhere {
		id := elsewherePress
		if e.Kind == "pull" {
			id = elsewherePull
		}
		slot := Slot{SetUp: movement.Shipped.Get(id).Default(), Dose: dose.Dose{Sets: e.Sets, RepsLow: 8, RepsHigh: 12, Reserve: 2}}
		c := slot.count(t.memo().look(slot.SetUp), 0)
		for h := range c.Heads {
			out.Heads[h].Elsewhere.add(c.Heads[h])
		}
	}
	for h := range out.Heads {
		line := &out.Heads[h]
		line.Total.add(line.Direct)
		line.Total.add(line.Elsewhere)
		line.Level = aims.Levels[h]
		if line.Level == "" {
			line.Level = priority.Maintain
		}
		line.Target = priority.TargetOf(line.Level, aims.FirstYear)
	}
	return out
}

func (e *Effective) add(o Effective) {
	e.Mid, e.Low, e.High = e.Mid+o.Mid, e.Low+o.Low, e.High+o.High
}
