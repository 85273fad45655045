package httpapi

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
	"musculus/internal/store"

	"github.com/google/uuid"
)

// auditedWeek is a client's week with what it comes to and what is wrong with it.
type auditedWeek struct {
	t        *week.Trainee
	week     week.Week
	ledger   week.Ledger
	found    []week.Found
	accepted map[string]store.Accepted
}

// weekRead is what a week is counted and audited from.
type weekRead struct {
	c        *store.Client
	from     day.Day
	kept     []store.Session
	t        *week.Trainee
	accepted map[string]store.Accepted
}

// readWeekOf reads what a client's week is audited against.
func (s *server) readWeekOf(ctx context.Context, tx *store.Tx, c *store.Client, from day.Day, kept []store.Session) (weekRead, error) {
	r := weekRead{c: c, from: from, kept: kept}
	var err error
	if r.t, err = s.informed(ctx, tx, c); err != nil {
		return r, err
	}
	if r.t.Aims, err = s.aims(ctx, tx, c); err != nil {
		return r, err
	}
	if err = s.history(ctx, tx, c, r.t.Aims, from); err != nil {
		return r, err
	}
	r.accepted, err = tx.AcceptedFindings(ctx, c.ID)
	return r, err
}

// auditRead counts and audits a week that was read; the first shown findings come with
// their fixes.
func (s *server) auditRead(ctx context.Context, r *weekRead, shown int) (out auditedWeek, err error) {
	out.t, out.accepted = r.t, r.accepted
	if out.week, err = plannedWeek(r.kept); err != nil {
		return out, err
	}
	stock, err := s.stock(ctx, out.t)
	if err != nil {
		return out, err
	}
	out.t.Memo = stock.memo
	out.ledger = out.week.Count(out.t)
	out.found = out.week.Audit(out.t, stock.shelf, &out.ledger, shown)
	return out, nil
}

// graveFindings counts what is wrong with a week and was not let stand.
func (a *auditedWeek) graveFindings() (n int) {
	for _, f := range a.found {
		if _, ok := a.accepted[f.Key]; !ok && f.Severity != week.Note {
			n++
		}
	}
	return n
}

// showWeek is a week that was read, as the board shows it.
func (s *server) showWeek(ctx context.Context, r *weekRead) (WeekView, error) {
	c, from, kept := r.c, r.from, r.kept
	a, err := s.auditRead(ctx, r, week.MostShown)
	if err != nil {
		return WeekView{}, err
	}
	out := WeekView{From: from.String(), To: (from + 6).String(), Days: []DayView{}, Sessions: []BoardSession{}, Findings: []AuditView{}, Removed: []RemovedView{}, Stance: a.t.Stance.Name, Blocked: s.blocked(c)}
	for d := from; d < from+7; d++ {
		name := d.Weekday()
		out.Days = append(out.Days, DayView{d.String(), name, d == s.day(ctx), len(c.Dossier.Weekdays) == 0 || slices.Contains(c.Dossier.Weekdays, strings.ToLower(name[:3]))})
	}
	for i := range a.week.Sessions {
		out.Sessions = append(out.Sessions, viewBoard(a.t, &a.week.Sessions[i], &kept[i], &a.ledger.Sessions[i]))
	}
	out.Ledger = viewLedger(&a, kept)
	out.Hidden = max(0, len(a.found)-week.MostShown)
	for _, f := range a.found[:len(a.found)-out.Hidden] {
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
			v.Fix = viewFix(f.Fix, &a.week, kept)
		}
		if x, ok := a.accepted[f.Key]; ok {
			v.Accepted = &AcceptedView{x.Reason, x.By, x.At}
		}
		out.Findings = append(out.Findings, v)
	}
	return out, nil
}

// plannedWeek turns kept sessions into the core's week.
func plannedWeek(kept []store.Session) (week.Week, error) {
	var out week.Week
	for i := range kept {
		if len(kept[i].Faults) > 0 {
			return out, faults("body.", kept[i].Faults)
		}
		out.Sessions = append(out.Sessions, kept[i].Planned)
	}
	return out, nil
}

// history tells the aims what the week before asked for.
func (s *server) history(ctx context.Context, tx *store.Tx, c *store.Client, aims *week.Aims, from day.Day) error {
	kept, err := tx.SessionsBetween(ctx, c.ID, from-7, from-1, movements(ctx))
	if err != nil || len(kept) == 0 {
		return err
	}
	before, err := plannedWeek(kept)
	if err == nil { // one that can no longer be read is nothing to compare with
		aims.Before = &before
	}
	return nil
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
	out := BoardSession{WeekDraft: weekDraft(p, kept), Minutes: round4(counted.Minutes), WarmUp: round4(counted.WarmUp), Board: []BoardSlot{}, Slice: setsSlice("Effective sets in "+p.Name, counted.Heads)}
	for i := range p.Slots {
		slot := &p.Slots[i]
		out.Board = append(out.Board, BoardSlot{slot.ID, slot.SetUp.Title(), slot.SetUp.Details(), glyph(slot.SetUp, counted.Slots[i].Profile, counted.Slots[i].Reading),
			p.DoneWords(i), p.LoadWords(i, t.Floor()), viewFit(t.FitOf(slot))})
	}
	return out
}

func viewLedger(a *auditedWeek, kept []store.Session) LedgerView {
	t, l := a.t, &a.ledger
	out := LedgerView{Heads: []LedgerHead{}, Flexors: l.Flexors, Extensors: l.Extensors, MostGroup: week.MostWeekSets, Over: l.OverGroups(), Failures: l.Failures, Joints: []LedgerJoint{}}
	var mid, low, high, fill [arm.HeadCount]float64
	for h := range l.Heads {
		line, head := &l.Heads[h], &arm.Heads[h]
		v := LedgerHead{ID: head.ID, Code: head.Code, Name: head.Name, Direct: round4(line.Direct.Mid), Elsewhere: round4(line.Elsewhere.Mid), Total: round4(line.Total.Mid),
			Low: round4(line.Total.Low), High: round4(line.Total.High), From: round4(line.Target.Low), To: round4(line.Target.High), Level: string(line.Level), Short: line.Short(), Lengths: []LengthOf{}, Terms: []AddendView{}}
		for _, term := range a.week.Terms(t, l, arm.HeadIndex(h)) {
			tv := AddendView{Words: term.Words, Value: round4(term.Value), Rules: []string{}}
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
			v.Lengths = append(v.Lengths, LengthOf{name, round4(line.Zones[z]), line.Covered(z)})
		}
		out.Heads = append(out.Heads, v)
		mid[h], low[h], high[h] = line.Total.Mid, line.Total.Low, line.Total.High
		fill[h] = min(line.Total.Mid/line.Target.Low, 1)
	}
	out.Slice = slice("Effective sets of the week", mid, low, high, fill)
	for i := range l.Sessions {
		out.Minutes += l.Sessions[i].Minutes
		out.WarmUp += l.Sessions[i].WarmUp
	}
	out.Minutes, out.WarmUp = round4(out.Minutes), round4(out.WarmUp)
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
