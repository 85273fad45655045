package floor

import (
	"context"
	"errors"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/entry"
	"musculus/internal/core/floor"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// EventTold is one thing a device tells, in the order it happened there.
type EventTold struct {
	ID      uuid.UUID `json:"id" doc:"made by the device; sending it again keeps it once"`
	No      int64     `json:"no" minimum:"1" maximum:"1000000000" doc:"the device's count"`
	Kind    string    `json:"kind" enum:"set,pain,left_out,swap,paired,end,line,undone"`
	At      time.Time `json:"at" doc:"by the device's clock"`
	Offset  int64     `json:"offset_ms" minimum:"-1000000000" maximum:"1000000000" doc:"what puts that clock right"`
	Version int       `json:"version" minimum:"1" maximum:"1000000" doc:"of the plan that was run"`
	Set     *SetTold  `json:"set,omitempty"`
	floor.Content
}

// ToldBody is what a device has to tell of a session.
type ToldBody struct {
	Device uuid.UUID   `json:"device"`
	Events []EventTold `json:"events" minItems:"1" maxItems:"60"`
}

// EventAnswer is what became of an event.
type EventAnswer struct {
	ID    uuid.UUID `json:"id"`
	State string    `json:"state" enum:"kept,refused"`
	Words string    `json:"words"` // why it was refused
}

// ToldAnswer is what became of each, and what stands then.
type ToldAnswer struct {
	Answers []EventAnswer `json:"answers"`
	Done    DoneView      `json:"done"`
}

type tellOutput struct{ Body ToldAnswer }

type tellInput struct {
	op.SessionPath
	Body ToldBody
}

func (s *place) tell(ctx context.Context, in *tellInput) (*tellOutput, error) {
	a := op.AccountOf(ctx)
	mayPlan := slices.Contains(op.Planners, a.Role)
	return s.take(ctx, in.SessionPath, &in.Body, teller{Teller: store.Teller{Account: a.ID}, plans: mayPlan})
}

// teller is who tells, and what.
type teller struct {
	store.Teller
	plans  bool // may ease what pain tightened, and say a line to whoever is on the floor
	hidden bool // weights are kept from her
}

func (t teller) reads() reader { return reader{t.Link != nil, t.hidden} }

// take keeps what is told, each by itself and in its order, so that one that cannot be kept
// holds up no other; refused is only what would be refused for ever.
func (s *place) take(ctx context.Context, at op.SessionPath, told *ToldBody, by teller) (*tellOutput, error) {
	out := &tellOutput{ToldAnswer{Answers: []EventAnswer{}}}
	for i := range told.Events {
		e := &told.Events[i]
		err := s.InSession(ctx, at, func(tx *store.Tx, _ store.Account, c *store.Client, kept store.Session) error {
			return s.keep(ctx, tx, c, &kept, e, told.Device, by)
		})
		answer := EventAnswer{ID: e.ID, State: "kept"}
		var problem huma.StatusError
		switch {
		case err == nil:
		case errors.As(err, &problem) && problem.GetStatus() < http.StatusInternalServerError && problem.GetStatus() != http.StatusNotFound &&
			problem.GetStatus() != http.StatusUnauthorized && problem.GetStatus() != http.StatusTooManyRequests:
			answer.State, answer.Words = "refused", wordsOf(problem)
		default:
			return nil, err
		}
		out.Body.Answers = append(out.Body.Answers, answer)
	}
	done, err := s.done(ctx, at, by.reads())
	out.Body.Done = done
	return out, err
}

// wordsOf tells a refusal with its fields.
func wordsOf(p huma.StatusError) string {
	var m *huma.ErrorModel
	if !errors.As(error(p), &m) {
		return p.Error()
	}
	words := m.Detail
	for _, d := range m.Errors {
		if d != nil && !strings.Contains(words, d.Message) {
			words += " " + d.Message
		}
	}
	return words
}

// done reads what stands of a session.
func (s *place) done(ctx context.Context, at op.SessionPath, who reader) (DoneView, error) {
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *doneRead) error {
		c, err := tx.Client(ctx, at.Client)
		if err != nil {
			return err
		}
		kept, err := tx.Session(ctx, at.Client, at.Session, op.Movements(ctx))
		if err == nil {
			*r, err = readDone(ctx, tx, &c, kept)
		}
		return err
	}, func(r *doneRead) (DoneView, error) { return s.showDone(r, who), nil })
}

