package decide

import (
	"cmp"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/entry"
	"musculus/internal/core/floor"
	"musculus/internal/core/log"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
	"musculus/internal/core/week"
)

// How far back the log and the plan are read for decisions, and how many sessions of a course
// are looked at.
const (
	ReadsBack    = 40 * 7 * 24 * time.Hour
	PlanBack     = 16 * 7
	PlanAhead    = 6 * 7
	mostLooks    = 200
	attendedDays = 28
	endedDays    = 14
)

// Facts are what decisions about a client are made from.
type Facts struct {
	T         *week.Trainee // with aims
	Movements *movement.Catalogue
	Today     day.Day
	Entries   []entry.Entry  // of the last ReadsBack
	Sessions  []plan.Planned // from PlanBack to PlanAhead, by day
	Events    map[uuid.UUID][]floor.Event
	Joints    []person.JointReport
	Taken     []Taken // the earliest first
	Blocked   string
	Emphasis  string // one that ended, in words
	// Tolerances are the plans that lead up to something again.
	Tolerances []Tolerance
	Mornings   []person.JointReport // what she answered about joints from day to day
	Poor       map[uuid.UUID]bool   // sessions around which she said that sleep or the week was poor
	Uncautious string               // a time of caution that ended of late, in words
	Block      *InBlock             // nil: none runs
	Trial      *Trial               // a pair trial that runs; nil: none
	Elsewhere  *Elsewhere           // before it was said otherwise of late; nil: nothing was
}

// Growth is what a course is asked for, a week.
func (f *Facts) Growth() float64 {
	if f.T.Aims.FirstYear {
		return series.GrowthFirstYear
	}
	return series.GrowthLater
}

// Gather makes of facts what is decided about: the client, and her series, those that are
// planned next first.
func Gather(f *Facts) (*Client, []*Series) {
	c := &Client{Today: f.Today, Blocked: f.Blocked, Emphasis: f.Emphasis, Variety: variety(f.T)}
	by := map[string][]entry.Entry{}
	var keys []string
	sets := map[string]movement.SetUp{}
	know := func(s movement.SetUp) string {
		key := s.Key()
		if _, there := sets[key]; !there {
			keys, sets[key] = append(keys, key), s
		}
		return key
	}
	done := map[uuid.UUID]bool{}
	for i := range f.Entries {
		if e := &f.Entries[i]; e.SetUp.Movement != nil {
			by[know(e.SetUp)] = append(by[know(e.SetUp)], *e)
			done[e.SessionID] = true
		}
	}
	slices.Sort(keys)
	lighter := c.ofTaken(f)
	c.inBlock(f, lighter)
	c.attended(f, done)
	if f.Uncautious != "" {
		c.Ended = []string{f.Uncautious}
	}
	c.Budget = f.budget()
	ledgers := map[day.Day]*week.Ledger{}
	ledger := func(on day.Day) *week.Ledger {
		monday := on.Monday()
		if ledgers[monday] == nil {
			w := f.week(monday)
			l := w.Count(f.T)
			ledgers[monday] = &l
		}
		return ledgers[monday]
	}
	c.Begun = f.begun()
	next := f.Today
	for i := range f.Sessions { // the week that is planned next
		if x := &f.Sessions[i]; x.On >= f.Today && !done[x.ID] {
			next = x.On
			break
		}
	}
	c.Duplicates = f.duplicates(ledger(next), f.week(next.Monday()).Sessions)
	var out []*Series
	for _, key := range keys {
		s := &Series{SetUp: sets[key], Key: key, Since: f.T.Aims.Since[key]}
		s.Sessions = series.SessionsOf(by[key], func(id uuid.UUID) series.Around {
			return series.Around{Lighter: lighter[id]}
		})
		s.plans(f, done)
		compared := series.ComparedOf(s.Sessions)
		s.Looks = series.Watch(compared[max(0, len(compared)-mostLooks):], f.Growth())
		s.scored(f)
		s.Paired = f.Trial != nil && (key == f.Trial.Left.Key() || key == f.Trial.Right.Key())
		s.follows(f)
		for _, t := range f.Taken {
			if t.Series == key {
				s.Taken = append(s.Taken, t)
			}
		}
		if n := s.Next; n != nil {
			l := ledger(max(f.Today, s.NextOn)) // of the week it is planned in
			h := needs(f.T, s.SetUp, l)
			line := &l.Heads[h]
			n.Head, n.HeadName = arm.Heads[h].ID, arm.Heads[h].Name
			n.Weekly, n.LowSets, n.Top = line.Total.Mid, line.Target.Low, line.Target.High
			zones := line.Zones
			n.Other = func() (movement.SetUp, bool) { return otherOf(f.T, f.Movements, s.SetUp, h, zones) }
			n.Kinder = func() (movement.SetUp, bool) { return kinderOf(f.T, f.Movements, s.SetUp, s.Scores) }
		}
		out = append(out, s)
	}
	slices.SortStableFunc(out, func(a, b *Series) int {
		return cmp.Or(cmp.Compare(rank(a), rank(b)), cmp.Compare(b.lastOn(), a.lastOn()))
	})
	return c, out
}

// rank puts what is planned first, and of it lifts of several joints.
func rank(s *Series) int {
	switch {
	case s.Next == nil:
		return 2
	case !s.SetUp.Movement.Computed():
		return 0
	}
	return 1
}

