package person

import (
	"fmt"
	"slices"
	"strings"

	"musculus/internal/core/movement"
)

// Check returns what is wrong with a room, one error a field.
func (r *Room) Check() []FieldError {
	var out []FieldError
	fault := func(ok bool, field, reason string, args ...any) {
		if !ok {
			out = append(out, FieldError{Field: field, Reason: fmt.Sprintf(reason, args...)})
		}
	}
	fault(strings.TrimSpace(r.Name) != "" && len([]rune(r.Name)) <= 60, "name", "a room needs a name of up to 60 characters")
	for i := range r.Things {
		t := &r.Things[i]
		at := fmt.Sprintf("things[%d].", i)
		twice := slices.ContainsFunc(r.Things[:i], func(o Thing) bool { return o.ID == t.ID })
		fault(t.ID != "" && len(t.ID) <= 60 && !twice, at+"id", "a thing needs an id of its own, up to 60 characters")
		fault(slices.Contains(thingKinds, t.Kind), at+"kind", "there is no thing %q", t.Kind)
		fault(t.Unit == "" || t.Unit == Kilogram || t.Unit == Pound, at+"unit", "%q is neither kg nor lb", t.Unit)
		fault(t.Count >= 0 && t.Count <= 50, at+"count", "%d is outside 0…50", t.Count)
		fault(t.Own >= 0 && t.Unit.In(t.Own) <= 50, at+"own", "%g is outside 0…50 kg", t.Own)
		fault(len(t.Loads) == 0 || t.Loads[0] >= t.Own, at+"loads", "what weighs %g cannot be loaded to %g", t.Own, firstOrZero(t.Loads))
		for k, x := range t.Loads {
			fault(x > 0 && t.Unit.In(x) <= mostStepKg && (k == 0 || x > t.Loads[k-1]), at+"loads", "%g does not follow in a list of loads", x)
		}
		fault(t.Width >= 0 && t.Width <= 3, at+"width", "%g m is outside 0…3", t.Width)
		if t.Kind == Cable {
			fault(t.Count >= 1 && t.Count <= 20, at+"count", "%d is outside 1…20", t.Count)
			fault(t.Ratio >= 1 && t.Ratio <= 4, at+"ratio", "%g is outside 1…4 (2: the stack weighs twice what the hand feels)", t.Ratio)
			fault(len(t.Loads) > 0, at+"loads", "the stack needs its steps")
			fault(t.Low >= 0 && (t.High == 0 || t.High > t.Low) && t.High <= 4, at+"high", "from %g to %g m is no range", t.Low, t.High)
		}
	}
	if b := r.Bench; b != nil {
		fault(b.Min >= 0 && b.Max <= 90 && b.Min <= b.Max, "bench.max_deg", "from %g to %g° is no range of a bench", b.Min, b.Max)
		for _, n := range b.Notches {
			fault(n >= b.Min && n <= b.Max, "bench.notches", "%g° is outside %g…%g°", n, b.Min, b.Max)
		}
	}
	for _, s := range r.Slopes {
		fault(s >= 0 && s <= 90, "slopes", "%g° is outside 0…90°", s)
	}
	return out
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
