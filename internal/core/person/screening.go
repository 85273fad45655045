package person

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"musculus/internal/core/day"
)

// Level is how far screening lets the work go; the higher, the more it stops.
type Level int

// The levels.
const (
	Clear      Level = iota // nothing in the way
	WorkAround              // set-ups are blocked or modified, not the client
	StopFirst               // no sheet until a dated clearance
	SameDay                 // same-day care, no training
	Emergency               // call emergency services
)

// Heading is what a level asks for, in one line.
func (l Level) Heading() string {
	return map[Level]string{
		Clear:      "Nothing in the way.",
		WorkAround: "Work around it: set-ups are modified or left out, the client trains.",
		StopFirst:  "Stop and see a clinician: no sheet is issued until a clearance with its date is recorded.",
		SameDay:    "Same-day medical care, no training.",
		Emergency:  "Call emergency services now.",
	}[l]
}

// ID names a level in data.
func (l Level) ID() string {
	return map[Level]string{Clear: "clear", WorkAround: "work_around", StopFirst: "stop", SameDay: "same_day", Emergency: "emergency"}[l]
}

// NoDiagnosis stands on every screen that touches health.
const NoDiagnosis = "This is no diagnosis; local rules and licensed practice come first."

// Question is one of the questionnaire.
type Question struct {
	ID    string
	Text  string
	Level Level // of a yes
	Says  string
	// Clears: a clinician's dated clearance brings it down to Clear.
	Clears bool
	// Caps that hold after a clearance, or at once where there is none to give.
	Caps []CapID
}

// Questions are asked before the first plan and after every pain report.
var Questions = []Question{
	{
		ID:    "chest",
		Text:  "Chest pain or pressure at any time",
		Level: Emergency,
		Says:  "Chest pain or pressure: call emergency services; no training.",
	},
	{
		ID:    "sudden",
		Text:  "Fainting, severe breathlessness, a sudden worst headache, or sudden trouble with speech, face or arm",
		Level: Emergency,
		Says:  "Call emergency services now; no training.",
	},
	{
		ID:    "dark_urine",
		Text:  "Dark urine, or pain and swelling far beyond normal soreness",
		Level: SameDay,
		Says:  "Same-day care: muscle breakdown has to be ruled out; no training.",
	},
	{ID: "hot_joint", Text: "A hot joint with fever, or a swollen or discoloured arm", Level: SameDay, Says: "Same-day care; no training."},
	{
		ID:    "snap",
		Text:  "A snap or pop with loss of strength or a bulge, or deformity after a fall",
		Level: SameDay,
		Says:  "Same-day care: a torn tendon or a break has to be ruled out; no training.",
	},
	{ID: "bruise", Text: "Bruising after a pop", Level: StopFirst, Clears: true, Says: "See a clinician before the first set."},
	{
		ID:     "nerve",
		Text:   "Numbness, tingling or pain running down the arm from the neck",
		Level:  StopFirst,
		Clears: true,
		Says:   "See a clinician before the first set.",
	},
	{
		ID:     "night",
		Text:   "Pain at night, or a joint that locks",
		Level:  StopFirst,
		Clears: true,
		Says:   "See a clinician before the first set.",
	},
	{
		ID:     "surgery",
		Text:   "Surgery, a dislocation, a hernia or eye surgery, not yet cleared",
		Level:  StopFirst,
		Clears: true,
		Says:   "A surgeon’s or doctor’s clearance with its date is needed.",
	},
	{
		ID:     "tendon",
		Text:   "A recent injection into a tendon, or drugs known to weaken tendons",
		Level:  StopFirst,
		Clears: true,
		Says:   "A doctor’s clearance with its date is needed.",
	},
	{ID: "thinners", Text: "Blood thinners", Level: StopFirst, Clears: true, Says: "A doctor’s clearance with its date is needed."},
	{
		ID:     "heart",
		Text:   "Known heart, vessel or kidney disease, or fits",
		Level:  StopFirst,
		Clears: true,
		Says:   "A doctor’s clearance with its date is needed.",
	},
	{
		ID:     "pregnant",
		Text:   "Pregnancy",
		Level:  StopFirst,
		Clears: true,
		Caps:   []CapID{Pregnant},
		Says:   "A midwife’s or doctor’s clearance with its date is needed.",
	},
	{
		ID:     "late_pregnant",
		Text:   "Pregnancy past the first trimester",
		Level:  StopFirst,
		Clears: true,
		Caps:   []CapID{PregnantLate},
		Says:   "A midwife’s or doctor’s clearance with its date is needed; nothing flat on the back.",
	},
	{
		ID:     "pressure",
		Text:   "High blood pressure, treated or not",
		Level:  StopFirst,
		Clears: true,
		Caps:   []CapID{BloodPressure},
		Says:   "A doctor’s clearance with its date is needed: it must be under control.",
	},
	{
		ID:    "ache",
		Text:  "A known ache in wrist, elbow or shoulder",
		Level: WorkAround,
		Says:  "Score it under Joints; set-ups that load it are modified or left out.",
	},
}

