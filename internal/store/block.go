package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/block"
	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
	"musculus/internal/store/db"
)

// Block is a block as it is kept.
type Block struct {
	block.Block
	Version int
	Ended   bool
	Saved   uuid.UUID // by whom
	SavedBy string
	SavedAt time.Time
	// Faults are what of its turn can no longer be done: nothing can be made of it then.
	Faults []*movement.FieldError
}

// BlockSession is a session of a block as it is in the plan, and as the block wrote it.
type BlockSession struct {
	block.Made
	Session Session
	Decided int // decisions that it held when it was written
	Sets    int // logged
}

// StaleBlock says that somebody saved in between; nothing was written.
type StaleBlock struct{ Current Block }

func (s *StaleBlock) Error() string {
	return "the block was saved by " + s.Current.SavedBy + " in between"
}

// AddBlock begins a block; sending it twice begins it once. ErrTaken: the id is another one's,
// or another block runs.
func (t *Tx) AddBlock(ctx context.Context, client uuid.UUID, b *block.Block, by uuid.UUID, c *movement.Catalogue) error {
	content, err := json.Marshal(b)
	if err != nil {
		return err
	}
	n, err := t.q.AddBlock(ctx, db.AddBlockParams{BlockID: b.ID, ClientID: client, Content: content, StartsOn: b.Start,
		EndsOn: b.Last(), SavedBy: by})
	return once(n, err, func() (bool, error) {
		kept, err := t.Block(ctx, client, b.ID, c)
		if classify(err) == ErrNotFound {
			return false, nil
		}
		return err == nil && sameBlock(&kept.Block, b), err
	})
}

// sameBlock says whether two blocks are written the same.
func sameBlock(a, b *block.Block) bool {
	x, err := json.Marshal(a)
	y, err2 := json.Marshal(b)
	return err == nil && err2 == nil && string(x) == string(y)
}

// SaveBlock writes a block over the version it was read as; what is there already is no new
// version. A *StaleBlock error brings the one that is there instead.
func (t *Tx) SaveBlock(
	ctx context.Context,
	client uuid.UUID,
	b *block.Block,
	version int,
	by uuid.UUID,
	c *movement.Catalogue,
) error {
	kept, err := t.Block(ctx, client, b.ID, c)
	if err != nil || !kept.Ended && sameBlock(&kept.Block, b) {
		return err
	}
	content, err := json.Marshal(b)
	if err != nil {
		return err
	}
	n, err := t.q.SaveBlock(
		ctx,
		db.SaveBlockParams{BlockID: b.ID, ClientID: client, Version: version, Content: content, StartsOn: b.Start,
			EndsOn: b.Last(), SavedBy: by},
	)
	if err == nil && n == 0 {
		err = &StaleBlock{kept}
	}
	return err
}

// EndBlock ends a block with a day; one that is over is left alone.
func (t *Tx) EndBlock(ctx context.Context, client, id uuid.UUID, last day.Day, by uuid.UUID) error {
	_, err := t.q.EndBlock(ctx, db.EndBlockParams{BlockID: id, ClientID: client, Last: last, SavedBy: by})
	return err
}

// EndOver ends what is over by its days: another block may begin.
func (t *Tx) EndOver(ctx context.Context, client uuid.UUID) error { return t.q.EndBlocks(ctx, client) }

// Block returns a block of a client; ErrNotFound where there is none.
func (t *Tx) Block(ctx context.Context, client, id uuid.UUID, c *movement.Catalogue) (Block, error) {
	r, err := t.q.BlockByID(ctx, db.BlockByIDParams{BlockID: id, ClientID: client})
	if err != nil {
		return Block{}, err
	}
	return blockOf(db.BlocksRow(r), c)
}