// waitedFrom is how long after it happened something counts as told later.
const waitedFrom = 2 * time.Minute

// keep keeps one event.
func (s *place) keep(
	ctx context.Context,
	tx *store.Tx,
	c *store.Client,
	kept *store.Session,
	e *EventTold,
	device uuid.UUID,
	by teller,
) error {
	at, err := s.moment(e)
	if err != nil {
		return err
	}
	waited := s.Now().Sub(at) > waitedFrom
	if e.Kind == "set" {
		if e.Set == nil {
			return op.FieldProblem("set", "a set says what was done")
		}
		told := told{by: by.Teller, waited: waited, quiet: true, version: e.Version}
		x := entry.Entry{ID: e.ID, DoneAt: at, Device: &device, DeviceNo: e.No, DeviceAt: &e.At}
		return s.keepSet(ctx, tx, c, kept, e.Set, &x, told)
	}
	if err := op.Faults("", e.Check(e.Kind)); err != nil {
		return err
	}
	x := floor.Event{ID: e.ID, Session: kept.ID, Kind: e.Kind, At: at, Content: e.Content}
	switch e.Kind {
	case floor.TellsLine:
		if !by.plans {
			return op.Problem(http.StatusForbidden, "a line is a coach’s to say")
		}
	case floor.TellsPain:
		err = s.keepPain(ctx, tx, c, kept, &x, by)
	case floor.TellsSwap:
		err = s.maySwap(ctx, tx, c, kept, &x)
	case floor.TellsPaired:
		err = s.mayPair(c, kept, x.Paired)
	case floor.TellsUndone:
		err = s.mayUndo(ctx, tx, c, &x, by.plans)
	}
	if err != nil {
		return err
	}
	if err := tx.AddFloorEvent(ctx, c.ID, &x, by.Teller); err != nil {
		return err
	}
	return tx.TellFloor(ctx, c.ID, kept.ID)
}

// moment is when an event happened by the server's clock; a clock that runs ahead after all is
// held to now.
func (s *place) moment(e *EventTold) (time.Time, error) {
	at := e.At.Add(time.Duration(e.Offset) * time.Millisecond)
	if now := s.Now(); at.After(now) {
		at = now
	}
	if at.Before(s.Now().Add(-longestWait)) {
		return at, op.FieldProblem("at", "longer ago than %d days", int(longestWait.Hours()/24))
	}
	return at.UTC().Truncate(time.Microsecond), nil
}

// keepPain keeps what hurts in the joint record, at its peak, and a warning sign that was said
// yes to among the answers of the screening: both only tighten.
func (s *place) keepPain(
	ctx context.Context,
	tx *store.Tx,
	c *store.Client,
	kept *store.Session,
	e *floor.Event,
	by teller,
) error {
	p := e.Pain
	if c.Dossier.HealthConsent == nil {
		return op.Problem(
			http.StatusUnprocessableEntity,
			"without the consent to health notes nothing of it is kept. It ends the set all the same.",
		)
	}
	if p.Joint != "" {
		r := person.JointReport{On: day.At(e.At.In(c.Zone)), Joint: p.Joint, Side: p.Side, Score: p.Score, In: kept.ID.String()}
		if i := slices.IndexFunc(kept.Slots, func(x plan.Slot) bool { return x.ID == p.Slot }); i >= 0 &&
			kept.Slots[i].SetUp.Movement != nil {
			r.Provokes = kept.Slots[i].SetUp.Title()
		}
		if err := tx.AddJointReport(ctx, e.ID, c.ID, r, by.Account, e.At); err != nil {
			return err
		}
	}
	if len(p.Flags) == 0 {
		return nil
	}
	rounds, err := tx.Screenings(ctx, c.ID)
	if err != nil {
		return err
	}
	var last *person.Screening
	if len(rounds) > 0 {
		if slices.ContainsFunc(rounds, func(r store.ScreeningRound) bool { return r.ID == roundOf(e.ID) }) {
			return nil // it was kept before
		}
		last = &rounds[0].Screening
	}
	round := person.Flagged(last, day.At(e.At.In(c.Zone)), p.Flags, "told on the floor")
	if err := tx.AddScreening(ctx, roundOf(e.ID), c.ID, round, by.Account, e.At); err != nil {
		return err
	}
	return s.warn(ctx, tx, c)
}

