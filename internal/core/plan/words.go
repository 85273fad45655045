package plan

import (
	"fmt"
	"slices"
	"strings"

	"musculus/internal/core/dose"
	"musculus/internal/core/series"
)

// WarmUpWords tells the general warm-up for the client.
func (s *Session) WarmUpWords() string {
	if s.WarmUpMin == 0 {
		return "no general warm-up"
	}
	return fmt.Sprintf("%g min easy warm-up", s.WarmUpMin)
}

// Ramped is the slot whose working load is led up to: the first that has a load
// to lead up to; −1 for none.
func (s *Session) Ramped() int {
	return slices.IndexFunc(s.Slots, func(x Slot) bool { return len(dose.Ramp(x.SetUpIn(0), &x.First().Dose)) > 0 })
}

// RampWords tells what leads up to the first working load: "then bar 20 kg × 8";
// inParts where loads are kept from the client. "" for nothing.
func (s *Session) RampWords(f *Floor, inParts bool) string {
	i := s.Ramped()
	if i < 0 {
		return ""
	}
	first := s.Slots[i].SetUpIn(0)
	hand := s.Hand(i, 0, f)
	if inParts {
		hand = nil
	}
	return fmt.Sprintf("%s (%s)", dose.RampWords(first, &s.Slots[i].First().Dose, f.Rack(first), hand), first.Title())
}

// Words tells a slot in one line, without the load.
func (s *Session) Words(i int) string {
	out := fmt.Sprintf("%s · %s · %s", s.DoneWords(i), s.Slots[i].reserveWords(), s.RestWords(i))
	if s.Slots[i].paced() {
		out += " · " + s.Slots[i].TempoWords()
	}
	return out
}

// DoneWords tells sets, reps and methods as they are done: "3 × 8–12", "3 × 8–12
// each arm" where arms have their turns, "2 × 8–12; then 1 × 8–12, drops, …".
func (s *Session) DoneWords(i int) string {
	slot := &s.Slots[i]
	arms := slot.Arms()
	var out []string
	for _, alike := range slot.runs(func(a, b *Row) bool {
		return a.RepsLow == b.RepsLow && a.RepsHigh == b.RepsHigh && a.SecondsLow == b.SecondsLow &&
			a.SecondsHigh == b.SecondsHigh && a.Method == b.Method && a.Word == b.Word
	}) {
		d := alike.first.Dose
		d.Sets = alike.sets
		out = append(out, d.DoneWords(arms))
	}
	words := strings.Join(out, "; then ")
	switch slot.Starts {
	case LeftOnly:
		words += ", left arm alone"
	case RightOnly:
		words += ", right arm alone"
	}
	if n := slot.climb(); n > 0 {
		words += fmt.Sprintf(", pyramid, %d steps a set", n)
	}
	if turns := s.TurnsOf(i).Words(); turns != "" {
		words += ", " + turns
	}
	return words
}

// climb is by how many real steps every set is heavier than the one before, 0 where
// they do not climb evenly.
func (s *Slot) climb() int {
	by := 0
	for k := 1; k < len(s.Rows); k++ {
		l := s.Rows[k].Load
		if s.Rows[k].Sets != 1 || s.Rows[0].Sets != 1 || l == nil || l.Steps == nil || *l.Steps%k != 0 || by != 0 && *l.Steps/k != by {
			return 0
		}
		by = *l.Steps / k
	}
	return max(by, 0)
}

// run is rows next to each other that are alike in something.
type run struct {
	first *Row
	from  int // its first set, counted from 0
	sets  int
}

func (s *Slot) runs(alike func(a, b *Row) bool) []run {
	var out []run
	from := 0
	for i := range s.Rows {
		r := &s.Rows[i]
		if last := len(out) - 1; last >= 0 && alike(out[last].first, r) {
			out[last].sets += r.Sets
		} else {
			out = append(out, run{r, from, r.Sets})
		}
		from += r.Each()
	}
	return out
}

// told joins what is told of each run of rows, once where all are told alike.
func told(runs []run, words func(r *Row) string) string {
	var out []string
	for _, r := range runs {
		out = append(out, words(r.first))
	}
	return strings.Join(out, ", then ")
}

func sameReserve(a, b *Row) bool { return a.Reserve == b.Reserve }

// perSet lists what is left set by set.
func (s *Slot) perSet() string {
	var list []string
	for n := range s.Sets() {
		list = append(list, fmt.Sprint(s.DoseOf(n).Reserve))
	}
	return strings.Join(list, ", ")
}

func (s *Slot) reserveWords() string {
	switch {
	case len(s.runs(sameReserve)) > 1:
		return s.perSet() + " left"
	case s.First().Reserve == 0:
		return "to the limit"
	}
	return fmt.Sprintf("%d left", s.First().Reserve)
}

// EffortWords tells the effort for the client.
func (s *Slot) EffortWords() string {
	if len(s.runs(sameReserve)) > 1 {
		return "set by set, stop with " + s.perSet() + " reps left"
	}
	return s.First().EffortWords()
}

// RestWords tells the rest after each set.
func (s *Session) RestWords(i int) string {
	if first, last := s.Members(i); first != last {
		return dose.RestWords(s.RestAfter(i, 0))
	}
	return told(s.Slots[i].runs(func(a, b *Row) bool { return a.RestS == b.RestS }), func(r *Row) string { return dose.RestWords(r.RestS) })
}

func (s *Slot) paced() bool {
	return slices.ContainsFunc(s.Rows, func(r Row) bool { return r.Tempo.Total() > 0 })
}

