package week

import (
	"fmt"
	"slices"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/series"
	"musculus/internal/core/stance"
)

// Slot is a set-up with its dose and cues.
type Slot struct {
	Ref   string // the caller's name for it, carried along; "" for one a fix added
	Combo string // slots next to each other with the same one are done in turns
	SetUp movement.SetUp
	Dose  dose.Dose
	Cues  []string // at most MostCues, for the client
	// Grips are the set-ups of the sets one by one, where they differ; the last
	// one holds on. None: every set is SetUp.
	Grips  []movement.SetUp
	Starts Starts // the arm that begins, where the arms take turns
	// CueReason is why a cue stays that asks for what a cap forbids, "" for none.
	CueReason string
	Locked    bool // no fix and no draft touches it
}

// Session is slots in the order they are done.
type Session struct {
	WarmUpMin float64 // general warm-up, minutes
	Slots     []Slot
	Locked    bool // no fix and no draft touches its day or its slots
}

// WarmUpWords tells the general warm-up for the client.
func (s *Session) WarmUpWords() string {
	if s.WarmUpMin == 0 {
		return "no general warm-up"
	}
	return fmt.Sprintf("%g min easy warm-up", s.WarmUpMin)
}

// RampWords tells what leads up to the first working load: "then bar 20 kg × 8";
// inParts where loads are kept from the client. "" for nothing.
func (s *Session) RampWords(t *Trainee, inParts bool) string {
	i := s.Ramped()
	if i < 0 {
		return ""
	}
	first := s.Slots[i].SetUpOf(0)
	words := dose.RampWords(first, &s.Slots[i].Dose, dose.RackOf(first, t.Room, t.Yardstick.Body().BodyMass), inParts)
	return fmt.Sprintf("%s (%s)", words, names(first))
}

// Ramped is the slot whose working load is led up to: the first that has a load
// to lead up to; −1 for none.
func (s *Session) Ramped() int {
	return slices.IndexFunc(s.Slots, func(x Slot) bool { return len(dose.Ramp(x.SetUpOf(0), &x.Dose)) > 0 })
}

// Limits of a session.
const (
	MostSlots = 20
	// MostWeekSlots bounds what a week is counted and audited for.
	MostWeekSlots = 120
	MostCues      = 3
	longestCue    = 60 // characters
	longestReason = 200
	mostWarmUp    = 60.0
)

// Trainee is what counting and checking need of a client.
type Trainee struct {
	Yardstick *effort.Yardstick
	Room      *person.Room
	Caps      person.Caps
	Stance    *stance.Stance
	Fence     *person.Fence         // nil: nothing is known of joints and mobility
	Aims      *Aims                 // nil: nothing is aimed at
	Own       map[string]series.Own // by series: what the log says of it; nil: nothing
	Memo      *Memo                 // nil: one is made when it is needed
}

// memo is what is remembered of set-ups, made when there is none.
func (t *Trainee) memo() *Memo {
	if t.Memo == nil {
		t.Memo = NewMemo(t.Yardstick, t.Stance)
	}
	return t.Memo
}

// Scores are the joints' scores, nil where none are known.
func (t *Trainee) Scores() person.Scores {
	if t.Fence == nil {
		return nil
	}
	return t.Fence.Scores
}

// Check returns everything that is wrong with a session, one error a field; the
// field names the slot ("slots[1].reserve").
func (s *Session) Check(t *Trainee) []*movement.FieldError {
	var out []*movement.FieldError
	if len(s.Slots) > MostSlots {
		out = append(out, &movement.FieldError{Field: "slots", Reason: fmt.Sprintf("%d slots are more than %d", len(s.Slots), MostSlots)})
	}
	if !(s.WarmUpMin >= 0 && s.WarmUpMin <= mostWarmUp) {
		out = append(out, &movement.FieldError{Field: "warm_up_min", Reason: fmt.Sprintf("%g is outside 0…%g minutes", s.WarmUpMin, mostWarmUp)})
	}
	for i := range s.Slots {
		for _, e := range s.Slots[i].check(t) {
			e.Field = fmt.Sprintf("slots[%d].%s", i, e.Field)
			out = append(out, e)
		}
	}
	for _, e := range s.checkCombos(t) {
		out = append(out, &movement.FieldError{Field: fmt.Sprintf("slots[%d].method", e.slot), Reason: e.reason})
	}
	return out
}

