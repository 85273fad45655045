package request

import (
	"context"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/httpapi/remember"
	"musculus/internal/store"
)

// Trail notes who opened what of a client: a line a day, however often.
type Trail struct {
	seen *remember.Memory[opening, bool]
}

// opening is one that was noted.
type opening struct {
	client, account uuid.UUID
	on              day.Day
	what            string
}

const mostOpenings = 50_000

// NewTrail is one that has noted nothing yet.
func NewTrail() *Trail { return &Trail{remember.New[opening, bool](mostOpenings, 0)} }

// Note notes an opening, after the answer.
func (t *Trail) Note(ctx context.Context, s *store.Store, a store.Account, client uuid.UUID, on day.Day, what string) {
	n := opening{client, a.ID, on, what}
	if _, ok := t.seen.Get(n); ok {
		return
	}
	t.seen.Put(n, true)
	Later(ctx, s, a.Studio, func(ctx context.Context, tx *store.Tx) error { return tx.NoteRead(ctx, client, a.ID, on, what) })
}
