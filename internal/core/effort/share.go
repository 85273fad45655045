package effort

import (
	"math"

	"musculus/internal/core/arm"
)

// pull is what one head can do in one posture.
type pull struct {
	force float64           // along the tendon at full activation, N
	cost  float64           // w: bulkier muscles cost more, N·cm / 8000
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

// newton solves the linear system of one active set by Cholesky factorisation:
// (diag(support) + Σ_active force²/cost·arms·armsᵀ)·λ = torque.
func newton(pulls *[arm.HeadCount]pull, support, torque *[arm.Axes]float64, active *[arm.HeadCount]bool) [arm.Axes]float64 {
	var h [arm.Axes][arm.Axes]float64
	for j := range support {
		h[j][j] = support[j]
	}
	for m := range pulls {
		if !active[m] {
			continue
		}
		p := &pulls[m]
		k := p.force * p.force / p.cost
		for i := range arm.Axes {
			ki := k * p.arms[i]
			for j := 0; j <= i; j++ {
				h[i][j] += ki * p.arms[j]
			}
		}
	}
	// h = L·Lᵀ in the lower triangle, the diagonal kept inverted; then two
	// triangular solves.
	x := *torque
	for i := range arm.Axes {
		for j := 0; j < i; j++ {
			sum := h[i][j]
			for k := 0; k < j; k++ {
				sum -= h[i][k] * h[j][k]
			}
			h[i][j] = sum * h[j][j]
		}
		sum := h[i][i]
		for k := 0; k < i; k++ {
			sum -= h[i][k] * h[i][k]
			x[i] -= h[i][k] * x[k]
		}
		h[i][i] = 1 / math.Sqrt(sum)
		x[i] *= h[i][i]
	}
	for i := arm.Axes - 1; i >= 0; i-- {
		for k := i + 1; k < arm.Axes; k++ {
			x[i] -= h[k][i] * x[k]
		}
		x[i] *= h[i][i]
	}
	return x
}

// dual is the convex function whose minimum is the wanted λ.
func dual(pulls *[arm.HeadCount]pull, support, torque, lambda *[arm.Axes]float64) float64 {
	v := -dot(torque, lambda)
	for j := range support {
		v += support[j] * lambda[j] * lambda[j] / 2
	}
	for m := range pulls {
		if r := dot(&pulls[m].arms, lambda); r > 0 {
			v += pulls[m].force * pulls[m].force / pulls[m].cost * r * r / 2
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
