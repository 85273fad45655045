package httpapi_test

import (
	"bytes"
	"compress/gzip"
	"context"
	"database/sql"
	"fmt"
	"io"
	"net/http/httptest"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/jackc/pgx/v5"
	_ "github.com/jackc/pgx/v5/stdlib"
	"github.com/pressly/goose/v3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
	"musculus/internal/httpapi"
	"musculus/internal/photos"
	"musculus/internal/store"
	"musculus/internal/testenv"
)

// golden is a database as it was dumped under an earlier schema, brought up to
// date, with a server on it: golden/<name>.sql.gz, data only.
func golden(t *testing.T, name string, schema int64) *served {
	ctx := context.Background()
	d := testenv.Empty(t)
	owner, err := sql.Open("pgx", d.MigrateURL)
	require.NoError(t, err)
	defer owner.Close()
	provider, err := goose.NewProvider(goose.DialectPostgres, owner, os.DirFS(filepath.Join("..", "store", "migrations")))
	require.NoError(t, err)
	_, err = provider.UpTo(ctx, schema)
	require.NoError(t, err)
	f, err := os.Open(filepath.Join("testdata", "golden", name+".sql.gz"))
	require.NoError(t, err)
	defer f.Close()
	unzipped, err := gzip.NewReader(f)
	require.NoError(t, err)
	dump, err := io.ReadAll(unzipped)
	require.NoError(t, err)
	admin, err := pgx.Connect(ctx, testenv.AdminURL(d))
	require.NoError(t, err)
	defer admin.Close(ctx)
	_, err = admin.Exec(ctx, string(dump))
	require.NoError(t, err)
	require.NoError(t, store.Migrate(ctx, d.MigrateURL, d.URL))
	s, err := store.Open(ctx, d.URL)
	require.NoError(t, err)
	t.Cleanup(s.Close)
	server := httptest.NewServer(httpapi.New(httpapi.Config{Store: s, Photos: photos.Folder(t.TempDir()), Now: clock()}))
	t.Cleanup(server.Close)
	return &served{server, s}
}

// told writes what a studio's plans, sheets, logs and templates come to and say.
func told(c *caller) string {
	var out bytes.Buffer
	say := func(format string, args ...any) { fmt.Fprintf(&out, format+"\n", args...) }
	get := func(path string) map[string]any { return got[map[string]any](c, 200, c.call("GET", path, nil)) }
	heads := func(slice any) string {
		var all []string
		for _, h := range slice.(map[string]any)["heads"].([]any) {
			head := h.(map[string]any)
			all = append(all, fmt.Sprintf("%v %.3f (%.3f…%.3f)", head["id"], head["value"], head["low"], head["high"]))
		}
		return strings.Join(all, ", ")
	}
	mondays := map[string]bool{}
	clients := get("/clients")["clients"].([]any)
	slices.SortFunc(clients, func(a, b any) int {
		return strings.Compare(a.(map[string]any)["name"].(string), b.(map[string]any)["name"].(string))
	})
	for _, x := range clients {
		client := x.(map[string]any)
		say("# %v", client["name"])
		path := fmt.Sprintf("/clients/%v", client["id"])
		for _, y := range get(path)["sessions"].([]any) {
			at := fmt.Sprintf("%s/sessions/%v", path, y.(map[string]any)["id"])
			s := get(at)
			say("## %v on %v, version %v, intent %v, locked %v", s["name"], s["planned_on"], s["version"], s["intent"], s["locked"] == true)
			say(
				"%.3f minutes, %.3f of them warm-up %v; %v flexor and %v extensor sets",
				s["minutes"],
				s["warm_up"],
				s["ramp"],
				s["hard_sets_flexors"],
				s["hard_sets_extensors"],
			)
			say("%s", heads(s["total"]))
			mondays[path+"/week?of="+s["planned_on"].(string)] = true
			for i, z := range s["slots"].([]any) {
				slot := z.(map[string]any)
				say(
					"%d. %v; %v | %v | %v | %v | %v | cues %v | locked %v",
					i+1,
					slot["title"],
					slot["details"],
					slot["dose_words"],
					slot["load_words"],
					slot["grip_words"],
					slot["starts_words"],
					slot["cues"],
					slot["locked"] == true,
				)
				say("   %s", heads(slot["gets"]))
			}
			sheet := get(at + "/sheet")
			say(
				"sheet: %v · %v · %v · %.3f min · %v · %v · %v · %v",
				sheet["session"],
				sheet["date"],
				sheet["room"],
				sheet["minutes"],
				sheet["warm_up"],
				sheet["ramp"],
				sheet["blocked"],
				sheet["caps"],
			)
			sheetSlots(say, sheet)
			issues := get(at + "/issues")
			say("changed since: %v", issues["pending"])
			for _, z := range issues["issues"].([]any) {
				issue := z.(map[string]any)
				say("issued %v, changes %v", issue["number"], issue["changes"])
				sheetSlots(say, issue["sheet"].(map[string]any))
			}
			for _, z := range get(at + "/log")["slots"].([]any) {
				slot := z.(map[string]any)
				say(
					"log of %v, %v | %v | %v | %v | last %v",
					slot["title"],
					slot["details"],
					slot["dose_words"],
					slot["load_words"],
					slot["entered"],
					slot["last"],
				)
				for _, w := range slot["entries"].([]any) {
					e := w.(map[string]any)
					say(
						"   %v %v: %v × %v, %v left, %v, %v, %v",
						e["set_no"],
						e["side"],
						e["reps"],
						e["load_words"],
						e["reserve"],
						e["grip"],
						e["e1rm"],
						e["note"],
					)
				}
			}
		}
	}
	var weeks []string
	for m := range mondays {
		weeks = append(weeks, m)
	}
	slices.Sort(weeks)
	for _, path := range weeks {
		l := get(path)["ledger"].(map[string]any)
		say(
			"%s: %v flexor and %v extensor sets, %v failures, %.3f minutes",
			path,
			l["hard_sets_flexors"],
			l["hard_sets_extensors"],
			l["failure_sets"],
			l["minutes"],
		)
		say("   %s", heads(l["slice"]))
	}
	for _, x := range get("/templates")["templates"].([]any) {
		template := x.(map[string]any)
		say("template %v: %v", template["name"], template["holds"])
		laid := got[map[string]any](
			c,
			200,
			c.call("POST", fmt.Sprintf("/clients/%v/templates/%v?of=2027-01-04", demo.ClientID("Dario Vance"), template["id"]), nil),
		)
		say("   %v %v", laid["changes"], laid["problems"])
	}
	return out.String()
}

