package decide

import (
	"fmt"
	"math"
	"slices"

	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/series"
)

// Numbers of the rules about one series.
const (
	mostReps      = 4 // a band grows by, before it is made harder otherwise
	slowLowerS    = 3.0
	lessRestS     = 30
	overPain      = 3
	painTwice     = 2
	painDays      = 56
	lightFrom     = 15 // reps: light days rise by reps first
	bodyFrom      = 10 // clean reps with the body's own weight before load is added
	topWeekly     = 1.05
	forgiven      = 1    // rep that one set of a session may be short of the band's top
	underBy       = 0.34 // of a rep, on the average of a session: one short rep in three sets is none
	betweenScores = 3    // sessions that a rising score is read from
)

// counts are the sets of a session that say something about the dose.
func counts(s *series.Session) (out []series.SetDone) {
	for _, x := range s.Sets {
		if !x.Hollow && !x.Form && x.Reps > 0 {
			out = append(out, x)
		}
	}
	return out
}

// last are the last sessions with sets that count, the latest first: many reps tell no load, but
// they are reps.
func (s *Series) last(n int) (out []*series.Session) {
	for i := len(s.Sessions) - 1; i >= 0 && len(out) < n; i-- {
		if x := &s.Sessions[i]; (x.Hollow == "" || x.Hollow == series.ForNoClean) && len(counts(x)) > 0 {
			out = append(out, x)
		}
	}
	return out
}

// over is how many reps a session's sets were over a mark of the band, on the average and at
// the least: clean reps and told reserve less the planned one.
func over(x *series.Session, mark, reserve int) (mean float64, least, second int) {
	all := []int{}
	for _, set := range counts(x) {
		all = append(all, set.Reps+set.Reserve-reserve-mark)
	}
	slices.Sort(all)
	for _, n := range all {
		mean += float64(n) / float64(len(all))
	}
	second = all[0]
	if len(all) > 1 {
		second = all[1]
	}
	return mean, all[0], second
}

// hurts: a joint's score for this set-up rises over three sessions, or was over 3 twice.
func hurts(c *Client, s *Series) *Proposal {
	by := map[movement.Joint][]Score{}
	for _, x := range s.Scores {
		if int(c.Today-x.On) <= painDays && !s.changedSince(x.On) {
			by[x.Joint] = append(by[x.Joint], x)
		}
	}
	for _, j := range movement.Joints {
		list := by[j]
		high, why := 0, ""
		for _, x := range list {
			if x.Score > overPain {
				high++
			}
		}
		n := len(list)
		switch {
		case high >= painTwice:
			why = fmt.Sprintf("The %s scored over %d in %d sessions with it.", j.Words(), overPain, high)
		case n >= betweenScores && list[n-1].Score > list[n-2].Score && list[n-2].Score > list[n-3].Score:
			why = fmt.Sprintf("The %s scored %d, %d and %d in the last three sessions with it.", j.Words(), list[n-3].Score,
				list[n-2].Score, list[n-1].Score)
		default:
			continue
		}
		p := &Proposal{Kind: Change, Says: "Leave it, and have the " + j.Words() + " looked at", Why: []string{why}}
		if to, ok := call(s.Next.Kinder); ok {
			p.Says = "Take " + to.Title() + " instead"
			p.Why = append(
				p.Why,
				"It is the nearest there that is kinder to it; a new series begins. If it stays, a clinician decides.",
			)
			p.Steps = to0(to)
		}
		return p
	}
	return nil
}

// changedSince says whether the set-up was changed for its joints after a day.
func (s *Series) changedSince(on day.Day) bool {
	return slices.ContainsFunc(s.Taken, func(t Taken) bool { return t.Kind == Change && !t.NotNow && !t.Undone && t.On >= on })
}

func to0(to movement.SetUp) Steps {
	return Steps{To: to, ToID: to.Movement.ID, Turned: to.Turned()}
}

