package formats

import (
	"maps"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"musculus/internal/core/effort"
	"musculus/internal/core/plan"
	"musculus/internal/core/text"
)

var pounds = regexp.MustCompile(`(?i)(\d)\s*(?:lbs?|pounds?)\s*$`)

// rows gathers slots from rows whose columns are known by heads.
type rows struct {
	read  *PlanRead
	heads []string // column ids, "" for unknown ones
	slot  int      // number of the slot that was read last
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
	old := slotV1{Movement: at["movement"], Method: at["method"], Combo: at["combo"]}
	whole := func(id string) int {
		x := r.number(at[id], where, id)
		if x != float64(int(x)) {
			r.read.problem(where+", "+id, "%g is no whole number", x)
		}
		return int(x)
	}
	old.Sets, old.RepsLow, old.RepsHigh = whole("sets"), whole("reps_low"), whole("reps_high")
	old.Reserve, old.RestS, old.MethodN = whole("reserve"), whole("rest_s"), whole("method_n")
	list := func(id string) (out []float64) {
		if at[id] == "" {
			return nil
		}
		for _, part := range strings.Split(at[id], "-") {
			if out = append(out, r.number(part, where, id)); len(out) > mostColumns {
				break
			}
		}
		return out
	}
	for _, x := range list("reserves") {
		old.Reserves = append(old.Reserves, int(x))
	}
	if old.Tempo = list("tempo"); len(old.Tempo) != 0 && len(old.Tempo) != len(effort.Tempo{}) {
		r.read.problem(where+", tempo", "%q has not four parts: lowering, hold, lifting, hold", short(at["tempo"]))
	}
	if old.RepsHigh == 0 {
		old.RepsHigh = old.RepsLow
	}
	unit := strings.ToLower(at["load_unit"])
	if unit != "" && unit != "kg" && unit != "lb" {
		r.read.problem(where+", load_unit", "%q is neither kg nor lb", short(at["load_unit"]))
		unit = ""
	}
	if mark := at["load_marked"]; pounds.MatchString(mark) { // written beside the number
		at["load_marked"], unit = strings.TrimSpace(pounds.ReplaceAllString(mark, "$1")), "lb"
	}
	for id, to := range map[string]**float64{"load_kg": &old.LoadKg, "load_marked": &old.LoadMarked} {
		if at[id] != "" {
			x := r.number(at[id], where, id)
			*to = &x
		}
	}
	var err error
	if old.Settings, err = readSettings(at["settings"]); err != nil {
		r.read.problem(where+", settings", "%v", err)
	}
	if old.Grips, err = readGrips(at["grips"]); err != nil {
		r.read.problem(where+", grips", "%v", err)
	}
	switch starts := strings.ToLower(at["starts"]); starts {
	case "", "left", "right", "left_only", "right_only":
		old.Starts = plan.Starts(starts)
	default:
		r.read.problem(where+", starts", "%q is none of left, right, left_only, right_only", short(at["starts"]))
	}
	switch strings.ToLower(at["locked"]) {
	case yes, "true", "1":
		old.Locked = true
	case "", "no", "false", "0":
	default:
		r.read.problem(where+", locked", "%q is neither yes nor no", short(at["locked"]))
	}
	old.Cues = readCues(at["cues"])
	slot := old.slot()
	slot.Rows[0].LoadUnit = unit
	for k := range slot.Rows { // what version 1 had no words for
		row := &slot.Rows[k]
		row.SecondsLow, row.SecondsHigh, row.Word = whole("seconds_low"), whole("seconds_high"), at["word"]
		if at["load"] != "" {
			if row.Load = r.readLoad(at["load"], old.LoadKg, old.LoadMarked, where); row.Load != nil && row.Load.AddedKg != nil {
				row.LoadMarked, row.LoadUnit = nil, ""
			}
		}
		if at["these_sets"] != "" {
			id, turned, _ := strings.Cut(at["these_sets"], ":")
			if row.Settings, err = readSettings(turned); err != nil {
				r.read.problem(where+", these_sets", "%v", err)
			}
			row.Movement = strings.TrimSpace(id)
		}
	}
	if at["between_s"] != "" || at["after_s"] != "" {
		c := plan.Combo{
			ID:       at["combo"],
			BetweenS: whole("between_s"),
			AfterS:   whole("after_s"),
			Loads:    plan.Loads(strings.ToLower(at["loads"])),
		}
		if !slices.ContainsFunc(s.Combos, func(x plan.Combo) bool { return x.ID == c.ID }) {
			s.Combos = append(s.Combos, c)
		}
	}
	if n := whole("slot"); n > 0 && n == r.slot && len(s.Slots) > 0 { // another row of the slot above
		last := &s.Slots[len(s.Slots)-1]
		if last.Movement != old.Movement {
			r.read.problem(where, "slot %d is %s above", n, short(last.Movement))
			return
		}
		last.Rows = append(last.Rows, slot.Rows...)
		return
	} else {
		r.slot = n
	}
	s.Slots = append(s.Slots, slot)
}

// session is the one a row belongs to: the last one, or a new one.
func (r *rows) session(at map[string]string, where string) *PlanSession {
	p := &r.read.Plan
	if n := len(p.Sessions); n > 0 && p.Sessions[n-1].Name == at["session"] && p.Sessions[n-1].Date == at["date"] {
		return &p.Sessions[n-1]
	}
	r.slot = 0
	p.Sessions = append(
		p.Sessions,
		PlanSession{
			Name:      at["session"],
			Date:      at["date"],
			Intent:    at["intent"],
			WarmUpMin: r.number(at["warm_up_min"], where, "warm_up_min"),
		},
	)
	return &p.Sessions[len(p.Sessions)-1]
}

// number reads a number, a decimal comma and a trailing unit of ours included.
func (r *rows) number(cell, where, field string) float64 {
	t := strings.TrimSpace(cell)
	if t == "" {
		return 0
	}
	if pounds.MatchString(t) {
		r.read.problem(where+", "+field, "%q is in pounds; what one hand carries is told in kg, pounds go under load_marked", short(cell))
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
