package httpapi_test

import (
	"testing"

	"musculus/internal/httpapi/floor"
	"musculus/internal/httpapi/week"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A set is kept with what it was made of; a set of drops does not feed its series; the
// log says what the session came to.
func TestASetsPartsAreKept(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := sessionPath("Aurelio Finch")
	d := draft(c, path)
	row(d, 1)["method"] = map[string]any{"id": "drops"}
	require.Equal(t, 200, c.call("PUT", path, d).status)
	ask := map[string]any{"movement": "curl_reclined", "settings": map[string]any{}, "reps_low": 8, "reps_high": 12, "reserve": 1}
	before := got[week.Proposal](c, 200, c.call("POST", clientPath("Aurelio Finch")+"/propose", ask))
	set := map[string]any{
		"id":       newID(),
		"slot":     slot(d, 1)["id"],
		"side":     "both",
		"set_no":   1,
		"reps":     9,
		"whole_kg": 14,
		"reserve":  0,
		"note":     "",
		"parts": []any{
			map[string]any{"kind": "clean", "reps": 9},
			map[string]any{"kind": "clean", "reps": 7, "load_kg": 10, "pause_s": 10},
			map[string]any{"kind": "swung", "reps": 2},
		},
	}
	log := got[floor.LogView](c, 200, c.call("POST", path+"/log", set))
	require.Len(t, log.Slots[1].Entries, 1)
	assert.Equal(t, "9 clean, 7 clean, 2 swung", log.Slots[1].Entries[0].Parts)
	assert.Equal(t, "drops", log.Slots[1].Entries[0].Hollow)
	assert.Contains(t, log.Came, "1 of 11 sets; to do: 3 of ")
	assert.Equal(
		t,
		before.Load,
		got[week.Proposal](c, 200, c.call("POST", clientPath("Aurelio Finch")+"/propose", ask)).Load,
		"its series is not fed by it",
	)
	assert.Equal(t, 200, c.call("POST", path+"/log", set).status, "sent again it is the same")
	set["parts"].([]any)[1].(map[string]any)["reps"] = 8
	assert.Equal(t, 409, c.call("POST", path+"/log", set).status, "with other content it is another one")
	fixed := map[string]any{
		"id":       newID(),
		"slot":     set["slot"],
		"side":     "both",
		"set_no":   1,
		"reps":     9,
		"whole_kg": 14,
		"reserve":  1,
		"note":     "slow",
		"replaces": log.Slots[1].Entries[0].ID,
	}
	log = got[floor.LogView](c, 200, c.call("POST", path+"/log", fixed))
	assert.Equal(t, "9 clean, 7 clean, 2 swung", log.Slots[1].Entries[0].Parts, "what the correction does not say stays")
	set["id"], set["reps"] = newID(), 5
	assert.Equal(t, []string{"body.reps"}, got[problem](c, 422, c.call("POST", path+"/log", set)).locations())
}
