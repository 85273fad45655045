package week_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/stance"
	"musculus/internal/core/week"
)

// leverage is the plain bias, whatever coaches hold.
var leverage = stance.ByID("leverage")

func slot(id string, sets, reserve int) plan.Slot {
	return plan.Of(
		movement.Shipped.Get(id).Default(),
		dose.Dose{Sets: sets, RepsLow: 8, RepsHigh: 12, Reserve: reserve, RestS: 90},
	)
}

func trainee(t testing.TB) *week.Trainee {
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	return &week.Trainee{Yardstick: y, Room: &person.Room{Name: "The Loft"}, Stance: leverage}
}

func TestPlainMovementsCountOneSetASet(t *testing.T) {
	s := plan.Session{Slots: []plan.Slot{slot("curl_standing_dumbbells", 3, 2), slot("pushdown_bar", 2, 2)}}
	c := week.Count(&s, trainee(t).Yardstick, leverage)
	for h, v := range c.Heads {
		want := 2.0
		if arm.HeadIndex(h).Flexor() {
			want = 3
		}
		assert.InDelta(t, want, v.Mid, 1e-9)
		assert.Equal(t, v.Mid, v.Low)
	}
	assert.Equal(t, 3, c.Flexors)
	assert.Equal(t, 2, c.Extensors)
}

func TestEffortAndGradedWorkCount(t *testing.T) {
	y := trainee(t).Yardstick
	easy := plan.Session{Slots: []plan.Slot{slot("curl_standing_dumbbells", 3, 5)}}
	assert.InDelta(t, 1.2, week.Count(&easy, y, leverage).Heads[arm.BicepsLong].Mid, 1e-9)
	assert.Zero(t, week.Count(&easy, y, leverage).Flexors, "five in reserve is no hard set")
	press := plan.Session{Slots: []plan.Slot{slot("press_bench_close", 4, 2)}}
	long := week.Count(&press, y, leverage).Heads[arm.TricepsLong]
	assert.InDelta(t, 1.2, long.Mid, 1e-9)
	assert.InDelta(t, 0.4, long.Low, 1e-9)
	assert.InDelta(t, 2.4, long.High, 1e-9)
}

func TestMinutes(t *testing.T) {
	y := trainee(t).Yardstick
	one := plan.Session{WarmUpMin: 5, Slots: []plan.Slot{slot("curl_standing_dumbbells", 3, 2)}}
	// 5 min + a ramp set of 8 reps and its pause + 3 sets of 10 reps of 4 s + 2 rests of 90 s + one station.
	assert.InDelta(t, (300+62)/60.0, week.Count(&one, y, leverage).WarmUp, 1e-9)
	assert.InDelta(t, (300+62+120+180+60)/60.0, week.Count(&one, y, leverage).Minutes, 1e-9)
	same := plan.Session{WarmUpMin: 5, Slots: []plan.Slot{slot("curl_standing_dumbbells", 3, 2), slot("curl_turning", 3, 2)}}
	// The rest before the second slot, its own work and rests; no move, no station.
	assert.InDelta(t, (300+62+2*120+5*90+60)/60.0, week.Count(&same, y, leverage).Minutes, 1e-9)
	other := plan.Session{WarmUpMin: 5, Slots: []plan.Slot{slot("curl_standing_dumbbells", 3, 2), slot("pushdown_bar", 3, 2)}}
	assert.InDelta(t, week.Count(&same, y, leverage).Minutes+1.5, week.Count(&other, y, leverage).Minutes, 1e-9)
	across := plan.Session{Slots: []plan.Slot{slot("curl_neutral_across", 3, 2)}}
	assert.InDelta(t, (2*32+30+2*120+180+60)/60.0, week.Count(&across, y, leverage).Minutes, 1e-9, "each arm in turn")
	// What the body itself loads is not led up to; the first that has a load is.
	dips := plan.Session{Slots: []plan.Slot{slot("dip_bars", 3, 2), with(slot("press_bench_close", 3, 2), heavy)}}
	assert.Equal(t, 1, dips.Ramped())
	assert.InDelta(t, (14*4+90)/60.0, week.Count(&dips, y, leverage).WarmUp, 1e-9)
	var empty plan.Session
	assert.Zero(t, week.Count(&empty, y, leverage).Minutes)
}

