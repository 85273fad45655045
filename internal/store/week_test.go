package store_test

import (
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/entry"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
	"musculus/internal/store"
	"musculus/internal/testenv"
)

// Rows, combos, who begins and locks come back as they were kept; a kept row that is
// no set-up any more is told at its place.
func TestAPrescriptionComesBack(t *testing.T) {
	s := testenv.Store(t)
	a := makeStudio(t, s, "a")
	c := content()
	c.Locked, c.Combos = true, []plan.Combo{{ID: "x", BetweenS: 20, AfterS: 90, Loads: plan.OneLoad}}
	slot := &c.Slots[0]
	slot.Starts, slot.Locked, slot.Combo = plan.StartsRight, true, "x"
	other := movement.Shipped.Get("curl_neutral").Default()
	slot.Rows[0].SetUp = &other
	slot.Rows = append(
		slot.Rows,
		plan.Row{
			ID:   id(),
			Dose: dose.Dose{Sets: 2, SecondsLow: 20, SecondsHigh: 30, Load: &dose.Load{Share: 0.5}, Method: dose.Use{ID: "drops", N: 1}},
		},
	)
	save := func(version int, removed bool) (got store.Session) {
		require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) (err error) {
			got, err = tx.SaveSession(
				ctx,
				store.Session{
					ClientID: a.client,
					Planned:  plan.Planned{ID: a.session, Name: "Monday", On: day.At(monday), Session: c},
					Version:  version,
					Removed:  removed,
				},
				a.coach,
				id(),
				movement.Shipped,
			)
			return err
		}))
		return got
	}
	kept := save(1, false)
	require.Empty(t, kept.Faults)
	want, err := c.Write()
	require.NoError(t, err)
	is, err := kept.Write()
	require.NoError(t, err)
	assert.JSONEq(t, string(want), string(is))
	assert.Contains(t, string(is), `"version":2`)
	assert.Equal(t, "curl_neutral", kept.Slots[0].SetUpOf(0).Movement.ID)
	assert.Equal(t, c.Slots[0].SetUp.Key(), kept.Slots[0].SetUpOf(4).Key())
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
		gone := &movement.Catalogue{Movements: movement.Shipped.Movements[:1]}
		one, err := tx.Session(ctx, a.client, a.session, gone)
		require.Len(t, one.Faults, 1)
		assert.Equal(t, "slots[0].movement", one.Faults[0].Field)
		return err
	}))

	// Taken out, it is in no list but can be read and brought back.
	lists := func() (all, between int) {
		require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
			list, err := tx.Sessions(ctx, a.client, movement.Shipped)
			require.NoError(t, err)
			week, err := tx.SessionsBetween(ctx, a.client, day.At(monday), day.At(monday), movement.Shipped)
			all, between = len(list), len(week)
			return err
		}))
		return all, between
	}
	assert.True(t, save(2, true).Removed)
	all, between := lists()
	assert.Equal(t, [2]int{0, 0}, [2]int{all, between})
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
		one, err := tx.Session(ctx, a.client, a.session, movement.Shipped)
		assert.True(t, one.Removed)
		return err
	}))
	assert.False(t, save(3, false).Removed)
	all, between = lists()
	assert.Equal(t, [2]int{1, 1}, [2]int{all, between})
}

