package dose

import "fmt"

// Stage is a stretch of one set that is done and told by itself: a rung of drops, a third, a
// hold. A straight set has one.
type Stage struct {
	Words   string `json:"words"` // what is done in it, "" for the set as it is
	Reps    int    `json:"reps"`
	Seconds int    `json:"seconds,omitempty"` // of a hold
	PauseS  int    `json:"pause_s,omitempty"` // before it
	Rung    int    `json:"rung,omitempty"`    // which of the set's loads, from 0
	Is      Is     `json:"is"`
}

// Is is what the reps of a stage are to a log.
type Is string

// What they are.
const (
	IsClean     Is = "clean"
	IsHeld      Is = "hold"
	IsLong      Is = "partial_long"
	IsShort     Is = "partial_short"
	IsAssisted  Is = "assisted"
	IsSwung     Is = "swung"
	IsLowered   Is = "lowering"
	IsUncounted Is = "" // the other arm’s, where reps are told per arm
)

// A rung and a burst after the first, of the reps before, as the time they take is reckoned.
const (
	rungReps  = 0.6
	burstReps = 0.35
)

// Stages lists what one set of a dose is made of, with the reps that are aimed at.
func (d *Dose) Stages(aim int) []Stage {
	if d.IsHold() {
		return []Stage{{Words: "hold", Seconds: d.SecondsHigh, Is: IsHeld}}
	}
	m := MethodOf(d.Method.ID)
	first := Stage{Reps: aim, Is: IsClean}
	if m == nil {
		return []Stage{first}
	}
	n := m.n(d.Method)
	some := func(is Is, words ...string) (out []Stage) {
		for _, w := range words {
			out = append(out, Stage{Words: w, Reps: n, Is: is})
		}
		return out
	}
	after := func(share float64, s Stage) []Stage {
		out := []Stage{first}
		for k := range n {
			s.Reps, s.Rung = max(1, int(share*float64(out[k].Reps)+0.5)), s.Rung+1
			out = append(out, s)
		}
		return out
	}
	switch m.ID {
	case "drops":
		return after(rungReps, Stage{Words: "lighter, straight on", PauseS: changeS, Is: IsClean})
	case "rest_pause":
		out := after(burstReps, Stage{Words: "after a short pause", PauseS: leastPauseS, Is: IsClean})
		for k := range out {
			out[k].Rung = 0
		}
		return out
	case "thirds":
		return append(append(some(IsLong, "lower half"), some(IsShort, "upper half")...), some(IsClean, "full range")...)
	case HandPhases:
		return some(IsClean, "wide, palms up", "neutral, apart", "neutral, pressed together")
	case Ladder:
		out := some(IsClean, "right arm", "left arm", "alternating", "both together")
		out[0].Is = IsUncounted // reps are told per arm
		return out
	case StaticHold:
		out := some(IsClean, "right arm works, the left holds at 90°", "left arm works, the right holds at 90°")
		out[0].Is = IsUncounted
		return out
	case "assisted":
		return []Stage{first, {Words: "with help", Reps: n, Is: IsAssisted}}
	case StrictThenSwing:
		return []Stage{first, {Words: "with a swing", Reps: n, Is: IsSwung}}
	case "last_rep_hold":
		return []Stage{first, {Words: "hold the last rep at level, then lower it", Seconds: n, Is: IsHeld}}
	case loadedLowering:
		return []Stage{{Words: fmt.Sprintf("%d lowerings, the partner presses", n), Reps: n, Is: IsLowered}}
	case "partials_long":
		return []Stage{{Words: "the long half", Reps: aim, Is: IsLong}}
	case StrongPartials:
		return []Stage{{Words: "the strong half", Reps: aim, Is: IsShort}}
	}
	return []Stage{first}
}
