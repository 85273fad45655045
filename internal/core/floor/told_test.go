package floor

import (
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"

	"musculus/internal/core/movement"
)

var told0 = time.Date(2026, 11, 27, 18, 0, 0, 0, time.UTC)

func painAt(s, score int) Event {
	return Event{ID: uuid.New(), Kind: TellsPain, At: told0.Add(time.Duration(s) * time.Second),
		Content: Content{Pain: &PainTold{Side: "left", Joint: movement.Wrist, Score: score, When: "end"}}}
}

func swapAt(s, now int, j movement.Joint) Event {
	return Event{ID: uuid.New(), Kind: TellsSwap, At: told0.Add(time.Duration(s) * time.Second),
		Content: Content{Swap: &Swap{Kind: Lighter, Joint: j, Now: now}}}
}

// A swap answers a report of its joint that has settled in time, once; sent again it is itself.
func TestASwapAnswersAReport(t *testing.T) {
	hurt := painAt(0, 6)
	first := swapAt(60, 2, movement.Wrist)
	for name, c := range map[string]struct {
		swap   Event
		events []Event
		may    bool
	}{
		"settled in a minute": {first, []Event{hurt}, true},
		"sent again":          {first, []Event{hurt, first}, true},
		"settled to 3":        {swapAt(119, 3, movement.Wrist), []Event{hurt}, true},
		"not settled":         {swapAt(60, 4, movement.Wrist), []Event{hurt}, false},
		"too late":            {swapAt(121, 2, movement.Wrist), []Event{hurt}, false},
		"another joint":       {swapAt(60, 2, movement.ElbowBack), []Event{hurt}, false},
		"nothing hurt":        {first, nil, false},
		"one try was made":    {swapAt(300, 2, movement.Wrist), []Event{hurt, first, painAt(250, 5)}, false},
		"that try was taken back": {swapAt(300, 2, movement.Wrist), []Event{hurt, first, painAt(250, 5),
			{ID: uuid.New(), Kind: TellsUndone, Content: Content{Undone: &first.ID}}}, true},
	} {
		r, why := Answers(&c.swap, c.events)
		assert.Equal(t, c.may, why == "", "%s: %s", name, why)
		assert.Equal(t, c.may, r != nil, name)
	}
}

// What hurt stays told; what followed from it only whoever plans takes back.
func TestWhoTakesWhatBack(t *testing.T) {
	hurt, swap := painAt(0, 6), swapAt(60, 2, movement.Wrist)
	out := func(r Reason) Event {
		return Event{ID: uuid.New(), Kind: TellsLeftOut, Content: Content{LeftOut: &LeftOut{Sets: 1, Reason: r}}}
	}
	painful, late := out(ForPain), out(ForTime)
	line := Event{ID: uuid.New(), Kind: TellsLine, Content: Content{Line: "stay"}}
	all := []Event{hurt, swap, painful, late, line}
	for name, c := range map[string]struct {
		id            uuid.UUID
		anybody, plan bool
	}{
		"pain": {hurt.ID, false, false}, "a swap": {swap.ID, false, true}, "left out for pain": {painful.ID, false, true},
		"left out for time": {late.ID, true, true}, "a line": {line.ID, false, true}, "nothing": {uuid.New(), false, false},
	} {
		assert.Equal(t, c.anybody, MayUndo(all, c.id, false) == "", name)
		assert.Equal(t, c.plan, MayUndo(all, c.id, true) == "", name)
	}
	// Without the consent what is told of health is not seen, nor that it was why.
	seen := Seen(all, false)
	assert.Len(t, seen, 3)
	assert.Equal(t, ForNotToday, seen[0].LeftOut.Reason)
	assert.Equal(t, ForPain, painful.LeftOut.Reason, "what is kept is not touched")
	assert.Len(t, Seen(all, true), 5)
}

// Every event says what it is and nothing else, in words there are.
func TestAnEventIsHeldToItsKind(t *testing.T) {
	for _, c := range []struct {
		kind    string
		content Content
		faults  int
	}{
		{TellsLine, Content{Line: "stay at 14"}, 0},
		{TellsLine, Content{Line: " "}, 1},
		{TellsLine, Content{Line: "x", End: &End{}}, 1},
		{TellsEnd, Content{End: &End{Felt: []string{"biceps_long"}}}, 0},
		{TellsEnd, Content{End: &End{Felt: []string{"calf"}}}, 1},
		{TellsLeftOut, Content{LeftOut: &LeftOut{Reason: "bored"}}, 1},
		{TellsPain, Content{Pain: &PainTold{Joint: "knee", Side: "left"}}, 1},
		{TellsPain, Content{Pain: &PainTold{Joint: movement.Wrist}}, 1},
		{TellsPain, Content{Pain: &PainTold{Flags: []string{"surgery"}}}, 1},
		{TellsPain, Content{Pain: &PainTold{Flags: []string{"snap", "nerve"}}}, 0},
	} {
		assert.Len(t, c.content.Check(c.kind), c.faults, "%s %+v", c.kind, c.content)
	}
}
