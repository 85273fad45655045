package httpapi

import (
	"github.com/google/uuid"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

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

// RowView is a row told by itself.
type RowView struct {
	ID    uuid.UUID `json:"id"`
	Done  string    `json:"done"` // sets, reps and method
	Load  string    `json:"load"`
	SetUp string    `json:"set_up"` // how it is done where it is not as the slot says
}

func viewSlot(t *week.Trainee, session *plan.Session, i int, counted week.SlotCount) SlotView {
	slot, floor := &session.Slots[i], t.Floor()
	rack := floor.Rack(slot.SetUp)
	out := SlotView{
		SlotJSON: slot.JSON(),
		Title:    slot.SetUp.Title(), Details: slot.SetUp.Details(), Glyph: glyph(slot.SetUp, counted.Profile, counted.Reading), Refused: counted.Refused,
		DoseWords: session.Words(i), LoadWords: session.LoadWords(i, floor), Steps: []Step{}, CanFail: t.Room.CanFailAlone(slot.SetUp),
		Gets: setsSlice("Effective sets of this slot", counted.Heads), GripWords: slot.GripWords(), StartsWords: slot.StartsWords(), RowWords: []RowView{},
	}
	out.Cautions = t.Cautions(session, i)
	out.Group, out.Methods = plan.GroupOf(slot.SetUp), viewMethods(t, slot.SetUp)
	for _, whole := range rack.Steps {
		out.Steps = append(out.Steps, Step{*dose.Carried(rack, rack.Carry.PerHand(whole, rack.Rigging)), rack.Carry.Words(whole, slot.SetUp)})
	}
	for k := range slot.Rows {
		v := RowView{ID: slot.Rows[k].ID, Done: slot.Rows[k].DoneWords(slot.SetUp.ArmsInTurn()), Load: session.RowLoadWords(i, k, floor)}
		if slot.Rows[k].SetUp != nil {
			v.SetUp = slot.Rows[k].SetUp.Name()
		}
		out.RowWords = append(out.RowWords, v)
	}
	if i+1 < len(session.Slots) {
		out.Apart = t.Apart(session, i)
	}
	return out
}
