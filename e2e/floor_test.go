package e2e

import (
	"context"
	"fmt"
	"net/http"
	"os"
	"os/exec"
	"slices"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/entry"
	"musculus/internal/core/movement"
	"musculus/internal/demo"
	"musculus/internal/localpg"
	"musculus/internal/store"
	"musculus/internal/testenv"
)

// onFloor is somebody signed in who went on the floor.
func (a *app) onFloor(t testing.TB, size [2]int64, path string) *tab {
	p := a.signedIn(t, wren, size, "/clients")
	p.toFloor(path)
	return p
}

func (p *tab) toFloor(path string) {
	p.t.Helper()
	p.do(chromedp.Navigate(p.app.url + path))
	p.until(onFloorNow)
}

const onFloorNow = `document.querySelector('.floor_now, .floor_end')`

func floorPath(name string) string {
	return "/floor/" + demo.ClientID(name).String() + "/" + demo.SessionID(name).String()
}

// sets are what stands in a session's log.
func (a *app) sets(t testing.TB, session uuid.UUID) (out []entry.Entry) {
	require.NoError(t, a.store.In(context.Background(), demo.Studio, func(tx *store.Tx) (err error) {
		out, err = tx.SessionEntries(context.Background(), session, movement.Shipped)
		return err
	}))
	return out
}

// waiting is how many told things the page says wait to be sent.
const waiting = `Number((document.querySelector('.floor_waits')?.innerText.match(/^(\d+)/) ?? [0, 0])[1])`

// ended is a session whose sets are all through.
const ended = `document.querySelector('.floor_end')`

// which is the set that is to be done now.
const which = `document.querySelector('.floor_title')?.innerText + ' ' + document.querySelector('.floor_which')?.innerText`

// done taps "done" until a session's next set is another one.
func (p *tab) done() {
	p.t.Helper()
	was := eval[string](p, which)
	eval[bool](p, `document.querySelector('.floor_go').click(), true`)
	p.until(fmt.Sprintf(`(%s) !== %s`, which, strconv.Quote(was)) + " || " + ended)
}

// planOf plans a session for today and returns where it is run.
func (p *tab) planOf(client, name string, slots string) (string, uuid.UUID) {
	p.t.Helper()
	id := uuid.Must(uuid.NewV7())
	status := later[int](p, fmt.Sprintf(`fetch('/api/clients/%s/sessions', {method: 'POST', headers: {'Content-Type': 'application/json'},
		body: JSON.stringify({id: %q, name: %q, planned_on: new Date().toISOString().slice(0, 10), warm_up_min: 5,
		write: crypto.randomUUID(), sure: true, slots: %s})})
		.then(async (r) => { if (!r.ok) document.title = await r.text(); return r.status })`, demo.ClientID(client), id, name, slots))
	require.Equal(p.t, 200, status, eval[string](p, `document.title`))
	return "/floor/" + demo.ClientID(client).String() + "/" + id.String(), id
}

// straight is a slot of three sets as JSON.
func straight(movement string, kg float64, more string) string {
	return fmt.Sprintf(`{id: crypto.randomUUID(), movement: %q, settings: {}, cues: [], rows: [{id: crypto.randomUUID(), sets: 3,
		reps_low: 8, reps_high: 12,		reserve: 2, rest_s: 60, load: {kg: %g}%s}]}`, movement, kg, more)
}

// toLongSession goes on the floor with 21 straight sets.
func (p *tab) toLongSession(name string) uuid.UUID {
	slots := slices.Repeat([]string{straight("curl_standing_dumbbells", 12, "")}, 7)
	path, session := p.planOf("Aurelio Finch", name, "["+strings.Join(slots, ",")+"]")
	p.toFloor(path)
	return session
}

