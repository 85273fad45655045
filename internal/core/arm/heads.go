package arm

import "math"

// HeadIndex numbers the seven heads in their fixed order.
type HeadIndex int

// The seven heads.
const (
	BicepsLong HeadIndex = iota
	BicepsShort
	Brachialis
	Brachioradialis
	TricepsLong
	TricepsLateral
	TricepsMedial
	HeadCount int = iota
)

// cosine is a moment-arm fit base + swing·cos(a − peak), cm.
type cosine struct {
	base, swing float64
	peak        angle
	from        angle   // where areas start
	fromSin     float64 // sin(from − peak)
}

// fit makes a moment-arm fit whose areas start at from; degrees and cm.
func fit(base, swing, peak, from float64) cosine {
	return cosine{base, swing, angleOf(peak), angleOf(from), math.Sin(Radians(from - peak))}
}

func (c *cosine) at(a angle) float64 {
	return c.base + c.swing*(a.cos*c.peak.cos+a.sin*c.peak.sin)
}

// area integrates the fit from its start to a, cm·rad.
func (c *cosine) area(a angle) float64 {
	return c.base*(a.rad-c.from.rad) + c.swing*(a.sin*c.peak.cos-a.cos*c.peak.sin-c.fromSin)
}

// Head is one muscle head: names, the published parameters and the moment-arm
// fits of this model.
type Head struct {
	ID, Code, Name string

	MaxForce     float64 // Fmax, N
	OptimalFibre float64 // Lo, cm
	Pennation    float64 // degrees
	refLength    float64 // l in the reference posture

	elbow    cosine
	shoulder cosine
	rotation float64 // shoulder rotation, constant, cm
	turner   turner

	// ShortBelow and LongFrom split the tension-weighted mean length into zones;
	// the edges belong to the outer zones.
	ShortBelow, LongFrom float64
}

// turner says how a head turns the forearm.
type turner int

const (
	turnsNot       turner = iota // ends on the ulna, or crosses only the elbow
	turnsPalmUp                  // both biceps heads
	turnsToNeutral               // brachioradialis
)

// Heads is the one table of muscle parameters. Sources: Fmax, Lo and pennation
// after Holzbaur, Murray & Delp 2005 (Annals of Biomedical Engineering 33);
// moment arms are smooth fits to the published ranges of Murray, Delp &
// Buchanan 1995 and Pigeon, Yahia & Feldman 1996; reference lengths and zone
// edges are this model's own.
var Heads = [HeadCount]Head{
	{ID: "biceps_long", Code: "BL", Name: "biceps, long head", MaxForce: 624.3, OptimalFibre: 11.57, refLength: 1.15,
		elbow: elbowFit(1.40, 3.10, 95), shoulder: shoulderFit(1.0, 0.8, 0), rotation: -0.2, turner: turnsPalmUp,
		ShortBelow: 0.82, LongFrom: 0.92},
	{ID: "biceps_short", Code: "BS", Name: "biceps, short head", MaxForce: 435.6, OptimalFibre: 13.21, refLength: 1.12,
		elbow: elbowFit(1.40, 3.10, 95), shoulder: shoulderFit(1.2, 1.8, 20), rotation: -0.6, turner: turnsPalmUp,
		ShortBelow: 0.80, LongFrom: 0.90},
	{ID: "brachialis", Code: "BA", Name: "brachialis", MaxForce: 987.3, OptimalFibre: 8.58, refLength: 1.10,
		elbow: elbowFit(0.884, 1.816, 100), ShortBelow: 0.86, LongFrom: 0.885},
	{ID: "brachioradialis", Code: "BD", Name: "brachioradialis", MaxForce: 261.3, OptimalFibre: 17.26, refLength: 1.15,
		elbow: elbowFit(2.855, 4.145, 108), turner: turnsToNeutral, ShortBelow: 0.86, LongFrom: 0.885},
	{ID: "triceps_long", Code: "TL", Name: "triceps, long head", MaxForce: 798.5, OptimalFibre: 13.40, Pennation: 12, refLength: 0.72,
		elbow: elbowFit(-1.414, -0.986, 45), shoulder: shoulderFit(-1.43, -1.17, 0), ShortBelow: 0.85, LongFrom: 1.05},
	{ID: "triceps_lateral", Code: "TA", Name: "triceps, lateral head", MaxForce: 624.3, OptimalFibre: 11.38, Pennation: 9, refLength: 0.75,
		elbow: elbowFit(-1.414, -0.986, 45), ShortBelow: 0.88, LongFrom: 0.95},
	{ID: "triceps_medial", Code: "TM", Name: "triceps, medial head", MaxForce: 624.3, OptimalFibre: 11.38, Pennation: 9, refLength: 0.75,
		elbow: elbowFit(-1.414, -0.986, 45), ShortBelow: 0.88, LongFrom: 0.95},
}

