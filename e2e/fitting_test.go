package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"

	"musculus/internal/demo"
)

// Try a movement on for a client, turn it by key and on the figure, pin it, tune
// it, look at the nearest, and send it to the session.
func TestFittingForAClient(t *testing.T) {
	t.Parallel()
	a := start(t)
	p := a.signedIn(t, wren, laptop, "/fitting?movement=lying_bar&client="+demo.ClientID("Dario Vance").String())
	p.until(`document.querySelector('.stage_stage h2')?.innerText.includes('tilted 25°')`)
	p.clickText("Pin")
	eval[bool](p, `(document.querySelector('.pose_handle[data-key=tilt]').focus(), true)`)
	p.key(kb.ArrowLeft, chromedp.KeyModifiers(chromedp.ModifierShift))
	p.until(`document.querySelector('.stage_stage h2').innerText.includes('tilted 10°')`)
	p.until(`document.querySelector('.fitting_pinDiff')?.innerText.includes('now')`)
	p.click(".fitting_tuneAsk .ant-btn")
	p.until(`document.querySelector('.fitting_tuned .link')`)
	p.click(".fitting_tuned .link")
	p.until(`!document.querySelector('.stage_stage h2').innerText.includes('tilted 10°')`)
	p.clickText("Lengths and plain words")
	p.until(`document.querySelectorAll('.fitting_chart').length === 2 && document.querySelector('.fitting_explain').innerText.includes('triceps')`)
	p.clickText("Show")
	p.until(`document.querySelectorAll('.fitting_faultCost').length > 5`)
	p.clickText("Send to the next session")
	p.untilSays("In Dario Vance’s Back of the arm")
	eval[bool](p, `([...document.querySelectorAll('button')].find(b => b.innerText === 'Open it').click(), true)`) // it slides in
	p.until(`document.querySelectorAll('.builder_slot').length === 4`)
	p.do(chromedp.NavigateBack())
	p.until(`document.querySelector('.fitting_fitting .stage_stage')`)
	// Junk in the address is no reason to fail.
	p.do(chromedp.Navigate(a.url + `/fitting?movement=moon&settings={"bench":`))
	p.until(`document.querySelector('.stage_stage h2')?.innerText.includes('Reclined 45°')`)
}

func TestFindingInTheLibrary(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, "/library?client="+demo.ClientID("Bettina Groos").String())
	p.until(`document.querySelectorAll('.library_card').length > 75`)
	p.click(`button[aria-label="Only what the room has"]`)
	p.until(`document.querySelectorAll('.library_card').length < 30`)
	p.typeInto(`input[aria-label="Find a movement"]`, "overhead")
	p.until(`[...document.querySelectorAll('.library_card')].every(c => c.innerText.includes('Overhead'))`)
	p.click(".library_card a")
	p.until(`document.querySelector('.fitting_fitting .stage_stage h2')?.innerText.includes('Overhead')`)
	assert.Contains(t, eval[string](p, "location.search"), demo.ClientID("Bettina Groos").String(), "the client stays chosen")
	p.do(chromedp.Navigate(a.url + "/library"))
	p.click(".library_top .ant-segmented-item:nth-child(2)")
	p.until(`document.querySelectorAll('.library_mapDot').length > 20`)
	eval[bool](p, `(document.querySelector('.library_mapDot').focus(), true)`)
	p.key(kb.Enter)
	p.until(`location.pathname === '/fitting'`)
}

func TestStancesAndWhatASwitchWouldChange(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, "/stances?client="+demo.ClientID("Aurelio Finch").String())
	p.until(`document.querySelector('.switch button')`)
	p.click(".switch button")
	p.until(`/Switched off, Gallery day would count biceps, long head −/.test(document.querySelector('.switch').innerText)`)
	p.typeInto(`input[aria-label="Find a rule"]`, "burn")
	p.untilSays("Neither locates tension")
	p.typeInto(`.margin textarea`, "the pump shows it works")
	p.clickText("Check it")
	p.untilSays("Burn or pump proves")
	eval[bool](p, `([...document.querySelectorAll('.ant-segmented-item')].find(e => e.innerText === 'a lever').click(), true)`)
	p.clickText("Check it")
	p.untilSays("Mechanics hardly notices")

	// Another stance is tried, used, and left again in one step.
	p.clickText("What would change?")
	p.untilSays("this week would count")
	p.clickText("Use for this client")
	p.untilSays("From now on")
	p.clickText("Back to Balanced")
	p.until(`document.querySelector('.stances_mine b')?.innerText === 'Balanced'`)
}

