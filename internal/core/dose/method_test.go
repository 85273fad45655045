package dose_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// plainSet is 10 reps of 4 s, one arm after nothing else.
func plainSet(use dose.Use) dose.Dose {
	return dose.Dose{Sets: 1, RepsLow: 10, RepsHigh: 10, Reserve: 2, RestS: 90, Method: use}
}

// Every method of the table: what a set counts, how long it takes, what is lifted.
func TestEveryMethod(t *testing.T) {
	rack := dose.Rack{Steps: []float64{2, 4, 6, 8, 10, 12, 14, 16, 18, 20, 22, 24}, Carry: person.EachHand}
	loads := func(use dose.Use, whole float64) []float64 {
		d := plainSet(use)
		return d.Loads(rack, whole, 1)
	}
	for id, c := range map[string]struct {
		credit, seconds float64
		loads           []float64 // of the first set, from 20
	}{
		"straight":          {1, 40, []float64{20}},
		"drops":             {1.7, 40 + 2*(24+10), []float64{20, 16, 12}},
		"rest_pause":        {1.7, 40 + 2*(17.5+14), []float64{20}},
		"thirds":            {1.5, 2 * 7 * 4, []float64{14}},
		"ladder":            {1.5, 5 * 5 * 4, []float64{14}},
		"static_hold":       {1.2, 2 * 8 * 4, []float64{16}},
		"hand_phases":       {1.5, 3 * 7 * 4, []float64{20}},
		"partials_strong":   {0.7, 40, []float64{20}},
		"partials_long":     {1, 40, []float64{18}},
		"loaded_lowering":   {1.2, 4 * 4, []float64{20, 24}},
		"assisted":          {1.2, 40 + 8, []float64{20}},
		"strict_then_swing": {1.15, 40 + 8, []float64{20}},
		"last_rep_hold":     {1.1, 40 + 10, []float64{20}},
	} {
		use := dose.Use{ID: id}
		require.NotNil(t, dose.MethodOf(id), id)
		d := plainSet(use)
		assert.InDelta(t, c.credit, use.Credit(), 1e-9, id)
		assert.InDelta(t, c.seconds, d.WorkSeconds(1), 1e-9, id)
		assert.InDelta(t, 2*c.seconds, d.WorkSeconds(2), 1e-9, "%s, each arm in turn", id)
		assert.Equal(t, c.loads, loads(use, 20), id)
	}
	assert.Len(t, dose.Methods, 14)
	assert.Equal(t, []float64{4, 2}, loads(dose.Use{ID: "drops", N: 4}, 4), "no rung where no lighter step is")
	thirds := plainSet(dose.Use{ID: "thirds"})
	assert.Equal(t, []float64{10}, thirds.Loads(rack, 20, 0.85), "20 × 0.7 × 0.85 = 11.9, rounded down once")
	assert.Equal(t, []float64{10}, loads(dose.Use{ID: "loaded_lowering"}, 10)[:1])
	assert.Equal(t, []float64{12}, loads(dose.Use{ID: "loaded_lowering"}, 10)[1:], "a fifth more is there")
	assert.Len(t, loads(dose.Use{ID: "loaded_lowering"}, 24), 1, "nothing heavier is there: the partner presses")
	// Strong-range partials grow 5 % a week while clean, to 120 % of what could be lifted once.
	assert.Equal(t, []float64{10}, loads(dose.Use{ID: "partials_strong"}, 10))
	assert.Equal(t, []float64{12}, loads(dose.Use{ID: "partials_strong", N: 4}, 10), "10 × 1.05⁴ = 12.16")
	assert.Equal(t, []float64{16}, loads(dose.Use{ID: "partials_strong", N: 12}, 10), "10 × 1.05¹² = 17.96, but 1.2 × 1RM of 14.2 = 17.0")
	assert.InDelta(t, 1+0.35*4, dose.Use{ID: "drops", N: 4}.Credit(), 1e-9)
	assert.Nil(t, dose.MethodOf("no_such"))
}