// HeadByID returns the index of a head, false when there is none of that id.
func HeadByID(id string) (HeadIndex, bool) {
	for i := range Heads {
		if Heads[i].ID == id {
			return HeadIndex(i), true
		}
	}
	return 0, false
}

// Flexor says whether the head bends the elbow.
func (h HeadIndex) Flexor() bool { return h <= Brachioradialis }

// Reference posture of the fibre lengths, degrees (s and ρ are 0).
const (
	refElbow   = 20.0
	refForearm = 80.0
)

func elbowFit(base, swing, peak float64) cosine    { return fit(base, swing, peak, refElbow) }
func shoulderFit(base, swing, peak float64) cosine { return fit(base, swing, peak, 0) }

// palmUp is the biceps' plain supination moment arm, 0.3 + 0.4·cos(φ + 20);
// toNeutral is the brachioradialis', −0.4·sin φ.
var (
	palmUp    = fit(0.3, 0.4, -20, refForearm)
	toNeutral = fit(0, 0.4, -90, refForearm)
)

// pronationLoss is the part of the biceps' elbow leverage lost in full
// pronation; pronationSpan is the travel from full supination to it, radians.
const pronationLoss = 0.22

var pronationSpan = Radians(160)

// leverage is the factor pronation leaves of the biceps' elbow moment arm:
// 1 in full supination, 1 − pronationLoss in full pronation.
func (a *Angles) leverage() float64 { return 1 - pronationLoss*(0.5-a.forearm.rad/pronationSpan) }

func (h *Head) momentArms(a *Angles) (r [Axes]float64) {
	r[Elbow] = h.elbow.at(a.elbow)
	r[Elevation] = h.shoulder.at(a.shoulder)
	r[Rotation] = h.rotation
	switch h.turner {
	case turnsPalmUp:
		r[Elbow] *= a.leverage()
		r[Forearm] = palmUp.at(a.forearm) + pronationLoss*h.elbow.area(a.elbow)/pronationSpan
	case turnsToNeutral:
		r[Forearm] = toNeutral.at(a.forearm)
	}
	return r
}

func (h *Head) length(a *Angles) float64 {
	bend := h.elbow.area(a.elbow)
	var turn float64
	switch h.turner {
	case turnsPalmUp:
		bend *= a.leverage()
		turn = palmUp.area(a.forearm)
	case turnsToNeutral:
		turn = toNeutral.area(a.forearm)
	}
	return h.refLength - (bend+h.shoulder.area(a.shoulder)+turn+h.rotation*a.rotation.rad)/h.OptimalFibre
}

// MomentArms returns a head's moment arms in cm about the elbow, shoulder
// elevation, shoulder rotation and the forearm (positive flexes, elevates,
// rotates externally, supinates).
//
// Lengths and moment arms come from one potential, so the leverage that
// pronation takes from the biceps at the elbow reappears as a gain of its
// supination moment arm, 0.22·∫₂₀ᵉ r_e de over 160° in radians.
func (h *Head) MomentArms(p Posture) [Axes]float64 {
	a := p.Angles()
	return h.momentArms(&a)
}

// Length returns the head's fibre length over its optimal length (rigid tendon).
func (h *Head) Length(p Posture) float64 {
	a := p.Angles()
	return h.length(&a)
}

