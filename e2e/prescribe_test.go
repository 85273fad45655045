package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// A sheet is changed where it is read: what is wrong is told there and loses
// nothing, what is right is read at once, saved, undone, issued.
func TestASheetIsEditedWhereItIsRead(t *testing.T) {
	t.Parallel()
	a := start(t)
	p := a.signedIn(t, wren, laptop, clientPath("Aurelio Finch", "sheet"))
	p.click(`[data-change="sets and reps of slot 1"]`)
	p.typeInto(`[aria-label="Sets"]`, "99")
	p.untilSays("99 is outside 1…12")
	p.until(`document.querySelector('.editing_sheetEditing').innerText.includes('Not saved')`)
	p.until(`[...document.querySelectorAll('.editing_issuing button')].find(b => b.matches('.issue-one')).disabled`)
	p.typeInto(`[aria-label="Sets"]`, "4")
	p.key(kb.Enter)
	p.until(`document.querySelector('.sheet_dose').innerText.startsWith('4 × 6–8')`)
	p.click(`[data-change="the effort of slot 2"]`)
	eval[bool](
		p,
		`(() => { const e = document.querySelector('[aria-label="Reps left in reserve"]');
			const set = Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value').set; set.call(e, '3');
			e.dispatchEvent(new Event('change', {bubbles: true})); return true })()`,
	)
	p.until(`document.querySelectorAll('.sheet_slot')[1].innerText.includes('stop with 3 reps left')`)
	p.typeInto(`[aria-label="Another cue for slot 1"]`, "Push the floor away")
	p.key(kb.Enter)
	p.until(`document.querySelector('.sheet_cues').innerText.includes('Push the floor away')`)
	p.click(`[data-change="cue 1 of slot 1"]`)
	p.typeInto(`.editing_inlineOpen [aria-label="Cue"]`, "")
	p.key(kb.Backspace)
	p.key(kb.Enter)
	p.until(`!document.querySelector('.sheet_cues').innerText.includes('Tuck your elbows')`)
	p.clickText("Undo")
	p.until(`document.querySelector('.sheet_cues').innerText.includes('Tuck your elbows')`)
	p.until(`document.querySelector('.editing_sheetEditing').innerText.includes('saved')`)
	p.do(chromedp.Reload())
	p.until(
		`document.querySelector('.sheet_dose')?.innerText.startsWith('4 × 6–8') &&
			document.querySelector('.sheet_cues').innerText.includes('Push the floor away')`,
	)
	assert.Contains(t, p.text(".sheet_head"), "then bar 30 kg × 8")
	p.click(".issue-one")
	p.untilSays("Sheet 1 left on")

	// An assistant reads it and changes nothing.
	q := a.signedIn(t, jory, laptop, clientPath("Aurelio Finch", "sheet"))
	q.until(`document.querySelector('.sheet_dose')`)
	assert.Zero(t, eval[int](q, `document.querySelectorAll('.editing_inlineText, .editing_sheetEditing').length`))
}

// What is locked is not dragged, not turned and not fixed; a session is taken out
// and undo brings it back for good.
func TestLocksHoldAndUndoBringsBack(t *testing.T) {
	t.Parallel()
	a, wednesday := startMidweek(t)
	path := clientPath("Tobias Quill", "week?of="+wednesday)
	p := a.signedIn(t, wren, laptop, path)
	p.until(`document.querySelectorAll('.board_slot b').length === 7`)
	was := eval[string](p, onBoard)
	p.click(".board_session:first-of-type .board_slot:first-child .lock")
	p.until(`document.querySelector('.board_slot.board_locked')`)
	p.dragTo(
		".board_session:first-of-type .board_slot:first-child .board_grip",
		".board_day:not(.board_empty) ~ .board_day:not(.board_empty) .board_slot:last-child",
	)
	p.untilSays("It is locked")
	assert.Equal(t, was, eval[string](p, onBoard))
	p.click(".board_session:first-of-type .board_slot:first-child > button")
	p.untilSays("Locked: unlock it in the list to change it.")
	assert.True(t, eval[bool](p, `document.querySelector('[aria-label="Sets"]').readOnly`))
	p.do(chromedp.Navigate(a.url + path))
	p.until(`document.querySelector('.board_slot.board_locked b')`)
	eval[bool](p, `(document.querySelector('.board_slot.board_locked button').focus(), true)`)
	p.key("l")
	p.until(`!document.querySelector('.board_slot.board_locked')`)

	p.click(`.board_session:first-of-type [aria-label^="Remove"]`)
	p.until(`document.querySelectorAll('.board_session').length === 1`)
	p.untilSays("saved")
	p.do(chromedp.Reload())
	p.until(`document.querySelectorAll('.board_session').length === 1 && document.querySelector('.board_slot b')`)
	p.click(`.board_session [aria-label^="Remove"]`)
	p.until(`document.querySelectorAll('.board_session').length === 0`)
	p.untilSays("saved")
	p.click(".board_tools button:first-child") // undo
	p.until(`document.querySelectorAll('.board_session').length === 1`)
	p.untilSays("saved")
	p.do(chromedp.Reload())
	p.until(`document.querySelectorAll('.board_session').length === 1 && document.querySelector('.board_slot b')`)
	// A copied day, with ids of its own.
	p.click(`[aria-label^="Copy "]`)
	p.until(
		`document.querySelectorAll('.board_session').length === 2 &&
			new Set([...document.querySelectorAll('[data-slot]')].map(e =>
			e.dataset.slot)).size === document.querySelectorAll('[data-slot]').length`,
	)
	p.untilSays("saved")
	p.click(".board_tools button:first-child")
	p.until(`document.querySelectorAll('.board_session').length === 1`)
	p.untilSays("saved")
	// A planned one goes the same way.
	p.click(".board_day:last-child .board_plan")
	p.until(`document.querySelectorAll('.board_session').length === 2`)
	p.untilSays("saved")
	p.click(".board_tools button:first-child")
	p.until(`document.querySelectorAll('.board_session').length === 1`)
	p.untilSays("saved")
	p.do(chromedp.Reload())
	p.until(`document.querySelector('.board_slot b')`)
	assert.Equal(t, 1, eval[int](p, `document.querySelectorAll('.board_session').length`))
}

