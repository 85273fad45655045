package httpapi

import (
	"bytes"
	"context"
	"fmt"
	"math"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/week"
	"musculus/internal/formats"
	"musculus/internal/store"
)

type exportPlanInput struct {
	Client uuid.UUID `path:"client"`
	Format string    `query:"format" enum:"json,csv,xlsx,ics" default:"json"`
	From   string    `query:"from" doc:"first day; absent: this week's Monday"`
	Days   int       `query:"days" minimum:"1" maximum:"366" default:"7"`
}

type importPlanInput struct {
	Client  uuid.UUID `path:"client"`
	Format  string    `query:"format" enum:"json,csv,xlsx"`
	Load    string    `query:"load" enum:"marked,hand" doc:"which holds where a load as marked and in one hand disagree; absent: it is asked"`
	RawBody []byte
}

// ImportView is what an import would change; nothing is kept yet.
type ImportView struct {
	Sessions []WeekDraft     `json:"sessions"` // to be saved as they are
	Changes  []string        `json:"changes"`  // what saving them changes
	Unknown  []string        `json:"unknown"`  // columns or fields nobody knows
	Problems []ImportTrouble `json:"problems"` // what was not understood, and what could not be saved
	Same     int             `json:"same"`     // sessions that plan what is kept already
	// Questions keep their sessions from being saved until they are answered.
	Questions []ImportTrouble `json:"questions"`
}

// ImportTrouble is one thing that was not understood, and where.
type ImportTrouble struct {
	Where  string `json:"where"`
	Reason string `json:"reason"`
}

type importPlanOutput struct{ Body ImportView }

func (s *server) registerPlans(api huma.API) {
	huma.Register(api, operation("export-plan", http.MethodGet, "/clients/{client}/plan", "Sessions as JSON, CSV, workbook or calendar"), s.exportPlan)
	huma.Register(api, operation("import-plan", http.MethodPost, "/clients/{client}/plan", "What importing a file would change; nothing is kept"), s.importPlan)
}

func (s *server) exportPlan(ctx context.Context, in *exportPlanInput) (*huma.StreamResponse, error) {
	from, err := s.monday("")
	if in.From != "" {
		if from, err = day.Parse(in.From); err != nil {
			return nil, fieldProblem("query.from", "not a date")
		}
	}
	if err != nil {
		return nil, err
	}
	var b bytes.Buffer
	kind := map[string]string{"json": "application/json", "csv": "text/csv; charset=utf-8", "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", "ics": "text/calendar; charset=utf-8"}[in.Format]
	if err := s.inClient(ctx, in.Client, func(tx *store.Tx, _ store.Account, c *store.Client) error {
		kept, err := tx.SessionsBetween(ctx, c.ID, from, from+day.Day(in.Days-1))
		if err != nil {
			return err
		}
		if in.Format == "ics" {
			return s.writeCalendar(ctx, &b, c, kept)
		}
		plan, err := planOf(ctx, c, kept)
		if err != nil {
			return err
		}
		switch in.Format {
		case "csv":
			return formats.WritePlanCSV(&b, plan)
		case "xlsx":
			return formats.WritePlanXLSX(&b, plan)
		}
		return formats.WritePlanJSON(&b, plan)
	}); err != nil {
		return nil, err
	}
	return &huma.StreamResponse{Body: func(hc huma.Context) {
		hc.SetHeader("Content-Type", kind)
		hc.SetHeader("Content-Disposition", fmt.Sprintf(`attachment; filename="plan-%s.%s"`, from, in.Format))
		if _, err := hc.BodyWriter().Write(b.Bytes()); err != nil {
			panic(http.ErrAbortHandler)
		}
	}}, nil
}

func (s *server) writeCalendar(ctx context.Context, b *bytes.Buffer, c *store.Client, kept []store.Session) error {
	t, err := s.trainee(c)
	if err != nil {
		return err
	}
	var list []formats.CalendarSession
	for _, one := range kept {
		v, err := s.viewSession(ctx, t, c, one)
		if err != nil {
			return err
		}
		says := []string{fmt.Sprintf("%.0f minutes", v.Minutes)}
		for i, slot := range v.Slots {
			says = append(says, fmt.Sprintf("%d. %s, %s", i+1, slot.Title, slot.DoseWords))
		}
		list = append(list, formats.CalendarSession{ID: one.ID.String(), Name: one.Name, Where: c.Room().Name, Says: strings.Join(says, "\n"), Date: one.PlannedOn})
	}
	return formats.WriteCalendar(b, c.Dossier.Name, list, s.now())
}

