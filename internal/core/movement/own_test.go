package movement_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/datafile"
	"musculus/internal/core/movement"
)

// Every movement, written as one of a studio's own with something turned, reads
// back and does what the set-up did.
func TestAStudiosOwnMovementDoesWhatTheSetUpDid(t *testing.T) {
	y := yardstick(t)
	for _, m := range movement.Shipped.Movements {
		s := m.Default()
		for i := range m.Settings {
			steps := m.Settings[i].Steps()
			if len(steps) < 2 || m.Settings[i].Key == movement.GripWidth && m.Computed() {
				continue
			}
			if next, err := s.With(m.Settings[i].Key, movement.Num(steps[len(steps)/2])); err == nil {
				if _, err := next.Profile(y); err == nil || !m.Computed() {
					s = next
				}
			}
		}
		text, err := movement.OwnText(s, "own_x", "Ours")
		require.NoError(t, err)
		own := movement.Own{ID: "own_x", Text: text}
		got, faults := movement.Shipped.CheckOwn(own)
		require.NoError(t, datafile.Join(faults), "%s\n%s", m.ID, text)
		assert.Equal(t, s.Effort(), got.Default().Effort(), m.ID)
		if !m.Computed() {
			was, _ := s.Credits()
			is, _ := got.Default().Credits()
			assert.Equal(t, was, is, m.ID)
		}
	}
}

func TestOnlyTheBrokenEntryIsRefused(t *testing.T) {
	good, err := movement.OwnText(movement.Shipped.Get("curl_reclined").Default(), "own_good", "Ours")
	require.NoError(t, err)
	c, faults := movement.Shipped.With([]movement.Own{
		{ID: "own_broken", Text: "- id: own_broken\n  name: Broken\n  acton: flexion\n  family: curl_behind\n  load: rubber\n"},
		{ID: "own_syntax", Text: "- id: own_syntax\n  name: ["},
		{ID: "curl_reclined", Text: good},
		{ID: "own_two", Text: good + good},
		{
			ID: "own_floor",
			Text: "- {id: own_floor, name: Under, action: flexion, family: curl_upright, position: seated, implements: [handle], " +
				"from: {elbow_flexion: 10}, to: {elbow_flexion: 90}, load: cable, pulley: [0.5, -3, 0]}",
		},
		{ID: "own_good", Text: good},
		{ID: "own_old", Text: strings.Replace(good, "own_good", "own_old", 1), Retired: true},
	})
	require.NotNil(t, c.Get("own_good"))
	assert.NotNil(t, c.Get("own_old"), "what was planned with it still reads")
	assert.Len(t, c.Movements, len(movement.Shipped.Movements)+1, "a retired one is not offered")
	assert.Nil(t, movement.Shipped.Get("own_good"), "another studio's catalogue is not touched")
	err = datafile.Join(faults)
	for _, want := range []string{"own_broken:3: entry 1 (own_broken): acton: there is no such field",
		"own_broken:5: entry 1 (own_broken): load: \"rubber\" is none of", "own_syntax:2: ",
		"curl_reclined:1: entry 1 (own_good): id: must be", "own_two:1: must be one entry",
		"own_floor:1: entry 1 (own_floor): from: the pulley would be below the floor"} {
		assert.ErrorContains(t, err, want)
	}
}

func TestOwnIDs(t *testing.T) {
	assert.Equal(t, "own_rail_curl_2", movement.OwnID(" Rail  curl (2)"))
	assert.Equal(t, "own", movement.OwnID("—")) // refused later: it does not begin with the prefix
}
