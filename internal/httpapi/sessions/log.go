package sessions

import (
	"context"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/dose"
	"musculus/internal/core/entry"
	"musculus/internal/core/log"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

type logOutput struct{ Body LogView }

type logSetInput struct {
	op.SessionPath
	Body struct {
		ID        uuid.UUID  `json:"id" doc:"made by the sender; sending it again logs once"`
		Slot      uuid.UUID  `json:"slot"`
		Side      string     `json:"side" enum:"both,left,right"`
		SetNo     int        `json:"set_no" minimum:"1" maximum:"30"`
		Reps      int        `json:"reps" minimum:"0" maximum:"100"`
		WholeKg   float64    `json:"whole_kg" minimum:"-200" maximum:"500"`
		Reserve   int        `json:"reserve" minimum:"0" maximum:"10"`
		Note      string     `json:"note" maxLength:"300"`
		Replaces  *uuid.UUID `json:"replaces,omitempty" doc:"the entry this one corrects"`
		Withdrawn bool       `json:"withdrawn,omitempty" doc:"only take the replaced entry away"`
		Faults    []string   `json:"faults,omitempty" maxItems:"10" doc:"ids of what was seen"`
		Technical bool       `json:"technical,omitempty" doc:"the set ended because form went"`
		DoneAt    *time.Time `json:"done_at,omitempty" doc:"when it was done, by the device's clock; absent: just now"`
		Waited    bool       `json:"waited,omitempty" doc:"it was entered without network and waited on the device"`
		Sure      bool       `json:"sure,omitempty" doc:"answers a question: it was so"`

		Parts []entry.Part `json:"parts,omitempty" maxItems:"12" doc:"what the set was made of; absent: its clean reps alone"`
	}
}

func (s *place) registerLog(api huma.API) {
	const path = "/clients/{client}/sessions/{session}/log"
	huma.Register(api, op.Operation("get-log", op.Everybody, http.MethodGet, path, "What was done"), s.getLog)
	huma.Register(api, op.Operation("log-set", op.Everybody, http.MethodPost, path, "Log a set"), s.logSet)
}

func (s *place) getLog(ctx context.Context, in *op.SessionPath) (*logOutput, error) {
	return s.answerLog(ctx, *in, func(*store.Tx, store.Account, *store.Client, store.Session) error { return nil })
}

// answerLog shows a session's log as it is after do.
func (s *place) answerLog(
	ctx context.Context,
	at op.SessionPath,
	do func(*store.Tx, store.Account, *store.Client, store.Session) error,
) (*logOutput, error) {
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *logRead) error {
		c, err := tx.Client(ctx, at.Client)
		if err != nil {
			return err
		}
		kept, err := tx.Session(ctx, at.Client, at.Session, op.Movements(ctx))
		if err != nil {
			return err
		}
		if err = do(tx, op.AccountOf(ctx), &c, kept); err != nil {
			return err
		}
		*r, err = readLog(ctx, tx, &c, kept)
		return err
	}, func(r *logRead) (*logOutput, error) {
		v, err := s.showLog(ctx, r)
		return &logOutput{v}, err
	})
}

func (s *place) logSet(ctx context.Context, in *logSetInput) (*logOutput, error) {
	return s.answerLog(ctx, in.SessionPath, func(tx *store.Tx, a store.Account, c *store.Client, kept store.Session) error {
		set, err := s.setUpOf(ctx, tx, kept, in.Body.Slot, in.Body.SetNo)
		if err != nil {
			return err
		}
		if sides := sideWords(log.SidesOf(set)); !slices.Contains(sides, in.Body.Side) {
			return op.FieldProblem("body.side", "this set-up is logged for %s", strings.Join(sides, " and "))
		}
		if err := op.Faults("body.", entry.CheckParts(in.Body.Parts, in.Body.Reps)); err != nil {
			return err
		}
		known := map[string]bool{}
		for _, f := range set.Movement.FaultsOf() {
			known[f.ID] = true
		}
		for _, f := range in.Body.Faults {
			if !known[f] {
				return op.FieldProblem("body.faults", "%q is not seen in this movement", f)
			}
		}
		rigging := c.Room().Rigging(c.Dossier.Body().BodyMass)
		perHand := person.CarryOf(set).PerHand(in.Body.WholeKg, rigging)
		if perHand < 0 {
			return op.FieldProblem("body.whole_kg", "%s would leave less than nothing in the hand", person.Kg(in.Body.WholeKg))
		}
		done := s.Now()
		if in.Body.DoneAt != nil {
			if done = *in.Body.DoneAt; done.After(s.Now().Add(clockSlack)) || done.Before(s.Now().Add(-longestWait)) {
				return op.FieldProblem("body.done_at", "not in the last %d days", int(longestWait.Hours()/24))
			}
		}
		e := entry.Entry{
			ID:        in.Body.ID,
			ClientID:  c.ID,
			SessionID: kept.ID,
			SlotID:    in.Body.Slot,
			SetUp:     set,
			Side:      entry.Side(in.Body.Side),
			SetNo:     in.Body.SetNo,
			Reps:      in.Body.Reps,
			LoadKg:    perHand,
			Reserve:   in.Body.Reserve,
			Note:      strings.TrimSpace(in.Body.Note),
			DoneAt:    done,
			Replaces:  in.Body.Replaces,
			Withdrawn: in.Body.Withdrawn,
			Faults:    in.Body.Faults,
			Technical: in.Body.Technical,
			Parts:     in.Body.Parts,
		}
		inPlan(&e, &kept, op.Floor(c))
		if err := keepParts(ctx, tx, &e); err != nil {
			return err
		}
		if e.Mark, err = s.takes(ctx, tx, c, done, in.Body.Replaces != nil, in.Body.Waited); err != nil {
			return err
		}
		if !in.Body.Withdrawn && !in.Body.Sure {
			past, err := tx.SeriesEntries(ctx, c.ID, set.Key(), op.Movements(ctx))
			if err != nil {
				return err
			}
			question, field := s.doubt(c, kept, &e, in.Body.WholeKg, past)
			switch {
			case question != "" && in.Body.Waited: // nobody is there to be asked: it is kept, and asked about later
				e.Unsure = true
			case question != "":
				return op.AskBack("body."+field, question)
			}
		}
		return tx.AddEntry(ctx, e, a.ID)
	})
}