// planOf turns kept sessions into what leaves.
func planOf(ctx context.Context, c *store.Client, kept []store.Session) (*formats.Plan, error) {
	out := &formats.Plan{Client: c.Dossier.Name, Sessions: []formats.PlanSession{}}
	for _, one := range kept {
		session, wrong := one.Content.Week(movements(ctx))
		if len(wrong) > 0 {
			return nil, wrong[0]
		}
		p := formats.PlanSession{Name: one.Name, Date: store.DayOf(one.PlannedOn).String(), Intent: one.Content.Intent, WarmUpMin: one.Content.WarmUpMin, Locked: one.Content.Locked, Slots: []formats.PlanSlot{}}
		for _, slot := range session.Slots {
			d := slot.Dose
			line := formats.PlanSlot{Movement: slot.SetUp.Movement.ID, InWords: slot.SetUp.Name(), Settings: plain(slot.SetUp.Turned()), Sets: d.Sets, RepsLow: d.RepsLow, RepsHigh: d.RepsHigh,
				Reserve: d.Reserve, Reserves: d.Reserves, RestS: d.RestS, LoadKg: d.LoadKg, LoadMeans: person.CarryOf(slot.SetUp).Label(slot.SetUp), Method: d.Method.ID, MethodN: d.Method.N, Combo: slot.Combo, Cues: slot.Cues, Starts: string(slot.Starts), Locked: slot.Locked}
			for _, g := range slot.Grips {
				line.Grips = append(line.Grips, formats.PlanGrip{Movement: g.Movement.ID, Settings: plain(g.Turned())})
			}
			if d.Tempo.Total() > 0 {
				line.Tempo = d.Tempo[:]
			}
			if d.LoadKg != nil {
				marked := tenGrams(person.CarryOf(slot.SetUp).Whole(*d.LoadKg, c.Room().Rigging(c.Dossier.Body().BodyMass)))
				line.LoadMarked = &marked
			}
			p.Slots = append(p.Slots, line)
		}
		out.Sessions = append(out.Sessions, p)
	}
	return out, nil
}

// importPlan reads a file and says what it would change. A session of the same
// name on the same day is the one that is changed.
func (s *server) importPlan(ctx context.Context, in *importPlanInput) (*importPlanOutput, error) {
	var read formats.PlanRead
	switch in.Format {
	case "csv":
		read = formats.ReadPlanCSV(in.RawBody)
	case "xlsx":
		read = formats.ReadPlanXLSX(in.RawBody)
	default:
		read = formats.ReadPlanJSON(in.RawBody)
	}
	out := &importPlanOutput{}
	return out, s.inClient(ctx, in.Client, func(tx *store.Tx, _ store.Account, c *store.Client) (err error) {
		out.Body, err = s.wouldChange(ctx, tx, c, &read, in.Load)
		return err
	})
}

