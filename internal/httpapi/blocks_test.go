package httpapi_test

import (
	"context"
	"slices"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/block"
	"musculus/internal/core/day"
	"musculus/internal/demo"
	"musculus/internal/httpapi/blocks"
	"musculus/internal/httpapi/op"
	weekapi "musculus/internal/httpapi/week"
	"musculus/internal/photos"
	"musculus/internal/store"
)

// blockOf is a draft of a block of eight weeks from a day, made of its week.
func blockOf(start string) map[string]any {
	return map[string]any{"id": newID(), "version": 0, "start": start, "every": 7, "turns": 8, "from": 3, "to": 1, "limit": false,
		"sets": 0, "lighter": true, "change": "kept", "dense": false, "take": start}
}

// changed is a draft with other fields.
func changed(d map[string]any, fields map[string]any) map[string]any {
	out := map[string]any{}
	for _, m := range []map[string]any{d, fields} {
		for k, v := range m {
			out[k] = v
		}
	}
	return out
}

func blockPath(name string) string { return "/clients/" + demo.ClientID(name).String() + "/block" }

func (c *caller) block(method, name string, body any) blocks.StripView {
	return got[blocks.StripView](c, 200, c.call(method, blockPath(name), body))
}

func (c *caller) week(name, of string) weekapi.WeekView {
	return got[weekapi.WeekView](c, 200, c.call("GET", "/clients/"+demo.ClientID(name).String()+"/week?of="+of, nil))
}

// later is the server some time on, for what happens in the background.
func (s *served) later(by time.Duration) *op.Server {
	return op.New(s.store, photos.Folder(""), func() time.Time { return now.Add(by) })
}

const lead = "Aurelio Finch"

// A block is looked at, laid, and flows: what is free follows, what was changed by hand stays and
// is told, nothing is written twice. Decisions go into what is made later.
func TestABlock(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	assert.Nil(t, c.block("GET", lead, nil).Block)
	draft := blockOf("2026-11-23")

	seen := c.block("POST", lead, draft)
	require.Len(t, seen.Turns, 8)
	require.Len(t, seen.Lengths, 5)
	assert.Equal(t, "3 left", seen.Turns[0].Effort)
	assert.Equal(t, "lighter: half the sets, 3 left", seen.Turns[7].Effort)
	made := slices.DeleteFunc(slices.Clone(seen.Steps), func(x blocks.StepView) bool { return x.What != block.Added })
	assert.NotEmpty(t, made, "next week's sessions would be made")
	assert.Nil(t, c.block("GET", lead, nil).Block, "a look keeps nothing")
	assert.Empty(t, c.week(lead, "2026-11-30").Sessions)

	laid := c.block("PUT", lead, draft)
	require.NotNil(t, laid.Block)
	assert.Equal(t, 1, laid.Block.Version)
	assert.Equal(t, 0, laid.Block.Now)
	again := c.block("PUT", lead, draft)
	assert.Equal(t, laid, again, "sent again it is the same")
	next := c.week(lead, "2026-11-30")
	require.Len(t, next.Sessions, len(made))
	for _, x := range next.Sessions {
		for i := range x.Slots {
			assert.LessOrEqual(t, x.Slots[i].Rows[0].Reserve, 3)
		}
	}
	assert.Equal(t, len(made), laid.Turns[1].Made)
	assert.Zero(t, laid.Turns[1].ByHand)
	assert.Equal(t, 409, c.call("PUT", blockPath(lead), changed(draft, map[string]any{"id": newID()})).status, "one runs")
	assert.Equal(t, 409, c.call("PUT", blockPath(lead), changed(draft, map[string]any{"turns": 6, "take": nil})).status, "an old version")

	// One session is changed by hand; then the block is made shorter: it stays, the others follow.
	p := "/clients/" + demo.ClientID(lead).String() + "/sessions/" + next.Sessions[0].ID.String()
	own := changed(sessionDraft(c, p), map[string]any{"name": "Only this once"})
	require.Equal(t, 200, c.call("PUT", p, own).status)
	assert.Equal(t, 1, c.block("GET", lead, nil).Turns[1].ByHand)
	shorter := changed(draft, map[string]any{"turns": 4, "version": 1, "from": 2, "to": 0})
	delete(shorter, "take")
	steps := c.block("POST", lead, shorter).Steps
	for _, x := range steps {
		if x.Name == "Only this once" {
			assert.Equal(t, block.Stays, x.What)
			assert.Equal(t, "changed by hand", x.Why)
		}
	}
	laid = c.block("PUT", lead, shorter)
	assert.Equal(t, 2, laid.Block.Version)
	assert.Len(t, laid.Turns, 4)
	assert.Equal(t, "Only this once", c.week(lead, "2026-11-30").Sessions[0].Name)

	// Two weeks on the background makes the turn after the next, once.
	for range 2 {
		maker := blocks.NewMaker(s.later(9 * 24 * time.Hour))
		require.NoError(t, maker.MakeAhead(context.Background()))
		require.NoError(t, maker.MakeAhead(context.Background()))
	}
	assert.Len(t, c.week(lead, "2026-12-07").Sessions, len(made))
	assert.Equal(t, len(made), c.block("GET", lead, nil).Turns[2].Made)

	ended := got[blocks.StripView](c, 200, c.call("POST", blockPath(lead)+"/end", map[string]any{"id": draft["id"]}))
	assert.Nil(t, ended.Block)
	assert.Len(t, c.week(lead, "2026-12-07").Sessions, len(made), "what was made stays")
}

