package week

import (
	"fmt"

	"musculus/internal/core/arm"
	"musculus/internal/core/stance"
)

// Term is one addend of a head's effective sets.
type Term struct {
	Session, Slot int // indices, −1 for what is done elsewhere
	Words         string
	Value         float64
	Rules         []stance.Term // of the stance that tilt the set-up's bias for the head
}

// leastTerm is below what is worth a line.
const leastTerm = 0.05

// Terms lists what a head's sets in a week add up from, each with its factors;
// together they are the ledger's total, but for addends too small to tell.
func (w *Week) Terms(t *Trainee, l *Ledger, h arm.HeadIndex) []Term {
	var out []Term
	for i := range w.Sessions {
		s := &w.Sessions[i]
		for j := range s.Slots {
			slot, value := &s.Slots[j], l.Sessions[i].Slots[j].Heads[h].Mid
			if value < leastTerm {
				continue
			}
			method, efforts := slot.Dose.Method.Credit(s.Place(j)), slot.Dose.Efforts()
			words := fmt.Sprintf("%s: %s × %.2f", names(slot.SetUp), setsWords(slot.Dose.Sets), value/method/efforts)
			if m := slot.Dose.Method.Words(); method != 1 {
				words += fmt.Sprintf(" × %.2g (%s)", method, m)
			}
			if all := float64(slot.Dose.Sets); efforts != all {
				words += fmt.Sprintf(" × %.2f (effort)", efforts/all)
			}
			out = append(out, Term{i, j, words, value, l.Sessions[i].Slots[j].Reading[h].Terms})
		}
	}
	if t.Aims == nil {
		return out
	}
	for _, e := range t.Aims.Elsewhere {
		slot := elsewhereSlot(e)
		if value := slot.count(t.memo(), 0).Heads[h].Mid; value >= leastTerm {
			out = append(out, Term{-1, -1, fmt.Sprintf("%sing elsewhere: %s × %.2f", e.Kind, setsWords(e.Sets), value/float64(e.Sets)), value, nil})
		}
	}
	return out
}

func setsWords(n int) string {
	if n == 1 {
		return "1 set"
	}
	return fmt.Sprintf("%d sets", n)
}
