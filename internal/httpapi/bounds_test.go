package httpapi_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"net/http/httptest"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	board "musculus/internal/httpapi/week"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/movement"
	"musculus/internal/core/week"
	"musculus/internal/httpapi"
)

// weekOf is a week of so many slots, a session for every twenty, with everything
// that can be wrong with it.
func weekOf(slots int) map[string]any {
	var sessions []any
	for n := 0; n < slots; n += 20 {
		var list []any
		for i := n; i < min(n+20, slots); i++ {
			m := movement.Shipped.Movements[(i*7)%len(movement.Shipped.Movements)]
			list = append(
				list,
				map[string]any{
					"id":       newID(),
					"movement": m.ID,
					"settings": map[string]any{},
					"cues":     []string{"Hold your breath and swing it"},
					"rows":     rows(5, 8, 12, 0, 30, map[string]any{"tempo": []float64{2, 9, 1, 9}, "load": map[string]any{"kg": 7}}),
				},
			)
		}
		sessions = append(
			sessions,
			map[string]any{
				"id":          newID(),
				"version":     0,
				"name":        fmt.Sprint("Day ", n),
				"planned_on":  fmt.Sprintf("2026-11-%02d", 25+n/20%5),
				"warm_up_min": 0,
				"slots":       list,
			},
		)
	}
	return map[string]any{"sessions": sessions}
}

// A week at its bound is counted, audited and answered in a moment and in bounds; one
// over it is refused.
func TestAWeekAtItsBound(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := clientPath("Bettina Groos") + "/week"
	most := weekOf(week.MostWeekSlots)
	began := time.Now()
	a := c.call("POST", path, most)
	took := time.Since(began)
	require.Equal(t, 200, a.status, a.body[:min(len(a.body), 500)])
	t.Logf("%d slots: %v, %d kB", week.MostWeekSlots, took, len(a.body)>>10)
	assert.Less(t, len(a.body), 1<<20)
	assert.Less(t, took, 3*time.Second) // ten times what it may take
	w := got[board.WeekView](c, 200, a)
	assert.Len(t, w.Findings, week.MostShown)
	assert.Positive(t, w.Hidden)
	p := got[problem](c, 422, c.call("POST", path, weekOf(week.MostWeekSlots+1)))
	assert.Contains(t, p.Detail, "120 of a week")
	assert.Equal(t, 422, c.call("PUT", path, weekOf(week.MostWeekSlots+1)).status)
}

// BenchmarkAWeekAtItsBound is the preview of a week of 120 slots in which everything
// is wrong, over HTTP.
func BenchmarkAWeekAtItsBound(b *testing.B) {
	s := open(b)
	c := s.signedIn(b, wren)
	body := weekOf(week.MostWeekSlots)
	size := 0
	for b.Loop() {
		a := c.call("POST", clientPath("Bettina Groos")+"/week", body)
		if a.status != 200 {
			b.Fatal(a.body)
		}
		size = len(a.body)
	}
	b.ReportMetric(float64(size)/1024, "kB")
}

// BenchmarkAnImportAtItsBound is a file of the most rows that are read.
func BenchmarkAnImportAtItsBound(b *testing.B) {
	s := open(b)
	c := s.signedIn(b, wren)
	var file strings.Builder
	file.WriteString("session,date,movement,settings,sets,reps_low,reps_high,reserve,rest_s,cues\n")
	for n := range 1000 {
		m := movement.Shipped.Movements[n%len(movement.Shipped.Movements)]
		fmt.Fprintf(&file, "Day %d,2027-01-%02d,%s,,3,8,12,2,90,Elbows still | Breathe out\n", n/20, 1+n/40, m.ID)
	}
	for b.Loop() {
		if a := c.call("POST", clientPath("Aurelio Finch")+"/plan?format=csv", form{"text/csv", []byte(file.String())}); a.status != 200 {
			b.Fatal(a.body)
		}
	}
}

