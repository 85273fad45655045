// Package block is some weeks, or rotations of another length, planned as one: the turn that
// comes round, how its effort and sets climb, when it gets lighter, what of it may change. What
// is made of it and what a change to it overwrites is a pure function of it and of what is
// planned by now.
package block

import (
	"fmt"
	"math"
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

// Bounds of a block: how many turns it has, how many days one of them.
const (
	FewestTurns = 4
	MostTurns   = 8
	Week        = 7
	Shortest    = 3
	Longest     = 10
	MostDays    = 14 // sessions of one turn
	mostSlides  = 40
)

// Change is what of the set-ups may change while a block runs.
type Change string

// The answers, each freer than the one before.
const (
	Kept     Change = "kept"     // they stay
	Exchange Change = "exchange" // one or two, at the end or where one stalls or irritates
	Varied   Change = "varied"   // often; little speaks for it
)

// Changes in their order.
var Changes = []Change{Kept, Exchange, Varied}

// Course is how a block's turns differ from the turn as it is planned.
type Course struct {
	From    int    `json:"from"    doc:"reps in reserve in the first turn"                                   minimum:"0" maximum:"3"`
	To      int    `json:"to"      doc:"and in the last one that is not lighter"                            minimum:"0" maximum:"3"`
	Limit   bool   `json:"limit"   doc:"the last of them may touch the limit where failing alone is safe"`
	Sets    int    `json:"sets"    doc:"sets a head more from turn to turn, or less, inside its target"     minimum:"-1" maximum:"1"`
	Lighter bool   `json:"lighter" doc:"the last turn is a lighter one; else when the log asks for it"`
	Change  Change `json:"change"  enum:"kept,exchange,varied"`
	Dense   bool   `json:"dense"   doc:"near the date rests are shorter, and loads start lower"`
}

// Day is one session of the turn.
type Day struct {
	ID    uuid.UUID `json:"id"`
	Name  string    `json:"name"`
	After int       `json:"after"` // days after the turn's first
	plan.Session
}

// Slide is that everything from one session on is some days later; only a rotation slides, a
// week keeps its weekdays.
type Slide struct {
	Turn  int `json:"turn"`
	After int `json:"after"`
	Days  int `json:"days"`
}

// Block is turns alike, one after the other.
type Block struct {
	ID    uuid.UUID `json:"id"`
	Start day.Day   `json:"start"`
	Every int       `json:"every"` // days in a turn
	Turns int       `json:"turns"`
	Ready day.Day   `json:"ready,omitempty"` // the date to be ready for, the day after the last; 0: none
	Course
	Days   []Day   `json:"days"` // by After
	At     int     `json:"at"`   // the turn whose sets they have: the course goes on from there
	Slides []Slide `json:"slides,omitempty"`
	// Decided is how many of the client's decisions stood when the turn was planned: later ones
	// are carried into what is made.
	Decided int `json:"decided"`
	// Asked tells a request that is sent again from another one.
	Asked string `json:"asked,omitempty"`
}

// Backwards is the day on which a block has to start to be over before a date.
func Backwards(ready day.Day, every, turns int) day.Day { return ready - day.Day(every*turns) }

// Says returns what cannot be, one error a field.
func (b *Block) Says() (out []*movement.FieldError) {
	fault := func(ok bool, field, reason string, args ...any) {
		if !ok {
			out = append(out, &movement.FieldError{Field: field, Reason: fmt.Sprintf(reason, args...)})
		}
	}
	fault(
		b.Turns >= FewestTurns && b.Turns <= MostTurns,
		"turns",
		"a block has %d to %d turns, not %d",
		FewestTurns,
		MostTurns,
		b.Turns,
	)
	fault(b.Every >= Shortest && b.Every <= Longest, "every", "a turn has %d to %d days, not %d", Shortest, Longest, b.Every)
	fault(b.From >= 0 && b.From <= dose.MostHard, "from", "%d in reserve is outside 0…%d", b.From, dose.MostHard)
	fault(b.To >= 0 && b.To <= b.From, "to", "effort climbs: at most %d in reserve at the end", b.From)
	fault(b.Sets >= -1 && b.Sets <= 1, "sets", "at most one set a head more or less from turn to turn")
	fault(slices.Contains(Changes, b.Change), "change", "not known")
	fault(!b.Dense || b.Ready != 0, "dense", "only near a date to be ready for")
	fault(
		b.Ready == 0 || len(out) > 0 || b.Ready > b.Last(),
		"ready",
		"the block ends on %s, not before %s",
		b.Last().Words(),
		b.Ready.Words(),
	)
	fault(len(b.Days) > 0, "days", "nothing is planned in it")
	fault(len(b.Days) <= MostDays, "days", "at most %d sessions", MostDays)
	fault(len(b.Slides) <= mostSlides, "ready", "it slid more than %d times", mostSlides)
	for i := range b.Days {
		fault(
			b.Days[i].After >= 0 && b.Days[i].After < b.Every,
			"every",
			"%s would be on day %d of %d",
			b.Days[i].Name,
			b.Days[i].After+1,
			b.Every,
		)
	}
	return out
}

// Date is the day of something so many days after a turn's first; turns are counted from 0.
func (b *Block) Date(turn, after int) day.Day {
	on := b.Start + day.Day(turn*b.Every+after)
	for _, s := range b.Slides {
		if turn > s.Turn || turn == s.Turn && after >= s.After {
			on += day.Day(s.Days)
		}
	}
	return on
}

// Last is the block's last day.
func (b *Block) Last() day.Day { return b.Date(b.Turns, 0) - 1 }

// TurnOf is the turn a day is in; −1 outside the block.
func (b *Block) TurnOf(on day.Day) int {
	if on < b.Start || on > b.Last() {
		return -1
	}
	k := 0
	for k+1 < b.Turns && b.Date(k+1, 0) <= on {
		k++
	}
	return k
}

// IsLighter says whether a turn is the lighter one of the calendar.
func (b *Block) IsLighter(turn int) bool { return b.Lighter && turn == b.Turns-1 }

// hard is how many turns are not lighter.
func (b *Block) hard() int {
	if b.Lighter {
		return b.Turns - 1
	}
	return b.Turns
}

// Reserve is what a turn leaves in reserve.
func (b *Block) Reserve(turn int) int {
	switch last := b.hard() - 1; {
	case b.IsLighter(turn):
		return plan.LighterReserve
	case last < 1:
		return b.To
	default:
		part := float64(min(turn, last)) / float64(last)
		return b.From - int(math.Round(part*float64(b.From-b.To)))
	}
}

// denseTurns are how many turns before the date are denser.
const denseTurns = 2

// IsDense says whether a turn's rests are shorter.
func (b *Block) IsDense(turn int) bool {
	return b.Dense && b.Ready != 0 && turn < b.hard() && turn >= b.hard()-denseTurns
}

// touches says whether a turn may touch the limit.
func (b *Block) touches(turn int) bool { return b.Limit && turn == b.hard()-1 }

// EffortWords tell how hard a turn is.
func (b *Block) EffortWords(turn int) string {
	switch {
	case b.IsLighter(turn):
		return fmt.Sprintf("lighter: half the sets, %d left", plan.LighterReserve)
	case b.touches(turn):
		return fmt.Sprintf("%d left, last sets to the limit where that is safe", b.Reserve(turn))
	case b.IsDense(turn):
		return fmt.Sprintf("%d left, shorter rests, a mark lighter", b.Reserve(turn))
	}
	return fmt.Sprintf("%d left", b.Reserve(turn))
}

// TurnName names a turn: week 3, turn 3.
func (b *Block) TurnName(turn int) string {
	if b.Every == Week {
		return fmt.Sprintf("week %d", turn+1)
	}
	return fmt.Sprintf("turn %d", turn+1)
}

// Words tell a block in one line.
func (b *Block) Words() string {
	what := fmt.Sprintf("%d weeks", b.Turns)
	if b.Every != Week {
		what = fmt.Sprintf("%d turns of %d days", b.Turns, b.Every)
	}
	return fmt.Sprintf("%s from %s, %d to %d left", what, b.Start.Words(), b.From, b.To)
}

// Grade says how well what may change is supported.
func (c Change) Grade() string {
	switch c {
	case Exchange:
		return "One or two at the block’s end, or where a course stands still or a joint complains; one thing at a time."
	case Varied:
		return "Varied often: liked by some, supported by little (grade D). Courses are told apart by set-up, so each of them tells less."
	}
	return "The set-ups stay, so that every course can be read to the end."
}

// SpanOf is the stretch of days that is looked at with a day: the turn of a block it is in,
// else its week, as far as no block begins or ends in it.
func SpanOf(blocks []*Block, on day.Day) week.Span {
	from := on.Monday()
	to := from + Week - 1
	for _, b := range blocks {
		if k := b.TurnOf(on); k >= 0 {
			return week.Span{From: b.Date(k, 0), Days: int(b.Date(k+1, 0) - b.Date(k, 0))}
		}
		if b.Start > on {
			to = min(to, b.Start-1)
		}
		if last := b.Last(); last < on {
			from = max(from, last+1)
		}
	}
	return week.Span{From: from, Days: int(to-from) + 1}
}
