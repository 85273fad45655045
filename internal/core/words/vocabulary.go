package words

import (
	"embed"
	"maps"
	"strings"

	"musculus/internal/core/datafile"
	"musculus/internal/core/movement"
)

//go:embed data/*.yaml
var data embed.FS

// facet is one thing that words say of a set-up, as key=value: act=curl, imp=cable,
// place=incline, hand=thumb, width=close, arms=one, count=two, load=weighted.
type facet string

func (f facet) key() string {
	k, _, _ := strings.Cut(string(f), "=")
	return k
}

func (f facet) value() string {
	_, v, _ := strings.Cut(string(f), "=")
	return v
}

// phraseRow is a line of vocabulary.yaml.
type phraseRow struct {
	Words  []string `yaml:"words"`
	Says   []string `yaml:"says,omitempty"`
	Asks   string   `yaml:"asks,omitempty"`
	Counts string   `yaml:"counts,omitempty"`
	Quiet  bool     `yaml:"quiet,omitempty"`
}

// phrase is what some words mean.
type phrase struct {
	says   []facet
	asks   string
	counts string
	quiet  bool
	own    *Own
}

// vocabulary is phrases by their plain words; joined ones are there twice.
type vocabulary struct {
	phrases map[string]phrase
	longest int             // in words
	single  map[string]bool // words that stand in some phrase, for what is misspelt
}

// answerRow is a line of movements.yaml.
type answerRow struct {
	ID    string   `yaml:"id"`
	Acts  []string `yaml:"acts"`
	Needs []string `yaml:"needs,omitempty"`
	May   []string `yaml:"may,omitempty"`
	Not   []string `yaml:"not,omitempty"`
}

// answer is what one movement answers to.
type answer struct {
	m     *movement.Movement
	acts  map[facet]int // by how loosely: 0, 1
	needs [][]facet
	may   map[facet]bool
	not   map[facet]bool
}

type knowledge struct {
	vocab *vocabulary
	rows  []answerRow
}

// shipped is read once; what is wrong in it the tests of this package find.
var shipped = func() *knowledge {
	out := &knowledge{vocab: &vocabulary{phrases: map[string]phrase{}, single: map[string]bool{}}}
	phrases, wrong := datafile.Read[phraseRow]("vocabulary.yaml", embedded("vocabulary.yaml"))
	for i := range phrases {
		r := &phrases[i].Row
		p := phrase{asks: r.Asks, counts: r.Counts, quiet: r.Quiet}
		for _, s := range r.Says {
			p.says = append(p.says, facet(s))
		}
		for _, w := range r.Words {
			out.vocab.add(w, p)
		}
	}
	answers, faults := datafile.Read[answerRow]("movements.yaml", embedded("movements.yaml"))
	for i := range answers {
		if movement.Shipped.Get(answers[i].Row.ID) == nil {
			faults = append(faults, answers[i].Fault("id", "there is no movement %q", answers[i].Row.ID))
		}
		out.rows = append(out.rows, answers[i].Row)
	}
	if err := datafile.Join(append(wrong, faults...)); err != nil {
		panic(err)
	}
	return out
}()

func embedded(name string) []byte {
	b, err := data.ReadFile("data/" + name)
	if err != nil {
		panic(err)
	}
	return b
}

// add takes a phrase in, also with its words joined.
func (v *vocabulary) add(words string, p phrase) {
	own := tokens(words)
	for i := range own {
		v.single[own[i]] = true
	}
	v.longest = max(v.longest, len(own))
	v.phrases[strings.Join(own, " ")] = p
	if joined := strings.Join(own, ""); len(own) > 1 && v.phrases[joined].empty() {
		v.phrases[joined] = p
		v.single[joined] = true
	}
}

func (p phrase) empty() bool {
	return len(p.says) == 0 && p.asks == "" && p.counts == "" && !p.quiet && p.own == nil
}

// with is the vocabulary with a studio's own words; they go before the shipped ones.
func (v *vocabulary) with(own []Own) *vocabulary {
	if len(own) == 0 {
		return v
	}
	out := &vocabulary{phrases: maps.Clone(v.phrases), single: maps.Clone(v.single), longest: v.longest}
	for i := range own {
		p := phrase{own: &own[i]}
		if own[i].Movement == "" {
			p = phrase{says: []facet{implementFacet(own[i].Implement)}}
		}
		out.add(own[i].Word, p)
	}
	return out
}

// answersOf is what the movements of a catalogue answer to, in the order they are
// offered; a studio's own are found by their names only.
func (k *knowledge) answersOf(c *movement.Catalogue) (out []answer) {
	facets := func(words []string) map[facet]bool {
		set := map[facet]bool{}
		for _, w := range words {
			set[facet(w)] = true
		}
		return set
	}
	for i := range k.rows {
		r := &k.rows[i]
		a := answer{m: c.Get(r.ID), acts: map[facet]int{}, may: facets(r.May), not: facets(r.Not)}
		if a.m == nil {
			continue
		}
		for _, act := range r.Acts {
			name, loosely := strings.CutSuffix(act, "?")
			a.acts[facet("act="+name)] = map[bool]int{true: 1}[loosely]
		}
		for _, n := range r.Needs {
			var group []facet
			for _, one := range strings.Split(n, "|") {
				group = append(group, facet(one))
			}
			a.needs = append(a.needs, group)
		}
		out = append(out, a)
	}
	return out
}
