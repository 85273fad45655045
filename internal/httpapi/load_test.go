package httpapi_test

import (
	"net/http"
	"net/http/cookiejar"
	"os"
	"slices"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
)

// reads are what a studio of two hundred clients asks for most, and how often a second
// it is asked here.
var reads = []struct {
	name   string
	each   int // a second
	path   func(client string) string
	gzipKB float64 // most of one answer, compressed; 0: not held
}{
	{"client", 200, func(c string) string { return "/clients/" + c }, 0},
	{"week", 200, func(c string) string { return "/clients/" + c + "/week" }, 0},
	{"dossier", 200, func(c string) string { return "/clients/" + c + "/dossier" }, 0},
	{"trend", 100, func(c string) string { return "/clients/" + c + "/trend" }, 0},
	{"today", 20, func(string) string { return "/today" }, 0},
	{"wall", 20, func(string) string { return "/clients" }, 0},
	{"library", 100, func(string) string { return "/library" }, 60},
}

// BenchmarkReads asks for each of them at its rate, load and server on the same cores,
// and reports how long whoever asks waits: the median and the 99th percentile, ms. One
// iteration is one request. With MUSCULUS_AT it asks the demo that serves there, so
// that two builds can be held against each other.
func BenchmarkReads(b *testing.B) {
	at := os.Getenv("MUSCULUS_AT")
	if at == "" {
		at = open(b).URL
	}
	jar, err := cookiejar.New(nil)
	require.NoError(b, err)
	c := &caller{b, at + "/api", &http.Client{Jar: jar, Transport: &http.Transport{MaxIdleConnsPerHost: 100}}}
	require.Equal(b, 200, c.call("POST", "/sign-in", map[string]any{"email": wren.Email, "password": wren.Password}).status)
	clients := manyClients(c, 208)
	for _, r := range reads {
		b.Run(r.name, func(b *testing.B) {
			var mu sync.Mutex
			var took []float64
			var wait sync.WaitGroup
			for _, client := range clients { // a server that has been up for a while
				wait.Go(func() { c.call("GET", r.path(client), nil) })
			}
			wait.Wait()
			tick := time.NewTicker(time.Second / time.Duration(r.each))
			defer tick.Stop()
			b.ResetTimer()
			for i := range b.N {
				<-tick.C
				wait.Go(func() {
					began := time.Now()
					a := c.call("GET", r.path(clients[i%len(clients)]), nil)
					ms := float64(time.Since(began).Microseconds()) / 1000
					if a.status != 200 {
						b.Errorf("status %d: %s", a.status, a.body)
					}
					mu.Lock()
					took = append(took, ms)
					mu.Unlock()
				})
			}
			wait.Wait()
			slices.Sort(took)
			b.ReportMetric(took[len(took)/2], "ms-median")
			b.ReportMetric(took[len(took)*99/100], "ms-p99")
			b.ReportMetric(0, "ns/op")
			if r.gzipKB > 0 {
				kb := float64(compressed(b, c, r.path(clients[0]))) / 1024
				b.ReportMetric(kb, "kB")
				require.Less(b, kb, r.gzipKB)
			}
		})
	}
}

// manyClients fills the studio up to so many clients, each with a week of her own, and
// returns their ids.
func manyClients(c *caller, most int) (ids []string) {
	list := func() []struct{ ID string } {
		return got[struct{ Clients []struct{ ID string } }](c, 200, c.call("GET", "/clients", nil)).Clients
	}
	template := newID()
	aurelio := demo.ClientID("Aurelio Finch").String()
	week := got[struct{ From string }](c, 200, c.call("GET", "/clients/"+aurelio+"/week", nil))
	keep := map[string]any{"client": aurelio, "of": week.From, "name": "for many"}
	require.Equal(c.t, 204, c.call("PUT", "/templates/"+template, keep).status)
	for range most - len(list()) {
		id := newID()
		require.Equal(c.t, 200, c.call("POST", "/clients", map[string]any{"id": id, "name": "Client " + id[len(id)-6:]}).status)
		laid := got[struct{ Sessions []map[string]any }](c, 200, c.call("POST", "/clients/"+id+"/templates/"+template+"?of="+week.From, nil))
		body := map[string]any{"sessions": writes(laid.Sessions), "sure": true}
		a := c.call("PUT", "/clients/"+id+"/week", body)
		require.Equal(c.t, 200, a.status, a.body)
	}
	for _, one := range list() {
		ids = append(ids, one.ID)
	}
	return ids
}

// compressed is how many bytes an answer is on the way.
func compressed(b *testing.B, c *caller, path string) int {
	r, err := http.NewRequest("GET", c.base+path, nil)
	require.NoError(b, err)
	r.Header.Set("Accept-Encoding", "gzip") // asked for by hand: it stays as it came
	answer, err := c.http.Do(r)
	require.NoError(b, err)
	defer answer.Body.Close()
	n := 0
	buf := make([]byte, 32<<10)
	for {
		k, err := answer.Body.Read(buf)
		n += k
		if err != nil {
			return n
		}
	}
}
