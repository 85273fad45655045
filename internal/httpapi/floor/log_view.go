package floor

import (
	"context"
	"fmt"

	"github.com/google/uuid"

	"musculus/internal/core/entry"
	"musculus/internal/core/log"
	"musculus/internal/core/person"
	"musculus/internal/core/stance"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// LogView is the log of one session.
type LogView struct {
	Session string   `json:"session"`
	When    string   `json:"when"`
	Blocked string   `json:"blocked"` // why the client may not train, empty if she may
	Came    string   `json:"came"`    // what it came to against the plan, in words
	Told    []string `json:"told"`    // what was told beside sets, in words
	// Referral is for whoever examines what hurt, empty where nothing did over 3.
	Referral string         `json:"referral"`
	Slots    []view.LogSlot `json:"slots"`
}

// logRead is what a session's log is shown from.
type logRead struct {
	doneRead
	past map[string][]entry.Entry // the last of each series that is shown
}

func readLog(ctx context.Context, tx *store.Tx, c *store.Client, kept store.Session) (r logRead, err error) {
	if r.doneRead, err = readDone(ctx, tx, c, kept); err != nil {
		return r, err
	}
	entries := r.entries
	planned := &kept.Session
	var keys []string
	for i := range planned.Slots {
		keys = append(keys, planned.Slots[i].SetUpOf(0).Key())
	}
	for i := range entries {
		if entries[i].Unsure && entries[i].SetUp.Movement != nil {
			keys = append(keys, entries[i].SetUp.Key())
		}
	}
	r.past, err = tx.LastOfSeries(ctx, c.ID, keys, op.Movements(ctx))
	return r, err
}

func (s *place) showLog(ctx context.Context, r *logRead) (LogView, error) {
	c, kept, entries, past := r.c, r.kept, r.entries, r.past
	t, err := s.Trainee(c) // what is audited is not shown here
	if err != nil {
		return LogView{}, err
	}
	session, err := s.ViewSession(ctx, t, c, kept)
	if err != nil {
		return LogView{}, err
	}
	planned := &kept.Session
	out := LogView{Session: kept.Name, When: session.When, Blocked: s.Blocked(c), Slots: []view.LogSlot{}, Told: []string{}}
	out.Came = log.Words(planned, log.Counting(entries))
	s.showTold(&out, r)
	index := map[uuid.UUID]int{}
	for i, slot := range session.Slots {
		index[slot.ID] = i
		set := planned.Slots[i].SetUp
		line := view.LogSlot{
			ID:        slot.ID,
			Planned:   true,
			Title:     slot.Title,
			Details:   slot.Details,
			Slice:     slot.Glyph.Slice,
			DoseWords: slot.DoseWords,
			LoadWords: slot.LoadWords,
			LoadLabel: person.CarryOf(set).Label(set, c.Room().UnitOf(set)),
			Unit:      string(c.Room().UnitOf(set)),
			Sets:      planned.Slots[i].Sets(),
			Sides:     sideWords(log.Sides(&planned.Slots[i])),
			Entries:   []view.EntryView{},
			Ticks:     view.TicksOf(set),
			Cautions:  slot.Cautions,
		}
		first := planned.Slots[i].SetUpOf(0)
		line.Last = view.LastTime(eyes(c, s.DayOf(c)), first, kept.ID, past[first.Key()])
		out.Slots = append(out.Slots, line)
	}
	for _, e := range entries {
		i, there := index[e.SlotID]
		if !there { // the slot was taken out of the plan after it was done
			i = len(out.Slots)
			index[e.SlotID] = i
			out.Slots = append(
				out.Slots,
				view.LogSlot{ID: e.SlotID, Title: e.SetUp.Title(), Details: e.SetUp.Details(), Slice: view.BiasSlice(e.SetUp, &stance.Reading{}),
					LoadLabel: person.CarryOf(e.SetUp).Label(e.SetUp, c.Room().UnitOf(e.SetUp)), Unit: string(c.Room().UnitOf(e.SetUp)),
					Sides: sideWords(log.SidesOf(e.SetUp)), Entries: []view.EntryView{}, Ticks: view.TicksOf(e.SetUp), Cautions: e.SetUp.Cautions()},
			)
		}
		v := view.EntryOf(eyes(c, s.DayOf(c)), e)
		if v.By = byLink; e.By != nil {
			v.By = r.names[*e.By]
		}
		if e.TwiceOf != nil {
			v.Unsure = view.AskTwice
		} else if e.Unsure {
			if v.Unsure, _ = s.doubt(c, kept, &e, v.WholeKg, past[e.SetUp.Key()]); v.Unsure == "" {
				v.Unsure = "Was it so?"
			}
		}
		if i < len(planned.Slots) && planned.Slots[i].Differs() {
			v.Grip = e.SetUp.Title()
		}
		out.Slots[i].Entries = append(out.Slots[i].Entries, v)
	}
	for i := range out.Slots {
		l := &out.Slots[i]
		l.Entered = enteredWords(l)
		if i >= len(planned.Slots) {
			i = -1 // it was taken out of the plan
		}
		l.Next = view.NextOf(eyes(c, s.DayOf(c)), l.Sides, l.Sets, planned, i, of(log.Counting(entries), l.ID), op.Floor(c))
	}
	return out, nil
}

// showTold tells what was told beside sets.
func (s *place) showTold(out *LogView, r *logRead) {
	short := func(id uuid.UUID) string {
		for i := range r.kept.Slots {
			if r.kept.Slots[i].ID == id {
				return r.kept.Slots[i].SetUp.Short()
			}
		}
		return "a slot that is gone"
	}
	for i := range r.events {
		if words := r.events[i].Words(short); words != "" {
			out.Told = append(out.Told, words)
		}
	}
	out.Referral = r.referral()
}

// of are the entries of one slot.
func of(entries []entry.Entry, slot uuid.UUID) (out []entry.Entry) {
	for _, e := range entries {
		if e.SlotID == slot {
			out = append(out, e)
		}
	}
	return out
}

// enteredWords tells how many entries there are of those planned: one a set and
// side.
func enteredWords(l *view.LogSlot) string {
	if !l.Planned {
		return fmt.Sprint(len(l.Entries))
	}
	return fmt.Sprintf("%d / %d", len(l.Entries), l.Sets*len(l.Sides))
}
