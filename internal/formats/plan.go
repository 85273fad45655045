package formats

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"maps"
	"reflect"
	"slices"
	"strings"

	"github.com/google/uuid"

	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/text"
)

// PlanFormat and PlanVersion begin a plan written as JSON; see
// docs/formats/plan.schema.json.
const (
	PlanFormat  = "musculus-plan"
	PlanVersion = plan.Version
)

// Limits of a plan that is read.
const (
	MostSessions = 60
	MostRows     = 1000
	mostLooked   = 5000 // rows of a table that are looked at
	mostColumns  = 64
	mostNamed    = 50 // unknown columns or fields that are named, the rest is counted
	mostProblems = 200
)

// Plan is a client's sessions as they leave and enter the program.
type Plan struct {
	Format   string        `json:"format"`
	Version  int           `json:"version"`
	Client   string        `json:"client,omitempty"`
	Sessions []PlanSession `json:"sessions"`
}

// PlanSession is one session on its day.
type PlanSession struct {
	Name      string       `json:"name"`
	Date      string       `json:"date"`             // 2026-11-25
	Intent    string       `json:"intent,omitempty"` // heavy, light
	WarmUpMin float64      `json:"warm_up_min"`
	Locked    bool         `json:"locked,omitempty"`
	Combos    []plan.Combo `json:"combos,omitempty"`
	Slots     []PlanSlot   `json:"slots"`
}

// PlanSlot is one slot as a plan writes it, without ids: who reads it finds them by
// what stands where.
type PlanSlot struct {
	ID any `json:"id,omitempty"` // not written, not read
	plan.SlotJSON
	InWords string    `json:"in_words,omitempty"` // for people; not read
	Rows    []PlanRow `json:"rows"`
}

// PlanRow is one row.
type PlanRow struct {
	ID any `json:"id,omitempty"` // not written, not read
	plan.RowJSON
	// LoadMarked is the same load as it is marked on the thing: the whole bar, the
	// dumbbell two hands share, the stack, what is added to the body; in LoadUnit, kg
	// where none is said. LoadMeans says which, for people; it is not read.
	LoadMarked *float64 `json:"load_marked,omitempty"`
	LoadUnit   string   `json:"load_unit,omitempty" enum:",kg,lb"`
	LoadMeans  string   `json:"load_means,omitempty"`
}

// MarkedKg is the load as it is marked, kg; nil where none is told.
func (r *PlanRow) MarkedKg() *float64 {
	if r.LoadMarked == nil {
		return nil
	}
	kg := person.Unit(r.LoadUnit).In(*r.LoadMarked)
	return &kg
}

// Session is what was read, to be resolved before it is counted.
func (s *PlanSession) Session() plan.Session {
	out := plan.Session{WarmUpMin: s.WarmUpMin, Intent: s.Intent, Locked: s.Locked, Combos: slices.Clone(s.Combos), Slots: []plan.Slot{}}
	for i := range s.Slots {
		slot := s.Slots[i].SlotJSON
		slot.Rows, slot.CueReason = nil, ""
		for k := range s.Slots[i].Rows {
			slot.Rows = append(slot.Rows, s.Slots[i].Rows[k].RowJSON)
		}
		out.Slots = append(out.Slots, slot.Slot())
	}
	out.FillCombos()
	return out
}

// DropLoads takes the loads out that are somebody's: numbers, not what refers to them.
func (s *PlanSession) DropLoads() {
	for i := range s.Slots {
		for k := range s.Slots[i].Rows {
			r := &s.Slots[i].Rows[k]
			if r.LoadMarked, r.LoadUnit = nil, ""; r.Load != nil && (r.Load.Kg != nil || r.Load.AddedKg != nil) {
				r.Load = nil
			}
		}
	}
}

// slotOf is a slot as a plan writes it.
func slotOf(j plan.SlotJSON) PlanSlot {
	out := PlanSlot{SlotJSON: j}
	for _, r := range j.Rows {
		r.ID = uuid.Nil
		out.Rows = append(out.Rows, PlanRow{RowJSON: r})
	}
	out.SlotJSON.Rows, out.SlotJSON.ID = nil, uuid.Nil
	out.CueReason = "" // it is about one client
	return out
}

// SessionOf is a session as a plan writes it; marked tells the load of a row as it is
// marked, nil where it has none, and what the mark is.
func SessionOf(p *plan.Planned, marked func(slot, row int) (mark *float64, unit, means string)) PlanSession {
	out := PlanSession{
		Name:      p.Name,
		Date:      p.On.String(),
		Intent:    p.Intent,
		WarmUpMin: p.WarmUpMin,
		Locked:    p.Locked,
		Combos:    p.Combos,
		Slots:     []PlanSlot{},
	}
	for i := range p.Slots {
		slot := slotOf(p.Slots[i].JSON())
		slot.InWords = p.Slots[i].SetUp.Name()
		for k := range slot.Rows {
			r := &slot.Rows[k]
			r.LoadMarked, r.LoadUnit, r.LoadMeans = marked(i, k)
		}
		out.Slots = append(out.Slots, slot)
	}
	return out
}

// PlanProblem is what could not be read, and where.
type PlanProblem struct {
	Where  string `json:"where"` // "row 7, load_kg", "sessions[1].slots[0].sets"
	Reason string `json:"reason"`
}

