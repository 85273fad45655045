package demo

import (
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// steps lists from, from+by … up to to, then the extras.
func steps(from, to, by float64, extra ...float64) []float64 {
	var out []float64
	for x := from; x <= to+1e-9; x += by {
		out = append(out, x)
	}
	return append(out, extra...)
}

func pairs(masses []float64) []person.Dumbbell {
	var out []person.Dumbbell
	for _, kg := range masses {
		out = append(out, person.Dumbbell{Kg: kg, Count: 2})
	}
	return out
}

var (
	sailLoft = person.Room{
		Name:      "The Sail Loft",
		Dumbbells: pairs(steps(2, 20, 2, 25, 30)),
		Bars: []person.Bar{
			{Kind: movement.BarStraight, OwnKg: 10, Loads: steps(10, 80, 2.5)},
			{Kind: movement.BarCambered, OwnKg: 8, Loads: steps(8, 63, 2.5)},
		},
		Cable: &person.Cable{
			Columns:     2,
			Stack:       steps(5, 75, 5),
			Ratio:       2,
			Attachments: []movement.ImplementID{movement.BarStraight, movement.Rope, movement.Handle},
			LowM:        0.1,
			HighM:       2.2,
		},
		Bench: &person.Bench{Min: 0, Max: 85}, Pads: true, Pins: true, DipBars: true, DipLoads: steps(2.5, 30, 2.5),
	}
	wagon = person.Room{
		Name:      "The Wagon",
		Dumbbells: pairs([]float64{10}),
		Bars:      []person.Bar{{Kind: movement.BarStraight, OwnKg: 10, Loads: []float64{10}}},
		Bench:     &person.Bench{Min: 0, Max: 75},
	}
	digs = person.Room{Name: "The Digs", Dumbbells: []person.Dumbbell{{Kg: 14, Count: 1}}}
)
