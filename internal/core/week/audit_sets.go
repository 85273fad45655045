package week

import (
	"fmt"
	"slices"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
)

// more adds sets for a head (at a length, −1: any) until done says so, three at most:
// to slots that are there, then with a movement from the shelf. What is still missing
// then is a step for the next time.
func (a *auditor) more(h arm.HeadIndex, zone int, done func(*Ledger) bool) *Fix {
	next := a.week.clone()
	added := map[string]int{}
	var order []string
	note := func(what string, n int) {
		if added[what] == 0 {
			order = append(order, what)
		}
		added[what] += n
	}
	l := *a.ledger
	for left := mostAdded; left > 0; {
		i, j := a.roomFor(&next, &l, h, zone)
		if j >= 0 {
			next.Sessions[i].Slots[j].Add(1)
			note(names(next.Sessions[i].Slots[j].SetUp)+" in "+next.Sessions[i].Name, 1)
			left--
		} else {
			if i = a.lightest(&next, &l); i < 0 {
				break
			}
			it := a.best(&next.Sessions[i].Session, h, zone, leastSetWorth*0.6)
			if it == nil {
				break
			}
			d := dose.Usual(a.t.Caps)
			d.Sets = min(d.Sets, left)
			next.Sessions[i].Slots = append(next.Sessions[i].Slots, plan.Of(it.shape.SetUp, d))
			note(names(it.shape.SetUp)+" in "+next.Sessions[i].Name, d.Sets)
			left -= d.Sets
		}
		if l = l.recount(a.t, &next, i, -1); done(&l) {
			break
		}
	}
	if len(order) == 0 {
		return nil
	}
	for i, what := range order {
		sets := "1 set"
		if n := added[what]; n > 1 {
			sets = fmt.Sprintf("%d sets", n)
		}
		order[i] = sets + " of " + what
	}
	return &Fix{"Add " + strings.Join(order, ", "), next}
}

// roomFor is the slot that gives a head most per set and may take another one.
func (a *auditor) roomFor(w *Week, l *Ledger, h arm.HeadIndex, zone int) (session, slot int) {
	session, slot = -1, -1
	best := leastSetWorth
	for i := range w.Sessions {
		for j := range w.Sessions[i].Slots {
			s := &w.Sessions[i].Slots[j]
			group := l.Sessions[i].Hard(plan.GroupOf(s.SetUp))
			if locked(&w.Sessions[i], j) || s.Sets() >= mostSlotSets || a.t.Caps.MostSets > 0 && s.Sets() >= a.t.Caps.MostSets ||
				group >= MostGroupSets ||
				!a.fits(s.SetUp) {
				continue
			}
			gives := l.Sessions[i].Slots[j].Heads[h].Mid
			if zone >= 0 {
				gives = l.Sessions[i].Slots[j].Zones[h][zone]
			}
			if per := gives / float64(s.Sets()); per > best {
				session, slot, best = i, j, per
			}
		}
	}
	return session, slot
}

// lightest is the session with the most time left, −1 when there is none.
func (a *auditor) lightest(w *Week, l *Ledger) int {
	best := -1
	for i := range w.Sessions {
		if !w.Sessions[i].Locked && len(w.Sessions[i].Slots) < plan.MostSlots &&
			(best < 0 || l.Sessions[i].Minutes < l.Sessions[best].Minutes) {
			best = i
		}
	}
	return best
}

// oneLess takes one set from a slot, and the slot out with its last.
func (w *Week) oneLess(i, j int) {
	slot := &w.Sessions[i].Slots[j]
	if slot.Sets() > 1 {
		slot.Less()
		return
	}
	w.takeOut(i, j)
}

func (w *Week) takeOut(i, j int) bool {
	w.Sessions[i].Slots = slices.Delete(w.Sessions[i].Slots, j, j+1)
	return true
}

