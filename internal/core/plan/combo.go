package plan

import (
	"fmt"
	"slices"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// Combo is slots next to each other done in turns, round by round.
type Combo struct {
	ID       string `json:"id" maxLength:"40"`
	BetweenS int    `json:"between_s" doc:"rest between members, s; 0: the walk"`
	AfterS   int    `json:"after_s" doc:"rest after a round, s"`
	Loads    Loads  `json:"loads,omitempty" enum:",own,one" doc:"each its own (absent), or one load for all"`
}

// MostMembers is how many slots a combo has at most.
const MostMembers = 6

// CountWords names a combo by how many are in turns: a pair, three in a row.
func CountWords(members int) string {
	switch members {
	case 0, 1:
		return ""
	case 2:
		return "a pair"
	}
	return []string{"three", "four", "five", "six"}[min(members-3, 3)] + " in a row"
}

// Loads says how the loads of a combo are set.
type Loads string

// The ways.
const (
	OwnLoads Loads = "own"
	OneLoad  Loads = "one"
)

// ComboOf finds a combo by its id, nil for none.
func (s *Session) ComboOf(id string) *Combo {
	if i := slices.IndexFunc(s.Combos, func(c Combo) bool { return c.ID == id }); i >= 0 {
		return &s.Combos[i]
	}
	return nil
}

// Joined says whether two neighbouring slots are done in turns.
func (s *Session) Joined(i, j int) bool {
	return s.Slots[i].Combo != "" && s.Slots[i].Combo == s.Slots[j].Combo
}

// Members are the first and the last slot of the combo a slot is in, itself where it
// is in none.
func (s *Session) Members(i int) (first, last int) {
	first, last = i, i
	for first > 0 && s.Joined(first-1, first) {
		first--
	}
	for last+1 < len(s.Slots) && s.Joined(last, last+1) {
		last++
	}
	return first, last
}

// Turns is what a combo's members are to each other.
type Turns struct {
	Kind  string // as caps name it: superset_same, superset_opposing, three_in_row; in_turns; "" for no combo
	Place int    // how many members of its own group come before it
	Group int    // how many of its group there are
}

// InTurns is the kind of a combo whose groups neither are one nor alternate.
const InTurns = "in_turns"

// TurnsOf says what a slot is in its combo.
func (s *Session) TurnsOf(i int) Turns {
	first, last := s.Members(i)
	var out Turns
	if first == last {
		return out
	}
	return s.turns(first, last, i)
}

func (s *Session) turns(first, last, i int) (out Turns) {
	all, alternate, most := map[string]int{}, true, 0
	for j := first; j <= last; j++ {
		g := GroupOf(s.Slots[j].SetUp)
		if g == GroupOf(s.Slots[i].SetUp) {
			if j < i {
				out.Place++
			}
			out.Group++
		}
		all[g]++
		most = max(most, all[g])
		alternate = alternate && (j == first || g != GroupOf(s.Slots[j-1].SetUp))
	}
	switch {
	case len(all) == 1 && most >= 3:
		out.Kind = dose.ThreeInRow
	case len(all) == 1:
		out.Kind = dose.SupersetSame
	case alternate:
		out.Kind = dose.Opposing
	default:
		out.Kind = InTurns
	}
	return out
}

// Join is what slot i and the next one would be in turns, each with the combo it is
// already in.
func (s *Session) Join(i int) Turns {
	first, _ := s.Members(i)
	_, last := s.Members(i + 1)
	return s.turns(first, last, i+1)
}

// Words names a kind of combo, "" for none.
func (t Turns) Words() string {
	return map[string]string{dose.SupersetSame: "in turns, same muscle", dose.Opposing: "in turns, opposing muscles",
		dose.ThreeInRow: "in turns, same muscle", InTurns: "in turns"}[t.Kind]
}

// Load is what a combo makes of a member's load, 1 for nothing: the second of a
// group is 15 % lighter, later ones 25 %, opposing ones are unchanged.
func (t Turns) Load() float64 {
	if t.Kind == dose.Opposing {
		return 1
	}
	return []float64{1, 0.85, 0.75}[min(t.Place, 2)]
}

// Credit is what a set counts by its place in the combo: from three of a group on
// the later ones less.
func (t Turns) Credit() float64 {
	if t.Group < 3 {
		return 1
	}
	return []float64{1, 0.9, 0.8}[min(t.Place, 2)]
}

// RestAfter is the rest after a slot's sets of a row, s; inside a combo its own.
func (s *Session) RestAfter(i, row int) int {
	first, last := s.Members(i)
	if first == last {
		if row < len(s.Slots[i].Rows) {
			return s.Slots[i].Rows[row].RestS
		}
		return 0
	}
	c := s.ComboOf(s.Slots[i].Combo)
	switch {
	case c == nil:
		return 0
	case i == last:
		return c.AfterS
	}
	return c.BetweenS
}

// RestSeconds is all rests of a session but the one after its last set, s. In a
// combo the members that still have sets take turns; unequal ones end early, and a gap
// lasts the longer of its rest and of what has to be changed from one slot to the other;
// nil: nothing.
func (s *Session) RestSeconds(changeS func(from, to int) int) float64 {
	total, last := 0, 0
	add := func(rest int) { total, last = total+rest, rest }
	for first := 0; first < len(s.Slots); {
		_, end := s.Members(first)
		if first == end {
			for k := range s.Slots[first].Rows {
				r := &s.Slots[first].Rows[k]
				for range r.Each() {
					add(r.RestS)
				}
			}
			first = end + 1
			continue
		}
		rounds, c := 0, s.ComboOf(s.Slots[first].Combo)
		if c == nil {
			c = &Combo{}
		}
		for i := first; i <= end; i++ {
			rounds = max(rounds, s.Slots[i].Sets())
		}
		gap := func(from, to, rest int) {
			if changeS != nil && from != to {
				rest = max(rest, changeS(from, to))
			}
			add(rest)
		}
		before := -1 // the member before, and the rest that follows it
		rest := 0
		for n := range rounds {
			for i := first; i <= end; i++ {
				if s.Slots[i].Sets() <= n {
					continue
				}
				if before >= 0 {
					gap(before, i, rest)
				}
				before, rest = i, c.BetweenS
			}
			rest = c.AfterS
		}
		if before >= 0 {
			add(c.AfterS)
		}
		first = end + 1
	}
	return float64(total - last)
}

// checkCombos holds combos to the caps by what their members are, not by what they
// are called.
func (s *Session) checkCombos(caps person.Caps) []*movement.FieldError {
	var out []*movement.FieldError
	fault := func(at, reason string, args ...any) {
		out = append(out, &movement.FieldError{Field: at, Reason: fmt.Sprintf(reason, args...)})
	}
	seen := map[string]bool{}
	for n := range s.Combos {
		c, at := &s.Combos[n], fmt.Sprintf("combos[%d].", n)
		if c.ID == "" || len([]rune(c.ID)) > longestCombo || seen[c.ID] {
			fault(at+"id", "a combo has an id of its own, of 1…%d characters", longestCombo)
		}
		seen[c.ID] = true
		for _, rest := range []struct {
			field string
			s     int
		}{{"between_s", c.BetweenS}, {"after_s", c.AfterS}} {
			if rest.s < 0 || rest.s > dose.MostRestS {
				fault(at+rest.field, "%d s is outside 0…%d s", rest.s, dose.MostRestS)
			}
		}
		if c.Loads != "" && c.Loads != OwnLoads && c.Loads != OneLoad {
			fault(at+"loads", "%q is neither own nor one", string(c.Loads))
		}
	}
	for first := 0; first < len(s.Slots); {
		_, last := s.Members(first)
		if id := s.Slots[first].Combo; id != "" {
			out = append(out, s.checkCombo(first, last, caps)...)
		}
		first = last + 1
	}
	return out
}

// checkCombo holds one combo to the caps; its rests are told where it is said.
func (s *Session) checkCombo(first, last int, caps person.Caps) []*movement.FieldError {
	fault := func(field, reason string, args ...any) []*movement.FieldError {
		return []*movement.FieldError{{Field: field, Reason: fmt.Sprintf(reason, args...)}}
	}
	at := fmt.Sprintf("slots[%d].combo", first)
	n := slices.IndexFunc(s.Combos, func(c Combo) bool { return c.ID == s.Slots[first].Combo })
	if n < 0 {
		return fault(at, "there is no such combo in the session")
	}
	t := s.TurnsOf(last)
	rest := caps.MinRestS
	switch {
	case last == first:
		return nil
	case last-first >= MostMembers:
		return fault(at, "%d in turns are more than %d", last-first+1, MostMembers)
	case (t.Kind == dose.SupersetSame || t.Kind == dose.ThreeInRow) && slices.Contains(caps.Closed, dose.SupersetSame):
		return fault(at, "a combo of one muscle group is closed by this client’s caps")
	case s.mostOfAGroup(first, last) >= 3 && slices.Contains(caps.Closed, dose.ThreeInRow):
		return fault(at, "three or more of one muscle group in turns are closed by this client’s caps")
	}
	for _, r := range []struct {
		field string
		s     int
	}{{"between_s", s.Combos[n].BetweenS}, {"after_s", s.Combos[n].AfterS}} {
		if r.s < rest {
			return fault(fmt.Sprintf("combos[%d].%s", n, r.field), "this client's caps ask for rests of at least %d s", rest)
		}
	}
	return nil
}

func (s *Session) mostOfAGroup(first, last int) (most int) {
	for i := first; i <= last; i++ {
		most = max(most, s.turns(first, last, i).Group)
	}
	return most
}

// ComboAt is the first slot of the combo that a fault's field is about.
func (s *Session) ComboAt(field string) int {
	var n int
	if _, err := fmt.Sscanf(field, "slots[%d]", &n); err == nil && n < len(s.Slots) {
		return n
	}
	if _, err := fmt.Sscanf(field, "combos[%d]", &n); err == nil && n < len(s.Combos) {
		if i := slices.IndexFunc(s.Slots, func(x Slot) bool { return x.Combo == s.Combos[n].ID }); i >= 0 {
			return i
		}
	}
	return 0
}
