package fitting

import (
	"fmt"
	"math"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// Cost is what a fault does to a set-up, computed where it can be.
type Cost struct {
	Fault    movement.Fault
	Computed bool
	Words    string
}

// leastShift is the least change of an angle that is worth computing, degrees.
const leastShift = 5.0

// CostOf applies a fault's change to a set-up, clamped to what can be reached,
// and tells what it costs; faults that move nothing the model sees are told in
// their own words.
func CostOf(f movement.Fault, s movement.SetUp, y *effort.Yardstick) Cost {
	out := Cost{Fault: f, Words: f.Costs}
	if len(f.Change) == 0 || !s.Movement.Computed() {
		if out.Words == "" {
			out.Words = "speed, balance or several joints: not computed"
		}
		return out
	}
	clean := s.Effort()
	faulty, moved := apply(f.Change, clean)
	if !moved {
		out.Words = "there is hardly any room for it in this set-up"
		return out
	}
	a, err := y.Profile(clean)
	if err != nil {
		out.Words = err.Error()
		return out
	}
	b, err := y.Profile(faulty)
	if err != nil {
		out.Computed, out.Words = true, "nothing is left of the set-up: "+err.Error()
		return out
	}
	out.Computed, out.Words = true, difference(a, b)
	return out
}

// Faulty is a set-up as a fault does it; false where the fault moves nothing the model sees.
func Faulty(f movement.Fault, s movement.SetUp, stature float64) (effort.Setup, bool) {
	if len(f.Change) == 0 || !s.Movement.Computed() {
		return effort.Setup{}, false
	}
	return apply(f.Change, s.EffortFor(stature))
}

// apply moves the fields, each clamped to its reachable range; false when
// nothing moves by much.
func apply(change map[string]float64, e effort.Setup) (effort.Setup, bool) {
	moved := false
	extension := e.Direction() < 0
	put := func(field string, by float64) {
		name, to := strings.CutSuffix(field, "=")
		shift := func(x *float64, lo, hi float64) {
			was := *x
			v := was + by
			if to {
				v = by
			}
			*x = min(max(v, lo), hi)
			if step := math.Abs(*x - was); step >= leastShift || step >= 0.05 && strings.HasPrefix(name, "pulley") {
				moved = true
			}
		}
		both := func(a, b *float64, lo, hi float64) {
			if to { // the start goes there, the travel stays
				by, to = by-*a, false
			}
			shift(a, lo, hi)
			shift(b, lo, hi)
		}
		switch name {
		case "s":
			both(&e.From.ShoulderElevation, &e.To.ShoulderElevation, -60, 180)
		case "s_from":
			shift(&e.From.ShoulderElevation, -60, 180)
		case "s_to":
			shift(&e.To.ShoulderElevation, -60, 180)
		case "psi":
			both(&e.From.ElevationPlane, &e.To.ElevationPlane, -45, 100)
		case "rho":
			both(&e.From.ShoulderRotation, &e.To.ShoulderRotation, -70, 80)
		case "phi":
			both(&e.From.ForearmRotation, &e.To.ForearmRotation, -80, 80)
		case "phi_to":
			shift(&e.To.ForearmRotation, -80, 80)
		case "e_from":
			if extension && by > 0 { // "begins early" means less bent
				by = -by
			}
			shift(&e.From.ElbowFlexion, 0, 150)
		case "e_to":
			shift(&e.To.ElbowFlexion, 0, 150)
		case "lambda":
			shift(&e.TrunkLean, -90, 90)
		case "pulley_x":
			shift(&e.Load.Pulley[0], -3, 3)
		case "pulley_y":
			shift(&e.Load.Pulley[1], -1.4, 1.4)
		case "pulley_far":
			e.Load.Pulley[0], e.Load.Pulley[2] = e.Load.Pulley[0]*by, e.Load.Pulley[2]*by
			moved = true
		}
	}
	for field, by := range change {
		put(field, by)
	}
	return e, moved
}

// Changes worth a word.
const (
	headWord   = 0.02
	loadWord   = 0.05
	demandWord = 0.1
)

// loaded tells how the weight's pull at the end of a repetition changes from x to z, both of
// the hardest point; under 0 it pulls the wrong way and the head rests.
func loaded(x, z float64) string {
	was := fmt.Sprintf("%.0f %% of the hardest point", 100*x)
	switch {
	case z <= 0:
		return "goes unloaded (it was " + was + ")"
	case x <= 0:
		return fmt.Sprintf("is loaded to %.0f %% of the hardest point (it was not at all)", 100*z)
	case z < x:
		return fmt.Sprintf("is loaded less: %.0f %% of the hardest point (it was %.0f %%)", 100*z, 100*x)
	}
	return fmt.Sprintf("is loaded more: %.0f %% of the hardest point (it was %.0f %%)", 100*z, 100*x)
}

// difference tells what changes from a clean profile to a faulty one.
func difference(a, b *effort.Profile) string {
	var parts []string
	for h := range a.Heads {
		if !a.Heads[h].Agonist {
			continue
		}
		if d := b.Heads[h].Bias() - a.Heads[h].Bias(); math.Abs(d) >= headWord {
			parts = append(parts, fmt.Sprintf("%s %+.2f", arm.Heads[h].Code, d))
		}
	}
	if ratio := b.Working / a.Working; math.Abs(ratio-1) >= loadWord {
		parts = append(parts, fmt.Sprintf("the load for the same effort is %+.0f %%", 100*(ratio-1)))
	}
	if x, z := a.Curve[effort.Samples-1], b.Curve[effort.Samples-1]; math.Abs(x-z) >= demandWord {
		parts = append(parts, "the end of the range "+loaded(x, z))
	}
	if extra := b.IdleFraction() - a.IdleFraction(); extra > 0.02 {
		parts = append(parts, fmt.Sprintf("%.0f %% more of the range is idle", 100*extra))
	}
	if len(parts) == 0 {
		return "no head loses more than 0.02"
	}
	return strings.ReplaceAll(strings.Join(parts, ", "), "-", "−")
}