// QuestionByID returns a question, nil when there is none.
func QuestionByID(id string) *Question {
	for i := range Questions {
		if Questions[i].ID == id {
			return &Questions[i]
		}
	}
	return nil
}

// Answer is what a client said to one question.
type Answer struct {
	Yes       bool     `json:"yes"`
	ClearedOn *day.Day `json:"cleared_on,omitempty"`
	ClearedBy string   `json:"cleared_by,omitempty" maxLength:"100"` // "her surgeon", never a name the tool asks for
	// Holds: it was asked in this round whether a clearance known from before still
	// holds, and it does. No clearance goes on by itself.
	Holds bool   `json:"still_holds,omitempty"`
	Note  string `json:"note,omitempty" maxLength:"300"`
}

// knows says whether an answer carried a clearance of that day, or a later one.
func (a Answer) knows(on day.Day) bool { return a.ClearedOn != nil && on <= *a.ClearedOn }

// Screening is one round of the questionnaire.
type Screening struct {
	On      day.Day           `json:"on"`
	Answers map[string]Answer `json:"answers"`
}

// Check returns what is wrong with a round, one error a field. last is the round
// before, nil for none: a clearance that was known then must have been asked about.
func (s *Screening) Check(today day.Day, last *Screening) []FieldError {
	var out []FieldError
	fault := func(field, reason string, args ...any) {
		out = append(out, FieldError{Field: field, Reason: fmt.Sprintf(reason, args...)})
	}
	if s.On > today {
		fault("on", "%s is in the future", s.On.Words())
	}
	for _, q := range Questions {
		a, asked := s.Answers[q.ID]
		switch {
		case !asked:
			fault("answers."+q.ID, "not answered yet")
		case a.ClearedOn != nil && !a.Yes:
			fault("answers."+q.ID+".cleared_on", "a clearance without a yes")
		case a.ClearedOn != nil && !q.Clears:
			fault("answers."+q.ID+".cleared_on", "there is nothing a clearance would change here")
		case a.ClearedOn != nil && *a.ClearedOn > today:
			fault("answers."+q.ID+".cleared_on", "%s is in the future", a.ClearedOn.Words())
		case a.ClearedOn != nil && !a.Holds && last != nil && last.Answers[q.ID].knows(*a.ClearedOn):
			fault("answers."+q.ID+".still_holds", "does the clearance of %s still hold? Ask, and say so", a.ClearedOn.Words())
		}
	}
	for id := range s.Answers {
		if QuestionByID(id) == nil {
			fault("answers."+id, "there is no such question")
		}
	}
	slices.SortStableFunc(out, func(a, b FieldError) int { return strings.Compare(a.Field, b.Field) })
	return out
}

// Flagged is the round that follows from warning signs told apart from one: the answers of the
// last, nil for none, with a yes to each of them.
func Flagged(last *Screening, on day.Day, flags []string, note string) Screening {
	out := Screening{On: on, Answers: map[string]Answer{}}
	for _, q := range Questions {
		out.Answers[q.ID] = Answer{}
	}
	if last != nil {
		maps.Copy(out.Answers, last.Answers)
	}
	for _, f := range flags {
		out.Answers[f] = Answer{Yes: true, Note: note}
	}
	return out
}

