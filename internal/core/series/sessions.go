package series

import (
	"math"
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/entry"
)

// mostWithin is how many reps, reserve included, still compare within one series, though they
// tell no load in kg outside of it; beyond 12 each is a thirtieth more.
const mostWithin = 20

// Within is what a set says could be lifted once, for comparing sessions of one series: as E1RM
// up to 12 reps and reserve, going on by 1/30 a rep up to 20.
func Within(load float64, reps, reserve int) (float64, bool) {
	n := reps + reserve
	if n <= MostReps {
		return E1RM(load, reps, reserve)
	}
	if reps < 1 || reserve < 0 || n > mostWithin || !(load > 0) || math.IsInf(load, 1) {
		return 0, false
	}
	return load * (factor(MostReps) + float64(n-MostReps)/30), true
}

// WithinFor is the load for reps with reserve at what could be lifted once, as Within tells it.
func WithinFor(e1rm float64, reps, reserve int) (float64, bool) {
	f, ok := Within(1, reps, reserve)
	if !ok || !(e1rm > 0) {
		return 0, false
	}
	return e1rm / f, true
}

// RepsAt is how many reps a load is good for with some in reserve, by what could be lifted once;
// 0 where not even one is.
func RepsAt(e1rm, load float64, reserve int) (reps int) {
	for n := 1; n+reserve <= mostWithin; n++ {
		if most, ok := Within(load, n, reserve); ok && most > e1rm*(1+1e-9) {
			break
		}
		reps = n
	}
	return reps
}

// Session is what one session of a series came to.
type Session struct {
	ID      uuid.UUID `json:"id"`
	On      day.Day   `json:"on"`
	E1RM    float64   `json:"e1rm"`             // of its first two clean sets, by one hand, kg; 0: it tells none
	Reserve float64   `json:"reserve"`          // told with them
	HandKg  float64   `json:"hand_kg"`          // that most of its sets were done with
	Sets    []SetDone `json:"sets"`             // of the weaker arm where both did it
	Hollow  string    `json:"hollow,omitempty"` // why it does not compare, "" where it does
}

// SetDone is one set of a session, as decisions read it.
type SetDone struct {
	Reps    int      `json:"reps"` // clean
	Reserve int      `json:"reserve"`
	HandKg  float64  `json:"hand_kg"`
	Form    bool     `json:"form,omitempty"` // ended because form went
	Faults  []string `json:"faults,omitempty"`
	Hollow  bool     `json:"hollow,omitempty"` // it feeds no series
}

// Around is what of a session's plan decides whether it compares.
type Around struct {
	Lighter bool // of a lighter week
}

// Why a session does not compare.
const (
	ForLighter  = "a lighter week"
	ForFinding  = "the load was being found"
	ForNoClean  = "no clean set that tells a load"
	ForWholeSet = "no clean reps"
)

// SessionsOf gathers one series' entries by session, the earliest first. around may be nil.
func SessionsOf(entries []entry.Entry, around func(session uuid.UUID) Around) (out []Session) {
	sorted := slices.Clone(entries)
	slices.SortStableFunc(sorted, func(a, b entry.Entry) int {
		if c := a.DoneAt.Compare(b.DoneAt); c != 0 {
			return c
		}
		return a.SetNo - b.SetNo
	})
	at := map[uuid.UUID]int{}
	by := map[uuid.UUID][]entry.Entry{}
	for _, e := range sorted {
		if e.Unsure || e.TwiceOf != nil {
			continue
		}
		if _, there := at[e.SessionID]; !there {
			at[e.SessionID] = len(out)
			out = append(out, Session{ID: e.SessionID, On: day.At(e.DoneAt)})
		}
		by[e.SessionID] = append(by[e.SessionID], e)
	}
	for i := range out {
		out[i].of(by[out[i].ID])
		var a Around
		if around != nil {
			a = around(out[i].ID)
		}
		switch {
		case a.Lighter:
			out[i].Hollow = ForLighter
		case out[i].E1RM == 0 && !slices.ContainsFunc(out[i].Sets, func(s SetDone) bool { return !s.Hollow }):
			out[i].Hollow = hollowOf(by[out[i].ID])
		case out[i].E1RM == 0:
			out[i].Hollow = ForNoClean
		case i == 0 && out[i].finds():
			out[i].Hollow = ForFinding
		}
	}
	return out
}

// hollowOf is why no set of a session feeds its series, as it was kept with the first.
func hollowOf(entries []entry.Entry) string {
	for i := range entries {
		if why := entries[i].Hollow; why != "" {
			return why
		}
	}
	return ForWholeSet
}

// finds says whether a first session went from load to load.
func (s *Session) finds() bool {
	return len(s.Sets) > 1 && math.Abs(s.Sets[0].HandKg-s.Sets[1].HandKg) > 1e-9
}

// firstSets are how many clean sets a session's point is the mean of.
const firstSets = 2

// of works a session out of its entries, in the order they were done.
func (s *Session) of(entries []entry.Entry) {
	var numbers []int
	by := map[int][]*entry.Entry{}
	for i := range entries {
		n := entries[i].SetNo
		if by[n] == nil {
			numbers = append(numbers, n)
		}
		by[n] = append(by[n], &entries[i])
	}
	loads := map[float64]int{}
	var sum, reserve float64
	clean := 0
	for _, n := range numbers {
		set, most, told, tells := weakest(by[n]), 0.0, 0.0, 0
		for _, e := range by[n] { // each arm tells for itself
			if e.Technical || e.Said().Hollow {
				continue
			}
			if x, ok := Within(e.LoadKg, e.Reps, e.Reserve); ok {
				most, told, tells = most+x, told+float64(e.Reserve), tells+1
			}
		}
		if tells > 0 && clean < firstSets {
			sum, reserve, clean = sum+most/float64(tells), reserve+told/float64(tells), clean+1
		}
		s.Sets = append(s.Sets, set)
		loads[set.HandKg]++
		if n := loads[set.HandKg]; n > loads[s.HandKg] || n == loads[s.HandKg] && set.HandKg > s.HandKg {
			s.HandKg = set.HandKg
		}
	}
	if clean > 0 {
		s.E1RM, s.Reserve = sum/float64(clean), reserve/float64(clean)
	}
}

// weakest is the set of the arm that did fewer reps; what was seen on either arm counts.
func weakest(arms []*entry.Entry) (out SetDone) {
	for i, e := range arms {
		said := e.Said()
		if i == 0 || e.Reps+e.Reserve < out.Reps+out.Reserve {
			out.Reps, out.Reserve, out.HandKg = e.Reps, e.Reserve, e.LoadKg
		}
		out.Form = out.Form || e.Technical
		out.Hollow = out.Hollow || said.Hollow
		for _, f := range e.Faults {
			if !slices.Contains(out.Faults, f) {
				out.Faults = append(out.Faults, f)
			}
		}
	}
	return out
}

// ComparedOf are the sessions that compare.
func ComparedOf(sessions []Session) (out []Compared) {
	for i := range sessions {
		if s := &sessions[i]; s.Hollow == "" {
			out = append(out, Compared{On: s.On, E1RM: s.E1RM, Reserve: s.Reserve})
		}
	}
	return out
}
