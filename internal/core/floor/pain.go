package floor

import (
	"fmt"
	"slices"

	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

// Report is pain that is told in a session.
type Report struct {
	Side   person.Side
	Joint  movement.Joint // "": elsewhere
	Score  int            // 0–10
	Sudden bool
	First  int  // what the joint scored first in this session, −1: nothing was told
	Again  bool // one try has been made for this joint today
}

// What pain ends and when it may be tried again.
const (
	overPain   = 3
	risingBy   = 2
	settleS    = 120
	leastNow   = 2 // a joint that hurt is judged at least at this
	hardJoint  = 3 // a set-up of this score for the joint is not tried again
	loads      = 2 // from here on a slot is out when the joint hurts again
	tryReserve = 3
	moreReps   = 5
	lessRange  = 30.0
)

// Rules are what a device needs to know of pain while nobody can be asked.
type Rules struct {
	Over    int `json:"over"`     // a score over it ends the set
	Rising  int `json:"rising"`   // so does this much above the first
	SettleS int `json:"settle_s"` // within which it may settle, s
	Reserve int `json:"reserve"`  // reps that are left at least in what loads it a little
	Low     int `json:"low"`      // up to it the first of a ladder's two tries is meant
}

// PainRules are the rules by which Report decides.
var PainRules = Rules{Over: overPain, Rising: risingBy, SettleS: settleS, Reserve: tryReserve, Low: leastNow}

// FlagsFirst says whether the warning signs are asked before anything is offered.
func (r *Report) FlagsFirst() bool { return r.Score > overPain || r.Sudden || r.Joint == "" }

// EndsSet says whether the set ends: over 3, sudden, or two above what it was first.
func (r *Report) EndsSet() bool {
	return r.Score > overPain || r.Sudden || r.First >= 0 && r.Score >= r.First+risingBy
}

// MayTry says whether one try is offered: the pain is back at 3 or less within two minutes,
// it has a place that is known, and none was made yet.
func (r *Report) MayTry(now int, afterS float64) bool {
	return r.Joint != "" && !r.Again && now <= overPain && afterS <= settleS
}

// Kind is how a try differs from what hurt.
type Kind string

// The kinds, in the order in which they are tried.
const (
	Lighter    Kind = "lighter"
	OtherHand  Kind = "other_hand"
	ByCable    Kind = "cable"
	ShortRange Kind = "short_range"
	Kinder     Kind = "kinder"
)

// Offer is one thing to try after pain, a series of its own.
type Offer struct {
	Kind     Kind
	SetUp    movement.SetUp
	RepsMore int // than planned
	Reserve  int // at least
	Words    string
}

// hurting is the trainee with the joint as it hurts now: at least 2, and never less than her
// record has.
func hurting(t *week.Trainee, r *Report, now int) *week.Trainee {
	out := *t
	fence := person.Fence{}
	if t.Fence != nil {
		fence = *t.Fence
	}
	scores := fence.Scores.Clone()
	if scores[r.Side] == nil {
		scores[r.Side] = map[movement.Joint]int{}
	}
	scores[r.Side][r.Joint] = max(scores[r.Side][r.Joint], now, leastNow)
	fence.Scores = scores
	out.Fence = &fence
	return &out
}

// bears says whether a set-up may be tried with the joint as it is: no verdict avoids it, the
// room has it, caps allow it, and it is not among the hardest on the joint.
func bears(t *week.Trainee, s movement.SetUp, j movement.Joint) bool {
	if s.Joints().Of(j) >= hardJoint || t.Room != nil && len(t.Room.Missing(s)) > 0 || t.Caps.Lying(s) != "" {
		return false
	}
	if s.Movement.Computed() && t.Profile(s) == nil {
		return false
	}
	v := t.Fence.Judge(s, t.Profile(s))
	return v.Ruling != person.Avoid
}

// Ladder lists what may be tried after pain that has settled to now, in the order in which it
// is tried: the same lighter with more reps, another hand or bar, a cable instead of a free
// weight, a shorter range, the kindest set-up near it. Only the first is for today.
func Ladder(t *week.Trainee, c *movement.Catalogue, s movement.SetUp, r *Report, now int) (out []Offer) {
	if r.Joint == "" {
		return nil
	}
	hurt := hurting(t, r, now)
	reserve := max(tryReserve, t.Caps.MinReserve)
	add := func(k Kind, to movement.SetUp, more int, words string) {
		if !slices.ContainsFunc(out, func(o Offer) bool { return o.Kind != Lighter && o.SetUp.Key() == to.Key() }) {
			out = append(out, Offer{k, to, more, reserve, words})
		}
	}
	if bears(hurt, s, r.Joint) && lighterThere(t, s) {
		add(Lighter, s, moreReps, fmt.Sprintf("The same, lighter: %d reps more, at least %d left.", moreReps, reserve))
	}
	for _, way := range s.Ways()[1:] {
		if bears(hurt, way, r.Joint) && way.Joints().Of(r.Joint) <= s.Joints().Of(r.Joint) {
			add(OtherHand, way, 0, "Held otherwise: "+way.Title()+".")
			break
		}
	}
	shape := t.Shape(s)
	if s.Pulls() != effort.Cable {
		if to, ok := nearest(hurt, c, s, shape, r.Joint, func(o movement.SetUp) bool { return o.Pulls() == effort.Cable }); ok {
			add(ByCable, to, 0, "By cable: "+to.Title()+".")
		}
	}
	if to, ok := shorter(hurt, s, r.Joint); ok {
		add(ShortRange, to, 0, "A shorter range: "+to.Details()+".")
	}
	least := s.Joints().Of(r.Joint)
	if to, ok := nearest(hurt, c, s, shape, r.Joint, func(o movement.SetUp) bool { return o.Joints().Of(r.Joint) < least }); ok {
		add(Kinder, to, 0, "Kinder to the "+r.Joint.Words()+": "+to.Title()+".")
	}
	return out
}

// lighterThere says whether the room has more than one load for a set-up.
func lighterThere(t *week.Trainee, s movement.SetUp) bool {
	return t.Room == nil || len(t.Room.Steps(s)) > 1
}

// nearest is the nearest set-up of the same muscle group that is something and that the joint
// bears, the kinder first.
func nearest(t *week.Trainee, c *movement.Catalogue, s movement.SetUp, of *fitting.Shape, j movement.Joint,
	is func(movement.SetUp) bool,
) (found movement.SetUp, ok bool) {
	best, kind := 0.0, 0
	for _, m := range c.Movements {
		if m == s.Movement || m.Action == movement.Turn || m.TopRange {
			continue
		}
		for _, o := range m.Default().Ways() {
			if plan.GroupOf(o) != plan.GroupOf(s) || !is(o) || !bears(t, o, j) {
				continue
			}
			shape := t.Shape(o)
			if shape == nil || of == nil {
				continue
			}
			d, k := fitting.Distance(of, shape), o.Joints().Of(j)
			if !ok || k < kind || k == kind && d < best {
				found, best, kind, ok = o, d, k, true
			}
		}
	}
	return found, ok
}

// shorter cuts the range where the joint is loaded: as its verdict says, or else the deep end
// of the elbow.
func shorter(t *week.Trainee, s movement.SetUp, j movement.Joint) (movement.SetUp, bool) {
	v := t.Fence.Judge(s, t.Profile(s))
	for i := range v.Reasons {
		if to, ok := v.Reasons[i].Follow(s); ok && to.Key() != s.Key() && to.Title() == s.Title() && bears(t, to, j) {
			return to, true
		}
	}
	if s.Movement.Setting(movement.ElbowFrom) == nil {
		return s, false
	}
	by := lessRange
	if s.Movement.Action == movement.Extension {
		by = -lessRange
	}
	to, err := s.With(movement.ElbowFrom, movement.Num(s.Number(movement.ElbowFrom)+by))
	if err != nil || to.Key() == s.Key() || !bears(t, to, j) {
		return s, false
	}
	return to, true
}

// After is what becomes of a slot once a joint hurts again over 3: out, offered away, or as
// it was.
type After string

// What becomes of it.
const (
	Out   After = "out"
	Away  After = "away" // it stays, with 3 left, and may be left out
	Stays After = "stays"
)

// AfterPain says what becomes of a slot that is still to come.
func AfterPain(slot *plan.Slot, j movement.Joint) After {
	worst := 0
	for _, s := range slot.SetUps() {
		worst = max(worst, s.Joints().Of(j))
	}
	switch {
	case worst >= loads:
		return Out
	case worst > 0:
		return Away
	}
	return Stays
}
