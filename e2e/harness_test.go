// Package e2e drives the real binary in headless Chromium: a file a coach's
// errand. This file is the harness.
package e2e

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"syscall"
	"testing"
	"time"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
	"musculus/internal/localpg"
	"musculus/internal/mail"
	"musculus/internal/store"
	"musculus/internal/testenv"
)

var browser context.Context

func TestMain(m *testing.M) { os.Exit(run(m)) }

func run(m *testing.M) int {
	if _, err := os.Stat(binary()); err != nil {
		fmt.Fprintln(os.Stderr, "browser tests need the built binary: make build")
		return 1
	}
	profile, err := os.MkdirTemp("", "musculus-chromium-")
	if err != nil {
		panic(err)
	}
	defer os.RemoveAll(profile)
	options := append(slices.Clone(chromedp.DefaultExecAllocatorOptions[:]),
		chromedp.ExecPath("/usr/bin/chromium"), chromedp.UserDataDir(profile), chromedp.DisableGPU,
		chromedp.Flag("disable-component-update", true), chromedp.Flag("disable-quic", true), chromedp.Flag("hide-scrollbars", true))
	if os.Geteuid() == 0 {
		options = append(options, chromedp.NoSandbox)
	}
	alloc, cancel := chromedp.NewExecAllocator(context.Background(), options...)
	defer cancel()
	var stop context.CancelFunc
	browser, stop = chromedp.NewContext(alloc)
	defer stop()
	if err := chromedp.Do(browser, chromedp.Navigate("about:blank")); err != nil {
		fmt.Fprintln(os.Stderr, "Chromium does not start:", err)
		return 1
	}
	return testenv.Main(m)
}

func binary() string {
	if path := os.Getenv("MUSCULUS_BIN"); path != "" {
		return path
	}
	path, _ := filepath.Abs("../bin/musculus")
	return path
}

// app is the real binary serving a fresh demo studio.
type app struct {
	url   string
	store *store.Store
	box   *mail.Box // where its letters come
}

func freeAddress(t testing.TB) string {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer l.Close()
	return l.Addr().String()
}

// start serves a fresh demo studio on the shared server.
func start(t testing.TB) *app { return startOn(t, demoOn(t, time.Now()), time.Now()) }

// demoOn is a database with the demo of a day.
func demoOn(t testing.TB, now time.Time) localpg.Database {
	return testenv.Filled(t, now.Format(time.DateOnly), func(s *store.Store) error { return demo.Load(context.Background(), s, now) })
}

// startMidweek dates the demo around this week's Wednesday, so that what it plans
// for two days later is in the same week on whatever day the tests run.
func startMidweek(t testing.TB) (a *app, wednesday string) { return startOnDay(t, time.Wednesday) }

// startOnDay dates the demo around a day of this week: which days its people train on follows
// from it.
func startOnDay(t testing.TB, weekday time.Weekday) (a *app, date string) {
	now := time.Now()
	day := now.AddDate(0, 0, (int(weekday)+6)%7-(int(now.Weekday())+6)%7)
	return startOn(t, demoOn(t, day), day), day.Format(time.DateOnly)
}

// inTwoWeeks is a day of a week that nobody has planned yet.
func inTwoWeeks() string { return time.Now().AddDate(0, 0, 14).Format(time.DateOnly) }

