package stance

// CardFields are the lines of an evidence card that may be there, in order.
var CardFields = []string{
	"claim", "kind", "people", "what was measured", "result in words", "reaches as far as", "grade", "limits in plain words",
	"what would change our mind",
}

// Card returns what is recorded of a rule, by line of the card. What is not recorded is
// no line.
func (r *Rule) Card() map[string]string {
	out := map[string]string{}
	for line, says := range map[string]string{
		"claim": r.Says, "kind": r.Evidence.Kind, "people": r.Evidence.People, "what was measured": r.Evidence.Measured,
		"result in words": r.Evidence.Result, "reaches as far as": r.When.Words(), "grade": r.Grade,
		"limits in plain words": r.Evidence.Limits, "what would change our mind": r.Evidence.Change,
	} {
		if says != "" {
			out[line] = says
		}
	}
	return out
}
