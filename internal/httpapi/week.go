package httpapi

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/week"
	"musculus/internal/store"
)

// WeekDraft is one session of a week as it is edited.
type WeekDraft struct {
	Draft
	ID      uuid.UUID `json:"id"`
	Version int       `json:"version" doc:"as it was read; 0: it is new"`
	Write   uuid.UUID `json:"write,omitempty" doc:"made for this save; sending it again saves once"`
}

// WeekView is a client's week on one board: sessions on days, what it comes to,
// what is wrong with it.
type WeekView struct {
	From     string         `json:"from" format:"date"`
	To       string         `json:"to" format:"date"`
	Days     []DayView      `json:"days"`
	Sessions []BoardSession `json:"sessions"`
	Ledger   LedgerView     `json:"ledger"`
	Findings []AuditView    `json:"findings"`
	Stance   string         `json:"stance"`
	Blocked  string         `json:"blocked"` // why no sheet may be issued, empty if one may
}

// DayView is one day of the board.
type DayView struct {
	Date   string `json:"date" format:"date"`
	Name   string `json:"name"`
	Today  bool   `json:"today"`
	Trains bool   `json:"trains"` // the client has time on it
}

// BoardSession is a session on the board.
type BoardSession struct {
	WeekDraft
	Minutes float64     `json:"minutes"`
	Board   []BoardSlot `json:"board"`
	Slice   SliceView   `json:"slice"`
}

// BoardSlot is a slot on the board.
type BoardSlot struct {
	ID        uuid.UUID `json:"id"`
	Title     string    `json:"title"`
	Details   string    `json:"details"`
	Glyph     Glyph     `json:"glyph"`
	DoseWords string    `json:"dose_words"`
	LoadWords string    `json:"load_words"`
}

// LedgerView is what a week comes to.
type LedgerView struct {
	Heads     []LedgerHead  `json:"heads"`
	Slice     SliceView     `json:"slice"` // filled by the week against its targets
	Flexors   int           `json:"hard_sets_flexors"`
	Extensors int           `json:"hard_sets_extensors"`
	MostGroup int           `json:"most_group_sets"`
	Failures  int           `json:"failure_sets"`
	Joints    []LedgerJoint `json:"joints"`
}

// LedgerHead is one head's line.
type LedgerHead struct {
	ID        string     `json:"id"`
	Code      string     `json:"code"`
	Name      string     `json:"name"`
	Direct    float64    `json:"direct"`
	Elsewhere float64    `json:"elsewhere"`
	Total     float64    `json:"total"`
	Low       float64    `json:"low"` // by the least of the stances
	High      float64    `json:"high"`
	From      float64    `json:"target_low"`
	To        float64    `json:"target_high"`
	Level     string     `json:"level" enum:"maintain,build,prioritise"`
	Lengths   []LengthOf `json:"lengths"` // short, middle, long
}

// LengthOf is what a head gets at one length.
type LengthOf struct {
	Name    string  `json:"name" enum:"short,middle,long"`
	Sets    float64 `json:"sets"`
	Covered bool    `json:"covered"`
}

// LedgerJoint is how much of its week's budget a joint carries.
type LedgerJoint struct {
	Name string `json:"name"`
	Load int    `json:"load"`
	Most int    `json:"most"`
}

// AuditView is one finding of the week.
type AuditView struct {
	Key      string        `json:"key"`
	Code     string        `json:"code"`
	Severity string        `json:"severity" enum:"stop,warn,note"`
	Text     string        `json:"text"`
	Why      string        `json:"why"`
	Session  *uuid.UUID    `json:"session"`
	Slot     *uuid.UUID    `json:"slot"`
	Fix      *FixView      `json:"fix,omitempty"`
	Accepted *AcceptedView `json:"accepted,omitempty"`
}

// FixView is the action that clears a finding: the sessions as they are after it.
type FixView struct {
	Words    string      `json:"words"`
	Sessions []WeekDraft `json:"sessions"` // those it changes
}

// AcceptedView says why a finding was let stand.
type AcceptedView struct {
	Reason string    `json:"reason"`
	By     string    `json:"by"`
	At     time.Time `json:"at"`
}

type weekInput struct {
	Client uuid.UUID `path:"client"`
	Of     string    `query:"of" doc:"a day of the week; absent: today"`
}

type weekOutput struct{ Body WeekView }

type weekDraftInput struct {
	Client uuid.UUID `path:"client"`
	Of     string    `query:"of"`
	Body   struct {
		Sessions []WeekDraft `json:"sessions" maxItems:"21"`
	}
}

