package stance

import (
	"fmt"
	"math"
	"slices"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// Base is which bias of the profile a stance starts from.
type Base string

// The bases.
const (
	Plain    Base = "plain"
	Stretch  Base = "stretch"
	Squeeze  Base = "squeeze"
	Balanced Base = "balanced" // the geometric mean of plain and stretch
)

// Stance is a named choice of base bias and rules.
type Stance struct {
	ID, Name, Says string
	Base           Base
	Rules          []string // ids
	Half           bool     // tilts at half strength: m becomes √m
}

// Readings is how many shipped stances there are: so many ways to read the evidence.
const Readings = 7

// Default is the stance used where none was chosen.
const Default = "balanced"

// stances makes the shipped ones out of the book's rules.
func stances(b *Book) []Stance {
	of := func(tag string) (out []string) {
		for _, r := range b.Rules {
			if slices.Contains(r.Stances, tag) {
				out = append(out, r.ID)
			}
		}
		return
	}
	return []Stance{
		{
			ID:    "balanced",
			Name:  "Balanced",
			Says:  "Plain and stretch bias evenly, upper-arm rules at half strength, no bar-width rule.",
			Base:  Balanced,
			Rules: of("arm_path"),
			Half:  true,
		},
		{ID: "leverage", Name: "Leverage", Says: "What mechanics alone gives.", Base: Plain},
		{
			ID:    "stretch",
			Name:  "Stretch",
			Says:  "Tension at long length counts more (growth studies, mixed).",
			Base:  Stretch,
			Rules: of("stretch"),
		},
		{ID: "squeeze", Name: "Squeeze", Says: "Tension at short length counts more (practice only).", Base: Squeeze, Rules: of("squeeze")},
		{ID: "arm_path", Name: "Arm path", Says: "Where the upper arm is and goes decides.", Base: Plain, Rules: of("arm_path")},
		{ID: "hand", Name: "Hand", Says: "Grip and turn of the hand decide; narrow bar for the long head.", Base: Plain, Rules: of("hand")},
		{
			ID:    "hand_reversed_width",
			Name:  "Hand, other width reading",
			Says:  "The same with the bar widths the other way round.",
			Base:  Plain,
			Rules: of("hand_reversed_width"),
		},
	}
}

// Stances are the shipped ones.
var Stances = stances(Shipped)

// ByID returns a shipped stance, nil when there is none.
func ByID(id string) *Stance {
	for i := range Stances {
		if Stances[i].ID == id {
			return &Stances[i]
		}
	}
	return nil
}

// The product of all tilts per head is clamped to these.
const leastProduct, mostProduct = 0.75, 1.25

// Bias is a head's bias under a stance.
type Bias struct {
	Bar       float64 // the chosen stance
	Low, High float64 // least and greatest of all shipped stances; for graded work the credit's range
	// By is the bias under each shipped stance, in the order of Stances; not for graded
	// work, which has the credit's range under every one.
	By     [Readings]float64
	Hollow float64 // where the chosen stance would land with rules whose mechanism does not hold
	Base   float64 // before tilts
	Terms  []Term  // the rules that changed it
}

// Term is one rule's part in a head's bias.
type Term struct {
	Rule   *Rule
	Factor float64
	Counts bool // false: shown, counts nothing
}

// Reading is a set-up's biases.
type Reading [arm.HeadCount]Bias

// base returns the profile's bias of a head under a base.
func base(b Base, h *effort.HeadProfile) float64 {
	switch b {
	case Stretch:
		return h.Stretch
	case Squeeze:
		return h.Squeeze
	case Balanced:
		return math.Sqrt(h.Plain * h.Stretch)
	}
	return h.Plain
}

// BaseWords tells how a computed head's bias under the stance comes from its profile: "√(plain
// 0.93 × stretch 1.10) = 1.01", and with rules "… × rules 1.05 = 1.06".
func (s *Stance) BaseWords(h *effort.HeadProfile, bias Bias) string {
	var words string
	switch s.Base {
	case Stretch:
		words = fmt.Sprintf("stretch %.2f", h.Stretch)
	case Squeeze:
		words = fmt.Sprintf("squeeze %.2f", h.Squeeze)
	case Balanced:
		words = fmt.Sprintf("√(plain %.2f × stretch %.2f) = %.2f", h.Plain, h.Stretch, bias.Base)
	default:
		words = fmt.Sprintf("plain %.2f", h.Plain)
	}
	if bias.Bar != bias.Base && bias.Base > 0 {
		words += fmt.Sprintf(" × rules %.2f = %.2f", bias.Bar/bias.Base, bias.Bar)
	}
	return words
}

// Fired are the rules of a book with a tilt that apply to the fields.
func (b *Book) Fired(f Fields) []*Rule {
	var out []*Rule
	for _, r := range b.Rules {
		if r.Tilt != nil && r.When.Holds(f) {
			out = append(out, r)
		}
	}
	return out
}

// product multiplies the tilts of the fired rules a stance uses, clamped per
// head; folklore adds those whose mechanism does not hold.
func (s *Stance) product(fired []*Rule, folklore bool) Tilt {
	t := Tilt{1, 1, 1, 1, 1, 1, 1}
	for _, r := range fired {
		if !(r.Counts() || folklore) || !slices.Contains(s.Rules, r.ID) {
			continue
		}
		for h := range t {
			t[h] *= s.strength(r.Tilt[h])
		}
	}
	for h := range t {
		t[h] = min(max(t[h], leastProduct), mostProduct)
	}
	return t
}

func (s *Stance) strength(m float64) float64 {
	if s.Half {
		return math.Sqrt(m)
	}
	return m
}

// Read returns the biases of a set-up under a stance: p is its profile, nil for
// graded movements, whose middle credit a tilt multiplies inside its range.
func (b *Book) Read(s *Stance, setUp movement.SetUp, p *effort.Profile) Reading {
	fired := b.Fired(FieldsOf(setUp, p))
	var out Reading
	own, folk := s.product(fired, false), s.product(fired, true)
	credits, graded := setUp.Credits()
	for h := range out {
		bias := &out[h]
		switch {
		case graded:
			c := credits[h]
			bias.Base, bias.Low, bias.High = c.Mid, c.Low, c.High
			bias.Bar = min(max(c.Mid*own[h], c.Low), c.High)
			bias.Hollow = min(max(c.Mid*folk[h], c.Low), c.High)
		case p != nil && p.Heads[h].Agonist:
			bias.Base = base(s.Base, &p.Heads[h])
			bias.Bar, bias.Hollow = bias.Base*own[h], bias.Base*folk[h]
			bias.Low, bias.High = math.Inf(1), math.Inf(-1)
			for i := range Stances {
				v := base(Stances[i].Base, &p.Heads[h]) * Stances[i].product(fired, false)[h]
				bias.By[i] = v
				bias.Low, bias.High = min(bias.Low, v), max(bias.High, v)
			}
		default:
			continue
		}
		for _, r := range fired {
			if slices.Contains(s.Rules, r.ID) && r.Tilt[h] != 1 {
				bias.Terms = append(bias.Terms, Term{r, s.strength(r.Tilt[h]), r.Counts()})
			}
		}
	}
	return out
}
