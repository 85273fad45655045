package plan

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"github.com/google/uuid"

	"musculus/internal/core/dose"
	"musculus/internal/core/person"
)

// Matched is how a session that arrived stands to the one that is kept.
type Matched struct{ Same, Other, New, Gone int } // slots

// Words tells it: "2 slots keep their movement, 1 new."
func (m Matched) Words() string {
	parts := []string{fmt.Sprintf("%d slots keep their movement", m.Same)}
	if m.Same == 1 {
		parts[0] = "1 slot keeps its movement"
	}
	for _, part := range []struct {
		n    int
		what string
	}{{m.Other, "another movement or set-up"}, {m.New, "new"}, {m.Gone, "gone"}} {
		if part.n > 0 {
			parts = append(parts, fmt.Sprintf("%d %s", part.n, part.what))
		}
	}
	return strings.Join(parts, ", ") + "."
}

// key is what a slot is known by when it arrives without an id.
func (s *Slot) key() string {
	if s.SetUp.Movement != nil {
		return s.SetUp.Key()
	}
	return fmt.Sprint(s.own.movement, s.own.settings)
}

// rowKeys are what a slot's rows are known by.
func (s *Slot) rowKeys() []string {
	out := make([]string, len(s.Rows))
	for i := range s.Rows {
		if set := s.SetUpIn(i); set.Movement != nil {
			out[i] = set.Key()
		}
	}
	return out
}

// Arrive gives the slots and rows of a session that was read the ids of those that
// are kept, so that logged sets never part from the plan: along the longest common
// order of movement and settings, then by position. What a file does not say stays.
// Slots that are new get ids of make's.
func (s *Session) Arrive(old *Session, make func() uuid.UUID) Matched {
	var was, is []string
	for i := range old.Slots {
		was = append(was, old.Slots[i].key())
	}
	for i := range s.Slots {
		is = append(is, s.Slots[i].key())
	}
	s.Locked = s.Locked || old.Locked // rows of a table say nothing of it
	var out Matched
	for i, at := range Match(was, is) {
		slot := &s.Slots[i]
		if at < 0 {
			slot.ID = make()
			out.New++
			continue
		}
		kept := &old.Slots[at]
		if slot.ID = kept.ID; was[at] == is[i] {
			out.Same++
		} else {
			out.Other++
		}
		if slices.Equal(kept.Cues, slot.Cues) {
			slot.CueReason = kept.CueReason
		}
		for k, row := range Match(kept.rowKeys(), slot.rowKeys()) {
			if row >= 0 {
				slot.Rows[k].ID = kept.Rows[row].ID
			} else {
				slot.Rows[k].ID = make()
			}
		}
	}
	out.Gone = len(was) - out.Same - out.Other
	return out
}

// Question is one that must be answered before a session that was read is kept.
type Question struct {
	Slot, Row int
	Text      string
}

// nearLoad is how far two ways to tell a load may lie apart and still be one, kg.
const nearLoad = 0.005

// Trust says which of two ways to tell a load holds where they disagree.
type Trust string

// The answers; "" is to be asked.
const (
	TrustMarked Trust = "marked"
	TrustHand   Trust = "hand"
)

// SettleMarks settles loads that are told twice: as marked on the thing, and as a row
// says them. Where only the mark is told it counts; where the two disagree a question
// is asked, unless trust says which of them holds.
func (s *Session) SettleMarks(marked func(slot, row int) *float64, f *Floor, trust Trust) []Question {
	var out []Question
	for i := range s.Slots {
		for k := range s.Slots[i].Rows {
			mark, r := marked(i, k), &s.Slots[i].Rows[k]
			if set := s.Slots[i].SetUpIn(k); mark != nil && set.Movement != nil {
				rack := f.Rack(set)
				if !r.settle(*mark, &rack, trust) {
					said, told := rack.Carry.Whole(*r.Load.Kg, rack.Rigging), person.Kg(*r.Load.Kg)
					out = append(out, Question{i, k, fmt.Sprintf("%s as marked, but %s in one hand would be %s. Which holds?",
						rack.Words(*mark), told, rack.Words(math.Round(100*said)/100))})
				}
			}
		}
	}
	return out
}

// settle settles one row's load against its mark; false where it must be asked.
func (r *Row) settle(mark float64, rack *dose.Rack, trust Trust) bool {
	hand := rack.Carry.PerHand(mark, rack.Rigging)
	switch l := r.Load; {
	case l == nil, l.Find, l.Kg != nil && rack.Carry == person.BodyWeight: // what one hand carries is somebody's body too: what is added holds
	case l.AddedKg != nil && trust != TrustMarked:
		return true // it is the same number
	case l.Kg != nil && (math.Abs(hand-*l.Kg) <= nearLoad || trust == TrustHand):
		return true
	case l.Kg != nil && trust == "":
		return false
	case l.Kg == nil && l.AddedKg == nil:
		return true // a part of another one's
	}
	r.Load = dose.Carried(*rack, hand)
	return true
}