// Eighteen sets done as planned are eighteen taps; one with other reps is two, drops with two
// rungs three, a report of pain four until it is told what may be tried.
func TestTapsOnTheFloor(t *testing.T) {
	t.Parallel()
	a := start(t)
	p := a.signedIn(t, wren, phone, "/clients")
	var slots []string
	for id, kg := range map[string]float64{"curl_standing_dumbbells": 12, "curl_reclined": 10, "curl_neutral": 12, "lying_dumbbells": 10,
		"overhead_two_dumbbells": 8, "curl_chest_supported": 8} {
		slots = append(slots, straight(id, kg, ""))
	}
	slices.Sort(slots)
	path, session := p.planOf("Aurelio Finch", "Eighteen", "["+strings.Join(slots, ",")+"]")
	p.toFloor(path)
	eval[bool](p, `window.taps = 0; window.addEventListener('click', () => window.taps++, true); true`)
	for range 18 {
		p.done()
	}
	p.until(ended)
	assert.LessOrEqual(t, eval[int](p, `window.taps`), 20)
	require.Eventually(t, func() bool { return len(a.sets(t, session)) == 18 }, 10*time.Second, 50*time.Millisecond)
	p.clickText("Leave without")
	p.until(`document.querySelector('.shell_bar')`)

	path, session = p.planOf("Aurelio Finch", "Drops", "["+straight("curl_standing_dumbbells", 16, `, method: {id: "drops", n: 2}`)+"]")
	p.toFloor(path)
	eval[bool](p, `window.taps = 0; window.addEventListener('click', () => window.taps++, true); true`)
	p.click(".floor_go")
	p.untilSays("2 of 3")
	p.click(".floor_go")
	p.untilSays("3 of 3")
	p.done()
	assert.Equal(t, 3, eval[int](p, `window.taps`), "drops with two rungs")
	require.Eventually(t, func() bool { return len(a.sets(t, session)) == 1 }, 10*time.Second, 50*time.Millisecond)
	drops := a.sets(t, session)[0]
	require.Len(t, drops.Parts, 3)
	assert.Equal(t, drops.Reps, drops.Parts[0].Reps)
	assert.Less(t, *drops.Parts[2].LoadKg, *drops.Parts[1].LoadKg)

	eval[bool](p, `window.taps = 0; [...document.querySelectorAll('.floor_chip')].find((b) => b.innerText === '10').click(); true`)
	p.until(`document.querySelector('.floor_figure').innerText === '10'`)
	p.click(".floor_go")
	p.untilSays("2 of 3")
	assert.Equal(t, 2, eval[int](p, `window.taps`), "other reps, said and done")

	eval[bool](p, `window.taps = 0; true`)
	p.click(".floor_hurts")
	p.click(`button[aria-label="right front of the elbow"]`)
	eval[bool](p, `[...document.querySelectorAll('.floor_scores button')].find((b) => b.innerText === '6').click(); true`)
	p.clickText("None of these")
	p.untilSays("there is one try")
	p.until(`document.querySelector('.floor_go')?.innerText.startsWith('At ')`)
	assert.Equal(t, 4, eval[int](p, `window.taps`), "pain, until it is told what may be tried")
}

// When it goes over the client's minutes two opposing slots can go on in turns: the next set is the
// other one's, it ends earlier, and every set stays.
func TestWhenTimeRunsOver(t *testing.T) {
	t.Parallel()
	a := start(t)
	p := a.signedIn(t, wren, phone, "/clients")
	slots := []string{straight("curl_standing_dumbbells", 12, ""), straight("pushdown_rope", 15, "")}
	plan := strings.ReplaceAll("["+strings.Join(slices.Repeat(slots, 2), ",")+"]", "rest_s: 60", "rest_s: 600")
	path, session := p.planOf("Aurelio Finch", "Late", plan)
	p.toFloor(path)
	p.done()
	p.untilSays("every set stays")
	const ends = `document.querySelector('.floor_spent').innerText`
	over := eval[string](p, ends)
	p.clickText("In turns")
	p.untilSays("in turns with Standing curl")
	for _, now := range []string{"Push-down", "Standing curl", "Push-down", "Standing curl", "Push-down"} {
		p.until(fmt.Sprintf(`document.querySelector('.floor_title').innerText.startsWith(%q)`, now))
		assert.NotEqual(t, over, eval[string](p, ends), "it ends earlier")
		p.done()
	}
	require.Eventually(t, func() bool { return len(a.sets(t, session)) == 6 }, 10*time.Second, 50*time.Millisecond)
}

// ours is a server of one's own, to be killed and started again on the same data.
type ours struct {
	*app
	db      localpg.Database
	address string
	cmd     *exec.Cmd
}

func startOurs(t testing.TB) *ours {
	db := testenv.Database(t)
	s, err := store.Open(context.Background(), db.URL)
	require.NoError(t, err)
	t.Cleanup(s.Close)
	require.NoError(t, demo.Load(context.Background(), s, time.Now()))
	address := freeAddress(t)
	o := &ours{app: &app{url: "http://" + address, store: s}, db: db, address: address}
	o.run(t)
	t.Cleanup(o.kill)
	return o
}

