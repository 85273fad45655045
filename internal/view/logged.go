package view

import (
	"math"
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/entry"
	"musculus/internal/core/log"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
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
	By        string    `json:"by"`        // who told it
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
	LoadLabel string      `json:"load_label"`        // what the number in kg means
	Unit      string      `json:"unit" enum:"kg,lb"` // as the thing is marked; what is sent is kg
	Sets      int         `json:"sets"`              // each arm's
	Entered   string      `json:"entered"`           // entries against those planned, "3 / 6"
	Sides     []string    `json:"sides"`
	Entries   []EntryView `json:"entries"`
	Ticks     []TickView  `json:"ticks"`    // what may be seen in it
	Last      string      `json:"last"`     // the series' last sets, in words
	Next      NextSet     `json:"next"`     // what the next entry starts from
	Cautions  []string    `json:"cautions"` // what keeps the client safe in it
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

// EntryOf shows a logged set.
func EntryOf(eyes *Eyes, e entry.Entry) EntryView {
	carry, rigging := person.CarryOf(e.SetUp), eyes.rigging()
	whole := TenGrams(carry.Whole(e.LoadKg, rigging))
	v := EntryView{
		ID:        e.ID,
		Side:      string(e.Side),
		SetNo:     e.SetNo,
		Reps:      e.Reps,
		WholeKg:   whole,
		Load:      eyes.Room.Words(whole, e.SetUp),
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
		v.Estimate = eyes.Room.Words(math.Round(carry.Whole(max, rigging)*10)/10, e.SetUp)
		v.Why = v.Load + " " + series.E1RMWords(e.Reps, e.Reserve)
	}
	return v
}

// NextOf is what the next entry starts from; i is −1 for a slot that was taken out
// of the plan.
func NextOf(eyes *Eyes, sideIDs []string, sets int, planned *plan.Session, i int, done []entry.Entry, f *plan.Floor) NextSet {
	var sides []entry.Side
	for _, s := range sideIDs {
		sides = append(sides, entry.Side(s))
	}
	rigging := eyes.rigging()
	arms := log.NextOf(
		planned,
		i,
		sides,
		done,
		f,
		func(e *entry.Entry) float64 { return TenGrams(person.CarryOf(e.SetUp).Whole(e.LoadKg, rigging)) },
	)
	out := NextSet{Arms: []ArmNext{}}
	for _, a := range arms {
		if a.Whole != nil {
			whole := TenGrams(*a.Whole)
			a.Whole = &whole
		}
		out.Arms = append(out.Arms, ArmNext{string(a.Side), a.SetNo, a.Reps, a.Whole, a.Reserve})
	}
	first, all := log.First(arms, sets)
	at := slices.IndexFunc(out.Arms, func(a ArmNext) bool { return a.Side == string(first.Side) })
	out.SetNo, out.Side, out.Reps, out.WholeKg, out.Reserve, out.Done = first.SetNo, string(
		first.Side,
	), first.Reps, out.Arms[at].WholeKg, first.Reserve, all
	if i >= 0 && planned.Slots[i].Differs() {
		out.Grip = planned.Slots[i].SetUpOf(out.SetNo - 1).Name()
	}
	return out
}
