package week

import (
	"fmt"
	"math"

	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
)

// Light-load work: what a load that is too light for its band is used for.
const (
	lightLoadLow   = 20
	lightLoadHigh  = 35
	lightLoadRestS = 60
	fewestReps     = 5 // below, a load is too heavy for growth work
	farOff         = 2 // reps from the band at which a load is told to be off
)

// FitOf says whether the room's loads suit a slot, from its own series.
func (t *Trainee) FitOf(s *plan.Slot) series.Fitted {
	set, first := s.SetUpIn(0), s.First()
	own := t.Own[set.Key()]
	return series.DoesFit(
		set,
		t.Room,
		t.Yardstick.Body().BodyMass,
		own.E1RM,
		own.Logged,
		first.RepsLow,
		first.RepsHigh,
		first.Reserve,
	)
}

// onlyTooHeavy questions the one load a room has for a first-year client of whom nothing is known,
// where the model asks for less; "" where there is nothing to question.
func (t *Trainee) onlyTooHeavy(s *plan.Slot) string {
	if t.Aims == nil || !t.Aims.FirstYear {
		return ""
	}
	return t.overModel(s)
}

// overModel questions the one load a room has for a set-up where the model asks for less; ""
// where there is nothing to question.
func (t *Trainee) overModel(s *plan.Slot) string {
	set := s.SetUpIn(0)
	p := t.Profile(set)
	if p == nil || t.Room == nil || person.CarryOf(set) == person.BodyWeight {
		return ""
	}
	rack := t.Floor().Rack(set)
	hand, ok := rack.Only()
	if l := s.Asked(0); !ok || l != nil && !l.Find {
		return ""
	}
	model := p.Working / arm.Gravity
	if hand <= model {
		return ""
	}
	return fmt.Sprintf(
		"%s is the one load there is; by the model %s is what an average adult works with here. Ask how many clean reps it gives.",
		rack.Words(
			rack.Carry.Whole(hand, rack.Rigging),
		),
		rack.Carry.Words(math.Round(rack.Carry.Whole(model, rack.Rigging)), set),
	)
}

// loads holds each slot's load against what its own series says.
func (a *auditor) loads(i int) {
	if a.t.Aims == nil {
		return
	}
	s := &a.week.Sessions[i]
	for j := range s.Slots {
		slot := &s.Slots[j]
		own, first := a.t.Own[slot.SetUpIn(0).Key()], slot.First()
		if text := a.t.onlyTooHeavy(slot); text != "" && own.Logged == 0 {
			a.add(Found{
				Key:      "load:" + s.ID.String() + ":" + slot.ID.String(),
				Code:     "load",
				Severity: Note,
				Session:  i,
				Slot:     j,
				Why:      whys["load"],
				Text:     fmt.Sprintf("%s, slot %d: %s", s.Name, j+1, text),
			}, func() *Fix { return nil }) // only the client can say
		}
		if !(own.E1RM > 0) || first.RepsLow >= lightLoadLow || first.IsHold() {
			continue
		}
		found := Found{
			Key:      "load:" + s.ID.String() + ":" + slot.ID.String(),
			Code:     "load",
			Severity: Warn,
			Session:  i,
			Slot:     j,
			Why:      whys["load"],
		}
		var fix func() *Fix
		switch fit := a.t.FitOf(slot); fit.Fit {
		case series.TooLight:
			found.Text = fmt.Sprintf("%s, slot %d: %s", s.Name, j+1, fit.Words)
			fix = func() *Fix { return a.lightLoad(i, j) }
		case series.TooHeavy:
			found.Text = fmt.Sprintf("%s, slot %d: %s", s.Name, j+1, fit.Words)
			fix = func() *Fix { return a.fewerReps(i, j, own.E1RM) }
		case series.Fits:
			reps, known := a.repsAt(&s.Session, j, own.E1RM)
			if !known || reps > first.RepsLow-farOff && reps < first.RepsHigh+farOff {
				continue
			}
			carry, rigging := person.CarryOf(slot.SetUp), a.t.Room.Rigging(a.t.Yardstick.Body().BodyMass)
			hand := carry.PerHand(fit.Whole, rigging)
			if was := s.Hand(j, 0, a.t.Floor()); math.Abs(hand-*was) < 1e-6 {
				continue // the room has no better one
			}
			if v := a.t.Fence.JudgeAdded(slot.SetUp, fit.Whole); carry == person.BodyWeight && v.Ruling != person.Allowed {
				continue // what its series allows is not earned yet
			}
			left := ""
			if first.Reserve > 0 {
				left = fmt.Sprintf(" with %d left", first.Reserve)
			}
			found.Severity = Note
			found.Text = fmt.Sprintf(
				"%s, slot %d: %s gives about %d reps%s by its own series, against %d–%d.",
				s.Name,
				j+1,
				a.t.Room.Words(carry.Whole(*s.Hand(j, 0, a.t.Floor()), rigging), slot.SetUp),
				reps,
				left,
				first.RepsLow,
				first.RepsHigh,
			)
			fix = func() *Fix {
				return a.change("Use "+a.t.Room.Words(fit.Whole, slot.SetUp), func(w *Week) bool {
					w.Sessions[i].Slots[j].Take(dose.Carried(a.t.Floor().Rack(slot.SetUp), hand))
					return true
				})
			}
		default:
			continue
		}
		a.add(found, fix)
	}
}

