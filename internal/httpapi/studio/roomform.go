package studio

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/httpapi/op"
)

// RoomForm is a room as it is typed: steps as "2–20 by 2, 25, 30".
type RoomForm struct {
	Name     string          `json:"name" maxLength:"80"`
	Pairs    string          `json:"pairs" maxLength:"400"` // dumbbells there are two of
	PairsIn  string          `json:"pairs_in,omitempty" enum:",kg,lb"`
	Singles  string          `json:"singles" maxLength:"400"` // dumbbells there is one of
	SingleIn string          `json:"singles_in,omitempty" enum:",kg,lb"`
	Bars     []BarForm       `json:"bars" maxItems:"6"`
	Cable    *CableForm      `json:"cable,omitempty"`
	Bench    *BenchForm      `json:"bench,omitempty"`
	Pads     bool            `json:"pads"`
	Slopes   string          `json:"slopes" maxLength:"200"`
	Pins     bool            `json:"pins"`
	Rails    bool            `json:"rails"`
	Partner  bool            `json:"partner"`
	DipBars  bool            `json:"dip_bars"`
	DipLoads string          `json:"dip_loads" maxLength:"400"`
	DipIn    string          `json:"dip_loads_in,omitempty" enum:",kg,lb"`
	Others   []OtherForm     `json:"others" maxItems:"30"`
	AsPad    bool            `json:"bench_as_pad,omitempty" doc:"the bench at a pad's slope serves pad curls"`
	Changes  *person.Changes `json:"changes,omitempty" doc:"how long going from one exercise to the next takes; absent: as usual"`
}

// OtherForm is something else that stands there, with its loads where it has some; a
// band with what it helps with, at the least and at the most.
type OtherForm struct {
	Kind  string  `json:"kind" maxLength:"40"`
	Unit  string  `json:"unit,omitempty" enum:",kg,lb"`
	Loads string  `json:"loads,omitempty" maxLength:"400"`
	Low   float64 `json:"low,omitempty"`
	High  float64 `json:"high,omitempty"`
}

// BarForm is a bar with its mass and what it can be loaded to.
type BarForm struct {
	Kind    string  `json:"kind" enum:"bar_straight,bar_cambered,bar_parallel,bar_rail"`
	Own     float64 `json:"own"`
	Unit    string  `json:"unit,omitempty" enum:",kg,lb"`
	Loads   string  `json:"loads" maxLength:"400"`
	WidthCm float64 `json:"width_cm,omitempty" doc:"of its smooth middle"`
}

// CableForm is the room's cable columns.
type CableForm struct {
	Columns     int      `json:"columns"`
	Stack       string   `json:"stack" maxLength:"400"`
	Unit        string   `json:"unit,omitempty" enum:",kg,lb"`
	Ratio       float64  `json:"ratio"`
	Attachments []string `json:"attachments" maxItems:"10"`
	LowM        float64  `json:"low_m"`
	HighM       float64  `json:"high_m"`
}

// BenchForm is the room's bench.
type BenchForm struct {
	Min     float64 `json:"min_deg"`
	Max     float64 `json:"max_deg"`
	Notches string  `json:"notches" maxLength:"200"`
	Count   int     `json:"count,omitempty" doc:"how many there are"`
}

// readRoom reads what was typed; every field that is wrong is told.
func readRoom(f *RoomForm) (person.Room, error) {
	var wrong []person.FieldError
	list := func(field, text string, parse func(string) ([]float64, error)) []float64 {
		out, err := parse(text)
		if err != nil {
			wrong = append(wrong, person.FieldError{Field: field, Reason: err.Error()})
		}
		return out
	}
	r := person.Room{Name: strings.TrimSpace(f.Name), Pads: f.Pads, Pins: f.Pins, Rails: f.Rails, Partner: f.Partner,
		AsPad: f.AsPad, Changes: f.Changes}
	var fields []string // of the form, by thing: where its faults are told
	add := func(field string, t person.Thing) { r.Things, fields = append(r.Things, t), append(fields, field) }
	if kg := list("pairs", f.Pairs, person.ParseSteps); len(kg) > 0 {
		add("pairs", marked(person.Pairs(kg...), f.PairsIn))
	}
	if kg := list("singles", f.Singles, person.ParseSteps); len(kg) > 0 {
		add("singles", marked(person.Singles(kg...), f.SingleIn))
	}
	for i, b := range f.Bars {
		at := fmt.Sprintf("bars[%d].", i)
		bar := marked(person.BarOf(movement.ImplementID(b.Kind), b.Own, list(at+"loads", b.Loads, person.ParseSteps)...), b.Unit)
		bar.Width = b.WidthCm / 100
		add(at, bar)
	}
	if c := f.Cable; c != nil {
		t := person.Columns(c.Columns, c.Ratio, list("cable.stack", c.Stack, person.ParseSteps)...)
		t.Low, t.High = c.LowM, c.HighM
		add("cable.", marked(t, c.Unit))
		for _, a := range c.Attachments {
			add("cable.attachments", person.There(person.OnCable(movement.ImplementID(a))))
		}
	}
	if b := f.Bench; b != nil {
		r.Bench = &person.Bench{Min: b.Min, Max: b.Max, Notches: list("bench.notches", b.Notches, person.ParseAngles), Count: b.Count}
	}
	if f.Pads {
		r.Slopes = list("slopes", f.Slopes, person.ParseAngles)
	}
	if f.DipBars {
		add("dip_bars", person.There(movement.DipBars))
		if kg := list("dip_loads", f.DipLoads, person.ParseSteps); len(kg) > 0 {
			add("dip_loads", marked(person.BeltOf(kg...), f.DipIn))
		}
	}
	for i, o := range f.Others {
		at := fmt.Sprintf("others[%d].", i)
		t := marked(person.There(movement.ImplementID(o.Kind)), o.Unit)
		if t.Loads, t.Low, t.High = list(at+"loads", o.Loads, person.ParseSteps), o.Low, o.High; i > 0 && o.Kind == string(movement.Band) {
			t.ID = fmt.Sprintf("%s-%d", t.ID, i) // there may be several of them
		}
		add(at, t)
	}
	if len(wrong) == 0 {
		wrong = r.Check()
		for i := range wrong {
			wrong[i].Field = formField(wrong[i].Field, fields)
		}
	}
	return r, op.FieldFaults("body.form.", wrong)
}

