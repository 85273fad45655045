package store

import (
	"context"
	"sync/atomic"
	"time"

	"github.com/jackc/pgx/v5"
)

// Spent is what a request asked of the database.
type Spent struct {
	queries atomic.Int64
	nanos   atomic.Int64
}

// Queries is how many round trips there were, and Time how long they took.
func (s *Spent) Queries() int64      { return s.queries.Load() }
func (s *Spent) Time() time.Duration { return time.Duration(s.nanos.Load()) }

type spentKey struct{}

type beganKey struct{}

// Watch returns a context whose queries are counted into Spent.
func Watch(ctx context.Context) (context.Context, *Spent) {
	s := &Spent{}
	return context.WithValue(ctx, spentKey{}, s), s
}

// watcher is the pool's tracer: it counts for whoever watches.
type watcher struct{}

func begin(ctx context.Context) context.Context {
	if ctx.Value(spentKey{}) == nil {
		return ctx
	}
	return context.WithValue(ctx, beganKey{}, time.Now())
}

func end(ctx context.Context) {
	s, watched := ctx.Value(spentKey{}).(*Spent)
	began, ok := ctx.Value(beganKey{}).(time.Time)
	if watched && ok {
		s.queries.Add(1)
		s.nanos.Add(int64(time.Since(began)))
	}
}

func (watcher) TraceQueryStart(ctx context.Context, _ *pgx.Conn, _ pgx.TraceQueryStartData) context.Context {
	return begin(ctx)
}

func (watcher) TraceQueryEnd(ctx context.Context, _ *pgx.Conn, _ pgx.TraceQueryEndData) { end(ctx) }

func (watcher) TraceBatchStart(ctx context.Context, _ *pgx.Conn, _ pgx.TraceBatchStartData) context.Context {
	return begin(ctx)
}

func (watcher) TraceBatchQuery(context.Context, *pgx.Conn, pgx.TraceBatchQueryData) {}

func (watcher) TraceBatchEnd(ctx context.Context, _ *pgx.Conn, _ pgx.TraceBatchEndData) { end(ctx) }
