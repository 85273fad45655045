package week

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
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
			turns, efforts := s.TurnsOf(j), slot.Efforts()
			sets, credited := float64(slot.Sets()), 0.0
			for k := range slot.Rows {
				credited += slot.Rows[k].Efforts() * slot.Rows[k].Method.Credit()
			}
			method := credited / efforts * turns.Credit()
			words := fmt.Sprintf("%s: %s × %.2f", names(slot.SetUp), setsWords(slot.Sets()), value/method/efforts)
			if method != 1 {
				words += fmt.Sprintf(" × %.2g (%s)", method, creditWords(slot, turns))
			}
			if slot.OneArm() {
				words += " (one arm alone: a half)"
			}
			if efforts != sets {
				words += fmt.Sprintf(" × %.2f (effort)", efforts/sets)
			}
			out = append(out, Term{i, j, words, value, l.Sessions[i].Slots[j].Reading[h].Terms})
		}
	}
	if t.Aims == nil {
		return out
	}
	for _, e := range t.Aims.Elsewhere {
		slot := elsewhereSlot(e)
		if value := t.memo().countSlot(&slot, plan.Turns{}).Heads[h].Mid; value >= leastTerm {
			out = append(
				out,
				Term{
					-1,
					-1,
					fmt.Sprintf("%sing elsewhere: %s × %.2f", e.Kind, setsWords(e.Sets), value/float64(e.Sets)),
					value,
					nil,
				},
			)
		}
	}
	return out
}

// TermsWords tells in a line what of the week gives a head the most, for the reasons of a finding.
func (w *Week) TermsWords(t *Trainee, l *Ledger, h arm.HeadIndex) string {
	const told = 4
	terms := w.Terms(t, l, h)
	slices.SortStableFunc(terms, func(a, b Term) int { return cmp.Compare(b.Value, a.Value) })
	var out []string
	for _, term := range terms[:min(told, len(terms))] {
		out = append(out, fmt.Sprintf("%s = %.1f", term.Words, term.Value))
	}
	if n := len(terms) - told; n > 0 {
		out = append(out, fmt.Sprintf("and %d more", n))
	}
	return strings.Join(out, "; ")
}

// HardWords tells which slots a muscle group's hard sets are in: "Reclined 45° curl 3, …".
func (w *Week) HardWords(group string) string {
	var out []string
	for i := range w.Sessions {
		for j := range w.Sessions[i].Slots {
			slot := &w.Sessions[i].Slots[j]
			if n := slot.HardSets(); n > 0 && plan.GroupOf(slot.SetUp) == group {
				out = append(out, fmt.Sprintf("%s %d", names(slot.SetUp), n))
			}
		}
	}
	if len(out) == 0 {
		return "none"
	}
	return strings.Join(out, ", ")
}

// JointTerms lists what a joint's load in a week adds up from: hard sets times the movement's
// score of the joint, per slot and set-up.
func (w *Week) JointTerms(j movement.Joint) []Term {
	var out []Term
	for i := range w.Sessions {
		for k := range w.Sessions[i].Slots {
			slot := &w.Sessions[i].Slots[k]
			hard, load := 0, 0
			for r := range slot.Rows {
				n := slot.Rows[r].HardSets()
				hard, load = hard+n, load+slot.PerArm(n*slot.SetUpIn(r).Joints().Of(j))
			}
			if load > 0 {
				out = append(out, Term{Session: i, Slot: k, Value: float64(load),
					Words: fmt.Sprintf("%s: %d hard × score %.3g", names(slot.SetUp), hard, float64(load)/float64(hard))})
			}
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

// creditWords names what makes a slot's sets count more or less: its methods, its
// combo.
func creditWords(s *plan.Slot, turns plan.Turns) string {
	var out []string
	for i := range s.Rows {
		if m := s.Rows[i].Method.Words(); m != "" && !slices.Contains(out, m) {
			out = append(out, m)
		}
	}
	if turns.Credit() != 1 {
		out = append(out, turns.Words())
	}
	return strings.Join(out, ", ")
}
