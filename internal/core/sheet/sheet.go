// Package sheet is the client's document as it left: what it asks for, as facts, and
// the words it was told in. Two sheets are compared by their facts, so that the words
// can be improved without an issued sheet ever seeming to have changed. What a sheet
// looks like is not its business.
package sheet

import (
	"encoding/json"
	"fmt"
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
)

// Version is that of the sheets written now. Those of version 1 were words alone.
const Version = 2

// Facts are what a sheet asks for.
type Facts struct {
	plan.Planned
	// Loads are the whole loads of each slot's rows, rung by rung, kg, as the room had
	// them then; nil where nobody knows any more.
	Loads [][][]float64 `json:"loads,omitempty"`
}

// Document is a sheet as it is kept.
type Document struct {
	Version int             `json:"version"`
	Facts   *Facts          `json:"facts,omitempty"` // nil in version 1
	Words   json.RawMessage `json:"words"`           // as they were read, pictures included
}

// Of are the facts of a session in a room.
func Of(p *plan.Planned, f *plan.Floor) Facts {
	out := Facts{Planned: *p, Loads: make([][][]float64, len(p.Slots))}
	out.Slots = slices.Clone(p.Slots)
	out.Settle(f)
	for i := range p.Slots {
		set := 0
		for k := range p.Slots[i].Rows {
			out.Loads[i] = append(out.Loads[i], append([]float64{}, p.Loads(i, set, f)...))
			set += p.Slots[i].Rows[k].Each()
		}
	}
	return out
}

// Write writes a document of facts and words.
func Write(facts Facts, words any) ([]byte, error) {
	b, err := json.Marshal(words)
	if err != nil {
		return nil, err
	}
	return json.Marshal(Document{Version, &facts, b})
}

// Read reads a document of any version, the set-ups of its facts from a catalogue.
// Facts that can no longer be read are none: the words stay.
func Read(b []byte, c *movement.Catalogue) (Document, error) {
	var kept Document
	if err := json.Unmarshal(b, &kept); err != nil {
		return kept, err
	}
	switch kept.Version {
	case 0:
		return Document{Version: 1, Words: b}, nil
	case Version:
		if kept.Facts != nil && len(kept.Facts.Resolve(c)) > 0 {
			kept.Facts = nil
		}
		return kept, nil
	}
	return kept, fmt.Errorf("a sheet of version %d is not read here, only up to %d", kept.Version, Version)
}

// Changes tells what differs from one sheet to another, a line a change; f is what
// loads are told for where the sheets do not say them.
func Changes(was, is *Facts, f *plan.Floor) []string {
	out := []string{}
	say := func(format string, args ...any) { out = append(out, fmt.Sprintf(format, args...)) }
	if was.On != is.On {
		say("Moved from %s to %s.", was.On.Long(), is.On.Long())
	}
	if was.Name != is.Name {
		say("Now called %s.", is.Name)
	}
	if was.WarmUpMin != is.WarmUpMin {
		say("Warm-up: %s, before: %s.", is.WarmUpWords(), was.WarmUpWords())
	}
	matched := match(was, is)
	gone := map[int]bool{}
	for j := range was.Slots {
		gone[j] = true
	}
	order := false
	for i, j := range matched {
		if j < 0 {
			say("New: %s, %s.", title(&is.Slots[i]), is.DoneWords(i))
			continue
		}
		delete(gone, j)
		order = order || i != j
		for _, line := range differ(was, is, i, j, f) {
			say("%s: %s", is.Slots[i].SetUp.Title(), line)
		}
	}
	for j := range was.Slots {
		if gone[j] {
			say("Gone: %s.", title(&was.Slots[j]))
		}
	}
	if order && len(was.Slots) == len(is.Slots) && len(out) == 0 {
		say("Another order.")
	}
	return out
}

func title(s *plan.Slot) string {
	if d := s.SetUp.Details(); d != "" {
		return s.SetUp.Title() + ", " + d
	}
	return s.SetUp.Title()
}

