package words

import (
	"cmp"
	"slices"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
)

// mostChoices is how many movements a question offers.
const mostChoices = 6

// decide finds what a part's words mean, or what to ask.
func (r *Reader) decide(tokens []string) Part { return r.with(tokens, 0) }

func (r *Reader) with(tokens []string, angle float64) Part {
	s := r.vocab.say(tokens)
	p := Part{Method: s.method, Heads: s.heads, Matched: s.matched, Left: s.left}
	if s.own != nil {
		if m := r.catalogue.Get(s.own.Movement); m != nil {
			if set, err := m.SetUp(s.own.Settings); err == nil {
				p.Movement, p.SetUp = m, set
				return p
			}
		}
	}
	if m := r.named(tokens); m != nil {
		p.Movement, p.SetUp, p.Left = m, m.Default(), nil
		return p
	}
	if s.counts != "" {
		p.Counts = s.counts
		return p
	}
	act := cmp.Or(s.act, s.maybe)
	asked := s.facets
	if act != "" {
		asked = append([]facet{act}, asked...)
	}
	if slices.ContainsFunc(asked, func(f facet) bool { return f.key() == "hand" }) {
		s.soft = nil
	}
	if act == "" {
		if len(s.asks) > 0 {
			p.Ask = s.asks[1]
			return p
		}
		if len(s.facets) > 0 || len(s.heads) > 0 {
			p.choose(r.candidates(asked, s.soft, angle))
		}
		if p.Ask = "which movement is that?"; len(p.Left) > 0 {
			p.Unknown = strings.Join(p.Left, " ")
		}
		return p
	}
	all := r.candidates(asked, s.soft, angle)
	if s.unknown != "" { // never guessed past a word nobody knows
		p.Unknown, p.Ask = s.unknown, "what is “"+s.unknown+"”?"
		if slices.Contains(tokens, "bar") || slices.Contains(tokens, "barbell") {
			p.Ask = "which bar is “" + s.unknown + "”?"
		}
		p.choose(all)
		return p
	}
	if len(s.asks) > 0 {
		p.Ask = s.asks[1]
		p.choose(all)
		return p
	}
	if len(all) == 0 {
		return r.none(p, act, asked, s.soft)
	}
	best := all
	if end := slices.IndexFunc(all, func(f fitted) bool { return f.open != all[0].open }); end >= 0 {
		best = all[:end]
	}
	if all[0].open > 0 || bare(asked) && len(all) > 1 && asksWhenBare[act] {
		p.choose(all)
		p.Ask = question(act, p.Choices)
		return p
	}
	if end := slices.IndexFunc(best, func(f fitted) bool { return f.matched != best[0].matched }); end >= 0 {
		best = best[:end]
	}
	one := best[0]
	for _, o := range best[1:] {
		if !said(asked, "imp", "place", "arms", "count") || one.setUp.Pulls() != o.setUp.Pulls() || !r.near(one.setUp, o.setUp) {
			p.choose(best)
			p.Ask = question(act, p.Choices)
			return p
		}
	}
	p.Movement, p.SetUp = one.a.m, one.setUp
	return p
}

// asksWhenBare are the actions that mean several things when nothing else is said.
var asksWhenBare = map[facet]bool{"act=curl": true, "act=extension": true, "act=dip": true, "act=row": true, "act=press": true}

// bare says whether words name nothing but what is done, and whose muscle it is.
func bare(asked []facet) bool {
	return !slices.ContainsFunc(asked, func(f facet) bool { return f.key() != "act" && f.key() != "side" })
}

// said says whether something of a kind is asked for.
func said(asked []facet, keys ...string) bool {
	return slices.ContainsFunc(asked, func(f facet) bool { return slices.Contains(keys, f.key()) })
}

// candidates are the movements that no word contradicts, likeliest first.
func (r *Reader) candidates(asked, soft []facet, angle float64) (out []fitted) {
	for i := range r.answers {
		f, ok := r.answers[i].fit(asked, soft, angle)
		if ok && f.open < never {
			out = append(out, f)
		}
	}
	slices.SortStableFunc(out, func(a, b fitted) int {
		return cmp.Or(cmp.Compare(a.open, b.open), cmp.Compare(b.matched, a.matched), cmp.Compare(len(a.setUp.Turned()), len(b.setUp.Turned())))
	})
	if heads := headsOf(asked); len(heads) > 0 && !said(asked, "imp", "place") {
		return out
	}
	return out
}

func headsOf(asked []facet) (out []arm.HeadIndex) {
	for _, f := range asked {
		if h, ok := arm.HeadByID(f.value()); ok && f.key() == "head" {
			out = append(out, h)
		}
	}
	return out
}

// never is more open needs than anything has that is meant by ordinary words.
const never = 50

// none says what is left where no movement is all that is asked: what presses and pulls
// elsewhere counts there; else it is asked which word goes.
func (r *Reader) none(p Part, act facet, asked, soft []facet) Part {
	switch act {
	case "act=row", "act=pulldown", "act=pullup":
		p.Counts = "pull"
		return p
	}
	for _, without := range []string{"width", "arms", "count", "place", "hand", "imp", "load"} {
		less := slices.DeleteFunc(slices.Clone(asked), func(f facet) bool { return f.key() == without })
		if len(less) == len(asked) {
			continue
		}
		if found := r.candidates(less, soft, 0); len(found) > 0 {
			p.choose(found)
			p.Ask = "no movement is all of this: which is nearest?"
			return p
		}
	}
	p.choose(r.candidates([]facet{act}, nil, 0))
	p.Ask = "no movement is all of this: which is nearest?"
	return p
}

// choose offers movements.
func (p *Part) choose(found []fitted) {
	for _, f := range found[:min(len(found), mostChoices)] {
		p.Choices = append(p.Choices, f.setUp)
	}
}

// question asks for what the choices differ in.
func question(act facet, choices []movement.SetUp) string {
	held := map[string]bool{}
	for _, c := range choices {
		held[heldWords(c)] = true
	}
	switch {
	case act == "act=curl" && len(choices) > 3:
		return "bar, dumbbells or cable; arm at the side, behind or on a pad?"
	case act == "act=extension" && len(choices) > 3:
		return "overhead, lying, push-down or kick-back?"
	case act == "act=dip":
		return "on bars, on a bench, assisted, or with added weight?"
	case act == "act=row":
		return "on a cable, thumbs up or palms down?"
	case len(held) == len(choices) && len(choices) < 5:
		var words []string
		for _, c := range choices {
			words = append(words, heldWords(c))
		}
		return movement.Either(words) + "?"
	}
	return "which of these?"
}

func heldWords(s movement.SetUp) string {
	w := movement.ChoiceWords(movement.Implement, string(s.Implement()))
	if s.Hands() == movement.OneArm {
		w = "one arm"
	}
	return w
}

// named is the movement whose id or whole name the words are, nil for none.
func (r *Reader) named(words []string) *movement.Movement {
	text := strings.Join(words, " ")
	for i := range r.names {
		if slices.Contains(r.names[i].whole, text) {
			return r.names[i].m
		}
	}
	return nil
}
