package e2e

import (
	"context"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
)

// TestScreenshots refreshes the pictures of the main views from the demo data
// (make screenshots); the errands of the other files test the views.
func TestScreenshots(t *testing.T) {
	dir := os.Getenv("MUSCULUS_SHOTS")
	if dir == "" {
		t.Skip("make screenshots")
	}
	a := startTrained(t)
	require.NoError(t, demo.HalfDone(context.Background(), a.store, time.Now()))
	views := []struct {
		name, path, ready string
		size              [2]int64
	}{
		{"clients", "/clients", ".wall_clientCard", laptop},
		{"session", builderPath("Aurelio Finch"), ".stage_stage .pose_pose", laptop},
		{"sheet", "/clients/" + demo.ClientID("Aurelio Finch").String() + "/sheet", ".sheet_slot", laptop},
		{"today", "/today", ".today_person", laptop},
		{"block", "/clients/" + demo.ClientID("Aurelio Finch").String() + "/week", ".block_turns", laptop},
		{"trend", "/clients/" + demo.ClientID("Aurelio Finch").String() + "/trend", ".trend_tape", laptop},
		{"fitting-standing", "/fitting?movement=curl_cable_facing_away&client=" + demo.ClientID("Tobias Quill").String(), ".stage_near", laptop},
		{"library", "/library?client=" + demo.ClientID("Pelle Sandoval").String(), ".library_card", laptop},
		{"stances", "/stances?client=" + demo.ClientID("Aurelio Finch").String(), ".switch", laptop},
		{"dossier", "/clients/" + demo.ClientID("Ines Karlova").String() + "/dossier", ".dossier_joints", laptop},
		{"priorities", "/clients/" + demo.ClientID("Aurelio Finch").String() + "/priorities", ".priorities_headLine", laptop},
		{"floor", floorPath("Dario Vance"), ".floor_now", tablet},
		{"floor-phone", floorPath("Tobias Quill"), ".floor_now", phone},
	}
	issuedLink := issueAndLink(t, a)
	views = append(views, struct {
		name, path, ready string
		size              [2]int64
	}{"sheet-phone", issuedLink, ".sheet_byLink .sheet_slot", phone})
	// A whole week on the board, whatever day it is.
	m, wednesday := startMidweek(t)
	board := m.signedIn(t, wren, laptop, clientPath("Aurelio Finch", "week?of="+wednesday))
	board.until(`document.querySelectorAll('.board_slot b').length === 7 && document.querySelector('.finding')`)
	board.click(`.board_session:first-of-type .board_slot:nth-child(2) .lock`)
	board.untilSays("saved")
	time.Sleep(600 * time.Millisecond)
	board.shot(filepath.Join(dir, "week.png"))
	board.clickText("Draft the week")
	board.columns()
	time.Sleep(2 * time.Second)
	board.shot(filepath.Join(dir, "drafts.png"))
	checkInShot(t, a, filepath.Join(dir, "check-in.png"))
	door := a.open(t, laptop, "/")
	door.until(`document.querySelector('.signin_door .pose_pose') && document.fonts.status === 'loaded'`)
	time.Sleep(600 * time.Millisecond)
	door.shot(filepath.Join(dir, "signin.png"))
	tabs := map[[2]int64]*tab{laptop: a.signedIn(t, wren, laptop, "/clients"), phone: a.signedIn(t, wren, phone, "/clients"),
		tablet: a.signedIn(t, wren, tablet, "/clients")}
	for _, v := range views {
		p := tabs[v.size]
		p.do(chromedp.Navigate(a.url + v.path))
		p.until("document.querySelector('" + v.ready + "')")
		p.until("document.fonts.status === 'loaded'")
		if v.name == "session" {
			p.click(".builder_slot:nth-child(2) .builder_slotFace")
			p.until("document.querySelector('.stage_stage h2').innerText.includes('Reclined')")
		}
		if v.name == "stances" {
			p.typeInto(".stances_tip textarea", "Kick-backs stretch the long head")
			p.clickText("Check it")
			p.until("document.querySelector('.stances_tip .finding')")
		}
		time.Sleep(600 * time.Millisecond)
		p.shot(filepath.Join(dir, v.name+".png"))
	}
}

// checkInShot is what the carpenter is asked by her link after a session with a sore elbow.
func checkInShot(t *testing.T, a *app, to string) {
	p := a.signedIn(t, wren, laptop, "/today")
	link := later[string](p, `fetch('/api/clients/`+demo.ClientID("Dario Vance").String()+`/links', {method: 'POST',
		headers: {'Content-Type': 'application/json'}, body: JSON.stringify({id: crypto.randomUUID(), days: 7})}).then(r => r.json()).then(l => l.path)`)
	q := a.open(t, phone, link)
	q.untilSays("How is it today?")
	q.until("document.fonts.status === 'loaded'")
	time.Sleep(600 * time.Millisecond)
	q.shot(to)
}

// issueAndLink issues a demo sheet and makes a link to it.
func issueAndLink(t *testing.T, a *app) string {
	return a.signedIn(t, wren, laptop, clientPath("Aurelio Finch", "sheet")).issueAndLink(false)
}

// issueAndLink issues the sheet that is open and makes a link to it, which may log or not.
func (p *tab) issueAndLink(mayLog bool) string {
	p.untilSays("is not issued yet")
	p.click(".issue-one")
	p.untilSays("Sheet 1 left on")
	if mayLog {
		p.click(".ant-checkbox-wrapper")
	}
	p.clickText("Make a link")
	link := p.text(".editing_issuingLink")
	return link[strings.Index(link, "/s/"):]
}
