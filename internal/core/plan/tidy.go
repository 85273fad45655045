package plan

import (
	"slices"
	"strconv"
	"strings"

	"github.com/google/uuid"

	"musculus/internal/core/dose"
	"musculus/internal/core/person"
)

// Tidy makes a session that was typed what is kept of it: without blanks round what
// was written, slots without rows as fill fills them, every row with an id, no
// combos that nobody is in.
func (p *Planned) Tidy(fill func(*Slot)) {
	p.Name = strings.TrimSpace(p.Name)
	p.Session.Tidy(fill)
}

// Tidy makes a session that was typed what is kept of it; see Planned.Tidy.
func (s *Session) Tidy(fill func(*Slot)) {
	s.Slots = slices.Clone(s.Slots)
	s.Combos = slices.DeleteFunc(slices.Clone(s.Combos), func(c Combo) bool {
		return !slices.ContainsFunc(s.Slots, func(x Slot) bool { return x.Combo == c.ID })
	})
	if len(s.Combos) == 0 {
		s.Combos = nil
	}
	for i := range s.Slots {
		slot := &s.Slots[i]
		slot.CueReason = strings.TrimSpace(slot.CueReason)
		slot.Cues = slices.Clone(slot.Cues)
		for n := range slot.Cues {
			slot.Cues[n] = strings.TrimSpace(slot.Cues[n])
		}
		slot.Rows = slices.Clone(slot.Rows)
		if len(slot.Rows) == 0 {
			fill(slot)
		}
		for k := range slot.Rows {
			if slot.Rows[k].ID == uuid.Nil {
				slot.Rows[k].ID = rowID(slot.ID, k)
			}
		}
		if slot.Rows[0].Load == nil {
			slot.Rows[0].Load = dose.ToFind()
		}
	}
}

// rowID is the id of a row that nobody has named: the same each time it is asked for.
func rowID(slot uuid.UUID, row int) uuid.UUID { return uuid.NewSHA1(slot, []byte(strconv.Itoa(row))) }

// Settle takes the body out of loads: what one hand carries of it becomes what is
// added to it, the nearest there is, so that a plain dip stays a plain dip whatever
// the client weighs.
func (s *Session) Settle(f *Floor) {
	for i := range s.Slots {
		for k := range s.Slots[i].Rows {
			l := s.Slots[i].Rows[k].Load
			if l == nil || l.Kg == nil {
				continue
			}
			if rack := f.Rack(s.Slots[i].SetUpIn(k)); rack.Carry == person.BodyWeight {
				s.Slots[i].Each(func(*Row) {}) // who handed the rows in keeps them
				s.Slots[i].Rows[k].Load = dose.Added(rack.Nearest(rack.Carry.Whole(*l.Kg, rack.Rigging)))
			}
		}
	}
}
