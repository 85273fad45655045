package floor

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

// Kinds of what is told of a session beside its sets.
const (
	TellsPain    = "pain"
	TellsLeftOut = "left_out"
	TellsSwap    = "swap"
	TellsPaired  = "paired"
	TellsEnd     = "end"
	TellsLine    = "line" // of the coach's, to whoever is on the floor
	TellsUndone  = "undone"
)

// Event is one thing that was told of a session; it is never changed, another one takes it
// back.
type Event struct {
	ID      uuid.UUID
	Session uuid.UUID
	Kind    string
	At      time.Time
	By      string // a name, "" for a link
	ByLink  bool
	Content
}

// Content is what an event says: the one of its kind.
type Content struct {
	Pain    *PainTold  `json:"pain,omitempty"`
	LeftOut *LeftOut   `json:"left_out,omitempty"`
	Swap    *Swap      `json:"swap,omitempty"`
	Paired  *Paired    `json:"paired,omitempty"`
	End     *End       `json:"end,omitempty"`
	Line    string     `json:"line,omitempty" maxLength:"140"`
	Undone  *uuid.UUID `json:"undone,omitempty"`
}

// PainTold is a report of pain on the floor.
type PainTold struct {
	Slot   uuid.UUID      `json:"slot"`
	Side   person.Side    `json:"side,omitempty" enum:",left,right"`
	Joint  movement.Joint `json:"joint,omitempty" doc:"absent: elsewhere"`
	Score  int            `json:"score" minimum:"0" maximum:"10"`
	When   string         `json:"when" enum:"start,middle,end,after" doc:"of the set"`
	Sudden bool           `json:"sudden,omitempty"`
	Flags  []string       `json:"flags,omitempty" maxItems:"10" doc:"warning signs that were said yes to"`
}

// LeftOut is what of a slot is not done, and why.
type LeftOut struct {
	Slot   uuid.UUID `json:"slot"`
	Sets   int       `json:"sets" minimum:"1" maximum:"40" doc:"of all arms"`
	Reason Reason    `json:"reason" enum:"time,pain,form,taken,enough,not_today"`
}

// Reason is why something was not done.
type Reason string

// The reasons.
const (
	ForTime     Reason = "time"
	ForPain     Reason = "pain"
	ForForm     Reason = "form"
	ForTaken    Reason = "taken"
	ForEnough   Reason = "enough"
	ForNotToday Reason = "not_today"
)

var reasonWords = map[Reason]string{ForTime: "no time", ForPain: "pain", ForForm: "form ended it", ForTaken: "taken by somebody",
	ForEnough: "enough for today", ForNotToday: "not today"}

// Reasons are the reasons in the order in which they are offered.
var Reasons = []Reason{ForTime, ForEnough, ForTaken, ForForm, ForPain, ForNotToday}

// Words tells a reason.
func (r Reason) Words() string { return reasonWords[r] }

// Swap is another set-up for what is left of a slot.
type Swap struct {
	Slot     uuid.UUID         `json:"slot"`
	Kind     Kind              `json:"kind" enum:"lighter,other_hand,cable,short_range,kinder"`
	Joint    movement.Joint    `json:"joint,omitempty"`
	Movement string            `json:"movement" maxLength:"80"`
	Settings movement.Settings `json:"settings,omitempty"`
	Reserve  int               `json:"reserve" minimum:"0" maximum:"6"`
	Now      int               `json:"now" minimum:"0" maximum:"10" doc:"what the joint scored when it was tried"`
}

// Paired is what is ahead of a slot and the next one, done in turns.
type Paired struct {
	Slot uuid.UUID `json:"slot" doc:"the earlier one"`
	Done int       `json:"done" minimum:"0" maximum:"40" doc:"sets of it that were done by then"`
}

// End is what is said when a session is over.
type End struct {
	Hard int      `json:"hard" minimum:"0" maximum:"10" doc:"how hard it was"`
	Good int      `json:"good,omitempty" minimum:"0" maximum:"5" doc:"how good it was, 1–5; 0: not said"`
	Felt []string `json:"felt,omitempty" maxItems:"7" doc:"heads in which it was felt: weak evidence, never proof"`
	Note string   `json:"note,omitempty" maxLength:"300"`
}

