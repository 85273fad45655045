package plan_test

import (
	"math/rand/v2"
	"strings"
	"testing"

	"musculus/internal/core/plan"

	"github.com/stretchr/testify/assert"
)

func TestMatchingKeepsWhatWasKept(t *testing.T) {
	for _, c := range []struct {
		was, is string
		want    []int
	}{
		{"a b c", "a b c", []int{0, 1, 2}},
		{"a b c", "a x c", []int{0, 1, 2}},
		{"a b c", "b c", []int{1, 2}},
		{"a b c", "a b c d", []int{0, 1, 2, -1}},
		{"a b c", "n a b c", []int{-1, 0, 1, 2}},
		{"a b c", "c a b", []int{-1, 0, 1}},
		{"a a a", "a a", []int{0, 1}},
		{"", "a", []int{-1}},
		{"a b", "", []int{}},
		{"a b c d", "a y z d", []int{0, 1, 2, 3}},
	} {
		assert.Equal(t, c.want, plan.Match(strings.Fields(c.was), strings.Fields(c.is)), "%s → %s", c.was, c.is)
	}
}

// Nothing is matched twice, order is kept, and equal lists match whole.
func TestMatchingAnyLists(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	list := func() []string {
		out := make([]string, r.IntN(8))
		for i := range out {
			out[i] = string(rune('a' + r.IntN(4)))
		}
		return out
	}
	for range 2000 {
		was, is := list(), list()
		last := -1
		for _, at := range plan.Match(was, is) {
			if at >= 0 {
				assert.Greater(t, at, last)
				last = at
			}
		}
		for i, at := range plan.Match(was, was) {
			assert.Equal(t, i, at)
		}
	}
}