func (s *Slot) check(t *Trainee) []*movement.FieldError {
	out := s.Dose.Check(s.SetUp, t.Room, t.Yardstick.Body().BodyMass, t.Caps, t.Scores())
	if why := t.Caps.Lying(s.SetUp); why != "" {
		out = append(out, &movement.FieldError{Field: "movement", Reason: why})
	}
	if len(s.Cues) > MostCues {
		out = append(out, &movement.FieldError{Field: "cues", Reason: fmt.Sprintf("%d cues are more than %d", len(s.Cues), MostCues)})
	}
	out = append(out, s.checkGrips(t)...)
	if n := len([]rune(s.CueReason)); n > longestReason {
		out = append(out, &movement.FieldError{Field: "cue_reason", Reason: fmt.Sprintf("%d characters are more than %d", n, longestReason)})
	}
	if against := s.cueAgainst(t); against != "" && strings.TrimSpace(s.CueReason) == "" {
		out = append(out, &movement.FieldError{Field: "cues", Reason: against + ": give a reason to keep it, or word it another way", Asks: true})
	}
	for _, c := range s.Cues {
		if n := len([]rune(strings.TrimSpace(c))); n == 0 || n > longestCue {
			out = append(out, &movement.FieldError{Field: "cues", Reason: fmt.Sprintf("a cue has 1…%d characters, this one %d", longestCue, n)})
		}
	}
	return out
}

// Totals is what a session comes to.
type Totals struct {
	Heads              [arm.HeadCount]Effective
	Zones              [arm.HeadCount][3]float64 // short, middle, long
	Flexors, Extensors int                       // hard sets per muscle group
	Minutes            float64                   // warm-up included
	WarmUp             float64                   // minutes of it: the general one and the ramp
	Failures           int                       // sets to the limit or beyond it
	Joints             JointLoad
	Slots              []SlotCount
}

// Over says whether a session takes longer than a client has, minutes (0: not
// said), by what is shown in whole minutes.
func (t *Totals) Over(minutes int) bool { return minutes > 0 && t.Minutes > float64(minutes)+0.5 }

// Hard is the hard sets of a muscle group.
func (t *Totals) Hard(group string) int {
	if group == flexors {
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
func (s *Slot) loadJoints(m *Memo, to *JointLoad) {
	var scores *movement.JointScores
	for n := range s.Dose.Each() {
		if n == 0 || len(s.Grips) > 0 {
			scores = &m.look(s.SetUpOf(n)).joints
		}
		if !s.Dose.IsHard(n) {
			continue
		}
		for k, j := range movement.Joints {
			to[k] += scores.Of(j)
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
func (s *Session) Count(y *effort.Yardstick, st *stance.Stance) Totals {
	return s.count(NewMemo(y, st))
}

func (s *Session) count(m *Memo) Totals {
	out := Totals{Slots: make([]SlotCount, len(s.Slots))}
	seconds := s.WarmUpMin * 60
	for i := range s.Slots {
		first := s.Slots[i].SetUpOf(0)
		if ramp := dose.RampSeconds(first, m.look(first).carry, &s.Slots[i].Dose); ramp > 0 {
			seconds += ramp
			break
		}
	}
	out.WarmUp = seconds / 60
	seen := map[string]bool{}
	last := ""
	for i := range s.Slots {
		slot := &s.Slots[i]
		k := m.look(slot.SetUp)
		c := slot.count(m, s.Place(i))
		out.Slots[i] = c
		for h := range c.Heads {
			out.Heads[h].Mid += c.Heads[h].Mid
			out.Heads[h].Low += c.Heads[h].Low
			out.Heads[h].High += c.Heads[h].High
			for z := range c.Zones[h] {
				out.Zones[h][z] += c.Zones[h][z]
			}
		}
		out.Failures += slot.Dose.Failures()
		slot.loadJoints(m, &out.Joints)
		if k.group == flexors {
			out.Flexors += slot.Dose.HardSets()
		} else {
			out.Extensors += slot.Dose.HardSets()
		}
		rests := slot.Dose.Sets
		if i == len(s.Slots)-1 {
			rests--
		}
		seconds += slot.Dose.WorkSeconds(slot.SetUp.ArmsInTurn()) + float64(rests*slot.Dose.RestS)
		station := k.station
		if i > 0 && station != last {
			moves := 1
			if s.joined(i-1, i) { // there and back each round
				moves = 2*slot.Dose.Sets - 1
			}
			seconds += float64(moves) * moveS
		}
		if !seen[station] {
			seconds += stationS
		}
		seen[station], last = true, station
	}
	if len(s.Slots) == 0 {
		seconds, out.WarmUp = 0, 0
	}
	out.Minutes = seconds / 60
	return out
}

// joined says whether two neighbouring slots are done in turns.
func (s *Session) joined(i, j int) bool {
	return s.Slots[i].Combo != "" && s.Slots[i].Combo == s.Slots[j].Combo
}

// Place is a slot's place in its combo, 0 for the first and for no combo.
func (s *Session) Place(i int) int {
	n := 0
	for ; i > 0 && s.joined(i-1, i); i-- {
		n++
	}
	return n
}

// stationOf names the station a set-up needs: implement, position, and where
// bench and pulley are.
func stationOf(s movement.SetUp) string {
	e := s.Effort()
	return fmt.Sprint(s.Implement(), s.Position(), s.Number(movement.Bench), s.Number(movement.PadSlope), e.Load.Kind, e.Load.Pulley)
}
