// Package live tells whoever watches that something was told of a session, whichever process
// it was told to: PostgreSQL's notifications, once a process, spread to those who listen. It
// carries no content: who hears it reads again what she may read.
package live

import (
	"context"
	"log/slog"
	"strings"
	"sync"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5/pgxpool"
)

// Told is that something was told of a session.
type Told struct {
	Studio, Client, Session uuid.UUID
	// Gap says that something may have been missed: everything is to be read again.
	Gap bool
}

// channel is what the database notifies on (queries/floor.sql).
const channel = "floor"

// Hub spreads what is told to those who watch.
type Hub struct {
	mu       sync.Mutex
	watching map[chan Told]struct{}
	closed   chan struct{}
	once     sync.Once
}

// NewHub is a hub nobody listens to yet.
func NewHub() *Hub { return &Hub{watching: map[chan Told]struct{}{}, closed: make(chan struct{})} }

// Close ends what watches; Closed says so to them.
func (h *Hub) Close() { h.once.Do(func() { close(h.closed) }) }

// Closed is closed when nothing more is told.
func (h *Hub) Closed() <-chan struct{} { return h.closed }

// room is how much may wait for one who listens slowly; then she is told of a gap.
const room = 16

// Watch listens until stop is called.
func (h *Hub) Watch() (told <-chan Told, stop func()) {
	c := make(chan Told, room)
	h.mu.Lock()
	h.watching[c] = struct{}{}
	h.mu.Unlock()
	return c, func() {
		h.mu.Lock()
		delete(h.watching, c)
		h.mu.Unlock()
	}
}

// Tell spreads something; it waits for nobody.
func (h *Hub) Tell(t Told) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for c := range h.watching {
		if len(c) == room-1 { // the last place is for saying so
			t = Told{Studio: t.Studio, Gap: true}
		}
		select {
		case c <- t:
		default:
		}
	}
}

// again is how long a lost connection is waited for.
const again = time.Second

// Run listens to the database until the context ends; a connection that was lost is a gap.
func (h *Hub) Run(ctx context.Context, pool *pgxpool.Pool) {
	for ctx.Err() == nil {
		err := h.listen(ctx, pool)
		if ctx.Err() != nil {
			return
		}
		slog.WarnContext(ctx, "listening again", "error", err)
		select {
		case <-ctx.Done():
		case <-time.After(again):
		}
	}
}

func (h *Hub) listen(ctx context.Context, pool *pgxpool.Pool) error {
	pooled, err := pool.Acquire(ctx)
	if err != nil {
		return err
	}
	conn := pooled.Hijack() // it never goes back: it listens
	defer conn.Close(context.WithoutCancel(ctx))
	if _, err := conn.Exec(ctx, "LISTEN "+channel); err != nil {
		return err
	}
	h.Tell(Told{Gap: true})
	for {
		n, err := conn.WaitForNotification(ctx)
		if err != nil {
			return err
		}
		if t, ok := read(n.Payload); ok {
			h.Tell(t)
		}
	}
}

// read reads a notification: studio, client and session.
func read(payload string) (t Told, ok bool) {
	parts := strings.Fields(payload)
	if len(parts) != 3 {
		return t, false
	}
	for i, to := range []*uuid.UUID{&t.Studio, &t.Client, &t.Session} {
		id, err := uuid.Parse(parts[i])
		if err != nil {
			return t, false
		}
		*to = id
	}
	return t, true
}
