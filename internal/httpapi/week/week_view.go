package week

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// showWeek is a week that was read, as the board shows it.
func (s *place) showWeek(ctx context.Context, r *op.WeekRead) (WeekView, error) {
	c, from, kept := r.C, r.From, r.Kept
	a, err := s.AuditRead(ctx, r, week.MostShown)
	if err != nil {
		return WeekView{}, err
	}
	out := WeekView{
		From:     from.String(),
		To:       (from + 6).String(),
		Days:     []DayView{},
		Sessions: []BoardSession{},
		Findings: []AuditView{},
		Removed:  []RemovedView{},
		Stance:   a.T.Stance.Name,
		Blocked:  s.Blocked(c),
	}
	for d := from; d < from+7; d++ {
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

func viewLedger(a *op.AuditedWeek, kept []store.Session) LedgerView {
	t, l := a.T, &a.Ledger
	out := LedgerView{
		Heads:     []LedgerHead{},
		Flexors:   l.Flexors,
		Extensors: l.Extensors,
		MostGroup: week.MostWeekSets,
		Over:      l.OverGroups(),
		Failures:  l.Failures,
		Joints:    []LedgerJoint{},
	}
	var mid, low, high, fill [arm.HeadCount]float64
	for h := range l.Heads {
		line, head := &l.Heads[h], &arm.Heads[h]
		v := LedgerHead{
			ID:        head.ID,
			Code:      head.Code,
			Name:      head.Name,
			Direct:    view.Round4(line.Direct.Mid),
			Elsewhere: view.Round4(line.Elsewhere.Mid),
			Total:     view.Round4(line.Total.Mid),
			Low:       view.Round4(line.Total.Low),
			High:      view.Round4(line.Total.High),
			From:      view.Round4(line.Target.Low),
			To:        view.Round4(line.Target.High),
			Level:     string(line.Level),
			Short:     line.Short(),
			Lengths:   []LengthOf{},
			Terms:     []AddendView{},
		}
		for _, term := range a.Week.Terms(t, l, arm.HeadIndex(h)) {
			tv := AddendView{Words: term.Words, Value: view.Round4(term.Value), Rules: []string{}}
			if term.Session >= 0 {
				tv.Session, tv.Slot = &kept[term.Session].ID, &kept[term.Session].Slots[term.Slot].ID
			}
			for _, r := range term.Rules {
				if !r.Counts {
					continue
				}
				tv.Rules = append(tv.Rules, fmt.Sprintf("%s ×%.2f, grade %s", r.Rule.ID, r.Factor, r.Rule.Grade))
			}
			v.Terms = append(v.Terms, tv)
		}
		for z, name := range []string{"short", "middle", "long"} {
			v.Lengths = append(v.Lengths, LengthOf{name, view.Round4(line.Zones[z]), line.Covered(z)})
		}
		out.Heads = append(out.Heads, v)
		mid[h], low[h], high[h] = line.Total.Mid, line.Total.Low, line.Total.High
		fill[h] = min(line.Total.Mid/line.Target.Low, 1)
	}
	out.Slice = view.SliceOf("Effective sets of the week", mid, low, high, fill)
	for i := range l.Sessions {
		out.Minutes += l.Sessions[i].Minutes
		out.WarmUp += l.Sessions[i].WarmUp
	}
	out.Minutes, out.WarmUp = view.Round4(out.Minutes), view.Round4(out.WarmUp)
	for _, j := range movement.Joints {
		out.Joints = append(out.Joints, LedgerJoint{j.Words(), l.Joints.Of(j), t.MostJoint(j), l.Joints.Of(j) > t.MostJoint(j)})
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
