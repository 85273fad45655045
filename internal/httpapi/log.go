package httpapi

import (
	"context"
	"fmt"
	"math"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/dose"
	"musculus/internal/core/entry"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/series"
	"musculus/internal/core/stance"
	"musculus/internal/core/week"
	"musculus/internal/store"
)

// EntryView is one logged set.
type EntryView struct {
	ID        uuid.UUID `json:"id"`
	Side      string    `json:"side" enum:"both,left,right"`
	SetNo     int       `json:"set_no"`
	Reps      int       `json:"reps"`
	WholeKg   float64   `json:"whole_kg"` // as it is read; for dips what is added
	Load      string    `json:"load_words"`
	Reserve   int       `json:"reserve"`
	Note      string    `json:"note"`
	Grip      string    `json:"grip"`      // where the sets of the slot differ in it
	Faults    []string  `json:"faults"`    // ids of what was seen
	Seen      []string  `json:"seen"`      // the same in words
	Technical bool      `json:"technical"` // ended because form went
	Estimate  string    `json:"e1rm"`      // estimated one-repetition maximum in words, "" where there is none
	Mark      string    `json:"mark"`      // why it stands although training was stopped, in words
	Unsure    string    `json:"unsure"`    // what is still to be asked about it, empty for nothing
}

// LogSlot is one slot of a log.
type LogSlot struct {
	ID        uuid.UUID   `json:"id"`
	Planned   bool        `json:"planned"` // false: taken out of the plan since
	Title     string      `json:"title"`
	Details   string      `json:"details"`
	Slice     SliceView   `json:"slice"`
	DoseWords string      `json:"dose_words"`
	LoadWords string      `json:"load_words"`
	LoadLabel string      `json:"load_label"` // what the number in kg means
	Sets      int         `json:"sets"`       // each arm's
	Entered   string      `json:"entered"`    // entries against those planned, "3 / 6"
	Sides     []string    `json:"sides"`
	Entries   []EntryView `json:"entries"`
	Ticks     []TickView  `json:"ticks"`    // what may be seen in it
	Last      string      `json:"last"`     // the series' last sets, in words
	Next      NextSet     `json:"next"`     // what the next entry starts from
	Cautions  []string    `json:"cautions"` // what keeps the client safe in it
}

// TickView is a fault that can be ticked while a set runs.
type TickView struct {
	ID   string `json:"id"`
	Seen string `json:"seen"`
	View string `json:"view"` // the side it is seen from
}

// NextSet is what the form of the next set starts from.
type NextSet struct {
	SetNo   int      `json:"set_no"`
	Side    string   `json:"side" enum:"both,left,right"`
	Reps    int      `json:"reps"`
	WholeKg *float64 `json:"whole_kg"`
	Reserve int      `json:"reserve"`
	Done    bool     `json:"done"` // as many sets as planned
	Grip    string   `json:"grip"` // of this set, empty where all sets are one
	// Arms are what each arm starts from: its own last load and reps.
	Arms []ArmNext `json:"arms"`
}

// ArmNext is what one arm's next set starts from.
type ArmNext struct {
	Side    string   `json:"side" enum:"both,left,right"`
	SetNo   int      `json:"set_no"`
	Reps    int      `json:"reps"`
	WholeKg *float64 `json:"whole_kg"`
	Reserve int      `json:"reserve"`
}

// LogView is the log of one session.
type LogView struct {
	Session string    `json:"session"`
	When    string    `json:"when"`
	Blocked string    `json:"blocked"` // why the client may not train, empty if she may
	Slots   []LogSlot `json:"slots"`
}

type logOutput struct{ Body LogView }

type logSetInput struct {
	SessionPath
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
	}
}

func (s *server) registerLog(api huma.API) {
	const path = "/clients/{client}/sessions/{session}/log"
	huma.Register(api, operation("get-log", http.MethodGet, path, "What was done"), s.getLog)
	huma.Register(api, operation("log-set", http.MethodPost, path, "Log a set"), s.logSet)
}

