package view

import (
	"fmt"
	"strconv"

	"github.com/google/uuid"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
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
	Short     string    `json:"short"` // for tight places
	Details   string    `json:"details"`
	Glyph     Glyph     `json:"glyph"`
	Refused   string    `json:"refused"`
	DoseWords string    `json:"dose_words"`
	LoadWords string    `json:"load_words"`
	Steps     []Step    `json:"steps"`
	Later     []Step    `json:"later"` // what rows after the first may ask for besides
	Gets      SliceView `json:"gets"`  // effective sets of this slot

	Group       string       `json:"group" enum:"flexors,extensors"`
	Methods     []MethodView `json:"methods"`
	GripWords   string       `json:"grip_words"`   // set by set, empty where they are all one
	StartsWords string       `json:"starts_words"` // which arm begins, empty where both work together
	RowWords    []RowView    `json:"row_words"`    // each row told by itself
	Between     string       `json:"between"`      // what there is to change on the way to the next one in turns, empty for nothing
	Reserves    []Reserve    `json:"reserves"`     // what may be left in reserve
	// RestIn is the combo whose rest follows its sets; without one each row has its own.
	RestIn   *RestIn  `json:"rest_in,omitempty"`
	Cautions []string `json:"cautions"` // what keeps the client safe in it
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
		refused := m.Refused(s, where)
		if refused == "" && m.ID == dose.StrictThenSwing && !t.Prefer.Is(person.AxisSwing, "after") {
			refused = "swing at the end: the preference is never"
		}
		out = append(out, MethodView{m.ID, m.Name, m.Of, m.Default, m.Least, m.Most, m.Load, refused})
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

// Loads of later rows that are offered: parts of the first row's and real steps off it.
var (
	laterShares = []float64{0.9, 0.8, 0.7, 0.6, 0.5}
	laterSteps  = []int{2, 1, -1, -2}
)

// laterOf lists what rows after the first may ask for by the first one's load.
func laterOf(carry person.Carry) []Step {
	out := []Step{}
	if carry != person.BodyWeight { // of which there are no shares
		for _, share := range laterShares {
			out = append(out, Step{dose.Load{Share: share}, fmt.Sprintf("%.0f %% of the first", 100*share)})
		}
	}
	for _, n := range laterSteps {
		steps, way := "1 step", "up"
		if max(n, -n) > 1 {
			steps = fmt.Sprintf("%d steps", max(n, -n))
		}
		if n < 0 {
			way = "down"
		}
		out = append(out, Step{*dose.StepsOff(n), steps + " " + way + " from the first"})
	}
	return out
}

// Reserve is a number of reps that may be left in reserve.
type Reserve struct {
	Value   int    `json:"value"`
	Words   string `json:"words"`
	Refused string `json:"refused"` // why not here, empty if it may be
}

// reservesOf lists what may be left in reserve in a slot.
func reservesOf(t *week.Trainee, s movement.SetUp) (out []Reserve) {
	for r := range dose.MostReserve + 1 {
		one := Reserve{Value: r, Words: strconv.Itoa(r)}
		if r == 0 {
			one.Words = "to the limit"
		}
		switch {
		case r < t.Caps.MinReserve:
			one.Refused = fmt.Sprintf("at least %d in reserve for this client", t.Caps.MinReserve)
		case r == 0 && !t.Room.CanFailAlone(s):
			one.Refused = "not safe to fail alone here"
		}
		out = append(out, one)
	}
	return out
}

// RestIn says where the rest after a slot's sets stands.
type RestIn struct {
	Combo string `json:"combo"`
	Field string `json:"field" enum:"between_s,after_s"`
}

// restIn is where the rest after a slot's sets stands, nil where its rows say it.
func restIn(s *plan.Session, i int) *RestIn {
	first, last := s.Members(i)
	switch {
	case first == last:
		return nil
	case i == last:
		return &RestIn{s.Slots[i].Combo, "after_s"}
	}
	return &RestIn{s.Slots[i].Combo, "between_s"}
}

// SlotOf views slot i of a session with what it counts.
func SlotOf(t *week.Trainee, session *plan.Session, i int, counted week.SlotCount) SlotView {
	slot, floor := &session.Slots[i], t.Floor()
	rack := floor.Rack(slot.SetUp)
	out := SlotView{
		SlotJSON: slot.JSON(), Title: slot.SetUp.Title(), Short: slot.SetUp.Short(), Details: slot.SetUp.Details(),
		Glyph: GlyphOf(slot.SetUp, counted.Profile, counted.Reading), Refused: counted.Refused,
		DoseWords: session.Words(i), LoadWords: session.LoadWords(i, floor), Steps: []Step{},
		Gets: SetsSlice("Effective sets of this slot", counted.Heads), GripWords: slot.GripWords(),
		StartsWords: slot.StartsWords(), RowWords: []RowView{},
	}
	out.Cautions, out.Reserves, out.RestIn = t.Cautions(session, i), reservesOf(t, slot.SetUp), restIn(session, i)
	out.Group, out.Methods = plan.GroupOf(slot.SetUp), viewMethods(t, slot.SetUp)
	out.Later = laterOf(rack.Carry)
	for _, whole := range rack.Steps {
		load := dose.Carried(rack, rack.Carry.PerHand(whole, rack.Rigging))
		out.Steps = append(out.Steps, Step{*load, rack.Words(whole)})
	}
	for k := range slot.Rows {
		v := RowView{ID: slot.Rows[k].ID, Done: slot.Rows[k].DoneWords(slot.Arms()), Load: session.RowLoadWords(i, k, floor)}
		if slot.Rows[k].SetUp != nil {
			v.SetUp = slot.Rows[k].SetUp.Name()
		}
		out.RowWords = append(out.RowWords, v)
	}
	if i+1 < len(session.Slots) {
		if b := t.Between(session, i, i+1, 1); b.Seconds > 0 {
			out.Between = b.Words()
		}
	}
	return out
}
