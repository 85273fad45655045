package words

import (
	"regexp"
	"slices"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
)

// This file takes a text apart: lines, what stands side by side in a line, and what
// each of it says.

var (
	bullet = regexp.MustCompile(`^\s*(?:[-*•–—▪]|\(?\d{1,2}[.)]\s|[A-Ha-h]\d?[.):]\s|#\d+)\s*`)
	head   = regexp.MustCompile(
		`(?i)^\s*(?:day\s*\w+|week\s*\d+|(?:mon|tues|wednes|thurs|fri|satur|sun)day|` +
			`mon|tue|wed|thu|fri|sat|sun|push|pull|legs|upper|lower|arms?|arm day)\s*(?:\([^)]*\))?\s*[:\-–]?\s*$`,
	)
	intro = regexp.MustCompile(
		`(?i)^\s*(?:super\s*-?sets?|giant sets?|tri\s*-?sets?|circuit|in turns)\s*(?:of)?\s*[:\-–]\s*|^\s*(?:ss|super\s*-?set)\s+`,
	)
	apart = regexp.MustCompile(
		`(?i)\s*(?:\s\+\s|\+|\s/\s|/|;|,|\s&\s|\bsuper\s*-?set(?:ted)?\s+(?:with|w/?)\s|` +
			`\bss\s*(?:with|w/)?\s|\bpaired with\b|\binto\b|\bfollowed by\b|\bsuper\s*-?set\b|\band\b|\b[A-Ha-h][1-6][).:])\s*`,
	)
	withS = regexp.MustCompile(`(?i)\bw/\s*`)
)

// Read reads a text, line by line. Empty lines and headings ("Monday:") are left out.
func (r *Reader) Read(text string) []Line {
	var out []Line
	for _, raw := range strings.Split(text, "\n") {
		line := strings.TrimSpace(strings.Trim(raw, "\r"))
		if line == "" || head.MatchString(line) || strings.HasSuffix(line, ":") {
			continue
		}
		if out = append(out, r.ReadLine(line)); len(out) == mostLines {
			break
		}
	}
	return out
}

// ReadLine reads one line.
func (r *Reader) ReadLine(line string) Line {
	out := Line{Text: line}
	text := strings.Map(func(c rune) rune {
		if c == markOf || c >= firstMark && c < firstMark+mostWords {
			return ' '
		}
		return c
	}, line)
	if len(text) > 600 {
		text = text[:600]
	}
	text = withS.ReplaceAllString(bullet.ReplaceAllString(text, ""), "with ")
	text, numbers := takeNumbers(text)
	together := intro.MatchString(text)
	text = intro.ReplaceAllString(text, "")
	segments := r.segments(text, together)
	if len(segments) > mostParts {
		segments = segments[:mostParts]
	}
	for _, s := range segments {
		p := r.decide(s.tokens)
		p.Joined = s.joined
		for _, n := range s.numbers {
			numbers[n].note(&p)
		}
		if p.angle > 0 && p.Movement != nil { // once more, with the angle the line says
			p = r.angled(p, s.tokens)
		}
		p.Text = putBack(s.text, numbers)
		out.Parts = append(out.Parts, p)
	}
	share(out.Parts)
	return out
}

// share gives members of a superset the sets that only one of them says.
func share(parts []Part) {
	saying := -1
	for i := range parts {
		if !parts[i].Joined {
			return
		}
		if parts[i].Sets > 0 || parts[i].Reps[0] > 0 {
			if saying >= 0 {
				return
			}
			saying = i
		}
	}
	for i := range parts {
		if saying >= 0 && i != saying {
			parts[i].Sets, parts[i].Reps = parts[saying].Sets, parts[saying].Reps
		}
	}
}

// segment is what stands side by side in a line.
type segment struct {
	text    string
	tokens  []string
	numbers []int
	joined  bool
}

// segments parts a line at commas, slashes, plus signs and words for turns; what names
// nothing to do belongs to its neighbour.
func (r *Reader) segments(text string, together bool) []segment {
	cuts := apart.FindAllStringIndex(text, -1)
	var out []segment
	from, join := 0, false
	var waiting string
	take := func(to int, joins bool) {
		piece := waiting + text[from:to]
		waiting = ""
		t := tokens(piece)
		own := segment{text: piece, joined: join}
		for _, w := range t {
			if n := marked(w); n >= 0 {
				own.numbers = append(own.numbers, n)
			} else {
				own.tokens = append(own.tokens, w)
			}
		}
		switch {
		case r.acts(own.tokens):
			out = append(out, own)
		case len(out) > 0 && !join:
			last := &out[len(out)-1]
			last.text += " " + piece
			last.tokens, last.numbers = append(last.tokens, own.tokens...), append(last.numbers, own.numbers...)
		default: // "rope / bar push-down": it belongs to what comes
			waiting = piece + " "
			return
		}
		if join && len(out) > 1 {
			out[len(out)-2].joined = true
		}
		join = joins
	}
	for _, c := range cuts {
		sep := strings.TrimSpace(strings.ToLower(text[c[0]:c[1]]))
		if sep == "and" && !(r.acts(tokens(text[from:c[0]])) && r.acts(tokens(text[c[1]:]))) {
			continue
		}
		take(c[0], sep != "," && sep != ";" && sep != "and")
		from = c[1]
	}
	take(len(text), false)
	if waiting != "" {
		if len(out) == 0 {
			s := segment{text: waiting}
			for _, w := range tokens(waiting) {
				if n := marked(w); n >= 0 {
					s.numbers = append(s.numbers, n)
				} else {
					s.tokens = append(s.tokens, w)
				}
			}
			return []segment{s}
		}
		last := &out[len(out)-1]
		last.text += " " + waiting
		for _, w := range tokens(waiting) {
			if n := marked(w); n >= 0 {
				last.numbers = append(last.numbers, n)
			} else {
				last.tokens = append(last.tokens, w)
			}
		}
	}
	if together && len(out) > 1 {
		for i := range out {
			out[i].joined = true
		}
	}
	return out
}

