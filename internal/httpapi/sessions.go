package httpapi

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
	"musculus/internal/store"
)

// Step is a load the room really has, as a row takes it.
type Step struct {
	Load  dose.Load `json:"load"`
	Words string    `json:"words"`
}

// SlotView is a slot with what follows from it.
type SlotView struct {
	plan.SlotJSON
	Title     string    `json:"title"`
	Details   string    `json:"details"`
	Glyph     Glyph     `json:"glyph"`
	Refused   string    `json:"refused"`
	DoseWords string    `json:"dose_words"`
	LoadWords string    `json:"load_words"`
	Steps     []Step    `json:"steps"`
	CanFail   bool      `json:"can_fail_alone"`
	Gets      SliceView `json:"gets"` // effective sets of this slot

	Group       string       `json:"group" enum:"flexors,extensors"`
	Methods     []MethodView `json:"methods"`
	GripWords   string       `json:"grip_words"`   // set by set, empty where they are all one
	StartsWords string       `json:"starts_words"` // which arm begins, empty where both work together
	RowWords    []RowView    `json:"row_words"`    // each row told by itself
	Apart       string       `json:"apart"`        // why it cannot be, empty if it can
	Cautions    []string     `json:"cautions"`     // what keeps the client safe in it
}

// FindingView is what the tool says in the margin.
type FindingView struct {
	Severity string `json:"severity" enum:"stop,warn,note"`
	Text     string `json:"text"`
	Slot     *int   `json:"slot"` // index
}

// SessionView is a session with everything that follows from it.
type SessionView struct {
	ID         uuid.UUID     `json:"id"`
	Name       string        `json:"name"`
	PlannedOn  day.Day       `json:"planned_on" format:"date"`
	When       string        `json:"when"`
	Version    int           `json:"version"`
	SavedAt    time.Time     `json:"saved_at"`
	SavedBy    string        `json:"saved_by"`
	WarmUpMin  float64       `json:"warm_up_min"`
	Intent     string        `json:"intent" enum:",heavy,light"`
	Locked     bool          `json:"locked,omitempty"`
	Combos     []plan.Combo  `json:"combos"`
	Slots      []SlotView    `json:"slots"`
	Total      SliceView     `json:"total"`
	Minutes    float64       `json:"minutes"`
	WarmUp     float64       `json:"warm_up"` // minutes of them: the general one and the ramp
	Ramp       string        `json:"ramp"`    // what leads up to the first working load, empty for nothing
	MinutesHas int           `json:"minutes_has"`
	Over       bool          `json:"over_minutes"`
	Flexors    int           `json:"hard_sets_flexors"`
	Extensors  int           `json:"hard_sets_extensors"`
	Findings   []FindingView `json:"findings"`
	MinReserve int           `json:"min_reserve"`
	MinRestS   int           `json:"min_rest_s"`
	PlainRestS int           `json:"plain_rest_s"` // of a slot taken out of a combo
	Blocked    string        `json:"blocked"`      // why the client may not train, empty if she may
}

// SessionPath is a session of a client in an address.
type SessionPath struct {
	Client  uuid.UUID `path:"client"`
	Session uuid.UUID `path:"session"`
}

type sessionOutput struct{ Body SessionView }

type saveInput struct {
	SessionPath
	Body struct {
		plan.Planned
		Version int       `json:"version" minimum:"1" maximum:"1000000" doc:"the version that was edited"`
		Write   uuid.UUID `json:"write" doc:"made for this save; sending it again saves once"`
		Sure    bool      `json:"sure,omitempty" doc:"answers a question: on a past day all the same"`
	}
}

type addInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		plan.Planned
		Write uuid.UUID `json:"write"`
		Sure  bool      `json:"sure,omitempty" doc:"answers a question: on a past day all the same"`
	}
}

type previewInput struct {
	SessionPath
	Body struct {
		plan.Planned
		Active  *uuid.UUID `json:"active,omitempty" doc:"the slot whose set-up is shown in full"`
		Turning string     `json:"turning,omitempty" maxLength:"40"`
	}
}

// Preview is an unsaved session, with the active slot's set-up in full.
type Preview struct {
	Session SessionView  `json:"session"`
	Active  *Fitted      `json:"active,omitempty"`
	Faults  []FieldFault `json:"faults"` // what keeps it from being saved
}

