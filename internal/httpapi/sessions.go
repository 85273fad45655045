package httpapi

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/week"
	"musculus/internal/store"
)

// DoseDraft is a dose as it is edited.
type DoseDraft struct {
	Sets     int       `json:"sets"`
	RepsLow  int       `json:"reps_low"`
	RepsHigh int       `json:"reps_high"`
	Reserve  int       `json:"reserve"`
	Reserves []int     `json:"reserves,omitempty" maxItems:"12" doc:"set by set, where they differ; the last one holds on"`
	RestS    int       `json:"rest_s"`
	Tempo    []float64 `json:"tempo" doc:"eccentric, hold, concentric, hold in s; empty or all 0: controlled, no bounce"`
	LoadKg   *float64  `json:"load_kg" doc:"what one hand carries; null: to be found"`
	Method   string    `json:"method,omitempty" maxLength:"40" doc:"id of a method; absent: straight sets"`
	MethodN  int       `json:"method_n,omitempty" doc:"its parameter; absent: the usual one"`
}

// SlotDraft is a slot as it is edited.
type SlotDraft struct {
	ID       uuid.UUID      `json:"id"`
	Movement string         `json:"movement" maxLength:"60"`
	Settings map[string]any `json:"settings"`
	Dose     *DoseDraft     `json:"dose,omitempty" doc:"absent: the usual dose under the client's caps"`
	Cues     []string       `json:"cues"`
	Combo    string         `json:"combo,omitempty" maxLength:"40" doc:"neighbours with the same one are done in turns"`
	Grips    []GripDraft    `json:"grips,omitempty" maxItems:"12" doc:"the set-ups of the sets one by one, where they differ; the last one holds on"`
	Starts   string         `json:"starts,omitempty" enum:",left,right" doc:"the arm that begins; absent: in turn"`
	Locked   bool           `json:"locked,omitempty" doc:"no fix and no draft touches it"`
}

// GripDraft is the set-up of one set.
type GripDraft struct {
	Movement string         `json:"movement" maxLength:"60"`
	Settings map[string]any `json:"settings"`
}

// Draft is a session as it is edited.
type Draft struct {
	Name      string      `json:"name" minLength:"1" maxLength:"60"`
	PlannedOn string      `json:"planned_on" format:"date"`
	WarmUpMin float64     `json:"warm_up_min"`
	Intent    string      `json:"intent,omitempty" enum:",heavy,light"`
	Slots     []SlotDraft `json:"slots" maxItems:"40"`
	Locked    bool        `json:"locked,omitempty" doc:"no fix and no draft touches its day or its slots"`
}

// Step is a load the room really has.
type Step struct {
	LoadKg float64 `json:"load_kg"` // what one hand carries
	Words  string  `json:"words"`
}

// SlotView is a slot with what follows from it.
type SlotView struct {
	SlotDraft
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
	JoinsBy     string       `json:"joins_by"`     // the method by which it would be done in turns with the next one
	Apart       string       `json:"apart"`        // why it cannot be, empty if it can
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
	PlannedOn  string        `json:"planned_on" format:"date"`
	When       string        `json:"when"`
	Version    int           `json:"version"`
	SavedAt    time.Time     `json:"saved_at"`
	SavedBy    string        `json:"saved_by"`
	WarmUpMin  float64       `json:"warm_up_min"`
	Intent     string        `json:"intent" enum:",heavy,light"`
	Locked     bool          `json:"locked,omitempty"`
	Slots      []SlotView    `json:"slots"`
	Total      SliceView     `json:"total"`
	Minutes    float64       `json:"minutes"`
	WarmUp     float64       `json:"warm_up"` // minutes of them: the general one and the ramp
	Ramp       string        `json:"ramp"`    // what leads up to the first working load, empty for nothing
	MinutesHas int           `json:"minutes_has"`
	Flexors    int           `json:"hard_sets_flexors"`
	Extensors  int           `json:"hard_sets_extensors"`
	Findings   []FindingView `json:"findings"`
	MinReserve int           `json:"min_reserve"`
	MinRestS   int           `json:"min_rest_s"`
	PlainRestS int           `json:"plain_rest_s"` // of a slot taken out of a combo
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
		Draft
		Version int       `json:"version" minimum:"1" doc:"the version that was edited"`
		Write   uuid.UUID `json:"write" doc:"made for this save; sending it again saves once"`
	}
}

type addInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		Draft
		ID    uuid.UUID `json:"id"`
		Write uuid.UUID `json:"write"`
	}
}

