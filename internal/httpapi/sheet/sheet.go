package sheet

import (
	"context"
	"encoding/json"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/entry"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
	"musculus/internal/core/sheet"
	"musculus/internal/core/week"
	"musculus/internal/figure"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// SheetSlot is one slot as the client reads it.
type SheetSlot struct {
	Title   string         `json:"title"`
	Details string         `json:"details"`
	Slice   view.SliceView `json:"slice"`
	Ribbon  *figure.Ribbon `json:"ribbon,omitempty"`
	Pose    figure.Pose    `json:"pose"`
	Range   string         `json:"range"`
	Sets    string         `json:"sets"`
	Effort  string         `json:"effort"`
	Rest    string         `json:"rest"`
	Tempo   string         `json:"tempo"`
	Load    string         `json:"load"`
	Cues    []string       `json:"cues"`
	Stop    string         `json:"stop"`
	Arm     string         `json:"upper_arm"`
	Grips   string         `json:"grips"`    // set by set, empty where they are all one
	Starts  string         `json:"starts"`   // which arm begins, empty where both work together
	Keeps   []string       `json:"cautions"` // what keeps her safe in it
	SetUp   []string       `json:"set_up"`   // the numbers that decide how it is put together
	Ends    string         `json:"ends"`     // where it starts and ends, in words
	How     string         `json:"how"`      // how a load is found that nobody knows yet, empty where it is known
	Last    string         `json:"last"`     // what the last sets have of their own, empty where they are like the others
	Combo   string         `json:"combo"`    // at the first of several in turns: how they are, with their rests
	InCombo bool           `json:"in_combo"`
	Boxes   Boxes          `json:"boxes"`
}

// Boxes are where on paper is written what was done.
type Boxes struct {
	Sets int      `json:"sets"`
	Arms []string `json:"arms"` // left and right where each has its own; one empty one otherwise
	Unit string   `json:"unit"`
}

// SheetView is one session on one page, as the client reads it: what to do, no
// screening, no health reason.
type SheetView struct {
	Studio   string         `json:"studio"`
	Client   string         `json:"client"`
	Room     string         `json:"room"`
	Session  string         `json:"session"`
	Date     string         `json:"date"`
	Minutes  float64        `json:"minutes"`
	WarmUp   string         `json:"warm_up"`
	Ramp     string         `json:"ramp"`    // what leads up to the first working load, empty for nothing
	Blocked  string         `json:"blocked"` // why there is no sheet, empty if there is one
	Caps     []string       `json:"caps"`    // what to do under them
	Slots    []SheetSlot    `json:"slots"`
	Total    view.SliceView `json:"total"`
	Cautions []string       `json:"cautions"`
	Why      []string       `json:"why"` // in plain words, for the client
}

type sheetOutput struct{ Body SheetView }

func (s *place) registerSheet(api huma.API) {
	huma.Register(
		api,
		op.Operation("get-sheet", op.Everybody, http.MethodGet, "/clients/{client}/sessions/{session}/sheet", "The client's sheet"),
		s.getSheet,
	)
	huma.Register(
		api,
		op.Operation(
			"preview-sheet",
			op.Everybody,
			http.MethodPost,
			"/clients/{client}/sessions/{session}/sheet",
			"What the sheet of an unsaved session reads like",
		),
		s.previewSheet,
	)
	huma.Register(
		api,
		op.Operation(
			"sheet-pdf",
			op.Everybody,
			http.MethodGet,
			"/clients/{client}/sessions/{session}/sheet.pdf",
			"The client's sheet on paper",
		),
		s.sheetPDF,
	)
	huma.Register(
		api,
		op.Operation("link-pdf", op.Anybody, http.MethodGet, "/links/{token}/{session}/sheet.pdf", "An issued sheet on paper, by a link"),
		s.linkPDF,
	)
}

func (s *place) getSheet(ctx context.Context, in *op.SessionPath) (*sheetOutput, error) {
	return s.answerSheet(ctx, in.Client, func(tx *store.Tx, c *store.Client) (store.Session, error) {
		return tx.Session(ctx, in.Client, in.Session, op.Movements(ctx))
	})
}

// answerSheet shows the sheet of the session that find finds.
func (s *place) answerSheet(
	ctx context.Context,
	client uuid.UUID,
	find func(*store.Tx, *store.Client) (store.Session, error),
) (*sheetOutput, error) {
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *sheetRead) error {
		c, err := tx.Client(ctx, client)
		if err != nil {
			return err
		}
		kept, err := find(tx, &c)
		if err != nil {
			return err
		}
		*r, err = readForSheet(ctx, tx, &c, kept)
		return err
	}, func(r *sheetRead) (*sheetOutput, error) {
		v, err := s.sheet(r)
		return &sheetOutput{v}, err
	})
}

