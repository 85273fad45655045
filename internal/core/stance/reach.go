package stance

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"
)

// This file tells in words where a rule reaches: what its predicate asks for, as a
// coach would say it.

// asked is a field as it is spoken of, and its unit.
type asked struct{ name, unit string }

var spoken = map[string]asked{
	"s": {
		"the upper arm in front of the trunk, on average",
		"°",
	}, "s_from": {"the upper arm in front of the trunk at the start", "°"},
	"s_to": {"the upper arm in front of the trunk at the end", "°"},
	"rho":  {"the arms turned out", "°"}, "phi": {"the hand’s turn toward palm up", "°"},
	"phi_from": {
		"the hand’s turn toward palm up at the start",
		"°",
	}, "phi_to": {"the hand’s turn toward palm up at the end", "°"},
	"e_from": {"the elbow’s bend at the start", "°"}, "e_to": {"the elbow’s bend at the end", "°"},
	"lambda": {"the trunk’s lean forward", "°"}, "bench": {"the bench", "°"}, "grip_width": {"the grip", " shoulder breadths"},
	"grip_offset": {"the weight toward the little finger", " m"}, "pulley_x": {"the pulley in front", " m"},
	"pulley_y": {"the pulley above the shoulder", " m"}, "demand_from": {"the demand at the start", " of the peak 0.75"},
	"demand_to": {
		"the demand at the end",
		" of the peak 0.75",
	}, "tuck": {"the elbows from the ribs", "°"}, "lean": {"the lean", "°"},
	"depth": {"the upper arm below level", "°"}, "reps": {"reps", ""}, "reserve": {"reps left", ""}, "rest_s": {"the rest", " s"},
	"t_ecc": {"the lowering", " s"}, "t_start": {"the hold at the start", " s"}, "t_con": {"the lifting", " s"},
	"t_end": {"the hold at the end", " s"}, "order": {"its place in the session", ""}, "days_week": {"days a week", ""},
	"sets_head": {"the head’s sets in the session", ""}, "weeks_same": {"weeks unchanged", ""},
	"press_sets_week": {"pressing sets a week", ""}, "pull_sets_week": {"pulling sets a week", ""},
	"joint_wrist": {"the wrist’s score", ""}, "joint_elbow_front": {"the score of the elbow’s front", ""},
	"joint_shoulder_front": {"the score of the shoulder’s front", ""},
	"abs(e_to - e_from)":   {"the elbow’s travel", "°"}, "s_to - s_from": {"the elbow’s way forward", "°"},
	"abs(s_to - s_from)": {"the upper arm’s travel", "°"}, "phi_to - phi_from": {"the hand’s turn on the way", "°"},
	"s_from - lambda":                 {"the upper arm’s tilt from upright at the start, + 180", "°"},
	"s_to - lambda":                   {"the upper arm’s tilt from upright at the end, + 180", "°"},
	"t_ecc + t_start + t_con + t_end": {"the whole repetition", " s"},
}

// names are the names a predicate compares with, as they are spoken.
var names = map[string]string{
	"flexion": "curls", "extension": "extensions", "press": "presses", "dip": "dips", "pushup": "push-ups", "pull": "pulls",
	"bar_straight": "a straight bar", "bar_cambered": "a cambered bar", "dumbbell": "dumbbells", "handle": "a handle", "rope": "a rope",
	"free": "free weights", "cable": "cables", "long": "long", "short": "short",
	"curl_behind": "reclined curls and curls facing away from the cable", "curl_upright": "standing, floor and cable curls",
	"curl_other_hand": "neutral, across and palms-down curls", "pushdown": "push-downs", "overhead": "overhead extensions",
	"lying": "lying extensions", "kickback": "kick-backs",
	"press_overhead": "the overhead press", "press_overhead_dumbbells": "the overhead dumbbell press",
	"press_pin_top":            "top-range presses from pins",
	"press_rail_partial_close": "top-range presses on rails", "dip_bench": "bench dips", "kickback_swing_start": "kick-backs with a swing",
	"curl_pad_bar": "pad curls with a bar", "curl_pad_one_dumbbell": "pad curls with a dumbbell", "curl_pad_neutral": "thumbs-up pad curls",
	"curl_pad_palms_down": "palms-down pad curls", "curl_pad_steep_side": "curls over a pad’s steep side",
	"straight": "straight sets", "strict_then_swing": "strict reps, then swing", "assisted": "assisted last reps", "drops": "drops",
	"loaded_lowering": "loaded lowering", "rest_pause": "rest-pause", "build": "to build", "prioritise": "to prioritise", "yes": "yes",
}

