package week

import (
	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
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

// Count counts one slot by itself; see count.
func (s *Slot) Count(y *effort.Yardstick, st *stance.Stance) SlotCount {
	return s.count(NewMemo(y, st), 0)
}

// share is a set-up with how many of a slot's sets are done in it, each counted by
// its effort.
type share struct {
	set  movement.SetUp
	sets float64
}

// shares splits a slot's sets over the set-ups they are done in: its grips, and
// within each the phases where the method turns the hand.
func (s *Slot) shares() []share {
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
	if len(s.Grips) == 0 && s.Dose.Method.ID != dose.HandPhases {
		return []share{{s.SetUp, s.Dose.Efforts()}}
	}
	for n := range s.Dose.Each() {
		set, counts := s.SetUpOf(n), dose.EffortFactor(s.Dose.ReserveOf(n))
		if s.Dose.Method.ID != dose.HandPhases {
			add(set, counts)
			continue
		}
		for _, phi := range dose.Phases {
			add(set.InHand(phi), counts/float64(len(dose.Phases)))
		}
	}
	return out
}

// count counts one slot at its place in a combo: sets × method credit × set credit
// × effort factor for every head, the set credit being that of the stance's bias;
// sets in other grips and phases count by their own profiles.
func (s *Slot) count(m *Memo, place int) SlotCount {
	base := m.look(s.SetUp)
	out := SlotCount{Profile: base.profile, Refused: base.refused, Reading: &base.reading}
	for _, part := range s.shares() {
		k := m.look(part.set)
		if k.refused != "" {
			out.Refused = k.refused
			continue
		}
		sets := part.sets * s.Dose.Method.Credit(place)
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