type previewInput struct {
	SessionPath
	Body struct {
		Draft
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
func (s *server) staleProblem(ctx context.Context, c *store.Client, err error) error {
	var stale *store.Stale
	if !errors.As(err, &stale) {
		return err
	}
	current, err := s.viewSession(ctx, c, stale.Current)
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
	err := s.inSession(ctx, *in, func(_ *store.Tx, _ store.Account, c *store.Client, kept store.Session) (err error) {
		out.Body, err = s.viewSession(ctx, c, kept)
		return err
	})
	return out, err
}

func (s *server) addSession(ctx context.Context, in *addInput) (*sessionOutput, error) {
	out := &sessionOutput{}
	err := s.inClient(ctx, in.Client, func(tx *store.Tx, a store.Account, c *store.Client) error {
		draft, err := s.checked(ctx, c, &in.Body.Draft)
		if err != nil {
			return err
		}
		draft.ID, draft.ClientID = in.Body.ID, in.Client
		if err := tx.AddSession(ctx, draft, a.ID, in.Body.Write); err != nil {
			return err
		}
		kept, err := tx.Session(ctx, in.Client, in.Body.ID)
		if err != nil {
			return err
		}
		out.Body, err = s.viewSession(ctx, c, kept)
		return err
	})
	return out, err
}

func (s *server) saveSession(ctx context.Context, in *saveInput) (*sessionOutput, error) {
	out := &sessionOutput{}
	err := s.inClient(ctx, in.Client, func(tx *store.Tx, a store.Account, c *store.Client) error {
		draft, err := s.checked(ctx, c, &in.Body.Draft)
		if err != nil {
			return err
		}
		draft.ID, draft.ClientID, draft.Version = in.Session, in.Client, in.Body.Version
		kept, err := tx.SaveSession(ctx, draft, a.ID, in.Body.Write)
		if err != nil {
			return s.staleProblem(ctx, c, err)
		}
		out.Body, err = s.viewSession(ctx, c, kept)
		return err
	})
	return out, err
}

func (s *server) previewSession(ctx context.Context, in *previewInput) (*previewOutput, error) {
	var c store.Client
	err := s.inStudio(ctx, func(tx *store.Tx, _ store.Account) (err error) {
		c, err = tx.Client(ctx, in.Client)
		return err
	})
	if err != nil {
		return nil, err
	}
	out := &previewOutput{}
	draft, wrong := s.read(&c, &in.Body.Draft)
	session, more := draft.Content.Week(movements(ctx))
	if wrong = append(wrong, more...); len(wrong) > 0 { // a set-up that cannot even be read
		return nil, faults("body.", wrong)
	}
	t, err := s.trainee(&c)
	if err != nil {
		return nil, problemOf(err)
	}
	draft.ID = in.Session
	out.Body.Faults = []FieldFault{}
	for _, f := range session.Check(t) {
		out.Body.Faults = append(out.Body.Faults, FieldFault{f.Field, f.Reason})
	}
	if out.Body.Session, err = s.viewSession(ctx, &c, draft); err != nil {
		return nil, problemOf(err)
	}
	for i, slot := range draft.Content.Slots {
		if in.Body.Active != nil && slot.ID == *in.Body.Active {
			fitted := s.fitted(session.Slots[i].SetUp, t.Yardstick, t.Stance, t.Fence, movement.Key(in.Body.Turning))
			out.Body.Active = &fitted
		}
	}
	return out, nil
}

// checked reads a draft and refuses whatever is wrong with it.
func (s *server) checked(ctx context.Context, c *store.Client, d *Draft) (store.Session, error) {
	draft, wrong := s.read(c, d)
	session, more := draft.Content.Week(movements(ctx))
	wrong = append(wrong, more...)
	if len(wrong) == 0 {
		t, err := s.trainee(c)
		if err != nil {
			return draft, err
		}
		for _, f := range session.Check(t) { // doses lie one level down in a draft
			f.Field = doseField(f.Field)
			wrong = append(wrong, f)
		}
		for i := range session.Slots {
			if err := session.Slots[i].SetUpOf(0).Reach(c.Dossier.Body()); err != nil {
				wrong = append(wrong, &movement.FieldError{Field: fmt.Sprintf("slots[%d].settings", i), Reason: err.Error()})
			}
		}
	}
	return draft, faults("body.", wrong)
}

// doseField puts the field of a dose where a draft has it.
func doseField(field string) string {
	slot, name, ok := strings.Cut(field, "].")
	if !ok || name == "cues" || name == "starts" || strings.HasPrefix(name, "grips") {
		return field
	}
	return slot + "].dose." + name
}

// read turns a draft into what is kept; a slot without a dose gets the usual
// one.
func (s *server) read(c *store.Client, d *Draft) (store.Session, []*movement.FieldError) {
	var wrong []*movement.FieldError
	fault := func(field, reason string) { wrong = append(wrong, &movement.FieldError{Field: field, Reason: reason}) }
	out := store.Session{Name: strings.TrimSpace(d.Name), Content: store.Content{WarmUpMin: d.WarmUpMin, Intent: d.Intent, Locked: d.Locked, Slots: []store.PlannedSlot{}}}
	if out.Name == "" {
		fault("name", "a session needs a name")
	}
	day, err := time.Parse(time.DateOnly, d.PlannedOn)
	if err != nil || day.Year() < 2000 || day.Year() > 2100 {
		fault("planned_on", "not a date between 2000 and 2100")
	}
	out.PlannedOn = day
	seen := map[uuid.UUID]bool{}
	for i, slot := range d.Slots {
		at := fmt.Sprintf("slots[%d].", i)
		if seen[slot.ID] {
			fault(at+"id", "two slots have the same id")
		}
		seen[slot.ID] = true
		kept := store.PlannedSlot{ID: slot.ID, Movement: slot.Movement, Combo: slot.Combo, Cues: []string{}, Dose: dose.Usual(s.caps(c)), Starts: week.Starts(slot.Starts), Locked: slot.Locked}
		settingsAt := func(turned map[string]any, at string) map[movement.Key]movement.Value {
			settings, wrongValue := values(turned)
			if wrongValue != nil {
				fault(at+"settings."+wrongValue.Field, wrongValue.Reason)
			}
			return settings
		}
		kept.Settings = settingsAt(slot.Settings, at)
		for n, g := range slot.Grips {
			kept.Grips = append(kept.Grips, store.PlannedGrip{Movement: g.Movement, Settings: settingsAt(g.Settings, fmt.Sprintf("%sgrips[%d].", at, n))})
		}
		for _, cue := range slot.Cues {
			kept.Cues = append(kept.Cues, strings.TrimSpace(cue))
		}
		if d := slot.Dose; d != nil {
			kept.Dose = dose.Dose{Sets: d.Sets, RepsLow: d.RepsLow, RepsHigh: d.RepsHigh, Reserve: d.Reserve, Reserves: d.Reserves, RestS: d.RestS, LoadKg: d.LoadKg, Method: dose.Use{ID: d.Method, N: d.MethodN}}
			if len(d.Reserves) > 0 {
				kept.Dose.Reserve = d.Reserves[0]
			}
			if copy(kept.Dose.Tempo[:], d.Tempo); len(d.Tempo) != 0 && len(d.Tempo) != len(effort.Tempo{}) {
				fault(at+"dose.tempo", "a tempo has four parts: lowering, hold, lifting, hold")
			}
		}
		out.Content.Slots = append(out.Content.Slots, kept)
	}
	return out, wrong
}

// viewSession counts a session and says everything about it.
func (s *server) viewSession(ctx context.Context, c *store.Client, kept store.Session) (SessionView, error) {
	t, err := s.trainee(c)
	if err != nil {
		return SessionView{}, err
	}
	session, wrong := kept.Content.Week(movements(ctx))
	if len(wrong) > 0 {
		return SessionView{}, wrong[0]
	}
	counted := session.Count(t.Yardstick, t.Stance)
	out := SessionView{ID: kept.ID, Name: kept.Name, PlannedOn: kept.PlannedOn.Format(time.DateOnly), When: daysWords(kept.PlannedOn, s.today()),
		Version: kept.Version, SavedAt: kept.SavedAt, SavedBy: kept.SavedBy, WarmUpMin: kept.Content.WarmUpMin, Intent: kept.Content.Intent, Locked: kept.Content.Locked, Slots: []SlotView{},
		Total: setsSlice("Effective sets in "+kept.Name, counted.Heads), Minutes: round4(counted.Minutes), MinutesHas: c.Dossier.Minutes,
		Flexors: counted.Flexors, Extensors: counted.Extensors, Findings: []FindingView{}, MinReserve: t.Caps.MinReserve, MinRestS: t.Caps.MinRestS, PlainRestS: dose.PlainRestS(t.Caps)}
	out.WarmUp, out.Ramp = round4(counted.WarmUp), session.RampWords(t, false)
	for i := range session.Slots {
		out.Slots = append(out.Slots, viewSlot(t, kept.Content.Slots[i].ID, &session, i, counted.Slots[i]))
	}
	for _, f := range session.Findings(t, counted, c.Dossier.Minutes) {
		v := FindingView{Severity: string(f.Severity), Text: f.Text}
		if f.Slot >= 0 {
			v.Slot = &f.Slot
		}
		out.Findings = append(out.Findings, v)
	}
	return out, nil
}
