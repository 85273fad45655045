package entry_test

import (
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"

	"musculus/internal/core/entry"
)

// Told by two devices it is one set where everything is equal and little time lies between;
// else both are kept and the second is asked about.
func TestASetToldTwice(t *testing.T) {
	at := time.Date(2026, 11, 27, 18, 0, 0, 0, time.UTC)
	slot, other := uuid.New(), uuid.New()
	first := entry.Entry{ID: uuid.New(), SlotID: slot, Side: entry.Left, SetNo: 2, Reps: 10, LoadKg: 14, Reserve: 2, DoneAt: at,
		Parts: []entry.Part{{Kind: entry.Clean, Reps: 10}}}
	for name, c := range map[string]struct {
		change        func(*entry.Entry)
		same, twofold bool
	}{
		"the same a minute later":    {func(e *entry.Entry) { e.DoneAt = at.Add(time.Minute) }, true, false},
		"the same a minute earlier":  {func(e *entry.Entry) { e.DoneAt = at.Add(-time.Minute) }, true, false},
		"the same after ten minutes": {func(e *entry.Entry) { e.DoneAt = at.Add(10 * time.Minute) }, false, true},
		"other reps":                 {func(e *entry.Entry) { e.Reps = 9 }, false, true},
		"another load":               {func(e *entry.Entry) { e.LoadKg = 16 }, false, true},
		"other parts":                {func(e *entry.Entry) { e.Parts = nil }, false, true},
		"the other arm":              {func(e *entry.Entry) { e.Side = entry.Right }, false, false},
		"the next set":               {func(e *entry.Entry) { e.SetNo = 3 }, false, false},
		"another slot":               {func(e *entry.Entry) { e.SlotID = other }, false, false},
		"a correction":               {func(e *entry.Entry) { e.Replaces = &first.ID }, false, false},
	} {
		e := first
		e.ID = uuid.New()
		c.change(&e)
		same, two := entry.Doubled(&e, []entry.Entry{first})
		assert.Equal(t, c.same, same != nil, name)
		assert.Equal(t, c.twofold, two != nil, name)
	}
	e := first
	same, two := entry.Doubled(&e, []entry.Entry{first})
	assert.True(t, same == nil && two == nil, "sent again under its own id")
	assert.Equal(t, 3, entry.Free([]entry.Entry{first}, &entry.Entry{SlotID: slot, Side: entry.Left}))
	assert.Equal(t, 1, entry.Free([]entry.Entry{first}, &entry.Entry{SlotID: slot, Side: entry.Right}))
}
