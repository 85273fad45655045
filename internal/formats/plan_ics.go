package formats

import (
	"fmt"
	"io"
	"musculus/internal/core/day"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"
)

// CalendarSession is a session as a calendar shows it.
type CalendarSession struct {
	ID, Name, Where, Says string
	Date                  day.Day
}

// midnight is a day as the calendar's library takes it.
func midnight(d day.Day) time.Time {
	y, m, dom := d.Date()
	return time.Date(y, time.Month(m), dom, 0, 0, 0, 0, time.UTC)
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
		e.SetAllDayStartAt(midnight(s.Date))
		e.SetAllDayEndAt(midnight(s.Date + 1))
		e.SetSummary(s.Name)
		e.SetLocation(s.Where)
		e.SetDescription(s.Says)
	}
	_, err := fmt.Fprint(w, strings.ReplaceAll(cal.Serialize(), "\r\n\r\n", "\r\n"))
	return err
}
