package dose_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

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
	d := dose.Usual(person.Caps{})
	fmt.Println(d.Words(1))
	// Output: 3 × 8–12 · 2 left · rest 90 s
}

// Effort may differ from set to set: each set counts by its own, is hard or not,
// is told, and is held against the caps.
func TestEffortSetBySet(t *testing.T) {
	d := dose.Dose{Sets: 4, RepsLow: 8, RepsHigh: 12, Reserve: 5, Reserves: []int{5, 4, 2, 0}, RestS: 90}
	assert.InDelta(t, 0.4+0.7+1+1, d.Efforts(), 1e-9)
	assert.Equal(t, [2]int{2, 1}, [2]int{d.HardSets(), d.Failures()})
	assert.Equal(t, "4 × 8–12 · 5, 4, 2, 0 left · rest 90 s", d.Words(1))
	assert.Equal(t, "set by set, stop with 5, 4, 2, 0 reps left", d.EffortWords())
	fewer := d
	fewer.OneLess()
	assert.Equal(t, []int{5, 4, 2}, fewer.Reserves)
	kept := d
	kept.KeepAtLeast(3)
	assert.Equal(t, []int{5, 4, 3, 3}, kept.Reserves)
	assert.Equal(t, []int{5, 4, 2, 0}, d.Reserves, "what it was is left alone")

	curl, press := movement.Shipped.Get("curl_standing_dumbbells").Default(), movement.Shipped.Get("press_bench_close").Default()
	room := &person.Room{Name: "Bare"}
	errs := d.Check(press, room, 75, person.Caps{}, nil)
	require.Len(t, errs, 1)
	assert.Contains(t, errs[0].Reason, "not safe to fail alone")
	assert.Empty(t, d.Check(curl, room, 75, person.Caps{}, nil))
	assert.Len(t, d.Check(curl, room, 75, person.CapsOf([]person.CapID{person.Cautious}), nil), 1, "at least 3 in reserve")
	d.Sets = 3
	assert.Len(t, d.Check(curl, room, 75, person.Caps{}, nil), 1, "more reserves than sets")
	huge := dose.Dose{Sets: 1 << 40, RepsLow: 8, RepsHigh: 12}
	assert.Positive(t, huge.Efforts(), "counted while it is typed, and refused")
	assert.NotEmpty(t, huge.Check(curl, room, 75, person.Caps{}, nil))
}
