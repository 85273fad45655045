package plan

import (
	"fmt"
	"slices"
	"strings"

	"github.com/google/uuid"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/text"
)

// Says returns what is wrong with how a session is written, whoever it is for: text
// that is none, ids that stand twice, more than there may be. Faults name the field
// in the paths in which it is written.
func (p *Planned) Says() []*movement.FieldError {
	out := p.Session.Says()
	switch n := len([]rune(p.Name)); {
	case strings.TrimSpace(p.Name) == "":
		out = append(out, &movement.FieldError{Field: "name", Reason: "a session needs a name"})
	case n > MostName:
		out = append(out, &movement.FieldError{Field: "name", Reason: fmt.Sprintf("%d characters are more than %d", n, MostName)})
	}
	return append(out, line("name", p.Name)...)
}

func line(field, s string) []*movement.FieldError {
	if why := text.Fault(s, true); why != "" {
		return []*movement.FieldError{{Field: field, Reason: why}}
	}
	return nil
}

// Says returns what is wrong with how a session is written; see Planned.Says.
func (s *Session) Says() []*movement.FieldError {
	var out []*movement.FieldError
	fault := func(field, reason string, args ...any) {
		out = append(out, &movement.FieldError{Field: field, Reason: fmt.Sprintf(reason, args...)})
	}
	if s.Intent != "" && s.Intent != "heavy" && s.Intent != "light" {
		fault("intent", "neither heavy nor light")
	}
	for i := range s.Combos {
		out = append(out, line(fmt.Sprintf("combos[%d].id", i), s.Combos[i].ID)...)
	}
	slots, rows := map[uuid.UUID]bool{}, map[uuid.UUID]bool{}
	for i := range s.Slots {
		slot, at := &s.Slots[i], fmt.Sprintf("slots[%d].", i)
		if slots[slot.ID] {
			fault(at+"id", "two slots have the same id")
		}
		slots[slot.ID] = true
		if len(slot.Rows) > MostRows*2 {
			fault(at+"rows", "%d rows are more than %d", len(slot.Rows), MostRows)
		}
		for k := range slot.Rows {
			r := &slot.Rows[k]
			if r.ID != uuid.Nil && rows[r.ID] {
				fault(fmt.Sprintf("%srows[%d].id", at, k), "two rows have the same id")
			}
			rows[r.ID] = true
			if r.Load != nil {
				out = append(out, line(fmt.Sprintf("%srows[%d].load.thing", at, k), r.Load.Thing)...)
			}
		}
		for _, c := range slot.Cues {
			out = append(out, line(at+"cues", c)...)
		}
		out = append(out, line(at+"combo", slot.Combo)...)
		out = append(out, line(at+"cue_reason", slot.CueReason)...)
		switch slot.Starts {
		case StartsInTurn, StartsLeft, StartsRight:
		case LeftOnly, RightOnly:
			if slot.SetUp.Movement != nil && slot.SetUp.ArmsInTurn() != 2 {
				fault(at+"starts", "both arms work in it at once: it is not for one alone")
			}
		default:
			fault(at+"starts", "%q is neither left nor right", string(slot.Starts))
		}
	}
	return out
}

// For is whom a prescription is checked for.
type For struct {
	Floor
	Caps   person.Caps
	Scores person.Scores
	// Refused says why a set-up cannot be computed for her body, "" if it can.
	Refused func(s movement.SetUp) string
}

// Check returns everything that is wrong with a session for somebody, one error a
// field; the field names slot and row ("slots[1].rows[0].reserve").
func (s *Session) Check(f *For) []*movement.FieldError {
	var out []*movement.FieldError
	if len(s.Slots) > MostSlots {
		out = append(out, &movement.FieldError{Field: "slots", Reason: fmt.Sprintf("%d slots are more than %d", len(s.Slots), MostSlots)})
	}
	if !(s.WarmUpMin >= 0 && s.WarmUpMin <= mostWarmUp) {
		out = append(
			out,
			&movement.FieldError{Field: "warm_up_min", Reason: fmt.Sprintf("%g is outside 0…%g minutes", s.WarmUpMin, mostWarmUp)},
		)
	}
	for i := range s.Slots {
		for _, e := range s.CheckSlot(i, f) {
			e.Field = fmt.Sprintf("slots[%d].%s", i, e.Field)
			out = append(out, e)
		}
	}
	return append(out, s.checkCombos(f.Caps)...)
}

// CheckCombos returns what is wrong with the session's combos.
func (s *Session) CheckCombos(f *For) []*movement.FieldError { return s.checkCombos(f.Caps) }