func (s *Series) lastOn() day.Day {
	if len(s.Sessions) == 0 {
		return 0
	}
	return s.Sessions[len(s.Sessions)-1].On
}

// variety is how the client likes it: rotate, keep or often.
func variety(t *week.Trainee) string {
	for _, v := range []string{"keep", "often"} {
		if t.Prefer.Is(person.AxisVariety, v) {
			return v
		}
	}
	return "rotate"
}

// week is the plan of a week.
func (f *Facts) week(monday day.Day) (out week.Week) {
	for i := range f.Sessions {
		if on := f.Sessions[i].On; on >= monday && on < monday+7 {
			out.Sessions = append(out.Sessions, f.Sessions[i])
		}
	}
	return out
}

// ofTaken tells the client what was decided about her as a whole, and which sessions were made
// lighter.
func (c *Client) ofTaken(f *Facts) map[uuid.UUID]bool {
	lighter := map[uuid.UUID]bool{}
	for _, t := range f.Taken {
		if t.Series == "" {
			c.Taken = append(c.Taken, t)
		}
		if t.Kind != LighterWeek || t.NotNow || t.Undone {
			if t.Kind == MoreSets || t.Kind == LessSets || t.Kind == Change {
				c.Taken = append(c.Taken, t)
			}
			continue
		}
		for _, id := range t.Wrote {
			lighter[id] = true
		}
		for i := range f.Sessions {
			if x := &f.Sessions[i]; lighter[x.ID] && x.On >= f.Today {
				c.Lighter = true
			}
		}
	}
	return lighter
}

// attended counts what of the last weeks' plan was done, and how the sessions felt.
func (c *Client) attended(f *Facts, done map[uuid.UUID]bool) {
	for i := range f.Sessions {
		x := &f.Sessions[i]
		if x.On < f.Today && int(f.Today-x.On) <= attendedDays {
			c.Planned++
			if done[x.ID] {
				c.Done++
			}
		}
		if !done[x.ID] {
			continue
		}
		felt := Felt{On: x.On, Hard: -1, Poor: f.Poor[x.ID]}
		for _, e := range f.Events[x.ID] {
			if e.End != nil {
				felt.Hard = e.End.Hard
			}
		}
		c.Felt = append(c.Felt, felt)
	}
}

// budgetDays are the days in which a joint's budget is counted.
const budgetDays = 7

// budget tells which joint carried more of late than a week's budget, by what was done; "" for none.
func (f *Facts) budget() string {
	var did week.Week
	entries := map[uuid.UUID][]entry.Entry{}
	for i := range f.Entries {
		if e := &f.Entries[i]; e.SetUp.Movement != nil {
			entries[e.SessionID] = append(entries[e.SessionID], *e)
		}
	}
	for i := range f.Sessions {
		x := &f.Sessions[i]
		if x.On > f.Today-budgetDays && x.On <= f.Today && len(entries[x.ID]) > 0 {
			did.Sessions = append(did.Sessions, plan.Planned{ID: x.ID, On: x.On, Session: log.Came(&x.Session, log.Counting(entries[x.ID]))})
		}
	}
	if len(did.Sessions) == 0 {
		return ""
	}
	l := did.Count(f.T)
	for _, j := range movement.Joints {
		if most, n := f.T.MostJoint(j), l.Joints.Of(j); n > most {
			return fmt.Sprintf("The %s carried %d in the last week, of a budget of %d.", j.Words(), n, most)
		}
	}
	return ""
}

// plans finds how a series was planned for each of its sessions, and how it is planned next: in
// the first session to come that has it, else as it was last.
func (s *Series) plans(f *Facts, done map[uuid.UUID]bool) {
	at := map[uuid.UUID]int{}
	for i := range f.Sessions {
		at[f.Sessions[i].ID] = i
	}
	s.Bands = make([]Band, len(s.Sessions))
	for k := range s.Sessions {
		if i, there := at[s.Sessions[k].ID]; there {
			if slot, row, ok := rowOf(&f.Sessions[i].Session, s.Key, f.T.Floor()); ok {
				s.Bands[k] = bandOf(&f.Sessions[i].Slots[slot], row)
			}
		}
	}
	for i := range f.Sessions {
		x := &f.Sessions[i]
		if x.On < f.Today || done[x.ID] {
			continue
		}
		if slot, row, ok := rowOf(&x.Session, s.Key, f.T.Floor()); ok {
			s.Next, s.NextOn = nextOf(f.T, &x.Session, slot, row), x.On
			return
		}
	}
	for i := len(f.Sessions) - 1; i >= 0; i-- {
		x := &f.Sessions[i]
		if int(f.Today-x.On) > endedDays {
			break
		}
		if slot, row, ok := rowOf(&x.Session, s.Key, f.T.Floor()); ok && done[x.ID] {
			s.Next = nextOf(f.T, &x.Session, slot, row)
			s.Next.HandKg = 0 // nothing is planned yet
			return
		}
	}
}

// scored finds what joints scored with this set-up: one score a session and joint, its peak.
func (s *Series) scored(f *Facts) {
	title := s.SetUp.Title()
	for _, r := range f.Joints {
		if r.Provokes == title {
			s.Scores = append(s.Scores, Score{r.On, r.Joint, r.Score})
		}
	}
	slices.SortStableFunc(s.Scores, func(a, b Score) int { return cmp.Compare(a.On, b.On) })
}
