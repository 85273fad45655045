package studio

import (
	"fmt"
	"slices"
	"strings"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/httpapi/op"
)

// RoomForm is a room as it is typed: steps as "2–20 by 2, 25, 30".
type RoomForm struct {
	Name     string     `json:"name" maxLength:"80"`
	Pairs    string     `json:"pairs" maxLength:"400"`   // dumbbells there are two of
	Singles  string     `json:"singles" maxLength:"400"` // dumbbells there is one of
	Bars     []BarForm  `json:"bars" maxItems:"4"`
	Cable    *CableForm `json:"cable,omitempty"`
	Bench    *BenchForm `json:"bench,omitempty"`
	Pads     bool       `json:"pads"`
	Slopes   string     `json:"slopes" maxLength:"200"`
	Pins     bool       `json:"pins"`
	Rails    bool       `json:"rails"`
	Partner  bool       `json:"partner"`
	DipBars  bool       `json:"dip_bars"`
	DipLoads string     `json:"dip_loads" maxLength:"400"`
	Others   []string   `json:"others" maxItems:"20"`
}

// BarForm is a bar with its mass and what it can be loaded to.
type BarForm struct {
	Kind  string  `json:"kind" enum:"bar_straight,bar_cambered"`
	OwnKg float64 `json:"own_kg"`
	Loads string  `json:"loads" maxLength:"400"`
}

// CableForm is the room's cable columns.
type CableForm struct {
	Columns     int      `json:"columns"`
	Stack       string   `json:"stack" maxLength:"400"`
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
	r := person.Room{Name: strings.TrimSpace(f.Name), Pads: f.Pads, Pins: f.Pins, Rails: f.Rails, Partner: f.Partner}
	var fields []string // of the form, by thing: where its faults are told
	add := func(field string, t person.Thing) { r.Things, fields = append(r.Things, t), append(fields, field) }
	if kg := list("pairs", f.Pairs, person.ParseSteps); len(kg) > 0 {
		add("pairs", person.Pairs(kg...))
	}
	if kg := list("singles", f.Singles, person.ParseSteps); len(kg) > 0 {
		add("singles", person.Singles(kg...))
	}
	for i, b := range f.Bars {
		at := fmt.Sprintf("bars[%d].", i)
		add(at, person.BarOf(movement.ImplementID(b.Kind), b.OwnKg, list(at+"loads", b.Loads, person.ParseSteps)...))
	}
	if c := f.Cable; c != nil {
		t := person.Columns(c.Columns, c.Ratio, list("cable.stack", c.Stack, person.ParseSteps)...)
		t.Low, t.High = c.LowM, c.HighM
		add("cable.", t)
		for _, a := range c.Attachments {
			add("cable.attachments", person.There(person.OnCable(movement.ImplementID(a))))
		}
	}
	if b := f.Bench; b != nil {
		r.Bench = &person.Bench{Min: b.Min, Max: b.Max, Notches: list("bench.notches", b.Notches, person.ParseAngles)}
	}
	if f.Pads {
		r.Slopes = list("slopes", f.Slopes, person.ParseAngles)
	}
	if f.DipBars {
		add("dip_bars", person.There(movement.DipBars))
		if kg := list("dip_loads", f.DipLoads, person.ParseSteps); len(kg) > 0 {
			add("dip_loads", person.BeltOf(kg...))
		}
	}
	for _, o := range f.Others {
		add("others", person.There(movement.ImplementID(o)))
	}
	if len(wrong) == 0 {
		wrong = r.Check()
		for i := range wrong {
			wrong[i].Field = formField(wrong[i].Field, fields)
		}
	}
	return r, op.FieldFaults("body.form.", wrong)
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
	} else if of == "own" {
		of = "own_kg"
	}
	return at + of
}

// formOf is a room as it would be typed.
func formOf(r *person.Room) RoomForm {
	form := RoomForm{Name: r.Name, Bars: []BarForm{}, Pads: r.Pads, Slopes: person.StepWords(r.Slopes), Pins: r.Pins,
		Rails: r.Rails, Partner: r.Partner, Others: []string{}}
	if b := r.Bench; b != nil {
		form.Bench = &BenchForm{b.Min, b.Max, person.StepWords(b.Notches)}
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
			form.Pairs = loads
		case t.Kind == movement.Dumbbell:
			form.Singles = loads
		case t.Kind == movement.BarStraight || t.Kind == movement.BarCambered:
			form.Bars = append(form.Bars, BarForm{string(t.Kind), t.Own, loads})
		case t.Kind == person.Cable:
			c := form.Cable
			c.Columns, c.Stack, c.Ratio, c.LowM, c.HighM = t.Count, loads, t.Ratio, t.Low, t.High
		case hangs:
			if form.Cable != nil {
				form.Cable.Attachments = append(form.Cable.Attachments, attachment)
			}
		case t.Kind == movement.DipBars:
			form.DipBars = true
		case t.Kind == person.Belt:
			form.DipLoads = loads
		default:
			form.Others = append(form.Others, string(t.Kind))
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

// beyondTheForm are the things that the form cannot hold: those marked in pounds, with
// a width of their own, with loads where the form has none, and a second one of a kind.
func beyondTheForm(things []person.Thing) (out []person.Thing) {
	seen := map[string]bool{}
	for _, t := range things {
		kind := string(t.Kind)
		if t.Kind == movement.Dumbbell {
			kind = fmt.Sprint(kind, t.Count >= 2)
		}
		loaded := slices.Contains([]movement.ImplementID{movement.Dumbbell, movement.BarStraight, movement.BarCambered,
			person.Cable, person.Belt}, t.Kind)
		if seen[kind] || t.Unit == person.Pound || t.Width > 0 || len(t.Loads) > 0 && !loaded {
			out = append(out, t)
			continue
		}
		seen[kind] = true
	}
	return out
}