func (s *server) getLog(ctx context.Context, in *SessionPath) (*logOutput, error) {
	out := &logOutput{}
	err := s.inSession(ctx, *in, func(tx *store.Tx, _ store.Account, c *store.Client, kept store.Session) (err error) {
		out.Body, err = s.viewLog(ctx, tx, c, kept)
		return err
	})
	return out, err
}

func (s *server) logSet(ctx context.Context, in *logSetInput) (*logOutput, error) {
	out := &logOutput{}
	err := s.inSession(ctx, in.SessionPath, func(tx *store.Tx, a store.Account, c *store.Client, kept store.Session) error {
		set, err := s.setUpOf(ctx, tx, kept, in.Body.Slot, in.Body.SetNo)
		if err != nil {
			return err
		}
		if sides := sidesOf(set); !strings.Contains(strings.Join(sides, " "), in.Body.Side) {
			return fieldProblem("body.side", "this set-up is logged for %s", strings.Join(sides, " and "))
		}
		known := map[string]bool{}
		for _, f := range set.Movement.FaultsOf() {
			known[f.ID] = true
		}
		for _, f := range in.Body.Faults {
			if !known[f] {
				return fieldProblem("body.faults", "%q is not seen in this movement", f)
			}
		}
		rigging := c.Room().Rigging(c.Dossier.Body().BodyMass)
		perHand := person.CarryOf(set).PerHand(in.Body.WholeKg, rigging)
		if perHand < 0 {
			return fieldProblem("body.whole_kg", "%s would leave less than nothing in the hand", person.Kg(in.Body.WholeKg))
		}
		done := s.now()
		if in.Body.DoneAt != nil {
			if done = *in.Body.DoneAt; done.After(s.now().Add(clockSlack)) || done.Before(s.now().Add(-longestWait)) {
				return fieldProblem("body.done_at", "not in the last %d days", int(longestWait.Hours()/24))
			}
		}
		e := store.Entry{ID: in.Body.ID, ClientID: c.ID, SessionID: kept.ID, SlotID: in.Body.Slot, SetUp: set, Side: store.Side(in.Body.Side),
			SetNo: in.Body.SetNo, Reps: in.Body.Reps, LoadKg: perHand, Reserve: in.Body.Reserve, Note: strings.TrimSpace(in.Body.Note), DoneAt: done,
			Replaces: in.Body.Replaces, Withdrawn: in.Body.Withdrawn, Faults: in.Body.Faults, Technical: in.Body.Technical}
		if e.Mark, err = s.takes(ctx, tx, c, done, in.Body.Replaces != nil, in.Body.Waited); err != nil {
			return err
		}
		if !in.Body.Withdrawn && !in.Body.Sure {
			past, err := tx.SeriesEntries(ctx, c.ID, set.Key(), movements(ctx))
			if err != nil {
				return err
			}
			question, field := s.doubt(c, kept, &e, in.Body.WholeKg, past)
			switch {
			case question != "" && in.Body.Waited: // nobody is there to be asked: it is kept, and asked about later
				e.Unsure = true
			case question != "":
				return ask("body."+field, question)
			}
		}
		if err = tx.AddEntry(ctx, e, a.ID); err != nil {
			return err
		}
		out.Body, err = s.viewLog(ctx, tx, c, kept)
		return err
	})
	return out, err
}

// How far a device's clock may run ahead, and how long a set may wait on it.
const (
	clockSlack  = 10 * time.Minute
	longestWait = 31 * 24 * time.Hour
)

// takes decides whether a set is kept while training is stopped, and how it is
// marked then.
func (s *server) takes(ctx context.Context, tx *store.Tx, c *store.Client, done time.Time, corrects, waited bool) (entry.Mark, error) {
	why := s.blocked(c)
	st := entry.Standing{MayTrain: why == ""}
	if !st.MayTrain {
		var err error
		if st.Since, err = s.stoppedSince(ctx, tx, c); err != nil {
			return entry.Plain, err
		}
	}
	mark, ok := entry.Take(st, done, corrects, waited)
	if !ok {
		return mark, problem(http.StatusUnprocessableEntity, "no training now. "+why+" Sets done before it, and corrections, are still taken.")
	}
	return mark, nil
}