// CheckSlot returns what is wrong with one slot, in its own paths.
func (s *Session) CheckSlot(i int, f *For) []*movement.FieldError {
	slot := &s.Slots[i]
	var out []*movement.FieldError
	fault := func(field, reason string, args ...any) {
		out = append(out, &movement.FieldError{Field: field, Reason: fmt.Sprintf(reason, args...)})
	}
	if n := len(slot.Rows); n < 1 || n > MostRows {
		fault("rows", "%d rows are outside 1…%d", n, MostRows)
	}
	for k := range slot.Rows {
		for _, e := range s.checkRow(i, k, f) {
			e.Field = fmt.Sprintf("rows[%d].%s", k, e.Field)
			out = append(out, e)
		}
	}
	switch sets := slot.Sets(); {
	case slices.ContainsFunc(out, func(e *movement.FieldError) bool { return strings.HasSuffix(e.Field, "].sets") }): // told already
	case f.Caps.MostSets > 0 && sets > f.Caps.MostSets:
		fault("rows[0].sets", "this client's caps allow %d sets of one set-up in the first week", f.Caps.MostSets)
	case sets > MostSlotSets:
		fault("rows[0].sets", "%d sets of one slot are more than %d", sets, MostSlotSets)
	}
	if why := f.Caps.Lying(slot.SetUp); why != "" {
		fault("movement", "%s", why)
	}
	if len(slot.Cues) > MostCues {
		fault("cues", "%d cues are more than %d", len(slot.Cues), MostCues)
	}
	if n := len([]rune(slot.CueReason)); n > longestReason {
		fault("cue_reason", "%d characters are more than %d", n, longestReason)
	}
	if against := slot.CueAgainst(f.Caps); against != "" && strings.TrimSpace(slot.CueReason) == "" {
		out = append(
			out,
			&movement.FieldError{Field: "cues", Reason: against + ": give a reason to keep it, or word it another way", Asks: true},
		)
	}
	for _, c := range slot.Cues {
		if n := len([]rune(strings.TrimSpace(c))); n == 0 || n > LongestCue {
			fault("cues", "a cue has 1…%d characters, this one %d", LongestCue, n)
		}
	}
	return out
}

// checkRow returns what is wrong with one row of a slot, in its own paths.
func (s *Session) checkRow(i, k int, f *For) []*movement.FieldError {
	slot := &s.Slots[i]
	r, set := &slot.Rows[k], slot.SetUpIn(k)
	added := 0.0
	rack := f.Rack(set)
	if hand := s.Hand(i, k, &f.Floor); hand != nil && rack.Carry == person.BodyWeight {
		added = rack.Carry.Whole(*hand, rack.Rigging)
	}
	caps := f.Caps
	if first, last := s.Members(i); first != last {
		caps.MinRestS = 0 // the combo's own rests hold
	}
	out := r.Dose.Check(set, f.Room, added, caps, f.Scores)
	if e := s.checkLoad(i, k, &f.Floor); e != nil {
		out = append(out, e)
	}
	if r.SetUp == nil {
		return out
	}
	field := "settings"
	if r.SetUp.Movement != slot.SetUp.Movement {
		field = "movement"
	}
	fault := func(reason string, args ...any) {
		out = append(out, &movement.FieldError{Field: field, Reason: fmt.Sprintf(reason, args...)})
	}
	switch {
	case field == "movement" && !OnlyTheHand(slot.SetUp, *r.SetUp):
		fault("%s is not the same weight in another grip", r.SetUp.Title())
	case f.Refused != nil && f.Refused(*r.SetUp) != "":
		fault("%s", f.Refused(*r.SetUp))
	case f.Caps.Lying(*r.SetUp) != "":
		fault("%s", f.Caps.Lying(*r.SetUp))
	}
	return out
}

// CueAgainst is what one of the slot's cues asks for against caps, "" for none.
func (s *Slot) CueAgainst(caps person.Caps) string {
	for _, c := range s.Cues {
		if against := caps.Against(c); against != "" {
			return against
		}
	}
	return ""
}

// Incomplete lists what a sheet still lacks: sets, reps, effort and rest of every
// slot, one error a field. A set-up whose load is to be found is complete.
func (s *Session) Incomplete() []*movement.FieldError {
	var out []*movement.FieldError
	lacks := func(i, row int, field, what string) {
		out = append(
			out,
			&movement.FieldError{
				Field:  fmt.Sprintf("slots[%d].rows[%d].%s", i, row, field),
				Reason: fmt.Sprintf("slot %d, %s, has no %s", i+1, s.Slots[i].SetUp.Title(), what),
			},
		)
	}
	if len(s.Slots) == 0 {
		out = append(out, &movement.FieldError{Field: "slots", Reason: "there is nothing in the session yet"})
	}
	for i := range s.Slots {
		first, last := s.Members(i)
		if len(s.Slots[i].Rows) == 0 {
			lacks(i, 0, "sets", "sets")
		}
		for k := range s.Slots[i].Rows {
			d := &s.Slots[i].Rows[k].Dose
			if d.Sets < 1 {
				lacks(i, k, "sets", "sets")
			}
			if d.RepsLow < 1 && !d.IsHold() {
				lacks(i, k, "reps_low", "reps")
			}
			if d.Reserve < 0 {
				lacks(i, k, "reserve", "effort")
			}
			if d.RestS == 0 && first == last {
				lacks(i, k, "rest_s", "rest")
			}
		}
		if first != last && i == last && s.RestAfter(i, 0) == 0 {
			lacks(i, 0, "rest_s", "rest")
		}
	}
	return out
}