type acceptInput struct {
	Client uuid.UUID `path:"client"`
	Of     string    `query:"of"`
	Body   struct {
		ID       uuid.UUID `json:"id"`
		Key      string    `json:"key" minLength:"1" maxLength:"400"`
		Accepted bool      `json:"accepted"`
		Reason   string    `json:"reason" maxLength:"300"`
	}
}

func (s *server) registerWeek(api huma.API) {
	huma.Register(api, operation("get-week", http.MethodGet, "/clients/{client}/week", "A week on one board, with its ledger and audit"), s.getWeek)
	huma.Register(api, operation("preview-week", http.MethodPost, "/clients/{client}/week", "What an unsaved week comes to"), s.previewWeek)
	huma.Register(api, operation("save-week", http.MethodPut, "/clients/{client}/week", "Save sessions of a week, all or none"), s.saveWeek)
	huma.Register(api, operation("accept-finding", http.MethodPost, "/clients/{client}/accepted", "Let a finding stand with a reason, or no longer"), s.acceptFinding)
}

// monday reads a day of a week and returns the week's first.
func (s *server) monday(of string) (day.Day, error) {
	d := s.day()
	if of != "" {
		parsed, err := day.Parse(of)
		if err != nil {
			return 0, fieldProblem("query.of", "not a date")
		}
		d = parsed
	}
	return d - day.Day(((int(d)+3)%7+7)%7), nil
}

func (s *server) getWeek(ctx context.Context, in *weekInput) (*weekOutput, error) {
	from, err := s.monday(in.Of)
	if err != nil {
		return nil, err
	}
	out := &weekOutput{}
	return out, s.inStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		c, err := tx.Client(ctx, in.Client)
		if err != nil {
			return err
		}
		kept, err := tx.SessionsBetween(ctx, c.ID, from, from+6)
		if err != nil {
			return err
		}
		out.Body, err = s.viewWeek(ctx, tx, &c, from, kept)
		return err
	})
}

func (s *server) previewWeek(ctx context.Context, in *weekDraftInput) (*weekOutput, error) {
	from, err := s.monday(in.Of)
	if err != nil {
		return nil, err
	}
	out := &weekOutput{}
	return out, s.inStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		c, err := tx.Client(ctx, in.Client)
		if err != nil {
			return err
		}
		kept, err := s.readWeek(&c, in.Body.Sessions)
		if err != nil {
			return err
		}
		out.Body, err = s.viewWeek(ctx, tx, &c, from, kept)
		return err
	})
}

// readWeek turns drafts into sessions; only what cannot be read at all is refused.
func (s *server) readWeek(c *store.Client, drafts []WeekDraft) ([]store.Session, error) {
	var wrong []*movement.FieldError
	out := make([]store.Session, len(drafts))
	for i := range drafts {
		kept, faults := s.read(c, &drafts[i].Draft)
		for _, f := range faults {
			f.Field = fmt.Sprintf("sessions[%d].%s", i, f.Field)
			wrong = append(wrong, f)
		}
		kept.ID, kept.ClientID, kept.Version = drafts[i].ID, c.ID, drafts[i].Version
		out[i] = kept
	}
	return out, faults("body.", wrong)
}

// saveWeek saves the sessions it is sent, all or none; those it is not sent stay.
func (s *server) saveWeek(ctx context.Context, in *weekDraftInput) (*weekOutput, error) {
	from, err := s.monday(in.Of)
	if err != nil {
		return nil, err
	}
	out := &weekOutput{}
	return out, s.inStudio(ctx, func(tx *store.Tx, a store.Account) error {
		c, err := tx.Client(ctx, in.Client)
		if err != nil {
			return err
		}
		for i := range in.Body.Sessions {
			d := &in.Body.Sessions[i]
			kept, err := s.checked(ctx, &c, &d.Draft)
			if err != nil {
				return err
			}
			kept.ID, kept.ClientID, kept.Version = d.ID, c.ID, d.Version
			if d.Version == 0 {
				if err := tx.AddSession(ctx, kept, a.ID, d.Write); err != nil {
					return err
				}
				if _, err := tx.Session(ctx, c.ID, d.ID); err != nil { // an id of another client
					return err
				}
				continue
			}
			_, err = tx.SaveSession(ctx, kept, a.ID, d.Write)
			var stale *store.Stale
			if errors.As(err, &stale) {
				current, err := s.viewSession(ctx, &c, stale.Current)
				if err != nil {
					return err
				}
				return &StaleProblem{*problem(http.StatusConflict, stale.Error()), current}
			}
			if err != nil {
				return err
			}
		}
		kept, err := tx.SessionsBetween(ctx, c.ID, from, from+6)
		if err != nil {
			return err
		}
		out.Body, err = s.viewWeek(ctx, tx, &c, from, kept)
		return err
	})
}

