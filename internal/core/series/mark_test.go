package series_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/series"
)

func TestALoadIsToldWithoutItsNumber(t *testing.T) {
	steps := []float64{4, 6, 8, 10}
	for want, c := range map[string]struct {
		last, now float64
		when      string
	}{
		"your coach sets the weight": {0, 8, ""},
		"the same as Tuesday":        {8, 8, "Tuesday"},
		"one step up from Tuesday":   {8, 10, "Tuesday"},
		"one step down from Tuesday": {8, 6, "Tuesday"},
		"3 steps up from Tuesday":    {4, 10, "Tuesday"},
	} {
		got := series.Mark(steps, c.last, c.now, c.when)
		assert.Equal(t, want, got)
		assert.NotContains(t, got, "kg")
	}
}
