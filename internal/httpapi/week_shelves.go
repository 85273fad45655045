package httpapi

import (
	"context"
	"fmt"

	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/week"
)

// shelfKey is what the catalogue's shelf and what set-ups come to depend on.
type shelfKey struct {
	yardstick *effort.Yardstick
	stance    string
	catalogue *movement.Catalogue
}

type stocked struct {
	shelf *week.Shelf
	memo  *week.Memo
}

// mostShelves is how many bodies under how many stances are remembered.
const mostShelves = 200

// stock returns the shelf and the memo for a trainee's body and stance.
func (s *server) stock(ctx context.Context, t *week.Trainee) (*stocked, error) {
	key := shelfKey{t.Yardstick, fmt.Sprint(t.Stance.ID, t.Stance.Rules), movements(ctx)}
	return s.shelves.of(ctx, key, func(ctx context.Context) (*stocked, error) {
		return &stocked{week.Stock(movements(ctx), t.Yardstick, t.Stance), week.NewMemo(t.Yardstick, t.Stance)}, nil
	})
}
