package effort_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
)

// demandAt interpolates the demand curve at an elbow angle.
func demandAt(p *effort.Profile, elbow float64) float64 {
	for i := 1; i < effort.Samples; i++ {
		lo, hi := p.Elbow[i-1], p.Elbow[i]
		if (elbow-lo)*(elbow-hi) <= 0 {
			return p.Curve[i-1] + (elbow-lo)/(hi-lo)*(p.Curve[i]-p.Curve[i-1])
		}
	}
	panic("outside the range")
}

func TestLyingExtensionIsIdleOnlyWithUprightArms(t *testing.T) {
	upright := profile(t, free(-90, pose(90, 0, 0, 115, -80), pose(90, 0, 0, 5, -80)))
	tilted := profile(t, free(-90, pose(115, 0, 0, 115, -80), pose(110, 0, 0, 5, -80)))
	require.NotEmpty(t, upright.Idle)
	assert.InDelta(t, 5, upright.Idle[len(upright.Idle)-1][1], 1e-9, "idle up to lock-out")
	assert.InDelta(t, 16, upright.Idle[len(upright.Idle)-1][0], 1)
	assert.Empty(t, tilted.Idle)
	assert.InDelta(t, 0.81, upright.Working/tilted.Working, 0.01)
}

func TestKickbacksNeedACable(t *testing.T) {
	dumbbell := profile(t, free(75, pose(-10, 0, 0, 90, 0), pose(-15, 0, 0, 3, 0)))
	withCable := profile(t, cable(75, pose(-10, 0, 0, 100, 0), pose(-15, 0, 0, 3, 0), arm.Vec{0.6, -0.8, 0}))
	require.NotEmpty(t, dumbbell.Idle)
	assert.Equal(t, 90.0, dumbbell.Idle[0][0], "idle from the start")
	for _, stretch := range withCable.Idle {
		assert.NotEqual(t, 100.0, stretch[0], "the cable loads the start")
	}
}

func TestTheHandMovesWorkOffTheBiceps(t *testing.T) {
	curl := func(phi float64) *effort.Profile {
		return profile(t, free(0, pose(0, 0, 0, 10, phi), pose(10, 0, 0, 140, phi)))
	}
	up, neutral, down := curl(80), curl(0), curl(-80)
	for _, h := range []arm.HeadIndex{arm.BicepsLong, arm.BicepsShort} {
		assert.Less(t, neutral.Heads[h].Plain, up.Heads[h].Plain)
		assert.Less(t, down.Heads[h].Plain, up.Heads[h].Plain)
		assert.GreaterOrEqual(t, down.Heads[h].Plain, neutral.Heads[h].Plain-0.005, "palms down takes no more from the biceps than neutral")
	}
	for _, h := range []arm.HeadIndex{arm.Brachialis, arm.Brachioradialis} {
		assert.Greater(t, neutral.Heads[h].Plain, up.Heads[h].Plain)
		assert.Greater(t, down.Heads[h].Plain, up.Heads[h].Plain)
	}
}

func TestWhereCurlsAreHard(t *testing.T) {
	pad := effort.Setup{From: pose(50, 0, 0, 40, 80), To: pose(50, 0, 0, 130, 80), Load: effort.Load{Kind: effort.Free}, ArmSupported: true}
	assert.Equal(t, 40.0, profile(t, pad).HardestAt(), "a pad curl is hardest at the bottom")
	chest := profile(t, free(45, pose(45, 0, 0, 5, 80), pose(45, 0, 0, 135, 80)))
	assert.Equal(t, 135.0, chest.HardestAt(), "a chest-supported curl at the top")
}

func TestOffCentreWeightInATurningCurl(t *testing.T) {
	turning := free(0, pose(0, 0, 0, 10, 0), pose(10, 0, 0, 140, 80))
	share := func(offset float64) float64 {
		turning.GripOffset = offset
		p := profile(t, turning)
		return (p.Heads[arm.BicepsLong].Share + p.Heads[arm.BicepsShort].Share) / p.Heads[arm.Brachialis].Share
	}
	assert.Greater(t, share(0.03), share(0))
	assert.Greater(t, share(0), share(-0.03))
}

