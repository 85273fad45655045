package e2e

import (
	"testing"
	"time"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"musculus/internal/demo"
)

func TestZZLook(t *testing.T) {
	_ = emulation.SetEmulatedMedia
	_ = chromedp.Reload
	a := startTrained(t)
	p := a.signedIn(t, wren, laptop, "/clients/"+demo.ClientID("Aurelio Finch").String()+"/week")
	p.until(`document.querySelector('[aria-label="The block"] ol')`)
	p.click(".block_turns li:nth-child(8) button")
	p.until(`document.querySelector('.block_ahead')`)
	time.Sleep(500 * time.Millisecond)
	p.shot("/tmp/z1.png")
	q := p.second(phone, "/clients/"+demo.ClientID("Aurelio Finch").String()+"/week")
	q.until(`document.querySelector('[aria-label="The block"] ol')`)
	time.Sleep(500 * time.Millisecond)
	q.shot("/tmp/z2.png")
	q.clickText("Change the block")
	time.Sleep(1200 * time.Millisecond)
	q.shot("/tmp/z3.png")
}
