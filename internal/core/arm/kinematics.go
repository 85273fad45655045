package arm

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
	a := p.Angles()
	return b.PlaceAt(&a)
}

// PlaceAt is Place for angles worked out before.
func (b Body) PlaceAt(a *Angles) Limb {
	outward := func(x, y, z float64) Vec { // Ry(−ψ)
		return Vec{x*a.plane.cos - z*a.plane.sin, y, x*a.plane.sin + z*a.plane.cos}
	}
	// The columns of R; turn is ψ − ρ.
	s, e, f := &a.shoulder, &a.elbow, &a.forearm
	turnSin := a.plane.sin*a.rotation.cos - a.plane.cos*a.rotation.sin
	turnCos := a.plane.cos*a.rotation.cos + a.plane.sin*a.rotation.sin
	x := outward(s.cos*turnCos, s.sin*turnCos, -turnSin)
	y := outward(-s.sin, s.cos, 0)
	z := outward(s.cos*turnSin, s.sin*turnSin, turnCos)

	l := Limb{
		upperDir: y.Scale(-1),
		liftAxis: Vec{-a.plane.sin, 0, a.plane.cos},
		foreDir:  x.Scale(e.sin).Sub(y.Scale(e.cos)),
		foreTurn: x.Scale(e.cos).Add(y.Scale(e.sin)),
	}
	l.Little = l.foreTurn.Scale(-f.cos).Sub(z.Scale(f.sin))
	l.littleBend = l.foreDir.Scale(f.cos)
	l.littleTwist = l.foreTurn.Scale(f.sin).Sub(z.Scale(f.cos))
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

// PointRate returns the derivatives of the point that lies upper metres along
// the upper arm and from there fore metres along the forearm. It is linear in
// both, so a weighted sum of points can be differentiated at once.
func (l *Limb) PointRate(upper, fore float64) Rate {
	p := l.upperDir.Scale(upper).Add(l.foreDir.Scale(fore))
	return Rate{
		Elbow:     l.foreTurn.Scale(fore),
		Elevation: l.liftAxis.Cross(p),
		Rotation:  l.upperDir.Cross(p),
	}
}
