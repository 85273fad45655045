package e2e

import (
	"testing"
	"time"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"

	"musculus/internal/demo"
)

// The arm plays: by the button and by space, it is scrubbed by keys and on the ribbon, each instant
// is told in words, and it goes back to its settings. Its frames are light.
func TestTheArmPlays(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, "/fitting?movement=curl_reclined&client="+demo.ClientID("Aurelio Finch").String())
	p.until(`document.querySelectorAll('.pose_belly').length === 7`)
	p.clickText("Play")
	p.until(`document.querySelectorAll('[data-part].pose_belly').length === 7`)
	first := eval[string](p, `document.querySelector('[data-part].pose_belly').getAttribute('d')`)
	p.until(`document.querySelector('[data-part].pose_belly').getAttribute('d') !== ` + "`" + first + "`")
	eval[bool](p, `(document.activeElement.blur(), true)`)
	p.key(" ")
	p.until(`[...document.querySelectorAll('button')].some(b => b.innerText === 'Play')`)
	stopped := eval[string](p, `document.querySelector('[data-part].pose_belly').getAttribute('d')`)
	time.Sleep(200 * time.Millisecond)
	assert.Equal(t, stopped, eval[string](p, `document.querySelector('[data-part].pose_belly').getAttribute('d')`), "it stands still")

	eval[bool](p, `(document.querySelector('input[type=range]').focus(), true)`)
	p.key(kb.Home)
	p.until(`document.querySelector('.stage_instant').innerText.startsWith('Elbow at 5°')`)
	p.key(kb.ArrowRight)
	p.until(`document.querySelector('.stage_instant').innerText.startsWith('Elbow at 8°')`)
	p.key(kb.End)
	p.until(`document.querySelector('.stage_instant').innerText.startsWith('Elbow at 135°')`)

	// Moving all the lines of one figure to the next picture.
	spent := later[float64](p, `(async () => {
		const range = document.querySelector('input[type=range]')
		const all = []
		for (let k = 0; k <= 40; k++) {
			const since = performance.now()
			Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(range, String(k))
			range.dispatchEvent(new Event('input', { bubbles: true }))
			all.push(performance.now() - since)
			await new Promise(r => requestAnimationFrame(r))
		}
		return all.sort((a, b) => a - b)[38] })()`)
	t.Logf("a picture takes %.2f ms of script at p95", spent)
	assert.Less(t, spent, 40.0)
	// A fault is played, and what is pinned plays in step.
	p.clickText("Pin")
	p.click(`section[aria-label=Faults] button`)
	p.until(`[...document.querySelectorAll('section[aria-label=Faults] button')].some(b => b.innerText === 'Play it')`)
	eval[bool](p, `([...document.querySelectorAll('section[aria-label=Faults] button')].find(b => b.innerText === 'Play it').click(), true)`)
	p.until(`document.querySelector('.stage_fault')?.innerText.startsWith('This is it: ')`)
	p.until(`document.querySelectorAll('svg [data-part].pose_belly').length === 14`)
	three := later[float64](p, `(async () => {
		const range = document.querySelector('input[type=range]'), all = []
		for (let k = 0; k <= 40; k++) {
			const since = performance.now()
			Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(range, String(k))
			range.dispatchEvent(new Event('input', { bubbles: true }))
			all.push(performance.now() - since)
			await new Promise(r => requestAnimationFrame(r))
		}
		return all.sort((a, b) => a - b)[38] })()`)
	t.Logf("a picture of two beside each other takes %.2f ms of script at p95", three)
	p.clickText("Lengths and plain words")
	p.until(`document.querySelectorAll('.fitting_three figure').length === 3`)
	assert.Contains(t, p.text(".fitting_three"), "Where it is hardest")
	p.clickText("Back to its settings")
	p.until(`document.querySelector('.pose_handle') && !document.querySelector('[data-part]')`)
}
