package person_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// A room of version 1 is read with everything it had, and is written in today's
// version from then on.
func TestARoomOfVersionOneIsRead(t *testing.T) {
	const old = `{"name": "The Loft", "dumbbells": [{"kg": 12, "count": 2}, {"kg": 10, "count": 2}, {"kg": 30, "count": 1}],
		"bars": [{"kind": "bar_straight", "own_kg": 10, "loads_kg": [10, 12.5]}],
		"cable": {"columns": 2, "stack_kg": [5, 10], "ratio": 2, "attachments": ["rope"], "low_m": 0.1, "high_m": 2.2},
		"bench": {"min_deg": 0, "max_deg": 85}, "pads": true, "pins": true, "dip_bars": true, "dip_loads_kg": [5, 10], "others": ["lever"]}`
	var r person.Room
	require.NoError(t, json.Unmarshal([]byte(old), &r))
	assert.Empty(t, r.Check())
	assert.Equal(t, []float64{10, 12}, r.Steps(setUp(t, "curl_standing_dumbbells", nil)))
	assert.Equal(t, []float64{10, 12, 30}, r.Steps(setUp(t, "curl_upright_two_hand", nil)))
	assert.Equal(t, []float64{10, 12.5}, r.Steps(setUp(t, "curl_standing_bar", nil)))
	assert.Equal(t, []float64{5, 10}, r.Steps(setUp(t, "pushdown_rope", nil)))
	assert.Equal(t, []float64{0, 5, 10}, r.Steps(setUp(t, "dip_bars", nil)))
	assert.Equal(t, 2.0, r.Rigging(75).PulleyRatio)
	assert.Empty(t, r.Missing(setUp(t, "pushdown_rope", nil)))
	assert.NotEmpty(t, r.Missing(setUp(t, "pushdown_bar", nil)), "there is no bar for the cable")
	assert.True(t, r.Has("lever", 1))
	assert.True(t, r.Pads && r.Pins && r.Bench.Max == 85)

	b, err := json.Marshal(r)
	require.NoError(t, err)
	assert.Contains(t, string(b), `"version":2`)
	var again person.Room
	require.NoError(t, json.Unmarshal(b, &again))
	assert.Equal(t, r, again)
}

// What is marked in pounds is computed in kg and keeps its mark; where a step in kg is
// within 2 % of it the two are one.
func TestMarksInPounds(t *testing.T) {
	lb := person.Thing{ID: "lb", Kind: movement.Dumbbell, Unit: person.Pound, Count: 2, Loads: []float64{20, 22, 40}}
	r := person.Room{Name: "Both", Things: []person.Thing{person.Pairs(10, 20), lb}}
	assert.Empty(t, r.Check())
	marks := r.Marks(setUp(t, "curl_standing_dumbbells", nil))
	require.Len(t, marks, 4, "22 lb is 9.98 kg, a step with the 10 kg")
	assert.InDelta(t, 9.0718474, marks[0].Kg, 1e-9)
	assert.Equal(t, person.Mark{Kg: marks[0].Kg, Mark: 20, Unit: person.Pound, Thing: "lb"}, marks[0])
	assert.Equal(t, []float64{10, 20}, []float64{marks[1].Kg, marks[3].Kg})
	assert.Equal(t, "dumbbells 20, 22, 40 lb", lb.Words())
}

func TestWhatIsWrongWithAThingIsNamed(t *testing.T) {
	r := person.Room{Name: "X", Things: []person.Thing{
		{ID: "a", Kind: "anvil"}, {ID: "a", Kind: movement.Dumbbell, Loads: []float64{10, 10}},
		{ID: "c", Kind: person.Cable, Count: 1, Ratio: 9, Loads: []float64{5}, Unit: "stone"},
	}}
	var fields []string
	for _, f := range r.Check() {
		fields = append(fields, f.Field)
	}
	assert.Equal(t, []string{"things[0].kind", "things[1].id", "things[1].loads", "things[2].unit", "things[2].ratio"}, fields)
}

