package blocks

import (
	"fmt"
	"strings"

	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/block"
	"musculus/internal/core/day"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
	"musculus/internal/httpapi/running"
	"musculus/internal/view"
)

// StripView is a block as the strip above the board shows it; Block is absent where none runs.
type StripView struct {
	Block   *BlockView   `json:"block,omitempty"`
	Turns   []TurnView   `json:"turns"`
	Lengths []LengthView `json:"lengths"` // the same block shorter or longer, to be dragged to
	Missed  []MissedView `json:"missed"`
	Steps   []StepView   `json:"steps"` // of a preview: what would be written, and what stays
	Faults  string       `json:"faults"`
}

// BlockView is the block itself.
type BlockView struct {
	BlockDraft
	Last   day.Day `json:"last" format:"date"`
	Words  string  `json:"words"`
	Grade  string  `json:"grade"` // how well what may change is supported
	Now    int     `json:"now"`   // the turn of today; −1 outside
	Begun  bool    `json:"begun"`
	Caveat string  `json:"caveat"`
}

// TurnView is one turn.
type TurnView struct {
	Name     string         `json:"name"`
	From     day.Day        `json:"from" format:"date"`
	To       day.Day        `json:"to" format:"date"`
	Reserve  int            `json:"reserve"`
	Effort   string         `json:"effort"`
	Lighter  bool           `json:"lighter"`
	Slice    view.SliceView `json:"slice"`
	Sets     int            `json:"sets"`    // hard and easy ones
	Made     int            `json:"made"`    // sessions that are in the plan
	ByHand   int            `json:"by_hand"` // of them changed by hand
	Sessions []AheadView    `json:"sessions"`
}

// AheadView is a session as the block has it.
type AheadView struct {
	Name  string   `json:"name"`
	On    day.Day  `json:"on" format:"date"`
	Made  bool     `json:"made"`
	Slots []string `json:"slots"`
}

// LengthView is the block in another length.
type LengthView struct {
	Turns []LengthTurn `json:"turns"`
	Last  day.Day      `json:"last" format:"date"`
	Past  bool         `json:"past"` // it would run past the date to be ready for
}

// LengthTurn is one turn of it.
type LengthTurn struct {
	Reserve int            `json:"reserve"`
	Effort  string         `json:"effort"`
	Lighter bool           `json:"lighter"`
	Slice   view.SliceView `json:"slice"`
}

// MissedView is a day that was missed, with the ways there are.
type MissedView struct {
	Session uuid.UUID `json:"session"`
	Name    string    `json:"name"`
	When    string    `json:"when"`
	Ways    []WayOut  `json:"ways"`
}

// WayOut is one way, with what it costs.
type WayOut struct {
	Way   block.Way `json:"way" enum:"slide,drop,fold"`
	Says  string    `json:"says"`
	Costs string    `json:"costs"`
}

// StepView is what becomes of one session.
type StepView struct {
	What block.What `json:"what" enum:"alike,changed,made,gone,stays"`
	Name string     `json:"name"`
	On   day.Day    `json:"on" format:"date"`
	Turn string     `json:"turn"`
	Says []string   `json:"says"` // what changes in it
	Why  string     `json:"why"`
}

const caveat = "Near a date sets may get denser; no fat loss is promised from it. " +
	"No diagnosis: local rules and licensed practice come first."

// show views a block as it was read, or as it would be.
func (r *read) show(steps []block.Step) StripView {
	out := StripView{Turns: []TurnView{}, Lengths: []LengthView{}, Missed: []MissedView{}, Steps: []StepView{}}
	if r.block == nil {
		return out
	}
	if r.kept != nil && len(r.kept.Faults) > 0 && r.adopts == nil {
		out.Faults = "Nothing more is made of the block: " + r.kept.Faults[0].Reason + ". Take another week as its turn."
		return out
	}
	b := r.block
	carry := running.Carry(r.t, b, r.taken)
	out.Block = &BlockView{BlockDraft: draftOf(b), Last: b.Last(), Words: b.Words(), Grade: b.Change.Grade(), Now: b.TurnOf(r.today),
		Begun: b.Start <= r.today, Caveat: caveat}
	if r.kept != nil && r.kept.ID == b.ID {
		out.Block.Version = r.kept.Version
	}
	for k, sessions := range b.All(r.t, carry) {
		out.Turns = append(out.Turns, r.turn(k, sessions))
	}
	for n := block.FewestTurns; n <= block.MostTurns; n++ {
		other := *b
		other.Turns = n
		v := LengthView{Turns: []LengthTurn{}, Last: other.Last(), Past: b.Ready != 0 && other.Last() >= b.Ready}
		for k, sessions := range other.All(r.t, carry) {
			slice, _ := r.slice(other.TurnName(k), sessions)
			v.Turns = append(v.Turns, LengthTurn{other.Reserve(k), other.EffortWords(k), other.IsLighter(k), slice})
		}
		out.Lengths = append(out.Lengths, v)
	}
	for _, m := range b.Missed(r.t, r.made, plans(r.others), r.today) {
		v := MissedView{m.Session.ID, m.Session.Name, m.Session.On.FromToday(r.today), []WayOut{}}
		for i := range m.Options {
			v.Ways = append(v.Ways, WayOut{m.Options[i].Way, m.Options[i].Says, m.Options[i].Costs})
		}
		out.Missed = append(out.Missed, v)
	}
	for i := range steps {
		if steps[i].What != block.Alike {
			out.Steps = append(out.Steps, r.step(&steps[i]))
		}
	}
	return out
}

