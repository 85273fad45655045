package formats

import (
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"musculus/internal/core/text"
)

// column is one column of a plan in rows: its id, and how a coach's sheet calls it.
type column struct{ id, label string }

// columns of a slot's row, in their order.
var columns = []column{
	{"session", "Session"}, {"date", "Date"}, {"intent", "Heavy or light"}, {"warm_up_min", "Warm-up, min"},
	{"movement", "Movement"}, {"in_words", "In words"}, {"settings", "Settings"}, {"sets", "Sets"}, {"reps_low", "Reps from"}, {"reps_high", "Reps to"},
	{"reserve", "Left in reserve"}, {"reserves", "Left set by set"}, {"rest_s", "Rest, s"}, {"tempo", "Tempo"}, {"load_kg", "Load, kg in one hand"}, {"load_marked", "Load as marked, kg"}, {"load_means", "What the mark is"}, {"method", "Method"}, {"method_n", "Method’s number"},
	{"combo", "Combo"}, {"grips", "Grips by set"}, {"starts", "Arm that begins"}, {"locked", "Locked"}, {"cues", "Cues"},
}

// perSession are the columns that belong to a session rather than a slot.
const perSession = 4

// columnOf finds a column by its id or label; "" for an unknown one.
func columnOf(head string) string {
	plain := strings.ToLower(strings.TrimSpace(head))
	for _, c := range columns {
		if plain == c.id || plain == strings.ToLower(c.label) {
			return c.id
		}
	}
	return oldLabels[plain]
}

// oldLabels are labels of files written before they said more.
var oldLabels = map[string]string{"load, kg a hand": "load_kg"}

