package movement_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

func yardstick(t testing.TB) *effort.Yardstick {
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	return y
}

func TestTheCatalogueIsComplete(t *testing.T) {
	want := strings.Fields(`curl_standing_bar curl_standing_dumbbells curl_turning curl_neutral curl_neutral_across curl_palms_down_bar
		curl_palms_down_dumbbells curl_up_palms_lower_down curl_drag curl_reclined curl_reclined_outward curl_pad_bar
		curl_pad_one_dumbbell curl_pad_neutral curl_pad_palms_down curl_pad_steep_side curl_chest_supported
		curl_chest_supported_palms_down curl_chest_supported_hold curl_braced_thigh curl_braced_thigh_across
		curl_seated_thigh_guarded curl_kneeling_two_hand curl_upright_two_hand curl_to_side_two_hand curl_squat_knees_bar
		curl_squat_knees_cable curl_cable_low curl_cable_facing_away curl_cable_outward curl_cable_arms_high
		curl_cable_behind_head curl_rope_neutral curl_rope_across curl_rope_reclined_high curl_cable_reclined_palms_down
		curl_cable_floor curl_cable_seated_row_station curl_parallel_bar curl_braced_plate turn_lever pushdown_bar
		pushdown_underhand pushdown_rope pushdown_one_arm extension_across overhead_cable_low overhead_cable_lean
		overhead_one_dumbbell_two_hands overhead_two_dumbbells overhead_one_arm overhead_bar lying_bar lying_dumbbells
		floor_dumbbells incline_dumbbells incline_bar rolling_dumbbells kickback_dumbbell kickback_cable kickback_chest_supported
		kickback_swing_start bodyweight_bar press_bench_wide press_incline press_machine pushup press_bench_close press_floor
		press_neutral_dumbbells pushup_close press_pin_top press_rail_partial_close dip_bars dip_assisted dip_weighted dip_bench
		press_folding_dumbbells press_extension_hybrid press_overhead pullup_underhand pulldown_underhand pullup_neutral
		pulldown_wide row_neutral row_overhand
		curl_cable_lying_high lying_cable incline_cable overhead_cable_one_arm pullup_overhand pullup_assisted
		press_dumbbells_palms_down press_decline press_overhead_dumbbells`)
	var got []string
	for _, m := range movement.Shipped.Movements {
		got = append(got, m.ID)
		assert.NotEmpty(t, m.Stop, m.ID)
		assert.NotEmpty(t, m.FaultsOf(), m.ID)
	}
	assert.ElementsMatch(t, want, got)
}

// Each setting over its whole range, one at a time: computed sanely or refused
// with a reason, and every value has a name and a series of its own.
func TestEverySettingOverItsRange(t *testing.T) {
	y := yardstick(t)
	for _, m := range movement.Shipped.Movements {
		if m.Computed() {
			_, err := m.Default().Profile(y)
			require.NoError(t, err, "%s by default", m.ID)
		}
		for i := range m.Settings {
			setting := &m.Settings[i]
			if !m.Default().Uses(setting.Key) {
				continue
			}
			names, keys := map[string]bool{}, map[string]bool{}
			computed := 0
			for _, v := range setting.Values() {
				s, err := m.SetUp(map[movement.Key]movement.Value{setting.Key: v})
				if err != nil { // ends too close together
					require.Regexp(t, "apart|off the middle", err.Error(), "%s %s %v", m.ID, setting.Key, v)
					continue
				}
				got, _ := s.Value(setting.Key)
				assert.Equal(t, v, got)
				assert.False(t, names[s.Name()], "%s: %q twice", m.ID, s.Name())
				assert.False(t, keys[s.Key()], "%s: %q twice", m.ID, s.Key())
				names[s.Name()], keys[s.Key()] = true, true
				if !m.Computed() {
					continue
				}
				p, err := s.Profile(y)
				if err != nil {
					var refused *effort.Refused
					require.ErrorAs(t, err, &refused)
					continue
				}
				computed++
				assert.Greater(t, p.Working, 0.0)
			}
			if m.Computed() {
				assert.Greater(t, computed, 0, "%s %s", m.ID, setting.Key)
			}
			assert.True(t, names[m.Default().Name()], "%s %s: the default is among the steps", m.ID, setting.Key)
		}
	}
}

