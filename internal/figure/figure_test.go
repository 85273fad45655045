package figure_test

import (
	"fmt"
	"math"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/figure"
)

// numbers reads every number of an absolute path of M, L and Z.
func numbers(t *testing.T, drawn figure.Path) (out []float64) {
	path := drawn.String()
	for _, f := range strings.FieldsFunc(path, func(r rune) bool { return strings.ContainsRune("MLZ ", r) }) {
		var x float64
		_, err := fmt.Sscan(f, &x)
		require.NoError(t, err, path)
		out = append(out, x)
	}
	return
}

func area(xy []float64) (a float64) {
	n := len(xy) / 2
	for i := range n {
		j := (i + 1) % n
		a += xy[2*i]*xy[2*j+1] - xy[2*j]*xy[2*i+1]
	}
	return math.Abs(a) / 2
}

func TestTheSliceIsFilledByItsRegionsOnce(t *testing.T) {
	s := figure.MakeSlice(false)
	require.Len(t, s.Regions, arm.HeadCount)
	var sum float64
	for i, r := range s.Regions {
		assert.Equal(t, arm.Heads[i].ID, r.Head)
		xy := numbers(t, r.Path)
		for _, v := range xy {
			assert.True(t, v >= 0 && v <= 1)
		}
		assert.Greater(t, area(xy), 0.02, "%s can be seen at 24 px", r.Head)
		sum += area(xy)
	}
	assert.InDelta(t, area(numbers(t, s.Outline)), sum, 0.01, "no gaps, no overlaps")
}

func TestWhereTheHeadsLie(t *testing.T) {
	right, left := figure.MakeSlice(false), figure.MakeSlice(true)
	at := func(h arm.HeadIndex) figure.Point { return right.Regions[h].Label }
	assert.Greater(t, at(arm.BicepsLong).X, at(arm.BicepsShort).X, "the long head is the outer one")
	assert.Less(t, at(arm.BicepsLong).Y, at(arm.Brachialis).Y, "over the brachialis")
	assert.Greater(t, at(arm.Brachioradialis).X, at(arm.Brachialis).X, "at the outer edge")
	assert.Greater(t, at(arm.TricepsLateral).X, at(arm.TricepsLong).X)
	assert.Less(t, at(arm.TricepsMedial).Y, at(arm.TricepsLong).Y, "deep, next to the bone")
	for i := range right.Regions {
		assert.InDelta(t, 1, right.Regions[i].Label.X+left.Regions[i].Label.X, 1e-9)
	}
}

func TestLevels(t *testing.T) {
	assert.Zero(t, figure.BiasLevel(0))
	assert.Greater(t, figure.BiasLevel(0.1), 0.0, "a little is seen")
	assert.Equal(t, 1.0, figure.BiasLevel(2))
	assert.Less(t, figure.BiasLevel(0.8), figure.BiasLevel(1))
	assert.Equal(t, 0.5, figure.SetsLevel(4))
}

func profile(t *testing.T, s movement.SetUp) *effort.Profile {
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	p, err := s.Profile(y)
	require.NoError(t, err)
	return p
}

func TestRibbonHollowsWhatIsIdle(t *testing.T) {
	solid := figure.MakeRibbon(profile(t, movement.Shipped.Get("lying_bar").Default()))
	assert.Len(t, solid.Solid, 1)
	assert.Empty(t, solid.Hollow)
	overhead := profile(t, movement.Shipped.Get("overhead_two_dumbbells").Default())
	r := figure.MakeRibbon(overhead)
	require.Len(t, r.Hollow, 1)
	xs := numbers(t, r.Hollow[0])
	assert.InDelta(t, (overhead.Idle[0][0]-135)/(5-135), xs[0], 1e-3, "it starts where the idle stretch does")
	assert.Contains(t, r.Text, "idle from 38° to 5°")
	assert.Len(t, r.Reads, effort.Samples)
	for _, path := range append(r.Solid, r.Hollow...) {
		for _, v := range numbers(t, path) {
			assert.True(t, v >= -1e-9 && v <= 1+1e-9)
		}
	}
}

