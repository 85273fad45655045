package request

import (
	"context"
	"log/slog"
	"time"

	"github.com/google/uuid"

	"musculus/internal/store"
)

// noting bounds how many notes are under way, and how long one takes.
const (
	mostNotes = 64
	noteTime  = 5 * time.Second
)

var notes = make(chan struct{}, mostNotes)

// NoteSecurity keeps what concerns a studio's safety, in its log and in the server's;
// whoever asks does not wait for it, so that nothing can be told by how long it takes.
func NoteSecurity(ctx context.Context, s *store.Store, now time.Time, studio uuid.UUID, e store.SecurityEvent) {
	e.Address, e.At = AddressOf(ctx), now
	account := ""
	if e.Account != nil {
		account = e.Account.String()
	}
	slog.LogAttrs(ctx, slog.LevelInfo, "security", slog.String("studio", studio.String()), slog.String("account", account),
		slog.String("what", e.What), slog.String("about", e.About), slog.String("address", e.Address))
	if studio == uuid.Nil || s == nil {
		return
	}
	Later(ctx, s, studio, func(ctx context.Context, tx *store.Tx) error { return tx.NoteSecurity(ctx, e) })
}

// Later writes a note in a studio after the answer; where too many wait it is let go,
// the server's own log has it.
func Later(ctx context.Context, s *store.Store, studio uuid.UUID, do func(context.Context, *store.Tx) error) {
	select {
	case notes <- struct{}{}:
	default:
		return
	}
	go func() {
		defer func() { <-notes }()
		ctx, cancel := context.WithTimeout(context.WithoutCancel(ctx), noteTime)
		defer cancel()
		if err := s.In(ctx, studio, func(tx *store.Tx) error { return do(ctx, tx) }); err != nil {
			slog.Warn("a note was not kept", "err", err.Error())
		}
	}()
}
