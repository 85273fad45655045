package e2e

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
)

func clientPath(name, knot string) string {
	return "/clients/" + demo.ClientID(name).String() + "/" + knot
}

// builderPath is the builder of a client's planned session.
func builderPath(name string) string { return clientPath(name, "week/"+demo.SessionID(name).String()) }

// saved waits until the builder says that everything is saved.
func (p *tab) saved() {
	p.t.Helper()
	p.until(`/^saved /.test(document.querySelector('.saving_saveNote')?.innerText)`)
}

// dragHandle drags a handle of the figure by a way, in pixels, in small steps.
func (p *tab) dragHandle(key string, dx, dy float64, steps int) {
	p.t.Helper()
	at := eval[[]float64](
		p,
		fmt.Sprintf(
			`(() => { const b = document.querySelector('.pose_handle[data-key="%s"]').getBoundingClientRect();
				return [b.x + b.width/2, b.y + b.height/2] })()`,
			key,
		),
	)
	left := chromedp.ButtonLeft
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, at[0], at[1], left, chromedp.ClickCount(1)))
	for i := 1; i <= steps; i++ {
		f := float64(i) / float64(steps)
		p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, at[0]+dx*f, at[1]+dy*f, left))
		time.Sleep(16 * time.Millisecond)
	}
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, at[0]+dx, at[1]+dy, left, chromedp.ClickCount(1)))
}

// A coach's whole way: sign in, open a client, add a movement, turn it on the
// figure and by keys, dose and cue it, undo, read the sheet, log a set.
func TestACoachesWholeWay(t *testing.T) {
	t.Parallel()
	a := start(t)
	p := a.open(t, laptop, "/")
	p.typeInto("input[type=email]", wren.Email)
	p.typeInto("input[type=password]", "a wrong one")
	p.key("\r")
	p.untilSays("no account has this address")
	assert.Equal(t, wren.Email, eval[string](p, `document.querySelector('input[type=email]').value`), "what was typed is kept")
	p.typeInto("input[type=password]", wren.Password)
	p.key("\r")
	p.until(`document.querySelector('.today_today')`)
	p.clickText("Clients")
	p.until(`document.querySelectorAll('.wall_clientCard').length === 8`)
	assert.Contains(t, p.text(".wall_wall"), "not screened")

	p.clickText("Dario Vance")
	p.click(".board_name")
	p.until(`document.querySelectorAll('.builder_slot').length === 3 && document.querySelector('.stage_stage .pose_pose')`)
	before := eval[string](p, `document.querySelector('.margin .slice_slice svg').getAttribute('aria-label')`)

	p.key("/")
	p.until(`document.activeElement?.getAttribute('aria-label') === 'Find a movement'`)
	p.typeInto(`input[aria-label="Find a movement"]`, "across")
	p.until(`document.querySelector('.stage_pick')?.innerText.includes('Across-the-body curl') &&
		document.querySelectorAll('.stage_pick').length < 6`)
	p.key("\r")
	p.until(`document.querySelectorAll('.builder_slot').length === 4`)
	p.until(`document.querySelector('.stage_stage h2')?.innerText.includes('Across-the-body curl')`)
	p.saved()
	after := eval[string](p, `document.querySelector('.margin .slice_slice svg').getAttribute('aria-label')`)
	assert.NotEqual(t, before, after, "the session's total moved")

	// On the figure: draw the lower end of the range up.
	name := p.text(".stage_head")
	p.dragHandle("e_from", 60, -40, 12)
	p.until(
		fmt.Sprintf(
			`document.querySelector('.stage_head').innerText !== %q && /elbow from \d+°/.test(document.querySelector('.stage_head').innerText)`,
			name,
		),
	)
	// By keys: the same setting's twin.
	p.saved()
	eval[bool](p, `(document.querySelector('[role=spinbutton][aria-label="Elbow at the end"]').focus(), true)`)
	p.key(kb.ArrowLeft)
	p.until(`/elbow to 130°/.test(document.querySelector('.stage_head').innerText)`)
	eval[bool](p, `(document.querySelector('.pose_handle[data-key=e_to]').focus(), true)`)
	p.key(kb.ArrowLeft, chromedp.KeyModifiers(chromedp.ModifierShift))
	p.until(`/elbow to 115°/.test(document.querySelector('.stage_head').innerText)`)

	// Dose and cue.
	p.typeInto(`input[aria-label="Sets"]`, "4")
	p.until(`document.querySelector('.builder_slot.builder_here .builder_slotDose').innerText.startsWith('4 ×')`)
	p.typeInto(`.prescription_cueAdd input`, "Aim at the opposite pocket")
	p.key("\r")
	p.untilSays("“Aim at the opposite pocket”")
	p.saved()

	// Undo by key, redo, and a reload: everything is there.
	eval[bool](p, `(document.activeElement.blur(), true)`)
	p.key("z", chromedp.KeyModifiers(chromedp.ModifierCtrl))
	p.until(`!document.body.innerText.includes('Aim at the opposite pocket')`)
	p.clickText("Redo")
	p.untilSays("“Aim at the opposite pocket”")
	p.saved()
	p.do(chromedp.Reload())
	p.until(
		`document.querySelectorAll('.builder_slot').length === 4 &&
			document.querySelector('.builder_slot:nth-child(4) .builder_slotDose')?.innerText.startsWith('4 ×')`,
	)

	// The sheet, by its digit; it has the new slot and fits one page.
	p.key("4")
	p.until(`document.querySelectorAll('.sheet_slot').length === 4`)
	sheet := p.text(".sheet_sheet")
	for _, want := range []string{"Across-the-body curl", "4 × 8–12", "Aim at the opposite pocket", "The set ends at",
		"find it: two sets", "controlled"} {
		assert.Contains(t, sheet, want)
	}

	// The log, by its digit: one tap logs the planned set.
	p.key("5")
	p.until(`document.querySelector('.log_slot.log_open .log_setForm')`)
	p.typeInto(`input[name=reps]`, "11")
	p.clickText("Log this set")
	p.until(`document.querySelector('.log_sets')?.innerText.includes('11 reps')`)
	assert.Contains(t, p.text(".log_sets"), "stack 60 kg")
	assert.Contains(t, p.text(".log_logCount"), "1 / 4")
	p.do(chromedp.NavigateBack())
	p.until(`document.querySelector('.sheet_sheet')`)
}

