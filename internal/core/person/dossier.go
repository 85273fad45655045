package person

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/measure"
	"musculus/internal/core/text"
)

// Mode is what the work is for.
type Mode string

// The modes.
const (
	Size      Mode = "size"
	Strength  Mode = "strength"  // pressing
	Tolerance Mode = "tolerance" // of tendons and joints
	ForDate   Mode = "date"
)

// Elsewhere is pressing or pulling done apart from these sessions.
type Elsewhere struct {
	Weekday string `json:"weekday"` // mon … sun
	Kind    string `json:"kind"`    // press, pull
	Sets    int    `json:"sets"`    // hard sets
}

// Wish is what a client wants, in her words, and the heads it comes to.
type Wish struct {
	Text  string   `json:"text"`
	Heads []string `json:"heads"` // ids; what WishHeads gave, or what the coach made of it
}

// Dossier is who a client is. Every field is edited by itself, in place.
type Dossier struct {
	Name          string      `json:"name"` // as the client wants to be called
	About         string      `json:"about"`
	Contact       string      `json:"contact"`
	BornYear      int         `json:"born_year"`   // 0: not said
	Units         string      `json:"units"`       // metric, imperial
	StatureM      float64     `json:"stature_m"`   // 0: not measured, an average adult's is used
	MassKg        float64     `json:"mass_kg"`     // 0: likewise
	Sex           measure.Sex `json:"sex"`         // only where the area formula is wanted
	BreadthM      float64     `json:"breadth_m"`   // between the shoulders; 0: from stature
	UpperArmM     float64     `json:"upper_arm_m"` // 0: from stature
	ForearmM      float64     `json:"forearm_m"`   // elbow to grip; 0: from stature
	TrainingSince *day.Day    `json:"training_since"`
	ComebackOn    *day.Day    `json:"comeback_on"` // back after two weeks or more
	Weekdays      []string    `json:"weekdays"`
	Minutes       int         `json:"minutes"` // for one session
	Elsewhere     []Elsewhere `json:"elsewhere"`
	Wishes        []Wish      `json:"wishes"`
	Mode          Mode        `json:"mode"`
	ReadyOn       *day.Day    `json:"ready_on"` // of the mode "date"
	Notes         string      `json:"notes"`
	HideWeights   bool        `json:"hide_weights"`
	HealthConsent *day.Day    `json:"health_consent"` // to storing health notes; nil: none, or withdrawn
	BodyConsent   *day.Day    `json:"body_consent"`   // to measures and photos; likewise
	GuardianOn    *day.Day    `json:"guardian_on"`    // a guardian's consent, for a minor
	Letters       string      `json:"letters"`        // the address the client gave for letters
	LettersOn     *day.Day    `json:"letters_on"`     // when she agreed to get them; nil: none are sent
	Reminders     bool        `json:"reminders"`      // a letter the evening before a session
	Summaries     string      `json:"summaries"`      // a letter after each session, or weekly; "": none
	Rooms         []string    `json:"rooms"`          // ids; the first is the usual one
	Mobility      Mobility    `json:"mobility"`
	Present       string      `json:"present"` // what the client does now, a line a movement
	Preferences   Preferences `json:"preferences"`
}

// When summaries are sent.
const (
	AfterSession = "after"
	Weekly       = "weekly"
)

// Weekdays in their order.
var Weekdays = []string{"mon", "tue", "wed", "thu", "fri", "sat", "sun"}

// NewDossier is what a client begins with.
func NewDossier(name string) Dossier {
	return Dossier{
		Name:      name,
		Units:     "metric",
		Mode:      Size,
		Minutes:   45,
		Weekdays:  []string{},
		Elsewhere: []Elsewhere{},
		Wishes:    []Wish{},
		Rooms:     []string{},

		Preferences: Preferences{},
	}
}

