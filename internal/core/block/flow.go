package block

import (
	"cmp"
	"fmt"
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

// Ahead is how many days before its first one a turn's sessions are made.
const Ahead = 7

// Made is a session that was made of the block, or taken into it.
type Made struct {
	Turn    int
	Day     uuid.UUID // of the turn
	As      plan.Planned
	Now     plan.Planned
	Removed bool   // taken out by hand
	Shut    string // why nothing is written into it any more: "done", "begun", "issued"; "" where it may be
	Missed  Way    // what was said of a day that was missed, "" for nothing
	// After is As with what was decided since it was made; nil: nothing was.
	After *plan.Session
}

// ByHand says whether somebody changed a session since the block wrote it: what was decided is
// nobody's hand.
func (m *Made) ByHand() bool {
	if m.Removed || m.Now.Name != m.As.Name || m.Now.On != m.As.On {
		return true
	}
	return !m.Now.Same(&m.As.Session) && (m.After == nil || !m.Now.Same(m.After))
}

// IsLight says whether a session of the lighter turn still is one: no more sets than the block
// wrote into it.
func (m *Made) IsLight() bool { return setsOf(&m.Now.Session) <= setsOf(&m.As.Session) }

func setsOf(s *plan.Session) (n int) {
	for i := range s.Slots {
		n += s.Slots[i].Sets()
	}
	return n
}

// What is what is done with a session when the block flows on.
type What string

// The kinds. Only changed, gone and made write.
const (
	Alike   What = "alike"   // it is as the block has it
	Changed What = "changed" // overwritten
	Added   What = "made"    // made new
	Gone    What = "gone"    // taken out: the block has it no more
	Stays   What = "stays"   // it would be written, but is shut or was changed by hand
)

// Step is what becomes of one session.
type Step struct {
	What What
	Turn int
	Day  uuid.UUID
	ID   uuid.UUID
	Why  string       // it stays
	Want plan.Planned // as the block has it
	Was  plan.Planned // as it is in the plan; without an id where it is not in it
}

// Writes says whether a step changes the plan.
func (s *Step) Writes() bool { return s.What == Changed || s.What == Added || s.What == Gone }

// Flow is what the block makes of the plan on a day: sessions to come that were made of it and
// neither touched by hand nor issued nor begun follow it, those of turns that begin within Ahead
// are made, and nothing is put beside what somebody planned on a day. others are sessions that
// are not of the block.
func (b *Block) Flow(t *week.Trainee, made []Made, others []plan.Planned, carry Carry, today day.Day) (out []Step) {
	all := b.All(t, carry)
	known := map[[2]uuid.UUID]bool{} // session ids by turn and day
	key := func(turn int, d uuid.UUID) [2]uuid.UUID { return [2]uuid.UUID{{byte(turn + 1)}, d} }
	wanted := func(m *Made) (plan.Planned, bool) {
		if m.Turn < b.Turns {
			for i := range b.Days {
				if b.Days[i].ID == m.Day {
					return all[m.Turn][i], true
				}
			}
		}
		return plan.Planned{}, false
	}
	for i := range made {
		m := &made[i]
		known[key(m.Turn, m.Day)] = true
		want, there := wanted(m)
		step := Step{Turn: m.Turn, Day: m.Day, ID: m.Now.ID, Was: m.Now}
		if there {
			named(&want, &m.Now)
			step.Want = want
		}
		past := m.Now.On < today // where the block has another day for what was missed, it goes there
		if there {
			past = want.On < today || past && want.On == m.Now.On
		}
		switch {
		case past || !there && m.Removed: // what was missed is asked about, not written
			continue
		case there && !m.Removed && alike(&want, &m.Now):
			step.What = Alike
		case m.Shut != "":
			step.What, step.Why = Stays, m.Shut
		case m.Removed:
			step.What, step.Why = Stays, "taken out by hand"
		case m.Now.Locked:
			step.What, step.Why = Stays, "locked"
		case m.Missed != "" || m.ByHand():
			step.What, step.Why = Stays, "changed by hand"
		case there:
			step.What, step.Why = check(t, &want, Changed)
		default:
			step.What = Gone
		}
		out = append(out, step)
	}
	for turn := range all {
		if b.Date(turn, 0) > today+Ahead {
			break
		}
		for i := range all[turn] {
			want := all[turn][i]
			d := b.Days[i].ID
			if known[key(turn, d)] || want.On < today {
				continue
			}
			step := Step{Turn: turn, Day: d, ID: want.ID, Want: want}
			step.What, step.Why = check(t, &want, Added)
			for k := range others {
				if others[k].On == want.On {
					step.What, step.Was = Stays, others[k]
					step.ID = others[k].ID
					step.Why = fmt.Sprintf("%s is planned on that day", others[k].Name)
				}
			}
			out = append(out, step)
		}
	}
	return out
}

// check is what would be done with a session, but where it cannot be planned so.
func check(t *week.Trainee, want *plan.Planned, would What) (what What, why string) {
	if wrong := t.Check(&want.Session); len(wrong) > 0 {
		return Stays, wrong[0].Error()
	}
	return would, ""
}

// named gives what is wanted the ids that the session in the plan has, slot by slot: what is the
// same keeps its name.
func named(want, now *plan.Planned) {
	want.ID = now.ID
	for i := range want.Slots {
		if i < len(now.Slots) {
			want.Slots[i].ID = now.Slots[i].ID
		}
	}
	for i := range want.Slots { // the rest must not have one that is taken
		for k := range i {
			if want.Slots[k].ID == want.Slots[i].ID {
				want.Slots[i].ID = uuid.NewSHA1(want.Slots[i].ID, []byte{byte(i)})
			}
		}
	}
}

// alike says whether two sessions are the same by name, day and what is done.
func alike(a, b *plan.Planned) bool {
	return a.Name == b.Name && a.On == b.On && a.Same(&b.Session)
}

// PatternOf takes the sessions of a turn as the block's own: what was planned on its days. ids
// (may be nil) are kept where a session was made of a day already. In a week the weekdays stay, whichever day
// it begins on.
func PatternOf(sessions []plan.Planned, from day.Day, every int, of func(id uuid.UUID) (uuid.UUID, bool)) []Day {
	out := make([]Day, len(sessions))
	for i := range sessions {
		s := &sessions[i]
		out[i] = Day{ID: s.ID, Name: s.Name, After: after(s.On, from, every), Session: copyOf(&s.Session)}
		if of == nil {
			continue
		}
		if d, ok := of(s.ID); ok {
			out[i].ID = d
		}
	}
	slices.SortStableFunc(out, func(a, b Day) int { return cmp.Compare(a.After, b.After) })
	return out
}

// after is how many days after a turn's first a day is.
func after(on, from day.Day, every int) int {
	n := int(on - from)
	if every == Week {
		n = (n%Week + Week) % Week
	}
	return n
}
