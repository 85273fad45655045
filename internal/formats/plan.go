package formats

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"maps"
	"slices"
	"strings"

	"musculus/internal/core/text"
)

// PlanFormat and PlanVersion begin a plan written as JSON; see
// docs/formats/plan.schema.json.
const (
	PlanFormat  = "musculus-plan"
	PlanVersion = 1
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
	Name      string     `json:"name"`
	Date      string     `json:"date"`             // 2026-11-25
	Intent    string     `json:"intent,omitempty"` // heavy, light
	WarmUpMin float64    `json:"warm_up_min"`
	Locked    bool       `json:"locked,omitempty"`
	Slots     []PlanSlot `json:"slots"`
}

// PlanSlot is one slot: the movement's id, the settings that were turned, the dose.
type PlanSlot struct {
	Movement string         `json:"movement"`
	InWords  string         `json:"in_words,omitempty"` // for people; not read
	Settings map[string]any `json:"settings,omitempty"`
	Sets     int            `json:"sets"`
	RepsLow  int            `json:"reps_low"`
	RepsHigh int            `json:"reps_high"`
	Reserve  int            `json:"reserve"`
	Reserves []int          `json:"reserves,omitempty"` // set by set, where they differ; reserve is the first
	RestS    int            `json:"rest_s"`
	Tempo    []float64      `json:"tempo,omitempty"`   // lowering, hold, lifting, hold, s
	LoadKg   *float64       `json:"load_kg,omitempty"` // what one hand carries
	// LoadMarked is the same load as it is marked on the thing, kg: the whole bar, the
	// dumbbell two hands share, the stack, what is added to the body. LoadMeans says
	// which, for people; it is not read.
	LoadMarked *float64   `json:"load_marked,omitempty"`
	LoadMeans  string     `json:"load_means,omitempty"`
	Method     string     `json:"method,omitempty"`
	MethodN    int        `json:"method_n,omitempty"`
	Combo      string     `json:"combo,omitempty"`
	Cues       []string   `json:"cues,omitempty"`
	Grips      []PlanGrip `json:"grips,omitempty"`  // of the sets one by one, where they differ
	Starts     string     `json:"starts,omitempty"` // left, right; absent: in turn
	Locked     bool       `json:"locked,omitempty"`
}

// PlanGrip is the set-up of one set.
type PlanGrip struct {
	Movement string         `json:"movement"`
	Settings map[string]any `json:"settings,omitempty"`
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
		r.Problems = append(r.Problems, PlanProblem{"the file", fmt.Sprintf("has more than %d such places; put these right first", mostProblems)})
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
	switch p := &out.Plan; {
	case p.Format != PlanFormat:
		out.problem("format", "%q is not %q", short(p.Format), PlanFormat)
	case p.Version != PlanVersion:
		out.problem("version", "version %d is not read here, only %d", p.Version, PlanVersion)
	}
	if len(out.Problems) > 0 {
		out.Plan = Plan{}
		return out
	}
	out.unknown(unknownFields(b))
	out.bound()
	return out
}

// unknownFields lists fields that a plan has not, by name.
func unknownFields(b []byte) []string {
	strict := json.NewDecoder(bytes.NewReader(b))
	strict.DisallowUnknownFields()
	if strict.Decode(new(Plan)) == nil {
		return nil
	}
	known := map[string]bool{"format": true, "version": true, "client": true, "sessions": true, "name": true, "date": true, "slots": true, "in_words": true}
	for _, c := range columns {
		known[c.id] = true
	}
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

// bound refuses plans that are too long and fills in what has a usual value.
func (r *PlanRead) bound() {
	rows := 0
	for i := range r.Plan.Sessions {
		s := &r.Plan.Sessions[i]
		rows += len(s.Slots)
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
		r.problem("the file", "%d sessions with %d slots are more than %d with %d; split it", len(r.Plan.Sessions), rows, MostSessions, MostRows)
		r.Plan.Sessions = nil
	}
}
