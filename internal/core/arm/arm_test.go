package arm_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
)

func randomPosture(r *rand.Rand) arm.Posture {
	in := func(i int) float64 {
		c := arm.Coordinates[i]
		return c.Min + r.Float64()*(c.Max-c.Min)
	}
	return arm.Posture{ShoulderElevation: in(0), ElevationPlane: in(1), ShoulderRotation: in(2), ElbowFlexion: in(3), ForearmRotation: in(4)}
}

// Every moment arm is minus the slope of the length: one potential.
func TestLengthsAndMomentArmsAreOnePotential(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	const h = 1e-3 // degrees
	move := map[int]func(*arm.Posture, float64){
		arm.Elbow:     func(p *arm.Posture, d float64) { p.ElbowFlexion += d },
		arm.Elevation: func(p *arm.Posture, d float64) { p.ShoulderElevation += d },
		arm.Rotation:  func(p *arm.Posture, d float64) { p.ShoulderRotation += d },
		arm.Forearm:   func(p *arm.Posture, d float64) { p.ForearmRotation += d },
	}
	for range 300 {
		p := randomPosture(r)
		for i := range arm.Heads {
			head := &arm.Heads[i]
			arms := head.MomentArms(p)
			for axis, nudge := range move {
				lo, hi := p, p
				nudge(&lo, -h)
				nudge(&hi, h)
				slope := (head.Length(hi) - head.Length(lo)) * head.OptimalFibre / arm.Radians(2*h)
				require.InDelta(t, -slope, arms[axis], 1e-5, "%s axis %d at %+v", head.ID, axis, p)
			}
		}
	}
}

// The torques against a force are the derivatives of the point it acts at.
func TestTorquesAreDerivatives(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	body := arm.Body{Stature: 1.68, BodyMass: 61}
	const h = 1e-4
	for range 200 {
		p := randomPosture(r)
		offset := r.Float64()*0.2 - 0.1
		limb := body.Place(p)
		force := arm.Vec{r.Float64() - 0.5, r.Float64() - 0.5, r.Float64() - 0.5}
		grip := limb.GripTorques(body.Forearm(), offset, force)
		straight := limb.GripTorques(body.Forearm(), 0, force)
		fore := limb.PointTorques(body.UpperArm(), 0.11, force)
		upper := limb.PointTorques(0.14, 0, force)
		for axis, nudge := range []func(arm.Posture, float64) arm.Posture{
			func(p arm.Posture, d float64) arm.Posture { p.ElbowFlexion += d; return p },
			func(p arm.Posture, d float64) arm.Posture { p.ShoulderElevation += d; return p },
			func(p arm.Posture, d float64) arm.Posture { p.ShoulderRotation += d; return p },
			func(p arm.Posture, d float64) arm.Posture { p.ForearmRotation += d; return p },
		} {
			lo, hi := body.Place(nudge(p, -h)), body.Place(nudge(p, h))
			slope := func(point func(*arm.Limb) arm.Vec) arm.Vec {
				return point(&hi).Sub(point(&lo)).Scale(1 / arm.Radians(2*h))
			}
			near := func(rate arm.Vec, got float64) {
				require.InDelta(t, -rate.Dot(force), got, 1e-6, "axis %d at %+v", axis, p)
			}
			near(slope(func(l *arm.Limb) arm.Vec { return l.Grip(offset) }), grip[axis])
			near(slope(func(l *arm.Limb) arm.Vec { return l.Hand }), straight[axis])
			near(slope(func(l *arm.Limb) arm.Vec {
				return l.Elbow.Add(l.Hand.Sub(l.Elbow).Scale(0.11 / body.Forearm()))
			}), fore[axis])
			near(slope(func(l *arm.Limb) arm.Vec { return l.Elbow.Scale(0.14 / body.UpperArm()) }), upper[axis])
		}
	}
}

func TestWhereThingsAre(t *testing.T) {
	b := arm.DefaultBody
	at := func(p arm.Posture) arm.Limb { return b.Place(p) }
	near := func(want, got arm.Vec) { assert.Less(t, want.Sub(got).Norm(), 1e-9, "want %v got %v", want, got) }
	up, fore := b.UpperArm(), b.Forearm()

	near(arm.Vec{0, -up - fore, 0}, at(arm.Posture{}).Hand)
	near(arm.Vec{up, 0, 0}, at(arm.Posture{ShoulderElevation: 90}).Elbow)
	near(arm.Vec{0, up, 0}, at(arm.Posture{ShoulderElevation: 180}).Elbow)
	near(arm.Vec{0, 0, up}, at(arm.Posture{ShoulderElevation: 90, ElevationPlane: 90}).Elbow)
	near(arm.Vec{fore, -up, 0}, at(arm.Posture{ElbowFlexion: 90}).Hand)
	out := at(arm.Posture{ElbowFlexion: 90, ShoulderRotation: 80}).Hand
	assert.Greater(t, out[2], 0.3, "external rotation takes the bent forearm outward")
	supinated := at(arm.Posture{ElbowFlexion: 90, ForearmRotation: 80}).Little
	assert.Less(t, supinated[2], -0.9, "palm up, the little finger of the right hand is on the inner side")
	near(arm.Vec{0, 0, -1}, arm.LeanTrunk(37).ToWorld(arm.Vec{0, 0, -1}))
	near(arm.Vec{0, 1, 0}, arm.LeanTrunk(-90).ToWorld(arm.Vec{1, 0, 0}))
	v := arm.Vec{0.3, -0.2, 0.1}
	near(v, arm.LeanTrunk(37).FromWorld(arm.LeanTrunk(37).ToWorld(v)))
}