func (o *ours) run(t testing.TB) {
	o.cmd = exec.Command(binary(), "serve", "--listen", o.address, "--files", t.TempDir())
	o.cmd.Env = append(os.Environ(), "MUSCULUS_DATABASE_URL="+o.db.URL)
	o.cmd.SysProcAttr = &syscall.SysProcAttr{Pdeathsig: syscall.SIGKILL}
	require.NoError(t, o.cmd.Start())
	require.Eventually(t, func() bool {
		r, err := http.Get(o.url + "/api/me")
		if err != nil {
			return false
		}
		r.Body.Close()
		return true
	}, 20*time.Second, 10*time.Millisecond)
}

func (o *ours) kill() {
	_ = o.cmd.Process.Kill()
	_ = o.cmd.Wait()
}

// Without a server the floor opens, takes sets on two devices, and nothing of it is lost or
// doubled once the server is there again; a browser that was closed in mid-rest comes back to
// the same set and the right clock.
func TestTheFloorWithoutNetwork(t *testing.T) {
	t.Parallel()
	o := startOurs(t)
	path, session := floorPath("Dario Vance"), demo.SessionID("Dario Vance")
	p := o.onFloor(t, phone, path)
	q := o.onFloor(t, laptop, path)
	for _, x := range []*tab{p, q} {
		x.until(`navigator.serviceWorker.controller || navigator.serviceWorker.ready.then(() => true)`)
	}
	p.done()
	require.Eventually(t, func() bool { return len(o.sets(t, session)) == 1 }, 10*time.Second, 20*time.Millisecond)
	q.until(`document.querySelectorAll('.floor_done li').length === 1`)
	o.kill()

	// It opens from the device, within a second of being asked for.
	opens := time.Now()
	p.do(chromedp.Reload())
	p.until(onFloorNow)
	took := time.Since(opens)
	t.Logf("opened without a server in %s", took)
	assert.Less(t, took, 10*time.Second)
	require.Equal(t, 1, eval[int](p, `document.querySelectorAll('.floor_done li').length`))
	p.done()
	p.done()
	p.until(waiting + ` === 2`)
	at := eval[string](p, which)
	left := eval[float64](p, `Number(document.querySelector('.floor_rest').dataset.left)`)
	before := time.Now()

	// Another device does the next one of its own: the second set, with other reps.
	q.click(".floor_chip[aria-pressed=false]")
	q.done()
	q.until(waiting + ` === 1`)

	// Closed in mid-rest and opened again.
	again := p.second(phone, path)
	again.until(onFloorNow)
	assert.Equal(t, at, eval[string](again, which))
	gone := time.Since(before).Seconds()
	assert.InDelta(t, left-gone, eval[float64](again, `Number(document.querySelector('.floor_rest').dataset.left)`), 1.5)
	again.until(waiting + ` === 2`)

	o.run(t)
	again.untilIn(75*time.Second, waiting+` === 0`)
	q.untilIn(75*time.Second, waiting+` === 0`)
	require.Eventually(t, func() bool { return len(o.sets(t, session)) == 4 }, 10*time.Second, 50*time.Millisecond, "none lost or doubled")
	twice := 0
	for _, e := range o.sets(t, session) {
		if e.TwiceOf != nil {
			twice++
		}
	}
	assert.Equal(t, 1, twice, "two devices told the second set differently: both are kept, and it is asked about")
	q.untilSays("Two devices told this set differently")
}

// The server is killed again and again while sets leave a device: each is there once.
func TestTheServerIsKilledWhileSetsAreSent(t *testing.T) {
	t.Parallel()
	o := startOurs(t)
	p := o.signedIn(t, wren, phone, "/clients")
	session := p.toLongSession("Under fire")
	const kills = 20
	for i := range kills {
		p.done()
		time.Sleep(time.Duration(3*i) * time.Millisecond)
		o.kill()
		o.run(t)
	}
	p.done()
	p.until(ended)
	p.untilIn(75*time.Second, waiting+` === 0`)
	sets := o.sets(t, session)
	assert.Len(t, sets, kills+1)
	places := map[string]bool{}
	for _, e := range sets {
		places[fmt.Sprint(e.SlotID, e.SetNo)] = true
		assert.Nil(t, e.TwiceOf)
	}
	assert.Len(t, places, kills+1, "each in its place, once")
}

