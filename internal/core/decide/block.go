package decide

import (
	"fmt"

	"github.com/google/uuid"

	"musculus/internal/core/block"
)

// varietyOf is how soon set-ups change in a block, by what of it may.
var varietyOf = map[block.Change]string{block.Kept: "keep", block.Exchange: "rotate", block.Varied: "often"}

// lighterWithin is from how many days before it the calendar's lighter turn is asked about.
const lighterWithin = 7

// inBlock tells the client what the block she is in says: how soon set-ups change, whether its
// lighter turn is on, and what of it is not lighter yet; and which sessions it made lighter.
func (c *Client) inBlock(f *Facts, lighter map[uuid.UUID]bool) {
	if f.Block == nil {
		return
	}
	b := &f.Block.Block
	now := b.TurnOf(f.Today)
	if now >= 0 {
		c.Variety = varietyOf[b.Change]
	}
	last := b.Turns - 1
	if !b.IsLighter(last) {
		return
	}
	full := 0
	for i := range f.Block.Made {
		m := &f.Block.Made[i]
		switch {
		case m.Turn != last || m.Removed:
		case m.IsLight():
			lighter[m.Now.ID] = true
		case m.Now.On >= f.Today && !lighter[m.Now.ID] && m.Shut != "done" && m.Shut != "begun":
			full++
		}
	}
	if start := b.Date(last, 0); full > 0 && f.Today >= start-lighterWithin {
		c.Calendar = fmt.Sprintf(
			"The block’s %s, from %s, is a lighter one; %s not.",
			b.TurnName(last),
			start.Words(),
			areSessions(full),
		)
	}
	c.Lighter = c.Lighter || now == last && full == 0
}

func areSessions(n int) string {
	if n == 1 {
		return "1 session of it is"
	}
	return fmt.Sprintf("%d sessions of it are", n)
}

// InBlock is the block a client is in, with what was made of it.
type InBlock struct {
	block.Block
	Made []block.Made
}
