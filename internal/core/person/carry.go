package person

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// Carry is how a load is shared between the hands. Everywhere in the core a
// load in kg is what one hand carries; people read the whole.
type Carry string

// The ways of carrying.
const (
	EachHand   Carry = "each_hand"   // a dumbbell of its own in each working hand
	TwoHands   Carry = "two_hands"   // one weight, bar with its own mass, in both hands
	StackOne   Carry = "stack_one"   // a cable in one hand
	StackTwo   Carry = "stack_two"   // one cable in both hands
	BodyWeight Carry = "body_weight" // the body on two hands, with plates or assistance
)

// bodyWeight are the implements on which the body itself is lifted.
var bodyWeight = []movement.ImplementID{
	movement.DipBars,
	movement.DipMachine,
	movement.Band,
	movement.BenchEdge,
	movement.Ground,
	movement.PullBar,
	movement.BarFixed,
}

// CarryOf says how a set-up's load is carried.
func CarryOf(s movement.SetUp) Carry {
	switch {
	case slices.Contains(bodyWeight, s.Implement()):
		return BodyWeight
	case s.Pulls() == effort.Cable && s.Hands() == movement.Together:
		return StackTwo
	case s.Pulls() == effort.Cable:
		return StackOne
	case s.Hands() == movement.Together:
		return TwoHands
	}
	return EachHand
}

// liftedOfBody is the part of the body that hangs from the hands in a dip: all
// but forearms and hands (Winter's proportions, 2 · 0.022).
const liftedOfBody = 1 - 2*0.022

// Rigging is what a conversion needs to know of the place and the person.
type Rigging struct {
	PulleyRatio float64 // stack over pull at the hand; 1 where there is no pulley
	BodyMass    float64 // kg
}

// PerHand converts a whole, as people read it, to what one hand carries, kg.
// For body weight the whole is what is added (negative: assistance).
func (c Carry) PerHand(whole float64, r Rigging) float64 {
	switch c {
	case TwoHands:
		return whole / 2
	case StackOne:
		return whole / r.PulleyRatio
	case StackTwo:
		return whole / r.PulleyRatio / 2
	case BodyWeight:
		return (liftedOfBody*r.BodyMass + whole) / 2
	}
	return whole
}

// Whole is the inverse of PerHand.
func (c Carry) Whole(perHand float64, r Rigging) float64 {
	switch c {
	case TwoHands:
		return perHand * 2
	case StackOne:
		return perHand * r.PulleyRatio
	case StackTwo:
		return perHand * r.PulleyRatio * 2
	case BodyWeight:
		return perHand*2 - liftedOfBody*r.BodyMass
	}
	return perHand
}

// Words tells a whole load in kg as it is read on the floor: "bar 30 kg", "12 kg a
// hand" only where each hand has its own. Where a room is known, Room.Words tells it
// as it is marked there.
func (c Carry) Words(whole float64, s movement.SetUp) string {
	return c.tell(Kg(math.Abs(whole)), whole, s)
}

// Tell tells an amount that is written already, "14 → 10 kg"; whole says on which side
// of the body's weight it is.
func (c Carry) Tell(amount string, whole float64, s movement.SetUp) string {
	return c.tell(amount, whole, s)
}

func (c Carry) tell(amount string, whole float64, s movement.SetUp) string {
	switch c {
	case TwoHands:
		switch s.Implement() {
		case movement.Shared:
			return "one dumbbell " + amount
		case movement.Machine:
			return "stack " + amount
		}
		return "bar " + amount
	case StackOne, StackTwo:
		return "stack " + amount
	case BodyWeight:
		switch {
		case whole > 0.05:
			return "body weight + " + amount
		case whole < -0.05:
			return "body weight − " + amount
		}
		return "body weight"
	}
	if s.Hands() == movement.OneArm {
		return "dumbbell " + amount
	}
	return amount + " a hand"
}

// Label says what a whole load's number means, in its unit, for a field to type it in.
func (c Carry) Label(s movement.SetUp, u Unit) string {
	unit := string(u)
	switch c {
	case TwoHands:
		if s.Implement() == movement.Shared {
			return unit + ", the dumbbell"
		}
		return unit + ", whole bar"
	case StackOne, StackTwo:
		return unit + " on the stack"
	case BodyWeight:
		return unit + " added"
	}
	if s.Hands() == movement.OneArm {
		return unit + ", the dumbbell"
	}
	return unit + " a hand"
}

// Kg writes a mass without needless digits.
func Kg(x float64) string { return Amount(x, Kilogram) }

// Amount writes a number in a unit of marks without needless digits.
func Amount(x float64, u Unit) string {
	return strings.TrimSuffix(strings.TrimRight(fmt.Sprintf("%.2f", x), "0"), ".") + " " + string(u)
}
