package trend

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/checkin"
	"musculus/internal/core/day"
	"musculus/internal/core/decide"
	"musculus/internal/core/entry"
	"musculus/internal/core/floor"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
	"musculus/internal/core/week"
	"musculus/internal/httpapi/op"
	"musculus/internal/httpapi/running"
	"musculus/internal/store"
)

// factsRead is what a client's log is read from.
type factsRead struct {
	facts    decide.Facts
	client   store.Client
	sessions []store.Session // as the facts' own, with their versions
	issued   map[uuid.UUID]bool
}

// readFacts reads what decisions about a client are made from.
func (s *place) readFacts(ctx context.Context, tx *store.Tx, client uuid.UUID) (r factsRead, err error) {
	if r.client, err = tx.Client(ctx, client); err != nil {
		return r, err
	}
	c, today := &r.client, s.DayOf(&r.client)
	read, err := s.ReadWeekOf(ctx, tx, c, week.WeekOf(today), nil)
	if err != nil {
		return r, err
	}
	f := &r.facts
	f.T, f.Movements, f.Today, f.Blocked = read.T, op.Movements(ctx), today, s.Blocked(c)
	if c.Dossier.HealthConsent != nil {
		f.Joints = c.Joints
		if f.Tolerances, err = tx.Tolerances(ctx, client); err != nil {
			return r, err
		}
		if err = answers(ctx, tx, client, f); err != nil {
			return r, err
		}
	}
	if f.Entries, err = tx.EntriesSince(ctx, client, s.Now().Add(-decide.ReadsBack), f.Movements); err != nil {
		return r, err
	}
	first, last := today.Monday()-decide.PlanBack, today+decide.PlanAhead
	kept, err := tx.SessionsBetween(ctx, client, first, last, f.Movements)
	if err != nil {
		return r, err
	}
	for i := range kept {
		if len(kept[i].Faults) == 0 {
			r.sessions, f.Sessions = append(r.sessions, kept[i]), append(f.Sessions, kept[i].Planned)
		}
	}
	events, err := tx.EventsSince(ctx, client, s.Now().Add(-decide.ReadsBack))
	if err != nil {
		return r, err
	}
	f.Events = map[uuid.UUID][]floor.Event{}
	for _, e := range floor.Seen(events, c.Dossier.HealthConsent != nil) {
		f.Events[e.Session] = append(f.Events[e.Session], e)
	}
	decided, err := tx.Decisions(ctx, client)
	if err != nil {
		return r, err
	}
	f.Taken = store.TakenOf(decided, f.Movements)
	in, err := running.Of(ctx, tx, client, today, f.T, f.Taken)
	if err != nil {
		return r, err
	}
	f.Block = in.In()
	trials, err := tx.Trials(ctx, client, f.Movements)
	if err != nil {
		return r, err
	}
	for i := range trials {
		if trials[i].Stopped == 0 {
			f.Trial = &trials[i].Trial
		}
	}
	emphasis, _, err := tx.Emphasis(ctx, client)
	if err != nil {
		return r, err
	}
	f.Emphasis, f.Uncautious = endedWords(emphasis, today), c.Dossier.Uncautious(today, endedFor)
	if f.Emphasis == "" {
		ratings, err := tx.Ratings(ctx, client)
		if err != nil {
			return r, err
		}
		f.Emphasis = decide.CaughtUp(emphasis, ratings, today)
	}
	if f.Elsewhere, err = tx.ElsewhereBefore(ctx, client, today-decide.ElsewhereFor); err != nil {
		return r, err
	}
	issues, err := tx.LatestIssues(ctx, client, today, last)
	r.issued = map[uuid.UUID]bool{}
	for i := range issues {
		r.issued[issues[i].SessionID] = true
	}
	return r, err
}

// answers reads what a client answered by her link: joints as reports of its day, and sessions
// around which recovery was poor.
func answers(ctx context.Context, tx *store.Tx, client uuid.UUID, f *decide.Facts) error {
	told, err := tx.CheckIns(ctx, client)
	f.Poor = map[uuid.UUID]bool{}
	for i := range told {
		t := &told[i]
		evening := slices.ContainsFunc(f.Sessions, func(x plan.Planned) bool { return x.ID == t.Session && x.On == day.At(t.At) })
		if j, side, ok := checkin.JointOf(t.Key); ok && t.Answer != "" && !evening { // of the day itself it is no morning
			f.Mornings = append(f.Mornings, person.JointReport{On: day.At(t.At), Joint: j, Side: side, Score: t.Score()})
		}
		f.Poor[t.Session] = f.Poor[t.Session] || t.Poor()
	}
	return err
}

// endedFor is how long an emphasis that ended is asked about, days.
const endedFor = 28

// endedWords tell an emphasis that ended a short while ago.
func endedWords(e *priority.Emphasis, today day.Day) string {
	if e == nil || e.Until == nil || *e.Until >= today || int(today-*e.Until) > endedFor {
		return ""
	}
	return fmt.Sprintf("The emphasis ended on %s: everything is maintained until another is set.", e.Until.Words())
}

// Reading is what a client's log says today: as it was kept, where nothing was written since, or
// read again.
func (s *place) reading(ctx context.Context, client uuid.UUID) (out decide.Reading, err error) {
	var facts factsRead
	holds := false
	err = s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		c, err := tx.Client(ctx, client)
		if err != nil {
			return err
		}
		out, holds, err = tx.Reading(ctx, client, s.DayOf(&c))
		if holds || err != nil {
			return err
		}
		if err := tx.BeginReading(ctx, client); err != nil {
			return err
		}
		facts, err = s.readFacts(ctx, tx, client)
		return err
	})
	if err != nil || holds {
		return out, err
	}
	read := decide.ReadingOf(&facts.facts)
	return *read, s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error { return tx.KeepReading(ctx, client, read) })
}

// ReadAgain reads the log of every client again whose reading no longer holds: a set was logged,
// the plan changed, or the day of the studio is another one. It is for the background; what
// fails for one client holds up no other.
func ReadAgain(ctx context.Context, s *op.Server) error {
	p := &place{s}
	return running.EachStudio(ctx, s, func(in context.Context, st store.StudioNamed) error {
		var waiting []uuid.UUID
		err := s.Store.In(in, st.ID, func(tx *store.Tx) (err error) {
			waiting, err = tx.ToRead(in, s.Day(in))
			return err
		})
		for _, client := range waiting {
			if _, err := p.reading(in, client); err != nil && !errors.Is(err, store.ErrNotFound) {
				slog.Warn("a log could not be read", "client", client, "error", err)
			}
		}
		return err
	})
}

// shut says whether nothing is written into a session any more: something of it is done, or it
// was issued.
func (r *factsRead) shut(id uuid.UUID) bool {
	return r.issued[id] || slices.ContainsFunc(r.facts.Entries, func(e entry.Entry) bool { return e.SessionID == id })
}

// at is a session's place among those that were read, −1 for none.
func (r *factsRead) at(id uuid.UUID) int {
	return slices.IndexFunc(r.sessions, func(x store.Session) bool { return x.ID == id })
}

// weekAround are the sessions of a day's week.
func weekAround(sessions []plan.Planned, on day.Day) (out []plan.Planned) {
	for i := range sessions {
		if sessions[i].On.Monday() == on.Monday() {
			out = append(out, sessions[i])
		}
	}
	return out
}
