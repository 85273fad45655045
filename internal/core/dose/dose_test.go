package dose_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

var room = person.Room{Name: "The Loft", Things: []person.Thing{person.Pairs(8, 10)}}

func good() dose.Dose { return dose.Usual(person.Caps{}) }

func fields(d dose.Dose, id string, caps person.Caps) []string {
	var out []string
	for _, e := range d.Check(movement.Shipped.Get(id).Default(), &room, 0, caps, nil) {
		out = append(out, e.Field)
	}
	return out
}

func TestDoseLimits(t *testing.T) {
	assert.Empty(t, fields(good(), "curl_reclined", person.Caps{}))
	for field, change := range map[string]func(*dose.Dose){
		"sets":         func(d *dose.Dose) { d.Sets = 0 },
		"reps_low":     func(d *dose.Dose) { d.RepsLow, d.RepsHigh = 0, 8 },
		"reps_high":    func(d *dose.Dose) { d.RepsHigh = 7 },
		"reserve":      func(d *dose.Dose) { d.Reserve = 7 },
		"rest_s":       func(d *dose.Dose) { d.RestS = 601 },
		"tempo":        func(d *dose.Dose) { d.Tempo[1] = -1 },
		"seconds_high": func(d *dose.Dose) { d.RepsLow, d.RepsHigh, d.SecondsLow = 0, 0, 20 },
	} {
		d := good()
		change(&d)
		assert.Equal(t, []string{field}, fields(d, "curl_reclined", person.Caps{}), field)
	}
	said := good()
	said.Word = "slowly"
	assert.Equal(t, "3 × 8–12 “slowly”", said.DoneWords(1))
	said.Word = strings.Repeat("x", 61)
	assert.Equal(t, []string{"word"}, fields(said, "curl_reclined", person.Caps{}))
	held := good()
	held.RepsLow, held.RepsHigh, held.SecondsLow, held.SecondsHigh = 0, 0, 20, 30
	assert.Empty(t, fields(held, "curl_reclined", person.Caps{}))
	assert.Equal(t, "3 × 20–30 s held", held.SetsWords())
	assert.InDelta(t, 1.5, held.Efforts(), 1e-9, "a hold counts half")
	assert.Equal(t, 3*25.0, held.WorkSeconds(1))
	held.Reserve, held.RestS = 3, 90
	assert.Equal(t, []string{"seconds_high"}, fields(held, "curl_reclined", person.CapsOf([]person.CapID{person.BloodPressure})))
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
	fmt.Println(d.DoneWords(1) + ", " + d.EffortWords())
	// Output: 3 × 8–12, stop with 2 reps left
}

// Sets count by their effort, are hard or not, and are held against the caps; a
// number far beyond the limits is counted while it is typed.
func TestEffort(t *testing.T) {
	d := dose.Dose{Sets: 4, RepsLow: 8, RepsHigh: 12, Reserve: 0, RestS: 90}
	assert.Equal(t, [2]int{4, 4}, [2]int{d.HardSets(), d.Failures()})
	curl, press := movement.Shipped.Get("curl_standing_dumbbells").Default(), movement.Shipped.Get("press_bench_close").Default()
	dip := movement.Shipped.Get("dip_bars").Default()
	room := &person.Room{Name: "Bare"}
	errs := d.Check(press, room, 0, person.Caps{}, nil)
	require.Len(t, errs, 1)
	assert.Contains(t, errs[0].Reason, "not safe to fail alone")
	assert.Empty(t, d.Check(curl, room, 0, person.Caps{}, nil))
	assert.Empty(t, d.Check(dip, room, 0, person.Caps{}, nil))
	assert.Len(t, d.Check(dip, room, 10, person.Caps{}, nil), 1, "with load not to the limit alone")
	assert.Len(t, d.Check(curl, room, 0, person.CapsOf([]person.CapID{person.Cautious}), nil), 1, "at least 3 in reserve")
	d.Reserve = 4
	assert.InDelta(t, 2.8, d.Efforts(), 1e-9)
	assert.Zero(t, d.HardSets())
	huge := dose.Dose{Sets: 1 << 40, RepsLow: 8, RepsHigh: 12}
	assert.Positive(t, huge.Efforts(), "counted while it is typed, and refused")
	assert.NotEmpty(t, huge.Check(curl, room, 0, person.Caps{}, nil))
}

// A load is said in one way, and is where it is found.
func TestALoadIsOneThing(t *testing.T) {
	for _, c := range []struct {
		load  *dose.Load
		fault bool
	}{{dose.Kg(12), false}, {dose.Kg(0), true}, {dose.Kg(math.NaN()), true}, {dose.Added(0), false}, {dose.Added(-40), false},
		{dose.Added(900), true}, {dose.ToFind(), false},
		{&dose.Load{}, true}, {&dose.Load{Share: 0.6}, false}, {&dose.Load{Share: 0.1}, true}, {dose.StepsOff(0), false},
		{dose.StepsOff(6), true}, {&dose.Load{Find: true, Combo: true}, true}, {&dose.Load{Combo: true}, false}} {
		assert.Equal(t, c.fault, c.load.Fault() != "", "%+v", c.load)
	}
	rack := dose.Rack{Steps: []float64{2, 4, 6, 8, 10, 12}, Carry: person.EachHand}
	half, ok := rack.Share(11, 0.5)
	assert.True(t, ok)
	assert.Equal(t, 4.0, half, "rounded down to a real step")
	_, ok = rack.Share(3, 0.5)
	assert.False(t, ok, "never a heavier one")
	up, _ := rack.Off(8, 2)
	assert.Equal(t, 12.0, up)
	most, _ := rack.Off(12, 5)
	assert.Equal(t, 12.0, most, "as far as there are steps")
	dips := dose.Rack{Steps: []float64{-10, 0, 5, 10}, Carry: person.BodyWeight, Rigging: person.Rigging{BodyMass: 80}}
	assert.True(t, dose.Added(5).Same(dose.Carried(dips, dips.Carry.PerHand(5, dips.Rigging))), "the body never stands in a load")
}
