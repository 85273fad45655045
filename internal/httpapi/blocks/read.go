package blocks

import (
	"context"
	"fmt"
	"net/http"
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/block"
	"musculus/internal/core/day"
	"musculus/internal/core/decide"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
	"musculus/internal/httpapi/op"
	"musculus/internal/httpapi/running"
	"musculus/internal/store"
)

// BlockDraft is a block as it is laid: its course, and which week becomes its turn.
type BlockDraft struct {
	ID      uuid.UUID `json:"id"`
	Version int       `json:"version" minimum:"0" maximum:"1000000" doc:"as it was read; 0: it is new"`
	Start   day.Day   `json:"start,omitempty" format:"date" doc:"absent: as late as it takes to be ready"`
	Every   int       `json:"every" minimum:"1" maximum:"100" doc:"days in a turn; 7 is a week"`
	Turns   int       `json:"turns" minimum:"1" maximum:"100"`
	Ready   day.Day   `json:"ready,omitempty" format:"date" doc:"the date to be ready for"`
	block.Course
	Take day.Day `json:"take,omitempty" format:"date" doc:"a day of the week whose sessions become the turn; absent: it stays"`
}

// read is what a block is worked out from.
type read struct {
	c      store.Client
	t      *week.Trainee
	taken  []decide.Taken
	today  day.Day
	kept   *running.Block // nil: none runs
	others []store.Session
	block  *block.Block // as it is, or as it would be
	made   []block.Made
	adopts []int // of made: those that become the block's now
}

// before and after today, how far sessions are looked at.
const (
	looksBack  = 2 * block.Longest
	looksAhead = block.Ahead + 2*block.Longest
)

// read reads the block of a client.
func (s *place) read(ctx context.Context, tx *store.Tx, client uuid.UUID) (r read, err error) {
	if r.c, err = tx.Client(ctx, client); err != nil {
		return r, err
	}
	r.today = s.DayOf(&r.c)
	w, err := s.ReadWeekOf(ctx, tx, &r.c, week.WeekOf(r.today), nil)
	if err != nil {
		return r, err
	}
	r.t = w.T
	decided, err := tx.Decisions(ctx, client)
	if err != nil {
		return r, err
	}
	r.taken = store.TakenOf(decided, op.Movements(ctx))
	if r.kept, err = running.Of(ctx, tx, client, r.today, r.t, r.taken); err != nil {
		return r, err
	}
	if r.kept != nil {
		b := r.kept.Block.Block
		r.block, r.made = &b, r.kept.Made()
		r.t.Aims.Over(week.Span{From: b.Start, Days: b.Every})
	}
	all, err := tx.SessionsBetween(ctx, client, r.today-looksBack, r.today+looksAhead, op.Movements(ctx))
	for i := range all {
		if len(all[i].Faults) == 0 && !r.isMade(all[i].ID) {
			r.others = append(r.others, all[i])
		}
	}
	return r, err
}

func (r *read) isMade(id uuid.UUID) bool {
	return slices.ContainsFunc(r.made, func(m block.Made) bool { return m.Now.ID == id })
}

// lay makes the block what a draft asks for; what cannot be is told.
func (s *place) lay(ctx context.Context, tx *store.Tx, r *read, d *BlockDraft) error {
	b := &block.Block{ID: d.ID}
	if r.kept != nil {
		switch {
		case d.ID == r.kept.ID:
			*b = r.kept.Block.Block
		case r.kept.Start <= r.today:
			return op.Problem(http.StatusConflict, "a block runs already: end it before another one begins")
		}
	}
	was := *b
	if b.Start, b.Every, b.Turns, b.Ready, b.Course = d.Start, d.Every, d.Turns, d.Ready, d.Course; b.Start == 0 {
		if b.Ready == 0 {
			return op.FieldProblem("body.start", "a day to begin on, or a date to be ready for")
		}
		b.Start = block.Backwards(b.Ready, b.Every, b.Turns)
		if b.Start < r.today.Monday() {
			return op.FieldProblem("body.turns", "%s are left before %s: make it shorter, or another date",
				days(int(b.Ready-r.today)), b.Ready.Words())
		}
	}
	begun := was.Start != 0 && was.Start <= r.today
	switch {
	case begun && (b.Start != was.Start || b.Every != was.Every):
		return op.FieldProblem("body.start", "the block has begun: end it, and begin another one")
	case !begun && b.Start < r.today.Monday():
		return op.FieldProblem("body.start", "%s is past: a block begins in this week at the earliest", b.Start.Words())
	case begun && b.Last() < r.today:
		return op.FieldProblem("body.turns", "%s of it have begun already", days(int(r.today-b.Start)))
	case b.Start > r.today+366:
		return op.FieldProblem("body.start", "more than a year ahead")
	}
	if !begun {
		b.Slides = nil
	}
	r.t.Aims.Over(week.Span{From: b.Start, Days: max(b.Every, 1)})
	if d.Take != 0 {
		if err := s.take(ctx, tx, r, b, d.Take); err != nil {
			return err
		}
	} else if was.Start == 0 {
		return op.FieldProblem("body.take", "which week is it made of?")
	}
	r.block = b
	return op.Faults("body.", b.Says())
}

