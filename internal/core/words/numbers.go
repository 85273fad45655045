package words

import (
	"regexp"
	"strconv"
	"strings"
)

// This file takes the numbers out of a line: sets, repetitions, loads, rests, effort.

// markOf stands in a line for a number that was taken out of it, so that what parts the
// line keeps it with its own words.
const markOf = '\x01'

const (
	num    = `(\d+(?:[.,]\d+)?)`
	second = `(seconds?|secs|sec|s|minutes?|mins|min|m|'|"|′|″)`
)

// note is one number taken out of a line.
type note func(p *Part)

// pattern finds numbers of a kind.
type pattern struct {
	find *regexp.Regexp
	take func(m []string) note // nil: it is not one after all
}

func compile(s string) *regexp.Regexp { return regexp.MustCompile(`(?i)` + s) }

func number(s string) float64 {
	x, _ := strconv.ParseFloat(strings.ReplaceAll(s, ",", "."), 64)
	return x
}

func whole(s string) int { n, _ := strconv.Atoi(s); return n }

func reserve(n int) note {
	return func(p *Part) { p.Reserve = &n }
}

func reps(low, high string) note {
	return func(p *Part) { p.setReps(whole(low), whole(high)) }
}

// setReps sets repetitions, the lower first.
func (p *Part) setReps(low, high int) {
	if high == 0 {
		high = low
	}
	p.Reps = [2]int{min(low, high), max(low, high)}
}

// seconds of a time as it is written: 90 s, 2 min, 1.5', 2:00.
func seconds(amount, unit string) int {
	if m, s, ok := strings.Cut(amount, ":"); ok {
		return 60*whole(m) + whole(s)
	}
	x := number(amount)
	switch u := strings.ToLower(unit); {
	case strings.HasPrefix(u, "m") || u == "'" || u == "′":
		return int(60*x + 0.5)
	case u == "" && x <= 5: // nobody rests five seconds
		return int(60 * x)
	}
	return int(x + 0.5)
}

func rest(amount, unit string) note {
	return func(p *Part) { p.RestS = seconds(amount, unit) }
}

const (
	mostSets = 20
	mostReps = 100
)

var dash = `\s*(?:-|–|—|to)\s*`

