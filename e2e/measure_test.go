package e2e

import (
	"encoding/base64"
	"fmt"
	"io"
	"net/http"
	"slices"
	"testing"
	"time"

	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// pdf prints the page, sizes in inches.
func (p *tab) pdf(width, height float64) []byte {
	p.t.Helper()
	r, err := chromedp.Call(
		p.ctx,
		page.PrintToPDF,
		page.PrintToPDFParams{PaperWidth: width, PaperHeight: height, PrintBackground: new(true)},
	)
	require.NoError(p.t, err)
	if b, err := base64.StdEncoding.DecodeString(string(r.Data)); err == nil {
		return b
	}
	return r.Data
}

// offline cuts the tab off the network, or back on.
func (p *tab) offline(off bool) {
	p.t.Helper()
	_, err := chromedp.Call(p.ctx, network.Enable, network.EnableParams{})
	require.NoError(p.t, err)
	_, err = chromedp.Call(p.ctx, network.EmulateNetworkConditionsByRule, network.EmulateNetworkConditionsByRuleParams{
		MatchedNetworkConditions: []*network.Conditions{{Offline: off, DownloadThroughput: -1, UploadThroughput: -1}},
	})
	require.NoError(p.t, err)
}

// Dragging a setting: server time and frame time, recorded apart as user
// timings. The limit here is ten times the aim of 50 ms; docs/performance.md
// has the figures.
func TestDraggingIsQuick(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, builderPath("Aurelio Finch"))
	p.click(".builder_slot:nth-child(2) .builder_slotFace")
	p.until(`document.querySelector('.stage_stage h2')?.innerText.includes('Reclined')`)
	eval[bool](p, `(performance.clearMeasures(), true)`)
	for range 2 {
		p.dragHandle("e_to", -10, 90, 40)
		p.dragHandle("bench", -30, -50, 30)
		p.dragHandle("e_to", 10, -90, 40)
		p.dragHandle("bench", 30, 50, 30)
	}
	time.Sleep(300 * time.Millisecond)
	times := func(name string) []float64 {
		return eval[[]float64](p, fmt.Sprintf(`performance.getEntriesByName(%q).map(e => e.duration)`, name))
	}
	server, frame := times("musculus:server"), times("musculus:frame")
	require.Greater(t, len(server), 3, "a busy machine answers fewer, the latest wins")
	require.Equal(t, len(server), len(frame))
	sum := make([]float64, len(server))
	for i := range sum {
		sum[i] = server[i] + frame[i]
	}
	median := func(v []float64) float64 { v = slices.Sorted(slices.Values(v)); return v[len(v)/2] }
	t.Logf(
		"dragging: %d answers, server %.1f ms, frame %.1f ms, sum %.1f ms at the median",
		len(sum),
		median(server),
		median(frame),
		median(sum),
	)
	assert.Less(t, median(sum), 500.0)
}

// The first view of the signed-in app and how much JavaScript it takes. The
// time's limit is ten times the aim of 1.5 s.
func TestTheFirstViewIsQuickAndLight(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, "/clients")
	p.until(`document.querySelector('.wall_clientCard')`)
	began := time.Now()
	p.do(chromedp.Navigate(a.url + "/clients"))
	p.until(`document.querySelector('.wall_clientCard')`)
	took := time.Since(began)
	total := p.javaScript()
	t.Logf("first view after %d ms, %d kB of JavaScript gzipped", took.Milliseconds(), total/1000)
	assert.Less(t, took, 15*time.Second)
	assert.Less(t, total, 220_000)
}

// A client's page by a link is small, and its heading is painted at once: the median of
// ten, warm. The time's limit is ten times the aim of 150 ms.
func TestTheLinkIsSmallAndQuick(t *testing.T) {
	a := start(t)
	p := a.open(t, phone, issueAndLink(t, a))
	heading := `document.querySelector(".sheet_sheet .sheet_name")`
	p.until(heading)
	total := p.javaScript()
	var painted []float64
	for range 10 {
		p.do(chromedp.Reload())
		p.until(heading + ` && performance.getEntriesByName('first-contentful-paint').length > 0`)
		painted = append(painted, eval[float64](p, `performance.getEntriesByName('first-contentful-paint')[0].startTime`))
	}
	slices.Sort(painted)
	t.Logf("a link's heading after %.0f ms at the median, %d kB of JavaScript gzipped", painted[len(painted)/2], total/1000)
	assert.Less(t, painted[len(painted)/2], 1500.0)
	assert.Less(t, total, 85_000)
}

// javaScript is how many bytes of it, gzipped, the page took.
func (p *tab) javaScript() (total int) {
	t := p.t
	t.Helper()
	files := eval[[]string](p, `performance.getEntriesByType('resource').map(e => e.name).filter(n => n.endsWith('.js'))`)
	require.NotEmpty(t, files)
	for _, f := range files {
		r, err := http.NewRequest("GET", f, nil)
		require.NoError(t, err)
		r.Header.Set("Accept-Encoding", "gzip")
		response, err := http.DefaultTransport.RoundTrip(r)
		require.NoError(t, err)
		b, err := io.ReadAll(response.Body)
		response.Body.Close()
		require.NoError(t, err)
		require.Equal(t, "gzip", response.Header.Get("Content-Encoding"), f)
		total += len(b)
	}
	return total
}
