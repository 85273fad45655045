package fitting

import (
	"fmt"
	"math"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// PadRange is the elbow range on a pad of a slope (degrees from the floor) by
// the forearm rule "level at the bottom, upright at the top", with an upright
// trunk, limited by the joint.
func PadRange(slope float64) (from, to float64) {
	return min(max(slope, 0), 150), min(slope+90, 150)
}

// PadShoulder is the shoulder angle on a pad of a slope with an upright trunk.
func PadShoulder(slope float64) float64 { return 90 - slope }

// BenchShoulder is the shoulder elevation of arms that hang straight down from a
// bench at an angle from the floor, on the back or on the chest.
func BenchShoulder(bench float64, onChest bool) float64 {
	if onChest {
		return 90 - bench
	}
	return bench - 90
}

// GripWords names a grip width given in shoulder breadths; the centimetres are
// for a body's.
func GripWords(width float64, body arm.Body) string {
	word := "shoulder-wide"
	switch {
	case width <= 0.7:
		word = "very narrow"
	case width <= 0.85:
		word = "narrow"
	case width >= 1.5:
		word = "very wide"
	case width >= 1.25:
		word = "wide"
	}
	return fmt.Sprintf("%s, %.0f cm between the hands", word, width*body.ShoulderBreadth()*100)
}

// Pulley is where to stand and where to put a pulley.
type Pulley struct {
	Distance, Height float64 // m from the shoulder
	Demand           float64 // over capacity at the wanted elbow angle; 0.75 is the hardest there is
}

// Pull is how hard a cable should pull at an elbow angle, as a part of the
// hardest a set is taken to.
type Pull float64

// The pulls that can be asked for.
const (
	FullPull Pull = 1
	HalfPull Pull = 0.5
)

// hardestDemand is what every profile's hardest sample asks of capacity.
const hardestDemand = 0.75

// BestPulley searches distance and height settings of a cable set-up for the
// wanted pull at an elbow angle, the least change of the present ones among
// equals; false when the movement has neither setting or nothing can be done.
func BestPulley(s movement.SetUp, y *effort.Yardstick, elbow float64, want Pull) (Pulley, bool) {
	m := s.Movement
	values := func(k movement.Key) []movement.Value {
		if setting := m.Setting(k); setting != nil {
			return setting.Values()
		}
		return []movement.Value{{}}
	}
	if m.Setting(movement.PulleyDistance) == nil && m.Setting(movement.PulleyHeight) == nil {
		return Pulley{}, false
	}
	var best Pulley
	miss, found := math.Inf(1), false
	now := s.Effort().Load.Pulley
	for _, d := range values(movement.PulleyDistance) {
		for _, h := range values(movement.PulleyHeight) {
			try := s
			var err error
			if m.Setting(movement.PulleyDistance) != nil {
				if try, err = try.With(movement.PulleyDistance, d); err != nil {
					continue
				}
			}
			if m.Setting(movement.PulleyHeight) != nil {
				if try, err = try.With(movement.PulleyHeight, h); err != nil {
					continue
				}
			}
			p, err := try.Profile(y)
			if err != nil {
				continue
			}
			demand, at := DemandAt(p, elbow), try.Effort().Load.Pulley
			// A hundredth of the wanted pull is worth a metre of moving things.
			off := math.Abs(demand-float64(want)*hardestDemand) + 0.01*hardestDemand*(math.Abs(at[0]-now[0])+math.Abs(at[1]-now[1]))
			if off < miss {
				miss, best, found = off, Pulley{math.Abs(at[0]), at[1], demand}, true
			}
		}
	}
	return best, found
}

// DemandAt interpolates a profile's demand at an elbow angle; outside the range
// it is that of the nearer end.
func DemandAt(p *effort.Profile, elbow float64) float64 {
	from, to := p.Elbow[0], p.Elbow[effort.Samples-1]
	at := min(max((elbow-from)/(to-from), 0), 1) * (effort.Samples - 1)
	i := min(int(at), effort.Samples-2)
	return p.Curve[i] + (at-float64(i))*(p.Curve[i+1]-p.Curve[i])
}

// LeastTilt is the least tilt of the arms past upright, in the setting's steps,
// at which a lying extension is nowhere idle; false when no step is enough.
func LeastTilt(s movement.SetUp, y *effort.Yardstick) (float64, bool) {
	setting := s.Movement.Setting(movement.Tilt)
	if setting == nil {
		return 0, false
	}
	for _, tilt := range setting.Steps() {
		if try, err := s.With(movement.Tilt, movement.Num(tilt)); err == nil {
			if p, err := try.Profile(y); err == nil && len(p.Idle) == 0 {
				return tilt, true
			}
		}
	}
	return 0, false
}

// OffsetWords says what weight off the middle of the handle does to a turn of
// the forearm from one angle to another (degrees, supinated positive): it
// resists the part in which it rises and helps where it falls.
func OffsetWords(offset, from, to float64) string {
	if offset == 0 || from == to {
		return "The weight is in the middle: the turn itself is not loaded."
	}
	side := "little-finger"
	if offset < 0 {
		side = "thumb"
	}
	// The end toward the little finger is highest with the palm up, the other one
	// with the thumb up in the first part and then falls.
	turningUp := to > from
	resists := offset > 0 == turningUp
	if offset < 0 && turningUp && from < 0 && to > 0 {
		return fmt.Sprintf("Weight on the %s side resists the turn up to thumb-up and helps after it.", side)
	}
	if resists {
		return fmt.Sprintf("Weight on the %s side resists this turn.", side)
	}
	return fmt.Sprintf("Weight on the %s side helps this turn.", side)
}

// PressParts are the top parts of a press that pins are put for.
var PressParts = []float64{0.5, 1.0 / 3, 0.25}

// PinHeight is where the pins go for the top part of a press: bar travel from
// chest to lock-out is two arm segments less the chest's height; part is how much
// of the travel is left above the pins (0…1). m above the chest.
func PinHeight(body arm.Body, part float64) float64 {
	travel := (body.UpperArm() + body.Forearm()) - 0.25*body.Stature/arm.DefaultStature
	return math.Round(travel*(1-min(max(part, 0), 1))*20) / 20
}
