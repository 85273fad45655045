package series_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/series"
)

func TestE1RM(t *testing.T) {
	got, ok := series.E1RM(12, 8, 2)
	assert.True(t, ok)
	assert.InDelta(t, 12*((1+10.0/30)+36.0/27)/2, got, 1e-12)
	for _, c := range []struct {
		load          float64
		reps, reserve int
	}{{12, 11, 2}, {12, 0, 2}, {0, 8, 2}, {-3, 8, 2}, {12, 8, -1}, {math.NaN(), 8, 1}, {math.Inf(1), 8, 1}} {
		_, ok := series.E1RM(c.load, c.reps, c.reserve)
		assert.False(t, ok, "%+v", c)
	}
}

func TestLoadForInvertsE1RM(t *testing.T) {
	for reps := 1; reps <= series.MostReps; reps++ {
		for reserve := 0; reps+reserve <= series.MostReps; reserve++ {
			e, ok := series.E1RM(20, reps, reserve)
			assert.True(t, ok)
			load, ok := series.LoadFor(e, reps, reserve)
			assert.True(t, ok)
			assert.InDelta(t, 20, load, 1e-12)
		}
	}
	light, _ := series.LoadFor(30, 10, 2)
	heavy, _ := series.LoadFor(30, 5, 2)
	assert.Less(t, light, heavy)
	_, ok := series.LoadFor(30, 12, 1)
	assert.False(t, ok)
}

func TestMedian(t *testing.T) {
	values := []float64{5, 1, 3}
	assert.Equal(t, 3.0, series.Median(values))
	assert.Equal(t, []float64{5, 1, 3}, values)
	assert.Equal(t, 2.0, series.Median([]float64{1, 3}))
	assert.Zero(t, series.Median(nil))
}

func ExampleE1RM() {
	e, _ := series.E1RM(12, 8, 2)
	fmt.Printf("%.1f kg\n", e)
	// Output: 16.0 kg
}

func TestAnEstimateSaysHowItCame(t *testing.T) {
	assert.Equal(t, "× 1.29 for 9 reps to the limit (7 done, 2 left), the mean of two published formulas", series.E1RMWords(7, 2))
	assert.Contains(t, series.E1RMWords(1, 0), "lifted once")
	assert.Empty(t, series.E1RMWords(20, 0), "no estimate, no reason")
	k := series.Known{Points: []series.Point{{On: 100, E1RM: 20}, {On: 99, E1RM: 22}, {On: 1, E1RM: 90}}}
	assert.Equal(t, k.Points[:2], k.Counted(101))
	assert.InDelta(t, 21, k.E1RM(101), 1e-9)
}
