package present_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/present"
	"musculus/internal/core/stance"
	"musculus/internal/core/words"
)

const list = `Monday:
1. Bench press 4x6 60kg
- Skull crushers 3 x 8-10
- tricep rope pushdown 3x12 @ 25kg
Thursday:
- hammer curls 3x10 12 kg
- curls 3 sets of 12 + cable push-down 3x15
* lat pulldown 3x10, squats 5x5
* yoga`

func TestAListIsReadLineByLine(t *testing.T) {
	r := words.New(movement.Shipped, nil, words.Near)
	lines := present.Read(list, r, nil)
	require.Len(t, lines, 9, "two of its lines have two each")
	assert.Equal(t, "press_bench_wide", lines[0].Movement.ID)
	assert.Equal(t, [3]int{3, 8, 10}, [3]int{lines[1].Sets, lines[1].Reps[0], lines[1].Reps[1]})
	assert.Equal(t, "curl_neutral", lines[3].Movement.ID)
	assert.NotEmpty(t, lines[4].Ask, "a word that means several things is asked back")
	assert.True(t, lines[4].Joined && lines[5].Joined)
	assert.Equal(t, words.CountsNothing, lines[7].Counts)
	assert.Equal(t, "yoga", lines[8].Unknown)

	chosen := map[string]string{words.KeyOf("curls 3x10 12 kg"): "curl_standing_bar", words.KeyOf("yoga"): words.CountsNothing}
	again := present.Read(strings.Replace(list, "curls 3 sets of 12", "curls 5 x 8 14kg", 1), r, chosen)
	assert.Equal(t, "curl_standing_bar", again[4].Movement.ID, "an answer is kept by the words, not by sets and loads")
	assert.Equal(t, 5, again[4].Sets)
	assert.Equal(t, words.CountsNothing, again[8].Counts)
	assert.Empty(t, again[8].Ask)
	assert.LessOrEqual(t, len(present.Read(strings.Repeat("curl 3x10\n", 500), r, nil)), 60)
}

func TestThePictureOfAList(t *testing.T) {
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	r := words.New(movement.Shipped, nil, words.Near)
	p := present.Cover(
		present.Read("push-down 3x\nrope push-downs 3 sets\nincline curl\ncurls\nsquats 3x5", r, nil),
		y,
		stance.ByID("leverage"),
	)
	assert.Equal(t, 1, p.Open, "squats are answered: they count as nothing")
	assert.InDelta(t, 3, p.Heads[arm.TricepsLateral].Sets/2, 0.2, "three plain sets, twice")
	assert.Equal(t, []present.Repeat{{A: 0, B: 1}}, p.Repeats)
	assert.Empty(t, p.Never)
	zones := p.Heads[arm.BicepsLong].Zones
	assert.InDelta(t, p.Heads[arm.BicepsLong].Sets, zones[0]+zones[1]+zones[2], 1e-9)
	require.NotEmpty(t, p.Heads[arm.TricepsLateral].Terms)
	assert.Regexp(t, `^“.+”: \d+ × \d\.\d\d = \d+\.\d$`, p.Heads[arm.TricepsLateral].Terms[0])
	assert.Greater(t, zones[2], zones[0], "a reclined curl is at length")
	pressing := present.Cover(present.Read("push press 4x5", r, nil), y, stance.ByID("leverage"))
	assert.Greater(t, pressing.Heads[arm.TricepsLateral].Sets, 2.0, "counted as pressing elsewhere")
	empty := present.Cover(nil, y, stance.ByID("leverage"))
	assert.Len(t, empty.Never, arm.HeadCount)
}
