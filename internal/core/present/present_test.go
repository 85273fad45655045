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
)

const list = `Monday:
1. Bench press 4x6 60kg
- Skull crushers 3 x 8-10
- tricep rope pushdown 3x12 @ 25kg
Thursday:
- hammer curls 3x10 12 kg
- incline db curl 3 sets of 12
- cable push-down 3x15
* yoga`

func TestAListIsReadLineByLine(t *testing.T) {
	lines := present.Read(list, movement.Shipped, nil)
	require.Len(t, lines, 7)
	assert.Equal(t, 4, lines[0].Sets)
	assert.Equal(t, 6, lines[0].RepsLow)
	assert.Equal(t, [3]int{3, 8, 10}, [3]int{lines[1].Sets, lines[1].RepsLow, lines[1].RepsHigh})
	assert.Contains(t, lines[0].Choices, "press_bench_close")
	assert.Contains(t, lines[1].Choices, "lying_bar")
	assert.Equal(t, "pushdown_rope", lines[2].Choices[0])
	assert.Equal(t, "curl_neutral", lines[3].Choices[0])
	assert.NotEmpty(t, lines[3].Ask, "a word that means several things is asked back")
	assert.Empty(t, lines[3].Chosen)
	assert.Contains(t, lines[4].Choices, "curl_reclined")
	assert.Empty(t, lines[6].Choices)
	assert.Contains(t, lines[6].Ask, "choose one")

	chosen := map[string]string{present.Words("hammer curls 3x10 12 kg"): "curl_neutral"}
	again := present.Read(strings.Replace(list, "3x10 12 kg", "5 x 8 14kg", 1), movement.Shipped, chosen)
	assert.Equal(t, "curl_neutral", again[3].Chosen, "an answer is kept by the words, not by sets and loads")
	assert.Equal(t, 5, again[3].Sets)
	assert.Empty(t, present.Read(strings.Repeat("1234\n", 5), movement.Shipped, nil))
	assert.LessOrEqual(t, len(present.Read(strings.Repeat("curl 3x10\n", 500), movement.Shipped, nil)), 60)
}

func TestThePictureOfAList(t *testing.T) {
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	lines := []present.Line{
		{Chosen: "pushdown_bar", Sets: 3}, {Chosen: "pushdown_rope", Sets: 3}, {Chosen: "curl_reclined"}, {Chosen: ""},
	}
	p := present.Cover(lines, movement.Shipped, y, stance.ByID("leverage"))
	assert.Equal(t, 1, p.Open)
	assert.InDelta(t, 3, p.Heads[arm.TricepsLateral].Sets/2, 0.2, "three plain sets, twice")
	assert.Equal(t, []present.Repeat{{A: 0, B: 1}}, p.Repeats)
	assert.Empty(t, p.Never)
	zones := p.Heads[arm.BicepsLong].Zones
	assert.InDelta(t, p.Heads[arm.BicepsLong].Sets, zones[0]+zones[1]+zones[2], 1e-9)
	assert.Greater(t, zones[2], zones[0], "a reclined curl is at length")
	empty := present.Cover(nil, movement.Shipped, y, stance.ByID("leverage"))
	assert.Len(t, empty.Never, arm.HeadCount)
}
