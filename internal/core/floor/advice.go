package floor

// Slot is what advice on the sets of a slot needs to know.
type Slot struct {
	Rows []Row
	// Marks are what one hand carries with each mark in reach, kg, ascending, at most MostMarks.
	Marks []float64
	Least int // the lightest of them that is not under the ramp
	// Dense methods, combos of one muscle, thirds, ladder, drops, rest-pause, start low: never
	// up within the session.
	Dense bool
	// Written loads, a climb, back-off sets, grips by row, stay as they are.
	Written bool
	// Left is how many more sets caps, the joints' budgets and the session's ten hard sets of
	// the group allow from the slot's beginning.
	Left int
}

// Row is n sets alike.
type Row struct {
	Sets    int `json:"sets"`
	Low     int `json:"low"` // reps
	High    int `json:"high"`
	Reserve int `json:"reserve"`
	RestS   int `json:"rest_s"`
	Mark    int `json:"mark"` // the planned load among the marks
}

// MostMarks are the marks in reach of a slot at most.
const MostMarks = 9

// State is where a slot stands before a set.
type State struct {
	Row     int `json:"row"`
	Set     int `json:"set"`     // in its row, from 0
	Mark    int `json:"mark"`    // among the marks
	Strikes int `json:"strikes"` // how often form went before the muscle
	First   int `json:"first"`   // of a first contact: 1 nothing is known, 2 one set has told; 0: it is known
}

// Outcome is how a set came out: effective reps, clean ones with what was left beyond or
// under the planned reserve, against the band's ends, and whether form held.
type Outcome struct {
	Over int // over the high end, under the low end (negative), 0 in the band; −6…+6
	Held bool
}

// MostOver bounds how far from the band an outcome is told.
const MostOver = 6

// EffectiveReps are the clean reps with what was left against plan; where both arms lift one
// load the lower arm decides.
func EffectiveReps(clean []int, told, planned int) int {
	if len(clean) == 0 {
		return 0
	}
	least := clean[0]
	for _, n := range clean[1:] {
		least = min(least, n)
	}
	return max(0, least+told-planned)
}

// OutcomeOf tells effective reps against a row's band.
func OutcomeOf(effective int, r *Row, held bool) Outcome {
	over := 0
	switch {
	case effective > r.High:
		over = effective - r.High
	case effective < r.Low:
		over = effective - r.Low
	}
	return Outcome{min(max(over, -MostOver), MostOver), held}
}

// Say is what is said with an advice.
type Say int

// What may be said.
const (
	SayStay Say = iota
	SayUp
	SayOneMore
	SayRestLonger
	SayLighter
	SayFormLighter
	SayFormLeast
	SayFormEnds
	SayDense
	SayWritten
	SayFindHeavier
	SayFindLighter
	SayFindAgain
	SayFound
	SayLimit
	SayEnough
	SayDone
	sayings
)

var said = [sayings]string{
	SayStay:        "The same again.",
	SayUp:          "More than the band: the next mark up.",
	SayOneMore:     "More than the band, and the next mark is too much: one rep more.",
	SayRestLonger:  "A little short: the same, after half as much rest again.",
	SayLighter:     "Well short of the band: lighter, the same reps.",
	SayFormLighter: "Form went before the muscle: lighter, the same reps.",
	SayFormLeast:   "Form went before the muscle, and this is the lightest here: slower, and stop when it goes.",
	SayFormEnds:    "Form ended it. That is a normal end of a slot.",
	SayDense:       "The same: dense work does not go up within a session. Up next time.",
	SayWritten:     "As it is written.",
	SayFindHeavier: "Easy: a heavier one, until it is hard with 3 left.",
	SayFindLighter: "Too much to find a load with: a lighter one.",
	SayFindAgain:   "That is about it: once more to be sure.",
	SayFound:       "Found: this is the load.",
	SayLimit:       "The last set: as far as form holds.",
	SayEnough:      "Enough of this: caps, joints or the ten hard sets of a group are reached.",
	SayDone:        "The slot is done.",
}

// Words is what is said.
func (s Say) Words() string { return said[s] }

// Sayings are the words of every advice, by its number.
func Sayings() []string { return said[:] }

// Move is an advice: where the slot stands then, what to aim at, and why.
type Move struct {
	Next    State `json:"next"`
	Low     int   `json:"low"` // reps to aim at
	High    int   `json:"high"`
	Reserve int   `json:"reserve"`
	RestS   int   `json:"rest_s"`
	Say     Say   `json:"say"`           // which of the sayings
	End     bool  `json:"end,omitempty"` // no further set
}

// How far one set moves the load.
const (
	upFrom     = 2 // over the band
	downFrom   = 3 // under it
	farOver    = 4 // while a load is looked for, from where two marks are gone up
	longerRest = 1.5
	mostStrike = 2
)

// Begin is where a slot begins; first: nobody knows its load.
func Begin(c *Slot, first bool) State {
	s := State{Mark: c.mark(c.Rows[0].Mark)}
	if first {
		s.First = 1
	}
	return s
}

func (c *Slot) mark(i int) int { return min(max(i, 0), len(c.Marks)-1) }