// wouldChange says what saving a plan that was read would change for a client. A
// session that plans what is kept already changes nothing; one that cannot be kept,
// or about which a question is open, is told and left out.
func (s *server) wouldChange(ctx context.Context, tx *store.Tx, c *store.Client, read *formats.PlanRead, trust string) (ImportView, error) {
	out := ImportView{Sessions: []WeekDraft{}, Changes: []string{}, Unknown: read.Unknown, Problems: []ImportTrouble{}, Questions: []ImportTrouble{}}
	if out.Unknown == nil {
		out.Unknown = []string{}
	}
	for _, p := range read.Problems {
		out.Problems = append(out.Problems, ImportTrouble(p))
	}
	kept, err := tx.Sessions(ctx, c.ID)
	if err != nil {
		return out, err
	}
	taken := map[uuid.UUID]bool{}
	for i := range read.Plan.Sessions {
		p := &read.Plan.Sessions[i]
		draft := draftOfPlan(p)
		where := fmt.Sprintf("%s on %s", p.Name, p.Date)
		what := fmt.Sprintf("New: %s, %d slots.", where, len(p.Slots))
		var old *store.Session
		for j := range kept {
			if !taken[kept[j].ID] && kept[j].Name == draft.Name && store.DayOf(kept[j].PlannedOn).String() == draft.PlannedOn {
				old = &kept[j]
				break
			}
		}
		if old != nil {
			taken[old.ID] = true
			what = where + ": " + matchSlots(ctx, &draft, old)
		}
		if questions := markedLoads(ctx, c, p, &draft, old, trust); len(questions) > 0 {
			out.Questions = append(out.Questions, questions...)
			continue
		}
		if plans, wrong := s.read(c, &draft.Draft); old != nil && len(wrong) == 0 && plans.SameAs(&store.Session{Name: old.Name, PlannedOn: old.PlannedOn, Content: old.Content}) {
			out.Same++
			continue
		}
		if _, err := s.checked(ctx, c, &draft.Draft); err != nil {
			out.Problems = append(out.Problems, troubles(where, err)...)
			continue // told, and left out of what is saved
		}
		if old != nil {
			if what, err = loggedIn(ctx, tx, what, &draft, old); err != nil {
				return out, err
			}
		}
		out.Sessions, out.Changes = append(out.Sessions, draft), append(out.Changes, what)
	}
	return out, nil
}

// troubles tells what keeps a session from being saved, each at its place.
func troubles(where string, err error) []ImportTrouble {
	model, _ := problemOf(err).(*huma.ErrorModel)
	if asks, ok := problemOf(err).(*AskProblem); ok {
		model = &asks.ErrorModel
	}
	if model == nil || len(model.Errors) == 0 {
		return []ImportTrouble{{where, problemOf(err).Error()}}
	}
	var out []ImportTrouble
	for _, e := range model.Errors {
		out = append(out, ImportTrouble{where + ", " + strings.TrimPrefix(e.Location, "body."), e.Message})
	}
	return out
}

// matchSlots gives the slots of a session that was read the ids of those that are
// kept, so that logged sets never part from the plan: by the longest common order
// of movement and settings, then by position. What a file does not say stays. It
// tells what that leaves.
func matchSlots(ctx context.Context, draft *WeekDraft, old *store.Session) string {
	draft.ID, draft.Version = old.ID, old.Version
	draft.Locked = draft.Locked || old.Content.Locked // rows say nothing of it
	key := func(id string, settings map[movement.Key]movement.Value) string {
		if m := movements(ctx).Get(id); m != nil {
			if set, err := m.SetUp(settings); err == nil {
				return set.Key()
			}
		}
		return fmt.Sprint(id, settings)
	}
	var was, is []string
	for i := range old.Content.Slots {
		was = append(was, key(old.Content.Slots[i].Movement, old.Content.Slots[i].Settings))
	}
	for i := range draft.Slots {
		turned, _ := values(draft.Slots[i].Settings) // what cannot be read is told when it is checked
		is = append(is, key(draft.Slots[i].Movement, turned))
	}
	same, other, fresh := 0, 0, 0
	for i, at := range week.Match(was, is) {
		if at < 0 {
			fresh++
			continue
		}
		slot := &old.Content.Slots[at]
		draft.Slots[i].ID = slot.ID
		if was[at] == is[i] {
			same++
		} else {
			other++
		}
		if slices.Equal(slot.Cues, draft.Slots[i].Cues) {
			draft.Slots[i].CueReason = slot.CueReason
		}
	}
	parts := []string{fmt.Sprintf("%d slots keep their movement", same)}
	if same == 1 {
		parts[0] = "1 slot keeps its movement"
	}
	for _, part := range []struct {
		n    int
		what string
	}{{other, "another movement or set-up"}, {fresh, "new"}, {len(was) - same - other, "gone"}} {
		if part.n > 0 {
			parts = append(parts, fmt.Sprintf("%d %s", part.n, part.what))
		}
	}
	return strings.Join(parts, ", ") + "."
}