func (s *server) acceptFinding(ctx context.Context, in *acceptInput) (*struct{}, error) {
	reason := strings.TrimSpace(in.Body.Reason)
	if in.Body.Accepted && reason == "" {
		return nil, fieldProblem("body.reason", "a finding is accepted with a reason")
	}
	return nil, s.inStudio(ctx, func(tx *store.Tx, a store.Account) error {
		if _, err := tx.Client(ctx, in.Client); err != nil {
			return err
		}
		return tx.AcceptFinding(ctx, in.Body.ID, in.Client, in.Body.Key, in.Body.Accepted, reason, a.ID)
	})
}

// aims is what a client's weeks are counted against.
func (s *server) aims(ctx context.Context, tx *store.Tx, c *store.Client) (*week.Aims, error) {
	emphasis, _, err := tx.Emphasis(ctx, c.ID)
	if err != nil {
		return nil, err
	}
	since, err := tx.Since(ctx, c.ID, s.now())
	if err != nil {
		return nil, err
	}
	today := s.day()
	out := &week.Aims{FirstYear: c.Dossier.FirstYear(today), Elsewhere: c.Dossier.Elsewhere, Minutes: c.Dossier.Minutes, Weekdays: c.Dossier.Weekdays, Since: since, Today: today}
	for h := range out.Levels {
		out.Levels[h] = emphasis.Of(arm.HeadIndex(h), today)
	}
	return out, nil
}

func (s *server) viewWeek(ctx context.Context, tx *store.Tx, c *store.Client, from day.Day, kept []store.Session) (WeekView, error) {
	t, err := s.trainee(c)
	if err != nil {
		return WeekView{}, err
	}
	if t.Aims, err = s.aims(ctx, tx, c); err != nil {
		return WeekView{}, err
	}
	accepted, err := tx.AcceptedFindings(ctx, c.ID)
	if err != nil {
		return WeekView{}, err
	}
	stock := s.shelves.stock(ctx, t)
	t.Memo = stock.memo
	standing := c.Standing(s.day())
	out := WeekView{From: from.String(), To: (from + 6).String(), Days: []DayView{}, Sessions: []BoardSession{}, Findings: []AuditView{}, Stance: t.Stance.Name}
	if !standing.MayTrain() {
		out.Blocked = standing.Heading()
	}
	for d := from; d < from+7; d++ {
		name := dayTime(d).Weekday().String()
		out.Days = append(out.Days, DayView{d.String(), name, d == s.day(), len(c.Dossier.Weekdays) == 0 || slices.Contains(c.Dossier.Weekdays, strings.ToLower(name[:3]))})
	}
	var w week.Week
	for _, one := range kept {
		session, wrong := one.Content.Week(movements(ctx))
		if len(wrong) > 0 {
			return out, faults("body.", wrong)
		}
		w.Sessions = append(w.Sessions, week.Planned{Ref: one.ID.String(), Name: one.Name, On: store.DayOf(one.PlannedOn), Intent: one.Content.Intent, Session: session})
	}
	ledger := w.Count(t)
	for i := range w.Sessions {
		out.Sessions = append(out.Sessions, viewBoard(t, c, &w.Sessions[i], &kept[i], &ledger.Sessions[i]))
	}
	out.Ledger = viewLedger(t, &ledger)
	for _, f := range w.Audit(t, stock.shelf, &ledger) {
		v := AuditView{Key: f.Key, Code: f.Code, Severity: string(f.Severity), Text: f.Text, Why: f.Why}
		if f.Session >= 0 {
			v.Session = &kept[f.Session].ID
			if f.Slot >= 0 {
				v.Slot = &kept[f.Session].Content.Slots[f.Slot].ID
			}
		}
		if f.Fix != nil {
			v.Fix = viewFix(f.Fix, &w, kept)
		}
		if a, ok := accepted[f.Key]; ok {
			v.Accepted = &AcceptedView{a.Reason, a.By, a.At}
		}
		out.Findings = append(out.Findings, v)
	}
	return out, nil
}

// dayTime is a day as the standard library counts.
func dayTime(d day.Day) time.Time { return time.Unix(int64(d)*24*60*60, 0).UTC() }

