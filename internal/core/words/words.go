// Package words reads practitioners' plain words: what is done, with what, how often,
// with how much. The action word decides first and shuts out other actions; words for
// implement, place, hand, width and side then filter, and turn settings; what is still
// open is asked, one question at a time. What contradicts a word of the line is never
// chosen, and nothing is dropped without being told.
package words

import (
	"fmt"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
)

// Line is one line as it was written, and what it says.
type Line struct {
	Text  string
	Parts []Part
}

// Part is one exercise of a line.
type Part struct {
	Text     string // its own words
	Movement *movement.Movement
	SetUp    movement.SetUp // of Movement, with what the words turn
	Sets     int            // 0: not said
	Reps     [2]int         // low, high; 0: not said
	Seconds  [2]int         // of a hold
	Load     *Load
	Reserve  *int
	RestS    int
	Tempo    string
	Method   string // as dose names it
	Joined   bool   // done in turns with its neighbour
	Counts   string // press, pull or nothing: not a movement of the arm's own
	Heads    []arm.HeadIndex
	Ask      string
	Choices  []movement.SetUp // likeliest first, while it is asked
	Matched  []string         // the words that decided
	Left     []string         // words that were read and say nothing here
	Unknown  string           // the word nobody knows, while it is asked

	angle float64 // of a bench or a pad, degrees; 0: not said
}

// Load is a weight as it was written.
type Load struct {
	Value float64
	Unit  string // kg, lb, "" where it is not said
	As    string // each, whole, "" where it is not said
}

// Own is a studio's own word: a movement, or something that is held.
type Own struct {
	Word      string
	Movement  string // an id; "" where it only says what is held
	Settings  movement.Settings
	Implement movement.ImplementID
}

// Reader reads words with a catalogue.
type Reader struct {
	catalogue *movement.Catalogue
	vocab     *vocabulary
	answers   []answer
	near      func(a, b movement.SetUp) bool // whether two set-ups are one idea
	names     []name
}

// name is a movement by the words of its whole name.
type name struct {
	m     *movement.Movement
	whole []string // its id, its title and its name as plain words
	text  string   // all of them, to look for parts of words in
}

// New makes a reader for a catalogue and a studio's own words. near says whether two
// set-ups are one idea, so that nothing is asked that makes no difference.
func New(c *movement.Catalogue, own []Own, near func(a, b movement.SetUp) bool) *Reader {
	r := &Reader{catalogue: c, vocab: shipped.vocab.with(own), answers: shipped.answersOf(c), near: near}
	plain := strings.NewReplacer("-", " ", "_", " ")
	for _, m := range c.Movements {
		d := m.Default()
		n := name{m: m, text: plain.Replace(strings.ToLower(d.Name() + " " + m.ID))}
		for _, text := range []string{plain.Replace(m.ID), d.Title(), d.Name()} {
			n.whole = append(n.whole, strings.Join(tokens(text), " "))
		}
		r.names = append(r.names, n)
	}
	return r
}

// most bounds what is read of one text.
const (
	mostLines = 200
	mostParts = 12
	mostWords = 60
)

// longestWord bounds a studio's own word, in characters.
const longestWord = 40

// Check says what is wrong with a studio's own word, nil for nothing.
func (o *Own) Check(c *movement.Catalogue) *movement.FieldError {
	switch t := tokens(o.Word); {
	case len(t) == 0 || len([]rune(o.Word)) > longestWord:
		return &movement.FieldError{Field: "word", Reason: fmt.Sprintf("a word of 1…%d characters", longestWord)}
	case !shipped.vocab.phrases[strings.Join(t, " ")].empty():
		return &movement.FieldError{Field: "word", Reason: "this word is known already and keeps its meaning"}
	case o.Movement == "" && implementFacet(o.Implement) == "":
		return &movement.FieldError{Field: "implement", Reason: fmt.Sprintf("%q is nothing that is held", string(o.Implement))}
	case o.Movement != "":
		_, fault := c.SetUp("", o.Movement, o.Settings)
		return fault
	}
	return nil
}
