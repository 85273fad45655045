// Package present reads what a client does now: each line of a list is matched
// to set-ups, and what they cover is counted before any plan exists.
package present

import (
	"cmp"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/stance"
	"musculus/internal/core/week"
)

// Line is one line of the list.
type Line struct {
	Text     string
	Sets     int // 0: not said
	RepsLow  int // 0: not said
	RepsHigh int
	Chosen   string   // id of the movement it is, "" while it is asked
	Choices  []string // ids it may be, likeliest first
	Ask      string   // what to ask back
}

const mostLines = 60

var (
	setsReps = regexp.MustCompile(`(?i)\b(\d{1,2})\s*(?:x|×|\*|sets? of)\s*(\d{1,2})(?:\s*(?:-|–|to)\s*(\d{1,2}))?`)
	justSets = regexp.MustCompile(`(?i)\b(\d{1,2})\s*sets?\b`)
	loads    = regexp.MustCompile(`(?i)(?:@\s*)?\b\d+(?:[.,]\d+)?\s*(?:kg|lbs?|kilos?|pounds?)\b`)
	bullet   = regexp.MustCompile(`^\s*(?:[-*•–]|\d{1,2}[.)])\s*`)
	notWord  = regexp.MustCompile(`[^\pL\pN]+`)
)

// Read reads a list. chosen are the answers given before, by the line's words.
// Lines without letters and day headings ("Monday:") are left out.
func Read(text string, c *movement.Catalogue, chosen map[string]string) []Line {
	var out []Line
	for _, raw := range strings.Split(text, "\n") {
		line := strings.TrimSpace(bullet.ReplaceAllString(raw, ""))
		if line == "" || strings.HasSuffix(line, ":") || !strings.ContainsFunc(line, isLetter) {
			continue
		}
		if out = append(out, read(line, c, chosen)); len(out) == mostLines {
			break
		}
	}
	return out
}

