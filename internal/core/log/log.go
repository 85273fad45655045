// Package log reads a session's entries against its plan: what each arm does next,
// what its series is fed by, what was missed, and what the session came to. What one
// entry is lies in package entry, what a series says in package series.
package log

import (
	"fmt"
	"slices"
	"strings"

	"github.com/google/uuid"

	"musculus/internal/core/dose"
	"musculus/internal/core/entry"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
)

// SidesOf lists the sides a set-up's sets are logged for: each arm apart where they
// take turns.
func SidesOf(s movement.SetUp) []entry.Side {
	if s.ArmsInTurn() == 2 {
		return []entry.Side{entry.Left, entry.Right}
	}
	return []entry.Side{entry.BothSides}
}

// Sides lists a planned slot's sides, the one that begins first.
func Sides(slot *plan.Slot) []entry.Side {
	switch slot.Starts {
	case plan.LeftOnly:
		return []entry.Side{entry.Left}
	case plan.RightOnly:
		return []entry.Side{entry.Right}
	}
	sides := SidesOf(slot.SetUp)
	if slot.Starts == plan.StartsRight {
		slices.Reverse(sides)
	}
	return sides
}

// Next is what one arm's next set starts from.
type Next struct {
	Side    entry.Side
	SetNo   int // from 1
	Reps    int
	Reserve int
	Whole   *float64 // as it is read, kg; nil: not known
}

// NextOf is what each arm's next set starts from, by the order of the sides: its own
// last load and reps; before an arm's first set, and where a new row begins, what is
// planned. done are the slot's standing sets; i is −1 for a slot that was taken out of
// the plan. whole tells a load as it is read.
func NextOf(s *plan.Session, i int, sides []entry.Side, done []entry.Entry, f *plan.Floor, whole func(*entry.Entry) float64) []Next {
	var out []Next
	for _, side := range sides {
		next, first := Next{Side: side, SetNo: 1}, true
		for k := range done {
			if e := &done[k]; e.Side == side {
				x := whole(e)
				next, first = Next{side, max(next.SetNo, e.SetNo+1), e.Reps, e.Reserve, &x}, false
			}
		}
		if i >= 0 {
			next.asPlanned(s, i, f, first)
		}
		out = append(out, next)
	}
	return out
}

// asPlanned gives an arm's next set what is planned for it: everything before its
// first, later what a new row changes.
func (n *Next) asPlanned(s *plan.Session, i int, f *plan.Floor, first bool) {
	slot, set := &s.Slots[i], n.SetNo-1
	d, row := slot.DoseOf(set), slot.RowOf(set)
	var was *plan.Row
	if set > 0 && slot.RowOf(set-1) != row {
		was = &slot.Rows[slot.RowOf(set-1)]
	}
	if first || was != nil && (was.RepsHigh != d.RepsHigh || was.RepsLow != d.RepsLow) {
		n.Reps = d.RepsHigh
	}
	if first || was != nil && was.Reserve != d.Reserve {
		n.Reserve = d.Reserve
	}
	if !first && (was == nil || slot.Rows[row].Load == nil) {
		return
	}
	if loads := s.Loads(i, set, f); len(loads) > 0 {
		n.Whole = &loads[0]
	} else if hand := s.Hand(i, row, f); hand != nil {
		rack := f.Rack(slot.SetUpIn(row))
		whole := rack.Carry.Whole(*hand, rack.Rigging)
		n.Whole = &whole
	}
}

// First is the arm that has done less, the one that begins first, and whether every
// arm has done as many sets as are planned.
func First(arms []Next, sets int) (next Next, done bool) {
	for k, arm := range arms {
		if k == 0 || arm.SetNo < next.SetNo {
			next = arm
		}
	}
	return next, next.SetNo-1 >= sets
}

// Hollow is why a set planned in a row does not feed its series, "" where it does: a
// series is fed by straight sets at their own load, outside combos of one muscle, not
// after a heavier row of the slot.
func Hollow(s *plan.Session, i, row int, f *plan.Floor) string {
	slot := &s.Slots[i]
	if row >= len(slot.Rows) {
		return ""
	}
	r := &slot.Rows[row]
	m := dose.MethodOf(r.Method.ID)
	l := slot.Asked(row)
	turns := s.TurnsOf(i)
	switch {
	case r.IsHold():
		return "a hold"
	case m != nil && m.ID != "straight":
		return m.Name
	case turns.Kind == dose.SupersetSame || turns.Kind == dose.ThreeInRow:
		return "in turns with the same muscle"
	case l != nil && l.Combo:
		return "one load for all"
	}
	own := s.Hand(i, row, f)
	for k := range row {
		if before := s.Hand(i, k, f); before != nil && own != nil && *before > *own+1e-9 {
			return "after a heavier row"
		}
	}
	return ""
}

// Missed is what of a slot was not done.
type Missed struct {
	Slot int
	Sets int // of all arms
}

