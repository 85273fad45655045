package effort_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
)

func yardstick(t testing.TB) *effort.Yardstick {
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	return y
}

func profile(t testing.TB, s effort.Setup) *effort.Profile {
	p, err := yardstick(t).Profile(s)
	require.NoError(t, err)
	return p
}

// pose is s, ψ, ρ, e, φ.
func pose(s, psi, rho, e, phi float64) arm.Posture {
	return arm.Posture{ShoulderElevation: s, ElevationPlane: psi, ShoulderRotation: rho, ElbowFlexion: e, ForearmRotation: phi}
}

func free(lean float64, from, to arm.Posture) effort.Setup {
	return effort.Setup{TrunkLean: lean, From: from, To: to, Load: effort.Load{Kind: effort.Free}}
}

func cable(lean float64, from, to arm.Posture, pulley arm.Vec) effort.Setup {
	return effort.Setup{TrunkLean: lean, From: from, To: to, Load: effort.Load{Kind: effort.Cable, Pulley: pulley}}
}

// figures is share, plain, stretch, squeeze, mean length.
type figures [5]float64

// The published reference figures of the model: H 1.75 m, M 75 kg.
func TestReferenceFigures(t *testing.T) {
	withTempo := free(-45, pose(-45, 0, 0, 5, 80), pose(-40, 0, 0, 135, 80))
	withTempo.Tempo = effort.Tempo{3, 1, 1, 2}
	offset := free(0, pose(0, 0, 20, 10, 0), pose(20, 30, 30, 135, 80))
	offset.GripOffset = 0.03
	cam := effort.Setup{From: pose(50, 0, 0, 10, 80), To: pose(50, 0, 0, 130, 80), Load: effort.Load{Kind: effort.Cam}, ArmSupported: true}

	for _, c := range []struct {
		name          string
		setup         effort.Setup
		load, hardest float64
		heads         map[arm.HeadIndex]figures
	}{
		{"plain curl", effort.PlainCurl, 168.06, 123.75, map[arm.HeadIndex]figures{
			arm.BicepsLong: {1, 1, 1, 1, 0.8576}, arm.BicepsShort: {0.9650, 1, 1, 1, 0.8467},
			arm.Brachialis: {0.8160, 1, 1, 1, 0.8522}, arm.Brachioradialis: {0.9518, 1, 1, 1, 0.8561}}},
		{"neutral", free(0, pose(0, 0, 0, 10, 0), pose(10, 0, 0, 140, 0)), 173.61, 114, map[arm.HeadIndex]figures{
			arm.BicepsLong: {0.6066, 0.7788, 0.8319, 0.7441, 0.9391}, arm.BicepsShort: {0.5975, 0.7868, 0.8354, 0.7537, 0.9230},
			arm.Brachialis: {0.8798, 1.0384, 1.0519, 1.0265, 0.8615}, arm.Brachioradialis: {1, 1.0250, 1.0230, 1.0218, 0.8541}}},
		{"reclined", free(-45, pose(-45, 0, 0, 5, 80), pose(-40, 0, 0, 135, 80)), 180.14, 125.25, map[arm.HeadIndex]figures{
			arm.BicepsLong: {1, 1, 1.0953, 0.9441, 0.9712}, arm.BicepsShort: {0.9468, 0.9905, 1.1081, 0.9216, 0.9934},
			arm.Brachialis: {0.7171, 0.9375, 0.9801, 0.9075, 0.8833}, arm.Brachioradialis: {0.8493, 0.9447, 0.9819, 0.9189, 0.8910}}},
		{"reclined with tempo", withTempo, 180.14, 125.25, map[arm.HeadIndex]figures{
			arm.BicepsLong: {0.9929, 0.9965, 1.0184, 0.9947, 0.8846}, arm.BicepsShort: {1, 1.0180, 1.0662, 1, 0.9053},
			arm.Brachialis: {0.7229, 0.9412, 0.8969, 1.0012, 0.8056}, arm.Brachioradialis: {0.8058, 0.9201, 0.8868, 0.9686, 0.8100}}},
		{"every coordinate moves, off-centre", offset, 179.53, 100.62, map[arm.HeadIndex]figures{
			arm.BicepsLong: {0.8767, 0.9363, 0.9524, 0.9272, 0.8783}, arm.BicepsShort: {0.8642, 0.9464, 0.9647, 0.9354, 0.8706},
			arm.Brachialis: {0.8355, 1.0119, 1.0499, 0.9795, 0.8793}, arm.Brachioradialis: {1, 1.0250, 1.0465, 0.9999, 0.8768}}},
		{"cam on a pad", cam, 21.34, 10, map[arm.HeadIndex]figures{
			arm.BicepsLong: {0.8697, 0.9326, 0.9238, 0.9391, 0.8445}, arm.BicepsShort: {0.6950, 0.8486, 0.8025, 0.8832, 0.7780},
			arm.Brachialis: {0.8466, 1.0186, 1.1017, 0.9712, 0.9063}, arm.Brachioradialis: {1, 1.0250, 1.0988, 0.9846, 0.9185}}},
		{"overhead", free(0, pose(170, 0, 0, 140, 0), pose(170, 0, 0, 5, 0)), 61.71, 140, map[arm.HeadIndex]figures{
			arm.TricepsLong: {0.7445, 0.8755, 1.3321, 0.6776, 1.2580}, arm.TricepsLateral: {1, 1, 1.2402, 0.8664, 1.0062}}},
		{"push-down further out", cable(15, pose(15, 0, 0, 120, -80), pose(10, 0, 0, 5, -80), arm.Vec{0.8, 0.5, 0}), 114.10, 65.38,
			map[arm.HeadIndex]figures{
				arm.TricepsLong: {0.9887, 1.0089, 1.0147, 1.0054, 0.8883}, arm.TricepsLateral: {1, 1, 0.9893, 1.0071, 0.8976}}},
	} {
		t.Run(c.name, func(t *testing.T) {
			p := profile(t, c.setup)
			assert.InEpsilon(t, c.load, p.Working, 5e-4)
			assert.InDelta(t, c.hardest, p.HardestAt(), 0.006)
			for head, want := range c.heads {
				h := p.Heads[head]
				got := figures{h.Share, h.Plain, h.Stretch, h.Squeeze, h.Mean}
				for i, name := range []string{"share", "plain", "stretch", "squeeze", "mean length"} {
					assert.InDelta(t, want[i], got[i], 1.5e-4, "%s %s", arm.Heads[head].ID, name)
				}
			}
		})
	}
	overhead := profile(t, free(0, pose(170, 0, 0, 140, 0), pose(170, 0, 0, 5, 0)))
	require.Len(t, overhead.Idle, 1)
	assert.InDelta(t, 31.6, overhead.Idle[0][0], 0.06)
	assert.InDelta(t, 5, overhead.Idle[0][1], 1e-9)
}