func TestReachAgreesWithTheCheckTable(t *testing.T) {
	want := map[string][2]float64{
		"biceps_long": {0.126, 1.476}, "biceps_short": {0.072, 1.457}, "brachialis": {0.496, 1.136},
		"brachioradialis": {0.355, 1.196}, "triceps_long": {0.475, 1.397},
		"triceps_lateral": {0.682, 1.152}, "triceps_medial": {0.682, 1.152},
	}
	for i, reach := range arm.Reaches {
		id := arm.Heads[i].ID
		assert.InDelta(t, want[id][0], reach.Shortest, 6e-4, id)
		assert.InDelta(t, want[id][1], reach.Longest, 6e-4, id)
		assert.InDelta(t, -1, reach.Stretch(reach.Shortest), 1e-12)
		assert.InDelta(t, 1, reach.Stretch(reach.Longest), 1e-12)
	}
}

// At one elbow angle both biceps heads are longer on an incline than upright,
// and upright than on a pad in front; the long triceps head is longer overhead
// than lying, at the side and behind.
func TestTheShouldersEffectOnLengths(t *testing.T) {
	length := func(h arm.HeadIndex, s float64) float64 {
		return arm.Heads[h].Length(arm.Posture{ShoulderElevation: s, ElbowFlexion: 60, ForearmRotation: 80})
	}
	for _, h := range []arm.HeadIndex{arm.BicepsLong, arm.BicepsShort} {
		assert.Greater(t, length(h, -45), length(h, 0))
		assert.Greater(t, length(h, 0), length(h, 50))
	}
	for _, pair := range [][2]float64{{170, 110}, {110, 10}, {10, -15}} {
		assert.Greater(t, length(arm.TricepsLong, pair[0]), length(arm.TricepsLong, pair[1]))
	}
	for _, h := range []arm.HeadIndex{arm.Brachialis, arm.Brachioradialis, arm.TricepsLateral, arm.TricepsMedial} {
		assert.Equal(t, length(h, -60), length(h, 180), "heads that cross only the elbow do not notice the shoulder")
	}
}

func TestForceLength(t *testing.T) {
	assert.Equal(t, 1.0, arm.Active(1))
	assert.InDelta(t, math.Exp(-0.2), arm.Active(1.3), 1e-12)
	assert.Equal(t, 0.0, arm.Passive(0.7))
	assert.InDelta(t, 1, arm.Passive(1.6), 1e-12)
}

func TestUnreachablePosturesAreRefused(t *testing.T) {
	for _, c := range []struct {
		p    arm.Posture
		name string
	}{
		{arm.Posture{ShoulderElevation: 181}, "shoulder_elevation"},
		{arm.Posture{ElevationPlane: -46}, "elevation_plane"},
		{arm.Posture{ShoulderRotation: 81}, "shoulder_rotation"},
		{arm.Posture{ElbowFlexion: -1}, "elbow_flexion"},
		{arm.Posture{ForearmRotation: math.NaN()}, "forearm_rotation"},
	} {
		var out *arm.OutOfReach
		require.ErrorAs(t, c.p.Check(), &out)
		assert.Equal(t, c.name, out.Coordinate)
	}
	assert.NoError(t, arm.Posture{ShoulderElevation: 180, ElbowFlexion: 150, ForearmRotation: -80}.Check())
}

func TestZoneEdgesBelongToTheOuterZone(t *testing.T) {
	h := &arm.Heads[arm.BicepsLong]
	assert.Equal(t, arm.Short, h.Zone(0.82))
	assert.Equal(t, arm.Middle, h.Zone(0.87))
	assert.Equal(t, arm.Long, h.Zone(0.92))
}

func ExampleHead_Length() {
	long := arm.Heads[arm.TricepsLong]
	overhead := arm.Posture{ShoulderElevation: 165, ElbowFlexion: 90}
	behind := arm.Posture{ShoulderElevation: -15, ElbowFlexion: 90}
	fmt.Printf("overhead %.2f, behind the trunk %.2f\n", long.Length(overhead), long.Length(behind))
	// Output: overhead 1.26, behind the trunk 0.88
}