type previewSheetInput struct {
	op.SessionPath
	Body plan.Planned
}

func (s *place) previewSheet(ctx context.Context, in *previewSheetInput) (*sheetOutput, error) {
	return s.answerSheet(ctx, in.Client, func(tx *store.Tx, c *store.Client) (store.Session, error) {
		if _, err := tx.Session(ctx, in.Client, in.Session, op.Movements(ctx)); err != nil {
			return store.Session{}, err
		}
		draft, wrong := s.Read(ctx, c, &in.Body)
		draft.ID = in.Session
		return draft, op.Faults("body.", wrong)
	})
}

// sheetRead is what a sheet is made from.
type sheetRead struct {
	studio string
	c      *store.Client
	kept   store.Session
	past   map[string][]entry.Entry // of its series, where loads are told against the last time
}

func readForSheet(ctx context.Context, tx *store.Tx, c *store.Client, kept store.Session) (r sheetRead, err error) {
	r.c, r.kept = c, kept
	if r.studio, err = tx.StudioName(ctx); err == nil && c.Dossier.HideWeights {
		r.past, err = tx.LastOfSeries(ctx, c.ID, seriesOf(&kept.Session), op.Movements(ctx))
	}
	return r, err
}

// seriesOf are the series that a session's slots are logged in.
func seriesOf(p *plan.Session) (keys []string) {
	for i := range p.Slots {
		if p.Slots[i].SetUp.Movement != nil { // else it can no longer be read, which is told elsewhere
			keys = append(keys, p.Slots[i].SetUp.Key())
		}
	}
	return keys
}

func (s *place) sheet(r *sheetRead) (SheetView, error) {
	studio, c, kept := r.studio, r.c, r.kept
	t, err := s.Trainee(c)
	if err != nil {
		return SheetView{}, err
	}
	if len(kept.Faults) > 0 {
		return SheetView{}, kept.Faults[0]
	}
	session, floor := &kept.Session, t.Floor()
	counted := t.Count(session)
	out := SheetView{Studio: studio, Client: c.Dossier.Name, Room: c.Room().Name, Session: kept.Name, Date: kept.On.Long(),
		Minutes: view.Round4(counted.Minutes), WarmUp: session.WarmUpWords(),
		Ramp: session.RampWords(floor, c.Dossier.HideWeights), Caps: []string{}, Slots: []SheetSlot{},
		Total: view.SetsSlice("Effective sets in "+kept.Name, counted.Heads), Cautions: person.SheetCautions, Why: []string{}}
	if out.Blocked = s.Blocked(c); out.Blocked != "" {
		return out, nil
	}
	out.Why = append(out.Why, week.Why(session, &counted)...)
	out.Caps = t.Caps.Does()
	for i := range session.Slots {
		slot, p := &session.Slots[i], counted.Slots[i].Profile
		line := SheetSlot{
			Title:   slot.SetUp.Title(),
			Details: slot.SetUp.Details(),
			Slice:   view.BiasSlice(slot.SetUp, counted.Slots[i].Reading),
			Pose:    view.LookedAt(slot, c.Dossier.Body(), &counted.Slots[i]),
			Range:   slot.SetUp.RangeWords(),
			Sets:    session.DoneWords(i),
			Effort:  slot.EffortWords(),
			Rest:    session.RestWords(i),
			Tempo:   slot.TempoWords(),
			Load: session.LoadWords(
				i,
				floor,
			),
			Grips:  slot.GripWords(),
			Starts: slot.StartsWords(),
			Cues:   slot.Cues,
			Stop:   slot.SetUp.Movement.Stop,
			Arm:    slot.SetUp.Movement.UpperArm,
			Keeps:  t.Cautions(session, i),
			SetUp:  append([]string{}, c.Room().SetUpWords(slot.SetUp, c.Dossier.Body())...),
			Ends:   slot.SetUp.EndsWords(),
			Last:   session.LastWords(i),
			Combo:  session.ComboWords(i),
			Boxes:  boxesOf(slot, c.Room().UnitOf(slot.SetUp)),
		}
		line.InCombo = slot.Combo != ""
		if session.Hand(i, 0, floor) == nil {
			if line.How = series.FindHow; slot.SetUp.Movement.TopRange {
				line.How = series.FindHowTop
			}
		}
		if c.Dossier.HideWeights {
			line.Load = s.mark(c, &kept, i, line.Load, r.past[slot.SetUp.Key()])
		}
		if line.Cues == nil {
			line.Cues = []string{}
		}
		if p != nil {
			r := figure.MakeRibbon(p)
			line.Ribbon = &r
		}
		out.Slots = append(out.Slots, line)
	}
	return out, nil
}

