package person_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/person"
)

func TestMobilityChecksSayWhatTheyLeadTo(t *testing.T) {
	for says, m := range map[string]person.Mobility{
		"Overhead not checked yet":           {},
		"tilted lying extensions keep":       {OneWeight: "no"},
		"not with two weights yet":           {OneWeight: "yes", TwoWeights: "no"},
		"as the plan asks for it":            {OneWeight: "yes", TwoWeights: "yes"},
		"Dip ladder not tried yet":           {OneWeight: "yes"},
		"The bars from 4 reps":               {DipLevel: "assisted", CleanDips: 2},
		"Load from 10 clean reps on (9 now)": {DipLevel: "bars", CleanDips: 9},
		"A sore shoulder presses instead":    {DipLevel: "loaded"},
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