func draftOf(b *block.Block) BlockDraft {
	return BlockDraft{ID: b.ID, Start: b.Start, Every: b.Every, Turns: b.Turns, Ready: b.Ready, Course: b.Course}
}

func (r *read) turn(k int, sessions []plan.Planned) TurnView {
	b := r.block
	slice, sets := r.slice(b.TurnName(k), sessions)
	v := TurnView{Name: b.TurnName(k), From: b.Date(k, 0), To: b.Date(k+1, 0) - 1, Reserve: b.Reserve(k), Effort: b.EffortWords(k),
		Lighter: b.IsLighter(k), Slice: slice, Sets: sets, Sessions: []AheadView{}}
	for i := range sessions {
		made := false
		for j := range r.made {
			if m := &r.made[j]; m.Turn == k && m.Day == b.Days[i].ID && !m.Removed {
				made = true
				v.Made++
				if m.ByHand() {
					v.ByHand++
				}
			}
		}
		v.Sessions = append(v.Sessions, AheadView{sessions[i].Name, sessions[i].On, made, r.lines(&sessions[i].Session)})
	}
	return v
}

// lines tell a session's slots.
func (r *read) lines(s *plan.Session) []string {
	out := []string{}
	for i := range s.Slots {
		line := s.Slots[i].SetUp.Short() + " " + s.DoneWords(i) + fmt.Sprintf(", %d left", s.Slots[i].First().Reserve)
		if load := s.LoadWords(i, r.t.Floor()); load != "" {
			line += ", " + load
		}
		out = append(out, line)
	}
	return out
}

// slice is what a turn gives each head against its target, and how many sets it has.
func (r *read) slice(name string, sessions []plan.Planned) (view.SliceView, int) {
	w := week.Week{Sessions: sessions}
	l := w.Count(r.t)
	var mid, low, high, fill [arm.HeadCount]float64
	for h := range l.Heads {
		line := &l.Heads[h]
		mid[h], low[h], high[h] = line.Total.Mid, line.Total.Low, line.Total.High
		fill[h] = min(1, line.Total.Mid/max(line.Target.High, 1))
	}
	sets := 0
	for i := range sessions {
		for j := range sessions[i].Slots {
			sets += sessions[i].Slots[j].Sets()
		}
	}
	return view.SliceOf("Effective sets in "+name, mid, low, high, fill), sets
}

// step tells what becomes of one session.
func (r *read) step(s *block.Step) StepView {
	v := StepView{What: s.What, Name: s.Want.Name, On: s.Want.On, Turn: r.block.TurnName(s.Turn), Says: []string{}, Why: s.Why}
	if s.What == block.Gone || s.What == block.Stays && s.Was.ID != uuid.Nil {
		v.Name, v.On = s.Was.Name, s.Was.On
	}
	if s.What != block.Changed {
		return v
	}
	if s.Was.On != s.Want.On {
		v.Says = append(v.Says, "from "+s.Was.On.FromToday(r.today)+" to "+s.Want.On.FromToday(r.today))
	}
	before, after := r.lines(&s.Was.Session), r.lines(&s.Want.Session)
	for i := range max(len(before), len(after)) {
		switch {
		case i >= len(after):
			v.Says = append(v.Says, before[i]+" goes")
		case i >= len(before):
			v.Says = append(v.Says, after[i]+" is new")
		case before[i] != after[i]:
			v.Says = append(v.Says, asChanged(s.Was.Slots[i].SetUp.Short(), before[i], after[i]))
		case !s.Was.Slots[i].Same(&s.Want.Slots[i]):
			v.Says = append(v.Says, after[i]+": effort, rests or cues")
		}
	}
	if len(v.Says) == 0 {
		v.Says = append(v.Says, "its warm-up, name or order")
	}
	return v
}

// asChanged tells a line before and after, what they have in common once.
func asChanged(name, before, after string) string {
	if b, ok := strings.CutPrefix(before, name+" "); ok {
		if a, ok := strings.CutPrefix(after, name+" "); ok {
			return name + ": " + b + " → " + a
		}
	}
	return before + " → " + after
}
