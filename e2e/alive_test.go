package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
)

// firstBelly is where a belly's outline runs in the drawing.
const firstBelly = `document.querySelector('[data-part].pose_belly').getAttribute('d')`

// The arm plays: by the button and by space, it is scrubbed by keys and on the ribbon, each instant
// is told in words, and it goes back to its settings. The page's thread has next to nothing to do.
func TestTheArmPlays(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, "/fitting?movement=curl_reclined&client="+demo.ClientID("Aurelio Finch").String())
	p.until(`document.querySelectorAll('.pose_belly').length === 7`)
	p.clickText("Play")
	p.until(`document.querySelectorAll('[data-part].pose_belly').length === 7 && document.querySelectorAll('canvas').length === 1`)
	p.until(`document.querySelector('.stage_instant').innerText.startsWith('Elbow at ')`)
	said := p.text(".stage_instant")
	p.until(fmt.Sprintf(`document.querySelector(".stage_instant").innerText !== %q`, said))
	eval[bool](p, `(document.activeElement.blur(), true)`)
	p.key(" ")
	p.until(`[...document.querySelectorAll('button')].some(b => b.innerText === 'Play') && !document.querySelector('canvas')`)
	stopped := eval[string](p, firstBelly)
	time.Sleep(200 * time.Millisecond)
	assert.Equal(t, stopped, eval[string](p, firstBelly), "it stands still")

	eval[bool](p, `(document.querySelector('input[type=range]').focus(), true)`)
	p.key(kb.Home)
	p.until(`document.querySelector('.stage_instant').innerText.startsWith('Elbow at 5°')`)
	assert.NotEqual(t, stopped, eval[string](p, firstBelly), "the drawing goes with it")
	p.key(kb.ArrowRight)
	p.until(`document.querySelector('.stage_instant').innerText.startsWith('Elbow at 8°')`)
	p.key(kb.End)
	p.until(`document.querySelector('.stage_instant').innerText.startsWith('Elbow at 135°')`)

	p.clickText("Play")
	one := p.frames95(2 * time.Second)
	t.Logf("one figure that plays takes the main thread %.2f ms a frame at p95", one)
	assert.Less(t, one, 40.0)

	// A fault is played, and what is pinned plays in step.
	p.clickText("Pin")
	p.click(`section[aria-label=Faults] button`)
	p.until(`[...document.querySelectorAll('section[aria-label=Faults] button')].some(b => b.innerText === 'Play it')`)
	eval[bool](p, `([...document.querySelectorAll('section[aria-label=Faults] button')].find(b => b.innerText === 'Play it').click(), true)`)
	p.until(`document.querySelector('.stage_fault')?.innerText.startsWith('This is it: ')`)
	p.until(`document.querySelectorAll('svg [data-part].pose_belly').length === 14 && document.querySelectorAll('canvas').length === 2`)
	p.clickText("Lengths and plain words")
	p.until(`document.querySelectorAll('.fitting_three figure').length === 3`)
	assert.Contains(t, p.text(".fitting_three"), "Where it is hardest")
	p.clickText("Back to its settings")
	p.until(`document.querySelector('.pose_handle') && !document.querySelector('[data-part]')`)
	eval[bool](p, `(document.querySelector('.pose_handle[data-key=bench]').focus(), true)`)
	p.key(kb.ArrowRight)
	p.until(`[...document.querySelectorAll('button')].some(b => b.innerText === 'Pin' && !b.disabled)`)
	p.clickText("Pin")
	p.until(`document.querySelectorAll('section[aria-label="Pinned set-ups"] > div').length === 2`)
	p.clickText("Play")
	p.until(`document.querySelectorAll('canvas').length === 3`)
	three := p.frames95(2 * time.Second)
	t.Logf("three figures in step take the main thread %.2f ms a frame at p95", three)
	assert.Less(t, three, 100.0)

	// Who wants nothing to move is shown five stills.
	p.clickText("Back to its settings")
	p.lessMotion()
	for _, at := range []string{"5°", "38°", "70°", "102°", "135°", "5°"} {
		p.clickText("Play")
		p.until(`document.querySelector('.stage_instant')?.innerText.startsWith('Elbow at ` + at + `')`)
		assert.Zero(t, eval[int](p, `document.querySelectorAll('canvas').length`))
	}
}

// lessMotion has the reader ask for less motion.
func (p *tab) lessMotion() {
	p.t.Helper()
	_, err := chromedp.Call(p.ctx, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{
		Features: []*emulation.MediaFeature{{Name: "prefers-reduced-motion", Value: "reduce"}},
	})
	require.NoError(p.t, err)
}
