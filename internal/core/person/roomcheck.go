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
	for _, d := range r.Dumbbells {
		fault(d.Kg > 0 && d.Kg <= mostStepKg && d.Count >= 1 && d.Count <= 50, "dumbbells", "%g kg × %d is no dumbbell", d.Kg, d.Count)
	}
	for i, b := range r.Bars {
		at := fmt.Sprintf("bars[%d]", i)
		fault(
			b.Kind == movement.BarStraight || b.Kind == movement.BarCambered,
			at+".kind",
			"%q is none of bar_straight, bar_cambered",
			b.Kind,
		)
		fault(b.OwnKg >= 0 && b.OwnKg <= 50, at+".own_kg", "%g kg is outside 0…50 kg", b.OwnKg)
		fault(len(b.Loads) == 0 || b.Loads[0] >= b.OwnKg, at+".loads", "a bar of %g kg cannot weigh %g kg", b.OwnKg, firstOrZero(b.Loads))
	}
	if c := r.Cable; c != nil {
		fault(c.Columns >= 1 && c.Columns <= 20, "cable.columns", "%d is outside 1…20", c.Columns)
		fault(c.Ratio >= 1 && c.Ratio <= 4, "cable.ratio", "%g is outside 1…4 (2: the stack weighs twice what the hand feels)", c.Ratio)
		fault(len(c.Stack) > 0, "cable.stack", "the stack needs its steps")
		fault(
			c.LowM >= 0 && (c.HighM == 0 || c.HighM > c.LowM) && c.HighM <= 4,
			"cable.high_m",
			"from %g to %g m is no range",
			c.LowM,
			c.HighM,
		)
		for _, a := range c.Attachments {
			fault(
				slices.Contains([]movement.ImplementID{movement.BarStraight, movement.Rope, movement.Handle}, a),
				"cable.attachments",
				"there is no attachment %q",
				a,
			)
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
	for _, o := range r.Others {
		fault(stationNames[o] != "", "others", "there is no station %q", o)
	}
	return out
}

func firstOrZero(x []float64) float64 {
	if len(x) == 0 {
		return 0
	}
	return x[0]
}

// Stations are what may stand in a room besides, by id with its name.
func Stations() map[movement.ImplementID]string { return stationNames }
