package words

import (
	"slices"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/stance"
)

// Heard is what can be said of something heard somewhere, in free words.
type Heard struct {
	Claims   []stance.Wrong   // that say it, or nearly
	Rules    []*stance.Rule   // likewise
	Disputes []stance.Dispute // in which it is one side
	Tip      *fitting.Tip     // where it names a head and something to do
	From, To movement.SetUp   // that the tip holds against each other
	Head     arm.HeadIndex
	Reading  Part // what was read of the words
}

// Known says whether anything is known of it.
func (h *Heard) Known() bool {
	return len(h.Claims) > 0 || len(h.Rules) > 0 || len(h.Disputes) > 0 || h.Tip != nil
}

// How much of what was heard an entry must share to be one that says it.
const (
	leastShared = 0.66
	mostEntries = 4
)

// Heard answers free words: entries that say it, and the model where the words name a
// head and a way to train it.
func (r *Reader) Heard(text string, y *effort.Yardstick) Heard {
	out := Heard{}
	said := content(text)
	if len(said) == 0 {
		return out
	}
	type scored[T any] struct {
		it T
		n  float64
	}
	best := func(n int, of func(i int) string, take func(i int)) {
		var all []scored[int]
		for i := range n {
			if x := shared(said, content(of(i))); x >= leastShared {
				all = append(all, scored[int]{i, x})
			}
		}
		slices.SortStableFunc(all, func(a, b scored[int]) int {
			switch {
			case a.n > b.n:
				return -1
			case a.n < b.n:
				return 1
			}
			return 0
		})
		for _, s := range all[:min(len(all), mostEntries)] {
			if s.n >= all[0].n*0.7 { // far behind the best is something else
				take(s.it)
			}
		}
	}
	book := stance.Shipped
	best(
		len(book.Wrong),
		func(i int) string { return book.Wrong[i].Says },
		func(i int) { out.Claims = append(out.Claims, book.Wrong[i]) },
	)
	best(
		len(book.Rules),
		func(i int) string { return book.Rules[i].Says },
		func(i int) { out.Rules = append(out.Rules, book.Rules[i]) },
	)
	best(len(book.Disputes), func(i int) string {
		d := &book.Disputes[i]
		return d.Lever + " " + d.One + " " + d.Other
	}, func(i int) { out.Disputes = append(out.Disputes, book.Disputes[i]) })
	r.byModel(text, y, &out)
	return out
}

// byModel holds what the words name against the plain movement of its side.
func (r *Reader) byModel(text string, y *effort.Yardstick, out *Heard) {
	line := r.ReadLine(text)
	if len(line.Parts) == 0 {
		return
	}
	p := line.Parts[0]
	out.Reading = p
	set := p.SetUp
	if p.Movement == nil {
		if len(p.Choices) == 0 || p.Unknown != "" {
			return
		}
		set = p.Choices[0]
	}
	if len(p.Heads) == 0 {
		return
	}
	plain := "pushdown_bar"
	if act := set.Movement.Action; act == movement.Flexion || act == movement.Pull {
		plain = "curl_standing_bar"
	}
	out.From, out.To, out.Head = r.catalogue.Get(plain).Default(), set, p.Heads[0]
	low := " " + strings.ToLower(text) + " "
	up := !slices.ContainsFunc(
		[]string{" less ", " not ", " never ", " off ", " without "},
		func(w string) bool { return strings.Contains(low, w) },
	)
	tip := fitting.Contrast(out.From, out.To, out.Head, up, y)
	out.Tip = &tip
}

// idle are words that say nothing of what is claimed.
var idle = map[string]bool{}

func init() {
	for _, w := range strings.Fields(`the a an of in on to for and or is are be it its this that than as at by with from your you do does
		not no one each all any more most just than them they their so but if when while into out up get give make help work train build
		muscle exercise arm good best have must need should always will really`) {
		idle[stem(w)] = true
	}
}

// content are the words of a text that say something, each once.
func content(text string) map[string]bool {
	out := map[string]bool{}
	for _, w := range tokens(text) {
		if w = alike(w); !idle[w] && len(w) > 2 {
			out[w] = true
		}
	}
	return out
}

// alike brings words that mean the same in claims together.
func alike(w string) string {
	switch w {
	case "tricep":
		return "triceps"
	case "bicep":
		return "biceps"
	case "grow", "growth", "grown", "growing", "bigger", "size", "mass":
		return "grow"
	case "rep", "repetition":
		return "rep"
	case "short", "shorter", "shorten":
		return "short"
	case "pause", "hold", "squeeze":
		return "hold"
	case "confuse", "confusion", "surprise", "surprised", "shock":
		return "surprise"
	case "pump", "burn":
		return "burn"
	case "fat", "spot":
		return "fat"
	case "narrow", "close", "closer":
		return "narrow"
	case "reclined", "incline", "behind":
		return "behind"
	}
	return w
}

// shared is how much of what was said an entry has, and of the entry what was said.
func shared(said, entry map[string]bool) float64 {
	n := 0
	for w := range said {
		if entry[w] {
			n++
		}
	}
	if n == 0 || n == 1 && len(said) > 1 { // one word alone is a subject, not a claim
		return 0
	}
	return 0.75*float64(n)/float64(len(said)) + 0.25*float64(n)/float64(max(len(entry), 1))
}
