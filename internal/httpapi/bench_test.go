package httpapi_test

import (
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"musculus/internal/demo"
)

// BenchmarkFitAt50PerSecond asks for profiles at 50 requests a second, as a
// studio turning settings would, and reports the server's own time: the median
// and the 99th percentile, ms. One iteration is one request.
func BenchmarkFitAt50PerSecond(b *testing.B) {
	s := open(b)
	c := s.signedIn(b, wren)
	client := demo.ClientID("Aurelio Finch")
	var mu sync.Mutex
	var took []float64
	var wait sync.WaitGroup
	tick := time.NewTicker(20 * time.Millisecond)
	defer tick.Stop()
	b.ResetTimer()
	for i := range b.N {
		<-tick.C
		wait.Go(func() {
			a := c.call(
				"POST",
				"/fit",
				map[string]any{"movement": "curl_reclined", "settings": map[string]any{"bench": 45 + 5*(i%7)}, "client": client},
			)
			_, dur, _ := strings.Cut(a.header.Get("Server-Timing"), "dur=")
			ms, err := strconv.ParseFloat(dur, 64)
			if a.status != 200 || err != nil {
				b.Errorf("status %d, timing %q", a.status, dur)
				return
			}
			mu.Lock()
			took = append(took, ms)
			mu.Unlock()
		})
	}
	wait.Wait()
	if len(took) == 0 {
		return
	}
	slices.Sort(took)
	b.ReportMetric(took[len(took)/2], "ms-median")
	b.ReportMetric(took[len(took)*99/100], "ms-p99")
	b.ReportMetric(0, "ns/op")
}
