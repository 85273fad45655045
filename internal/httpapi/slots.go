package httpapi

import (
	"github.com/google/uuid"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/week"
)

// draftOf turns a slot back into what is edited.
func draftOf(id uuid.UUID, slot week.Slot) SlotDraft {
	d := slot.Dose
	out := SlotDraft{ID: id, Movement: slot.SetUp.Movement.ID, Settings: plain(slot.SetUp.Turned()), Cues: slot.Cues, Combo: slot.Combo, Starts: string(slot.Starts), Locked: slot.Locked, CueReason: slot.CueReason,
		Dose: &DoseDraft{d.Sets, d.RepsLow, d.RepsHigh, d.Reserve, d.Reserves, d.RestS, d.Tempo[:], d.LoadKg, d.Method.ID, d.Method.N}}
	if out.Cues == nil {
		out.Cues = []string{}
	}
	for _, g := range slot.Grips {
		out.Grips = append(out.Grips, GripDraft{g.Movement.ID, plain(g.Turned())})
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

func viewSlot(t *week.Trainee, id uuid.UUID, session *week.Session, i int, counted week.SlotCount) SlotView {
	slot := session.Slots[i]
	d := slot.Dose
	rack := dose.RackOf(slot.SetUp, t.Room, t.Yardstick.Body().BodyMass)
	out := SlotView{
		SlotDraft: draftOf(id, slot),
		Title:     slot.SetUp.Title(), Details: slot.SetUp.Details(), Glyph: glyph(slot.SetUp, counted.Profile, counted.Reading), Refused: counted.Refused,
		DoseWords: d.Words(slot.SetUp.ArmsInTurn()), LoadWords: d.LoadWords(slot.SetUp, rack, session.Place(i)), Steps: []Step{}, CanFail: t.Room.CanFailAlone(slot.SetUp),
		Gets: setsSlice("Effective sets of this slot", counted.Heads), GripWords: slot.GripWords(), StartsWords: slot.StartsWords(),
	}
	out.Cautions = session.Cautions(t, i)
	out.Group, out.Methods = week.GroupOf(slot.SetUp), viewMethods(t, slot.SetUp)
	for _, whole := range rack.Steps {
		out.Steps = append(out.Steps, Step{rack.Carry.PerHand(whole, rack.Rigging), rack.Carry.Words(whole, slot.SetUp)})
	}
	if i+1 < len(session.Slots) {
		next := session.Join(i)
		out.JoinsBy = next
		out.Apart = t.Apart(&slot, &session.Slots[i+1], next, session.Place(i)+1)
	}
	return out
}
