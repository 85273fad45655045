package person_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// What decides how a set-up is put together is told for every movement, in cm and from
// the floor; at the bar's mark where the bar has one.
func TestHowASetUpIsPutTogether(t *testing.T) {
	bar := person.BarOf(movement.BarStraight, 10, 10, 20)
	bar.Width = 0.30
	r := person.Room{Name: "Loft", Things: []person.Thing{bar, person.Columns(1, 2, 5, 10)}}
	says := func(id string, turned movement.Settings) string {
		return strings.Join(r.SetUpWords(setUp(t, id, turned), arm.DefaultBody), "; ")
	}
	assert.Equal(t, "bench at 45°", says("curl_reclined", nil))
	assert.Equal(
		t,
		"pulley 41 cm above the floor; 80 cm from it, your back to it; rope; leaning forward 15°",
		says("overhead_cable_low", nil),
	)
	assert.Equal(
		t,
		"pulley 192 cm above the floor; 70 cm from it, facing it; straight bar; leaning forward 10°",
		says("pushdown_bar", nil),
	)
	assert.Equal(t, "pad at 40°; hands 40 cm apart, a thumb outside the smooth part, 30 cm", says("curl_pad_bar", nil))
	assert.Equal(
		t,
		"bench flat; hands 48 cm apart, 9 cm outside the smooth part on each side; pins 30 cm above the chest; elbows 45° from the ribs",
		says("press_pin_top", nil),
	)
	assert.Equal(t, "trunk leaning 10°; down to level upper arms", says("dip_bars", nil))
	assert.Equal(t, "bench 15° head down; hands 48 cm apart, 9 cm outside the smooth part on each side; elbows 45° from the ribs",
		says("press_decline", nil))
	for _, m := range movement.Shipped.Movements {
		for _, w := range r.SetUpWords(m.Default(), arm.DefaultBody) {
			assert.NotContains(t, w, "_", m.ID)
			assert.NotContains(t, w, "NaN", m.ID)
			assert.NotEmpty(t, w, m.ID)
		}
	}
}
