package e2e

import (
	"bytes"
	"fmt"
	"image"
	"image/png"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/measure"
	"musculus/internal/demo"
)

// fill types into a blank of a sentence, by its label, and leaves it with Enter.
func (p *tab) fill(label, text string) {
	p.t.Helper()
	p.typeInto(fmt.Sprintf(`[aria-label=%q]`, label), text)
	p.key("\r")
}

// From a name to a sheet: a new client's dossier, her screening with a clearance,
// and what each answer changes in the margin.
func TestADossierIsBegunAndScreened(t *testing.T) {
	t.Parallel()
	a := start(t)
	p := a.signedIn(t, wren, laptop, "/clients")
	p.clickText("A new client")
	p.fill("Name of the new client", "Odile Brand")
	p.until(`document.querySelector('.dossier_standing.stop')`)
	p.untilSays("No sheet yet")
	p.fill("Stature", "300")
	p.untilSays("3 m is outside 1…2.5 m")
	assert.Equal(t, "300", eval[string](p, `document.querySelector('[aria-label="Stature"]').value`), "what was typed stays")
	p.fill("Stature", "166")
	p.untilSays("upper arm 30.9 cm")
	p.until(`!document.body.innerText.includes('is outside 1…2.5 m')`)
	p.fill("Another wish", "height from the side")
	p.untilSays("mostly inherited")
	p.until(`document.querySelectorAll('.dossier_headChip.dossier_on').length === 0`)
	p.press("As the words say")
	p.until(`document.querySelectorAll('.dossier_headChip.dossier_on').length === 2`)
	p.press("The Sail Loft")
	p.until(`document.querySelector('.leaves_chip.leaves_on')`)
	p.click(`[aria-label="Consent"] .ant-checkbox-input`)
	p.until(`!document.body.innerText.includes('No consent to health notes yet')`)
	p.clickText("Ask the questions")
	p.clickText("Save these answers")
	p.untilSays("not answered yet")
	p.clickText("No to the other")
	p.click(`[aria-label="High blood pressure, treated or not"] .ant-segmented-item:nth-child(2)`)
	p.untilSays("it must be under control")
	p.clickText("Save these answers")
	p.untilSays("Stop and see a clinician")
	p.clickText("Ask again")
	p.clickText("No to the other")
	p.click(`[aria-label="High blood pressure, treated or not"] .ant-segmented-item:nth-child(2)`)
	eval[bool](p, `(document.querySelector('[aria-label^="Cleared on"]').focus(), true)`)
	p.typeInto(`[aria-label^="Cleared on"]`, "10 January 2026")
	p.key("\r")
	p.typeInto(`[aria-label^="Cleared by"]`, "her doctor")
	p.key("\r")
	p.clickText("Save these answers")
	p.untilSays("Nothing in the way")
	p.untilSays("rests of 90 s or more")

	// An ache: what it rules out follows at once.
	p.until(`/\d+ allowed/.test(document.querySelector('.leaves_counts')?.innerText)`) // load on dips waits for clean reps
	before := p.text(".leaves_counts")
	p.click(`.dossier_joints [data-joint="shoulder_front left"]`)
	p.click(`.dossier_score .ant-segmented-item:nth-child(4)`)
	p.clickText("Save the score")
	p.until(fmt.Sprintf(`document.querySelector('.leaves_counts').innerText !== %q`, before))
	p.until(`document.querySelector('.dossier_joint.dossier_sore')`)

	p.clickText("Delete this client")
	p.until(`document.querySelector('.wall_wall') && !document.querySelector('.wall_wall').innerText.includes('Odile')`)
	p.press("Undo")
	p.until(`document.querySelector('.wall_wall').innerText.includes('Odile')`)
	p.do(chromedp.Navigate(a.url + "/studio"))
	p.untilSays("Odile Brand was brought back by Wren")
}

