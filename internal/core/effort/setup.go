package effort

import (
	"fmt"
	"math"

	"musculus/internal/core/arm"
)

// LoadKind says what pulls on the hand.
type LoadKind string

// The computed kinds of load.
const (
	Free  LoadKind = "free"  // a weight, straight down
	Cable LoadKind = "cable" // constant tension toward the pulley
	Cam   LoadKind = "cam"   // constant torque at the elbow, against the movement
)

// Load is the one external load on the hand.
type Load struct {
	Kind   LoadKind
	Pulley arm.Vec // m from the shoulder, world frame; cable only
}

// Tempo is eccentric, hold at the start, concentric, hold at the end, in
// seconds. The zero Tempo means none was given.
type Tempo [4]float64

// Total is the length of one repetition, s.
func (t Tempo) Total() float64 { return t[0] + t[1] + t[2] + t[3] }

// Setup is everything the computation needs of a movement with every setting
// fixed: the lifting phase goes from From to To.
type Setup struct {
	TrunkLean    float64 // degrees: + forward, −90 supine, +90 prone
	From, To     arm.Posture
	Load         Load
	GripOffset   float64 // m, + = more weight on the little-finger side
	ArmSupported bool    // the upper arm rests on a pad, thigh or bench
	Tempo        Tempo
}

// Direction is +1 for a flexion, −1 for an extension, 0 when the elbow angle
// is the same at both ends.
func (s *Setup) Direction() float64 {
	switch d := s.To.ElbowFlexion - s.From.ElbowFlexion; {
	case d > 0:
		return 1
	case d < 0:
		return -1
	}
	return 0
}

// Refused is why a set-up has no profile.
type Refused struct{ Reason string }

func (r *Refused) Error() string { return r.Reason }

func refuse(format string, args ...any) error { return &Refused{fmt.Sprintf(format, args...)} }

// mostNumber bounds angles and lengths far beyond anything that makes sense.
const mostNumber = 1e6

// check refuses what cannot be computed before any work is done.
func (s *Setup) check() error {
	for _, end := range []struct {
		name string
		p    arm.Posture
	}{{"from", s.From}, {"to", s.To}} {
		if err := end.p.Check(); err != nil {
			return refuse("%s: %v", end.name, err)
		}
	}
	if s.Direction() == 0 {
		return refuse("the elbow angle is the same at both ends")
	}
	// Numbers that are none, or too huge to reckon with.
	for _, x := range [...]float64{s.TrunkLean, s.GripOffset, s.Load.Pulley[0], s.Load.Pulley[1], s.Load.Pulley[2]} {
		if !(math.Abs(x) <= mostNumber) {
			return refuse("trunk_lean, grip_offset or pulley: %g is no place to compute with", x)
		}
	}
	for _, seconds := range s.Tempo {
		if !(seconds >= 0 && seconds <= 600) {
			return refuse("tempo %g s is outside 0…600 s", seconds)
		}
	}
	switch s.Load.Kind {
	case Free, Cable, Cam:
		return nil
	}
	return refuse("load kind %q is not free, cable or cam", s.Load.Kind)
}
