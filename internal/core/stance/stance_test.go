package stance

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/datafile"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

func profiled(t testing.TB, id string, turned map[movement.Key]movement.Value) (movement.SetUp, *effort.Profile) {
	s, err := movement.Shipped.Get(id).SetUp(turned)
	require.NoError(t, err)
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	if !s.Movement.Computed() {
		return s, nil
	}
	p, err := s.Profile(y)
	require.NoError(t, err)
	return s, p
}

func TestPredicates(t *testing.T) {
	f := Fields{
		"s":             Num(50),
		"lambda":        Num(10),
		"e_from":        Num(40),
		"action":        Name("flexion"),
		"arm_supported": Yes(true),
		"implement":     Name("rope"),
		"phi":           Num(-20),
	}
	for text, want := range map[string]bool{
		"action == flexion":                               true,
		"action != flexion":                               false,
		"action in [press, flexion]":                      true,
		"s >= 35 and s <= 110":                            true,
		"s < 35 or arm_supported":                         true,
		"not arm_supported":                               false,
		"e_from >= 80 - s + lambda":                       true,
		"abs(phi) >= 20":                                  true,
		"phi >= -20":                                      true,
		"pulley_x <= 5":                                   false,
		"pulley_x > -5":                                   false,
		"not pulley_x > 5":                                true,
		"s == flexion":                                    false,
		"action == press and s > 0 or arm_supported":      true,
		"action == press and (s > 0 or arm_supported)":    false,
		"grip_plan and implement in [bar_straight, rope]": false,
	} {
		p, err := Parse(text)
		require.NoError(t, err, text)
		assert.Equal(t, want, p.Holds(f), text)
	}
	for _, bad := range []string{"", "s >", "s > 3 4", "action in flexion", "(s > 3", "s ~ 3", "action in [a", "abs(s"} {
		_, err := Parse(bad)
		assert.Error(t, err, bad)
	}
}

func TestTheBookIsWhole(t *testing.T) {
	assert.Len(t, Shipped.Rules, 122)
	assert.Len(t, Shipped.Wrong, 42)
	assert.NotEmpty(t, Shipped.Disputes)
	findings := 0
	for _, r := range Shipped.Rules {
		for line, recorded := range r.Card() {
			assert.Contains(t, CardFields, line)
			assert.NotEmpty(t, recorded, "%s: %s", r.ID, line)
		}
		if r.Finding {
			findings++
		}
		for _, s := range r.Stances {
			assert.True(t, s == "house" || ByID(s) != nil, "%s: %s", r.ID, s)
		}
	}
	assert.Equal(t, 8, findings)
	require.NotNil(t, ByID(Default))
}

func TestEveryFaultIsListedAtOnce(t *testing.T) {
	_, wrong := load([]byte(`
- {id: a, says: x, when: "s >", grade: F, mechanism: holds, tilt: {biceps_long: 2, elbow: 1}}
- {id: a, says: "", when: "s > 3", grade: A, mechanism: maybe, disputes: [nobody]}
`), []byte("[]"), []byte("[]"), []byte("[]"))
	err := datafile.Join(wrong)
	for _, want := range []string{"rules.yaml:2: entry 1 (a): when", "entry 1 (a): grade", "entry 1 (a): kind",
		"entry 1 (a): tilt: biceps_long 2 is outside", "there is no head \"elbow\"",
		"entry 2 (a): says: missing", "entry 2 (a): mechanism", "rules.yaml:3: entry 2 (a): id: a is taken", "lever: missing",
		"there is no rule \"nobody\""} {
		assert.ErrorContains(t, err, want)
	}
	_, wrong = load([]byte("- {id: a, sayz: x}"), []byte("[]"), []byte("[]"), []byte("[]"))
	err = datafile.Join(wrong)
	assert.ErrorContains(t, err, "rules.yaml:1: entry 1 (a): sayz: there is no such field")
}

func TestLeverageIsThePlainBiasAndStretchTheStretchBias(t *testing.T) {
	s, p := profiled(t, "curl_reclined", nil)
	lever, stretch := Shipped.Read(ByID("leverage"), s, p), Shipped.Read(ByID("stretch"), s, p)
	for h := range p.Heads {
		assert.Equal(t, p.Heads[h].Plain, lever[h].Bar)
		assert.Equal(t, p.Heads[h].Stretch, stretch[h].Bar)
	}
}

func TestArmPathTiltsBehindTheBody(t *testing.T) {
	s, p := profiled(t, "curl_reclined", nil)
	path := Shipped.Read(ByID("arm_path"), s, p)
	assert.InDelta(t, p.Heads[arm.BicepsLong].Plain*1.10, path[arm.BicepsLong].Bar, 1e-12)
	assert.InDelta(t, p.Heads[arm.BicepsShort].Plain*0.95, path[arm.BicepsShort].Bar, 1e-12)
	balanced := Shipped.Read(ByID("balanced"), s, p)
	want := math.Sqrt(p.Heads[arm.BicepsLong].Plain*p.Heads[arm.BicepsLong].Stretch) * math.Sqrt(1.10)
	assert.InDelta(t, want, balanced[arm.BicepsLong].Bar, 1e-12)
	require.Len(t, balanced[arm.BicepsLong].Terms, 1)
	assert.Equal(t, "r_arm_behind_long", balanced[arm.BicepsLong].Terms[0].Rule.ID)
}

