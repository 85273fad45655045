package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// signOutElsewhere ends the sign-in without the page's knowing.
func (p *tab) signOutElsewhere() {
	p.t.Helper()
	eval[bool](p, `(window.out = null, fetch('/api/sign-out', {method: 'POST'}).then(r => { window.out = r.ok }), true)`)
	p.until(`window.out`)
}

// The board loses nothing: a lost network, a lost sign-in, another account on the same
// device, a reload, another page, Back; and what waits is said in the head.
func TestTheBoardLosesNothing(t *testing.T) {
	t.Parallel()
	a, wednesday := startMidweek(t)
	path := clientPath("Tobias Quill", "week?of="+wednesday)
	p := a.signedIn(t, wren, laptop, path)
	sessions := `document.querySelectorAll('.board_session').length`
	p.until(sessions + ` === 2`)

	// The network goes: the edit stays, is said in the head, and is sent from another page.
	p.offline(true)
	p.click(".board_day:last-child .board_plan")
	p.until(sessions + ` === 3`)
	p.untilSays("1 change waits")
	p.untilSays("Not saved")
	p.clickText("Library")
	p.until(`location.pathname === '/library'`)
	p.untilSays("1 change waits")
	p.offline(false)
	p.until(`!document.querySelector('.shell_bar').innerText.includes('waits')`)
	eval[bool](p, `(history.back(), true)`)
	p.until(sessions + ` === 3`)

	// The sign-in ends: another account on this device sees and sends none of it, hers does.
	p.signOutElsewhere()
	p.click(".board_day:last-child .board_plan")
	p.until(`document.querySelector('.signin_door')`)
	p.signIn(jory)
	p.do(chromedp.Navigate(a.url + path))
	p.until(sessions + ` === 3`)
	assert.NotContains(t, p.text(".shell_bar"), "wait")
	p.clickText("Sign out")
	p.until(`document.querySelector('.signin_door')`)
	p.signIn(wren)
	p.do(chromedp.Navigate(a.url + "/clients")) // from any page
	p.until(`document.querySelector('.wall_clientCard')`)
	p.until(`Object.keys(localStorage).every(k => !k.includes(' doc '))`)
	p.do(chromedp.Navigate(a.url + path))
	p.until(sessions + ` === 4`)

	// The same account signs in again on the page itself: what was typed is still there, and saved.
	p.signOutElsewhere()
	p.click(".board_day:last-child .board_plan")
	p.until(`document.querySelector('.signin_door')`)
	p.signIn(wren)
	p.until(sessions + ` === 5`)
	p.until(`Object.keys(localStorage).every(k => !k.includes(' doc '))`)
	p.do(chromedp.Reload())
	p.until(sessions + ` === 5`)

	// Two tabs: the other's save is shown, and nothing goes over it until it is chosen.
	q := p.second(laptop, path)
	q.until(sessions + ` === 5`)
	for _, one := range []*tab{p, q} {
		one.offline(true)
		eval[bool](one, `(document.querySelector('.board_slot button').focus(), true)`)
	}
	p.offline(false)
	p.click(".board_session:first-of-type .board_slot:first-child .lock")
	p.until(`document.querySelector('.board_top .saving_saveNote').innerText.startsWith('saved') && document.querySelector('.board_slot.board_locked')`)
	q.click(`.board_session:first-of-type .board_slot:nth-child(2) .lock`)
	q.offline(false)
	q.untilSays("Nothing is overwritten until you choose")
	q.untilSays("1 change waits")
	q.press("Keep mine")
	q.until(`document.querySelector('.board_top .saving_saveNote').innerText.startsWith('saved')`)
	q.do(chromedp.Reload())
	q.until(`document.querySelector('.board_session:first-of-type .board_slot:nth-child(2)')?.matches('.board_locked')`)
}

// The builder loses nothing either: the same troubles, typed into its fields.
func TestTheBuilderLosesNothing(t *testing.T) {
	t.Parallel()
	a := start(t)
	path := builderPath("Aurelio Finch")
	p := a.signedIn(t, wren, laptop, path)
	name := `document.querySelector('input[aria-label="Name of the session"]')?.value`
	call := func(what string) { p.typeInto(`input[aria-label="Name of the session"]`, what) }
	nothingWaits := func() { p.until(`Object.keys(localStorage).every(k => !k.includes(' doc '))`) }
	p.until(`document.querySelector('.stage_stage .pose_pose')`)

	// The network goes and the page is left with Back: what was typed is sent from where one is, once it is there again.
	p.clickText("Clients")
	p.until(`document.querySelector('.wall_clientCard')`)
	eval[bool](p, `(history.back(), true)`)
	p.until(`document.querySelector('.stage_stage .pose_pose')`)
	p.offline(true)
	call("Without a network")
	p.untilSays("1 change waits")
	eval[bool](p, `(history.forward(), true)`)
	p.until(`location.pathname === '/clients'`)
	p.untilSays("1 change waits")
	p.offline(false)
	nothingWaits()
	eval[bool](p, `(history.back(), true)`)
	p.until(name + ` === 'Without a network'`)

	// It is gone again, and the page is loaded anew before it is back.
	p.offline(true)
	call("Over a reload")
	p.untilSays("1 change waits")
	p.offline(false)
	p.do(chromedp.Reload())
	p.until(name + ` === 'Over a reload'`)
	nothingWaits()

	// The sign-in ends: another account sees none of it and sends none of it; her own page takes it up again.
	p.signOutElsewhere()
	call("Typed by Wren")
	p.until(`document.querySelector('.signin_door')`)
	p.signIn(jory)
	p.do(chromedp.Navigate(a.url + path))
	p.until(name + ` === 'Over a reload'`)
	p.clickText("Sign out")
	p.until(`document.querySelector('.signin_door')`)
	p.signIn(wren)
	p.do(chromedp.Navigate(a.url + path))
	p.until(name + ` === 'Typed by Wren'`)
	p.saved()

	// Signed in again on the page itself.
	p.signOutElsewhere()
	p.typeInto(`input[aria-label="Sets"]`, "6")
	p.until(`document.querySelector('.signin_door')`)
	p.signIn(wren)
	p.until(`document.querySelector('.builder_slot .builder_slotDose')?.innerText.startsWith('6 ×')`)
	p.saved()

	// Two tabs without a network: both wait, the first to come back is kept, the other is asked.
	q := p.second(laptop, path)
	q.until(`document.querySelector('.builder_slot .builder_slotDose')?.innerText.startsWith('6 ×')`)
	p.offline(true)
	q.offline(true)
	call("Of the first")
	q.typeInto(`input[aria-label="Sets"]`, "5")
	p.untilSays("1 change waits")
	q.untilSays("1 change waits")
	p.offline(false)
	p.saved()
	q.offline(false)
	q.untilSays("Nothing is overwritten until you choose")
	q.press("Use theirs")
	q.until(name + ` === 'Of the first'`)
}
