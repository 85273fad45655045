package week

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/formats"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
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

func (s *place) registerPlans(api huma.API) {
	huma.Register(
		api,
		op.Operation("export-plan", op.Everybody, http.MethodGet, "/clients/{client}/plan", "Sessions as JSON, CSV, workbook or calendar"),
		s.exportPlan,
	)
	huma.Register(
		api,
		op.Operation(
			"import-plan",
			op.Planners,
			http.MethodPost,
			"/clients/{client}/plan",
			"What importing a file would change; nothing is kept",
			op.Reads(4<<20),
			op.Takes(30*time.Second),
		),
		s.importPlan,
	)
}

func (s *place) exportPlan(ctx context.Context, in *exportPlanInput) (*huma.StreamResponse, error) {
	from := s.Day(ctx).Monday()
	if in.From != "" {
		var err error
		if from, err = day.Parse(in.From); err != nil {
			return nil, op.FieldProblem("query.from", "not a date")
		}
	}
	var b bytes.Buffer
	kind := map[string]string{"json": "application/json", "csv": "text/csv; charset=utf-8",
		"xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", "ics": "text/calendar; charset=utf-8"}[in.Format]
	if err := s.InClient(ctx, in.Client, func(tx *store.Tx, _ store.Account, c *store.Client) error {
		kept, err := tx.SessionsBetween(ctx, c.ID, from, from+day.Day(in.Days-1), op.Movements(ctx))
		if err != nil {
			return err
		}
		if in.Format == "ics" {
			return s.writeCalendar(ctx, &b, c, kept)
		}
		plan, err := planOf(c, kept)
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

func (s *place) writeCalendar(ctx context.Context, b *bytes.Buffer, c *store.Client, kept []store.Session) error {
	t, err := s.Trainee(c)
	if err != nil {
		return err
	}
	var list []formats.CalendarSession
	for i := range kept {
		one := &kept[i]
		if len(one.Faults) > 0 {
			return one.Faults[0]
		}
		says := []string{fmt.Sprintf("%.0f minutes", t.Count(&one.Session).Minutes)}
		for k := range one.Slots {
			says = append(says, fmt.Sprintf("%d. %s, %s", k+1, one.Slots[k].SetUp.Title(), one.Words(k)))
		}
		list = append(
			list,
			formats.CalendarSession{
				ID:    one.ID.String(),
				Name:  one.Name,
				Where: c.Room().Name,
				Says:  strings.Join(says, "\n"),
				Date:  one.On,
			},
		)
	}
	return formats.WriteCalendar(b, c.Dossier.Name, list, s.Now())
}

// planOf turns kept sessions into what leaves.
func planOf(c *store.Client, kept []store.Session) (*formats.Plan, error) {
	out := &formats.Plan{Client: c.Dossier.Name, Sessions: []formats.PlanSession{}}
	for i := range kept {
		one := &kept[i]
		if len(one.Faults) > 0 {
			return nil, one.Faults[0]
		}
		one.Settle(op.Floor(c))
		out.Sessions = append(out.Sessions, formats.SessionOf(&one.Planned, func(slot, row int) (*float64, string, string) {
			set, l := one.Slots[slot].SetUpIn(row), one.Slots[slot].Rows[row].Load
			room := c.Room()
			means := person.CarryOf(set).Label(set, room.UnitOf(set))
			if l == nil || l.Kg == nil && l.AddedKg == nil {
				return nil, "", means
			}
			rack := op.Floor(c).Rack(set)
			mark, unit := room.MarkOf(set, rack.Carry.Whole(*one.Hand(slot, row, op.Floor(c)), rack.Rigging))
			mark = view.TenGrams(mark)
			return &mark, string(unit), means
		}))
	}
	return out, nil
}

// importPlan reads a file and says what it would change. A session of the same
// name on the same day is the one that is changed.
func (s *place) importPlan(ctx context.Context, in *importPlanInput) (*importPlanOutput, error) {
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
	return out, s.InClient(ctx, in.Client, func(tx *store.Tx, _ store.Account, c *store.Client) (err error) {
		out.Body, err = s.wouldChange(ctx, tx, c, &read, in.Load)
		return err
	})
}

// wouldChange says what saving a plan that was read would change for a client. A
// session that plans what is kept already changes nothing; one that cannot be kept,
// or about which a question is open, is told and left out.
func (s *place) wouldChange(ctx context.Context, tx *store.Tx, c *store.Client, read *formats.PlanRead, trust string) (ImportView, error) {
	out := ImportView{
		Sessions:  []WeekDraft{},
		Changes:   []string{},
		Unknown:   read.Unknown,
		Problems:  []ImportTrouble{},
		Questions: []ImportTrouble{},
	}
	if out.Unknown == nil {
		out.Unknown = []string{}
	}
	for _, p := range read.Problems {
		out.Problems = append(out.Problems, ImportTrouble(p))
	}
	kept, err := tx.Sessions(ctx, c.ID, op.Movements(ctx))
	if err != nil {
		return out, err
	}
	taken := map[uuid.UUID]bool{}
	for i := range read.Plan.Sessions {
		p := &read.Plan.Sessions[i]
		where := fmt.Sprintf("%s on %s", p.Name, p.Date)
		on, err := day.Parse(p.Date)
		if err != nil {
			continue // told when it was read
		}
		draft := WeekDraft{
			Planned: plan.Planned{ID: uuid.Must(uuid.NewV7()), Name: strings.TrimSpace(p.Name), On: on, Session: p.Session()},
		}
		draft.Resolve(op.Movements(ctx)) // what cannot be read is told when it is checked
		what := fmt.Sprintf("New: %s, %d slots.", where, len(p.Slots))
		var old *store.Session
		if at := slices.IndexFunc(kept, func(x store.Session) bool { return !taken[x.ID] && x.Name == draft.Name && x.On == on }); at >= 0 {
			old = &kept[at]
			taken[old.ID] = true
			draft.ID, draft.Version = old.ID, old.Version
			what = where + ": " + draft.Arrive(&old.Session, newID).Words()
		} else {
			draft.Arrive(&plan.Session{}, newID)
		}
		questions := draft.SettleMarks(
			func(slot, row int) *float64 { return p.Slots[slot].Rows[row].MarkedKg() },
			op.Floor(c),
			plan.Trust(trust),
		)
		for _, q := range questions {
			out.Questions = append(out.Questions, ImportTrouble{fmt.Sprintf("%s, slot %d", where, q.Slot+1), q.Text})
		}
		if len(questions) > 0 {
			continue
		}
		if plans, wrong := s.Read(ctx, c, &draft.Planned); old != nil && len(wrong) == 0 && same(&plans, old, c) {
			out.Same++
			continue
		}
		checked, err := s.Checked(ctx, c, &draft.Planned)
		if err != nil {
			out.Problems = append(out.Problems, troubles(where, err)...)
			continue // told, and left out of what is saved
		}
		draft.Planned = checked.Planned
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
	model, _ := op.ProblemOf(err).(*huma.ErrorModel)
	if asks, ok := op.ProblemOf(err).(*op.AskProblem); ok {
		model = &asks.ErrorModel
	}
	if model == nil || len(model.Errors) == 0 {
		return []ImportTrouble{{where, op.ProblemOf(err).Error()}}
	}
	var out []ImportTrouble
	for _, e := range model.Errors {
		out = append(out, ImportTrouble{where + ", " + movement.PlaceWords(strings.TrimPrefix(e.Location, "body.")), e.Message})
	}
	return out
}

// newID makes an id for what arrived without one.
func newID() uuid.UUID { return uuid.Must(uuid.NewV7()) }

// same says whether a session that arrived plans what is kept.
func same(arrived, kept *store.Session, c *store.Client) bool {
	old := store.Session{Planned: kept.Planned}
	old.Slots = slices.Clone(kept.Slots)
	old.Settle(op.Floor(c))
	is := store.Session{Planned: arrived.Planned}
	return is.SameAs(&old)
}

// loggedIn adds what is logged in slots that would go.
func loggedIn(ctx context.Context, tx *store.Tx, what string, draft *WeekDraft, old *store.Session) (string, error) {
	stays := map[uuid.UUID]bool{}
	for i := range draft.Slots {
		stays[draft.Slots[i].ID] = true
	}
	entries, err := tx.SessionEntries(ctx, old.ID, op.Movements(ctx))
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