func isLetter(r rune) bool { return r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' || r > 127 }

// Words are a line's own words, without numbers: what an answer is kept under.
func Words(line string) string {
	line = setsReps.ReplaceAllString(line, " ")
	line = justSets.ReplaceAllString(line, " ")
	line = loads.ReplaceAllString(line, " ")
	return strings.TrimSpace(notWord.ReplaceAllString(strings.ToLower(line), " "))
}

func read(text string, c *movement.Catalogue, chosen map[string]string) Line {
	out := Line{Text: text}
	if m := setsReps.FindStringSubmatch(text); m != nil {
		out.Sets, out.RepsLow = number(m[1]), number(m[2])
		out.RepsHigh = max(out.RepsLow, number(m[3]))
	} else if m := justSets.FindStringSubmatch(text); m != nil {
		out.Sets = number(m[1])
	}
	words := Words(text)
	out.Choices, out.Ask = match(words, c)
	if id := chosen[words]; c.Get(id) != nil {
		out.Chosen = id
	} else if len(out.Choices) > 0 && out.Ask == "" { // nothing to ask: the likeliest it is, until somebody says another
		out.Chosen = out.Choices[0]
	}
	return out
}

func number(s string) int {
	n, _ := strconv.Atoi(s)
	return n
}

// synonyms bring people's spellings to the catalogue's.
var synonyms = strings.NewReplacer(
	"db",
	"dumbbell",
	"bb",
	"bar",
	"barbell",
	"bar",
	"press downs",
	"push down",
	"press down",
	"push down",
	"pressdowns",
	"push down",
	"pressdown",
	"push down",
	"push downs",
	"push down",
	"pushdowns",
	"push down",
	"pushdown",
	"push down",
	"pull ups",
	"pull up",
	"pullups",
	"pull up",
	"pullup",
	"pull up",
	"chin ups",
	"underhand pull up",
	"chin up",
	"underhand pull up",
	"chins",
	"underhand pull up",
	"push ups",
	"push up",
	"pushups",
	"push up",
	"pushup",
	"push up",
	"kickbacks",
	"kick back",
	"kickback",
	"kick back",
	"dips",
	"dip",
	"curls",
	"curl",
	"extensions",
	"extension",
	"crushers",
	"crusher",
	"presses",
	"press",
	"rows",
	"row",
)

// contains says whether every word of a phrase stands in a line, in any order.
func contains(line, phrase string) bool {
	own := strings.Fields(line)
	for _, w := range strings.Fields(phrase) {
		if !slices.Contains(own, w) {
			return false
		}
	}
	return phrase != ""
}

// match finds the movements a line may mean: by the longest common word it
// contains, refined by the other words; without one, by the words of the names.
func match(words string, c *movement.Catalogue) ([]string, string) {
	words = synonyms.Replace(words)
	var best *movement.Phrase
	phrase, length := "", 0
	for i := range movement.Phrases {
		for _, w := range movement.Phrases[i].Words {
			plain := synonyms.Replace(strings.ReplaceAll(w, "-", " "))
			if contains(words, plain) && len(plain) > length {
				best, phrase, length = &movement.Phrases[i], plain, len(plain)
			}
		}
	}
	scored := byName(words, c)
	if best != nil {
		if len(best.IDs) == 0 { // a word that only asks back: the names decide what is offered
			return firstOf(scored, 6), best.Ask
		}
		ids := slices.Clone(best.IDs)
		for _, id := range firstOf(scored, 3) { // a name that says more than the word goes first
			if !slices.Contains(ids, id) && scored[id] > scored[ids[0]] {
				ids = append(ids, id)
			}
		}
		slices.SortStableFunc(ids, func(a, b string) int { return cmp.Compare(scored[b], scored[a]) })
		if top := scored[ids[0]]; len(ids) > 1 && top > 0 && scored[ids[1]] < top {
			return ids, "" // the other words of the line decided
		}
		if more := without(words, phrase); len(more) > 0 && says(ids[0], more, c) && onTop(scored, ids[0]) &&
			!slices.ContainsFunc(ids[1:], func(id string) bool { return says(id, more, c) }) {
			return ids, ""
		}
		return ids, best.Ask
	}
	found := firstOf(scored, 6)
	if len(found) > 1 && scored[found[0]] > scored[found[1]] {
		return found, "which of these"
	}
	if len(found) == 1 {
		return found, ""
	}
	if len(found) == 0 {
		return nil, "no movement is called that; choose one"
	}
	return found, "which of these"
}

// filler says nothing of a movement.
var filler = []string{"with", "the", "a", "an", "on", "and", "my", "for", "to", "of"}

// without lists a line's words that are not in a phrase and say something.
func without(words, phrase string) []string {
	var out []string
	for _, w := range strings.Fields(words) {
		if !slices.Contains(strings.Fields(phrase), w) && !slices.Contains(filler, w) {
			out = append(out, w)
		}
	}
	return out
}

// says tells whether a movement's name has every one of the words.
func says(id string, words []string, c *movement.Catalogue) bool {
	name := nameOf(c.Get(id))
	return !slices.ContainsFunc(words, func(w string) bool { return !strings.Contains(name, " "+w) })
}

// onTop says whether no other movement’s name says more of the line.
func onTop(scored map[string]int, id string) bool {
	for other, n := range scored {
		if other != id && n > scored[id] {
			return false
		}
	}
	return true
}

// nameOf is a movement's name and id, in plain words with a space before each.
func nameOf(m *movement.Movement) string {
	return " " + notWord.ReplaceAllString(strings.ToLower(m.Default().Name()+" "+strings.ReplaceAll(m.ID, "_", " ")), " ") + " "
}

// byName counts how many of a line's words stand in a movement's name or id.
func byName(words string, c *movement.Catalogue) map[string]int {
	out := map[string]int{}
	for _, m := range c.Movements {
		name := nameOf(m)
		n := 0
		for _, w := range strings.Fields(words) {
			if len(w) > 2 && strings.Contains(name, " "+w) {
				n++
			}
		}
		if n > 0 {
			out[m.ID] = n
		}
	}
	return out
}

// firstOf lists the best scored ids, at most n, only those near the best.
func firstOf(scored map[string]int, n int) []string {
	var ids []string
	most := 0
	for id, s := range scored {
		ids = append(ids, id)
		most = max(most, s)
	}
	slices.SortFunc(ids, func(a, b string) int {
		if scored[a] != scored[b] {
			return cmp.Compare(scored[b], scored[a])
		}
		return cmp.Compare(a, b)
	})
	if end := slices.IndexFunc(ids, func(id string) bool { return scored[id] < most }); end >= 0 {
		ids = ids[:end]
	}
	return ids[:min(len(ids), n)]
}

// Covered is what one head gets of the list.
type Covered struct {
	Sets  float64
	Zones [3]float64 // short, middle, long
}

// Repeat is a pair of lines that are one idea twice.
type Repeat struct{ A, B int }

// Picture is what a list comes to.
type Picture struct {
	Heads   [arm.HeadCount]Covered
	Repeats []Repeat
	Never   []arm.HeadIndex // heads that get next to nothing
	Open    int             // lines that are still asked
}

// What a line counts that says nothing of its sets, and when a head counts as trained.
const (
	setsUnsaid   = 3
	leastTrained = 1.0
)

// Cover counts the list of a client under a stance: sets as hard ones, as nothing
// is known of their effort.
func Cover(lines []Line, c *movement.Catalogue, y *effort.Yardstick, st *stance.Stance) Picture {
	var out Picture
	shapes := make([]*fitting.Shape, len(lines))
	for i, l := range lines {
		m := c.Get(l.Chosen)
		if m == nil {
			out.Open++
			continue
		}
		d := dose.Usual(person.Caps{})
		if d.Sets = l.Sets; d.Sets == 0 {
			d.Sets = setsUnsaid
		}
		slot := plan.Of(m.Default(), d)
		count := week.CountSlot(&slot, y, st)
		for h := range count.Heads {
			out.Heads[h].Sets += count.Heads[h].Mid
			for z := range count.Zones[h] {
				out.Heads[h].Zones[z] += count.Zones[h][z]
			}
		}
		if shape, ok := fitting.ShapeOf(m.Default(), y, st); ok {
			shapes[i] = &shape
		}
	}
	for i := range shapes {
		for j := i + 1; j < len(shapes); j++ {
			if shapes[i] != nil && shapes[j] != nil && fitting.Distance(shapes[i], shapes[j]) < fitting.SameIdea {
				out.Repeats = append(out.Repeats, Repeat{i, j})
			}
		}
	}
	for h := range out.Heads {
		if out.Heads[h].Sets < leastTrained {
			out.Never = append(out.Never, arm.HeadIndex(h))
		}
	}
	return out
}
