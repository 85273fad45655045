// Package day counts calendar days. The core has no clock: today is passed in.
package day

import (
	"fmt"
	"strconv"
	"strings"
	"time"
)

// Day is a date, counted in days from 1 January 1970.
type Day int

// Of makes a day of a date of the Gregorian calendar (after Howard Hinnant's
// "days from civil", public domain).
func Of(year, month, dom int) Day {
	if month <= 2 {
		year--
	}
	era := floor(year, 400)
	yoe := year - era*400
	doy := (153*((month+9)%12)+2)/5 + dom - 1
	doe := yoe*365 + yoe/4 - yoe/100 + doy
	return Day(era*146097 + doe - 719468)
}

// Date returns year, month and day of the month.
func (d Day) Date() (year, month, dom int) {
	z := int(d) + 719468
	era := floor(z, 146097)
	doe := z - era*146097
	yoe := (doe - doe/1460 + doe/36524 - doe/146096) / 365
	doy := doe - (365*yoe + yoe/4 - yoe/100)
	mp := (5*doy + 2) / 153
	month = mp + 3
	if mp >= 10 {
		month = mp - 9
	}
	year = yoe + era*400
	if month <= 2 {
		year++
	}
	return year, month, doy - (153*mp+2)/5 + 1
}

func floor(a, b int) int {
	q := a / b
	if a%b < 0 {
		q--
	}
	return q
}

// Year returns the day's year.
func (d Day) Year() int { y, _, _ := d.Date(); return y }

// String writes 2026-11-25.
func (d Day) String() string {
	y, m, dom := d.Date()
	return fmt.Sprintf("%04d-%02d-%02d", y, m, dom)
}

var weekdays = []string{"Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"}

// inWeek is how many days a day is after its week's Monday; day 0 was a Thursday.
func (d Day) inWeek() int { return ((int(d)+3)%7 + 7) % 7 }

// Monday is the first day of the day's week.
func (d Day) Monday() Day { return d - Day(d.inWeek()) }

// Weekday is the day's name: Wednesday.
func (d Day) Weekday() string { return weekdays[d.inWeek()] }

// Long writes Wednesday, 25 November 2026.
func (d Day) Long() string { return d.Weekday() + ", " + d.Words() }

// FromToday tells a day against another one: today, tomorrow, Friday, 3 days ago.
func (d Day) FromToday(today Day) string {
	switch n := int(d - today); {
	case n == 0:
		return "today"
	case n == 1:
		return "tomorrow"
	case n == -1:
		return "yesterday"
	case n > 1 && n < 7:
		return d.Weekday()
	case n > 0:
		return fmt.Sprintf("in %d days", n)
	default:
		return fmt.Sprintf("%d days ago", -n)
	}
}

var months = []string{
	"January",
	"February",
	"March",
	"April",
	"May",
	"June",
	"July",
	"August",
	"September",
	"October",
	"November",
	"December",
}

// Words writes 25 November 2026, its parts held together: no line breaks within it, and
// a screen knows a day of ours from one that somebody typed, so that it can be written
// the other way round for who reads it so.
func (d Day) Words() string {
	y, m, dom := d.Date()
	return fmt.Sprintf("%d\u00a0%s\u00a0%d", dom, months[m-1], y)
}

// At is the day of a time as it is written, in its own zone.
func At(t time.Time) Day {
	y, m, d := t.Date()
	return Of(y, int(m), d)
}

// Parse reads 2026-11-25; days that do not exist are refused.
func Parse(text string) (Day, error) {
	parts := strings.Split(text, "-")
	if len(parts) == 3 && len(parts[0]) == 4 && len(parts[1]) == 2 && len(parts[2]) == 2 {
		y, e1 := strconv.Atoi(parts[0])
		m, e2 := strconv.Atoi(parts[1])
		dom, e3 := strconv.Atoi(parts[2])
		if e1 == nil && e2 == nil && e3 == nil && y >= 1900 && m >= 1 && m <= 12 && dom >= 1 {
			if d := Of(y, m, dom); d.String() == text {
				return d, nil
			}
		}
	}
	return 0, fmt.Errorf("%q is no date (2026-11-25)", text)
}

// MarshalText writes 2026-11-25.
func (d Day) MarshalText() ([]byte, error) { return []byte(d.String()), nil }

// UnmarshalText reads 2026-11-25.
func (d *Day) UnmarshalText(b []byte) error {
	var err error
	*d, err = Parse(string(b))
	return err
}