// Loads are told as they are marked, and never as 18.14 kg; the client's unit goes first.
func TestLoadsAreToldAsMarked(t *testing.T) {
	lb := person.Thing{ID: "lb", Kind: movement.Dumbbell, Unit: person.Pound, Count: 2, Loads: []float64{20, 22, 40}}
	curl := setUp(t, "curl_standing_dumbbells", nil)
	gym := person.Room{Name: "Pounds", Things: []person.Thing{lb}}
	steps := gym.Steps(curl)
	assert.Equal(t, "40 lb a hand", gym.Words(steps[2], curl))
	assert.Equal(t, "33.1 lb a hand", gym.Words(15, curl), "what is only reckoned is told in the thing's unit too")
	assert.Equal(t, person.Pound, gym.UnitOf(curl))
	mark, unit := gym.MarkOf(curl, steps[2])
	assert.Equal(t, 40.0, mark)
	assert.Equal(t, person.Pound, unit)
	both := person.Room{Name: "Both", Things: []person.Thing{person.Pairs(10, 20), lb}, Prefer: person.Pound}
	assert.Len(t, both.Marks(curl), 4, "22 lb and 10 kg are one step, hers is the one in pounds")
	assert.Equal(t, "22 lb a hand", both.Words(both.Steps(curl)[1], curl))
	assert.Equal(t, "20 kg a hand", both.Words(20, curl))
	assert.Equal(t, person.Kilogram, both.UnitOf(curl))
}

// Assistance is a load below the body's weight: a stack's marks, or a band's low figure.
func TestAssistance(t *testing.T) {
	r := person.Room{Name: "Help", Things: []person.Thing{
		{ID: "stack", Kind: movement.DipMachine, Loads: []float64{10, 20, 40}},
		{ID: "thin", Kind: movement.Band, Low: 8, High: 20}, {ID: "thick", Kind: movement.Band, Low: 20, High: 45},
	}}
	assert.Empty(t, r.Check())
	assert.Equal(t, []float64{-40, -20, -10, 0}, r.Steps(setUp(t, "dip_assisted", nil)))
	band := setUp(t, "pullup_assisted", movement.Settings{movement.Implement: movement.Word("band")})
	assert.Equal(t, []float64{-20, -8, 0}, r.Steps(band))
	assert.Equal(t, "body weight − 20 kg", r.Words(-20, band))
	assert.Empty(t, r.Missing(band))
	r.Things[1].High = 3
	assert.NotEmpty(t, r.Check())
}

// One weight is a way to train: what needs a pair is tried with one arm, one in two hands.
func TestOneWeightIsAWayToTrain(t *testing.T) {
	digs := person.Room{Name: "Digs", Things: []person.Thing{person.Singles(14)}}
	way, ok := digs.Way(setUp(t, "curl_neutral", nil))
	require.True(t, ok)
	assert.Equal(t, "curl_neutral?hands=one", way.Key())
	assert.Equal(t, "with one arm, dumbbell", way.HeldWords())
	way, ok = digs.Way(setUp(t, "floor_dumbbells", nil))
	require.True(t, ok)
	assert.Equal(t, movement.OneArm, way.Hands())
	_, ok = digs.Way(setUp(t, "curl_standing_bar", nil))
	assert.False(t, ok, "a bar is no dumbbell")
	usual, ok := digs.Way(setUp(t, "curl_upright_two_hand", nil))
	require.True(t, ok)
	assert.Equal(t, "curl_upright_two_hand", usual.Key(), "as it is, where it can be")
}

func TestAThickGripAsksForThickHandles(t *testing.T) {
	thick, err := movement.Shipped.Get("curl_standing_dumbbells").Default().With(movement.ThickHandle, movement.Word("yes"))
	require.NoError(t, err)
	room := &person.Room{Name: "Loft", Things: []person.Thing{person.Pairs(8, 10, 12)}}
	assert.Equal(t, []string{"thick handles"}, room.Missing(thick))
	room.Things = append(room.Things, person.There(person.Thick))
	assert.Empty(t, room.Missing(thick))
	assert.Empty(t, room.Check())
}
