package movement

import (
	"slices"

	"musculus/internal/core/datafile"
)

// This file reads families and faults.

type familyRow struct {
	ID       string      `yaml:"id"`
	Label    string      `yaml:"label"`
	Stop     string      `yaml:"stop"`
	Joints   JointScores `yaml:"joints"`
	UpperArm string      `yaml:"upper_arm"`
	Harder   []Harder    `yaml:"harder"`
	Says     []Caution   `yaml:"says"`
}

type faultRow struct {
	ID     string             `yaml:"id"`
	Family string             `yaml:"family"`
	View   string             `yaml:"view"`
	Seen   string             `yaml:"seen"`
	Cause  string             `yaml:"cause"`
	Cue    string             `yaml:"cue"`
	Joint  string             `yaml:"joint"`
	Remedy string             `yaml:"remedy"`
	Only   string             `yaml:"only"`
	Change map[string]float64 `yaml:"change"`
	Costs  string             `yaml:"costs"`
}

// longestCue is how long a cue may be, in characters.
const longestCue = 60

// everyFamily is the family of faults that can be seen in every movement.
const everyFamily = "any"

func loadFamilies(families, faults []byte) (map[string]*Family, []*datafile.Fault) {
	rows, wrong := datafile.Read[familyRow]("families.yaml", families)
	out := map[string]*Family{}
	for i := range rows {
		r := &rows[i].Row
		switch {
		case r.ID == "":
			wrong = append(wrong, rows[i].Fault("id", "missing"))
		case out[r.ID] != nil:
			wrong = append(wrong, rows[i].Fault("id", "%s is taken", r.ID))
		}
		out[r.ID] = &Family{ID: r.ID, Label: r.Label, Stop: r.Stop, UpperArm: r.UpperArm, Joints: r.Joints, Harder: r.Harder, Says: r.Says}
		for _, h := range r.Harder {
			if _, ok := kinds[h.Setting]; !ok || r.Joints.Of(h.Joint) < 0 {
				wrong = append(wrong, rows[i].Fault("harder", "there is no joint %q or setting %q", h.Joint, h.Setting))
			}
		}
	}
	for i := range rows {
		for _, c := range rows[i].Row.Says {
			if !slices.Contains(cautionKinds, c.Kind) || c.Text == "" {
				wrong = append(wrong, rows[i].Fault("says", "%q: a caution needs a text and one of %s", c.Kind, list(cautionKinds)))
			}
		}
	}
	seen, more := datafile.Read[faultRow]("faults.yaml", faults)
	wrong = append(wrong, more...)
	var common []Fault
	for i := range seen {
		r := &seen[i].Row
		if n := len([]rune(r.Cue)); n == 0 || n > longestCue {
			wrong = append(wrong, seen[i].Fault("cue", "%d characters, not 1…%d", n, longestCue))
		}
		if len(r.Change) == 0 && r.Costs == "" {
			wrong = append(wrong, seen[i].Fault("costs", "missing, and there is no change to compute it from"))
		}
		f := Fault{r.ID, r.Seen, r.View, r.Cause, r.Cue, r.Joint, r.Remedy, r.Only, r.Change, r.Costs}
		if r.Family == everyFamily {
			common = append(common, f)
		} else if family := out[r.Family]; family != nil {
			family.Faults = append(family.Faults, f)
		} else {
			wrong = append(wrong, seen[i].Fault("family", "there is no %q", r.Family))
		}
	}
	for _, family := range out {
		family.Faults = append(family.Faults, common...)
	}
	return out, wrong
}
