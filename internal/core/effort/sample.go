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

// rig is what all samples of one set-up share.
type rig struct {
	body      arm.Body
	trunk     arm.Trunk
	down      arm.Vec // the world's down, unit vector in the trunk frame
	load      Load
	offset    float64 // m
	direction float64 // +1 flexion, −1 extension

	forearm float64 // m
	// The limb weights act like one weight of 1 N this far along the upper arm
	// and the forearm, N·m.
	alongUpper, alongFore float64
}

func newRig(body arm.Body, setup *Setup) rig {
	trunk := arm.LeanTrunk(setup.TrunkLean)
	r := rig{
		body: body, trunk: trunk, down: trunk.FromWorld(arm.Vec{0, -1, 0}), load: setup.Load,
		offset: setup.GripOffset, direction: setup.Direction(), forearm: body.Forearm(),
	}
	upperN, upperAt := body.UpperArmWeight()
	foreN, foreAt := body.ForearmWeight()
	handN := body.HandWeight()
	r.alongUpper = upperN*upperAt + (foreN+handN)*body.UpperArm()
	r.alongFore = foreN*foreAt + handN*body.Forearm()
	return r
}

// take fills one sample. It returns false when the hand is at the pulley.
func (s *sample) take(r *rig, p arm.Posture) bool {
	s.elbow, s.forearm = p.ElbowFlexion, p.ForearmRotation
	s.capacity = 0
	angles := p.Angles()
	var arms [arm.HeadCount][arm.Axes]float64
	angles.Measure(&s.lengths, &arms)
	for m, l := range s.lengths {
		q := &s.pulls[m]
		if m == int(arm.TricepsMedial) && l == s.lengths[arm.TricepsLateral] { // twins in this model
			s.active[m], s.passive[m] = s.active[m-1], s.passive[m-1]
		} else {
			s.active[m], s.passive[m] = arm.Active(l), arm.Passive(l)
		}
		q.force = s.active[m] * headPull[m]
		q.cost = headCost[m]
		for j, cm := range arms[m] {
			q.arms[j] = cm / 100
		}
		if q.arms[arm.Elbow]*r.direction > 0 {
			s.capacity += q.force * math.Abs(q.arms[arm.Elbow])
		}
	}
	limb := r.body.PlaceAt(&angles)
	limbRate := limb.PointRate(r.alongUpper, r.alongFore)
	s.limbs = resist(&limbRate, r.down)
	rate := limb.GripRate(r.forearm, r.offset)
	s.perUnit = [arm.Axes]float64{}
	switch r.load.Kind {
	case Free:
		s.perUnit = resist(&rate, r.down)
	case Cable:
		line := r.trunk.FromWorld(r.load.Pulley).Sub(limb.Grip(r.offset))
		far := line.Norm()
		if far < tooNear {
			return false
		}
		s.perUnit = resist(&rate, line.Scale(1/far))
	case Cam:
		s.perUnit[arm.Elbow] = r.direction
	}
	return true
}

// tooNear is how close the hand may come to the pulley, m.
const tooNear = 0.05

// headPull is each head's force at full activation and optimal length, N;
// headCost its weight w in the sharing, N·cm / 8000.
var headPull, headCost = func() (pull, cost [arm.HeadCount]float64) {
	for m := range arm.Heads {
		h := &arm.Heads[m]
		pull[m], cost[m] = h.Pull(), h.MaxForce*h.OptimalFibre/costScale
	}
	return
}()

// resist returns the torques muscles must supply against a force at a point:
// −F·∂p/∂q.
func resist(rate *arm.Rate, force arm.Vec) (out [arm.Axes]float64) {
	for j := range rate {
		out[j] = -force.Dot(rate[j])
	}
	return
}