func startOn(t testing.TB, db localpg.Database, now time.Time) *app {
	ctx := context.Background()
	s, err := store.Open(ctx, db.URL)
	require.NoError(t, err)
	t.Cleanup(s.Close)
	require.NoError(t, demo.Load(ctx, s, now))
	address := freeAddress(t)
	box, err := mail.OpenBox("127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { _ = box.Close() })
	cmd := exec.Command(binary(), "serve", "--listen", address, "--files", t.TempDir())
	cmd.Env = append(os.Environ(), "MUSCULUS_DATABASE_URL="+db.URL, "MUSCULUS_MAIL_URL="+box.Address)
	cmd.Stdout, cmd.Stderr = os.Stdout, os.Stderr
	cmd.SysProcAttr = &syscall.SysProcAttr{Pdeathsig: syscall.SIGKILL}
	require.NoError(t, cmd.Start())
	t.Cleanup(func() {
		_ = cmd.Process.Signal(syscall.SIGTERM)
		_ = cmd.Wait()
	})
	a := &app{"http://" + address, s, box}
	require.Eventually(t, func() bool {
		r, err := http.Get(a.url + "/api/me")
		if err != nil {
			return false
		}
		_, _ = io.Copy(io.Discard, r.Body)
		r.Body.Close()
		return true
	}, 10*time.Second, 20*time.Millisecond)
	return a
}

// tab is one browser tab with cookies and storage of its own.
type tab struct {
	t   testing.TB
	ctx context.Context
	app *app
}

// laptop and phone are the two sizes screens are looked at in.
var (
	laptop = [2]int64{1280, 800}
	phone  = [2]int64{390, 844}
	tablet = [2]int64{820, 1180}
)

// open opens a tab at a path.
func (a *app) open(t testing.TB, size [2]int64, path string) *tab {
	ctx, cancel := chromedp.NewContext(browser, chromedp.WithNewBrowserContext())
	ctx, stop := context.WithTimeout(ctx, 120*time.Second)
	t.Cleanup(func() { stop(); cancel() })
	p := &tab{t, ctx, a}
	options := []chromedp.EmulateViewportOption{}
	if size == phone {
		options = append(options, chromedp.EmulateMobile, chromedp.EmulateTouch)
	}
	p.do(chromedp.EmulateViewport(size[0], size[1], options...), chromedp.Navigate(a.url+path))
	return p
}

// second opens another tab that shares this one's sign-in.
func (p *tab) second(size [2]int64, path string) *tab {
	id := chromedp.FromContext(p.ctx).BrowserContextID
	ctx, cancel := chromedp.NewContext(browser, chromedp.WithExistingBrowserContext(id))
	ctx, stop := context.WithTimeout(ctx, 120*time.Second)
	p.t.Cleanup(func() { stop(); cancel() })
	q := &tab{p.t, ctx, p.app}
	q.do(chromedp.EmulateViewport(size[0], size[1]), chromedp.Navigate(p.app.url+path))
	return q
}

// signedIn opens a tab signed in as one of the demo's accounts.
func (a *app) signedIn(t testing.TB, who demo.SignIn, size [2]int64, path string) *tab {
	p := a.open(t, size, path)
	p.signIn(who)
	return p
}

var wren, jory = demo.SignIns[0], demo.SignIns[1]

func (p *tab) signIn(who demo.SignIn) {
	p.until(`document.querySelector('input[type=email]')`)
	p.typeInto(`input[type=email]`, who.Email)
	p.typeInto(`input[type=password]`, who.Password)
	p.key("\r")
	p.until(`document.querySelector('.shell_bar')`)
}

func (p *tab) do(actions ...chromedp.Action[chromedp.Void]) {
	p.t.Helper()
	require.NoError(p.t, chromedp.Do(p.ctx, actions...))
}

// eval evaluates JavaScript.
func eval[T any](p *tab, js string) T {
	p.t.Helper()
	v, err := chromedp.Run(p.ctx, chromedp.Evaluate[T](js))
	require.NoError(p.t, err, js)
	return v
}

// later evaluates JavaScript that promises something.
func later[T any](p *tab, js string) T {
	p.t.Helper()
	v, err := chromedp.Run(p.ctx, chromedp.Evaluate[T](js, chromedp.EvalAwaitPromise))
	require.NoError(p.t, err, js)
	return v
}

// until waits until JavaScript says something true.
func (p *tab) until(js string) {
	p.t.Helper()
	p.untilIn(15*time.Second, js)
}

func (p *tab) untilIn(limit time.Duration, js string) {
	p.t.Helper()
	deadline := time.Now().Add(limit)
	for {
		ok, err := chromedp.Run(p.ctx, chromedp.Evaluate[bool]("!!("+js+")"))
		if err == nil && ok {
			return
		}
		if errors.Is(p.ctx.Err(), context.DeadlineExceeded) || time.Now().After(deadline) {
			body, _ := chromedp.Run(p.ctx, chromedp.Evaluate[string]("document.body.innerText"))
			p.t.Fatalf("never true: %s (%v)\nthe page says:\n%s", js, err, body)
		}
		time.Sleep(25 * time.Millisecond)
	}
}

// untilSays waits until the page shows a text.
func (p *tab) untilSays(text string) {
	p.t.Helper()
	p.until(fmt.Sprintf("document.body.innerText.includes(%q)", text))
}

// click clicks the first element of a CSS selector with the mouse.
func (p *tab) click(css string) {
	p.t.Helper()
	p.until(fmt.Sprintf("document.querySelector(%q)", css))
	p.do(chromedp.Click(chromedp.CSS(css)))
}

// clickText clicks the first button or link that contains a text.
func (p *tab) clickText(text string) {
	p.t.Helper()
	find := fmt.Sprintf(`[...document.querySelectorAll('button,a')].find(e => e.innerText.includes(%q) && e.offsetParent)`, text)
	p.until(find)
	// What the page still moves about is clicked once it has come to rest.
	where := fmt.Sprintf(
		`(() => { const e = %s; if (!e) return []; e.scrollIntoView({block: 'center'}); const b = e.getBoundingClientRect();
			const x = b.x + b.width/2, y = b.y + b.height/2; return e.contains(document.elementFromPoint(x, y)) ? [x, y] : [] })()`,
		find,
	)
	var at []float64
	for range 60 {
		was := at
		if at = eval[[]float64](p, where); len(at) == 2 && slices.Equal(at, was) {
			break
		}
		time.Sleep(40 * time.Millisecond)
	}
	require.Len(p.t, at, 2, "%s is hidden", text)
	p.do(chromedp.MouseClickXY(at[0], at[1]))
}

// typeInto types over what a field holds.
func (p *tab) typeInto(css, text string) {
	p.t.Helper()
	p.until(fmt.Sprintf("document.querySelector(%q)", css))
	eval[bool](p, fmt.Sprintf(`(() => { const e = document.querySelector(%q); e.focus(); e.select?.(); return true })()`, css))
	_, err := chromedp.Call(p.ctx, input.InsertText, input.InsertTextParams{Text: text}) // as pasted: one message, not three a letter
	require.NoError(p.t, err)
}

func (p *tab) key(keys string, modifiers ...chromedp.KeyOption) {
	p.t.Helper()
	p.do(chromedp.KeyEvent(keys, modifiers...))
}

// pick chooses an entry of a list that opens.
func (p *tab) pick(label, entry string) {
	p.t.Helper()
	eval[bool](p, fmt.Sprintf(`(document.querySelector('[aria-label=%q]')
		.dispatchEvent(new MouseEvent('mousedown', {bubbles: true})), true)`, label))
	find := fmt.Sprintf(`[...document.querySelectorAll('.ant-select-dropdown:not(.ant-select-dropdown-hidden) .ant-select-item-option')]
		.find(e => e.innerText.startsWith(%q))`, entry)
	p.until(find)
	eval[bool](p, "("+find+".click(), true)")
}

// text is the visible text of the first element of a selector.
func (p *tab) text(css string) string {
	p.t.Helper()
	p.until(fmt.Sprintf("document.querySelector(%q)", css))
	return eval[string](p, fmt.Sprintf(`document.querySelector(%q).innerText`, css))
}

// shot writes a picture of the tab.
func (p *tab) shot(path string) {
	p.t.Helper()
	b, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
	require.NoError(p.t, err)
	require.NoError(p.t, os.MkdirAll(filepath.Dir(path), 0o755))
	require.NoError(p.t, os.WriteFile(path, b, 0o644))
}

// shotOf writes a picture of one element.
func (p *tab) shotOf(css, path string) {
	p.t.Helper()
	b, err := chromedp.Run(p.ctx, chromedp.Screenshot(chromedp.CSS(css)))
	require.NoError(p.t, err)
	require.NoError(p.t, os.MkdirAll(filepath.Dir(path), 0o755))
	require.NoError(p.t, os.WriteFile(path, b, 0o644))
}
