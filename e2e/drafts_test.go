package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// columns waits until three drafted weeks stand beside each other and nothing better is
// looked for.
func (p *tab) columns() {
	p.t.Helper()
	p.untilIn(20*time.Second, `document.querySelectorAll('.drafts_column').length === 3 && !document.querySelector('main[aria-busy=true]')`)
}

const slotsOnBoard = `[...document.querySelectorAll('.board_slot b')].map(b => b.innerText).join('|')`

// A coach drafts a week beside the board, keeps one slot, has another exchanged, lays the
// whole on the board in one step and takes it back; then one slot alone.
func TestAWeekIsDrafted(t *testing.T) {
	t.Parallel()
	a, _ := startOnDay(t, time.Friday)
	p := a.signedIn(t, wren, laptop, clientPath("Dario Vance", "week?of="+inTwoWeeks()))
	p.untilSays("“Draft the week” composes three")
	begun := time.Now()
	p.clickText("Draft the week")
	p.until(`document.querySelectorAll('.drafts_column').length === 3`)
	t.Logf("first weeks after %v", time.Since(begun))
	p.columns()
	t.Logf("final weeks after %v", time.Since(begun))
	for _, title := range []string{"Holds under every stance", "Best for Balanced", "Least time"} {
		p.untilSays(title)
	}
	p.untilSays("Gives up triceps, long head")
	p.untilIn(20*time.Second, `[...document.querySelectorAll('.drafts_tag')].some(x => x.innerText.startsWith('another day'))`)

	p.click(".drafts_column:first-child .drafts_line")
	p.untilSays("Carries ")
	p.clickText("It stays")
	p.columns()
	p.untilSays("1 slot stays")
	p.until(`document.querySelector('.drafts_column:first-child .drafts_stays')`)
	p.click(".drafts_column:first-child .drafts_line[aria-expanded=true]")
	unwanted := p.text(".drafts_column:last-child .drafts_slot:last-child .drafts_name")
	p.click(".drafts_column:last-child .drafts_slot:last-child .drafts_line")
	p.clickText("Never this")
	p.untilSays("1 movement is not wanted")
	p.columns()
	assert.NotContains(t, eval[[]string](p, `[...document.querySelectorAll('.drafts_name')].map(x => x.innerText)`), unwanted)

	p.clickText("Lay it on the board")
	p.untilSays("laid on the board")
	p.until(`document.querySelectorAll('.board_slot b').length >= 4`)
	p.saved()
	laid := eval[string](p, slotsOnBoard)
	p.clickText("Undo")
	p.until(`document.querySelectorAll('.board_slot b').length === 0`)
	p.clickText("Redo")
	p.until(fmt.Sprintf(`%s === %q`, slotsOnBoard, laid))
	p.saved()

	p.key("d") // taste stays: what is on the board is pale now
	p.columns()
	p.untilSays("1 slot stays")
	p.until(`document.querySelector('.drafts_pale')`)
	p.key(kb.Escape)
	p.until(fmt.Sprintf(`%s === %q`, slotsOnBoard, laid))

	p.offline(true)
	p.clickText("Draft the week")
	p.until(`[...document.querySelectorAll('button')].some(b => b.innerText === 'Try again')`)
	p.offline(false)
	p.clickText("Try again")
	p.columns()
}

// Who has no next week gets a draft each, and only what is laid is planned.
func TestWhoHasNoNextWeek(t *testing.T) {
	t.Parallel()
	a, _ := startMidweek(t) // at a week's end most of the demo's next sessions are next week's
	p := a.signedIn(t, wren, laptop, "/clients")
	p.clickText("Who has no next week")
	p.untilSays("without a week")
	before := eval[int](p, `document.querySelectorAll('.next_card').length`)
	p.clickText("Draft a week for each")
	p.untilIn(40*time.Second, `[...document.querySelectorAll('.next_card')].every(
		c => c.innerText.includes('Gives up') || c.querySelector('.warn'))`)
	p.clickText("Lay it on the board")
	p.untilSays("It is on the board")
	p.do(chromedp.Reload())
	p.untilSays("without a week")
	assert.Equal(t, before-1, eval[int](p, `document.querySelectorAll('.next_card').length`))
}
