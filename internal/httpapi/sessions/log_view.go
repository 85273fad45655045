package sessions

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/entry"
	"musculus/internal/core/log"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
	"musculus/internal/core/stance"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
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
	Why       string    `json:"e1rm_why"`  // how it comes from the set
	Mark      string    `json:"mark"`      // why it stands although training was stopped, in words
	Parts     string    `json:"parts"`     // what it was made of, empty for its clean reps alone
	Hollow    string    `json:"hollow"`    // why its series is not fed by it, empty where it is
	Unsure    string    `json:"unsure"`    // what is still to be asked about it, empty for nothing
}

// LogSlot is one slot of a log.
type LogSlot struct {
	ID        uuid.UUID      `json:"id"`
	Planned   bool           `json:"planned"` // false: taken out of the plan since
	Title     string         `json:"title"`
	Details   string         `json:"details"`
	Slice     view.SliceView `json:"slice"`
	DoseWords string         `json:"dose_words"`
	LoadWords string         `json:"load_words"`
	LoadLabel string         `json:"load_label"`        // what the number in kg means
	Unit      string         `json:"unit" enum:"kg,lb"` // as the thing is marked; what is sent is kg
	Sets      int            `json:"sets"`              // each arm's
	Entered   string         `json:"entered"`           // entries against those planned, "3 / 6"
	Sides     []string       `json:"sides"`
	Entries   []EntryView    `json:"entries"`
	Ticks     []TickView     `json:"ticks"`    // what may be seen in it
	Last      string         `json:"last"`     // the series' last sets, in words
	Next      NextSet        `json:"next"`     // what the next entry starts from
	Cautions  []string       `json:"cautions"` // what keeps the client safe in it
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
	Came    string    `json:"came"`    // what it came to against the plan, in words
	Slots   []LogSlot `json:"slots"`
}

// logRead is what a session's log is shown from.
type logRead struct {
	c       *store.Client
	kept    store.Session
	entries []entry.Entry
	past    map[string][]entry.Entry // the last of each series that is shown
}

func readLog(ctx context.Context, tx *store.Tx, c *store.Client, kept store.Session) (logRead, error) {
	entries, err := tx.SessionEntries(ctx, kept.ID, op.Movements(ctx))
	if err != nil {
		return logRead{}, err
	}
	planned := &kept.Session
	var keys []string
	for i := range planned.Slots {
		keys = append(keys, planned.Slots[i].SetUpOf(0).Key())
	}
	for i := range entries {
		if entries[i].Unsure && entries[i].SetUp.Movement != nil {
			keys = append(keys, entries[i].SetUp.Key())
		}
	}
	past, err := tx.LastOfSeries(ctx, c.ID, keys, op.Movements(ctx))
	return logRead{c, kept, entries, past}, err
}

func (s *place) showLog(ctx context.Context, r *logRead) (LogView, error) {
	c, kept, entries, past := r.c, r.kept, r.entries, r.past
	t, err := s.Trainee(c) // what is audited is not shown here
	if err != nil {
		return LogView{}, err
	}
	session, err := s.ViewSession(ctx, t, c, kept)
	if err != nil {
		return LogView{}, err
	}
	planned := &kept.Session
	out := LogView{Session: kept.Name, When: session.When, Blocked: s.Blocked(c), Came: log.Words(planned, entries), Slots: []LogSlot{}}
	index := map[uuid.UUID]int{}
	for i, slot := range session.Slots {
		index[slot.ID] = i
		set := planned.Slots[i].SetUp
		line := LogSlot{
			ID:        slot.ID,
			Planned:   true,
			Title:     slot.Title,
			Details:   slot.Details,
			Slice:     slot.Glyph.Slice,
			DoseWords: slot.DoseWords,
			LoadWords: slot.LoadWords,
			LoadLabel: person.CarryOf(set).Label(set, c.Room().UnitOf(set)),
			Unit:      string(c.Room().UnitOf(set)),
			Sets:      planned.Slots[i].Sets(),
			Sides:     sideWords(log.Sides(&planned.Slots[i])),
			Entries:   []EntryView{},
			Ticks:     ticksOf(set),
			Cautions:  slot.Cautions,
		}
		first := planned.Slots[i].SetUpOf(0)
		line.Last = s.lastWords(c, first, kept.ID, past[first.Key()])
		out.Slots = append(out.Slots, line)
	}
	for _, e := range entries {
		i, there := index[e.SlotID]
		if !there { // the slot was taken out of the plan after it was done
			i = len(out.Slots)
			index[e.SlotID] = i
			out.Slots = append(
				out.Slots,
				LogSlot{ID: e.SlotID, Title: e.SetUp.Title(), Details: e.SetUp.Details(), Slice: view.BiasSlice(e.SetUp, &stance.Reading{}),
					LoadLabel: person.CarryOf(e.SetUp).Label(e.SetUp, c.Room().UnitOf(e.SetUp)), Unit: string(c.Room().UnitOf(e.SetUp)),
					Sides: sideWords(log.SidesOf(e.SetUp)), Entries: []EntryView{}, Ticks: ticksOf(e.SetUp), Cautions: e.SetUp.Cautions()},
			)
		}
		v := viewEntry(c, e)
		if e.Unsure {
			if v.Unsure, _ = s.doubt(c, kept, &e, v.WholeKg, past[e.SetUp.Key()]); v.Unsure == "" {
				v.Unsure = "Was it so?"
			}
		}
		if i < len(planned.Slots) && planned.Slots[i].Differs() {
			v.Grip = e.SetUp.Title()
		}
		out.Slots[i].Entries = append(out.Slots[i].Entries, v)
	}
	for i := range out.Slots {
		l := &out.Slots[i]
		l.Entered = enteredWords(l)
		if i >= len(planned.Slots) {
			i = -1 // it was taken out of the plan
		}
		l.Next = nextSet(l, planned, i, of(entries, l.ID), c)
	}
	return out, nil
}

