package stance

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// What the disputes say of mechanics is what the model computes: every figure that is
// told is computed here and found in its sentence.
func TestTheFiguresOfTheDisputesAreComputed(t *testing.T) {
	turn := func(k movement.Key, x float64) map[movement.Key]movement.Value {
		return map[movement.Key]movement.Value{k: movement.Num(x)}
	}
	of := func(id string, turned map[movement.Key]movement.Value) *effort.Profile {
		_, p := profiled(t, id, turned)
		return p
	}
	head := func(p *effort.Profile, id string) effort.HeadProfile {
		for h := range arm.Heads {
			if arm.Heads[h].ID == id {
				return p.Heads[h]
			}
		}
		t.Fatal(id)
		return effort.HeadProfile{}
	}
	const long, short, brachialis, triceps = "biceps_long", "biceps_short", "brachialis", "triceps_long"
	idle := func(p *effort.Profile) (degrees float64) {
		for _, s := range p.Idle {
			degrees += math.Abs(s[1] - s[0])
		}
		return degrees
	}
	lockOut := func(d float64) float64 {
		p := of("pushdown_bar", turn(movement.PulleyDistance, d))
		return p.Curve[effort.Samples-1]
	}
	reclined, pad, wide := of("curl_reclined", nil), of("curl_pad_bar", nil), of("curl_pad_bar", turn(movement.ElbowFrom, 20))
	neutral, down, turning := of("curl_neutral", nil), of("curl_palms_down_dumbbells", nil), of("curl_turning", nil)
	overhead := of("overhead_cable_low", nil)
	kicks := []*effort.Profile{
		of("kickback_cable", nil),
		of("kickback_dumbbell", nil),
		of("kickback_chest_supported", nil),
		of("kickback_swing_start", nil),
	}
	least, most := math.Inf(1), math.Inf(-1)
	squeeze := [2]float64{math.Inf(1), math.Inf(-1)}
	for _, k := range kicks {
		h := head(k, triceps)
		least, most = min(least, h.Mean), max(most, h.Mean)
		squeeze = [2]float64{min(squeeze[0], h.Squeeze), max(squeeze[1], h.Squeeze)}
		assert.InDelta(t, 0.8, h.Stretch, 0.07, "about 0.8")
		assert.LessOrEqual(t, h.Plain, 1.0, "by plain bias not favoured over the lateral head")
	}
	upright, tilted := of("lying_bar", turn(movement.Tilt, 0)), of("lying_bar", turn(movement.Tilt, 25))
	narrow, broad := of("curl_standing_bar", turn(movement.GripWidth, 0.6)), of("curl_standing_bar", turn(movement.GripWidth, 1.6))
	still, forward := of("curl_standing_bar", turn(movement.ShoulderTo, 10)), of("curl_standing_bar", turn(movement.ShoulderTo, 30))

	for lever, want := range map[string][]string{
		"upper arm behind, at the side, in front": {fmt.Sprintf("long %.2f → %.2f, short %.2f → %.2f",
			head(reclined, long).Stretch, head(pad, long).Stretch, head(reclined, short).Stretch, head(pad, short).Stretch)},
		"how much range": {fmt.Sprintf("biceps_long from %.2f to %.2f", head(pad, long).Stretch, head(wide, long).Stretch),
			fmt.Sprintf("brachialis from %.2f to %.2f", head(pad, brachialis).Stretch, head(wide, brachialis).Stretch),
			fmt.Sprintf("at %.0f %% less load", 100*(1-wide.Working/pad.Working))},
		"thumb-up, palms-down and turning curls": {fmt.Sprintf("plain bias about %.1f", head(neutral, long).Plain),
			fmt.Sprintf("between (%.2f)", (head(turning, long).Plain+head(turning, short).Plain)/2)},
		"long triceps head: overhead or behind": {fmt.Sprintf("Length about %.2f overhead against %.2f–%.2f",
			head(overhead, triceps).Mean, least, most),
			fmt.Sprintf("stretch bias %.2f", head(overhead, triceps).Stretch), fmt.Sprintf("squeeze bias %.2f against %.2f–%.2f",
				head(overhead, triceps).Squeeze, squeeze[0], squeeze[1])},
		"finish of a lying extension": {fmt.Sprintf("the last %.0f° are idle", idle(upright))},
		"push-down stance":            {fmt.Sprintf("%.2f at 0.7 m, %.2f at 0.3 m", lockOut(0.7), lockOut(0.3))},
		"bar width":                   {fmt.Sprintf("about %.2f in size", head(broad, short).Stretch-head(narrow, short).Stretch)},
	} {
		said := ""
		for _, d := range Shipped.Disputes {
			if d.Lever == lever {
				said = d.Mechanics
			}
		}
		for _, w := range want {
			assert.Contains(t, said, w, lever)
		}
	}
	assert.InDelta(t, head(neutral, long).Plain, head(neutral, short).Plain, 0.02, "both heads alike")
	assert.GreaterOrEqual(t, head(down, long).Plain, head(neutral, long).Plain-0.01, "palms down no further")
	assert.Zero(t, idle(tilted), "tilted nothing is idle")
	assert.InDelta(t, 0.8, upright.Working/tilted.Working, 0.02, "falls by a fifth")
	assert.NotEmpty(t, of("pushdown_bar", turn(movement.PulleyDistance, 1.1)).Idle, "the bent start goes slack")
	top := effort.Samples - 1
	assert.LessOrEqual(t, forward.Curve[top], 0.55*still.Curve[top], "halves or worse the torque left")
	for _, h := range []string{long, short} {
		assert.InDelta(t, 0.065, head(still, h).Shortest-head(forward, h).Shortest, 0.03, "%s shortens by about 0.05–0.08", h)
	}
}