// FieldFault is a fault at a field of the draft.
type FieldFault struct {
	Field  string `json:"field"`
	Reason string `json:"reason"`
	Asks   bool   `json:"asks"` // a reason answers it
}

type previewOutput struct{ Body Preview }

// StaleProblem is a 409 that shows what was saved in between.
type StaleProblem struct {
	huma.ErrorModel
	Current SessionView `json:"current"`
}

// ContentType marks it as a problem.
func (*StaleProblem) ContentType(string) string { return "application/problem+json" }

// staleProblem is what a refused save is answered with: with what is kept now
// where someone else saved first, else the error as it is.
func (s *server) staleProblem(ctx context.Context, tx *store.Tx, c *store.Client, err error) error {
	var stale *store.Stale
	if !errors.As(err, &stale) {
		return err
	}
	current, err := s.viewKept(ctx, tx, c, stale.Current)
	if err != nil {
		return err
	}
	return &StaleProblem{*problem(http.StatusConflict, stale.Error()), current}
}

func (s *server) registerSessions(api huma.API) {
	const path = "/clients/{client}/sessions/{session}"
	huma.Register(api, operation("get-session", http.MethodGet, path, "One session"), s.getSession)
	huma.Register(api, operation("add-session", http.MethodPost, "/clients/{client}/sessions", "Plan a session"), s.addSession)
	huma.Register(api, operation("save-session", http.MethodPut, path, "Save a session"), s.saveSession)
	huma.Register(api, operation("preview-session", http.MethodPost, path+"/preview", "What an unsaved session comes to"), s.previewSession)
}

func (s *server) getSession(ctx context.Context, in *SessionPath) (*sessionOutput, error) {
	out := &sessionOutput{}
	err := s.inSession(ctx, *in, func(tx *store.Tx, _ store.Account, c *store.Client, kept store.Session) (err error) {
		out.Body, err = s.viewKept(ctx, tx, c, kept)
		return err
	})
	return out, err
}

func (s *server) addSession(ctx context.Context, in *addInput) (*sessionOutput, error) {
	out := &sessionOutput{}
	err := s.inClient(ctx, in.Client, func(tx *store.Tx, a store.Account, c *store.Client) error {
		draft, err := s.checked(ctx, c, &in.Body.Planned)
		if err != nil {
			return err
		}
		draft.ClientID = in.Client
		if err := s.dayAsked(ctx, tx, &draft, "body.planned_on", in.Body.Sure); err != nil {
			return err
		}
		if err := tx.AddSession(ctx, draft, a.ID, in.Body.Write, movements(ctx)); err != nil {
			return err
		}
		if err := s.weekHolds(ctx, tx, c, draft.On); err != nil {
			return err
		}
		kept, err := tx.Session(ctx, in.Client, in.Body.ID, movements(ctx))
		if err != nil {
			return err
		}
		out.Body, err = s.viewKept(ctx, tx, c, kept)
		return err
	})
	return out, err
}

func (s *server) saveSession(ctx context.Context, in *saveInput) (*sessionOutput, error) {
	out := &sessionOutput{}
	err := s.inClient(ctx, in.Client, func(tx *store.Tx, a store.Account, c *store.Client) error {
		draft, err := s.checked(ctx, c, &in.Body.Planned)
		if err != nil {
			return err
		}
		draft.ID, draft.ClientID, draft.Version = in.Session, in.Client, in.Body.Version
		if err := s.dayAsked(ctx, tx, &draft, "body.planned_on", in.Body.Sure); err != nil {
			return err
		}
		kept, err := tx.SaveSession(ctx, draft, a.ID, in.Body.Write, movements(ctx))
		if err != nil {
			return s.staleProblem(ctx, tx, c, err)
		}
		if err := s.weekHolds(ctx, tx, c, kept.On); err != nil {
			return err
		}
		out.Body, err = s.viewKept(ctx, tx, c, kept)
		return err
	})
	return out, err
}

// dayAsked asks back before a session is put on a day that is past; one that was on
// that day already stays there.
func (s *server) dayAsked(ctx context.Context, tx *store.Tx, planned *store.Session, location string, sure bool) error {
	if sure || planned.On >= s.day(ctx) {
		return nil
	}
	was, err := tx.Session(ctx, planned.ClientID, planned.ID, movements(ctx))
	switch {
	case err == nil && was.On == planned.On:
		return nil
	case err != nil && !errors.Is(err, pgx.ErrNoRows):
		return err
	}
	return ask(location, fmt.Sprintf("%s is past: plan %s on it all the same?", planned.On.Words(), planned.Name))
}

