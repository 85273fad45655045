package draft

import (
	"fmt"
	"math"
	"slices"

	"musculus/internal/core/day"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
	"musculus/internal/core/week"
)

// usualWarmUpMin is the general warm-up of a day that has no session yet, minutes.
const usualWarmUpMin = 5.0

// usualMinutes are those of a session where the client's are not said.
const usualMinutes = 60

// Kept is a slot of a draft that is to stay where it is.
type Kept struct {
	On    day.Day
	SetUp movement.SetUp
	Sets  int
}

// Ask is what a week is to be composed from, beside the client.
type Ask struct {
	Monday day.Day
	Board  *week.Week // as it stands: what is locked stays, sessions keep their names; nil: empty
	Done   []string   // ids of sessions in which sets are logged: they stay
	Keep   []Kept
	Forbid []string // movements that are not wanted
	Slots  int      // the most a day has, 0: as it comes
	// Levels are other targets than the client's, by head; "" keeps hers.
	Levels [len(Heads{})]priority.Level
	// Pattern is what the week starts from; nil: nothing.
	Pattern *Pattern

	today day.Day // sessions before it stay as they are
}

// Dated is a problem with the days it is of.
type Dated struct {
	*Problem
	On      []day.Day
	Session []int         // the board's session a day goes into, −1: a new one
	Stays   [][]plan.Slot // what stays, by day, in the board's order
	client  *Client
	ask     *Ask
	unsaid  bool // nobody said how many minutes there are
}

// TimeWords tells the time there is: "2 days of 50 minutes".
func (d *Dated) TimeWords() string {
	days, minutes := 0, 0
	for i := range d.Days {
		if !d.Days[i].Closed {
			days++
			minutes = max(minutes, d.Days[i].Seconds/perMinute)
		}
	}
	words := fmt.Sprintf("%d days of %d minutes", days, minutes)
	if days == 1 {
		words = fmt.Sprintf("1 day of %d minutes", minutes)
	}
	if d.unsaid {
		words += " (the Dossier says none)"
	}
	return words
}

// locks says whether something on the board stays.
func (a *Ask) locks(s *plan.Planned, slot int) bool {
	return a.whole(s) || s.Slots[slot].Locked
}

// whole says whether a session stays as it is: locked, done, or gone by.
func (a *Ask) whole(s *plan.Planned) bool {
	return s.Locked || s.On < a.today || slices.Contains(a.Done, s.ID.String())
}

// Build makes the problem of a client's week from what may be used for her.
func Build(cl *Client, from *Pool, ask *Ask) *Dated {
	t := cl.Trainee
	asked := *ask
	asked.Keep = slices.DeleteFunc(slices.Clone(ask.Keep), func(k Kept) bool { return !t.May(k.SetUp) })
	ask = &asked // what is kept is held to the same as what is found
	out := &Dated{Problem: &Problem{Version: Version, Cycle: week.Days, Spread: spreadOf(t), GroupDay: week.MostGroupSets, Weights: Usual(),
		Cut: from.Cut}, client: cl, ask: ask}
	p := out.Problem
	for h, level := range cl.levels() {
		if ask.Levels[h] != "" {
			level = ask.Levels[h]
		}
		target := priority.TargetOf(level, t.Aims != nil && t.Aims.FirstYear)
		p.Targets[h] = Target{level, perMyriad(target.Low), perMyriad(target.High)}
	}
	elsewhere := t.ElsewhereGives()
	p.Elsewhere.Gives = givesFrom(&elsewhere, nil)
	var aims week.Aims
	if t.Aims != nil {
		aims = *t.Aims
	}
	ask.today = aims.Today
	flexors, extensors := week.ElsewhereSets(aims.Elsewhere, plan.Flexors), week.ElsewhereSets(aims.Elsewhere, plan.Extensors)
	p.Elsewhere.Flexors, p.Elsewhere.Extensors = flexors[:], extensors[:]
	for _, e := range aims.Elsewhere {
		p.GroupWeek[groupIndex(map[bool]string{true: plan.Flexors, false: plan.Extensors}[e.Kind == "pull"])] -= e.Sets
		if e.Kind == "pull" {
			p.Elsewhere.Ideas = append(p.Elsewhere.Ideas, OtherHand) // a row with the thumbs up
		} else {
			p.Elsewhere.Ideas = append(p.Elsewhere.Ideas, PressDip)
		}
	}
	for g := range p.GroupWeek {
		p.GroupWeek[g] = max(0, p.GroupWeek[g]+week.MostWeekSets)
	}
	for i, j := range movement.Joints {
		p.Joints[i] = t.MostJoint(j)
	}
	out.take(from)
	out.days(&aims)
	if ask.Pattern != nil {
		ask.Pattern.on(out)
	}
	return out
}

func spreadOf(t *week.Trainee) string {
	for _, s := range spreads {
		if t.Prefer.Is(person.AxisSpread, s) {
			return s
		}
	}
	return spreads[0]
}