// fewerWords tells what was taken: "2 sets less of …".
func fewerWords(taken []string) string {
	n := map[string]int{}
	var order []string
	for _, t := range taken {
		if n[t]++; n[t] == 1 {
			order = append(order, t)
		}
	}
	for i, t := range order {
		sets := "1 set"
		if n[t] > 1 {
			sets = fmt.Sprintf("%d sets", n[t])
		}
		order[i] = fmt.Sprintf("%s less of %s", sets, t)
	}
	return strings.Join(order, ", ")
}

// takeAway takes sets away, one by one, from the slot that pick names (−1: none is
// left to take from), until done says so.
func (a *auditor) takeAway(most int, pick func(*Week, *Ledger) (session, slot int), done func(*Ledger) bool) *Fix {
	next := a.week.clone()
	var taken []string
	l := *a.ledger
	for range most {
		i, j := pick(&next, &l)
		if j < 0 {
			return nil
		}
		taken = append(taken, names(next.Sessions[i].Slots[j].SetUp))
		next.oneLess(i, j)
		if l = l.recount(a.t, &next, i, j); done(&l) {
			return &Fix{fewerWords(taken), next}
		}
	}
	return nil
}

// most is the unlocked slot that scores highest, −1 when none scores at all.
func (w *Week) most(score func(session, slot int) (x float64, ok bool)) (session, slot int) {
	session, slot = -1, -1
	best := 0.0
	for i := range w.Sessions {
		for j := range w.Sessions[i].Slots {
			if locked(&w.Sessions[i], j) {
				continue
			}
			if x, ok := score(i, j); ok && (slot < 0 || x > best) {
				session, slot, best = i, j, x
			}
		}
	}
	return session, slot
}

// fewer takes sets from what is least aimed at; only is a session or −1, group a
// muscle group or "".
func (a *auditor) fewer(only int, group string, done func(*Ledger) bool) *Fix {
	return a.takeAway(mostFixSteps, func(w *Week, l *Ledger) (int, int) {
		return w.most(func(i, j int) (float64, bool) {
			if only >= 0 && i != only || group != "" && group != plan.GroupOf(w.Sessions[i].Slots[j].SetUp) {
				return 0, false
			}
			return l.spareable(i, j, w.Sessions[i].Slots[j].Sets()), true
		})
	}, done)
}

// spareable is how little a set of a slot is missed: what it gives to heads that
// have enough, less what it gives to others; the most sets first.
func (l *Ledger) spareable(i, j, sets int) float64 {
	x := 0.01 * float64(sets)
	for h, e := range l.Sessions[i].Slots[j].Heads {
		per := e.Mid / float64(sets)
		line := &l.Heads[h]
		switch {
		case line.Total.Mid-per >= line.Target.Low:
			x += per
		case line.Level == priority.Prioritise:
			x -= 3 * per
		default:
			x -= per
		}
	}
	return x
}

// fewerFor takes sets from the slots that give a head most, not at the cost of one
// that is short.
func (a *auditor) fewerFor(h arm.HeadIndex, done func(*Ledger) bool) *Fix {
	return a.takeAway(mostFixSteps, func(w *Week, l *Ledger) (int, int) {
		return w.most(func(i, j int) (float64, bool) {
			sets, heads := float64(w.Sessions[i].Slots[j].Sets()), &l.Sessions[i].Slots[j].Heads
			per := heads[h].Mid / sets
			for o, e := range heads {
				if o != int(h) && l.Heads[o].Total.Mid-e.Mid/sets < l.Heads[o].Target.Low {
					per -= e.Mid / sets / 2
				}
			}
			return per, heads[h].Mid > 0
		})
	}, done)
}

// spare takes sets from what loads a joint most.
func (a *auditor) spare(joint movement.Joint, most int) *Fix {
	return a.takeAway(2*mostFixSteps, func(w *Week, _ *Ledger) (int, int) {
		return w.most(func(i, j int) (float64, bool) {
			s := &w.Sessions[i].Slots[j]
			worst := 0
			for k := range s.Rows {
				worst = max(worst, a.t.memo().look(s.SetUpIn(k)).joints.Of(joint))
			}
			return float64(worst*100 + s.Sets()), worst > 0 && s.HardSets() > 0
		})
	}, func(l *Ledger) bool { return l.Joints.Of(joint) <= most })
}
