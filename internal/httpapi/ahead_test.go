package httpapi_test

import (
	"net/http/httptest"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/httpapi"
)

// A link's page comes to a browser with what it shows, escaped, uncounted and kept by nobody; to anything else that
// looks at the address, and where there is nothing to show, it comes as it is.
func TestALinksPageComesWithItsHeading(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := sessionPath("Aurelio Finch")
	d := draft(c, path)
	d["name"] = "</script><b>"
	require.Equal(t, 200, c.call("PUT", path, d).status)
	require.Equal(t, 200, c.call("POST", path+"/issues", map[string]any{"id": newID(), "version": 2}).status)
	made := c.call("POST", clientPath("Aurelio Finch")+"/links", map[string]any{"id": newID(), "days": 14})
	link := got[struct{ Path string }](c, 200, made).Path
	plain := `<body><div id="root"></div></body>`
	page := httpapi.New(httpapi.Config{Store: s.store, Web: fstest.MapFS{"link.html": {Data: []byte(plain)}}, Now: clock()})
	get := func(path, dest string) (*httptest.ResponseRecorder, string) {
		r := httptest.NewRequest("GET", path, nil)
		r.Header.Set("Sec-Fetch-Dest", dest)
		w := httptest.NewRecorder()
		page.ServeHTTP(w, r)
		return w, w.Body.String()
	}
	w, body := get(link, "document")
	assert.Contains(t, body, `<h1 class="sheet_name">Aurelio Finch</h1>`)
	assert.Contains(t, body, `&lt;/script&gt;&lt;b&gt;`)
	assert.Equal(t, 1, strings.Count(body, "</script>"), "what is typed ends no script")
	assert.Equal(t, "no-store", w.Header().Get("Cache-Control"))

	_, body = get(link, "empty")
	assert.Equal(t, plain, body)
	_, body = get(link[:len(link)-3]+"AAA", "document")
	assert.Equal(t, plain, body)
	_, body = get("/s/%3Cb%3E", "document")
	assert.Equal(t, plain, body)
	now := got[issued](c, 200, c.call("GET", path+"/issues", nil))
	assert.Zero(t, now.Links[0].Opened, "reading ahead is no opening")
}
