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
	down      arm.Vec // the world's down, unit vector in the trunk frame
	load      Load
	pulley    arm.Vec // in the trunk frame
	offset    float64 // m
	direction float64 // +1 flexion, −1 extension

	// Where the last sample was: what does not move from one to the next is kept.
	posture arm.Posture
	angles  arm.Angles
	frame   arm.Frame

	forearm float64 // m
	// The limb weights act like one weight of 1 N this far along the upper arm
	// and the forearm, N·m.
	alongUpper, alongFore float64
}

func newRig(body arm.Body, setup *Setup) rig {
	trunk := arm.LeanTrunk(setup.TrunkLean)
	r := rig{
		body: body, down: trunk.FromWorld(arm.Vec{0, -1, 0}), load: setup.Load,
		offset: setup.GripOffset, direction: setup.Direction(), forearm: body.Forearm(),
	}
	r.posture, r.pulley = setup.From, trunk.FromWorld(setup.Load.Pulley)
	r.angles = r.posture.Angles()
	r.frame = body.Frame(&r.angles)
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
	if r.angles.Turn(&r.posture, &p) {
		r.frame = r.body.Frame(&r.angles)
	}
	r.posture = p
	var arms [arm.HeadCount][arm.Axes]float64
	r.angles.Measure(&s.lengths, &arms)
	for m, l := range s.lengths {
		q := &s.pulls[m]
		if m == int(arm.TricepsMedial) && l == s.lengths[arm.TricepsLateral] { // twins in this model
			s.active[m], s.passive[m] = s.active[m-1], s.passive[m-1]
		} else {
			s.active[m], s.passive[m] = arm.Active(l), arm.Passive(l)
		}
		q.force = s.active[m] * headPull[m]
		q.cost, q.gain = headCost[m], q.force*q.force/headCost[m]
		for j, cm := range arms[m] {
			q.arms[j] = cm * perCm
		}
		if q.arms[arm.Elbow]*r.direction > 0 {
			s.capacity += q.force * math.Abs(q.arms[arm.Elbow])
		}
	}
	limb := r.frame.Place(&r.angles, r.offset != 0)
	s.limbs = limb.PointTorques(r.alongUpper, r.alongFore, r.down)
	s.perUnit = [arm.Axes]float64{}
	switch r.load.Kind {
	case Free:
		s.perUnit = limb.GripTorques(r.forearm, r.offset, r.down)
	case Cable:
		line := r.pulley.Sub(limb.Grip(r.offset))
		far := line.Norm()
		if far < tooNear {
			return false
		}
		s.perUnit = limb.GripTorques(r.forearm, r.offset, line.Scale(1/far))
	case Cam:
		s.perUnit[arm.Elbow] = r.direction
	}
	return true
}

// perCm is a centimetre in metres.
const perCm = 0.01

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
