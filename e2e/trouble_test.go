package e2e

import (
	"context"
	"os"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/jobs"
	"musculus/internal/localpg"
	"musculus/internal/store"
)

// A dose beyond the caps is refused at its field; what was typed stays, nothing
// is saved until it is right.
func TestADoseBeyondTheCapsIsToldAtItsField(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, builderPath("Bettina Groos"))
	p.typeInto(`input[aria-label="Rest in seconds"]`, "45")
	p.until(`[...document.querySelectorAll('.prescription_field .fault')].some(f => f.innerText.includes('at least 90 s'))`)
	p.until(`document.querySelector('.saving_saveNote.saving_bad')?.innerText.includes('Not saved')`)
	assert.Equal(t, "45", eval[string](p, `document.querySelector('input[aria-label="Rest in seconds"]').value`))
	p.typeInto(`input[aria-label="Sets"]`, "99999999999")
	p.until(`[...document.querySelectorAll('.prescription_field .fault')].some(f => f.innerText.includes('too large a number'))`)
	p.typeInto(`input[aria-label="Sets"]`, "3")
	p.typeInto(`input[aria-label="Rest in seconds"]`, "120")
	p.saved()
	p.typeInto(`input[aria-label^="Tempo"]`, "slow")
	p.until(`document.querySelector('.prescription_dose').innerText.includes('like 3-1-1-0')`)
	p.typeInto(`input[aria-label^="Tempo"]`, "3-1-1-0")
	p.until(`document.querySelector('.builder_slot.builder_here .builder_slotDose').innerText.includes('tempo 3-1-1-0')`)
	p.saved()
	p.do(chromedp.Reload())
	p.until(`document.querySelector('.builder_slot .builder_slotDose')?.innerText.includes('rest 2 min')`)
}

// Two tabs on one session: the later save is told, shows the other's and
// overwrites nothing until the coach chooses.
func TestTwoTabsDoNotOverwriteEachOther(t *testing.T) {
	a := start(t)
	first := a.signedIn(t, wren, laptop, builderPath("Aurelio Finch"))
	first.until(`document.querySelector('.stage_stage .pose_pose')`)
	second := first.second(laptop, builderPath("Aurelio Finch"))
	second.until(`document.querySelector('.stage_stage .pose_pose')`)
	first.typeInto(`input[aria-label="Name of the session"]`, "Balcony day")
	first.saved()
	second.typeInto(`input[aria-label="Sets"]`, "5")
	second.untilSays("Nothing is overwritten until you choose")
	assert.Contains(t, second.text(".saving_saveNote"), "Balcony day")
	assert.Equal(t, "5", eval[string](second, `document.querySelector('input[aria-label="Sets"]').value`))
	second.clickText("Use theirs")
	second.until(`document.querySelector('input[aria-label="Name of the session"]').value === 'Balcony day'`)
	second.typeInto(`input[aria-label="Sets"]`, "5")
	second.saved()
}

// PostgreSQL is gone for ten seconds while a session is edited: the app says
// so, keeps the edits and saves them when it is back.
func TestLosingTheDatabaseForTenSeconds(t *testing.T) {
	dir, err := os.MkdirTemp("", "musculus-lost-")
	require.NoError(t, err)
	t.Cleanup(func() { os.RemoveAll(dir) })
	require.NoError(t, os.Chmod(dir, 0o755))
	ctx := context.Background()
	server, err := localpg.Start(ctx, localpg.Options{Dir: dir})
	require.NoError(t, err)
	t.Cleanup(func() { _ = server.Stop() })
	db, err := server.Database(ctx, "musculus", "")
	require.NoError(t, err)
	require.NoError(t, store.Migrate(ctx, db.MigrateURL, db.URL))
	require.NoError(t, jobs.Migrate(ctx, db.MigrateURL, db.URL))
	a := startOn(t, db, time.Now())
	p := a.signedIn(t, wren, laptop, builderPath("Aurelio Finch"))
	p.until(`document.querySelector('.stage_stage .pose_pose')`)

	back := make(chan error, 1)
	go func() { back <- server.Restart(ctx, 10*time.Second) }()
	time.Sleep(time.Second)
	p.typeInto(`input[aria-label="Sets"]`, "7")
	p.until(`document.querySelector('.saving_saveNote.saving_bad')?.innerText.includes('kept here')`)
	p.typeInto(`input[aria-label="Name of the session"]`, "Typed in the dark")
	require.NoError(t, <-back)
	p.untilIn(20*time.Second, `/^saved /.test(document.querySelector('.saving_saveNote')?.innerText)`)
	p.do(chromedp.Reload())
	p.until(`document.querySelector('.builder_slot .builder_slotDose')?.innerText.startsWith('7 ×')`)
	assert.Equal(t, "Typed in the dark", eval[string](p, `document.querySelector('input[aria-label="Name of the session"]').value`))
}

// The network is gone while a set is logged: it says so, keeps what was typed,
// and a second press logs the set once.
func TestLoggingWithoutNetworkKeepsWhatWasTyped(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, jory, phone, clientPath("Tobias Quill", "log"))
	p.until(`document.querySelector('.log_setForm')`)
	p.offline(true)
	p.typeInto(`input[name=reps]`, "9")
	p.typeInto(`input[name=note]`, "by the harbour")
	p.clickText("Log this set")
	p.untilSays("What you typed stays; press again")
	p.offline(false)
	p.clickText("Log this set")
	p.until(`document.querySelector('.log_sets')?.innerText.includes('by the harbour')`)
	assert.Equal(t, 1, eval[int](p, `document.querySelectorAll('.log_sets li').length`))
}

// A hurried double click logs one set.
func TestADoubleClickLogsOnce(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, jory, laptop, clientPath("Dario Vance", "log"))
	p.until(`document.querySelector('.log_setForm button[type=submit]')`)
	eval[bool](p, `(() => { const b = document.querySelector('.log_setForm button[type=submit]'); b.click(); b.click(); return true })()`)
	p.until(`document.querySelector('.log_sets')`)
	time.Sleep(300 * time.Millisecond)
	assert.Equal(t, 1, eval[int](p, `document.querySelectorAll('.log_sets li').length`))
}
