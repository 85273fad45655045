package stance

import (
	"embed"
	"slices"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/datafile"
)

//go:embed data/*.yaml
var data embed.FS

// Tilt multiplies the bias of each head; 1 leaves it.
type Tilt [arm.HeadCount]float64

// Rule is one thing coaches hold.
type Rule struct {
	ID        string
	Lever     string
	Says      string
	When      *Predicate
	Tilt      *Tilt // nil for rules without one
	Grade     string
	Mechanism string // holds, partly, does not hold
	Why       string
	Disputes  []string
	Stances   []string // which use it; house: a default under any
	Finding   bool     // firing is a finding
	Evidence  Evidence
}

// Counts says whether the rule's tilt may change a bias.
func (r *Rule) Counts() bool { return r.Tilt != nil && r.Mechanism != "does not hold" }

// Evidence is a rule's card; what is empty is not recorded.
type Evidence struct {
	Kind     string // what the statement rests on, one of ruleKinds
	People   string // who was studied, for how long, and how they were compared
	Measured string
	Result   string // in words
	Limits   string // of the study: people, weeks, site, size
	Change   string // what would change our mind
}

// Dispute is a lever that coaches read in two ways.
type Dispute struct {
	Lever     string `yaml:"lever"`
	One       string `yaml:"one"`
	Other     string `yaml:"other"`
	Mechanics string `yaml:"mechanics"`
	House     string `yaml:"house"`
}

// Wrong is something plainly wrong or unsupported that is often said.
type Wrong struct {
	Says string `yaml:"says"`
	But  string `yaml:"but"`
	Kind string `yaml:"kind"` // wrong, unsupported, partly, disputed
}

// claimKinds are the kinds of answer to a claim.
var claimKinds = []string{"wrong", "unsupported", "partly", "disputed"}

type evidenceRow struct {
	Rules    []string `yaml:"rules"`
	People   string   `yaml:"people"`
	Measured string   `yaml:"measured"`
	Result   string   `yaml:"result"`
	Limits   string   `yaml:"limits"`
	Change   string   `yaml:"change"`
}

// Book is all the rules.
type Book struct {
	Rules    []*Rule
	Disputes []Dispute
	Wrong    []Wrong
	byID     map[string]*Rule
}

// Rule returns the rule of an id, nil when there is none.
func (b *Book) Rule(id string) *Rule { return b.byID[id] }

// Shipped is the book that comes with the program. It panics when the embedded
// data is wrong, which this package's tests rule out.
var Shipped = func() *Book {
	read := func(name string) []byte {
		b, err := data.ReadFile("data/" + name)
		if err != nil {
			panic(err)
		}
		return b
	}
	b, faults := load(read("rules.yaml"), read("disputes.yaml"), read("wrong.yaml"), read("evidence.yaml"))
	if err := datafile.Join(faults); err != nil {
		panic(err)
	}
	return b
}()

type ruleRow struct {
	ID        string             `yaml:"id"`
	Lever     string             `yaml:"lever"`
	Says      string             `yaml:"says"`
	When      string             `yaml:"when"`
	Tilt      map[string]float64 `yaml:"tilt"`
	Grade     string             `yaml:"grade"`
	Kind      string             `yaml:"kind"`
	Mechanism string             `yaml:"mechanism"`
	Why       string             `yaml:"why"`
	Disputes  []string           `yaml:"disputes"`
	Stances   []string           `yaml:"stances"`
	Finding   bool               `yaml:"finding"`
}

// One rule's tilt stays within these.
const leastTilt, mostTilt = 0.88, 1.15

// The values a rule's words may take.
var (
	ruleGrades     = []string{"A", "B", "C", "D", "E"}
	ruleKinds      = []string{"growth measured", "activity measured", "strength measured", "mechanics", "practice"}
	ruleMechanisms = []string{"holds", "partly", "does not hold"}
)

// load reads the book; every fault is listed, with file, line, entry and field.
func load(rules, disputes, wrong, evidence []byte) (*Book, []*datafile.Fault) {
	b := &Book{byID: map[string]*Rule{}}
	entries, faults := datafile.Read[ruleRow]("rules.yaml", rules)
	disputed, more := datafile.Read[Dispute]("disputes.yaml", disputes)
	faults = append(faults, more...)
	for _, d := range disputed {
		b.Disputes = append(b.Disputes, d.Row)
	}
	wrongs, more := datafile.Read[Wrong]("wrong.yaml", wrong)
	faults = append(faults, more...)
	for i := range wrongs {
		w := &wrongs[i]
		if !slices.Contains(claimKinds, w.Row.Kind) {
			faults = append(faults, w.Fault("kind", "%q is none of %s", w.Row.Kind, strings.Join(claimKinds, ", ")))
		}
		b.Wrong = append(b.Wrong, w.Row)
	}
	for i := range entries {
		r, bad := buildRule(&entries[i])
		if b.byID[r.ID] != nil {
			bad = append(bad, entries[i].Fault("id", "%s is taken", r.ID))
		}
		faults = append(faults, bad...)
		b.byID[r.ID] = r
		b.Rules = append(b.Rules, r)
	}
	for i, r := range b.Rules {
		for _, d := range r.Disputes {
			if b.byID[d] == nil {
				faults = append(faults, entries[i].Fault("disputes", "there is no rule %q", d))
			}
		}
	}
	studies, more := datafile.Read[evidenceRow]("evidence.yaml", evidence)
	faults = append(faults, more...)
	for i := range studies {
		row := &studies[i].Row
		for _, id := range row.Rules {
			r := b.byID[id]
			if r == nil {
				faults = append(faults, studies[i].Fault("rules", "there is no rule %q", id))
				continue
			}
			r.Evidence = Evidence{r.Evidence.Kind, row.People, row.Measured, row.Result, row.Limits, row.Change}
		}
	}
	return b, faults
}

func buildRule(e *datafile.Entry[ruleRow]) (*Rule, []*datafile.Fault) {
	row := &e.Row
	r := &Rule{
		ID:        row.ID,
		Lever:     row.Lever,
		Says:      row.Says,
		Grade:     row.Grade,
		Mechanism: row.Mechanism,
		Why:       row.Why,
		Disputes:  row.Disputes,
		Stances:   row.Stances,
		Finding:   row.Finding,
	}
	var faults []*datafile.Fault
	check := func(ok bool, field, text string, args ...any) {
		if !ok {
			faults = append(faults, e.Fault(field, text, args...))
		}
	}
	check(r.ID != "", "id", "missing")
	check(r.Lever != "", "lever", "missing")
	check(r.Says != "", "says", "missing")
	check(slices.Contains(ruleGrades, r.Grade), "grade", "%q is none of A to E", r.Grade)
	check(slices.Contains(ruleKinds, row.Kind), "kind", "%q is none of %s", row.Kind, strings.Join(ruleKinds, ", "))
	check(slices.Contains(ruleMechanisms, r.Mechanism), "mechanism", "%q is none of holds, partly, does not hold", r.Mechanism)
	when, err := Parse(row.When)
	check(err == nil, "when", "%v", err)
	r.When = when
	if row.Tilt != nil {
		t := Tilt{1, 1, 1, 1, 1, 1, 1}
		for id, x := range row.Tilt {
			h, ok := arm.HeadByID(id)
			check(ok, "tilt", "there is no head %q", id)
			check(x >= leastTilt && x <= mostTilt, "tilt", "%s %g is outside %g…%g", id, x, leastTilt, mostTilt)
			if ok {
				t[h] = x
			}
		}
		r.Tilt = &t
	}
	r.Evidence = Evidence{Kind: row.Kind}
	return r, faults
}
