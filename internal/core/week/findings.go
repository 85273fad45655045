package week

import (
	"fmt"
	"strings"

	"musculus/internal/core/person"
	"musculus/internal/core/plan"
)

// Severity says how much a finding matters.
type Severity string

// The severities.
const (
	Stop Severity = "stop" // cannot be done as it stands
	Warn Severity = "warn" // look at it
	Note Severity = "note" // worth knowing
)

// Finding is something the coach should know about a session.
type Finding struct {
	Severity Severity
	Text     string
	Slot     int    // index, −1 for the whole session
	Code     string // of the rule, see Audit
	Group    string // the muscle group it is of, where it is of one
}

// MostGroupSets is how many hard sets one muscle group takes in a session.
const MostGroupSets = 10

// Findings looks a counted session over: what the room lacks, what cannot be
// computed, caps, time and hard sets. minutes is the client's time.
func (t *Trainee) Findings(s *plan.Session, c Totals, minutes int) []Finding {
	var out []Finding
	add := func(code string, severity Severity, slot int, text string, args ...any) {
		out = append(out, Finding{Severity: severity, Text: fmt.Sprintf(text, args...), Slot: slot, Code: code})
	}
	for i := range s.Slots {
		slot := &s.Slots[i]
		if lacks := t.Room.Missing(slot.SetUp); len(lacks) > 0 {
			add("equipment", Stop, i, "%s lacks %s for slot %d.", t.Room.Name, strings.Join(lacks, " and "), i+1)
		}
		if c.Slots[i].Refused != "" {
			add("refused", Stop, i, "Slot %d cannot be done as set: %s.", i+1, c.Slots[i].Refused)
		}
		for _, part := range slot.SetUps() {
			if v := t.Fence.Judge(part, t.memo().look(part).profile); v.Barred() && !v.ByCaps {
				add("avoid", Warn, i, "Slot %d is to be avoided: %s", i+1, v.Reasons[0].Words)
				break
			} else if v.Overridden == "" && v.Ruling == person.Modify {
				add("modify", Note, i, "Slot %d, to modify: %s", i+1, v.Reasons[0].Words)
				break
			}
		}
		t.byLoad(s, i, add)
		if slot.CueReason != "" {
			if against := slot.CueAgainst(t.Caps); against != "" {
				add("cue", Note, i, "Slot %d: %s. It stays: %s", i+1, against, slot.CueReason)
			}
		}
		for _, e := range t.checkSlot(s, i) {
			add("dose", Stop, i, "Slot %d: %s.", i+1, e.Reason)
		}
	}
	for _, e := range s.CheckCombos(t.checks()) {
		i := s.ComboAt(e.Field)
		add("combo", Stop, i, "Slot %d: %s.", i+1, e.Reason)
	}
	t.turnsFindings(s, add)
	if c.Over(minutes) {
		add("minutes", Warn, -1, "%s minutes against the %d this client has.", apart(c.Minutes, float64(minutes), 0), minutes)
	}
	for _, group := range []string{plan.Flexors, plan.Extensors} {
		if n := c.Hard(group); n > MostGroupSets {
			add("group_session", Warn, -1, "%d hard sets for the elbow %s in one session, over %d.", n, group, MostGroupSets)
			out[len(out)-1].Group = group
		}
	}
	for _, id := range t.Caps.From {
		add("caps", Note, -1, "%s", id.Words())
	}
	return out
}