// match says for each slot which of the other sheet's it is, −1 for a new one: the
// same slot with the same set-up, else another one with it.
func match(was, is *Facts) []int {
	out, taken := make([]int, len(is.Slots)), map[int]bool{}
	for i := range is.Slots {
		out[i] = -1
	}
	for _, same := range []func(a, b *plan.Slot) bool{
		func(a, b *plan.Slot) bool { return a.ID == b.ID && a.ID != uuid.Nil && a.SetUp.Key() == b.SetUp.Key() },
		func(a, b *plan.Slot) bool { return a.SetUp.Key() == b.SetUp.Key() },
	} {
		for i := range is.Slots {
			for j := range was.Slots {
				if out[i] < 0 && !taken[j] && same(&is.Slots[i], &was.Slots[j]) {
					out[i], taken[j] = j, true
				}
			}
		}
	}
	return out
}

// differ tells what differs between two states of one slot.
func differ(was, is *Facts, i, j int, f *plan.Floor) (out []string) {
	a, b := &was.Slots[j], &is.Slots[i]
	sets := max(a.Sets(), b.Sets()) // more or fewer of them are one change; what they were holds on
	unlike := func(of func(f *Facts, i, set int) any) bool {
		for n := range sets {
			if of(was, j, n) != of(is, i, n) {
				return true
			}
		}
		return false
	}
	for _, part := range []struct {
		name   string
		differ bool
		is     string
		was    string
	}{
		{"sets", a.Sets() != b.Sets() || unlike(done), is.DoneWords(i), was.DoneWords(j)},
		{"load", loads(was, is, i, j), is.LoadWords(i, f), was.LoadWords(j, f)},
		{"effort", unlike(func(f *Facts, i, n int) any { return f.Slots[i].DoseOf(n).Reserve }), b.EffortWords(), a.EffortWords()},
		{"rest", unlike(func(f *Facts, i, n int) any { return f.RestAfter(i, f.Slots[i].RowOf(n)) }), is.RestWords(i), was.RestWords(j)},
		{"tempo", unlike(func(f *Facts, i, n int) any { return f.Slots[i].DoseOf(n).Tempo }), b.TempoWords(), a.TempoWords()},
		{"grips", unlike(func(f *Facts, i, n int) any { return f.Slots[i].SetUpOf(n).Key() }), orSame(b.GripWords()), orSame(a.GripWords())},
		{"begins", a.Starts != b.Starts, orSame(b.StartsWords()), orSame(a.StartsWords())},
	} {
		if part.differ {
			out = append(out, fmt.Sprintf("%s %s, before %s.", part.name, part.is, part.was))
		}
	}
	if !slices.Equal(a.Cues, b.Cues) {
		out = append(out, "other cues.")
	}
	return out
}

// done is what is done in a set, and in turns with what.
func done(f *Facts, i, set int) any {
	d := f.Slots[i].DoseOf(set)
	return [...]any{d.RepsLow, d.RepsHigh, d.SecondsLow, d.SecondsHigh, d.Method, d.Word, f.TurnsOf(i).Kind}
}

// loads says whether a slot's loads differ: as they were told where both say so, else
// as they were asked for.
func loads(was, is *Facts, i, j int) bool {
	a, b := &was.Slots[j], &is.Slots[i]
	for n := range max(a.Sets(), b.Sets()) {
		x, y := a.RowOf(n), b.RowOf(n)
		if was.Loads != nil && is.Loads != nil {
			if !slices.Equal(was.Loads[j][x], is.Loads[i][y]) {
				return true
			}
		} else if !a.Asked(x).Same(b.Asked(y)) {
			return true
		}
	}
	return false
}

// orSame tells what differs from set to set or arm to arm, where nothing does.
func orSame(words string) string {
	if words == "" {
		return "all the same"
	}
	return words
}
