package httpapi_test

import (
	"context"
	"flag"
	"fmt"
	"maps"
	"net/http"
	"net/http/httptest"
	"net/netip"
	"net/url"
	"regexp"
	"slices"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/pquerna/otp/totp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
	"musculus/internal/httpapi"
	"musculus/internal/jobs"
	"musculus/internal/mail"
	"musculus/internal/testenv"
)

var guesses = flag.Int("guesses", 1500, "how many guesses an hour TestAnAccountIsNotGuessed makes")

// house is a server with a letter-box, and a clock that can be set.
type house struct {
	*served
	box *mail.Box
	at  atomic.Int64
}

func (h *house) now() time.Time         { return time.Unix(0, h.at.Load()) }
func (h *house) later(by time.Duration) { h.at.Add(int64(by)) }

// letters opens a house over a served studio; proxies' word on addresses is taken.
func (s *served) letters(t *testing.T) *house {
	box, err := mail.OpenBox("127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { _ = box.Close() })
	send, err := mail.New(box.Address)
	require.NoError(t, err)
	office, err := jobs.Open(s.store, send.Send, "https://musculus.example", nil)
	require.NoError(t, err)
	require.NoError(t, office.Start(context.Background()))
	t.Cleanup(func() { _ = office.Stop(context.Background()) })
	h := &house{box: box}
	h.at.Store(now.UnixNano())
	server := httptest.NewServer(httpapi.New(httpapi.Config{
		Store: s.store, Now: h.now, Post: office, Address: "https://musculus.example",
		Proxies: []netip.Prefix{netip.MustParsePrefix("127.0.0.0/8")},
	}))
	t.Cleanup(server.Close)
	h.served = &served{server, s.store}
	return h
}

// link is the one in the latest letter to an address, as a path of the API.
func (h *house) link(t *testing.T, to string, n int) string {
	t.Helper()
	ctx, cancel := context.WithTimeout(context.Background(), 20*time.Second)
	defer cancel()
	came := h.box.Wait(ctx, to, n)
	require.Len(t, came, n, "letters to %s", to)
	m := regexp.MustCompile(`https://musculus\.example(/once/\w+)`).FindStringSubmatch(came[0].Says)
	require.NotNil(t, m, came[0].Says)
	return m[1]
}

type folk struct {
	People []struct {
		ID, Name, Email, Role, Seen string
		Disabled, Factor, Me        bool
	}
	Invitations []struct{ ID, Email string }
}

func (p folk) of(email string) string {
	for _, x := range p.People {
		if x.Email == email {
			return x.ID
		}
	}
	return ""
}

const quiet = "three quiet lamps"

// An owner asks somebody to join by letter; she sets a password, and a second factor;
// the owner disables her, and her next request says so.
func TestSomebodyIsInvitedAndShutOut(t *testing.T) {
	h := open(t).letters(t)
	owner := h.signedIn(t, wren)
	mia := "mia.o'hara+gym@saltmarsh.example"
	invite := map[string]any{"id": newID(), "email": " " + strings.ToUpper(mia), "role": "assistant", "letter": true}
	asked := got[struct{ Now folk }](owner, 200, owner.call("POST", "/invitations", invite))
	require.Len(t, asked.Now.Invitations, 1)
	require.Equal(t, 200, owner.call("POST", "/invitations", invite).status, "its answer was lost and it came again")
	changed := with(maps.Clone(invite), map[string]any{"role": "owner"})
	assert.Equal(t, 409, owner.call("POST", "/invitations", changed).status)
	link := h.link(t, mia, 1)

	hers := h.caller(t)
	seen := got[map[string]any](hers, 200, hers.call("GET", link, nil))
	assert.Equal(t, "The Saltmarsh Players", seen["studio"])
	for body, field := range map[*map[string]any]string{
		{"name": "Mia", "password": "short"}:                                 "body.password",
		{"name": "Mia", "password": "miaohara2026!"}:                         "body.password",
		{"name": "", "password": quiet}:                                      "body.name",
		{"name": strings.Repeat("M", 900), "password": quiet}:                "body.name",
		{"name": "Mia\x07", "password": quiet}:                               "",
		{"name": "Mia", "password": "            "}:                          "body.password",
		{"name": "Mia", "password": strings.Repeat("correct lamp ferry", 9)}: "body.password",
	} {
		a := hers.call("POST", link, *body)
		require.Equal(t, 422, a.status, "%v: %s", *body, a.body)
		assert.Contains(t, a.body, field)
	}
	me := got[map[string]any](hers, 200, hers.call("POST", link, map[string]any{"name": "  מיה אוהרה ", "password": quiet}))
	assert.Equal(t, "מיה אוהרה", me["name"], "right to left, and no spaces round it")
	assert.Equal(t, "assistant", me["role"])
	assert.Equal(t, 410, h.caller(t).call("GET", link, nil).status, "it opened once")

	// Her second factor, and what each code is good for.
	begun := got[struct{ Secret, Image string }](hers, 200, hers.call("POST", "/me/factor", nil))
	assert.True(t, strings.HasPrefix(begun.Image, "data:image/png;base64,"))
	code := func() string {
		c, err := totp.GenerateCode(begun.Secret, h.now())
		require.NoError(t, err)
		return c
	}
	assert.Equal(t, 422, hers.call("PUT", "/me/factor", map[string]any{"code": "000000"}).status)
	kept := got[struct{ Codes []string }](hers, 200, hers.call("PUT", "/me/factor", map[string]any{"code": code()}))
	require.Len(t, kept.Codes, 10)
	signIn := func(with map[string]any) answer {
		body := map[string]any{"email": mia, "password": quiet}
		for k, v := range with {
			body[k] = v
		}
		return h.caller(t).call("POST", "/sign-in", body)
	}
	a := signIn(nil)
	assert.Equal(t, 401, a.status)
	assert.Contains(t, a.body, `"needs":"code"`)
	assert.Equal(t, 401, signIn(map[string]any{"code": code()}).status, "that code was used to set it up")
	h.later(time.Minute)
	now := code()
	assert.Equal(t, 200, signIn(map[string]any{"code": now}).status)
	assert.Equal(t, 401, signIn(map[string]any{"code": now}).status, "a code counts once")
	assert.Equal(t, 200, signIn(map[string]any{"code": " " + strings.ToUpper(kept.Codes[3])}).status)
	assert.Equal(t, 401, signIn(map[string]any{"code": kept.Codes[3]}).status, "a recovery code too")

	// The owner shuts her out: two processes know within three seconds.
	other := httptest.NewServer(httpapi.New(httpapi.Config{Store: h.store, Now: h.now}))
	defer other.Close()
	there := &caller{t, other.URL + "/api", hers.http}
	there.http.Jar.SetCookies(mustURL(t, other.URL), there.http.Jar.Cookies(mustURL(t, h.URL)))
	require.Equal(t, 200, hers.call("GET", "/clients", nil).status)
	require.Equal(t, 200, there.call("GET", "/clients", nil).status)
	list := got[folk](owner, 200, owner.call("GET", "/people", nil))
	require.Equal(
		t,
		200,
		owner.call("PUT", "/people/"+list.of(mia), map[string]any{"role": "assistant", "disabled": true}).status,
	)
	for _, c := range []*caller{hers, there} {
		assert.Eventually(
			t,
			func() bool { return c.call("GET", "/clients", nil).status == 401 },
			3*time.Second,
			50*time.Millisecond,
		)
		assert.Contains(t, c.call("GET", "/clients", nil).body, "disabled")
	}
	h.later(time.Minute)
	assert.Equal(t, 403, signIn(map[string]any{"code": code()}).status)

	events := got[struct {
		Events []struct{ What, About, Address string }
	}](owner, 200, owner.call("GET", "/studio/security", nil)).Events
	var whats []string
	for _, e := range events {
		whats = append(whats, e.What)
		assert.NotContains(t, e.About, "@", "nobody's address")
	}
	for _, what := range []string{"invited", "took up an invitation", "set up a second factor", "used a recovery code",
		"disabled", "signed in"} {
		assert.Contains(t, whats, what)
	}
}

// A forgotten password: a letter, once, for half an hour; what is answered tells nobody
// who signs in here.
func TestAForgottenPassword(t *testing.T) {
	log := logging(t)
	h := open(t).letters(t)
	defer func() { // nothing of what is secret is in the server's log
		for _, secret := range []string{quiet, jory.Password, "once/", jory.Email} {
			assert.NotContains(t, log.String(), secret)
		}
	}()
	hers := h.signedIn(t, jory)
	c := h.caller(t)
	assert.Equal(t, 204, c.call("POST", "/forgotten", map[string]any{"email": "nobody@saltmarsh.example"}).status)
	assert.Equal(t, 204, c.call("POST", "/forgotten", map[string]any{"email": jory.Email}).status)
	first := h.link(t, jory.Email, 1)
	assert.Equal(t, 204, c.call("POST", "/forgotten", map[string]any{"email": jory.Email}).status)
	link := h.link(t, jory.Email, 2)
	assert.Equal(t, 410, c.call("GET", first, nil).status, "the one before opens no more")
	assert.Equal(t, 422, c.call("POST", link+"/password", map[string]any{"password": "passwordpassword"}).status)
	h.later(29 * time.Minute)
	assert.Equal(t, 204, c.call("POST", link+"/password", map[string]any{"password": quiet}).status)
	assert.Equal(t, 410, c.call("POST", link+"/password", map[string]any{"password": quiet}).status)
	assert.Eventually(t, func() bool { return hers.call("GET", "/me", nil).status == 401 }, 3*time.Second, 50*time.Millisecond,
		"what was begun with the old one is over")
	assert.Equal(t, 401, c.call("POST", "/sign-in", map[string]any{"email": jory.Email, "password": jory.Password}).status)
	assert.Equal(t, 200, c.call("POST", "/sign-in", map[string]any{"email": jory.Email, "password": quiet}).status)

	assert.Equal(t, 204, c.call("POST", "/forgotten", map[string]any{"email": jory.Email}).status)
	late := h.link(t, jory.Email, 3)
	h.later(31 * time.Minute)
	assert.Equal(t, 410, c.call("POST", late+"/password", map[string]any{"password": quiet}).status)
	assert.Len(t, h.box.Letters(), 3, "and none to nobody")
}

// One's own account: another password ends every other sign-in, one sign-in is ended,
// a session that lies idle is over, and two studios are one login's.
func TestOnesOwnAccount(t *testing.T) {
	h := open(t).letters(t)
	here, there := h.signedIn(t, wren), h.signedIn(t, wren)
	assert.Equal(t, 422, here.call("PUT", "/me/password", map[string]any{"old": "wrong", "new": quiet}).status)
	assert.Equal(
		t,
		422,
		here.call("PUT", "/me/password", map[string]any{"old": wren.Password, "new": "wren adeyemi-holt"}).status,
	)
	assert.Equal(t, 204, here.call("PUT", "/me/password", map[string]any{"old": wren.Password, "new": quiet}).status)
	assert.Eventually(t, func() bool { return there.call("GET", "/me", nil).status == 401 }, 3*time.Second, 50*time.Millisecond)
	assert.Equal(t, 200, here.call("GET", "/me", nil).status)

	again := demoSignIn(wren.Email, quiet)
	third := h.signedIn(t, again)
	list := got[struct {
		SignIns []struct {
			ID   string
			Here bool
		} `json:"sign_ins"`
	}](here, 200, here.call("GET", "/me/sign-ins", nil)).SignIns
	require.Len(t, list, 2)
	for _, in := range list {
		if !in.Here {
			assert.Equal(t, 204, here.call("DELETE", "/me/sign-ins/"+in.ID, nil).status)
		}
	}
	assert.Eventually(t, func() bool { return third.call("GET", "/me", nil).status == 401 }, 3*time.Second, 50*time.Millisecond)

	// Somebody else signs in on the same browser.
	assert.Equal(t, 200, third.call("POST", "/sign-in", map[string]any{"email": jory.Email, "password": jory.Password}).status)
	assert.Equal(t, 200, third.call("POST", "/sign-in", map[string]any{"email": wren.Email, "password": quiet}).status)

	// Another studio asks her in: her own password opens it, and she chooses where to sign in.
	elsewhere := h.signedIn(t, h.elsewhere(t))
	asked := got[struct{ Link string }](elsewhere, 200,
		elsewhere.call("POST", "/invitations", map[string]any{"id": newID(), "email": wren.Email, "role": "coach"}))
	link := strings.TrimPrefix(asked.Link, "https://musculus.example")
	seen := got[map[string]any](here, 200, here.call("GET", link, nil))
	assert.Equal(t, true, seen["known"])
	assert.Equal(t, 401, h.caller(t).call("POST", link, map[string]any{"name": "Wren", "password": "a guess at it"}).status)
	assert.Equal(t, 200, h.caller(t).call("POST", link, map[string]any{"name": "Wren", "password": quiet}).status)
	a := h.caller(t).call("POST", "/sign-in", map[string]any{"email": wren.Email, "password": quiet})
	assert.Equal(t, 401, a.status)
	assert.Contains(t, a.body, `"needs":"studio"`)
	both := got[struct {
		Studio  string
		Studios []struct {
			ID, Name string
			Here     bool
		}
	}](here, 200, here.call("GET", "/me", nil))
	require.Len(t, both.Studios, 2)
	assert.Equal(t, "Elsewhere", both.Studios[0].Name)
	moved := got[map[string]any](here, 200, here.call("POST", "/me/studio", map[string]any{"studio": both.Studios[0].ID}))
	assert.Equal(t, "Elsewhere", moved["studio"])
	clients := got[struct{ Clients []any }](here, 200, here.call("GET", "/clients", nil))
	assert.Empty(t, clients.Clients)

	h.later(13 * time.Hour)
	assert.Eventually(
		t,
		func() bool { return here.call("GET", "/me", nil).status == 401 },
		3*time.Second,
		50*time.Millisecond,
		"idle for a day",
	)
	own := h.caller(t)
	require.Equal(t, 200, own.call("POST", "/sign-in",
		map[string]any{"email": wren.Email, "password": quiet, "studio": both.Studios[1].ID, "own_device": true}).status)
	h.later(29 * 24 * time.Hour)
	assert.Equal(t, 200, own.call("GET", "/me", nil).status, "a device of one's own")
}

// However many guess, and from wherever, fewer than a hundred an hour are tried; who has
// signed in on a device before still signs in there.
func TestAnAccountIsNotGuessed(t *testing.T) {
	h := open(t).letters(t)
	own := h.signedIn(t, wren)
	for _, addresses := range []int{1, 500} {
		h.later(2 * time.Hour)
		tried := 0
		for i := range *guesses {
			r := httptest.NewRequest(
				"POST",
				"/api/sign-in",
				strings.NewReader(fmt.Sprintf(`{"email":%q,"password":"guess %d"}`, wren.Email, i)),
			)
			r.RemoteAddr = "127.0.0.1:1"
			r.Header.Set("Content-Type", "application/json")
			r.Header.Set("X-Forwarded-For", fmt.Sprintf("6.6.6.6, 10.1.%d.%d", i%addresses/250, i%addresses%250))
			w := httptest.NewRecorder()
			h.Config.Handler.ServeHTTP(w, r)
			switch w.Code {
			case http.StatusUnauthorized:
				tried++
			case http.StatusTooManyRequests:
			default:
				require.Fail(t, "answered", "%d %s", w.Code, w.Body)
			}
			h.later(time.Hour / time.Duration(*guesses))
		}
		t.Logf("%d guesses from %d addresses: %d tried", *guesses, addresses, tried)
		assert.LessOrEqual(t, tried, 100)
		assert.Greater(t, tried, 20)
		assert.Equal(t, 200, own.call("POST", "/sign-in", map[string]any{"email": wren.Email, "password": wren.Password}).status)
	}
}

// A known and an unknown address take as long: the medians are within a fifth.
func TestNobodyIsToldWhoSignsIn(t *testing.T) {
	h := open(t).letters(t)
	took := func(email string) time.Duration {
		began := time.Now()
		assert.Equal(t, 401, h.caller(t).call("POST", "/sign-in", map[string]any{"email": email, "password": "guess"}).status)
		return time.Since(began)
	}
	var known, unknown []time.Duration
	for range 24 {
		h.later(90 * time.Minute) // nobody waits
		known = append(known, took(wren.Email))
		unknown = append(unknown, took("nobody@saltmarsh.example"))
	}
	slices.Sort(known)
	slices.Sort(unknown)
	ratio := float64(known[12]) / float64(unknown[12])
	t.Logf("known %v, unknown %v: ratio %.2f", known[12], unknown[12], ratio)
	assert.InDelta(t, 1, ratio, 0.5) // measured within a tenth; a busy machine is no leak
}

// The first owner's link makes a studio of an empty database, once.
func TestTheFirstOwner(t *testing.T) {
	s := testenv.Store(t)
	token, err := s.FirstOwnerLink(context.Background(), now)
	require.NoError(t, err)
	server := httptest.NewServer(httpapi.New(httpapi.Config{Store: s, Now: clock()}))
	defer server.Close()
	c := (&served{server, s}).caller(t)
	seen := got[map[string]any](c, 200, c.call("GET", "/once/"+token, nil))
	assert.Equal(t, "first", seen["kind"])
	body := map[string]any{
		"studio":   "Harbour Arms",
		"zone":     "Europe/Lisbon",
		"email":    "Owner@harbour.example",
		"name":     "Ida",
		"password": quiet,
	}
	assert.Equal(t, 422, c.call("POST", "/once/"+token, with(maps.Clone(body), map[string]any{"email": "no address"})).status)
	assert.Equal(t, 422, c.call("POST", "/once/"+token, with(maps.Clone(body), map[string]any{"zone": "Nowhere/Never"})).status)
	me := got[map[string]any](c, 200, c.call("POST", "/once/"+token, body))
	assert.Equal(t, "owner", me["role"])
	assert.Equal(t, "Harbour Arms", me["studio"])
	assert.Equal(t, 410, c.call("POST", "/once/"+token, body).status)
	again, err := s.FirstOwnerLink(context.Background(), now)
	require.NoError(t, err)
	assert.Empty(t, again)
	assert.Empty(t, got[struct{ Clients []any }](c, 200, c.call("GET", "/clients", nil)).Clients)
	assert.Equal(
		t,
		409,
		c.call("PUT", "/people/"+me["id"].(string), map[string]any{"role": "coach", "disabled": false}).status,
		"the last owner",
	)
}

// The mail server is away for an hour: letters leave later, and once.
func TestLettersWaitForTheirServer(t *testing.T) {
	s := open(t)
	away := atomic.Bool{}
	away.Store(true)
	box, err := mail.OpenBox("127.0.0.1:0")
	require.NoError(t, err)
	defer box.Close()
	send, err := mail.New(box.Address)
	require.NoError(t, err)
	office, err := jobs.Open(s.store, func(ctx context.Context, l mail.Letter) error {
		if away.Load() {
			return fmt.Errorf("connection refused")
		}
		return send.Send(ctx, l)
	}, "https://musculus.example", nil)
	require.NoError(t, err)
	require.NoError(t, office.Start(context.Background()))
	defer office.Stop(context.Background())
	server := httptest.NewServer(
		httpapi.New(httpapi.Config{Store: s.store, Now: clock(), Post: office, Address: "https://musculus.example"}),
	)
	defer server.Close()
	c := (&served{server, s.store}).signedIn(t, wren)
	invite := map[string]any{"id": newID(), "email": "later@saltmarsh.example", "role": "coach", "letter": true}
	require.Equal(t, 200, c.call("POST", "/invitations", invite).status)
	time.Sleep(2500 * time.Millisecond)
	assert.Empty(t, box.Letters())
	away.Store(false)
	ctx, cancel := context.WithTimeout(context.Background(), 30*time.Second)
	defer cancel()
	assert.Len(t, box.Wait(ctx, "later@saltmarsh.example", 1), 1)
	time.Sleep(time.Second)
	assert.Len(t, box.Letters(), 1)
}

func mustURL(t *testing.T, s string) *url.URL {
	u, err := url.Parse(s)
	require.NoError(t, err)
	return u
}

func demoSignIn(email, password string) demo.SignIn {
	return demo.SignIn{Email: email, Password: password}
}

// A client's letters: to the address she gave, with her consent; her link, and a reminder
// the evening before, once however often it is looked for.
func TestAClientsLetters(t *testing.T) {
	h := open(t).letters(t)
	c := h.signedIn(t, wren)
	path := clientPath("Aurelio Finch")
	send := func() answer {
		return c.call("POST", path+"/links", map[string]any{"id": newID(), "days": 14, "letter": true})
	}
	change := func(field string, was, value any) answer {
		return c.call("PATCH", path+"/dossier", map[string]any{"changes": []any{map[string]any{"field": field, "was": was, "value": value}}})
	}
	assert.Contains(t, send().body, "no address")
	assert.Equal(t, 422, change("letters", "", "no address").status)
	require.Equal(t, 200, change("letters", "", "aurelio@saltmarsh.example").status)
	assert.Contains(t, send().body, "consent")
	require.Equal(t, 200, change("letters_on", nil, "2026-11-20").status)
	require.Equal(t, 200, send().status)
	ctx, cancel := context.WithTimeout(context.Background(), 20*time.Second)
	defer cancel()
	came := h.box.Wait(ctx, "aurelio@saltmarsh.example", 1)
	require.Len(t, came, 1)
	link := regexp.MustCompile(`https://musculus\.example/s/(\w+)`).FindStringSubmatch(came[0].Says)
	require.NotNil(t, link, came[0].Says)
	assert.Equal(t, 200, h.caller(t).call("GET", "/links/"+link[1], nil).status)
	assert.Equal(t, 422, c.call("POST", clientPath("Aurelio Finch")+"/links", map[string]any{"id": newID(), "days": 300}).status)

	// Reminders: only where they are wanted, only of what has a sheet, only from the evening on.
	require.Equal(t, 200, change("reminders", false, true).status)
	require.Equal(t, 200, c.call("POST", sessionPath("Aurelio Finch")+"/issues", map[string]any{"id": newID(), "version": 1}).status)
	planned := got[struct {
		Planned string `json:"planned_on"`
	}](c, 200, c.call("GET", sessionPath("Aurelio Finch"), nil)).Planned
	on, err := time.Parse(time.DateOnly, planned)
	require.NoError(t, err)
	office, err := jobs.Open(h.store, func(context.Context, mail.Letter) error { return nil }, "https://musculus.example", nil)
	require.NoError(t, err)
	for _, at := range []time.Time{on.Add(-9 * time.Hour), on.Add(-6 * time.Hour), on.Add(-5 * time.Hour), on.Add(-5 * time.Hour)} {
		require.NoError(t, office.Remind(context.Background(), h.store, "https://musculus.example", at))
	}
	came = h.box.Wait(ctx, "aurelio@saltmarsh.example", 2)
	require.Len(t, came, 2)
	assert.Contains(t, came[0].Subject, "Tomorrow: ")
	link = regexp.MustCompile(`https://musculus\.example/s/(\w+)`).FindStringSubmatch(came[0].Says)
	assert.Equal(t, 200, h.caller(t).call("GET", "/links/"+link[1], nil).status)
	time.Sleep(time.Second)
	assert.Len(t, h.box.Letters(), 2)
	// A summary in the evening of a day she trained, once; weekly ones on Sunday.
	require.Equal(t, 200, change("summaries", "", "after").status)
	trained := now.AddDate(0, 0, -5)
	for _, hour := range []int{12, 20, 21} {
		at := time.Date(trained.Year(), trained.Month(), trained.Day(), hour, 0, 0, 0, time.UTC)
		require.NoError(t, office.Summarise(context.Background(), h.store, "https://musculus.example", at))
	}
	require.Len(t, h.box.Wait(ctx, "aurelio@saltmarsh.example", 3), 3)
	require.Equal(t, 200, change("summaries", "after", "weekly").status)
	for d := range 7 { // of that week one is a Sunday
		at := time.Date(trained.Year(), trained.Month(), trained.Day(), 20, 0, 0, 0, time.UTC).AddDate(0, 0, d-3)
		require.NoError(t, office.Summarise(context.Background(), h.store, "https://musculus.example", at))
	}
	came = h.box.Wait(ctx, "aurelio@saltmarsh.example", 4)
	require.Len(t, came, 4)
	assert.NotContains(t, came[0].Says, "kg", "nothing of what she did leaves")
	require.Equal(t, 200, change("letters_on", "2026-11-20", nil).status, "taken back")
	assert.Contains(t, send().body, "consent")
}

// A studio asks everybody for a second factor: who has none opens nothing but her own
// account, until it is set up; an owner without one cannot ask for it.
func TestASecondFactorIsDemanded(t *testing.T) {
	h := open(t).letters(t)
	owner, hers := h.signedIn(t, wren), h.signedIn(t, jory)
	setUp := func(c *caller) {
		begun := got[struct{ Secret string }](c, 200, c.call("POST", "/me/factor", nil))
		code, err := totp.GenerateCode(begun.Secret, h.now())
		require.NoError(t, err)
		require.Equal(t, 200, c.call("PUT", "/me/factor", map[string]any{"code": code}).status)
	}
	demand := func() answer { return owner.call("PUT", "/studio/second-factor", map[string]any{"demanded": true}) }
	assert.Equal(t, 409, demand().status)
	setUp(owner)
	require.Equal(t, 200, demand().status)
	assert.Eventually(t, func() bool { return hers.call("GET", "/clients", nil).status == 403 }, 3*time.Second, 50*time.Millisecond)
	assert.Equal(t, true, got[map[string]any](hers, 200, hers.call("GET", "/me", nil))["lacks"])
	setUp(hers)
	assert.Equal(t, 200, hers.call("GET", "/clients", nil).status)
	assert.Equal(t, 422, hers.call("DELETE", "/me/factor", map[string]any{"password": "a guess at it"}).status)
}
