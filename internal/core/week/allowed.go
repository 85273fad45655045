package week

import (
	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
)

// This file says what may be put into a client's week without a finding, and what it
// gives, for fixes and for what composes whole weeks.

// May says whether the client may do a set-up as it is, in her room: nothing of it is to be
// modified, barred or missing.
func (t *Trainee) May(s movement.SetUp) bool {
	k := t.memo().look(s)
	return k.refused == "" && t.MayWith(s, k.profile)
}

// MayWith is May for a set-up that was profiled already.
func (t *Trainee) MayWith(s movement.SetUp, p *effort.Profile) bool {
	v := t.Fence.Judge(s, p)
	return v.Ruling != person.Modify && !v.Barred() && (t.Room == nil || len(t.Room.Missing(s)) == 0) && t.Caps.Lying(s) == ""
}

// Bent is a set-up turned to what its verdict asks for, as far as the client may do it then;
// false where nothing helps.
func (t *Trainee) Bent(s movement.SetUp) (movement.SetUp, bool) {
	if t.May(s) {
		return s, true
	}
	k := t.memo().look(s)
	if k.refused != "" {
		return s, false
	}
	v := t.Fence.Judge(s, k.profile)
	for i := range v.Reasons {
		if to, ok := v.Reasons[i].Follow(s); ok && t.May(to) {
			return to, true
		}
	}
	return s, false
}

// Shape is what makes a set-up one idea, for the trainee; nil where it cannot be done.
func (t *Trainee) Shape(s movement.SetUp) *fitting.Shape { return t.memo().look(s).shape }

// Gives is what one hard set of a set-up gives each head, and at short, middle and long
// length.
func (t *Trainee) Gives(s movement.SetUp) (heads [arm.HeadCount]Effective, zones [arm.HeadCount][3]float64) {
	k := t.memo().look(s)
	return k.gives, k.zones
}

// ElsewhereGives is what pressing and pulling elsewhere give.
func (t *Trainee) ElsewhereGives() (out [arm.HeadCount]Effective) {
	if t.Aims == nil {
		return out
	}
	for _, e := range t.Aims.Elsewhere {
		n := t.Aims.times(&e)
		if n == 0 {
			continue
		}
		slot := elsewhereSlot(e)
		slot.Rows[0].Sets *= n
		c := t.memo().countSlot(&slot, plan.Turns{})
		for h := range c.Heads {
			out[h].add(&c.Heads[h])
		}
	}
	return out
}

// When the steps of a load are too few for a heavy band.
const sparseUnder = 4

// oneJoint says whether a movement moves the elbow alone.
func oneJoint(m *movement.Movement) bool {
	return m.Computed() && (m.Action == movement.Flexion || m.Action == movement.Extension)
}

// Prescribe are the rows of so many sets of a set-up by rule: the band by the movement, the
// joints and the steps there are, unless somebody chose one; 2 in reserve, 1 where it is
// safe after the first year.
func (t *Trainee) Prescribe(s movement.SetUp, sets int) []plan.Row {
	rows := t.preferredRows(s)
	d := &rows[0].Dose
	if !t.said(person.AxisReps) {
		band := bands[t.bandOf(s)]
		for i := range rows {
			rows[i].RepsLow, rows[i].RepsHigh, rows[i].RestS = band[0], band[1], max(band[2], t.Caps.MinRestS)
		}
	}
	if len(rows) == 1 && d.Reserve > 0 {
		d.Reserve = max(2, t.Caps.MinReserve)
		if oneJoint(s.Movement) && t.Aims != nil && !t.Aims.FirstYear && t.Caps.MinReserve <= 1 && t.Room != nil && t.Room.CanFailAlone(s) {
			d.Reserve = 1
		}
	}
	last := rows[len(rows)-1]
	d.Sets = sets
	if last.Reserve > 0 {
		return rows[:1]
	}
	d.Reserve = max(1, d.Reserve) // to the limit goes the last set, of three or more: under a third of all
	if sets < fewestToLimit {
		return rows[:1]
	}
	last.Sets, last.Load, d.Sets = 1, nil, sets-1
	return []plan.Row{rows[0], last}
}

// fewestToLimit are the sets of a slot from which the last one may go to the limit.
const fewestToLimit = 3

// bandOf is the band of a set-up by rule.
func (t *Trainee) bandOf(s movement.SetUp) string {
	scores := s.Joints()
	for _, j := range movement.Joints {
		if scores.Of(j) >= 2 && t.Scores().Worse(j) >= 2 {
			return "high"
		}
	}
	switch sparse := t.Room != nil && len(t.Room.Steps(s)) < sparseUnder; {
	case s.Movement.Action == movement.PushUp:
		return "high" // the load is the body's, and there is no less
	case sparse && person.CarryOf(s) == person.BodyWeight:
		return "middle"
	case sparse:
		return "high"
	case oneJoint(s.Movement):
		return "middle"
	}
	return "heavy"
}

// SetSeconds is how long a set of a set-up takes with the rest after it, as it would be
// prescribed, and how long its ramp, s.
func (t *Trainee) SetSeconds(s movement.SetUp) (set, ramp float64) {
	rows := t.Prescribe(s, 1)
	one := rows[0].Dose
	return one.WorkSeconds(s.ArmsInTurn()) + float64(one.RestS), dose.RampSeconds(s, person.CarryOf(s), &one)
}

// TooHeavy says whether what there is in the room is known to be too heavy for a set-up as
// it would be prescribed, or, where nothing is known and there is but one load, is over what
// the model asks for.
func (t *Trainee) TooHeavy(s movement.SetUp) bool {
	slot := plan.Slot{SetUp: s, Rows: t.Prescribe(s, 2)}
	return t.FitOf(&slot).Fit == series.TooHeavy || t.overModel(&slot) != "" && t.Own[s.Key()].Logged == 0
}

// The shortest rests, s: a heavy band asks for more.
const (
	leastRestS      = 60
	leastHeavyRestS = 90
	heavyUnder      = 8 // reps
)

// LeastRest is how short the rest of a band may become, by its lower end of reps, s.
func (t *Trainee) LeastRest(low int) int {
	rest := leastHeavyRestS
	if low >= heavyUnder {
		rest = leastRestS
	}
	return max(rest, t.Caps.MinRestS)
}