// Check returns what is wrong, one error a field.
func (d *Dossier) Check(today day.Day) []FieldError {
	var c checker
	fault, within, size := c.fault, c.within, c.size
	oneOf := func(field, value string, words ...string) {
		fault(slices.Contains(words, value), field, "%q is none of %s", value, strings.Join(words, ", "))
	}
	fault(strings.TrimSpace(d.Name) != "", "name", "a client needs a name to be called by")
	size("name", d.Name, 80)
	size("about", d.About, 200)
	size("contact", d.Contact, 200)
	size("letters", d.Letters, 200)
	size("notes", d.Notes, 5000)
	size("present", d.Present, 5000)
	if d.BornYear != 0 {
		age := today.Year() - d.BornYear
		fault(age >= 10 && age <= 110, "born_year", "%d would make an age of %d", d.BornYear, age)
	}
	oneOf("units", d.Units, "metric", "imperial")
	if d.StatureM >= 100 && d.StatureM <= 250 { // typed in centimetres
		fault(false, "stature_m", "%g m; in centimetres that would be %.2f m", d.StatureM, d.StatureM/100)
	} else if d.StatureM != 0 {
		within("stature_m", d.StatureM, 1, 2.5, " m")
	}
	if d.MassKg != 0 {
		within("mass_kg", d.MassKg, 25, 300, " kg")
	}
	oneOf("sex", string(d.Sex), "", string(measure.Woman), string(measure.Man))
	length := func(field string, x, lo, hi float64) {
		if x != 0 {
			within(field, x, lo, hi, " m")
		}
	}
	length("breadth_m", d.BreadthM, 0.25, 0.65)
	length("upper_arm_m", d.UpperArmM, 0.2, 0.5)
	length("forearm_m", d.ForearmM, 0.2, 0.5)
	past := func(field string, at *day.Day) {
		fault(at == nil || *at <= today, field, "is in the future")
	}
	past("training_since", d.TrainingSince)
	past("comeback_on", d.ComebackOn)
	past("health_consent", d.HealthConsent)
	past("body_consent", d.BodyConsent)
	past("guardian_on", d.GuardianOn)
	past("letters_on", d.LettersOn)
	fault(d.Letters == "" || text.IsAddress(d.Letters), "letters", "this is no e-mail address")
	oneOf("summaries", d.Summaries, "", AfterSession, Weekly)
	for _, w := range d.Weekdays {
		oneOf("weekdays", w, Weekdays...)
	}
	within("minutes", float64(d.Minutes), 10, 240, " minutes")
	for i, e := range d.Elsewhere {
		at := fmt.Sprintf("elsewhere[%d].", i)
		oneOf(at+"weekday", e.Weekday, Weekdays...)
		oneOf(at+"kind", e.Kind, "press", "pull")
		within(at+"sets", float64(e.Sets), 1, 40, "")
	}
	for i, w := range d.Wishes {
		fault(strings.TrimSpace(w.Text) != "", fmt.Sprintf("wishes[%d].text", i), "a wish needs words")
		size(fmt.Sprintf("wishes[%d].text", i), w.Text, 200)
		for _, id := range w.Heads {
			_, ok := arm.HeadByID(id)
			fault(ok, fmt.Sprintf("wishes[%d].heads", i), "there is no head %q", id)
		}
	}
	c.found = append(c.found, d.Preferences.Check()...)
	oneOf("mode", string(d.Mode), string(Size), string(Strength), string(Tolerance), string(ForDate))
	oneOf("mobility.one_weight", d.Mobility.OneWeight, "", "yes", "no")
	oneOf("mobility.two_weights", d.Mobility.TwoWeights, "", "yes", "no")
	oneOf("mobility.dip_level", d.Mobility.DipLevel, "", "assisted", "bars", "loaded")
	within("mobility.clean_dips", float64(d.Mobility.CleanDips), 0, 100, "")
	within("mobility.clean_pulls", float64(d.Mobility.CleanPulls), 0, 100, "")
	return c.found
}

// Seen is the dossier as anybody may see it: without consent to health notes those
// in it are out of sight, though they are kept until they are erased.
func (d Dossier) Seen() Dossier {
	if d.HealthConsent == nil {
		d.Mobility = Mobility{}
	}
	return d
}

// MayWrite says what keeps letters from being sent to the client, "" for nothing.
func (d *Dossier) MayWrite() string {
	switch {
	case d.Letters == "":
		return "the client has given no address for letters (Dossier, Consent)"
	case d.LettersOn == nil:
		return "letters are sent only with the client’s consent, with its date (Dossier, Consent)"
	}
	return ""
}

// MayMeasure says what has to be recorded before measures and photos are kept or
// shown, "" for nothing.
func (d *Dossier) MayMeasure(today day.Day) string {
	switch {
	case d.BodyConsent == nil:
		return "measures and photos are kept and shown only with the client’s consent, with its date (Dossier, Consent)"
	case d.MayBeMinor(today) && d.GuardianOn == nil:
		return "measures and photos of a minor, or perhaps one, need a guardian’s consent, with its date (Dossier, Consent)"
	}
	return ""
}

