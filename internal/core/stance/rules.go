package stance

import (
	"bytes"
	"embed"
	"errors"
	"fmt"
	"math"
	"slices"

	"github.com/goccy/go-yaml"

	"musculus/internal/core/arm"
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
	Kind   string // growth measured, activity measured, mechanics, practice
	Limits string
	Change string // what would change our mind
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
	b, err := load(read("rules.yaml"), read("disputes.yaml"), read("wrong.yaml"))
	if err != nil {
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
	Mechanism string             `yaml:"mechanism"`
	Why       string             `yaml:"why"`
	Disputes  []string           `yaml:"disputes"`
	Stances   []string           `yaml:"stances"`
	Finding   bool               `yaml:"finding"`
}

// One rule's tilt stays within these.
const leastTilt, mostTilt = 0.88, 1.15

// load reads the book; every fault is listed at once, with file, entry and field.
func load(rules, disputes, wrong []byte) (*Book, error) {
	b := &Book{byID: map[string]*Rule{}}
	var rows []ruleRow
	strict := func(file string, from []byte, into any) error {
		if err := yaml.NewDecoder(bytes.NewReader(from), yaml.Strict()).Decode(into); err != nil {
			return fmt.Errorf("%s: %w", file, err)
		}
		return nil
	}
	if err := errors.Join(strict("rules.yaml", rules, &rows), strict("disputes.yaml", disputes, &b.Disputes), strict("wrong.yaml", wrong, &b.Wrong)); err != nil {
		return nil, err
	}
	var faults []error
	for i := range rows {
		r, err := rows[i].build()
		for _, e := range err {
			faults = append(faults, fmt.Errorf("rules.yaml: entry %d (%s): %w", i+1, rows[i].ID, e))
		}
		if b.byID[r.ID] != nil {
			faults = append(faults, fmt.Errorf("rules.yaml: entry %d (%s): id: taken", i+1, r.ID))
		}
		b.byID[r.ID] = r
		b.Rules = append(b.Rules, r)
	}
	for i, r := range b.Rules {
		for _, d := range r.Disputes {
			if b.byID[d] == nil {
				faults = append(faults, fmt.Errorf("rules.yaml: entry %d (%s): disputes: there is no rule %q", i+1, r.ID, d))
			}
		}
	}
	return b, errors.Join(faults...)
}

func (row *ruleRow) build() (*Rule, []error) {
	r := &Rule{ID: row.ID, Lever: row.Lever, Says: row.Says, Grade: row.Grade, Mechanism: row.Mechanism, Why: row.Why, Disputes: row.Disputes, Stances: row.Stances, Finding: row.Finding}
	var faults []error
	fault := func(ok bool, text string, args ...any) {
		if !ok {
			faults = append(faults, fmt.Errorf(text, args...))
		}
	}
	fault(r.ID != "", "id: missing")
	fault(r.Says != "", "says: missing")
	fault(slices.Contains([]string{"A", "B", "C", "D", "E"}, r.Grade), "grade: %q is none of A to E", r.Grade)
	fault(slices.Contains([]string{"holds", "partly", "does not hold"}, r.Mechanism), "mechanism: %q is none of holds, partly, does not hold", r.Mechanism)
	when, err := Parse(row.When)
	fault(err == nil, "when: %v", err)
	r.When = when
	if row.Tilt != nil {
		t := Tilt{1, 1, 1, 1, 1, 1, 1}
		for id, x := range row.Tilt {
			h, ok := arm.HeadByID(id)
			fault(ok, "tilt: there is no head %q", id)
			fault(x >= leastTilt && x <= mostTilt && !math.IsNaN(x), "tilt: %s %g is outside %g…%g", id, x, leastTilt, mostTilt)
			if ok {
				t[h] = x
			}
		}
		r.Tilt = &t
	}
	r.Evidence = Evidence{
		Kind:   map[string]string{"A": "growth measured", "B": "growth measured", "C": "activity measured", "D": "mechanics", "E": "practice"}[r.Grade],
		Limits: r.Why,
		Change: map[string]string{
			"A": "growth measurements that agree on the contrary", "B": "a second growth study that finds the contrary", "C": "a growth study of the same comparison",
			"D": "a measured length or leverage that contradicts the model", "E": "any growth study of the same comparison"}[r.Grade],
	}
	return r, faults
}
