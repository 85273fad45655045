package e2e

import (
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
)

// where is the address without the host.
func (p *tab) where() string {
	return eval[string](p, `location.pathname + location.search`)
}

// The week and the session that are worked on stand in the address and stay from
// place to place, and what is issued is named.
func TestTheAddressKeepsWeekAndSession(t *testing.T) {
	a, wednesday := startMidweek(t)
	day, _ := time.Parse(time.DateOnly, wednesday)
	next := day.AddDate(0, 0, 7).Format(time.DateOnly)
	p := a.signedIn(t, wren, laptop, clientPath("Aurelio Finch", "week?of="+wednesday))
	p.until(`document.querySelectorAll('.board_slot b').length === 7`)
	p.clickText("Copy to the next week")
	if next < time.Now().Format(time.DateOnly) {
		p.press("Yes, copy it so")
	}
	p.until(`!location.search.includes('` + day.AddDate(0, 0, -2).Format(time.DateOnly) + `') && !location.search.includes('` + wednesday + `') && document.querySelectorAll('.board_slot b').length === 7`)
	week := p.where()[strings.Index(p.where(), "of="):]

	p.clickText("Sheet")
	p.until(`location.pathname.includes('/sheet/') && document.querySelector('.editing_issuingLine')`)
	assert.Contains(t, p.where(), week)
	sheet := p.where()
	p.untilSays("is not issued yet")
	p.untilSays("Issue the whole week, 2 sessions")
	p.clickText("Log")
	p.until(`location.pathname.includes('/log/')`)
	assert.Equal(t, strings.Replace(sheet, "/sheet/", "/log/", 1), p.where())
	p.clickText("Dossier")
	p.until(`document.querySelector('.dossier_joints')`)
	p.clickText("Sheet")
	p.until(`document.querySelector('.editing_issuingLine')`)
	assert.Equal(t, sheet, p.where())
	p.do(chromedp.Reload())
	p.until(`document.querySelector('.issue-one')`)
	p.clickText("Issue the whole week")
	p.untilSays("The client can read")
	p.untilSays("Sheet 1 left on")
	p.click(".thread_sessions .thread_sessionTab:not(.thread_here)")
	p.untilSays("Sheet 1 left on")
	p.clickText("Week") // a session that was chosen stays chosen
	p.until(`document.querySelector('.builder_builder')`)
	p.clickText("← The week")
	p.until(`document.querySelectorAll('.board_slot b').length === 7`)
	shown, err := time.Parse(time.DateOnly, p.where()[strings.Index(p.where(), "of=")+3:])
	require.NoError(t, err)
	assert.Equal(t, next, shown.AddDate(0, 0, 2-(int(shown.Weekday())+6)%7).Format(time.DateOnly), "the week that was worked on")
}

// A set that cannot be is asked about before it is kept; each arm is offered its own
// numbers.
func TestAnOddSetIsAskedAbout(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, jory, phone, clientPath("Tobias Quill", "log"))
	p.until(`document.querySelector('.log_setForm')`)
	p.typeInto(`input[name=load]`, "140")
	p.clickText("Log this set")
	p.untilSays("140 kg")
	p.until(`document.querySelector('.log_setAsked')`)
	assert.Zero(t, eval[int](p, `document.querySelectorAll('.log_sets li').length`), "nothing is kept yet")
	p.typeInto(`input[name=load]`, "14")
	p.until(`!document.querySelector('.log_setAsked')`)
	p.typeInto(`input[name=reps]`, "9")
	p.clickText("Log this set")
	p.until(`document.querySelectorAll('.log_sets li').length === 1`)
	p.typeInto(`input[name=reps]`, "8") // the other arm
	p.typeInto(`input[name=load]`, "12")
	p.clickText("Log this set")
	p.until(`document.querySelectorAll('.log_sets li').length === 2`)
	offered := `document.querySelector('input[name=load]').value + ' ' + document.querySelector('input[name=reps]').value`
	first := eval[string](p, offered)
	p.click(`.log_setWhich .ant-segmented-item:not(.ant-segmented-item-selected)`)
	p.until(offered + ` !== '` + first + `'`)
	assert.ElementsMatch(t, []string{"14 9", "12 8"}, []string{first, eval[string](p, offered)})
}

// After a stopping answer every place that works for the client says so on top, and a
// set is not taken any more.
func TestAStoppingAnswerIsSaidEverywhere(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, clientPath("Aurelio Finch", "dossier"))
	p.clickText("Ask again")
	p.clickText("No to the other")
	p.click(`[aria-label^="Chest pain"] .ant-segmented-item:nth-child(2)`)
	p.clickText("Save these answers")
	p.until(`document.querySelector('.dossier_standing.stop, .dossier_standing.emergency, .dossier_standing.same_day')`)
	for _, place := range []string{clientPath("Aurelio Finch", "week"), builderPath("Aurelio Finch"),
		clientPath("Aurelio Finch", "log"), "/fitting?client=" + demo.ClientID("Aurelio Finch").String()} {
		p.do(chromedp.Navigate(a.url + place))
		p.untilSays("No training now.")
	}
	p.do(chromedp.Navigate(a.url + clientPath("Aurelio Finch", "log")))
	p.clickText("Log this set")
	p.untilSays("Not logged")
	assert.Zero(t, eval[int](p, `document.querySelectorAll('.log_sets li').length`))
}
