package person

import (
	"fmt"
	"maps"
	"slices"

	"musculus/internal/core/day"
	"musculus/internal/core/movement"
)

// Side of the body.
type Side string

// The sides.
const (
	Left  Side = "left"
	Right Side = "right"
)

// JointReport is one score of one joint.
type JointReport struct {
	On       day.Day        `json:"on"`
	Joint    movement.Joint `json:"joint"`
	Side     Side           `json:"side"`
	Score    int            `json:"score"` // 0–10
	Provokes string         `json:"provokes,omitempty"`
	Outside  bool           `json:"outside,omitempty"` // felt outside training too
	// In is the session it was told in: what is told in one is one report, at its peak.
	In string `json:"in,omitempty" maxLength:"40"`
}

// Check returns what is wrong, one error a field.
func (r *JointReport) Check(today day.Day) []FieldError {
	var c checker
	fault := c.fault
	fault(r.On <= today, "on", "%s is in the future", r.On.Words())
	fault(slices.Contains(movement.Joints, r.Joint), "joint", "there is no joint %q", r.Joint)
	fault(r.Side == Left || r.Side == Right, "side", "neither left nor right")
	c.within("score", float64(r.Score), 0, 10, "")
	c.size("provokes", r.Provokes, 200)
	return c.found
}

// Scores are the latest scores by side.
type Scores map[Side]map[movement.Joint]int

// Clone is the same scores, to be changed.
func (s Scores) Clone() Scores {
	out := Scores{}
	for side, joints := range s {
		out[side] = maps.Clone(joints)
	}
	return out
}

// peaks makes one report of those that were told of a joint in one session: the worst of them,
// in the place of the last.
func peaks(reports []JointReport) []JointReport {
	var out []JointReport
	for i, r := range reports {
		later := false
		for _, o := range reports[i+1:] {
			later = later || r.in(&o)
		}
		if later {
			continue
		}
		for _, o := range reports[:i] {
			if r.in(&o) {
				r.Score = max(r.Score, o.Score)
			}
		}
		out = append(out, r)
	}
	return out
}

// in says whether two reports are of one joint in one session.
func (r *JointReport) in(o *JointReport) bool {
	return r.In != "" && r.In == o.In && r.Joint == o.Joint && r.Side == o.Side
}

// ScoresOf takes the latest report of every joint and side.
func ScoresOf(reports []JointReport) Scores {
	reports = peaks(reports)
	out := Scores{Left: {}, Right: {}}
	seen := map[string]day.Day{}
	for _, r := range reports {
		key := string(r.Side) + string(r.Joint)
		if at, ok := seen[key]; ok && at > r.On {
			continue
		}
		seen[key] = r.On
		if out[r.Side] != nil {
			out[r.Side][r.Joint] = r.Score
		}
	}
	return out
}

// Worse is the worse side's score of a joint.
func (s Scores) Worse(j movement.Joint) int { return max(s[Left][j], s[Right][j]) }

// Where a known ache is no longer one to work around.
const (
	stableScore   = 3
	easesWithin   = 14 // days
	risingReports = 3
)

// Rising tells which aches have moved up to "see a clinician": over 3 outside
// training or in two sessions, rising report to report, or over two weeks
// without easing. A clearance of the ache's screening after the last report
// quiets it; s may be nil.
func Rising(reports []JointReport, s *Screening, today day.Day) []string {
	reports = peaks(reports)
	var out []string
	for _, j := range movement.Joints {
		for _, side := range []Side{Left, Right} {
			var own []JointReport
			for _, r := range reports {
				if r.Joint == j && r.Side == side {
					own = append(own, r)
				}
			}
			slices.SortStableFunc(own, func(a, b JointReport) int { return int(a.On - b.On) })
			n := len(own)
			if n == 0 || own[n-1].Score == 0 {
				continue
			}
			last := own[n-1]
			what := fmt.Sprintf("%s, %s, %d of 10", j.Words(), side, last.Score)
			switch {
			case last.Score > stableScore && last.Outside:
				out = append(out, what+fmt.Sprintf(": over %d outside training. See a clinician.", stableScore))
			case n >= 2 && last.Score > stableScore && own[n-2].Score > stableScore:
				out = append(out, what+fmt.Sprintf(": over %d twice in a row. See a clinician.", stableScore))
			case n >= risingReports && own[n-1].Score > own[n-2].Score && own[n-2].Score > own[n-3].Score:
				out = append(out, what+": rising from report to report. See a clinician.")
			case last.Score > stableScore && int(today-firstOver(own)) > easesWithin:
				out = append(out, what+": over two weeks without easing. See a clinician.")
			}
		}
	}
	return out
}

// firstOver is the day from which the score has stayed over what is stable.
func firstOver(own []JointReport) day.Day {
	since := own[len(own)-1].On
	for i := len(own) - 1; i >= 0 && own[i].Score > stableScore; i-- {
		since = own[i].On
	}
	return since
}
