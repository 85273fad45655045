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

var (
	sailLoft = person.Room{
		Name: "The Sail Loft",
		Things: []person.Thing{
			person.Pairs(steps(2, 20, 2, 25, 30)...),
			person.BarOf(movement.BarStraight, 10, steps(10, 80, 2.5)...),
			person.BarOf(movement.BarCambered, 8, steps(8, 63, 2.5)...),
			{ID: "cable", Kind: person.Cable, Count: 2, Ratio: 2, Loads: steps(5, 75, 5), Low: 0.1, High: 2.2},
			person.There(person.OnCable(movement.BarStraight)),
			person.There(person.OnCable(movement.Rope)),
			person.There(person.OnCable(movement.Handle)),
			person.There(movement.DipBars),
			person.BeltOf(steps(2.5, 30, 2.5)...),
		},
		Bench: &person.Bench{Min: 0, Max: 85}, Pads: true, Pins: true,
	}
	wagon = person.Room{
		Name:   "The Wagon",
		Things: []person.Thing{person.Pairs(10), person.BarOf(movement.BarStraight, 10, 10)},
		Bench:  &person.Bench{Min: 0, Max: 75},
	}
	digs = person.Room{Name: "The Digs", Things: []person.Thing{person.Singles(14)}}
)
