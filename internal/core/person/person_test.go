package person_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

func setUp(t *testing.T, id string, turned map[movement.Key]movement.Value) movement.SetUp {
	m := movement.Shipped.Get(id)
	require.NotNil(t, m, id)
	s, err := m.SetUp(turned)
	require.NoError(t, err)
	return s
}

func word(k movement.Key, w string) map[movement.Key]movement.Value {
	return map[movement.Key]movement.Value{k: movement.Word(w)}
}

var loft = person.Room{
	Things: []person.Thing{person.Pairs(10, 12), person.Singles(30), person.BarOf(movement.BarStraight, 0, 10, 12.5, 15),
		person.Columns(1, 2, 5, 10, 15), person.There(person.OnCable(movement.Rope))},
	Bench: &person.Bench{Min: 0, Max: 60},
}

func TestLoadsPerHandAndWhole(t *testing.T) {
	rig := person.Rigging{PulleyRatio: 2, BodyMass: 80}
	for _, c := range []struct {
		setUp          movement.SetUp
		whole, perHand float64
		words          string
	}{
		{setUp(t, "curl_standing_dumbbells", nil), 12, 12, "12 kg a hand"},
		{setUp(t, "curl_standing_dumbbells", word(movement.Hands, "one")), 12, 12, "dumbbell 12 kg"},
		{setUp(t, "curl_standing_bar", nil), 30, 15, "bar 30 kg"},
		{setUp(t, "curl_upright_two_hand", nil), 14, 7, "one dumbbell 14 kg"},
		{setUp(t, "curl_chest_supported", word(movement.Implement, "bar_cambered")), 22.5, 11.25, "bar 22.5 kg"},
		{setUp(t, "pushdown_rope", nil), 40, 10, "stack 40 kg"},
		{setUp(t, "kickback_cable", nil), 10, 5, "stack 10 kg"},
		{setUp(t, "curl_cable_facing_away", word(movement.Hands, "both")), 15, 7.5, "stack 15 kg"},
		{setUp(t, "dip_bars", nil), 7.5, (0.956*80 + 7.5) / 2, "body weight + 7.5 kg"},
		{setUp(t, "dip_bars", nil), 0, 0.956 * 80 / 2, "body weight"},
		{setUp(t, "dip_bars", nil), -20, (0.956*80 - 20) / 2, "body weight − 20 kg"},
	} {
		carry := person.CarryOf(c.setUp)
		assert.InDelta(t, c.perHand, carry.PerHand(c.whole, rig), 1e-9, c.words)
		assert.InDelta(t, c.whole, carry.Whole(carry.PerHand(c.whole, rig), rig), 1e-9, c.words)
		assert.Equal(t, c.words, carry.Words(c.whole, c.setUp))
	}
}

func TestWhatARoomLacks(t *testing.T) {
	for _, c := range []struct {
		setUp movement.SetUp
		lacks []string
	}{
		{setUp(t, "curl_standing_bar", nil), nil},
		{setUp(t, "curl_standing_bar", word(movement.Implement, "bar_cambered")), []string{"a cambered bar"}},
		{setUp(t, "curl_reclined", nil), nil},
		{setUp(t, "curl_reclined", map[movement.Key]movement.Value{movement.Bench: movement.Num(75)}), []string{"a bench at 75°"}},
		{setUp(t, "curl_pad_bar", nil), []string{"a pad at 40°"}},
		{setUp(t, "pushdown_rope", nil), nil},
		{setUp(t, "pushdown_bar", nil), []string{"the bar for the cable"}},
		{setUp(t, "curl_cable_facing_away", word(movement.Hands, "both")), []string{"two cable columns", "the handle for the cable"}},
		{setUp(t, "dip_bars", nil), []string{"dip bars"}},
	} {
		assert.Equal(t, c.lacks, loft.Missing(c.setUp), c.setUp.Name())
	}
	var bare person.Room
	assert.Equal(t, []string{"a pair of dumbbells", "a bench at 45°"}, bare.Missing(setUp(t, "curl_reclined", nil)))
	one := person.Room{Things: []person.Thing{person.Singles(14)}}
	assert.Empty(t, one.Missing(setUp(t, "curl_turning", word(movement.Hands, "one"))))
	assert.NotEmpty(t, one.Missing(setUp(t, "curl_turning", nil)))
}

func TestRealSteps(t *testing.T) {
	assert.Equal(t, []float64{10, 12}, loft.Steps(setUp(t, "curl_standing_dumbbells", nil)), "a single 30 is no pair")
	assert.Equal(t, []float64{10, 12, 30}, loft.Steps(setUp(t, "curl_upright_two_hand", nil)))
	down, ok := person.RoundDown([]float64{10, 12, 30}, 29.9)
	assert.True(t, ok)
	assert.Equal(t, 12.0, down)
	_, ok = person.RoundDown([]float64{10}, 9.9)
	assert.False(t, ok, "everything is too heavy")
	assert.True(t, person.IsStep([]float64{12.5}, 12.5))
	assert.False(t, person.IsStep([]float64{12.5}, 12.6))
}

func TestCapsTakeTheStrictestOfEachField(t *testing.T) {
	c := person.CapsOf([]person.CapID{person.BloodPressure, person.Cautious})
	assert.Equal(t, 3, c.MinReserve)
	assert.Equal(t, 90, c.MinRestS)
	assert.Zero(t, person.CapsOf(nil).MinReserve)
	for _, id := range c.From {
		assert.NotEmpty(t, id.Words())
	}
}

func TestFailingAlone(t *testing.T) {
	assert.True(t, loft.CanFailAlone(setUp(t, "curl_standing_bar", nil)))
	assert.False(t, loft.CanFailAlone(setUp(t, "overhead_two_dumbbells", nil)))
	assert.False(t, loft.CanFailAlone(setUp(t, "lying_bar", nil)))
	withPins := person.Room{Pins: true}
	assert.True(t, withPins.CanFailAlone(setUp(t, "lying_bar", nil)))
}

func ExampleRoom_Missing() {
	digs := person.Room{Things: []person.Thing{person.Singles(14)}}
	fmt.Println(digs.Missing(movement.Shipped.Get("curl_reclined").Default()))
	// Output: [a pair of dumbbells a bench at 45°]
}
