package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"

	"musculus/internal/demo"
)

// A sheet is issued, read by its link on a phone by somebody who is not signed in,
// seen to be opened, changed, issued again, and the link is ended.
func TestASheetIsIssuedAndReadOnAPhone(t *testing.T) {
	t.Parallel()
	a := start(t)
	p := a.signedIn(t, wren, laptop, clientPath("Aurelio Finch", "sheet"))
	path := p.issueAndLink(false)

	q := a.open(t, phone, path)
	q.until(`document.querySelector('.sheet_byLink .sheet_slot .pose_pose')`)
	assert.Equal(t, "Aurelio Finch", q.text(".sheet_sheet .sheet_name"))
	assert.LessOrEqual(t, eval[int](q, `document.documentElement.scrollWidth`), 390, "nothing runs out of a phone")
	assert.NotContains(t, q.text("body"), "Sign out")

	p.do(chromedp.Reload())
	p.untilSays("opened once")
	p.until(`document.querySelector('.thread_knot.thread_here').innerText.includes('issued, opened')`)
	p.clickText("Week")
	p.click(".board_slot button")
	p.until(`document.querySelector('.prescription_dose')`)
	p.typeInto(`[aria-label="Sets"]`, "4")
	p.saved()
	p.clickText("Sheet")
	p.untilSays("Changed since sheet 1 left")
	p.untilSays("sets 4 ×")
	p.click(".issue-one")
	p.untilSays("Sheet 2 left on")
	p.do(chromedp.Reload())
	p.until(`document.querySelector('[aria-label="Which sheet"]')`)
	eval[bool](
		p,
		`(document.querySelector('[aria-label="Which sheet"]').dispatchEvent(new MouseEvent('mousedown', {bubbles: true})), true)`,
	)
	p.until(`document.querySelectorAll('.ant-select-item-option').length === 3`)
	eval[bool](p, `([...document.querySelectorAll('.ant-select-item-option')].find(e => e.innerText.startsWith('sheet 2')).click(), true)`)
	p.untilSays("Sheet 2 against")
	p.untilSays("before 3 ×")
	assert.Zero(t, eval[int](p, `document.querySelectorAll('.sheet_sheet .editing_inlineText').length`), "what has left is only read")
	p.clickText("End it")
	p.untilSays("no link that opens")
	r := a.open(t, phone, path)
	r.untilSays("this link was revoked; ask your coach for a new one")
	s := a.open(t, phone, "/s/GUESSED")
	s.untilSays("this link leads nowhere")
}

// The coach's whole way: dossier, priorities, a movement tried on and sent, the
// week until nothing is wrong, the sheet issued and opened on a phone.
func TestTheWholeWayToAClientsPhone(t *testing.T) {
	t.Parallel()
	a := start(t)
	p := a.signedIn(t, wren, laptop, clientPath("Bettina Groos", "dossier"))
	p.fill("Minutes", "60")
	p.untilSays("3 days of 60 minutes")
	p.do(chromedp.Navigate(a.url + clientPath("Bettina Groos", "priorities")))
	p.untilSays("Set on")
	p.click(`[aria-label="brachialis"].priorities_headLine .ant-segmented-item:nth-child(2)`)
	p.do(chromedp.Navigate(a.url + "/fitting?movement=curl_upright_two_hand&client=" + demo.ClientID("Bettina Groos").String()))
	p.until(`document.querySelector('.fitting_fitting .stage_stage')`)
	p.clickText("Send to the next session")
	p.untilSays("In Bettina Groos’s At the digs")
	p.clickText("Week")
	p.until(`document.querySelector('.board_slot b')`)
	// Every finding but a note is fixed, or let stand with a reason.
	for range 12 {
		if eval[int](p, `document.querySelectorAll('.finding.stop, .finding.warn').length`) == 0 {
			break
		}
		before := p.text(".board-margin")
		if eval[bool](
			p,
			`!!document.querySelector('.finding.stop .board_findingDo .link:not(.board_soft), .finding.warn .board_findingDo .link:not(.board_soft)')`,
		) {
			eval[bool](
				p,
				`(document.querySelector('.finding.stop .board_findingDo .link:not(.board_soft), .finding.warn .board_findingDo .link:not(.board_soft)').click(), true)`,
			)
		} else {
			eval[bool](p, `([...document.querySelectorAll('.finding.stop .link.board_soft, .finding.warn .link.board_soft')].find(e =>
				e.innerText === 'Let it stand').click(), true)`)
			p.fill("Why it may stand", "one dumbbell is all there is at the digs")
		}
		p.until(fmt.Sprintf(`document.querySelector('.board-margin').innerText !== %q`, before))
		p.untilSays("saved")
	}
	p.until(`!document.querySelector('.finding.stop:not(.accepted), .finding.warn:not(.accepted)')`)
	p.click(".board_slot button")
	p.until(`document.querySelector('.stage_stage .pose_pose')`)
	p.clickText("Sheet")
	p.click(".issue-one")
	p.untilSays("Sheet 1 left on")
	p.clickText("Make a link")
	link := p.text(".editing_issuingLink")
	q := a.open(t, phone, link[strings.Index(link, "/s/"):])
	q.until(`document.querySelector('.sheet_byLink .sheet_slot .pose_pose')`)
	q.click(".sheet_why summary")
	q.untilSays("Today is mostly for")
	assert.Contains(t, q.text(".sheet_sheet"), "Breathe out")
}
