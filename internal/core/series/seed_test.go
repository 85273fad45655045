package series_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/series"
	"musculus/internal/core/stance"
)

func TestLoadsAreSeededInOrder(t *testing.T) {
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	room := loft(2, 4, 6, 8, 10, 12, 14, 16, 18, 20)
	ask := func(id string) *series.Ask {
		return &series.Ask{
			SetUp:     movement.Shipped.Get(id).Default(),
			Room:      room,
			Yardstick: y,
			Stance:    stance.ByID("leverage"),
			Low:       8,
			High:      10,
			Reserve:   2,
			Today:     1000,
		}
	}
	at := func(id string, points ...series.Point) series.Known {
		return series.Known{SetUp: movement.Shipped.Get(id).Default(), Points: points}
	}
	plain := at("curl_standing_dumbbells", series.Point{On: 990, E1RM: 20}, series.Point{On: 989, E1RM: 20})
	none := series.Propose(ask("curl_neutral"), nil)
	assert.Equal(t, series.FindIt, none.Source)
	assert.Zero(t, none.PerHand, "no kg is invented")

	own := series.Propose(ask("curl_standing_dumbbells"), []series.Known{plain})
	assert.Equal(t, series.FromOwn, own.Source)
	assert.False(t, own.Guess)
	want, _ := series.LoadFor(20, 9, 2)
	assert.LessOrEqual(t, own.PerHand, want)
	assert.Greater(t, own.PerHand, want-2, "the next real step below")

	neutral := series.Propose(ask("curl_neutral"), []series.Known{plain})
	assert.Equal(t, series.FromModel, neutral.Source)
	assert.True(t, neutral.Guess)
	assert.Contains(t, neutral.Words, "0.80 (neutral)")
	assert.Contains(t, neutral.Words, "first set with 3 left")
	down := series.Propose(ask("curl_palms_down_dumbbells"), []series.Known{plain})
	assert.Contains(t, down.Words, "0.50 (palms down)")
	assert.Less(t, down.PerHand, neutral.PerHand)
	assert.Equal(
		t,
		series.FindIt,
		series.Propose(ask("lying_dumbbells"), []series.Known{plain}).Source,
		"a curl says nothing of an extension",
	)

	room = loft(18, 20)
	heavy := series.Propose(ask("curl_palms_down_dumbbells"), []series.Known{plain})
	assert.Equal(t, series.FindIt, heavy.Source)
	assert.Contains(t, heavy.Words, "too heavy here")
	old := at("curl_standing_dumbbells", series.Point{On: 900, E1RM: 20})
	room = loft(2, 4, 6, 8, 10, 12, 14, 16)
	stale := series.Propose(ask("curl_standing_dumbbells"), []series.Known{old})
	assert.True(t, stale.Guess, "a series of three months ago is a guess")
	// Three months ago the neutral curl was 0.9 of the plain one, which has grown by a quarter since.
	grown := at("curl_standing_dumbbells", series.Point{On: 995, E1RM: 25}, series.Point{On: 905, E1RM: 20})
	grown.Points = append([]series.Point{{On: 996, E1RM: 25}, {On: 995, E1RM: 25}}, grown.Points[1:]...)
	ratio := series.Propose(ask("curl_neutral"), []series.Known{at("curl_neutral", series.Point{On: 900, E1RM: 18}), grown})
	assert.Equal(t, series.FromRatio, ratio.Source)
	assert.Contains(t, ratio.Words, "0.90 ×")
	assert.False(t, ratio.Guess)
}