// take takes over the candidates that are wanted.
func (p *Dated) take(from *Pool) {
	at := make([]int, len(from.Candidates))
	for i := range from.Candidates {
		at[i] = -1
		if slices.Contains(p.ask.Forbid, from.Candidates[i].Movement) || p.leaves(&from.Candidates[i]) {
			continue
		}
		at[i] = len(p.Candidates)
		p.Candidates = append(p.Candidates, from.Candidates[i])
	}
	for _, t := range from.Twins {
		if at[t[0]] >= 0 && at[t[1]] >= 0 {
			p.Twins = append(p.Twins, [2]int{at[t[0]], at[t[1]]})
		}
	}
}

// leaves says whether the pattern leaves a candidate out.
func (p *Dated) leaves(c *Candidate) bool {
	only := p.ask.Pattern
	return only != nil && only.Only != nil && !only.Only(c)
}

// days lists the days with what stays on them.
func (p *Dated) days(aims *week.Aims) {
	a := p.ask
	slots := MostSlots
	if a.Slots > 0 {
		slots = a.Slots
	}
	board := a.Board
	if board == nil {
		board = &week.Week{}
	}
	for i := range week.Days {
		on := a.Monday + day.Day(i)
		session, warmUp, closed := -1, usualWarmUpMin, on < aims.Today
		var stay []plan.Slot
		seconds := 0.0
		for k := range board.Sessions {
			s := &board.Sessions[k]
			if s.On != on {
				continue
			}
			whole := a.whole(s)
			if session < 0 || !whole {
				session, warmUp = k, s.WarmUpMin
			}
			closed = closed || whole
			var locked plan.Session
			for j := range s.Slots {
				if a.locks(s, j) {
					locked.Slots = append(locked.Slots, s.Slots[j])
				}
			}
			if len(locked.Slots) > 0 {
				locked.Combos = s.Combos
				c := p.client.Trainee.Count(&locked)
				seconds += c.Spent.Sets + c.Spent.Rests + c.Spent.Ways + restAfter(locked.Slots)
				stay = append(stay, locked.Slots...)
			}
		}
		for _, k := range a.Keep {
			if k.On == on {
				stay = append(stay, plan.Slot{SetUp: k.SetUp, Rows: p.client.Trainee.Prescribe(k.SetUp, k.Sets)})
				set, _ := p.client.Trainee.SetSeconds(k.SetUp)
				seconds += float64(k.Sets)*math.Ceil(set) + slotS
			}
		}
		trains := slices.Contains(aims.Weekdays, week.Weekdays[i])
		if !trains && len(stay) == 0 {
			continue
		}
		d := Day{Name: on.Weekday(), On: i, WarmUpS: int(math.Round(warmUp * 60)), Slots: slots, LockedS: int(math.Ceil(seconds)),
			Closed: closed || !trains}
		minutes := aims.Minutes
		if minutes <= 0 {
			minutes, p.unsaid = usualMinutes, true
		}
		d.Seconds = minutes * perMinute
		at := len(p.Days)
		p.Days, p.On, p.Session, p.Stays = append(p.Days, d), append(p.On, on), append(p.Session, session), append(p.Stays, stay)
		for k := range stay {
			p.lock(at, k, stay)
		}
	}
}

// restAfter is the rest after the last set, which the board leaves out and a slot that
// follows needs.
func restAfter(slots []plan.Slot) float64 {
	last := &slots[len(slots)-1]
	if len(last.Rows) == 0 {
		return 0
	}
	return float64(last.Rows[len(last.Rows)-1].RestS) + 30
}

// lock counts the k-th of a day's slots that stay.
func (p *Dated) lock(at, k int, stay []plan.Slot) {
	t, s := p.client.Trainee, &stay[k]
	alone := plan.Session{Slots: []plan.Slot{*s}}
	c := t.Count(&alone)
	heads, zones := c.Heads, c.Zones
	l := Locked{Day: at, Name: s.SetUp.Title(), Like: -1, Sets: min(max(s.Sets(), 1), mostLockedSets), Hard: s.HardSets(),
		Group: plan.GroupOf(s.SetUp), Gives: givesFrom(&heads, &zones), Seconds: int(math.Ceil((c.Minutes - c.WarmUp) * 60)),
		RampS: int(math.Ceil(c.Spent.Ramp)), Ideas: ideasOf(s.SetUp)}
	l.Hard = min(l.Hard, l.Sets)
	for i := range movement.Joints {
		l.Joints[i] = c.Joints[i]
	}
	shape := t.Shape(s.SetUp)
	n := len(p.Candidates) + len(p.Locked)
	for i := range p.Candidates {
		if p.Candidates[i].ID == s.SetUp.Key() && p.Candidates[i].Movement == s.SetUp.Movement.ID {
			l.Like = i
			continue
		}
		if o := t.Shape(p.Candidates[i].setUp); shape != nil && o != nil && fitting.Distance(shape, o) < fitting.SameIdea {
			p.Twins = append(p.Twins, [2]int{i, n})
		}
	}
	for j := range k {
		if o := t.Shape(stay[j].SetUp); shape != nil && o != nil && fitting.Distance(shape, o) < fitting.SameIdea {
			p.Twins = append(p.Twins, [2]int{n - k + j, n})
		}
	}
	p.Locked = append(p.Locked, l)
}