func sheetSlots(say func(string, ...any), sheet map[string]any) {
	for i, z := range sheet["slots"].([]any) {
		s := z.(map[string]any)
		say(
			"%d) %v; %v | %v | %v | %v | %v | %v | %v | %v | %v | %v",
			i+1,
			s["title"],
			s["details"],
			s["sets"],
			s["load"],
			s["effort"],
			s["rest"],
			s["tempo"],
			s["grips"],
			s["starts"],
			s["cues"],
			s["range"],
		)
	}
}

// The demo's database as it was before prescriptions had rows reads as it did:
// heads, minutes, loads and words are equal, and no issued sheet says that it has
// changed since.
func TestTheDatabaseBeforeRowsReads(t *testing.T) {
	s := golden(t, "demo-v1", 11)
	want, err := os.ReadFile(filepath.Join("testdata", "golden", "demo-v1.txt"))
	require.NoError(t, err)
	is := strings.ReplaceAll(told(s.signedIn(t, wren)), "\u00a0", " ") // dates hold together since
	was, now := strings.Split(strings.ReplaceAll(string(want), "\u00a0", " "), "\n"), strings.Split(is, "\n")
	require.Len(t, now, len(was))
	for i := range was {
		if !assert.Equal(t, was[i], now[i], "line %d", i+1) && i > 0 {
			t.Log("after", now[i-1])
		}
	}
	assert.NotContains(t, strings.ReplaceAll(is, "changed since: []", ""), "changed since")
}

// Files that left when a slot had one dose are read for ever: they plan what is kept.
func TestFilesBeforeRowsAreRead(t *testing.T) {
	s := golden(t, "demo-v1", 11)
	c := s.signedIn(t, wren)
	for _, format := range []string{"json", "csv", "xlsx"} {
		file, err := os.ReadFile(filepath.Join("testdata", "golden", "plan-v1."+format))
		require.NoError(t, err)
		read := got[imported](
			c,
			200,
			c.call("POST", clientPath("Aurelio Finch")+"/plan?format="+format, form{"application/octet-stream", file}),
		)
		assert.Empty(t, read.Problems, format)
		assert.Empty(t, read.Unknown, format)
		assert.Empty(t, read.Changes, format)
		assert.Equal(t, 5, read.Same, format)
	}
}