// Said is one answer that matters, with what follows from it.
type Said struct {
	Question *Question
	Level    Level
	Words    string
	paper    bool // waits for something to be recorded, not for a clinician
}

// Standing is where a client stands today.
type Standing struct {
	Level Level
	Said  []Said // what leads there, the gravest first
	Caps  []CapID
}

// Heading is what the standing asks for, in one line: of the stops, those that
// only wait for something to be asked or recorded need no clinician.
func (s *Standing) Heading() string {
	if s.Level == StopFirst && !slices.ContainsFunc(s.Said, func(said Said) bool { return said.Level == StopFirst && !said.paper }) {
		return "No sheet yet: something has to be asked or recorded first."
	}
	return s.Level.Heading()
}

// MayTrain says whether a sheet may be issued.
func (s *Standing) MayTrain() bool { return s.Level < StopFirst }

// stand adds something and keeps the gravest level.
func (s *Standing) stand(q *Question, l Level, words string) {
	s.Level = max(s.Level, l)
	s.Said = append(s.Said, Said{Question: q, Level: l, Words: words})
}

// wait adds something that has to be recorded before a sheet.
func (s *Standing) wait(words string) {
	s.stand(nil, StopFirst, words)
	s.Said[len(s.Said)-1].paper = true
}

// StandingOf draws everything together: the last round of the questionnaire (nil:
// none yet), the joint record, and what the dossier says of age, consent and a
// return. The strictest of everything holds.
func StandingOf(d *Dossier, s *Screening, joints []JointReport, today day.Day) Standing {
	var out Standing
	if d.HealthConsent == nil { // what was kept before is out of sight, and speaks for nothing
		s, joints = nil, nil
	}
	switch {
	case d.HealthConsent == nil:
		out.wait("No consent to health notes: the questions cannot be asked, and come before the first plan.")
	case s == nil:
		out.wait("Not screened yet: the questions come before the first plan.")
	default:
		for i := range Questions {
			q := &Questions[i]
			a := s.Answers[q.ID]
			switch {
			case !a.Yes:
			case q.Clears && a.ClearedOn != nil:
				out.Caps = append(out.Caps, q.Caps...)
				out.stand(q, Clear, fmt.Sprintf("%s: cleared on %s.", q.Text, a.ClearedOn.Words()))
			default:
				out.Caps = append(out.Caps, q.Caps...)
				out.stand(q, q.Level, fmt.Sprintf("%s. %s", q.Text, q.Says))
			}
		}
	}
	if d.MayBeMinor(today) {
		out.Caps = append(out.Caps, Cautious)
		if d.GuardianOn == nil {
			out.wait("A minor, or perhaps one: a guardian’s consent with its date is needed.")
		}
	}
	for _, since := range []*day.Day{d.TrainingSince, d.ComebackOn} {
		if since == nil {
			continue
		}
		switch days := int(today - *since); {
		case days < 0 || days >= cautiousDays:
		case days < firstWeekDays:
			out.Caps = append(out.Caps, CautiousFirst)
		default:
			out.Caps = append(out.Caps, Cautious)
		}
	}
	for _, j := range Rising(joints, s, today) {
		out.stand(nil, StopFirst, j)
	}
	slices.SortStableFunc(out.Said, func(a, b Said) int { return int(b.Level) - int(a.Level) })
	slices.Sort(out.Caps)
	out.Caps = slices.Compact(out.Caps)
	return out
}

// Uncautious tells which time of caution ended within some days, "" for none: doses may return
// then, a step at a time.
func (d *Dossier) Uncautious(today day.Day, within int) string {
	for _, of := range []struct {
		since *day.Day
		words string
	}{{d.ComebackOn, "coming back"}, {d.TrainingSince, "beginning to train"}} {
		if of.since == nil {
			continue
		}
		if over := int(today-*of.since) - cautiousDays; over >= 0 && over < within {
			return fmt.Sprintf("The cautious weeks after %s ended on %s.", of.words, (*of.since + cautiousDays).Words())
		}
	}
	return ""
}

// How long coming back, or being new, asks for caution.
const (
	cautiousDays  = 21
	firstWeekDays = 7
)