// clauses that are said in one piece.
var whole = map[string]string{
	"arm_supported":              "the upper arm rests on something",
	"not arm_supported":          "the upper arm is free",
	"grip_plan":                  "the grip differs from set to set",
	"same_day_press_after":       "a press follows on the same day",
	"e_from >= 80 - s + lambda":  "turning no lower than a level forearm",
	"safe_alone == yes":          "where failing alone is safe",
	"order == 1":                 "first in the session",
	"reserve == 0":               "to the limit",
	"t_start == 0":               "no hold at the start",
	"t_end == 0":                 "no hold at the end",
	"hardest_part == long":       "hardest while the muscle is long",
	"hardest_part == short":      "hardest while the muscle is short",
	"family != kickback":         "but for kick-backs",
	"movement != press_overhead": "but for the overhead press",
	"not (movement in [press_overhead, press_overhead_dumbbells])": "but for overhead presses",
}

var (
	isIn      = regexp.MustCompile(`^(\w+) in \[([^\]]*)\]$`)
	isName    = regexp.MustCompile(`^(action|family|movement|implement|load|method|target) == (\w+)$`)
	isCompare = regexp.MustCompile(`^(.+?) (==|<=|>=|<|>) (-?[\d.]+)$`)
)

// Words tells where a predicate holds: "in curls, with a straight or a cambered bar, the
// grip at most 0.85 shoulder breadths".
func (p *Predicate) Words() string { return reachWords(p.text) }

func reachWords(text string) string {
	text = strings.TrimSpace(text)
	if w, ok := whole[text]; ok {
		return w
	}
	if parts := split(text, " or "); len(parts) > 1 {
		for i := range parts {
			parts[i] = reachWords(parts[i])
		}
		return strings.Join(parts, ", or ")
	}
	parts := split(text, " and ")
	if len(parts) == 1 {
		if strings.HasPrefix(text, "(") && strings.HasSuffix(text, ")") {
			return reachWords(text[1 : len(text)-1])
		}
		return clause(text)
	}
	var out []string
	for i := 0; i < len(parts); i++ {
		if i+1 < len(parts) {
			if both, ok := between(parts[i], parts[i+1]); ok {
				out = append(out, both)
				i++
				continue
			}
		}
		out = append(out, reachWords(parts[i]))
	}
	return strings.Join(out, ", ")
}

// split parts a text at a word outside brackets.
func split(text, at string) (out []string) {
	depth, from := 0, 0
	for i := 0; i < len(text); i++ {
		switch text[i] {
		case '(', '[':
			depth++
		case ')', ']':
			depth--
		}
		if depth == 0 && strings.HasPrefix(text[i:], at) {
			out = append(out, strings.TrimSpace(text[from:i]))
			from = i + len(at)
		}
	}
	return append(out, strings.TrimSpace(text[from:]))
}

// between joins two limits of one field.
func between(a, b string) (string, bool) {
	if whole[a] != "" || whole[b] != "" {
		return "", false
	}
	x, y := isCompare.FindStringSubmatch(a), isCompare.FindStringSubmatch(b)
	if x == nil || y == nil || x[1] != y[1] || x[2][0] != '>' || y[2][0] != '<' {
		return "", false
	}
	f, ok := spoken[x[1]]
	if !ok {
		return "", false
	}
	return fmt.Sprintf("%s between %s and %s%s", f.name, minus(x[3]), minus(y[3]), f.unit), true
}

func minus(x string) string { return strings.ReplaceAll(x, "-", "−") }

func clause(text string) string {
	if m := isIn.FindStringSubmatch(text); m != nil {
		var list []string
		for _, n := range strings.Split(m[2], ",") {
			list = append(list, names[strings.TrimSpace(n)])
		}
		return lead(m[1]) + either(list)
	}
	if m := isName.FindStringSubmatch(text); m != nil {
		return lead(m[1]) + names[m[2]]
	}
	if m := isCompare.FindStringSubmatch(text); m != nil {
		if f, ok := spoken[m[1]]; ok {
			how := map[string]string{"==": "", "<=": "at most ", ">=": "at least ", "<": "under ", ">": "over "}[m[2]]
			if x, err := strconv.ParseFloat(m[3], 64); err == nil {
				return fmt.Sprintf("%s %s%s%s", f.name, how, minus(strconv.FormatFloat(x, 'f', -1, 64)), f.unit)
			}
		}
	}
	return text
}

// lead is how a field's names are introduced.
func lead(field string) string {
	return map[string]string{"action": "in ", "family": "in ", "movement": "in ", "implement": "with ", "load": "with ", "method": "as ",
		"target": "for a head "}[field]
}

func either(list []string) string {
	if len(list) < 2 {
		return strings.Join(list, "")
	}
	return strings.Join(list[:len(list)-1], ", ") + " or " + list[len(list)-1]
}
