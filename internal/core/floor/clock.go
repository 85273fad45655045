package floor

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"time"

	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

// Rest is the pause that runs after a set was entered.
type Rest struct {
	From  time.Time // by the server's clock
	ForS  int       // planned
	other float64   // of it, done by the other arm's set, s
}

// LongRest is from how much of the planned rest it is said, once, that it goes on.
const LongRest = 1.25

// RestAfter is the rest after a set; otherArmS is what a set of the other arm takes that
// comes first, which is rest too.
func RestAfter(entered time.Time, restS int, otherArmS float64) Rest {
	return Rest{From: entered, ForS: restS, other: otherArmS}
}

// Left is what is left of the rest, s; under 0 once it is over.
func (r Rest) Left(now time.Time) float64 {
	return float64(r.ForS) - max(r.other, now.Sub(r.From).Seconds())
}

// Long says whether the rest goes on for longer than planned by so much that it is said.
func (r Rest) Long(now time.Time) bool {
	return r.ForS > 0 && now.Sub(r.From).Seconds() > LongRest*float64(r.ForS)
}

// RealRest is how long a rest really was: from a set entered to the likely start of the next
// one, which was entered after it was done.
func RealRest(entered, next time.Time, setS float64) float64 {
	return max(0, next.Sub(entered).Seconds()-setS)
}

// Ahead is a session without what is done of it, by slot the sets that are done.
func Ahead(s *plan.Session, done []int) plan.Session {
	out := *s
	out.Slots = nil
	out.WarmUpMin = 0
	for i := range s.Slots {
		slot := s.Slots[i]
		slot.Rows = slices.Clone(slot.Rows)
		n := 0
		if i < len(done) {
			n = done[i]
		}
		for n > 0 && len(slot.Rows) > 0 {
			if take := min(n, slot.Rows[0].Sets); take < slot.Rows[0].Sets {
				slot.Rows[0].Sets -= take
				break
			} else {
				n -= take
				slot.Rows = slot.Rows[1:]
			}
		}
		if len(slot.Rows) > 0 {
			out.Slots = append(out.Slots, slot)
		}
	}
	return out
}

// Forecast is how long the rest of a session will take, minutes: what is ahead as planned,
// with the ramp only while nothing is done.
func Forecast(t *week.Trainee, s *plan.Session, done []int) float64 {
	ahead := Ahead(s, done)
	if len(ahead.Slots) == 0 {
		return 0
	}
	c := t.Count(&ahead)
	if slices.ContainsFunc(done, func(n int) bool { return n > 0 }) {
		return c.Minutes - c.WarmUp
	}
	return c.Minutes + s.WarmUpMin
}

// Leave is a slot whose sets ahead could be left out.
type Leave struct {
	Slot    int     `json:"slot"` // in the session
	Minutes float64 `json:"minutes"`
	Loses   float64 `json:"loses"` // effective sets under target, over all heads
	Words   string  `json:"words"`
}

// leastSaved is under how many minutes leaving out is not offered.
const leastSaved = 1.0

// LeaveOut lists what of a week's session could be left out when time runs over, what loses
// the fewest effective sets under target for each minute first.
func LeaveOut(t *week.Trainee, w *week.Week, session int, done []int) (out []Leave) {
	s := &w.Sessions[session].Session
	before := Forecast(t, s, done)
	full := w.Count(t)
	for i := range s.Slots {
		counted := append(slices.Clone(done), make([]int, max(0, len(s.Slots)-len(done)))...)
		n := counted[i]
		counted[i] = s.Slots[i].Sets()
		if l := leaveOf(t, w, &full, session, i, n, before-Forecast(t, s, counted)); l != nil {
			out = append(out, *l)
		}
	}
	slices.SortStableFunc(out, func(a, b Leave) int {
		return cmp.Or(cmp.Compare(a.Loses/a.Minutes, b.Loses/b.Minutes), cmp.Compare(b.Minutes, a.Minutes))
	})
	return out
}

// leaveOf is what leaving out the sets of a slot after the first n costs the week, where it
// saves so many minutes; nil where there are none, they are locked, or it saves too little.
func leaveOf(t *week.Trainee, w *week.Week, full *week.Ledger, session, i, n int, saved float64) *Leave {
	s := &w.Sessions[session].Session
	ahead := s.Slots[i].Sets() - n
	if ahead <= 0 || s.Slots[i].Locked || saved < leastSaved {
		return nil
	}
	less := week.Week{Sessions: slices.Clone(w.Sessions)}
	slots := slices.Clone(s.Slots)
	if n == 0 {
		slots = slices.Delete(slots, i, i+1)
	} else {
		slots[i].Rows = slices.Clone(slots[i].Rows)
		slots[i].AtMost(n)
	}
	less.Sessions[session].Slots = slots
	after := less.Count(t)
	loses := 0.0
	for h := range full.Heads {
		low := full.Heads[h].Target.Low
		loses += max(0, low-after.Heads[h].Total.Mid) - max(0, low-full.Heads[h].Total.Mid)
	}
	sets := "1 set"
	if ahead > 1 {
		sets = fmt.Sprintf("%d sets", ahead)
	}
	words := fmt.Sprintf("Without %s of %s: %s less", sets, s.Slots[i].SetUp.Short(), minutesWords(saved))
	if loses >= 0.05 {
		words += fmt.Sprintf(", %.1f effective sets under target", loses)
	} else {
		words += ", and no head falls under its target"
	}
	return &Leave{i, saved, loses, words + "."}
}

// minutesWords tells whole minutes.
func minutesWords(m float64) string {
	if n := math.Round(m); n != 1 {
		return fmt.Sprintf("%.0f minutes", n)
	}
	return "1 minute"
}
