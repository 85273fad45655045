package sheet_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/sheet"
)

func floor() *plan.Floor {
	r := &person.Room{Name: "Loft", Things: []person.Thing{person.Pairs(2, 4, 6, 8, 10, 12, 14, 16, 18, 20)}}
	return &plan.Floor{Room: r, BodyMass: 75}
}

func session() plan.Planned {
	out := plan.Planned{Name: "Gallery day", On: day.Of(2026, 11, 27), Session: plan.Session{WarmUpMin: 5}}
	for i, id := range []string{"curl_standing_dumbbells", "curl_reclined"} {
		s := plan.Of(
			movement.Shipped.Get(id).Default(),
			dose.Dose{Sets: 3, RepsLow: 8, RepsHigh: 12, Reserve: 2, RestS: 90, Load: dose.Kg(12)},
		)
		s.ID, s.Rows[0].ID = uuid.NewSHA1(uuid.Nil, []byte(id)), uuid.NewSHA1(uuid.Nil, fmt.Append(nil, i))
		out.Slots = append(out.Slots, s)
	}
	return out
}

// Every change is told once, in words; what is told otherwise but asks for the same is
// none.
func TestChangesAreThoseOfTheFacts(t *testing.T) {
	for want, change := range map[string]func(p *plan.Planned){
		"": func(p *plan.Planned) { // the same sets cut into other rows
			p.Slots[0].Rows = []plan.Row{p.Slots[0].Rows[0], p.Slots[0].Rows[0]}
			p.Slots[0].Rows[0].Sets, p.Slots[0].Rows[1].Sets, p.Slots[0].Rows[1].Load = 1, 2, nil
		},
		"Moved from Friday, 27\u00a0November\u00a02026 to Saturday, 28\u00a0November\u00a02026.": func(p *plan.Planned) { p.On++ },
		"Now called Balcony day.":                                                         func(p *plan.Planned) { p.Name = "Balcony day" },
		"Warm-up: no general warm-up, before: 5 min easy warm-up.":                        func(p *plan.Planned) { p.WarmUpMin = 0 },
		"Standing curl, two dumbbells, palms up: sets 4 × 8–12, before 3 × 8–12.":         func(p *plan.Planned) { p.Slots[0].Add(1) },
		"Standing curl, two dumbbells, palms up: load 14 kg a hand, before 12 kg a hand.": func(p *plan.Planned) { p.Slots[0].Take(dose.Kg(14)) },
		"Standing curl, two dumbbells, palms up: rest rest 2 min, before rest 90 s.":      func(p *plan.Planned) { p.Slots[0].RestAtLeast(120) },
		"Standing curl, two dumbbells, palms up: effort set by set, stop with 2, 2, 2, 0 reps left, before stop with 2 reps " +
			"left.": func(p *plan.Planned) {
			last := p.Slots[0].Rows[0]
			last.Sets, last.Reserve = 1, 0
			p.Slots[0].Rows = append(p.Slots[0].Rows[:1:1], last)
		},
		"Reclined 45° curl, two dumbbells, palms up: other cues.": func(p *plan.Planned) {
			p.Slots[1].Cues = []string{"Let " +
				"both arms hang like ropes"}
		},
		"Gone: Reclined 45° curl, two dumbbells, palms up.": func(p *plan.Planned) { p.Slots = p.Slots[:1] },
		"Another order.": func(p *plan.Planned) { p.Slots[0], p.Slots[1] = p.Slots[1], p.Slots[0] },
	} {
		before, after := session(), session()
		change(&after)
		was, is := sheet.Of(&before, floor()), sheet.Of(&after, floor())
		said := sheet.Changes(&was, &is, floor())
		if want == "" {
			assert.Empty(t, said)
			continue
		}
		assert.Contains(t, said, want)
	}
	combo, apart := session(), session()
	combo.Combos = []plan.Combo{{ID: "a", AfterS: 90}}
	combo.Slots[0].Combo, combo.Slots[1].Combo = "a", "a"
	was, is := sheet.Of(&apart, floor()), sheet.Of(&combo, floor())
	assert.Contains(
		t,
		sheet.Changes(&was, &is, floor()),
		"Reclined 45° curl, two dumbbells, palms up: load 10 kg a hand, before 12 kg a hand.",
	)
	// A room that lost a step changes what is told, although the plan is the same.
	poorer := floor()
	poorer.Room.Things[0].Loads = poorer.Room.Things[0].Loads[:4]
	now := session()
	now.Slots[0].Rows[0].Method = dose.Use{ID: "drops"}
	was, is = sheet.Of(&now, floor()), sheet.Of(&now, poorer)
	assert.NotEmpty(t, sheet.Changes(&was, &is, poorer))
	is.Loads = nil // of version 1 only the plan is known
	assert.Empty(t, sheet.Changes(&was, &is, poorer))
}

// A document comes back with its facts; one of version 1 is words.
func TestDocumentsOfEveryVersionAreRead(t *testing.T) {
	p := session()
	facts := sheet.Of(&p, floor())
	b, err := sheet.Write(facts, map[string]string{"session": "Gallery day"})
	require.NoError(t, err)
	d, err := sheet.Read(b, movement.Shipped)
	require.NoError(t, err)
	require.NotNil(t, d.Facts)
	assert.Empty(t, sheet.Changes(d.Facts, &facts, floor()))
	assert.JSONEq(t, `{"session":"Gallery day"}`, string(d.Words))
	d, err = sheet.Read([]byte(`{"session":"Old","slots":[]}`), movement.Shipped)
	require.NoError(t, err)
	assert.Equal(t, 1, d.Version)
	assert.Nil(t, d.Facts)
	assert.JSONEq(t, `{"session":"Old","slots":[]}`, string(d.Words))
	gone, err := sheet.Read(b, &movement.Catalogue{})
	require.NoError(t, err)
	assert.Nil(t, gone.Facts, "a movement that is gone: the words stay")
	_, err = sheet.Read([]byte(`{"version":9}`), movement.Shipped)
	assert.Error(t, err)
	assert.NotContains(t, string(must(json.Marshal(d))), "facts")
}

func must(b []byte, err error) []byte {
	if err != nil {
		panic(err)
	}
	return b
}

func ExampleChanges() {
	before, after := session(), session()
	after.Slots[0].Add(1)
	was, is := sheet.Of(&before, floor()), sheet.Of(&after, floor())
	for _, line := range sheet.Changes(&was, &is, floor()) {
		fmt.Println(line)
	}
	// Output: Standing curl, two dumbbells, palms up: sets 4 × 8–12, before 3 × 8–12.
}
