package stance_test

import (
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/stance"
)

// Where every rule reaches is told in words: no name of a field, no operator is left.
func TestWhereARuleReachesIsToldInWords(t *testing.T) {
	code := regexp.MustCompile(`==|<=|>=|[a-z]_[a-z]|\[|\bin \(| - | \+ [a-z]|abs`)
	for _, r := range stance.Shipped.Rules {
		words := r.When.Words()
		assert.NotRegexp(t, code, words, r.ID)
		assert.NotContains(t, words, "  ", r.ID)
		assert.NotEmpty(t, words, r.ID)
	}
	assert.Equal(t, "in curls, with a straight bar or a cambered bar, the grip at most 0.85 shoulder breadths",
		stance.Shipped.Rule("r_width_narrow_long").When.Words())
	assert.Equal(t, "in curls, the upper arm in front of the trunk at the start between −15 and 35°",
		stance.Shipped.Rule("r_arm_side_even").When.Words())
}

// A card says only what is recorded: no study, number or name is there that nobody put
// in, and what would change a mind only where somebody wrote it.
func TestCardsSayOnlyWhatIsRecorded(t *testing.T) {
	full, change := 0, 0
	for _, r := range stance.Shipped.Rules {
		card := r.Card()
		for _, line := range []string{"claim", "kind", "reaches as far as", "grade"} {
			assert.NotEmpty(t, card[line], "%s: %s", r.ID, line)
		}
		if card["people"] != "" {
			full++
			assert.NotEmpty(t, card["what was measured"], r.ID)
			assert.NotEmpty(t, card["result in words"], r.ID)
			assert.NotEmpty(t, card["limits in plain words"], r.ID)
			assert.NotContains(t, card["result in words"], "%", "results in words: %s", r.ID)
		}
		if card["what would change our mind"] != "" {
			change++
		}
	}
	assert.GreaterOrEqual(t, full, 15)
	assert.Less(t, change, len(stance.Shipped.Rules)/3)
	assert.Equal(t, "growth measured", stance.Shipped.Rule("r_focus_inside").Evidence.Kind)
	assert.Equal(t, "strength measured", stance.Shipped.Rule("r_order_costs_chest").Evidence.Kind)
	assert.NotEmpty(t, stance.Shipped.Rule("r_tri_overhead_long").Card()["what would change our mind"])
}

// Every claim that is answered has its kind; those in dispute are among the disputes.
func TestClaimsHaveAKind(t *testing.T) {
	kinds := map[string]int{}
	for _, w := range stance.Shipped.Wrong {
		kinds[w.Kind]++
		assert.Contains(t, []string{"wrong", "unsupported", "partly", "disputed"}, w.Kind, w.Says)
	}
	assert.GreaterOrEqual(t, len(stance.Shipped.Wrong), 42)
	assert.GreaterOrEqual(t, kinds["disputed"], 5)
	assert.GreaterOrEqual(t, len(stance.Shipped.Disputes), 25)
}