// weekHolds refuses what would make a week more than is counted and audited.
func (s *server) weekHolds(ctx context.Context, tx *store.Tx, c *store.Client, on day.Day) error {
	from := on.Monday()
	kept, err := tx.SessionsBetween(ctx, c.ID, from, from+6, movements(ctx))
	slots := 0
	for i := range kept {
		slots += len(kept[i].Slots)
	}
	if err == nil && slots > week.MostWeekSlots {
		err = fieldProblem("body.slots", "%d slots in this week are more than %d", slots, week.MostWeekSlots)
	}
	return err
}

func (s *server) previewSession(ctx context.Context, in *previewInput) (*previewOutput, error) {
	var c store.Client
	var t *week.Trainee
	err := s.inStudio(ctx, func(tx *store.Tx, _ store.Account) (err error) {
		if c, err = tx.Client(ctx, in.Client); err == nil {
			t, err = s.informed(ctx, tx, &c)
		}
		return err
	})
	if err != nil {
		return nil, err
	}
	out := &previewOutput{}
	draft, wrong := s.read(ctx, &c, &in.Body.Planned)
	if len(wrong) > 0 { // a set-up that cannot even be read
		return nil, faults("body.", wrong)
	}
	draft.ID = in.Session
	out.Body.Faults = []FieldFault{}
	for _, f := range t.Check(&draft.Session) {
		out.Body.Faults = append(out.Body.Faults, FieldFault{f.Field, f.Reason, f.Asks})
	}
	if out.Body.Session, err = s.viewSession(ctx, t, &c, draft); err != nil {
		return nil, problemOf(err)
	}
	for _, slot := range draft.Slots {
		if in.Body.Active != nil && slot.ID == *in.Body.Active {
			fitted := s.fitted(slot.SetUp, t.Yardstick, t.Stance, t.Fence, movement.Key(in.Body.Turning))
			out.Body.Active = &fitted
		}
	}
	return out, nil
}

// viewKept views a session as it is kept.
func (s *server) viewKept(ctx context.Context, tx *store.Tx, c *store.Client, kept store.Session) (SessionView, error) {
	t, err := s.informed(ctx, tx, c)
	if err != nil {
		return SessionView{}, err
	}
	return s.viewSession(ctx, t, c, kept)
}

// viewSession counts a session and says everything about it.
func (s *server) viewSession(ctx context.Context, t *week.Trainee, c *store.Client, kept store.Session) (SessionView, error) {
	if len(kept.Faults) > 0 {
		return SessionView{}, kept.Faults[0]
	}
	session := &kept.Session
	counted := week.Count(session, t.Yardstick, t.Stance)
	out := SessionView{ID: kept.ID, Name: kept.Name, PlannedOn: kept.On, When: kept.On.FromToday(s.day(ctx)),
		Version: kept.Version, SavedAt: kept.SavedAt, SavedBy: kept.SavedBy, WarmUpMin: kept.WarmUpMin, Intent: kept.Intent, Locked: kept.Locked, Combos: kept.Combos, Slots: []SlotView{},
		Total: setsSlice("Effective sets in "+kept.Name, counted.Heads), Minutes: round4(counted.Minutes), MinutesHas: c.Dossier.Minutes, Over: counted.Over(c.Dossier.Minutes),
		Flexors: counted.Flexors, Extensors: counted.Extensors, Findings: []FindingView{}, MinReserve: t.Caps.MinReserve, MinRestS: t.Caps.MinRestS, PlainRestS: dose.PlainRestS(t.Caps), Blocked: s.blocked(c)}
	out.WarmUp, out.Ramp = round4(counted.WarmUp), session.RampWords(t.Floor(), false)
	if out.Combos == nil {
		out.Combos = []plan.Combo{}
	}
	for i := range session.Slots {
		out.Slots = append(out.Slots, viewSlot(t, session, i, counted.Slots[i]))
	}
	for _, f := range t.Findings(session, counted, c.Dossier.Minutes) {
		v := FindingView{Severity: string(f.Severity), Text: f.Text}
		if f.Slot >= 0 {
			v.Slot = &f.Slot
		}
		out.Findings = append(out.Findings, v)
	}
	return out, nil
}
