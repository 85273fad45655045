package words_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
)

// What is heard in gyms, and by which entry it is answered: a part of a claim, a rule's
// id, a dispute's lever, or the model; "?" is not known.
func TestWhatIsHeardIsAnswered(t *testing.T) {
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	r := reader(t)
	for _, c := range []struct{ heard, claim, rule, dispute string }{
		{"the brachialis is a forearm muscle", "The brachialis is a forearm muscle", "", ""},
		{"the pump proves you hit the right head", "Burn or pump proves", "", ""},
		{"you have to confuse the muscle", "Muscles must be surprised", "", ""},
		{"a kickback stretches the long head of the triceps", "A kick-back stretches", "", ""},
		{"narrow grip is long head, wide grip short head", "", "", "bar width"},
		{"rest 48 hours so fibres repair", "Forty-eight hours", "", ""},
		{"pulls are enough for biceps", "Pulls are enough", "", ""},
		{"legs behind the body in dips pick the triceps", "Legs behind", "", ""},
		{"short rest builds more muscle", "Shorter rest builds more", "", ""},
		{"supersets grow more than straight sets", "", "", ""},
		{"finish extensions with a straight elbow", "", "r_lockout_full", ""},
		{"slow lowering tears the muscle and that makes it grow", "Slow lowering tears", "", ""},
	} {
		h := r.Heard(c.heard, y)
		found := c.claim == "" && c.rule == "" && c.dispute == ""
		for _, x := range h.Claims {
			found = found || c.claim != "" && strings.HasPrefix(x.Says, c.claim)
		}
		for _, x := range h.Rules {
			found = found || x.ID == c.rule
		}
		for _, x := range h.Disputes {
			found = found || x.Lever == c.dispute
		}
		assert.True(t, found, "%s: %v", c.heard, h.Claims)
	}
	model := r.Heard("overhead rope extensions hit the long head of the triceps more", y)
	require.NotNil(t, model.Tip)
	assert.Equal(t, arm.TricepsLong, model.Head)
	assert.Contains(t, model.Tip.Verdict, "two minds", "longer, but with less leverage than a push-down")
	for _, nobody := range []string{"eat more eggs", "", "the moon pulls at the elbows", "?!"} {
		h := r.Heard(nobody, y)
		assert.False(t, h.Known(), nobody)
	}
}
