package figure

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
)

// The arm by itself stands upright whatever the set-up: shoulder, elbow and what lies between are
// in the picture, seven heads with their letters, each where its belly is.
func TestTheArmByItself(t *testing.T) {
	r := rand.New(rand.NewPCG(18, 3))
	for range 1500 {
		p := anyPosture(r)
		c := MakeCloseUp(arm.DefaultBody, p, 60*r.Float64()-30, nil)
		in := func(at Point) bool {
			return at.X >= c.Box[0] && at.Y >= c.Box[1] && at.X <= c.Box[0]+c.Box[2] && at.Y <= c.Box[1]+c.Box[3]
		}
		bellies, letters := map[string]Path{}, map[string]Point{}
		for _, s := range c.Shapes {
			switch s.Class {
			case "belly":
				bellies[s.Head] = s.Path
			case "letter":
				letters[s.Head] = s.Path.Points[0]
			}
		}
		require.Len(t, bellies, int(arm.HeadCount))
		for id, path := range bellies {
			if id != "brachioradialis" { // that goes down the forearm
				for _, at := range path.Points {
					require.True(t, in(at), "%s leaves the picture in %+v", id, p)
				}
			}
			at, near := letters[id], math.Inf(1)
			require.True(t, in(at), "the letters of %s in %+v", id, p)
			for _, edge := range path.Points {
				near = min(near, math.Hypot(at.X-edge.X, at.Y-edge.Y))
			}
			require.Less(t, near, 0.08, "the letters of %s are at its belly in %+v", id, p)
		}
	}
}

// Letters do not cover each other where movements begin and end.
func TestLettersStandApart(t *testing.T) {
	for _, m := range movement.Shipped.Movements {
		e := m.Default().EffortFor(arm.DefaultBody.Stature)
		for _, p := range []arm.Posture{e.From, e.To} {
			c := MakeCloseUp(arm.DefaultBody, p, e.TrunkLean, nil)
			var at []Point
			for _, s := range c.Shapes {
				if s.Class == "letter" {
					at = append(at, s.Path.Points[0])
				}
			}
			for i := range at {
				for _, other := range at[:i] {
					assert.True(
						t,
						math.Abs(at[i].X-other.X) > 0.024 || math.Abs(at[i].Y-other.Y) > 0.017,
						"%s at %.0f°: %v and %v",
						m.ID,
						p.ElbowFlexion,
						at[i],
						other,
					)
				}
			}
		}
	}
}

// What is smooth comes back as it was, and paper draws it round its points as the screen does.
func TestASmoothPathComesBack(t *testing.T) {
	path := polyline([]Point{{0, 0}, {1, 0}, {1, 1}, {0, 1}}, true)
	path.Smooth = true
	assert.Equal(t, "M0 .5Q0 0 .5 0Q1 0 1 .5Q1 1 .5 1Q0 1 0 .5Z", path.String())
	var back Path
	require.NoError(t, back.UnmarshalText([]byte(path.String())))
	assert.Equal(t, path, back)
	for _, at := range path.Flat() {
		off := math.Hypot(at.X-0.5, at.Y-0.5)
		assert.InDelta(t, 0.515, off, 0.016, "a square with its corners bent off is nearly round")
	}
}
