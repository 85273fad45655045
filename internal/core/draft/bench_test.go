package draft

import (
	"fmt"
	"testing"
)

// widest is the made client with the most to look at: the whole room, two days.
const widest = 10

func benchClient(b *testing.B) (*Client, *Ask) {
	b.Helper()
	cl, ask, err := Made(1, widest)
	if err != nil {
		b.Fatal(err)
	}
	return cl, ask
}

// What may be used for a client, every movement looked at and tuned.
func BenchmarkStock(b *testing.B) {
	for b.Loop() {
		cl, _ := benchClient(b)
		Stock(cl)
	}
}

// The three weeks of each stage, of the client with the most to look at.
func BenchmarkCompose(b *testing.B) {
	cl, ask := benchClient(b)
	d := Build(cl, Stock(cl), ask)
	for _, stage := range []Stage{First, More, Final} {
		b.Run(fmt.Sprintf("%s of %d candidates on %d days", stage, len(d.Candidates), len(d.Days)), func(b *testing.B) {
			for b.Loop() {
				d.Compose(stage, 0, nil, nil)
			}
		})
	}
}
