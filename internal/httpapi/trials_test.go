package httpapi_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
	"musculus/internal/httpapi/trials"
)

// A pair trial is planned into what is open, once, and nothing else of the plan changes; ended,
// both arms do one set-up again.
func TestAPairTrial(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	const who = "Tobias Quill"
	path := "/clients/" + demo.ClientID(who).String() + "/trials"
	read := func() []trials.TrialView {
		return got[struct{ Trials []trials.TrialView }](c, 200, c.call("GET", path, nil)).Trials
	}
	assert.Empty(t, read())
	near := got[struct {
		Partners []trials.WornView
		Why      string
	}](c, 200, c.call("POST", path+"/partners", map[string]any{"set_up": map[string]any{"movement": "curl_cable_facing_away"}}))
	require.NotEmpty(t, near.Partners)
	other := near.Partners[0]
	none := got[struct{ Why string }](
		c,
		200,
		c.call("POST", path+"/partners", map[string]any{"set_up": map[string]any{"movement": "dip_bars"}}),
	)
	assert.Contains(t, none.Why, "arm by arm")

	sides := func() (out []string) {
		for _, day := range []string{"2026-11-25", "2026-12-02"} {
			for _, session := range c.week(who, day).Sessions {
				for i := range session.Slots {
					if x := session.Slots[i].Starts; x == "left_only" || x == "right_only" {
						out = append(out, string(x)+" "+session.Slots[i].JSON().Movement)
					}
				}
			}
		}
		return out
	}
	body := map[string]any{
		"id":    newID(),
		"left":  map[string]any{"movement": "curl_cable_facing_away"},
		"right": other,
		"weeks": 8,
	}
	assert.Equal(t, 422, c.call("POST", path, changed(body, map[string]any{"weeks": 3})).status)
	assert.Equal(
		t,
		422,
		c.call("POST", path, changed(body, map[string]any{"right": map[string]any{"movement": "dip_bars"}})).status,
	)
	before := len(sides())
	first := c.call("POST", path, body)
	require.Equal(t, 200, first.status, first.body)
	assert.Len(t, sides(), before+2)
	require.Equal(t, 200, c.call("POST", path, body).status, "sent again")
	assert.Equal(
		t,
		409,
		c.call("POST", path, changed(body, map[string]any{"left": other, "right": body["left"]})).status,
		"other content",
	)
	assert.Equal(t, 409, c.call("POST", path, changed(body, map[string]any{"id": newID()})).status, "one at a time")
	assert.Len(t, sides(), before+2, "written once")
	now := read()
	require.Len(t, now, 1)
	assert.Equal(t, 1, now[0].Week)
	assert.EqualValues(t, "not_yet", now[0].Verdict)
	assert.Empty(t, now[0].Differs)

	require.Equal(t, 200, c.call("POST", path+"/"+now[0].ID.String()+"/stop", map[string]any{"keep": "right"}).status)
	assert.Len(t, sides(), before)
	assert.True(t, read()[0].Stopped)
}
