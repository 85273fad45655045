package series_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/series"
	"musculus/internal/core/stance"
)

func TestCleanRepsSayWhetherTheWeightSuits(t *testing.T) {
	curl := movement.Shipped.Get("curl_standing_dumbbells").Default()
	for _, c := range []struct {
		reps int
		caps person.Caps
		fit  series.Fit
		says string
	}{
		{0, person.Caps{}, series.TooHeavy, "0 clean reps"},
		{7, person.Caps{}, series.TooHeavy, "the same weight suits"},
		{8, person.Caps{}, series.Fits, "90–120 s rest"},
		{12, person.Caps{MinRestS: 120}, series.Fits, "120 s rest"},
		{13, person.Caps{}, series.TooLight, "to the limit, 45–60 s rest"},
		{20, person.CapsOf([]person.CapID{person.BloodPressure}), series.TooLight, "with 2 left, as the caps ask, 90 s rest"},
	} {
		fit, words := series.CleanFit(c.reps, curl, &c.caps)
		assert.Equal(t, c.fit, fit, c.reps)
		assert.Contains(t, words, c.says)
	}
	_, words := series.CleanFit(15, movement.Shipped.Get("lying_bar").Default(), nil)
	assert.NotContains(t, words, "to the limit", "a bar over the face")
}

func TestOneWeightSuitsALongerOrAShorterLever(t *testing.T) {
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	st := stance.ByID(stance.Default)
	shape := func(id string) *fitting.Shape {
		s, ok := fitting.ShapeOf(movement.Shipped.Get(id).Default(), y, st)
		require.True(t, ok)
		return &s
	}
	one, both := shape("kickback_dumbbell"), shape("overhead_one_dumbbell_two_hands")
	assert.True(t, series.SuitsWeight(series.TooHeavy, one, both, person.Rigging{}), "two hands share one weight")
	assert.False(t, series.SuitsWeight(series.TooLight, one, both, person.Rigging{}))
	assert.True(t, series.SuitsWeight(series.TooLight, both, one, person.Rigging{}))
	assert.False(t, series.SuitsWeight(series.TooHeavy, one, shape("lying_bar"), person.Rigging{}), "another thing")
}
