package week

import (
	"strings"

	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
)

// Cue is what is told the client, with why it was chosen.
type Cue struct {
	Fault movement.Fault
	Why   string
}

// jointWords are how faults name the joints of the record.
var jointWords = map[movement.Joint][]string{
	movement.Wrist: {"wrist"}, movement.ElbowFront: {"elbow front"}, movement.ElbowBack: {"elbow back", "front or back"},
	movement.ShoulderFront: {"shoulder front"}, movement.ShoulderTop: {"shoulder top"},
}

// CuesFor chooses at most plan.MostCues cues for a set-up: safety for the client's
// joints and caps first, then the faults last seen (ids, the latest first), then
// what makes the set-up do what it is chosen for, then general form.
func CuesFor(s movement.SetUp, t *Trainee, seen []string) []Cue {
	faults := s.Movement.FaultsOf()
	var out []Cue
	taken := map[string]bool{}
	take := func(f *movement.Fault, why string) {
		if len(out) < plan.MostCues && !taken[f.Cue] {
			taken[f.Cue] = true
			out = append(out, Cue{*f, why})
		}
	}
	if t.Caps.NoBreathHold {
		for i := range faults {
			if faults[i].ID == "g_breath_hold" {
				take(&faults[i], "caps: no breath holds")
			}
		}
	}
	for _, j := range movement.Joints {
		if t.Scores().Worse(j) < 1 {
			continue
		}
		for i := range faults {
			if risks(&faults[i], j) && !strings.HasPrefix(faults[i].ID, general) {
				take(&faults[i], "spares the "+j.Words())
				break // one a joint
			}
		}
	}
	for _, id := range seen {
		for i := range faults {
			if faults[i].ID == id {
				take(&faults[i], "seen last: "+faults[i].Seen)
			}
		}
	}
	for _, own := range []bool{true, false} {
		for i := range faults {
			if f := &faults[i]; own == (len(f.Change) > 0 && !strings.HasPrefix(f.ID, general)) {
				why := "keeps the set-up as it was chosen: " + f.Seen + " undoes it"
				if !own {
					why = "form: " + f.Seen
				}
				take(f, why)
			}
		}
	}
	return out
}

// general begins the ids of faults that every family has.
const general = "g_"

func risks(f *movement.Fault, j movement.Joint) bool {
	for _, w := range jointWords[j] {
		if strings.Contains(f.Joint, w) {
			return true
		}
	}
	return false
}
