package series_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/series"
)

func defaults(ids ...string) (out []movement.SetUp) {
	for _, id := range ids {
		out = append(out, movement.Shipped.Get(id).Default())
	}
	return out
}

// The order is by the model only until every grip has a series; one that has none
// is never held against one that has.
func TestGripsAreHeldAgainstLike(t *testing.T) {
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	three := defaults("curl_standing_dumbbells", "curl_neutral", "curl_palms_down_dumbbells")
	some := series.OrderGrips(three, y, map[string]float64{"curl_palms_down_dumbbells": 500})
	assert.Equal(t, "curl_palms_down_dumbbells", some[0].SetUp.Movement.ID, "one series alone says nothing of the others")
	for _, g := range some {
		assert.False(t, g.FromLog)
		assert.Greater(t, g.Part, 0.0)
		assert.LessOrEqual(t, g.Part, 1.0)
	}
	all := series.OrderGrips(
		three,
		y,
		map[string]float64{"curl_palms_down_dumbbells": 30, "curl_neutral": 20, "curl_standing_dumbbells": 25},
	)
	assert.Equal(
		t,
		[]string{"curl_neutral", "curl_standing_dumbbells", "curl_palms_down_dumbbells"},
		[]string{all[0].SetUp.Movement.ID, all[1].SetUp.Movement.ID, all[2].SetUp.Movement.ID},
	)
	assert.InDelta(t, 20.0/30, all[0].Part, 1e-9)
	assert.Empty(t, series.OrderGrips(nil, y, nil))
	small, err := effort.NewYardstick(arm.Body{Stature: 1.1, BodyMass: 40})
	require.NoError(t, err)
	near, err := movement.Shipped.Get("curl_cable_facing_away").
		SetUp(map[movement.Key]movement.Value{movement.PulleyDistance: movement.Num(0.4)})
	require.NoError(t, err)
	assert.Empty(t, series.OrderGrips([]movement.SetUp{near}, small, nil), "what the body cannot do is left out")
}

// A plan goes from weak to strong, begins and ends with the ends, and never back.
func TestAPlanNeverGoesBack(t *testing.T) {
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	ordered := series.OrderGrips(defaults("curl_standing_dumbbells", "curl_neutral", "curl_palms_down_dumbbells", "curl_turning"), y, nil)
	rank := map[string]int{}
	for i, g := range ordered {
		rank[g.SetUp.Key()] = i
	}
	for sets := 2; sets <= 12; sets++ {
		plan := series.PlanGrips(ordered, sets)
		require.Len(t, plan, sets)
		for n := 1; n < sets; n++ {
			assert.GreaterOrEqual(t, rank[plan[n].Key()], rank[plan[n-1].Key()])
		}
		assert.Equal(t, "curl_palms_down_dumbbells", plan[0].Movement.ID)
		assert.Equal(t, len(ordered)-1, rank[plan[sets-1].Key()])
	}
	assert.Nil(t, series.PlanGrips(ordered, 0))
	assert.Nil(t, series.PlanGrips(nil, 3))
}
