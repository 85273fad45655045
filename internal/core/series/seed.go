package series

import (
	"fmt"
	"math"

	"musculus/internal/core/day"
	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/stance"
)

// about is the median of the sets done within four weeks of a day, 0 without any.
func (k *Known) about(d day.Day) float64 {
	var near []Point
	for _, p := range k.Points {
		if gap := int(p.On - d); gap >= -sameTime && gap <= sameTime {
			near = append(near, p)
		}
	}
	values := make([]float64, len(near))
	for i, p := range near {
		values[i] = p.E1RM
	}
	return Median(values)
}

// Source is where a proposed load comes from, the surest first.
type Source string

// The sources, in the order they are tried.
const (
	FromOwn   Source = "own"   // the set-up's own series
	FromRatio Source = "ratio" // the client's own ratio to a set-up done lately
	FromModel Source = "model" // the model's ratio to a related set-up, times a hand factor
	FindIt    Source = "find"  // nothing to go by
)

// Seed is a proposed load.
type Seed struct {
	Source  Source
	Whole   float64 // a step the room has; 0: none is proposed
	PerHand float64 // what one hand carries
	Guess   bool    // to be replaced after two calibration sets
	Words   string
}

// How near in time two series must be to make a ratio, days, and what a guess
// leaves in reserve.
const (
	sameTime     = 28
	guessReserve = 3
)

// FindWords stands on a sheet where no load is known.
const FindWords = "find it: two sets, stop 3 before the limit"

// FindHow tells the client how; FindHowTop what holds for the strong top of a press.
const (
	FindHow = "Take a weight you could lift 15 times. Do 8. Easy? One step up after the rest. Stop when 3 more would be possible: " +
		"that is your weight."
	FindHowTop = FindHow + " Stay under what you would press ten times."
)

// handFactors are the low ends of what a hand allows against the model's ratio of
// working loads.
const (
	palmsDownFactor = 0.5
	neutralFactor   = 0.8
	underhandFactor = 0.5
	oneArmFactor    = 0.95
	otherFactor     = 0.75
	palmsDownFrom   = -30.0 // forearm rotation, degrees
	neutralFrom     = 30.0
	underhandFrom   = 30.0
)

// hand names how the hand is held, as far as loads differ by it.
func hand(s movement.SetUp) string {
	e := s.Effort()
	phi := (e.From.ForearmRotation + e.To.ForearmRotation) / 2
	switch {
	case s.Movement.Action == movement.Flexion && phi < palmsDownFrom:
		return "palms down"
	case s.Movement.Action == movement.Flexion && phi < neutralFrom:
		return "neutral"
	case s.Movement.Family.ID == "pushdown" && phi > underhandFrom:
		return "underhand"
	}
	return ""
}

// handFactor is the low end of the hand factor for going from one set-up to another.
func handFactor(from, to movement.SetUp) (float64, string) {
	h := hand(to)
	switch {
	case h == hand(from) && from.Hands() != movement.OneArm && to.Hands() == movement.OneArm:
		return oneArmFactor * otherFactor, "one arm"
	case h == hand(from):
		return otherFactor, "the same hand"
	case h == "palms down":
		return palmsDownFactor, "palms down"
	case h == "neutral":
		return neutralFactor, "neutral"
	case h == "underhand":
		return underhandFactor, "underhand"
	}
	return otherFactor, "another hand"
}

// Ask is what a load is proposed for.
type Ask struct {
	SetUp     movement.SetUp
	Room      *person.Room
	Yardstick *effort.Yardstick
	Stance    *stance.Stance
	Low, High int // reps
	Reserve   int
	Today     day.Day
}

