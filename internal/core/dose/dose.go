package dose

import (
	"fmt"
	"math"

	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/text"
)

// Dose is a number of sets alike: how much of a set-up is done and how hard.
type Dose struct {
	Sets        int          `json:"sets"`
	RepsLow     int          `json:"reps_low"`
	RepsHigh    int          `json:"reps_high"`
	SecondsLow  int          `json:"seconds_low,omitempty" doc:"of a hold, instead of reps"`
	SecondsHigh int          `json:"seconds_high,omitempty"`
	Reserve     int          `json:"reserve" doc:"reps left in reserve"`
	RestS       int          `json:"rest_s" doc:"after each set; inside a combo its own rests hold"`
	Tempo       effort.Tempo `json:"tempo,omitzero" doc:"down, hold, up, hold in s; absent: controlled, no bounce"`
	Load        *Load        `json:"load,omitempty" doc:"absent: as the row above, find it in the first"`
	Method      Use          `json:"method,omitzero" doc:"absent: straight sets"`
	Word        string       `json:"word,omitempty" maxLength:"60" doc:"for the client, at these sets"`
}

// Limits of a dose.
const (
	mostSets    = 12
	mostReps    = 60
	MostReserve = 6
	MostRestS   = 600
	mostHoldS   = 180
	LongestWord = 60
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
	return Dose{Sets: sets, RepsLow: 8, RepsHigh: 12, Reserve: max(2, caps.MinReserve), RestS: PlainRestS(caps), Load: ToFind()}
}

// IsHold says whether the sets are held rather than repeated.
func (d *Dose) IsHold() bool { return d.SecondsLow > 0 || d.SecondsHigh > 0 }

// Check returns what is wrong with a dose for a set-up in a room under caps, one
// error a field; added is the load it adds to the body, kg. Its load is checked by
// who knows the rows above it.
func (d *Dose) Check(s movement.SetUp, room *person.Room, added float64, caps person.Caps, scores person.Scores) []*movement.FieldError {
	out := d.Method.check(s, &Where{room, caps, scores})
	fault := func(ok bool, field, reason string, args ...any) {
		if !ok {
			out = append(out, &movement.FieldError{Field: field, Reason: fmt.Sprintf(reason, args...)})
		}
	}
	fault(d.Sets >= 1 && d.Sets <= mostSets, "sets", "%d is outside 1…%d", d.Sets, mostSets)
	if d.IsHold() {
		fault(d.SecondsLow >= 1 && d.SecondsLow <= mostHoldS, "seconds_low", "%d s is outside 1…%d s", d.SecondsLow, mostHoldS)
		fault(
			d.SecondsHigh >= d.SecondsLow && d.SecondsHigh <= mostHoldS,
			"seconds_high",
			"%d s is outside %d…%d s",
			d.SecondsHigh,
			d.SecondsLow,
			mostHoldS,
		)
		if caps.MostHoldS > 0 {
			fault(float64(d.SecondsHigh) <= caps.MostHoldS, "seconds_high", "this client's caps allow no hold over %g s", caps.MostHoldS)
		}
	} else {
		fault(d.RepsLow >= 1 && d.RepsLow <= mostReps, "reps_low", "%d is outside 1…%d", d.RepsLow, mostReps)
		fault(d.RepsHigh >= d.RepsLow && d.RepsHigh <= mostReps, "reps_high", "%d is outside %d…%d", d.RepsHigh, d.RepsLow, mostReps)
	}
	if d.Method.ID == ContractFirst {
		fault(d.RepsLow >= contractFrom, "reps_low", "contract first is a light drill: from %d reps on", contractFrom)
	}
	switch left := d.Reserve; {
	case left < 0 || left > MostReserve:
		fault(false, "reserve", "%d is outside 0…%d", left, MostReserve)
	case left < caps.MinReserve:
		fault(false, "reserve", "this client's caps ask for at least %d in reserve", caps.MinReserve)
	case left == 0 && (!room.CanFailAlone(s) || s.Movement.Action == movement.Dip && added > person.LeastAdded && !room.Partner):
		// a dip with added load is no longer safe to fail alone, whatever it is called
		fault(false, "reserve", "this set-up is not safe to fail alone here: keep at least 1 in reserve")
	}
	switch {
	case d.RestS < 0 || d.RestS > MostRestS:
		fault(false, "rest_s", "%d s is outside 0…%d s", d.RestS, MostRestS)
	case d.RestS < caps.MinRestS:
		fault(false, "rest_s", "this client's caps ask for rests of at least %d s", caps.MinRestS)
	}
	fault(
		len([]rune(d.Word)) <= LongestWord && text.Fault(d.Word, true) == "",
		"word",
		"a word has at most %d characters, in one line",
		LongestWord,
	)
	for _, t := range d.Tempo {
		if !(t >= 0 && t <= mostTempoS) {
			fault(false, "tempo", "%g s is outside 0…%g s", t, mostTempoS)
			break
		}
	}
	if hold := max(d.Tempo[1], d.Tempo[3]); caps.MostHoldS > 0 && hold > caps.MostHoldS && hold <= mostTempoS {
		fault(false, "tempo", "this client's caps allow no hold over %g s at either end of a rep, this one is %g s", caps.MostHoldS, hold)
	}
	return out
}