// repsAt is how many reps a slot's first row gives with its reserve at its load, by
// the maximum of its series; false where the load is not known, 0 where it is over
// everything.
func (a *auditor) repsAt(s *plan.Session, j int, e1rm float64) (int, bool) {
	hand := s.Hand(j, 0, a.t.Floor())
	if hand == nil {
		return 0, false
	}
	return repsWith(*hand, e1rm, s.Slots[j].First())
}

func repsWith(hand, e1rm float64, r *plan.Row) (int, bool) {
	reps := 0
	for n := 1; n+r.Reserve <= series.MostReps; n++ {
		if most, ok := series.LoadFor(e1rm, n, r.Reserve); ok && most >= hand-1e-9 {
			reps = n
		}
	}
	// At the end of what an estimate holds for there may be more.
	return reps, reps+r.Reserve < series.MostReps || reps >= r.RepsHigh+farOff
}

// lightLoad takes the heaviest load there is for many reps near the limit.
func (a *auditor) lightLoad(i, j int) *Fix {
	slot := &a.week.Sessions[i].Slots[j]
	reserve := a.t.Caps.MinReserve
	if !a.t.Room.CanFailAlone(slot.SetUp) {
		reserve = max(reserve, 1)
	}
	effort := "to the limit"
	if reserve > 0 {
		effort = fmt.Sprintf("with %d left", reserve)
	}
	return a.change(fmt.Sprintf("Use %d–%d reps %s, short rests", lightLoadLow, lightLoadHigh, effort), func(w *Week) bool {
		to := &w.Sessions[i].Slots[j]
		to.Each(func(r *plan.Row) {
			r.RepsLow, r.RepsHigh, r.Reserve, r.RestS = lightLoadLow, lightLoadHigh, reserve, max(
				lightLoadRestS,
				a.t.Caps.MinRestS,
			)
		})
		rack := a.t.Floor().Rack(slot.SetUp)
		to.Take(dose.Carried(rack, rack.Carry.PerHand(rack.Steps[len(rack.Steps)-1], rack.Rigging)))
		return true
	})
}

// fewerReps takes the lightest load there is for as many reps as it gives, or
// another set-up where they are too few.
func (a *auditor) fewerReps(i, j int, e1rm float64) *Fix {
	slot := &a.week.Sessions[i].Slots[j]
	rack := a.t.Floor().Rack(slot.SetUp)
	hand := rack.Carry.PerHand(rack.Steps[0], rack.Rigging)
	if reps, _ := repsWith(hand, e1rm, slot.First()); reps >= fewestReps {
		return a.change(fmt.Sprintf("Use %d–%d reps with the lightest there is", reps, reps+1), func(w *Week) bool {
			to := &w.Sessions[i].Slots[j]
			to.Each(func(r *plan.Row) { r.RepsLow, r.RepsHigh = reps, reps+1 })
			to.Take(dose.Carried(rack, hand))
			return true
		})
	}
	fix := a.rotate(i, j)
	if fix == nil {
		return nil
	}
	if fit := a.t.FitOf(&fix.Week.Sessions[i].Slots[j]).Fit; fit != series.Fits && fit != series.NotKnown {
		return nil // the room has no load for the nearest one either
	}
	return fix
}