// cells writes a slot, the session's columns first.
func cells(s *PlanSession, slot *PlanSlot) []string {
	number := func(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }
	load, marked := "", ""
	if slot.LoadKg != nil {
		load = number(*slot.LoadKg)
	}
	if slot.LoadMarked != nil {
		marked = number(*slot.LoadMarked)
	}
	var tempo []string
	for _, x := range slot.Tempo {
		tempo = append(tempo, number(x))
	}
	var reserves []string
	for _, x := range slot.Reserves {
		reserves = append(reserves, strconv.Itoa(x))
	}
	n := ""
	if slot.MethodN != 0 {
		n = strconv.Itoa(slot.MethodN)
	}
	return []string{s.Name, s.Date, s.Intent, number(s.WarmUpMin), slot.Movement, slot.InWords, settingsText(slot.Settings), strconv.Itoa(slot.Sets), strconv.Itoa(slot.RepsLow),
		strconv.Itoa(slot.RepsHigh), strconv.Itoa(slot.Reserve), strings.Join(reserves, "-"), strconv.Itoa(slot.RestS), strings.Join(tempo, "-"), load, marked, slot.LoadMeans, slot.Method, n, slot.Combo,
		gripsText(slot.Grips), slot.Starts, map[bool]string{true: yes}[slot.Locked], cuesText(slot.Cues)}
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

// gripsText writes grips as "curl_neutral | curl_standing_bar: grip_width=1.2".
func gripsText(grips []PlanGrip) string {
	var out []string
	for _, g := range grips {
		text := g.Movement
		if len(g.Settings) > 0 {
			text += ": " + settingsText(g.Settings)
		}
		out = append(out, text)
	}
	return strings.Join(out, " | ")
}

func readGrips(text string) ([]PlanGrip, error) {
	var out []PlanGrip
	for _, part := range strings.Split(text, "|") {
		if part = strings.TrimSpace(part); part == "" {
			continue
		}
		id, turned, _ := strings.Cut(part, ":")
		settings, err := readSettings(turned)
		if err != nil {
			return nil, err
		}
		out = append(out, PlanGrip{strings.TrimSpace(id), settings})
	}
	return out, nil
}

// settingsText writes settings as "bench=60; hands=one".
func settingsText(settings map[string]any) string {
	var keys []string
	for k := range settings {
		keys = append(keys, k)
	}
	slices.Sort(keys)
	for i, k := range keys {
		keys[i] = fmt.Sprintf("%s=%v", k, settings[k])
	}
	return strings.Join(keys, "; ")
}

func readSettings(text string) (map[string]any, error) {
	out := map[string]any{}
	for _, part := range strings.Split(text, ";") {
		if part = strings.TrimSpace(part); part == "" {
			continue
		}
		k, v, ok := strings.Cut(part, "=")
		if !ok {
			return nil, fmt.Errorf("%q is no setting; write them like “bench=60; hands=one”", short(part))
		}
		if x, err := strconv.ParseFloat(strings.TrimSpace(v), 64); err == nil {
			out[strings.TrimSpace(k)] = x
		} else {
			out[strings.TrimSpace(k)] = strings.TrimSpace(v)
		}
	}
	return out, nil
}

// safe keeps a spreadsheet from taking text for a formula.
func safe(cell string) string {
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

var pounds = regexp.MustCompile(`(?i)\d\s*(lbs?|pounds?)\s*$`)

// rows gathers slots from rows whose columns are known by heads.
type rows struct {
	read  *PlanRead
	heads []string // column ids, "" for unknown ones
}

// start reads a head row; unknown columns are told, missing ones too.
func start(read *PlanRead, head []string, where string, needed ...string) *rows {
	r := &rows{read: read}
	unknown := map[string]bool{}
	for i, h := range head {
		id := ""
		if i < mostColumns {
			id = columnOf(unsafe(h))
		}
		if id == "" && strings.TrimSpace(h) != "" {
			unknown[short(h)] = true
		}
		r.heads = append(r.heads, id)
	}
	read.unknown(slices.Sorted(maps.Keys(unknown)))
	for _, n := range needed {
		if !slices.Contains(r.heads, n) {
			read.problem(where, "the column %q is missing", n)
			return nil
		}
	}
	return r
}

// add reads one row into the session it names, or into the given one.
func (r *rows) add(cells []string, where string, into *PlanSession) {
	at := map[string]string{}
	for i, c := range cells[:min(len(cells), len(r.heads), mostColumns)] {
		if r.heads[i] == "" {
			continue
		}
		c = strings.TrimSpace(unsafe(c))
		if why := text.Fault(c, true); why != "" {
			r.read.problem(where+", "+r.heads[i], "%s", why)
			c = ""
		}
		at[r.heads[i]] = c
	}
	if at["movement"] == "" {
		if slices.ContainsFunc(cells, func(c string) bool { return strings.TrimSpace(c) != "" }) {
			r.read.problem(where, "there is no movement in it")
		}
		return
	}
	s := into
	if s == nil {
		s = r.session(at, where)
	}
	slot := PlanSlot{Movement: at["movement"], Method: at["method"], Combo: at["combo"]}
	whole := func(id string) int {
		x := r.number(at[id], where, id)
		if x != float64(int(x)) {
			r.read.problem(where+", "+id, "%g is no whole number", x)
		}
		return int(x)
	}
	slot.Sets, slot.RepsLow, slot.RepsHigh = whole("sets"), whole("reps_low"), whole("reps_high")
	slot.Reserve, slot.RestS, slot.MethodN = whole("reserve"), whole("rest_s"), whole("method_n")
	if at["reserves"] != "" {
		for _, part := range strings.Split(at["reserves"], "-") {
			slot.Reserves = append(slot.Reserves, int(r.number(part, where, "reserves")))
			if len(slot.Reserves) > mostColumns {
				break
			}
		}
	}
	if slot.RepsHigh == 0 {
		slot.RepsHigh = slot.RepsLow
	}
	for id, to := range map[string]**float64{"load_kg": &slot.LoadKg, "load_marked": &slot.LoadMarked} {
		if at[id] != "" {
			x := r.number(at[id], where, id)
			*to = &x
		}
	}
	var err error
	if slot.Settings, err = readSettings(at["settings"]); err != nil {
		r.read.problem(where+", settings", "%v", err)
	}
	if slot.Grips, err = readGrips(at["grips"]); err != nil {
		r.read.problem(where+", grips", "%v", err)
	}
	switch starts := strings.ToLower(at["starts"]); starts {
	case "", "left", "right":
		slot.Starts = starts
	default:
		r.read.problem(where+", starts", "%q is neither left nor right", short(at["starts"]))
	}
	switch strings.ToLower(at["locked"]) {
	case yes, "true", "1":
		slot.Locked = true
	case "", "no", "false", "0":
	default:
		r.read.problem(where+", locked", "%q is neither yes nor no", short(at["locked"]))
	}
	if at["tempo"] != "" {
		for _, part := range strings.Split(at["tempo"], "-") {
			slot.Tempo = append(slot.Tempo, r.number(part, where, "tempo"))
			if len(slot.Tempo) > mostColumns {
				break
			}
		}
	}
	slot.Cues = readCues(at["cues"])
	s.Slots = append(s.Slots, slot)
}

// session is the one a row belongs to: the last one, or a new one.
func (r *rows) session(at map[string]string, where string) *PlanSession {
	p := &r.read.Plan
	if n := len(p.Sessions); n > 0 && p.Sessions[n-1].Name == at["session"] && p.Sessions[n-1].Date == at["date"] {
		return &p.Sessions[n-1]
	}
	p.Sessions = append(p.Sessions, PlanSession{Name: at["session"], Date: at["date"], Intent: at["intent"], WarmUpMin: r.number(at["warm_up_min"], where, "warm_up_min")})
	return &p.Sessions[len(p.Sessions)-1]
}

// number reads a number, a decimal comma and a trailing unit of ours included.
func (r *rows) number(cell, where, field string) float64 {
	t := strings.TrimSpace(cell)
	if t == "" {
		return 0
	}
	if pounds.MatchString(t) {
		r.read.problem(where+", "+field, "%q is in pounds; write kg", short(cell))
		return 0
	}
	t = strings.TrimSpace(strings.TrimSuffix(strings.TrimSuffix(strings.ToLower(t), "kg"), "s"))
	x, err := strconv.ParseFloat(strings.ReplaceAll(t, ",", "."), 64)
	if err != nil || x != x || x > 1e6 || x < -1e6 {
		r.read.problem(where+", "+field, "%q is no number", short(cell))
		return 0
	}
	return x
}

// readDate reads dates that can be read one way only.
func readDate(text string) (string, bool) {
	t := strings.TrimSpace(text)
	for _, layout := range []string{time.DateOnly, "2006/01/02", "2.1.2006", "2 January 2006", "2 Jan 2006"} {
		if d, err := time.Parse(layout, t); err == nil {
			return d.Format(time.DateOnly), true
		}
	}
	if n, err := strconv.Atoi(t); err == nil && n > 36000 && n < 80000 { // a spreadsheet's day number
		return time.Date(1899, 12, 30, 0, 0, 0, 0, time.UTC).AddDate(0, 0, n).Format(time.DateOnly), true
	}
	return "", false
}