// Body is what the model uses of the client.
func (d *Dossier) Body() arm.Body {
	b := arm.Body{
		Stature:          d.StatureM,
		BodyMass:         d.MassKg,
		MeasuredUpperArm: d.UpperArmM,
		MeasuredForearm:  d.ForearmM,
		MeasuredBreadth:  d.BreadthM,
	}
	if b.Stature == 0 {
		b.Stature = arm.DefaultStature
	}
	if b.BodyMass == 0 {
		b.BodyMass = arm.DefaultBodyMass
	}
	return b
}

// MayBeMinor says whether the client is, or from the year of birth alone could
// still be, under 18.
func (d *Dossier) MayBeMinor(today day.Day) bool {
	return d.BornYear != 0 && today.Year()-d.BornYear <= 18
}

// FirstYear says whether the client has trained for less than a year.
func (d *Dossier) FirstYear(today day.Day) bool {
	return d.TrainingSince != nil && today-*d.TrainingSince < 365
}

// Wish is the wishes in one line.
func (d *Dossier) Wish() string {
	words := make([]string, len(d.Wishes))
	for i, w := range d.Wishes {
		words[i] = w.Text
	}
	return strings.Join(words, "; ")
}

// Change is one field as it was read and as it shall be, both as JSON.
type Change struct {
	Field string          `json:"field"`
	Was   json.RawMessage `json:"was"`
	Value json.RawMessage `json:"value"`
}

// Clash is a field that somebody else changed in between.
type Clash struct {
	Field string          `json:"field"`
	Now   json.RawMessage `json:"now"`
}

// Apply makes the changes. A field that is no longer as it was read is a clash;
// with any clash or fault nothing is changed. The dossier itself is not touched.
func (d *Dossier) Apply(changes []Change, today day.Day) (Dossier, []Clash, []FieldError) {
	now, err := fieldsOf(d)
	if err != nil {
		return *d, nil, []FieldError{{Field: "", Reason: err.Error()}}
	}
	var clashes []Clash
	var faults []FieldError
	for _, c := range changes {
		current, ok := now[c.Field]
		switch {
		case !ok:
			faults = append(faults, FieldError{Field: c.Field, Reason: "there is no such field"})
		case !sameJSON(current, c.Was) && !sameJSON(current, c.Value): // the same change twice is none
			clashes = append(clashes, Clash{c.Field, current})
		default:
			now[c.Field] = c.Value
		}
	}
	if len(clashes) > 0 || len(faults) > 0 {
		return *d, clashes, faults
	}
	var out Dossier
	for field, value := range now { // each by itself, so that a wrong kind is told at its field
		one, err := json.Marshal(map[string]json.RawMessage{field: value})
		if err == nil {
			err = json.Unmarshal(one, &out)
		}
		if err != nil {
			faults = append(faults, FieldError{Field: field, Reason: "cannot be read: " + kindWords(err)})
		}
	}
	if len(faults) > 0 {
		return *d, nil, faults
	}
	if faults = out.Check(today); out.HealthConsent == nil && out.Mobility != d.Mobility {
		faults = append(faults, FieldError{Field: "mobility", Reason: "needs the client’s consent to keep health notes, with its date"})
	}
	if len(faults) > 0 {
		return *d, nil, faults
	}
	return out, nil, nil
}

func kindWords(err error) string {
	if e, ok := err.(*json.UnmarshalTypeError); ok {
		return "a " + e.Value + " where another kind of value belongs"
	}
	return err.Error()
}

func fieldsOf(d *Dossier) (map[string]json.RawMessage, error) {
	b, err := json.Marshal(d)
	if err != nil {
		return nil, err
	}
	out := map[string]json.RawMessage{}
	return out, json.Unmarshal(b, &out)
}

// sameJSON compares two values regardless of spaces and the order of keys.
func sameJSON(a, b json.RawMessage) bool {
	var x, y any
	if json.Unmarshal(a, &x) != nil || json.Unmarshal(b, &y) != nil {
		return false
	}
	p, _ := json.Marshal(x)
	q, _ := json.Marshal(y)
	return string(p) == string(q)
}