// A stance is copied, a rule of the copy switched off, a note kept; all of it is
// there after a reload.
func TestAStudiosOwnReading(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, "/stances")
	p.until(`document.querySelectorAll('.stances_stanceCard').length === 7`)
	eval[bool](
		p,
		`([...document.querySelectorAll('.stances_stanceCard')].find(c => c.innerText.startsWith('Arm path')).querySelector('.link').click(), true)`,
	)
	p.untilSays("Switching the rules of Arm path, our reading")
	p.click(`button[role=switch][aria-label^="Arm path, our reading uses: Elbows behind the body favour"]`)
	p.until(
		`[...document.querySelectorAll('.stances_stanceCard')].some(c => c.innerText.includes('our reading') && c.innerText.includes('5 rules'))`,
	)
	p.clickText("card")
	p.typeInto(`textarea[aria-label^="Our note on: Elbows behind"]`, "seen with two clients")
	eval[bool](p, `(document.activeElement.blur(), true)`)
	p.clickText("less")
	p.untilSays("Our note: seen with two clients")
	p.do(chromedp.Reload())
	p.untilSays("Our note: seen with two clients")
	p.until(
		`[...document.querySelectorAll('.stances_stanceCard')].some(c => c.innerText.includes('our reading') && c.innerText.includes('5 rules'))`,
	)
}

// A set-up is kept under a name, picked by it, made a movement of the studio's
// own with a slip that is told at its line, and asked what else would train a head.
func TestAStudiosOwnMovementIsAddedAndPicked(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, "/fitting?movement=pushdown_bar")
	p.untilSays("For the hardest pull at 90°")
	p.clickText("Set it so")
	p.until(`location.search.includes('pulley_distance')`)
	p.clickText("Save")
	p.typeInto(`input[aria-label="Name of the set-up"]`, "Harbour push-down")
	p.press("Save the set-up")
	p.untilSays("Saved as “Harbour push-down”")
	p.clickText("Another movement")
	p.typeInto(`input[aria-label="Find a movement"]`, "harbour")
	p.until(`document.querySelectorAll('.stage_pick').length === 1`)
	p.click(".stage_pick")
	p.until(`location.search.includes('pulley_distance') && document.querySelector('.fitting_fitting .stage_stage')`)
	p.clickText("Save")
	p.typeInto(`input[aria-label="Name of the set-up"]`, "Quay press-down")
	p.press("Make it a movement of ours")
	p.until(`document.querySelector('.library_oursText')?.value.includes('id: own_quay_press_down')`)
	whole := eval[string](p, `document.querySelector('.library_oursText').value`)
	p.typeInto(".library_oursText", strings.Replace(whole, "action: extension", "action: pushing", 1))
	p.untilSays("line 3: action")
	assert.True(t, eval[bool](p, `[...document.querySelectorAll('button')].find(b => b.innerText === 'Save it').disabled`))
	p.typeInto(".library_oursText", whole)
	p.until(`document.querySelector('.margin .slice_slice')`)
	p.clickText("Save it")
	p.untilSays("Movements of our own")
	p.untilSays("Quay press-down")
	p.do(chromedp.Navigate(a.url + "/library"))
	p.until(`document.querySelectorAll('.library_card').length === 97`)
	// The Fitting's slice asks the Library what would train a head.
	p.do(chromedp.Navigate(a.url + "/fitting"))
	p.until(`document.querySelector('.slice_ask[aria-label="What would train the brachialis?"]')`)
	eval[bool](p, `(document.querySelector('.slice_ask[aria-label="What would train the brachialis?"]').focus(), true)`)
	p.key(kb.Enter)
	p.until(`location.pathname === '/library' && location.search.includes('head=brachialis')`)
	p.until(`document.querySelector('.library_card .library_facts b')`)
	p.click(".library_card .library_facts .link")
	p.until(`document.querySelectorAll('.library_more .stage_near').length >= 3`)
}

// press presses a button of a bubble, which would move if the page were scrolled to it.
func (p *tab) press(text string) {
	p.t.Helper()
	find := fmt.Sprintf(`[...document.querySelectorAll('button')].find(b => b.innerText.includes(%q) && !b.disabled)`, text)
	p.until(find)
	eval[bool](p, "("+find+".click(), true)")
}
