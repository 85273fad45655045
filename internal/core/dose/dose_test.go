package dose_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

var room = person.Room{Name: "The Loft", Dumbbells: []person.Dumbbell{{Kg: 8, Count: 2}, {Kg: 10, Count: 2}}}

func good() dose.Dose { return dose.Usual(person.Caps{}) }

func fields(d dose.Dose, id string, caps person.Caps) []string {
	var out []string
	for _, e := range d.Check(movement.Shipped.Get(id).Default(), &room, 75, caps, nil) {
		out = append(out, e.Field)
	}
	return out
}

func TestDoseLimits(t *testing.T) {
	assert.Empty(t, fields(good(), "curl_reclined", person.Caps{}))
	kg := func(x float64) *float64 { return &x }
	for field, change := range map[string]func(*dose.Dose){
		"sets":      func(d *dose.Dose) { d.Sets = 0 },
		"reps_low":  func(d *dose.Dose) { d.RepsLow, d.RepsHigh = 0, 8 },
		"reps_high": func(d *dose.Dose) { d.RepsHigh = 7 },
		"reserve":   func(d *dose.Dose) { d.Reserve = 7 },
		"rest_s":    func(d *dose.Dose) { d.RestS = 601 },
		"tempo":     func(d *dose.Dose) { d.Tempo[1] = -1 },
		"load_kg":   func(d *dose.Dose) { d.LoadKg = kg(9) },
	} {
		d := good()
		change(&d)
		assert.Equal(t, []string{field}, fields(d, "curl_reclined", person.Caps{}), field)
	}
	d := good()
	d.LoadKg = kg(9)
	errs := d.Check(movement.Shipped.Get("curl_reclined").Default(), &room, 75, person.Caps{}, nil)
	assert.Equal(t, "there is no 9 kg in The Loft, the next lighter is 8 kg", errs[0].Reason)
	d.LoadKg = kg(10)
	assert.Empty(t, fields(d, "curl_reclined", person.Caps{}))
}

func TestCapsRefuse(t *testing.T) {
	caps := person.CapsOf([]person.CapID{person.BloodPressure})
	d := good()
	d.Reserve, d.RestS = 1, 60
	assert.Equal(t, []string{"reserve", "rest_s"}, fields(d, "curl_reclined", caps))
	assert.Empty(t, fields(dose.Usual(caps), "curl_reclined", caps), "the usual dose keeps within the caps")
	assert.Equal(t, 3, dose.Usual(person.CapsOf([]person.CapID{person.Cautious})).Reserve)
}

func TestNoFailureWhereFailingAloneIsNotSafe(t *testing.T) {
	d := good()
	d.Reserve = 0
	assert.Empty(t, fields(d, "curl_reclined", person.Caps{}))
	assert.Equal(t, []string{"reserve"}, fields(d, "overhead_two_dumbbells", person.Caps{}))
}

func TestWhatASetCounts(t *testing.T) {
	for reserve, want := range map[int]float64{0: 1, 3: 1, 4: 0.7, 5: 0.4, 6: 0.4} {
		assert.Equal(t, want, dose.EffortFactor(reserve))
	}
	assert.Equal(t, 1.25, dose.SetCredit(1.4))
	assert.Equal(t, 0.8, dose.SetCredit(0.8))
}

func TestWorkSeconds(t *testing.T) {
	d := good()
	assert.Equal(t, 3*10*4.0, d.WorkSeconds(1))
	d.Tempo = effort.Tempo{3, 1, 1, 0}
	assert.Equal(t, 3*10*5.0*2, d.WorkSeconds(2))
}

func ExampleUsual() {
	fmt.Printf("%+v\n", dose.Usual(person.CapsOf([]person.CapID{person.BloodPressure})))
	// Output: {Sets:3 RepsLow:8 RepsHigh:12 Reserve:2 RestS:90 Tempo:[0 0 0 0] LoadKg:<nil> Method:{ID: N:0}}
}
