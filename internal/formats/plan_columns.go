package formats

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
)

// line is one line of a plan in a table: a row of a slot of a session.
type line struct {
	s    *PlanSession
	slot *PlanSlot
	n    int // the slot's number in the session, from 1
	row  *PlanRow
}

// first says whether the line is its slot's first, which says what is the slot's.
func (l *line) first() bool { return len(l.slot.Rows) > 0 && l.row == &l.slot.Rows[0] }

// column is one column of a plan in a table: its id, how a coach's sheet calls it,
// what stands in it.
type column struct {
	id, label string
	write     func(l *line) string
}

func number(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }

// some writes a number, nothing for 0.
func some(x int) string {
	if x == 0 {
		return ""
	}
	return strconv.Itoa(x)
}

// ofSlot writes what is the slot's, in its first line only.
func ofSlot(write func(s *PlanSlot) string) func(*line) string {
	return func(l *line) string {
		if !l.first() {
			return ""
		}
		return write(l.slot)
	}
}

// ofCombo writes what is the slot's combo's.
func ofCombo(write func(c *plan.Combo) string) func(*line) string {
	return func(l *line) string {
		for i := range l.s.Combos {
			if c := &l.s.Combos[i]; l.first() && c.ID == l.slot.Combo {
				return write(c)
			}
		}
		return ""
	}
}

// columns of a line, in their order; the first perSession are the session's.
var columns = []column{
	{"session", "Session", func(l *line) string { return l.s.Name }},
	{"date", "Date", func(l *line) string { return l.s.Date }},
	{"intent", "Heavy or light", func(l *line) string { return l.s.Intent }},
	{"warm_up_min", "Warm-up, min", func(l *line) string { return number(l.s.WarmUpMin) }},
	{"movement", "Movement", func(l *line) string { return l.slot.Movement }},
	{"slot", "Slot", func(l *line) string { return some(l.n) }},
	{"in_words", "In words", ofSlot(func(s *PlanSlot) string { return s.InWords })},
	{"settings", "Settings", ofSlot(func(s *PlanSlot) string { return settingsText(s.Settings) })},
	{"these_sets", "These sets otherwise", func(l *line) string { return otherwiseText(&l.row.RowJSON) }},
	{"sets", "Sets", func(l *line) string { return strconv.Itoa(l.row.Sets) }},
	{"reps_low", "Reps from", func(l *line) string { return strconv.Itoa(l.row.RepsLow) }},
	{"reps_high", "Reps to", func(l *line) string { return strconv.Itoa(l.row.RepsHigh) }},
	{"seconds_low", "Held from, s", func(l *line) string { return some(l.row.SecondsLow) }},
	{"seconds_high", "Held to, s", func(l *line) string { return some(l.row.SecondsHigh) }},
	{"reserve", "Left in reserve", func(l *line) string { return strconv.Itoa(l.row.Reserve) }},
	{"rest_s", "Rest, s", func(l *line) string { return strconv.Itoa(l.row.RestS) }},
	{"tempo", "Tempo", func(l *line) string { return tempoText(l.row.Tempo) }},
	{"load", "Load", func(l *line) string { return loadText(l.row.Load) }},
	{"load_kg", "Load, kg in one hand", func(l *line) string { return handText(l.row.Load) }},
	{"load_marked", "Load as marked", func(l *line) string { return optional(l.row.LoadMarked) }},
	{"load_unit", "Unit of the mark", func(l *line) string { return l.row.LoadUnit }},
	{"load_means", "What the mark is", func(l *line) string { return l.row.LoadMeans }},
	{"method", "Method", func(l *line) string { return l.row.Method.ID }},
	{"method_n", "Method’s number", func(l *line) string { return some(l.row.Method.N) }},
	{"word", "Word for the client", func(l *line) string { return l.row.Word }},
	{"combo", "Combo", ofSlot(func(s *PlanSlot) string { return s.Combo })},
	{"between_s", "Rest in the combo, s", ofCombo(func(c *plan.Combo) string { return strconv.Itoa(c.BetweenS) })},
	{"after_s", "Rest after a round, s", ofCombo(func(c *plan.Combo) string { return strconv.Itoa(c.AfterS) })},
	{"loads", "Loads of the combo", ofCombo(func(c *plan.Combo) string { return string(c.Loads) })},
	{"starts", "Arm that begins", ofSlot(func(s *PlanSlot) string { return string(s.Starts) })},
	{"locked", "Locked", ofSlot(func(s *PlanSlot) string { return map[bool]string{true: yes}[s.Locked] })},
	{"cues", "Cues", ofSlot(func(s *PlanSlot) string { return cuesText(s.Cues) })},
}

// perSession are the columns that belong to a session rather than a line.
const perSession = 4

// oldColumns are those of version 1 that are only read.
var oldColumns = map[string]string{
	"left set by set":    "reserves",
	"reserves":           "reserves",
	"grips by set":       "grips",
	"grips":              "grips",
	"load, kg a hand":    "load_kg",
	"load as marked, kg": "load_marked",
}

// columnOf finds a column by its id or label; "" for an unknown one.
func columnOf(head string) string {
	plain := strings.ToLower(strings.TrimSpace(head))
	for _, c := range columns {
		if plain == c.id || plain == strings.ToLower(c.label) {
			return c.id
		}
	}
	return oldColumns[plain]
}

// cells writes a line, the session's columns first.
func cells(l *line) []string {
	out := make([]string, len(columns))
	for i, c := range columns {
		out[i] = c.write(l)
	}
	return out
}

