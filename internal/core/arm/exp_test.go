package arm

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
)

// The quick exponential is the library's to two units in the last place.
func TestExpIsTheLibrarys(t *testing.T) {
	for x := -60.0; x <= 60; x += 0.00317 {
		want := math.Exp(x)
		if got := exp(x); math.Abs(got-want) > 2*(math.Nextafter(want, math.Inf(1))-want) {
			assert.Equal(t, want, got, x)
		}
	}
	assert.Equal(t, 1.0, exp(0))
}
