package person

import (
	"fmt"
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
	NoProne      bool     `json:"no_prone"`       // nothing lying on the chest
	NoHeadDown   bool     `json:"no_head_down"`   // no bench that lies head down
	NoBreathHold bool     `json:"no_breath_hold"` // said on every sheet
	MostHoldS    float64  `json:"most_hold_s"`    // at either end of a rep; 0: no cap
	Closed       []string `json:"closed"`         // ids of methods
	From         []CapID  `json:"from"`
}

// firstWeekSets is half of the usual three, rounded up.
const firstWeekSets = 2

// longestHoldS is the longest hold at an end of a rep that asks for no breath
// held with it, s.
const longestHoldS = 3.0

// Methods that caps close (prescribing knows what they are).
var (
	closedByCaution = []string{
		"drops",
		"rest_pause",
		"three_in_row",
		"thirds",
		"partials_strong",
		"loaded_lowering",
		"assisted",
		"strict_then_swing",
		"last_rep_hold",
	}
	closedByPressure  = append(slices.Clone(closedByCaution), "static_hold", "superset_same")
	closedByPregnancy = []string{"last_rep_hold", "static_hold"}
)

// capsOf is what each cap asks for.
var capsOf = map[CapID]Caps{
	Cautious:      {MinReserve: 3, Closed: closedByCaution},
	CautiousFirst: {MinReserve: 3, MostSets: firstWeekSets, Closed: closedByCaution},
	BloodPressure: {MinReserve: 2, MinRestS: 90, NoBreathHold: true, MostHoldS: longestHoldS, NoHeadDown: true, Closed: closedByPressure},
	Pregnant:      {MinReserve: 3, NoBreathHold: true, MostHoldS: longestHoldS, NoHeadDown: true, Closed: closedByPregnancy},
	PregnantLate: {
		MinReserve:   3,
		NoBreathHold: true,
		MostHoldS:    longestHoldS,
		NoHeadDown:   true,
		NoFlatOnBack: true,
		NoProne:      true,
		Closed:       closedByPregnancy,
	},
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
		if one.MostHoldS > 0 && (c.MostHoldS == 0 || one.MostHoldS < c.MostHoldS) {
			c.MostHoldS = one.MostHoldS
		}
		c.NoFlatOnBack = c.NoFlatOnBack || one.NoFlatOnBack
		c.NoProne = c.NoProne || one.NoProne
		c.NoHeadDown = c.NoHeadDown || one.NoHeadDown
		c.NoBreathHold = c.NoBreathHold || one.NoBreathHold
		c.Closed = append(c.Closed, one.Closed...)
	}
	slices.Sort(c.Closed)
	c.Closed = slices.Compact(c.Closed)
	return c
}

// Words tells the coach what each cap asks for and why. The why is a health
// reason: what leaves for the client says Caps.Does instead.
func (id CapID) Words() string {
	c := capsOf[id]
	reserve := fmt.Sprintf("at least %d reps in reserve", c.MinReserve)
	hold := fmt.Sprintf("no hold over %g s", c.MostHoldS)
	switch id {
	case Cautious:
		return fmt.Sprintf("Cautious: %s, nothing beyond the limit.", reserve)
	case CautiousFirst:
		return fmt.Sprintf("Cautious, first week: half the sets (%d a slot), %s, nothing beyond the limit.", c.MostSets, reserve)
	case BloodPressure:
		return fmt.Sprintf("Blood pressure, cleared: %s, rests of %d s or more, breathe out on the effort, no long breath holds and %s.",
			reserve, c.MinRestS, hold)
	case Pregnant:
		return fmt.Sprintf("Pregnant, cleared: %s, no breath holds and %s.", reserve, hold)
	case PregnantLate:
		return fmt.Sprintf("Pregnant past the first trimester, cleared: %s, no breath holds and %s, nothing flat on the back or on the chest.",
			reserve, hold)
	}
	return ""
}

// Does tells the client what to do under the caps, without the reason.
func (c *Caps) Does() []string {
	out := []string{}
	add := func(ok bool, text string, args ...any) {
		if ok {
			out = append(out, fmt.Sprintf(text, args...))
		}
	}
	add(c.MinReserve > 0, "Stop every set while at least %d more clean reps would be possible.", c.MinReserve)
	add(c.MinRestS > 0, "Rest at least %d s after every set.", c.MinRestS)
	add(c.MostSets > 0, "At most %d sets of each exercise.", c.MostSets)
	add(c.NoBreathHold, "Breathe out on the effort, never hold your breath.")
	add(c.MostHoldS > 0, "Hold no position longer than %g s.", c.MostHoldS)
	add(c.NoFlatOnBack && c.NoProne, "Nothing flat on your back or on your chest.")
	add(c.NoFlatOnBack && !c.NoProne, "Nothing flat on your back.")
	return out
}

// Where lying becomes flat, and a bench head down: trunk lean, degrees.
const (
	flat     = -75.0
	headDown = -95.0
)

// FlatOnBack says whether a set-up lies flat on the back.
func FlatOnBack(s movement.SetUp) bool { return s.Effort().TrunkLean <= flat }

// HeadDown says whether a set-up lies head down.
func HeadDown(s movement.SetUp) bool { return s.Effort().TrunkLean <= headDown }

// Prone says whether a set-up lies on the chest.
func Prone(s movement.SetUp) bool { return s.Position() == movement.ChestSupported }

// Lying says why the caps do not allow the way a set-up lies, "" if they do.
func (c *Caps) Lying(s movement.SetUp) string {
	switch {
	case c.NoFlatOnBack && FlatOnBack(s):
		return "this client's caps allow nothing flat on the back: take an incline"
	case c.NoProne && Prone(s):
		return "this client's caps allow nothing on the chest: sit or stand"
	case c.NoHeadDown && HeadDown(s):
		return "this client's caps allow no bench that lies head down"
	}
	return ""
}

// SheetCautions stand on every sheet.
var SheetCautions = []string{
	"Breathe out on the effort. Pain over 3 of 10, or rising, ends the set; tell your coach.",
	"Chest pain, fainting, severe breathlessness or sudden weakness: stop and call emergency services.",
	"This sheet is no diagnosis and no treatment; local rules and licensed practice come first.",
}