// Every movement can be drawn, everything a coach can grab is inside the
// picture, and each handle's track passes through where it is.
func TestPosesOfTheWholeCatalogue(t *testing.T) {
	for _, m := range movement.Shipped.Movements {
		s := m.Default()
		pose := figure.MakePose(s, arm.DefaultBody, nil, nil)
		classes := map[string]bool{}
		for _, shape := range pose.Shapes {
			classes[shape.Class] = true
			assert.NotContains(t, shape.Path.String(), "NaN", m.ID)
		}
		assert.True(t, classes["trunk"] && classes["floor"], m.ID)
		if s.Pulls() == effort.Cable {
			assert.True(t, classes["cable"] && classes["pulley"], m.ID)
		}
		if m.Computed() {
			assert.GreaterOrEqual(t, len(pose.Handles), 2, "%s: both ends of the range can be grabbed", m.ID)
		}
		for _, h := range pose.Handles {
			on := false
			for _, stop := range h.Track {
				inside := stop.At.X >= pose.Box[0] && stop.At.X <= pose.Box[0]+pose.Box[2] && stop.At.Y >= pose.Box[1] &&
					stop.At.Y <= pose.Box[1]+pose.Box[3]
				assert.True(t, inside, "%s %s %v", m.ID, h.Key, stop)
				on = on || math.Hypot(stop.At.X-h.At.X, stop.At.Y-h.At.Y) < 1e-9
			}
			assert.True(t, on, "%s %s", m.ID, h.Key)
		}
	}
}

func TestTheBoxDoesNotJumpWhileASettingIsTurned(t *testing.T) {
	m := movement.Shipped.Get("curl_reclined")
	want := figure.MakePose(m.Default(), arm.DefaultBody, nil, nil).Box
	for _, bench := range m.Setting(movement.Bench).Steps() {
		s, err := m.SetUp(map[movement.Key]movement.Value{movement.Bench: movement.Num(bench)})
		require.NoError(t, err)
		got := figure.MakePose(s, arm.DefaultBody, nil, nil).Box
		for i := range got {
			assert.InDelta(t, want[i], got[i], 0.25, "bench %g", bench)
		}
	}
}

func ExampleSliceText() {
	var values [arm.HeadCount]float64
	values[arm.BicepsLong], values[arm.Brachialis] = 1.05, 0.96
	fmt.Println(figure.SliceText("Bias", values))
	// Output: Bias: biceps, long head 1.05; brachialis 0.96
}

func TestHeadTraces(t *testing.T) {
	e := movement.Shipped.Get("overhead_two_dumbbells").Default().Effort()
	tr := figure.MakeHeadTrace(e, arm.TricepsLong)
	require.Len(t, tr.Length.Reads, effort.Samples)
	assert.Equal(t, 135.0, tr.Elbow[0])
	assert.InDelta(t, arm.Heads[arm.TricepsLong].Length(e.From), tr.Length.Reads[0], 1e-3)
	assert.Greater(t, tr.Length.Reads[0], tr.Length.Reads[effort.Samples-1], "it shortens while lifting")
	for _, x := range []figure.Trace{tr.Length, tr.Leverage} {
		assert.Less(t, x.Low, x.High)
		for _, v := range numbers(t, x.Path) {
			assert.True(t, v >= -1e-9 && v <= 1+1e-9)
		}
		assert.Contains(t, x.Text, "triceps, long head")
	}
}

// What a path writes it reads again, so that a sheet that left can be drawn on paper.
func TestAPathComesBack(t *testing.T) {
	pose := figure.MakePose(movement.Shipped.Get("curl_reclined").Default(), arm.DefaultBody, nil, nil)
	discs := 0
	for _, s := range pose.Shapes {
		var again figure.Path
		require.NoError(t, again.UnmarshalText([]byte(s.Path.String())))
		assert.Equal(t, s.Path.String(), again.String())
		assert.Equal(t, s.Path.R > 0, again.R > 0)
		if again.R > 0 {
			discs++
		}
	}
	assert.Positive(t, discs)
	var broken figure.Path
	assert.NoError(t, broken.UnmarshalText([]byte("M1 xL")))
}

// Screen and paper are painted from one palette.
func TestThePaletteIsOne(t *testing.T) {
	css, err := os.ReadFile("../../web/src/app/palette.css")
	require.NoError(t, err)
	assert.Equal(t, figure.PaletteCSS(), string(css), "make generate")
	seen := map[string]bool{}
	for _, h := range arm.Heads {
		assert.NotEqual(t, figure.Paint("ink"), figure.HeadPaint(h.ID))
		seen[figure.HeadPaint(h.ID)] = true
	}
	assert.Len(t, seen, arm.HeadCount)
}
