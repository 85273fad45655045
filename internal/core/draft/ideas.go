package draft

import (
	"slices"

	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
)

// Idea is a kind of set-up that a week should have where its muscle group is built.
type Idea string

// The ideas.
const (
	Behind    Idea = "behind"     // a curl with the arm behind the body
	InFront   Idea = "in_front"   // a curl with the arm in front
	OtherHand Idea = "other_hand" // a curl thumbs up or palms down
	Overhead  Idea = "overhead"   // an extension overhead
	AtSide    Idea = "at_side"    // an extension at the side or behind
	PressDip  Idea = "press"      // a press or a dip
)

// ideaOf is an idea with the group it is of and its words.
type ideaOf struct {
	id    Idea
	group string
	words string
}

var ideas = []ideaOf{
	{Behind, plan.Flexors, "a curl with the arm behind the body"},
	{InFront, plan.Flexors, "a curl with the arm in front"},
	{OtherHand, plan.Flexors, "a curl thumbs up or palms down"},
	{Overhead, plan.Extensors, "an extension overhead"},
	{AtSide, plan.Extensors, "an extension at the side or behind"},
	{PressDip, plan.Extensors, "a press or dip"},
}

// Words tells an idea.
func (i Idea) Words() string {
	for k := range ideas {
		if ideas[k].id == i {
			return ideas[k].words
		}
	}
	return string(i)
}

func known(list []Idea) bool {
	for _, i := range list {
		if !slices.ContainsFunc(ideas, func(o ideaOf) bool { return o.id == i }) {
			return false
		}
	}
	return true
}

// Where the upper arm and the hand are on the average of a movement, degrees.
const (
	behindUnder    = -5.0
	inFrontOver    = 25.0
	overheadOver   = 130.0
	sideUnder      = 45.0
	otherHandUnder = 30.0
)

// ideasOf says which ideas a set-up is.
func ideasOf(s movement.SetUp) (out []Idea) {
	e := s.Effort()
	shoulder := (e.From.ShoulderElevation + e.To.ShoulderElevation) / 2
	turn := (e.From.ForearmRotation + e.To.ForearmRotation) / 2
	add := func(is bool, idea Idea) {
		if is {
			out = append(out, idea)
		}
	}
	switch s.Movement.Action {
	case movement.Flexion:
		add(shoulder < behindUnder, Behind)
		add(shoulder > inFrontOver, InFront)
		add(turn < otherHandUnder, OtherHand)
	case movement.Extension:
		add(shoulder > overheadOver, Overhead)
		add(shoulder < sideUnder, AtSide)
	case movement.Press, movement.Dip, movement.PushUp:
		add(true, PressDip)
	}
	return out
}