// loggedIn adds what is logged in slots that would go.
func loggedIn(ctx context.Context, tx *store.Tx, what string, draft *WeekDraft, old *store.Session) (string, error) {
	stays := map[uuid.UUID]bool{}
	for i := range draft.Slots {
		stays[draft.Slots[i].ID] = true
	}
	entries, err := tx.SessionEntries(ctx, old.ID, movements(ctx))
	sets := 0
	for _, e := range entries {
		if !stays[e.SlotID] {
			sets++
		}
	}
	if sets > 0 {
		what += fmt.Sprintf(" %d logged sets stay in the log, without a slot in the plan.", sets)
	}
	return what, err
}

// nearLoad is how far two ways to tell a load may lie apart and still be one, kg.
const nearLoad = 0.005

// markedLoads settles loads that are told twice: as marked on the thing, and as one
// hand carries them. Where only the mark is told it counts; where the two disagree a
// question is asked, unless trust says which of them holds ("marked", "hand").
func markedLoads(ctx context.Context, c *store.Client, p *formats.PlanSession, draft *WeekDraft, old *store.Session, trust string) []ImportTrouble {
	var out []ImportTrouble
	rigging := c.Room().Rigging(c.Dossier.Body().BodyMass)
	for i := range p.Slots {
		read, d := &p.Slots[i], draft.Slots[i].Dose
		m := movements(ctx).Get(read.Movement)
		if read.LoadMarked == nil || m == nil {
			continue
		}
		turned, _ := values(draft.Slots[i].Settings)
		set, err := m.SetUp(turned)
		if err != nil {
			continue // told when it is checked
		}
		carry := person.CarryOf(set)
		hand := carry.PerHand(*read.LoadMarked, rigging)
		switch {
		case d.LoadKg == nil:
			d.LoadKg = &hand
		case math.Abs(hand-*d.LoadKg) <= nearLoad || trust == "hand":
		case trust == "marked":
			d.LoadKg = &hand
		case carry == person.BodyWeight && keptLoad(old, draft.Slots[i].ID, *d.LoadKg): // her mass has changed, not the plan
		case carry == person.BodyWeight: // what one hand carries is somebody's body too: what is added holds
			d.LoadKg = &hand
		default:
			out = append(out, ImportTrouble{fmt.Sprintf("%s on %s, slot %d", p.Name, p.Date, i+1),
				fmt.Sprintf("%s as marked, but %s in one hand would be %s. Which holds?", carry.Words(*read.LoadMarked, set), person.Kg(*d.LoadKg), carry.Words(tenGrams(carry.Whole(*d.LoadKg, rigging)), set))})
		}
	}
	return out
}

// keptLoad says whether a slot is kept with just this load.
func keptLoad(old *store.Session, slot uuid.UUID, load float64) bool {
	if old == nil {
		return false
	}
	for i := range old.Content.Slots {
		if s := &old.Content.Slots[i]; s.ID == slot {
			return s.Dose.LoadKg != nil && *s.Dose.LoadKg == load
		}
	}
	return false
}

// draftOfPlan turns a session that was read into one that is edited.
func draftOfPlan(p *formats.PlanSession) WeekDraft {
	out := WeekDraft{ID: uuid.Must(uuid.NewV7()), Draft: Draft{Name: strings.TrimSpace(p.Name), PlannedOn: p.Date, WarmUpMin: p.WarmUpMin, Intent: p.Intent, Locked: p.Locked, Slots: []SlotDraft{}}}
	for _, slot := range p.Slots {
		d := SlotDraft{ID: uuid.Must(uuid.NewV7()), Movement: slot.Movement, Settings: slot.Settings, Cues: slot.Cues, Combo: slot.Combo, Starts: slot.Starts, Locked: slot.Locked,
			Dose: &DoseDraft{slot.Sets, slot.RepsLow, slot.RepsHigh, slot.Reserve, slot.Reserves, slot.RestS, slot.Tempo, slot.LoadKg, slot.Method, slot.MethodN}}
		if d.Cues == nil {
			d.Cues = []string{}
		}
		for _, g := range slot.Grips {
			if g.Settings == nil {
				g.Settings = map[string]any{}
			}
			d.Grips = append(d.Grips, GripDraft{g.Movement, g.Settings})
		}
		if d.Dose.Tempo == nil {
			d.Dose.Tempo = []float64{}
		}
		if d.Settings == nil {
			d.Settings = map[string]any{}
		}
		out.Slots = append(out.Slots, d)
	}
	return out
}
