package httpapi_test

import (
	"context"
	"encoding/json"
	"net/http"
	"net/http/httptest"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/movement"
	"musculus/internal/demo"
	"musculus/internal/httpapi"
	"musculus/internal/store"
)

// toldNothing is an event of a session that ended before it began.
func toldNothing(*caller) any {
	return map[string]any{"device": newID(), "events": []any{map[string]any{"id": newID(), "no": 1, "kind": "end", "at": now, "offset_ms": 0,
		"version": 1, "end": map[string]any{"hard": 0}}}}
}

// dips is a series of Aurelio's.
var dips = movement.Shipped.Get("dip_bars").Default().Key()

// access says for every operation who gets in: the status an assistant gets
// with a request that is well-formed, and whether it names a client whose
// studio must be one's own.
var access = map[string]struct {
	anonymous, assistant int
	ofClient             bool
	body                 func(c *caller) any
}{
	"sign-in": {
		anonymous: 401,
		assistant: 401,
		body:      func(*caller) any { return map[string]any{"email": "x", "password": "y"} },
	},
	"sign-out": {anonymous: 204, assistant: 204},
	"set-me": {
		anonymous: 401, assistant: 200,
		body: func(*caller) any { return map[string]any{"name": "Jory", "units": "metric", "dates": "day_first"} },
	},
	"set-password": {
		anonymous: 401, assistant: 422,
		body: func(*caller) any { return map[string]any{"old": "x", "new": "y"} },
	},
	"sign-ins":       {anonymous: 401, assistant: 200},
	"end-sign-in":    {anonymous: 401, assistant: 404},
	"end-sign-ins":   {anonymous: 401, assistant: 204},
	"move-to-studio": {anonymous: 401, assistant: 404, body: func(*caller) any { return map[string]any{"studio": newID()} }},
	"begin-factor":   {anonymous: 401, assistant: 200},
	"confirm-factor": {anonymous: 401, assistant: 422, body: func(*caller) any { return map[string]any{"code": "000"} }},
	"drop-factor":    {anonymous: 401, assistant: 422, body: func(*caller) any { return map[string]any{"password": "x"} }},
	"forgotten":      {anonymous: 409, assistant: 409, body: func(*caller) any { return map[string]any{"email": "x"} }},
	"look-at-link":   {anonymous: 404, assistant: 404},
	"open-link-once": {anonymous: 404, assistant: 404, body: func(*caller) any { return map[string]any{"password": "x"} }},
	"renew-password": {anonymous: 404, assistant: 404, body: func(*caller) any { return map[string]any{"password": "x"} }},
	"people":         {anonymous: 401, assistant: 403},
	"floor-around":   {anonymous: 401, assistant: 200},
	"floor-ready":    {anonymous: 401, assistant: 200, ofClient: true},
	"floor-done":     {anonymous: 401, assistant: 200, ofClient: true},
	"floor-tell":     {anonymous: 401, assistant: 200, ofClient: true, body: toldNothing},
	"today":          {anonymous: 401, assistant: 200},
	"trend":          {anonymous: 401, assistant: 200, ofClient: true},
	"export-trend":   {anonymous: 401, assistant: 200, ofClient: true},
	"check-in":       {anonymous: 404, assistant: 404},
	"tell-check-in": {
		anonymous: 404,
		assistant: 404,
		body: func(*caller) any {
			return map[string]any{"id": newID(), "key": "", "answer": "", "asks": "May I swim?"}
		},
	},
	"check-ins":    {anonymous: 401, assistant: 200, ofClient: true},
	"see-check-in": {anonymous: 401, assistant: 403, ofClient: true, body: func(*caller) any { return map[string]any{"reply": ""} }},
	"begin-tolerance": {
		anonymous: 401,
		assistant: 403,
		ofClient:  true,
		body: func(*caller) any {
			return map[string]any{"id": newID(), "series": dips, "joint": "wrist", "side": "left"}
		},
	},
	"get-trials": {anonymous: 401, assistant: 200, ofClient: true},
	"trial-partners": {
		anonymous: 401,
		assistant: 200,
		ofClient:  true,
		body:      func(*caller) any { return map[string]any{"set_up": map[string]any{"movement": "kickback_cable"}} },
	},
	"begin-trial": {
		anonymous: 401,
		assistant: 403,
		ofClient:  true,
		body: func(*caller) any {
			return map[string]any{"id": newID(), "left": map[string]any{"movement": "curl_cable_facing_away"},
				"right": map[string]any{"movement": "curl_pad_steep_side"}, "weeks": 8}
		},
	},
	"stop-trial": {anonymous: 401, assistant: 403, ofClient: true, body: func(*caller) any { return map[string]any{"keep": "left"} }},
	"get-block":  {anonymous: 401, assistant: 200, ofClient: true},
	"preview-block": {
		anonymous: 401,
		assistant: 403,
		ofClient:  true,
		body:      func(*caller) any { return blockOf("2026-11-23") },
	},
	"save-block": {anonymous: 401, assistant: 403, ofClient: true, body: func(*caller) any { return blockOf("2026-11-23") }},
	"end-block":  {anonymous: 401, assistant: 403, ofClient: true, body: func(*caller) any { return map[string]any{"id": newID()} }},
	"missed-day": {
		anonymous: 401,
		assistant: 403,
		ofClient:  true,
		body:      func(*caller) any { return map[string]any{"session": newID(), "way": "drop"} },
	},
	"stop-tolerance": {anonymous: 401, assistant: 403, ofClient: true},
	"answer-proposal": {
		anonymous: 401,
		assistant: 403,
		ofClient:  true,
		body: func(*caller) any {
			return map[string]any{"id": newID(), "series": "", "kind": "hold", "answer": "not_now"}
		},
	},
	"undo-decision": {anonymous: 401, assistant: 403, ofClient: true, body: func(*caller) any { return map[string]any{"id": newID()} }},
	"link-ready":    {anonymous: 404, assistant: 404},
	"link-done":     {anonymous: 404, assistant: 404},
	"link-tell":     {anonymous: 404, assistant: 404, body: toldNothing},
	"invite": {
		anonymous: 401, assistant: 403,
		body: func(*caller) any { return map[string]any{"id": newID(), "email": "a@b.example", "role": "coach"} },
	},
	"withdraw-invitation": {anonymous: 401, assistant: 403},
	"set-account": {
		anonymous: 401, assistant: 403,
		body: func(*caller) any { return map[string]any{"role": "owner", "disabled": false} },
	},
	"hand-over":     {anonymous: 401, assistant: 403, body: func(*caller) any { return map[string]any{"to": newID()} }},
	"demand-factor": {anonymous: 401, assistant: 403, body: func(*caller) any { return map[string]any{"demanded": false} }},
	"security":      {anonymous: 401, assistant: 403},
	"me":            {anonymous: 401, assistant: 200},
	"front":         {anonymous: 200, assistant: 200},
	"catalogue":     {anonymous: 401, assistant: 200},
	"fit": {
		anonymous: 401,
		assistant: 200,
		body:      func(*caller) any { return map[string]any{"movement": "curl_reclined"} },
	},
	"library": {anonymous: 401, assistant: 200},
	"near": {
		anonymous: 401,
		assistant: 200,
		body:      func(*caller) any { return map[string]any{"movement": "curl_reclined"} },
	},
	"tune": {
		anonymous: 401,
		assistant: 200,
		body:      func(*caller) any { return map[string]any{"movement": "lying_bar", "head": "triceps_long"} },
	},
	"fault-costs": {anonymous: 401, assistant: 200, body: func(*caller) any { return map[string]any{"movement": "lying_bar"} }},
	"look": {
		anonymous: 401,
		assistant: 200,
		body:      func(*caller) any { return map[string]any{"movement": "lying_bar", "head": "triceps_long"} },
	},
	"rep": {anonymous: 401, assistant: 200, body: func(*caller) any { return map[string]any{"movement": "lying_bar"} }},
	"figures": {
		anonymous: 401,
		assistant: 200,
		body: func(*caller) any {
			return map[string]any{"set_ups": []any{map[string]any{"movement": "lying_bar"}, map[string]any{"movement": "press_floor"}}}
		},
	},
	"hints":     {anonymous: 401, assistant: 200, body: func(*caller) any { return map[string]any{"movement": "lying_bar"} }},
	"own":       {anonymous: 401, assistant: 200},
	"find":      {anonymous: 401, assistant: 200},
	"own-words": {anonymous: 401, assistant: 200},
	"set-preferences": {
		anonymous: 401,
		assistant: 403,
		body:      func(*caller) any { return map[string]any{"preferences": map[string]string{"reps": "high"}} },
	},
	"put-own-word": {
		anonymous: 401,
		assistant: 403,
		body:      func(*caller) any { return map[string]any{"implement": "bar_cambered"} },
	},
	"drop-own-word": {anonymous: 401, assistant: 403},
	"own-text": {
		anonymous: 401,
		assistant: 403,
		body:      func(*caller) any { return map[string]any{"movement": "lying_bar", "name": "Ours"} },
	},
	"check-own": {
		anonymous: 401,
		assistant: 403,
		body:      func(*caller) any { return map[string]any{"id": "own_x", "text": "- id: own_x"} },
	},
	"save-own": {
		anonymous: 401,
		assistant: 403,
		body:      func(*caller) any { return map[string]any{"text": "- id: own_x", "version": 0} },
	},
	"keep-set-up": {
		anonymous: 401,
		assistant: 403,
		body:      func(*caller) any { return map[string]any{"name": "Ours", "movement": "lying_bar"} },
	},
	"drop-set-up": {anonymous: 401, assistant: 403},
	"stances":     {anonymous: 401, assistant: 200},
	"check-tip": {
		anonymous: 401,
		assistant: 200,
		body:      func(*caller) any { return map[string]any{"lever": "bar_narrow", "head": "biceps_long", "up": true} },
	},
	"copy-stance": {
		anonymous: 401,
		assistant: 403,
		body:      func(*caller) any { return map[string]any{"id": newID(), "of": "hand", "name": "Mine"} },
	},
	"switch-own": {
		anonymous: 401,
		assistant: 403,
		body:      func(*caller) any { return map[string]any{"rule": "r_arm_behind_long", "on": false, "version": 1} },
	},
	"note-rule": {anonymous: 401, assistant: 403, body: func(*caller) any { return map[string]any{"note": "x"} }},
	"set-stance": {
		anonymous: 401,
		assistant: 403,
		ofClient:  true,
		body:      func(*caller) any { return map[string]any{"stance": "stretch"} },
	},
	"try-stance": {
		anonymous: 401,
		assistant: 200,
		ofClient:  true,
		body:      func(*caller) any { return map[string]any{"stance": "stretch"} },
	},
	"switch-rule": {
		anonymous: 401,
		assistant: 200,
		ofClient:  true,
		body:      func(*caller) any { return map[string]any{"rule": "r_arm_behind_long"} },
	},
	"list-clients":   {anonymous: 401, assistant: 200},
	"get-client":     {anonymous: 401, assistant: 200, ofClient: true},
	"get-session":    {anonymous: 401, assistant: 200, ofClient: true},
	"add-session":    {anonymous: 401, assistant: 403, ofClient: true, body: func(*caller) any { return newSession() }},
	"save-session":   {anonymous: 401, assistant: 403, ofClient: true, body: func(*caller) any { return savedSession() }},
	"compare-issues": {anonymous: 401, assistant: 200, ofClient: true},
	"preview-sheet":  {anonymous: 401, assistant: 200, ofClient: true, body: func(*caller) any { return previewedSession() }},
	"arrange": {
		anonymous: 401,
		assistant: 403,
		ofClient:  true,
		body:      func(*caller) any { return arranged("join") },
	},
	"preview-session": {anonymous: 401, assistant: 200, ofClient: true, body: func(*caller) any { return previewedSession() }},
	"get-sheet":       {anonymous: 401, assistant: 200, ofClient: true},
	"get-log":         {anonymous: 401, assistant: 200, ofClient: true},
	"issues":          {anonymous: 401, assistant: 200, ofClient: true},
	"issue": {
		anonymous: 401,
		assistant: 403,
		ofClient:  true,
		body:      func(*caller) any { return map[string]any{"id": newID(), "version": 1} },
	},
	"make-link": {
		anonymous: 401,
		assistant: 403,
		ofClient:  true,
		body:      func(*caller) any { return map[string]any{"id": newID(), "days": 14} },
	},
	"revoke-link": {anonymous: 401, assistant: 403, ofClient: true},
	"templates":   {anonymous: 401, assistant: 200},
	"keep-template": {anonymous: 401, assistant: 403, body: func(*caller) any {
		return map[string]any{"client": demo.ClientID("Aurelio Finch"), "of": "2026-11-25", "name": "X"}
	}},
	"drop-template": {anonymous: 401, assistant: 403},
	"lay-template":  {anonymous: 401, assistant: 403, ofClient: true},
	"sheet-pdf":     {anonymous: 401, assistant: 200, ofClient: true},
	"link-pdf":      {anonymous: 404, assistant: 404},
	"export-plan":   {anonymous: 401, assistant: 200, ofClient: true},
	"import-plan": {
		anonymous: 401,
		assistant: 403,
		ofClient:  true,
		body:      func(*caller) any { return form{"text/csv", []byte("session,date,movement,sets,reps_low\n")} },
	},
	"propose": {anonymous: 401, assistant: 200, ofClient: true, body: func(*caller) any {
		return map[string]any{"movement": "lying_bar", "reps_low": 8, "reps_high": 12, "reserve": 2}
	}},
	"open-link": {anonymous: 404, assistant: 404},
	"get-week":  {anonymous: 401, assistant: 200, ofClient: true},
	"draft-week": {
		anonymous: 401, assistant: 403,
		body: func(*caller) any { return map[string]any{"sessions": []any{}, "stage": "first"} },
	},
	"draft-prices": {
		anonymous: 401, assistant: 403,
		body: func(*caller) any { return map[string]any{"sessions": []any{}, "stage": "first"} },
	},
	"patterns":  {anonymous: 401, assistant: 200},
	"unplanned": {anonymous: 401, assistant: 200},
	"preview-week": {
		anonymous: 401,
		assistant: 200,
		ofClient:  true,
		body:      func(*caller) any { return map[string]any{"sessions": []any{}} },
	},
	"save-week": {
		anonymous: 401,
		assistant: 403,
		ofClient:  true,
		body:      func(*caller) any { return map[string]any{"sessions": []any{}} },
	},
	"accept-finding": {anonymous: 401, assistant: 403, ofClient: true, body: func(*caller) any {
		return map[string]any{"id": newID(), "key": "under:triceps_long", "accepted": true, "reason": "x"}
	}},
	"get-dossier": {anonymous: 401, assistant: 200, ofClient: true},
	"change-dossier": {
		anonymous: 401,
		assistant: 403,
		ofClient:  true,
		body:      func(*caller) any { return changes("notes", "Opening night decides the block.", "x") },
	},
	"screen": {anonymous: 401, assistant: 403, ofClient: true, body: func(*caller) any { return screened("2026-11-25") }},
	"report-joint": {anonymous: 401, assistant: 403, ofClient: true, body: func(*caller) any {
		return map[string]any{"id": newID(), "on": "2026-11-25", "joint": "wrist", "side": "left", "score": 1}
	}},
	"add-client": {
		anonymous: 401,
		assistant: 403,
		body:      func(*caller) any { return map[string]any{"id": newID(), "name": "New"} },
	},
	"delete-client":   {anonymous: 401, assistant: 403, ofClient: true},
	"restore-client":  {anonymous: 401, assistant: 403, ofClient: true},
	"deleted-clients": {anonymous: 401, assistant: 403},
	"export-client":   {anonymous: 401, assistant: 403, ofClient: true},
	"rooms":           {anonymous: 401, assistant: 200},
	"put-room": {
		anonymous: 401,
		assistant: 403,
		body:      func(*caller) any { return map[string]any{"mark": "", "form": plainRoom()} },
	},
	"measures": {anonymous: 401, assistant: 200, ofClient: true},
	"put-measuring": {anonymous: 401, assistant: 200, ofClient: true, body: func(*caller) any {
		return map[string]any{"on": "2026-11-25", "girths": map[string]any{"flexed_left": []float64{36.1, 36.2}}}
	}},
	"withdraw-measuring": {anonymous: 401, assistant: 403, ofClient: true},
	"add-photo": {
		anonymous: 401,
		assistant: 200,
		ofClient:  true,
		body:      func(c *caller) any { return photoForm(c.t, pixels(c.t, 40, 30), "2026-11-25") },
	},
	"get-photo":  {anonymous: 401, assistant: 404, ofClient: true},
	"drop-photo": {anonymous: 401, assistant: 403, ofClient: true},
	"priorities": {anonymous: 401, assistant: 200, ofClient: true},
	"rate-poses": {anonymous: 401, assistant: 403, ofClient: true, body: func(*caller) any {
		return map[string]any{
			"id":         newID(),
			"on":         "2026-11-25",
			"heads":      map[string]any{"brachialis": -1},
			"confidence": 2,
			"views":      []string{"side_bent"},
		}
	}},
	"set-emphasis": {anonymous: 401, assistant: 403, ofClient: true, body: func(*caller) any {
		return map[string]any{"version": 1, "levels": map[string]any{"brachialis": "build"}, "until": "2027-01-01"}
	}},
	"read-present": {
		anonymous: 401,
		assistant: 200,
		ofClient:  true,
		body:      func(*caller) any { return map[string]any{"text": "curls 3x10"} },
	},
	"answer-present": {anonymous: 401, assistant: 403, ofClient: true, body: func(*caller) any {
		return map[string]any{"text": "curls 3x10", "line": "curls 3x10", "movement": "curl_standing_bar"}
	}},
	"erase-consented": {
		anonymous: 401,
		assistant: 403,
		ofClient:  true,
		body:      func(*caller) any { return map[string]any{"what": "health"} },
	},
	"issue-week": {anonymous: 401, assistant: 403, ofClient: true, body: func(*caller) any {
		return map[string]any{"sheets": []any{map[string]any{"id": newID(), "session": newID(), "version": 1}}}
	}},
	"record-of": {
		anonymous: 401,
		assistant: 200,
		ofClient:  true,
		body:      func(*caller) any { return map[string]any{"movement": "lying_bar"} },
	},
	"override": {
		anonymous: 401,
		assistant: 403,
		ofClient:  true,
		body:      func(*caller) any { return map[string]any{"id": newID(), "allowed": true, "reason": "x"} },
	},
	"try-outs": {anonymous: 401, assistant: 200, ofClient: true},
	"add-try-out": {anonymous: 401, assistant: 204, ofClient: true, body: func(*caller) any {
		return map[string]any{"id": newID(), "movement": "lying_bar", "comfort": 7, "felt": "x", "outcome": "kept"}
	}},
	"studio":   {anonymous: 401, assistant: 200},
	"set-zone": {anonymous: 401, assistant: 403, body: func(*caller) any { return map[string]any{"zone": "Europe/Lisbon"} }},
	"log-set":  {anonymous: 401, assistant: 200, ofClient: true, body: func(*caller) any { return loggedSet() }},
}

