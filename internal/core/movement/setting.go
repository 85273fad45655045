package movement

import (
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strings"
)

// Key names a setting, as it appears in data, logs and addresses.
type Key string

// The settings a coach may turn.
const (
	Implement      Key = "implement"
	Hands          Key = "hands"
	Hold           Key = "hold"
	PositionKey    Key = "position"
	Grip           Key = "grip"
	Bench          Key = "bench"
	PadSlope       Key = "pad_slope"
	Tilt           Key = "tilt"
	Lean           Key = "lean"
	GripWidth      Key = "grip_width"
	PulleyDistance Key = "pulley_distance"
	PulleyHeight   Key = "pulley_height"
	GripOffset     Key = "grip_offset"
	ShoulderTo     Key = "s_to"
	Rho            Key = "rho"
	PhiFrom        Key = "phi_from"
	PhiTo          Key = "phi_to"
	ElbowFrom      Key = "e_from"
	ElbowTo        Key = "e_to"
	Tuck           Key = "tuck"
	Depth          Key = "depth"
	PinHeight      Key = "pin_height"
	HandHeight     Key = "hand_height"
	FootHeight     Key = "foot_height"
	WristKey       Key = "wrist"
	ThickHandle    Key = "thick_handle"
)

// kind is what all settings of one key share.
type kind struct {
	label, unit string
	step        float64
	word        bool // a choice of words instead of a number
}

const (
	degrees  = "°"
	metres   = "m"
	breadths = "× shoulders"
)

var kinds = map[Key]kind{
	Implement:      {label: "Implement", word: true},
	Hands:          {label: "Hands", word: true},
	Hold:           {label: "Hold", word: true},
	PositionKey:    {label: "Position", word: true},
	Grip:           {label: "Grip", word: true},
	WristKey:       {label: "Wrist", word: true},
	ThickHandle:    {label: "Thick handle", word: true},
	Bench:          {label: "Bench", unit: degrees, step: 5},
	PadSlope:       {label: "Pad slope", unit: degrees, step: 5},
	Tilt:           {label: "Arms tilted back", unit: degrees, step: 5},
	Lean:           {label: "Lean", unit: degrees, step: 5},
	GripWidth:      {label: "Grip width", unit: breadths, step: 0.1},
	PulleyDistance: {label: "Distance to the pulley", unit: metres, step: 0.05},
	PulleyHeight:   {label: "Pulley above the shoulder", unit: metres, step: 0.05},
	GripOffset:     {label: "Hand off the middle", unit: metres, step: 0.01},
	ShoulderTo:     {label: "Elbow forward at the top", unit: degrees, step: 5},
	Rho:            {label: "Arms turned out", unit: degrees, step: 5},
	PhiFrom:        {label: "Hand at the start", unit: degrees, step: 5},
	PhiTo:          {label: "Hand at the end", unit: degrees, step: 5},
	ElbowFrom:      {label: "Elbow at the start", unit: degrees, step: 5},
	ElbowTo:        {label: "Elbow at the end", unit: degrees, step: 5},
	Tuck:           {label: "Elbows from the ribs", unit: degrees, step: 5},
	Depth:          {label: "Below level", unit: degrees, step: 5},
	PinHeight:      {label: "Pins above the chest", unit: metres, step: 0.05},
	HandHeight:     {label: "Hands raised", unit: metres, step: 0.05},
	FootHeight:     {label: "Feet raised", unit: metres, step: 0.05},
}

// keyOrder is the order in which settings are shown and written into keys.
var keyOrder = []Key{
	Implement, Hands, Hold, PositionKey, Bench, PadSlope, Tilt, Lean, GripWidth, PulleyDistance, PulleyHeight,
	GripOffset, ShoulderTo, Rho, PhiFrom, PhiTo, Tuck, Depth, PinHeight, HandHeight, FootHeight, ElbowFrom, ElbowTo,
	Grip, WristKey, ThickHandle, // later ones come after, so that what was logged keeps its key
}

// IsHeld says whether a setting is how something is held in the hand: it moves no head.
func (k Key) IsHeld() bool { return k == Hold || k == WristKey || k == ThickHandle }

// Value is the value of a setting: a number, or a word where the setting is a
// choice of words.
type Value struct {
	Number float64
	Word   string
}

// Settings are the values of some settings.
type Settings map[Key]Value

// MarshalJSON writes an object, an empty one for none.
func (s Settings) MarshalJSON() ([]byte, error) {
	if s == nil {
		return []byte("{}"), nil
	}
	return json.Marshal(map[Key]Value(s))
}

