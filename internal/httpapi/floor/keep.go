package floor

import (
	"context"
	"errors"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/dose"
	"musculus/internal/core/entry"
	"musculus/internal/core/floor"
	"musculus/internal/core/log"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// SetTold is a set as it is told.
type SetTold struct {
	Slot       uuid.UUID     `json:"slot"`
	Side       string        `json:"side" enum:"both,left,right"`
	SetNo      int           `json:"set_no" minimum:"1" maximum:"30"`
	Reps       int           `json:"reps" minimum:"0" maximum:"100"`
	WholeKg    float64       `json:"whole_kg" minimum:"-200" maximum:"500"`
	Reserve    int           `json:"reserve" minimum:"0" maximum:"10"`
	Note       string        `json:"note,omitempty" maxLength:"300"`
	Replaces   *uuid.UUID    `json:"replaces,omitempty" doc:"the entry this one corrects"`
	Withdrawn  bool          `json:"withdrawn,omitempty" doc:"only take the replaced entry away"`
	Faults     []string      `json:"faults,omitempty" maxItems:"10" doc:"ids of what was seen"`
	Throughout bool          `json:"throughout,omitempty" doc:"what was seen lasted the whole set: it is not comparable"`
	Technical  bool          `json:"technical,omitempty" doc:"the set ended because form went"`
	Parts      []entry.Part  `json:"parts,omitempty" maxItems:"12" doc:"what it was made of; absent: its clean reps alone"`
	RestS      *float32      `json:"rest_s,omitempty" minimum:"0" maximum:"7200" doc:"how long the rest before it really was"`
	SetUp      *view.SetUpAt `json:"set_up,omitempty" doc:"what it was done in; absent: as planned"`
	Sure       bool          `json:"sure,omitempty" doc:"answers a question: it was so"`
}

// told is who tells a set, and how.
type told struct {
	by      store.Teller
	waited  bool
	version int    // of the plan that was run, 0: the one that is kept
	quiet   bool   // nobody is there to be asked: what is odd is kept and asked about later
	at      string // where its fields are
}

// keepSet is the one door of the log: whoever tells a set, by whatever way, it is held to the
// same. e has its id and its moments.
func (s *place) keepSet(
	ctx context.Context,
	tx *store.Tx,
	c *store.Client,
	kept *store.Session,
	in *SetTold,
	e *entry.Entry,
	by told,
) error {
	run := kept
	if by.version != 0 && by.version != kept.Version {
		old, err := tx.SessionAt(ctx, c.ID, kept.ID, by.version, op.Movements(ctx))
		if err != nil && !errors.Is(err, store.ErrNotFound) {
			return err
		}
		if err == nil && len(old.Faults) == 0 {
			run = &old
		}
	}
	standing, err := tx.SessionEntries(ctx, kept.ID, op.Movements(ctx))
	if err != nil {
		return err
	}
	events, err := tx.FloorEvents(ctx, c.ID, kept.ID)
	if err != nil {
		return err
	}
	events = floor.Standing(events)
	set, err := s.setUpOf(ctx, run, standing, events, e.ID, in, by.at)
	if err != nil {
		return err
	}
	if sides := sideWords(log.SidesOf(set)); !slices.Contains(sides, in.Side) {
		return op.FieldProblem(by.at+"side", "this set-up is logged for %s", strings.Join(sides, " and "))
	}
	if err := op.Faults(by.at, entry.CheckParts(in.Parts, in.Reps)); err != nil {
		return err
	}
	known := map[string]bool{}
	for _, f := range set.Movement.FaultsOf() {
		known[f.ID] = true
	}
	for _, f := range in.Faults {
		if !known[f] {
			return op.FieldProblem(by.at+"faults", "%q is not seen in this movement", f)
		}
	}
	rigging := c.Room().Rigging(c.Dossier.Body().BodyMass)
	perHand := person.CarryOf(set).PerHand(in.WholeKg, rigging)
	if perHand < 0 {
		return op.FieldProblem(by.at+"whole_kg", "%s would leave less than nothing in the hand", person.Kg(in.WholeKg))
	}
	e.ClientID, e.SessionID, e.SlotID, e.SetUp = c.ID, kept.ID, in.Slot, set
	e.Side, e.SetNo, e.Reps, e.LoadKg, e.Reserve = entry.Side(in.Side), in.SetNo, in.Reps, perHand, in.Reserve
	e.Note, e.Replaces, e.Withdrawn = strings.TrimSpace(in.Note), in.Replaces, in.Withdrawn
	e.Faults, e.Technical, e.Parts, e.RestS, e.Link = in.Faults, in.Technical, in.Parts, in.RestS, by.by.Link
	inPlan(e, run, op.Floor(c))
	comparable(e, events, in.Throughout)
	if err := s.stands(ctx, tx, e, standing, in.Sure); err != nil {
		return err
	}
	if e.Mark, err = s.takes(ctx, tx, c, e.DoneAt, in.Replaces != nil, by.waited); err != nil {
		return err
	}
	if !in.Withdrawn && !in.Sure {
		past, err := tx.SeriesEntries(ctx, c.ID, set.Key(), op.Movements(ctx))
		if err != nil {
			return err
		}
		question, field := s.doubt(c, *run, e, in.WholeKg, past)
		switch {
		case question != "" && (by.waited || by.quiet): // it is kept, and asked about later
			e.Unsure = true
		case question != "":
			return op.AskBack(by.at+field, question)
		}
	}
	if e.TwiceOf != nil {
		e.Unsure, e.Hollow = true, "told twice"
	}
	if err := tx.AddEntry(ctx, *e, by.by.Account); err != nil {
		return err
	}
	return tx.TellFloor(ctx, c.ID, kept.ID)
}

// comparable leaves a set out of its series that was done after pain, or with a fault all
// along.
func comparable(e *entry.Entry, events []floor.Event, throughout bool) {
	if throughout && len(e.Faults) > 0 {
		e.Hollow = "a fault all along"
	}
	for i := range events {
		if x := &events[i]; x.Swap != nil && x.Swap.Slot == e.SlotID && !x.At.After(e.DoneAt) {
			e.Hollow = "after a swap"
		}
	}
}

// stands finds where a set stands among those that stand: in a place of its own, as one that
// another device told already, or in the place of another one. What it corrects it stands for.
func (s *place) stands(ctx context.Context, tx *store.Tx, e *entry.Entry, standing []entry.Entry, sure bool) error {
	if e.Replaces != nil {
		first, err := tx.FirstTold(ctx, *e.Replaces)
		if err != nil {
			return err
		}
		e.Replaces = &first
		for i := range standing {
			was := &standing[i]
			again := was.ID == e.ID // its answer was lost: it is what it was made then
			if was.ID != first && !again {
				continue
			}
			if e.Parts == nil && was.Reps == e.Reps { // nothing else was said of what it was made of
				e.Parts = was.Parts
			}
			if e.Link != nil && e.Note == "" { // a client does not see what a coach notes, and takes none of it away
				e.Note = was.Note
			}
			if again && sure {
				e.SetNo = was.SetNo
			}
			if was.TwiceOf != nil && sure && !e.Withdrawn { // it was another set: it has the next place
				e.SetNo = entry.Free(standing, e)
			}
		}
		return nil
	}
	same, other := entry.Doubled(e, standing)
	if same != nil {
		e.SameAs = &same.ID
	}
	if other != nil {
		e.TwiceOf = &other.ID
	}
	return nil
}

// How far a device's clock may run ahead, and how long a set may wait on it.
const (
	clockSlack  = 10 * time.Minute
	longestWait = 31 * 24 * time.Hour
)

// takes decides whether a set is kept while training is stopped, and how it is
// marked then.
func (s *place) takes(
	ctx context.Context,
	tx *store.Tx,
	c *store.Client,
	done time.Time,
	corrects, waited bool,
) (entry.Mark, error) {
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
func (s *place) doubt(
	c *store.Client,
	kept store.Session,
	e *entry.Entry,
	whole float64,
	past []entry.Entry,
) (question, field string) {
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

// setUpOf finds what a told set was done in: what was said, as far as it may be done; what the
// set it corrects was done in; what is planned; what was logged of the slot before.
func (s *place) setUpOf(
	ctx context.Context,
	run *store.Session,
	standing []entry.Entry,
	events []floor.Event,
	id uuid.UUID,
	in *SetTold,
	at string,
) (movement.SetUp, error) {
	if len(run.Faults) > 0 {
		return movement.SetUp{}, run.Faults[0]
	}
	logged := func(is func(*entry.Entry) bool) *movement.SetUp {
		for i := range standing {
			if e := &standing[i]; e.SetUp.Movement != nil && is(e) {
				return &e.SetUp
			}
		}
		return nil
	}
	planned := logged(func(e *entry.Entry) bool { return e.SlotID == in.Slot })
	if i := slices.IndexFunc(run.Slots, func(x plan.Slot) bool { return x.ID == in.Slot }); i >= 0 {
		set := run.Slots[i].SetUpOf(in.SetNo - 1)
		planned = &set
	}
	if planned == nil {
		return movement.SetUp{}, op.FieldProblem(at+"slot", "this session has no such slot")
	}
	if in.SetUp == nil {
		if in.Replaces != nil {
			if was := logged(func(e *entry.Entry) bool { return e.SlotID == in.Slot && (e.ID == *in.Replaces || e.ID == id) }); was != nil {
				return *was, nil
			}
		}
		return *planned, nil
	}
	set, err := op.SetUp(ctx, at+"set_up.settings", in.SetUp.Movement, in.SetUp.Settings)
	if err != nil {
		return set, err
	}
	if set.Key() == planned.Key() ||
		logged(func(e *entry.Entry) bool { return e.SlotID == in.Slot && e.SetUp.Key() == set.Key() }) != nil {
		return set, nil
	}
	for _, e := range events {
		if e.Swap != nil && e.Swap.Slot == in.Slot {
			if to, err := op.SetUp(ctx, at+"set_up", e.Swap.Movement, e.Swap.Settings); err == nil && to.Key() == set.Key() {
				return set, nil
			}
		}
	}
	return set, op.FieldProblem(at+"set_up", "%s is neither planned here nor was it swapped for", set.Title())
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
