package week

import (
	"fmt"
	"math"

	"musculus/internal/core/person"
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
func (t *Trainee) FitOf(s *Slot) series.Fitted {
	set := s.SetUpOf(0)
	own := t.Own[set.Key()]
	return series.DoesFit(set, t.Room, t.Yardstick.Body().BodyMass, own.E1RM, own.Logged, s.Dose.RepsLow, s.Dose.RepsHigh, s.Dose.ReserveOf(0))
}

// loads holds each slot's load against what its own series says.
func (a *auditor) loads(i int) {
	if a.t.Aims == nil {
		return
	}
	s := &a.week.Sessions[i]
	for j := range s.Slots {
		slot := &s.Slots[j]
		own := a.t.Own[slot.SetUpOf(0).Key()]
		if !(own.E1RM > 0) || slot.Dose.RepsLow >= lightLoadLow {
			continue
		}
		found := Found{Key: "load:" + s.Ref + ":" + slot.Ref, Code: "load", Severity: Warn, Session: i, Slot: j, Why: whys["load"]}
		var fix func() *Fix
		switch fit := a.t.FitOf(slot); fit.Fit {
		case series.TooLight:
			found.Text = fmt.Sprintf("%s, slot %d: %s", s.Name, j+1, fit.Words)
			fix = func() *Fix { return a.lightLoad(i, j) }
		case series.TooHeavy:
			found.Text = fmt.Sprintf("%s, slot %d: %s", s.Name, j+1, fit.Words)
			fix = func() *Fix { return a.fewerReps(i, j, own.E1RM) }
		case series.Fits:
			reps, known := a.repsAt(slot, own.E1RM)
			if !known || reps > slot.Dose.RepsLow-farOff && reps < slot.Dose.RepsHigh+farOff {
				continue
			}
			carry, rigging := person.CarryOf(slot.SetUp), a.t.Room.Rigging(a.t.Yardstick.Body().BodyMass)
			hand := carry.PerHand(fit.Whole, rigging)
			if math.Abs(hand-*slot.Dose.LoadKg) < 1e-6 {
				continue // the room has no better one
			}
			if v := a.t.Fence.JudgeAdded(slot.SetUp, fit.Whole); carry == person.BodyWeight && v.Ruling != person.Allowed {
				continue // what its series allows is not earned yet
			}
			left := ""
			if slot.Dose.ReserveOf(0) > 0 {
				left = fmt.Sprintf(" with %d left", slot.Dose.ReserveOf(0))
			}
			found.Severity = Note
			found.Text = fmt.Sprintf("%s, slot %d: %s gives about %d reps%s by its own series, against %d–%d.", s.Name, j+1, carry.Words(carry.Whole(*slot.Dose.LoadKg, rigging), slot.SetUp), reps, left, slot.Dose.RepsLow, slot.Dose.RepsHigh)
			fix = func() *Fix {
				return a.change("Take "+carry.Words(fit.Whole, slot.SetUp), func(w *Week) bool {
					w.Sessions[i].Slots[j].Dose.LoadKg = &hand
					return true
				})
			}
		default:
			continue
		}
		a.add(found, fix)
	}
}

// repsAt is how many reps a slot's load gives with its reserve, by the maximum of
// its series; false where the load is not known, 0 where it is over everything.
func (a *auditor) repsAt(s *Slot, e1rm float64) (int, bool) {
	if s.Dose.LoadKg == nil {
		return 0, false
	}
	reps := 0
	for n := 1; n+s.Dose.ReserveOf(0) <= series.MostReps; n++ {
		if most, ok := series.LoadFor(e1rm, n, s.Dose.ReserveOf(0)); ok && most >= *s.Dose.LoadKg-1e-9 {
			reps = n
		}
	}
	// At the end of what an estimate holds for there may be more.
	return reps, reps+s.Dose.ReserveOf(0) < series.MostReps || reps >= s.Dose.RepsHigh+farOff
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
	return a.change(fmt.Sprintf("Take %d–%d reps %s, short rests", lightLoadLow, lightLoadHigh, effort), func(w *Week) bool {
		d := &w.Sessions[i].Slots[j].Dose
		d.RepsLow, d.RepsHigh, d.Reserve, d.Reserves, d.RestS = lightLoadLow, lightLoadHigh, reserve, nil, max(lightLoadRestS, a.t.Caps.MinRestS)
		steps := a.t.Room.Steps(slot.SetUp)
		hand := person.CarryOf(slot.SetUp).PerHand(steps[len(steps)-1], a.t.Room.Rigging(a.t.Yardstick.Body().BodyMass))
		d.LoadKg = &hand
		return true
	})
}

// fewerReps takes the lightest load there is for as many reps as it gives, or
// another set-up where they are too few.
func (a *auditor) fewerReps(i, j int, e1rm float64) *Fix {
	slot := &a.week.Sessions[i].Slots[j]
	steps := a.t.Room.Steps(slot.SetUp)
	hand := person.CarryOf(slot.SetUp).PerHand(steps[0], a.t.Room.Rigging(a.t.Yardstick.Body().BodyMass))
	lightest := *slot
	lightest.Dose.LoadKg = &hand
	if reps, _ := a.repsAt(&lightest, e1rm); reps >= fewestReps {
		return a.change(fmt.Sprintf("Take %d–%d reps with the lightest there is", reps, reps+1), func(w *Week) bool {
			d := &w.Sessions[i].Slots[j].Dose
			d.RepsLow, d.RepsHigh, d.LoadKg = reps, reps+1, &hand
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
