package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// A sheet is issued, read by its link on a phone by somebody who is not signed in,
// seen to be opened, changed, issued again, and the link is ended.
func TestASheetIsIssuedAndReadOnAPhone(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, clientPath("Aurelio Finch", "sheet"))
	p.untilSays("Not issued yet")
	p.clickText("Issue it")
	p.untilSays("Sheet 1 left on")
	p.clickText("Make a link")
	link := p.text(".issuing-link")
	path := link[strings.Index(link, "/s/"):]

	q := a.open(t, phone, path)
	q.until(`document.querySelector('.by-link .sheet-slot .pose')`)
	assert.Equal(t, "Aurelio Finch", q.text(".sheet h1"))
	assert.LessOrEqual(t, eval[int](q, `document.documentElement.scrollWidth`), 390, "nothing runs out of a phone")
	assert.NotContains(t, q.text("body"), "Sign out")

	p.do(chromedp.Reload())
	p.untilSays("opened once")
	p.until(`document.querySelector('.knot.here').innerText.includes('issued, opened')`)
	p.clickText("Week")
	p.click(".board-slot button")
	p.until(`document.querySelector('.dose')`)
	p.typeInto(`[aria-label="Sets"]`, "4")
	p.saved()
	p.clickText("Sheet")
	p.untilSays("Changed since sheet 1 left")
	p.untilSays("sets 4 ×")
	p.clickText("Issue sheet 2")
	p.untilSays("Sheet 2 left on")
	p.clickText("End it")
	p.untilSays("no link that opens")
	r := a.open(t, phone, path)
	r.untilSays("this link was revoked; ask your coach for a new one")
	s := a.open(t, phone, "/s/GUESSED")
	s.untilSays("this link leads nowhere")
}
