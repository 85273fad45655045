package formats

import (
	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
	"musculus/internal/core/words"
)

// WordsLine is what a line of plain words says.
type WordsLine struct {
	Line  string      `json:"line"`
	Parts []WordsPart `json:"parts"`
}

// WordsPart is one exercise of a line; what the line does not say is absent.
type WordsPart struct {
	Movement *string           `json:"movement"`
	Settings movement.Settings `json:"settings"`
	Sets     int               `json:"sets,omitempty"`
	Reps     []int             `json:"reps,omitempty" doc:"low, high"`
	Seconds  []int             `json:"seconds,omitempty" doc:"of a hold: low, high"`
	Load     *WordsLoad        `json:"load,omitempty"`
	Effort   *WordsEffort      `json:"effort,omitempty"`
	RestS    int               `json:"rest_s,omitempty"`
	Tempo    string            `json:"tempo,omitempty"`
	Method   string            `json:"method,omitempty"`
	Joined   bool              `json:"joined,omitempty" doc:"done in turns with its neighbour"`
	CountsAs *string           `json:"counts_as" enum:"press,pull,nothing"`
	Ask      *string           `json:"ask"`
	Choices  []string          `json:"choices,omitempty" doc:"ids, likeliest first"`
	Heads    []string          `json:"heads,omitempty" doc:"named by the line"`
	Matched  []string          `json:"matched,omitempty" doc:"the words that decided"`
	Unknown  string            `json:"unknown,omitempty" doc:"the word nobody knows"`
	Left     []string          `json:"left,omitempty" doc:"words that say nothing here"`
}

// WordsLoad is a weight as it was written.
type WordsLoad struct {
	Value float64 `json:"value"`
	Unit  string  `json:"unit,omitempty" enum:"kg,lb"`
	As    string  `json:"as,omitempty" enum:"each,whole"`
}

// WordsEffort is how near the limit.
type WordsEffort struct {
	Reserve int `json:"reserve"`
}

// WordsOf writes a line that was read.
func WordsOf(l *words.Line) WordsLine {
	out := WordsLine{Line: l.Text, Parts: []WordsPart{}}
	for i := range l.Parts {
		p := &l.Parts[i]
		w := WordsPart{Settings: movement.Settings{}, Sets: p.Sets, RestS: p.RestS, Tempo: p.Tempo, Method: p.Method, Joined: p.Joined,
			Matched: p.Matched, Unknown: p.Unknown, Left: p.Left}
		if p.Movement != nil {
			w.Movement, w.Settings = &p.Movement.ID, p.SetUp.Turned()
		}
		if p.Reps[0] > 0 {
			w.Reps = p.Reps[:]
		}
		if p.Seconds[0] > 0 {
			w.Seconds = p.Seconds[:]
		}
		if p.Load != nil {
			w.Load = &WordsLoad{p.Load.Value, p.Load.Unit, p.Load.As}
		}
		if p.Reserve != nil {
			w.Effort = &WordsEffort{*p.Reserve}
		}
		if p.Counts != "" {
			w.CountsAs = &p.Counts
		}
		if p.Ask != "" {
			w.Ask = &p.Ask
		}
		for _, c := range p.Choices {
			w.Choices = append(w.Choices, c.Movement.ID)
		}
		for _, h := range p.Heads {
			w.Heads = append(w.Heads, arm.Heads[h].ID)
		}
		out.Parts = append(out.Parts, w)
	}
	return out
}

// Words answers a line of plain text with what it says; a heading says nothing.
func Words(r *words.Reader) func(line []byte) (any, error) {
	return func(line []byte) (any, error) {
		read := r.Read(string(line))
		if len(read) == 0 {
			return WordsLine{Line: string(line), Parts: []WordsPart{}}, nil
		}
		return WordsOf(&read[0]), nil
	}
}
