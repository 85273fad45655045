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

// task is anything that a thread does.
const task = "ThreadControllerImpl::RunTask"

// frame is how long one is at sixty a second, µs.
const frame = 1e6 / 60

// frames95 is how long the page's main thread works in the time of a frame while something plays, ms
// at p95, from a trace.
func (p *tab) frames95(for_ time.Duration) float64 {
	p.t.Helper()
	type event struct {
		Name string  `json:"name"`
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
				if json.Unmarshal([]byte(raw), &one) == nil && (one.Name == "TimeStamp" || one.Name == task) {
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
		IncludedCategories: []string{"devtools.timeline", "toplevel"},
	}})
	require.NoError(p.t, err)
	time.Sleep(time.Second)                                // a trace that begins is work of its own
	eval[bool](p, `(console.timeStamp('the page'), true)`) // so that its thread is known
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
	begin := slices.IndexFunc(all, func(e event) bool { return e.Name != task })
	require.GreaterOrEqual(p.t, begin, 0, "the page is in the trace")
	page := all[begin]
	took := make([]float64, int(for_.Seconds()*60))
	end := 0.0 // what lies inside something that was counted is not counted twice
	for _, e := range all[begin:] {
		k := int((e.TS - page.TS) / frame)
		if e.Pid != page.Pid || e.Tid != page.Tid || e.TS < end || k >= len(took) {
			continue
		}
		took[k] += e.Dur / 1000
		end = e.TS + e.Dur
	}
	slices.Sort(took)
	return took[len(took)*95/100]
}
