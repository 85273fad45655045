package week

import (
	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/stance"
)

// Effective is a head's effective sets: the stance's count, and the least and
// the most that any stance (for graded work: the credit's range) gives.
type Effective struct{ Mid, Low, High float64 }

// SlotCount is what one slot comes to.
type SlotCount struct {
	Profile *effort.Profile // nil for graded movements and refused set-ups
	Refused string          // why the set-up cannot be computed, "" if it can
	Reading *stance.Reading
	Heads   [arm.HeadCount]Effective
	// Zones are a head's effective sets at short, middle and long length; graded
	// work is not split and gives none.
	Zones [arm.HeadCount][3]float64
}

// CountSlot counts one slot by itself; see countSlot.
func CountSlot(s *plan.Slot, y *effort.Yardstick, st *stance.Stance) SlotCount {
	return NewMemo(y, st).countSlot(s, plan.Turns{})
}

// share is a set-up with what the sets done in it count before it is asked whom they
// count for.
type share struct {
	set  movement.SetUp
	sets float64
}

// shares splits a slot's sets over the set-ups they are done in: those of its rows,
// and within each the phases where the method turns the hand; each by its effort and
// its method's credit.
func shares(s *plan.Slot) []share {
	var out []share
	add := func(set movement.SetUp, sets float64) {
		for i := range out {
			if out[i].set.Movement == set.Movement && out[i].set.Key() == set.Key() {
				out[i].sets += sets
				return
			}
		}
		out = append(out, share{set, sets})
	}
	for i := range s.Rows {
		r := &s.Rows[i]
		set, counts := s.SetUpIn(i), r.Efforts()*r.Method.Credit()
		if r.Method.ID != dose.HandPhases {
			add(set, counts)
			continue
		}
		for _, phi := range dose.Phases {
			add(set.InHand(phi), counts/float64(len(dose.Phases)))
		}
	}
	return out
}

// countSlot counts one slot in its combo: sets × effort factor × method credit ×
// combo credit × set credit for every head, the set credit being that of the
// stance's bias; rows in other set-ups and phases count by their own profiles, a
// hold at the length it is held.
func (m *Memo) countSlot(s *plan.Slot, turns plan.Turns) SlotCount {
	base := m.look(s.SetUp)
	out := SlotCount{Profile: base.profile, Refused: base.refused, Reading: &base.reading}
	for _, part := range shares(s) {
		k := m.look(part.set)
		if k.refused != "" {
			out.Refused = k.refused
			continue
		}
		sets := part.sets * turns.Credit()
		for i := range k.reading {
			b := &k.reading[i]
			gives := Effective{sets * dose.SetCredit(b.Bar), sets * dose.SetCredit(b.Low), sets * dose.SetCredit(b.High)}
			out.Heads[i].add(gives)
			if k.profile != nil && k.profile.Heads[i].Agonist {
				for z, part := range k.profile.Heads[i].InZone {
					out.Zones[i][z] += gives.Mid * part
				}
			}
		}
	}
	return out
}