func weekDraft(p *week.Planned, kept *store.Session) WeekDraft {
	out := WeekDraft{ID: kept.ID, Version: kept.Version, Draft: Draft{Name: p.Name, PlannedOn: p.On.String(), WarmUpMin: p.WarmUpMin, Intent: p.Intent, Slots: []SlotDraft{}}}
	for _, slot := range p.Slots {
		id, err := uuid.Parse(slot.Ref)
		if err != nil { // one a fix added
			id = uuid.Must(uuid.NewV7())
		}
		out.Slots = append(out.Slots, draftOf(id, slot))
	}
	return out
}

func viewBoard(t *week.Trainee, c *store.Client, p *week.Planned, kept *store.Session, counted *week.Totals) BoardSession {
	out := BoardSession{WeekDraft: weekDraft(p, kept), Minutes: round4(counted.Minutes), Board: []BoardSlot{}, Slice: setsSlice("Effective sets in "+p.Name, counted.Heads)}
	rigging := t.Room.Rigging(c.Dossier.Body().BodyMass)
	for i, slot := range p.Slots {
		out.Board = append(out.Board, BoardSlot{kept.Content.Slots[i].ID, slot.SetUp.Title(), slot.SetUp.Details(), glyph(slot.SetUp, counted.Slots[i].Profile, counted.Slots[i].Reading),
			setsWords(&slot.Dose), loadWords(slot, person.CarryOf(slot.SetUp), rigging)})
	}
	return out
}

func viewLedger(t *week.Trainee, l *week.Ledger) LedgerView {
	out := LedgerView{Heads: []LedgerHead{}, Flexors: l.Flexors, Extensors: l.Extensors, MostGroup: week.MostWeekSets, Failures: l.Failures, Joints: []LedgerJoint{}}
	var mid, low, high [arm.HeadCount]float64
	part := map[float64]float64{}
	for h := range l.Heads {
		line, head := &l.Heads[h], &arm.Heads[h]
		v := LedgerHead{ID: head.ID, Code: head.Code, Name: head.Name, Direct: round4(line.Direct.Mid), Elsewhere: round4(line.Elsewhere.Mid), Total: round4(line.Total.Mid),
			Low: round4(line.Total.Low), High: round4(line.Total.High), From: round4(line.Target.Low), To: round4(line.Target.High), Level: string(line.Level), Lengths: []LengthOf{}}
		for z, name := range []string{"short", "middle", "long"} {
			v.Lengths = append(v.Lengths, LengthOf{name, round4(line.Zones[z]), line.Covered(z)})
		}
		out.Heads = append(out.Heads, v)
		mid[h], low[h], high[h] = line.Total.Mid, line.Total.Low, line.Total.High
		part[line.Total.Mid] = line.Total.Mid / line.Target.Low
	}
	out.Slice = slice("Effective sets of the week", mid, low, high, func(x float64) float64 { return round4(min(part[x], 1)) })
	for _, j := range movement.Joints {
		out.Joints = append(out.Joints, LedgerJoint{j.Words(), l.Joints[j], t.MostJoint(j)})
	}
	return out
}

// viewFix lists the sessions that a fix changes, as they are after it.
func viewFix(f *week.Fix, before *week.Week, kept []store.Session) *FixView {
	out := &FixView{Words: f.Words, Sessions: []WeekDraft{}}
	for i := range f.Week.Sessions {
		was, is := weekDraft(&before.Sessions[i], &kept[i]), weekDraft(&f.Week.Sessions[i], &kept[i])
		if fmt.Sprint(before.Sessions[i]) != fmt.Sprint(f.Week.Sessions[i]) || was.PlannedOn != is.PlannedOn {
			out.Sessions = append(out.Sessions, is)
		}
	}
	return out
}

// shelves keeps the catalogue's shelf and what set-ups come to, for the bodies
// and stances seen last.
type shelves struct {
	mu sync.Mutex
	by map[shelfKey]*stocked
}

type shelfKey struct {
	yardstick any
	stance    string
	catalogue *movement.Catalogue
}

type stocked struct {
	shelf *week.Shelf
	memo  *week.Memo
}

// mostShelves bounds the memory; beyond it all are made anew.
const mostShelves = 200

// stock returns the shelf and the memo for a trainee's body and stance.
func (s *shelves) stock(ctx context.Context, t *week.Trainee) *stocked {
	s.mu.Lock()
	defer s.mu.Unlock()
	key := shelfKey{t.Yardstick, fmt.Sprint(t.Stance.ID, t.Stance.Rules), movements(ctx)}
	if found := s.by[key]; found != nil {
		return found
	}
	if s.by == nil || len(s.by) >= mostShelves {
		s.by = map[shelfKey]*stocked{}
	}
	made := &stocked{week.Stock(movements(ctx), t.Yardstick, t.Stance), week.NewMemo(t.Yardstick, t.Stance)}
	s.by[key] = made
	return made
}