// Propose seeds a load from what is known of a client: the set-up's own series,
// else the client's own ratio to a set-up done lately, else the model's ratio of
// working loads times the low end of the hand factor; rounded down to a step the
// room has. Without any series no load is invented.
func Propose(a *Ask, known []Known) Seed {
	find := Seed{Source: FindIt, Words: FindWords}
	if !a.SetUp.Movement.Computed() {
		for i := range known {
			if known[i].SetUp.Key() == a.SetUp.Key() {
				return a.of(
					Seed{Source: FromOwn},
					known[i].E1RM(a.Today),
					a.Reserve,
					"from its own series, last done "+known[i].Last().Words(),
					find,
				)
			}
		}
		return find
	}
	var own *Known
	for i := range known {
		if known[i].SetUp.Key() == a.SetUp.Key() {
			own = &known[i]
		}
	}
	if own != nil && own.Speaks(a.Today) {
		return a.of(Seed{Source: FromOwn}, own.E1RM(a.Today), a.Reserve, "from its own series, last done "+own.Last().Words(), find)
	}
	related := a.nearest(known)
	switch {
	case related != nil && own != nil && related.about(own.Last()) > 0:
		ratio := own.E1RM(a.Today) / related.about(own.Last())
		return a.of(Seed{Source: FromRatio}, ratio*related.E1RM(a.Today), a.Reserve,
			fmt.Sprintf("%.2f × %s, the client’s own ratio of %s", ratio, related.SetUp.Title(), own.Last().Words()), find)
	case own != nil:
		return a.of(
			Seed{Source: FromOwn, Guess: true},
			own.E1RM(a.Today),
			max(a.Reserve, guessReserve),
			"from its own series of "+own.Last().Words()+", long ago",
			find,
		)
	case related == nil:
		return find
	}
	p, err := a.SetUp.Profile(a.Yardstick)
	q, err2 := related.SetUp.Profile(a.Yardstick)
	if err != nil || err2 != nil || !(q.Working > 0) {
		return find
	}
	f, why := handFactor(related.SetUp, a.SetUp)
	ratio := p.Working / q.Working
	return a.of(Seed{Source: FromModel, Guess: true}, related.E1RM(a.Today)*ratio*f, max(a.Reserve, guessReserve),
		fmt.Sprintf("%.2f × %.2f (%s) × %s: the model’s ratio, the careful end", ratio, f, why, related.SetUp.Title()), find)
}

// nearest is the related series that speaks: of the same action, done lately, the
// one with the nearest profile.
func (a *Ask) nearest(known []Known) *Known {
	of, ok := fitting.ShapeOf(a.SetUp, a.Yardstick, a.Stance)
	if !ok {
		return nil
	}
	var found *Known
	best := math.Inf(1)
	for i := range known {
		k := &known[i]
		if k.SetUp.Movement.Action != a.SetUp.Movement.Action || !k.SetUp.Movement.Computed() || !k.Speaks(a.Today) ||
			k.SetUp.Key() == a.SetUp.Key() ||
			!(k.E1RM(a.Today) > 0) {
			continue
		}
		shape, ok := fitting.ShapeOf(k.SetUp, a.Yardstick, a.Stance)
		if !ok {
			continue
		}
		if d := fitting.Distance(&of, &shape); d < best {
			found, best = k, d
		}
	}
	return found
}

// of turns a maximum into a step of the room for the middle of the band.
func (a *Ask) of(s Seed, e1rm float64, reserve int, why string, find Seed) Seed {
	reps := min((a.Low+a.High)/2, MostReps-reserve)
	hand, ok := LoadFor(e1rm, reps, reserve)
	if !ok {
		return find
	}
	carry, rigging := person.CarryOf(a.SetUp), a.Room.Rigging(a.Yardstick.Body().BodyMass)
	whole, ok := person.RoundDown(a.Room.Steps(a.SetUp), carry.Whole(hand, rigging))
	if !ok {
		find.Words = "too heavy here: every load " + a.Room.Name + " has is over what follows (" + why + ")"
		return find
	}
	s.Whole, s.PerHand = whole, carry.PerHand(whole, rigging)
	s.Words = a.Room.Words(whole, a.SetUp) + ", " + why
	if s.Guess {
		s.Words += fmt.Sprintf("; a guess: first set with %d left, replaced after two sets", reserve)
	}
	return s
}
