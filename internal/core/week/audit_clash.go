package week

import (
	"fmt"
	"math"
	"slices"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
	"musculus/internal/core/priority"
)

// Way is one way out of a clash of rules: what would give way, and where that is set.
type Way struct {
	Words string
	Place string // dossier, priorities
}

// clashFrom is how many times what the time holds the targets must ask for it to be
// beyond what another choice of movements could mend.
const clashFrom = 1.2

// clash is the targets and the minutes, where both cannot be met: one card instead of
// every head that is short and every session that is long, because no fix of one
// could leave the other.
func (a *auditor) clash() {
	holds, asked, sessions := a.holdsAndAsks()
	if float64(asked) <= clashFrom*float64(holds) {
		return
	}
	a.clashes = true
	a.out = slices.DeleteFunc(a.out, func(f Found) bool { return f.Code == "under" || f.Code == "minutes" })
	many := fmt.Sprintf("%d sessions of %d minutes", sessions, a.t.Aims.Minutes)
	if sessions == 1 {
		many = fmt.Sprintf("%d minutes", a.t.Aims.Minutes)
	}
	a.add(Found{Key: "clash:minutes", Code: "clash", Severity: Warn, Session: -1, Slot: -1, Why: whys["clash"],
		Text: fmt.Sprintf("%s hold about %d hard sets of these movements; the targets ask about %d. Which gives way?", many, holds, asked),
		Ways: []Way{{"More minutes or days", "dossier"}, {"Lower targets", "priorities"}}}, func() *Fix { return nil })
}

// holdsAndAsks is how many hard sets the client's time holds of the movements that are
// planned, how many the targets ask of them, and in how many sessions; the same number
// twice where nothing is short or nothing is known.
func (a *auditor) holdsAndAsks() (holds, asked, sessions int) {
	aims := a.t.Aims
	if aims == nil || aims.Minutes <= 0 || len(a.week.Sessions) == 0 {
		return 0, 0, 0
	}
	var minutes, warmUp float64
	sets, hard := 0, a.ledger.Flexors+a.ledger.Extensors
	for i := range a.week.Sessions {
		minutes, warmUp = minutes+a.ledger.Sessions[i].Minutes, warmUp+a.ledger.Sessions[i].WarmUp
		for j := range a.week.Sessions[i].Slots {
			sets += a.week.Sessions[i].Slots[j].Sets()
		}
	}
	if sets == 0 || hard == 0 {
		return 0, 0, 0
	}
	n := float64(len(a.week.Sessions))
	sessions = max(len(a.week.Sessions), len(aims.Weekdays))
	free := float64(sessions) * (float64(aims.Minutes) - warmUp/n)
	holds = int(free / ((minutes - warmUp) / float64(sets)))
	asked = hard + a.missing(true) + a.missing(false)
	if asked == hard { // nothing is short
		return holds, min(holds, asked), sessions
	}
	return holds, asked, sessions
}

// missing is about how many hard sets a muscle group still lacks: one serves every
// head of it, so that the head that lacks most decides.
func (a *auditor) missing(flexor bool) int {
	most := 0.0
	for h := range a.ledger.Heads {
		line := &a.ledger.Heads[h]
		if arm.HeadIndex(h).Flexor() != flexor || !line.Short() {
			continue
		}
		best := leastSetWorth // of a set of what is planned
		for i := range a.week.Sessions {
			for j := range a.week.Sessions[i].Slots {
				if n := a.week.Sessions[i].Slots[j].Sets(); n > 0 {
					best = max(best, a.ledger.Sessions[i].Slots[j].Heads[h].Mid/float64(n))
				}
			}
		}
		most = max(most, (line.Target.Low-line.Total.Mid)/best)
	}
	return int(math.Ceil(most))
}

// along is one quiet line for the heads that get more than their target only because
// they ride along with others.
func (a *auditor) along() {
	var codes []string
	for h := range a.ledger.Heads {
		line := &a.ledger.Heads[h]
		if line.Total.Mid > line.Target.High+nearTarget && line.Level != priority.Prioritise && line.Direct.Mid > 0 &&
			a.ridesAlong(arm.HeadIndex(h)) {
			codes = append(codes, arm.Heads[h].Code)
		}
	}
	if len(codes) == 0 {
		return
	}
	verb := "rides"
	if len(codes) > 1 {
		verb = "ride"
	}
	a.add(Found{Key: "along", Code: "along", Severity: Note, Session: -1, Slot: -1, Why: whys["along"],
		Text: fmt.Sprintf(
			"%s %s along over the target: nothing in the week is for that alone.",
			movement.Join(codes),
			verb,
		)}, func() *Fix { return nil })
}
