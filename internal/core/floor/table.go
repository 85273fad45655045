package floor

// Table is the advice on a slot made beforehand: the moves for every state it can come to and
// every outcome. Outcomes are counted form first: the held ones from −MostOver to +MostOver,
// then the others.
type Table struct {
	States []State `json:"states"` // the first one is where the slot begins
	Moves  []Move  `json:"moves"`  // each once
	// Of is the move for each state and outcome: Of[state·Outcomes + outcome].
	Of []int `json:"of"`
}

// Outcomes is how many outcomes a set can have.
const Outcomes = 2 * (2*MostOver + 1)

// Index is an outcome's place in a table.
func (o Outcome) Index() int {
	i := o.Over + MostOver
	if !o.Held {
		i += 2*MostOver + 1
	}
	return i
}

// outcomeAt is the outcome of a place.
func outcomeAt(i int) Outcome {
	const half = 2*MostOver + 1
	return Outcome{Over: i%half - MostOver, Held: i < half}
}

// TableOf makes the table of a slot from where it begins; only states that can be come to are
// in it.
func TableOf(c *Slot, from State) *Table {
	t := &Table{}
	at := map[State]int{}
	known := map[Move]int{}
	reach := func(s State) {
		if _, ok := at[s]; !ok {
			at[s] = len(t.States)
			t.States = append(t.States, s)
		}
	}
	reach(from)
	for i := 0; i < len(t.States); i++ {
		for o := range Outcomes {
			m := Next(c, t.States[i], outcomeAt(o))
			if !m.End {
				reach(m.Next)
			}
			k, ok := known[m]
			if !ok {
				k = len(t.Moves)
				known[m] = k
				t.Moves = append(t.Moves, m)
			}
			t.Of = append(t.Of, k)
		}
	}
	return t
}

// Next reads a move off the table; false where it has no such state.
func (t *Table) Next(s State, o Outcome) (Move, bool) {
	for i := range t.States {
		if t.States[i] == s {
			return t.Moves[t.Of[i*Outcomes+o.Index()]], true
		}
	}
	return Move{}, false
}

// Expected is what a free mark gives when the planned one is taken.
type Expected struct {
	Mark int `json:"mark"`
	Low  int `json:"low"` // reps to expect
	High int `json:"high"`
}

// nearTaken is how many marks to each side are told.
const nearTaken = 2

// Taken says, for each free mark near a state's, how many reps to expect with it, where the
// row's band is what its own load gives.
func Taken(c *Slot, s State, free func(mark int) bool) []Expected {
	out := []Expected{}
	row := &c.Rows[s.Row]
	for i := max(0, s.Mark-nearTaken); i <= min(len(c.Marks)-1, s.Mark+nearTaken); i++ {
		if i == s.Mark || free != nil && !free(i) {
			continue
		}
		low := RepsAt(row.Low, row.Reserve, c.Marks[s.Mark], c.Marks[i])
		high := RepsAt(row.High, row.Reserve, c.Marks[s.Mark], c.Marks[i])
		if high < 1 {
			continue
		}
		out = append(out, Expected{i, max(1, low), high})
	}
	return out
}
