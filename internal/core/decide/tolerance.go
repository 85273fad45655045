package decide

import (
	"fmt"
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/floor"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/series"
)

// ToleranceStep is what a session of a tolerance plan leads to.
const ToleranceStep Kind = "tolerance"

// Tolerance is a tolerance plan as it was begun; where it stands follows from the sessions and
// the scores since.
type Tolerance struct {
	ID      uuid.UUID
	Series  string
	Joint   movement.Joint
	Side    person.Side
	Started day.Day
}

// repsBeforeLoad are the steps of a plan that are reps.
const repsBeforeLoad = 3

// Led is where a plan stands.
type Led struct {
	Tolerance
	At      floor.Tolerance
	Course  floor.Course // what the last session led to, "" before the first
	Why     string
	On      day.Day // the last session
	Waiting bool    // for the answer of the day after
	before  int     // steps before the last session
}

// Follow works a plan out: session by session, the joint's score in the morning, at its worst
// while it was done, and the day after. A session whose next day has not come is waited for.
func (p Tolerance) Follow(sessions []series.Session, reports []person.JointReport, today day.Day) Led {
	out := Led{Tolerance: p, At: floor.Tolerance{Started: p.Started}}
	for i := range sessions {
		x := &sessions[i]
		if x.On < p.Started {
			continue
		}
		a := p.answered(x, reports)
		out.On = x.On
		if a.After == nil && today <= x.On+1 && a.During <= overPain {
			out.Waiting = true
			break
		}
		out.before = out.At.Steps
		out.At, out.Course, out.Why = out.At.Next(a)
	}
	return out
}

// answered is how one session went for the joint.
func (p Tolerance) answered(x *series.Session, reports []person.JointReport) floor.Answered {
	a := floor.Answered{On: x.On}
	morning := day.Day(0)
	for i := range reports {
		r := &reports[i]
		if r.Joint != p.Joint || r.Side != p.Side {
			continue
		}
		switch {
		case r.In == x.ID.String():
			a.During = max(a.During, r.Score)
		case r.On <= x.On && r.On >= morning && r.In == "":
			a.Morning, morning = r.Score, r.On
		case r.On == x.On+1 && r.In == "":
			score := r.Score
			if a.After == nil || score > *a.After {
				a.After = &score
			}
		}
	}
	return a
}

// Words tell where a plan stands and what it waits for.
func (l *Led) Words() string {
	out := fmt.Sprintf("Led up to for the %s, %s, since %s: %s", l.Joint.Words(), l.Side, l.Started.Words(), l.At.Words())
	switch {
	case l.Waiting:
		return out + fmt.Sprintf(" How the joint is on the day after %s decides.", l.On.Words())
	case l.At.Over:
		return out + " It has ended."
	}
	return out
}

// led proposes the next step of a plan; a step is taken once a session.
func led(c *Client, s *Series) *Proposal {
	l := s.Led
	if l == nil || c.Blocked != "" || l.Course == "" || l.Waiting || l.Course == floor.CourseStay || s.answered(l.On, ToleranceStep) {
		return nil
	}
	p := &Proposal{Kind: ToleranceStep, Why: []string{l.Why}}
	hand := s.Next.HandKg
	if last := s.last(1); hand == 0 && len(last) > 0 {
		hand = s.hand(last[0])
	}
	up, there := s.Next.above(hand)
	down, lower := s.Next.below(hand)
	switch {
	case l.Course == floor.CourseRefer:
		p.Says = "Stop leading up to it, and have the " + l.Joint.Words() + " looked at"
	case l.Course == floor.CourseEnd:
		p.Says = "The plan is over: keep what is painless"
	case l.Course == floor.CourseUp && l.before < repsBeforeLoad:
		p.Says, p.Steps = "A rep more, the same load", Steps{Reps: 1}
	case l.Course == floor.CourseUp && !there:
		p.Says = "There is no heavier mark: stay"
	case l.Course == floor.CourseUp && l.before == repsBeforeLoad:
		p.Says, p.Steps = "The reps of the beginning with "+s.Next.tell(up), Steps{HandKg: up, Reps: -repsBeforeLoad}
	case l.Course == floor.CourseUp:
		p.Says, p.Steps = "Go up to "+s.Next.tell(up), Steps{HandKg: up}
	case l.before == 0 && lower:
		p.Says, p.Steps = "Lighter, where nothing hurts: "+s.Next.tell(down), Steps{HandKg: down}
	case l.before == 0:
		p.Says = "There is no lighter mark: another set-up"
	case l.before <= repsBeforeLoad:
		p.Says, p.Steps = "A rep less", Steps{Reps: -1}
	case l.before == repsBeforeLoad+1 && lower:
		p.Says, p.Steps = "Back to "+s.Next.tell(down), Steps{HandKg: down, Reps: repsBeforeLoad}
	case lower:
		p.Says, p.Steps = "Back to "+s.Next.tell(down), Steps{HandKg: down}
	default:
		return nil
	}
	return p
}

// follows gives a series its plan.
func (s *Series) follows(f *Facts) {
	i := slices.IndexFunc(f.Tolerances, func(p Tolerance) bool { return p.Series == s.Key })
	if i >= 0 {
		l := f.Tolerances[i].Follow(s.Sessions, slices.Concat(f.Joints, f.Mornings), f.Today)
		s.Led = &l
	}
}
