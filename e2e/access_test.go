package e2e

import (
	"context"
	"fmt"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
)

// Every view is read by axe, wide and narrow, by day and by night: the rules of WCAG 2.0 to 2.2, A and AA, its best
// practices, and that what is read aloud begins with what is written. Nothing is let off.
func TestEveryViewIsReadByAxe(t *testing.T) {
	axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	require.NoError(t, err)
	a, on := startMidweek(t) // somebody has no next week then, whatever day it is
	wednesday, err := time.Parse(time.DateOnly, on)
	require.NoError(t, err)
	require.NoError(t, demo.Histories(context.Background(), a.store, wednesday))
	link := issueAndLink(t, a)
	of := func(name string) string { return "client=" + demo.ClientID(name).String() }
	for name, size := range map[string][2]int64{"laptop": laptop, "phone": phone} {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			p := a.open(t, size, "/")
			p.until(`document.querySelector('.signin_door')`)
			p.readByAxe(string(axe), "signing in")
			p.signIn(wren)
			for _, view := range [][2]string{
				{"/clients", ".wall_clientCard"},
				{"/today", ".margin .finding"},
				{"/nowhere", ".soon"},
				{clientPath("Ines Karlova", "dossier"), ".dossier_joints"},
				{clientPath("Tobias Quill", "dossier/measures"), ".course_course"},
				{clientPath("Pelle Sandoval", "dossier/now"), ".dossier_lines li"},
				{clientPath("Aurelio Finch", "priorities"), ".priorities_headLine"},
				{clientPath("Tobias Quill", "week"), ".board_slot b"},
				{clientPath("Aurelio Finch", "week"), ".board_slot b"},
				{clientPath("Dario Vance", "week?of="+inTwoWeeks()+"&drafts="), ".drafts_column:nth-child(3)"},
				{"/clients/next-week", ".next_card"},
				{builderPath("Aurelio Finch"), ".stage_stage .pose_pose"},
				{clientPath("Aurelio Finch", "sheet"), ".sheet_slot"},
				{clientPath("Tobias Quill", "log"), ".log_setForm"},
				{clientPath("Tobias Quill", "trend"), ".trend_course"},
				{clientPath("Dario Vance", "trend"), ".trend_tape"},
				{"/fitting?" + of("Tobias Quill"), ".stage_near"},
				{"/fitting?movement=curl_reclined&" + of("Ines Karlova"), ".stage_verdict"},
				{"/fitting", ".stage_near"},
				{"/library", ".library_card"},
				{"/library/ours", "main"},
				{"/stances", ".stances_rule"},
				{"/stances?" + of("Aurelio Finch"), ".switch"},
				{"/studio", ".studio_room"},
				{"/studio/people", ".studio_person"},
				{"/studio/security", ".studio_event"},
				{"/me", ".leaves_leaf"},
				{link, ".sheet_byLink .sheet_slot"},
			} {
				p.do(chromedp.Navigate(a.url + view[0]))
				p.until(fmt.Sprintf("document.querySelector(%q)", view[1]))
				if strings.Contains(view[0], "studio") {
					p.key("?") // the help lies over a page
				}
				p.readByAxe(string(axe), view[0])
			}
		})
	}
}

// readByAxe reads a page by day, and once more by night for what a palette can break.
func (p *tab) readByAxe(axe, what string) {
	p.t.Helper()
	p.until(`document.fonts.status === 'loaded' && document.querySelector('h1')`)
	eval[bool](p, axe+";true")
	width := eval[int](p, `innerWidth`)
	assert.Equal(p.t, 1, eval[int](p, `document.querySelectorAll('h1').length`), "headings of the first level: %s", what)
	for _, night := range []bool{false, true} {
		scheme, run := "light", `{runOnly: {type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']},
			rules: {'label-content-name-mismatch': {enabled: true}}}`
		if night {
			scheme, run = "dark", `{runOnly: ['color-contrast', 'link-in-text-block']}`
		}
		_, err := chromedp.Call(
			p.ctx,
			emulation.SetEmulatedMedia,
			emulation.SetEmulatedMediaParams{Features: []*emulation.MediaFeature{
				{Name: "prefers-color-scheme", Value: scheme}, {Name: "prefers-reduced-motion", Value: "reduce"},
			}},
		)
		require.NoError(p.t, err)
		// What fades from one palette to the other is not read half way.
		// The component library draws itself anew, a moment later.
		if night {
			p.until(`![...document.querySelectorAll('input, textarea')].some(e => getComputedStyle(e).backgroundColor === 'rgb(252, 252, 252)')`)
		} else {
			p.until(`![...document.querySelectorAll('input, textarea')].some(e => getComputedStyle(e).color === 'rgb(238, 232, 221)')`)
		}
		p.until(fmt.Sprintf(
			`document.getAnimations().length === 0 && (window.night === %[1]v || (window.night = %[1]v, false))`, night))
		eval[bool](
			p,
			`(window.found = null, axe.run(`+run+`).then(r => { window.found = r.violations.map(v =>
				v.id + ': ' + v.nodes.map(n => n.target.join(' ') + ' ' + (n.any[0]?.message ?? '')).slice(0, 9).join(' | ')) }), true)`,
		)
		p.until(`window.found !== null`)
		for _, found := range eval[[]string](p, `window.found`) {
			assert.Fail(p.t, found, "%s, %d wide, %s", what, width, scheme)
		}
	}
}
