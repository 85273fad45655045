// Package remember keeps what was made for those who ask next.
package remember

import (
	"context"
	"fmt"
	"time"

	"github.com/hashicorp/golang-lru/v2/expirable"
	"golang.org/x/sync/singleflight"
)

// Memory keeps what was made for those who ask next, so many and for so long.
// What several ask for at once is made once, and nobody waits for what others ask
// for: nothing is made under a lock.
type Memory[K comparable, V any] struct {
	kept   *expirable.LRU[K, V]
	making singleflight.Group
}

// longestMaking bounds what is made for others too, who did not ask to wait.
const longestMaking = 20 * time.Second

// New makes a memory of at most so many; lasts 0: until others take its place.
func New[K comparable, V any](most int, lasts time.Duration) *Memory[K, V] {
	return &Memory[K, V]{kept: expirable.NewLRU[K, V](most, nil, lasts)}
}

// Of returns what is remembered under a key, made by whoever asks first. Whoever goes
// away leaves the making to those who still wait; an error is not remembered.
func (r *Memory[K, V]) Of(ctx context.Context, key K, make func(context.Context) (V, error)) (V, error) {
	if v, ok := r.kept.Get(key); ok {
		return v, nil
	}
	answer := r.making.DoChan(fmt.Sprint(key), func() (any, error) {
		if v, ok := r.kept.Get(key); ok { // it was made just now
			return v, nil
		}
		ctx, cancel := context.WithTimeout(context.WithoutCancel(ctx), longestMaking)
		defer cancel()
		v, err := make(ctx)
		if err == nil {
			r.kept.Add(key, v)
		}
		return v, err
	})
	var none V
	select {
	case a := <-answer:
		if a.Err != nil {
			return none, a.Err
		}
		return a.Val.(V), nil
	case <-ctx.Done():
		return none, ctx.Err()
	}
}

// Forget lets what is remembered under a key be made anew.
func (r *Memory[K, V]) Forget(key K) { r.kept.Remove(key) }

// Get is what is remembered under a key, if anything.
func (r *Memory[K, V]) Get(key K) (V, bool) { return r.kept.Get(key) }

// Put lets something be remembered that was made elsewhere.
func (r *Memory[K, V]) Put(key K, v V) { r.kept.Add(key, v) }