func call(f func() (movement.SetUp, bool)) (movement.SetUp, bool) {
	if f == nil {
		return movement.SetUp{}, false
	}
	return f()
}

// form: what was seen in the last session comes before any rise; seen twice in a row it is
// lighter, too.
func form(c *Client, s *Series) *Proposal {
	n := len(s.Sessions)
	now := faults(&s.Sessions[n-1])
	if len(now) == 0 || s.answered(s.Sessions[n-1].On, Cue, Lighter) {
		return nil
	}
	seen := words(s.SetUp, now[0])
	p := &Proposal{Kind: Cue, Says: "No rise: first “" + seen + "”", Steps: Steps{Cue: now[0]},
		Why: []string{"It was seen in the last session, on " + s.Sessions[n-1].On.Words() + "."}}
	if n < 2 {
		return p
	}
	before := faults(&s.Sessions[n-2])
	i := slices.IndexFunc(now, func(f string) bool { return slices.Contains(before, f) })
	if i < 0 {
		return p
	}
	p.Why = []string{"“" + words(s.SetUp, now[i]) + "” was seen in the last two sessions."}
	p.Steps.Cue = now[i]
	hand := s.hand(&s.Sessions[n-1])
	if mark, ok := s.Next.below(hand); ok {
		p.Kind, p.Says, p.Steps.HandKg = Lighter, "A mark lighter, "+s.Next.tell(mark)+", until it is clean", mark
	}
	return p
}

// answered says whether a kind was taken after a session.
func (s *Series) answered(on day.Day, kinds ...Kind) bool {
	return slices.ContainsFunc(s.Taken, func(t Taken) bool {
		return !t.NotNow && !t.Undone && t.On >= on && slices.Contains(kinds, t.Kind)
	})
}

// faults are what was seen in a session, what ended a set first.
func faults(x *series.Session) (out []string) {
	for _, set := range x.Sets {
		for _, f := range set.Faults {
			if !slices.Contains(out, f) {
				out = append(out, f)
			}
		}
	}
	return out
}

// words tells a fault as it is seen.
func words(set movement.SetUp, id string) string {
	for _, f := range set.Movement.FaultsOf() {
		if f.ID == id {
			return f.Seen
		}
	}
	return id
}

// hand is what a session was done with, as one hand carried it: the load to go on from.
func (s *Series) hand(x *series.Session) float64 { return x.HandKg }

const sameLoad = 1e-6

// above and below are the next real marks.
func (n *Next) above(hand float64) (float64, bool) {
	for _, m := range n.Marks {
		if m > hand+sameLoad {
			return m, true
		}
	}
	return 0, false
}

func (n *Next) below(hand float64) (mark float64, ok bool) {
	for _, m := range n.Marks {
		if m < hand-sameLoad {
			mark, ok = m, true
		}
	}
	return mark, ok
}

func (n *Next) tell(hand float64) string {
	if n.Words == nil {
		return fmt.Sprintf("%g kg", math.Round(hand*100)/100)
	}
	return n.Words(hand)
}

// base is the band's high end before it grew at the load it has now.
func (s *Series) base(hand float64) int {
	high := s.Next.High
	for i := len(s.Sessions) - 1; i >= 0 && i < len(s.Bands); i-- {
		if x := &s.Sessions[i]; math.Abs(s.hand(x)-hand) > sameLoad {
			break
		}
		if s.Bands[i].Sets > 0 {
			high = min(high, s.Bands[i].High)
		}
	}
	return high
}

