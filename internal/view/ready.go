package view

import (
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/floor"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/figure"
)

// Running is a session as it is run with nobody to ask: everything but what was done of it.
type Running struct {
	Title    string           `json:"title"` // of the session
	Room     string           `json:"room"`
	Minutes  int              `json:"minutes"` // the client has; 0: not said
	Hidden   bool             `json:"hidden"`  // weights are told as marks up and down
	WarmUp   string           `json:"warm_up"`
	WarmMin  float64          `json:"warm_up_min"`
	Ramp     *RampView        `json:"ramp,omitempty"`
	Right    figure.Slice     `json:"right"` // the slice's shape
	Total    SliceView        `json:"total"`
	Cautions []string         `json:"cautions"`
	Caps     []string         `json:"caps"`
	Flags    []FlagView       `json:"flags"`
	Joints   []WordView       `json:"joints"`
	Reasons  []WordView       `json:"reasons"`
	Pain     floor.Rules      `json:"pain"`
	LongRest float64          `json:"long_rest"` // of a rest, from where it is said that it goes on
	Heads    []WordView       `json:"heads"`
	Says     []string         `json:"says"` // the words of the advice, by number
	Steps    []floor.SetAhead `json:"steps"`
	Slots    []ReadySlot      `json:"slots"`
}

// Eyes is who reads of a session: in which room, with what body, on which day.
type Eyes struct {
	Room    *person.Room
	Dossier *person.Dossier
	Zone    *time.Location
	Today   day.Day
}

func (e *Eyes) rigging() person.Rigging { return e.Room.Rigging(e.Dossier.Body().BodyMass) }

// TickView is a fault that can be ticked while a set runs.
type TickView struct {
	ID   string `json:"id"`
	Seen string `json:"seen"`
	View string `json:"view"` // the side it is seen from
}

// RampView are the steps to the first working load.
type RampView struct {
	Slot  uuid.UUID `json:"slot"`
	Steps []string  `json:"steps"`
}

// FlagView is a warning sign, and what a yes asks for.
type FlagView struct {
	ID      string `json:"id"`
	Text    string `json:"text"`
	Heading string `json:"heading"`
	Says    string `json:"says"`
}

// WordView is an id with its words.
type WordView struct {
	ID    string `json:"id"`
	Words string `json:"words"`
}

// LoadView is a load the room really has.
type LoadView struct {
	WholeKg float64 `json:"whole_kg"`
	HandKg  float64 `json:"hand_kg"` // what one hand carries
	Words   string  `json:"words"`   // empty where weights are kept from the client
}

// ReadySlot is one slot as it is run.
type ReadySlot struct {
	ID      uuid.UUID      `json:"id"`
	Title   string         `json:"title"`
	Short   string         `json:"short"`
	Details string         `json:"details"`
	Slice   SliceView      `json:"slice"`
	Pose    figure.Pose    `json:"pose"`
	SetUp   []string       `json:"set_up_words"` // the numbers that decide how it is put together
	Ends    string         `json:"ends"`         // where it starts and ends
	Keeps   []string       `json:"keeps"`        // what keeps the client safe, and how to get out
	Stop    string         `json:"stop"`
	Cues    []string       `json:"cues"`
	Starts  string         `json:"starts"`
	Last    string         `json:"last"`    // the last time, in words
	Special string         `json:"special"` // what the last row has of its own
	Combo   string         `json:"combo"`   // how slots in turns are done, at their first
	In      string         `json:"in"`      // the id of the combo it is in
	Locked  bool           `json:"locked"`
	Sides   []string       `json:"sides"`
	Loads   []LoadView     `json:"loads"` // ascending by what a hand carries
	Marks   []int          `json:"marks"` // which of them the table speaks of
	Rows    []ReadyRow     `json:"rows"`
	Table   *floor.Table   `json:"table,omitempty"`
	Ahead   []float64      `json:"ahead"`          // minutes left of it, by how many of its sets are done
	Pair    *floor.Pair    `json:"pair,omitempty"` // in turns with the next one, when time runs over
	Leave   []*floor.Leave `json:"leave"`          // what leaving the rest of it out saves and costs, by the same
	Faults  []TickView     `json:"faults"`
	Tries   []PainTry      `json:"tries"`
	Ladder  [][]int        `json:"ladder"` // by joint: the first try once it is at 2 or less, and at 3; −1: none
	After   []string       `json:"after"`  // by joint: what becomes of it once it hurts over 3 again
}

// ReadyRow is a row of a slot.
type ReadyRow struct {
	ID      uuid.UUID          `json:"id"`
	Sets    int                `json:"sets"`
	Low     int                `json:"low"`
	High    int                `json:"high"`
	Hold    bool               `json:"hold"` // seconds instead of reps
	Reserve int                `json:"reserve"`
	Effort  string             `json:"effort"`
	RestS   int                `json:"rest_s"`
	Tempo   string             `json:"tempo"`
	DownS   float64            `json:"down_s"` // of a chosen slow lowering, 0 for none
	Word    string             `json:"word"`
	Method  string             `json:"method"`
	Caution string             `json:"caution"`
	Title   string             `json:"title"` // where the set-up differs from the slot's
	In      SetUpAt            `json:"set_up"`
	Loads   []int              `json:"loads"`
	Aim     int                `json:"aim"`
	Stages  []dose.Stage       `json:"stages"`
	Taken   [][]floor.Expected `json:"taken"`
}

// PainTry is what may be tried after pain.
type PainTry struct {
	Kind    string     `json:"kind"`
	Words   string     `json:"words"`
	Title   string     `json:"title"`
	Details string     `json:"details"`
	SetUp   []string   `json:"set_up_words"`
	In      SetUpAt    `json:"set_up"`
	Sides   []string   `json:"sides"`
	Loads   []LoadView `json:"loads"`
	Start   int        `json:"start"`
	More    int        `json:"more"` // reps more than planned
	Reserve int        `json:"reserve"`
}

// SetUpAt is a set-up by its movement and what of it is turned.
type SetUpAt struct {
	Movement string            `json:"movement" maxLength:"80"`
	Settings movement.Settings `json:"settings,omitempty"`
}
