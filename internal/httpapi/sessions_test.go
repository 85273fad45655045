package httpapi_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"musculus/internal/httpapi/clients"
	"musculus/internal/httpapi/floor"
	"musculus/internal/httpapi/sessions"
	"musculus/internal/httpapi/sheet"
	"musculus/internal/view"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/movement"
	"musculus/internal/demo"
)

func TestAFittedSetUp(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	f := got[view.Fitted](
		c,
		200,
		c.call("POST", "/fit", map[string]any{"movement": "curl_reclined", "settings": map[string]any{"bench": 61}, "turning": "bench"}),
	)
	assert.Equal(t, "Reclined 60° curl, two dumbbells, palms up", f.View.Title)
	assert.Equal(t, movement.Settings{movement.Bench: movement.Num(60)}, f.View.Settings)
	assert.Equal(t, "Takes 3\u00a0% more load than a plain curl, for the same effort", f.View.Load)
	require.Len(t, f.Neighbours, 2)
	assert.Equal(t, []float64{55, 65}, []float64{f.Neighbours[0].Value, f.Neighbours[1].Value})
	assert.Contains(t, f.Neighbours[1].View.Title, "65°")
	plain := got[view.Fitted](c, 200, c.call("POST", "/fit", map[string]any{"movement": "curl_standing_dumbbells"}))
	for _, b := range plain.View.Bias[:4] {
		assert.Equal(t, 1.0, b.Value, "the plain curl is one for every head")
	}
	graded := got[view.Fitted](c, 200, c.call("POST", "/fit", map[string]any{"movement": "dip_bars"}))
	assert.False(t, graded.View.Computed)
	assert.Nil(t, graded.View.Ribbon)
	assert.Less(t, graded.View.Bias[4].Low, graded.View.Bias[4].High)
	tall := got[view.Fitted](
		c,
		200,
		c.call("POST", "/fit", map[string]any{"movement": "curl_reclined", "client": demo.ClientID("Tobias Quill")}),
	)
	assert.NotEqual(t, f.View.Pose.Box, tall.View.Pose.Box, "the client's own body is drawn")
}

func TestBadInputIsRefusedAtItsField(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := sessionPath("Bettina Groos")
	for _, b := range []struct {
		name     string
		change   func(d map[string]any)
		location string
	}{
		{"reserve beyond the caps", func(d map[string]any) { row(d, 0)["reserve"] = 1 }, "body.slots[0].rows[0].reserve"},
		{"rest beyond the caps", func(d map[string]any) { row(d, 1)["rest_s"] = 60 }, "body.slots[1].rows[0].rest_s"},
		{"no such step", func(d map[string]any) { row(d, 0)["load"] = map[string]any{"kg": 6.9} }, "body.slots[0].rows[0].load.kg"},
		{"negative load", func(d map[string]any) { row(d, 0)["load"] = map[string]any{"kg": -1} }, "body.slots[0].rows[0].load"},
		{"huge sets", func(d map[string]any) { row(d, 0)["sets"] = 1000000 }, "body.slots[0].rows[0].sets"},
		{"reps upside down", func(d map[string]any) { row(d, 0)["reps_high"] = 2 }, "body.slots[0].rows[0].reps_high"},
		{"short tempo", func(d map[string]any) { row(d, 0)["tempo"] = []any{1, 2} }, "body.slots[0].rows[0].tempo"},
		{"setting outside", func(d map[string]any) { slot(d, 0)["settings"] = map[string]any{"e_to": 200} }, "body.slots[0].settings.e_to"},
		{"unknown setting", func(d map[string]any) { slot(d, 0)["settings"] = map[string]any{"bench": 45} }, "body.slots[0].settings.bench"},
		{"setting of no kind", func(d map[string]any) { slot(d, 0)["settings"] = map[string]any{"e_to": []any{}} },
			"body.slots[0].settings.e_to"},
		{"unknown movement", func(d map[string]any) { slot(d, 0)["movement"] = "curl_imagined" }, "body.slots[0].movement"},
		{"four cues", func(d map[string]any) { slot(d, 0)["cues"] = []any{"a", "b", "c", "d"} }, "body.slots[0].cues"},
		{"a cue too long", func(d map[string]any) { slot(d, 0)["cues"] = []any{strings.Repeat("x", 61)} }, "body.slots[0].cues"},
		{"one id twice", func(d map[string]any) { slot(d, 1)["id"] = slot(d, 0)["id"] }, "body.slots[1].id"},
		{"blank name", func(d map[string]any) { d["name"] = "   " }, "body.name"},
		{"no date", func(d map[string]any) { d["planned_on"] = "soon" }, "body.planned_on"},
		{"year 9999", func(d map[string]any) { d["planned_on"] = "9999-01-01" }, "body.planned_on"},
		{"warm-up of a day", func(d map[string]any) { d["warm_up_min"] = 1440 }, "body.warm_up_min"},
		{"an unknown field", func(d map[string]any) { d["nmae"] = "x" }, "body.nmae"},
	} {
		d := draft(c, path)
		b.change(d)
		p := got[problem](c, 422, c.call("PUT", path, d))
		assert.Contains(t, p.locations(), b.location, b.name)
		assert.NotEmpty(t, p.Errors[0].Message, b.name)
	}
	for _, raw := range []string{"", "{", "null", "[]", `"text"`, `{"name": NaN}`, `{"name": 1e999}`,
		strings.Repeat("[", 10000), `{"slots": "` + strings.Repeat("x", 300<<10) + `"}`} {
		a := c.call("PUT", path, raw)
		assert.True(t, a.status >= 400 && a.status < 500, "%.20q: %d", raw, a.status)
		assert.Equal(t, "application/problem+json", a.header.Get("Content-Type"))
	}
	for _, bad := range []string{"/clients/nonsense", "/clients/" + newID(), "/clients/" +
		demo.ClientID("Bettina Groos").String() + "/sessions/" + newID(), "/nowhere"} {
		a := c.call("GET", bad, nil)
		assert.True(t, a.status == 404 || a.status == 422, "%s: %d", bad, a.status)
	}
	after := got[view.SessionView](c, 200, c.call("GET", path, nil))
	assert.Equal(t, 1, after.Version, "nothing of all this was written")
}

