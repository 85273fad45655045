package dose_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// Heavy and several-joint work is led up to in three steps, light one-joint work
// in one, the body's own weight in none; loads are those the room really has.
func TestTheRampLeadsUpToTheWorkingLoad(t *testing.T) {
	room := &person.Room{
		Name:   "Loft",
		Things: []person.Thing{person.BarOf(movement.BarStraight, 0, 20, 30, 40, 50), person.Pairs(4, 8)},
	}
	for _, c := range []struct {
		id             string
		low            int
		whole          float64
		words, inParts string
		seconds        float64
	}{
		{"press_bench_close", 5, 40, "bar 20 kg × 8, bar 20 kg × 4, bar 30 kg × 2",
			"50 % × 8, 70 % × 4, 85 % × 2 of the load that follows", 14*4 + 90},
		{"press_bench_close", 12, 50, "bar 20 kg × 8, bar 30 kg × 4, bar 40 kg × 2",
			"50 % × 8, 70 % × 4, 85 % × 2 of the load that follows", 14*4 + 90},
		{"curl_standing_dumbbells", 5, 8, "4 kg a hand × 8, 4 kg a hand × 4, 4 kg a hand × 2",
			"50 % × 8, 70 % × 4, 85 % × 2 of the load that follows", 14*4 + 90},
		{"curl_standing_dumbbells", 8, 8, "4 kg a hand × 8", "50 % × 8 of the load that follows", 8*4 + 30},
		{"curl_standing_dumbbells", 8, 4, "without weight × 8", "50 % × 8 of the load that follows", 8*4 + 30},
		{"curl_neutral_across", 8, 8, "4 kg a hand × 8", "50 % × 8 of the load that follows", 2*8*4 + 30},
		{"dip_bars", 5, 0, "", "", 0},
	} {
		set := movement.Shipped.Get(c.id).Default()
		rack := dose.RackOf(set, room, 75)
		d := dose.Dose{Sets: 3, RepsLow: c.low, RepsHigh: c.low + 3, Reserve: 2}
		assert.Equal(t, c.inParts, dose.RampWords(set, &d, rack, nil), "%s: no load yet, or kept from the client", c.id)
		hand := rack.Carry.PerHand(c.whole, rack.Rigging)
		assert.Equal(t, c.words, dose.RampWords(set, &d, rack, &hand), c.id)
		assert.InDelta(t, c.seconds, dose.RampSeconds(set, rack.Carry, &d), 1e-9, c.id)
	}
}
