package movement

import "musculus/internal/core/datafile"

// Phrase is a word people use, with what it may mean.
type Phrase struct {
	Words []string `yaml:"words"`
	IDs   []string `yaml:"ids"` // likeliest first
	Ask   string   `yaml:"ask"` // what to ask back, "" where the word is clear
}

// Phrases are the common words for search. It panics when the embedded data is wrong.
var Phrases = func() (out []Phrase) {
	entries, wrong := datafile.Read[Phrase]("words.yaml", embedded("words.yaml"))
	for i := range entries {
		p := entries[i].Row
		if len(p.Words) == 0 || len(p.IDs) == 0 && p.Ask == "" {
			wrong = append(wrong, entries[i].Fault("words", "mean nothing"))
		}
		for _, id := range p.IDs {
			if Shipped.Get(id) == nil {
				wrong = append(wrong, entries[i].Fault("ids", "there is no movement %q", id))
			}
		}
		out = append(out, p)
	}
	if err := datafile.Join(wrong); err != nil {
		panic(err)
	}
	return out
}()
