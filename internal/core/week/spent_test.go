package week_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/week"
)

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
