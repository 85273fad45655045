package httpapi_test

import (
	"context"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
	"musculus/internal/store"
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

// BenchmarkTrendOfTenYears reads the trend of a client with ten years and 40,000 sets: as it is
// kept, and read again after a set.
func BenchmarkTrendOfTenYears(b *testing.B) {
	s := open(b)
	require.NoError(b, demo.Histories(context.Background(), s.store, now))
	name := "Aurelio Finch"
	require.NoError(b, s.store.In(context.Background(), demo.Studio, func(tx *store.Tx) error {
		// Every session of his is there 125 times more, back to ten years ago.
		_, err := tx.Raw().Exec(context.Background(), `
			WITH old AS (SELECT s.*, n, gen_random_uuid() AS fresh FROM training_session s, generate_series(1, 125) n
				WHERE s.client_id = $1 AND s.planned_on < $2::date - 3),
			kept AS (INSERT INTO training_session (session_id, studio_id, client_id, name, planned_on, content, version, saved_by)
				SELECT fresh, studio_id, client_id, name, planned_on - 29 * n, content, 1, saved_by FROM old RETURNING session_id)
			INSERT INTO set_entry (entry_id, studio_id, client_id, session_id, slot_id, series, set_up, side, set_no, reps, load_kg,
				reserve, note, done_at, logged_by, faults, technical, mark, unsure, parts, hollow)
			SELECT gen_random_uuid(), e.studio_id, e.client_id, o.fresh, e.slot_id, e.series, e.set_up, e.side, e.set_no, e.reps,
				e.load_kg, e.reserve, '',
				e.done_at - make_interval(days => 29 * o.n), e.logged_by, e.faults, e.technical, e.mark, e.unsure,
				e.parts, e.hollow
			FROM set_entry e JOIN old o ON o.session_id = e.session_id`, demo.ClientID(name), now)
		if err != nil {
			return err
		}
		var sets int
		err = tx.Raw().QueryRow(context.Background(), "SELECT count(*) FROM set_entry WHERE client_id = $1",
			demo.ClientID(name)).Scan(&sets)
		require.Greater(b, sets, 40000)
		return err
	}))
	c := &caller{b, s.URL + "/api", s.signedIn(b, wren).http}
	for _, stale := range []bool{false, true} {
		b.Run(map[bool]string{false: "kept", true: "read_again"}[stale], func(b *testing.B) {
			c.call("GET", trendPath(name), nil)
			for b.Loop() {
				if stale {
					b.StopTimer()
					require.NoError(b, s.store.In(context.Background(), demo.Studio, func(tx *store.Tx) error {
						_, err := tx.Raw().Exec(context.Background(), "UPDATE client_reading SET stale = true")
						return err
					}))
					b.StartTimer()
				}
				require.Equal(b, 200, c.call("GET", trendPath(name), nil).status)
			}
		})
	}
}
