package week

import (
	"context"
	"slices"
	"strings"

	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
	"musculus/internal/store"
	"musculus/internal/view"
)

// showWeek is a week that was read, as the board shows it.
func (s *place) showWeek(ctx context.Context, r *weekRead) (WeekView, error) {
	c, span, kept := r.C, r.Span, r.Kept
	a, err := s.AuditRead(ctx, &r.WeekRead, week.MostShown)
	if err != nil {
		return WeekView{}, err
	}
	out := WeekView{
		From:     span.From.String(),
		To:       span.Last().String(),
		Before:   (span.From - 1).String(),
		After:    (span.Last() + 1).String(),
		IsWeek:   span.IsWeek(),
		Days:     []DayView{},
		Sessions: []BoardSession{},
		Findings: []AuditView{},
		Removed:  []RemovedView{},
		Stance:   a.T.Stance.Name,
		Blocked:  s.Blocked(c),
	}
	for d := span.From; d <= span.Last(); d++ {
		name := d.Weekday()
		out.Days = append(
			out.Days,
			DayView{
				d.String(),
				name,
				d == s.Day(ctx),
				len(c.Dossier.Weekdays) == 0 || slices.Contains(c.Dossier.Weekdays, strings.ToLower(name[:3])),
			},
		)
	}
	for i := range a.Week.Sessions {
		out.Sessions = append(out.Sessions, viewBoard(a.T, &a.Week.Sessions[i], &kept[i], &a.Ledger.Sessions[i]))
	}
	out.Ledger = viewLedger(&a, kept)
	r.showDone(&a, s.Day(ctx), &out)
	out.Hidden = max(0, len(a.Found)-week.MostShown)
	for _, f := range a.Found[:len(a.Found)-out.Hidden] {
		v := AuditView{Key: f.Key, Code: f.Code, Severity: string(f.Severity), Text: f.Text, Why: f.Why, Held: f.Held, Ways: []WayView{}}
		for _, w := range f.Ways {
			v.Ways = append(v.Ways, WayView{w.Words, w.Place})
		}
		if f.Session >= 0 {
			v.Session = &kept[f.Session].ID
			if f.Slot >= 0 {
				v.Slot = &kept[f.Session].Slots[f.Slot].ID
			}
		}
		if f.Fix != nil {
			v.Fix = viewFix(f.Fix, &a.Week, kept)
		}
		if h, ok := arm.HeadByID(strings.TrimPrefix(f.Key, f.Code+":")); ok {
			if terms := a.Week.TermsWords(a.T, &a.Ledger, h); terms != "" {
				v.Why += " What gives it sets: " + terms + "."
			}
		}
		if x, ok := a.Accepted[f.Key]; ok {
			v.Accepted = &AcceptedView{x.Reason, x.By, x.At}
		}
		out.Findings = append(out.Findings, v)
	}
	return out, nil
}

// weekDraft is a session as it is edited; what a fix added gets ids of its own.
func weekDraft(p *plan.Planned, kept *store.Session) WeekDraft {
	out := WeekDraft{Planned: *p, Version: kept.Version}
	out.Slots = slices.Clone(p.Slots)
	for i := range out.Slots {
		slot := &out.Slots[i]
		if slot.ID == uuid.Nil {
			slot.ID = uuid.Must(uuid.NewV7())
		}
		slot.Each(func(r *plan.Row) {
			if r.ID == uuid.Nil {
				r.ID = uuid.Must(uuid.NewV7())
			}
		})
	}
	return out
}

func viewBoard(t *week.Trainee, p *plan.Planned, kept *store.Session, counted *week.Totals) BoardSession {
	out := BoardSession{
		WeekDraft: weekDraft(p, kept),
		Minutes:   view.Round4(counted.Minutes),
		WarmUp:    view.Round4(counted.WarmUp),
		Spent:     counted.Spent.Words(),
		Board:     []BoardSlot{},
		Slice:     view.SetsSlice("Effective sets in "+p.Name, counted.Heads),
	}
	for i := range p.Slots {
		slot := &p.Slots[i]
		out.Board = append(
			out.Board,
			BoardSlot{
				slot.ID,
				slot.SetUp.Title(),
				slot.SetUp.Short(),
				slot.SetUp.Details(),
				view.GlyphOf(slot.SetUp, counted.Slots[i].Profile, counted.Slots[i].Reading),
				p.DoneWords(i),
				p.LoadWords(i, t.Floor()),
				view.FitOf(t.FitOf(slot)),
			},
		)
	}
	return out
}

// viewFix lists the sessions that a fix changes, as they are after it.
func viewFix(f *week.Fix, before *week.Week, kept []store.Session) *FixView {
	out := &FixView{Words: f.Words, Sessions: []WeekDraft{}}
	for i := range f.Week.Sessions {
		if was, is := &before.Sessions[i], &f.Week.Sessions[i]; was.On != is.On || !was.Session.Same(&is.Session) {
			out.Sessions = append(out.Sessions, weekDraft(is, &kept[i]))
		}
	}
	return out
}