// TempoWords tells the tempo.
func (s *Slot) TempoWords() string {
	return told(s.runs(func(a, b *Row) bool { return a.Tempo == b.Tempo }), func(r *Row) string { return r.TempoWords() })
}

// LastWords tells what a slot's last row has of its own, so that it stands out: "1 ×
// 8–12, drops"; "" where it is like the row before, or the only one.
func (s *Session) LastWords(i int) string {
	slot := &s.Slots[i]
	n := len(slot.Rows)
	if n < 2 {
		return ""
	}
	last, before := &slot.Rows[n-1], &slot.Rows[n-2]
	if last.Method == before.Method && last.Reserve == before.Reserve && last.RepsLow == before.RepsLow &&
		last.RepsHigh == before.RepsHigh && last.IsHold() == before.IsHold() && last.SetUp == before.SetUp {
		return ""
	}
	out := last.DoneWords(slot.Arms())
	if last.Reserve != before.Reserve {
		out += ", " + last.EffortWords()
	}
	return out
}

// ComboWords tells how slots in turns are done, at the first of them: "a pair, opposing
// muscles: no rest between them, 90 s after each round"; "" at any other.
func (s *Session) ComboWords(i int) string {
	first, last := s.Members(i)
	c := s.ComboOf(s.Slots[i].Combo)
	if first == last || i != first || c == nil {
		return ""
	}
	kind := strings.TrimPrefix(s.TurnsOf(last).Words(), "in turns, ")
	out := CountWords(last - first + 1)
	if kind != "in turns" {
		out += ", " + kind
	}
	between := "straight on"
	if c.BetweenS > 0 {
		between = dose.RestWords(c.BetweenS) + " between them"
	}
	out += ": " + between + ", " + dose.RestWords(c.AfterS) + " after each round"
	if c.Loads == OneLoad {
		out += ", one load for all"
	}
	return out
}

// StartsWords tells the client which arm begins, "" where both work together.
func (s *Slot) StartsWords() string {
	switch {
	case s.Starts == LeftOnly:
		return "the left arm alone"
	case s.Starts == RightOnly:
		return "the right arm alone"
	case !s.TakesTurns():
		return ""
	case s.Starts == StartsLeft:
		return "left arm first, the right does no more"
	case s.Starts == StartsRight:
		return "right arm first, the left does no more"
	}
	return "take turns in which arm begins"
}

// GripWords tells the set-up set by set, "" where it is one.
func (s *Slot) GripWords() string {
	if !s.Differs() {
		return ""
	}
	var out []string
	at := 0
	for from := 0; from < s.Sets(); from = at {
		set := s.SetUpOf(from)
		for at = from + 1; at < s.Sets() && s.SetUpOf(at).Key() == set.Key(); {
			at++
		}
		words := fmt.Sprintf("set %d: %s", from+1, set.Title())
		if at-from > 1 {
			words = fmt.Sprintf("sets %d–%d: %s", from+1, at, set.Title())
		}
		if d := set.Details(); d != "" {
			words += ", " + d
		}
		out = append(out, words)
	}
	return strings.Join(out, "; ")
}

// LoadWords tells a slot's loads as they are read on the floor: rung by rung or row
// by row where they change.
func (s *Session) LoadWords(i int, f *Floor) string {
	slot := &s.Slots[i]
	if slot.climb() > 0 {
		var all []float64
		for n := range slot.Sets() {
			all = append(all, s.Loads(i, n, f)...)
		}
		if len(all) > 0 {
			return slot.First().LoadWords(slot.SetUp, f.Rack(slot.SetUp), all)
		}
	}
	var out []string
	n := 0
	for k := range slot.Rows {
		words := s.rowLoadWords(i, k, n, f)
		n += slot.Rows[k].Each()
		if len(out) == 0 || out[len(out)-1] != words {
			out = append(out, words)
		}
	}
	if len(out) == 0 {
		return series.FindWords
	}
	return strings.Join(out, "; then ")
}

// RowLoadWords tells the load of one row.
func (s *Session) RowLoadWords(i, row int, f *Floor) string {
	set := 0
	for k := range row {
		set += s.Slots[i].Rows[k].Each()
	}
	return s.rowLoadWords(i, row, set, f)
}

// rowLoadWords tells the load of a row whose first set is the given one.
func (s *Session) rowLoadWords(i, row, set int, f *Floor) string {
	slot := &s.Slots[i]
	l, hand := slot.Asked(row), s.Hand(i, row, f)
	setUp := slot.SetUpIn(row)
	rack := f.Rack(setUp)
	if hand == nil {
		return findWords(l)
	}
	whole := rack.Carry.Whole(*hand, rack.Rigging)
	loads := s.Loads(i, set, f)
	if l == nil || l.Find { // the one load there is: how many reps it gives is what is to be found
		return fmt.Sprintf("%s, as many as leave %d", rack.Words(whole), max(leaveToFind, slot.Rows[row].Reserve))
	}
	if len(loads) == 0 {
		return rack.Words(whole)
	}
	return slot.Rows[row].LoadWords(setUp, rack, loads)
}

// leaveToFind is how many reps are left where the reps are to be found, not the load.
const leaveToFind = 2

// findWords tells a load that is not known yet.
func findWords(l *dose.Load) string {
	switch {
	case l == nil || l.Find:
		return series.FindWords
	case l.Share != 0:
		return fmt.Sprintf("%.0f %% of what you found", 100*l.Share)
	case l.Steps != nil:
		return fmt.Sprintf("%+d steps from what you found", *l.Steps)
	case l.Combo:
		return "one load for all: " + series.FindWords
	}
	return series.FindWords
}