func plainSession() map[string]any {
	return map[string]any{"id": newID(), "name": "Extra", "planned_on": "2026-11-30", "warm_up_min": 5, "slots": []any{}}
}

func with(m map[string]any, more map[string]any) map[string]any {
	for k, v := range more {
		m[k] = v
	}
	return m
}

func newSession() any       { return with(plainSession(), map[string]any{"id": newID(), "write": newID()}) }
func savedSession() any     { return with(plainSession(), map[string]any{"version": 1, "write": newID()}) }
func previewedSession() any { return plainSession() }

func loggedSet() any {
	slot := uuid.NewSHA1(uuid.NameSpaceOID, []byte("saltmarsh/slotAurelio Finch0 0")).String()
	return map[string]any{
		"id":       newID(),
		"slot":     slot,
		"side":     "both",
		"set_no":   1,
		"reps":     8,
		"whole_kg": 60,
		"reserve":  2,
		"note":     "",
	}
}

// operations lists method, path and id of everything the API offers.
func operations(t *testing.T) (out [][3]string) {
	b, err := httpapi.OpenAPI()
	require.NoError(t, err)
	var doc struct {
		Paths map[string]map[string]struct {
			OperationID string `json:"operationId"`
		}
	}
	require.NoError(t, json.Unmarshal(b, &doc))
	for path, methods := range doc.Paths {
		for method, op := range methods {
			out = append(out, [3]string{strings.ToUpper(method), path, op.OperationID})
		}
	}
	require.NotEmpty(t, out)
	// One order for every run: a factor is begun before it is confirmed.
	slices.SortFunc(out, func(a, b [3]string) int { return strings.Compare(a[2], b[2]) })
	return
}

