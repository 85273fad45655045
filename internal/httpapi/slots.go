package httpapi

import (
	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/series"
	"musculus/internal/core/week"
	"musculus/internal/store"
	"strings"

	"github.com/google/uuid"
)

// draftOf turns a slot back into what is edited.
func draftOf(id uuid.UUID, slot week.Slot) SlotDraft {
	d := slot.Dose
	out := SlotDraft{ID: id, Movement: slot.SetUp.Movement.ID, Settings: plain(slot.SetUp.Turned()), Cues: slot.Cues, Combo: slot.Combo,
		Dose: &DoseDraft{d.Sets, d.RepsLow, d.RepsHigh, d.Reserve, d.RestS, d.Tempo[:], d.LoadKg, d.Method.ID, d.Method.N}}
	if out.Cues == nil {
		out.Cues = []string{}
	}
	return out
}

// MethodView is a method as it can be chosen for a slot.
type MethodView struct {
	ID      string `json:"id"`
	Name    string `json:"name"`
	Of      string `json:"of"` // what its parameter counts, empty for none
	Usual   int    `json:"usual"`
	Least   int    `json:"least"`
	Most    int    `json:"most"`
	Load    string `json:"load"`    // the load rule
	Refused string `json:"refused"` // why it is not offered here, empty if it is
}

func viewMethods(t *week.Trainee, s movement.SetUp) []MethodView {
	where := &dose.Where{Room: t.Room, Caps: t.Caps, Scores: t.Scores()}
	out := []MethodView{}
	for i := range dose.Methods {
		m := &dose.Methods[i]
		out = append(out, MethodView{m.ID, m.Name, m.Of, m.Default, m.Least, m.Most, m.Load, m.Refused(s, where)})
	}
	return out
}

func viewSlot(t *week.Trainee, c *store.Client, id uuid.UUID, slot week.Slot, counted week.SlotCount) SlotView {
	d := slot.Dose
	carry, rigging := person.CarryOf(slot.SetUp), c.Room().Rigging(c.Dossier.Body().BodyMass)
	out := SlotView{
		SlotDraft: draftOf(id, slot),
		Title:     slot.SetUp.Title(), Details: slot.SetUp.Details(), Glyph: glyph(slot.SetUp, counted.Profile, counted.Reading), Refused: counted.Refused,
		DoseWords: d.Words(), LoadWords: loadWords(&slot, c.Room(), rigging), Steps: []Step{}, CanFail: c.Room().CanFailAlone(slot.SetUp),
		Gets: setsSlice("Effective sets of this slot", counted.Heads),
	}
	out.Group, out.MethodWords, out.Methods = week.GroupOf(slot.SetUp), d.Method.Words(), viewMethods(t, slot.SetUp)
	for _, whole := range c.Room().Steps(slot.SetUp) {
		out.Steps = append(out.Steps, Step{carry.PerHand(whole, rigging), carry.Words(whole, slot.SetUp)})
	}
	return out
}

// loadWords tells the load of a slot as it is read on the floor: rung by rung or
// set by set where the method changes it.
func loadWords(slot *week.Slot, room *person.Room, rigging person.Rigging) string {
	if slot.Dose.LoadKg == nil {
		return series.FindWords
	}
	carry := person.CarryOf(slot.SetUp)
	whole := carry.Whole(*slot.Dose.LoadKg, rigging)
	steps := room.Steps(slot.SetUp)
	var loads []float64
	switch {
	case slot.Dose.Method.ID == "pyramid":
		for set := range slot.Dose.Sets {
			loads = append(loads, slot.Dose.Method.Loads(steps, whole, set)...)
		}
	default:
		loads = slot.Dose.Method.Loads(steps, whole, 0)
	}
	if len(loads) == 0 || len(loads) == 1 && loads[0] == whole {
		return carry.Words(whole, slot.SetUp)
	}
	words := make([]string, len(loads))
	for i, x := range loads {
		words[i] = strings.TrimSuffix(person.Kg(x), " kg")
	}
	words[len(words)-1] = carry.Words(loads[len(loads)-1], slot.SetUp)
	return strings.Join(words, " → ")
}
