package op

import (
	"context"
	"fmt"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/stance"
	"musculus/internal/core/week"
	"musculus/internal/store"
)

// DayIn reads a day of a week; empty is today.
func (s *Server) DayIn(ctx context.Context, of string) (day.Day, error) {
	if of == "" {
		return s.Day(ctx), nil
	}
	d, err := day.Parse(of)
	if err != nil {
		err = FieldProblem("query.of", "not a date")
	}
	return d, err
}

// aims is what a client's weeks are counted against.
func (s *Server) aims(ctx context.Context, tx *store.Tx, c *store.Client) (*week.Aims, error) {
	emphasis, _, err := tx.Emphasis(ctx, c.ID)
	if err != nil {
		return nil, err
	}
	since, err := tx.Since(ctx, c.ID, s.Now())
	if err != nil {
		return nil, err
	}
	today := s.Day(ctx)
	out := &week.Aims{
		FirstYear: c.Dossier.FirstYear(today),
		Elsewhere: c.Dossier.Elsewhere,
		Minutes:   c.Dossier.Minutes,
		Weekdays:  c.Dossier.Weekdays,
		Since:     since,
		Today:     today,
	}
	for h := range out.Levels {
		out.Levels[h] = emphasis.Of(arm.HeadIndex(h), today)
	}
	return out, nil
}

// memoKey is what set-ups come to depend on, shelfKey what the catalogue's shelf does.
type memoKey struct {
	yardstick *effort.Yardstick
	stance    string
}

type shelfKey struct {
	memoKey
	catalogue *movement.Catalogue
}

// How many bodies under how many stances are remembered: an audited one is some
// hundred set-ups of a few kB.
const (
	mostMemos   = 300
	mostShelves = 200
)

// StanceKey tells stances apart by what they read.
func StanceKey(st *stance.Stance) string { return fmt.Sprint(st.ID, st.Rules) }

// shelf returns the catalogue as a trainee's body and stance see it.
func (s *Server) shelf(ctx context.Context, t *week.Trainee) (*week.Shelf, error) {
	key := shelfKey{memoKey{t.Yardstick, StanceKey(t.Stance)}, Movements(ctx)}
	return s.shelves.Of(ctx, key, func(ctx context.Context) (*week.Shelf, error) {
		return week.Stock(Movements(ctx), t.Yardstick, t.Stance), nil
	})
}

// AuditedWeek is a client's week with what it comes to and what is wrong with it.
type AuditedWeek struct {
	T        *week.Trainee
	Week     week.Week
	Ledger   week.Ledger
	Found    []week.Found
	Accepted map[string]store.Accepted
}

// WeekRead is what a week is counted and audited from.
type WeekRead struct {
	C        *store.Client
	Span     week.Span
	Kept     []store.Session
	T        *week.Trainee
	accepted map[string]store.Accepted
}

// ReadWeekOf reads what a client's week is audited against.
func (s *Server) ReadWeekOf(ctx context.Context, tx *store.Tx, c *store.Client, in week.Span, kept []store.Session) (WeekRead, error) {
	r := WeekRead{C: c, Span: in, Kept: kept}
	var err error
	if r.T, err = s.Informed(ctx, tx, c); err != nil {
		return r, err
	}
	if r.T.Aims, err = s.aims(ctx, tx, c); err != nil {
		return r, err
	}
	r.T.Aims.Over(in)
	if err = s.history(ctx, tx, c, r.T.Aims, in); err != nil {
		return r, err
	}
	r.accepted, err = tx.AcceptedFindings(ctx, c.ID)
	return r, err
}

// AuditRead counts and audits a week that was read; the first shown findings come with
// their fixes.
func (s *Server) AuditRead(ctx context.Context, r *WeekRead, shown int) (out AuditedWeek, err error) {
	out.T, out.Accepted = r.T, r.accepted
	if out.Week, err = plannedWeek(r.Kept); err != nil {
		return out, err
	}
	shelf, err := s.shelf(ctx, out.T)
	if err != nil {
		return out, err
	}
	out.Ledger = out.Week.Count(out.T)
	out.Found = out.Week.Audit(out.T, shelf, &out.Ledger, shown)
	return out, nil
}

// plannedWeek turns kept sessions into the core's week.
func plannedWeek(kept []store.Session) (week.Week, error) {
	var out week.Week
	for i := range kept {
		if len(kept[i].Faults) > 0 {
			return out, Faults("body.", kept[i].Faults)
		}
		out.Sessions = append(out.Sessions, kept[i].Planned)
	}
	return out, nil
}

// history tells the aims what the week before asked for.
func (s *Server) history(ctx context.Context, tx *store.Tx, c *store.Client, aims *week.Aims, in week.Span) error {
	kept, err := tx.SessionsBetween(ctx, c.ID, in.From-day.Day(in.Days), in.From-1, Movements(ctx))
	if err != nil || len(kept) == 0 {
		return err
	}
	before, err := plannedWeek(kept)
	if err == nil { // one that can no longer be read is nothing to compare with
		aims.Before = &before
	}
	return nil
}
