package person

// CapID names a reason for caps that screening has set.
type CapID string

// The caps.
const (
	Cautious      CapID = "cautious"       // coming back, or new to it
	BloodPressure CapID = "blood_pressure" // treated and cleared
	Pregnant      CapID = "pregnant"       // cleared
)

// Caps is what a dose may not go beyond. They outrank every rule, preference
// and draft.
type Caps struct {
	MinReserve int     `json:"min_reserve"`
	MinRestS   int     `json:"min_rest_s"`
	From       []CapID `json:"from"`
}

// CapsOf joins caps: the strictest of each field holds.
func CapsOf(ids []CapID) Caps {
	c := Caps{From: ids}
	for _, id := range ids {
		one := map[CapID]Caps{
			Cautious:      {MinReserve: 3},
			BloodPressure: {MinReserve: 2, MinRestS: 90},
			Pregnant:      {MinReserve: 3},
		}[id]
		c.MinReserve = max(c.MinReserve, one.MinReserve)
		c.MinRestS = max(c.MinRestS, one.MinRestS)
	}
	return c
}

// Words tells what each cap asks for, in a sentence for the coach.
func (id CapID) Words() string {
	return map[CapID]string{
		Cautious:      "Cautious: half the sets in the first week, at least 3 reps in reserve.",
		BloodPressure: "Blood pressure, cleared: at least 2 reps in reserve, rests of 90 s or more, breathe out on the effort, no long breath holds.",
		Pregnant:      "Pregnant, cleared: at least 3 reps in reserve, no breath holds, nothing flat on the back after the first trimester.",
	}[id]
}

// SheetCautions stand on every sheet.
var SheetCautions = []string{
	"Breathe out on the effort. Pain over 3 of 10, or rising, ends the set; tell your coach.",
	"Chest pain, fainting, severe breathlessness or sudden weakness: stop and call emergency services.",
	"This sheet is no diagnosis and no treatment; local rules and licensed practice come first.",
}
