package block

import (
	"fmt"
	"slices"
	"strings"

	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

// Way is what is done about a day that was missed.
type Way string

// The ways.
const (
	SlideOn Way = "slide" // it is done later
	Drop    Way = "drop"  // it is left out
	FoldIn  Way = "fold"  // its sets go into what is left of the turn
)

// Option is one way, with what it costs.
type Option struct {
	Way   Way
	Says  string
	Costs string
	Lost  [arm.HeadCount]float64 // effective sets of the turn
	// Moved are sessions as they are after it; Slides are the block's after it.
	Moved  []plan.Planned
	Slides []Slide
}

// MissedDay is a session of the block whose day is past, of which nothing was done.
type MissedDay struct {
	Session plan.Planned
	Turn    int
	Day     uuid.UUID
	Options []Option
}

// Missed are the days that were missed in the last turn's length and about which nothing was
// said yet, with what can be done.
func (b *Block) Missed(t *week.Trainee, made []Made, others []plan.Planned, today day.Day) (out []MissedDay) {
	for i := range made {
		m := &made[i]
		if m.Now.On >= today || int(today-m.Now.On) > b.Every || m.Removed || m.Missed != "" || m.Shut == "done" ||
			m.Shut == "begun" {
			continue
		}
		day := MissedDay{Session: m.Now, Turn: m.Turn, Day: m.Day}
		if o, ok := b.slide(m, made, others, today); ok {
			day.Options = append(day.Options, o)
		}
		if o, ok := b.fold(t, m, made, today); ok {
			day.Options = append(day.Options, o)
		}
		lost := t.Count(&m.Now.Session)
		drop := Option{Way: Drop, Says: "Drop it"}
		for h := range lost.Heads {
			drop.Lost[h] = lost.Heads[h].Mid
		}
		drop.Costs = lostWords(&drop.Lost)
		day.Options = append(day.Options, drop)
		out = append(out, day)
	}
	return out
}

// slide: a rotation moves on as a whole; in a week the one session moves to the next free day.
func (b *Block) slide(m *Made, made []Made, others []plan.Planned, today day.Day) (o Option, ok bool) {
	o = Option{Way: SlideOn, Costs: "no sets"}
	if b.Every != Week {
		after := -1
		for i := range b.Days {
			if b.Days[i].ID == m.Day {
				after = b.Days[i].After
			}
		}
		if after < 0 || len(b.Slides) >= mostSlides {
			return o, false
		}
		by := int(today - m.Now.On)
		o.Slides = append(slices.Clone(b.Slides), Slide{m.Turn, after, by})
		o.Says = fmt.Sprintf("Slide: everything from here on %s later", plural(by, "day"))
		slid := *b
		slid.Slides = o.Slides
		o.Costs = fmt.Sprintf("no sets; the block ends on %s", slid.Last().Words())
		if b.Ready != 0 && slid.Last() >= b.Ready {
			over := int(slid.Last()-b.Ready) + 1
			o.Costs = fmt.Sprintf("no sets, but %s would run past the date to be ready for", plural(over, "day"))
		}
		return o, true
	}
	for on := today; on <= b.Date(m.Turn+1, 0)-1; on++ {
		taken, near := false, ""
		for _, list := range [][]plan.Planned{nowOf(made), others} {
			for i := range list {
				switch gap := int(list[i].On - on); {
				case list[i].ID == m.Now.ID:
				case gap == 0:
					taken = true
				case gap > -week.ApartDays && gap < week.ApartDays && near == "":
					near = list[i].Name
				}
			}
		}
		if taken {
			continue
		}
		moved := m.Now
		moved.On = on
		o.Says, o.Moved = "Do it on "+on.FromToday(today), []plan.Planned{moved}
		if near != "" {
			o.Costs = "no sets; a day from " + near
		}
		return o, true
	}
	return o, false
}

// nowOf are the sessions made, as they are in the plan.
func nowOf(made []Made) (out []plan.Planned) {
	for i := range made {
		if !made[i].Removed {
			out = append(out, made[i].Now)
		}
	}
	return out
}

// fold puts the sets of a missed session into what is left of its turn, one at a time: into the
// same set-up where it comes again, else into the one that gives its main head most, as far as
// sets, minutes, joints and caps take them.
func (b *Block) fold(t *week.Trainee, m *Made, made []Made, today day.Day) (o Option, ok bool) {
	var rest week.Week
	for i := range made {
		x := &made[i]
		if x.Turn == m.Turn && x.Now.On >= today && x.Shut == "" && !x.Removed && !x.Now.Locked {
			rest.Sessions = append(rest.Sessions, x.Now)
		}
	}
	if len(rest.Sessions) == 0 {
		return o, false
	}
	first := rest.Count(t)
	at, now := rest, first
	took := 0
	for i := range m.Now.Slots {
		slot := &m.Now.Slots[i]
		for range slot.Sets() {
			w, l, fits := foldSet(t, &at, &now, slot)
			if !fits {
				break
			}
			at, now, took = w, l, took+1
		}
	}
	if took == 0 {
		return o, false
	}
	o = Option{Way: FoldIn, Says: fmt.Sprintf("Fold in: %s into what is left", plural(took, "set"))}
	gone := t.Count(&m.Now.Session)
	for h := range o.Lost {
		o.Lost[h] = max(0, gone.Heads[h].Mid-(now.Heads[h].Total.Mid-first.Heads[h].Total.Mid))
	}
	o.Costs = lostWords(&o.Lost)
	for i := range at.Sessions {
		if !at.Sessions[i].Same(&rest.Sessions[i].Session) {
			o.Moved = append(o.Moved, at.Sessions[i])
		}
	}
	return o, true
}

// foldSet finds where one more set goes; false where nothing takes it.
func foldSet(t *week.Trainee, at *week.Week, now *week.Ledger, slot *plan.Slot) (best week.Week, counted week.Ledger, ok bool) {
	gives, _ := t.Gives(slot.SetUp)
	main := 0
	for h := range gives {
		if gives[h].Mid > gives[main].Mid {
			main = h
		}
	}
	most := 0.0
	for i := range at.Sessions {
		for j := range at.Sessions[i].Slots {
			x := &at.Sessions[i].Slots[j]
			worth, _ := t.Gives(x.SetUp)
			score := worth[main].Mid
			if x.SetUp.Key() == slot.SetUp.Key() {
				score = 100
			}
			if x.Locked || x.Sets() >= mostSets || score <= most {
				continue
			}
			w := week.Week{Sessions: slices.Clone(at.Sessions)}
			w.Sessions[i].Session = copyOf(&at.Sessions[i].Session)
			w.Sessions[i].Slots[j].Add(1)
			l := w.Count(t)
			if holds(t, now, &l) && len(t.Check(&w.Sessions[i].Session)) <= len(t.Check(&at.Sessions[i].Session)) {
				best, counted, most, ok = w, l, score, true
			}
		}
	}
	return best, counted, ok
}

// holds says whether sessions after a change keep what a session, a joint and the minutes take,
// as far as they did before.
func holds(t *week.Trainee, was, is *week.Ledger) bool {
	for _, group := range []string{plan.Flexors, plan.Extensors} {
		if n := is.Hard(group); n > max(t.MostSets(), was.Hard(group)) {
			return false
		}
		for i := range is.Sessions {
			if n := is.Sessions[i].Hard(group); n > max(week.MostGroupSets, was.Sessions[i].Hard(group)) {
				return false
			}
		}
	}
	for k, j := range movement.Joints {
		if is.Joints[k] > max(t.MostJoint(j), was.Joints[k]) {
			return false
		}
	}
	for i := range is.Sessions {
		if t.Aims != nil && is.Sessions[i].Over(t.Aims.Minutes) && is.Sessions[i].Minutes > was.Sessions[i].Minutes {
			return false
		}
	}
	return true
}

// worthTelling is a loss that is told, effective sets.
const worthTelling = 0.25

// lostWords tell which heads lose what.
func lostWords(lost *[arm.HeadCount]float64) string {
	var out []string
	for h, x := range lost {
		if x >= worthTelling {
			out = append(out, fmt.Sprintf("%s %.1f", arm.Heads[h].Name, x))
		}
	}
	if len(out) == 0 {
		return "no sets"
	}
	return "in effective sets: " + strings.Join(out, ", ")
}

func plural(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}