// Blocks returns a client's blocks that are not over before a day, the earliest first.
func (t *Tx) Blocks(ctx context.Context, client uuid.UUID, since day.Day, c *movement.Catalogue) ([]Block, error) {
	rows, err := t.q.Blocks(ctx, db.BlocksParams{ClientID: client, Since: since})
	if err != nil {
		return nil, err
	}
	out := make([]Block, len(rows))
	for i := range rows {
		if out[i], err = blockOf(rows[i], c); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// blockOf reads a block. A session of it that can no longer be done stays unresolved: it is told
// when something is made of it.
func blockOf(r db.BlocksRow, c *movement.Catalogue) (Block, error) {
	out := Block{Version: r.Version, Ended: r.Ended, Saved: r.SavedBy, SavedBy: r.SavedByName, SavedAt: r.SavedAt}
	if err := json.Unmarshal(r.Content, &out.Block); err != nil {
		return out, err
	}
	for i := range out.Days {
		if c != nil {
			out.Faults = append(out.Faults, out.Days[i].Resolve(c)...)
		}
	}
	if last := r.EndsOn; r.Ended && last < out.Last() { // ended by hand: only the turns it had
		out.Turns = max(1, out.TurnOf(last)+1)
	}
	return out, nil
}

// SpanOf is the stretch of days a client's day is looked at with: a turn of her block, else its
// week.
func (t *Tx) SpanOf(ctx context.Context, client uuid.UUID, on day.Day) (week.Span, error) {
	rows, err := t.q.Blocks(ctx, db.BlocksParams{ClientID: client, Since: on - week.Days})
	if err != nil {
		return week.Span{}, err
	}
	var all []*block.Block
	for i := range rows {
		if rows[i].EndsOn < rows[i].StartsOn { // ended before it began
			continue
		}
		b, err := blockOf(rows[i], nil) // its days alone are asked for
		if err != nil {
			return week.Span{}, err
		}
		all = append(all, &b.Block)
	}
	return block.SpanOf(all, on), nil
}

// RunningBlocks are the clients of the studio whose block is not over.
func (t *Tx) RunningBlocks(ctx context.Context, today day.Day) ([]uuid.UUID, error) {
	return t.q.RunningBlocks(ctx, today)
}

// KeepMade keeps what a block wrote into a session.
func (t *Tx) KeepMade(ctx context.Context, client, of uuid.UUID, turn int, dayID uuid.UUID, decided int, s *plan.Planned) error {
	content, err := block.Write(s)
	if err != nil {
		return err
	}
	return t.q.KeepBlockSession(
		ctx,
		db.KeepBlockSessionParams{SessionID: s.ID, ClientID: client, BlockID: of, Turn: turn, DayID: dayID,
			Decided: decided, Content: content},
	)
}

// BlockSessions returns the sessions of a block, those taken out of the plan too. What of one can
// no longer be done is among its faults.
func (t *Tx) BlockSessions(ctx context.Context, of uuid.UUID, c *movement.Catalogue) ([]BlockSession, error) {
	rows, err := t.q.BlockSessions(ctx, of)
	if err != nil {
		return nil, err
	}
	out := make([]BlockSession, len(rows))
	for i := range rows {
		r := &rows[i]
		x := &out[i]
		if x.Session, err = session(r.TrainingSession, c); err != nil {
			return nil, err
		}
		if x.As, err = block.Read(r.Made); err != nil {
			return nil, err
		}
		x.As.Resolve(c)
		x.Turn, x.Day, x.Now, x.Removed, x.Missed = r.Turn, r.DayID, x.Session.Planned, x.Session.Removed, block.Way(r.Missed)
		x.Decided, x.Sets = r.Decided, r.Sets
		switch {
		case r.Sets > 0 && r.Over:
			x.Shut = "done"
		case r.Sets > 0:
			x.Shut = "begun"
		case r.Issued:
			x.Shut = "issued"
		}
	}
	return out, nil
}

// SayMissed keeps what was said of a day that was missed; saying the same again says it once,
// another thing is ErrTaken.
func (t *Tx) SayMissed(ctx context.Context, session uuid.UUID, way block.Way) error {
	n, err := t.q.SayMissed(ctx, db.SayMissedParams{SessionID: session, Missed: string(way)})
	if err == nil && n == 0 {
		err = ErrTaken
	}
	return err
}