// Whatever is sent, the answer is never an error of ours.
func TestNoBodyBreaksTheServer(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	r := rand.New(rand.NewPCG(31, 32))
	scraps := []any{
		nil,
		1,
		-1e300,
		0.5,
		"",
		"bench",
		[]any{},
		map[string]any{},
		true,
		[]any{nil},
		map[string]any{"bench": nil},
		strings.Repeat("ü", 100),
	}
	path := sessionPath("Aurelio Finch")
	for range 300 {
		d := draftOnce(c, path)
		for range 1 + r.IntN(3) {
			m := d
			switch r.IntN(3) {
			case 1:
				m = slot(d, r.IntN(4))
			case 2:
				if list, _ := slot(d, r.IntN(4))["rows"].([]any); len(list) > 0 {
					m, _ = list[r.IntN(len(list))].(map[string]any)
				}
			}
			keys := []string{}
			for k := range m {
				keys = append(keys, k)
			}
			if len(keys) > 0 {
				m[keys[r.IntN(len(keys))]] = scraps[r.IntN(len(scraps))]
			}
			if _, ok := d["slots"].([]any); !ok || len(d["slots"].([]any)) < 4 {
				break
			}
			if _, ok := d["slots"].([]any)[0].(map[string]any); !ok {
				break
			}
		}
		week := map[string]any{"sessions": []any{d}}
		bare := deepCopy(d).(map[string]any)
		delete(bare, "version")
		delete(bare, "write")
		for _, target := range []struct {
			method, path string
			body         any
		}{{"PUT", path, d}, {"POST", path + "/preview", bare}, {"POST", path + "/sheet", bare},
			{"POST", clientPath("Aurelio Finch") + "/week", week}, {"PUT", clientPath("Aurelio Finch") + "/week", week}} {
			a := c.call(target.method, target.path, target.body)
			require.Less(t, a.status, 500, "%s %s %v → %s", target.method, target.path, d, a.body)
		}
	}
}

var template map[string]any

// draftOnce copies one draft read before.
func draftOnce(c *caller, path string) map[string]any {
	if template == nil {
		template = draft(c, path)
		template["id"], template["locked"], template["removed"] = demo.SessionID("Aurelio Finch").String(), false, false
		s := template["slots"].([]any)[1].(map[string]any)
		s["starts"], s["locked"], s["combo"] = "left", true, "x"
		s["rows"] = append(
			s["rows"].([]any),
			rows(
				1,
				8,
				8,
				1,
				60,
				map[string]any{"movement": "curl_reclined", "settings": map[string]any{"bench": 60}, "load": map[string]any{"share": 0.5}},
			)...)
		template["combos"] = []any{map[string]any{"id": "x", "between_s": 0, "after_s": 90, "loads": "one"}}
	}
	return deepCopy(template).(map[string]any)
}