// ticksOf lists what may be seen in a set-up, its family's own first.
func ticksOf(s movement.SetUp) []TickView {
	out := []TickView{}
	for _, f := range s.Movement.FaultsOf() {
		out = append(out, TickView{f.ID, f.Seen, f.View})
	}
	return out
}

func viewEntry(c *store.Client, e entry.Entry) EntryView {
	carry, rigging := person.CarryOf(e.SetUp), c.Room().Rigging(c.Dossier.Body().BodyMass)
	whole := view.TenGrams(carry.Whole(e.LoadKg, rigging))
	v := EntryView{
		ID:        e.ID,
		Side:      string(e.Side),
		SetNo:     e.SetNo,
		Reps:      e.Reps,
		WholeKg:   whole,
		Load:      c.Room().Words(whole, e.SetUp),
		Reserve:   e.Reserve,
		Note:      e.Note,
		Faults:    e.Faults,
		Seen:      []string{},
		Technical: e.Technical,
		Mark:      e.Mark.Words(),
		Parts:     e.PartsWords(),
		Hollow:    e.Hollow,
	}
	for _, f := range e.SetUp.Movement.FaultsOf() {
		if slices.Contains(e.Faults, f.ID) {
			v.Seen = append(v.Seen, f.Seen)
		}
	}
	if max, ok := series.E1RM(e.LoadKg, e.Reps, e.Reserve); ok && !e.Technical && e.Hollow == "" {
		v.Estimate = c.Room().Words(math.Round(carry.Whole(max, rigging)*10)/10, e.SetUp)
		v.Why = v.Load + " " + series.E1RMWords(e.Reps, e.Reserve)
	}
	return v
}

// of are the entries of one slot.
func of(entries []entry.Entry, slot uuid.UUID) (out []entry.Entry) {
	for _, e := range entries {
		if e.SlotID == slot {
			out = append(out, e)
		}
	}
	return out
}

// enteredWords tells how many entries there are of those planned: one a set and
// side.
func enteredWords(l *LogSlot) string {
	if !l.Planned {
		return fmt.Sprint(len(l.Entries))
	}
	return fmt.Sprintf("%d / %d", len(l.Entries), l.Sets*len(l.Sides))
}

// nextSet is what the next entry starts from; i is −1 for a slot that was taken out
// of the plan.
func nextSet(l *LogSlot, planned *plan.Session, i int, done []entry.Entry, c *store.Client) NextSet {
	var sides []entry.Side
	for _, s := range l.Sides {
		sides = append(sides, entry.Side(s))
	}
	rigging := c.Room().Rigging(c.Dossier.Body().BodyMass)
	arms := log.NextOf(
		planned,
		i,
		sides,
		done,
		op.Floor(c),
		func(e *entry.Entry) float64 { return view.TenGrams(person.CarryOf(e.SetUp).Whole(e.LoadKg, rigging)) },
	)
	out := NextSet{Arms: []ArmNext{}}
	for _, a := range arms {
		if a.Whole != nil {
			whole := view.TenGrams(*a.Whole)
			a.Whole = &whole
		}
		out.Arms = append(out.Arms, ArmNext{string(a.Side), a.SetNo, a.Reps, a.Whole, a.Reserve})
	}
	first, all := log.First(arms, l.Sets)
	at := slices.IndexFunc(out.Arms, func(a ArmNext) bool { return a.Side == string(first.Side) })
	out.SetNo, out.Side, out.Reps, out.WholeKg, out.Reserve, out.Done = first.SetNo, string(
		first.Side,
	), first.Reps, out.Arms[at].WholeKg, first.Reserve, all
	if i >= 0 && planned.Slots[i].Differs() {
		out.Grip = planned.Slots[i].SetUpOf(out.SetNo - 1).Name()
	}
	return out
}

// lastWords tells the last session of the same series but one.
func (s *place) lastWords(c *store.Client, set movement.SetUp, but uuid.UUID, entries []entry.Entry) string {
	var last uuid.UUID
	reps := map[entry.Side][]string{}
	var maxima []float64
	words := ""
	for _, e := range entries {
		if e.SessionID == but || last != uuid.Nil && e.SessionID != last {
			continue
		}
		if last == uuid.Nil {
			last = e.SessionID
			words = day.At(e.DoneAt.In(c.Zone)).FromToday(s.DayOf(c)) + ": " + viewEntry(c, e).Load
		}
		reps[e.Side] = append([]string{fmt.Sprint(e.Reps)}, reps[e.Side]...)
		if max, ok := series.E1RM(e.LoadKg, e.Reps, e.Reserve); ok && !e.Technical && e.Hollow == "" {
			maxima = append(maxima, max)
		}
	}
	if last == uuid.Nil {
		return ""
	}
	for _, side := range []struct {
		side entry.Side
		lead string
	}{{entry.BothSides, " × "}, {entry.Left, " × left "}, {entry.Right, " and right "}} {
		if list := reps[side.side]; len(list) > 0 {
			words += side.lead + strings.Join(list, ", ")
		}
	}
	if len(maxima) > 0 {
		carry := person.CarryOf(set)
		words += ", e1RM " + c.Room().Words(
			math.Round(carry.Whole(series.Median(maxima), c.Room().Rigging(c.Dossier.Body().BodyMass))*10)/10,
			set,
		)
	}
	return words
}
