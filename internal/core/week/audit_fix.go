package week

import (
	"fmt"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/priority"
	"slices"
	"strings"
)

// fixOf is the action for a session's own finding.
func (a *auditor) fixOf(i int, f Finding) *Fix {
	s := &a.week.Sessions[i]
	switch f.Code {
	case "equipment", "refused", "avoid":
		slot := s.Slots[f.Slot]
		if f.Code == "avoid" {
			if fix := a.follow(i, f.Slot); fix != nil {
				return fix
			}
		}
		to, ok := a.instead(slot.SetUp)
		if !ok {
			return a.change("Take it out", func(w *Week) bool { return w.takeOut(i, f.Slot) })
		}
		return a.change("Take "+names(to)+" instead", func(w *Week) bool {
			slot := &w.Sessions[i].Slots[f.Slot]
			slot.take(to, a.t)
			return true
		})
	case "modify":
		return a.follow(i, f.Slot)
	case "dose":
		return a.change("Set it as the caps and the room allow", func(w *Week) bool {
			slot := &w.Sessions[i].Slots[f.Slot]
			slot.clamp(a.t)
			return len(slot.check(a.t)) == 0
		})
	case "apart":
		return a.takeApart(i, f.Slot)
	case "minutes":
		return a.fewer(i, "", func(l *Ledger) bool { return l.Sessions[i].Minutes <= float64(a.t.Aims.Minutes)+0.5 })
	case "group_session":
		return a.fewer(i, f.Group, func(l *Ledger) bool { return l.Sessions[i].Hard(f.Group) <= mostGroupSets })
	}
	return nil
}

// follow turns a slot to what its verdict asks for.
func (a *auditor) follow(i, j int) *Fix {
	s := &a.week.Sessions[i]
	v := a.t.Fence.Judge(s.Slots[j].SetUp, a.ledger.Sessions[i].Slots[j].Profile)
	for k := range v.Reasons {
		to, ok := v.Reasons[k].Follow(s.Slots[j].SetUp)
		if !ok || to.Key() == s.Slots[j].SetUp.Key() {
			continue
		}
		k := a.t.memo().look(to)
		if after := a.t.Fence.Judge(to, k.profile); k.refused != "" || after.Ruling == person.Avoid || v.Ruling == person.Modify && after.Ruling != person.Allowed || len(a.t.Room.Missing(to)) > 0 {
			continue
		}
		return a.change("Turn it: "+to.Details(), func(w *Week) bool {
			slot := &w.Sessions[i].Slots[j]
			slot.SetUp, slot.Grips = to, nil
			return true
		})
	}
	return nil
}

// take puts another set-up into a slot; what was found for the old one goes.
func (s *Slot) take(to movement.SetUp, t *Trainee) {
	s.SetUp, s.Grips, s.Dose.LoadKg, s.Cues = to, nil, nil, nil
	s.clamp(t)
}

// clamp brings a dose within caps, room and method.
func (s *Slot) clamp(t *Trainee) {
	for range 2 { // the method first, then what it leaves
		for _, e := range s.check(t) {
			switch e.Field {
			case "method":
				s.Dose.Method.ID, s.Dose.Method.N = "", 0
			case "sets":
				s.Dose.Sets = max(1, s.Dose.Sets)
				if t.Caps.MostSets > 0 {
					s.Dose.Sets = min(s.Dose.Sets, t.Caps.MostSets)
				}
			case "reserve":
				s.Dose.KeepAtLeast(max(t.Caps.MinReserve, 1))
				s.Dose.Reserves = s.Dose.Reserves[:min(len(s.Dose.Reserves), s.Dose.Sets)]
			case "rest_s":
				s.Dose.RestS = max(s.Dose.RestS, t.Caps.MinRestS)
			case "load_kg":
				carry, rigging := person.CarryOf(s.SetUp), t.Room.Rigging(t.Yardstick.Body().BodyMass)
				down, ok := person.RoundDown(t.Room.Steps(s.SetUp), carry.Whole(*s.Dose.LoadKg, rigging))
				if s.Dose.LoadKg = nil; ok {
					hand := carry.PerHand(down, rigging)
					s.Dose.LoadKg = &hand
				}
			case "cues":
				s.Cues = nil
			}
			if strings.HasPrefix(e.Field, "grips") {
				s.Grips = nil
			}
		}
	}
}

// oneLess takes one set from a slot, and the slot out with its last.
func (w *Week) oneLess(i, j int) {
	slot := &w.Sessions[i].Slots[j]
	if slot.Dose.Sets > 1 {
		slot.Dose.OneLess()
		slot.Grips = slot.Grips[:min(len(slot.Grips), slot.Dose.Sets)]
		return
	}
	w.takeOut(i, j)
}

func (w *Week) takeOut(i, j int) bool {
	w.Sessions[i].Slots = slices.Delete(w.Sessions[i].Slots, j, j+1)
	return true
}

// fewer takes sets away, one by one, from what is least aimed at, until done
// says so; i is a session or −1, group a muscle group or "".
func (a *auditor) fewer(i int, group string, done func(*Ledger) bool) *Fix {
	next := a.week.clone()
	var taken []string
	l := *a.ledger
	for range mostFixSteps {
		si, j := a.leastWanted(&next, &l, i, group)
		if j < 0 {
			return nil
		}
		taken = append(taken, names(next.Sessions[si].Slots[j].SetUp))
		next.oneLess(si, j)
		if l = l.recount(a.t, &next, si); done(&l) {
			return &Fix{fewerWords(taken), next}
		}
	}
	return nil
}

// fewerWords tells what was taken: "2 sets less of …".
func fewerWords(taken []string) string {
	n := map[string]int{}
	var order []string
	for _, t := range taken {
		if n[t]++; n[t] == 1 {
			order = append(order, t)
		}
	}
	for i, t := range order {
		sets := "1 set"
		if n[t] > 1 {
			sets = fmt.Sprintf("%d sets", n[t])
		}
		order[i] = fmt.Sprintf("%s less of %s", sets, t)
	}
	return strings.Join(order, ", ")
}

// leastWanted is the slot whose set is missed least: of the greatest surplus
// over target, the most sets first.
func (a *auditor) leastWanted(w *Week, l *Ledger, only int, group string) (session, slot int) {
	session, slot = -1, -1
	best := 0.0
	for i := range w.Sessions {
		if only >= 0 && i != only {
			continue
		}
		for j := range w.Sessions[i].Slots {
			s := &w.Sessions[i].Slots[j]
			if w.Sessions[i].locked(j) || group != "" && group != GroupOf(s.SetUp) {
				continue
			}
			// What it gives to heads that have enough, less what it gives to others.
			x := 0.01 * float64(s.Dose.Sets)
			for h, e := range l.Sessions[i].Slots[j].Heads {
				per := e.Mid / float64(s.Dose.Sets)
				line := &l.Heads[h]
				switch {
				case line.Total.Mid-per >= line.Target.Low:
					x += per
				case line.Level == priority.Prioritise:
					x -= 3 * per
				default:
					x -= per
				}
			}
			if slot < 0 || x > best {
				session, slot, best = i, j, x
			}
		}
	}
	return session, slot
}
