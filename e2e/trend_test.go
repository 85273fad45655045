package e2e

import (
	"context"
	"errors"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
	"musculus/internal/httpapi"
	"musculus/internal/store"
	"musculus/internal/testenv"
)

// startTrained is the demo with its histories, read.
func startTrained(t testing.TB) *app {
	ctx, now := context.Background(), time.Now()
	return startOn(t, testenv.Filled(t, "trained", func(s *store.Store) error {
		return errors.Join(demo.Load(ctx, s, now), demo.Histories(ctx, s, now), httpapi.ReadAgain(s)(ctx))
	}), now)
}

// The day begins on Today: what is due leads to where it is decided, what is taken is written
// into the plan and can be taken back, and one key starts the first session.
func TestADayBegins(t *testing.T) {
	t.Parallel()
	a := startTrained(t)
	p := a.signedIn(t, wren, laptop, "/")
	p.until(`location.pathname === '/today'`)
	p.untilSays("Marguerite Oseland")
	p.click(`a[aria-label="Decide: Marguerite Oseland"]`)
	p.untilSays("things to decide")
	p.click(`button[aria-label="Take it: A rep more: 11–13 at 6 kg a hand"]`)
	p.untilSays("Written into 1 session")
	p.untilSays("is watched: 0 of 2 sessions since")
	p.untilSays("What came of earlier ones")
	p.clickText("Undo")
	p.until(`document.querySelector('button[aria-label="Take it: A rep more: 11–13 at 6 kg a hand"]')`)
	p.click(`button[aria-label="Not now: A rep more: 11–13 at 6 kg a hand"]`)
	p.until(`!document.querySelector('button[aria-label="Take it: A rep more: 11–13 at 6 kg a hand"]')`)

	// Every course has its picture and its words, the same for eyes and ears.
	assert.Equal(t, 3, eval[int](p, `document.querySelectorAll('section[aria-label="Courses"] svg[role="img"]').length`))
	assert.Contains(t, eval[string](p, `document.querySelector('section[aria-label="Courses"] svg').getAttribute('aria-label')`), "sessions")

	p.clickText("Today")
	p.untilSays("Start")
	p.key("s")
	p.until(`location.pathname.startsWith('/floor/')`)
}

// After a session a client reads what she did and what changed by her link, answers the one
// question and asks one; the coach reads it on Today and answers in a line, which she reads.
func TestACheckIn(t *testing.T) {
	t.Parallel()
	a := startTrained(t)
	require.NoError(t, demo.HalfDone(context.Background(), a.store, time.Now()))
	p := a.signedIn(t, wren, laptop, "/today")
	client := demo.ClientID("Dario Vance").String()
	link := later[string](p, `fetch('/api/clients/`+client+`/links', {method: 'POST', headers: {'Content-Type': 'application/json'},
		body: JSON.stringify({id: crypto.randomUUID(), days: 7})}).then(r => r.json()).then(l => l.path)`)
	q := a.open(t, phone, link)
	q.untilSays("How is it today?")
	q.clickText("2")
	q.until(`!document.querySelector('.link_question')`)
	eval[bool](q, `document.querySelector('.link_checkIn summary').click(); true`)
	q.typeInto(`.link_checkIn input`, "May I swim?")
	q.clickText("Ask")
	q.untilSays("You asked: “May I swim?”")
	p.do(chromedp.Navigate(a.url + "/today"))
	p.untilSays("How is it today? 2.")
	p.do(chromedp.Navigate(a.url + "/clients/" + client + "/trend"))
	p.untilSays("Her own words")
	p.typeInto(`input[aria-label^="A line in answer to: She asks"]`, "Swim, but no butterfly.")
	p.clickText("Say it")
	p.untilSays("Wren Adeyemi-Holt: Swim")
	q.do(chromedp.Reload())
	q.untilSays("Swim, but no butterfly.")
}

// A pair trial is begun from a course that is done arm by arm, stands above the courses while it
// runs, and is ended with one set-up for both arms.
func TestAPairTrialBegins(t *testing.T) {
	t.Parallel()
	a := startTrained(t)
	p := a.signedIn(t, wren, laptop, clientPath("Tobias Quill", "trend"))
	p.clickText("Try another set-up on one arm")
	p.until(`[...document.querySelectorAll('button')].some(b => b.innerText === 'Begin' && !b.disabled)`)
	p.clickText("Begin")
	p.until(`document.querySelector('section[aria-label="Pair trials"]')?.innerText.includes('week 1 of 8')`)
	assert.Contains(t, p.text(`section[aria-label="Pair trials"]`), "it answers at its end")
	p.do(chromedp.Navigate(a.url + clientPath("Tobias Quill", "week")))
	p.untilSays("left arm alone")
	p.untilSays("right arm alone")
	p.do(chromedp.Navigate(a.url + clientPath("Tobias Quill", "trend")))
	p.clickText("what the right does")
	p.until(`document.querySelector('section[aria-label="Pair trials"]')?.innerText.includes('over')`)
	p.do(chromedp.Navigate(a.url + clientPath("Tobias Quill", "week")))
	p.until(`document.querySelectorAll('.board_slot b').length > 0 && !document.body.innerText.includes('arm alone')`)
}
