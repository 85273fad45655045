package formats_test

import (
	"bytes"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/draft"
	"musculus/internal/formats"
)

// The example of the documents composes to what they say, and is written for a solver; what
// is no problem is told.
func TestTheExampleOfADraft(t *testing.T) {
	b, err := os.ReadFile("../../docs/formats/draft-example.json")
	require.NoError(t, err)
	d := formats.Drafts{Way: draft.Robust, Now: time.Now}
	got, err := d.Answer(b)
	require.NoError(t, err)
	a := got.(formats.DraftAnswer)
	assert.InDelta(t, 3.281333, a.Objective, 1e-6, "docs/draft.md counts it by hand")
	assert.Len(t, a.Days, 2)
	for _, day := range a.Days {
		require.Len(t, day.Slots, 2)
		for _, s := range day.Slots {
			assert.Equal(t, 3, s.Sets)
		}
	}
	assert.Empty(t, a.Infeasible)
	assert.Empty(t, a.GivesUp)

	for _, way := range draft.Ways {
		var lp bytes.Buffer
		d.Way = way
		require.NoError(t, d.WriteLP(bytes.NewReader(b), &lp))
		for _, part := range []string{"Minimize", "Subject To", "Bounds", "Binaries", "End"} {
			assert.Contains(t, lp.String(), part)
		}
	}
	assert.Error(t, d.WriteLP(strings.NewReader("\n\n"), &bytes.Buffer{}))
	assert.Error(t, (&formats.Drafts{Way: "what"}).Check())
	for _, junk := range []string{"{}", "[]", "7", `{"version":1,"cycle":99}`} {
		_, err := d.Answer([]byte(junk))
		assert.Error(t, err, junk)
	}
}
