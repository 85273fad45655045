package figure

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
)

// anyPosture is one within reach.
func anyPosture(r *rand.Rand) arm.Posture {
	in := func(c int) float64 {
		x := arm.Coordinates[c]
		return x.Min + (x.Max-x.Min)*r.Float64()
	}
	return arm.Posture{ShoulderElevation: in(0), ElevationPlane: in(1), ShoulderRotation: in(2), ElbowFlexion: in(3), ForearmRotation: in(4)}
}

// Over the whole reach a belly is as long along its path as the model's fibres are, within 3 %,
// never shorter than half its best, where it says that it is slack; tendons take the rest; it
// keeps its volume, and runs through no bone.
func TestBelliesAreAsLongAsTheModelSays(t *testing.T) {
	r := rand.New(rand.NewPCG(18, 1))
	of := LimbWithin(arm.DefaultBody, reference)
	u := arm.DefaultBody.UpperArm()
	worst := 0.0
	for range 4000 {
		p := anyPosture(r)
		w := LimbWithin(arm.DefaultBody, p)
		for h := range w.Bellies {
			b, was := &w.Bellies[h], &of.Bellies[h]
			l := arm.Heads[h].Length(p)
			require.Equal(t, l < slackUnder, b.Slack, "%s", arm.Heads[h].ID)
			ratio := b.Length / was.Length
			require.InDelta(t, b.Length, lengthOf(b.Line[:]), 0.05*b.Length, "its line is as long, but for its bends: %s", arm.Heads[h].ID)
			want := max(l, slackUnder) / arm.Heads[h].Length(reference)
			worst = max(worst, math.Abs(ratio/want-1))
			require.InDelta(t, want, ratio, 0.03*want, "%s in %+v", arm.Heads[h].ID, p)
			volume := b.Half[3] * b.Half[3] * b.Length
			require.InDelta(t, was.Half[3]*was.Half[3]*was.Length, volume, 1e-9)
			for _, tendon := range [][]arm.Vec{b.Upper, b.Lower} {
				require.Greater(t, lengthOf(tendon), 0.004, "%s in %+v", arm.Heads[h].ID, p)
			}
			axis := w.Elbow.Scale(1 / w.Elbow.Norm())
			for k := 1; k < stations-1; k++ {
				if along := b.Line[k].Dot(axis); along > 0.12*u && along < 0.9*u {
					off := b.Line[k].Sub(axis.Scale(along)).Norm()
					require.Greater(t, off, 0.032*u, "%s runs through the humerus in %+v", arm.Heads[h].ID, p)
				}
			}
		}
	}
	t.Logf("lengths along the path are within %.2f %% of the model's", 100*worst)
}

// A degree of any joint moves no place of the drawing by more than a few millimetres.
func TestTheArmMovesWithoutJumps(t *testing.T) {
	r := rand.New(rand.NewPCG(18, 2))
	for range 1500 {
		p := anyPosture(r)
		q := p
		switch r.IntN(5) {
		case 0:
			q.ShoulderElevation = min(180, p.ShoulderElevation+1)
		case 1:
			q.ElevationPlane = min(100, p.ElevationPlane+1)
		case 2:
			q.ShoulderRotation = min(80, p.ShoulderRotation+1)
		case 3:
			q.ElbowFlexion = min(150, p.ElbowFlexion+1)
		case 4:
			q.ForearmRotation = min(80, p.ForearmRotation+1)
		}
		a, b := LimbWithin(arm.DefaultBody, p), LimbWithin(arm.DefaultBody, q)
		for h := range a.Bellies {
			for k := range a.Bellies[h].Line {
				moved := a.Bellies[h].Line[k].Sub(b.Bellies[h].Line[k]).Norm()
				require.Less(t, moved, 0.014, "%s, station %d, %+v → %+v", arm.Heads[h].ID, k, p, q)
			}
		}
	}
}

// Bones meet where they should, whatever the body.
func TestBonesMeet(t *testing.T) {
	for _, stature := range []float64{1.5, 1.75, 2.0} {
		b := arm.DefaultBody
		b.Stature = stature
		w := LimbWithin(b, arm.Posture{ElbowFlexion: 90, ForearmRotation: 80})
		assert.InDelta(t, b.UpperArm(), w.Elbow.Norm(), 1e-9)
		assert.Less(t, w.Ulna[0].Sub(w.Elbow).Norm(), 0.03)
		assert.Less(t, w.Radius[0].Sub(w.Elbow).Norm(), 0.03)
		assert.Less(t, w.Radius[1].Sub(w.Wrist).Norm(), 0.03)
		assert.Greater(t, w.Radius[1][2], w.Ulna[1][2], "palm up the radius lies outside")
	}
}

func BenchmarkLimbWithin(b *testing.B) {
	p := arm.Posture{ShoulderElevation: 20, ElbowFlexion: 80, ForearmRotation: 40}
	for b.Loop() {
		LimbWithin(arm.DefaultBody, p)
	}
}
