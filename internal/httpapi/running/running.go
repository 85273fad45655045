// Package running reads the block a client is in, for the places that look at it.
package running

import (
	"context"
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/block"
	"musculus/internal/core/day"
	"musculus/internal/core/decide"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// Block is a block that runs or is to come, with the sessions that were made of it.
type Block struct {
	store.Block
	Sessions []store.BlockSession
}

// Of reads the block of a client that is not over on a day; nil for none. taken are her decisions.
func Of(
	ctx context.Context,
	tx *store.Tx,
	client uuid.UUID,
	today day.Day,
	t *week.Trainee,
	taken []decide.Taken,
) (*Block, error) {
	all, err := tx.Blocks(ctx, client, today, op.Movements(ctx))
	if err != nil {
		return nil, err
	}
	i := slices.IndexFunc(all, func(b store.Block) bool { return !b.Ended })
	if i < 0 {
		return nil, nil
	}
	out := &Block{Block: all[i]}
	return out, out.read(ctx, tx, t, taken)
}

// read reads what was made of it.
func (b *Block) read(ctx context.Context, tx *store.Tx, t *week.Trainee, taken []decide.Taken) (err error) {
	if b.Sessions, err = tx.BlockSessions(ctx, b.ID, op.Movements(ctx)); err != nil {
		return err
	}
	b.Sessions = slices.DeleteFunc(b.Sessions, func(s store.BlockSession) bool { return len(s.Session.Faults) > 0 })
	for i := range b.Sessions {
		x := &b.Sessions[i]
		after := x.As.Session
		decide.Carry(
			t,
			taken[min(x.Decided, len(taken)):],
			&after,
			func(d *decide.Taken) bool { return slices.Contains(d.Wrote, x.Now.ID) },
		)
		x.After = &after
	}
	return nil
}

// Made are its sessions as the core reads them.
func (b *Block) Made() []block.Made {
	out := make([]block.Made, len(b.Sessions))
	for i := range b.Sessions {
		out[i] = b.Sessions[i].Made
	}
	return out
}

// In is the block as decisions read it; nil for none.
func (b *Block) In() *decide.InBlock {
	if b == nil {
		return nil
	}
	return &decide.InBlock{Block: b.Block.Block, Made: b.Made()}
}

// Carry writes what was decided since a block's turn was planned into what is made of it; a
// lighter week is over when it is over.
func Carry(t *week.Trainee, b *block.Block, taken []decide.Taken) block.Carry {
	return func(_ *block.Day, s *plan.Session) {
		decide.Carry(t, taken[min(b.Decided, len(taken)):], s, func(d *decide.Taken) bool { return d.Kind != decide.LighterWeek })
	}
}
