package entry

import (
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/movement"
)

// Side is which arm did a set.
type Side string

// The sides.
const (
	BothSides Side = "both"
	Left      Side = "left"
	Right     Side = "right"
)

// Entry is one logged set. Entries are never changed: a correction replaces an
// earlier one, a withdrawn one only takes its predecessor away.
type Entry struct {
	ID        uuid.UUID
	ClientID  uuid.UUID
	SessionID uuid.UUID
	SlotID    uuid.UUID
	RowID     *uuid.UUID // nil: logged before slots had rows
	SetUp     movement.SetUp
	Side      Side
	SetNo     int     // within the slot, each arm's, from 1
	Reps      int     // clean ones, at the set's load
	LoadKg    float64 // what one hand carried
	Reserve   int
	Note      string
	DoneAt    time.Time
	Replaces  *uuid.UUID
	Withdrawn bool
	Faults    []string // ids of what was seen
	Technical bool     // ended because form went, not the muscle
	Mark      Mark     // why it stands although training was stopped
	Unsure    bool     // kept as it came, still to be asked about; no series is fed by it
	Parts     []Part   // what the set was made of; none: its clean reps alone
	// Hollow is why its series is not fed by it, "" where it is.
	Hollow string

	By   *uuid.UUID // the account that told it, nil where a link did
	Link *uuid.UUID // the link that told it
	// Device is what it was told by, DeviceNo its count and DeviceAt its clock, which may be
	// wrong; DoneAt is put right by what the server and the device said to each other.
	Device   *uuid.UUID
	DeviceNo int64
	DeviceAt *time.Time
	RestS    *float32   // how long the rest before it really was, s
	SameAs   *uuid.UUID // another device had told it: it is that set, and stands no second time
	TwiceOf  *uuid.UUID // another device told another set in its place: it waits to be asked about
}

// Kind is what a part of a set was.
type Kind string

// The kinds of part.
const (
	Clean        Kind = "clean"
	Assisted     Kind = "assisted" // by the free hand or a partner
	Swung        Kind = "swung"
	Momentum     Kind = "momentum"      // to the short end
	PartialShort Kind = "partial_short" // the half where the muscle is short
	PartialLong  Kind = "partial_long"  // the half where it is long
	Lowering     Kind = "lowering"      // only on the way down
	Held         Kind = "hold"
)

// kindWords tell the kinds.
var kindWords = map[Kind]string{
	Clean:        "clean",
	Assisted:     "assisted",
	Swung:        "swung",
	Momentum:     "with momentum",
	PartialShort: "partial, short half",
	PartialLong:  "partial, long half",
	Lowering:     "lowered only",
	Held:         "held",
}

// Part is a stretch of a set in which one thing was done: clean reps, then two with
// help; a drop's rungs are clean parts with their own load and the pause before them.
type Part struct {
	Kind    Kind     `json:"kind" enum:"clean,assisted,swung,momentum,partial_short,partial_long,lowering,hold"`
	Reps    int      `json:"reps,omitempty" minimum:"0" maximum:"100"`
	Seconds int      `json:"seconds,omitempty" minimum:"0" maximum:"600" doc:"of a hold"`
	LoadKg  *float64 `json:"load_kg,omitempty" doc:"what one hand carried; absent: the set's load"`
	PauseS  int      `json:"pause_s,omitempty" minimum:"0" maximum:"600" doc:"before it"`
}

// mostParts bounds what one set is made of.
const mostParts = 12

// CheckParts returns what is wrong with the parts of a set of some clean reps, one
// error a field.
func CheckParts(parts []Part, reps int) (out []*movement.FieldError) {
	fault := func(field, reason string, args ...any) {
		out = append(out, &movement.FieldError{Field: field, Reason: fmt.Sprintf(reason, args...)})
	}
	if len(parts) > mostParts {
		fault("parts", "%d parts are more than %d", len(parts), mostParts)
	}
	clean := 0
	for i, p := range parts {
		at := fmt.Sprintf("parts[%d].", i)
		switch _, known := kindWords[p.Kind]; {
		case !known:
			fault(at+"kind", "there is no %q", string(p.Kind))
		case p.Kind == Held && p.Seconds == 0:
			fault(at+"seconds", "a hold has seconds")
		case p.Kind != Held && p.Reps == 0:
			fault(at+"reps", "it has reps")
		}
		if p.LoadKg != nil && !(*p.LoadKg >= 0 && *p.LoadKg <= 300) {
			fault(at+"load_kg", "%g kg is outside 0…300 kg", *p.LoadKg)
		}
		if p.Kind == Clean && p.LoadKg == nil {
			clean += p.Reps
		}
	}
	if len(parts) > 0 && clean != reps {
		fault("reps", "%d reps, but the clean parts at the set’s load have %d", reps, clean)
	}
	return out
}

// PartsWords tells what a set was made of, "" where it was clean reps alone.
func (e *Entry) PartsWords() string {
	if len(e.Parts) == 0 || len(e.Parts) == 1 && e.Parts[0].Kind == Clean {
		return ""
	}
	var out []string
	for _, p := range e.Parts {
		n := fmt.Sprint(p.Reps)
		if p.Kind == Held {
			n = fmt.Sprintf("%d s", p.Seconds)
		}
		out = append(out, n+" "+kindWords[p.Kind])
	}
	return strings.Join(out, ", ")
}

// Said is one standing set as its series reads it.
type Said struct {
	On        day.Day
	LoadKg    float64 // as one hand carries it
	Reps      int
	Reserve   int
	Technical bool // form ended it, which says nothing of the muscle
	Hollow    bool // it feeds no series
}

// Said is a set as its series reads it: its clean reps at its load.
func (e *Entry) Said() Said {
	return Said{
		On:        day.At(e.DoneAt),
		LoadKg:    e.LoadKg,
		Reps:      e.Reps,
		Reserve:   e.Reserve,
		Technical: e.Technical,
		Hollow:    e.Hollow != "" || e.Reps == 0,
	}
}

// SaidOf are sets of one series as it reads them, in their order.
func SaidOf(entries []Entry) []Said {
	out := make([]Said, len(entries))
	for i := range entries {
		out[i] = entries[i].Said()
	}
	return out
}