// Two tabs in one dossier: the other's words are shown, and nothing is overwritten
// until somebody chooses.
func TestAClashInADossierIsSettledByTheCoach(t *testing.T) {
	t.Parallel()
	a := start(t)
	p := a.signedIn(t, wren, laptop, clientPath("Aurelio Finch", "dossier"))
	p.until(`document.querySelector('[aria-label="Minutes"]')`)
	q := p.second(laptop, clientPath("Aurelio Finch", "dossier"))
	q.until(`document.querySelector('[aria-label="Minutes"]')`)
	p.fill("Minutes", "60")
	p.untilSays("3 days of 60 minutes")
	q.fill("Minutes", "45")
	q.untilSays("Wren Adeyemi-Holt wrote “60” meanwhile; you wrote “45”")
	q.do(chromedp.Reload())
	q.untilSays("you wrote “45”")
	q.clickText("Keep mine")
	q.untilSays("3 days of 45 minutes")

	// The network goes while she types: it is kept and sent when it is back.
	q.offline(true)
	q.fill("Contact", "the green room")
	q.untilSays("Not saved yet")
	q.offline(false)
	q.until(`!document.body.innerText.includes('Not saved yet')`)
	q.do(chromedp.Reload())
	q.until(`document.querySelector('[aria-label="Contact"]')?.value === 'the green room'`)
}

func TestAnAssistantReadsDossiersAndMeasures(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, jory, laptop, clientPath("Noor Halloran", "dossier"))
	p.untilSays("You may read this; a coach changes it.")
	assert.Zero(t, eval[int](p, `[...document.querySelectorAll('.leaves_dossierMain input')].filter(e => !e.disabled).length`))
	assert.NotContains(t, p.text(".leaves_dossier"), "Delete this client")
	p.clickText("Measures")
	p.until(`document.querySelector('[data-girth]:not(:disabled)')`)
}

// Eight girths with two readings each are entered with digits and Enter alone:
// 48 digits, an Enter after each reading, one to keep it all.
func TestAMeasuringSessionByDigitsAndEnter(t *testing.T) {
	t.Parallel()
	a := start(t)
	p := a.signedIn(t, jory, laptop, clientPath("Tobias Quill", "dossier/measures"))
	p.until(`document.querySelector('[data-girth]')`)
	eval[bool](p, `(document.querySelector('[data-girth]').focus(), true)`)
	strokes := 0
	press := func(keys string) {
		for _, k := range keys {
			p.key(string(k))
			strokes++
		}
	}
	for _, reading := range []string{"346", "357", "369", "381", "294", "296", "176", "177"} {
		press(reading + "\r")
	}
	for _, reading := range []string{"347", "356", "368", "381", "295", "296", "176", "177"} {
		press(reading + "\r")
	}
	press("\r")
	p.until(`document.querySelector('.measures_measured').innerText.includes('38.1')`)
	assert.Equal(t, 65, strokes)
	assert.Contains(t, p.text(".measures_measured"), "38.1 right")
	assert.Empty(t, eval[string](p, `[...document.querySelectorAll('[data-girth]')].map(e => e.value).join('')`), "ready for the next")

	// Tab goes the same way; a slip is told where it is, and stays.
	eval[bool](p, `(document.querySelector('[data-girth]').focus(), true)`)
	p.key("146\t36\t")
	assert.Equal(t, "upper arm flexed, left, reading 1", eval[string](p, `document.activeElement.getAttribute('aria-label')`))
	p.clickText("Save the session")
	p.untilSays("were these inches?")
	assert.Equal(t, "146", eval[string](p, `document.querySelector('[data-girth]').value`))
	p.typeInto(`[aria-label="upper arm relaxed, left, reading 1"]`, "346")
	p.typeInto(`[aria-label="upper arm relaxed, left, reading 2"]`, "355")
	p.clickText("Save the session")
	p.untilSays("measure those once more")
	assert.Equal(t, "upper arm relaxed, left, reading 3", eval[string](p, `document.activeElement.getAttribute('aria-label')`))
	p.key("347\r\r")
	p.until(`!document.body.innerText.includes('measure those once more')`)
	require.Len(t, measure.Kinds, 4)
}

func TestAPhotoIsAddedAndARubbishFileRefused(t *testing.T) {
	a := start(t)
	dir := t.TempDir()
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, image.NewRGBA(image.Rect(0, 0, 600, 800))))
	require.NoError(t, os.WriteFile(filepath.Join(dir, "arm.png"), b.Bytes(), 0o644))
	require.NoError(t, os.WriteFile(filepath.Join(dir, "notes.jpg"), []byte("no picture at all"), 0o644))
	p := a.signedIn(t, wren, laptop, clientPath("Aurelio Finch", "dossier/measures"))
	p.until(`document.querySelector('[aria-label="Photo file"]')`)
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`[aria-label="Photo file"]`), []string{filepath.Join(dir, "notes.jpg")}))
	p.untilSays("this is no JPEG or PNG picture")
	p.do(chromedp.SetUploadFiles(chromedp.CSS(`[aria-label="Photo file"]`), []string{filepath.Join(dir, "arm.png")}))
	p.until(`document.querySelector('.measures_photos img')?.naturalWidth === 240`)
	assert.NotContains(t, p.text(".leaves_dossierMain"), "Not saved")
}

