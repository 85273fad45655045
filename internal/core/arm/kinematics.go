package arm

import "math"

// Limb holds where the arm is in one posture: points in the trunk frame with
// the shoulder at the origin, m, and how each point moves with the four
// coordinates that muscles answer for.
type Limb struct {
	Elbow, Hand Vec
	Little      Vec // unit vector from the centre of the grip toward the little finger

	upperDir    Vec // unit, shoulder → elbow; the axis of shoulder rotation
	liftAxis    Vec // axis of shoulder elevation
	foreDir     Vec // unit, elbow → hand
	foreTurn    Vec // ∂foreDir/∂e
	littleBend  Vec // ∂Little/∂e
	littleTwist Vec // ∂Little/∂φ
}

// Place computes the kinematics of a posture:
// R = Ry(−ψ)·Rz(s)·Ry(ψ)·Ry(−ρ), elbow = R·(0,−Lu,0),
// hand = elbow + R·(Lf sin e, −Lf cos e, 0).
func (b Body) Place(p Posture) Limb {
	psi := Radians(p.ElevationPlane)
	r := rotY(-psi).mul(rotZ(Radians(p.ShoulderElevation))).mul(rotY(psi - Radians(p.ShoulderRotation)))
	sinE, cosE := math.Sincos(Radians(p.ElbowFlexion))
	sinF, cosF := math.Sincos(Radians(p.ForearmRotation))
	sinPsi, cosPsi := math.Sincos(psi)

	l := Limb{
		upperDir:    r.apply(Vec{0, -1, 0}),
		liftAxis:    Vec{-sinPsi, 0, cosPsi},
		foreDir:     r.apply(Vec{sinE, -cosE, 0}),
		foreTurn:    r.apply(Vec{cosE, sinE, 0}),
		Little:      r.apply(Vec{-cosF * cosE, -cosF * sinE, -sinF}),
		littleBend:  r.apply(Vec{cosF * sinE, -cosF * cosE, 0}),
		littleTwist: r.apply(Vec{sinF * cosE, sinF * sinE, -cosF}),
	}
	l.Elbow = l.upperDir.Scale(b.UpperArm())
	l.Hand = l.Elbow.Add(l.foreDir.Scale(b.Forearm()))
	return l
}

// Grip returns the point where a load acts: the hand moved offset metres toward
// the little finger.
func (l *Limb) Grip(offset float64) Vec { return l.Hand.Add(l.Little.Scale(offset)) }

// Rate holds the derivatives of a point with respect to e, s, ρ and φ, m/rad.
type Rate [4]Vec

// Indices of the four coordinates that muscles answer for, in Rate and in every
// array of generalised torques.
const (
	Elbow = iota
	Elevation
	Rotation
	Forearm
	Axes // how many there are
)

// GripRate returns the derivatives of Grip(offset).
func (l *Limb) GripRate(forearm, offset float64) Rate {
	p := l.Grip(offset)
	return Rate{
		Elbow:     l.foreTurn.Scale(forearm).Add(l.littleBend.Scale(offset)),
		Elevation: l.liftAxis.Cross(p),
		Rotation:  l.upperDir.Cross(p),
		Forearm:   l.littleTwist.Scale(offset),
	}
}

// ForearmRate returns the derivatives of the point at the given distance beyond
// the elbow, on the line to the hand.
func (l *Limb) ForearmRate(at float64) Rate {
	p := l.Elbow.Add(l.foreDir.Scale(at))
	return Rate{
		Elbow:     l.foreTurn.Scale(at),
		Elevation: l.liftAxis.Cross(p),
		Rotation:  l.upperDir.Cross(p),
	}
}

// UpperArmRate returns the derivatives of the point at the given distance below
// the shoulder, on the line to the elbow.
func (l *Limb) UpperArmRate(at float64) Rate {
	return Rate{Elevation: l.liftAxis.Cross(l.upperDir.Scale(at))}
}