// stoppedSince is the moment from which a client may not train; zero where she
// never might.
func (s *server) stoppedSince(ctx context.Context, tx *store.Tx, c *store.Client) (time.Time, error) {
	if c.Dossier.HealthConsent == nil {
		last, err := tx.LastChange(ctx, c.ID, "health_consent")
		return last.At, err
	}
	records, err := tx.HealthRecords(ctx, c.ID)
	return person.StoppedSince(&c.Dossier, records, s.day()), err
}

// doubt asks what cannot be about a set of a series with a past, "" where nothing is
// odd.
func (s *server) doubt(c *store.Client, kept store.Session, e *store.Entry, whole float64, past []store.Entry) (question, field string) {
	room := c.Room()
	e1rm, _ := series.Says(store.Said(past), s.day())
	against := &entry.Against{SetUp: e.SetUp, Steps: room.Steps(e.SetUp), Carry: person.CarryOf(e.SetUp), Rigging: room.Rigging(c.Dossier.Body().BodyMass), Room: room.Name, E1RM: e1rm}
	for i := range kept.Content.Slots {
		if slot := &kept.Content.Slots[i]; slot.ID == e.SlotID {
			against.High = slot.Dose.RepsHigh
			if m := dose.MethodOf(slot.Dose.Method.ID); m != nil && m.OwnReps {
				against.High = 0 // its reps are the method's
			}
		}
	}
	return entry.Doubt(entry.Told{Whole: whole, Reps: e.Reps}, against)
}

// setUpOf finds the set-up of a slot's set, counted from 1: in the plan, or in what
// was logged of it.
func (s *server) setUpOf(ctx context.Context, tx *store.Tx, kept store.Session, slot uuid.UUID, set int) (movement.SetUp, error) {
	session, wrong := kept.Content.Week(movements(ctx))
	if len(wrong) > 0 {
		return movement.SetUp{}, wrong[0]
	}
	for i, planned := range kept.Content.Slots {
		if planned.ID == slot {
			return session.Slots[i].SetUpOf(set - 1), nil
		}
	}
	entries, err := tx.SessionEntries(ctx, kept.ID, movements(ctx))
	for _, e := range entries {
		if e.SlotID == slot {
			return e.SetUp, nil
		}
	}
	if err != nil {
		return movement.SetUp{}, err
	}
	return movement.SetUp{}, fieldProblem("body.slot", "this session has no such slot")
}

// sidesOf lists the sides a set-up's sets are logged for: each arm apart where
// they take turns.
func sidesOf(s movement.SetUp) []string {
	if s.ArmsInTurn() == 2 {
		return []string{string(store.Left), string(store.Right)}
	}
	return []string{string(store.BothSides)}
}

// sidesFrom lists a planned slot's sides, the one that begins first.
func sidesFrom(slot *week.Slot) []string {
	sides := sidesOf(slot.SetUp)
	if slot.Starts == week.StartsRight {
		slices.Reverse(sides)
	}
	return sides
}