// patterns in the order they are tried: what is longer goes first.
var patterns = []pattern{
	{
		compile(
			`(\d+(?:[.:,]\d+)?)\s*` + second + `?\s*(?:of\s+)?(?:rest|break|recovery)s?\b(?:\s*pause)?(?:\s*between(?:\s+sets)?)?`,
		),
		func(m []string) note {
			if strings.HasSuffix(strings.ToLower(m[0]), "pause") {
				return nil
			}
			return rest(m[1], m[2])
		},
	},
	{
		compile(`\brest(?:ing)?(?:\s*(?:of|for|:|=))?\s*(\d+(?:[.:,]\d+)?)\s*` + second + `?(?:\b|$)`),
		func(m []string) note { return rest(m[1], m[2]) },
	},
	{
		compile(`\btempo\s*:?\s*(\d[-/]?\d[-/]?\d[-/]?\d?)\b|\b(\d-\d-\d(?:-\d)?)(?:\s*tempo)?\b|\b(\d{4})\s*tempo\b`),
		func(m []string) note {
			return func(p *Part) { p.Tempo = m[1] + m[2] + m[3] }
		},
	},
	{compile(`@?\s*\brpe\s*:?\s*` + num), func(m []string) note { return reserve(max(0, int(10-number(m[1])))) }},
	{
		compile(
			`\b(\d)(?:` + dash + `(\d))?\s*(?:rir|reps? in reserve|in reserve|reps? left|left in the tank|in the tank|reps? short)\b`,
		),
		func(m []string) note {
			return reserve(whole(m[1]))
		},
	},
	{compile(`@?\s*\brir\s*:?\s*(\d)(?:` + dash + `(\d))?`), func(m []string) note { return reserve(whole(m[1])) }},
	{compile(`\b(\d{1,2})\s*[x×*]\s*(?:max(?:imum)?(?: reps?)?|failure|fail|amrap|to failure)\b`), func(m []string) note {
		return func(p *Part) { p.Sets = whole(m[1]); reserve(0)(p) }
	}},
	{
		compile(
			`\b(?:(?:un)?til|to|till)\s+(?:failure|the limit|exhaustion|max)\b|\bamrap\b|` +
				`\bmax(?:imum)? reps?\b|\bas many (?:reps? )?as possible\b|\bto the limit\b`,
		),
		func([]string) note {
			return reserve(0)
		},
	},
	{compile(`\b(\d{1,2})\s*[x×*]\s*` + num + `\s*(kgs|kg|kilos?|lbs|lb|pounds?)\b`), func(m []string) note {
		return load(m[2], m[3], "each") // two of them, as marked
	}},
	{
		compile(
			`\b(\d{1,2})\s*(?:sets?|rounds?)?\s*[x×*]\s*(\d{1,3})(?:` + dash + `(\d{1,3}))?\s*(s|sec|secs|seconds?)\b(?:\s*holds?)?`,
		),
		func(m []string) note {
			return func(p *Part) { p.Sets = whole(m[1]); p.setSeconds(whole(m[2]), whole(m[3])) }
		},
	},
	{compile(`\b(\d{1,3})(?:` + dash + `(\d{1,3}))?\s*(?:s|sec|secs|seconds?)\s*holds?\b`), func(m []string) note {
		return func(p *Part) { p.setSeconds(whole(m[1]), whole(m[2])) }
	}},
	{
		compile(`\b(\d{1,2})\s*(?:sets?|rounds?)?\s*[x×*]\s*(\d{1,3}(?:\s*[,/]\s*\d{1,3}){1,7})\b(?:\s*reps?)?`),
		func(m []string) note { return ladder(m[1], m[2]) },
	},
	{
		compile(
			`\b(\d{1,2})\s*(?:sets?|rounds?)?\s*[x×*]\s*(\d{1,3})(?:` + dash + `(\d{1,3}))?(?:\s*reps?)?(?:\s*(?:each|per|a)(?:\s+(?:arm|side))?)?(?:\b|$)`,
		),
		func(m []string) note {
			return setsOf(m[1], m[2], m[3])
		},
	},
	{
		compile(`\b(\d{1,2})\s*(?:sets?|rounds?)\s*(?:of|x|×|@|,|-|:)?\s*(\d{1,3})(?:` + dash + `(\d{1,3}))?(?:\s*reps?)?\b`),
		func(m []string) note { return setsOf(m[1], m[2], m[3]) },
	},
	{
		compile(`\b(\d{1,3})(?:` + dash + `(\d{1,3}))?\s*reps?\s*[x×*,]?\s*(\d{1,2})\s*sets?\b`),
		func(m []string) note { return setsOf(m[3], m[1], m[2]) },
	},
	{
		compile(
			`(?:[@+]\s*)?\b` + num + `\s*(kgs|kg|kilos?|kilograms?|lbs|lb|pounds?|#)` +
				`(?:\s*(each(?:\s+(?:hand|arm|side))?|per (?:hand|side|arm|dumbbell)|a (?:hand|side)|total|ea|dumbbells?|dbs?))?`,
		),
		func(m []string) note {
			as := ""
			switch w := strings.ToLower(m[3]); {
			case w == "total":
				as = "whole"
			case w != "" && !strings.HasPrefix(w, "d"):
				as = "each"
			}
			return load(m[1], m[2], as)
		},
	},
	{compile(`\b(\d{1,2})\s*(?:sets?|rounds?)\b`), func(m []string) note {
		return func(p *Part) { p.Sets = whole(m[1]) }
	}},
	{compile(`\b(\d{1,3}(?:\s*[,/]\s*\d{1,3}){2,7})\b(?:\s*reps?)?`), func(m []string) note { return ladder("", m[1]) }},
	{
		compile(`\b(\d{1,3})(?:` + dash + `(\d{1,3}))?\s*(?:reps?|repetitions)\b|\b[x×]\s*(\d{1,3})(?:` + dash + `(\d{1,3}))?\b`),
		func(m []string) note {
			return reps(m[1]+m[3], m[2]+m[4])
		},
	},
	{compile(`\b(\d{1,2})\s*(?:°|deg(?:ree)?s?\b)`), func(m []string) note {
		return func(p *Part) { p.angle = number(m[1]) }
	}},
	{compile(`\b(\d{1,3})['’]?s\b`), func(m []string) note {
		if n := m[1]; n == "21" || n == "7" || n == "28" { // methods
			return nil
		}
		return load(m[1], "", "each")
	}},
	{compile(`\b(\d{1,2})` + dash + `(\d{1,2})\b`), func(m []string) note { return reps(m[1], m[2]) }},
	{compile(`(?:@\s*)` + num), func(m []string) note { return load(m[1], "", "") }},
}

