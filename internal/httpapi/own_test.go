package httpapi_test

import (
	"strings"
	"testing"

	"musculus/internal/httpapi/library"
	"musculus/internal/view"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/movement"
)

type ownAnswer struct {
	Movements []library.OwnMovementView `json:"movements"`
	SetUps    []library.OwnSetUpView    `json:"set_ups"`
}

func wholeLibrary(c *caller) map[string]library.LibraryEntry {
	out := map[string]library.LibraryEntry{}
	for _, e := range got[struct{ Entries []library.LibraryEntry }](c, 200, c.call("GET", "/library", nil)).Entries {
		out[e.Key] = e
	}
	return out
}

// A set-up becomes a movement of the studio's own, is planned, changed, retired;
// what was planned with it still reads, and other studios know nothing of it.
func TestAStudiosOwnMovement(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	written := got[struct{ ID, Text string }](
		c,
		200,
		c.call(
			"POST",
			"/own/text",
			map[string]any{"movement": "curl_reclined", "settings": map[string]any{"bench": 60}, "name": "Quay curl"},
		),
	)
	require.Equal(t, "own_quay_curl", written.ID)
	put := func(text string, version int, retired bool) answer {
		return c.call("PUT", "/own/movements/own_quay_curl", map[string]any{"text": text, "version": version, "retired": retired})
	}
	broken := strings.Replace(written.Text, "family: curl_behind", "family: nowhere", 1)
	p := got[problem](c, 422, put(broken, 0, false))
	assert.Contains(t, p.Detail, `family: there is no "nowhere"`)
	require.Len(t, p.Errors, 1)
	assert.Equal(t, "body.text:4", p.Errors[0].Location)

	require.Equal(t, 204, put(written.Text, 0, false).status)
	assert.Equal(t, 409, put(written.Text, 0, false).status, "the name is taken")
	e, ok := wholeLibrary(c)["own_quay_curl"]
	require.True(t, ok)
	assert.True(t, e.Own)
	assert.Contains(t, e.Name, "Quay curl")
	assert.Equal(t, []string{"a pair of dumbbells", "a bench at 60°"}, e.Needs)

	d := draft(c, sessionPath("Aurelio Finch"))
	d["slots"] = append(
		d["slots"].([]any),
		map[string]any{"id": newID(), "movement": "own_quay_curl", "settings": map[string]any{}, "cues": []any{}, "rows": []any{}},
	)
	got[view.SessionView](c, 200, c.call("PUT", sessionPath("Aurelio Finch"), d))

	changed := strings.Replace(written.Text, "Quay curl", "Pier curl", 1)
	require.Equal(t, 204, put(changed, 1, true).status)
	assert.Equal(t, 409, put(changed, 1, false).status, "changed in between")
	_, offered := wholeLibrary(c)["own_quay_curl"]
	assert.False(t, offered, "a retired one is not offered")
	shown := got[view.SessionView](c, 200, c.call("GET", sessionPath("Aurelio Finch"), nil))
	assert.Contains(t, shown.Slots[len(shown.Slots)-1].Title, "Pier curl")
	own := got[ownAnswer](c, 200, c.call("GET", "/own", nil))
	require.Len(t, own.Movements, 1)
	assert.Equal(t, 2, own.Movements[0].Version)

	check := got[struct {
		Faults []library.TextFault
		View   *view.SetUpView
	}](c, 200, c.call("POST", "/own/check", map[string]any{"id": "own_quay_curl", "text": changed}))
	assert.Empty(t, check.Faults)
	assert.NotNil(t, check.View)
	assert.Equal(t, 422, c.call("POST", "/own/text", map[string]any{"movement": "curl_reclined", "name": "—"}).status)
}

func TestKeptSetUps(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	id := newID()
	keep := func(body map[string]any) answer { return c.call("PUT", "/own/set-ups/"+id, body) }
	good := map[string]any{"name": " Harbour curl ", "movement": "curl_reclined", "settings": map[string]any{"bench": 61}}
	require.Equal(t, 204, keep(good).status)
	require.Equal(t, 204, keep(good).status, "sent twice, kept once")
	assert.Equal(t, 422, keep(map[string]any{"name": "x", "movement": "curl_reclined", "settings": map[string]any{"bench": 5}}).status)
	assert.Equal(t, 422, keep(map[string]any{"name": " ", "movement": "curl_reclined"}).status)
	own := got[ownAnswer](c, 200, c.call("GET", "/own", nil))
	require.Len(t, own.SetUps, 1)
	assert.Equal(t, "Harbour curl", own.SetUps[0].Name)
	assert.Equal(t, movement.Settings{movement.Bench: movement.Num(60)}, own.SetUps[0].Settings, "snapped")
	assert.Contains(t, wholeLibrary(c)[id].Name, "Harbour curl")
	catalogue := got[library.Catalogue](c, 200, c.call("GET", "/catalogue", nil))
	assert.Equal(t, id, catalogue.Movements[len(catalogue.Movements)-1].Key)

	stranger := s.signedIn(t, s.elsewhere(t))
	assert.Equal(t, 404, stranger.call("DELETE", "/own/set-ups/"+id, nil).status)
	assert.NotContains(t, wholeLibrary(stranger), id)
	assert.NotEqual(t, 204, stranger.call("PUT", "/own/set-ups/"+id, good).status, "an id of another studio is not taken over")
	assert.Equal(t, 204, c.call("DELETE", "/own/set-ups/"+id, nil).status)
	assert.NotContains(t, wholeLibrary(c), id)
}
