package person_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

var everyCap = person.CapsOf([]person.CapID{person.Cautious, person.BloodPressure, person.PregnantLate})

// What a cue asks for is held against the caps, in the words people write; a cue
// that says not to do it is none.
func TestACueThatAsksForWhatCapsForbid(t *testing.T) {
	for cue, what := range map[string]string{
		"Hold your breath at the bottom":      "holding the breath",
		"Take a breath and hold the breath":   "holding the breath",
		"Take a big breath and hold it":       "holding the breath",
		"Breathe in, then hold it":            "holding the breath",
		"Brace hard, hold the air":            "holding the breath",
		"Go until you drop":                   "going to the limit",
		"Bounce it out of the bottom":         "swinging",
		"Hold for half a minute":              "a long hold",
		"Go to failure on the last set":       "going to the limit",
		"Don’t stop before failure":           "going to the limit",
		"All out, nothing left":               "going to the limit",
		"Drop set on the last one":            "drops",
		"Swing the last two up":               "swinging",
		"Strict first, then cheat a little":   "swinging",
		"Squeeze for 10 seconds at the top":   "a long hold",
		"Hold it 5–8 s":                       "a long hold",
		"Pause five seconds":                  "a long hold",
		"Straight into the push-down":         "no rest",
		"No rest between arms":                "no rest",
		"Superset it with curls":              "a superset of one muscle",
		"Partner helps you finish":            "assisted last reps",
		"Slow negatives with more on the bar": "loaded lowering",
		"Lie flat and breathe":                "lying flat",
	} {
		assert.Contains(t, everyCap.Against(cue), what, cue)
		assert.Empty(t, new(person.Caps).Against(cue), "without caps: %s", cue)
	}
	for _, cue := range []string{
		"Never hold your breath", "Do not swing", "No swinging", "Stop before failure", "Breathe out, no breath holds",
		"Elbows still, without swinging",
		"Hold the bar firmly", "Squeeze for 1 second", "Pause 2 s at the bottom", "Keep it far from failure", "Quiet feet",
		"Breathe in and hold the bar tight", "Pause for a second", "Breathe out and never hold it", "Push the floor away", "",
	} {
		assert.Empty(t, everyCap.Against(cue), cue)
	}
	pressure := person.CapsOf([]person.CapID{person.BloodPressure})
	assert.Empty(t, pressure.Against("Lie flat and breathe"), "blood pressure says nothing of lying")
}

// The library's own cues ask for nothing that any cap forbids.
func TestTheLibrarysCuesKeepToEveryCap(t *testing.T) {
	for _, m := range movement.Shipped.Movements {
		for _, f := range m.FaultsOf() {
			assert.Empty(t, everyCap.Against(f.Cue), "%s: %s", f.ID, f.Cue)
		}
	}
}
