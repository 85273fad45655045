package decide

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/day"
)

// What is due, each with its day, the oldest first; a calm client asks for nothing.
func TestDues(t *testing.T) {
	at := time.Date(2026, 11, 27, 9, 0, 0, 0, time.UTC)
	calm := Around{
		Today:    today,
		Measures: true,
		Measured: today - 10,
		Rated:    today - 30,
		Until:    today + 40,
		Known:    true,
		Links:    1,
		Opened:   at,
		Sessions: []Dated{{On: today - 4, Sets: 9}, {On: today + 1, Issued: at.Add(-time.Hour)}},
	}
	assert.Empty(t, Dues(&calm))
	for name, c := range map[string]struct {
		change func(a *Around)
		kind   DueKind
		since  day.Day
	}{
		"blocked":           {func(a *Around) { a.Blocked = "See a clinician" }, DueScreening, today},
		"measured long ago": {func(a *Around) { a.Measured = today - 29 }, DueMeasuring, today - 1},
		"never measured":    {func(a *Around) { a.Measured = 0 }, DueMeasuring, today},
		"rated long ago":    {func(a *Around) { a.Rated = today - 130 }, DueRating, today - 8},
		"emphasis ends":     {func(a *Around) { a.Until = today + 7 }, DueEmphasis, today},
		"emphasis ended":    {func(a *Around) { a.Until = today - 3 }, DueEmphasis, today - 3},
		"two missed": {func(a *Around) {
			a.Sessions[0].Sets = 0
			a.Sessions = append([]Dated{{On: today - 7}}, a.Sessions...)
		}, DueMissed, today - 4},
		"one of a block missed": {func(a *Around) { a.Sessions[0].Sets, a.Sessions[0].Block = 0, true }, DueMissed, today - 4},
		"block ends":            {func(a *Around) { a.BlockEnd = today + 3 }, DueBlock, today},
		"block ended":           {func(a *Around) { a.BlockEnd = today - 2 }, DueBlock, today - 2},
		"sheet not opened":      {func(a *Around) { a.Opened = at.Add(-2 * time.Hour) }, DueSheet, today},
		"no sheet":              {func(a *Around) { a.Sessions[1].Issued = time.Time{} }, DueSheet, today},
		"to decide":             {func(a *Around) { a.Asks = []Proposal{{Name: "Curl", Says: "Go up to 14 kg"}} }, DueDecision, today},
	} {
		a := calm
		a.Sessions = append([]Dated{}, calm.Sessions...)
		c.change(&a)
		out := Dues(&a)
		if assert.Len(t, out, 1, name) {
			assert.Equal(t, c.kind, out[0].Kind, name)
			assert.Equal(t, c.since, out[0].Since, name)
			assert.NotEmpty(t, out[0].Says)
		}
	}
	once := calm
	once.Sessions = []Dated{{On: today - 4}, {On: today - 9, Sets: 3}}
	assert.Empty(t, Dues(&once), "one missed is none")
	quiet := calm
	quiet.Measures, quiet.Measured = false, 0
	assert.Empty(t, Dues(&quiet), "who does not want to be measured is not asked")
	both := calm
	both.Measured, both.Rated = today-40, today-200
	assert.Equal(t, []DueKind{DueRating, DueMeasuring}, []DueKind{Dues(&both)[0].Kind, Dues(&both)[1].Kind})
}