func TestLoadsAreTold(t *testing.T) {
	curl, dip := movement.Shipped.Get("curl_standing_dumbbells").Default(), movement.Shipped.Get("dip_bars").Default()
	things := []person.Thing{person.There(movement.DipBars), person.BeltOf(5, 10, 20), person.Pairs(2, 4, 6, 8, 10, 12, 14, 16, 18, 20)}
	room := &person.Room{Name: "Loft", Things: things, Pins: true}
	told := func(s movement.SetUp, whole float64, use dose.Use) string {
		rack := dose.RackOf(s, room, 75)
		d := dose.Dose{Sets: 3, RepsLow: 8, RepsHigh: 12, Reserve: 2, Method: use}
		return d.LoadWords(s, rack, d.Loads(rack, rack.Carry.PerHand(whole, rack.Rigging), 1))
	}
	for want, got := range map[string]string{
		"12 kg a hand":                told(curl, 12, dose.Use{}),
		"12 → 8 → 6 kg a hand":        told(curl, 12, dose.Use{ID: "drops"}),
		"16 kg a hand up, 18 kg down": told(curl, 16, dose.Use{ID: "loaded_lowering"}),
		"body weight + 20 kg":         told(dip, 20, dose.Use{}),
	} {
		assert.Equal(t, want, got)
	}
	assert.Equal(t, "body weight + 20 kg → body weight", told(dip, 20, dose.Use{ID: "drops", N: 1}), "20 % less of body and plates together")
}

// Where each method is not offered.
func TestMethodsAreRefusedWhereTheyHurt(t *testing.T) {
	bare := &person.Room{Name: "Bare"}
	full := &person.Room{Name: "Full", Pins: true, Partner: true}
	curl := movement.Shipped.Get("curl_standing_dumbbells").Default()
	bar := movement.Shipped.Get("curl_standing_bar").Default()
	press := movement.Shipped.Get("press_bench_close").Default()
	sore := person.Scores{person.Left: {movement.ElbowBack: 2}}
	for _, c := range []struct {
		id      string
		set     movement.SetUp
		where   dose.Where
		refused string
	}{
		{"drops", press, dose.Where{Room: bare}, "pins or rails"},
		{"drops", press, dose.Where{Room: full}, ""},
		{"rest_pause", curl, dose.Where{Room: bare}, ""},
		{"partials_strong", press, dose.Where{Room: bare}, "needs pins or rails"},
		{"loaded_lowering", press, dose.Where{Room: bare}, "needs a partner"},
		{"loaded_lowering", press, dose.Where{Room: full, Scores: sore}, "sore elbows"},
		{"assisted", bar, dose.Where{Room: bare}, "needs a partner"},
		{"ladder", bar, dose.Where{Room: full}, "its own weight"},
		{"ladder", curl, dose.Where{Room: full}, ""},
		{"hand_phases", bar, dose.Where{Room: full}, "hands can turn"},
	} {
		got := dose.MethodOf(c.id).Refused(c.set, &c.where)
		if c.refused == "" {
			assert.Empty(t, got, c.id)
		} else {
			assert.Contains(t, got, c.refused, c.id)
		}
	}
	cautious, pressure := person.CapsOf([]person.CapID{person.Cautious}), person.CapsOf([]person.CapID{person.BloodPressure})
	for _, m := range dose.Methods {
		byCaution := m.Refused(curl, &dose.Where{Room: full, Caps: cautious})
		byPressure := m.Refused(curl, &dose.Where{Room: full, Caps: pressure})
		if byCaution == "closed by this client’s caps" {
			assert.Equal(t, byCaution, byPressure, "%s: blood pressure closes what caution closes", m.ID)
		}
	}
	for _, id := range []string{"static_hold"} {
		assert.Empty(t, dose.MethodOf(id).Refused(curl, &dose.Where{Room: full, Caps: cautious}), id)
		assert.NotEmpty(t, dose.MethodOf(id).Refused(curl, &dose.Where{Room: full, Caps: pressure}), id)
	}
	d := plainSet(dose.Use{ID: "drops", N: 9})
	errs := d.Check(curl, full, 0, person.Caps{}, nil)
	require.Len(t, errs, 1)
	assert.Equal(t, "method", errs[0].Field)
	d.Method = dose.Use{ID: "no_such"}
	assert.Contains(t, d.Check(curl, full, 0, person.Caps{}, nil)[0].Reason, "there is no method")
}

// Reps are told as they are done: each arm's, and by the method where it says them.
func TestADoseIsToldAsItIsDone(t *testing.T) {
	d := dose.Dose{Sets: 3, RepsLow: 8, RepsHigh: 12, Reserve: 2, RestS: 90}
	for want, got := range map[string]string{
		"3 × 8–12":          d.DoneWords(1),
		"3 × 8–12 each arm": d.DoneWords(2),
		"3 × one-arm ladder: right, left, alternating, together, 5 reps each, 15 per arm": with(d, dose.Use{ID: "ladder"}).DoneWords(1),
		"3 × thirds: lower half, upper half, full, 6 reps each":                           with(d, dose.Use{ID: "thirds", N: 6}).DoneWords(1),
		"3 × 8–12, drops, 2 rungs after the first":                                        with(d, dose.Use{ID: "drops"}).DoneWords(1),
	} {
		assert.Equal(t, want, got)
	}
}

func with(d dose.Dose, use dose.Use) *dose.Dose {
	d.Method = use
	return &d
}
