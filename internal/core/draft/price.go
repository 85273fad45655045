package draft

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/priority"
	"musculus/internal/core/week"
)

// Price is what lifting a limit would buy.
type Price struct {
	At    string // the limit: "day", "days", "room", "joint"
	Day   int    // of the problem, −1 where it is not of one
	Words string // "+10 minutes on Friday: TL full"
	Gains float64
}

// What a limit is lifted by, what is worth telling, and how many are told.
const (
	moreMinutes  = 10
	leastGain    = 0.5 // effective sets
	mostPrices   = 3
	priceSteps   = 800
	soreAt       = 1 // what a joint that is worse is asked to be at
	reachedSteps = 500
)

// lifted is a problem with one limit lifted.
type lifted struct {
	at    string
	day   int
	words string
	build func() *Problem
}

// Prices says what lifting a limit would buy, the best three, each from half a set on:
// solved anew from the week that was found, so that none is under nothing. stop ends it
// early.
func (d *Dated) Prices(pool *Pool, w *Week, stop func() bool) []Price {
	short := Short(d.Problem, w)
	if short < leastGain {
		return nil
	}
	var out []Price
	for _, l := range d.lifts(pool, w) {
		if stop != nil && stop() {
			break
		}
		p := l.build()
		from := d.carry(p, w)
		found := Search(p, Robust, Effort{Steps: priceSteps, Stop: stop}, &from)
		gains := short - Short(p, &found)
		if gains < leastGain {
			continue
		}
		out = append(out, Price{l.at, l.day, l.words + ": " + d.bought(p, w, &found), gains})
	}
	slices.SortStableFunc(out, func(a, b Price) int { return cmp.Compare(b.Gains, a.Gains) })
	days := 0
	out = slices.DeleteFunc(out, func(p Price) bool { // of the days that could be added the best one stands for all
		if p.At == "days" {
			days++
		}
		return p.At == "days" && days > 1
	})
	return out[:min(len(out), mostPrices)]
}

// carry is a week in another problem's numbers, as far as it is in it.
func (d *Dated) carry(p *Problem, w *Week) Week {
	out := Week{Days: make([][]Slot, len(p.Days))}
	for i := range w.Days {
		at := slices.IndexFunc(p.Days, func(o Day) bool { return o.On == d.Days[i].On })
		if at < 0 {
			continue
		}
		for _, s := range w.Days[i] {
			id := d.Candidates[s.Candidate].ID
			if c := slices.IndexFunc(p.Candidates, func(o Candidate) bool { return o.ID == id }); c >= 0 {
				out.Days[at] = append(out.Days[at], Slot{c, s.Sets})
			}
		}
	}
	return out
}

// bought tells which heads gain: "TL full, BA +1.2".
func (d *Dated) bought(p *Problem, before, after *Week) string {
	c, was := stateOf(d.Problem, Robust, before)
	o, is := stateOf(p, Robust, after)
	type gain struct {
		words string
		by    int
	}
	var out []gain
	for h := range c.aims {
		if p.Targets[h].Level == priority.Maintain {
			continue
		}
		lack, left := c.lack(h, &was.sums), o.lack(h, &is.sums)
		lengths := ""
		for _, z := range []struct {
			words    string
			was, now int
		}{{"short", was.sums.short[h], is.sums.short[h]}, {"long", was.sums.long[h], is.sums.long[h]}} {
			if by := max(0, covered-z.was) - max(0, covered-z.now); c.aims[h].lengths && by > enough*4 {
				lengths = z.words
			}
		}
		switch code := arm.Heads[h].Code; {
		case lack-left > enough && left <= enough:
			out = append(out, gain{code + " full", lack - left})
		case lack-left > enough*4:
			out = append(out, gain{fmt.Sprintf("%s +%s sets", code, effective(lack-left)), lack - left})
		case lengths != "":
			out = append(out, gain{code + " at " + lengths + " length too", Per})
		}
	}
	slices.SortStableFunc(out, func(a, b gain) int { return cmp.Compare(b.by, a.by) })
	words := make([]string, 0, len(out))
	for _, g := range out[:min(len(out), 3)] {
		words = append(words, g.words)
	}
	return strings.Join(words, ", ")
}

