package view

import (
	"github.com/google/uuid"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

// Step is a load the room really has, as a row takes it.
type Step struct {
	Load  dose.Load `json:"load"`
	Words string    `json:"words"`
}

// SlotView is a slot with what follows from it.
type SlotView struct {
	plan.SlotJSON
	Title     string    `json:"title"`
	Details   string    `json:"details"`
	Glyph     Glyph     `json:"glyph"`
	Refused   string    `json:"refused"`
	DoseWords string    `json:"dose_words"`
	LoadWords string    `json:"load_words"`
	Steps     []Step    `json:"steps"`
	CanFail   bool      `json:"can_fail_alone"`
	Gets      SliceView `json:"gets"` // effective sets of this slot

	Group       string       `json:"group" enum:"flexors,extensors"`
	Methods     []MethodView `json:"methods"`
	GripWords   string       `json:"grip_words"`   // set by set, empty where they are all one
	StartsWords string       `json:"starts_words"` // which arm begins, empty where both work together
	RowWords    []RowView    `json:"row_words"`    // each row told by itself
	Apart       string       `json:"apart"`        // why it cannot be, empty if it can
	Cautions    []string     `json:"cautions"`     // what keeps the client safe in it
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

// RowView is a row told by itself.
type RowView struct {
	ID    uuid.UUID `json:"id"`
	Done  string    `json:"done"` // sets, reps and method
	Load  string    `json:"load"`
	SetUp string    `json:"set_up"` // how it is done where it is not as the slot says
}

// SlotOf views slot i of a session with what it counts.
func SlotOf(t *week.Trainee, session *plan.Session, i int, counted week.SlotCount) SlotView {
	slot, floor := &session.Slots[i], t.Floor()
	rack := floor.Rack(slot.SetUp)
	out := SlotView{
		SlotJSON: slot.JSON(), Title: slot.SetUp.Title(), Details: slot.SetUp.Details(),
		Glyph: GlyphOf(slot.SetUp, counted.Profile, counted.Reading), Refused: counted.Refused,
		DoseWords: session.Words(i), LoadWords: session.LoadWords(i, floor), Steps: []Step{}, CanFail: t.Room.CanFailAlone(slot.SetUp),
		Gets: SetsSlice("Effective sets of this slot", counted.Heads), GripWords: slot.GripWords(),
		StartsWords: slot.StartsWords(), RowWords: []RowView{},
	}
	out.Cautions = t.Cautions(session, i)
	out.Group, out.Methods = plan.GroupOf(slot.SetUp), viewMethods(t, slot.SetUp)
	for _, whole := range rack.Steps {
		load := dose.Carried(rack, rack.Carry.PerHand(whole, rack.Rigging))
		out.Steps = append(out.Steps, Step{*load, rack.Carry.Words(whole, slot.SetUp)})
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
