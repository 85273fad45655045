package effort

import (
	"musculus/internal/core/arm"
)

// pull is what one head can do in one posture.
type pull struct {
	force float64           // along the tendon at full activation, N
	cost  float64           // w: bulkier muscles cost more, N·cm / 8000
	gain  float64           // force²/cost, N²
	arms  [arm.Axes]float64 // m
}

// Strength of the other muscles and supports, N·m. The elbow's is slack only;
// toward full supination the end stop of the joint takes the forearm's torque.
const (
	elbowSlack        = 0.5
	shoulderStrength  = 70.0
	shoulderOnSupport = 400.0
	rotatorStrength   = 35.0
	forearmStrength   = 8.0
	forearmEndStop    = 22.0
	costScale         = 8000.0
)

// supports returns the squares of the R_max of each coordinate, (N·m)².
func supports(forearm float64, armSupported bool) [arm.Axes]float64 {
	shoulder := shoulderStrength
	if armSupported {
		shoulder = shoulderOnSupport
	}
	u := min(max((forearm-40)/40, 0), 1)
	turn := forearmStrength + forearmEndStop*u*u*(3-2*u)
	return [arm.Axes]float64{
		arm.Elbow:     elbowSlack * elbowSlack,
		arm.Elevation: shoulder * shoulder,
		arm.Rotation:  rotatorStrength * rotatorStrength,
		arm.Forearm:   turn * turn,
	}
}

// sharer splits torques among the heads and the supports. It keeps the active
// set of the last posture, so that the next one starts from it.
type sharer struct {
	active [arm.HeadCount]bool
}

// split minimises Σ w·a² + Σ (R/R_max)² subject to
// Σ a·force·arm + R = torque on every axis and a ≥ 0, and returns a.
//
// torque is in N·m (the passive forces' part already taken off), support holds
// R_max². The optimum is a = max(0, force·(arm·λ)/cost), R = R_max²·λ; λ solves
// a piecewise linear system, so Newton's step from an active set is exact and
// the search ends when the set repeats.
func (s *sharer) split(pulls *[arm.HeadCount]pull, support, torque *[arm.Axes]float64) [arm.HeadCount]float64 {
	var lambda [arm.Axes]float64
	for step := 0; ; step++ {
		next := newton(pulls, support, torque, &s.active)
		if step >= 12 { // a cycle of active sets: shorten the step until the dual falls
			next = s.damp(pulls, support, torque, lambda, next)
		}
		same := true
		for m := range pulls {
			on := dot(&pulls[m].arms, &next) > 0
			if on != s.active[m] {
				same = false
			}
			s.active[m] = on
		}
		lambda = next
		if same || step >= 60 {
			break
		}
	}
	var a [arm.HeadCount]float64
	for m := range pulls {
		if s.active[m] {
			a[m] = pulls[m].force * dot(&pulls[m].arms, &lambda) / pulls[m].cost
		}
	}
	return a
}

func dot(a, b *[arm.Axes]float64) float64 {
	return a[0]*b[0] + a[1]*b[1] + a[2]*b[2] + a[3]*b[3]
}

// newton solves the linear system of one active set,
// (diag(support) + Σ_active force²/cost·arms·armsᵀ)·λ = torque, by L·D·Lᵀ without square
// roots. It is written out because it is asked for at every posture.
func newton(pulls *[arm.HeadCount]pull, support, torque *[arm.Axes]float64, active *[arm.HeadCount]bool) [arm.Axes]float64 {
	h00, h11, h22, h33 := support[0], support[1], support[2], support[3]
	var h10, h20, h21, h30, h31, h32 float64
	for m := range pulls {
		if !active[m] {
			continue
		}
		p := &pulls[m]
		a0, a1, a2, a3 := p.arms[0], p.arms[1], p.arms[2], p.arms[3]
		k := p.gain
		k0, k1, k2 := k*a0, k*a1, k*a2
		h00, h10, h20, h30 = h00+k0*a0, h10+k0*a1, h20+k0*a2, h30+k0*a3
		h11, h21, h31 = h11+k1*a1, h21+k1*a2, h31+k1*a3
		h22, h32, h33 = h22+k2*a2, h32+k2*a3, h33+k*a3*a3
	}
	d0 := 1 / h00
	l10, l20, l30 := h10*d0, h20*d0, h30*d0
	d1 := 1 / (h11 - l10*h10)
	e21, e31 := h21-l20*h10, h31-l30*h10
	l21, l31 := e21*d1, e31*d1
	d2 := 1 / (h22 - l20*h20 - l21*e21)
	e32 := h32 - l30*h20 - l31*e21
	l32 := e32 * d2
	d3 := 1 / (h33 - l30*h30 - l31*e31 - l32*e32)
	y0 := torque[0]
	y1 := torque[1] - l10*y0
	y2 := torque[2] - l20*y0 - l21*y1
	x3 := (torque[3] - l30*y0 - l31*y1 - l32*y2) * d3
	x2 := y2*d2 - l32*x3
	x1 := y1*d1 - l21*x2 - l31*x3
	return [arm.Axes]float64{y0*d0 - l10*x1 - l20*x2 - l30*x3, x1, x2, x3}
}

// dual is the convex function whose minimum is the wanted λ.
func dual(pulls *[arm.HeadCount]pull, support, torque, lambda *[arm.Axes]float64) float64 {
	v := -dot(torque, lambda)
	for j := range support {
		v += support[j] * lambda[j] * lambda[j] / 2
	}
	for m := range pulls {
		if r := dot(&pulls[m].arms, lambda); r > 0 {
			v += pulls[m].gain * r * r / 2
		}
	}
	return v
}

// damp returns the farthest halving of the step from → to that lowers the dual.
func (s *sharer) damp(pulls *[arm.HeadCount]pull, support, torque *[arm.Axes]float64, from, to [arm.Axes]float64) [arm.Axes]float64 {
	start := dual(pulls, support, torque, &from)
	for range 40 {
		if dual(pulls, support, torque, &to) < start {
			return to
		}
		for j := range to {
			to[j] = (from[j] + to[j]) / 2
		}
	}
	return from
}
