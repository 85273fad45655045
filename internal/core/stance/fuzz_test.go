package stance_test

import (
	"testing"

	"musculus/internal/core/movement"
	"musculus/internal/core/stance"
)

// Whatever is written as a predicate: an error, or something that answers for any
// set-up, and the same each time.
func FuzzParse(f *testing.F) {
	for _, r := range stance.Shipped.Rules {
		f.Add(r.When.String())
	}
	for _, s := range []string{"((((((a", "not not not a", "abs(abs(x)) == 1", "a in [b, c] and (d or e)", "1+", "", "a == 1e999"} {
		f.Add(s)
	}
	fields := stance.FieldsOf(movement.Shipped.Get("curl_reclined").Default(), nil)
	f.Fuzz(func(t *testing.T, text string) {
		if len(text) > 10_000 {
			return
		}
		p, err := stance.Parse(text)
		if (p == nil) == (err == nil) {
			t.Fatalf("%v, %v", p, err)
		}
		if p == nil {
			return
		}
		if first := p.Holds(fields); p.Holds(fields) != first {
			t.Fatal("two answers")
		}
	})
}