// lifts are the limits that may be in the way.
func (d *Dated) lifts(pool *Pool, w *Week) (out []lifted) {
	p := d.Problem
	c, s := stateOf(p, Robust, w)
	for i := range p.Days {
		if p.Days[i].Closed || p.Days[i].Seconds-c.seconds(s, i) > slotS+3*150 {
			continue
		}
		out = append(out, lifted{"day", i, fmt.Sprintf("+%d minutes on %s", moreMinutes, p.Days[i].Name), func() *Problem {
			return p.with(func(o *Problem) { o.Days[i].Seconds += moreMinutes * perMinute })
		}})
	}
	t := d.client.Trainee
	for i := range week.Days {
		if slices.ContainsFunc(p.Days, func(o Day) bool { return o.On == i }) || len(p.Days) == 0 || d.ask.past(t, i) {
			continue
		}
		out = append(
			out,
			lifted{"days", -1, fmt.Sprintf("another day, %s say", d.ask.weekday(i)), func() *Problem { return d.withDay(i) }},
		)
	}
	for _, j := range movement.Joints {
		if t.Scores().Worse(j) > soreAt {
			out = append(out, lifted{"joint", -1, fmt.Sprintf("with the %s at %d", j.Words(), soreAt), func() *Problem {
				return d.again(func(t *week.Trainee) { t.Fence = eased(t.Fence, j) })
			}})
		}
	}
	return append(out, d.things()...)
}

// with is a copy of a problem that may be changed in its days and limits.
func (p *Problem) with(change func(*Problem)) *Problem {
	out := *p
	out.Days = slices.Clone(p.Days)
	out.AtMost = nil
	change(&out)
	return &out
}

// withDay is the problem with another day.
func (d *Dated) withDay(on int) *Problem {
	return d.with(func(o *Problem) {
		more := Day{Name: d.ask.weekday(on), On: on, WarmUpS: usualWarmUpMin * perMinute, Slots: MostSlots}
		for i := range d.Days {
			more.Seconds, more.Slots = max(more.Seconds, d.Days[i].Seconds), d.Days[i].Slots
		}
		o.Days = append(o.Days, more)
	})
}

// again is the problem of a client who is another in something; what may be used is looked
// for anew.
func (d *Dated) again(change func(*week.Trainee)) *Problem {
	t, cl := *d.client.Trainee, *d.client
	change(&t)
	cl.Trainee = &t
	return Build(&cl, Stock(&cl), d.ask).Problem
}

// eased is a fence with a joint that scores less.
func eased(f *person.Fence, j movement.Joint) *person.Fence {
	out := *f
	out.Scores = f.Scores.Clone()
	for _, joints := range out.Scores {
		joints[j] = min(joints[j], soreAt)
	}
	return &out
}

// things are what the room lacks and rooms often have.
func (d *Dated) things() (out []lifted) {
	room := d.client.Trainee.Room
	if room == nil {
		return nil
	}
	add := func(words string, has bool, things ...person.Thing) {
		if has {
			return
		}
		out = append(out, lifted{"room", -1, fmt.Sprintf("with %s in %s", words, room.Name), func() *Problem {
			return d.again(func(t *week.Trainee) {
				more := *t.Room
				more.Things = append(slices.Clone(more.Things), things...)
				t.Room = &more
			})
		}})
	}
	station := person.Thing{ID: "cable", Kind: person.Cable, Count: 2, Ratio: 2, Loads: spaced(5, 60, 5), Low: 0.1, High: 2.2}
	add("a cable", room.Has(person.Cable, 1), station, person.There(person.OnCable(movement.BarStraight)),
		person.There(person.OnCable(movement.Rope)), person.There(person.OnCable(movement.Handle)))
	add("dumbbells", room.Has(movement.Dumbbell, 1), person.Pairs(spaced(2, 24, 2)...))
	loads := 0
	for i := range room.Things {
		if room.Things[i].Kind == movement.Dumbbell {
			loads += len(room.Things[i].Loads)
		}
	}
	add("more dumbbells", loads == 0 || loads >= sparseLoads, person.Pairs(spaced(2, 24, 2)...))
	return out
}

