package week

import (
	"regexp"
	"slices"
	"strconv"
	"strings"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
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
			return a.change("Remove it", func(w *Week) bool { return w.takeOut(i, f.Slot) })
		}
		return a.change("Use "+names(to)+" instead", func(w *Week) bool {
			a.t.TakeUp(&w.Sessions[i].Session, f.Slot, to)
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
			a.t.clamp(&w.Sessions[i].Session, f.Slot)
			return len(a.t.checkSlot(&w.Sessions[i].Session, f.Slot)) == 0
		})
	case "apart":
		switch f.Severity {
		case Stop, Warn:
			if fix := a.restBetween(i, f.Slot); fix != nil {
				return fix
			}
			return a.takeApart(i, f.Slot)
		}
	case "minutes":
		return a.fewer(i, "", func(l *Ledger) bool { return !l.Sessions[i].Over(a.t.Aims.Minutes) })
	case "group_session":
		return a.fewer(i, f.Group, func(l *Ledger) bool { return l.Sessions[i].Hard(f.Group) <= MostGroupSets })
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
		if after := a.t.Fence.Judge(to, k.profile); k.refused != "" || after.Ruling == person.Avoid ||
			v.Ruling == person.Modify && after.Ruling != person.Allowed ||
			len(a.t.Room.Missing(to)) > 0 {
			continue
		}
		words := "Turn it: " + to.Details()
		if to.Details() == s.Slots[j].SetUp.Details() { // what is in the title: another implement, another hand
			words = "Turn it: " + to.Title()
		}
		return a.change(words, func(w *Week) bool {
			w.Sessions[i].Slots[j].Turn(to)
			return true
		})
	}
	return nil
}

// TakeUp puts another set-up into a slot; what was found for the old one goes.
func (t *Trainee) TakeUp(s *plan.Session, i int, to movement.SetUp) {
	slot := &s.Slots[i]
	slot.Turn(to)
	slot.Each(func(r *plan.Row) {
		if r.Load != nil && (r.Load.Kg != nil || r.Load.AddedKg != nil) {
			r.Load = nil
		}
	})
	slot.Take(dose.ToFind())
	slot.Cues = nil
	t.clamp(s, i)
}

// rowField is a field of a row: "rows[1].load.kg".
var rowField = regexp.MustCompile(`^rows\[(\d+)\]\.([a-z_]+)`)

// clamp brings a slot within caps, room and methods.
func (t *Trainee) clamp(s *plan.Session, i int) {
	slot := &s.Slots[i]
	for range 2 { // the method first, then what it leaves
		for _, e := range t.checkSlot(s, i) {
			if e.Field == "cues" {
				slot.Cues = slices.DeleteFunc(slices.Clone(slot.Cues), func(c string) bool {
					return t.Caps.Against(c) != "" || strings.TrimSpace(c) == "" || len([]rune(c)) > plan.LongestCue
				})
				slot.Cues = slot.Cues[:min(len(slot.Cues), plan.MostCues)]
			}
			m := rowField.FindStringSubmatch(e.Field)
			if m == nil {
				continue
			}
			k, _ := strconv.Atoi(m[1])
			if k >= len(slot.Rows) {
				continue
			}
			slot.Each(func(*plan.Row) {}) // the week before the fix keeps its own
			r := &slot.Rows[k]
			switch m[2] {
			case "method":
				r.Method = dose.Use{}
			case "sets":
				r.Sets = max(1, r.Sets)
				most := plan.MostSlotSets
				if t.Caps.MostSets > 0 {
					most = t.Caps.MostSets
				}
				slot.AtMost(most)
			case "reserve":
				r.Reserve = max(r.Reserve, t.Caps.MinReserve, 1)
			case "rest_s":
				r.RestS = max(r.RestS, t.Caps.MinRestS)
			case "load":
				t.clampLoad(s, i, k)
			case "tempo":
				if most := t.Caps.MostHoldS; most > 0 {
					r.Tempo[1], r.Tempo[3] = min(r.Tempo[1], most), min(r.Tempo[3], most)
				}
			case "seconds_high":
				if most := int(t.Caps.MostHoldS); most > 0 {
					r.SecondsLow, r.SecondsHigh = min(r.SecondsLow, most), min(r.SecondsHigh, most)
				}
			case "settings", "movement":
				r.SetUp = nil
			}
		}
	}
}

// clampLoad takes the next lighter load there is for a row, or lets it be found.
func (t *Trainee) clampLoad(s *plan.Session, i, k int) {
	r, rack := &s.Slots[i].Rows[k], t.Floor().Rack(s.Slots[i].SetUpIn(k))
	hand := s.Hand(i, k, t.Floor())
	if r.Load = dose.ToFind(); hand != nil {
		if down, ok := person.RoundDown(rack.Steps, rack.Carry.Whole(*hand, rack.Rigging)); ok {
			r.Load = dose.Carried(rack, rack.Carry.PerHand(down, rack.Rigging))
		}
	}
}
