package person

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"musculus/internal/core/movement"
)

// Thing is something in a room that is lifted, or that loads are lifted on.
type Thing struct {
	ID    string               `json:"id"`
	Kind  movement.ImplementID `json:"kind"`            // an implement, or Cable, Belt, OnCable of an implement
	Unit  Unit                 `json:"unit,omitempty"`  // of own and loads; none: kg
	Own   float64              `json:"own,omitempty"`   // own mass, in its unit
	Loads []float64            `json:"loads,omitempty"` // whole, own mass included, as marked, ascending; none: not said
	Count int                  `json:"count,omitempty"` // how many there are of each; 0: one
	Width float64              `json:"width,omitempty"` // of a bar's smooth middle, m
	Low   float64              `json:"low,omitempty"`   // of a pulley above the floor, m
	High  float64              `json:"high,omitempty"`  // 0: as high as is asked for
	Ratio float64              `json:"ratio,omitempty"` // stack over pull
}

// Unit is how a thing is marked.
type Unit string

// The units of marks.
const (
	Kilogram Unit = "kg"
	Pound    Unit = "lb"
)

// poundKg is the international avoirdupois pound, kg.
const poundKg = 0.45359237

// In returns a mark of the unit in kg.
func (u Unit) In(mark float64) float64 {
	if u == Pound {
		return mark * poundKg
	}
	return mark
}

// Things besides the implements themselves.
const (
	Cable movement.ImplementID = "cable" // a column with its stack
	Belt  movement.ImplementID = "belt"  // what can be hung on a body
	Thick movement.ImplementID = "thick" // handles that make any grip thicker
)

// OnCable is the thing that makes an implement hang on a cable.
func OnCable(i movement.ImplementID) movement.ImplementID { return "cable_" + i }

// Mark is a load as it is marked on a thing.
type Mark struct {
	Kg    float64
	Mark  float64
	Unit  Unit
	Thing string // its id
}

// LoadsKg are a thing's loads, kg.
func (t *Thing) LoadsKg() []float64 {
	out := make([]float64, len(t.Loads))
	for i, x := range t.Loads {
		out[i] = t.Unit.In(x)
	}
	return out
}

// Name is what a thing is called.
func (t *Thing) Name() string {
	switch t.Kind {
	case movement.Dumbbell:
		return "dumbbells"
	case Cable:
		return "cable stack"
	case Belt:
		return "belt"
	case movement.DipBars:
		return "dip bars"
	case movement.BarStraight, movement.BarCambered:
		return movement.ChoiceWords(movement.Implement, string(t.Kind))
	}
	if name := stationNames[t.Kind]; name != "" {
		return name
	}
	return attachmentNames[movement.ImplementID(strings.TrimPrefix(string(t.Kind), string(OnCable(""))))]
}

// Words tells a thing with its loads: "dumbbells 5–50 by 5 lb".
func (t *Thing) Words() string {
	out := t.Name()
	if len(t.Loads) > 0 {
		out += " " + StepWords(t.Loads) + " " + string(cmp.Or(t.Unit, Kilogram))
	}
	if t.Width > 0 {
		out += fmt.Sprintf(", smooth for %.0f cm", t.Width*100)
	}
	return out
}

// Thing returns the room's first thing of a kind, nil where there is none.
func (r *Room) Thing(kind movement.ImplementID) *Thing {
	for i := range r.Things {
		if r.Things[i].Kind == kind {
			return &r.Things[i]
		}
	}
	return nil
}

// Has says whether there is a thing of a kind, so many of it.
func (r *Room) Has(kind movement.ImplementID, count int) bool {
	return slices.ContainsFunc(r.Things, func(t Thing) bool { return t.Kind == kind && max(t.Count, 1) >= count })
}

// oneStep is how near two marks of different units are one step, as a part.
const oneStep = 0.02

// marks lists the loads of a kind's things that there are at least count of,
// ascending; of two in different units that are nearly one, the one in the preferred
// unit, kg where none is.
func (r *Room) marks(kind movement.ImplementID, count int) []Mark {
	var out []Mark
	for i := range r.Things {
		t := &r.Things[i]
		if t.Kind != kind || max(t.Count, 1) < count {
			continue
		}
		for _, x := range t.Loads {
			out = append(out, Mark{t.Unit.In(x), x, t.Unit, t.ID})
		}
	}
	slices.SortStableFunc(out, func(a, b Mark) int { return cmp.Compare(a.Kg, b.Kg) })
	if !slices.ContainsFunc(out, func(m Mark) bool { return m.Unit == Pound }) {
		return out
	}
	gives := Pound // the unit that gives way
	if r.Prefer == Pound {
		gives = Kilogram
	}
	of := func(m Mark) Unit { return cmp.Or(m.Unit, Kilogram) }
	return slices.DeleteFunc(slices.Clone(out), func(m Mark) bool {
		return of(m) == gives && slices.ContainsFunc(out, func(o Mark) bool {
			return of(o) != gives && o.Kg >= m.Kg*(1-oneStep) && o.Kg <= m.Kg*(1+oneStep)
		})
	})
}

// Pairs are dumbbells of which there are two of each mass, kg.
func Pairs(kg ...float64) Thing {
	return Thing{ID: "pairs", Kind: movement.Dumbbell, Loads: kg, Count: 2}
}

// Singles are dumbbells of which there is one of each mass, kg.
func Singles(kg ...float64) Thing {
	return Thing{ID: "singles", Kind: movement.Dumbbell, Loads: kg, Count: 1}
}

// BarOf is a bar with its own mass and what it can be loaded to, its own mass
// included, kg.
func BarOf(kind movement.ImplementID, own float64, loads ...float64) Thing {
	return Thing{ID: string(kind), Kind: kind, Own: own, Loads: loads}
}

// Columns are so many cable columns with a stack, kg, and its ratio over the pull.
func Columns(count int, ratio float64, stack ...float64) Thing {
	return Thing{ID: string(Cable), Kind: Cable, Count: count, Ratio: ratio, Loads: stack}
}

// BeltOf is what can be added to a body, kg.
func BeltOf(kg ...float64) Thing { return Thing{ID: string(Belt), Kind: Belt, Loads: kg} }

// There is a thing of a kind whose loads are not said.
func There(kind movement.ImplementID) Thing { return Thing{ID: string(kind), Kind: kind} }
