package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// dragTo drags an element's grip to the middle of another element, in steps.
func (p *tab) dragTo(grip, onto string) {
	p.t.Helper()
	middle := func(css string) [2]float64 {
		at := eval[[]float64](p, fmt.Sprintf(`(() => { const b = document.querySelector(%q).getBoundingClientRect(); return [b.x + b.width/2, b.y + b.height*0.8] })()`, css))
		return [2]float64{at[0], at[1]}
	}
	from, to := middle(grip), middle(onto)
	mouse := func(kind string, x, y float64) {
		_, err := chromedp.Call(p.ctx, input.DispatchMouseEvent, input.DispatchMouseEventParams{Type: input.DispatchMouseEventType(kind), X: x, Y: y, Button: "left", Buttons: 1, ClickCount: 1})
		require.NoError(p.t, err)
	}
	mouse("mouseMoved", from[0], from[1])
	mouse("mousePressed", from[0], from[1])
	for i := 1; i <= 6; i++ {
		f := float64(i) / 6
		mouse("mouseMoved", from[0]+f*(to[0]-from[0]), from[1]+f*(to[1]-from[1]))
	}
	mouse("mouseReleased", to[0], to[1])
}

// onBoard lists the board's sessions with how many slots each has.
const onBoard = `[...document.querySelectorAll('.board-session')].map(s => s.querySelector('.board-name').innerText + ' ' + s.querySelectorAll('[data-slot]').length).join(', ')`

// The week on one board: a slot is dragged to another day while the ledger
// follows, by key back again; a finding's fix is applied and undone; a finding is
// let stand with a reason; a session is opened from its slot.
func TestTheWeekOnOneBoard(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, clientPath("Tobias Quill", "week"))
	p.until(`document.querySelectorAll('.board-session').length === 2 && document.querySelectorAll('.board-slot b').length === 7`)
	assert.Equal(t, "Left arm first 4, Grip and guard 3", eval[string](p, onBoard))
	p.dragTo(".board-session:first-of-type .board-slot:first-child .board-grip", ".board-day:not(.empty) ~ .board-day:not(.empty) .board-slot:last-child")
	p.until(`document.querySelectorAll('.board-day:not(.empty) ~ .board-day:not(.empty) .board-slot').length === 4`)
	p.untilSays("saved")
	assert.Equal(t, "Left arm first 3, Grip and guard 4", eval[string](p, onBoard))
	p.do(chromedp.Reload())
	p.until(`document.querySelectorAll('.board-slot b').length === 7`)
	assert.Equal(t, "Left arm first 3, Grip and guard 4", eval[string](p, onBoard), "kept")

	// The keyboard's twin of the drag.
	eval[bool](p, `(document.querySelector('.board-day:not(.empty) ~ .board-day:not(.empty) .board-slot:last-child button').focus(), true)`)
	p.key(kb.ArrowLeft, chromedp.KeyModifiers(chromedp.ModifierAlt))
	p.until(onBoard + ` === 'Left arm first 4, Grip and guard 3'`)
	p.click(".board-tools button:first-child") // undo
	p.until(onBoard + ` === 'Left arm first 3, Grip and guard 4'`)

	// A finding, its reason, its fix and the way back.
	before := p.text(".ledger-heads")
	p.until(`document.querySelector('.finding .finding-do .link:not(.soft)')`)
	p.click(".why-link")
	p.until(`document.querySelector('.finding .caveat')`)
	said := eval[string](p, `document.querySelector('.finding .finding-do .link:not(.soft)').closest('.finding').innerText.split(' why?')[0]`)
	eval[bool](p, `(document.querySelector('.finding .finding-do .link:not(.soft)').click(), true)`)
	p.until(fmt.Sprintf(`document.querySelector('.ledger-heads').innerText !== %q && ![...document.querySelectorAll('.finding')].some(f => f.innerText.startsWith(%q))`, before, said))
	p.press("Undo")
	p.until(fmt.Sprintf(`document.querySelector('.ledger-heads').innerText === %q`, before))
	p.press("Let it stand")
	p.fill("Why it may stand", "he is on stage twice this week")
	p.untilSays("Wren Adeyemi-Holt let it stand: he is on stage twice this week")

	// From a slot into its session, and back to the week.
	p.click(".board-slot button")
	p.until(`document.querySelector('.stage .pose')`)
	p.clickText("The week")
	p.until(`document.querySelector('.board-session')`)
	p.clickText("Copy to the next week")
	p.until(`document.querySelector('.board-top h2').innerText.length > 0 && location.search.includes('of=') && document.querySelectorAll('.board-session').length === 2`)
}

func TestAnAssistantLooksAtTheBoard(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, jory, laptop, clientPath("Tobias Quill", "week"))
	p.until(`document.querySelector('.board-slot b')`)
	assert.Zero(t, eval[int](p, `document.querySelectorAll('.board-slot .board-grip, .board-tools, .board-plan, .finding-do .link:not(.soft)').length`))
}
