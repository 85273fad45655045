package e2e

import (
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
)

func TestZZLook(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, phone, "/clients")
	var slots []string
	for range 7 {
		slots = append(slots, straight("curl_standing_dumbbells", 12, ""))
	}
	path, _ := p.planOf("Aurelio Finch", "Quick", "["+strings.Join(slots, ",")+"]")
	p.toFloor(path)
	_, _ = chromedp.Call(p.ctx, emulation.SetCPUThrottlingRate, emulation.SetCPUThrottlingRateParams{Rate: 4})
	time.Sleep(3 * time.Second)
	eval[bool](p, `(() => { const put = IDBObjectStore.prototype.put; IDBObjectStore.prototype.put = function (...a) { const t = performance.now(); const r = put.apply(this, a); r.addEventListener('success', () => { (window.log ??= []).push(['put '+this.name, Math.round(performance.now() - t)]) }); const tx = this.transaction; tx.addEventListener('complete', () => window.log.push(['done '+this.name, Math.round(performance.now() - t)])); return r };
	new PerformanceObserver((l) => l.getEntries().forEach((e) => (window.log ??= []).push(['long', Math.round(e.startTime), Math.round(e.duration)]))).observe({entryTypes: ['longtask']}); return true })()`)
	for i := range 8 {
		took := later[float64](p, `new Promise((done) => {
			const said = () => `+which+`
			const [was, from] = [said(), performance.now()]; (window.log ??= []).push(['tap', Math.round(from)])
			const seen = new MutationObserver(() => { if (said() !== was) { seen.disconnect(); window.log.push(['seen', Math.round(performance.now())]); requestAnimationFrame(() => done(performance.now() - from)) } })
			seen.observe(document.body, {subtree: true, childList: true, characterData: true})
			document.querySelector('.floor_go').click() })`)
		t.Log(i, took, eval[string](p, `JSON.stringify(window.log.splice(0))`))
		time.Sleep(500 * time.Millisecond)
	}
}
