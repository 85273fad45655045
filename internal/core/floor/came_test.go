package floor

import (
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/entry"
)

// What was done counts as it was done; of a session that is over the rest is not done, of
// today's only what was left out, with its reason.
func TestWhatASessionCameTo(t *testing.T) {
	tr := trainee(t, ample()...)
	s := session(slotOf("curl_standing_bar", 3), slotOf("pushdown_rope", 2))
	for i := range s.Slots {
		s.Slots[i].ID = uuid.New()
	}
	done := []entry.Entry{{SlotID: s.Slots[0].ID, SetUp: s.Slots[0].SetUp, Side: entry.BothSides, SetNo: 1, Reps: 10, Reserve: 2}}
	left := []Event{{Kind: TellsLeftOut, Content: Content{LeftOut: &LeftOut{Slot: s.Slots[1].ID, Sets: 2, Reason: ForTime}}}}
	var sum Sum
	assert.Nil(t, sum.CameOf(tr, &Ran{Session: s}), "it is to come")
	assert.False(t, sum.Began)
	today := sum.CameOf(tr, &Ran{Session: s, Entries: done, Events: left})
	require.NotNil(t, today)
	assert.Equal(t, [2]int{1, 5}, [2]int{today.Sets, today.Planned})
	assert.Equal(t, "not done: 2 of "+s.Slots[1].SetUp.Short()+" (no time)", today.Words)
	whole := tr.Count(s)
	for h := range sum.Done {
		assert.LessOrEqual(t, sum.Done[h]+sum.Undone[h], whole.Heads[h].Mid+1e-9)
	}
	var past Sum
	over := past.CameOf(tr, &Ran{Session: s, Over: true, Entries: done, Events: left})
	assert.Contains(t, over.Words, "2 of "+s.Slots[0].SetUp.Short())
	for h := range past.Done {
		assert.InDelta(t, whole.Heads[h].Mid, past.Done[h]+past.Undone[h], 2e-3, "done and not done are all of it")
	}
}

// What was told is told again in words, and what was taken back is not.
func TestWhatWasToldInWords(t *testing.T) {
	slot := uuid.New()
	name := func(uuid.UUID) string { return "curl" }
	for want, e := range map[string]Event{
		"It hurt in curl: left, wrist, 5 of 10, suddenly (Jory).": {By: "Jory", Content: Content{
			Pain: &PainTold{Slot: slot, Side: "left", Joint: "wrist", Score: 5, Sudden: true}}},
		"2 sets of curl left out: no time (the client).": {ByLink: true, Content: Content{
			LeftOut: &LeftOut{Slot: slot, Sets: 2, Reason: ForTime}}},
		"After pain curl went on otherwise, with at least 3 left (Jory).": {By: "Jory", Content: Content{
			Swap: &Swap{Slot: slot, Reserve: 3}}},
		"At the end: 8 of 10 hard, 4 of 5 good, “fine” (Jory).": {By: "Jory", Content: Content{
			End: &End{Hard: 8, Good: 4, Note: "fine"}}},
		"": {Content: Content{Line: "stay"}},
	} {
		assert.Equal(t, want, e.Words(name))
	}
	first := uuid.New()
	events := []Event{{ID: first, Kind: TellsLeftOut, Content: Content{LeftOut: &LeftOut{Slot: slot, Sets: 1}}},
		{ID: uuid.New(), Kind: TellsUndone, Content: Content{Undone: &first}}}
	assert.Empty(t, Standing(events))
	assert.Len(t, Standing(events[:1]), 1)
}