// Measure fills the lengths and the moment arms (cm) of all heads at once, as
// Length and MomentArms give them.
func (a *Angles) Measure(lengths *[HeadCount]float64, arms *[HeadCount][Axes]float64) {
	leverage := a.leverage()
	palmUpAt, palmUpArea := palmUp.at(a.forearm), palmUp.area(a.forearm)
	neutralAt, neutralArea := toNeutral.at(a.forearm), toNeutral.area(a.forearm)
	for i := range Heads {
		h, r := &Heads[i], &arms[i]
		bend, turn := h.elbow.area(a.elbow), 0.0
		r[Elbow], r[Elevation], r[Rotation], r[Forearm] = h.elbow.at(a.elbow), h.shoulder.at(a.shoulder), h.rotation, 0
		switch h.turner {
		case turnsPalmUp:
			r[Elbow] *= leverage
			r[Forearm] = palmUpAt + pronationLoss*bend/pronationSpan
			bend *= leverage
			turn = palmUpArea
		case turnsToNeutral:
			r[Forearm], turn = neutralAt, neutralArea
		}
		lengths[i] = h.refLength - (bend+h.shoulder.area(a.shoulder)+turn+h.rotation*a.rotation.rad)/h.OptimalFibre
	}
}

// Active is the active force–length factor exp(−(l−1)²/0.45). Source: Thelen 2003.
func Active(l float64) float64 { return exp(-(l - 1) * (l - 1) / 0.45) }

// Passive is the passive force–length factor, 0 up to l = 1. Source: Thelen 2003.
func Passive(l float64) float64 {
	if l <= 1 {
		return 0
	}
	return (exp(5*(l-1)/0.6) - 1) / passiveScale
}

var passiveScale = math.Exp(5) - 1

// Pull is the force along the tendon at full activation and optimal length, N.
func (h *Head) Pull() float64 { return h.MaxForce * math.Cos(Radians(h.Pennation)) }

// Reach is the span of lengths a head takes over all postures with the arm in
// the sagittal plane (ψ = ρ = 0).
type Reach struct{ Shortest, Longest float64 }

// Stretch places a length in the reach: −1 shortest, +1 longest.
func (r Reach) Stretch(l float64) float64 {
	return (l - (r.Longest+r.Shortest)/2) / ((r.Longest - r.Shortest) / 2)
}

// Reaches holds each head's reach, computed once from the table.
var Reaches = computeReaches()

func computeReaches() [HeadCount]Reach {
	var out [HeadCount]Reach
	for i := range Heads {
		h := &Heads[i]
		// The shoulder's part and the elbow-and-forearm's part add up, so their
		// extremes can be found apart.
		liftLo, liftHi := math.Inf(1), math.Inf(-1)
		for s := -60.0; s <= 180; s += 0.25 {
			v := h.Length(Posture{ShoulderElevation: s, ElbowFlexion: refElbow, ForearmRotation: refForearm})
			liftLo, liftHi = math.Min(liftLo, v), math.Max(liftHi, v)
		}
		bendLo, bendHi := math.Inf(1), math.Inf(-1)
		for _, e := range []float64{0, 150} { // monotone in e: no elbow moment arm changes sign
			for f := -80.0; f <= 80; f += 0.25 {
				v := h.Length(Posture{ElbowFlexion: e, ForearmRotation: f})
				bendLo, bendHi = math.Min(bendLo, v), math.Max(bendHi, v)
			}
		}
		out[i] = Reach{liftLo + bendLo - h.refLength, liftHi + bendHi - h.refLength}
	}
	return out
}

// Zone names where in its reach a head is loaded.
type Zone string

// The three zones.
const (
	Short  Zone = "short"
	Middle Zone = "middle"
	Long   Zone = "long"
)

// Index numbers the zones: short 0, middle 1, long 2.
func (z Zone) Index() int {
	switch z {
	case Short:
		return 0
	case Long:
		return 2
	}
	return 1
}

// Zone places a length between the head's zone edges; the edges belong to the
// outer zones.
func (h *Head) Zone(l float64) Zone {
	switch {
	case l <= h.ShortBelow:
		return Short
	case l >= h.LongFrom:
		return Long
	}
	return Middle
}
