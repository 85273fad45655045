package dose_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/dose"
)

// Whatever the method, a set's stages hold what one tap each tells of it, and what is clean in
// them is what its reps are.
func TestTheStagesOfASet(t *testing.T) {
	for id, want := range map[string]struct {
		stages, clean int
		first         string
	}{
		"straight": {1, 10, ""}, "drops": {3, 20, ""}, "rest_pause": {3, 15, ""}, "thirds": {3, 7, "lower half"},
		"ladder": {4, 15, "right arm"}, "static_hold": {2, 8, "right arm works, the left holds at 90°"},
		"hand_phases": {3, 21, "wide, palms up"}, "assisted": {2, 10, ""}, "strict_then_swing": {2, 10, ""}, "last_rep_hold": {2, 10, ""},
		"loaded_lowering": {1, 0, "4 lowerings, the partner presses"}, "partials_long": {1, 0, "the long half"},
		"partials_strong": {1, 0, "the strong half"}, "contract_first": {1, 10, ""},
	} {
		d := dose.Dose{Sets: 3, RepsLow: 8, RepsHigh: 12, Method: dose.Use{ID: id}}
		got := d.Stages(10)
		clean := 0
		for _, s := range got {
			if s.Is == dose.IsClean {
				clean += s.Reps
			}
		}
		assert.Equal(t, want.stages, len(got), id)
		assert.Equal(t, want.clean, clean, id)
		assert.Equal(t, want.first, got[0].Words, id)
	}
	hold := dose.Dose{Sets: 1, SecondsLow: 20, SecondsHigh: 30}
	assert.Equal(t, []dose.Stage{{Words: "hold", Seconds: 30, Is: dose.IsHeld}}, hold.Stages(0))
	rungs := (&dose.Dose{Method: dose.Use{ID: "drops", N: 2}}).Stages(12)
	assert.Equal(t, []int{0, 1, 2}, []int{rungs[0].Rung, rungs[1].Rung, rungs[2].Rung})
	assert.Equal(t, []int{12, 7, 4}, []int{rungs[0].Reps, rungs[1].Reps, rungs[2].Reps})
}
