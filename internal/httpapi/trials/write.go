package trials

import (
	"context"
	"fmt"

	"github.com/google/uuid"

	"musculus/internal/core/block"
	"musculus/internal/core/plan"
	"musculus/internal/httpapi/op"
	"musculus/internal/httpapi/running"
	"musculus/internal/store"
)

func wrote(n int) string {
	if n == 1 {
		return "Written into 1 session to come."
	}
	return fmt.Sprintf("Written into %d sessions to come.", n)
}

// write changes the sessions to come that are open, and the turn of the block that runs.
func (s *place) write(
	ctx context.Context, tx *store.Tx, f *facts, by, write uuid.UUID, change func(*plan.Session, int) bool,
) (n int, err error) {
	shut, err := s.shut(ctx, tx, f)
	if err != nil {
		return 0, err
	}
	decided, err := tx.Decisions(ctx, f.c.ID)
	if err != nil {
		return 0, err
	}
	taken := store.TakenOf(decided, op.Movements(ctx))
	of, err := running.Of(ctx, tx, f.c.ID, f.today, f.t, taken)
	if err != nil {
		return 0, err
	}
	for i := range f.sessions {
		kept := f.sessions[i]
		if shut[kept.ID] || !change(&kept.Session, n) {
			continue
		}
		draft, err := s.Checked(ctx, &f.c, &kept.Planned)
		if err != nil {
			return n, err
		}
		draft.ClientID, draft.Version = f.c.ID, kept.Version
		saved, err := tx.SaveSession(ctx, draft, by, uuid.NewSHA1(write, append(kept.ID[:], byte(kept.Version))), op.Movements(ctx))
		if err != nil {
			return n, s.StaleProblem(ctx, tx, &f.c, err)
		}
		if m := madeOf(of, saved.ID); m != nil && !m.ByHand() { // it is the block's still
			if err := tx.KeepMade(ctx, f.c.ID, of.ID, m.Turn, m.Day, len(taken), &saved.Planned); err != nil {
				return n, err
			}
		}
		n++
	}
	if of == nil {
		return n, nil
	}
	for i := range of.Days {
		change(&of.Days[i].Session, i)
	}
	return n, tx.SaveBlock(ctx, f.c.ID, &of.Block.Block, of.Version, by, op.Movements(ctx))
}

// madeOf is a session as it was made of a block; nil for none.
func madeOf(of *running.Block, id uuid.UUID) *block.Made {
	if of != nil {
		for i := range of.Sessions {
			if of.Sessions[i].Now.ID == id {
				return &of.Sessions[i].Made
			}
		}
	}
	return nil
}

// shut are the sessions to come into which nothing is written any more: issued, or begun.
func (s *place) shut(ctx context.Context, tx *store.Tx, f *facts) (map[uuid.UUID]bool, error) {
	out := map[uuid.UUID]bool{}
	issues, err := tx.LatestIssues(ctx, f.c.ID, f.today, f.today+ahead)
	if err != nil {
		return nil, err
	}
	for i := range issues {
		out[issues[i].SessionID] = true
	}
	var ids []uuid.UUID
	for i := range f.sessions {
		ids = append(ids, f.sessions[i].ID)
	}
	done, err := tx.EntriesOf(ctx, ids, op.Movements(ctx))
	for id, entries := range done {
		out[id] = out[id] || len(entries) > 0
	}
	return out, err
}