func deepCopy(v any) any {
	switch v := v.(type) {
	case map[string]any:
		out := map[string]any{}
		for k, x := range v {
			out[k] = deepCopy(x)
		}
		return out
	case []any:
		out := make([]any, len(v))
		for i, x := range v {
			out[i] = deepCopy(x)
		}
		return out
	}
	return v
}

func TestSavingTellsAStaleEdit(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := sessionPath("Aurelio Finch")
	mine, theirs := draft(c, path), draft(c, path)
	theirs["name"] = "Balcony day"
	saved := got[view.SessionView](c, 200, c.call("PUT", path, theirs))
	assert.Equal(t, 2, saved.Version)
	again := got[view.SessionView](c, 200, c.call("PUT", path, theirs))
	assert.Equal(t, 2, again.Version, "the same save sent twice counts once")
	stale := got[struct {
		problem
		Current view.SessionView
	}](c, 409, c.call("PUT", path, mine))
	assert.Equal(t, "Balcony day", stale.Current.Name)
	assert.Equal(t, "Wren Adeyemi-Holt", stale.Current.SavedBy)
	mine["version"] = stale.Current.Version
	assert.Equal(t, 3, got[view.SessionView](c, 200, c.call("PUT", path, mine)).Version)
}

func TestAPreviewCountsWithoutSaving(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := sessionPath("Aurelio Finch")
	d := draft(c, path)
	before := got[view.SessionView](c, 200, c.call("GET", path, nil))
	row(d, 1)["sets"] = 6
	row(d, 1)["reserve"] = 9
	delete(d, "version")
	delete(d, "write")
	d["active"] = slot(d, 1)["id"]
	p := got[sessions.Preview](c, 200, c.call("POST", path+"/preview", d))
	require.Len(t, p.Faults, 1)
	assert.Equal(t, "slots[1].rows[0].reserve", p.Faults[0].Field)
	require.NotNil(t, p.Active)
	assert.Equal(t, "curl_reclined", p.Active.View.Movement)
	row(d, 1)["reserve"] = 1
	p = got[sessions.Preview](c, 200, c.call("POST", path+"/preview", d))
	assert.InDelta(
		t,
		before.Total.Heads[0].Value+3*p.Active.View.Bias[0].Credit,
		p.Session.Total.Heads[0].Value,
		1e-3,
		"three sets more of the reclined curl",
	)
	after := got[view.SessionView](c, 200, c.call("GET", path, nil))
	assert.Equal(t, before.Total, after.Total)
}

func TestANewSlotGetsTheUsualDoseUnderTheCaps(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := sessionPath("Noor Halloran")
	d := draft(c, path)
	d["slots"] = append(
		d["slots"].([]any),
		map[string]any{"id": newID(), "movement": "curl_turning", "settings": map[string]any{}, "cues": []any{}, "rows": []any{}},
	)
	saved := got[view.SessionView](c, 200, c.call("PUT", path, d))
	assert.Equal(t, 3, saved.Slots[3].Rows[0].Reserve, "cautious: three in reserve")
	assert.True(t, saved.Slots[3].Rows[0].Load.Find)
	assert.Contains(t, saved.Slots[3].LoadWords, "find it", "no kg is invented")
}

func TestTheSheet(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, jory)
	page := got[sheet.SheetView](c, 200, c.call("GET", sessionPath("Aurelio Finch")+"/sheet", nil))
	require.Len(t, page.Slots, 4)
	assert.Equal(t, "bar 60 kg", page.Slots[0].Load)
	assert.Equal(t, "14 kg a hand", page.Slots[1].Load)
	assert.Equal(t, "body weight", page.Slots[2].Load)
	for _, line := range page.Slots {
		for _, v := range []string{line.Title, line.Sets, line.Effort, line.Rest, line.Tempo, line.Load, line.Stop} {
			assert.NotEmpty(t, v)
		}
	}
	unscreened := got[sheet.SheetView](c, 200, c.call("GET", sessionPath("Pelle Sandoval")+"/sheet", nil))
	assert.NotEmpty(t, unscreened.Blocked)
	pressure := got[sheet.SheetView](c, 200, c.call("GET", sessionPath("Bettina Groos")+"/sheet", nil))
	assert.Contains(t, pressure.Caps, "Rest at least 90 s after every set.")
}

