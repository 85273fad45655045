package week_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/week"
)

func TestCuesAreChosenInOrder(t *testing.T) {
	tr := trainee(t)
	s := movement.Shipped.Get("curl_standing_bar").Default()
	plain := week.CuesFor(s, tr, nil)
	require.Len(t, plain, 3)
	assert.Equal(t, "Elbows stay under the shoulders", plain[0].Fault.Cue)
	for _, c := range plain {
		assert.NotEmpty(t, c.Why)
		assert.LessOrEqual(t, len([]rune(c.Fault.Cue)), 60)
	}
	seen := week.CuesFor(s, tr, []string{"g_uneven"})
	assert.Equal(t, "Let the slower hand set the pace", seen[0].Fault.Cue)
	tr.Fence = &person.Fence{Scores: person.Scores{person.Right: {movement.Wrist: 2}}}
	sore := week.CuesFor(s, tr, []string{"g_uneven"})
	assert.Contains(t, sore[0].Why, "spares the wrist")
	assert.Equal(t, "Let the slower hand set the pace", sore[1].Fault.Cue)
	tr.Caps = person.CapsOf([]person.CapID{person.BloodPressure})
	assert.Equal(t, "Blow out slowly as the weight goes up", week.CuesFor(s, tr, nil)[0].Fault.Cue)
	for _, m := range movement.Shipped.Movements { // every movement has something to say, and nothing twice
		cues := week.CuesFor(m.Default(), tr, nil)
		assert.NotEmpty(t, cues, m.ID)
		said := map[string]bool{}
		for _, c := range cues {
			assert.False(t, said[c.Fault.Cue], m.ID)
			said[c.Fault.Cue] = true
		}
	}
}