// The sheet is one page on A4 and on Letter, for every demo client.
func TestSheetsFitOnePage(t *testing.T) {
	t.Parallel()
	a := start(t)
	p := a.signedIn(t, wren, laptop, "/clients")
	for _, name := range []string{"Aurelio Finch", "Tobias Quill", "Bettina Groos"} {
		p.do(chromedp.Navigate(a.url + clientPath(name, "sheet")))
		p.until(`document.querySelector('.sheet_slot') && document.fonts.status === 'loaded'`)
		for paper, size := range map[string][2]float64{"A4": {8.27, 11.69}, "Letter": {8.5, 11}} {
			pages := strings.Count(string(p.pdf(size[0], size[1])), "/Type /Page\n")
			assert.Equal(t, 1, pages, "%s on %s", name, paper)
		}
	}
	p.do(chromedp.Navigate(a.url + clientPath("Pelle Sandoval", "sheet")))
	p.untilSays("No sheet leaves for this client now.")
}

func TestAnAssistantRunsSessionsButChangesNoPlan(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, jory, laptop, builderPath("Tobias Quill"))
	p.until(`document.querySelector('.stage_stage .pose_pose')`)
	assert.Contains(t, p.text(".saving_saveNote"), "not change plans")
	assert.Zero(t, eval[int](p, `document.querySelectorAll('.pose_handle, .builder_slotAdd, .builder_slotTools').length`))
	p.key("5")
	p.until(`document.querySelector('.log_setForm')`)
	p.clickText("Log this set")
	p.until(`document.querySelector('.log_sets')?.innerText.includes('12 reps')`)
	assert.Equal(t, "Right", p.text(".ant-segmented-item-selected"), "the other arm is next")
	require.Contains(t, p.text(".log_last"), "7 days ago")
}
