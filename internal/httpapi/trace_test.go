package httpapi_test

import (
	"bufio"
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
)

// Every request is one line of the log, with what it took; its id is in the answer
// and in every problem, from wherever that comes.
func TestARequestIsFoundInTheLog(t *testing.T) {
	logged := logging(t)
	s := open(t)
	c := s.signedIn(t, wren)
	line := func(id string) map[string]any {
		lines := bufio.NewScanner(strings.NewReader(logged.String()))
		for lines.Scan() {
			var one map[string]any
			require.NoError(t, json.Unmarshal(lines.Bytes(), &one))
			if one["id"] == id && one["msg"] == "request" {
				return one
			}
		}
		t.Fatalf("no line of %q in %s", id, logged.String())
		return nil
	}
	a := c.call("GET", clientPath("Aurelio Finch")+"/week", nil)
	require.Equal(t, 200, a.status)
	one := line(a.header.Get("X-Request-Id"))
	assert.Equal(t, "get-week", one["operation"])
	assert.Equal(t, 200.0, one["status"])
	assert.NotEmpty(t, one["studio"])
	assert.Positive(t, one["ms"])
	assert.Positive(t, one["database_ms"])
	assert.Less(t, one["database_ms"], one["ms"])
	assert.Positive(t, one["queries"])
	assert.NotContains(t, logged.String(), demo.ClientID("Aurelio Finch").String(), "who it was about is nobody's business")

	// A log asks for the client, the session, its sets, what was told beside them, by whom, and
	// the last of all its series, however many slots it has; the sign-in and the studio come on top.
	path := sessionPath("Bettina Groos")
	d := draft(c, path)
	for len(d["slots"].([]any)) < 6 {
		more := deepCopy(d["slots"].([]any)[len(d["slots"].([]any))%2]).(map[string]any)
		more["id"], more["rows"].([]any)[0].(map[string]any)["id"] = newID(), newID()
		d["slots"] = append(d["slots"].([]any), more)
	}
	require.Equal(t, 200, c.call("PUT", path, d).status)
	c.call("GET", path+"/log", nil)
	assert.LessOrEqual(t, line(c.call("GET", path+"/log", nil).header.Get("X-Request-Id"))["queries"], 6.0+2)

	stranger := s.caller(t)
	for name, a := range map[string]answer{
		"an operation's own": c.call("POST", clientPath("Aurelio Finch")+"/log", nil),
		"not signed in":      stranger.call("GET", "/clients", nil),
		"too large":          c.call("POST", "/fit", strings.Repeat(" ", 1<<20)),
		"no such address":    c.call("GET", "/no/such", nil),
		"no such client":     c.call("GET", "/clients/"+newID(), nil),
		"asked back":         c.call("PUT", "/clients/"+newID()+"/week", map[string]any{"sessions": []any{}}),
		"clash":              c.call("PATCH", clientPath("Aurelio Finch")+"/dossier", changes("name", "Somebody", "Else")),
	} {
		var p struct{ Instance string }
		require.NoError(t, json.Unmarshal([]byte(a.body), &p), "%s: %s", name, a.body)
		assert.Equal(t, "/requests/"+a.header.Get("X-Request-Id"), p.Instance, name)
		assert.GreaterOrEqual(t, a.status, 400, name)
		line(a.header.Get("X-Request-Id"))
	}
}
