package arm

import (
	"fmt"
	"math"
)

// Posture holds the five coordinates of the arm, in degrees.
type Posture struct {
	ShoulderElevation float64 `json:"shoulder_elevation" yaml:"shoulder_elevation"` // s: 0 along the trunk, positive forward and up, negative behind
	ElevationPlane    float64 `json:"elevation_plane" yaml:"elevation_plane"`       // ψ: 0 sagittal, positive outward
	ShoulderRotation  float64 `json:"shoulder_rotation" yaml:"shoulder_rotation"`   // ρ: positive external
	ElbowFlexion      float64 `json:"elbow_flexion" yaml:"elbow_flexion"`           // e: 0 straight
	ForearmRotation   float64 `json:"forearm_rotation" yaml:"forearm_rotation"`     // φ: 0 thumb forward, +80 supinated, −80 pronated
}

// Coordinate names one of the five coordinates, as it is spelt in data.
type Coordinate struct {
	Name     string
	Min, Max float64 // reachable range, degrees
	of       func(Posture) float64
}

// Coordinates lists the five coordinates with their reachable ranges.
var Coordinates = []Coordinate{
	{"shoulder_elevation", -60, 180, func(p Posture) float64 { return p.ShoulderElevation }},
	{"elevation_plane", -45, 100, func(p Posture) float64 { return p.ElevationPlane }},
	{"shoulder_rotation", -70, 80, func(p Posture) float64 { return p.ShoulderRotation }},
	{"elbow_flexion", 0, 150, func(p Posture) float64 { return p.ElbowFlexion }},
	{"forearm_rotation", -80, 80, func(p Posture) float64 { return p.ForearmRotation }},
}

// OutOfReach says which coordinate lies outside its reachable range.
type OutOfReach struct {
	Coordinate string
	Value      float64 // degrees
	Min, Max   float64 // degrees
}

func (e *OutOfReach) Error() string {
	return fmt.Sprintf("%s %g° is outside the reachable %g…%g°", e.Coordinate, e.Value, e.Min, e.Max)
}

// Check returns an *OutOfReach for the first coordinate outside its reachable
// range (not-a-number counts as outside), nil when the posture can be taken.
func (p Posture) Check() error {
	for _, c := range Coordinates {
		if v := c.of(p); !(v >= c.Min && v <= c.Max) {
			return &OutOfReach{c.Name, v, c.Min, c.Max}
		}
	}
	return nil
}

// Between returns the posture a fraction t (0…1) of the way from p to q, linear
// in all five coordinates.
func (p Posture) Between(q Posture, t float64) Posture {
	mix := func(a, b float64) float64 { return a + (b-a)*t }
	return Posture{
		ShoulderElevation: mix(p.ShoulderElevation, q.ShoulderElevation),
		ElevationPlane:    mix(p.ElevationPlane, q.ElevationPlane),
		ShoulderRotation:  mix(p.ShoulderRotation, q.ShoulderRotation),
		ElbowFlexion:      mix(p.ElbowFlexion, q.ElbowFlexion),
		ForearmRotation:   mix(p.ForearmRotation, q.ForearmRotation),
	}
}

// angle is an angle with its sine and cosine.
type angle struct{ rad, sin, cos float64 }

func angleOf(degrees float64) angle {
	rad := Radians(degrees)
	sin, cos := math.Sincos(rad)
	return angle{rad, sin, cos}
}

// Angles is a posture with the sines and cosines worked out, so that levers,
// lengths and moment arms of one posture share them.
type Angles struct{ shoulder, plane, rotation, elbow, forearm angle }

// Angles works out a posture's sines and cosines.
func (p Posture) Angles() Angles {
	return Angles{
		shoulder: angleOf(p.ShoulderElevation), plane: angleOf(p.ElevationPlane), rotation: angleOf(p.ShoulderRotation),
		elbow: angleOf(p.ElbowFlexion), forearm: angleOf(p.ForearmRotation),
	}
}

// Turn goes on from the posture was, of which a are the angles, to p: only what moves is
// worked out anew. It says whether the upper arm moved.
func (a *Angles) Turn(was, p *Posture) (upperArm bool) {
	if p.ShoulderElevation != was.ShoulderElevation {
		a.shoulder, upperArm = angleOf(p.ShoulderElevation), true
	}
	if p.ElevationPlane != was.ElevationPlane {
		a.plane, upperArm = angleOf(p.ElevationPlane), true
	}
	if p.ShoulderRotation != was.ShoulderRotation {
		a.rotation, upperArm = angleOf(p.ShoulderRotation), true
	}
	if p.ElbowFlexion != was.ElbowFlexion {
		a.elbow = angleOf(p.ElbowFlexion)
	}
	if p.ForearmRotation != was.ForearmRotation {
		a.forearm = angleOf(p.ForearmRotation)
	}
	return upperArm
}

// Radians converts an angle from degrees.
func Radians(degrees float64) float64 { return degrees * math.Pi / 180 }
