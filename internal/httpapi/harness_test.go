package httpapi_test

import (
	"bytes"
	"context"
	"encoding/json"
	"io"
	"log/slog"
	"maps"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"os"
	"sync/atomic"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
	"musculus/internal/httpapi"
	"musculus/internal/localpg"
	"musculus/internal/photos"

	"musculus/internal/store"
	"musculus/internal/testenv"
)

func TestMain(m *testing.M) { os.Exit(testenv.Main(m)) }

var now = time.Date(2026, 11, 25, 10, 0, 0, 0, time.UTC)

// clock is a server's clock that starts at now; no two readings are the same.
func clock() func() time.Time {
	var ticks atomic.Int64
	return func() time.Time { return now.Add(time.Duration(ticks.Add(1)) * time.Millisecond) }
}

// studio is a server with the demo studio on a fresh database.
type served struct {
	*httptest.Server
	store *store.Store
}

func open(t testing.TB) *served {
	return serveOn(t, testenv.Filled(t, "demo", func(s *store.Store) error { return demo.Load(context.Background(), s, now) }))
}

// serveOn serves a database.
func serveOn(t testing.TB, db localpg.Database) *served {
	s, err := store.Open(context.Background(), db.URL)
	require.NoError(t, err)
	t.Cleanup(s.Close)
	server := httptest.NewServer(httpapi.New(httpapi.Config{Store: s, Photos: photos.Folder(t.TempDir()), Now: clock()}))
	t.Cleanup(server.Close)
	return &served{server, s}
}

// caller is someone with a browser: cookies are kept.
type caller struct {
	t    testing.TB
	base string
	http *http.Client
}

func (s *served) caller(t testing.TB) *caller {
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	return &caller{t, s.URL + "/api", &http.Client{Jar: jar}}
}

func (s *served) signedIn(t testing.TB, a demo.SignIn) *caller {
	c := s.caller(t)
	r := c.call("POST", "/sign-in", map[string]any{"email": a.Email, "password": a.Password})
	require.Equal(t, http.StatusOK, r.status, r.body)
	return c
}

// elsewhere makes another studio and returns the sign-in of its owner.
func (s *served) elsewhere(t testing.TB) demo.SignIn {
	other := store.Account{ID: uuid.New(), Email: "coach@elsewhere.example", Name: "Elsewhere", Role: store.Owner}
	id := uuid.New()
	require.NoError(t, s.store.In(context.Background(), id, func(tx *store.Tx) error {
		if err := tx.AddStudio(context.Background(), id, "Elsewhere"); err != nil {
			return err
		}
		return tx.AddAccount(context.Background(), other, "another secret")
	}))
	return demo.SignIn{Email: other.Email, Password: "another secret"}
}

var wren, jory = demo.SignIns[0], demo.SignIns[1]

type answer struct {
	status int
	header http.Header
	body   string
}

// form is a body that is not JSON.
type form struct {
	kind string
	body []byte
}

// call sends a body as JSON, or as it is when it is a string or a form.
func (c *caller) call(method, path string, body any) answer {
	var reader io.Reader
	kind := "application/json"
	switch b := body.(type) {
	case nil:
	case string:
		reader = bytes.NewReader([]byte(b))
	case form:
		reader, kind = bytes.NewReader(b.body), b.kind
	default:
		encoded, err := json.Marshal(b)
		require.NoError(c.t, err)
		reader = bytes.NewReader(encoded)
	}
	r, err := http.NewRequest(method, c.base+path, reader)
	require.NoError(c.t, err)
	r.Header.Set("Content-Type", kind)
	response, err := c.http.Do(r)
	require.NoError(c.t, err)
	defer response.Body.Close()
	b, err := io.ReadAll(response.Body)
	require.NoError(c.t, err)
	return answer{response.StatusCode, response.Header, string(b)}
}

// got decodes an answer that must have the given status.
func got[T any](c *caller, status int, a answer) (out T) {
	c.t.Helper()
	require.Equal(c.t, status, a.status, a.body)
	require.NoError(c.t, json.Unmarshal([]byte(a.body), &out))
	return
}

// problem is what a refused request answers.
type problem struct {
	Status int
	Detail string
	Errors []struct{ Location, Message string }
}

func (p problem) locations() (out []string) {
	for _, e := range p.Errors {
		out = append(out, e.Location)
	}
	return
}

// logging catches the log of a test.
func logging(t testing.TB) *bytes.Buffer {
	var logged bytes.Buffer
	was := slog.Default()
	slog.SetDefault(slog.New(slog.NewJSONHandler(&logged, nil)))
	t.Cleanup(func() { slog.SetDefault(was) })
	return &logged
}

func newID() string { return uuid.Must(uuid.NewV7()).String() }

func sessionPath(name string) string {
	return "/clients/" + demo.ClientID(name).String() + "/sessions/" + demo.SessionID(name).String()
}

// draft is what is edited of a session as it stands, ready to be saved.
func draft(c *caller, path string) map[string]any {
	s := got[map[string]any](c, 200, c.call("GET", path, nil))
	var slots []any
	for _, one := range s["slots"].([]any) {
		slot := one.(map[string]any)
		kept := map[string]any{}
		for _, k := range []string{"id", "movement", "settings", "rows", "cues", "combo", "starts", "locked"} {
			if v, ok := slot[k]; ok {
				kept[k] = v
			}
		}
		slots = append(slots, kept)
	}
	return map[string]any{
		"id":          s["id"],
		"combos":      s["combos"],
		"name":        s["name"],
		"planned_on":  s["planned_on"],
		"warm_up_min": s["warm_up_min"],
		"slots":       slots,
		"version":     s["version"],
		"write":       newID(),
	}
}

// slot is one slot of a draft.
func slot(d map[string]any, i int) map[string]any { return d["slots"].([]any)[i].(map[string]any) }

// row is the first row of one slot of a draft.
func row(d map[string]any, i int) map[string]any {
	return slot(d, i)["rows"].([]any)[0].(map[string]any)
}

// rows is a slot's only row as it is sent.
func rows(sets, low, high, reserve, rest int, more map[string]any) []any {
	out := map[string]any{"id": newID(), "sets": sets, "reps_low": low, "reps_high": high, "reserve": reserve, "rest_s": rest}
	maps.Copy(out, more)
	return []any{out}
}
