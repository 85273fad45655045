package person

import (
	"slices"

	"musculus/internal/core/movement"
)

// FieldError is what is wrong with one field.
type FieldError = movement.FieldError

// CapID names a reason for caps that screening has set.
type CapID string

// The caps.
const (
	Cautious      CapID = "cautious"       // coming back, new to it, or a minor
	CautiousFirst CapID = "cautious_first" // the first week of that
	BloodPressure CapID = "blood_pressure" // cleared
	Pregnant      CapID = "pregnant"       // cleared
	PregnantLate  CapID = "pregnant_late"  // cleared, past the first trimester
)

// Caps is what a dose may not go beyond. They outrank every rule, preference
// and draft.
type Caps struct {
	MinReserve   int      `json:"min_reserve"`
	MinRestS     int      `json:"min_rest_s"`
	MostSets     int      `json:"most_sets"`      // of one slot; 0: no cap
	NoFlatOnBack bool     `json:"no_flat_back"`   // nothing lying flat
	NoBreathHold bool     `json:"no_breath_hold"` // said on every sheet
	Closed       []string `json:"closed"`         // ids of methods
	From         []CapID  `json:"from"`
}

// firstWeekSets is half of the usual three, rounded up.
const firstWeekSets = 2

// Methods that caps close (prescribing knows what they are).
var (
	closedByCaution  = []string{"drops", "rest_pause", "three_in_row", "thirds", "partials_strong", "loaded_lowering", "assisted", "strict_then_swing", "last_rep_hold"}
	closedByPressure = append(slices.Clone(closedByCaution), "static_hold", "superset_same")
)

// capsOf is what each cap asks for.
var capsOf = map[CapID]Caps{
	Cautious:      {MinReserve: 3, Closed: closedByCaution},
	CautiousFirst: {MinReserve: 3, MostSets: firstWeekSets, Closed: closedByCaution},
	BloodPressure: {MinReserve: 2, MinRestS: 90, NoBreathHold: true, Closed: closedByPressure},
	Pregnant:      {MinReserve: 3, NoBreathHold: true},
	PregnantLate:  {MinReserve: 3, NoBreathHold: true, NoFlatOnBack: true},
}

// CapsOf joins caps: the strictest of each field holds.
func CapsOf(ids []CapID) Caps {
	c := Caps{From: ids}
	for _, id := range ids {
		one := capsOf[id]
		c.MinReserve = max(c.MinReserve, one.MinReserve)
		c.MinRestS = max(c.MinRestS, one.MinRestS)
		if one.MostSets > 0 && (c.MostSets == 0 || one.MostSets < c.MostSets) {
			c.MostSets = one.MostSets
		}
		c.NoFlatOnBack = c.NoFlatOnBack || one.NoFlatOnBack
		c.NoBreathHold = c.NoBreathHold || one.NoBreathHold
		c.Closed = append(c.Closed, one.Closed...)
	}
	slices.Sort(c.Closed)
	c.Closed = slices.Compact(c.Closed)
	return c
}

// Words tells what each cap asks for, in a sentence for the coach.
func (id CapID) Words() string {
	return map[CapID]string{
		Cautious:      "Cautious: at least 3 reps in reserve, nothing beyond the limit.",
		CautiousFirst: "Cautious, first week: half the sets (2 a slot), at least 3 reps in reserve, nothing beyond the limit.",
		BloodPressure: "Blood pressure, cleared: at least 2 reps in reserve, rests of 90 s or more, breathe out on the effort, no long breath holds.",
		Pregnant:      "Pregnant, cleared: at least 3 reps in reserve, no breath holds.",
		PregnantLate:  "Pregnant past the first trimester, cleared: at least 3 reps in reserve, no breath holds, nothing flat on the back.",
	}[id]
}

// flat is a trunk lean from which somebody lies flat on the back, degrees.
const flat = -75.0

// FlatOnBack says whether a set-up lies flat on the back.
func FlatOnBack(s movement.SetUp) bool { return s.Effort().TrunkLean <= flat }

// SheetCautions stand on every sheet.
var SheetCautions = []string{
	"Breathe out on the effort. Pain over 3 of 10, or rising, ends the set; tell your coach.",
	"Chest pain, fainting, severe breathlessness or sudden weakness: stop and call emergency services.",
	"This sheet is no diagnosis and no treatment; local rules and licensed practice come first.",
}
