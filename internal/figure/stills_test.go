package figure

import (
	"bytes"
	"compress/gzip"
	"encoding/json"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// Every computed movement can be played: as many points in each still as in the first, ends where
// the model puts the hand, no jump between two, each in words, and small.
func TestEveryMovementPlays(t *testing.T) {
	played, largest := 0, 0
	for _, m := range movement.Shipped.Movements {
		s := m.Default()
		out, err := MakeStills(s, arm.DefaultBody, &Fill{1})
		require.NoError(t, err, m.ID)
		played++
		points := 0
		for _, p := range out.Parts {
			points += p.Points
		}
		require.Len(t, out.First, 2*points, m.ID)
		require.Len(t, out.Bends, effort.Samples-1)
		require.Len(t, out.Words, effort.Samples)
		step := make([]int, 2*points)
		for i, bend := range out.Bends {
			require.Len(t, bend, 2*points)
			for k := range step {
				step[k] += bend[k]
				by := step[k]
				require.Less(t, max(by, -by), int(0.08/stillUnit), "%s jumps at %d in %d", m.ID, i, k)
			}
		}
		most := 0
		for i := range out.Tension {
			for _, x := range out.Tension[i] {
				most = max(most, x)
			}
		}
		assert.Equal(t, 100, most, m.ID)
		b, err := json.Marshal(out)
		require.NoError(t, err)
		var packed bytes.Buffer
		w := gzip.NewWriter(&packed)
		_, _ = w.Write(b)
		require.NoError(t, w.Close())
		largest = max(largest, packed.Len())
	}
	assert.Len(t, movement.Shipped.Movements, played)
	assert.Less(t, largest, 15_000, "bytes of the largest, gzipped")
	t.Logf("%d movements play; the largest is %d bytes gzipped", played, largest)
}

// A figure as a card stays small; all of them together are drawn in a moment.
func TestCardsStaySmall(t *testing.T) {
	largest, of := 0, ""
	for _, m := range movement.Shipped.Movements {
		pose := MakeCard(m.Default(), arm.DefaultBody, nil)
		n := 0
		for i := range pose.Shapes {
			n += len(pose.Shapes[i].Path.String()) + len(pose.Shapes[i].Class) + 24
		}
		if n > largest {
			largest, of = n, m.ID
		}
	}
	assert.Less(t, largest, 6_000, of)
	t.Logf("the largest figure is %d bytes of markup: %s", largest, of)
}

func BenchmarkAFigure(b *testing.B) {
	s := movement.Shipped.Get("curl_reclined").Default()
	b.Run("looked at", func(b *testing.B) {
		for b.Loop() {
			MakeLookedAt(s, arm.DefaultBody, nil, nil)
		}
	})
	b.Run("to be grabbed", func(b *testing.B) {
		for b.Loop() {
			MakePose(s, arm.DefaultBody, nil, nil)
		}
	})
	b.Run("played", func(b *testing.B) {
		for b.Loop() {
			_, _ = MakeStills(s, arm.DefaultBody, nil)
		}
	})
}

// Where the hands stay the body moves: the hand does not leave what it holds, nobody sinks into the
// floor.
func TestTheBodyMovesWhereTheHandsStay(t *testing.T) {
	moved := 0
	for _, m := range movement.Shipped.Movements {
		s := m.Default()
		sc := newScene(s, arm.DefaultBody)
		if !sc.hangs() {
			continue
		}
		moved++
		out, err := MakeStills(s, arm.DefaultBody, nil)
		require.NoError(t, err)
		places, step := append([]int{}, out.First...), make([]int, len(out.First))
		hand, first, far := 0, 0, 0
		for i, p := range out.Parts[:out.Close] {
			if p.Class == "hand" {
				hand = first
				far = i
			}
			first += p.Points
		}
		require.Positive(t, far, m.ID)
		grip := func() Point {
			var at Point
			for k := hand; k < hand+out.Parts[far].Points; k++ {
				at = at.plus(float64(places[2*k])*stillUnit/7, float64(places[2*k+1])*stillUnit/7)
			}
			return at
		}
		was, shoulders := grip(), map[int]bool{}
		for i := range effort.Samples {
			if i > 0 {
				for k := range step {
					step[k] += out.Bends[i-1][k]
					places[k] += step[k]
				}
			}
			at := grip()
			assert.Less(t, math.Hypot(at.X-was.X, at.Y-was.Y), 0.03, "%s: the hand in picture %d", m.ID, i)
			shoulders[places[1]/40] = true
			for k := range first {
				assert.Less(t, float64(places[2*k+1])*stillUnit, -sc.floor+0.05, "%s sinks into the floor in picture %d", m.ID, i)
			}
		}
		assert.Greater(t, len(shoulders), 2, "%s: the body moves", m.ID)
	}
	assert.Equal(t, 11, moved)
}
