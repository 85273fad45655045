package series

import (
	"math"
	"math/rand/v2"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/day"
)

// aRep is what a rep more is in an estimate from about ten, as a part.
const aRep = 0.0315

// course makes up a history: two sessions a week of somebody who changes by so much a week.
type course struct {
	weekly   float64
	sessions int
	outliers float64 // part of sessions that scatter three times as much
	block    int     // sessions of a block at the end, whose reserve goes from 3 to 1
	told     float64 // reps by which it is told wrong at its end
}

func (c course) make(r *rand.Rand) []Compared {
	out := make([]Compared, c.sessions)
	for i := range out {
		d := 7 * (i / 2)
		if i%2 == 1 {
			d += 3
		}
		noise := 0.025
		if r.Float64() < c.outliers {
			noise *= 3
		}
		y := c.weekly*float64(d)/7 + noise*r.NormFloat64()
		reserve := 2.0
		if from := c.sessions - c.block; c.block > 0 {
			along := max(0, float64(i-from)/float64(c.block-1))
			reserve = 3 - math.Min(2, math.Floor(3*along))
			y += c.told * along * aRep
		}
		out[i] = Compared{On: day.Day(20000 + d), E1RM: 40 * math.Exp(y), Reserve: reserve}
	}
	return out
}

// rates tells in which part of made-up histories each state was called by a session.
func rates(c course, growth float64, seed uint64) (ever map[State]float64, last map[State]float64) {
	many := 300
	if os.Getenv("MUSCULUS_SIMULATE") != "" {
		many = 2000
	}
	ever, last = map[State]float64{}, map[State]float64{}
	for k := range many {
		looks := Watch(c.make(rand.New(rand.NewPCG(seed, uint64(k)))), growth)
		seen := map[State]bool{}
		for i := range looks {
			seen[looks[i].State] = true
		}
		for s := range seen {
			ever[s] += 1 / float64(many)
		}
		last[looks[len(looks)-1].State] += 1 / float64(many)
	}
	return ever, last
}

// How often it is right and how often it errs, looked at after every session.
func TestRates(t *testing.T) {
	if testing.Short() {
		t.Skip()
	}
	slack := 0.04 // 300 histories each
	if os.Getenv("MUSCULUS_SIMULATE") != "" {
		slack = 0
	}
	const seed = 20261128
	at := func(c course, growth float64) (map[State]float64, map[State]float64) { return rates(c, growth, seed) }
	most := func(name string, got, most float64) {
		t.Logf("%s: %.1f %% (at most %.0f)", name, 100*got, 100*most)
		assert.LessOrEqual(t, got, most+slack, name)
	}
	least := func(name string, got, least float64) {
		t.Logf("%s: %.1f %% (at least %.0f)", name, 100*got, 100*least)
		assert.GreaterOrEqual(t, got, least-slack, name)
	}
	for _, c := range []struct {
		sessions int
		most     float64
	}{{16, 0.08}, {24, 0.15}, {40, 0.30}} {
		ever, _ := at(course{weekly: 0.01, sessions: c.sessions}, 0.01)
		most("rising, ever called a plateau", ever[Plateau], c.most)
	}
	ever, _ := at(course{sessions: 16}, 0.01)
	least("flat, called so by the 16th", ever[Plateau], 0.65)
	ever, _ = at(course{sessions: 24}, 0.01)
	least("flat, called so by the 24th", ever[Plateau], 0.95)
	most("flat, ever rising by the 24th", ever[Rising], 0.14)
	most("flat, ever falling by the 24th", ever[Falling], 0.10)
	ever, _ = at(course{weekly: -0.01, sessions: 16}, 0.01)
	least("falling, found by the 16th", ever[Falling], 0.75)
	ever, _ = at(course{weekly: 0.01, sessions: 24, outliers: 0.1}, 0.01)
	most("rising with outliers, ever a plateau by the 24th", ever[Plateau], 0.25)
	ever, _ = at(course{sessions: 24, outliers: 0.1}, 0.01)
	least("flat with outliers, called so by the 24th", ever[Plateau], 0.95)
	ever, _ = at(course{sessions: 40}, 0.005)
	least("flat at half a percent, by the 40th", ever[Plateau], 0.95)

	// A block told wrong, as it stands at its end.
	for _, weeks := range []int{6, 8} {
		_, right := at(course{sessions: 24, block: 2 * weeks}, 0.01)
		_, wrong := at(course{sessions: 24, block: 2 * weeks, told: 1.5}, 0.01)
		most("a block told wrong: flat is called rising, more often by", wrong[Rising]-right[Rising], 0.15)
		_, right = at(course{weekly: 0.01, sessions: 24, block: 2 * weeks}, 0.01)
		_, wrong = at(course{weekly: 0.01, sessions: 24, block: 2 * weeks, told: -1.5}, 0.01)
		most("a block told wrong: rising is called a plateau, more often by", wrong[Plateau]-right[Plateau], 0.15)
	}
}

