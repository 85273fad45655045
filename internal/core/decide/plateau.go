package decide

import (
	"fmt"
	"math"
	"strings"

	"musculus/internal/core/series"
)

// Numbers of what is done about a course that stands.
const (
	attends      = 0.8 // part of the planned sessions that has to be done before a load is blamed
	leastPlanned = 4
	besideTarget = 0.5 // sets a week
	fewestLow    = 3   // reps: no band is lowered under it
)

// weeksBefore another set-up is looked for, by how the client likes variety.
var weeksBefore = map[string]int{"rotate": 6, "keep": 12, "often": 0}

// under: twice under the band's low end.
func under(_ *Client, s *Series) *Proposal {
	last := s.last(2)
	if len(last) < 2 {
		return nil
	}
	n := s.Next
	for _, x := range last {
		if mean, _, _ := over(x, n.Low, n.Reserve); mean > -underBy {
			return nil
		}
	}
	hand := s.hand(last[0])
	if n.HandKg > 0 && n.HandKg < hand-sameLoad {
		return nil // it is lighter already
	}
	why := []string{
		fmt.Sprintf(
			"On %s and %s the sets stayed under %d with %d left.",
			last[1].On.Words(),
			last[0].On.Words(),
			n.Low,
			n.Reserve,
		),
	}
	mark, ok := n.below(hand)
	reps := 0
	if ok {
		reps = series.RepsAt(e1rm(last), mark, n.Reserve)
	}
	switch {
	case (!ok || reps > n.High+mostReps) && n.Low <= fewestLow:
		return nil
	case !ok:
		why = append(why, "There is no lighter mark.")
	case reps > n.High+mostReps:
		why = append(why, fmt.Sprintf("The next lighter mark, %s, would be too light: about %d reps.", n.tell(mark), reps))
	default:
		if reps > 0 {
			why = append(why, fmt.Sprintf("About %d reps with %d left are to be expected of %s.", reps, n.Reserve, n.tell(mark)))
		}
		return &Proposal{Kind: Lighter, Says: "Go back to " + n.tell(mark), Steps: Steps{HandKg: mark}, Why: why}
	}
	return &Proposal{Kind: Lighter, Says: fmt.Sprintf("A rep less: %d–%d", n.Low-1, n.High-1), Steps: Steps{Reps: -1}, Why: why}
}

// look is the course's last look; nil before it compares.
func (s *Series) look() *series.Look {
	if len(s.Looks) == 0 {
		return nil
	}
	return &s.Looks[len(s.Looks)-1]
}

// stands says whether the course stands on a plateau.
func (s *Series) stands() bool { l := s.look(); return l != nil && l.State == series.Plateau }

// attendance: what is not done cannot rise; load is not the matter then.
func attendance(c *Client, s *Series) *Proposal {
	if !s.stands() || c.Planned < leastPlanned || float64(c.Done) >= attends*float64(c.Planned) {
		return nil
	}
	return &Proposal{Kind: Spacing, Says: "Fewer or shorter sessions that are done, before any load",
		Why: []string{
			CourseWords(s.look()),
			AttendedWords(c.Done, c.Planned),
		}}
}

// AttendedWords tell how much of the plan was done of late.
func AttendedWords(done, planned int) string {
	return fmt.Sprintf("%d of %d planned sessions of the last four weeks were done.", done, planned)
}

// sets: a plateau with the week under or over its target.
func sets(_ *Client, s *Series) *Proposal {
	n := s.Next
	if !s.stands() || n.Top <= 0 {
		return nil
	}
	week := fmt.Sprintf("The week gives the %s %.1f sets against %g–%g.", n.HeadName, n.Weekly, n.LowSets, n.Top)
	switch {
	case n.Weekly < n.LowSets-besideTarget:
		return &Proposal{Kind: MoreSets, Says: "One set more", Why: []string{CourseWords(s.look()), week}, Steps: Steps{Sets: 1}}
	case n.Weekly > n.Top+besideTarget && n.Sets > 1:
		return &Proposal{Kind: LessSets, Says: "One set less", Why: []string{CourseWords(s.look()), week}, Steps: Steps{Sets: -1}}
	}
	return nil
}

// other: a plateau, sets as they should be: another set-up for the same head, when its time has
// come. What is new is no reason by itself, and that is said.
func other(c *Client, s *Series) *Proposal {
	if !s.stands() || s.Since == 0 {
		return nil
	}
	weeks := int(c.Today-s.Since) / 7
	most, ok := weeksBefore[c.Variety]
	if !ok {
		most = weeksBefore["rotate"]
	}
	if weeks < most {
		return nil
	}
	to, ok := call(s.Next.Other)
	if !ok {
		return nil
	}
	return &Proposal{Kind: Change, Says: "Take " + to.Title() + " instead", Steps: to0(to), Why: []string{CourseWords(s.look()),
		fmt.Sprintf("It has been in the plan for %d weeks; attendance and sets are as they should be.", weeks),
		"That it is new is no reason by itself: it serves the same head at a length the week has less of. A new series begins."}}
}

// hold: in the band, and nothing else: which reps would mean a rise.
func hold(s *Series) *Proposal {
	n := s.Next
	p := &Proposal{Kind: Hold, Says: "Stay"}
	if n.HandKg > 0 {
		p.Says = "Stay at " + n.tell(n.HandKg)
	}
	p.Why = append(p.Why, fmt.Sprintf("All sets at %d with %d left would mean a rise.", n.High, n.Reserve))
	if l := s.look(); l != nil {
		p.Why = append(p.Why, CourseWords(l))
	}
	return p
}

// CourseWords tell what a course does, with its odds.
func CourseWords(l *series.Look) string {
	slope := fmt.Sprintf("%+.1f %% a week", 100*l.Slope)
	switch l.State {
	case series.Falling:
		return "It falls: " + slope + ", at 19 to 1 against standing still."
	case series.Rising:
		return fmt.Sprintf("It rises: %s, at %s against standing still.", slope, odds(-l.LnOdds))
	case series.Plateau:
		if l.Flat() {
			return fmt.Sprintf("It stands still: %s, at %s against rising by %g %% a week.", slope, odds(l.LnOdds), 100*l.Growth)
		}
		return fmt.Sprintf("It does not rise by %g %% a week: %s, at %s.", 100*l.Growth, slope, odds(l.LnOdds))
	}
	out := "Cannot tell yet whether it rises"
	if l.Error > 0 && l.LnOdds != 0 {
		which := "standing still"
		if l.LnOdds < 0 {
			which = "rising"
		}
		out += fmt.Sprintf(": %s for %s from %s, which is too little", odds(math.Abs(l.LnOdds)), which, sessions(l.Window))
		if l.Enough {
			out = strings.TrimSuffix(out, ", which is too little")
		}
	}
	if l.More > 0 {
		return out + fmt.Sprintf(". About %s more would tell.", sessions(l.More))
	}
	return out + "."
}

// odds tells odds of at least even ones.
func odds(ln float64) string {
	x := math.Exp(min(ln, 10))
	switch {
	case x >= 1000:
		return "over 1000 to 1"
	case x >= 10:
		return fmt.Sprintf("%.0f to 1", x)
	}
	return fmt.Sprintf("%.1f to 1", x)
}

// fallsFor is how many of the last comparing sessions the course has been called falling.
func (s *Series) fallsFor() (n int) {
	for i := len(s.Looks) - 1; i >= 0 && s.Looks[i].State == series.Falling; i-- {
		n++
	}
	return n
}
