package week

import (
	"slices"

	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
	"musculus/internal/core/stance"
)

// MostWeekSlots bounds what a week is counted and audited for.
const MostWeekSlots = 120

// Trainee is what counting and checking need of a client.
type Trainee struct {
	Yardstick *effort.Yardstick
	Room      *person.Room
	Caps      person.Caps
	Stance    *stance.Stance
	Fence     *person.Fence         // nil: nothing is known of joints and mobility
	Aims      *Aims                 // nil: nothing is aimed at
	Own       map[string]series.Own // by series: what the log says of it; nil: nothing
	Prefer    person.Preferred      // how she likes to train; nil: the defaults
	Memo      *Memo                 // nil: one is made when it is needed
}

// memo is what is remembered of set-ups, made when there is none.
func (t *Trainee) memo() *Memo {
	if t.Memo == nil {
		t.Memo = NewMemo(t.Yardstick, t.Stance)
	}
	return t.Memo
}

// Remember makes the memory of set-ups where there is none: before several ask at once.
func (t *Trainee) Remember() { t.memo() }

// Profile is the profile of a set-up for the trainee's body; nil for graded movements
// and for what the body cannot do.
func (t *Trainee) Profile(s movement.SetUp) *effort.Profile { return t.memo().look(s).profile }

// Scores are the joints' scores, nil where none are known.
func (t *Trainee) Scores() person.Scores {
	if t.Fence == nil {
		return nil
	}
	return t.Fence.Scores
}

// Floor is what the client's loads are worked out for.
func (t *Trainee) Floor() *plan.Floor {
	return &plan.Floor{
		Room:     t.Room,
		BodyMass: t.Yardstick.Body().BodyMass,
		Most: func(s movement.SetUp, reps, reserve int) (float64, bool) {
			own := t.Own[s.Key()]
			if !(own.E1RM > 0) {
				return 0, false
			}
			return series.LoadFor(own.E1RM, reps, reserve)
		},
	}
}

// checks is whom a prescription is checked for.
func (t *Trainee) checks() *plan.For {
	return &plan.For{
		Floor:   *t.Floor(),
		Caps:    t.Caps,
		Scores:  t.Scores(),
		Refused: func(s movement.SetUp) string { return t.memo().look(s).refused },
	}
}

// Check returns everything that is wrong with a session for the client, one error a
// field; the field names slot and row ("slots[1].rows[0].reserve").
func (t *Trainee) Check(s *plan.Session) []*movement.FieldError { return s.Check(t.checks()) }

// checkSlot returns what is wrong with one slot, in its own paths.
func (t *Trainee) checkSlot(s *plan.Session, i int) []*movement.FieldError {
	return s.CheckSlot(i, t.checks())
}

// Totals is what a session comes to.
type Totals struct {
	Heads              [arm.HeadCount]Effective
	Zones              [arm.HeadCount][3]float64 // short, middle, long
	Flexors, Extensors int                       // hard sets per muscle group
	Minutes            float64                   // warm-up included
	WarmUp             float64                   // minutes of it: the general one and the ramp
	Spent              Spent                     // what the minutes are made of
	Failures           int                       // sets to the limit or beyond it
	Joints             JointLoad
	Slots              []SlotCount
}

// Over says whether a session takes longer than a client has, minutes (0: not
// said), by what is shown in whole minutes.
func (t *Totals) Over(minutes int) bool { return minutes > 0 && t.Minutes > float64(minutes)+0.5 }

// Hard is the hard sets of a muscle group.
func (t *Totals) Hard(group string) int {
	if group == plan.Flexors {
		return t.Flexors
	}
	return t.Extensors
}

// JointLoad is hard sets times the movements' scores, by the order of
// movement.Joints.
type JointLoad [movement.JointCount]int

// Of is the load of one joint.
func (l *JointLoad) Of(j movement.Joint) int { return l[slices.Index(movement.Joints, j)] }

// loadJoints adds what a slot's hard sets load.
func (m *Memo) loadJoints(s *plan.Slot, to *JointLoad) {
	for i := range s.Rows {
		hard := s.Rows[i].HardSets()
		if hard == 0 {
			continue
		}
		scores := &m.look(s.SetUpIn(i)).joints
		for k, j := range movement.Joints {
			to[k] += s.PerArm(hard * scores.Of(j))
		}
	}
}

// Times between sets, s.
const (
	moveS    = 30.0 // to another station
	stationS = 60.0 // to set a new station up
)

// Count counts a session, led up to by its ramp. Every set but the session's last is followed by its
// rest; going to another station adds a move, and a station not used before in
// the session the time to set it up.
func Count(s *plan.Session, y *effort.Yardstick, st *stance.Stance) Totals {
	return NewMemo(y, st).count(s, nil, 0, nil)
}

// Count counts a session of the trainee's by what is remembered of its set-ups.
func (t *Trainee) Count(s *plan.Session) Totals { return t.memo().count(s, nil, 0, t.changeS(s)) }

// count counts a session; known are the counts of its slots, of which only the one that
// changed is made again, nil for none; changeS is how long going from one member of a
// combo to another takes, nil for no time.
func (m *Memo) count(s *plan.Session, known []SlotCount, changed int, changeS func(from, to int) int) Totals {
	out := Totals{Slots: make([]SlotCount, len(s.Slots))}
	spent := Spent{General: s.WarmUpMin * 60}
	for i := range s.Slots {
		first := s.Slots[i].SetUpIn(0)
		if ramp := dose.RampSeconds(first, m.look(first).carry, &s.Slots[i].First().Dose); ramp > 0 {
			spent.Ramp = ramp
			break
		}
	}
	out.WarmUp = (spent.General + spent.Ramp) / 60
	seen := map[string]bool{}
	last := ""
	for i := range s.Slots {
		slot := &s.Slots[i]
		k := m.look(slot.SetUp)
		if known != nil && i != changed {
			out.Slots[i] = known[i]
		} else {
			out.Slots[i] = m.countSlot(slot, s.TurnsOf(i))
		}
		c := &out.Slots[i]
		for h := range c.Heads {
			out.Heads[h].add(&c.Heads[h])
			for z := range c.Zones[h] {
				out.Zones[h][z] += c.Zones[h][z]
			}
		}
		out.Failures += slot.Failures()
		m.loadJoints(slot, &out.Joints)
		if k.group == plan.Flexors {
			out.Flexors += slot.HardSets()
		} else {
			out.Extensors += slot.HardSets()
		}
		for r := range slot.Rows {
			spent.Sets += slot.Rows[r].WorkSeconds(min(slot.Arms(), slot.SetUpIn(r).ArmsInTurn()))
		}
		station := k.station
		if i > 0 && station != last {
			if !s.Joined(i-1, i) { // inside a combo the gaps last as long as what is changed in them
				spent.Ways += moveS
			}
		}
		if !seen[station] {
			spent.Ways += stationS
		}
		seen[station], last = true, station
	}
	if len(s.Slots) == 0 {
		spent, out.WarmUp = Spent{}, 0
	}
	spent.Rests = s.RestSeconds(changeS)
	out.Minutes, out.Spent = spent.seconds()/60, spent
	return out
}
