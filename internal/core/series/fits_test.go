package series_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/series"
)

func loft(kg ...float64) *person.Room {
	return &person.Room{Name: "The Loft", Things: []person.Thing{person.Pairs(kg...)}}
}

func TestTooHeavyFitsTooLight(t *testing.T) {
	s := movement.Shipped.Get("curl_standing_dumbbells").Default()
	for name, c := range map[string]struct {
		room *person.Room
		e1rm float64
		want series.Fit
		at   float64
	}{
		"no series":            {loft(4, 8), 0, series.NotKnown, 0},
		"no loads":             {loft(), 20, series.NotKnown, 0},
		"only heavy ones":      {loft(20, 30), 20, series.TooHeavy, 0},
		"only light ones":      {loft(2, 4), 40, series.TooLight, 0},
		"one in the band":      {loft(2, 14, 30), 20, series.Fits, 14},
		"the heaviest of many": {loft(10, 12, 13, 14, 15, 16, 17, 18), 20, series.Fits, 15},
		"a gap":                {loft(8, 20), 20, series.Fits, 8},
	} {
		got := series.DoesFit(s, c.room, 75, c.e1rm, 0, 8, 10, 1)
		assert.Equal(t, c.want, got.Fit, "%s: %s", name, got.Words)
		assert.Equal(t, c.at, got.Whole, name)
		assert.Equal(t, c.want == series.TooHeavy || c.want == series.TooLight, len(got.Instead) == 3, name)
	}
}

// A stronger client never finds the same loads heavier.
func TestFitsGrowWithStrength(t *testing.T) {
	s := movement.Shipped.Get("curl_standing_dumbbells").Default()
	order := map[series.Fit]int{series.TooHeavy: 0, series.Fits: 1, series.TooLight: 2}
	r := rand.New(rand.NewPCG(1, 9))
	for range 300 {
		room := loft(1+r.Float64()*10, 12+r.Float64()*10)
		e := 5 + r.Float64()*40
		a := series.DoesFit(s, room, 75, e, 4, 6, 10, 2)
		b := series.DoesFit(s, room, 75, e*1.1, 4, 6, 10, 2)
		assert.GreaterOrEqual(t, order[b.Fit], order[a.Fit])
		assert.GreaterOrEqual(t, b.Whole+100*float64(order[b.Fit]), a.Whole)
	}
}