func TestArmsTurnedOutFavourTheShortHeadSlightly(t *testing.T) {
	ratio := func(rho float64) float64 {
		p := profile(t, free(0, pose(0, 0, rho, 10, 80), pose(10, 0, rho, 140, 80)))
		return p.Heads[arm.BicepsShort].Plain / p.Heads[arm.BicepsLong].Plain
	}
	assert.Greater(t, ratio(30), ratio(0))
	assert.InDelta(t, 1, ratio(30), 0.1, "slightly")
}

func TestElbowComingForwardEmptiesTheTop(t *testing.T) {
	still := profile(t, effort.PlainCurl)
	drift := effort.PlainCurl
	drift.To.ShoulderElevation = 30
	assert.InDelta(t, 0.70, demandAt(still, 140), 0.01)
	assert.InDelta(t, 0.28, demandAt(profile(t, drift), 140), 0.01)
}

func TestStandingOutInAPushDownLoadsLockOut(t *testing.T) {
	at := func(x float64) float64 {
		s := effort.PlainPushDown
		s.Load.Pulley[0] = x
		return demandAt(profile(t, s), 5)
	}
	assert.InDelta(t, 0.58, at(0.7), 0.01)
	assert.InDelta(t, 0.26, at(0.3), 0.01)
}

func TestThePlainMovementsAreOne(t *testing.T) {
	for _, s := range []effort.Setup{effort.PlainCurl, effort.PlainPushDown} {
		p := profile(t, s)
		assert.InDelta(t, 1, p.Ratio, 1e-12)
		for m, h := range p.Heads {
			if !h.Agonist {
				assert.Zero(t, h.Plain, "head %d does not help", m)
				assert.Zero(t, h.Share)
				continue
			}
			assert.InDelta(t, 1, h.Plain, 1e-12)
			assert.InDelta(t, 1, h.Stretch, 1e-12)
			assert.InDelta(t, 1, h.Squeeze, 1e-12)
			assert.InDelta(t, 1, h.Bias(), 1e-12)
		}
	}
}

// Whatever the range, a computed profile is sane; what cannot be is refused
// with a reason, never with a number that is none.
func TestAnySetupIsComputedSanelyOrRefused(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 12))
	y := yardstick(t)
	in := func(lo, hi float64) float64 { return lo + r.Float64()*(hi-lo) }
	any := func() arm.Posture { return pose(in(-60, 180), in(-45, 100), in(-70, 80), in(0, 150), in(-80, 80)) }
	computed := 0
	for i := range 3000 {
		s := effort.Setup{TrunkLean: in(-90, 90), From: any(), To: any(), GripOffset: in(-0.2, 0.2), ArmSupported: r.IntN(2) == 0}
		s.Load.Kind = []effort.LoadKind{effort.Free, effort.Cable, effort.Cam}[r.IntN(3)]
		s.Load.Pulley = arm.Vec{in(-2, 2), in(-1.4, 1.4), in(-1, 1)}
		p, err := y.Profile(s)
		if err != nil {
			var refused *effort.Refused
			require.ErrorAs(t, err, &refused)
			require.NotEmpty(t, refused.Reason)
			continue
		}
		computed++
		require.Greater(t, p.Working, 0.0)
		highest := math.Inf(-1)
		for _, d := range p.Curve {
			require.False(t, math.IsNaN(d))
			highest = math.Max(highest, d)
		}
		require.InDelta(t, effort.WorkingEffort, highest, 1e-9, "set-up %d is hardest at the working effort", i)
		best := 0.0
		for _, h := range p.Heads {
			for _, v := range []float64{h.Share, h.Plain, h.Stretch, h.Squeeze, h.Shortest, h.Longest} {
				require.False(t, math.IsNaN(v) || math.IsInf(v, 0) || v < 0, "set-up %d: %+v", i, h)
			}
			best = math.Max(best, h.Share)
			if h.Agonist && h.Share > 0 {
				require.True(t, h.Mean >= h.Shortest-1e-9 && h.Mean <= h.Longest+1e-9)
			}
		}
		require.InDelta(t, 1, best, 1e-12)
	}
	assert.Greater(t, computed, 500)
}

