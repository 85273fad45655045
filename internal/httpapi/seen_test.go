package httpapi_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"net/http"
	"regexp"
	"strings"
	"testing"

	"musculus/internal/httpapi/clients"
	"musculus/internal/httpapi/growth"
	"musculus/internal/httpapi/people"
	"musculus/internal/view"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
)

// fieldOf is a field of a client's dossier as it is kept.
func fieldOf(c *caller, client, field string) any {
	return got[map[string]any](c, 200, c.call("GET", client+"/dossier", nil))["dossier"].(map[string]any)[field]
}

// withdraw takes a consent back.
func withdraw(c *caller, client, field string) {
	require.Equal(c.t, 200, c.call("PATCH", client+"/dossier", changes(field, fieldOf(c, client, field), nil)).status)
}

// Withdrawn consent hides health notes at once, counts as not screened, and offers
// erasing, to an owner only.
func TestAWithdrawnConsentHidesHealthNotes(t *testing.T) {
	s := open(t)
	c, helper := s.signedIn(t, wren), s.signedIn(t, jory)
	client, session := clientPath("Aurelio Finch"), sessionPath("Aurelio Finch")
	require.Equal(
		t,
		200,
		c.call(
			"POST",
			client+"/joints",
			map[string]any{
				"id":       newID(),
				"on":       "2026-11-24",
				"joint":    "elbow_back",
				"side":     "left",
				"score":    6,
				"provokes": "the bent bar",
			},
		).status,
	)
	require.Equal(t, 409, c.call("POST", client+"/erase", map[string]any{"what": "health"}).status, "it still holds")
	withdraw(c, client, "health_consent")

	dossier := c.call("GET", client+"/dossier", nil).body
	d := got[clients.DossierView](c, 200, c.call("GET", client+"/dossier", nil))
	assert.Nil(t, d.Asked)
	assert.Positive(t, d.Hidden)
	assert.NotContains(t, dossier, "the bent bar")
	for _, path := range []string{session + "/sheet", session + "/log", client + "/week"} {
		v := got[struct{ Blocked string }](c, 200, c.call("GET", path, nil))
		assert.NotEmpty(t, v.Blocked, path)
	}
	version := got[view.SessionView](c, 200, c.call("GET", session, nil)).Version
	assert.Equal(t, 422, c.call("POST", session+"/issues", map[string]any{"id": newID(), "version": version}).status, "no sheet")
	assert.Equal(t, 422, c.call("POST", session+"/log", loggedSet()).status, "no training")

	assert.Equal(t, 403, helper.call("POST", client+"/erase", map[string]any{"what": "health"}).status)
	after := got[clients.DossierView](c, 200, c.call("POST", client+"/erase", map[string]any{"what": "health"}))
	assert.Zero(t, after.Hidden)
	require.Equal(t, 200, c.call("PATCH", client+"/dossier", changes("health_consent", nil, "2026-11-25")).status)
	d = got[clients.DossierView](c, 200, c.call("GET", client+"/dossier", nil))
	assert.Nil(t, d.Asked, "what is erased does not come back")
	assert.NotContains(t, c.call("GET", client+"/dossier", nil).body, "the bent bar")
}

// Measures and photos ask for a consent of their own, a minor's guardian's too; taken
// back they are hidden, and erased by an owner.
func TestMeasuresAndPhotosAskForConsent(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	client := clientPath("Aurelio Finch")
	measured := map[string]any{"on": "2026-11-24", "girths": map[string]any{"flexed_left": []float64{34.1, 34.2}}}
	tape := func() growth.MeasuresView {
		return got[growth.MeasuresView](c, 200, c.call("GET", client+"/measures", nil))
	}
	require.Equal(t, 200, c.call("PUT", client+"/measures/"+newID(), measured).status)
	photos := got[growth.MeasuresView](c, 200, c.call("POST", client+"/photos", photoForm(t, pixels(t, 40, 30), "2026-11-24"))).Photos
	require.Len(t, photos, 1)
	picture := client + "/photos/" + photos[0].ID.String()
	require.Equal(t, 200, c.call("GET", picture, nil).status)

	withdraw(c, client, "body_consent")
	v := tape()
	assert.NotEmpty(t, v.Needs)
	assert.GreaterOrEqual(t, v.Kept, 2)
	assert.Empty(t, v.Sessions)
	assert.Empty(t, v.Photos)
	for _, k := range v.Kinds {
		assert.Empty(t, k.Left.Points, k.ID)
	}
	assert.Equal(t, 404, c.call("GET", picture, nil).status)
	p := got[problem](c, 422, c.call("PUT", client+"/measures/"+newID(), measured))
	assert.Contains(t, p.Detail, "consent")
	assert.Equal(t, 422, c.call("POST", client+"/photos", photoForm(t, pixels(t, 40, 30), "2026-11-24")).status)

	require.Equal(t, 200, c.call("PATCH", client+"/dossier", changes("body_consent", nil, "2026-11-25")).status)
	assert.NotEmpty(t, tape().Sessions, "hidden, not lost")
	require.Equal(t, 200, c.call("PATCH", client+"/dossier", changes("born_year", fieldOf(c, client, "born_year"), 2010)).status)
	assert.Contains(t, tape().Needs, "guardian")
	assert.Equal(t, 422, c.call("PUT", client+"/measures/"+newID(), measured).status)
	require.Equal(t, 200, c.call("PATCH", client+"/dossier", changes("guardian_on", nil, "2026-11-25")).status)
	assert.Empty(t, tape().Needs)

	withdraw(c, client, "body_consent")
	require.Equal(t, 200, c.call("POST", client+"/erase", map[string]any{"what": "body"}).status)
	require.Equal(t, 200, c.call("PATCH", client+"/dossier", changes("body_consent", nil, "2026-11-25")).status)
	assert.Empty(t, tape().Sessions)
	assert.Equal(t, 404, c.call("GET", picture, nil).status)
}

