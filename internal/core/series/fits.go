package series

import (
	"fmt"

	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// Fit says whether a room's loads suit a set-up for a client.
type Fit string

// The answers.
const (
	NotKnown Fit = "not_known" // no series of this set-up yet
	TooHeavy Fit = "too_heavy"
	Fits     Fit = "fits"
	TooLight Fit = "too_light"
)

// Fitted is the answer with what follows from it.
type Fitted struct {
	Fit     Fit
	Words   string
	Whole   float64 // the step to take, where it fits
	Instead []string
}

// DoesFit answers from the set-up's own series: e1rm is what one hand could lift
// once (0: not known) by its logged sets, the band is in reps with a reserve.
func DoesFit(s movement.SetUp, room *person.Room, bodyMass, e1rm float64, logged, low, high, reserve int) Fitted {
	carry, rigging := person.CarryOf(s), room.Rigging(bodyMass)
	steps := room.Steps(s)
	if len(steps) == 0 {
		return Fitted{Fit: NotKnown, Words: "Not known yet: " + room.Name + " lists no loads for this."}
	}
	if !(e1rm > 0) && logged > 0 {
		return Fitted{
			Fit:   NotKnown,
			Words: fmt.Sprintf("Not known yet: its %d sets run above %d reps with what was left, which tell no load.", logged, MostReps),
		}
	}
	if !(e1rm > 0) {
		return Fitted{Fit: NotKnown, Words: "Not known yet: this set-up has no series of its own."}
	}
	// Above the reps an estimate holds for, the band's light end is taken there.
	high = min(high, MostReps-reserve)
	low = min(low, high)
	light, ok := LoadFor(e1rm, high, reserve)
	heavy, ok2 := LoadFor(e1rm, low, reserve)
	if !ok || !ok2 {
		return Fitted{Fit: NotKnown, Words: "Not known yet: loads this light are told in reps, not in kg."}
	}
	const slack = 1e-9
	var below, above *float64
	for i := range steps {
		hand := carry.PerHand(steps[i], rigging)
		switch {
		case hand < light-slack:
			below = &steps[i]
		case hand <= heavy+slack:
			best := steps[i]
			for _, next := range steps[i:] { // the heaviest that still gives the band's lowest reps
				if carry.PerHand(next, rigging) <= heavy+slack {
					best = next
				}
			}
			return Fitted{Fit: Fits, Whole: best, Words: fmt.Sprintf("Fits: %s for %d–%d.", room.Words(best, s), low, high)}
		case above == nil:
			above = &steps[i]
		}
	}
	switch {
	case below != nil && above != nil:
		return Fitted{
			Fit:   Fits,
			Whole: *below,
			Words: fmt.Sprintf(
				"Between two steps: %s is light and %s heavy for %d–%d. Take the lighter one, with more reps.",
				room.Words(*below, s),
				room.Words(*above, s),
				low,
				high,
			),
		}
	case above != nil:
		return Fitted{
			Fit:     TooHeavy,
			Words:   fmt.Sprintf("Too heavy: the lightest is %s, %d reps ask for less.", room.Words(*above, s), low),
			Instead: []string{"two hands on one weight", "help with the free hand", "a set-up that needs more load for the same effort"},
		}
	}
	return Fitted{Fit: TooLight, Words: fmt.Sprintf("Too light: the heaviest is %s.", room.Words(*below, s)),
		Instead: []string{"a set-up with a longer lever or a less favourable angle", "slower", "to the limit, 45–60 s rest"}}
}
