package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
)

// onFloor is somebody signed in who went on the floor.
func (a *app) onFloor(t testing.TB, size [2]int64, path string) *tab {
	p := a.signedIn(t, wren, size, "/clients")
	p.do(chromedp.Navigate(a.url + path))
	p.until(`document.querySelector('.floor_now') || document.querySelector('.floor_end')`)
	return p
}