// filled puts ids into an operation's path: the demo's where there are any, else new
// ones.
func filled(path string) string {
	path = strings.ReplaceAll(path, "{client}", demo.ClientID("Aurelio Finch").String())
	for _, part := range []string{"{stance}", "{room}", "{photo}", "{link}", "{token}", "{template}",
		"{sign_in}", "{account}", "{invitation}", "{plan}", "{decision}", "{check-in}", "{trial}"} {
		path = strings.ReplaceAll(path, part, newID())
	}
	if path == "/clients/{client}/plan" {
		path += "?format=csv"
	}
	if strings.HasSuffix(path, "/measures/{measuring}") {
		path = strings.ReplaceAll(path, "{measuring}", newID()) + "?version=1"
	}
	path = strings.ReplaceAll(path, "{movement}", "lying_bar")
	path = strings.ReplaceAll(path, "{set_up}", newID())
	path = strings.ReplaceAll(path, "{word}", "fluffy")
	path = strings.ReplaceAll(path, "{rule}", "r_arm_behind_long")
	return strings.ReplaceAll(path, "{session}", demo.SessionID("Aurelio Finch").String())
}

// Every operation, against the table: nobody signed in, an assistant, and a
// coach of another studio, for whom nothing here exists.
func TestWhoMayDoWhat(t *testing.T) {
	s := open(t)
	stranger := s.signedIn(t, s.elsewhere(t))
	assistant := s.signedIn(t, jory)
	seen := map[string]bool{}
	for _, op := range operations(t) {
		row, ok := access[op[2]]
		require.True(t, ok, "operation %s has no row in the access table", op[2])
		seen[op[2]] = true
		send := func(c *caller) answer {
			var body any
			if row.body != nil {
				body = row.body(c)
			}
			return c.call(op[0], filled(op[1]), body)
		}
		assert.Equal(t, row.anonymous, send(s.caller(t)).status, "%s by nobody", op[2])
		as := assistant
		if op[2] == "sign-out" {
			as = s.signedIn(t, jory)
		}
		a := send(as)
		assert.Equal(t, row.assistant, a.status, "%s by an assistant: %s", op[2], a.body)
		if row.ofClient {
			a := send(stranger)
			assert.Equal(t, http.StatusNotFound, a.status, "%s from another studio: %s", op[2], a.body)
			assert.NotContains(t, a.body, "Aurelio")
		}
	}
	assert.Len(t, seen, len(access), "the table has a row for an operation that is gone")
	// A client named in a body or a query is nobody either.
	client := demo.ClientID("Aurelio Finch").String()
	for path, body := range map[string]map[string]any{
		"/fit": {"movement": "curl_reclined"}, "/near": {"movement": "curl_reclined"}, "/fault-costs": {"movement": "curl_reclined"},
		"/hints": {"movement": "curl_reclined"},
		"/look":  {"movement": "curl_reclined", "head": "biceps_long"},
		"/tune":  {"movement": "curl_reclined", "head": "biceps_long"},
	} {
		assert.Equal(t, 404, stranger.call("POST", path, with(body, map[string]any{"client": client})).status, path)
	}
	assert.Equal(t, 404, stranger.call("GET", "/library?client="+client, nil).status)
	list := got[struct{ Clients []any }](stranger, 200, stranger.call("GET", "/clients", nil))
	assert.Empty(t, list.Clients)
}

