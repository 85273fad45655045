package httpapi_test

import (
	"encoding/json"
	"flag"
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
	"musculus/internal/httpapi"
)

var bodies = flag.Int("bodies", 2000, "how many odd bodies are sent to the API")

// odd are values that a field may find in its place.
var odd = []any{
	nil, true, false, 0, -1, 1, 0.5, 1e9, -1e9, 1e18, json.Number("1e305"), json.Number("99999999999999999999"),
	json.Number("2147483648"), 1 << 31, 1 << 53,
	"", " ", "x", "null", "\x00", "a\x00b", "line\nbreak", "\u202eturned", "\x1b[31m", "ä☂腕", "'; DROP TABLE client; --",
	"<script>alert(1)</script>", "2026-11-25", "9999-12-31", "0000-00-00", "-1-1-1", "1e305",
	"00000000-0000-0000-0000-000000000000", "curl_reclined", "dip_bars", "both", "left", strings.Repeat("x", 500), strings.Repeat("ü", 20_000),
	[]any{}, map[string]any{}, []any{nil}, map[string]any{"": ""}, []any{[]any{[]any{}}}, map[string]any{"a\nb": 1},
	map[string]any{"bench": 1e305},
}

// mutate changes one place of a value, anywhere in it.
func mutate(r *rand.Rand, v any) any {
	if r.IntN(40) == 0 {
		return odd[r.IntN(len(odd))]
	}
	switch v := v.(type) {
	case map[string]any:
		out := maps.Clone(v)
		keys := slices.Sorted(maps.Keys(out))
		if len(keys) == 0 || r.IntN(12) == 0 {
			out["unknown"] = odd[r.IntN(len(odd))]
			return out
		}
		k := keys[r.IntN(len(keys))]
		if r.IntN(12) == 0 {
			delete(out, k)
		} else {
			out[k] = mutate(r, out[k])
		}
		return out
	case float64:
		if r.IntN(2) == 0 { // near by
			return v + []float64{-1, 1, 0.5, 10, -10, 100}[r.IntN(6)]
		}
	case []any:
		if len(v) == 0 || r.IntN(10) == 0 {
			return append(slices.Clone(v), odd[r.IntN(len(odd))])
		}
		out := slices.Clone(v)
		i := r.IntN(len(out))
		switch r.IntN(8) {
		case 0:
			return slices.Delete(out, i, i+1)
		case 1:
			for range 1 << r.IntN(8) {
				out = append(out, out[i])
			}
			return out
		}
		out[i] = mutate(r, out[i])
		return out
	}
	return odd[r.IntN(len(odd))]
}

// bases are bodies that each operation takes.
func bases(t *testing.T, c *caller) map[string][3]any {
	path := sessionPath("Aurelio Finch")
	full := func() map[string]any { return draft(c, path) }
	week := func() map[string]any {
		one := full()
		one["id"] = demo.SessionID("Aurelio Finch").String()
		two := with(plainSession(), map[string]any{"id": newID(), "write": newID(), "version": 0, "slots": full()["slots"]})
		for _, s := range two["slots"].([]any) {
			s.(map[string]any)["id"] = newID()
		}
		return map[string]any{"sessions": []any{one, two}}
	}
	rich := map[string]func() any{
		"save-session":    func() any { return full() },
		"preview-session": func() any { d := full(); delete(d, "version"); delete(d, "write"); return d },
		"preview-sheet":   func() any { d := full(); delete(d, "version"); delete(d, "write"); return d },
		"add-session":     func() any { d := full(); delete(d, "version"); d["id"] = newID(); return d },
		"arrange":         func() any { return arranged("each") },
		"save-week":       func() any { return week() },
		"preview-week":    func() any { return week() },
		"check-own": func() any {
			return map[string]any{
				"id": "own_x",
				"text": "- id: own_x\n  name: X\n  action: flexion\n  family: curl_upright\n  implements: [dumbbell]\n  load: " +
					"free\n  from: {elbow_flexion: 10}\n  to: {elbow_flexion: 120}\n",
			}
		},
	}
	out := map[string][3]any{}
	for _, op := range operations(t) {
		row := access[op[2]]
		make := rich[op[2]]
		if make == nil && row.body != nil {
			make = func() any { return row.body(c) }
		}
		if make == nil || op[2] == "sign-out" {
			continue
		}
		if _, isForm := make().(form); !isForm {
			out[op[2]] = [3]any{op[0], op[1], make}
		}
	}
	return out
}

// Whatever is sent to whatever operation: no failure of ours, no answer over its
// bound, none that takes long.
func TestOddBodies(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	all := bases(t, c)
	names := slices.Sorted(maps.Keys(all))
	require.Greater(t, len(names), 30)
	for name, op := range all { // as they are, they are taken, or name something that is not there
		a := c.call(op[0].(string), filled(op[1].(string)), op[2].(func() any)())
		// Of one the id is in the address; of three a password or a code would have to be right.
		if !slices.Contains([]string{"save-own", "set-password", "confirm-factor", "drop-factor"}, name) {
			assert.Contains(t, []int{200, 204, 401, 404, 409}, a.status, "%s: %s", name, a.body)
		}
	}
	r := rand.New(rand.NewPCG(2026, 11))
	taken, slowest, largest := map[int]int{}, time.Duration(0), 0
	for n := range *bodies {
		name := names[n%len(names)]
		op := all[name]
		b, err := json.Marshal(op[2].(func() any)())
		require.NoError(t, err)
		var base any
		require.NoError(t, json.Unmarshal(b, &base))
		for range r.IntN(3) {
			base = mutate(r, base)
		}
		sent, err := json.Marshal(base)
		require.NoError(t, err)
		if r.IntN(40) == 0 {
			sent = sent[:r.IntN(len(sent))]
		}
		began := time.Now()
		a := c.call(op[0].(string), filled(op[1].(string)), string(sent))
		took := time.Since(began)
		slowest, largest = max(slowest, took), max(largest, len(a.body))
		taken[a.status]++
		if a.status >= 500 || len(a.body) > 2<<20 {
			t.Errorf("%s: %d, %d kB in %v\n%.2000s\n→ %.600s", name, a.status, len(a.body)>>10, took, sent, a.body)
		}
		if a.status < 300 && len(a.body) > 0 {
			assert.True(t, json.Valid([]byte(a.body)), "%s answers half a body", name)
		}
		assert.Less(t, took, 10*time.Second, name)
	}
	t.Logf("%d bodies over %d operations: %v; slowest %v, largest %d kB", *bodies, len(names), taken, slowest, largest>>10)
	assert.Greater(t, taken[200]+taken[204], *bodies/50, "some are taken")
	assert.Greater(t, taken[422], *bodies/4, "most are refused")
}

// Bodies of every operation that are no JSON, nothing, or far too much.
func TestBodiesThatAreNone(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	for name, op := range bases(t, c) {
		for _, body := range []string{"", "nonsense", "[", "{}", "null", "[]", strings.Repeat(" ", 300<<10),
			strings.Repeat("[", 200_000), `{"a":` + strings.Repeat(`{"a":`, 5000)} {
			a := c.call(op[0].(string), filled(op[1].(string)), body)
			assert.Less(t, a.status, 500, "%s takes %.40q: %s", name, body, a.body)
			assert.GreaterOrEqual(t, a.status, 200)
		}
	}
	b, err := httpapi.OpenAPI()
	require.NoError(t, err)
	assert.NotContains(t, string(b), fmt.Sprintf("%d", 1<<60))
}
