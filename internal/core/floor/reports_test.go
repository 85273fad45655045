package floor

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
)

// Forty reports: what is asked first, what is tried first, and what becomes of the set-up when
// it hurts again; written down from the rules before the ladder was asked.
func TestFortyReports(t *testing.T) {
	const (
		wrist, front, back  = movement.Wrist, movement.ElbowFront, movement.ElbowBack
		shoulder, top, none = movement.ShoulderFront, movement.ShoulderTop, movement.Joint("")
	)
	rooms := map[string][]person.Thing{"all": ample(), "pairs": {dumbbells()}, "one": {person.Singles(10)}}
	for i, c := range []struct {
		id         string
		joint      movement.Joint
		score, now int
		room       string
		flags      bool
		first      Kind
		after      After
	}{
		// it is loaded little or well: lighter first
		{"curl_standing_bar", wrist, 4, 2, "all", true, Lighter, Out},
		{"curl_standing_bar", wrist, 3, 3, "all", false, Lighter, Out},
		{"curl_standing_dumbbells", wrist, 5, 3, "all", true, Lighter, Away},
		{"curl_standing_dumbbells", front, 5, 2, "all", true, Lighter, Away},
		{"curl_standing_dumbbells", back, 4, 1, "all", true, Lighter, Stays},
		{"curl_standing_dumbbells", top, 4, 1, "all", true, Lighter, Stays},
		{"curl_neutral", wrist, 6, 3, "all", true, Lighter, Out},
		{"curl_neutral", front, 4, 2, "all", true, Lighter, Away},
		{"curl_reclined", front, 4, 2, "all", true, Lighter, Out},
		{"kickback_cable", back, 4, 2, "all", true, Lighter, Away},
		{"kickback_cable", top, 4, 2, "all", true, Lighter, Stays},
		{"lying_bar", wrist, 4, 2, "all", true, Lighter, Out},
		{"lying_bar", top, 4, 3, "all", true, Lighter, Away},
		{"press_bench_close", shoulder, 4, 2, "all", true, Lighter, Out},
		{"press_bench_close", wrist, 6, 3, "all", true, Lighter, Out},
		{"press_bench_close", back, 5, 3, "all", true, Lighter, Out},
		{"overhead_two_dumbbells", top, 4, 2, "all", true, Lighter, Out},
		{"overhead_two_dumbbells", wrist, 4, 2, "all", true, Lighter, Away},
		{"curl_standing_dumbbells", wrist, 4, 2, "pairs", true, Lighter, Away},
		{"curl_neutral", wrist, 4, 2, "pairs", true, Lighter, Out},
		// among the hardest on the joint: never the same again
		{"curl_reclined", shoulder, 5, 3, "all", true, ByCable, Out},
		{"curl_reclined", shoulder, 5, 1, "all", true, ByCable, Out},
		{"curl_pad_bar", front, 4, 2, "all", true, ByCable, Out},
		{"overhead_two_dumbbells", back, 4, 2, "all", true, ByCable, Out},
		{"lying_bar", back, 4, 2, "all", true, ByCable, Out},
		{"lying_dumbbells", back, 6, 3, "all", true, ByCable, Out},
		{"dip_bars", shoulder, 4, 2, "all", true, ByCable, Out},
		{"curl_reclined", shoulder, 5, 2, "pairs", true, Kinder, Out},
		{"overhead_two_dumbbells", back, 5, 2, "pairs", true, Kinder, Out},
		{"lying_dumbbells", back, 5, 2, "pairs", true, Kinder, Out},
		{"overhead_one_dumbbell_two_hands", back, 5, 2, "one", true, Kinder, Out},
		// nothing lighter there: the body, or one weight
		{"dip_bars", back, 4, 2, "all", true, ByCable, Out},
		{"pushup_close", wrist, 4, 2, "all", true, ByCable, Out},
		{"pushup_close", back, 4, 2, "all", true, ByCable, Away},
		{"pushup_close", wrist, 4, 2, "pairs", true, Kinder, Out},
		{"curl_upright_two_hand", front, 4, 2, "one", true, ShortRange, Away},
		// nowhere known: no ladder
		{"curl_standing_dumbbells", none, 2, 1, "all", true, "", Stays},
		{"curl_standing_dumbbells", none, 7, 1, "all", true, "", Stays},
		{"lying_bar", none, 3, 0, "all", true, "", Stays},
		{"pushup_close", none, 4, 3, "one", true, "", Stays},
	} {
		tr := trainee(t, rooms[c.room]...)
		r := &Report{Side: person.Right, Joint: c.joint, Score: c.score, First: -1}
		name := fmt.Sprintf("%d: %s, %s %d, now %d, room %s", i, c.id, c.joint, c.score, c.now, c.room)
		s := movement.Shipped.Get(c.id).Default()
		assert.Equal(t, c.flags, r.FlagsFirst(), name)
		offers := Ladder(tr, movement.Shipped, s, r, c.now)
		first := Kind("")
		if len(offers) > 0 {
			first = offers[0].Kind
		}
		assert.Equal(t, c.first, first, "%s: %+v", name, offers)
		slot := plan.Of(s, dose.Dose{Sets: 3})
		if c.joint != none {
			assert.Equal(t, c.after, AfterPain(&slot, c.joint), name)
		}
	}
}
