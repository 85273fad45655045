package dose

import (
	"fmt"
	"slices"

	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// Dose is how much of a set-up is done and how hard.
type Dose struct {
	Sets     int          `json:"sets"`
	RepsLow  int          `json:"reps_low"`
	RepsHigh int          `json:"reps_high"`
	Reserve  int          `json:"reserve"`            // reps left in reserve, every set
	Reserves []int        `json:"reserves,omitempty"` // set by set, where they differ: Reserve is the first, the last one holds on
	RestS    int          `json:"rest_s"`             // after each set
	Tempo    effort.Tempo `json:"tempo"`              // zero: controlled, no bounce
	LoadKg   *float64     `json:"load_kg"`            // what one hand carries; nil: not known yet
	Method   Use          `json:"method,omitzero"`
}

// Limits of a dose.
const (
	mostSets    = 12
	mostReps    = 60
	mostReserve = 6
	mostRestS   = 600
	mostLoadKg  = 300.0
	mostTempoS  = 30.0
)

// What a new slot starts with.
const (
	usualSets  = 3
	usualRestS = 90
)

// PlainRestS is the rest after a set that stands alone, s, as far as the caps
// allow: what a new slot starts with and one taken out of a combo goes back to.
func PlainRestS(caps person.Caps) int { return max(usualRestS, caps.MinRestS) }

// Usual is the dose a new slot starts with: the middle band, 2 in reserve and
// the plain rest, as far as the caps allow.
func Usual(caps person.Caps) Dose {
	sets := usualSets
	if caps.MostSets > 0 {
		sets = min(sets, caps.MostSets)
	}
	return Dose{Sets: sets, RepsLow: 8, RepsHigh: 12, Reserve: max(2, caps.MinReserve), RestS: PlainRestS(caps)}
}

// Check returns what is wrong with a dose for a set-up in a room under caps,
// one error a field.
func (d *Dose) Check(s movement.SetUp, room *person.Room, bodyMass float64, caps person.Caps, scores person.Scores) []*movement.FieldError {
	out := d.Method.check(s, &Where{room, caps, scores})
	fault := func(ok bool, field, reason string, args ...any) {
		if !ok {
			out = append(out, &movement.FieldError{Field: field, Reason: fmt.Sprintf(reason, args...)})
		}
	}
	fault(d.Sets >= 1 && d.Sets <= mostSets, "sets", "%d is outside 1…%d", d.Sets, mostSets)
	if caps.MostSets > 0 && d.Sets <= mostSets {
		fault(d.Sets <= caps.MostSets, "sets", "this client's caps allow %d sets of one set-up in the first week", caps.MostSets)
	}
	fault(d.RepsLow >= 1 && d.RepsLow <= mostReps, "reps_low", "%d is outside 1…%d", d.RepsLow, mostReps)
	fault(d.RepsHigh >= d.RepsLow && d.RepsHigh <= mostReps, "reps_high", "%d is outside %d…%d", d.RepsHigh, d.RepsLow, mostReps)
	fault(len(d.Reserves) <= max(d.Sets, 1), "reserve", "%d reserves are more than the %d sets", len(d.Reserves), d.Sets)
	for n := range max(len(d.Reserves), 1) {
		var ok bool
		switch left := d.ReserveOf(n); {
		case left < 0 || left > mostReserve:
			fault(false, "reserve", "%d is outside 0…%d", left, mostReserve)
		case left < caps.MinReserve:
			fault(false, "reserve", "this client's caps ask for at least %d in reserve", caps.MinReserve)
		case left == 0 && (!room.CanFailAlone(s) || d.addedToDip(s, room, bodyMass) && !room.Partner):
			fault(false, "reserve", "this set-up is not safe to fail alone here: keep at least 1 in reserve")
		default:
			ok = true
		}
		if !ok {
			break // one is enough to say
		}
	}
	switch {
	case d.RestS < 0 || d.RestS > mostRestS:
		fault(false, "rest_s", "%d s is outside 0…%d s", d.RestS, mostRestS)
	case d.RestS < caps.MinRestS:
		fault(false, "rest_s", "this client's caps ask for rests of at least %d s", caps.MinRestS)
	}
	for _, t := range d.Tempo {
		if !(t >= 0 && t <= mostTempoS) {
			fault(false, "tempo", "%g s is outside 0…%g s", t, mostTempoS)
			break
		}
	}
	if hold := max(d.Tempo[1], d.Tempo[3]); caps.MostHoldS > 0 && hold > caps.MostHoldS && hold <= mostTempoS {
		fault(false, "tempo", "this client's caps allow no hold over %g s at either end of a rep, this one is %g s", caps.MostHoldS, hold)
	}
	if d.LoadKg != nil {
		if !(*d.LoadKg > 0 && *d.LoadKg <= mostLoadKg) {
			fault(false, "load_kg", "%g kg is outside 0…%g kg", *d.LoadKg, mostLoadKg)
		} else if whole := person.CarryOf(s).Whole(*d.LoadKg, room.Rigging(bodyMass)); !person.IsStep(room.Steps(s), whole) {
			reason := "there is no " + person.Kg(whole) + " in " + room.Name
			if down, ok := person.RoundDown(room.Steps(s), whole); ok {
				reason += ", the next lighter is " + person.Kg(down)
			}
			fault(false, "load_kg", "%s", reason)
		}
	}
	return out
}

// addedToDip says whether the dose adds load to a dip, which is then no longer safe
// to fail alone, whatever the movement is called.
func (d *Dose) addedToDip(s movement.SetUp, room *person.Room, bodyMass float64) bool {
	return s.Movement.Action == movement.Dip && d.LoadKg != nil && person.CarryOf(s).Whole(*d.LoadKg, room.Rigging(bodyMass)) > person.LeastAdded
}

// mostEach bounds what is looked at set by set: a dose far beyond its limits is
// refused by Check, but is counted before that while it is typed.
const mostEach = 100

// Each is how many sets are looked at one by one.
func (d *Dose) Each() int { return max(0, min(d.Sets, mostEach)) }

// ReserveOf is how many reps are left after one set, counted from 0.
func (d *Dose) ReserveOf(set int) int {
	if len(d.Reserves) == 0 {
		return d.Reserve
	}
	return d.Reserves[min(set, len(d.Reserves)-1)]
}

// KeepAtLeast leaves at least so many reps after every set.
func (d *Dose) KeepAtLeast(least int) {
	d.Reserve = max(d.Reserve, least)
	d.Reserves = slices.Clone(d.Reserves) // the week before a fix keeps its own
	for i := range d.Reserves {
		d.Reserves[i] = max(d.Reserves[i], least)
	}
}

// OneLess takes the last set away.
func (d *Dose) OneLess() {
	d.Sets--
	d.Reserves = d.Reserves[:min(len(d.Reserves), max(d.Sets, 0))]
}

// count counts the sets that leave no more than some reps.
func (d *Dose) count(most int) (n int) {
	for i := range d.Each() {
		if d.ReserveOf(i) <= most {
			n++
		}
	}
	return n
}

// mostHard is the most that a hard set leaves.
const mostHard = 3

// HardSets is how many of the sets are hard.
func (d *Dose) HardSets() int { return d.count(mostHard) }

// Failures is how many of the sets go to the limit.
func (d *Dose) Failures() int { return d.count(0) }

// IsHard says whether one set is hard, counted from 0.
func (d *Dose) IsHard(set int) bool { return d.ReserveOf(set) <= mostHard }

// Efforts is the sets, each by its effort factor.
func (d *Dose) Efforts() (sum float64) {
	for i := range d.Each() {
		sum += EffortFactor(d.ReserveOf(i))
	}
	return sum
}

// EffortFactor is what a set counts by its reserve.
func EffortFactor(reserve int) float64 {
	switch {
	case reserve <= mostHard:
		return 1
	case reserve == 4:
		return 0.7
	}
	return 0.4
}

// mostCredit is the most one hard set gives a head, in effective sets.
const mostCredit = 1.25

// SetCredit is what one hard set gives a head, in plain-curl and
// plain-push-down equivalents, by the head's bias.
func SetCredit(bias float64) float64 { return min(bias, mostCredit) }

// usualRepS is how long a repetition takes without a tempo, s.
const usualRepS = 4.0

func (d *Dose) repS() float64 {
	if rep := d.Tempo.Total(); rep > 0 {
		return rep
	}
	return usualRepS
}

// WorkSeconds is how long the sets themselves take, all arms, without rests:
// reps at the middle of the band, at the tempo's sum, and what the method adds.
func (d *Dose) WorkSeconds(arms int) float64 {
	rep := d.repS()
	reps := float64(d.RepsLow+d.RepsHigh) / 2
	one := reps * rep
	if m := MethodOf(d.Method.ID); m != nil {
		one += m.extra(m.n(d.Method), reps, rep)
	}
	return float64(d.Sets) * one * float64(arms)
}
