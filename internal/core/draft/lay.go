package draft

import (
	"cmp"
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
	"musculus/internal/core/week"
)

// Laid is a composed week as sessions: what is on the board after it is taken.
type Laid struct {
	Sessions []plan.Planned // all of the week, those that stay as they are too
	Changed  []bool         // by session
	Removed  []uuid.UUID    // sessions of the board that are empty then
}

// Finish is what turns a composed week into sessions beside the client.
type Finish struct {
	Known []series.Known                          // what her log says of loads
	Seen  func(movement.SetUp) []string           // faults last seen, by id; nil: none
	NewID func() uuid.UUID                        // of a session or slot that is new
	Bare  bool                                    // without loads and cues: it is only counted
	Name  func(*week.Trainee, []plan.Slot) string // of a new session; nil: the weekday
}

// Lay lays a composed week on the board: slots in the client's order, rows by rule, loads
// from her log, cues. What is there already as it should be keeps its id, loads and cues;
// nothing that stays is touched.
func (d *Dated) Lay(p *Problem, way Way, w *Week, f *Finish) Laid {
	var out Laid
	board := d.ask.Board
	if board == nil {
		board = &week.Week{}
	}
	whys := Whys(p, way, w)
	used := map[int]bool{}
	for at := range d.On {
		if d.Session[at] >= 0 {
			used[d.Session[at]] = true
		}
		if s, changed, ok := d.layDay(at, w.Days[at], whys[at], board, f); ok {
			out.Sessions, out.Changed = append(out.Sessions, s), append(out.Changed, changed)
		} else if k := d.Session[at]; k >= 0 {
			out.Removed = append(out.Removed, board.Sessions[k].ID)
		}
	}
	for k := range board.Sessions {
		if used[k] {
			continue
		}
		s := board.Sessions[k]
		stay := d.stays(&s)
		if len(stay) == 0 && !d.ask.whole(&s) {
			out.Removed = append(out.Removed, s.ID)
			continue
		}
		changed := len(stay) != len(s.Slots)
		s.Slots = stay
		out.Sessions, out.Changed = append(out.Sessions, s), append(out.Changed, changed)
	}
	slices.SortStableFunc(out.Removed, func(a, b uuid.UUID) int { return slices.Compare(a[:], b[:]) })
	return out
}

// stays are the slots of a board's session that stay.
func (d *Dated) stays(s *plan.Planned) (out []plan.Slot) {
	for i := range s.Slots {
		if d.ask.locks(s, i) {
			out = append(out, s.Slots[i])
		}
	}
	return out
}

// layDay makes the session of a day; false where none is left.
func (d *Dated) layDay(at int, slots []Slot, whys []Why, board *week.Week, f *Finish) (s plan.Planned, changed, ok bool) {
	t := d.client.Trainee
	var was []plan.Slot
	if k := d.Session[at]; k >= 0 {
		s = board.Sessions[k]
		was = s.Slots
		s.Slots = slices.Clone(d.stays(&s))
		if d.Days[at].Closed {
			return board.Sessions[k], false, true
		}
	} else {
		s = plan.Planned{On: d.On[at], Session: plan.Session{WarmUpMin: usualWarmUpMin}}
	}
	type placed struct {
		setUp movement.SetUp
		sets  int
		loses float64
	}
	var all []placed
	for _, k := range d.ask.Keep {
		if k.On == d.On[at] {
			all = append(all, placed{k.SetUp, k.Sets, 1e9})
		}
	}
	for i, o := range slots {
		all = append(all, placed{d.Candidates[o.Candidate].setUp, o.Sets, whys[i].Loses})
	}
	if len(all)+len(s.Slots) == 0 {
		return s, true, false
	}
	slices.SortStableFunc(all, func(a, b placed) int { return cmp.Compare(b.loses, a.loses) })
	for _, o := range all {
		s.Slots = append(s.Slots, d.slot(o.setUp, o.sets, was, f))
	}
	t.Order(&s.Session)
	if p := d.ask.Pattern; p != nil && p.Combos != NoPairs && !f.Bare {
		p.Arrange(t, &s.Session, f.NewID)
	}
	s.Combos = slices.DeleteFunc(slices.Clone(s.Combos), func(c plan.Combo) bool {
		return !slices.ContainsFunc(s.Slots, func(o plan.Slot) bool { return o.Combo == c.ID })
	})
	if d.Session[at] < 0 {
		s.ID, s.Name = f.NewID(), d.On[at].Weekday()
		if f.Name != nil {
			s.Name = f.Name(t, s.Slots)
		}
	}
	return s, !same(was, s.Slots), true
}

// same says whether a session's slots are as they were.
func same(a, b []plan.Slot) bool {
	return slices.EqualFunc(a, b, func(x, y plan.Slot) bool { return x.ID == y.ID && x.Same(&y) && x.Combo == y.Combo })
}

// slot prescribes a set-up; one that is there as it should be stays as it is, with the same
// id where only its sets change.
func (d *Dated) slot(s movement.SetUp, sets int, was []plan.Slot, f *Finish) plan.Slot {
	t := d.client.Trainee
	for i := range was {
		o := &was[i]
		if o.SetUp.Movement != s.Movement || o.SetUp.Key() != s.Key() || o.Locked {
			continue
		}
		if o.Sets() == sets && o.Combo == "" {
			return *o
		}
		out := *o
		out.Combo, out.Rows = "", d.rows(s, sets, f)
		return out
	}
	out := plan.Slot{SetUp: s, Rows: d.rows(s, sets, f)}
	if f.NewID != nil {
		out.ID = f.NewID()
	}
	if f.Bare {
		return out
	}
	var seen []string
	if f.Seen != nil {
		seen = f.Seen(s)
	}
	for _, cue := range week.CuesFor(s, t, seen) {
		out.Cues = append(out.Cues, cue.Fault.Cue)
	}
	return out
}

// rows are a slot's rows with their load.
func (d *Dated) rows(s movement.SetUp, sets int, f *Finish) []plan.Row {
	t := d.client.Trainee
	rows := t.Prescribe(s, sets)
	for i := range rows {
		if f.NewID != nil {
			rows[i].ID = f.NewID()
		}
		rows[i].Load = nil
	}
	rows[0].Load = dose.ToFind()
	if f.Bare {
		return rows
	}
	first := &rows[0]
	ask := &series.Ask{SetUp: s, Room: t.Room, Yardstick: t.Yardstick, Stance: t.Stance, Low: first.RepsLow, High: first.RepsHigh,
		Reserve: first.Reserve}
	if t.Aims != nil {
		ask.Today = t.Aims.Today
	}
	if seed := t.Seed(ask, f.Known); seed.PerHand > 0 {
		first.Load = dose.Carried(t.Floor().Rack(s), seed.PerHand)
	}
	return rows
}

// Board counts a composed week as the board does: minutes of each day of the problem.
func (d *Dated) Board(p *Problem, way Way, w *Week) []float64 {
	out := make([]float64, len(d.On))
	laid := d.Lay(p, way, w, &Finish{Bare: true, NewID: func() uuid.UUID { return uuid.Nil }})
	for i := range laid.Sessions {
		if at := slices.Index(d.On, laid.Sessions[i].On); at >= 0 {
			c := d.client.Trainee.Count(&laid.Sessions[i].Session)
			out[at] += c.Minutes
		}
	}
	return out
}
