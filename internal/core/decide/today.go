package decide

import (
	"cmp"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/day"
)

// When things are due, days.
const (
	measureEvery  = 28
	rateEvery     = 122 // four months
	emphasisAhead = 7
	emphasisAfter = 28
	blockAfter    = 14
	missedTwice   = 2
	blockMissed   = 7
	LooksBackFor  = 21 // sessions that were missed
)

// DueKind names what is due, by the one action that does it.
type DueKind string

// The kinds.
const (
	DueScreening DueKind = "screening"
	DueDecision  DueKind = "decision"
	DueMeasuring DueKind = "measuring"
	DueRating    DueKind = "rating"
	DueEmphasis  DueKind = "emphasis"
	DueMissed    DueKind = "missed"
	DueSheet     DueKind = "sheet"
	DueAnswer    DueKind = "answer"
	DueBlock     DueKind = "block"
)

// Due is one thing that is due, with the day from which it is.
type Due struct {
	Kind    DueKind
	Since   day.Day
	Says    string
	Session uuid.UUID // that it is about; uuid.Nil for none
}

// Dated is a session near today.
type Dated struct {
	ID     uuid.UUID
	Name   string
	On     day.Day
	Sets   int       // logged
	Issued time.Time // its last sheet; zero: none
	Block  bool      // made of a block, and nothing was said yet of its being missed
}

// Around is what a day looks at of one client.
type Around struct {
	Today    day.Day
	Blocked  string
	Measured day.Day // 0: never
	Measures bool    // she agreed to be measured
	Rated    day.Day // 0: never
	Until    day.Day // the emphasis; 0: none
	BlockEnd day.Day // the last day of her block; 0: none of late
	Sessions []Dated // by day
	Opened   time.Time
	Links    int // that are open to her
	Asks     []Proposal
	Known    bool   // she has trained here before
	Told     string // what she answered and nobody has seen, "" for nothing
	ToldOn   day.Day
}

// Dues are what is due for one client, the oldest first.
func Dues(a *Around) (out []Due) {
	add := func(k DueKind, since day.Day, session uuid.UUID, says string, args ...any) {
		out = append(out, Due{k, since, fmt.Sprintf(says, args...), session})
	}
	if a.Blocked != "" {
		add(DueScreening, a.Today, uuid.Nil, "%s", a.Blocked)
	}
	if a.Told != "" {
		add(DueAnswer, a.ToldOn, uuid.Nil, "%s", a.Told)
	}
	asks := a.Asks
	if a.Blocked != "" { // it is told already
		asks = slices.DeleteFunc(slices.Clone(asks), func(p Proposal) bool { return p.Kind == Screen })
	}
	if n := len(asks); n == 1 {
		add(DueDecision, a.Today, uuid.Nil, "%s%s.", of(&asks[0]), asks[0].Says)
	} else if n > 1 {
		add(DueDecision, a.Today, uuid.Nil, "%d to decide, first: %s%s.", n, of(&asks[0]), asks[0].Says)
	}
	switch {
	case !a.Measures || !a.Known && a.Measured == 0:
	case a.Measured == 0:
		add(DueMeasuring, a.Today, uuid.Nil, "Not measured yet.")
	case int(a.Today-a.Measured) > measureEvery:
		add(DueMeasuring, a.Measured+measureEvery, uuid.Nil, "Last measured on %s.", a.Measured.Words())
	}
	if a.Rated != 0 && int(a.Today-a.Rated) > rateEvery {
		add(DueRating, a.Rated+rateEvery, uuid.Nil, "Last rated by eye on %s.", a.Rated.Words())
	}
	switch left := int(a.Until - a.Today); {
	case a.Until == 0:
	case left < 0 && left >= -emphasisAfter:
		add(DueEmphasis, a.Until, uuid.Nil, "The emphasis ended on %s: what comes next?", a.Until.Words())
	case left >= 0 && left <= emphasisAhead:
		add(DueEmphasis, a.Today, uuid.Nil, "The emphasis ends on %s.", a.Until.Words())
	}
	switch left := int(a.BlockEnd - a.Today); {
	case a.BlockEnd == 0:
	case left < 0 && left >= -blockAfter:
		add(DueBlock, a.BlockEnd, uuid.Nil, "The block ended on %s: what comes next?", a.BlockEnd.Words())
	case left >= 0 && left <= emphasisAhead:
		add(DueBlock, a.Today, uuid.Nil, "The block ends on %s.", a.BlockEnd.Words())
	}
	a.missed(add)
	a.unopened(add)
	slices.SortStableFunc(out, func(x, y Due) int { return cmp.Compare(x.Since, y.Since) })
	return out
}

func of(p *Proposal) string {
	if p.Name == "" {
		return ""
	}
	return p.Name + ": "
}

// missed finds two sessions in a row that were planned and not done.
func (a *Around) missed(add func(DueKind, day.Day, uuid.UUID, string, ...any)) {
	var run []*Dated
	for i := range a.Sessions {
		s := &a.Sessions[i]
		switch {
		case s.On >= a.Today || int(a.Today-s.On) > LooksBackFor:
		case s.Sets > 0:
			run = nil
		default:
			run = append(run, s)
		}
	}
	n := len(run)
	for _, s := range run { // in a block one is enough: it is slid, dropped or folded in
		if s.Block && int(a.Today-s.On) <= blockMissed && n < missedTwice {
			add(DueMissed, s.On, s.ID, "%s of the block was not done: slide, drop or fold in?", s.Name)
		}
	}
	if n >= missedTwice {
		add(DueMissed, run[n-1].On, run[n-1].ID, "The last %d sessions were not done, since %s.", n, run[0].On.Words())
	}
}

// unopened finds a sheet of today or tomorrow that nobody has looked at.
func (a *Around) unopened(add func(DueKind, day.Day, uuid.UUID, string, ...any)) {
	for i := range a.Sessions {
		s := &a.Sessions[i]
		if s.On < a.Today || s.On > a.Today+1 || s.Sets > 0 {
			continue
		}
		when := "Today’s"
		if s.On > a.Today {
			when = "Tomorrow’s"
		}
		switch {
		case a.Blocked != "":
		case s.Issued.IsZero():
			add(DueSheet, a.Today, s.ID, "%s sheet is not issued.", when)
		case a.Links > 0 && a.Opened.Before(s.Issued):
			add(DueSheet, a.Today, s.ID, "%s sheet was not opened.", when)
		}
	}
}
