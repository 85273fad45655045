package person

import (
	"fmt"
	"slices"
	"strings"

	"musculus/internal/core/movement"
)

// mostDecline is how far a bench may go head down, degrees.
const mostDecline = -30.0

// longestName bounds the name of a room and the id of a thing, in characters.
const longestName = 60

// Check returns what is wrong with a room, one error a field.
func (r *Room) Check() []FieldError {
	var c checker
	fault, within := c.fault, c.within
	fault(strings.TrimSpace(r.Name) != "" && len([]rune(r.Name)) <= longestName, "name",
		"a room needs a name of up to %d characters", longestName)
	for i := range r.Things {
		t := &r.Things[i]
		at := fmt.Sprintf("things[%d].", i)
		twice := slices.ContainsFunc(r.Things[:i], func(o Thing) bool { return o.ID == t.ID })
		fault(t.ID != "" && len(t.ID) <= longestName && !twice, at+"id", "a thing needs an id of its own, up to %d characters", longestName)
		fault(slices.Contains(thingKinds, t.Kind), at+"kind", "there is no thing %q", t.Kind)
		fault(t.Unit == "" || t.Unit == Kilogram || t.Unit == Pound, at+"unit", "%q is neither kg nor lb", t.Unit)
		within(at+"count", float64(t.Count), 0, 50, "")
		within(at+"own", t.Unit.In(t.Own), 0, 50, " kg")
		fault(len(t.Loads) == 0 || t.Loads[0] >= t.Own, at+"loads", "what weighs %g cannot be loaded to %g", t.Own, firstOrZero(t.Loads))
		for k, x := range t.Loads {
			fault(x > 0 && t.Unit.In(x) <= mostStepKg && (k == 0 || x > t.Loads[k-1]), at+"loads", "%g does not follow in a list of loads", x)
		}
		within(at+"width", t.Width, 0, 3, " m")
		if t.Kind == movement.Band {
			within(at+"low", t.Unit.In(t.Low), 1, 100, " kg")
			fault(t.High >= t.Low, at+"high", "a band that helps with %g at the least cannot help with %g at the most", t.Low, t.High)
		}
		if t.Kind == Cable {
			within(at+"count", float64(t.Count), 1, 20, "")
			within(at+"ratio", t.Ratio, 1, 4, "")
			fault(len(t.Loads) > 0, at+"loads", "the stack needs its steps")
			fault(t.Low >= 0 && (t.High == 0 || t.High > t.Low) && t.High <= 4, at+"high", "from %g to %g m is no range", t.Low, t.High)
		}
	}
	if b := r.Bench; b != nil {
		fault(b.Min >= mostDecline && b.Max <= 90 && b.Min <= b.Max, "bench.max_deg", "from %g to %g° is no range of a bench", b.Min, b.Max)
		for _, n := range b.Notches {
			fault(n >= b.Min && n <= b.Max, "bench.notches", "%g° is outside %g…%g°", n, b.Min, b.Max)
		}
	}
	if b := r.Bench; b != nil {
		within("bench.count", float64(b.Count), 0, 20, "")
	}
	if c := r.Changes; c != nil {
		for field, s := range map[string]int{"walk_s": c.WalkS, "bench_s": c.BenchS, "pulley_s": c.PulleyS, "attachment_s": c.AttachmentS,
			"plates_s": c.PlatesS} {
			within("changes."+field, float64(s), 0, mostChangeS, " s")
		}
	}
	for _, s := range r.Slopes {
		within("slopes", s, 0, 90, "°")
	}
	return c.found
}

func firstOrZero(x []float64) float64 {
	if len(x) == 0 {
		return 0
	}
	return x[0]
}

// thingKinds are what a room may have.
var thingKinds = func() []movement.ImplementID {
	out := []movement.ImplementID{movement.Dumbbell, movement.DipBars, Cable, Belt}
	for id := range stationNames {
		out = append(out, id)
	}
	for id := range barNames {
		out = append(out, id)
	}
	for id := range attachmentNames {
		out = append(out, OnCable(id))
	}
	return out
}()

// Stations are what may stand in a room besides, by id with its name.
func Stations() map[movement.ImplementID]string { return stationNames }