func TestTheTwoWidthReadingsAreMirrored(t *testing.T) {
	s, p := profiled(t, "curl_standing_bar", map[movement.Key]movement.Value{movement.GripWidth: movement.Num(0.7)})
	hand, other := Shipped.Read(ByID("hand"), s, p), Shipped.Read(ByID("hand_reversed_width"), s, p)
	plain := p.Heads[arm.BicepsLong].Plain
	assert.InDelta(t, plain*1.08, hand[arm.BicepsLong].Bar, 1e-12)
	assert.InDelta(t, plain, other[arm.BicepsLong].Bar, 1e-12, "the other reading's reason does not hold, so it counts nothing")
	assert.InDelta(t, plain*0.95, other[arm.BicepsLong].Hollow, 1e-12, "but a hollow mark shows it")
}

func TestAHandThatPicksATricepsHeadIsHollow(t *testing.T) {
	s, p := profiled(t, "pushdown_bar", nil)
	r := Shipped.Read(ByID("hand"), s, p)
	assert.Equal(t, r[arm.TricepsLateral].Base, r[arm.TricepsLateral].Bar)
	assert.InDelta(t, r[arm.TricepsLateral].Base*1.08, r[arm.TricepsLateral].Hollow, 1e-12)
	assert.False(t, r[arm.TricepsLateral].Terms[0].Counts)
}

func TestGradedWorkStaysInItsRange(t *testing.T) {
	s, _ := profiled(t, "press_bench_close", nil)
	for i := range Stances {
		r := Shipped.Read(&Stances[i], s, nil)
		assert.Equal(t, [3]float64{0.3, 0.1, 0.6}, [3]float64{r[arm.TricepsLong].Bar, r[arm.TricepsLong].Low, r[arm.TricepsLong].High})
	}
}

// Over the whole catalogue: the bar lies on the whisker, the product never
// leaves 0.75–1.25, and without rules the base is left exactly.
func TestOverTheCatalogue(t *testing.T) {
	all := Stance{ID: "all", Base: Plain}
	for _, r := range Shipped.Rules {
		all.Rules = append(all.Rules, r.ID)
	}
	for _, m := range movement.Shipped.Movements {
		s, p := profiled(t, m.ID, nil)
		fired := Shipped.Fired(FieldsOf(s, p))
		for _, folklore := range []bool{false, true} {
			for _, x := range all.product(fired, folklore) {
				assert.True(t, x >= 0.75 && x <= 1.25, m.ID)
			}
		}
		bare := Stance{Base: Balanced}
		for h, b := range Shipped.Read(&bare, s, p) {
			assert.Equal(t, b.Base, b.Bar, "%s %d", m.ID, h)
		}
		for i := range Stances {
			for h, b := range Shipped.Read(&Stances[i], s, p) {
				assert.True(t, b.Bar >= b.Low-1e-12 && b.Bar <= b.High+1e-12, "%s %s head %d", m.ID, Stances[i].ID, h)
			}
		}
	}
}

func BenchmarkCatalogueUnderAStance(b *testing.B) {
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(b, err)
	for b.Loop() {
		for _, m := range movement.Shipped.Movements {
			s := m.Default()
			var p *effort.Profile
			if m.Computed() {
				p, _ = s.Profile(y)
			}
			Shipped.Read(ByID(Default), s, p)
		}
	}
}

func BenchmarkCatalogueUnderAllStances(b *testing.B) {
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(b, err)
	for b.Loop() {
		for _, m := range movement.Shipped.Movements {
			s := m.Default()
			var p *effort.Profile
			if m.Computed() {
				p, _ = s.Profile(y)
			}
			for i := range Stances {
				Shipped.Read(&Stances[i], s, p)
			}
		}
	}
}

func ExampleBook_Read() {
	s := movement.Shipped.Get("curl_reclined").Default()
	y, _ := effort.NewYardstick(arm.DefaultBody)
	p, _ := s.Profile(y)
	long := Shipped.Read(ByID("balanced"), s, p)[arm.BicepsLong]
	fmt.Printf("%.2f, all stances %.2f to %.2f\n", long.Bar, long.Low, long.High)
	// Output: 1.10, all stances 0.94 to 1.10
}

// What no token can begin with is a fault at once, whatever a letter of another
// alphabet begins with in bytes.
func TestAPredicateOfOtherSigns(t *testing.T) {
	for _, text := range []string{"bänke > 3", "action == flexion and é", "\xff", "s_from > ½"} {
		_, err := Parse(text)
		assert.ErrorContains(t, err, "not understood", text)
	}
}
