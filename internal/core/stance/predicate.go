package stance

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
)

// Field is the value of one field a predicate asks for: a number, a name, or
// nothing where the set-up has no such thing.
type Field struct {
	number float64
	name   string
	kind   fieldKind
}

type fieldKind int

const (
	missing fieldKind = iota
	number
	name
)

// Num makes a number field, Name a name field, Yes a yes-or-no field.
func Num(x float64) Field { return Field{number: x, kind: number} }

// Name makes a name field.
func Name(n string) Field { return Field{name: n, kind: name} }

// Yes makes a yes-or-no field.
func Yes(b bool) Field {
	if b {
		return Name("yes")
	}
	return Name("no")
}

// Fields looks a field up; unknown ones are missing.
type Fields map[string]Field

// Predicate says where a rule applies. Operators: == != < <= > >= + − abs() in []
// and or not (); `and` binds before `or`; a comparison with a missing field is
// false; a bare field is true when it says yes.
type Predicate struct {
	text string
	node node
}

func (p *Predicate) String() string { return p.text }

// Holds says whether the predicate is true of the fields.
func (p *Predicate) Holds(f Fields) bool { return truth(p.node(f)) }

type node func(Fields) Field

func truth(f Field) bool { return f.kind == name && f.name == "yes" }

// Parse reads a predicate; errors say where in the text.
func Parse(text string) (*Predicate, error) {
	p := &parser{text: text}
	if err := p.scan(); err != nil {
		return nil, err
	}
	n, err := p.or()
	if err != nil {
		return nil, err
	}
	if p.at < len(p.tokens) {
		return nil, fmt.Errorf("%q is not expected after %q", p.tokens[p.at], strings.Join(p.tokens[:p.at], " "))
	}
	return &Predicate{text, n}, nil
}

type parser struct {
	text   string
	tokens []string
	at     int
}

// What names and numbers are written with; anything else is a fault, so that every
// token takes something of the text.
const (
	letters = "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ_"
	digits  = "0123456789"
)

func (p *parser) scan() error {
	rest := p.text
	for rest = strings.TrimSpace(rest); rest != ""; rest = strings.TrimSpace(rest) {
		n := 0
		switch r := rune(rest[0]); {
		case strings.ContainsRune(letters, r):
			n = len(rest) - len(strings.TrimLeft(rest, letters+digits))
		case strings.ContainsRune(digits, r):
			n = len(rest) - len(strings.TrimLeft(rest, digits+"."))
		case strings.HasPrefix(rest, "==") || strings.HasPrefix(rest, "!=") || strings.HasPrefix(rest, "<=") || strings.HasPrefix(rest, ">="):
			n = 2
		case strings.ContainsRune("<>+-()[],", r):
			n = 1
		default:
			return fmt.Errorf("%q is not understood", rest)
		}
		p.tokens = append(p.tokens, rest[:n])
		rest = rest[n:]
	}
	return nil
}

func (p *parser) next() string {
	if p.at < len(p.tokens) {
		return p.tokens[p.at]
	}
	return ""
}

func (p *parser) take(token string) bool {
	if p.next() == token {
		p.at++
		return true
	}
	return false
}

func (p *parser) or() (node, error) {
	left, err := p.and()
	for err == nil && p.take("or") {
		var right node
		a := left
		if right, err = p.and(); err == nil {
			left = func(f Fields) Field { return Yes(truth(a(f)) || truth(right(f))) }
		}
	}
	return left, err
}

func (p *parser) and() (node, error) {
	left, err := p.not()
	for err == nil && p.take("and") {
		var right node
		a := left
		if right, err = p.not(); err == nil {
			left = func(f Fields) Field { return Yes(truth(a(f)) && truth(right(f))) }
		}
	}
	return left, err
}

func (p *parser) not() (node, error) {
	if !p.take("not") {
		return p.comparison()
	}
	inner, err := p.not()
	return func(f Fields) Field { return Yes(!truth(inner(f))) }, err
}

var comparisons = []string{"==", "!=", "<=", ">=", "<", ">"}

func (p *parser) comparison() (node, error) {
	left, err := p.sum()
	if err != nil {
		return nil, err
	}
	if p.take("in") {
		list, err := p.list()
		return func(f Fields) Field {
			v := left(f)
			return Yes(v.kind == name && slices.Contains(list, v.name))
		}, err
	}
	op := p.next()
	if !slices.Contains(comparisons, op) {
		return left, nil
	}
	p.at++
	right, err := p.sum()
	return func(f Fields) Field { return Yes(compare(op, left(f), right(f))) }, err
}

// compare is false when a side is missing or the kinds differ.
func compare(op string, a, b Field) bool {
	if a.kind == missing || a.kind != b.kind {
		return false
	}
	if a.kind == name {
		return op == "==" && a.name == b.name || op == "!=" && a.name != b.name
	}
	switch op {
	case "==":
		return a.number == b.number
	case "!=":
		return a.number != b.number
	case "<":
		return a.number < b.number
	case "<=":
		return a.number <= b.number+1e-9
	case ">":
		return a.number > b.number
	}
	return a.number >= b.number-1e-9
}

func (p *parser) list() (out []string, err error) {
	if !p.take("[") {
		return nil, fmt.Errorf("after in a list in [ ] is expected, not %q", p.next())
	}
	for {
		out = append(out, p.next())
		p.at++
		if p.take("]") {
			return out, nil
		}
		if !p.take(",") {
			return nil, fmt.Errorf("in a list , or ] is expected, not %q", p.next())
		}
	}
}

func (p *parser) sum() (node, error) {
	left, err := p.value()
	for err == nil && (p.next() == "+" || p.next() == "-") {
		sign := 1.0
		if p.next() == "-" {
			sign = -1
		}
		p.at++
		a := left
		var right node
		if right, err = p.value(); err == nil {
			left = func(f Fields) Field {
				x, y := a(f), right(f)
				if x.kind != number || y.kind != number {
					return Field{}
				}
				return Num(x.number + sign*y.number)
			}
		}
	}
	return left, err
}

func (p *parser) value() (node, error) {
	t := p.next()
	p.at++
	switch {
	case t == "":
		return nil, fmt.Errorf("something is missing at the end")
	case t == "-":
		inner, err := p.value()
		return func(f Fields) Field {
			v := inner(f)
			v.number = -v.number
			return v
		}, err
	case t == "(":
		inner, err := p.or()
		if err == nil && !p.take(")") {
			err = fmt.Errorf(") is missing before %q", p.next())
		}
		return inner, err
	case t == "abs" && p.take("("):
		inner, err := p.sum()
		if err == nil && !p.take(")") {
			err = fmt.Errorf(") is missing after abs")
		}
		return func(f Fields) Field {
			v := inner(f)
			v.number = math.Abs(v.number)
			return v
		}, err
	case strings.Contains(digits, t[:1]):
		x, err := strconv.ParseFloat(t, 64)
		return func(Fields) Field { return Num(x) }, err
	case strings.Contains(letters, t[:1]):
		if FieldNames[t] {
			return func(f Fields) Field { return f[t] }, nil
		}
		return func(Fields) Field { return Name(t) }, nil
	}
	return nil, fmt.Errorf("%q is not expected here", t)
}
