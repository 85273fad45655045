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
	steps := []float64{2, 4, 6, 8, 10, 12, 14, 16, 18, 20}
	for id, c := range map[string]struct {
		credit, seconds float64
		loads           []float64 // of the first set, from 20
	}{
		"straight":          {1, 40, []float64{20}},
		"pyramid":           {1, 40, []float64{20}},
		"drops":             {1.7, 40 + 2*(24+10), []float64{20, 16, 12}},
		"rest_pause":        {1.7, 40 + 2*(17.5+14), []float64{20}},
		"superset_same":     {1, 40, []float64{20}},
		"superset_opposing": {1, 40, []float64{20}},
		"three_in_row":      {1, 40, []float64{20}},
		"thirds":            {1.5, 2 * 7 * 4, []float64{14}},
		"ladder":            {1.5, 5 * 5 * 4, []float64{14}},
		"static_hold":       {1.2, 2 * 8 * 4, []float64{16}},
		"hand_phases":       {1.5, 3 * 7 * 4, []float64{20}},
		"partials_strong":   {0.7, 40, []float64{20}},
		"partials_long":     {1, 40, []float64{18}},
		"loaded_lowering":   {1.2, 4 * 4, []float64{20}},
		"assisted":          {1.2, 40 + 8, []float64{20}},
		"strict_then_swing": {1.15, 40 + 8, []float64{20}},
		"last_rep_hold":     {1.1, 40 + 10, []float64{20}},
	} {
		use := dose.Use{ID: id}
		require.NotNil(t, dose.MethodOf(id), id)
		d := plainSet(use)
		assert.InDelta(t, c.credit, use.Credit(0), 1e-9, id)
		assert.InDelta(t, c.seconds, d.WorkSeconds(1), 1e-9, id)
		assert.InDelta(t, 2*c.seconds, d.WorkSeconds(2), 1e-9, "%s, each arm in turn", id)
		assert.Equal(t, c.loads, use.Loads(steps, 20, 0), id)
	}
	assert.Len(t, dose.Methods, 17)
	assert.Equal(t, []float64{1, 0.9, 0.8}, []float64{dose.Use{ID: "three_in_row"}.Credit(0), dose.Use{ID: "three_in_row"}.Credit(1), dose.Use{ID: "three_in_row"}.Credit(2)})
	assert.Equal(t, []float64{14}, dose.Use{ID: "pyramid"}.Loads(steps, 10, 2), "two steps up in the third set")
	assert.Equal(t, []float64{4, 2}, dose.Use{ID: "drops", N: 4}.Loads(steps, 4, 0), "no rung where no lighter step is")
	assert.InDelta(t, 1+0.35*4, dose.Use{ID: "drops", N: 4}.Credit(0), 1e-9)
	assert.Nil(t, dose.MethodOf("no_such"))
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
	for _, id := range []string{"static_hold", "superset_same"} {
		assert.Empty(t, dose.MethodOf(id).Refused(curl, &dose.Where{Room: full, Caps: cautious}), id)
		assert.NotEmpty(t, dose.MethodOf(id).Refused(curl, &dose.Where{Room: full, Caps: pressure}), id)
	}
	d := plainSet(dose.Use{ID: "drops", N: 9})
	errs := d.Check(curl, full, 75, person.Caps{}, nil)
	require.Len(t, errs, 1)
	assert.Equal(t, "method", errs[0].Field)
	d.Method = dose.Use{ID: "no_such"}
	assert.Contains(t, d.Check(curl, full, 75, person.Caps{}, nil)[0].Reason, "there is no method")
}