// mostEach bounds what is looked at set by set: a dose far beyond its limits is
// refused by Check, but is counted before that while it is typed.
const mostEach = 100

// Each is how many sets are looked at one by one.
func (d *Dose) Each() int { return max(0, min(d.Sets, mostEach)) }

// MostHard is the most that a hard set leaves.
const MostHard = 3

// IsHard says whether the sets are hard.
func (d *Dose) IsHard() bool { return d.Reserve <= MostHard }

// HardSets is how many of the sets are hard.
func (d *Dose) HardSets() int {
	if d.IsHard() {
		return d.Each()
	}
	return 0
}

// Failures is how many of the sets go to the limit.
func (d *Dose) Failures() int {
	if d.Reserve <= 0 {
		return d.Each()
	}
	return 0
}

// holdCredit is what a held set counts of a moved one (grade E: by judgement).
const holdCredit = 0.5

// Efforts is the sets, each by its effort factor; a hold counts half.
func (d *Dose) Efforts() float64 {
	sum := float64(d.Each()) * EffortFactor(d.Reserve)
	if d.IsHold() {
		sum *= holdCredit
	}
	return sum
}

// EffortFactor is what a set counts by its reserve.
func EffortFactor(reserve int) float64 {
	switch {
	case reserve <= MostHard:
		return 1
	case reserve == 4:
		return 0.7
	}
	return 0.4
}

// mostCredit is the most one hard set gives a head, in effective sets.
const mostCredit = 1.25

// perTenThousand is how finely sets are counted: to the ten-thousandth, so that whoever
// adds them up, in whatever order, comes to the same.
const perTenThousand = 1e4

// Counted rounds effective sets to what is counted.
func Counted(sets float64) float64 { return math.Round(sets*perTenThousand) / perTenThousand }

// SetCredit is what one hard set gives a head, in plain-curl and
// plain-push-down equivalents, by the head's bias.
func SetCredit(bias float64) float64 { return Counted(min(bias, mostCredit)) }

// usualRepS is how long a repetition takes without a tempo, s.
const usualRepS = 4.0

func (d *Dose) repS() float64 {
	if rep := d.Tempo.Total(); rep > 0 {
		return rep
	}
	return usualRepS
}

// WorkSeconds is how long the sets themselves take, all arms, without rests:
// reps at the middle of the band, at the tempo's sum, and what the method adds; a
// hold its seconds.
func (d *Dose) WorkSeconds(arms int) float64 {
	rep := d.repS()
	reps := float64(d.RepsLow+d.RepsHigh) / 2
	one := reps * rep
	if d.IsHold() {
		one = float64(d.SecondsLow+d.SecondsHigh) / 2
	}
	if m := MethodOf(d.Method.ID); m != nil {
		one += m.extra(m.n(d.Method), reps, rep)
	}
	return float64(d.Sets) * one * float64(arms)
}