func TestSigningInAndOut(t *testing.T) {
	s := open(t)
	c := s.caller(t)
	wrong := c.call("POST", "/sign-in", map[string]any{"email": wren.Email, "password": "guess"})
	assert.Equal(t, http.StatusUnauthorized, wrong.status)
	assert.Equal(t, "application/problem+json", wrong.header.Get("Content-Type"))
	assert.Empty(t, wrong.header.Get("Set-Cookie"))
	right := c.call("POST", "/sign-in", map[string]any{"email": strings.ToUpper(wren.Email), "password": wren.Password})
	require.Equal(t, 200, right.status)
	cookie := right.header.Get("Set-Cookie")
	assert.Contains(t, cookie, "HttpOnly")
	assert.Contains(t, cookie, "SameSite=Lax")
	me := got[map[string]any](c, 200, c.call("GET", "/me", nil))
	assert.Equal(t, true, me["may_plan"])
	assert.Equal(t, "2026-11-25", me["today"])
	assert.Equal(t, 204, c.call("POST", "/sign-out", nil).status)
	assert.Equal(t, 401, c.call("GET", "/me", nil).status)
}

func TestBehindTLSCookiesAreSecure(t *testing.T) {
	s := open(t)
	tls := httptest.NewServer(httpapi.New(httpapi.Config{Store: s.store, BehindTLS: true, Now: func() time.Time { return now }}))
	defer tls.Close()
	c := (&served{tls, s.store}).caller(t)
	a := c.call("POST", "/sign-in", map[string]any{"email": wren.Email, "password": wren.Password})
	assert.Contains(t, a.header.Get("Set-Cookie"), "Secure")
	assert.NotEmpty(t, a.header.Get("Strict-Transport-Security"))
}