func TestChecksNameTheSlot(t *testing.T) {
	tr := trainee(t)
	tr.Caps = person.CapsOf([]person.CapID{person.Cautious})
	bad := slot("curl_reclined", 3, 1)
	bad.Cues = []string{"", "a", "b", "c"}
	s := plan.Session{WarmUpMin: -1, Slots: []plan.Slot{slot("curl_reclined", 3, 3), bad}}
	var fields []string
	for _, e := range tr.Check(&s) {
		fields = append(fields, e.Field)
	}
	assert.Equal(t, []string{"warm_up_min", "slots[1].rows[0].reserve", "slots[1].cues", "slots[1].cues"}, fields)
	assert.Empty(t, tr.Check(&plan.Session{Slots: make([]plan.Slot, 0)}))
}

func TestARefusedSlotCountsNothingAndSaysWhy(t *testing.T) {
	m := movement.Shipped.Get("curl_cable_facing_away")
	near, err := m.SetUp(map[movement.Key]movement.Value{movement.PulleyDistance: movement.Num(0.4)})
	require.NoError(t, err)
	short, err := effort.NewYardstick(arm.Body{Stature: 1.1, BodyMass: 40})
	require.NoError(t, err)
	refused := plan.Of(near, dose.Usual(person.Caps{}))
	c := week.CountSlot(&refused, short, leverage)
	assert.Contains(t, c.Refused, "below the floor")
	assert.Nil(t, c.Profile)
	assert.Zero(t, c.Heads[arm.BicepsLong].Mid)
}

func BenchmarkSessionOfSixSlots(b *testing.B) {
	tr := trainee(b)
	var s plan.Session
	for _, id := range []string{"curl_reclined", "curl_pad_bar", "curl_neutral", "overhead_cable_low", "pushdown_rope", "press_bench_close"} {
		s.Slots = append(s.Slots, slot(id, 3, 2))
	}
	for b.Loop() {
		week.Count(&s, tr.Yardstick, leverage)
	}
}

func ExampleCount() {
	y, _ := effort.NewYardstick(arm.DefaultBody)
	s := plan.Session{
		WarmUpMin: 5,
		Slots:     []plan.Slot{plan.Of(movement.Shipped.Get("curl_neutral").Default(), dose.Usual(person.Caps{}))},
	}
	c := week.Count(&s, y, leverage)
	fmt.Printf("biceps long %.1f, brachialis %.1f effective sets in %.0f minutes\n",
		c.Heads[arm.BicepsLong].Mid, c.Heads[arm.Brachialis].Mid, c.Minutes)
	// Output: biceps long 2.3, brachialis 3.1 effective sets in 12 minutes
}

func TestFindings(t *testing.T) {
	tr := trainee(t)
	tr.Room = &person.Room{Name: "The Loft", Things: []person.Thing{person.Pairs(10)}}
	find := func(minutes int, slots ...plan.Slot) []week.Finding {
		s := plan.Session{WarmUpMin: 5, Slots: slots}
		return tr.Findings(&s, week.Count(&s, tr.Yardstick, leverage), minutes)
	}
	assert.Empty(t, find(60, slot("curl_standing_dumbbells", 3, 2)))
	lacks := find(60, slot("curl_standing_dumbbells", 3, 2), slot("curl_pad_bar", 3, 2))
	require.Len(t, lacks, 1)
	assert.Equal(
		t,
		week.Finding{
			Severity: week.Stop,
			Text:     "The Loft lacks a straight bar and a pad at 40° for slot 2.",
			Slot:     1,
			Code:     "equipment",
		},
		lacks[0],
	)
	assert.Contains(t, find(9, slot("curl_standing_dumbbells", 3, 2))[0].Text, "minutes against the 9")
	assert.Contains(t, find(90, slot("curl_standing_dumbbells", 11, 2))[0].Text, "11 hard sets for the elbow flexors")
	tr.Caps = person.CapsOf([]person.CapID{person.BloodPressure})
	noted := find(60, slot("curl_standing_dumbbells", 3, 2))
	require.Len(t, noted, 1)
	assert.Equal(t, week.Note, noted[0].Severity)
}
