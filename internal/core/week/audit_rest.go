package week

import (
	"math"
	"slices"

	"musculus/internal/core/plan"
)

// standing is how a week stands: what every fix must lower, the gravest first, so
// that pressing fixes, in any order, comes to rest.
type standing struct {
	stops, warnings int
	cautions        int // notes that a joint asks for another setting: they go before any target
	distance        int // of the heads from their targets, in twentieths of an effective set
	notes           int
}

// perSet makes the distance whole numbers: what nearly equal weeks differ by must
// not decide once this way and once that way.
const perSet = 20

// under says whether a week stands better than another one.
func (s standing) under(o standing) bool {
	switch {
	case s.stops != o.stops:
		return s.stops < o.stops
	case s.warnings != o.warnings:
		return s.warnings < o.warnings
	case s.cautions != o.cautions:
		return s.cautions < o.cautions
	case s.distance != o.distance:
		return s.distance < o.distance
	}
	return s.notes < o.notes
}

// tally counts findings by how grave they are.
func (s *standing) tally(found []Found) {
	for i := range found {
		switch found[i].Severity {
		case Stop:
			s.stops++
		case Warn:
			s.warnings++
		default:
			s.notes++
		}
		if found[i].Severity == Note && found[i].Code == "modify" {
			s.cautions++
		}
	}
}

func countOf(found []Found, code string) (n int) {
	for i := range found {
		if found[i].Code == code {
			n++
		}
	}
	return n
}

// stands is how the week that was looked over stands.
func (a *auditor) stands() (s standing) {
	s.tally(a.out)
	for i := range a.own {
		if a.own[i].kept {
			if a.clashes { // told by the clash
				s.warnings -= a.own[i].late
			}
			s.stops, s.warnings, s.notes = s.stops+a.own[i].stops, s.warnings+a.own[i].warnings, s.notes+a.own[i].notes
			s.cautions += a.own[i].cautions
		}
	}
	s.distance = int(math.Round(perSet * a.distance))
	return s
}

// ownFindings is how many findings a session has of its own; kept ones are those of
// a week before and not looked for again.
type ownFindings struct {
	standing
	late int // of its warnings that it takes longer than the client has
	kept bool
}

// lowers says whether a fix leaves the week standing better than it found it. What
// the fix left as it was is neither counted nor looked over again.
func (a *auditor) lowers(f *Fix) bool {
	w, l := &f.Week, *a.ledger
	b := &auditor{week: w, t: a.t, shelf: a.shelf, ledger: &l, allowed: a.allowed, own: make([]ownFindings, len(w.Sessions))}
	for i := range w.Sessions {
		if countsAs(&w.Sessions[i], &a.week.Sessions[i]) {
			b.own[i] = ownFindings{a.own[i].standing, a.own[i].late, true}
		} else {
			l = l.recount(a.t, w, i, -1)
		}
	}
	b.look()
	if b.clashes && !a.clashes { // it would only be told otherwise
		return false
	}
	return b.stands().under(a.stood)
}

// countsAs says whether two sessions hold the same prescription in the same order.
func countsAs(p, o *plan.Planned) bool {
	if len(p.Slots) != len(o.Slots) || p.WarmUpMin != o.WarmUpMin || !slices.Equal(p.Combos, o.Combos) {
		return false
	}
	for j := range p.Slots {
		if p.Slots[j].Combo != o.Slots[j].Combo || !p.Slots[j].Same(&o.Slots[j]) {
			return false
		}
	}
	return true
}