// sparseLoads are fewer than what makes a set of dumbbells.
const sparseLoads = 4

func spaced(from, to, by float64) (out []float64) {
	for x := from; x <= to+1e-9; x += by {
		out = append(out, x)
	}
	return out
}

// past says whether a day of the week has gone by.
func (a *Ask) past(t *week.Trainee, on int) bool {
	return t.Aims != nil && int(a.Monday)+on < int(t.Aims.Today)
}

func (a *Ask) weekday(on int) string { return (a.Monday + day.Day(on)).Weekday() }

// Reach is how far a head gets that a week leaves short, if the week were for it alone.
type Reach struct {
	Head  int
	Words string
}

// OutOfReach looks at each head that is to grow and that a week leaves short: what it
// reaches alone, and the limit whose lifting helps it most.
func (d *Dated) OutOfReach(w *Week, stop func() bool) (out []Reach) {
	p := d.Problem
	c, s := stateOf(p, Robust, w)
	for h := range c.aims {
		if p.Targets[h].Level == priority.Maintain || c.lack(h, &s.sums) < Per/2 || stop != nil && stop() {
			continue
		}
		alone := p.with(func(o *Problem) {
			for k := range o.Targets {
				if k != h {
					o.Targets[k] = Target{Level: priority.Maintain, High: o.Targets[k].High}
				}
			}
			o.Wants = nil
		})
		reaches := func(p *Problem) int {
			found := Search(p, Robust, Effort{Steps: reachedSteps, Stop: stop}, nil)
			c, s := stateOf(p, Robust, &found)
			return c.aims[h].low - c.lack(h, &s.sums)
		}
		has := reaches(alone)
		if has >= p.Targets[h].Low-enough { // others stand in its way, not the limits
			continue
		}
		most, words := has+Per/2, ""
		for _, l := range limitsOf(alone) {
			if got := reaches(alone.with(l.lift)); got > most {
				most, words = got, l.words
			}
		}
		text := fmt.Sprintf(
			"Even with the whole week for it, the %s reaches %s of %s sets, by the stance that counts least.",
			arm.Heads[h].Name,
			effective(has),
			effective(p.Targets[h].Low),
		)
		if words != "" {
			text += fmt.Sprintf(" In the way most: %s (without it %s).", words, effective(most))
		}
		out = append(out, Reach{h, text})
	}
	return out
}

// limitOf is a limit that can be lifted, in words.
type limitOf struct {
	words string
	lift  func(*Problem)
}

func limitsOf(p *Problem) []limitOf {
	out := []limitOf{
		{"the minutes", func(o *Problem) {
			for i := range o.Days {
				o.Days[i].Seconds = mostSeconds
			}
		}},
		{"the hours between hard days, with what is done elsewhere", func(o *Problem) { o.Spread = "one_day" }},
		{"the hard sets that a group takes in a day and a week", func(o *Problem) {
			o.GroupDay, o.GroupWeek = 100, [2]int{100, 100}
		}},
		{"the number of days", func(o *Problem) {
			for i := range o.Cycle {
				if !slices.ContainsFunc(o.Days, func(d Day) bool { return d.On == i }) && len(p.Days) > 0 {
					day := p.Days[0]
					day.On, day.LockedS, day.Closed = i, 0, false
					o.Days = append(o.Days, day)
				}
			}
		}},
	}
	for j, joint := range movement.Joints {
		out = append(out, limitOf{"what the " + joint.Words() + " bears", func(o *Problem) { o.Joints[j] = 1000 }})
	}
	return out
}
