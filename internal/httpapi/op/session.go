package op

import (
	"context"
	"errors"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"musculus/internal/core/day"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
	"musculus/internal/store"
	"musculus/internal/view"
)

// SessionPath is a session of a client in an address.
type SessionPath struct {
	Client  uuid.UUID `path:"client"`
	Session uuid.UUID `path:"session"`
}

// StaleProblem is a 409 that shows what was saved in between.
type StaleProblem struct {
	huma.ErrorModel
	Current view.SessionView `json:"current"`
}

// ContentType marks it as a problem.
func (*StaleProblem) ContentType(string) string { return "application/problem+json" }

// StaleProblem is what a refused save is answered with: with what is kept now
// where someone else saved first, else the error as it is.
func (s *Server) StaleProblem(ctx context.Context, tx *store.Tx, c *store.Client, err error) error {
	var stale *store.Stale
	if !errors.As(err, &stale) {
		return err
	}
	now, err := s.ReadKept(ctx, tx, c, stale.Current)
	if err != nil {
		return err
	}
	current, err := s.ViewSession(ctx, now.T, c, now.Kept)
	if err != nil {
		return err
	}
	return &StaleProblem{*Problem(http.StatusConflict, stale.Error()), current}
}

// DayAsked asks back before a session is put on a day that is past; one that was on
// that day already stays there.
func (s *Server) DayAsked(ctx context.Context, tx *store.Tx, planned *store.Session, location string, sure bool) error {
	if sure || planned.On >= s.Day(ctx) {
		return nil
	}
	was, err := tx.Session(ctx, planned.ClientID, planned.ID, Movements(ctx))
	switch {
	case err == nil && was.On == planned.On:
		return nil
	case err != nil && !errors.Is(err, pgx.ErrNoRows):
		return err
	}
	return AskBack(location, fmt.Sprintf("%s is past: plan %s on it all the same?", planned.On.Words(), planned.Name))
}

// WeekHolds refuses what would make a week more than is counted and audited.
func (s *Server) WeekHolds(ctx context.Context, tx *store.Tx, c *store.Client, on day.Day) error {
	from := on.Monday()
	kept, err := tx.SessionsBetween(ctx, c.ID, from, from+6, Movements(ctx))
	slots := 0
	for i := range kept {
		slots += len(kept[i].Slots)
	}
	if err == nil && slots > week.MostWeekSlots {
		err = FieldProblem("body.slots", "%d slots in this week are more than %d", slots, week.MostWeekSlots)
	}
	return err
}

// KeptSession is a session as it is kept, with whom it is for.
type KeptSession struct {
	C    *store.Client
	T    *week.Trainee
	Kept store.Session
}

// ReadKept reads what a kept session is shown with.
func (s *Server) ReadKept(ctx context.Context, tx *store.Tx, c *store.Client, kept store.Session) (KeptSession, error) {
	t, err := s.Informed(ctx, tx, c)
	return KeptSession{c, t, kept}, err
}

// ViewSession counts a session and says everything about it.
func (s *Server) ViewSession(
	ctx context.Context,
	t *week.Trainee,
	c *store.Client,
	kept store.Session,
) (view.SessionView, error) {
	if len(kept.Faults) > 0 {
		return view.SessionView{}, kept.Faults[0]
	}
	session := &kept.Session
	counted := t.Count(session)
	out := view.SessionView{ID: kept.ID, Name: kept.Name, PlannedOn: kept.On, When: kept.On.FromToday(s.Day(ctx)),
		Version: kept.Version, SavedAt: kept.SavedAt, SavedBy: kept.SavedBy, WarmUpMin: kept.WarmUpMin, Intent: kept.Intent,
		Locked: kept.Locked, Combos: kept.Combos, Slots: []view.SlotView{},
		Total: view.SetsSlice(
			"Effective sets in "+kept.Name,
			counted.Heads,
		), Minutes: view.Round4(counted.Minutes), Spent: counted.Spent.Words(),
		MinutesHas: c.Dossier.Minutes, Over: counted.Over(c.Dossier.Minutes),
		Flexors: counted.Flexors, Extensors: counted.Extensors, Findings: []view.FindingView{}, Blocked: s.Blocked(c)}
	out.WarmUp, out.Ramp = view.Round4(counted.WarmUp), session.RampWords(t.Floor(), false)
	if out.Combos == nil {
		out.Combos = []plan.Combo{}
	}
	for i := range session.Slots {
		out.Slots = append(out.Slots, view.SlotOf(t, session, i, counted.Slots[i]))
	}
	for _, f := range t.Findings(session, counted, c.Dossier.Minutes) {
		v := view.FindingView{Severity: string(f.Severity), Text: f.Text}
		if f.Slot >= 0 {
			v.Slot = &f.Slot
		}
		out.Findings = append(out.Findings, v)
	}
	return out, nil
}
