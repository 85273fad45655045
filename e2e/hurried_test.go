package e2e

import (
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// A sheet in a hurry: the network goes while it is edited, the page is loaded anew,
// the button is pressed twice, the way back is taken, two tabs are open. Nothing
// that was typed is lost, nothing is issued twice.
func TestASheetInAHurry(t *testing.T) {
	t.Parallel()
	a := start(t)
	path := clientPath("Aurelio Finch", "sheet")
	p := a.signedIn(t, wren, laptop, path)
	sets := func(p *tab, text string) {
		p.click(`[data-change="sets and reps of slot 1"]`)
		p.typeInto(`[aria-label="Sets"]`, text)
		p.key(kb.Enter)
	}
	p.until(`document.querySelector('.editing_inlineText')`)
	p.offline(true)
	sets(p, "5")
	p.until(`document.querySelector('.editing_sheetEditing').innerText.includes('Your edits are kept here')`)
	assert.True(
		t,
		eval[bool](p, `[...document.querySelectorAll('.editing_issuing button')].find(b => b.matches('.issue-one')).disabled`),
		"what is not saved is not issued",
	)
	p.offline(false)
	p.untilIn(
		20*time.Second,
		`document.querySelector('.editing_sheetEditing').innerText.includes('saved') &&
			document.querySelector('.sheet_dose').innerText.startsWith('5 × 6–8')`,
	)
	p.do(chromedp.Reload())
	p.until(`document.querySelector('.sheet_dose')?.innerText.startsWith('5 × 6–8')`)

	// Typed and loaded anew at once: it is saved all the same.
	sets(p, "4")
	p.do(chromedp.Reload())
	p.until(`document.querySelector('.sheet_dose')?.innerText.startsWith('4 × 6–8')`)
	p.untilIn(20*time.Second, `document.querySelector('.editing_sheetEditing').innerText.includes('saved')`)

	// Junk in a number changes nothing, empty neither.
	p.click(`[data-change="sets and reps of slot 1"]`)
	for _, junk := range []string{"many", "   ", "4e9x", "☂"} {
		p.typeInto(`[aria-label="Sets"]`, junk)
	}
	p.key(kb.Escape)
	p.until(`document.querySelector('.sheet_dose').innerText.startsWith('4 × 6–8')`)

	// Twice on the button: one sheet.
	eval[bool](
		p,
		`(() => { const b = [...document.querySelectorAll('.editing_issuing button')].find(b => b.matches('.issue-one')); b.click();
			b.click(); return true })()`,
	)
	p.untilSays("Sheet 1 left on")
	p.do(chromedp.Reload())
	p.until(`document.querySelector('[aria-label="Which sheet"]')`)
	assert.NotContains(t, p.text(".editing_issuing"), "Sheet 2")

	// Away and back: the sheet is there as it was left.
	p.clickText("Week")
	p.until(`document.querySelector('.board_slot b')`)
	eval[bool](p, `(history.back(), true)`)
	p.until(`document.querySelector('.sheet_dose')?.innerText.startsWith('4 × 6–8')`)

	// Two tabs: the second one's save is shown to the first before anything of it goes.
	q := p.second(laptop, path)
	q.until(`document.querySelector('.editing_inlineText')`)
	sets(q, "2")
	q.until(
		`document.querySelector('.editing_sheetEditing').innerText.includes('saved') &&
			document.querySelector('.sheet_dose').innerText.startsWith('2 × 6–8')`,
	)
	sets(p, "3")
	p.until(`document.querySelector('.editing_sheetEditing').innerText.includes('Nothing is overwritten until you choose')`)
	p.clickText("Use theirs")
	p.until(`document.querySelector('.sheet_dose').innerText.startsWith('2 × 6–8')`)
}

// The board in a hurry: drawn away in mid-drag, keys pressed again and again, and
// an import of nonsense.
func TestTheBoardInAHurry(t *testing.T) {
	t.Parallel()
	a, wednesday := startMidweek(t)
	p := a.signedIn(t, wren, laptop, clientPath("Tobias Quill", "week?of="+wednesday))
	p.until(`document.querySelectorAll('.board_slot b').length === 7`)
	was := eval[string](p, onBoard)
	eval[bool](p, `(document.querySelector('.board_slot button').focus(), true)`)
	for range 6 {
		p.key(kb.ArrowDown, chromedp.KeyModifiers(chromedp.ModifierAlt))
		p.key(kb.ArrowUp, chromedp.KeyModifiers(chromedp.ModifierAlt))
	}
	p.until(`document.querySelector('.board_top .saving_saveNote').innerText.startsWith('saved')`)
	assert.Equal(t, was, eval[string](p, onBoard))
	for range 30 { // more undoing than there is to undo
		p.key("z", chromedp.KeyModifiers(chromedp.ModifierCtrl))
	}
	p.until(`document.querySelector('.board_tools button').disabled`)
	p.until(`document.querySelector('.board_top .saving_saveNote').innerText.startsWith('saved')`)
	assert.Equal(t, was, eval[string](p, onBoard))
	// Sessions planned by an impatient finger are as many as the clicks, and all go again.
	for range 3 {
		p.click(".board_day:last-child .board_plan")
	}
	p.until(`document.querySelectorAll('.board_session').length === 5`)
	for range 3 {
		p.click(".board_tools button:first-child")
	}
	p.until(`document.querySelectorAll('.board_session').length === 2`)
	p.until(`document.querySelector('.board_top .saving_saveNote').innerText.startsWith('saved')`)
	p.do(chromedp.Reload())
	p.until(`document.querySelectorAll('.board_slot b').length === 7`)
	assert.Equal(t, was, eval[string](p, onBoard))
	p.do(chromedp.Navigate(a.url + clientPath("Tobias Quill", "week?of=nonsense")))
	p.until(`document.body.innerText.includes('not a date') || document.querySelector('.board_top')`)
}
