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
}

// DefaultBody is the body that the reference figures are computed for.
var DefaultBody = Body{DefaultStature, DefaultBodyMass}

// Check refuses bodies nobody has: stature outside 0.5…2.8 m, mass outside
// 10…400 kg.
func (b Body) Check() error {
	if !(b.Stature >= 0.5 && b.Stature <= 2.8) {
		return fmt.Errorf("stature %g m is outside 0.5…2.8 m", b.Stature)
	}
	if !(b.BodyMass >= 10 && b.BodyMass <= 400) {
		return fmt.Errorf("body_mass %g kg is outside 10…400 kg", b.BodyMass)
	}
	return nil
}

// UpperArm is the distance from shoulder to elbow, m.
func (b Body) UpperArm() float64 { return upperArmOfStature * b.Stature }

// Forearm is the distance from the elbow to the centre of the grip, m.
func (b Body) Forearm() float64 { return (forearmOfStature + gripOfStature) * b.Stature }

// UpperArmWeight returns the upper arm's weight (N) and its distance from the
// shoulder (m).
func (b Body) UpperArmWeight() (newton, at float64) {
	return upperArmMassOfBody * b.BodyMass * Gravity, upperArmCentreOfUpper * b.UpperArm()
}

// ForearmWeight returns the forearm's weight (N) and its distance from the
// elbow (m).
func (b Body) ForearmWeight() (newton, at float64) {
	return forearmMassOfBody * b.BodyMass * Gravity, forearmCentreOfLower * forearmOfStature * b.Stature
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

// mat is a rotation, row-major.
type mat [3]Vec

func (m *mat) apply(v Vec) Vec { return Vec{m[0].Dot(v), m[1].Dot(v), m[2].Dot(v)} }

func (m mat) mul(n mat) mat {
	var out mat
	for i := range 3 {
		for j := range 3 {
			out[i][j] = m[i][0]*n[0][j] + m[i][1]*n[1][j] + m[i][2]*n[2][j]
		}
	}
	return out
}

func rotY(radians float64) mat {
	s, c := math.Sincos(radians)
	return mat{{c, 0, s}, {0, 1, 0}, {-s, 0, c}}
}

func rotZ(radians float64) mat {
	s, c := math.Sincos(radians)
	return mat{{c, -s, 0}, {s, c, 0}, {0, 0, 1}}
}

// ToWorld turns a trunk-frame vector into the world frame for a trunk leaning
// forward by lean degrees (−90 supine, +90 prone).
func ToWorld(v Vec, lean float64) Vec {
	s, c := math.Sincos(Radians(-lean))
	return Vec{c*v[0] - s*v[1], s*v[0] + c*v[1], v[2]}
}
