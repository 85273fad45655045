package e2e

import (
	"testing"
	"time"
)

func TestZZLook(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, clientPath("Aurelio Finch", "week"))
	p.until(`document.querySelectorAll('[data-slot]').length > 3`)
	p.shot("/tmp/b1.png")
	p.clickText("Draft the week")
	p.until(`document.querySelectorAll('section h3').length >= 3`)
	p.until(`!document.querySelector('main[aria-busy=true]')`)
	time.Sleep(2 * time.Second)
	p.click("li button[aria-expanded=false]")
	p.shot("/tmp/b2.png")
	p.clickText("Something else here")
	time.Sleep(300 * time.Millisecond)
	p.until(`!document.querySelector('main[aria-busy=true]')`)
	p.shot("/tmp/b3.png")
	p.clickText("Lay it on the board")
	time.Sleep(1500 * time.Millisecond)
	p.shot("/tmp/b4.png")
	q := p.second(laptop, "/clients/next-week")
	q.untilSays("without a week")
	q.clickText("Draft a week for each")
	time.Sleep(9 * time.Second)
	q.shot("/tmp/b5.png")
}
