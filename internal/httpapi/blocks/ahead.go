package blocks

import (
	"context"
	"errors"
	"log/slog"
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/block"
	"musculus/internal/core/day"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// Maker makes turns ahead, for the background: once a day and client, for what a coach changes
// flows at once.
type Maker struct {
	place
	made map[uuid.UUID]day.Day
}

// NewMaker is one that has made nothing yet.
func NewMaker(s *op.Server) *Maker { return &Maker{place{s}, map[uuid.UUID]day.Day{}} }

// MakeAhead makes the sessions of every block's turn that begins within a week, with the loads of
// what was decided. What fails for one client holds up no other, and is tried again the next time.
func (m *Maker) MakeAhead(ctx context.Context) error {
	s := m.Server
	studios, err := s.Store.Studios(ctx)
	if err != nil {
		return err
	}
	for _, st := range studios {
		own, err := s.OwnOfStudio(ctx, st.ID)
		if err != nil {
			return err
		}
		in := op.InStudioOf(ctx, store.Account{Studio: st.ID, Role: store.Owner}, own)
		var running []uuid.UUID
		err = s.Store.In(in, st.ID, func(tx *store.Tx) error {
			running, err = tx.RunningBlocks(in, s.Day(in))
			return err
		})
		if err != nil {
			return err
		}
		today := s.Day(in)
		for _, client := range running {
			if m.made[client] == today {
				continue
			}
			if err := m.makeAhead(in, client); err != nil && !errors.Is(err, store.ErrNotFound) {
				slog.Warn("a turn could not be made", "client", client, "error", err)
				continue
			}
			m.made[client] = today
		}
	}
	return nil
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