func (p *Part) setSeconds(low, high int) {
	if high == 0 {
		high = low
	}
	p.Seconds = [2]int{min(low, high), max(low, high)}
}

func setsOf(sets, low, high string) note {
	if whole(sets) > mostSets && whole(low) <= mostSets { // 12x3: nobody does twelve sets of three the other way round
		return nil
	}
	if whole(low) > mostReps {
		return nil
	}
	return func(p *Part) { p.Sets = whole(sets); p.setReps(whole(low), whole(high)) }
}

// ladder is a list of repetitions, a set each.
func ladder(sets, list string) note {
	var low, high, n int
	for _, x := range strings.FieldsFunc(list, func(r rune) bool { return r == ',' || r == '/' || r == ' ' }) {
		r := whole(x)
		if n == 0 || r < low {
			low = r
		}
		high, n = max(high, r), n+1
	}
	if low == 0 || high > mostReps {
		return nil
	}
	if sets != "" {
		n = whole(sets)
	}
	return func(p *Part) { p.Sets = n; p.setReps(low, high) }
}

func load(value, unit, as string) note {
	u := ""
	switch unit = strings.ToLower(unit); {
	case strings.HasPrefix(unit, "k"):
		u = "kg"
	case unit != "":
		u = "lb"
	}
	return func(p *Part) { p.Load = &Load{Value: number(value), Unit: u, As: as} }
}

// taken is a number that was taken out of a line, as it was written.
type taken struct {
	note
	text string
}

// takeNumbers takes the numbers out of a line and leaves marks in their place, one for
// each of the list.
func takeNumbers(line string) (string, []taken) {
	var out []taken
	for i := range patterns {
		line = patterns[i].find.ReplaceAllStringFunc(line, func(found string) string {
			n := patterns[i].take(patterns[i].find.FindStringSubmatch(found))
			if n == nil || len(out) >= mostWords {
				return found
			}
			out = append(out, taken{n, found})
			plus := ""
			if strings.HasPrefix(found, "+") { // added to something: that is said as well
				plus = addedWord
			}
			return plus + " " + string(markOf) + string(markAt(len(out)-1)) + " "
		})
	}
	return line, out
}

// addedWord stands for a plus sign before a load.
const addedWord = " weighted"

// putBack writes a text with its numbers as they were written.
func putBack(text string, numbers []taken) string {
	for i, n := range numbers {
		mark := string(markOf) + string(markAt(i))
		text = strings.ReplaceAll(text, addedWord+" "+mark, " "+n.text+" ")
		text = strings.ReplaceAll(text, mark, " "+n.text+" ")
	}
	return strings.Join(strings.Fields(text), " ")
}

// firstMark is the letter after markOf for the first number.
const firstMark = '\u4e00'

func markAt(i int) rune { return firstMark + rune(i) }

// marked says which number a token stands for, −1 for none.
func marked(token string) int {
	if r := []rune(token); len(r) == 2 && r[0] == markOf {
		return int(r[1] - firstMark)
	}
	return -1
}
