package movement_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// A set-up held in another hand differs in the forearm's rotation and nothing else;
// the one it came from stays as it was, and both have keys of their own.
func TestASetUpInAnotherHand(t *testing.T) {
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	for _, m := range movement.Shipped.Movements {
		if !m.Computed() {
			continue
		}
		s := m.Default()
		before := s.Effort()
		for _, phi := range []float64{80, 0, -60} {
			held := s.InHand(phi)
			e := held.Effort()
			assert.Equal(t, [2]float64{phi, phi}, [2]float64{e.From.ForearmRotation, e.To.ForearmRotation}, m.ID)
			e.From.ForearmRotation, e.To.ForearmRotation = before.From.ForearmRotation, before.To.ForearmRotation
			assert.Equal(t, before, e, m.ID)
			assert.NotEqual(t, s.Key(), held.Key(), m.ID)
			assert.Equal(t, s.Turned(), held.Turned(), m.ID)
		}
		assert.Equal(t, before, s.Effort(), "%s is as it was", m.ID)
		assert.Equal(t, m.ID, s.Key())
	}
	// Neutral, the brachioradialis has more of it than palms up; the biceps less.
	curl := movement.Shipped.Get("curl_standing_dumbbells").Default()
	up, err := curl.InHand(80).Profile(y)
	require.NoError(t, err)
	neutral, err := curl.InHand(0).Profile(y)
	require.NoError(t, err)
	assert.Greater(t, neutral.Heads[arm.Brachioradialis].Plain, up.Heads[arm.Brachioradialis].Plain)
	assert.Less(t, neutral.Heads[arm.BicepsShort].Plain, up.Heads[arm.BicepsShort].Plain)
}

// A key is made once and says the same as one made anew, whatever way the set-up
// came about.
func TestKeysAreTheSameByEveryWay(t *testing.T) {
	m := movement.Shipped.Get("curl_reclined")
	all := map[movement.Key]movement.Value{movement.Bench: movement.Num(60), movement.Hands: movement.Word(movement.Alternate)}
	whole, err := m.SetUp(all)
	require.NoError(t, err)
	step := m.Default()
	for _, k := range []movement.Key{movement.Hands, movement.Bench} {
		step, err = step.With(k, all[k])
		require.NoError(t, err)
	}
	assert.Equal(t, whole.Key(), step.Key())
	assert.Equal(t, "curl_reclined?hands=alternate&bench=60", whole.Key())
	back, err := step.With(movement.Bench, movement.Num(45))
	require.NoError(t, err)
	back, err = back.With(movement.Hands, movement.Word(movement.BothArms))
	require.NoError(t, err)
	assert.Equal(t, m.Default().Key(), back.Key(), "turned back to its defaults it is the default")
	bad, err := m.Default().With(movement.Bench, movement.Num(200))
	assert.Error(t, err)
	assert.Equal(t, "curl_reclined", bad.Key())
}
