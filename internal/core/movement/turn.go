package movement

import (
	"math"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
)

// This file says what turning a setting does to the posture and the pull.

// Effort is what the computation is given: the base of the movement with every
// turned setting applied, for a body of the default stature. For graded movements it
// only places the figure.
func (s SetUp) Effort() effort.Setup { return s.EffortFor(arm.DefaultStature) }

// EffortFor is Effort for a stature, m: where one sits or kneels, a pulley that would be
// lower is set just above the floor.
func (s SetUp) EffortFor(stature float64) effort.Setup {
	e := s.Movement.base
	if v, ok := s.turned[Implement]; ok {
		inHand(&e, s.Movement.Action, ImplementID(v.Word))
	}
	if as := s.Movement.gripAs[s.word(Grip)]; as != nil {
		e.From.ForearmRotation, e.To.ForearmRotation = as.base.From.ForearmRotation, as.base.To.ForearmRotation
	}
	for _, k := range keyOrder {
		if v, ok := s.turned[k]; ok {
			if apply := appliers[k]; apply != nil {
				apply(s.Movement, &e, v.Number)
			}
		}
	}
	if s.hand != nil {
		e.From.ForearmRotation, e.To.ForearmRotation = *s.hand, *s.hand
	}
	if s.Movement.Action == Dip { // the upper arm's place follows from depth and lean
		e.From.ShoulderElevation = e.TrunkLean - 90 - s.Number(Depth)
	}
	if p, ok := s.turned[PositionKey]; ok && e.Load.Kind == effort.Cable {
		if _, own := s.turned[PulleyHeight]; !own {
			lowest := pulleyLow - FloorBelow(Position(p.Word), e.TrunkLean, stature)
			e.Load.Pulley[1] = max(e.Load.Pulley[1], math.Ceil(lowest*1e6)/1e6)
		}
	}
	return e
}

func (s SetUp) word(k Key) string {
	v, _ := s.Value(k)
	return v.Word
}

// How far a bar's own shape turns the hands, degrees from thumbs up.
const (
	fullTurn = 80.0 // a straight bar
	halfTurn = 45.0 // a cambered one, and a V-shaped one
)

// inHand turns the hands as another implement holds them.
func inHand(e *effort.Setup, action Action, i ImplementID) {
	turn := func(phi float64) float64 {
		way := 1.0
		if phi < -20 || phi <= 20 && action == Extension {
			way = -1
		}
		switch i {
		case BarStraight:
			return way * fullTurn
		case BarCambered:
			return way * halfTurn
		case BarV:
			return -halfTurn
		case BarParallel, Rope:
			return 0
		}
		return phi
	}
	e.From.ForearmRotation, e.To.ForearmRotation = turn(e.From.ForearmRotation), turn(e.To.ForearmRotation)
}

// Pulls is what pulls on the hand; no setting changes it.
func (s SetUp) Pulls() effort.LoadKind { return s.Movement.base.Load.Kind }

// appliers say what turning a setting does to the set-up. Settings without one
// change only the name, the room's needs or the figure.
var appliers = map[Key]func(m *Movement, e *effort.Setup, v float64){
	Bench: func(m *Movement, e *effort.Setup, v float64) {
		if m.Position == ChestSupported {
			e.TrunkLean = 90 - v
		} else {
			e.TrunkLean = v - 90
		}
		if m.ArmsKeep {
			moveShoulder(e, m.base.From.ShoulderElevation+e.TrunkLean-m.base.TrunkLean)
		}
	},
	PadSlope: func(_ *Movement, e *effort.Setup, v float64) { moveShoulder(e, 90-v) },
	Tilt:     func(_ *Movement, e *effort.Setup, v float64) { moveShoulder(e, 90+v) },
	Lean: func(m *Movement, e *effort.Setup, v float64) {
		e.TrunkLean = v
		if m.ArmsKeep {
			moveShoulder(e, m.base.From.ShoulderElevation+v-m.base.TrunkLean)
		}
	},
	GripWidth: func(m *Movement, e *effort.Setup, v float64) {
		if m.Computed() {
			moveRotation(e, e.From.ShoulderRotation+rotationPerBreadth*(v-m.Setting(GripWidth).Default.Number))
		}
	},
	PulleyDistance: func(_ *Movement, e *effort.Setup, v float64) {
		e.Load.Pulley[0] = math.Copysign(v, e.Load.Pulley[0])
	},
	PulleyHeight: func(_ *Movement, e *effort.Setup, v float64) { e.Load.Pulley[1] = v },
	GripOffset:   func(_ *Movement, e *effort.Setup, v float64) { e.GripOffset = v },
	ShoulderTo: func(m *Movement, e *effort.Setup, v float64) {
		if m.ArmsKeep { // arms that hang: counted from where they do
			v += e.TrunkLean - m.base.TrunkLean
		}
		e.To.ShoulderElevation = v
	},
	Rho:       func(_ *Movement, e *effort.Setup, v float64) { moveRotation(e, v) },
	PhiFrom:   func(_ *Movement, e *effort.Setup, v float64) { e.From.ForearmRotation = v },
	PhiTo:     func(_ *Movement, e *effort.Setup, v float64) { e.To.ForearmRotation = v },
	ElbowFrom: func(_ *Movement, e *effort.Setup, v float64) { e.From.ElbowFlexion = v },
	ElbowTo:   func(_ *Movement, e *effort.Setup, v float64) { e.To.ElbowFlexion = v },
}

// rotationPerBreadth is how far a bar grip one shoulder breadth wider turns the
// arms out, degrees.
const rotationPerBreadth = 50.0

// moveShoulder starts the upper arm at s and keeps the movement's own travel.
func moveShoulder(e *effort.Setup, s float64) {
	travel := e.To.ShoulderElevation - e.From.ShoulderElevation
	e.From.ShoulderElevation, e.To.ShoulderElevation = s, s+travel
}

func moveRotation(e *effort.Setup, rho float64) {
	travel := e.To.ShoulderRotation - e.From.ShoulderRotation
	e.From.ShoulderRotation, e.To.ShoulderRotation = rho, rho+travel
}
