package httpapi_test

import (
	"strings"
	"testing"

	"musculus/internal/httpapi/week"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
)

type weekView struct {
	From     string
	Sessions []struct {
		ID, Name  string
		Version   int
		PlannedOn string `json:"planned_on"`
		Slots     []map[string]any
		Board     []struct{ Title string }
	}
	Ledger struct {
		Heads []struct {
			ID, Level string
			Total     float64
			Direct    float64
			Elsewhere float64
			From      float64 `json:"target_low"`
			Lengths   []struct{ Sets float64 }
		}
	}
	Findings []struct {
		Key, Code, Text, Why, Severity string
		Fix                            *struct {
			Words    string
			Sessions []map[string]any
		}
		Accepted *struct{ Reason, By string }
	}
}

// writes gives every session of a fix the id of a save.
func writes(sessions []map[string]any) []map[string]any {
	for _, s := range sessions {
		s["write"] = newID()
	}
	return sessions
}

func TestAWeekIsCountedAuditedAndFixed(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := clientPath("Ines Karlova")
	w := got[weekView](c, 200, c.call("GET", path+"/week", nil))
	assert.Equal(t, "2026-11-23", w.From, "a week begins on Monday")
	require.NotEmpty(t, w.Sessions)
	front := w.Ledger.Heads[2]
	assert.Equal(t, "prioritise", front.Level)
	assert.Equal(t, 12.0, front.From)
	assert.Positive(t, front.Elsewhere, "she pulls on two other days")
	var fixed, key string
	for _, f := range w.Findings {
		assert.NotEmpty(t, f.Why, f.Key)
		if key == "" && f.Fix != nil && (f.Code == "under" || f.Code == "length") {
			key = f.Key
			fixed = f.Fix.Words
			after := got[weekView](c, 200, c.call("PUT", path+"/week", map[string]any{"sessions": writes(f.Fix.Sessions)}))
			for h := range after.Ledger.Heads {
				if is, was := after.Ledger.Heads[h], w.Ledger.Heads[h]; "under:"+is.ID == key {
					assert.Greater(t, is.Total, was.Total, "%s is a step at least", fixed)
				}
			}
			assert.LessOrEqual(t, len(after.Findings), len(w.Findings))
			// The same fix again changes nothing; another change of what was read is stale.
			again := got[weekView](c, 200, c.call("PUT", path+"/week", map[string]any{"sessions": writes(f.Fix.Sessions)}))
			assert.Equal(t, after.Sessions, again.Sessions)
			f.Fix.Sessions[0]["name"] = "Late"
			assert.Equal(t, 409, c.call("PUT", path+"/week", map[string]any{"sessions": writes(f.Fix.Sessions)}).status)
		}
	}
	require.NotEmpty(t, key, "one session does not reach what comes first")
	w = got[weekView](c, 200, c.call("GET", path+"/week", nil))
	require.NotEmpty(t, w.Findings)
	first := w.Findings[0]
	assert.Equal(
		t,
		422,
		c.call("POST", path+"/accepted", map[string]any{"id": newID(), "key": first.Key, "accepted": true, "reason": " "}).status,
	)
	require.Equal(
		t,
		204,
		c.call(
			"POST",
			path+"/accepted",
			map[string]any{"id": newID(), "key": first.Key, "accepted": true, "reason": "on purpose this week"},
		).status,
	)
	w = got[weekView](c, 200, c.call("GET", path+"/week", nil))
	for _, f := range w.Findings {
		if f.Key == first.Key {
			require.NotNil(t, f.Accepted)
			assert.Equal(t, "on purpose this week", f.Accepted.Reason)
			assert.Equal(t, wren.Name, f.Accepted.By)
		}
	}
}

// A week is saved whole or not at all, and a preview writes nothing.
func TestAWeekIsSavedWholeOrNotAtAll(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := clientPath("Noor Halloran")
	w := got[weekView](c, 200, c.call("GET", path+"/week", nil))
	require.Len(t, w.Sessions, 1, "one session this week")
	draft := func(name, on string, version int) map[string]any {
		return map[string]any{
			"id":          newID(),
			"write":       newID(),
			"version":     version,
			"name":        name,
			"planned_on":  on,
			"warm_up_min": 5,
			"slots":       []any{},
		}
	}
	fresh := draft("Extra", "2026-11-26", 0)
	broken := draft("Broken", "2026-11-26", 0)
	broken["slots"] = []any{
		map[string]any{
			"id":       newID(),
			"movement": "curl_reclined",
			"settings": map[string]any{},
			"cues":     []any{},
			"rows":     rows(99, 8, 12, 2, 90, nil),
		},
	}
	p := got[problem](c, 422, c.call("PUT", path+"/week", map[string]any{"sessions": []any{fresh, broken}}))
	assert.True(t, strings.HasSuffix(p.locations()[0], "rows[0].sets"), "%v", p.locations())
	w = got[weekView](c, 200, c.call("GET", path+"/week", nil))
	require.Len(t, w.Sessions, 1, "the good one was not kept either")
	preview := got[weekView](c, 200, c.call("POST", path+"/week", map[string]any{"sessions": []any{fresh}}))
	require.Len(t, preview.Sessions, 1)
	assert.Zero(t, preview.Ledger.Heads[0].Direct)
	w = got[weekView](c, 200, c.call("PUT", path+"/week", map[string]any{"sessions": []any{fresh}}))
	require.Len(t, w.Sessions, 2)
	w = got[weekView](c, 200, c.call("PUT", path+"/week", map[string]any{"sessions": []any{fresh}}))
	require.Len(t, w.Sessions, 2, "sent twice, added once")
	// A session of another client cannot be taken over under her name.
	stolen := draft("Stolen", "2026-11-26", 1)
	stolen["id"] = demo.SessionID("Aurelio Finch").String()
	assert.Equal(t, 404, c.call("PUT", path+"/week", map[string]any{"sessions": []any{stolen}}).status)
}

// Each head is filled by its own target: two that get the same are not filled alike
// where one is asked for more.
func TestFillsAreByHead(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := clientPath("Aurelio Finch")
	require.Equal(
		t,
		200,
		c.call(
			"PUT",
			path+"/emphasis",
			map[string]any{"version": 1, "levels": map[string]any{"brachialis": "prioritise"}, "until": "2027-01-22"},
		).status,
	)
	fresh := map[string]any{"id": newID(), "write": newID(), "version": 0, "name": "Plain", "planned_on": "2026-12-15", "warm_up_min": 5,
		"slots": []any{
			map[string]any{
				"id":       newID(),
				"movement": "curl_standing_dumbbells",
				"settings": map[string]any{},
				"cues":     []any{},
				"rows":     rows(3, 8, 12, 2, 90, nil),
			},
		}}
	w := got[week.WeekView](c, 200, c.call("POST", path+"/week?of=2026-12-15", map[string]any{"sessions": []any{fresh}}))
	level, total := map[string]float64{}, map[string]float64{}
	for _, h := range w.Ledger.Slice.Heads {
		level[h.ID], total[h.ID] = h.Level, h.Value
	}
	require.InDelta(t, total["biceps_long"], total["brachialis"], 1e-9, "both get three sets")
	assert.InDelta(t, 0.75, level["biceps_long"], 1e-9, "of four")
	assert.InDelta(t, 0.25, level["brachialis"], 1e-9, "of twelve")
}
