package floor

import (
	"cmp"
	"math"
	"slices"

	"musculus/internal/core/dose"
	"musculus/internal/core/entry"
	"musculus/internal/core/log"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

// Script is a session as it is run: its sets in the order they are done, and for each slot
// everything that is decided while nobody can be asked.
type Script struct {
	Steps []SetAhead
	Lines []Line // by slot
}

// SetAhead is one set of one arm, or of both.
type SetAhead struct {
	Slot  int        `json:"slot"` // in the session
	Set   int        `json:"set"`  // in its slot, from 0
	Side  entry.Side `json:"side"`
	Row   int        `json:"row"`
	InRow int        `json:"in_row"` // the set in its row, from 0
	// RestS is the rest before it, from what was done last; OwnS from the last set of the same
	// arm, where the arms take turns. What is left of either is waited for.
	RestS  int `json:"rest_s"`
	OwnS   int `json:"own_s"`
	AboutS int `json:"about_s"` // how long it takes
}

// Line is one slot.
type Line struct {
	Advice Slot
	Table  *Table
	Steps  []float64 // every whole load the room has for it, ascending by what a hand carries, kg
	In     []int     // which of them the advice's marks are
	Rows   []RowLine
	Ahead  []float64 // minutes that are left of it, by how many of its sets are done
	Leave  []*Leave  // what leaving the rest of it out saves and costs, by the same; nil: not offered
	Pair   *Pair     // with the next one, when time runs over; nil: may not be
	Tries  []Try
	// Ladder tells for each joint, by the order of movement.Joints, which try comes first once
	// the pain has settled to 2 or less, and to 3; −1: none.
	Ladder [movement.JointCount][2]int
	// After is what becomes of it once a joint hurts over 3 again, by the same order.
	After [movement.JointCount]After
}

// RowLine is one row of a slot.
type RowLine struct {
	Loads  []int        `json:"loads"` // among the slot's steps, rung by rung; none: to be found
	Aim    int          `json:"aim"`   // reps that are taken for done as planned
	Stages []dose.Stage `json:"stages"`
	// Taken are the marks near each mark of the slot with the reps to expect of them, for when
	// somebody else has it.
	Taken [][]Expected `json:"taken"`
}

// Try is another way to go on after pain, a series of its own.
type Try struct {
	Offer
	Steps []float64 // as a line's
	Start int       // which of them to begin with
}

// Past are the last sets of each series, the latest first.
type Past map[string][]entry.Entry

// ScriptOf writes the script of one session of a week; room, joints and caps are the
// trainee's.
func ScriptOf(t *week.Trainee, c *movement.Catalogue, w *week.Week, session int, past Past) *Script {
	s := &w.Sessions[session].Session
	out := &Script{Steps: stepsOf(s)}
	hard := map[string]int{}
	for i := range s.Slots {
		l := lineOf(t, s, i, past)
		group := plan.GroupOf(s.Slots[i].SetUp)
		l.Advice.Left = leftOf(&s.Slots[i], mostOfGroup-hard[group])
		hard[group] += s.Slots[i].HardSets()
		first := len(l.Rows) > 0 && len(l.Rows[0].Loads) == 0
		if len(l.Advice.Marks) > 0 && len(l.Advice.Rows) > 0 {
			l.Table = TableOf(&l.Advice, Begin(&l.Advice, first))
		}
		l.pain(t, c, &s.Slots[i])
		out.Lines = append(out.Lines, l)
	}
	out.time(t, w, session)
	return out
}

// mostOfGroup are the hard sets of a muscle group in one session, beyond which more add little.
const mostOfGroup = 10

// leftOf is how many sets of a slot leave its group at what is left of it.
func leftOf(s *plan.Slot, left int) int {
	n := 0
	for set := range s.Sets() {
		if s.DoseOf(set).IsHard() {
			if left <= 0 {
				return n
			}
			left--
		}
		n++
	}
	return n
}

// stepsOf are a session's sets in the order they are done: round by round in combos, arm
// after arm where they take turns, each arm's turn to begin.
func stepsOf(s *plan.Session) (out []SetAhead) {
	add := func(i, set, rest int) {
		slot := &s.Slots[i]
		sides := slices.Clone(log.Sides(slot))
		if len(sides) > 1 && slot.Starts == plan.StartsInTurn && set%2 == 1 {
			slices.Reverse(sides)
		}
		row := slot.RowOf(set)
		before := 0
		for k := range row {
			before += slot.Rows[k].Each()
		}
		one := *slot.DoseOf(set)
		one.Sets = 1
		about := int(math.Round(one.WorkSeconds(1)))
		own := 0
		if set > 0 {
			own = s.RestAfter(i, slot.RowOf(set-1))
		}
		for k, side := range sides {
			st := SetAhead{Slot: i, Set: set, Side: side, Row: row, InRow: set - before, RestS: rest, AboutS: about}
			switch {
			case k > 0: // the other arm's set was rest
				st.RestS, st.OwnS = 0, own
			case len(sides) > 1 && set > 0 && rest == own:
				st.RestS, st.OwnS = 0, own
			}
			out = append(out, st)
		}
	}
	rest := 0
	for first := 0; first < len(s.Slots); {
		_, last := s.Members(first)
		rounds := 0
		for i := first; i <= last; i++ {
			rounds = max(rounds, s.Slots[i].Sets())
		}
		c := s.ComboOf(s.Slots[first].Combo)
		for n := range rounds {
			for i := first; i <= last; i++ {
				if s.Slots[i].Sets() <= n {
					continue
				}
				add(i, n, rest)
				if rest = s.RestAfter(i, s.Slots[i].RowOf(n)); first != last && c != nil {
					rest = c.BetweenS
				}
			}
			if first != last && c != nil {
				rest = c.AfterS
			}
		}
		first = last + 1
	}
	return out
}

// reach is how many marks are looked at under the planned one.
const reach = 4

// lineOf is a slot's advice, loads and stages.
func lineOf(t *week.Trainee, s *plan.Session, i int, past Past) Line {
	slot, f := &s.Slots[i], t.Floor()
	rack := f.Rack(slot.SetUpIn(0))
	l := Line{Steps: byHand(&rack)}
	at := func(whole float64) int {
		best := -1
		for k, x := range l.Steps {
			if best < 0 || math.Abs(x-whole) < math.Abs(l.Steps[best]-whole) {
				best = k
			}
		}
		return best
	}
	var planned []int
	set := 0
	for k := range slot.Rows {
		r := &slot.Rows[k]
		row := RowLine{Loads: []int{}, Aim: aimOf(slot, set, past)}
		for _, whole := range s.Loads(i, set, f) {
			row.Loads = append(row.Loads, at(whole))
		}
		if len(row.Loads) == 0 {
			if hand := s.Hand(i, k, f); hand != nil && len(l.Steps) > 0 {
				row.Loads = []int{at(rack.Carry.Whole(*hand, rack.Rigging))}
			}
		}
		row.Stages = r.Stages(row.Aim)
		mark := -1
		if len(row.Loads) > 0 {
			mark = row.Loads[0]
		}
		planned = append(planned, mark)
		l.Rows = append(l.Rows, row)
		l.Advice.Rows = append(
			l.Advice.Rows,
			Row{Sets: r.Each(), Low: r.RepsLow, High: r.RepsHigh, Reserve: r.Reserve, RestS: s.RestAfter(i, k)},
		)
		set += r.Each()
	}
	l.Advice.Dense, l.Advice.Written = isDense(s, i), isWritten(slot, planned)
	l.In = inReach(len(l.Steps), planned)
	for _, k := range l.In {
		l.Advice.Marks = append(l.Advice.Marks, rack.Carry.PerHand(l.Steps[k], rack.Rigging))
	}
	for k := range l.Advice.Rows {
		mark := planned[k]
		if mark < 0 { // to be found: low, where it is no trouble
			mark = -1
			if len(l.In) > 0 {
				mark = l.In[len(l.In)/3]
			}
		}
		l.Advice.Rows[k].Mark = max(0, slices.Index(l.In, mark))
	}
	l.Advice.Least = l.least(s, i, &rack)
	for k := range l.Rows {
		for m := range l.Advice.Marks {
			l.Rows[k].Taken = append(l.Rows[k].Taken, Taken(&l.Advice, State{Row: k, Mark: m}, nil))
		}
	}
	return l
}

// byHand are a rack's whole loads, what one hand carries ascending.
func byHand(r *dose.Rack) []float64 {
	out := slices.Clone(r.Steps)
	slices.SortFunc(out, func(a, b float64) int {
		return cmp.Compare(r.Carry.PerHand(a, r.Rigging), r.Carry.PerHand(b, r.Rigging))
	})
	if len(out) == 0 && r.Carry == person.BodyWeight {
		out = []float64{0} // the body alone
	}
	return out
}

// inReach are at most MostMarks of n marks: what is planned, and what lies around it.
func inReach(n int, planned []int) (out []int) {
	if n == 0 {
		return []int{}
	}
	in := map[int]bool{}
	for _, p := range planned {
		if p >= 0 && len(in) < MostMarks {
			in[p] = true
		}
	}
	from := 0
	if len(in) > 0 {
		from = max(0, planned[0])
	}
	for d := range n {
		for _, k := range []int{from - d, from + d} {
			if k >= 0 && k < n && len(in) < MostMarks && (k >= from-reach || n <= MostMarks || len(planned) == 0) {
				in[k] = true
			}
		}
	}
	for k := range n {
		if in[k] {
			out = append(out, k)
		}
	}
	return out
}

// least is the lightest mark of a slot that is not under what its ramp ends with.
func (l *Line) least(s *plan.Session, i int, rack *dose.Rack) int {
	ramp := dose.Ramp(s.Slots[i].SetUpIn(0), &s.Slots[i].First().Dose)
	if s.Ramped() != i || len(ramp) == 0 || len(l.Rows) == 0 || len(l.Rows[0].Loads) == 0 {
		return 0
	}
	hand := rack.Carry.PerHand(l.Steps[l.Rows[0].Loads[0]], rack.Rigging)
	for k, mark := range l.Advice.Marks {
		if mark >= ramp[len(ramp)-1].Part*hand-1e-9 {
			return min(k, l.Advice.Rows[0].Mark)
		}
	}
	return 0
}

// aimOf is how many reps a row's sets are taken to have: as many as the last time with these
// sets, as far as the band goes, else its high end.
func aimOf(slot *plan.Slot, set int, past Past) int {
	d := slot.DoseOf(set)
	reps := 0
	sets := past[slot.SetUpOf(set).Key()]
	for k := range sets {
		e := &sets[k]
		if e.SessionID != sets[0].SessionID {
			break
		}
		if e.SetNo == set+1 && (reps == 0 || e.Reps < reps) {
			reps = e.Reps
		}
	}
	if reps < d.RepsLow || reps > d.RepsHigh {
		return d.RepsHigh
	}
	return reps
}

// denseMethods never go up within a session.
var denseMethods = []string{"drops", "rest_pause", "thirds", dose.Ladder, dose.HandPhases, dose.StaticHold}

// isDense says whether a slot's work is dense: by its methods, or in turns with its own group.
func isDense(s *plan.Session, i int) bool {
	if k := s.TurnsOf(i).Kind; k == dose.SupersetSame || k == dose.ThreeInRow {
		return true
	}
	return !slices.ContainsFunc(s.Slots[i].Rows, func(r plan.Row) bool { return !slices.Contains(denseMethods, r.Method.ID) })
}

// isWritten says whether a slot's loads stay as they are written: a climb, a set-up by row.
func isWritten(slot *plan.Slot, planned []int) bool {
	for k := 1; k < len(planned); k++ {
		if planned[k] > planned[k-1] && planned[k-1] >= 0 {
			return true
		}
	}
	return slot.Differs()
}

// time tells how long each slot's rest takes, and what leaving it out would cost the week.
func (s *Script) time(t *week.Trainee, w *week.Week, session int) {
	p := &w.Sessions[session].Session
	none := make([]int, len(p.Slots))
	full := w.Count(t)
	for i := range s.Lines {
		l, done := &s.Lines[i], slices.Clone(none)
		for n := range p.Slots[i].Sets() + 1 {
			done[i] = n
			l.Ahead = append(l.Ahead, 0)
			l.Leave = append(l.Leave, nil)
			if n == p.Slots[i].Sets() {
				break
			}
			left := slices.Clone(done)
			left[i] = p.Slots[i].Sets()
			l.Ahead[n] = Forecast(t, p, done) - Forecast(t, p, left)
		}
	}
	for i := range s.Lines {
		for n := range p.Slots[i].Sets() {
			s.Lines[i].Leave[n] = leaveOf(t, w, &full, session, i, n, s.Lines[i].Ahead[n])
		}
		s.Lines[i].Pair = PairOf(t, p, i)
	}
}