func (s *server) viewLog(ctx context.Context, tx *store.Tx, c *store.Client, kept store.Session) (LogView, error) {
	entries, err := tx.SessionEntries(ctx, kept.ID, movements(ctx))
	if err != nil {
		return LogView{}, err
	}
	t, err := s.trainee(c) // what is audited is not shown here
	if err != nil {
		return LogView{}, err
	}
	session, err := s.viewSession(ctx, t, c, kept)
	if err != nil {
		return LogView{}, err
	}
	planned, _ := kept.Content.Week(movements(ctx))
	var keys []string
	for i := range planned.Slots {
		keys = append(keys, planned.Slots[i].SetUpOf(0).Key())
	}
	for i := range entries {
		if entries[i].Unsure && entries[i].SetUp.Movement != nil {
			keys = append(keys, entries[i].SetUp.Key())
		}
	}
	past, err := tx.LastOfSeries(ctx, c.ID, keys, movements(ctx))
	if err != nil {
		return LogView{}, err
	}
	out := LogView{Session: kept.Name, When: session.When, Blocked: s.blocked(c), Slots: []LogSlot{}}
	index := map[uuid.UUID]int{}
	for i, slot := range session.Slots {
		index[slot.ID] = i
		set := planned.Slots[i].SetUp
		line := LogSlot{ID: slot.ID, Planned: true, Title: slot.Title, Details: slot.Details, Slice: slot.Glyph.Slice, DoseWords: slot.DoseWords,
			LoadWords: slot.LoadWords, LoadLabel: person.CarryOf(set).Label(set), Sets: slot.Dose.Sets, Sides: sidesFrom(&planned.Slots[i]), Entries: []EntryView{}, Ticks: ticksOf(set), Cautions: slot.Cautions}
		first := planned.Slots[i].SetUpOf(0)
		line.Last = s.lastWords(c, first, kept.ID, past[first.Key()])
		out.Slots = append(out.Slots, line)
	}
	for _, e := range entries {
		i, there := index[e.SlotID]
		if !there { // the slot was taken out of the plan after it was done
			i = len(out.Slots)
			index[e.SlotID] = i
			out.Slots = append(out.Slots, LogSlot{ID: e.SlotID, Title: e.SetUp.Title(), Details: e.SetUp.Details(), Slice: biasSlice(e.SetUp, &stance.Reading{}),
				LoadLabel: person.CarryOf(e.SetUp).Label(e.SetUp), Sides: sidesOf(e.SetUp), Entries: []EntryView{}, Ticks: ticksOf(e.SetUp), Cautions: e.SetUp.Cautions()})
		}
		v := viewEntry(c, e)
		if e.Unsure {
			if v.Unsure, _ = s.doubt(c, kept, &e, v.WholeKg, past[e.SetUp.Key()]); v.Unsure == "" {
				v.Unsure = "Was it so?"
			}
		}
		if i < len(planned.Slots) && len(planned.Slots[i].Grips) > 0 {
			v.Grip = e.SetUp.Title()
		}
		out.Slots[i].Entries = append(out.Slots[i].Entries, v)
	}
	for i := range out.Slots {
		l := &out.Slots[i]
		l.Entered = enteredWords(l)
		var slot *week.Slot
		var rack dose.Rack
		place := 0
		if i < len(planned.Slots) {
			slot, place = &planned.Slots[i], planned.Place(i)
			rack = dose.RackOf(slot.SetUp, c.Room(), c.Dossier.Body().BodyMass)
		}
		l.Next = nextSet(l, slot, rack, place)
	}
	return out, nil
}

func tenGrams(kg float64) float64 { return math.Round(kg*100) / 100 }

// ticksOf lists what may be seen in a set-up, its family's own first.
func ticksOf(s movement.SetUp) []TickView {
	out := []TickView{}
	for _, f := range s.Movement.FaultsOf() {
		out = append(out, TickView{f.ID, f.Seen, f.View})
	}
	return out
}

func viewEntry(c *store.Client, e store.Entry) EntryView {
	carry, rigging := person.CarryOf(e.SetUp), c.Room().Rigging(c.Dossier.Body().BodyMass)
	whole := tenGrams(carry.Whole(e.LoadKg, rigging))
	v := EntryView{ID: e.ID, Side: string(e.Side), SetNo: e.SetNo, Reps: e.Reps, WholeKg: whole, Load: carry.Words(whole, e.SetUp), Reserve: e.Reserve, Note: e.Note, Faults: e.Faults, Seen: []string{}, Technical: e.Technical, Mark: e.Mark.Words()}
	for _, f := range e.SetUp.Movement.FaultsOf() {
		if slices.Contains(e.Faults, f.ID) {
			v.Seen = append(v.Seen, f.Seen)
		}
	}
	if max, ok := series.E1RM(e.LoadKg, e.Reps, e.Reserve); ok && !e.Technical {
		v.Estimate = carry.Words(math.Round(carry.Whole(max, rigging)*10)/10, e.SetUp)
	}
	return v
}