// take makes the sessions of a week, or of a turn, the block's own.
func (s *place) take(ctx context.Context, tx *store.Tx, r *read, b *block.Block, of day.Day) error {
	span, err := tx.SpanOf(ctx, r.c.ID, of)
	if err != nil {
		return err
	}
	kept, err := tx.SessionsBetween(ctx, r.c.ID, span.From, span.Last(), op.Movements(ctx))
	if err != nil {
		return err
	}
	turn := b.TurnOf(span.From)
	if turn >= 0 && b.IsLighter(turn) {
		return op.FieldProblem("body.take", "a lighter week is no pattern: take another one")
	}
	var sessions []plan.Planned
	for i := range kept {
		if len(kept[i].Faults) > 0 {
			return op.Faults("body.", kept[i].Faults)
		}
		x := kept[i].Planned
		if x.On < r.today || r.shut(x.ID) { // what was decided since could not be written into it
			decide.Carry(r.t, r.taken, &x.Session, func(d *decide.Taken) bool {
				return d.Kind != decide.LighterWeek && d.On >= x.On && !slices.Contains(d.Wrote, x.ID)
			})
		}
		sessions = append(sessions, x)
	}
	from := span.From
	if b.Every == block.Week { // weekdays stay, whichever day it begins on
		from = b.Start
	}
	b.Days = block.PatternOf(sessions, from, b.Every, func(id uuid.UUID) (uuid.UUID, bool) {
		i := slices.IndexFunc(r.made, func(m block.Made) bool { return m.Now.ID == id })
		if i < 0 {
			return id, false
		}
		return r.made[i].Day, true
	})
	b.At, b.Decided = max(turn, 0), len(r.taken)
	r.adopt(b, kept)
	return nil
}

// shut says whether a session of the block is not written into any more.
func (r *read) shut(id uuid.UUID) bool {
	return slices.ContainsFunc(r.made, func(m block.Made) bool { return m.Now.ID == id && m.Shut != "" })
}

// adopt takes the sessions a block's turn comes from in as made of it, as they are, where they
// are on its days.
func (r *read) adopt(b *block.Block, from []store.Session) {
	for i := range from {
		x := &from[i]
		turn := b.TurnOf(x.On)
		k := slices.IndexFunc(b.Days, func(d block.Day) bool { return turn >= 0 && b.Date(turn, d.After) == x.On && d.Name == x.Name })
		if k < 0 {
			continue
		}
		at := slices.IndexFunc(r.made, func(m block.Made) bool { return m.Now.ID == x.ID })
		if at < 0 {
			if slices.ContainsFunc(r.made, func(m block.Made) bool { return m.Turn == turn && m.Day == b.Days[k].ID }) {
				continue
			}
			at = len(r.made)
			r.made = append(r.made, block.Made{Turn: turn, Day: b.Days[k].ID, Now: x.Planned})
			r.others = slices.DeleteFunc(r.others, func(o store.Session) bool { return o.ID == x.ID })
		}
		r.made[at].As, r.made[at].After = x.Planned, nil
		r.adopts = append(r.adopts, at)
	}
}

// flow is what the block does to the plan.
func (r *read) flow() []block.Step {
	return r.block.Flow(r.t, r.made, plans(r.others), running.Carry(r.t, r.block, r.taken), r.today)
}

func plans(sessions []store.Session) []plan.Planned {
	out := make([]plan.Planned, len(sessions))
	for i := range sessions {
		out[i] = sessions[i].Planned
	}
	return out
}

func days(n int) string {
	if n == 1 {
		return "1 day"
	}
	return fmt.Sprintf("%d days", n)
}