// Num makes a number value.
func Num(x float64) Value { return Value{Number: x} }

// Word makes a word value.
func Word(w string) Value { return Value{Word: w} }

func (v Value) String() string {
	if v.Word != "" {
		return v.Word
	}
	return trim(v.Number)
}

// Plain returns the value as a float64 or a string.
func (v Value) Plain() any {
	if v.Word != "" {
		return v.Word
	}
	return v.Number
}

// MarshalJSON writes a number or a string.
func (v Value) MarshalJSON() ([]byte, error) { return json.Marshal(v.Plain()) }

// UnmarshalJSON reads a number or a string.
func (v *Value) UnmarshalJSON(b []byte) error {
	if len(b) > 0 && b[0] == '"' {
		return json.Unmarshal(b, &v.Word)
	}
	return json.Unmarshal(b, &v.Number)
}

// trim writes a number without needless digits.
func trim(x float64) string {
	return strings.TrimSuffix(strings.TrimRight(fmt.Sprintf("%.3f", x), "0"), ".")
}

// Setting is one setting of one movement: a number with limits and steps, or a
// choice of words.
type Setting struct {
	Key            Key
	Label, Unit    string
	Min, Max, Step float64
	Default        Value
	Choices        []string
	isWord         bool
}

// MarshalJSON writes limits only for numbers and choices only for words.
func (s Setting) MarshalJSON() ([]byte, error) {
	if s.isWord {
		return json.Marshal(struct {
			Key     Key      `json:"key"`
			Label   string   `json:"label"`
			Default Value    `json:"default"`
			Choices []string `json:"choices"`
		}{s.Key, s.Label, s.Default, s.Choices})
	}
	return json.Marshal(struct {
		Key     Key     `json:"key"`
		Label   string  `json:"label"`
		Unit    string  `json:"unit"`
		Default Value   `json:"default"`
		Min     float64 `json:"min"`
		Max     float64 `json:"max"`
		Step    float64 `json:"step"`
	}{s.Key, s.Label, s.Unit, s.Default, s.Min, s.Max, s.Step})
}

// IsWord says whether the setting is a choice of words.
func (s *Setting) IsWord() bool { return s.isWord }

// FieldError is what is wrong with one setting.
type FieldError struct {
	Field  string
	Reason string
	Asks   bool // it is a question, and no longer wrong once it is answered
}

func (e *FieldError) Error() string { return e.Field + ": " + e.Reason }

func (s *Setting) fault(format string, args ...any) error {
	return &FieldError{Field: string(s.Key), Reason: fmt.Sprintf(format, args...)}
}

// snap checks a value and moves it to the nearest step, counted from the
// default, that lies inside the limits.
func (s *Setting) snap(v Value) (Value, error) {
	if s.isWord {
		if !slices.Contains(s.Choices, v.Word) {
			return v, s.fault("%q is none of %s", v, strings.Join(s.Choices, ", "))
		}
		return v, nil
	}
	const slack = 1e-9
	if v.Word != "" {
		return v, s.fault("%q is not a number", v.Word)
	}
	if !(v.Number >= s.Min-slack && v.Number <= s.Max+slack) {
		return v, s.fault("%s%s is outside %s…%s%s", trim(v.Number), s.Unit, trim(s.Min), trim(s.Max), s.Unit)
	}
	k := math.Round((v.Number - s.Default.Number) / s.Step)
	for ; s.at(k) > s.Max+slack; k-- {
	}
	for ; s.at(k) < s.Min-slack; k++ {
	}
	return Num(s.at(k)), nil
}

// at is the value k steps from the default, without the dust of arithmetic.
func (s *Setting) at(k float64) float64 {
	return math.Round((s.Default.Number+k*s.Step)*1e6) / 1e6
}

// Values lists every value the setting can take, words or numbers.
func (s *Setting) Values() []Value {
	var out []Value
	for _, w := range s.Choices {
		out = append(out, Word(w))
	}
	for _, x := range s.Steps() {
		out = append(out, Num(x))
	}
	return out
}

// Steps lists every value the setting can take, ascending; nil for words.
func (s *Setting) Steps() []float64 {
	if s.isWord {
		return nil
	}
	var out []float64
	lo := math.Ceil((s.Min-s.Default.Number)/s.Step - 1e-9)
	for k := lo; s.at(k) <= s.Max+1e-9; k++ {
		out = append(out, s.at(k))
	}
	return out
}
