package entry_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/entry"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

func TestWhatCannotBeIsAskedBack(t *testing.T) {
	digs := &person.Room{Name: "Digs", Things: []person.Thing{person.Singles(14)}}
	loft := &person.Room{
		Name:   "Loft",
		Things: []person.Thing{person.Pairs(8, 10, 30), person.There(movement.DipBars)},
	}
	against := func(id string, room *person.Room, e1rm float64) *entry.Against {
		set := movement.Shipped.Get(id).Default()
		return &entry.Against{
			SetUp:   set,
			Steps:   room.Steps(set),
			Carry:   person.CarryOf(set),
			Rigging: room.Rigging(75),
			Room:    room,
			E1RM:    e1rm,
			High:    12,
		}
	}
	for _, c := range []struct {
		a        *entry.Against
		whole    float64
		reps     int
		question string
		field    string
	}{
		{against("curl_upright_two_hand", digs, 0), 140, 10, "One dumbbell 140 kg? Digs has one dumbbell 14 kg.", "whole_kg"},
		{against("curl_upright_two_hand", digs, 0), 14, 10, "", ""},
		{against("curl_standing_dumbbells", loft, 0), 9, 10, "9 kg a hand? Loft has none, the nearest is 8 kg a hand.", "whole_kg"},
		{against("curl_standing_dumbbells", loft, 15), 30, 10,
			"30 kg a hand? By its series about 15 kg a hand could be lifted once.", "whole_kg"},
		{against("curl_standing_dumbbells", loft, 20), 30, 10, "", ""},
		{against("curl_standing_dumbbells", loft, 20), 10, 24, "", ""},
		{against("curl_standing_dumbbells", loft, 20), 10, 25, "25 reps? The band ends at 12.", "reps"},
		{against("dip_bars", loft, 0), 0, 10, "", ""},
	} {
		question, field := entry.Doubt(entry.Told{Whole: c.whole, Reps: c.reps}, c.a)
		assert.Equal(t, c.question, question)
		assert.Equal(t, c.field, field)
	}
}

// While training is stopped a set is kept only where it was done before, corrects
// something or waited without network, and says so; never silently.
func TestASetWhileTrainingIsStopped(t *testing.T) {
	at := time.Date(2026, 11, 25, 10, 0, 0, 0, time.UTC)
	stopped := entry.Standing{Since: at}
	for _, corrects := range []bool{false, true} {
		for _, waited := range []bool{false, true} {
			for _, gap := range []time.Duration{-time.Hour, 0, time.Hour} {
				name := fmt.Sprint(corrects, waited, gap)
				mark, kept := entry.Take(stopped, at.Add(gap), corrects, waited)
				assert.Equal(t, corrects || waited || gap < 0, kept, name)
				assert.Equal(t, kept, mark != entry.Plain, name)
				assert.Equal(t, kept, mark.Words() != "", name)
				mark, kept = entry.Take(entry.Standing{MayTrain: true}, at.Add(gap), corrects, waited)
				assert.True(t, kept && mark == entry.Plain, name)
			}
		}
	}
	_, kept := entry.Take(entry.Standing{}, at, false, false)
	assert.False(t, kept, "never screened: nothing is earlier")
}

// A set is what it was made of: only its clean reps at its load are its reps.
func TestASetIsMadeOfParts(t *testing.T) {
	kg := 8.0
	fields := func(reps int, parts ...entry.Part) (out []string) {
		for _, e := range entry.CheckParts(parts, reps) {
			out = append(out, e.Field)
		}
		return out
	}
	assert.Empty(t, fields(9))
	assert.Empty(
		t,
		fields(
			9,
			entry.Part{Kind: entry.Clean, Reps: 9},
			entry.Part{Kind: entry.Assisted, Reps: 2},
			entry.Part{Kind: entry.Clean, Reps: 6, LoadKg: &kg, PauseS: 10},
		),
	)
	assert.Equal(t, []string{"reps"}, fields(8, entry.Part{Kind: entry.Clean, Reps: 9}))
	assert.Equal(t, []string{"parts[0].kind", "reps"}, fields(8, entry.Part{Kind: "flown", Reps: 9}))
	assert.Equal(t, []string{"parts[1].seconds"}, fields(8, entry.Part{Kind: entry.Clean, Reps: 8}, entry.Part{Kind: entry.Held, Reps: 3}))
	assert.Contains(t, fields(0, make([]entry.Part, 13)...), "parts")
	e := entry.Entry{
		Reps:  9,
		Parts: []entry.Part{{Kind: entry.Clean, Reps: 9}, {Kind: entry.Swung, Reps: 2}, {Kind: entry.Held, Seconds: 10}},
	}
	assert.Equal(t, "9 clean, 2 swung, 10 s held", e.PartsWords())
	assert.False(t, e.Said().Hollow)
	e.Hollow = "drops"
	assert.True(t, e.Said().Hollow)
	none := entry.Entry{Parts: []entry.Part{{Kind: entry.Swung, Reps: 6}}}
	assert.True(t, none.Said().Hollow, "nothing of it was clean")
}
