package view

import (
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/plan"
)

// FindingView is what the tool says in the margin.
type FindingView struct {
	Severity string `json:"severity" enum:"stop,warn,note"`
	Text     string `json:"text"`
	Slot     *int   `json:"slot"` // index
}

// SessionView is a session with everything that follows from it.
type SessionView struct {
	ID         uuid.UUID     `json:"id"`
	Name       string        `json:"name"`
	PlannedOn  day.Day       `json:"planned_on" format:"date"`
	When       string        `json:"when"`
	Version    int           `json:"version"`
	SavedAt    time.Time     `json:"saved_at"`
	SavedBy    string        `json:"saved_by"`
	WarmUpMin  float64       `json:"warm_up_min"`
	Intent     string        `json:"intent" enum:",heavy,light"`
	Locked     bool          `json:"locked,omitempty"`
	Combos     []plan.Combo  `json:"combos"`
	Slots      []SlotView    `json:"slots"`
	Total      SliceView     `json:"total"`
	Minutes    float64       `json:"minutes"`
	WarmUp     float64       `json:"warm_up"` // minutes of them: the general one and the ramp
	Ramp       string        `json:"ramp"`    // what leads up to the first working load, empty for nothing
	Spent      string        `json:"spent"`   // what the minutes are made of
	MinutesHas int           `json:"minutes_has"`
	Over       bool          `json:"over_minutes"`
	Flexors    int           `json:"hard_sets_flexors"`
	Extensors  int           `json:"hard_sets_extensors"`
	Findings   []FindingView `json:"findings"`
	Blocked    string        `json:"blocked"` // why the client may not train, empty if she may
}

// FieldFault is a fault at a field of the draft.
type FieldFault struct {
	Field  string `json:"field"`
	Reason string `json:"reason"`
	Asks   bool   `json:"asks"` // a reason answers it
}
