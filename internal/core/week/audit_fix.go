package week

import (
	"slices"
	"strings"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
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
	case "ladder", "top_range":
		return a.soften(i, f.Slot)
	case "combo":
		return a.takeApart(i, f.Slot)
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
		return a.fewer(i, "", func(l *Ledger) bool { return !l.Sessions[i].Over(a.t.Aims.Minutes) })
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
			case "tempo":
				if most := t.Caps.MostHoldS; most > 0 {
					s.Dose.Tempo[1], s.Dose.Tempo[3] = min(s.Dose.Tempo[1], most), min(s.Dose.Tempo[3], most)
				}
			case "cues":
				s.Cues = slices.DeleteFunc(slices.Clone(s.Cues), func(c string) bool {
					return t.Caps.Against(c) != "" || strings.TrimSpace(c) == "" || len([]rune(c)) > longestCue
				})
				s.Cues = s.Cues[:min(len(s.Cues), MostCues)]
			}
			if strings.HasPrefix(e.Field, "grips") {
				s.Grips = nil
			}
		}
	}
}
