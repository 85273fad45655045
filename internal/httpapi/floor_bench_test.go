package httpapi_test

import (
	"fmt"
	"net/http"
	"slices"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"
)

// Forty floor screens tell a set every second or so, each to its own session or to one of the
// same client; what one waits for its answer.
func BenchmarkFortyFloors(b *testing.B) {
	s := open(b)
	const screens, pause = 40, 800 * time.Millisecond
	var floors []*onFloor
	names := []string{"Tobias Quill", "Dario Vance", "Noor Halloran", "Marguerite Oseland", "Aurelio Finch", "Ines Karlova", "Bettina Groos"}
	c := s.signedIn(b, wren)
	for i := range screens {
		f := s.floorOf(c, names[i%len(names)])
		f.device = uuid.New()
		floors = append(floors, f)
	}
	for b.Loop() {
		var mu sync.Mutex
		var took []time.Duration
		var all sync.WaitGroup
		for i, f := range floors {
			all.Go(func() {
				time.Sleep(time.Duration(i) * pause / screens)
				for n := range 12 {
					set := f.planned(n % len(f.ready.Steps))
					set["set_no"] = 1 + n%30
					start := time.Now()
					r := f.call("POST", f.path, map[string]any{"device": f.device, "events": []any{f.event("set", map[string]any{"set": set})}})
					d := time.Since(start)
					if r.status != http.StatusOK {
						panic(fmt.Sprint(r.status, r.body))
					}
					mu.Lock()
					took = append(took, d)
					mu.Unlock()
					time.Sleep(pause - min(pause, d))
				}
			})
		}
		all.Wait()
		slices.Sort(took)
		b.ReportMetric(float64(took[len(took)/2].Microseconds())/1000, "median-ms")
		b.ReportMetric(float64(took[len(took)*99/100].Microseconds())/1000, "p99-ms")
	}
}

// What it takes to make a session ready for a device.
func BenchmarkASessionMadeReady(b *testing.B) {
	s := open(b)
	f := s.floorOf(s.signedIn(b, wren), "Tobias Quill")
	size := 0
	for b.Loop() {
		r := f.call("GET", f.path, nil)
		require.Equal(b, 200, r.status)
		size = len(r.body)
	}
	b.ReportMetric(float64(size)/1000, "kB")
}
