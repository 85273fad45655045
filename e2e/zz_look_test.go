package e2e

import (
	"testing"
	"time"
)

func TestZZLook(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, phone, "/clients")
	path, _ := p.planOf("Aurelio Finch", "Quick", "["+straight("curl_standing_dumbbells", 16, `, method: {id: "drops", n: 2}`)+"]")
	p.toFloor(path)
	eval[bool](p, `window.errs = []; window.addEventListener('error', (e) => errs.push(String(e.error?.stack ?? e.message))); true`)
	p.click(".floor_go")
	time.Sleep(500 * time.Millisecond)
	p.click(".floor_hurts")
	time.Sleep(500 * time.Millisecond)
	t.Log(eval[string](p, `JSON.stringify(errs)`), eval[string](p, `document.body.innerText.slice(0,300)`))
}