// up: all sets at the band's top at the planned reserve. One set may be a rep short where there
// are several: one rep told otherwise decides nothing.
func up(c *Client, s *Series) *Proposal {
	last := s.last(2)
	if len(last) == 0 {
		return nil
	}
	n, x := s.Next, last[0]
	_, least, second := over(x, n.High, n.Reserve)
	if least < -forgiven || second < 0 || len(counts(x)) < 2 && least < 0 || n.HandKg > s.hand(x)+sameLoad {
		return nil
	}
	hand := s.hand(x)
	top := fmt.Sprintf("On %s every set came to %d or more with %d left at %s.", x.On.Words(), n.High, n.Reserve, n.tell(hand))
	if least < 0 {
		top = fmt.Sprintf(
			"On %s the sets came to %d with %d left at %s, one of them a rep less.",
			x.On.Words(),
			n.High,
			n.Reserve,
			n.tell(hand),
		)
	}
	base := s.base(hand)
	small := n.Body && n.High < bodyFrom
	more := func(why string) *Proposal {
		return &Proposal{Kind: MoreReps, Says: fmt.Sprintf("A rep more: %d–%d at %s", n.Low+1, n.High+1, n.tell(hand)),
			Why: []string{top, why}, Steps: Steps{Reps: 1}}
	}
	mark, there := n.above(hand)
	grows := n.High < base+mostReps
	switch {
	case small:
		return more(fmt.Sprintf("With the body’s own weight reps come first, up to %d.", bodyFrom))
	case n.Low >= lightFrom && grows:
		return more("Light days rise by reps, heavy days by load.")
	case there && s.reaches(last, mark):
		e := e1rm(last)
		return &Proposal{Kind: Heavier, Says: "Go up to " + n.tell(mark), Steps: Steps{HandKg: mark}, Why: []string{top,
			fmt.Sprintf(
				"%s is the next mark there: about %d reps with %d left are to be expected of it; sessions scatter by %.1f %%.",
				n.tell(mark),
				series.RepsAt(e, mark, n.Reserve),
				n.Reserve,
				100*s.noise(),
			)}}
	case grows && there:
		return more(
			fmt.Sprintf("The next mark, %s, is too far: fewer than %d reps are to be expected of it.", n.tell(mark), n.Low),
		)
	case grows:
		return more("There is no heavier mark.")
	}
	return harder(c, s, top)
}

// reaches says whether a mark may be next: by what the last sessions say, less the noise, it
// gives the band's low end; the strong part of a press rises by no more than a twentieth.
func (s *Series) reaches(last []*series.Session, mark float64) bool {
	if s.SetUp.Movement != nil && s.SetUp.Movement.TopRange && mark > topWeekly*s.hand(last[0])+sameLoad {
		return false
	}
	return series.RepsAt(e1rm(last)*(1-s.noise()), mark, s.Next.Reserve) >= s.Next.Low
}

// e1rm is what the last sessions say could be lifted once, 0 where none tells.
func e1rm(last []*series.Session) (most float64) {
	n := 0.0
	for _, x := range last {
		if x.E1RM > 0 {
			most, n = most+x.E1RM, n+1
		}
	}
	return most / max(n, 1)
}

// noise is how much a session of the series scatters, as a part.
func (s *Series) noise() float64 {
	if len(s.Looks) == 0 {
		return series.Noise(nil)
	}
	return s.Looks[len(s.Looks)-1].Noise
}

// harder: no mark is left, and the band has grown: the same load asks for more otherwise.
func harder(_ *Client, s *Series, top string) *Proposal {
	n := s.Next
	p := &Proposal{
		Kind: Harder,
		Why:  []string{top, fmt.Sprintf("No mark is in reach and the band has grown by %d: harder without load.", mostReps)},
	}
	switch {
	case n.RestS-lessRestS >= n.LeastRest && n.RestS > 0:
		p.Says, p.Steps.RestS = fmt.Sprintf("Rest %d s instead of %d", n.RestS-lessRestS, n.RestS), n.RestS-lessRestS
	case n.LowerS < slowLowerS:
		p.Says, p.Steps.LowerS = fmt.Sprintf("Lower it in %.0f s", slowLowerS), slowLowerS
	default:
		to, ok := call(n.Other)
		if !ok {
			return nil
		}
		p.Says, p.Steps = "Take "+to.Title(), to0(to)
		p.Why = append(p.Why, "It asks for more of the same load’s idea; a new series begins.")
	}
	return p
}
