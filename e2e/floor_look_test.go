package e2e

import (
	"fmt"
	"os"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
)

// contrast is that of an element's text against what it stands on.
const contrast = `((css) => {
	const of = (c) => c.match(/[\d.]+/g).map(Number)
	const light = ([r, g, b]) => { const f = (v) => { v /= 255; return v <= 0.03928 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4 }
		return 0.2126 * f(r) + 0.7152 * f(g) + 0.0722 * f(b) }
	const e = document.querySelector(css)
	let under = e
	while (under && (of(getComputedStyle(under).backgroundColor)[3] ?? 1) === 0) under = under.parentElement
	const ground = getComputedStyle(under ?? document.body).backgroundColor
	const [a, b] = [light(of(getComputedStyle(e).color)), light(of(ground))].sort((x, y) => y - x)
	return (a + 0.05) / (b + 0.05) })(%q)`

// small are the controls that a thumb would miss.
const small = `[...document.querySelectorAll('.floor_floor button, .floor_floor a, .floor_floor input')]
	.map((e) => [e, e.getBoundingClientRect()]).filter(([, r]) => r.width > 0 && (r.width < 47.5 || r.height < 47.5))
	.map(([e, r]) => e.innerText + ' ' + Math.round(r.width) + '×' + Math.round(r.height)).join('; ')`

// The floor is read at arm's length and pressed with a thumb, on a phone, a tablet and a laptop,
// with everything that opens on it; a screen reader is told the dose and the rest's end.
func TestTheFloorIsReadable(t *testing.T) {
	t.Parallel()
	axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	require.NoError(t, err)
	a := start(t)
	for name, size := range map[string][2]int64{"phone": phone, "tablet": tablet, "laptop": laptop, "narrow": {320, 640}} {
		p := a.onFloor(t, size, floorPath("Dario Vance"))
		for _, css := range []string{".floor_figure", ".floor_load b", ".floor_title", ".floor_which", ".floor_chip"} {
			assert.GreaterOrEqual(t, eval[float64](p, fmt.Sprintf(contrast, css)), 7.0, "%s %s", name, css)
		}
		p.readByAxe(string(axe), "the floor, "+name)
		assert.Empty(t, eval[string](p, small), name)
		assert.LessOrEqual(t, eval[int](p, `document.documentElement.scrollWidth`), int(size[0]), "nothing goes over the side: %s", name)
		assert.Equal(t, 2, eval[int](p, `document.querySelectorAll('.floor_big[aria-live], .floor_rest [role=status]').length`))
		for _, open := range []string{"This device", "Another way", "It was different", "It hurts"} {
			p.clickText(open)
			time.Sleep(100 * time.Millisecond)
			assert.Empty(t, eval[string](p, small), "%s, %s", name, open)
			assert.LessOrEqual(t, eval[int](p, `document.documentElement.scrollWidth`), int(size[0]), "%s, %s", name, open)
			if open == "It was different" || open == "It hurts" {
				p.readByAxe(string(axe), open+", "+name)
				p.clickText("Back")
				p.until(`document.querySelector('.floor_now')`)
			}
		}
	}
	// In the left hand what is pressed lies on the left.
	p := a.onFloor(t, phone, floorPath("Dario Vance"))
	p.clickText("This device")
	p.clickText("In the left hand")
	p.until(`document.querySelector('.floor_leftHand')`)
	assert.Equal(t, "rtl", eval[string](p, `getComputedStyle(document.querySelector('.floor_main')).direction`))
}

// A client's link that may log opens the floor of what was sent to her, without a sign-in; what
// she does is seen by the coach while it happens, and it opens without network.
func TestAClientLogsByHerLink(t *testing.T) {
	t.Parallel()
	o := startOurs(t)
	c := o.signedIn(t, wren, laptop, clientPath("Aurelio Finch", "sheet"))
	link := c.issueAndLink(true)
	c.toFloor(floorPath("Aurelio Finch"))
	p := o.open(t, phone, link)
	p.clickText("Start")
	p.until(onFloorNow)
	p.until(`navigator.serviceWorker.ready.then(() => true)`)
	assert.Equal(t, "/s/", eval[string](p, `document.querySelector('link[rel=manifest]').getAttribute('href').slice(0, 3)`))
	told := time.Now()
	p.done()
	c.untilSays("the client")
	t.Logf("the coach saw it after %s", time.Since(told))
	assert.Less(t, time.Since(told), 3*time.Second)
	// A line of the coach's reaches her.
	c.typeInto(".floor_note input", "stay where you are")
	c.clickText("Say it")
	p.untilSays("stay where you are")
	session := demo.SessionID("Aurelio Finch")
	require.Len(t, o.sets(t, session), 1)
	assert.NotNil(t, o.sets(t, session)[0].Link)

	o.kill()
	q := p.second(phone, link)
	q.untilSays("The server cannot be reached")
	r := p.second(phone, link+"#"+session.String())
	r.until(onFloorNow)
	r.done()
	r.until(waiting + ` === 1`)
	o.run(t)
	r.untilIn(75*time.Second, waiting+` === 0`)
	require.Eventually(t, func() bool { return len(o.sets(t, session)) == 2 }, 10*time.Second, 50*time.Millisecond)
}
