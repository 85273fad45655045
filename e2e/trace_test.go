package e2e

import (
	"encoding/json"
	"slices"
	"sync"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/tracing"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// mainThread are what a page's main thread does for a frame: script, style, layout, painting, handing
// it on.
var mainThread = []string{"FireAnimationFrame", "FunctionCall", "UpdateLayoutTree", "Layout", "PrePaint", "Paint", "Layerize", "Commit"}

// frames95 is how long the main thread works for a frame while something plays, ms at p95, from a
// trace.
func (p *tab) frames95(for_ time.Duration) float64 {
	p.t.Helper()
	type event struct {
		Name string  `json:"name"`
		Ph   string  `json:"ph"`
		TS   float64 `json:"ts"`  // µs
		Dur  float64 `json:"dur"` // µs
		Pid  int     `json:"pid"`
		Tid  int     `json:"tid"`
	}
	var mu sync.Mutex
	var all []event
	done := make(chan struct{}, 1)
	require.NoError(p.t, chromedp.Listen(p.ctx, func(ev any) {
		switch e := ev.(type) {
		case *tracing.EventDataCollected:
			mu.Lock()
			defer mu.Unlock()
			for _, raw := range e.Value {
				var one event
				if json.Unmarshal([]byte(raw), &one) == nil && one.Ph == "X" && slices.Contains(mainThread, one.Name) {
					all = append(all, one)
				}
			}
		case *tracing.EventTracingComplete:
			select {
			case done <- struct{}{}:
			default: // an earlier trace’s
			}
		}
	}))
	_, err := chromedp.Call(p.ctx, tracing.Start, tracing.StartParams{TraceConfig: &tracing.TraceConfig{
		IncludedCategories: []string{"devtools.timeline"},
	}})
	require.NoError(p.t, err)
	time.Sleep(for_)
	_, err = chromedp.Call(p.ctx, tracing.End, cdp.Empty{})
	require.NoError(p.t, err)
	select {
	case <-done:
	case <-time.After(20 * time.Second):
		require.Fail(p.t, "no trace came")
	}
	mu.Lock()
	defer mu.Unlock()
	slices.SortFunc(all, func(a, b event) int { return int(a.TS - b.TS) })
	var starts []float64
	thread := [2]int{}
	for _, e := range all {
		if e.Name == "FireAnimationFrame" {
			starts, thread = append(starts, e.TS), [2]int{e.Pid, e.Tid}
		}
	}
	require.Greater(p.t, len(starts), 20, "it plays")
	took := make([]float64, len(starts))
	end := 0.0 // what lies inside something that was counted is not counted twice
	for _, e := range all {
		k, found := slices.BinarySearch(starts, e.TS)
		if !found {
			k--
		}
		if k < 0 || (thread != [2]int{e.Pid, e.Tid}) || e.TS < end {
			continue
		}
		took[k] += e.Dur / 1000
		end = e.TS + e.Dur
	}
	slices.Sort(took)
	return took[len(took)*95/100]
}
