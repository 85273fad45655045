package measure

import (
	"fmt"
	"math"
	"slices"

	"musculus/internal/core/day"
)

// What a tape can show.
const (
	UsualTE     = 0.3 // cm: the typical error until the client's own is known
	leastPairs  = 6   // repeats from which her own is taken
	repeatDays  = 10  // sessions so near together that nothing can have grown between
	leastOwnTE  = 0.1 // cm: a tape is read to a millimetre
	zForRealOne = 1.96
)

// Noise is the typical error of a kind of girth for one client.
type Noise struct {
	TE    float64 // cm
	Pairs int     // repeats it comes from; 0: it is the usual one
}

// Threshold is how far apart two medians must be to be real: 1.96·√2·TE.
func (n Noise) Threshold() float64 { return zForRealOne * math.Sqrt2 * n.TE }

// Words says where the number comes from.
func (n Noise) Words() string {
	if n.Pairs < leastPairs {
		return fmt.Sprintf("typical error %.2f cm, the usual one: %d of %d own repeats", n.TE, n.Pairs, leastPairs)
	}
	return fmt.Sprintf("typical error %.2f cm from %d own repeats", n.TE, n.Pairs)
}

// NoiseOf takes the typical error of a kind from repeats on separate days: pairs
// of neighbouring sessions at most repeatDays apart, both arms together; the
// standard deviation of their differences over √2. Sessions in any order.
func NoiseOf(sessions []Session, k *Kind) Noise {
	sorted := byDay(sessions)
	var sum float64
	pairs := 0
	for i := 1; i < len(sorted); i++ {
		apart := sorted[i].On - sorted[i-1].On
		if apart < 1 || apart > repeatDays {
			continue
		}
		for _, site := range []Site{k.Left, k.Right} {
			a, aok := sorted[i-1].Median(site)
			b, bok := sorted[i].Median(site)
			if aok && bok {
				sum += (b - a) * (b - a)
				pairs++
			}
		}
	}
	if pairs < leastPairs {
		return Noise{UsualTE, pairs}
	}
	return Noise{max(math.Sqrt(sum/float64(pairs)/2), leastOwnTE), pairs}
}

func byDay(sessions []Session) []Session {
	out := slices.Clone(sessions)
	slices.SortStableFunc(out, func(a, b Session) int { return int(a.On - b.On) })
	return out
}

// Point is one kept reading.
type Point struct {
	On    day.Day
	Value float64
}

// Course is a site over time.
type Course struct {
	Site   Site
	Points []Point
	Noise  Noise
}

// CourseOf gathers a site's kept readings, oldest first.
func CourseOf(sessions []Session, site Site) Course {
	c := Course{Site: site}
	if k := KindOf(site); k != nil {
		c.Noise = NoiseOf(sessions, k)
	}
	for _, s := range byDay(sessions) {
		if v, ok := s.Median(site); ok {
			c.Points = append(c.Points, Point{s.On, v})
		}
	}
	return c
}

// Answer is a question the tape was asked: did it change, is there a gap.
type Answer struct {
	Real  bool
	By    float64 // cm
	Least float64 // cm: from where it would be real
	Words string
}

// Change answers whether the last reading really differs from the first since a
// day; false when there are no two.
func (c *Course) Change(since day.Day) (Answer, bool) {
	i := slices.IndexFunc(c.Points, func(p Point) bool { return p.On >= since })
	if i < 0 || i == len(c.Points)-1 {
		return Answer{}, false
	}
	first, last := c.Points[i], c.Points[len(c.Points)-1]
	a := Answer{By: last.Value - first.Value, Least: c.Noise.Threshold()}
	a.Real = math.Abs(a.By) > a.Least
	over := fmt.Sprintf("%s: %+.1f cm from %s to %s", SiteName(c.Site), a.By, first.On.Words(), last.On.Words())
	if a.Real {
		a.Words = fmt.Sprintf("%s. That is real: more than the %.2f cm this tape can mistake.", over, a.Least)
	} else {
		a.Words = fmt.Sprintf("%s. No change a tape can show yet: it would take %.2f cm.", over, a.Least)
	}
	return a, true
}

// Gap answers whether left and right really differ at the last session that
// measured both; By is right less left. False when none did.
func Gap(sessions []Session, k *Kind) (Answer, bool) {
	sorted := byDay(sessions)
	for i := len(sorted) - 1; i >= 0; i-- {
		l, lok := sorted[i].Median(k.Left)
		r, rok := sorted[i].Median(k.Right)
		if !lok || !rok {
			continue
		}
		a := Answer{By: r - l, Least: NoiseOf(sessions, k).Threshold()}
		a.Real = math.Abs(a.By) > a.Least
		bigger := "right"
		if a.By < 0 {
			bigger = "left"
		}
		switch {
		case a.Real:
			a.Words = fmt.Sprintf(
				"%s: the %s is %.1f cm bigger. That is real: more than %.2f cm. Let the smaller arm lead.",
				k.Name,
				bigger,
				math.Abs(a.By),
				a.Least,
			)
		default:
			a.Words = fmt.Sprintf(
				"%s: left and right differ by %.1f cm, no gap a tape can show (%.2f cm).",
				k.Name,
				math.Abs(a.By),
				a.Least,
			)
		}
		return a, true
	}
	return Answer{}, false
}

// Smaller is the arm that a real gap of the upper arm says is smaller, with the
// gap in words; "" where a tape shows none.
func Smaller(sessions []Session) (side, words string) {
	for i := range Kinds {
		k := &Kinds[i]
		if k.Left == ForearmLeft {
			continue
		}
		if gap, ok := Gap(sessions, k); ok && gap.Real {
			if gap.By > 0 {
				return "left", gap.Words
			}
			return "right", gap.Words
		}
	}
	return "", ""
}

// AreaChange answers the same for the muscle-and-bone area of one arm, in cm²,
// from sessions with a skinfold. What counts as real is what the girth's
// threshold makes of the area at the last reading.
func AreaChange(sessions []Session, site Site, sex Sex) (points []Point, noise float64) {
	k := KindOf(site)
	for _, s := range byDay(sessions) {
		g, gok := s.Median(site)
		f, fok := s.FoldMedian()
		if gok && fok {
			points = append(points, Point{s.On, Area(g, f, sex)})
			noise = Area(g+NoiseOf(sessions, k).Threshold(), f, sex) - Area(g, f, sex)
		}
	}
	return points, noise
}

// AreaAnswer answers whether the area really changed over its points; false when
// there are no two.
func AreaAnswer(points []Point, noise float64) (Answer, bool) {
	if len(points) < 2 {
		return Answer{}, false
	}
	first, last := points[0], points[len(points)-1]
	a := Answer{By: last.Value - first.Value, Least: noise}
	a.Real = math.Abs(a.By) > a.Least
	over := fmt.Sprintf("%+.1f cm² from %s to %s", math.Round(10*a.By)/10+0, // no "-0.0"
		first.On.Words(), last.On.Words())
	if a.Real {
		a.Words = fmt.Sprintf("%s. That is real: more than the %.1f cm² the tape can mistake.", over, a.Least)
	} else {
		a.Words = fmt.Sprintf("%s. No change a tape can show yet: it would take %.1f cm².", over, a.Least)
	}
	return a, true
}
