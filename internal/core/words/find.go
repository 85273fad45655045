package words

import (
	"slices"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
)

// Found is what plain words find among movements.
type Found struct {
	Line   Line
	SetUps []movement.SetUp // all that no word contradicts, likeliest first
	Heads  []arm.HeadIndex  // that are named
}

// Find looks for set-ups by plain words: what is meant first, then whatever has all of
// the words in its name.
func (r *Reader) Find(text string) Found {
	out := Found{Line: r.ReadLine(text)}
	add := func(s movement.SetUp) {
		if !slices.ContainsFunc(out.SetUps, func(o movement.SetUp) bool { return o.Movement == s.Movement }) {
			out.SetUps = append(out.SetUps, s)
		}
	}
	for i := range out.Line.Parts {
		p := &out.Line.Parts[i]
		out.Heads = append(out.Heads, p.Heads...)
		if p.Movement != nil {
			add(p.SetUp)
		}
	}
	named := r.byName(text)
	for i := range out.Line.Parts {
		p := &out.Line.Parts[i]
		if p.Movement != nil || p.Counts != "" {
			continue
		}
		for _, s := range p.Choices {
			add(s)
		}
	}
	if len(out.Line.Parts) == 1 && out.Line.Parts[0].Unknown == "" && out.Line.Parts[0].Counts == "" {
		s := r.vocab.say(tokens(text))
		asked := s.facets
		if act := s.act; act != "" {
			asked = append([]facet{act}, asked...)
		}
		if len(asked) > len(headsOf(asked)) {
			for _, f := range r.candidates(asked, nil, 0) {
				add(f.setUp)
			}
		}
	}
	for _, m := range named {
		add(m.Default())
	}
	return out
}

// byName lists the movements whose name or id has every one of the words, as far as
// they are typed.
func (r *Reader) byName(text string) (out []*movement.Movement) {
	typed := strings.FieldsFunc(strings.ToLower(text), func(c rune) bool { return c == ' ' || c == '-' || c == '_' })
	if len(typed) == 0 {
		return nil
	}
	for i := range r.names {
		if !slices.ContainsFunc(typed, func(w string) bool { return !strings.Contains(r.names[i].text, w) }) {
			out = append(out, r.names[i].m)
		}
	}
	return out
}

// Key is what a part's answer is kept under: its words, without numbers.
func (p *Part) Key() string { return KeyOf(p.Text) }

// KeyOf is the key of a part by its text.
func KeyOf(text string) string {
	text, _ = takeNumbers(text)
	var own []string
	for _, w := range tokens(text) {
		if marked(w) < 0 && w != "weighted" {
			own = append(own, w)
		}
	}
	return strings.Join(own, " ")
}

// Answered is the part as somebody said it is: a movement by its id, with what the
// words turn of it, or press, pull or nothing.
func (r *Reader) Answered(p Part, answer string) Part {
	switch answer {
	case CountsPress, CountsPull, CountsNothing:
		p.Movement, p.Counts, p.Ask, p.Choices, p.Unknown = nil, answer, "", nil, ""
		return p
	}
	m := r.catalogue.Get(answer)
	if m == nil {
		return p
	}
	p.Movement, p.SetUp, p.Counts = m, m.Default(), ""
	for _, c := range p.Choices {
		if c.Movement == m {
			p.SetUp = c
		}
	}
	p.Ask, p.Unknown = "", ""
	return p
}

// What a part may count as that is no movement of the arm's own.
const (
	CountsPress   = "press"
	CountsPull    = "pull"
	CountsNothing = "nothing"
)