// marked is a thing marked in a unit.
func marked(t person.Thing, unit string) person.Thing {
	if unit == string(person.Pound) {
		t.Unit = person.Pound
	}
	return t
}

// formField is where the form shows a fault of a room's field.
func formField(field string, fields []string) string {
	var i int
	var of string
	if n, _ := fmt.Sscanf(field, "things[%d].%s", &i, &of); n != 2 {
		return field
	}
	at := fields[i]
	if !strings.HasSuffix(at, ".") {
		return at
	}
	if at == "cable." {
		of = map[string]string{"count": "columns", "loads": "stack", "high": "high_m"}[of]
	} else if of == "width" {
		of = "width_cm"
	}
	return at + of
}

// formOf is a room as it would be typed.
func formOf(r *person.Room) RoomForm {
	form := RoomForm{Name: r.Name, Bars: []BarForm{}, Pads: r.Pads, Slopes: person.StepWords(r.Slopes), Pins: r.Pins,
		Rails: r.Rails, Partner: r.Partner, Others: []OtherForm{},
		AsPad: r.AsPad, Changes: r.Changes}
	if b := r.Bench; b != nil {
		form.Bench = &BenchForm{b.Min, b.Max, person.StepWords(b.Notches), b.Count}
	}
	if r.Has(person.Cable, 1) {
		form.Cable = &CableForm{Attachments: []string{}}
	}
	beyond := beyondTheForm(r.Things)
	for i := range r.Things {
		t := &r.Things[i]
		if slices.ContainsFunc(beyond, func(b person.Thing) bool { return b.ID == t.ID }) {
			continue
		}
		loads := person.StepWords(t.Loads)
		switch attachment, hangs := strings.CutPrefix(string(t.Kind), string(person.OnCable(""))); {
		case t.Kind == movement.Dumbbell && t.Count >= 2:
			form.Pairs, form.PairsIn = loads, string(t.Unit)
		case t.Kind == movement.Dumbbell:
			form.Singles, form.SingleIn = loads, string(t.Unit)
		case slices.Contains(barKinds, t.Kind) && (t.Own > 0 || len(t.Loads) > 0):
			form.Bars = append(form.Bars, BarForm{string(t.Kind), t.Own, string(t.Unit), loads, math.Round(1000*t.Width) / 10})
		case t.Kind == person.Cable:
			c := form.Cable
			c.Unit, c.Columns, c.Stack, c.Ratio, c.LowM, c.HighM = string(t.Unit), t.Count, loads, t.Ratio, t.Low, t.High
		case hangs:
			if form.Cable != nil {
				form.Cable.Attachments = append(form.Cable.Attachments, attachment)
			}
		case t.Kind == movement.DipBars:
			form.DipBars = true
		case t.Kind == person.Belt:
			form.DipLoads, form.DipIn = loads, string(t.Unit)
		default:
			form.Others = append(form.Others, OtherForm{string(t.Kind), string(t.Unit), loads, t.Low, t.High})
		}
	}
	return form
}

// keepBeyond keeps those of a room's things that the form does not hold; one of the
// form's that came by the same id takes another.
func keepBeyond(r *person.Room, was []person.Thing) {
	stay := beyondTheForm(was)
	for i := range r.Things {
		for slices.ContainsFunc(stay, func(t person.Thing) bool { return t.ID == r.Things[i].ID }) {
			r.Things[i].ID += "-2"
		}
	}
	r.Things = append(r.Things, stay...)
}

// barKinds are the bars that the form tells with their mass and loads.
var barKinds = []movement.ImplementID{movement.BarStraight, movement.BarCambered, movement.BarParallel, movement.BarRail}

// beyondTheForm are the things that the form cannot hold: a second one of a kind, but
// for bands, and what of a kind has no loads in it.
func beyondTheForm(things []person.Thing) (out []person.Thing) {
	seen := map[string]bool{}
	for _, t := range things {
		kind := string(t.Kind)
		if t.Kind == movement.Dumbbell {
			kind = fmt.Sprint(kind, t.Count >= 2)
		}
		hangs := strings.HasPrefix(string(t.Kind), string(person.OnCable("")))
		if seen[kind] && t.Kind != movement.Band || hangs && len(t.Loads) > 0 || t.Kind == movement.DipBars && len(t.Loads) > 0 {
			out = append(out, t)
			continue
		}
		seen[kind] = true
	}
	return out
}