func TestTheLog(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, jory)
	path := sessionPath("Tobias Quill") + "/log"
	log := got[floor.LogView](c, 200, c.call("GET", path, nil))
	turning := log.Slots[0]
	assert.Equal(t, []string{"left", "right"}, turning.Sides, "the arms take turns")
	assert.Equal(t, []string{"both"}, log.Slots[2].Sides)
	assert.Contains(t, turning.Last, "7 days ago: dumbbell 14 kg × left ")
	assert.Equal(t, "kg on the stack", log.Slots[1].LoadLabel)
	entry := func(more map[string]any) map[string]any {
		return with(
			map[string]any{
				"id":       newID(),
				"slot":     turning.ID,
				"side":     "left",
				"set_no":   1,
				"reps":     9,
				"whole_kg": 14,
				"reserve":  1,
				"note":     " steady ",
			},
			more,
		)
	}
	first := entry(nil)
	got[floor.LogView](c, 200, c.call("POST", path, first))
	log = got[floor.LogView](c, 200, c.call("POST", path, first))
	require.Len(t, log.Slots[0].Entries, 1, "sent twice, logged once")
	assert.Equal(t, "steady", log.Slots[0].Entries[0].Note)
	assert.Equal(t, "dumbbell 18.7 kg", log.Slots[0].Entries[0].Estimate)
	assert.Equal(t, "right", log.Slots[0].Next.Side, "the other arm is next")
	assert.Equal(t, 1, log.Slots[0].Next.SetNo)
	log = got[floor.LogView](c, 200, c.call("POST", path, entry(map[string]any{"side": "right", "reps": 14})))
	assert.Equal(t, 2, log.Slots[0].Next.SetNo)
	assert.Empty(t, log.Slots[0].Entries[1].Estimate, "over twelve reps nothing is estimated")
	log = got[floor.LogView](c, 200, c.call("POST", path, entry(map[string]any{"reps": 10, "replaces": first["id"]})))
	require.Len(t, log.Slots[0].Entries, 2)
	assert.Equal(t, 10, log.Slots[0].Entries[0].Reps)
	cable := with(entry(nil), map[string]any{"slot": log.Slots[1].ID, "whole_kg": 20})
	log = got[floor.LogView](c, 200, c.call("POST", path, cable))
	assert.Equal(t, "stack 20 kg", log.Slots[1].Entries[0].Load)

	for name, bad := range map[string]map[string]any{
		"body.side":     entry(map[string]any{"side": "both"}),
		"body.slot":     entry(map[string]any{"slot": newID()}),
		"body.reps":     entry(map[string]any{"reps": 101}),
		"body.whole_kg": entry(map[string]any{"whole_kg": -3}),
	} {
		p := got[problem](c, 422, c.call("POST", path, bad))
		assert.Contains(t, p.locations(), name)
	}
	assert.Equal(t, 409, c.call("POST", path, entry(map[string]any{"replaces": first["id"]})).status, "corrected twice")
	assert.Equal(t, 409, c.call("POST", path, entry(map[string]any{"replaces": newID()})).status)
	other := sessionPath("Dario Vance") + "/log"
	assert.Equal(t, 422, c.call("POST", other, entry(nil)).status)
}

// A slot that was done and then taken out of the plan keeps its log.
func TestALogOutlivesItsSlot(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := sessionPath("Ines Karlova")
	log := got[floor.LogView](c, 200, c.call("GET", path+"/log", nil))
	gone := log.Slots[0]
	got[floor.LogView](
		c,
		200,
		c.call(
			"POST",
			path+"/log",
			map[string]any{
				"id":       newID(),
				"slot":     gone.ID,
				"side":     "both",
				"set_no":   1,
				"reps":     12,
				"whole_kg": 10,
				"reserve":  2,
				"note":     "",
			},
		),
	)
	d := draft(c, path)
	d["slots"] = d["slots"].([]any)[1:]
	got[view.SessionView](c, 200, c.call("PUT", path, d))
	log = got[floor.LogView](c, 200, c.call("GET", path+"/log", nil))
	last := log.Slots[len(log.Slots)-1]
	assert.False(t, last.Planned)
	assert.Equal(t, gone.Title, last.Title)
	assert.Len(t, last.Entries, 1)
}

func TestTheWallAndTheThread(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	wall := got[struct{ Clients []clients.ClientCard }](c, 200, c.call("GET", "/clients", nil))
	require.Len(t, wall.Clients, 8)
	assert.True(t, wall.Clients[0].Today && wall.Clients[1].Today, "today's come first")
	assert.False(t, wall.Clients[2].Today)
	for _, one := range wall.Clients {
		v := got[clients.ClientView](c, 200, c.call("GET", fmt.Sprint("/clients/", one.ID), nil))
		assert.Len(t, v.Knots, 6)
		assert.Equal(t, one.Session, v.Current)
		assert.NotEmpty(t, v.Screened)
		for _, k := range v.Knots {
			assert.NotEmpty(t, k.State)
		}
	}
}