// boxesOf are the boxes of a slot.
func boxesOf(slot *plan.Slot, unit person.Unit) Boxes {
	out := Boxes{Sets: slot.Sets(), Arms: []string{""}, Unit: string(unit)}
	if slot.TakesTurns() {
		out.Arms = []string{"left", "right"}
	}
	return out
}

// mark tells a slot's load without its number, against the last time of its past,
// the latest first; words is what it would be told as where there is no number to
// keep.
func (s *place) mark(c *store.Client, kept *store.Session, i int, words string, past []entry.Entry) string {
	slot := &kept.Slots[i]
	carry, hand := person.CarryOf(slot.SetUp), kept.Hand(i, 0, op.Floor(c))
	if hand == nil || carry == person.BodyWeight && *hand == 0 {
		return words
	}
	rigging := c.Room().Rigging(c.Dossier.Body().BodyMass)
	when, last := "", 0.0
	for _, e := range past { // the latest first
		if e.SessionID != kept.ID {
			done := e.DoneAt.In(c.Zone)
			when, last = done.Weekday().String()+" ("+op.DateWords(done)+")", carry.Whole(e.LoadKg, rigging)
			break
		}
	}
	return series.Mark(c.Room().Steps(slot.SetUp), last, carry.Whole(*hand, rigging), when)
}

// mayLeave refuses what must not reach the client: a session of one who may not
// train, one that is not complete, one with a finding that stops it.
func (s *place) mayLeave(t *week.Trainee, c *store.Client, kept *store.Session) error {
	if why := s.Blocked(c); why != "" {
		return op.Problem(http.StatusUnprocessableEntity, why)
	}
	session, wrong := &kept.Session, kept.Faults
	if len(wrong) == 0 {
		wrong = session.Incomplete()
	}
	if err := op.Faults("session.", wrong); err != nil {
		return err
	}
	for _, f := range t.Findings(session, t.Count(session), c.Dossier.Minutes) {
		if f.Severity == week.Stop {
			return op.Problem(http.StatusUnprocessableEntity, kept.Name+" does not leave as it is: "+f.Text)
		}
	}
	return nil
}

// readSheet reads a sheet as it left. Those that left before sheets held only what
// to do are shown without the rest: a health reason goes, what it asks for stays.
func readSheet(b json.RawMessage, c *movement.Catalogue) (SheetView, error) {
	var out SheetView
	d, err := sheet.Read(b, c)
	if err != nil {
		return out, err
	}
	if err := json.Unmarshal(d.Words, &out); err != nil {
		return out, err
	}
	caps := []string{}
	for _, c := range out.Caps {
		if _, what, told := strings.Cut(c, ": "); told {
			c = strings.ToUpper(what[:1]) + what[1:]
		}
		caps = append(caps, c)
	}
	out.Caps = caps
	for i := range out.Slots {
		z := &out.Slots[i]
		for _, list := range []*[]string{&z.Keeps, &z.SetUp, &z.Boxes.Arms} { // that sheets had not yet when they left
			if *list == nil {
				*list = []string{}
			}
		}
	}
	for _, list := range []*[]string{&out.Cautions, &out.Why} {
		if *list == nil {
			*list = []string{}
		}
	}
	return out, nil
}
