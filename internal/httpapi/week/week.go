package week

import (
	"context"
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/floor"
	"musculus/internal/core/plan"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// WeekDraft is one session of a week as it is edited.
type WeekDraft struct {
	plan.Planned
	Version int       `json:"version" minimum:"0" maximum:"1000000" doc:"as it was read; 0: it is new"`
	Write   uuid.UUID `json:"write,omitempty" doc:"made for this save; sending it again saves once"`
	Removed bool      `json:"removed,omitempty" doc:"taken out of the plan; saving it without brings it back"`
}

// WeekView is a client's week on one board: sessions on days, what it comes to,
// what is wrong with it.
type WeekView struct {
	From     string         `json:"from" format:"date"`
	To       string         `json:"to" format:"date"`
	Before   string         `json:"before" format:"date"` // a day of what comes before
	After    string         `json:"after" format:"date"`  // and of what comes next
	IsWeek   bool           `json:"is_week"`              // seven days from a Monday; else a block's turn, or what is left of a week
	Days     []DayView      `json:"days"`
	Sessions []BoardSession `json:"sessions"`
	Ledger   LedgerView     `json:"ledger"`
	Findings []AuditView    `json:"findings"`
	Hidden   int            `json:"hidden_findings"` // so many more, the least grave
	Stance   string         `json:"stance"`
	Blocked  string         `json:"blocked"` // why no sheet may be issued, empty if one may
	Removed  []RemovedView  `json:"removed"` // sessions this save took out, to bring them back from
}

// RemovedView is a session that was taken out of the plan.
type RemovedView struct {
	ID      uuid.UUID `json:"id"`
	Version int       `json:"version"`
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
	Minutes float64        `json:"minutes"`
	WarmUp  float64        `json:"warm_up"` // minutes of them
	Spent   string         `json:"spent"`   // what the minutes are made of
	Board   []BoardSlot    `json:"board"`
	Slice   view.SliceView `json:"slice"`
	Done    *floor.Came    `json:"done,omitempty"` // once it has begun, or is past
}

// BoardSlot is a slot on the board.
type BoardSlot struct {
	ID        uuid.UUID    `json:"id"`
	Title     string       `json:"title"`
	Short     string       `json:"short"` // for tight places
	Details   string       `json:"details"`
	Glyph     view.Glyph   `json:"glyph"`
	DoseWords string       `json:"dose_words"`
	LoadWords string       `json:"load_words"`
	Fit       view.LoadFit `json:"fit"` // whether the room's loads suit it, from its own series
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
	Held     bool          `json:"held"` // there is a fix, but what it changes is locked
	Ways     []WayView     `json:"ways"` // of two rules that cannot both be met: what may give way
	Accepted *AcceptedView `json:"accepted,omitempty"`
}

// WayView is one way out of a clash of rules, and where it is set.
type WayView struct {
	Words string `json:"words"`
	Place string `json:"place" enum:"dossier,priorities"`
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
		Sessions []WeekDraft `json:"sessions" maxItems:"42"`
		Sure     bool        `json:"sure,omitempty" doc:"answers a question: on a past day all the same"`
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

func (s *place) registerWeek(api huma.API) {
	huma.Register(
		api,
		op.Operation("get-week", op.Everybody, http.MethodGet, "/clients/{client}/week", "A week on one board, with its ledger and audit"),
		s.getWeek,
	)
	huma.Register(
		api,
		op.Operation("preview-week", op.Everybody, http.MethodPost, "/clients/{client}/week", "What an unsaved week comes to"),
		s.previewWeek,
	)
	huma.Register(
		api,
		op.Operation("save-week", op.Planners, http.MethodPut, "/clients/{client}/week", "Save sessions of a week, all or none"),
		s.saveWeek,
	)
	huma.Register(
		api,
		op.Operation(
			"accept-finding",
			op.Planners,
			http.MethodPost,
			"/clients/{client}/accepted",
			"Let a finding stand with a reason, or no longer",
		),
		s.acceptFinding,
	)
}

func (s *place) getWeek(ctx context.Context, in *weekInput) (*weekOutput, error) {
	on, err := s.DayIn(ctx, in.Of)
	if err != nil {
		return nil, err
	}
	return s.answerWeek(ctx, func(tx *store.Tx, r *weekRead) error {
		c, err := tx.Client(ctx, in.Client)
		if err != nil {
			return err
		}
		span, err := tx.SpanOf(ctx, c.ID, on)
		if err != nil {
			return err
		}
		kept, err := tx.SessionsBetween(ctx, c.ID, span.From, span.Last(), op.Movements(ctx))
		if err != nil {
			return err
		}
		*r, err = s.readWeekOf(ctx, tx, &c, span, kept)
		return err
	})
}

func (s *place) previewWeek(ctx context.Context, in *weekDraftInput) (*weekOutput, error) {
	on, err := s.DayIn(ctx, in.Of)
	if err != nil {
		return nil, err
	}
	return s.answerWeek(ctx, func(tx *store.Tx, r *weekRead) error {
		c, err := tx.Client(ctx, in.Client)
		if err != nil {
			return err
		}
		kept, err := s.readWeek(ctx, &c, in.Body.Sessions)
		if err != nil {
			return err
		}
		span, err := tx.SpanOf(ctx, c.ID, on)
		if err != nil {
			return err
		}
		*r, err = s.readWeekOf(ctx, tx, &c, span, kept)
		return err
	})
}

// answerWeek answers with a week that is read.
func (s *place) answerWeek(ctx context.Context, load func(*store.Tx, *weekRead) error) (*weekOutput, error) {
	return op.Showing(ctx, s.Server, load, func(r *weekRead) (*weekOutput, error) {
		v, err := s.showWeek(ctx, r)
		return &weekOutput{v}, err
	})
}

// readWeek turns drafts into sessions; only what cannot be read at all is refused.
func (s *place) readWeek(ctx context.Context, c *store.Client, drafts []WeekDraft) ([]store.Session, error) {
	edited := make([]store.Session, len(drafts))
	for i := range drafts {
		edited[i] = store.Session{Planned: drafts[i].Planned, Version: drafts[i].Version}
	}
	return s.ReadBoard(ctx, c, edited)
}

// fits refuses more than a week holds.
func fits(drafts []WeekDraft) error {
	slots := 0
	for i := range drafts {
		slots += len(drafts[i].Slots)
	}
	return op.WeekFits(slots)
}

// saveWeek saves the sessions it is sent, all or none; those it is not sent stay.
func (s *place) saveWeek(ctx context.Context, in *weekDraftInput) (*weekOutput, error) {
	on, err := s.DayIn(ctx, in.Of)
	if err != nil {
		return nil, err
	}
	if err := fits(in.Body.Sessions); err != nil {
		return nil, err
	}
	var read weekRead
	var removed []RemovedView
	if err := s.InClient(ctx, in.Client, func(tx *store.Tx, a store.Account, c *store.Client) error {
		for i := range in.Body.Sessions {
			d := &in.Body.Sessions[i]
			if d.Removed {
				gone, err := s.takeOut(ctx, tx, c, d, a.ID)
				if err != nil {
					return err
				}
				removed = append(removed, RemovedView{gone.ID, gone.Version})
				continue
			}
			kept, err := s.Checked(ctx, c, &d.Planned)
			if err != nil {
				return err
			}
			kept.Version = d.Version
			if err := s.DayAsked(ctx, tx, &kept, fmt.Sprintf("body.sessions[%d].planned_on", i), in.Body.Sure); err != nil {
				return err
			}
			if d.Version == 0 {
				err = tx.AddSession(ctx, kept, a.ID, d.Write, op.Movements(ctx))
			} else {
				_, err = tx.SaveSession(ctx, kept, a.ID, d.Write, op.Movements(ctx))
			}
			if err != nil {
				return s.StaleProblem(ctx, tx, c, err)
			}
			if err := s.WeekHolds(ctx, tx, c, kept.On); err != nil {
				return err
			}
		}
		span, err := tx.SpanOf(ctx, c.ID, on)
		if err != nil {
			return err
		}
		kept, err := tx.SessionsBetween(ctx, c.ID, span.From, span.Last(), op.Movements(ctx))
		if err != nil {
			return err
		}
		read, err = s.readWeekOf(ctx, tx, c, span, kept)
		return err
	}); err != nil {
		return nil, err
	}
	v, err := s.showWeek(ctx, &read)
	v.Removed = append(v.Removed, removed...)
	return &weekOutput{v}, op.ProblemIf(err)
}

// takeOut takes a session out of the plan, as it is kept; one in which sets are
// logged stays.
func (s *place) takeOut(ctx context.Context, tx *store.Tx, c *store.Client, d *WeekDraft, by uuid.UUID) (store.Session, error) {
	kept, err := tx.Session(ctx, c.ID, d.ID, op.Movements(ctx))
	if err != nil {
		return kept, err
	}
	logged, err := tx.LoggedSessions(ctx, c.ID)
	if err != nil {
		return kept, err
	}
	if n := logged[d.ID].Sets; n > 0 {
		sets := "1 set is"
		if n > 1 {
			sets = fmt.Sprintf("%d sets are", n)
		}
		return kept, op.Problem(http.StatusUnprocessableEntity, sets+" logged in "+kept.Name+": it stays")
	}
	kept.Version, kept.Removed = d.Version, true
	kept, err = tx.SaveSession(ctx, kept, by, d.Write, op.Movements(ctx))
	if err != nil {
		err = s.StaleProblem(ctx, tx, c, err)
	}
	return kept, err
}

func (s *place) acceptFinding(ctx context.Context, in *acceptInput) (*struct{}, error) {
	reason := strings.TrimSpace(in.Body.Reason)
	if in.Body.Accepted && reason == "" {
		return nil, op.FieldProblem("body.reason", "a finding is accepted with a reason")
	}
	return nil, s.InClient(ctx, in.Client, func(tx *store.Tx, a store.Account, _ *store.Client) error {
		return tx.AcceptFinding(ctx, in.Body.ID, in.Client, in.Body.Key, in.Body.Accepted, reason, a.ID)
	})
}