func TestTheNoise(t *testing.T) {
	assert.InDelta(t, 0.025, Noise(nil), 1e-12, "of somebody unknown")
	r := rand.New(rand.NewPCG(7, 7))
	long := course{weekly: 0.01, sessions: 200}.make(r)
	assert.InDelta(t, 0.025, Noise(long), 0.008)
	still := course{sessions: 40}.make(r)
	for i := range still {
		still[i].E1RM = 40
	}
	assert.Greater(t, Noise(still), leastNoise, "never none")
	assert.Less(t, Noise(still), 0.017)
}

// The line is found exactly where nothing scatters, and one point far off does not turn it.
func TestTheLine(t *testing.T) {
	points := course{weekly: 0.01, sessions: 16}.make(rand.New(rand.NewPCG(1, 1)))
	for i := range points {
		points[i].E1RM = 40 * math.Exp(0.01*float64(points[i].On-20000)/7)
	}
	f := fit(points, 0.025)
	assert.InDelta(t, 0.01, f.slope, 1e-12)
	assert.Zero(t, f.step)
	points[12].E1RM *= 0.7
	plain, _ := solveOnce(points)
	f = fit(points, 0.025)
	assert.Less(t, math.Abs(f.slope-0.01), math.Abs(plain-0.01)/2)

	// A block that ends nearer to the limit: what a rep in reserve goes with is found beside the line.
	for i := range points {
		points[i].Reserve = math.Round(3 - 2*float64(i)/15)
		points[i].E1RM = 40 * math.Exp(0.01*float64(points[i].On-20000)/7-0.01*points[i].Reserve)
	}
	f = fit(points, 0.012)
	assert.Negative(t, f.step)
	assert.Greater(t, f.error, fit(flat(points), 0.012).error, "told apart only in part, and that is said")
	assert.Equal(t, line{}, fit(points[:2], 0.02))
}

// solveOnce is the slope without weights.
func solveOnce(points []Compared) (float64, float64) {
	var x [][3]float64
	var y, w []float64
	for i := range points {
		x, y, w = append(x, [3]float64{1, float64(points[i].On-points[0].On) / 7}), append(y, math.Log(points[i].E1RM)), append(w, 1)
	}
	at, v := solve(x, y, w, math.Inf(1))
	return at[1], v
}

// What cannot be told yet says how many sessions more would tell; a state once called holds.
func TestWhatIsSaid(t *testing.T) {
	few := course{sessions: 6}.make(rand.New(rand.NewPCG(3, 3)))
	l := Watch(few, 0.01)[5]
	assert.Equal(t, Unknown, l.State)
	assert.InDelta(t, 8, l.More, 3, "two a week at 2.5 %% tell after about fourteen")
	l = Watch(few[:1], 0.01)[0]
	assert.Zero(t, l.More, "from one session nothing is foretold")
	rare := make([]Compared, 8)
	for i := range rare {
		rare[i] = Compared{On: day.Day(20000 + 40*i), E1RM: 40, Reserve: math.NaN()}
	}
	l = Watch(rare, 0.01)[7]
	assert.Equal(t, Unknown, l.State, "eight sessions in a year")

	long := course{sessions: 60}.make(rand.New(rand.NewPCG(4, 4)))
	changes := 0
	looks := Watch(long, 0.01)
	for i := 1; i < len(looks); i++ {
		if looks[i].State != looks[i-1].State {
			changes++
		}
	}
	assert.LessOrEqual(t, changes, 6, "it does not flicker")
	same := Watch(long, 0.01)
	assert.Equal(t, looks[59].LnOdds, same[59].LnOdds)
	var still []Compared
	for i := range 32 {
		still = append(still, Compared{On: day.Day(20000 + 3*i), E1RM: 40, Reserve: 2})
	}
	end := Watch(still, 0.01)[31]
	assert.Equal(t, Plateau, end.State)
	assert.True(t, end.Flat() || end.Error > 0.00125, "“stands still” only where the interval says so")
}
