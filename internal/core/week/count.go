package week

import (
	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/stance"
)

// Effective is a head's effective sets: the stance's count, and the least and the most
// that any one stance gives the whole, be it a slot or a week, graded work at the low (the
// high) end of its credit in all of them.
type Effective struct {
	Mid, Low, High float64

	by [stance.Readings][2]float64 // the low and the high end under each stance
}

// Under is what a stance gives, by its place in stance.Stances, graded work at its low end.
func (e *Effective) Under(reading int) float64 { return e.by[reading][0] }

func (e *Effective) add(o *Effective) {
	e.Mid += o.Mid
	for k := range e.by {
		e.by[k][0] += o.by[k][0]
		e.by[k][1] += o.by[k][1]
	}
	e.ends()
}

// ends reads the least and the most off the stances.
func (e *Effective) ends() {
	e.Low, e.High = e.by[0][0], e.by[0][1]
	for k := 1; k < len(e.by); k++ {
		e.Low, e.High = min(e.Low, e.by[k][0]), max(e.High, e.by[k][1])
	}
}

// addSets adds sets of what one set gives.
func (e *Effective) addSets(sets float64, one *Effective) {
	e.Mid += sets * one.Mid
	for k := range e.by {
		e.by[k][0] += sets * one.by[k][0]
		e.by[k][1] += sets * one.by[k][1]
	}
}

// round counts to what is counted.
func (e *Effective) round() {
	e.Mid = dose.Counted(e.Mid)
	for k := range e.by {
		e.by[k][0], e.by[k][1] = dose.Counted(e.by[k][0]), dose.Counted(e.by[k][1])
	}
	e.ends()
}

// creditOf is what one hard set gives a head by its bias.
func creditOf(b *stance.Bias, graded bool) Effective {
	out := Effective{Mid: dose.SetCredit(b.Bar)}
	for k := range out.by {
		out.by[k] = [2]float64{dose.SetCredit(b.By[k]), dose.SetCredit(b.By[k])}
		if graded {
			out.by[k] = [2]float64{dose.SetCredit(b.Low), dose.SetCredit(b.High)}
		}
	}
	out.ends()
	return out
}

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
		if s.OneArm() { // heads are counted for an arm, on the average of both
			sets /= 2
		}
		for i := range k.gives {
			if k.gives[i].High == 0 {
				continue
			}
			out.Heads[i].addSets(sets, &k.gives[i])
			for z, x := range k.zones[i] {
				out.Zones[i][z] += sets * x
			}
		}
	}
	for i := range out.Heads {
		out.Heads[i].round()
		for z := range out.Zones[i] {
			out.Zones[i][z] = dose.Counted(out.Zones[i][z])
		}
	}
	return out
}
