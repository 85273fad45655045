package week_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

// What a joint's load is told to be made of is the load.
func TestJointTermsAreTheLedgersLoad(t *testing.T) {
	tr := aimed(t)
	w := planned(map[int][]plan.Slot{0: {slot("curl_reclined", 3, 1), slot("press_bench_close", 3, 2)}, 2: {slot("pushdown_bar", 4, 2)}})
	l := w.Count(tr)
	for _, j := range movement.Joints {
		sum := 0.0
		for _, term := range w.JointTerms(j) {
			sum += term.Value
		}
		assert.InDelta(t, l.Joints.Of(j), sum, 1e-9, j)
	}
}

func TestRoundedMinutesAddUp(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	for range 500 {
		parts := make([]float64, 1+r.IntN(6))
		sum, given := 0.0, 0
		for i := range parts {
			parts[i] = 90 * r.Float64()
			sum += parts[i]
		}
		for i, n := range week.Apportion(parts) {
			assert.Less(t, math.Abs(float64(n)-parts[i]), 1.0)
			given += n
		}
		assert.Equal(t, int(math.Round(sum)), given)
	}
	spent := week.Spent{General: 300, Ramp: 144, Sets: 690, Rests: 1200, Ways: 150}
	assert.Equal(t, "41 min: 5 general warm-up, 2 ramp, 12 in sets, 20 rests, 2 on the way and setting up", spent.Words())
	assert.Empty(t, (&week.Spent{}).Words())
}
