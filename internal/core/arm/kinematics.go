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
	f := b.Frame(a)
	return f.Place(a, true)
}

// Frame is the upper arm in a posture, with the length of what hangs on it: what stays the
// same while only elbow and forearm move.
type Frame struct {
	x, y, z, liftAxis, upperDir, elbow Vec
	forearm                            float64
}

// Frame places the upper arm.
func (b Body) Frame(a *Angles) Frame {
	outward := func(x, y, z float64) Vec { // Ry(−ψ)
		return Vec{x*a.plane.cos - z*a.plane.sin, y, x*a.plane.sin + z*a.plane.cos}
	}
	// The columns of R; turn is ψ − ρ.
	s := &a.shoulder
	turnSin := a.plane.sin*a.rotation.cos - a.plane.cos*a.rotation.sin
	turnCos := a.plane.cos*a.rotation.cos + a.plane.sin*a.rotation.sin
	f := Frame{
		x:        outward(s.cos*turnCos, s.sin*turnCos, -turnSin),
		y:        outward(-s.sin, s.cos, 0),
		z:        outward(s.cos*turnSin, s.sin*turnSin, turnCos),
		liftAxis: Vec{-a.plane.sin, 0, a.plane.cos},
		forearm:  b.Forearm(),
	}
	f.upperDir = f.y.Scale(-1)
	f.elbow = f.upperDir.Scale(b.UpperArm())
	return f
}

// Place hangs forearm and hand on the upper arm, whose angles a must have; the direction of
// the little finger is only worked out where turned asks for it.
func (r *Frame) Place(a *Angles, turned bool) Limb {
	e, f := &a.elbow, &a.forearm
	l := Limb{
		upperDir: r.upperDir,
		liftAxis: r.liftAxis,
		foreDir:  r.x.Scale(e.sin).Sub(r.y.Scale(e.cos)),
		foreTurn: r.x.Scale(e.cos).Add(r.y.Scale(e.sin)),
	}
	if turned {
		l.Little = l.foreTurn.Scale(-f.cos).Sub(r.z.Scale(f.sin))
		l.littleBend = l.foreDir.Scale(f.cos)
		l.littleTwist = l.foreTurn.Scale(f.sin).Sub(r.z.Scale(f.cos))
	}
	l.Elbow = r.elbow
	l.Hand = l.Elbow.Add(l.foreDir.Scale(r.forearm))
	return l
}

// Grip returns the point where a load acts: the hand moved offset metres toward
// the little finger.
func (l *Limb) Grip(offset float64) Vec { return l.Hand.Add(l.Little.Scale(offset)) }

// Indices of the four coordinates that muscles answer for, e, s, ρ and φ, in every array of
// generalised torques.
const (
	Elbow = iota
	Elevation
	Rotation
	Forearm
	Axes // how many there are
)

// GripTorques are the torques that muscles must supply against a force at p = Grip(offset),
// −F·∂p/∂q, in N·m for a force in N.
func (l *Limb) GripTorques(forearm, offset float64, force Vec) (out [Axes]float64) {
	p := l.Hand
	out[Elbow] = -forearm * l.foreTurn.Dot(force)
	if offset != 0 {
		p = l.Grip(offset)
		out[Elbow] -= offset * l.littleBend.Dot(force)
		out[Forearm] = -offset * l.littleTwist.Dot(force)
	}
	m := p.Cross(force)
	out[Elevation], out[Rotation] = -l.liftAxis.Dot(m), -l.upperDir.Dot(m)
	return out
}

// PointTorques are the same for the point that lies upper metres along the upper arm and from
// there fore metres along the forearm. They are linear in both, so that a weighted sum of
// points can be asked for at once.
func (l *Limb) PointTorques(upper, fore float64, force Vec) (out [Axes]float64) {
	m := l.upperDir.Scale(upper).Add(l.foreDir.Scale(fore)).Cross(force)
	out[Elbow] = -fore * l.foreTurn.Dot(force)
	out[Elevation], out[Rotation] = -l.liftAxis.Dot(m), -l.upperDir.Dot(m)
	return out
}
