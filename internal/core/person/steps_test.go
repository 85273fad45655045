package person_test

import (
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/person"
)

func TestLoadStepsAsPeopleWriteThem(t *testing.T) {
	for text, want := range map[string][]float64{
		"2–20 by 2, 25, 30":   {2, 4, 6, 8, 10, 12, 14, 16, 18, 20, 25, 30},
		"2-6 by 2,25,30":      {2, 4, 6, 25, 30},
		"10 kg":               {10},
		"1,25; 2,5":           {1.25, 2.5},
		"5 to 7.5 by 1.25 kg": {5, 6.25, 7.5},
		"8, 8, 4":             {4, 8},
		"":                    nil,
		"12.5\n10":            {10, 12.5},
		"2–5 by 2":            {2, 4},
	} {
		got, err := person.ParseSteps(text)
		require.NoError(t, err, text)
		assert.Equal(t, want, got, text)
	}
	for _, text := range []string{"heavy", "2–20", "20–2 by 2", "0", "-4", "2–400 by 0.01", "4 by 2", "1e9", "NaN",
		"2–20 by nothing", "2–20 by 2 by 3"} {
		_, err := person.ParseSteps(text)
		assert.Error(t, err, text)
	}
}

// Whatever steps there are, what is written of them reads back.
func TestStepsReadBack(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	for range 300 {
		var steps []float64
		for range 1 + r.IntN(20) {
			steps = append(steps, float64(1+r.IntN(200))/4)
		}
		slices.Sort(steps)
		steps = slices.Compact(steps)
		back, err := person.ParseSteps(person.StepWords(steps))
		require.NoError(t, err, person.StepWords(steps))
		assert.Equal(t, steps, back, person.StepWords(steps))
	}
	assert.Equal(t, "2–20 by 2, 25, 30", person.StepWords([]float64{2, 4, 6, 8, 10, 12, 14, 16, 18, 20, 25, 30}))
	assert.Equal(t, [][2]float64{{20, 25}, {25, 30}}, person.Gaps([]float64{12, 14, 16, 18, 20, 25, 30}))
	assert.Empty(t, person.Gaps([]float64{5, 10, 15, 20}), "a stack’s first steps are no gap")
	assert.Empty(t, person.Gaps(nil))
}
