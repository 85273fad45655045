package decide

import (
	"fmt"
	"math"

	"musculus/internal/core/series"
)

// beforeSessions are how many sessions before a decision it is compared with.
const beforeSessions = 4

// OutcomeOf tells what happened after a proposal was taken, with the noise; what it came from
// nobody knows from a log. s is the series it was about, or the one it was changed to.
func OutcomeOf(t *Taken, s *Series) string {
	switch {
	case t.NotNow || t.Undone || s == nil:
		return ""
	case t.Kind == Change:
		return changed(t, s)
	}
	var before, after []float64
	done := 0
	for i := range s.Sessions {
		x := &s.Sessions[i]
		if x.On > t.On {
			done++
		}
		switch {
		case x.Hollow != "":
		case x.On > t.On:
			after = append(after, x.E1RM)
		default:
			before = append(before, x.E1RM)
		}
	}
	before = before[max(0, len(before)-beforeSessions):]
	if done < watchSessions {
		return fmt.Sprintf("Watched: %d of %d sessions since.", done, watchSessions)
	}
	if len(before) == 0 || len(after) == 0 {
		return fmt.Sprintf("%s since, none that compares with what was before.", sessions(done))
	}
	change := math.Log(mean(after) / mean(before))
	within := 2 * s.noise() * math.Sqrt(1/float64(len(before))+1/float64(len(after)))
	out := fmt.Sprintf("%s since, on the average %+.1f %%", sessions(done), 100*change)
	if math.Abs(change) > within {
		return out + fmt.Sprintf(": beyond what sessions scatter (±%.1f %%).", 100*within)
	}
	return out + fmt.Sprintf(": within what sessions scatter (±%.1f %%).", 100*within)
}

// changed tells of another set-up: a series of its own, which compares with nothing before.
func changed(t *Taken, s *Series) string {
	done, worst := 0, -1
	for i := range s.Sessions {
		if s.Sessions[i].On > t.On {
			done++
		}
	}
	for _, x := range s.Scores {
		if x.On > t.On {
			worst = max(worst, x.Score)
		}
	}
	out := fmt.Sprintf("%s in it since", sessions(done))
	if worst >= 0 {
		out += fmt.Sprintf(", joints at most %d of 10", worst)
	}
	if l := s.look(); l != nil && l.State != series.Unknown {
		return out + ". " + CourseWords(l)
	}
	return out + "."
}

func sessions(n int) string {
	if n == 1 {
		return "1 session"
	}
	return fmt.Sprintf("%d sessions", n)
}

func mean(all []float64) (m float64) {
	for _, x := range all {
		m += x / float64(len(all))
	}
	return m
}
