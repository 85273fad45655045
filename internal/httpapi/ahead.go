package httpapi

import (
	"bytes"
	"encoding/json"
	"html/template"
	"net/http"
)

// A client's page by a link comes with what it shows: its heading stands there before any script runs, and the script
// finds the answer in the page. Only a browser that goes there gets it so, not a messenger that looks what a link is,
// and reading ahead is no opening: the page asks once more by itself.

// opened is what of an open link's answer the heading says.
type opened struct {
	Client string `json:"client"`
	Sheets []struct {
		Sheet struct {
			Session string `json:"session"`
			Date    string `json:"date"`
			Room    string `json:"room"`
		} `json:"sheet"`
	} `json:"sheets"`
}

// heading is what web/src/ui/sheet/SheetPage begins with; its classes are named by module, so that they are known here.
var heading = template.Must(template.New("").Parse(
	`<main class="sheet_sheet" aria-busy="true"><header class="sheet_head"><div><h1 class="sheet_name">{{.Client}}</h1>` +
		`{{with .Sheets}}{{with (index . 0).Sheet}}<p><b>{{.Session}}</b> · {{.Date}} · {{.Room}}</p>{{end}}{{end}}</div></header></main>`,
))

const root = `<div id="root"></div>`

// ahead is the page of a link with the answer to its token in it, or as it is where there is none to give.
func ahead(page []byte, api http.Handler, r *http.Request, token string) []byte {
	if r.Header.Get("Sec-Fetch-Dest") != "document" || !bytes.Contains(page, []byte(root)) {
		return page
	}
	asked, err := http.NewRequestWithContext(r.Context(), http.MethodGet, "/api/links/"+token+"?ahead=true", nil)
	if err != nil {
		return page
	}
	asked.RemoteAddr = r.RemoteAddr // whoever guesses links is counted by the same door
	answer := &inMemory{header: http.Header{}, status: http.StatusOK}
	api.ServeHTTP(answer, asked)
	var says opened
	if answer.status != http.StatusOK || json.Unmarshal(answer.body.Bytes(), &says) != nil {
		return page // the page's own asking tells what is wrong
	}
	var out bytes.Buffer
	out.WriteString(`<div id="root">`)
	if err := heading.Execute(&out, says); err != nil {
		return page
	}
	out.WriteString(`</div><script type="application/json" id="opened">`)
	out.Write(bytes.ReplaceAll(answer.body.Bytes(), []byte("<"), []byte(`\u003c`))) // inside a string of JSON it is the same
	out.WriteString(`</script>`)
	return bytes.Replace(page, []byte(root), out.Bytes(), 1)
}

// inMemory keeps an answer of our own API.
type inMemory struct {
	header http.Header
	status int
	body   bytes.Buffer
}

func (m *inMemory) Header() http.Header { return m.header }

func (m *inMemory) WriteHeader(status int) { m.status = status }

func (m *inMemory) Write(b []byte) (int, error) { return m.body.Write(b) }
