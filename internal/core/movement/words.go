package movement

import "fmt"

// Phrase is a word people use, with what it may mean.
type Phrase struct {
	Words []string `yaml:"words"`
	IDs   []string `yaml:"ids"` // likeliest first
	Ask   string   `yaml:"ask"` // what to ask back, "" where the word is clear
}

// Phrases are the common words for search.
var Phrases = func() []Phrase {
	b, err := data.ReadFile("data/words.yaml")
	if err != nil {
		panic(err)
	}
	var out []Phrase
	if err := decode("words.yaml", b, &out); err != nil {
		panic(err)
	}
	for i, p := range out {
		if len(p.Words) == 0 || len(p.IDs) == 0 && p.Ask == "" {
			panic(fmt.Sprintf("words.yaml: entry %d means nothing", i+1))
		}
		for _, id := range p.IDs {
			if Shipped.Get(id) == nil {
				panic(fmt.Sprintf("words.yaml: entry %d (%s): ids: there is no movement %q", i+1, p.Words[0], id))
			}
		}
	}
	return out
}()
