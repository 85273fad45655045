package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const turns = `[...document.querySelectorAll('.block_turns li')].map(t => t.querySelector('.block_effort').innerText).join(', ')`

// set chooses an entry of a native list by its label.
func (p *tab) set(label, value string) {
	p.t.Helper()
	p.until(fmt.Sprintf(`document.querySelector('select[aria-label=%q]')`, label))
	eval[bool](p, fmt.Sprintf(`(() => { const s = document.querySelector('select[aria-label=%q]');
		Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value').set.call(s, %q);
		s.dispatchEvent(new Event('change', { bubbles: true })); return true })()`, label, value))
}

// A block is made of a week: what it would write is seen before it is laid, weeks to come follow,
// one looks ahead by pressing a week, the end is dragged, and a change says what it overwrites.
func TestABlockAboveTheBoard(t *testing.T) {
	a, wednesday := startMidweek(t)
	p := a.signedIn(t, wren, laptop, clientPath("Tobias Quill", "week?of="+wednesday))
	p.until(`document.querySelectorAll('.board_session').length === 2`)
	p.clickText("Make a block of this week: four to eight like it, whose effort climbs")
	p.until(`document.querySelectorAll('.block_turns li').length === 8 && document.querySelector('section[aria-label="Made new"]')`)
	assert.Equal(t, "3 left, 3 left, 2 left, 2 left, 2 left, 1 left, 1 left, lighter", eval[string](p, turns))
	p.set("How many turns", "6")
	p.until(turns + ` === '3 left, 2 left, 2 left, 1 left, 1 left, lighter'`)
	p.set("Reps left at first", "0")
	p.untilSays("effort climbs: at most 0 in reserve at the end")
	assert.True(t, eval[bool](p, `[...document.querySelectorAll('button')].find(b => b.innerText === 'Lay the block').disabled`))
	p.set("Reps left at first", "2")
	p.until(turns + ` === '2 left, 2 left, 1 left, 1 left, 1 left, lighter'`)
	p.clickText("Lay the block")
	p.until(`!document.querySelector('.block_editor') && document.querySelectorAll('.block_turns li').length === 6`)

	// Next week is made; the one after is looked at, as the block has it.
	p.click(".block_turns li:nth-child(2) button")
	p.until(`document.querySelectorAll('.board_session').length === 2 && document.querySelector('.block_turns li:nth-child(2).block_here')`)
	p.click(".block_turns li:nth-child(4) button")
	p.until(`document.querySelectorAll('.board_session').length === 0 && document.querySelectorAll('.block_ahead li').length === 2`)
	assert.Contains(t, p.text(".block_ahead"), "Left arm first")
	p.do(chromedp.Reload())
	p.until(`document.querySelectorAll('.block_ahead li').length === 2`)

	// Its end is dragged; while it is, nothing is asked of the server. Then it says what that means.
	eval[bool](p, `((async () => {
		const grip = document.querySelector('[role=slider]'), list = document.querySelector('.block_turns')
		const { left, width } = list.firstElementChild.getBoundingClientRect(), y = grip.getBoundingClientRect().y + 20
		const at = (kind, x) => grip.dispatchEvent(new PointerEvent(kind,
			{ bubbles: true, pointerId: 1, clientX: x, clientY: y, button: 0 }))
		grip.setPointerCapture = () => undefined
		at('pointerdown', left + 6 * width)
		let worst = 0
		await new Promise(r => setTimeout(r, 100))
		for (const n of [5, 4, 5, 6, 7, 8]) {
			const since = performance.now()
			at('pointermove', left + n * width)
			for (let k = 0; k < 60 && list.children.length !== n; k++) await new Promise(r => requestAnimationFrame(r))
			worst = Math.max(worst, performance.now() - since)
			if (list.children.length !== n) return -n
		}
		at('pointerup', left + 8 * width)
		return worst })().then(x => { window.took = x }), true)`)
	p.until(`window.took`)
	took := eval[float64](p, `window.took`)
	require.Positive(t, took, "the strip has as many turns as it was dragged to")
	assert.Less(t, took, 500.0)
	t.Logf("a step of the drag is shown after at most %.1f ms", took)
	p.until(`document.querySelector('.block_editor') && document.querySelectorAll('.block_turns li').length === 8`)
	p.until(`document.querySelector('.block_editor').innerText.includes('Nothing in the plan changes now') ||
		document.querySelector('section[aria-label="Overwritten"]')`)
	p.clickText("Let it flow on")
	p.until(`!document.querySelector('.block_editor')`)

	// By keys as well; and it is left.
	eval[bool](p, `(document.querySelector('[role=slider]').focus(), true)`)
	p.key(kb.ArrowLeft)
	p.until(`document.querySelector('.block_editor') && document.querySelectorAll('.block_turns li').length === 7`)
	p.clickText("Leave it")
	p.until(`!document.querySelector('.block_editor') && document.querySelectorAll('.block_turns li').length === 8`)
}
