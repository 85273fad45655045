package decide

import (
	"fmt"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
	"musculus/internal/core/week"
)

// Elsewhere is what was pressed and pulled elsewhere before it was said to be otherwise.
type Elsewhere struct {
	Sets  []person.Elsewhere
	Until day.Day
}

// ElsewhereFor is for how long a rise of what is done elsewhere is asked about, days.
const ElsewhereFor = 28

// duplicating is what a set elsewhere has to give a head that a slot serves for the slot to duplicate it.
const duplicating = 0.5

// duplicates tells which direct slots of the week pressing or pulling elsewhere came to give too,
// as far as their head has enough without them.
func (f *Facts) duplicates(l *week.Ledger, sessions []plan.Planned) (out []string) {
	if f.Elsewhere == nil || len(f.Elsewhere.Sets) == 0 || f.T.Aims == nil { // said for the first time is no rise
		return nil
	}
	for _, kind := range []string{"press", "pull"} {
		more := setsElsewhere(f.T.Aims.Elsewhere, kind) - setsElsewhere(f.Elsewhere.Sets, kind)
		if more <= 0 {
			continue
		}
		gives, _ := f.T.Gives(week.Elsewhere(kind == "pull"))
		for i := range sessions {
			for j := range sessions[i].Slots {
				slot := &sessions[i].Slots[j]
				h, ok := f.spared(l, slot, &gives)
				if !ok || slot.Locked || len(out) > 0 { // one thing at a time
					continue
				}
				line := &l.Heads[h]
				out = append(out, fmt.Sprintf(
					"%s elsewhere rose by %d hard sets a week since %s and gives the %s, too: %s (%d sets, %s) can go, %g–%g are met without it.",
					map[string]string{"press": "Pressing", "pull": "Pulling"}[kind], more, f.Elsewhere.Until.Words(), arm.Heads[h].Name,
					slot.SetUp.Short(), slot.Sets(), sessions[i].Name, line.Target.Low, line.Target.High))
			}
		}
	}
	return out
}

// spared is the head a slot serves that elsewhere gives most; false where elsewhere gives it
// little, or any head the slot serves needs it.
func (f *Facts) spared(l *week.Ledger, slot *plan.Slot, elsewhere *[arm.HeadCount]week.Effective) (arm.HeadIndex, bool) {
	own, _ := f.T.Gives(slot.SetUp)
	most, best := own[mainHead(f.T, slot.SetUp)].Mid, arm.HeadIndex(-1)
	for h := range own {
		if own[h].Mid < served*most || most == 0 {
			continue
		}
		line := &l.Heads[h]
		if line.Total.Mid-own[h].Mid*float64(slot.Sets()) < line.Target.Low {
			return 0, false
		}
		if best < 0 || elsewhere[h].Mid > elsewhere[best].Mid {
			best = arm.HeadIndex(h)
		}
	}
	return best, best >= 0 && slot.SetUp.Movement.Computed() && elsewhere[best].Mid >= duplicating
}

func setsElsewhere(all []person.Elsewhere, kind string) (n int) {
	for _, e := range all {
		if e.Kind == kind {
			n += e.Sets
		}
	}
	return n
}

// checkedDays is how far ahead the plan is held against the caps.
const checkedDays = 14

// begun tells which sessions to come ask for more than the caps of today allow.
func (f *Facts) begun() []string {
	first, n := "", 0
	for i := range f.Sessions {
		x := &f.Sessions[i]
		if x.On < f.Today || int(x.On-f.Today) > checkedDays {
			continue
		}
		if wrong := f.T.Check(&x.Session); len(wrong) > 0 {
			if n++; first == "" {
				first = fmt.Sprintf("%s on %s: %s", x.Name, x.On.Words(), wrong[0].Reason)
			}
		}
	}
	switch n {
	case 0:
		return nil
	case 1:
		return []string{first + "."}
	}
	return []string{fmt.Sprintf("%d sessions to come; first %s.", n, first)}
}

// surely is how sure a rating has to be to say that a head caught up.
const surely = 2

// CaughtUp tells which prioritised head looks no longer behind, by two ratings sure enough, the
// later one since the emphasis was set; "" for none.
func CaughtUp(e *priority.Emphasis, ratings []priority.Rating, today day.Day) string {
	if e == nil {
		return ""
	}
	var was, is *priority.Rating // the last before it was set, the last since
	for i := range ratings {
		r := &ratings[i]
		switch {
		case r.Confidence < surely:
		case r.On <= e.SetOn && (was == nil || r.On >= was.On):
			was = r
		case r.On > e.SetOn && (is == nil || r.On >= is.On):
			is = r
		}
	}
	if was == nil || is == nil {
		return ""
	}
	for h := range arm.Heads {
		head := &arm.Heads[h]
		before, known := was.Heads[head.ID]
		now, again := is.Heads[head.ID]
		if e.Of(arm.HeadIndex(h), today) == priority.Prioritise && known && again && before < 0 && now >= 0 {
			return fmt.Sprintf("The %s looked behind when it was made the emphasis; on %s it did no longer.", head.Name, is.On.Words())
		}
	}
	return ""
}
