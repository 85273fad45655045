package arm

import (
	"fmt"
	"math"
)

// Gravity in m/s².
const Gravity = 9.81

// Proportions of the limbs. Source: Winter, Biomechanics and Motor Control of
// Human Movement; the grip allowance is ours.
const (
	upperArmOfStature     = 0.186
	forearmOfStature      = 0.146
	gripOfStature         = 0.040 // wrist to the centre of the grip, straight wrist
	breadthOfStature      = 0.23
	upperArmMassOfBody    = 0.028
	forearmMassOfBody     = 0.016
	handMassOfBody        = 0.006
	upperArmCentreOfUpper = 0.436
	forearmCentreOfLower  = 0.43
)

// Defaults of an unmeasured person.
const (
	DefaultStature  = 1.75 // m
	DefaultBodyMass = 75.0 // kg
)

// Body carries what the model uses of a person: levers and limb weights.
type Body struct {
	Stature  float64 // m
	BodyMass float64 // kg

	// Measured lengths, m; 0: not measured, taken from stature.
	MeasuredUpperArm float64 // shoulder to elbow
	MeasuredForearm  float64 // elbow to the centre of the grip, straight wrist
	MeasuredBreadth  float64 // between the shoulders
}

// DefaultBody is the body that the reference figures are computed for.
var DefaultBody = Body{Stature: DefaultStature, BodyMass: DefaultBodyMass}

// Check refuses bodies nobody has: stature outside 0.5…2.8 m, mass outside
// 10…400 kg, a measured arm segment outside 0.1…0.6 m or a shoulder breadth
// outside 0.2…0.8 m.
func (b Body) Check() error {
	if !(b.Stature >= 0.5 && b.Stature <= 2.8) {
		return fmt.Errorf("stature %g m is outside 0.5…2.8 m", b.Stature)
	}
	if !(b.BodyMass >= 10 && b.BodyMass <= 400) {
		return fmt.Errorf("body_mass %g kg is outside 10…400 kg", b.BodyMass)
	}
	for _, m := range []struct {
		name           string
		length, lo, hi float64
	}{{"upper arm", b.MeasuredUpperArm, 0.1, 0.6}, {"forearm", b.MeasuredForearm, 0.1, 0.6},
		{"shoulder breadth", b.MeasuredBreadth, 0.2, 0.8}} {
		if m.length != 0 && !(m.length >= m.lo && m.length <= m.hi) {
			return fmt.Errorf("%s %g m is outside %g…%g m", m.name, m.length, m.lo, m.hi)
		}
	}
	return nil
}

// UpperArm is the distance from shoulder to elbow, m.
func (b Body) UpperArm() float64 { return measuredOr(b.MeasuredUpperArm, upperArmOfStature*b.Stature) }

// Forearm is the distance from the elbow to the centre of the grip, m.
func (b Body) Forearm() float64 {
	return measuredOr(b.MeasuredForearm, (forearmOfStature+gripOfStature)*b.Stature)
}

// ShoulderBreadth is the distance between the shoulders, m.
func (b Body) ShoulderBreadth() float64 {
	return measuredOr(b.MeasuredBreadth, breadthOfStature*b.Stature)
}

func measuredOr(measured, otherwise float64) float64 {
	if measured > 0 {
		return measured
	}
	return otherwise
}

// UpperArmWeight returns the upper arm's weight (N) and its distance from the
// shoulder (m).
func (b Body) UpperArmWeight() (newton, at float64) {
	return upperArmMassOfBody * b.BodyMass * Gravity, upperArmCentreOfUpper * b.UpperArm()
}

// ForearmWeight returns the forearm's weight (N) and its distance from the
// elbow (m).
func (b Body) ForearmWeight() (newton, at float64) {
	return forearmMassOfBody * b.BodyMass * Gravity, forearmCentreOfLower * b.Forearm() * forearmOfStature / (forearmOfStature + gripOfStature)
}

// HandWeight returns the hand's weight (N), which acts at the grip.
func (b Body) HandWeight() float64 { return handMassOfBody * b.BodyMass * Gravity }

// Vec is a point or direction, m.
type Vec [3]float64

// Add returns v + w.
func (v Vec) Add(w Vec) Vec { return Vec{v[0] + w[0], v[1] + w[1], v[2] + w[2]} }

// Sub returns v − w.
func (v Vec) Sub(w Vec) Vec { return Vec{v[0] - w[0], v[1] - w[1], v[2] - w[2]} }

// Scale returns k·v.
func (v Vec) Scale(k float64) Vec { return Vec{k * v[0], k * v[1], k * v[2]} }

// Dot returns v·w.
func (v Vec) Dot(w Vec) float64 { return v[0]*w[0] + v[1]*w[1] + v[2]*w[2] }

// Cross returns v × w.
func (v Vec) Cross(w Vec) Vec {
	return Vec{v[1]*w[2] - v[2]*w[1], v[2]*w[0] - v[0]*w[2], v[0]*w[1] - v[1]*w[0]}
}

// Norm returns |v|.
func (v Vec) Norm() float64 { return math.Sqrt(v.Dot(v)) }

// Trunk is the lean of the trunk: it turns vectors between the trunk frame and
// the world.
type Trunk struct{ sin, cos float64 }

// LeanTrunk makes the trunk that leans forward by lean degrees (−90 supine, +90
// prone). World vector = Rz(−lean) · trunk vector.
func LeanTrunk(lean float64) Trunk {
	sin, cos := math.Sincos(Radians(lean))
	return Trunk{sin, cos}
}

// ToWorld turns a trunk-frame vector into the world frame.
func (t Trunk) ToWorld(v Vec) Vec { return Vec{t.cos*v[0] + t.sin*v[1], t.cos*v[1] - t.sin*v[0], v[2]} }

// FromWorld turns a world vector into the trunk frame.
func (t Trunk) FromWorld(v Vec) Vec {
	return Vec{t.cos*v[0] - t.sin*v[1], t.cos*v[1] + t.sin*v[0], v[2]}
}
