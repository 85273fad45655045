package effort

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
)

// problem makes one random sharing problem out of a random posture.
func problem(r *rand.Rand) (pulls [arm.HeadCount]pull, support, torque [arm.Axes]float64) {
	in := func(lo, hi float64) float64 { return lo + r.Float64()*(hi-lo) }
	p := arm.Posture{
		ShoulderElevation: in(-60, 180),
		ElevationPlane:    in(-45, 100),
		ShoulderRotation:  in(-70, 80),
		ElbowFlexion:      in(0, 150),
		ForearmRotation:   in(-80, 80),
	}
	rig := newRig(arm.DefaultBody, &Setup{To: arm.Posture{ElbowFlexion: 1}, Load: Load{Kind: Free}, GripOffset: in(-0.05, 0.05)})
	var s sample
	s.take(&rig, p)
	support = supports(p.ForearmRotation, r.IntN(2) == 0)
	for j := range torque {
		torque[j] = in(-40, 40)
	}
	return s.pulls, support, torque
}

// enumerate tries every active set and returns the activations of the one that
// meets the optimality conditions.
func enumerate(pulls *[arm.HeadCount]pull, support, torque *[arm.Axes]float64) (a [arm.HeadCount]float64, found bool) {
	for set := range 1 << arm.HeadCount {
		var active [arm.HeadCount]bool
		for m := range active {
			active[m] = set&(1<<m) != 0
		}
		lambda := newton(pulls, support, torque, &active)
		ok := true
		for m := range active {
			if active[m] != (dot(&pulls[m].arms, &lambda) > 0) {
				ok = false
				break
			}
		}
		if !ok {
			continue
		}
		for m := range active {
			a[m] = max(0, pulls[m].force*dot(&pulls[m].arms, &lambda)/pulls[m].cost)
		}
		return a, true
	}
	return a, false
}

func TestSharingAgreesWithEnumeration(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	var s sharer // warm from one unrelated problem to the next: the worst start there is
	for i := range 1000 {
		pulls, support, torque := problem(r)
		want, found := enumerate(&pulls, &support, &torque)
		require.True(t, found, "problem %d has an optimal active set", i)
		got := s.split(&pulls, &support, &torque)
		for m := range want {
			require.InDelta(t, want[m], got[m], 1e-9, "problem %d head %d", i, m)
		}
	}
}

// What the heads and the supports give adds up to what is asked for.
func TestSharingBalancesEveryAxis(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 8))
	for range 200 {
		pulls, support, torque := problem(r)
		var s sharer
		a := s.split(&pulls, &support, &torque)
		lambda := newton(&pulls, &support, &torque, &s.active)
		for j := range torque {
			sum := support[j] * lambda[j]
			for m := range a {
				assert.GreaterOrEqual(t, a[m], 0.0)
				sum += a[m] * pulls[m].force * pulls[m].arms[j]
			}
			require.InDelta(t, torque[j], sum, 1e-8)
		}
	}
}

// A shortened step never raises the dual, so a cycle of active sets must end.
func TestDampedStepsLowerTheDual(t *testing.T) {
	r := rand.New(rand.NewPCG(9, 10))
	for range 200 {
		pulls, support, torque := problem(r)
		var s sharer
		from := [arm.Axes]float64{r.NormFloat64(), r.NormFloat64(), r.NormFloat64(), r.NormFloat64()}
		for m := range s.active {
			s.active[m] = dot(&pulls[m].arms, &from) > 0
		}
		to := s.damp(&pulls, &support, &torque, from, newton(&pulls, &support, &torque, &s.active))
		assert.LessOrEqual(t, dual(&pulls, &support, &torque, &to), dual(&pulls, &support, &torque, &from))
	}
}

func TestIdleStretchesAreInterpolatedAndShortOnesDropped(t *testing.T) {
	var elbow, curve [Samples]float64
	for i := range elbow {
		elbow[i] = float64(i) * 2
		curve[i] = 0.5
	}
	curve[10] = 0 // a dip of 2·(0.5−0.1875)/0.5 … wide enough is 2.5° less, so it is dropped
	assert.Empty(t, idle(&elbow, &curve))
	curve[11] = 0
	got := idle(&elbow, &curve)
	require.Len(t, got, 1)
	assert.InDelta(t, 18+2*(0.5-IdleBelow)/0.5, got[0][0], 1e-9)
	assert.InDelta(t, 22+2*IdleBelow/0.5, got[0][1], 1e-9)
	for i := range curve {
		curve[i] = 0
	}
	assert.Equal(t, [][2]float64{{0, 80}}, idle(&elbow, &curve))
}

func TestTempoAverages(t *testing.T) {
	var a average
	for i := range Samples {
		a.add(i, float64(i))
	}
	assert.Equal(t, 20.0, a.over(Tempo{}))
	assert.InDelta(t, (4*20.0+1*0+2*40)/7, a.over(Tempo{3, 1, 1, 2}), 1e-12)
	assert.False(t, math.IsNaN(a.over(Tempo{0, 0, 0, 0})))
}