// The export holds the rows of every table about the client; only an owner makes it.
func TestTheExportHoldsEverything(t *testing.T) {
	s := open(t)
	c, helper := s.signedIn(t, wren), s.signedIn(t, jory)
	client, session := clientPath("Aurelio Finch"), sessionPath("Aurelio Finch")
	logged := loggedSet().(map[string]any)
	require.Equal(t, 200, c.call("POST", session+"/log", logged).status)
	require.Equal(t, 200, c.call("POST", client+"/screenings", screened("2026-11-25")).status)
	version := got[view.SessionView](c, 200, c.call("GET", session, nil)).Version
	require.Equal(t, 200, c.call("POST", session+"/issues", map[string]any{"id": newID(), "version": version}).status)
	require.Equal(t, 200, c.call("POST", client+"/links", map[string]any{"id": newID(), "days": 7}).status)

	assert.Equal(t, 403, helper.call("GET", client+"/export", nil).status)
	a := c.call("GET", client+"/export", nil)
	require.Equal(t, 200, a.status)
	r, err := zip.NewReader(bytes.NewReader([]byte(a.body)), int64(len(a.body)))
	require.NoError(t, err)
	f, err := r.Open("client.json")
	require.NoError(t, err)
	var all struct {
		Records map[string][]map[string]any `json:"records"`
	}
	require.NoError(t, json.NewDecoder(f).Decode(&all))
	for _, table := range []string{"client", "set_entry", "screening_round", "issued_sheet", "sheet_link", "session_version"} {
		assert.NotEmpty(t, all.Records[table], "%s of %v", table, keysOf(all.Records))
	}
	found := false
	for _, e := range all.Records["set_entry"] {
		found = found || e["entry_id"] == logged["id"]
	}
	assert.True(t, found, "the set that was logged")
	whole, err := json.Marshal(all.Records)
	require.NoError(t, err)
	assert.NotContains(t, string(whole), demo.ClientID("Bettina Groos").String(), "nothing of anybody else")
}

func keysOf[V any](m map[string]V) (out []string) {
	for k := range m {
		out = append(out, k)
	}
	return
}

// What a constraint says stays inside: an answer tells what to do, not how the
// tables are called.
func TestConstraintNamesNeverReachAnAnswer(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	inner := regexp.MustCompile(`(?i)_(pkey|fkey|key|check|excl)\b|constraint|SQLSTATE|violates|relation "`)
	other := clientPath("Bettina Groos")
	set := loggedSet().(map[string]any)
	set["replaces"] = newID()
	for name, a := range map[string]answer{
		"replaces nothing":  c.call("POST", sessionPath("Aurelio Finch")+"/log", set),
		"another's session": c.call("GET", other+"/sessions/"+demo.SessionID("Aurelio Finch").String(), nil),
		"another's session, put": c.call("PUT", other+"/sessions/"+demo.SessionID("Aurelio Finch").String(),
			draft(c, sessionPath("Aurelio Finch"))),
		"a client twice":      c.call("POST", "/clients", map[string]any{"id": demo.ClientID("Bettina Groos").String(), "name": "Twice"}),
		"a client's own name": c.call("PATCH", other+"/dossier", changes("name", "Bettina Groos", strings.Repeat("x", 300))),
		"a room that is not":  c.call("PATCH", other+"/dossier", changes("rooms", fieldOf(c, other, "rooms"), []string{newID()})),
		"a link that is not":  c.call("DELETE", other+"/links/"+newID(), nil),
	} {
		assert.GreaterOrEqual(t, a.status, 400, name)
		assert.Less(t, a.status, 500, "%s: %s", name, a.body)
		assert.NotRegexp(t, inner, a.body, name)
	}
}

// A page that one account opened never keeps anything in the name of the next one
// that signs in on the same device.
func TestAPageOfAnotherAccountKeepsNothing(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	me := got[people.Me](c, 200, c.call("GET", "/me", nil))
	helper := s.signedIn(t, jory)
	ask := func(as *caller, account string) int {
		r, err := http.NewRequest("POST", as.base+sessionPath("Aurelio Finch")+"/log", bytes.NewReader(must(json.Marshal(loggedSet()))))
		require.NoError(t, err)
		r.Header.Set("Content-Type", "application/json")
		r.Header.Set("X-Account", account)
		a, err := as.http.Do(r)
		require.NoError(t, err)
		a.Body.Close()
		return a.StatusCode
	}
	assert.Equal(t, 401, ask(helper, me.ID.String()))
	assert.Equal(t, 200, ask(c, me.ID.String()))
}

func must[T any](v T, err error) T {
	if err != nil {
		panic(err)
	}
	return v
}
