package remember

import (
	"context"
	"errors"
	"sync"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
)

// What many ask for at once is made once; who asks for something else does not wait
// for it; who goes away is let go; an error is not remembered.
func TestWhatIsRememberedIsMadeOnce(t *testing.T) {
	r := New[string, int](2, 0)
	var made atomic.Int64
	release := make(chan struct{})
	slow := func(context.Context) (int, error) {
		made.Add(1)
		<-release
		return 7, nil
	}
	var all sync.WaitGroup
	for range 20 {
		all.Go(func() {
			v, err := r.Of(t.Context(), "slow", slow)
			assert.NoError(t, err)
			assert.Equal(t, 7, v)
		})
	}
	quick, err := r.Of(t.Context(), "quick", func(context.Context) (int, error) { return 1, nil })
	assert.NoError(t, err)
	assert.Equal(t, 1, quick, "nobody waits for what others ask for")
	gone, cancel := context.WithCancel(t.Context())
	cancel()
	_, err = r.Of(gone, "slow", slow)
	assert.ErrorIs(t, err, context.Canceled)
	close(release)
	all.Wait()
	assert.EqualValues(t, 1, made.Load())
	for range 2 {
		_, err = r.Of(t.Context(), "bad", func(context.Context) (int, error) { made.Add(1); return 0, errors.New("no") })
		assert.Error(t, err)
	}
	assert.EqualValues(t, 3, made.Load())
	for i := range 10 {
		_, _ = r.Of(t.Context(), string(rune('a'+i)), func(context.Context) (int, error) { return i, nil })
	}
	assert.Equal(t, 2, r.kept.Len(), "there is a bound")
}
