package movement

import (
	"math"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
)

// Where the floor and the trunk are, m at a stature of 1.75 m.
const (
	trunkRadius   = 0.12  // how near the hand may come to the trunk's axis
	trunkAxis     = -0.20 // z of the axis; the shoulder is at 0
	trunkLength   = 0.50  // from the level of the shoulder down
	floorFloor    = 0.10
	floorPlank    = 0.70
	floorSeated   = 0.50 // and reclined, lying or chest down on a bench
	floorStanding = 0.93
	floorKneeling = 0.43
	pulleyLow     = 0.05 // the lowest a pulley is set above the floor where one sits or kneels
)

// FloorBelow is how far the floor lies below the shoulder, m.
func FloorBelow(p Position, lean, stature float64) float64 {
	scale := stature / arm.DefaultStature
	tall := trunkLength * math.Cos(arm.Radians(lean))
	switch p {
	case Plank:
		return floorPlank * scale
	case Standing, OnBars, Hanging:
		return (floorStanding + tall) * scale
	case Kneeling:
		return (floorKneeling + tall) * scale
	case OnFloor:
		return floorFloor * scale
	default:
		return (floorSeated + tall) * scale
	}
}

// Reach refuses, with an *effort.Refused, what the model itself would compute
// but nobody can take up: a hand or pulley below the floor, a hand inside the
// trunk, a posture out of reach. Graded movements are always within reach.
func (s SetUp) Reach(body arm.Body) error {
	if !s.Movement.Computed() {
		return nil
	}
	e := s.EffortFor(body.Stature)
	floor := FloorBelow(s.Position(), e.TrunkLean, body.Stature)
	if e.Load.Kind == effort.Cable && e.Load.Pulley[1] < -floor {
		return &effort.Refused{Reason: "the pulley would be below the floor"}
	}
	trunk := arm.LeanTrunk(e.TrunkLean)
	scale := body.Stature / arm.DefaultStature
	for i := range effort.Samples {
		p := e.From.Between(e.To, float64(i)/(effort.Samples-1))
		if err := p.Check(); err != nil {
			return &effort.Refused{Reason: err.Error()}
		}
		limb := body.Place(p)
		if trunk.ToWorld(limb.Hand)[1] < -floor {
			return &effort.Refused{Reason: "the hand would be below the floor"}
		}
		if trunkDistance(limb.Hand, scale) < trunkRadius*scale {
			return &effort.Refused{Reason: "the hand would be inside the trunk"}
		}
	}
	return nil
}

// trunkDistance is the distance of a point from the trunk's axis, trunk frame, m.
func trunkDistance(p arm.Vec, scale float64) float64 {
	along := min(max(-p[1], 0), trunkLength*scale)
	return p.Sub(arm.Vec{0, -along, trunkAxis * scale}).Norm()
}