func TestRandomCombinationsAreSnappedAndNeverNonsense(t *testing.T) {
	y := yardstick(t)
	r := rand.New(rand.NewPCG(21, 22))
	computed := 0
	for range 2000 {
		m := movement.Shipped.Movements[r.IntN(len(movement.Shipped.Movements))]
		turned := map[movement.Key]movement.Value{}
		for i := range m.Settings {
			s := &m.Settings[i]
			if r.IntN(2) == 0 {
				continue
			}
			if s.IsWord() {
				turned[s.Key] = movement.Word(s.Choices[r.IntN(len(s.Choices))])
			} else {
				turned[s.Key] = movement.Num(s.Min + r.Float64()*(s.Max-s.Min))
			}
		}
		s, err := m.SetUp(turned)
		if err != nil {
			continue
		}
		again, err := m.SetUp(s.Turned())
		require.NoError(t, err)
		require.Equal(t, s.Key(), again.Key(), "snapping twice changes nothing")
		if !m.Computed() {
			credits, ok := s.Credits()
			require.True(t, ok)
			for _, c := range credits {
				require.True(t, 0 <= c.Low && c.Low <= c.Mid && c.Mid <= c.High && c.High <= 1.1)
			}
			continue
		}
		if p, err := s.Profile(y); err == nil {
			computed++
			for _, h := range p.Heads {
				require.GreaterOrEqual(t, h.Plain, 0.0)
				require.False(t, h.Plain != h.Plain, "not a number")
			}
		}
	}
	assert.Greater(t, computed, 500)
}

func TestSnappingCountsFromTheDefault(t *testing.T) {
	kick := movement.Shipped.Get("kickback_cable")
	s, err := kick.SetUp(map[movement.Key]movement.Value{movement.ElbowTo: movement.Num(10)})
	require.NoError(t, err)
	assert.Equal(t, 8.0, s.Number(movement.ElbowTo), "3, 8, 13 … are the steps of an elbow that ends at 3°")
	s, err = kick.SetUp(map[movement.Key]movement.Value{movement.ElbowTo: movement.Num(0)})
	require.NoError(t, err)
	assert.Equal(t, 3.0, s.Number(movement.ElbowTo), "the nearest step inside the limits")
}

func TestSettingsOutsideTheirLimitsAreNamed(t *testing.T) {
	reclined := movement.Shipped.Get("curl_reclined")
	for _, c := range []struct {
		key    movement.Key
		value  movement.Value
		reason string
	}{
		{movement.Bench, movement.Num(80), "80° is outside 45…75°"},
		{movement.Bench, movement.Word("flat"), "is not a number"},
		{movement.Hands, movement.Word("three"), "none of both, alternate"},
		{movement.PadSlope, movement.Num(40), "no such setting"},
		{movement.ElbowTo, movement.Num(20), "30° apart"},
	} {
		_, err := reclined.SetUp(map[movement.Key]movement.Value{c.key: c.value})
		var field *movement.FieldError
		require.ErrorAs(t, err, &field)
		assert.Equal(t, string(c.key), field.Field)
		assert.Contains(t, field.Reason, c.reason)
	}
}

func TestSettingsTurnTheSetUp(t *testing.T) {
	turn := func(id string, k movement.Key, v movement.Value) effort.Setup {
		s, err := movement.Shipped.Get(id).SetUp(map[movement.Key]movement.Value{k: v})
		require.NoError(t, err)
		return s.Effort()
	}
	e := turn("curl_reclined", movement.Bench, movement.Num(60))
	assert.Equal(t, -30.0, e.TrunkLean)
	assert.Equal(t, [2]float64{-30, -25}, [2]float64{e.From.ShoulderElevation, e.To.ShoulderElevation})
	e = turn("curl_chest_supported", movement.Bench, movement.Num(30))
	assert.Equal(t, [2]float64{60, 60}, [2]float64{e.TrunkLean, e.From.ShoulderElevation})
	e = turn("curl_pad_bar", movement.PadSlope, movement.Num(60))
	assert.Equal(t, 30.0, e.To.ShoulderElevation)
	e = turn("lying_bar", movement.Tilt, movement.Num(0))
	assert.Equal(t, [2]float64{90, 85}, [2]float64{e.From.ShoulderElevation, e.To.ShoulderElevation})
	e = turn("curl_standing_bar", movement.GripWidth, movement.Num(1.6))
	assert.InDelta(t, 30, e.To.ShoulderRotation, 1e-9)
	e = turn("curl_cable_facing_away", movement.PulleyDistance, movement.Num(1.2))
	assert.Equal(t, arm.Vec{-1.2, -1.1, 0}, e.Load.Pulley)
	e = turn("overhead_cable_low", movement.PulleyHeight, movement.Num(0.6))
	assert.Equal(t, 0.6, e.Load.Pulley[1])
}

// Catalogue properties the model promises at the defaults.
func TestLongHeadOfTheTricepsOverTheCatalogue(t *testing.T) {
	y := yardstick(t)
	for _, m := range movement.Shipped.Movements {
		if m.Action != movement.Extension || !m.Computed() {
			continue
		}
		p, err := m.Default().Profile(y)
		require.NoError(t, err)
		long := p.Heads[arm.TricepsLong]
		switch m.Family.ID {
		case "overhead", "lying":
			assert.Greater(t, long.Stretch, 1.2, m.ID)
			assert.Less(t, long.Squeeze, 0.82, m.ID)
		case "kickback":
			assert.Less(t, long.Stretch, 0.9, m.ID)
			assert.Greater(t, long.Squeeze, 1.0, m.ID)
		}
	}
}