func TestRefusals(t *testing.T) {
	y := yardstick(t)
	plain := effort.PlainCurl
	change := func(f func(*effort.Setup)) effort.Setup { s := plain; f(&s); return s }
	for reason, s := range map[string]effort.Setup{
		"outside the reachable":    change(func(s *effort.Setup) { s.To.ElbowFlexion = 151 }),
		"same at both ends":        change(func(s *effort.Setup) { s.To.ElbowFlexion = 10 }),
		"no positive demand":       {From: pose(180, 0, 0, 10, 80), To: pose(180, 0, 0, 90, 80), Load: effort.Load{Kind: effort.Free}},
		"hardly crosses the joint": cable(0, pose(0, 0, 0, 10, 80), pose(0, 0, 0, 12, 80), arm.Vec{0.469, -3.289, 0}),
		"within 5 cm":              cable(0, pose(0, 0, 0, 10, 80), pose(0, 0, 0, 140, 80), arm.Vec{0.3255, -0.3255, 0}),
		"not free, cable or cam":   change(func(s *effort.Setup) { s.Load.Kind = "band" }),
		"trunk_lean":               change(func(s *effort.Setup) { s.TrunkLean = math.Inf(1) }),
		"grip_offset":              change(func(s *effort.Setup) { s.GripOffset = math.NaN() }),
		"tempo":                    change(func(s *effort.Setup) { s.Tempo[0] = -1 }),
	} {
		_, err := y.Profile(s)
		require.Error(t, err, reason)
		assert.Contains(t, err.Error(), reason)
	}
	_, err := effort.NewYardstick(arm.Body{Stature: 0, BodyMass: 75})
	assert.ErrorContains(t, err, "stature")
	heavy := arm.Body{Stature: 2.7, BodyMass: 400}
	if y, err := effort.NewYardstick(heavy); err == nil {
		_, err = y.Profile(free(0, pose(90, 0, 0, 5, 0), pose(90, 0, 0, 90, 0)))
		assert.ErrorContains(t, err, "limbs alone")
	}
}

func TestBodySizeOnlyChangesLevers(t *testing.T) {
	tall, err := effort.NewYardstick(arm.Body{Stature: 1.95, BodyMass: 95})
	require.NoError(t, err)
	p, err := tall.Profile(effort.PlainCurl)
	require.NoError(t, err)
	assert.Less(t, p.Working, profile(t, effort.PlainCurl).Working, "longer levers carry less for the same effort")
	assert.Equal(t, profile(t, effort.PlainCurl).Heads[arm.BicepsLong].Longest, p.Heads[arm.BicepsLong].Longest)
}

func BenchmarkProfile(b *testing.B) {
	y := yardstick(b)
	reclined := free(-45, pose(-45, 0, 0, 5, 80), pose(-40, 0, 0, 135, 80))
	b.ReportAllocs()
	for b.Loop() {
		if _, err := y.Profile(reclined); err != nil {
			b.Fatal(err)
		}
	}
}

func ExampleYardstick_Profile() {
	y, _ := effort.NewYardstick(arm.DefaultBody)
	reclined, _ := y.Profile(effort.Setup{
		TrunkLean: -45,
		From:      arm.Posture{ShoulderElevation: -45, ElbowFlexion: 5, ForearmRotation: 80},
		To:        arm.Posture{ShoulderElevation: -40, ElbowFlexion: 135, ForearmRotation: 80},
		Load:      effort.Load{Kind: effort.Free},
	})
	long := reclined.Heads[arm.BicepsLong]
	fmt.Printf("%.2f × the plain curl's load, hardest at %.0f°, long head at %s length, stretch bias %.2f\n",
		reclined.Ratio, reclined.HardestAt(), long.Zone, long.Stretch)
	// Output: 1.07 × the plain curl's load, hardest at 125°, long head at long length, stretch bias 1.10
}
