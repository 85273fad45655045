package floor

import (
	"fmt"
	"strings"

	"github.com/google/uuid"
)

// Words tell an event to whoever looks at it later; slot names a slot in few words. "" for what
// stands elsewhere.
func (e *Event) Words(slot func(uuid.UUID) string) string {
	who := e.By
	if e.ByLink {
		who = "the client"
	}
	switch {
	case e.Pain != nil:
		p := e.Pain
		where := "elsewhere"
		if p.Joint != "" {
			where = string(p.Side) + ", " + p.Joint.Words()
		}
		out := fmt.Sprintf("It hurt in %s: %s, %d of 10", slot(p.Slot), where, p.Score)
		if p.Sudden {
			out += ", suddenly"
		}
		if len(p.Flags) > 0 {
			out += ", with a warning sign: the session ended"
		}
		return out + " (" + who + ")."
	case e.LeftOut != nil:
		sets := "1 set"
		if e.LeftOut.Sets > 1 {
			sets = fmt.Sprintf("%d sets", e.LeftOut.Sets)
		}
		return fmt.Sprintf("%s of %s left out: %s (%s).", sets, slot(e.LeftOut.Slot), e.LeftOut.Reason.Words(), who)
	case e.Swap != nil:
		return fmt.Sprintf("After pain %s went on otherwise, with at least %d left (%s).", slot(e.Swap.Slot), e.Swap.Reserve, who)
	case e.Paired != nil:
		return fmt.Sprintf("%s went on in turns with the next one, to save time (%s).", slot(e.Paired.Slot), who)
	case e.End != nil:
		var parts []string
		parts = append(parts, fmt.Sprintf("%d of 10 hard", e.End.Hard))
		if e.End.Good > 0 {
			parts = append(parts, fmt.Sprintf("%d of 5 good", e.End.Good))
		}
		if e.End.Note != "" {
			parts = append(parts, "“"+e.End.Note+"”")
		}
		return fmt.Sprintf("At the end: %s (%s).", strings.Join(parts, ", "), who)
	}
	return ""
}
