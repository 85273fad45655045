package person_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

func TestMobilityChecksSayWhatTheyLeadTo(t *testing.T) {
	for says, m := range map[string]person.Mobility{
		"Overhead not checked yet":                        {},
		"tilted lying extensions keep":                    {OneWeight: "no"},
		"Elbows drift overhead with two weights":          {OneWeight: "yes", TwoWeights: "no"},
		"as the plan asks for it":                         {OneWeight: "yes", TwoWeights: "yes"},
		"with two weights is not checked yet":             {OneWeight: "no"},
		"with one weight in two hands is not checked yet": {TwoWeights: "yes"},
		"clean dips do not speak for them":                {CleanDips: 20, CleanPulls: 3},
		"Dip ladder not tried yet":                        {OneWeight: "yes"},
		"The bars from 4 reps":                            {DipLevel: "assisted", CleanDips: 2},
		"Load from 10 clean reps on (9 now)":              {DipLevel: "bars", CleanDips: 9},
		"A sore shoulder presses instead":                 {DipLevel: "loaded"},
	} {
		assert.Contains(t, strings.Join(m.Says(), " "), says)
	}
}

// What a dossier's answers change is said.
func TestADossierSaysWhatItsAnswersChange(t *testing.T) {
	d := person.NewDossier("Odile")
	says := func() string { return strings.Join(d.Says(today), " ") }
	assert.Contains(t, says(), "of an average adult, no stature yet")
	assert.Contains(t, says(), "No room yet")
	assert.Contains(t, says(), "No consent to health notes yet")
	d.StatureM, d.UpperArmM = 1.8, 0.36
	assert.Contains(t, says(), "as measured: upper arm 36.0 cm")
	d.Elsewhere = []person.Elsewhere{{Weekday: "mon", Kind: "press", Sets: 4}, {Weekday: "thu", Kind: "press", Sets: 3}}
	assert.Contains(t, says(), "7 pressing sets elsewhere")
	d.Mode = person.ForDate
	assert.Contains(t, says(), "which?")
	on := today + 56
	d.ReadyOn = &on
	assert.Contains(t, says(), "8 weeks left")
	d.Wishes = []person.Wish{{Text: "even arms", Heads: []string{}}}
	assert.Contains(t, says(), "“even arms” comes to no head by itself")
	first := today - 100
	d.TrainingSince = &first
	assert.Contains(t, says(), "weekly targets are two thirds")
}

// Load on dips and pull-ups is judged by the load: under ten clean reps it is
// avoided whatever the movement is called, with none recorded it is checked first,
// and the one never speaks for the other.
func TestAddedLoadIsEarned(t *testing.T) {
	get := func(id string) movement.SetUp { return movement.Shipped.Get(id).Default() }
	for _, c := range []struct {
		id    string
		added float64
		m     person.Mobility
		want  person.Ruling
	}{
		{"dip_bars", 30, person.Mobility{DipLevel: "bars", CleanDips: 9}, person.Avoid},
		{"dip_bars", 30, person.Mobility{DipLevel: "loaded", CleanDips: 9}, person.Avoid},
		{"dip_bars", 30, person.Mobility{DipLevel: "bars", CleanDips: 10}, person.Allowed},
		{"dip_bars", 30, person.Mobility{}, person.Modify},
		{"dip_bars", 30, person.Mobility{DipLevel: "assisted"}, person.Avoid},
		{"dip_bars", 0, person.Mobility{DipLevel: "bars", CleanDips: 1}, person.Allowed},
		{"dip_bars", -20, person.Mobility{DipLevel: "bars", CleanDips: 1}, person.Allowed},
		{"dip_bench", 10, person.Mobility{CleanDips: 5}, person.Avoid},
		{"pullup_underhand", 5, person.Mobility{CleanDips: 30}, person.Modify},
		{"pullup_underhand", 5, person.Mobility{CleanPulls: 9, CleanDips: 30}, person.Avoid},
		{"pullup_neutral", 5, person.Mobility{CleanPulls: 10}, person.Allowed},
		{"dip_bars", 5, person.Mobility{CleanPulls: 30}, person.Modify},
		{"pushup", 10, person.Mobility{}, person.Allowed},
	} {
		f := &person.Fence{Mobility: c.m}
		v := f.JudgeAdded(get(c.id), c.added)
		assert.Equal(t, c.want, v.Ruling, "%s with %g kg: %+v", c.id, c.added, c.m)
	}
	f := &person.Fence{Mobility: person.Mobility{CleanDips: 9}, Overrides: map[string]string{"dip_bars": "ten seen on Tuesday"}}
	v := f.JudgeAdded(get("dip_bars"), 5)
	assert.False(t, v.Barred(), "the coach's reason holds")
	v = (&person.Fence{Mobility: person.Mobility{CleanDips: 9}}).Judge(get("dip_weighted"), nil)
	assert.Equal(t, person.Avoid, v.Ruling, "its name says load")
	v = (*person.Fence)(nil).JudgeAdded(get("dip_bars"), 50)
	assert.Equal(t, person.Allowed, v.Ruling)
}

// One weight in two hands and two weights are checks of their own, and a sore top of
// the shoulder prefers two weights, one arm or a cable.
func TestOverheadChecksStandApart(t *testing.T) {
	one, two := movement.Shipped.Get("overhead_one_dumbbell_two_hands").Default(), movement.Shipped.Get("overhead_two_dumbbells").Default()
	rule := func(s movement.SetUp, m person.Mobility, top int) person.Ruling {
		v := (&person.Fence{Mobility: m, Scores: person.Scores{person.Left: {movement.ShoulderTop: top}, person.Right: {}}}).Judge(s, nil)
		return v.Ruling
	}
	assert.Equal(t, person.Avoid, rule(one, person.Mobility{OneWeight: "no", TwoWeights: "yes"}, 0))
	assert.Equal(t, person.Allowed, rule(two, person.Mobility{OneWeight: "no", TwoWeights: "yes"}, 0))
	assert.Equal(t, person.Allowed, rule(one, person.Mobility{OneWeight: "yes", TwoWeights: "no"}, 0))
	assert.Equal(t, person.Avoid, rule(two, person.Mobility{OneWeight: "yes", TwoWeights: "no"}, 0))
	says := func(s movement.SetUp) string {
		v := (&person.Fence{Scores: person.Scores{person.Left: {movement.ShoulderTop: 2}, person.Right: {}}}).Judge(s, nil)
		out := ""
		for _, r := range v.Reasons {
			out += r.Words
		}
		return out
	}
	assert.Contains(t, says(one), "two weights, one arm or a cable come first")
	assert.NotContains(t, says(two), "come first")
	assert.NotContains(t, says(movement.Shipped.Get("overhead_cable_low").Default()), "come first")
}