// sessionDraft is a session as it is saved.
func sessionDraft(c *caller, path string) map[string]any { return draft(c, path) }

// A block that begins on another day, or is a rotation, is looked at turn by turn; its targets
// are a part of a week's.
func TestARotationIsCountedByItsTurns(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	week := c.week(lead, "2026-11-25")
	assert.True(t, week.IsWeek)
	draft := changed(blockOf("2026-11-25"), map[string]any{"every": 5, "turns": 6, "take": "2026-11-25"})
	fits := c.call("PUT", blockPath(lead), draft)
	require.Equal(t, 422, fits.status, "its days lie before the start: %s", fits.body)
	ahead := changed(blockOf("2026-12-09"), map[string]any{"take": "2026-11-25"})
	c.block("PUT", lead, ahead)
	assert.Equal(t, "2026-12-09", c.week(lead, "2026-12-10").From)
	require.Equal(t, 200, c.call("POST", blockPath(lead)+"/end", map[string]any{"id": ahead["id"]}).status)
	assert.True(t, c.week(lead, "2026-12-10").IsWeek, "ended before it began, it shapes no days")
	draft = changed(blockOf("2026-11-23"), map[string]any{"every": 10, "turns": 4})
	c.block("PUT", lead, draft)
	turn := c.week(lead, "2026-11-26")
	assert.Equal(t, [3]string{"2026-11-23", "2026-12-02", "2026-12-03"}, [3]string{turn.From, turn.To, turn.After})
	assert.False(t, turn.IsWeek)
	require.Len(t, turn.Days, 10)
	for h := range turn.Ledger.Heads {
		assert.InDelta(t, week.Ledger.Heads[h].From*10/7, turn.Ledger.Heads[h].From, 1e-3)
	}
	assert.Equal(t, week.Ledger.MostGroup*10/7, turn.Ledger.MostGroup)
}

// What a block cannot be is told where it is wrong.
func TestBlocksThatCannotBe(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	for at, fields := range map[string]map[string]any{
		"body.turns":  {"turns": 9},
		"body.every":  {"every": 11},
		"body.to":     {"from": 1, "to": 2},
		"body.start":  {"start": "2026-11-02"},
		"body.dense":  {"dense": true},
		"body.ready":  {"ready": "2026-12-24"},
		"body.take":   {"take": nil},
		"body.days":   {"take": "2027-06-01"},
		"body.change": {"change": "sometimes"},
	} {
		d := changed(blockOf("2026-11-23"), fields)
		for k, v := range d {
			if v == nil {
				delete(d, k)
			}
		}
		p := got[problem](c, 422, c.call("POST", blockPath(lead), d))
		assert.Contains(t, p.locations(), at)
	}
	d := changed(blockOf("2026-11-23"), map[string]any{"ready": "2026-12-10"})
	delete(d, "start")
	assert.Contains(t, got[problem](c, 422, c.call("POST", blockPath(lead), d)).locations(), "body.turns", "too near")
	d["ready"] = "2027-02-05"
	assert.Equal(t, day.Of(2026, 12, 11), c.block("POST", lead, d).Block.Start, "backwards from the date")
}

// A missed day is dropped, moved or folded in; once, and what it was made into stays.
func TestAMissedDay(t *testing.T) {
	s := openHistories(t)
	c := s.signedIn(t, wren)
	draft := blockOf("2026-11-23")
	const lead = "Tobias Quill"
	c.block("PUT", lead, draft)
	var first uuid.UUID
	require.NoError(t, s.store.In(context.Background(), demo.Studio, func(tx *store.Tx) error { // its Monday was missed
		return tx.Raw().QueryRow(context.Background(), `UPDATE training_session SET planned_on = '2026-11-24' WHERE session_id =
			(SELECT b.session_id FROM block_session b JOIN training_session t USING (session_id) WHERE b.client_id = $1 AND t.planned_on >= '2026-11-25'
				AND t.planned_on < '2026-11-30' ORDER BY t.planned_on LIMIT 1)
			RETURNING session_id`, demo.ClientID(lead)).Scan(&first)
	}))
	v := c.block("GET", lead, nil)
	require.Len(t, v.Missed, 1)
	assert.Equal(t, "yesterday", v.Missed[0].When)
	ways := map[block.Way]blocks.WayOut{}
	for _, w := range v.Missed[0].Ways {
		ways[w.Way] = w
	}
	assert.Contains(t, ways[block.Drop].Costs, "in effective sets")
	say := func(way string) answer {
		return c.call("POST", blockPath(lead)+"/missed", map[string]any{"session": first, "way": way})
	}
	require.Equal(t, 200, say("slide").status)
	assert.Empty(t, c.block("GET", lead, nil).Missed)
	require.Equal(t, 200, say("slide").status, "said again")
	assert.Equal(t, 409, say("drop").status)
	found := false
	for _, x := range c.week(lead, "2026-11-23").Sessions {
		found = found || x.ID == first && x.On >= day.Of(2026, 11, 25)
	}
	assert.True(t, found)
}
