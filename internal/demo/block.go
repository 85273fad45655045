package demo

import (
	"context"

	"musculus/internal/core/block"
	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/store"
)

// Opening night of the lead's block: eight weeks, of which this is the sixth.
const (
	blockTurns = 8
	blockNow   = 5
)

// laid gives the lead the block that opening night decides, in its sixth week: what is planned for
// him is its turn, as hard as that week is.
func laid(ctx context.Context, tx *store.Tx, today day.Day) error {
	lead, coach := ClientID("Aurelio Finch"), id("account", SignIns[0].Email)
	all, err := tx.Sessions(ctx, lead, movement.Shipped)
	if err != nil {
		return err
	}
	var next []store.Session
	for i := range all {
		if all[i].On >= today {
			next = append(next, all[i])
		}
	}
	b := block.Block{ID: id("block", "Aurelio Finch"), Start: next[0].On.Monday() - blockNow*block.Week, Every: block.Week, Turns: blockTurns,
		Course: block.Course{From: 3, To: 1, Lighter: true, Change: block.Exchange}, At: blockNow}
	b.Ready = b.Start + blockTurns*block.Week
	for i := range next {
		s := &next[i]
		for k := range s.Slots {
			s.Slots[k].Each(func(r *plan.Row) { r.Reserve = b.Reserve(blockNow) })
		}
		if next[i], err = tx.SaveSession(ctx, *s, coach, id("write", "block", i), movement.Shipped); err != nil {
			return err
		}
	}
	plans := make([]plan.Planned, len(next))
	for i := range next {
		plans[i] = next[i].Planned
	}
	b.Days = block.PatternOf(plans, b.Start, b.Every, nil)
	decided, err := tx.Decisions(ctx, lead)
	if err != nil {
		return err
	}
	b.Decided = len(decided)
	if err := tx.AddBlock(ctx, lead, &b, coach, movement.Shipped); err != nil {
		return err
	}
	for i := range plans {
		if err := tx.KeepMade(ctx, lead, b.ID, b.TurnOf(plans[i].On), plans[i].ID, len(decided), &plans[i]); err != nil {
			return err
		}
	}
	return nil
}
