package decide

import (
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

// lighterDays is how long a lighter week lasts.
const lighterDays = 7

// Write writes a proposal into a session to come, as far as it is about it; false where nothing
// of it changes. Locked slots stay, and what caps or the room do not allow is not written. The
// session is the caller's to keep: what it held before stays as it was.
func Write(t *week.Trainee, p *Proposal, s *plan.Session) bool {
	before := len(t.Check(s))
	was := s.Slots
	s.Slots = slices.Clone(s.Slots)
	wrote := false
	for i := range s.Slots {
		if s.Slots[i].Locked {
			continue
		}
		if p.Steps.Halve {
			s.Slots[i].Lighten()
			wrote = true
			continue
		}
		slot := &s.Slots[i]
		if slices.ContainsFunc(slot.SetUps(), func(x movement.SetUp) bool { return x.Key() == p.Series }) {
			wrote = p.Steps.write(t, s, i, p.Series) || wrote
		}
	}
	if !wrote || len(t.Check(s)) > before {
		s.Slots = was
		return false
	}
	return true
}

// Carry writes decisions into a session that was not there when they were taken, in their order;
// which says of which ones.
func Carry(t *week.Trainee, taken []Taken, s *plan.Session, which func(*Taken) bool) {
	for i := range taken {
		if x := &taken[i]; !x.NotNow && !x.Undone && !x.Steps.Nothing() && which(x) {
			Write(t, &x.Proposal, s)
		}
	}
}

// write changes one slot.
func (x *Steps) write(t *week.Trainee, s *plan.Session, i int, key string) bool {
	slot := &s.Slots[i]
	if x.ToID != "" {
		if x.To.Movement == nil {
			return false
		}
		t.TakeUp(s, i, x.To)
		return true
	}
	wrote := false
	if x.HandKg > 0 {
		slot.Take(dose.Carried(t.Floor().Rack(slot.SetUp), x.HandKg))
		wrote = true
	}
	if x.Reps != 0 || x.RestS > 0 || x.LowerS > 0 || x.Reserve > 0 {
		keys := make([]bool, len(slot.Rows))
		for k := range slot.Rows {
			keys[k] = slot.SetUpIn(k).Key() == key
		}
		k := -1
		slot.Each(func(r *plan.Row) {
			if k++; !keys[k] || r.IsHold() {
				return
			}
			if x.Reps != 0 && r.RepsLow+x.Reps >= 1 {
				r.RepsLow, r.RepsHigh = r.RepsLow+x.Reps, r.RepsHigh+x.Reps
			}
			if x.RestS > 0 {
				r.RestS = x.RestS
			}
			if x.LowerS > 0 {
				r.Tempo[0] = x.LowerS
			}
			r.Reserve = max(r.Reserve, x.Reserve)
			wrote = true
		})
	}
	switch {
	case x.Sets > 0:
		slot.Add(x.Sets)
		wrote = true
	case x.Sets < 0 && slot.Sets() > 1:
		slot.Less()
		wrote = true
	}
	if x.Cue != "" {
		for _, f := range slot.SetUp.Movement.FaultsOf() {
			if f.ID == x.Cue && !slices.Contains(slot.Cues, f.Cue) {
				slot.Cues = append([]string{f.Cue}, slot.Cues...)
				slot.Cues = slot.Cues[:min(len(slot.Cues), plan.MostCues)]
				wrote = true
			}
		}
	}
	return wrote
}

// Into are the sessions a proposal is written into: those to come that nothing of is done and
// that were not issued; a lighter week is the next seven days.
func Into(p *Proposal, sessions []plan.Planned, today day.Day, shut func(id uuid.UUID) bool) (out []int) {
	for i := range sessions {
		x := &sessions[i]
		if x.On < today || shut(x.ID) || p.Steps.Halve && int(x.On-today) >= lighterDays {
			continue
		}
		out = append(out, i)
	}
	return out
}

// Changed is how much a proposal changes what each head gets in a week, effective sets; sessions
// are those of one week before and after.
func Changed(t *week.Trainee, before, after *week.Week) (out [arm.HeadCount]float64) {
	b, a := before.Count(t), after.Count(t)
	for h := range out {
		out[h] = a.Heads[h].Direct.Mid - b.Heads[h].Direct.Mid
	}
	return out
}
