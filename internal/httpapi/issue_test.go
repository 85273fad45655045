package httpapi_test

import (
	"strings"
	"testing"
	"time"

	"net/http/httptest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/httpapi"
)

type issued struct {
	Issues []struct {
		Number  int
		By      string
		Changes []string
		Sheet   struct {
			Slots []struct{ Title, Sets, Load string }
		}
	}
	Pending []string
	Links   []struct {
		ID, State string
		Opened    int
	}
}

// A sheet leaves whole or not at all, once however often it is sent, and stays as
// it left; a client reads it by a link that ends.
func TestASheetIsIssuedAndOpenedByALink(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := sessionPath("Aurelio Finch")
	issue := map[string]any{"id": newID(), "version": 1}
	first := got[issued](c, 200, c.call("POST", path+"/issues", issue))
	require.Len(t, first.Issues, 1)
	assert.Empty(t, first.Pending)
	again := got[issued](c, 200, c.call("POST", path+"/issues", issue))
	require.Len(t, again.Issues, 1, "the answer was lost and it came again")

	link := got[struct{ Path string }](
		c,
		200,
		c.call("POST", clientPath("Aurelio Finch")+"/links", map[string]any{"id": newID(), "days": 14}),
	).Path
	token := strings.TrimPrefix(link, "/s/")
	anybody := s.caller(t)
	type opened struct {
		Client string
		Sheets []struct {
			When  string
			Sheet struct {
				Session, Blocked string
				Slots            []struct{ Sets, Load string }
			}
		}
	}
	seen := got[opened](anybody, 200, anybody.call("GET", "/links/"+token, nil))
	require.Len(t, seen.Sheets, 1)
	assert.Equal(t, "Aurelio Finch", seen.Client)
	before := seen.Sheets[0].Sheet.Slots[0].Sets

	// The plan changes: the sheet stays as it left, the change is told, a second one follows.
	d := draft(c, path)
	row(d, 0)["sets"] = 4
	require.Equal(t, 200, c.call("PUT", path, d).status)
	seen = got[opened](anybody, 200, anybody.call("GET", "/links/"+token, nil))
	assert.Equal(t, before, seen.Sheets[0].Sheet.Slots[0].Sets)
	now := got[issued](c, 200, c.call("GET", path+"/issues", nil))
	require.Len(t, now.Pending, 1)
	assert.Contains(t, now.Pending[0], "sets 4 × 6–8, before 3 × 6–8")
	assert.Equal(t, 2, now.Links[0].Opened)
	assert.Equal(t, 409, c.call("POST", path+"/issues", map[string]any{"id": newID(), "version": 1}).status, "not what was looked at")
	second := got[issued](c, 200, c.call("POST", path+"/issues", map[string]any{"id": newID(), "version": 2}))
	require.Len(t, second.Issues, 2)
	assert.Equal(t, 2, second.Issues[0].Number)
	assert.Equal(t, now.Pending, second.Issues[0].Changes)
	compared := func(was, is string, status int) []string {
		a := c.call("GET", path+"/issues/compare?was="+was+"&is="+is, nil)
		require.Equal(t, status, a.status, a.body)
		if status != 200 {
			return nil
		}
		return got[struct{ Changes []string }](c, 200, a).Changes
	}
	assert.Equal(t, now.Pending, compared("1", "2", 200))
	assert.Contains(t, compared("2", "1", 200)[0], "sets 3 × 6–8, before 4 × 6–8", "either way round")
	assert.Empty(t, compared("2", "0", 200), "nothing changed since")
	compared("1", "7", 404)
	seen = got[opened](anybody, 200, anybody.call("GET", "/links/"+token, nil))
	assert.NotEqual(t, before, seen.Sheets[0].Sheet.Slots[0].Sets)

	pdf := anybody.call(
		"GET",
		"/links/"+token+"/"+sessionPath("Aurelio Finch")[len(clientPath("Aurelio Finch")+"/sessions/"):]+"/sheet.pdf?letter=true",
		nil,
	)
	require.Equal(t, 200, pdf.status)
	assert.True(t, strings.HasPrefix(pdf.body, "%PDF-"))
	assert.Equal(t, 1, strings.Count(pdf.body, "/Type /Page\n"), "one page")
	assert.Equal(t, 422, c.call("GET", sessionPath("Pelle Sandoval")+"/sheet.pdf", nil).status, "no paper for whom no sheet leaves")

	// Guessed, expired, revoked.
	assert.Equal(t, 404, anybody.call("GET", "/links/"+token[:20]+"AAAAAA", nil).status)
	later := httptest.NewServer(
		httpapi.New(httpapi.Config{Store: s.store, Now: func() time.Time { return time.Date(2026, 12, 12, 10, 0, 0, 0, time.UTC) }}),
	)
	defer later.Close()
	expired := (&served{later, s.store}).caller(t)
	a := expired.call("GET", "/links/"+token, nil)
	assert.Equal(t, 410, a.status)
	assert.Contains(t, a.body, "expired")
	require.Equal(t, 204, c.call("DELETE", clientPath("Aurelio Finch")+"/links/"+now.Links[0].ID, nil).status)
	a = anybody.call("GET", "/links/"+token, nil)
	assert.Equal(t, 410, a.status)
	assert.Contains(t, a.body, "revoked")
	assert.Equal(t, 404, c.call("DELETE", clientPath("Noor Halloran")+"/links/"+now.Links[0].ID, nil).status)
}

func TestWhatIsIncompleteOrStoppedIsNotIssued(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	p := got[problem](c, 422, c.call("POST", sessionPath("Pelle Sandoval")+"/issues", map[string]any{"id": newID(), "version": 1}))
	assert.Contains(t, p.Detail, "No sheet yet")
	path := sessionPath("Aurelio Finch")
	d := draft(c, path)
	row(d, 1)["rest_s"] = 0
	require.Equal(t, 200, c.call("PUT", path, d).status)
	p = got[problem](c, 422, c.call("POST", path+"/issues", map[string]any{"id": newID(), "version": 2}))
	assert.Contains(t, p.Detail, "slot 2")
	assert.Contains(t, p.Detail, "has no rest")
	assert.Equal(t, []string{"session.slots[1].rows[0].rest_s"}, p.locations())
	d = draft(c, path)
	d["slots"] = []any{}
	require.Equal(t, 200, c.call("PUT", path, d).status)
	assert.Equal(t, 422, c.call("POST", path+"/issues", map[string]any{"id": newID(), "version": 3}).status)
	assert.Empty(t, got[issued](c, 200, c.call("GET", path+"/issues", nil)).Issues)
}