// MissedOf lists what of a plan was not done, by slot.
func MissedOf(s *plan.Session, done []entry.Entry) (out []Missed) {
	sets := count(done)
	for i := range s.Slots {
		if n := s.Slots[i].Sets()*len(Sides(&s.Slots[i])) - sets[s.Slots[i].ID]; n > 0 {
			out = append(out, Missed{i, n})
		}
	}
	return out
}

// Counting leaves out what waits to be asked about, as another device had told a set in its
// place.
func Counting(entries []entry.Entry) []entry.Entry {
	return slices.DeleteFunc(slices.Clone(entries), func(e entry.Entry) bool { return e.TwiceOf != nil })
}

func count(done []entry.Entry) map[uuid.UUID]int {
	out := map[uuid.UUID]int{}
	for i := range done {
		out[done[i].SlotID]++
	}
	return out
}

// Came is the plan as it was done: each set with the reserve that was told, in the
// set-up it was done in; what was not done is left out. Counted, it tells what the
// session came to. Arms that take turns come to a set when both have done it.
func Came(s *plan.Session, done []entry.Entry) plan.Session {
	out := plan.Session{WarmUpMin: s.WarmUpMin, Combos: s.Combos}
	for i := range s.Slots {
		slot := s.Slots[i]
		last := Sides(&slot)[len(Sides(&slot))-1]
		var rows []plan.Row
		for k := range done {
			e := &done[k]
			if e.SlotID != slot.ID || e.Side != last || e.SetUp.Movement == nil || e.TwiceOf != nil {
				continue
			}
			r := plan.Row{Dose: *slot.DoseOf(e.SetNo - 1)}
			r.Sets, r.Reserve = 1, e.Reserve
			r.Method = asDone(r.Method, e.Parts)
			if !r.IsHold() {
				r.RepsLow, r.RepsHigh = e.Reps, e.Reps
			}
			if e.SetUp.Key() != slot.SetUp.Key() {
				set := e.SetUp
				r.SetUp = &set
			}
			rows = append(rows, r)
		}
		if slot.Rows = rows; len(rows) > 0 {
			out.Slots = append(out.Slots, slot)
		}
	}
	return out
}

// asDone is a method as it was done: rungs, pauses and reps after the strict ones are counted
// again, and without any the set was a straight one.
func asDone(u dose.Use, parts []entry.Part) dose.Use {
	n := 0
	for i, p := range parts {
		switch u.ID {
		case "drops":
			n += one(p.Kind == entry.Clean && p.LoadKg != nil)
		case "rest_pause":
			n += one(p.Kind == entry.Clean && i > 0)
		case "assisted":
			n += one(p.Kind == entry.Assisted) * p.Reps
		case dose.StrictThenSwing:
			n += one(p.Kind == entry.Swung) * p.Reps
		case "last_rep_hold":
			n += one(p.Kind == entry.Held) * p.Seconds
		default:
			return u
		}
	}
	switch m := dose.MethodOf(u.ID); {
	case len(parts) == 0 || m == nil: // nothing was said of it: as planned
		return u
	case n == 0:
		return dose.Use{}
	default:
		return dose.Use{ID: u.ID, N: min(n, m.Most)}
	}
}

func one(is bool) int {
	if is {
		return 1
	}
	return 0
}

// Words tells what a session came to against its plan: "9 of 12 sets; missed: 3 of
// Push-down".
func Words(s *plan.Session, done []entry.Entry) string {
	planned := 0
	for i := range s.Slots {
		planned += s.Slots[i].Sets() * len(Sides(&s.Slots[i]))
	}
	missed := MissedOf(s, done)
	left := 0
	var parts []string
	for _, m := range missed {
		left += m.Sets
		parts = append(parts, fmt.Sprintf("%d of %s", m.Sets, s.Slots[m.Slot].SetUp.Title()))
	}
	out := fmt.Sprintf("%d of %d sets", planned-left, planned)
	if len(done) > 0 && left > 0 {
		out += "; to do: " + strings.Join(parts, ", ")
	}
	return out
}

// StartsAt is what a slot starts at the next time: the load most of its sets ended at, the
// heavier of two that tie. done are the session's standing sets.
type StartsAt struct {
	Slot   int
	LoadKg float64 // what one hand carries
}

// NextLoads lists what each slot that was done as planned starts at the next time.
func NextLoads(s *plan.Session, done []entry.Entry) (out []StartsAt) {
	for i := range s.Slots {
		slot := &s.Slots[i]
		sets := map[float64]int{}
		for k := range done {
			e := &done[k]
			if e.SlotID == slot.ID && e.SetUp.Movement != nil && e.SetUp.Key() == slot.SetUpOf(0).Key() && e.Hollow == "" && e.TwiceOf == nil {
				sets[e.LoadKg]++
			}
		}
		best, most := 0.0, 0
		for load, n := range sets {
			if n > most || n == most && load > best {
				best, most = load, n
			}
		}
		if most > 0 {
			out = append(out, StartsAt{i, best})
		}
	}
	return out
}
