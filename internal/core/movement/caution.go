package movement

import (
	"slices"
	"strings"

	"musculus/internal/core/effort"
)

// Caution is what keeps somebody safe in the set-ups it is about: those that meet
// every condition it names.
type Caution struct {
	Kind    string        `yaml:"kind"` // one of cautionKinds
	Text    string        `yaml:"text"`
	Of      []string      `yaml:"of"`      // movements; none: all
	Not     []string      `yaml:"not"`     // movements it is not about
	Holding []ImplementID `yaml:"holding"` // implements; none: all
	Load    string        `yaml:"load"`    // free, cable, body …; "": all
	Anchor  string        `yaml:"anchor"`  // what holds the upper arm; "": whatever does
}

// cautionKinds in the order they are told: how to get out, what to take care of.
var cautionKinds = []string{"out", "care"}

// about says whether a caution is about a set-up.
func (c *Caution) about(s SetUp) bool {
	m := s.Movement
	return (len(c.Of) == 0 || slices.Contains(c.Of, m.ID)) && !slices.Contains(c.Not, m.ID) &&
		(len(c.Holding) == 0 || slices.Contains(c.Holding, s.Implement())) &&
		(c.Load == "" || effort.LoadKind(c.Load) == m.base.Load.Kind) &&
		(c.Anchor == "" || c.Anchor == m.Anchor)
}

// Cautions says what keeps somebody safe in a set-up, a sentence each: whether it
// may be failed alone, how to get out, what to take care of, who has to be there.
func (s SetUp) Cautions() []string {
	alone := "Safe to end alone."
	switch s.Movement.SafeAlone {
	case AloneNo:
		alone = "Not to the limit alone: keep at least one rep."
	case AloneWithPins:
		alone = "To the limit alone only with pins or rails set."
	}
	out := []string{alone}
	for _, kind := range cautionKinds {
		for i := range s.Movement.safety.Says {
			if c := &s.Movement.safety.Says[i]; c.Kind == kind && c.about(s) && !slices.Contains(out, c.Text) {
				out = append(out, c.Text)
			}
		}
	}
	if p := s.Movement.Partner; p != "" {
		out = append(out, "With a partner: "+p+".")
	}
	if j := s.Joints(); j.ElbowBack >= 3 {
		out = append(out, "Hard on the back of the elbow: never the first thing, cold.")
	} else if j.ElbowFront >= 3 {
		out = append(out, "Hard on the front of the elbow at the bottom: never cold, no bounce.")
	} else if j.ShoulderFront >= 3 {
		out = append(out, "Hard on the front of the shoulder: stop at level upper arms.")
	}
	return out
}

// NeedsPartner says whether it is never done alone.
func (m *Movement) NeedsPartner() bool { return strings.HasPrefix(m.Partner, "always") }