// What a series says comes from its last sets: not from those that form ended, that
// were corrected away, or that are too long ago.
func TestWhatEachSeriesSays(t *testing.T) {
	s := testenv.Store(t)
	a := makeStudio(t, s, "a")
	curl, press := movement.Shipped.Get("curl_neutral").Default(), movement.Shipped.Get("press_bench_close").Default()
	at := monday.Add(10 * time.Hour)
	lifted := func(set movement.SetUp, kg float64, reps int, ago time.Duration) entry.Entry {
		return entry.Entry{
			ID:        id(),
			ClientID:  a.client,
			SessionID: a.session,
			SlotID:    id(),
			SetUp:     set,
			Side:      entry.BothSides,
			SetNo:     1,
			Reps:      reps,
			LoadKg:    kg,
			Reserve:   2,
			DoneAt:    at.Add(-ago),
		}
	}
	log := func(list ...entry.Entry) {
		require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
			for _, e := range list {
				if err := tx.AddEntry(ctx, e, a.coach); err != nil {
					return err
				}
			}
			return nil
		}))
	}
	wrong := lifted(curl, 100, 8, time.Hour)
	fixed := lifted(curl, 12, 8, time.Hour)
	fixed.Replaces = &wrong.ID
	form := lifted(curl, 40, 8, 2*time.Hour)
	form.Technical = true
	log(lifted(curl, 10, 8, 3*time.Hour), wrong, fixed, form, lifted(curl, 60, 8, 90*24*time.Hour), lifted(press, 30, 20, time.Hour))
	for range 30 { // long ago within the look back, and more than are looked at
		log(lifted(press, 20, 18, 50*time.Hour))
	}
	var own map[string]series.Own
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) (err error) {
		own, err = tx.Own(ctx, a.client, at, movement.Shipped)
		return err
	}))
	ten, _ := series.E1RM(10, 8, 2)
	twelve, _ := series.E1RM(12, 8, 2)
	assert.InDelta(t, (ten+twelve)/2, own["curl_neutral"].E1RM, 1e-9)
	assert.Equal(t, 3, own["curl_neutral"].Logged, "what form ended was done, but tells no load")
	assert.Zero(t, own["press_bench_close"].E1RM, "above twelve reps no load is told")
	assert.Equal(t, 31, own["press_bench_close"].Logged)
	assert.Len(t, own, 2)
}

// Whoever asks what a series says hears the same, on any day: the board and the
// builder by all series at once, Fitting and the log by the one, a seeded load by
// the whole log. Twenty histories, as they are and as they are not meant to be.
func TestOneEstimateForEverybody(t *testing.T) {
	s := testenv.Store(t)
	a := makeStudio(t, s, "a")
	r := rand.New(rand.NewPCG(20, 26))
	today := monday.Add(11 * time.Hour)
	var sets []movement.SetUp
	for i := range 20 {
		set := movement.Shipped.Movements[i*4].Default()
		sets = append(sets, set)
		require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
			days := i * 3 // the last of some histories is silent by now
			for range 1 + r.IntN(14) {
				days += r.IntN(9)
				e := entry.Entry{
					ID:        id(),
					ClientID:  a.client,
					SessionID: a.session,
					SlotID:    id(),
					SetUp:     set,
					Side:      entry.BothSides,
					SetNo:     1,
					Reps:      3 + r.IntN(14),
					LoadKg:    5 + 40*r.Float64(),
					Reserve:   r.IntN(4),
					DoneAt:    today.AddDate(0, 0, -days).Add(-time.Duration(r.IntN(600)) * time.Minute),
					Technical: r.IntN(6) == 0,
				}
				if err := tx.AddEntry(ctx, e, a.coach); err != nil {
					return err
				}
			}
			return nil
		}))
	}
	spoke, silent := 0, 0
	for _, ahead := range []int{0, 1, 20, 56, 57, 120} {
		now := today.AddDate(0, 0, ahead)
		on := day.At(now)
		require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
			own, err := tx.Own(ctx, a.client, now, movement.Shipped)
			require.NoError(t, err)
			past, err := tx.EntriesSince(ctx, a.client, now.AddDate(0, 0, -300), movement.Shipped)
			require.NoError(t, err)
			known := map[string]series.Known{}
			for _, k := range series.Gather(past) {
				known[k.SetUp.Key()] = k
			}
			for _, set := range sets {
				entries, err := tx.SeriesEntries(ctx, a.client, set.Key(), movement.Shipped)
				require.NoError(t, err)
				e1rm, logged := series.Says(entry.SaidOf(entries), on)
				assert.InDelta(t, e1rm, own[set.Key()].E1RM, 1e-9, "%s in %d days", set.Key(), ahead)
				assert.Equal(t, logged, own[set.Key()].Logged, "%s in %d days", set.Key(), ahead)
				k := known[set.Key()]
				if k.Speaks(on) {
					spoke++
					assert.InDelta(t, e1rm, k.E1RM(on), 1e-9, "%s in %d days", set.Key(), ahead)
				} else {
					silent++
					assert.Zero(t, e1rm, "%s in %d days", set.Key(), ahead)
				}
			}
			return nil
		}))
	}
	assert.Greater(t, spoke, 20)
	assert.Greater(t, silent, 20)
}
