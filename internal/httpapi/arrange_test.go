package httpapi_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
)

// arranged is a session of two slots with a command to the first of them.
func arranged(do string) map[string]any {
	first := newID()
	return map[string]any{
		"do": do, "slot": first, "ids": []string{newID(), newID(), newID()},
		"slots": []any{
			map[string]any{"id": first, "movement": "curl_standing_dumbbells", "settings": map[string]any{}, "rows": []any{}, "cues": []any{}},
			map[string]any{"id": newID(), "movement": "overhead_cable_low", "settings": map[string]any{}, "rows": []any{}, "cues": []any{}},
		},
	}
}

// Rows and combos are laid out by the core; what cannot be is told at its place, and
// nothing is kept.
func TestASessionIsArranged(t *testing.T) {
	c := open(t).signedIn(t, wren)
	at := "/clients/" + demo.ClientID("Bettina Groos").String() + "/arrange" // blood pressure: rests of 90 s
	type result struct {
		Slots []struct {
			Combo string
			Rows  []struct {
				ID   string
				Sets int
				Load map[string]any
			}
		}
		Combos []struct {
			ID       string
			BetweenS int `json:"between_s"`
		}
	}
	joined := got[result](c, 200, c.call("POST", at, arranged("join")))
	require.Len(t, joined.Combos, 1)
	assert.Equal(t, 90, joined.Combos[0].BetweenS, "the caps' rest between members")
	assert.Equal(t, joined.Combos[0].ID, joined.Slots[1].Combo)

	body := arranged("back_off")
	backed := got[result](c, 200, c.call("POST", at, body))
	require.Len(t, backed.Slots[0].Rows, 2)
	assert.Equal(t, map[string]any{"share": 0.6}, backed.Slots[0].Rows[1].Load)
	assert.Equal(t, body["ids"].([]string)[0], backed.Slots[0].Rows[1].ID, "what is new has the client's id")

	unknown := map[string]any{"id": newID(), "movement": "nothing", "settings": map[string]any{}, "rows": []any{}, "cues": []any{}}
	for field, wrong := range map[string]map[string]any{
		"body.slot":              with(arranged("join"), map[string]any{"slot": newID()}),
		"body.row":               with(arranged("split"), map[string]any{"row": 5}),
		"body.do":                with(arranged("turn"), nil),
		"body.slots[0].movement": with(arranged("each"), map[string]any{"slots": []any{unknown}}),
	} {
		a := c.call("POST", at, wrong)
		assert.Equal(t, 422, a.status, field)
		assert.Contains(t, a.body, `"`+field+`"`)
	}
}
