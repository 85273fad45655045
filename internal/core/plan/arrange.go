package plan

import (
	"fmt"
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// Arrange is one step of laying a session out: what is done to which slot, and in it
// to which row. What is new takes its ids from the client's.
type Arrange struct {
	Do   Command   `json:"do" enum:"join,part,each,alike,hands,split,merge,move,copy,remove,back_off,last_method"`
	Slot uuid.UUID `json:"slot"`
	Row  int       `json:"row,omitempty" minimum:"0" maximum:"40" doc:"of split, merge, move, copy, remove: counted from 0"`
	By   int       `json:"by,omitempty" minimum:"-8" maximum:"8" doc:"of move: rows down"`
	// Method is what the last set becomes.
	Method string `json:"method,omitempty" maxLength:"40" doc:"of last_method"`
	Hands  []Hand `json:"hands,omitempty" maxItems:"40" doc:"of hands: how each set is done; fewer than sets: the last holds on"`
	// IDs are for what is new, in the order it is made.
	IDs []uuid.UUID `json:"ids" maxItems:"40"`
}

// Command is what an Arrange does.
type Command string

// The commands: slots in turns with the next one and apart again; a row a set, all
// sets like the first row's, each set by its hand; the last set of a row as a row of
// its own, two rows as one, a row elsewhere, once more, away; a lighter row after the
// others; the last set by a method.
const (
	Join       Command = "join"
	Part       Command = "part"
	EachSet    Command = "each"
	Alike      Command = "alike"
	ByHands    Command = "hands"
	Split      Command = "split"
	Merge      Command = "merge"
	MoveRow    Command = "move"
	CopyRow    Command = "copy"
	RemoveRow  Command = "remove"
	BackOff    Command = "back_off"
	LastMethod Command = "last_method"
)

// Hand is how a row is done where it is not as the slot says.
type Hand struct {
	Movement string            `json:"movement,omitempty" maxLength:"60"`
	Settings movement.Settings `json:"settings,omitempty"`
}

// A back-off row: strict ones at a part of the first load.
const (
	backOffLow, backOffHigh = 15, 20
	backOffShare            = 0.6
)

// Arrange does a command. The session is the caller's to keep: what it held before
// stays as it was. An error names the field of the Arrange that is wrong; nothing has
// changed then.
func (s *Session) Arrange(a *Arrange, caps person.Caps) *movement.FieldError {
	i := slices.IndexFunc(s.Slots, func(x Slot) bool { return x.ID == a.Slot })
	if i < 0 {
		return &movement.FieldError{Field: "slot", Reason: "there is no such slot in this session"}
	}
	next := &arranging{ids: a.IDs}
	s.Slots, s.Combos = slices.Clone(s.Slots), slices.Clone(s.Combos)
	switch a.Do {
	case Join:
		return s.join(i, caps, next)
	case Part:
		s.part(i, caps)
		return nil
	}
	slot := s.Slots[i]
	fault := slot.arrange(a, next)
	if fault == nil && len(slot.Rows) > MostRows {
		fault = &movement.FieldError{Field: "do", Reason: fmt.Sprintf("it would be %d rows, more than %d", len(slot.Rows), MostRows)}
	}
	if fault == nil {
		s.Slots[i] = slot
	}
	return fault
}

// arranging hands out the ids for what is new.
type arranging struct{ ids []uuid.UUID }

func (a *arranging) id() (id uuid.UUID) {
	if len(a.ids) > 0 {
		id, a.ids = a.ids[0], a.ids[1:]
	}
	return id // the zero id is named when it is kept
}

// join does a slot in turns with the next one, each with whom it already is in turns.
// Between the members there is no rest but for what the caps ask for.
func (s *Session) join(i int, caps person.Caps, next *arranging) *movement.FieldError {
	if i+1 >= len(s.Slots) {
		return &movement.FieldError{Field: "slot", Reason: "it is the last one: there is none to be done in turns with"}
	}
	if s.Joined(i, i+1) {
		return nil
	}
	first, _ := s.Members(i)
	_, last := s.Members(i + 1)
	here, after := s.ComboOf(s.Slots[i].Combo), s.ComboOf(s.Slots[i+1].Combo)
	combo := Combo{BetweenS: caps.MinRestS, AfterS: s.Slots[last].First().RestS}
	if combo.AfterS == 0 {
		combo.AfterS = dose.PlainRestS(caps)
	}
	for _, was := range []*Combo{here, after} { // the later one's rests are what follows now
		if was != nil {
			combo.BetweenS, combo.Loads = max(combo.BetweenS, was.BetweenS), was.Loads
		}
	}
	if after != nil {
		combo.AfterS = after.AfterS
	}
	switch {
	case here != nil:
		combo.ID = here.ID
	case after != nil:
		combo.ID = after.ID
	default:
		combo.ID = next.id().String()
	}
	s.Combos = slices.DeleteFunc(s.Combos, func(c Combo) bool { return c.ID == s.Slots[i].Combo || c.ID == s.Slots[i+1].Combo })
	s.Combos = append(s.Combos, combo)
	for j := first; j <= last; j++ {
		s.Slots[j].Combo = combo.ID
	}
	return nil
}

// part takes the combo of a slot apart; each member has rests of its own again.
func (s *Session) part(i int, caps person.Caps) {
	id := s.Slots[i].Combo
	if id == "" {
		return
	}
	s.Combos = slices.DeleteFunc(s.Combos, func(c Combo) bool { return c.ID == id })
	for j := range s.Slots {
		if s.Slots[j].Combo != id {
			continue
		}
		s.Slots[j].Combo = ""
		s.Slots[j].Each(func(r *Row) {
			if r.RestS == 0 {
				r.RestS = dose.PlainRestS(caps)
			}
		})
	}
}

// arrange does a command to the rows of a slot. Each row says its load while they
// move; what is as the row above is left out again.
func (s *Slot) arrange(a *Arrange, next *arranging) *movement.FieldError {
	rows := s.edit()
	if a.Row < 0 || a.Row >= len(rows) {
		return &movement.FieldError{Field: "row", Reason: fmt.Sprintf("there are %d rows", len(rows))}
	}
	for k := range rows {
		rows[k].Load = s.Asked(k)
	}
	last := len(rows) - 1
	switch a.Do {
	case EachSet, ByHands:
		if n := s.Sets(); n > MostSlotSets { // half-typed: not so many rows are made
			return &movement.FieldError{Field: "do", Reason: fmt.Sprintf("%d sets are more than %d", n, MostSlotSets)}
		}
	}
	switch a.Do {
	case EachSet:
		s.Rows = s.bySet(next, func(int, *Row) {})
	case ByHands:
		if len(a.Hands) == 0 {
			return &movement.FieldError{Field: "hands", Reason: "no hand is said"}
		}
		s.Rows = s.bySet(next, func(n int, r *Row) {
			h := a.Hands[min(n, len(a.Hands)-1)]
			r.SetUp, r.own = nil, asked{movement: h.Movement, settings: h.Settings}
		})
		s.Rows = runsOf(s.Rows)
	case Alike:
		rows[0].Sets = s.Sets()
		s.Rows = rows[:1]
	case Split:
		s.split(a.Row, next)
	case Merge:
		if a.Row == 0 {
			return &movement.FieldError{Field: "row", Reason: "the first row has none above it"}
		}
		rows[a.Row-1].Sets += rows[a.Row].Sets
		s.Rows = slices.Delete(rows, a.Row, a.Row+1)
	case MoveRow:
		to := min(max(a.Row+a.By, 0), last)
		one := rows[a.Row]
		s.Rows = slices.Insert(slices.Delete(rows, a.Row, a.Row+1), to, one)
	case CopyRow:
		s.Rows = slices.Insert(rows, a.Row+1, again(rows[a.Row], next))
	case RemoveRow:
		if last == 0 {
			return &movement.FieldError{Field: "row", Reason: "it is the only row of its slot"}
		}
		s.Rows = slices.Delete(rows, a.Row, a.Row+1)
	case BackOff:
		one := again(rows[0], next)
		one.Sets, one.RepsLow, one.RepsHigh = 1, backOffLow, backOffHigh
		one.SecondsLow, one.SecondsHigh, one.Method = 0, 0, dose.Use{}
		if person.CarryOf(s.SetUp) != person.BodyWeight { // of which there are no shares
			one.Load = &dose.Load{Share: backOffShare}
		}
		s.Rows = append(rows, one)
	case LastMethod:
		if rows[last].Sets > 1 {
			s.split(last, next)
		}
		s.Rows[len(s.Rows)-1].Method = dose.Use{ID: a.Method}
	default:
		return &movement.FieldError{Field: "do", Reason: fmt.Sprintf("there is no command %q", a.Do)}
	}
	s.sayLess()
	return nil
}

// again is a row once more: everything but its id.
func again(r Row, next *arranging) Row {
	r.ID = next.id()
	return r
}

// split makes the last set of a row a row of its own, the same in everything.
func (s *Slot) split(row int, next *arranging) {
	if s.Rows[row].Sets < 2 {
		return
	}
	one := again(s.Rows[row], next)
	one.Sets = 1
	s.Rows[row].Sets--
	s.Rows = slices.Insert(s.Rows, row+1, one)
}

// runsOf makes one row of those next to each other that differ only in their id.
func runsOf(rows []Row) (out []Row) {
	for i := range rows {
		if n := len(out) - 1; n >= 0 && rows[i].like(&out[n]) {
			out[n].Sets += rows[i].Sets
			continue
		}
		out = append(out, rows[i])
	}
	return out
}

// like says whether two rows that are typed the same way differ in no more than how
// many sets they have.
func (r *Row) like(o *Row) bool {
	x, y := r.Dose, o.Dose
	x.Sets, x.Load, y.Sets, y.Load = 0, nil, 0, nil
	return x == y && r.Load.Same(o.Load) && r.own.same(o.own)
}

// bySet writes a row a set, changed.
func (s *Slot) bySet(next *arranging, change func(n int, r *Row)) (out []Row) {
	n := 0
	for k := range s.Rows {
		for j := range max(s.Rows[k].Sets, 1) {
			r := s.Rows[k]
			if j > 0 {
				r = again(r, next)
			}
			r.Sets = 1
			change(n, &r)
			out = append(out, r)
			n++
		}
	}
	return out
}

// sayLess leaves a load out where it is that of the row above.
func (s *Slot) sayLess() {
	for k := len(s.Rows) - 1; k > 0; k-- {
		if above := s.Rows[k-1].Load; s.Rows[k].Load.Same(above) {
			s.Rows[k].Load = nil
		}
	}
}