// acts says whether words name something to do.
func (r *Reader) acts(tokens []string) bool {
	s := r.vocab.say(tokens)
	return s.act != "" || s.maybe != "" || s.counts != "" || s.own != nil
}

// saying is what a part's words come to.
type saying struct {
	act     facet
	maybe   facet // an action that is meant where no other is named
	facets  []facet
	soft    []facet // what is usual with its word, unless another word says otherwise
	counts  string
	own     *Own
	heads   []arm.HeadIndex
	asks    []string // word and what to ask of it
	method  string
	matched []string
	left    []string
	unknown string // before the last word for what is done
}

// say reads words, the longest phrases first.
func (v *vocabulary) say(tokens []string) saying {
	var out saying
	type stray struct {
		at   int
		word string
	}
	var strays []stray
	lastAct := -1
	for i := 0; i < len(tokens); {
		n, p, ok := v.longestAt(tokens[i:])
		if !ok {
			if mended, found := v.mended(tokens[i]); found {
				fixed := append(slices.Clone(tokens[:i]), mended)
				tokens = append(fixed, tokens[i+1:]...)
				if n, p, ok = v.longestAt(tokens[i:]); !ok {
					n, ok = 1, true // a part of phrases, and of none here
				}
			}
		}
		word := strings.Join(tokens[i:i+max(n, 1)], " ")
		switch {
		case !ok:
			strays = append(strays, stray{i, tokens[i]})
			n = 1
		case p.own != nil && p.own.Movement != "":
			out.own, lastAct = p.own, i
			out.matched = append(out.matched, word)
		case p.counts != "":
			out.counts, lastAct = p.counts, i
			out.matched = append(out.matched, word)
		case p.asks != "":
			out.asks = append(out.asks, word, p.asks)
		case p.quiet || p.empty():
			if !p.quiet {
				strays = append(strays, stray{i, word})
			}
		default:
			if out.take(p.says) {
				lastAct = i
			}
			out.matched = append(out.matched, word)
		}
		i += max(n, 1)
	}
	for _, s := range strays {
		ofABar := s.at+1 < len(tokens) && tokens[s.at+1] == "bar" // which bar is never guessed
		if (s.at < lastAct || ofABar) && len(s.word) > 1 && out.unknown == "" {
			out.unknown = s.word
			continue
		}
		out.left = append(out.left, s.word)
	}
	return out
}

// take takes a phrase's facets; true where one of them is what is done.
func (s *saying) take(facets []facet) (acts bool) {
	for _, f := range facets {
		switch f.key() {
		case "act":
			acts = true
			if s.act == "" || f.value() == "extension" && s.act == "act=press" {
				s.act = f
			} else if s.act != f && s.act != "act=extension" {
				s.act = moreExact(s.act, f)
			} else {
				s.act = moreExact(f, s.act)
			}
		case "maybe":
			s.maybe = facet(f.value())
			acts = true
		case "soft":
			s.soft = append(s.soft, facet(f.value()))
		case "method":
			s.method = f.value()
		case "head":
			if h, ok := arm.HeadByID(f.value()); ok {
				s.heads = append(s.heads, h)
			}
			s.facets = append(s.facets, f)
		default:
			if !slices.Contains(s.facets, f) {
				s.facets = append(s.facets, f)
			}
		}
	}
	return acts
}

// moreExact is the one of two actions that says more: a push-down is an extension, too.
func moreExact(a, b facet) facet {
	if a == "act=extension" {
		return b
	}
	return a
}

// longestAt is the longest phrase that begins here.
func (v *vocabulary) longestAt(tokens []string) (int, phrase, bool) {
	for n := min(len(tokens), v.longest); n > 0; n-- {
		if p, ok := v.phrases[strings.Join(tokens[:n], " ")]; ok {
			return n, p, true
		}
	}
	return 0, phrase{}, false
}

// angled turns a decided part to the angle its line says; what it cannot be is asked.
func (r *Reader) angled(p Part, tokens []string) Part {
	again := r.with(tokens, p.angle)
	if again.Movement != p.Movement {
		p.Ask, p.Choices = "this cannot be set to "+strings.TrimSuffix(
			movement.Num(p.angle).String(),
			".",
		)+"°: which angle?", []movement.SetUp{
			p.SetUp,
		}
		p.Movement = nil
		return p
	}
	p.SetUp = again.SetUp
	return p
}