// done is how many sets of the slot are done before a state's.
func (c *Slot) done(s State) (n int) {
	for i := range c.Rows[:s.Row] {
		n += c.Rows[i].Sets
	}
	return n + s.Set
}

// after is the set after a state's; false where it was the last.
func (c *Slot) after(s State) (State, bool) {
	if s.Set+1 < c.Rows[s.Row].Sets {
		s.Set++
		return s, true
	}
	s.Row, s.Set = s.Row+1, 0
	return s, s.Row < len(c.Rows)
}

// RepsAt are the effective reps to expect with another load from those done with one, by
// Epley's estimate, reps to the limit over 30 (Epley 1985, "Poundage chart").
func RepsAt(effective, reserve int, from, to float64) int {
	if !(from > 0) || !(to > 0) {
		return effective // nothing is carried, or nobody knows what
	}
	return max(0, int(30*(from/to*(1+float64(effective+reserve)/30)-1)+1e-9)-reserve)
}

// Next is what to do after a set, in the order of reasons: form, a first contact, dense work,
// what is written, the band, and limits over all. Pain and red flags come before it.
func Next(c *Slot, s State, o Outcome) Move {
	row := &c.Rows[s.Row]
	next, more := c.after(s)
	m := Move{Next: s, Low: row.Low, High: row.High, Reserve: row.Reserve, RestS: row.RestS, Say: SayStay}
	switch {
	case !o.Held:
		c.form(&m, s, o)
	case s.First > 0:
		c.find(&m, s, o)
	case c.Written:
		m.Say = SayWritten
	default:
		c.band(&m, s, o)
	}
	if m.End {
		return m
	}
	if !more {
		m.End, m.Say = true, SayDone
		return m
	}
	if c.done(next) >= c.Left {
		m.End, m.Say = true, SayEnough
		return m
	}
	m.Next.Row, m.Next.Set = next.Row, next.Set
	if next.Row != s.Row {
		c.turn(&m, next.Row)
	}
	return m
}

// turn goes over to another row: its reps, its reserve, its load as far as it was planned
// from the row before.
func (c *Slot) turn(m *Move, to int) {
	was, is := &c.Rows[to-1], &c.Rows[to]
	m.Low, m.High, m.Reserve = is.Low, is.High, is.Reserve
	if c.Written {
		m.Next.Mark = c.mark(is.Mark)
	} else if is.Mark != was.Mark { // as much lighter or heavier as it was planned to be
		m.Next.Mark = c.mark(m.Next.Mark + is.Mark - was.Mark)
	}
	if is.Reserve == 0 && (m.Say == SayStay || m.Say == SayWritten) {
		m.Say = SayLimit
	}
}

// form goes lighter, and ends the slot when it went twice.
func (c *Slot) form(m *Move, s State, o Outcome) {
	m.Next.Strikes++
	if m.Next.Strikes >= mostStrike {
		m.End, m.Say = true, SayFormEnds
		return
	}
	by := 1
	if o.Over < 0 {
		by = 2
	}
	m.Next.Mark, m.Say = max(s.Mark-by, c.Least), SayFormLighter
	if m.Next.Mark >= s.Mark {
		m.Next.Mark, m.Say = s.Mark, SayFormLeast
	}
}

// find looks for the load of a first contact: two sets that are about right tell it.
func (c *Slot) find(m *Move, s State, o Outcome) {
	top := len(c.Marks) - 1
	switch {
	case o.Over > 0 && s.Mark < top:
		by := 1
		if o.Over >= farOver {
			by = 2
		}
		m.Next.Mark, m.Say, m.Next.First = min(s.Mark+by, top), SayFindHeavier, 1
	case o.Over < 0 && s.Mark > 0:
		m.Next.Mark, m.Say, m.Next.First = s.Mark-1, SayFindLighter, 1
	case s.First == 1:
		m.Say, m.Next.First = SayFindAgain, 2
	default:
		m.Say, m.Next.First = SayFound, 0
	}
}

// band holds a set against its band.
func (c *Slot) band(m *Move, s State, o Outcome) {
	row := &c.Rows[s.Row]
	switch {
	case o.Over >= upFrom && c.Dense:
		m.Say = SayDense
	case o.Over >= upFrom:
		at := row.High + o.Over
		if s.Mark+1 < len(c.Marks) && RepsAt(at, row.Reserve, c.Marks[s.Mark], c.Marks[s.Mark+1]) >= row.Low {
			m.Next.Mark, m.Say = s.Mark+1, SayUp
			return
		}
		m.Low, m.High, m.Say = row.Low+1, row.High+1, SayOneMore
	case o.Over <= -downFrom:
		at, middle := max(0, row.Low+o.Over), (row.Low+row.High)/2
		to := s.Mark
		for to > c.Least && RepsAt(at, row.Reserve, c.Marks[s.Mark], c.Marks[to]) < middle {
			to--
		}
		m.Next.Mark, m.Say = to, SayLighter
		if to >= s.Mark {
			m.Next.Mark, m.Say, m.RestS = s.Mark, SayRestLonger, int(longerRest*float64(row.RestS))
		}
	case o.Over < 0:
		m.Say, m.RestS = SayRestLonger, int(longerRest*float64(row.RestS))
	}
}
