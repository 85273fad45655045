package movement_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
)

func setUp(t testing.TB, id string, turned movement.Settings) movement.SetUp {
	s, err := movement.Shipped.Get(id).SetUp(turned)
	require.NoError(t, err, id)
	return s
}

func held(w movement.ImplementID) movement.Settings {
	return movement.Settings{movement.Implement: movement.Word(string(w))}
}

// What a bar's shape does to the hands: fully turned on a straight one, half on a
// cambered one, thumbs up between parallel handles and on a rope.
func TestABarTurnsTheHands(t *testing.T) {
	for _, c := range []struct {
		id   string
		with movement.Settings
		phi  [2]float64
		says string
	}{
		{"curl_standing_bar", nil, [2]float64{80, 80}, "palms up"},
		{"curl_standing_bar", held(movement.BarCambered), [2]float64{45, 45}, "palms half up"},
		{"curl_palms_down_bar", held(movement.BarCambered), [2]float64{-45, -45}, "palms half down"},
		{"curl_pad_palms_down", held(movement.Dumbbell), [2]float64{-80, -80}, "palms down"},
		{"curl_cable_behind_head", held(movement.BarCambered), [2]float64{45, 45}, "palms half up"},
		{"curl_cable_low", held(movement.Handle), [2]float64{80, 80}, "palms up"},
		{"pushdown_bar", held(movement.BarV), [2]float64{-45, -45}, "palms half down"},
		{"overhead_cable_low", nil, [2]float64{0, 0}, "thumbs up"},
		{"overhead_cable_low", held(movement.BarStraight), [2]float64{-80, -80}, "palms down"},
		{"overhead_cable_low", held(movement.BarV), [2]float64{-45, -45}, "palms half down"},
		{"lying_cable", held(movement.Rope), [2]float64{0, 0}, "thumbs up"},
		{"incline_cable", held(movement.BarParallel), [2]float64{0, 0}, "thumbs up"},
	} {
		s := setUp(t, c.id, c.with)
		e := s.Effort()
		assert.Equal(t, c.phi, [2]float64{e.From.ForearmRotation, e.To.ForearmRotation}, c.id)
		assert.Contains(t, s.Name(), c.says, c.id)
	}
	// A hand turned by its own setting stays as it was turned.
	y := yardstick(t)
	half, err := setUp(t, "curl_standing_bar", held(movement.BarCambered)).Profile(y)
	require.NoError(t, err)
	full, err := setUp(t, "curl_standing_bar", nil).Profile(y)
	require.NoError(t, err)
	assert.Less(t, half.Heads[arm.BicepsLong].Plain, full.Heads[arm.BicepsLong].Plain, "palms half up is less the biceps'")
}

// Hold, wrist and handle move no head, but make a series of their own.
func TestTheHoldIsPartOfTheKeyAndOfNothingElse(t *testing.T) {
	for _, m := range movement.Shipped.Movements {
		hold := m.Setting(movement.Hold)
		if !m.Computed() || hold == nil {
			continue
		}
		d := m.Default()
		seen := map[string]bool{d.Key(): true}
		for key, words := range map[movement.Key][]string{movement.Hold: hold.Choices[1:], movement.WristKey: {"cupped", "tilted_up"},
			movement.ThickHandle: {"yes"}} {
			for _, w := range words {
				s, err := d.With(key, movement.Word(w))
				require.NoError(t, err, m.ID)
				assert.Equal(t, d.Effort(), s.Effort(), "%s %s", m.ID, w)
				assert.False(t, seen[s.Key()], s.Key())
				seen[s.Key()] = true
			}
		}
		if f := m.Family.ID; f == "lying" || f == "overhead" {
			assert.NotContains(t, hold.Choices, "thumb_over", "%s: what is over the body could roll out", m.ID)
		}
	}
	for _, id := range []string{"curl_upright_two_hand", "overhead_one_dumbbell_two_hands"} {
		assert.Equal(t, "both_hands", setUp(t, id, nil).HoldWord(), id)
		assert.Nil(t, movement.Shipped.Get(id).Setting(movement.Hold), id)
	}
}

