package e2e

import (
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// keptKeys are the keys of what the browser keeps of anything typed; the tab's name is nothing typed.
const keptKeys = `[...Object.keys(localStorage), ...Object.keys(sessionStorage)]
	.filter(k => !['musculus left', 'musculus-tab'].includes(k)).length`

// Signing out waits for the server and tells when it is not reached; then nothing is
// left on screen, in the browser's store or behind its Back button.
func TestSigningOutLeavesNothingBehind(t *testing.T) {
	t.Parallel()
	a := start(t)
	p := a.signedIn(t, wren, laptop, "/clients")
	p.until(`document.querySelector('.wall_clientCard')`)
	p.clickText("Ines Karlova")
	p.until(`document.querySelector('.thread_thread')`)
	p.clickText("Dossier")
	p.until(`document.querySelector('.dossier_joints')`)
	other := p.second(laptop, clientPath("Ines Karlova", "dossier"))
	other.until(`document.querySelector('.dossier_joints')`)

	p.offline(true)
	p.clickText("Sign out")
	p.untilSays("You are still signed in")
	p.until(`document.querySelector('.dossier_joints')`)
	p.offline(false)

	p.offline(true)
	p.fill("Minutes", "47")
	p.untilSays("Not saved yet")
	p.clickText("Sign out")
	p.untilSays("Something you typed is not saved yet")
	p.press("Stay")
	p.until(`document.querySelector('.dossier_joints')`)
	p.clickText("Sign out")
	p.offline(false)
	p.press("Sign out and lose it")
	p.until(`document.querySelector('.signin_door')`)
	assert.Zero(t, eval[int](p, keptKeys))
	for range 2 {
		eval[bool](p, `(setTimeout(() => history.back(), 0), true)`)
		time.Sleep(300 * time.Millisecond)
		p.until(`document.readyState === 'complete' && document.querySelector('.signin_door')`)
		assert.NotContains(t, p.text("body"), "Ines")
	}
	other.until(`document.querySelector('.signin_door')`)
	assert.NotContains(t, other.text("body"), "Ines")
}

// A tab of one account keeps nothing in the name of another one that has signed in
// meanwhile in the tab beside it.
func TestATabOfAnotherAccountKeepsNothing(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, builderPath("Aurelio Finch"))
	p.until(`document.querySelector('.stage_stage .pose_pose')`)
	p.signOutElsewhere()
	q := p.second(laptop, "/clients")
	q.signIn(jory)
	q.until(`document.querySelector('.wall_clientCard')`)
	p.typeInto(`input[aria-label="Name of the session"]`, "Typed by Wren")
	p.until(`document.querySelector('.signin_door')`)
	q.do(chromedp.Navigate(a.url + builderPath("Aurelio Finch")))
	q.until(`document.querySelector('.stage_stage .pose_pose')`)
	assert.NotEqual(t, "Typed by Wren", eval[string](q, `document.querySelector('input[aria-label="Name of the session"]').value`))
}