// enteredWords tells how many entries there are of those planned: one a set and
// side.
func enteredWords(l *LogSlot) string {
	if !l.Planned {
		return fmt.Sprint(len(l.Entries))
	}
	return fmt.Sprintf("%d / %d", len(l.Entries), l.Sets*len(l.Sides))
}

// nextSet is what the next entry starts from: the arm that has done less, the one
// that begins first, each with its own last load and reps; before an arm's first
// set, and where the plan changes from set to set, with what is planned. slot is
// nil for one that was taken out of the plan.
func nextSet(l *LogSlot, slot *week.Slot, rack dose.Rack, place int) NextSet {
	n := NextSet{Arms: []ArmNext{}}
	least := math.MaxInt
	for _, side := range l.Sides {
		arm := ArmNext{Side: side, SetNo: 1}
		done := false
		for i := range l.Entries {
			if e := &l.Entries[i]; e.Side == side {
				arm.SetNo, done = max(arm.SetNo, e.SetNo+1), true
				arm.Reps, arm.Reserve, arm.WholeKg = e.Reps, e.Reserve, &e.WholeKg
			}
		}
		if slot != nil {
			asPlanned(&arm, slot, rack, place, !done)
		}
		n.Arms = append(n.Arms, arm)
		if arm.SetNo-1 < least {
			least = arm.SetNo - 1
			n.SetNo, n.Side, n.Reps, n.WholeKg, n.Reserve = arm.SetNo, side, arm.Reps, arm.WholeKg, arm.Reserve
		}
	}
	n.Done = least >= l.Sets
	if slot != nil && len(slot.Grips) > 0 {
		n.Grip = slot.SetUpOf(n.SetNo - 1).Name()
	}
	return n
}

// asPlanned gives an arm's next set what is planned for it: everything before its
// first, later only what the plan changes from set to set.
func asPlanned(n *ArmNext, slot *week.Slot, rack dose.Rack, place int, first bool) {
	d := &slot.Dose
	if first {
		n.Reps = d.RepsHigh
	}
	if first || len(d.Reserves) > 0 {
		n.Reserve = d.ReserveOf(n.SetNo - 1)
	}
	if loads := d.Loads(rack, n.SetNo-1, place); first || d.Method.ID == dose.Pyramid {
		switch {
		case len(loads) > 0:
			n.WholeKg = &loads[0]
		case d.LoadKg != nil:
			whole := tenGrams(rack.Carry.Whole(*d.LoadKg, rack.Rigging))
			n.WholeKg = &whole
		}
	}
}

// lastWords tells the last session of the same series but one.
func (s *server) lastWords(c *store.Client, set movement.SetUp, but uuid.UUID, entries []store.Entry) string {
	var last uuid.UUID
	reps := map[store.Side][]string{}
	var maxima []float64
	words := ""
	for _, e := range entries {
		if e.SessionID == but || last != uuid.Nil && e.SessionID != last {
			continue
		}
		if last == uuid.Nil {
			last = e.SessionID
			words = daysWords(e.DoneAt.UTC().Truncate(24*60*60*1e9), s.today()) + ": " + viewEntry(c, e).Load
		}
		reps[e.Side] = append([]string{fmt.Sprint(e.Reps)}, reps[e.Side]...)
		if max, ok := series.E1RM(e.LoadKg, e.Reps, e.Reserve); ok && !e.Technical {
			maxima = append(maxima, max)
		}
	}
	if last == uuid.Nil {
		return ""
	}
	for _, side := range []struct {
		side store.Side
		lead string
	}{{store.BothSides, " × "}, {store.Left, " × left "}, {store.Right, " and right "}} {
		if list := reps[side.side]; len(list) > 0 {
			words += side.lead + strings.Join(list, ", ")
		}
	}
	if len(maxima) > 0 {
		carry := person.CarryOf(set)
		words += ", e1RM " + carry.Words(math.Round(carry.Whole(series.Median(maxima), c.Room().Rigging(c.Dossier.Body().BodyMass))*10)/10, set)
	}
	return words
}