// PlanRead is a plan as far as it could be read. Nothing is left out silently:
// what was not understood is in Unknown or Problems.
type PlanRead struct {
	Plan     Plan
	Unknown  []string // columns or fields nobody knows, the first mostNamed by name
	Problems []PlanProblem
}

func (r *PlanRead) problem(where, reason string, args ...any) {
	switch n := len(r.Problems); {
	case n < mostProblems:
		r.Problems = append(r.Problems, PlanProblem{where, fmt.Sprintf(reason, args...)})
	case n == mostProblems:
		r.Problems = append(
			r.Problems,
			PlanProblem{"the file", fmt.Sprintf("has more than %d such places; put these right first", mostProblems)},
		)
	}
}

// unknown notes columns or fields nobody knows: some by name, the rest by number.
func (r *PlanRead) unknown(names []string) {
	r.Unknown = append(r.Unknown, names[:min(len(names), mostNamed)]...)
	if more := len(names) - mostNamed; more > 0 {
		r.Unknown = append(r.Unknown, fmt.Sprintf("and %d more", more))
	}
}

// short keeps what strangers wrote from filling a screen.
func short(s string) string { return cut(s, 60) }

// WritePlanJSON writes a plan as JSON.
func WritePlanJSON(w io.Writer, p *Plan) error {
	out := *p
	out.Format, out.Version = PlanFormat, PlanVersion
	encoder := json.NewEncoder(w)
	encoder.SetIndent("", "  ")
	encoder.SetEscapeHTML(false)
	return encoder.Encode(out)
}

// ReadPlanJSON reads a plan written as JSON; fields it does not know are told.
func ReadPlanJSON(b []byte) PlanRead {
	var out PlanRead
	if at, why := text.JSONFault(b, func(string) bool { return false }); why != "" {
		out.problem(at, "%s", why)
		return out
	}
	if err := json.Unmarshal(b, &out.Plan); err != nil {
		out.Plan = Plan{}
		out.problem("the file", "is no plan in JSON: %s", short(err.Error()))
		return out
	}
	known := any(new(Plan))
	switch p := &out.Plan; {
	case p.Format != PlanFormat:
		out.problem("format", "%q is not %q", short(p.Format), PlanFormat)
	case p.Version == 1:
		known = new(planV1)
		if err := out.readV1(b); err != nil {
			out.problem("the file", "is no plan in JSON: %s", short(err.Error()))
		}
	case p.Version != PlanVersion:
		out.problem("version", "version %d is not read here, only up to %d", p.Version, PlanVersion)
	}
	if len(out.Problems) > 0 {
		out.Plan = Plan{}
		return out
	}
	out.unknown(unknownFields(b, known))
	out.bound()
	return out
}

// unknownFields lists fields that a plan of some shape has not, by name.
func unknownFields(b []byte, shape any) []string {
	strict := json.NewDecoder(bytes.NewReader(b))
	strict.DisallowUnknownFields()
	if strict.Decode(shape) == nil {
		return nil
	}
	known := map[string]bool{}
	fieldsOf(reflect.TypeOf(shape), known)
	seen := map[string]bool{}
	var walk func(v any)
	walk = func(v any) {
		switch v := v.(type) {
		case []any:
			for _, x := range v {
				walk(x)
			}
		case map[string]any:
			for k, x := range v {
				if k == "settings" {
					continue // its keys are the movement's
				}
				if !known[k] {
					seen[short(k)] = true
				}
				walk(x)
			}
		}
	}
	var all any
	if json.Unmarshal(b, &all) == nil {
		walk(all)
	}
	return slices.Sorted(maps.Keys(seen))
}

// fieldsOf notes the names of all fields of a shape.
func fieldsOf(t reflect.Type, known map[string]bool) {
	for t.Kind() == reflect.Pointer || t.Kind() == reflect.Slice {
		t = t.Elem()
	}
	if t.Kind() != reflect.Struct {
		return
	}
	for i := range t.NumField() {
		f := t.Field(i)
		if name, _, _ := strings.Cut(f.Tag.Get("json"), ","); name != "" {
			known[name] = true
		}
		fieldsOf(f.Type, known)
	}
}

// bound refuses plans that are too long and fills in what has a usual value.
func (r *PlanRead) bound() {
	rows := 0
	for i := range r.Plan.Sessions {
		s := &r.Plan.Sessions[i]
		for j := range s.Slots {
			rows += max(len(s.Slots[j].Rows), 1)
		}
		s.Intent = strings.ToLower(strings.TrimSpace(s.Intent))
		if s.Intent != "" && s.Intent != "heavy" && s.Intent != "light" {
			r.problem(fmt.Sprintf("session %q", short(s.Name)), "%q is neither heavy nor light", short(s.Intent))
			s.Intent = ""
		}
		if date, ok := readDate(s.Date); ok {
			s.Date = date
		} else {
			r.problem(fmt.Sprintf("session %q", short(s.Name)), "%q is no date that can be read one way only; write 2026-11-25", short(s.Date))
		}
	}
	if len(r.Plan.Sessions) > MostSessions || rows > MostRows {
		r.problem(
			"the file",
			"%d sessions with %d rows are more than %d with %d; split it",
			len(r.Plan.Sessions),
			rows,
			MostSessions,
			MostRows,
		)
		r.Plan.Sessions = nil
	}
}
