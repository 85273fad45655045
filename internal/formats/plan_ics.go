package formats

import (
	"fmt"
	"io"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"
)

// CalendarSession is a session as a calendar shows it.
type CalendarSession struct {
	ID, Name, Where, Says string
	Date                  time.Time // the day; it has no hour
}

// WriteCalendar writes sessions as whole days of a calendar.
func WriteCalendar(w io.Writer, name string, sessions []CalendarSession, now time.Time) error {
	cal := ics.NewCalendar()
	cal.SetMethod(ics.MethodPublish)
	cal.SetProductId("-//Musculus//sessions//EN")
	cal.SetName(name)
	for _, s := range sessions {
		e := cal.AddEvent(s.ID + "@musculus")
		e.SetDtStampTime(now)
		e.SetAllDayStartAt(s.Date)
		e.SetAllDayEndAt(s.Date.AddDate(0, 0, 1))
		e.SetSummary(s.Name)
		e.SetLocation(s.Where)
		e.SetDescription(s.Says)
	}
	_, err := fmt.Fprint(w, strings.ReplaceAll(cal.Serialize(), "\r\n\r\n", "\r\n"))
	return err
}