// What should grow is set head by head, shows in the slice, and has an end.
func TestPrioritiesAreSet(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, clientPath("Noor Halloran", "priorities"))
	p.untilSays("Nothing is set yet")
	p.clickText("Use every proposal")
	p.untilSays("As proposed")
	p.until(`document.querySelector('[aria-label="The emphasis ends on"]').value !== ''`)
	p.click(`[aria-label="biceps, long head"].priorities_headLine .ant-segmented-item:nth-child(3)`)
	p.until(`document.querySelector('[aria-label="biceps, long head"].priorities_headLine').innerText.includes('12–18 sets')`)
	p.until(`document.querySelector('.thread_thread').innerText.includes('BL')`)
	p.clickText("Rate again")
	p.clickText("all six")
	p.click(`[aria-label="How the triceps, long head looks"] .ant-segmented-item:nth-child(1)`)
	p.clickText("Save the rating")
	p.untilSays("looks far behind")
}

// A set-up that is to be avoided says so, offers its turn, and may be overridden
// with a reason that is kept.
func TestAVerdictIsFollowedAndOverridden(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, "/fitting?movement=curl_reclined&client="+demo.ClientID("Ines Karlova").String())
	p.until(`document.querySelector('.stage_verdict.avoid')`)
	p.press("Turn it: bench 65°")
	p.until(`!document.querySelector('.stage_verdict.avoid')`)
	p.press("Back to its defaults")
	p.press("Allow it all the same")
	p.fill("Reason for the override", "light, slow, no ache in three sessions")
	p.untilSays("Overridden: light, slow, no ache in three sessions")
	p.press("Record a try-out")
	p.fill("Felt where", "high in the arm")
	p.untilSays("felt high in the arm")
	p.do(chromedp.Navigate(a.url + "/library?client=" + demo.ClientID("Ines Karlova").String()))
	p.untilSays("avoid, overridden")
	before := p.text(".library_count")
	p.click(`[aria-label="Leave out what is to be avoided"]`)
	p.until(fmt.Sprintf(`document.querySelector('.library_count').innerText !== %q`, before))
	p.do(chromedp.Navigate(a.url + "/fitting?movement=dip_bars&client=" + demo.ClientID("Ines Karlova").String()))
	p.untilSays("Not on the bars yet")
}

func TestARoomIsTyped(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, "/studio")
	p.until(`document.querySelector('[aria-label="Pairs of dumbbells"]')`)
	p.fill("Pairs of dumbbells", "2–20 by")
	p.untilSays("is no load; write it like")
	assert.Equal(t, "2–20 by", eval[string](p, `document.querySelector('[aria-label="Pairs of dumbbells"]').value`))
	p.fill("Pairs of dumbbells", "2-30 by 4, 40")
	p.untilSays("from 30 straight to 40 kg")
	p.until(`document.querySelector('[aria-label="Pairs of dumbbells"]').value === '2–30 by 4, 40'`)
	p.clickText("Add a room")
	p.until(`document.querySelector('[aria-label="Name of the room"]').value === 'A new room'`)
	p.fill("Name of the room", "The Annexe")
	p.until(`[...document.querySelectorAll('.studio_roomTab')].some(e => e.innerText.includes('The Annexe'))`)
}

// The present list: a line that is asked is answered, and the picture follows.
func TestThePresentListIsMatched(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, clientPath("Pelle Sandoval", "dossier/now"))
	p.untilSays("not matched yet")
	p.clickText("Palms-down curl, straight bar")
	p.until(`document.querySelectorAll('.dossier_lines li.dossier_open').length < document.querySelectorAll('.dossier_lines li').length`)
	p.until(
		`[...document.querySelectorAll('.dossier_coverageRow')].some(r => r.innerText.includes('biceps, long head') && !r.innerText.includes('0.0\n'))`,
	)
	p.typeInto(`[aria-label="The present list"]`, "Rope push-downs 3x12\nPush-down with the bar 3x10\nyoga")
	p.clickText("Read the list")
	p.untilSays("nearly one idea twice")
	p.untilSays("which movement is that?")
}