// A clock two hours wrong is put right; a device that keeps nothing says so before the set is
// taken for done; sets that wait outlive signing out, unseen by the next account, and are sent
// once their own is back.
func TestADeviceThatIsNotQuiteRight(t *testing.T) {
	t.Parallel()
	o := startOurs(t)
	path, session := floorPath("Dario Vance"), demo.SessionID("Dario Vance")
	p := o.signedIn(t, wren, phone, "/clients")
	const wrong = `(() => { const D = Date, off = 2 * 3600 * 1000;
		window.Date = class extends D { constructor(...a) { a.length ? super(...a) : super(D.now() + off) }
		static now() { return D.now() + off } } })()`
	_, err := chromedp.Call(p.ctx, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{Source: wrong})
	require.NoError(t, err)
	p.toFloor(path)
	require.Greater(t, eval[int64](p, `Date.now()`), time.Now().Add(time.Hour).UnixMilli(), "its clock is wrong")
	p.done()
	require.Eventually(t, func() bool { return len(o.sets(t, session)) == 1 }, 10*time.Second, 50*time.Millisecond)
	assert.WithinDuration(t, time.Now(), o.sets(t, session)[0].DoneAt, 15*time.Second)

	// Storage that takes nothing more.
	eval[bool](p, `IDBObjectStore.prototype.realPut = IDBObjectStore.prototype.put;
		IDBObjectStore.prototype.put = function () { throw new DOMException('full', 'QuotaExceededError') }; true`)
	was := eval[string](p, which)
	p.click(".floor_go")
	p.untilSays("This device keeps nothing")
	assert.Equal(t, was, eval[string](p, which), "it is not taken for done")
	eval[bool](p, `IDBObjectStore.prototype.put = IDBObjectStore.prototype.realPut; true`)

	// Sets wait; their account signs out; another one sees nothing of them.
	o.kill()
	p.done()
	p.until(waiting + ` === 1`)
	o.run(t)
	eval[bool](p, `window.fetch = () => Promise.reject(new Error('gone')); true`) // this page sends nothing any more
	q := p.second(phone, "/clients")
	q.until(`document.querySelector('.shell_bar')`)
	p.do(chromedp.Navigate("about:blank"))
	q.clickText("Sign out")
	q.until(`document.querySelector('input[type=email]')`)
	stored := later[string](q, `new Promise((done) => { const a = indexedDB.open('musculus-floor'); a.onsuccess = () => {
		const all = a.result.transaction('waiting').objectStore('waiting').getAll();
		all.onsuccess = () => { a.result.close(); done(JSON.stringify(all.result.map((w) => [typeof w.body, w.refused]))) } } })`)
	if stored == "[]" {
		t.Log("it left before the page was gone")
	} else {
		assert.Equal(t, `[["object",""]]`, stored, "what waits is locked")
	}
	q.signIn(jory)
	q.toFloor(path)
	assert.Equal(t, 0, eval[int](q, waiting))
	q.do(chromedp.Navigate(o.url + "/clients"))
	q.until(`document.querySelector('.shell_bar')`)
	q.clickText("Sign out")
	q.signIn(wren)
	q.toFloor(path)
	require.Eventually(t, func() bool { return len(o.sets(t, session)) == 2 }, 20*time.Second, 50*time.Millisecond)
	q.untilIn(20*time.Second, waiting+` === 0`)
	for _, e := range o.sets(t, session) {
		assert.Nil(t, e.Link)
	}
}

// From a tap to its being kept on the device and shown, with the processor slowed down four
// times.
func TestATapIsShownAtOnce(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, phone, "/clients")
	p.toLongSession("Quick")
	_, err := chromedp.Call(p.ctx, emulation.SetCPUThrottlingRate, emulation.SetCPUThrottlingRateParams{Rate: 4})
	require.NoError(t, err)
	var took []float64
	for range 12 {
		took = append(took, later[float64](p, `new Promise((done) => {
			const said = () => `+which+`
			const [was, from] = [said(), performance.now()]
			const seen = new MutationObserver(() => { if (said() !== was) { seen.disconnect()
				requestAnimationFrame(() => done(performance.now() - from)) } })
			seen.observe(document.body, {subtree: true, childList: true, characterData: true})
			document.querySelector('.floor_go').click() })`))
		time.Sleep(700 * time.Millisecond) // nobody does a set in less; what the last tap sent is answered
	}
	slices.Sort(took)
	p95 := took[len(took)*95/100]
	t.Logf("from a tap to the next set: median %.0f ms, p95 %.0f ms", took[len(took)/2], p95)
	assert.Less(t, p95, 1500.0, "the aim is 50 ms; what is measured stands in docs/performance.md")
}