// lines are those of a session.
func (s *PlanSession) lines() (out []line) {
	for i := range s.Slots {
		for k := range s.Slots[i].Rows {
			out = append(out, line{s, &s.Slots[i], i + 1, &s.Slots[i].Rows[k]})
		}
	}
	return out
}

func optional(x *float64) string {
	if x == nil {
		return ""
	}
	return number(*x)
}

func tempoText(t effort.Tempo) string {
	if t.Total() == 0 {
		return ""
	}
	return fmt.Sprintf("%s-%s-%s-%s", number(t[0]), number(t[1]), number(t[2]), number(t[3]))
}

// loadText writes a load that is no number: "find", "60 %", "+1 steps", "combo".
func loadText(l *dose.Load) string {
	switch {
	case l == nil:
		return ""
	case l.Find:
		return "find"
	case l.Share != 0:
		return number(math.Round(1000*l.Share)/10) + " %"
	case l.Steps != nil:
		return fmt.Sprintf("%+d steps", *l.Steps)
	case l.Combo:
		return "combo"
	case l.AddedKg != nil:
		return "added"
	}
	return ""
}

func handText(l *dose.Load) string {
	if l == nil {
		return ""
	}
	return optional(l.Kg)
}

// readLoad reads what loadText writes, and a number in one hand.
func (r *rows) readLoad(text string, hand, marked *float64, where string) *dose.Load {
	t := strings.ToLower(strings.TrimSpace(text))
	share, isShare := strings.CutSuffix(t, "%")
	steps, isSteps := strings.CutSuffix(strings.TrimSuffix(t, "s"), "step")
	switch {
	case t == "" && hand != nil:
		return &dose.Load{Kg: hand}
	case t == "":
		return nil
	case t == "find":
		return dose.ToFind()
	case t == "combo":
		return &dose.Load{Combo: true}
	case t == "added" && marked != nil:
		return &dose.Load{AddedKg: marked}
	case isShare:
		return &dose.Load{Share: r.number(share, where, "load") / 100}
	case isSteps:
		n := int(r.number(strings.TrimSpace(steps), where, "load"))
		return &dose.Load{Steps: &n}
	}
	r.read.problem(where+", load", "%q is none of “find”, “60 %%”, “+1 steps”, “combo”", short(text))
	return nil
}

// otherwiseText writes how a row's sets are done where it is not as the slot says:
// "curl_neutral: grip_width=1.2", ": bench=60".
func otherwiseText(r *plan.RowJSON) string {
	if r.Movement == "" && len(r.Settings) == 0 {
		return ""
	}
	return r.Movement + ": " + settingsText(r.Settings)
}

// cuesText writes cues with bars between them; a bar in a cue is written twice.
func cuesText(cues []string) string {
	out := make([]string, len(cues))
	for i, c := range cues {
		out[i] = strings.ReplaceAll(c, "|", "||")
	}
	return strings.Join(out, " | ")
}

func readCues(cell string) (out []string) {
	const held = "\x00" // stands for a bar in a cue; no cell has one
	for _, c := range strings.Split(strings.ReplaceAll(cell, "||", held), "|") {
		if c = strings.TrimSpace(strings.ReplaceAll(c, held, "|")); c != "" {
			out = append(out, c)
		}
	}
	return out
}

// yes stands in a column that is said yes or nothing to.
const yes = "yes"

// readGrips reads the grips of version 1: "curl_neutral | curl_standing_bar: grip_width=1.2".
func readGrips(text string) ([]plan.OldGrip, error) {
	var out []plan.OldGrip
	for _, part := range strings.Split(text, "|") {
		if part = strings.TrimSpace(part); part == "" {
			continue
		}
		id, turned, _ := strings.Cut(part, ":")
		settings, err := readSettings(turned)
		if err != nil {
			return nil, err
		}
		out = append(out, plan.OldGrip{Movement: strings.TrimSpace(id), Settings: settings})
	}
	return out, nil
}

// settingsText writes settings as "bench=60; hands=one".
func settingsText(settings movement.Settings) string {
	var keys []string
	for k := range settings {
		keys = append(keys, string(k))
	}
	slices.Sort(keys)
	for i, k := range keys {
		keys[i] = fmt.Sprintf("%s=%v", k, settings[movement.Key(k)].Plain())
	}
	return strings.Join(keys, "; ")
}

func readSettings(text string) (movement.Settings, error) {
	out := movement.Settings{}
	for _, part := range strings.Split(text, ";") {
		if part = strings.TrimSpace(part); part == "" {
			continue
		}
		k, v, ok := strings.Cut(part, "=")
		if !ok {
			return nil, fmt.Errorf("%q is no setting; write them like “bench=60; hands=one”", short(part))
		}
		if x, err := strconv.ParseFloat(strings.TrimSpace(v), 64); err == nil {
			out[movement.Key(strings.TrimSpace(k))] = movement.Num(x)
		} else {
			out[movement.Key(strings.TrimSpace(k))] = movement.Word(strings.TrimSpace(v))
		}
	}
	return out, nil
}

// Safe keeps a spreadsheet from taking text for a formula.
func Safe(cell string) string {
	if cell != "" && strings.ContainsRune("=+-@\t\r", rune(cell[0])) {
		return "'" + cell
	}
	return cell
}

// unsafe takes back what safe did.
func unsafe(cell string) string {
	if len(cell) > 1 && cell[0] == '\'' && strings.ContainsRune("=+-@\t\r", rune(cell[1])) {
		return cell[1:]
	}
	return cell
}
