package httpapi

import (
	"context"
	"fmt"
	"sync"

	"musculus/internal/core/movement"
	"musculus/internal/core/week"
)

// shelves keeps the catalogue's shelf and what set-ups come to, for the bodies
// and stances seen last.
type shelves struct {
	mu sync.Mutex
	by map[shelfKey]*stocked
}

type shelfKey struct {
	yardstick any
	stance    string
	catalogue *movement.Catalogue
}

type stocked struct {
	shelf *week.Shelf
	memo  *week.Memo
}

// mostShelves bounds the memory; beyond it all are made anew.
const mostShelves = 200

// stock returns the shelf and the memo for a trainee's body and stance.
func (s *shelves) stock(ctx context.Context, t *week.Trainee) *stocked {
	s.mu.Lock()
	defer s.mu.Unlock()
	key := shelfKey{t.Yardstick, fmt.Sprint(t.Stance.ID, t.Stance.Rules), movements(ctx)}
	if found := s.by[key]; found != nil {
		return found
	}
	if s.by == nil || len(s.by) >= mostShelves {
		s.by = map[shelfKey]*stocked{}
	}
	made := &stocked{week.Stock(movements(ctx), t.Yardstick, t.Stance), week.NewMemo(t.Yardstick, t.Stance)}
	s.by[key] = made
	return made
}
