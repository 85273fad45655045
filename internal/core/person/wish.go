package person

import "strings"

// WishKind is a wish that is often had, with the heads it comes to.
type WishKind struct {
	ID    string
	Says  string
	Heads []string
	Words []string // that it is known by
	Note  string   // what is mostly inherited, or what it changes besides
}

// WishKinds are the common wishes.
var WishKinds = []WishKind{
	{
		"height",
		"height of the biceps from the side",
		[]string{"biceps_long", "brachialis"},
		[]string{"height", "peak", "side view", "from the side", "gallery"},
		"The shape of the peak is mostly inherited; size under it is not.",
	},
	{
		"width",
		"width from the front",
		[]string{"brachialis", "biceps_short", "triceps_lateral"},
		[]string{"width", "wide", "from the front", "thick"},
		"",
	},
	{"inside", "inside fullness", []string{"biceps_short", "triceps_long"}, []string{"inside", "inner"}, ""},
	{
		"back",
		"a full back of the arm",
		[]string{"triceps_long", "triceps_lateral", "triceps_medial"},
		[]string{"back of the arm", "triceps", "horseshoe"},
		"",
	},
	{"long", "the long head of the triceps", []string{"triceps_long"}, []string{"long head of the triceps"}, ""},
	{
		"pressing",
		"pressing strength",
		[]string{"triceps_lateral", "triceps_medial"},
		[]string{"press", "lock-out", "bench"},
		"Counts as progress: the press itself.",
	},
	{
		"sturdy",
		"sturdier elbows",
		[]string{"brachioradialis", "brachialis", "triceps_medial"},
		[]string{"elbow", "sturdy", "sturdier", "ache", "tendon"},
		"The mode “tissue tolerance” fits: lighter, higher reps, slow.",
	},
	{"forearm", "a fuller forearm", []string{"brachioradialis"}, []string{"forearm"}, ""},
	{
		"lift",
		"to lift and hold more",
		[]string{"brachialis", "biceps_long", "biceps_short", "triceps_long"},
		[]string{"lift", "hold", "carry"},
		"",
	},
	{
		"bigger",
		"bigger arms",
		[]string{"biceps_long", "biceps_short", "brachialis", "triceps_long", "triceps_lateral", "triceps_medial"},
		[]string{"bigger", "size", "larger", "mass"},
		"",
	},
	{
		"even",
		"both arms alike",
		nil,
		[]string{"left arm", "right arm", "catch up", "even", "alike"},
		"A gap is measured, not guessed: no head follows from it, one-arm work does.",
	},
	{
		"date",
		"a date to look ready for",
		nil,
		[]string{"opening", "wedding", "summer", "by the", "ready for"},
		"The mode “a date” anchors the block; no fat loss is promised from arm work.",
	},
	{"separation", "separation", nil, []string{"separation", "definition", "cut"}, "Separation is mostly inherited, and how lean one is."},
}

// WishHeads reads a wish: the kinds it may be, most fitting first, by the words
// it is made of. The longest phrase wins, so that "long head of the triceps" is
// not every head of it.
func WishHeads(text string) []*WishKind {
	low := strings.ToLower(text)
	var out []*WishKind
	best := 0
	for i := range WishKinds {
		k := &WishKinds[i]
		n := 0
		for _, w := range k.Words {
			if strings.Contains(low, w) {
				n = max(n, len(w))
			}
		}
		switch {
		case n == 0:
		case n > best:
			out, best = append([]*WishKind{k}, out...), n
		default:
			out = append(out, k)
		}
	}
	return out
}
