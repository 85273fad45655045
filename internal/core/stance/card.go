package stance

// CardFields are the lines of an evidence card, in order.
var CardFields = []string{
	"claim", "kind", "independent or retold", "what was measured, and where", "indirect or direct", "people", "trained or not",
	"arms compared within a person", "order balanced", "ranges equal", "load, effort and the rest equal", "weeks", "result in words",
	"agreement", "reaches as far as", "grade", "limits in plain words", "what would change our mind",
}

// Card returns what is recorded of a rule, by line of the card. Lines that are
// not in it are not recorded.
func (r *Rule) Card() map[string]string {
	return map[string]string{
		"claim":                      r.Says,
		"kind":                       r.Evidence.Kind,
		"reaches as far as":          r.When.String(),
		"grade":                      r.Grade,
		"what would change our mind": r.Evidence.Change,
	}
}