func TestGuessingIsThrottled(t *testing.T) {
	s := open(t)
	c := s.caller(t)
	last := 0
	for range 12 {
		last = c.call("POST", "/sign-in", map[string]any{"email": wren.Email, "password": "guess"}).status
	}
	assert.Equal(t, http.StatusTooManyRequests, last)
	a := c.call("POST", "/sign-in", map[string]any{"email": jory.Email, "password": jory.Password})
	assert.Equal(t, 200, a.status, "another account is not locked out")
}

func TestHeadersAndOrigins(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	a := c.call("GET", "/me", nil)
	for _, h := range []string{"Content-Security-Policy", "X-Content-Type-Options", "Referrer-Policy",
		"Server-Timing", "Permissions-Policy"} {
		assert.NotEmpty(t, a.header.Get(h), h)
	}
	assert.Contains(t, a.header.Get("Content-Security-Policy"), "frame-ancestors 'none'")
	assert.Equal(t, "no-store", a.header.Get("Cache-Control"))
	r, err := http.NewRequest("POST", c.base+"/sign-out", nil)
	require.NoError(t, err)
	r.Header.Set("Origin", "https://elsewhere.example")
	r.Header.Set("Sec-Fetch-Site", "cross-site")
	response, err := c.http.Do(r)
	require.NoError(t, err)
	response.Body.Close()
	assert.Equal(t, http.StatusForbidden, response.StatusCode)
	assert.Equal(t, 200, c.call("GET", "/me", nil).status, "still signed in")
}

// A client of one's own studio with another client's session is nothing either.
func TestASessionBelongsToItsClient(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := "/clients/" + demo.ClientID("Noor Halloran").String() + "/sessions/" + demo.SessionID("Aurelio Finch").String()
	for _, end := range []string{"", "/sheet", "/log"} {
		assert.Equal(t, 404, c.call("GET", path+end, nil).status, end)
	}
	assert.Equal(t, 404, c.call("PUT", path, savedSession()).status)
}

func TestADatabaseThatIsAwayIsSaidSo(t *testing.T) {
	ctx := context.Background()
	s, err := store.Open(ctx, "postgres://nobody:x@127.0.0.1:1/none?sslmode=disable")
	require.NoError(t, err)
	defer s.Close()
	server := httptest.NewServer(httpapi.New(httpapi.Config{Store: s}))
	defer server.Close()
	c := (&served{server, s}).caller(t)
	a := c.call("POST", "/sign-in", map[string]any{"email": "x", "password": "y"})
	assert.Equal(t, http.StatusServiceUnavailable, a.status)
	assert.Contains(t, a.body, "try again")
}
