package effort

import (
	"math"

	"musculus/internal/core/arm"
)

// Samples is how many evenly spaced postures a range is cut into.
const Samples = 41

// Effort levels, as fractions of isometric capacity.
const (
	WorkingEffort = 0.75              // the hardest sample at the working load
	IdleBelow     = WorkingEffort / 4 // under this a stretch of the range is idle
)

// sample is one posture of the range with everything the rest needs of it.
type sample struct {
	elbow    float64 // degrees
	forearm  float64 // degrees
	lengths  [arm.HeadCount]float64
	active   [arm.HeadCount]float64 // f_L
	passive  [arm.HeadCount]float64 // f_P
	pulls    [arm.HeadCount]pull
	capacity float64           // of the agonists at the elbow, N·m
	limbs    [arm.Axes]float64 // torque the limb weights ask for, N·m
	perUnit  [arm.Axes]float64 // torque one unit of load asks for, N·m
}

// take fills one sample. It returns false when the hand is at the pulley.
func (s *sample) take(body arm.Body, setup *Setup, p arm.Posture, direction float64) bool {
	s.elbow, s.forearm = p.ElbowFlexion, p.ForearmRotation
	s.capacity = 0
	for m := range arm.Heads {
		h := &arm.Heads[m]
		l := h.Length(p)
		arms := h.MomentArms(p)
		s.lengths[m], s.active[m], s.passive[m] = l, arm.Active(l), arm.Passive(l)
		q := &s.pulls[m]
		q.force = s.active[m] * headPull[m]
		q.cost = h.MaxForce * h.OptimalFibre / costScale
		for j, cm := range arms {
			q.arms[j] = cm / 100
		}
		if q.arms[arm.Elbow]*direction > 0 {
			s.capacity += q.force * math.Abs(q.arms[arm.Elbow])
		}
	}
	limb := body.Place(p)
	s.limbs = limbTorque(body, &limb, setup.TrunkLean)

	grip := limb.Grip(setup.GripOffset)
	rate := limb.GripRate(body.Forearm(), setup.GripOffset)
	s.perUnit = [arm.Axes]float64{}
	switch setup.Load.Kind {
	case Free:
		s.perUnit = resist(&rate, trunkDown(setup.TrunkLean))
	case Cable:
		line := setup.Load.Pulley.Sub(arm.ToWorld(grip, setup.TrunkLean))
		far := line.Norm()
		if far < tooNear {
			return false
		}
		s.perUnit = resist(&rate, arm.ToWorld(line.Scale(1/far), -setup.TrunkLean))
	case Cam:
		s.perUnit[arm.Elbow] = direction
	}
	return true
}

// tooNear is how close the hand may come to the pulley, m.
const tooNear = 0.05

var headPull = func() (out [arm.HeadCount]float64) {
	for m := range arm.Heads {
		out[m] = arm.Heads[m].Pull()
	}
	return
}()

// trunkDown is the world's down, as a unit vector in the trunk frame.
func trunkDown(lean float64) arm.Vec { return arm.ToWorld(arm.Vec{0, -1, 0}, -lean) }

// resist returns the torques muscles must supply against a force at a point:
// −F·∂p/∂q.
func resist(rate *arm.Rate, force arm.Vec) (out [arm.Axes]float64) {
	for j := range rate {
		out[j] = -force.Dot(rate[j])
	}
	return
}

// limbTorque is ∂V/∂q of the limb weights, N·m.
func limbTorque(body arm.Body, limb *arm.Limb, lean float64) (out [arm.Axes]float64) {
	down := trunkDown(lean)
	upperN, upperAt := body.UpperArmWeight()
	foreN, foreAt := body.ForearmWeight()
	upper, fore, hand := limb.UpperArmRate(upperAt), limb.ForearmRate(foreAt), limb.ForearmRate(body.Forearm())
	for j := range out {
		out[j] = -down.Dot(upper[j])*upperN - down.Dot(fore[j])*foreN - down.Dot(hand[j])*body.HandWeight()
	}
	return
}
