package blocks

import (
	"context"
	"errors"
	"log/slog"
	"slices"
	"sync"

	"github.com/google/uuid"

	"musculus/internal/core/block"
	"musculus/internal/core/day"
	"musculus/internal/httpapi/op"
	"musculus/internal/httpapi/running"
	"musculus/internal/store"
)

// Maker makes turns ahead, for the background: once a day and client, for what a coach changes
// flows at once.
type Maker struct {
	place
	mu   sync.Mutex
	made map[uuid.UUID]day.Day
}

// NewMaker is one that has made nothing yet.
func NewMaker(s *op.Server) *Maker { return &Maker{place: place{s}, made: map[uuid.UUID]day.Day{}} }

// MakeAhead makes the sessions of every block's turn that begins within a week, with the loads of
// what was decided. What fails for one client holds up no other, and is tried again the next time.
func (m *Maker) MakeAhead(ctx context.Context) error {
	m.mu.Lock()
	defer m.mu.Unlock()
	return running.EachStudio(ctx, m.Server, func(in context.Context, st store.StudioNamed) error {
		var clients []uuid.UUID
		today := m.Day(in)
		err := m.Store.In(in, st.ID, func(tx *store.Tx) (err error) {
			clients, err = tx.RunningBlocks(in, today)
			return err
		})
		for _, client := range clients {
			if m.made[client] == today {
				continue
			}
			if err := m.makeAhead(in, client); err != nil && !errors.Is(err, store.ErrNotFound) {
				slog.Warn("a turn could not be made", "client", client, "error", err)
				continue
			}
			m.made[client] = today
		}
		return err
	})
}

// makeAhead makes what is due of one client's block; nothing that is there is touched.
func (s *place) makeAhead(ctx context.Context, client uuid.UUID) error {
	return s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		r, err := s.read(ctx, tx, client)
		if err != nil || r.block == nil || len(r.kept.Faults) > 0 {
			return err
		}
		steps := slices.DeleteFunc(r.flow(), func(x block.Step) bool { return x.What != block.Added })
		return s.write(ctx, tx, &r, steps, r.kept.Saved)
	})
}