func TestGradedCredits(t *testing.T) {
	press := movement.Shipped.Get("press_bench_close")
	long := func(turned map[movement.Key]movement.Value) float64 {
		s, err := press.SetUp(turned)
		require.NoError(t, err)
		c, ok := s.Credits()
		require.True(t, ok)
		return c[arm.TricepsLong].Mid
	}
	width := func(w float64) map[movement.Key]movement.Value {
		return map[movement.Key]movement.Value{movement.GripWidth: movement.Num(w)}
	}
	assert.InDelta(t, 0.3, long(nil), 1e-9)
	assert.InDelta(t, 0.2, long(width(1.3)), 1e-9, "half-way between close and wide")
	assert.InDelta(t, 0.1, long(width(1.6)), 1e-9)
	assert.InDelta(t, 0.1, long(width(2.0)), 1e-9)
	assert.InDelta(t, 0.3, long(width(0.6)), 1e-9, "nothing gained by closer hands")
	assert.InDelta(t, 0.1, long(map[movement.Key]movement.Value{movement.Tuck: movement.Num(65)}), 1e-9)
	dip, err := movement.Shipped.Get("dip_bars").SetUp(map[movement.Key]movement.Value{movement.Lean: movement.Num(20)})
	require.NoError(t, err)
	c, _ := dip.Credits()
	assert.Equal(t, movement.Credit{Low: 0.5, Mid: 0.7, High: 0.9}, c[arm.TricepsLateral])
}

func TestWhatNobodyCanTakeUpIsRefused(t *testing.T) {
	deep, err := movement.Shipped.Get("overhead_cable_low").SetUp(map[movement.Key]movement.Value{
		movement.Lean: movement.Num(60), movement.PulleyHeight: movement.Num(-1.1)})
	require.NoError(t, err)
	assert.NoError(t, deep.Reach(arm.DefaultBody), "1.18 m of room below a shoulder that leans 60°")
	err = deep.Reach(arm.Body{Stature: 1.55, BodyMass: 55})
	assert.ErrorContains(t, err, "below the floor", "a short person's shoulder is nearer to it")
}

func ExampleSetUp_Name() {
	reclined := movement.Shipped.Get("curl_reclined")
	s, _ := reclined.SetUp(map[movement.Key]movement.Value{movement.Bench: movement.Num(61), movement.ElbowFrom: movement.Num(15)})
	fmt.Println(s.Name())
	fmt.Println(s.Key())
	// Output:
	// Reclined 60° curl, two dumbbells, palms up, elbow from 15°
	// curl_reclined?bench=60&e_from=15
}

// The client's page is there for every movement, in words without jargon.
func TestExplanations(t *testing.T) {
	y := yardstick(t)
	for _, m := range movement.Shipped.Movements {
		s := m.Default()
		var p *effort.Profile
		if m.Computed() {
			var err error
			p, err = s.Profile(y)
			require.NoError(t, err)
		}
		text := strings.Join(s.Explain(p), " ")
		assert.Greater(t, len(text), 100, m.ID)
		for _, jargon := range []string{"bias", "moment", "supinat", "pronat", "flexion", "fibre", "NaN", "_"} {
			assert.NotContains(t, text, jargon, m.ID)
		}
	}
}

// The exceptions of the families' joint scores, by movement and by setting.
func TestJointScoresWithTheirExceptions(t *testing.T) {
	for id, want := range map[string]movement.JointScores{
		"curl_standing_bar":       {Wrist: 2, ElbowFront: 1, ShoulderFront: 1}, // a straight bar
		"curl_standing_dumbbells": {Wrist: 1, ElbowFront: 1, ShoulderFront: 1},
		"curl_reclined":           {Wrist: 1, ElbowFront: 2, ShoulderFront: 3}, // a bench under 55°
		"curl_pad_bar":            {Wrist: 1, ElbowFront: 3, ShoulderFront: 1},
		"curl_pad_steep_side":     {Wrist: 1, ElbowFront: 2, ShoulderFront: 1},
		"curl_pad_neutral":        {Wrist: 1, ElbowFront: 3, ShoulderFront: 1}, // as on a pad
		"overhead_cable_low":      {Wrist: 1, ElbowBack: 2, ShoulderFront: 1, ShoulderTop: 2},
		"overhead_bar":            {Wrist: 1, ElbowBack: 3, ShoulderFront: 1, ShoulderTop: 2},
		"lying_dumbbells":         {Wrist: 1, ElbowBack: 3, ShoulderFront: 1, ShoulderTop: 1},
		"dip_assisted":            {Wrist: 1, ElbowBack: 2, ShoulderFront: 2, ShoulderTop: 1},
		"row_neutral":             {Wrist: 1, ElbowFront: 2, ShoulderFront: 1},
		"turn_lever":              {Wrist: 3, ElbowFront: 1, ShoulderFront: 1},
	} {
		assert.Equal(t, want, movement.Shipped.Get(id).Default().Joints(), id)
	}
	steep, err := movement.Shipped.Get("curl_reclined").SetUp(map[movement.Key]movement.Value{movement.Bench: movement.Num(55)})
	require.NoError(t, err)
	assert.Equal(t, 2, steep.Joints().ShoulderFront)
}