// warn writes to whoever plans that a warning sign ended a session: no more than that leaves.
func (s *place) warn(ctx context.Context, tx *store.Tx, c *store.Client) error {
	people, err := tx.Colleagues(ctx)
	for i := range people {
		if p := &people[i]; err == nil && s.Post != nil && p.Disabled == nil && p.Role != store.Assistant && p.Email != "" {
			err = s.Post.Send(ctx, tx.Raw(), store.Letter{ID: uuid.Must(uuid.NewV7()), To: p.Email, Subject: "A session was ended",
				Says: "A warning sign was told on the floor and ended a session. What it is stands in the dossier:\n" +
					s.Address + "/clients/" + c.ID.String() + "/dossier\n"}, s.Now())
		}
	}
	return err
}

// roundOf is the id of the screening that a report of pain makes.
func roundOf(event uuid.UUID) uuid.UUID { return uuid.NewSHA1(event, []byte("screening")) }

// maySwap holds a swap to what may be tried: it is offered for the joint at the score it has.
func (s *place) maySwap(ctx context.Context, tx *store.Tx, c *store.Client, kept *store.Session, e *floor.Event) error {
	x := e.Swap
	to, err := op.SetUp(ctx, "swap.settings", x.Movement, x.Settings)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(kept.Slots, func(p plan.Slot) bool { return p.ID == x.Slot })
	if i < 0 {
		return op.FieldProblem("swap.slot", "this session has no such slot")
	}
	events, err := tx.FloorEvents(ctx, c.ID, e.Session)
	if err != nil {
		return err
	}
	r, why := floor.Answers(e, events)
	if why != "" {
		return op.FieldProblem("swap", "%s", why)
	}
	t, err := s.Trainee(asBefore(c, kept.ID))
	if err != nil {
		return err
	}
	for _, o := range floor.Ladder(t, op.Movements(ctx), kept.Slots[i].SetUp, r, x.Now) {
		if o.Kind == x.Kind && o.SetUp.Key() == to.Key() {
			return nil
		}
	}
	return op.FieldProblem("swap", "%s is not among what may be tried for this joint now", to.Title())
}

// mayPair holds two in turns to what may be: the same caps as a plan's.
func (s *place) mayPair(c *store.Client, kept *store.Session, p *floor.Paired) error {
	i := slices.IndexFunc(kept.Slots, func(x plan.Slot) bool { return x.ID == p.Slot })
	if i < 0 {
		return op.FieldProblem("paired.slot", "this session has no such slot")
	}
	t, err := s.Trainee(asBefore(c, kept.ID))
	if err != nil {
		return err
	}
	if pair := floor.PairOf(t, &kept.Session, i); pair == nil || p.Done >= len(pair.Ways) {
		return op.FieldProblem("paired", "%s and the next one cannot go on in turns", kept.Slots[i].SetUp.Short())
	}
	return nil
}

// mayUndo holds taking something back to who may.
func (s *place) mayUndo(ctx context.Context, tx *store.Tx, c *store.Client, e *floor.Event, plans bool) error {
	events, err := tx.FloorEvents(ctx, c.ID, e.Session)
	if err != nil {
		return err
	}
	if why := floor.MayUndo(events, *e.Undone, plans); why != "" {
		return op.FieldProblem("undone", "%s", why)
	}
	return nil
}