// How far a device's clock may run ahead, and how long a set may wait on it.
const (
	clockSlack  = 10 * time.Minute
	longestWait = 31 * 24 * time.Hour
)

// takes decides whether a set is kept while training is stopped, and how it is
// marked then.
func (s *place) takes(ctx context.Context, tx *store.Tx, c *store.Client, done time.Time, corrects, waited bool) (entry.Mark, error) {
	why := s.Blocked(c)
	st := entry.Standing{MayTrain: why == ""}
	if !st.MayTrain {
		var err error
		if st.Since, err = s.stoppedSince(ctx, tx, c); err != nil {
			return entry.Plain, err
		}
	}
	mark, ok := entry.Take(st, done, corrects, waited)
	if !ok {
		return mark, op.Problem(
			http.StatusUnprocessableEntity,
			"no training now. "+why+" Sets done before it, and corrections, are still taken.",
		)
	}
	return mark, nil
}

// stoppedSince is the moment from which a client may not train; zero where she
// never might.
func (s *place) stoppedSince(ctx context.Context, tx *store.Tx, c *store.Client) (time.Time, error) {
	if c.Dossier.HealthConsent == nil {
		last, err := tx.LastChange(ctx, c.ID, "health_consent")
		return last.At, err
	}
	records, err := tx.HealthRecords(ctx, c.ID)
	return person.StoppedSince(&c.Dossier, records, s.Day(ctx)), err
}

// doubt asks what cannot be about a set of a series with a past, "" where nothing is
// odd.
func (s *place) doubt(c *store.Client, kept store.Session, e *entry.Entry, whole float64, past []entry.Entry) (question, field string) {
	room := c.Room()
	e1rm, _ := series.Says(entry.SaidOf(past), s.DayOf(c))
	against := &entry.Against{
		SetUp:   e.SetUp,
		Steps:   room.Steps(e.SetUp),
		Carry:   person.CarryOf(e.SetUp),
		Rigging: room.Rigging(c.Dossier.Body().BodyMass),
		Room:    room,
		E1RM:    e1rm,
	}
	for i := range kept.Slots {
		if slot := &kept.Slots[i]; slot.ID == e.SlotID {
			d := slot.DoseOf(e.SetNo - 1)
			against.High = d.RepsHigh
			if m := dose.MethodOf(d.Method.ID); m != nil && m.OwnReps {
				against.High = 0 // its reps are the method's
			}
		}
	}
	return entry.Doubt(entry.Told{Whole: whole, Reps: e.Reps}, against)
}

// setUpOf finds the set-up of a slot's set, counted from 1: in the plan, or in what
// was logged of it.
func (s *place) setUpOf(ctx context.Context, tx *store.Tx, kept store.Session, slot uuid.UUID, set int) (movement.SetUp, error) {
	if len(kept.Faults) > 0 {
		return movement.SetUp{}, kept.Faults[0]
	}
	for i := range kept.Slots {
		if kept.Slots[i].ID == slot {
			return kept.Slots[i].SetUpOf(set - 1), nil
		}
	}
	entries, err := tx.SessionEntries(ctx, kept.ID, op.Movements(ctx))
	for _, e := range entries {
		if e.SlotID == slot {
			return e.SetUp, nil
		}
	}
	if err != nil {
		return movement.SetUp{}, err
	}
	return movement.SetUp{}, op.FieldProblem("body.slot", "this session has no such slot")
}

// keepParts keeps what a corrected set was made of where nothing else is said and its
// reps are the same.
func keepParts(ctx context.Context, tx *store.Tx, e *entry.Entry) error {
	if e.Replaces == nil || e.Parts != nil {
		return nil
	}
	entries, err := tx.SessionEntries(ctx, e.SessionID, op.Movements(ctx))
	for i := range entries {
		if entries[i].ID == *e.Replaces && entries[i].Reps == e.Reps {
			e.Parts = entries[i].Parts
		}
	}
	return err
}

// inPlan tells an entry the row it was planned in, and why it feeds no series.
func inPlan(e *entry.Entry, kept *store.Session, f *plan.Floor) {
	i := slices.IndexFunc(kept.Slots, func(x plan.Slot) bool { return x.ID == e.SlotID })
	if i < 0 {
		return
	}
	row := kept.Slots[i].RowOf(e.SetNo - 1)
	if row < len(kept.Slots[i].Rows) {
		e.RowID = &kept.Slots[i].Rows[row].ID
	}
	e.Hollow = log.Hollow(&kept.Session, i, row, f)
}

// sideWords are sides as they are sent.
func sideWords(sides []entry.Side) (out []string) {
	for _, s := range sides {
		out = append(out, string(s))
	}
	return out
}
