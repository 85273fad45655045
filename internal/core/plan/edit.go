package plan

import (
	"slices"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
)

// What changes a slot makes rows of its own first: the slot before the change keeps
// what it had.
func (s *Slot) edit() []Row {
	s.Rows = slices.Clone(s.Rows)
	if len(s.Rows) == 0 {
		s.Rows = []Row{{}}
	}
	return s.Rows
}

// Add adds sets to the last row.
func (s *Slot) Add(sets int) {
	rows := s.edit()
	rows[len(rows)-1].Sets += sets
}

// Less takes the last set away.
func (s *Slot) Less() {
	rows := s.edit()
	last := len(rows) - 1
	if rows[last].Sets--; rows[last].Sets < 1 && last > 0 {
		s.Rows = rows[:last]
	}
}

// AtMost takes sets away until there are no more than some, one at least.
func (s *Slot) AtMost(sets int) {
	for s.Sets() > max(sets, 1) {
		s.Less()
	}
}

// KeepAtLeast leaves at least so many reps after every set.
func (s *Slot) KeepAtLeast(reserve int) {
	for i := range s.edit() {
		s.Rows[i].Reserve = max(s.Rows[i].Reserve, reserve)
	}
}

// LighterReserve is what a lighter week leaves in reserve, reps.
const LighterReserve = 3

// Lighten leaves half of the sets, rounded up, and keeps well away from the limit: what a
// lighter week makes of a slot. Its loads stay.
func (s *Slot) Lighten() {
	s.AtMost((s.Sets() + 1) / 2)
	s.KeepAtLeast(LighterReserve)
}

// RestAtLeast rests at least so long after every set, s.
func (s *Slot) RestAtLeast(seconds int) {
	for i := range s.edit() {
		s.Rows[i].RestS = max(s.Rows[i].RestS, seconds)
	}
}

// Each changes every row.
func (s *Slot) Each(change func(r *Row)) {
	for i := range s.edit() {
		change(&s.Rows[i])
	}
}

// Take makes all sets alike in one load; nil: as the rows above the first say.
func (s *Slot) Take(l *dose.Load) {
	rows := s.edit()
	rows[0].Load = l
	for i := 1; i < len(rows); i++ {
		if x := rows[i].Load; x != nil && x.Share == 0 && x.Steps == nil {
			rows[i].Load = nil
		}
	}
}

// Turn puts another set-up in a slot; what differed from set to set in it goes.
func (s *Slot) Turn(to movement.SetUp) {
	s.SetUp, s.own = to, asked{}
	for i := range s.edit() {
		s.Rows[i].SetUp, s.Rows[i].own = nil, asked{}
	}
}
