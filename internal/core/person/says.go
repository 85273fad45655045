package person

import (
	"fmt"
	"strings"

	"musculus/internal/core/day"
)

// Says is what the answers of a dossier change, in sentences.
func (d *Dossier) Says(today day.Day) []string {
	var out []string
	add := func(ok bool, text string, args ...any) {
		if ok {
			out = append(out, fmt.Sprintf(text, args...))
		}
	}
	b := d.Body()
	from := "from stature"
	if d.UpperArmM > 0 || d.ForearmM > 0 {
		from = "as measured"
	}
	if d.StatureM == 0 {
		from = "of an average adult, no stature yet"
	}
	add(
		true,
		"Levers %s: upper arm %.1f cm, elbow to grip %.1f cm; shoulders %.0f cm apart.",
		from,
		100*b.UpperArm(),
		100*b.Forearm(),
		100*b.ShoulderBreadth(),
	)
	add(d.MassKg == 0, "No body mass yet: limbs and dips are reckoned with %.0f kg.", b.BodyMass)
	add(d.FirstYear(today), "In the first year of training: weekly targets are two thirds.")
	add(len(d.Rooms) == 0, "No room yet: nothing can be rounded to real loads.")
	sets := map[string]int{}
	for _, e := range d.Elsewhere {
		sets[e.Kind] += e.Sets
	}
	add(sets["press"] > 0, "%d pressing sets elsewhere count for the triceps, mostly the lateral and medial head.", sets["press"])
	add(sets["pull"] > 0, "%d pulling sets elsewhere count for the elbow flexors.", sets["pull"])
	add(
		len(d.Weekdays) > 0 && d.Minutes > 0,
		"%d days of %d minutes: %d minutes a week.",
		len(d.Weekdays),
		d.Minutes,
		len(d.Weekdays)*d.Minutes,
	)
	switch d.Mode {
	case Strength:
		add(true, "Pressing strength: the press goes first and counts as progress.")
	case Tolerance:
		add(true, "Tissue tolerance: lighter, higher reps, slow; a calmer joint counts as progress.")
	case ForDate:
		if d.ReadyOn == nil {
			add(true, "A date to be ready for: which?")
		} else {
			add(true, "Ready on %s: %d weeks left; the block is anchored backwards from it. No fat loss is promised from arm work.",
				d.ReadyOn.Words(), max(0, int(*d.ReadyOn-today))/7)
		}
	}
	add(d.HideWeights, "The sheet shows marks instead of weights.")
	add(d.HealthConsent == nil, "No consent to health notes yet: screening, joints and mobility are not stored before it.")
	var unmapped []string
	for _, w := range d.Wishes {
		if len(w.Heads) == 0 {
			unmapped = append(unmapped, "“"+w.Text+"”")
		}
	}
	add(len(unmapped) > 0, "%s comes to no head by itself.", strings.Join(unmapped, ", "))
	for _, w := range d.Wishes {
		if kinds := WishHeads(w.Text); len(kinds) > 0 && kinds[0].Note != "" {
			out = append(out, kinds[0].Note)
		}
	}
	return out
}
