package view

import (
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/entry"
	"musculus/internal/core/person"
)

// SetDone is a set that stands, as one device reads it of another.
type SetDone struct {
	ID        uuid.UUID    `json:"id"`
	Slot      uuid.UUID    `json:"slot"`
	Side      string       `json:"side"             enum:"both,left,right"`
	SetNo     int          `json:"set_no"`
	Reps      int          `json:"reps"`
	WholeKg   float64      `json:"whole_kg"`
	Load      string       `json:"load_words"`
	Reserve   int          `json:"reserve"`
	Parts     []entry.Part `json:"parts"`
	PartWords string       `json:"part_words"`
	Faults    []string     `json:"faults"`
	Technical bool         `json:"technical"`
	Note      string       `json:"note"`
	At        time.Time    `json:"at"`
	RestS     *float32     `json:"rest_s,omitempty"`
	By        string       `json:"by"` // who told it
	ByLink    bool         `json:"by_link"`
	SetUp     SetUpAt      `json:"set_up"`
	Title     string       `json:"title"`
	Ask       string       `json:"ask"`   // what is still to be asked about it, empty for nothing
	Twice     bool         `json:"twice"` // another device told another set in its place
}

// AskTwice asks about a set that another device told otherwise.
const AskTwice = "Two devices told this set differently: was it another one?"

// SetDoneOf shows a set that was done, of a movement that is still known; By is the caller's.
func SetDoneOf(eyes *Eyes, e *entry.Entry) SetDone {
	whole := TenGrams(person.CarryOf(e.SetUp).Whole(e.LoadKg, eyes.rigging()))
	d := SetDone{ID: e.ID, Slot: e.SlotID, Side: string(e.Side), SetNo: e.SetNo, Reps: e.Reps, WholeKg: whole,
		Load: eyes.Room.Words(whole, e.SetUp), Reserve: e.Reserve, Parts: e.Parts, PartWords: e.PartsWords(), Faults: e.Faults,
		Technical: e.Technical, Note: e.Note, At: e.DoneAt, RestS: e.RestS, ByLink: e.Link != nil,
		SetUp: SetUpAt{Movement: e.SetUp.Movement.ID, Settings: e.SetUp.Turned()}, Title: e.SetUp.Title(), Twice: e.TwiceOf != nil}
	if d.Parts == nil {
		d.Parts = []entry.Part{}
	}
	switch {
	case d.Twice:
		d.Ask = AskTwice
	case e.Unsure:
		d.Ask = "Was it so?"
	}
	return d
}