// A grip for each set, from weak to strong, and the arm that begins.
func TestGripsAreChosenSetBySet(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, builderPath("Tobias Quill"))
	p.until(`document.querySelector('.stage_stage .pose_pose')`)
	p.click(".builder_slotAdd")
	p.until(`document.querySelector('.stage_picker input')`)
	p.typeInto(".stage_picker input", "standing curl")
	p.until(`document.querySelector('.stage_picker')`)
	p.clickText("Standing curl, two dumbbells")
	p.untilSays("A grip for each set, from weak to strong")
	p.clickText("A grip for each set")
	p.until(`document.querySelectorAll('.prescription_row').length === 3`)
	p.until(`document.querySelector('.prescription_row').innerText.includes('Palms-down')`)
	p.until(`document.querySelector('.builder_slot.builder_here').innerText.includes('a grip for each set')`)
	p.saved()
	p.click(".prescription_row:nth-child(3) .prescription_rowFace")
	p.pick("Reps left in reserve", "to the limit")
	p.until(`document.querySelector('.builder_slot.builder_here').innerText.includes('2, 2, 0 left')`)
	p.saved()
	p.clickText("One grip for all sets")
	p.until(`!document.querySelector('.builder_slot.builder_here').innerText.includes('a grip for each set')`)
	p.saved()
}

// Rows as coaches write them, by keyboard: three straight sets of a movement that is
// found, a last set that drops, a back-off, a pair; counted in keys.
func TestRowsCostFewKeys(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, builderPath("Tobias Quill"))
	p.until(`document.querySelector('.stage_stage .pose_pose')`)
	slots := eval[int](p, `document.querySelectorAll('.builder_slot').length`)
	keys := 0
	press := func(k string, modifiers ...chromedp.KeyOption) { keys++; p.key(k, modifiers...) }
	spent := func(most int, what string) {
		assert.LessOrEqual(t, keys, most, what)
		keys = 0
	}
	words := func() string { return p.text(".builder_slot.builder_here .builder_slotDose") }

	press("/")
	p.until(`document.activeElement.matches('.stage_picker input')`)
	const found = "reclin"
	p.typeInto(".stage_picker input", found)
	keys += len(found)
	p.until(`document.querySelector('.stage_pickerList')?.innerText.includes('Reclined')`)
	press(kb.Enter)
	p.until(fmt.Sprintf(`document.querySelectorAll('.builder_slot').length === %d`, slots+1))
	p.until(`document.querySelector('.builder_slot.builder_here .builder_slotDose').innerText.includes('3 × 8–12')`)
	spent(12, "three straight sets of a movement that is found")

	press("d")
	p.until(`document.querySelector('.builder_slot.builder_here .builder_slotDose').innerText.includes('2 × 8–12; then 1 × 8–12, drops')`)
	spent(4, "the last set drops")

	press("b")
	p.until(`document.querySelectorAll('.prescription_row').length === 3`)
	spent(6, "a back-off row")
	assert.Contains(t, words(), "then 1 × 15–20")
	press(".")
	press(".")
	p.until(`document.querySelector('.prescription_row.prescription_here').innerText.includes('15–20')`)
	press("m")
	p.until(`document.querySelectorAll('.prescription_row').length === 2`)

	press("[")
	p.until(`!document.querySelector('.builder_slot:last-child').matches('.builder_here')`)
	keys = 0
	press("j")
	p.until(`document.querySelectorAll('.builder_slot.builder_joined').length === 1`)
	spent(3, "a pair")
	press("j")
	p.until(`document.querySelectorAll('.builder_slot.builder_joined').length === 0`)
	p.saved()
}
