package httpapi

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/day"
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
	RawBody []byte
}

// ImportView is what an import would change; nothing is kept yet.
type ImportView struct {
	Sessions []WeekDraft     `json:"sessions"` // to be saved as they are
	Changes  []string        `json:"changes"`  // what saving them changes
	Unknown  []string        `json:"unknown"`  // columns or fields nobody knows
	Problems []ImportTrouble `json:"problems"` // what was not understood, and what could not be saved
}

// ImportTrouble is one thing that was not understood, and where.
type ImportTrouble struct {
	Where  string `json:"where"`
	Reason string `json:"reason"`
}

type importPlanOutput struct{ Body ImportView }

// mostImport bounds a file that is imported, bytes.
const mostImport = 4 << 20

func (s *server) registerPlans(api huma.API) {
	huma.Register(api, operation("export-plan", http.MethodGet, "/clients/{client}/plan", "Sessions as JSON, CSV, workbook or calendar"), s.exportPlan)
	in := operation("import-plan", http.MethodPost, "/clients/{client}/plan", "What importing a file would change; nothing is kept")
	in.MaxBodyBytes = mostImport
	huma.Register(api, in, s.importPlan)
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
	var list []formats.CalendarSession
	for _, one := range kept {
		v, err := s.viewSession(ctx, c, one)
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
				Reserve: d.Reserve, Reserves: d.Reserves, RestS: d.RestS, LoadKg: d.LoadKg, Method: d.Method.ID, MethodN: d.Method.N, Combo: slot.Combo, Cues: slot.Cues, Starts: string(slot.Starts), Locked: slot.Locked}
			for _, g := range slot.Grips {
				line.Grips = append(line.Grips, formats.PlanGrip{Movement: g.Movement.ID, Settings: plain(g.Turned())})
			}
			if d.Tempo.Total() > 0 {
				line.Tempo = d.Tempo[:]
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
		out.Body, err = s.wouldChange(ctx, tx, c, &read)
		return err
	})
}

// wouldChange says what saving a plan that was read would change for a client. A
// session that cannot be kept is told and left out.
func (s *server) wouldChange(ctx context.Context, tx *store.Tx, c *store.Client, read *formats.PlanRead) (ImportView, error) {
	out := ImportView{Sessions: []WeekDraft{}, Changes: []string{}, Unknown: read.Unknown, Problems: []ImportTrouble{}}
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
	for i := range read.Plan.Sessions {
		p := &read.Plan.Sessions[i]
		draft := draftOfPlan(p)
		what := fmt.Sprintf("New: %s on %s, %d slots.", p.Name, p.Date, len(p.Slots))
		for j := range kept {
			if kept[j].Name == draft.Name && store.DayOf(kept[j].PlannedOn).String() == draft.PlannedOn {
				draft.ID, draft.Version = kept[j].ID, kept[j].Version
				draft.Locked = draft.Locked || kept[j].Content.Locked // rows say nothing of it
				what = fmt.Sprintf("%s on %s: %d slots instead of %d.", p.Name, p.Date, len(p.Slots), len(kept[j].Content.Slots))
			}
		}
		if _, err := s.checked(ctx, c, &draft.Draft); err != nil {
			var status huma.StatusError = problemOf(err)
			where := fmt.Sprintf("%s on %s", p.Name, p.Date)
			if model, ok := status.(*huma.ErrorModel); ok && len(model.Errors) > 0 {
				for _, e := range model.Errors {
					out.Problems = append(out.Problems, ImportTrouble{where + ", " + strings.TrimPrefix(e.Location, "body."), e.Message})
				}
			} else {
				out.Problems = append(out.Problems, ImportTrouble{where, status.Error()})
			}
			continue // told, and left out of what is saved
		}
		out.Sessions, out.Changes = append(out.Sessions, draft), append(out.Changes, what)
	}
	return out, nil
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