// Check returns what is wrong with what an event says, one error a field.
func (c *Content) Check(kind string) (out []*movement.FieldError) {
	fault := func(wrong bool, field, reason string, args ...any) {
		if wrong {
			out = append(out, &movement.FieldError{Field: field, Reason: fmt.Sprintf(reason, args...)})
		}
	}
	said := map[string]bool{TellsPain: c.Pain != nil, TellsLeftOut: c.LeftOut != nil, TellsSwap: c.Swap != nil,
		TellsPaired: c.Paired != nil, TellsEnd: c.End != nil,
		TellsLine: strings.TrimSpace(c.Line) != "", TellsUndone: c.Undone != nil}
	for k, is := range said {
		fault(is != (k == kind), k, "an event says what it is, and nothing else")
	}
	if len(out) > 0 {
		return out
	}
	switch kind {
	case TellsPain:
		p := c.Pain
		fault(p.Joint != "" && !slices.Contains(movement.Joints, p.Joint), "pain.joint", "there is no joint %q", p.Joint)
		fault(p.Joint != "" && p.Side != person.Left && p.Side != person.Right, "pain.side", "neither left nor right")
		for _, f := range p.Flags {
			fault(!slices.ContainsFunc(Flags(), func(q *person.Question) bool { return q.ID == f }), "pain.flags", "there is no %q", f)
		}
	case TellsLeftOut:
		fault(reasonWords[c.LeftOut.Reason] == "", "left_out.reason", "there is no reason %q", c.LeftOut.Reason)
	case TellsEnd:
		for _, h := range c.End.Felt {
			_, ok := arm.HeadByID(h)
			fault(!ok, "end.felt", "there is no head %q", h)
		}
	}
	return out
}

// Flags are the warning signs that are asked on the floor before anything is offered.
func Flags() (out []*person.Question) {
	for i := range person.Questions {
		q := &person.Questions[i]
		if q.Level >= person.SameDay || slices.Contains(nowToo, q.ID) {
			out = append(out, q)
		}
	}
	return out
}

// nowToo are signs that ask for a clinician before the next set, though not for the same day.
var nowToo = []string{"bruise", "nerve", "night"}

// Standing leaves out what was taken back.
func Standing(events []Event) (out []Event) {
	back := map[uuid.UUID]bool{}
	for i := range events {
		if u := events[i].Undone; u != nil {
			back[*u] = true
		}
	}
	for i := range events {
		if e := &events[i]; !back[e.ID] && e.Kind != TellsUndone {
			out = append(out, *e)
		}
	}
	return out
}

// Seen is what of the standing events may be shown: without the consent to health notes no pain,
// nothing that followed from it, and not that it was why something was left out.
func Seen(events []Event, consent bool) (out []Event) {
	for _, e := range Standing(events) {
		switch {
		case consent:
		case e.Pain != nil || e.Swap != nil:
			continue
		case e.LeftOut != nil && e.LeftOut.Reason == ForPain:
			left := *e.LeftOut
			left.Reason = ForNotToday
			e.LeftOut = &left
		}
		out = append(out, e)
	}
	return out
}

// ReportOf is what a report means in the light of those told before it in the same session.
func ReportOf(p *PainTold, before []Event) Report {
	r := Report{Side: p.Side, Joint: p.Joint, Score: p.Score, Sudden: p.Sudden, First: -1}
	for _, e := range before {
		if b := e.Pain; b != nil && b.Joint == p.Joint && b.Side == p.Side && r.First < 0 {
			r.First = b.Score
		}
		if s := e.Swap; s != nil && s.Joint == p.Joint {
			r.Again = true
		}
	}
	return r
}

// Answers is the report that a swap answers, nil with why it may not be: one was told of the
// joint before, it has settled in time, and nothing was tried for it yet. events are those of its
// session, itself among them where it is sent again.
func Answers(swap *Event, events []Event) (*Report, string) {
	var before []Event
	for _, e := range Standing(events) {
		if e.ID != swap.ID {
			before = append(before, e)
		}
	}
	for i := len(before) - 1; i >= 0; i-- {
		p := before[i].Pain
		if p == nil || p.Joint != swap.Swap.Joint {
			continue
		}
		r := ReportOf(p, before)
		if !r.MayTry(swap.Swap.Now, swap.At.Sub(before[i].At).Seconds()) {
			return nil, fmt.Sprintf("one try for a joint, once it is back at %d or less within %d s", overPain, settleS)
		}
		return &r, ""
	}
	return nil, "nothing was told of this joint"
}

// MayUndo says why an event of a session may not be taken back, "" where it may: what hurt stays
// told, and what followed from it, or a coach's line, is taken back only by whoever plans.
func MayUndo(events []Event, id uuid.UUID, plans bool) string {
	for i := range events {
		switch e := &events[i]; {
		case e.ID != id:
		case e.Pain != nil:
			return "what hurt stays told; a coach eases it in the dossier"
		case !plans && (e.Swap != nil || e.Line != "" || e.LeftOut != nil && e.LeftOut.Reason == ForPain):
			return "what followed from pain, and a coach’s line, only a coach takes back"
		default:
			return ""
		}
	}
	return "nothing in this session has this id"
}
