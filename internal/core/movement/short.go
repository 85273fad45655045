package movement

import "strings"

// wordsOfShort is how many words a short name has before what else could be said is left out.
const wordsOfShort = 6

// Short is the name for tight places: the lead, what is held where there is room for it, and the
// hand only where it is turned from the movement's own. The full one is Name.
func (s SetUp) Short() string {
	lead, rest, cut := strings.Cut(s.lead(), ", ")
	out := lead
	add := func(words string) {
		if words != "" && len(strings.Fields(out)) < wordsOfShort {
			out += ", " + words
		}
	}
	if cut {
		add(rest)
	}
	add(s.implementWords())
	if hand := s.handWords(); hand != s.Movement.Default().handWords() {
		out += ", " + hand
	}
	return out
}