// What no field of ours can hold is a clear 4xx in a moment, told at its place, and
// nothing of it stands raw in a log.
func TestOddValuesAreRefusedAtTheirPlace(t *testing.T) {
	logged := logging(t)
	s := open(t)
	c := s.signedIn(t, wren)
	path := sessionPath("Aurelio Finch")
	base := func(change func(d map[string]any)) map[string]any {
		d := draft(c, path)
		change(d)
		return d
	}
	for where, body := range map[string]map[string]any{
		"body.name":                      base(func(d map[string]any) { d["name"] = "a\x00b" }),
		"body.version":                   base(func(d map[string]any) { d["version"] = int64(1) << 33 }),
		"body.warm_up_min":               base(func(d map[string]any) { d["warm_up_min"] = json.Number("1e305") }),
		"body.slots[0].rows[0].load.kg":  base(func(d map[string]any) { row(d, 0)["load"] = map[string]any{"kg": json.Number("1e305")} }),
		"body.slots[0].settings":         base(func(d map[string]any) { slot(d, 0)["settings"] = map[string]any{"grip\nwidth": 1} }),
		"body.slots[0].settings.no_such": base(func(d map[string]any) { slot(d, 0)["settings"] = map[string]any{"no_such": 1} }),
		"body.slots[1].cues[0]":          base(func(d map[string]any) { slot(d, 1)["cues"] = []string{"two\nlines"} }),
		"body.slots[0].rows[0].reps_low": base(func(d map[string]any) { row(d, 0)["reps_low"] = 1 << 40 }),
	} {
		began := time.Now()
		p := got[problem](c, 422, c.call("PUT", path, body))
		assert.Less(t, time.Since(began), time.Second)
		assert.Contains(t, p.locations(), where)
	}
	assert.Equal(t, 413, c.call("PUT", path, strings.Repeat(" ", 400<<10)).status)
	assert.Equal(
		t,
		422,
		c.call("POST", "/fit", map[string]any{"movement": "curl_reclined", "settings": map[string]any{"bench\r\nX-Evil: 1": 60}}).status,
	)
	assert.NotContains(t, logged.String(), "X-Evil")
	for _, line := range strings.Split(strings.TrimSpace(logged.String()), "\n") {
		assert.True(t, line == "" || json.Valid([]byte(line)), line)
	}
}

// A picture of more points than are decoded is refused by its head, however few
// bytes it has.
func TestAPictureThatUnpacksToGigabytes(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	img := image.NewPaletted(image.Rect(0, 0, 8000, 4000), color.Palette{color.Black, color.White})
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, img))
	require.Less(t, b.Len(), 100<<10, "32 megapixels in a few kilobytes")
	began := time.Now()
	p := got[problem](c, 422, c.call("POST", clientPath("Aurelio Finch")+"/photos", photoForm(t, b.Bytes(), "2026-11-24")))
	assert.Contains(t, p.Detail, "more than 24 million")
	assert.Less(t, time.Since(began), 2*time.Second)
}

// An answer that fails while it is written is a failure, not half of a success, and
// an address with nothing at it says 404, page or not.
func TestAddressesThatAreNone(t *testing.T) {
	s := open(t)
	handler := httpapi.New(
		httpapi.Config{
			Store: s.store,
			Web: fstest.MapFS{"index.html": {Data: []byte("<p>the page")},
				"link.html": {Data: []byte("<p>the page")}, "assets/a.js": {Data: []byte("1")}},
			Now: clock(),
		},
	)
	get := func(path string) (int, string) {
		w := httptest.NewRecorder()
		handler.ServeHTTP(w, httptest.NewRequest("GET", path, nil))
		return w.Code, w.Body.String()
	}
	for path, want := range map[string]int{"/": 200, "/clients": 200, "/clients/x/week": 200, "/clients/x/week/y": 200,
		"/clients/x/dossier/measures": 200, "/s/abc": 200, "/library/ours/own_x": 200, "/fitting": 200,
		"/assets/a.js": 200, "/assets/b.js": 404, "/nowhere": 404, "/clients/x/nowhere": 404, "/wp-login.php": 404, "/.env": 404,
		"/s/": 404, "/clients/x/week/y/z": 404} {
		status, body := get(path)
		assert.Equal(t, want, status, path)
		if !strings.HasPrefix(path, "/assets") {
			assert.Contains(t, body, "the page", "%s: the page says so in its own words", path)
		}
	}
	status, _ := get("/api/nowhere")
	assert.Equal(t, 404, status)

	// Every address of the front end's own router is one of those.
	routes, err := os.ReadFile(filepath.Join("..", "..", "web", "src", "app", "routes.tsx"))
	require.NoError(t, err)
	fill := strings.NewReplacer(":client", "x", ":session?", "y", ":session", "y", ":token", "t", ":own", "own_x", ":knot", "trend")
	parent := ""
	for _, m := range regexp.MustCompile(`path: '([^']+)'`).FindAllStringSubmatch(string(routes), -1) {
		path := m[1]
		switch {
		case path == "*":
			continue
		case path == "clients/:client":
			parent = "/clients/x"
		case path == "today":
			parent = ""
		}
		at := "/" + fill.Replace(path)
		if parent != "" && path != "clients/:client" {
			at = parent + at
		}
		status, _ := get(at)
		assert.Equal(t, 200, status, at)
	}
}
