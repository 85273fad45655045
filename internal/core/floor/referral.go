package floor

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"musculus/internal/core/plan"
)

// ReferralOf is what a client takes along of what stands of a session, about what hurt most;
// "" where nothing did that asks for it.
func ReferralOf(name string, standing []Event, p *plan.Session, dayWords func(time.Time) string) string {
	var worst *PainTold
	var at time.Time
	for i := range standing {
		if x := standing[i].Pain; x != nil && (worst == nil || x.Score > worst.Score) {
			worst, at = x, standing[i].At
		}
	}
	if worst == nil {
		return ""
	}
	r := ReportOf(worst, nil)
	if !r.FlagsFirst() && len(worst.Flags) == 0 {
		return ""
	}
	var in []string
	for i := range standing {
		x := standing[i].Pain
		if x == nil || x.Joint != worst.Joint || x.Side != worst.Side {
			continue
		}
		for k := range p.Slots {
			s := &p.Slots[k]
			if s.ID == x.Slot && s.SetUp.Movement != nil && !slices.Contains(in, s.SetUp.Title()) {
				in = append(in, s.SetUp.Title())
			}
		}
	}
	return Referral(name, &r, worst.Score, dayWords(at), in)
}

// Referral is what a client takes along to a clinician: what hurt, when, in which movements;
// no diagnosis.
func Referral(name string, r *Report, peak int, when string, movements []string) string {
	where := "elsewhere than in arm and shoulder joints"
	if r.Joint != "" {
		where = string(r.Side) + ", " + r.Joint.Words()
	}
	words := []string{
		fmt.Sprintf("%s reported pain on %s: %s, at most %d of 10.", name, when, where, peak),
	}
	if r.Sudden {
		words = append(words, "It came suddenly.")
	}
	if len(movements) > 0 {
		words = append(words, "It was felt in: "+strings.Join(movements, "; ")+".")
	}
	return strings.Join(
		append(words, "Training of what loads it was stopped. This is a record for whoever examines it, not a diagnosis."),
		" ",
	)
}