// Arms that hang keep hanging when the trunk leans; the row station's keep their
// direction as well.
func TestArmsThatKeepTheirDirection(t *testing.T) {
	e := setUp(
		t,
		"curl_standing_bar",
		movement.Settings{movement.Lean: movement.Num(20), movement.ShoulderTo: movement.Num(20)},
	).Effort()
	assert.Equal(t, [3]float64{20, 20, 40}, [3]float64{e.TrunkLean, e.From.ShoulderElevation, e.To.ShoulderElevation})
	e = setUp(t, "curl_cable_seated_row_station", movement.Settings{movement.Lean: movement.Num(-10)}).Effort()
	assert.Equal(t, 10.0, e.From.ShoulderElevation, "20° + the lean")
	e = setUp(t, "incline_bar", movement.Settings{movement.Bench: movement.Num(30)}).Effort()
	assert.Equal(t, 90.0+30+15, e.From.ShoulderElevation)
	e = setUp(t, "lying_bar", movement.Settings{movement.GripWidth: movement.Num(1.3)}).Effort()
	assert.InDelta(t, 25, e.From.ShoulderRotation, 1e-9, "counted from its own width, 0.8")
}

// Where one sits or kneels the pulley is just above the floor, by stature.
func TestThePulleyStaysAboveTheFloor(t *testing.T) {
	for _, at := range []movement.Position{movement.Seated, movement.Kneeling} {
		s := setUp(t, "overhead_cable_one_arm", movement.Settings{movement.PositionKey: movement.Word(string(at))})
		for _, stature := range []float64{1.5, 1.75, 2.0} {
			e := s.EffortFor(stature)
			above := movement.FloorBelow(at, e.TrunkLean, stature) + e.Load.Pulley[1]
			assert.GreaterOrEqual(t, above, 0.05-1e-9, "%s at %.2f m", at, stature)
			assert.NoError(t, s.Reach(arm.Body{Stature: stature, BodyMass: 70}))
		}
	}
	assert.InDelta(t, 0.43+0.5, movement.FloorBelow(movement.Kneeling, 0, 1.75), 1e-9)
}

func TestAOneSidedWeightGivesMoreRoomForTheHand(t *testing.T) {
	far := movement.Settings{movement.GripOffset: movement.Num(0.10)}
	_, err := movement.Shipped.Get("curl_turning").SetUp(far)
	assert.ErrorContains(t, err, "one-sided")
	far[movement.Implement] = movement.Word(string(movement.Lever))
	s := setUp(t, "curl_turning", far)
	assert.Equal(t, 0.10, s.Effort().GripOffset)
	assert.Equal(t, 3, s.Joints().Wrist)
	assert.Contains(t, s.Name(), "one-sided weight")
}

// The assisted pull-up takes its grip's row; on a pad a free hand makes it safe.
func TestGripsAndFreeHands(t *testing.T) {
	for grip, as := range map[string]string{"overhand": "pullup_overhand", "neutral": "pullup_neutral", "underhand": "pullup_underhand"} {
		got, ok := setUp(t, "pullup_assisted", movement.Settings{movement.Grip: movement.Word(grip)}).Credits()
		require.True(t, ok)
		want, _ := setUp(t, as, nil).Credits()
		assert.Equal(t, want, got, grip)
	}
	assert.Equal(t, movement.AloneNo, setUp(t, "curl_pad_palms_down", nil).SafeAlone())
	one := held(movement.Dumbbell)
	one[movement.Hands] = movement.Word(movement.OneArm)
	assert.Equal(t, movement.AloneYes, setUp(t, "curl_pad_palms_down", one).SafeAlone())
	assert.Equal(
		t,
		movement.AloneNo,
		setUp(t, "curl_pad_one_dumbbell", movement.Settings{movement.Hands: movement.Word(movement.BothArms)}).SafeAlone(),
	)
}
