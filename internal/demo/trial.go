package demo

import (
	"context"
	"math/rand/v2"
	"slices"
	"time"

	"musculus/internal/core/day"
	"musculus/internal/core/decide"
	"musculus/internal/core/dose"
	"musculus/internal/core/entry"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/store"
)

// The carpenter's pair trial: in its seventh week of ten, twice a week.
const (
	trialWeeks = 10
	trialBegan = 44 // days ago
)

// paired gives the carpenter a pair trial: the left arm overhead, the right arm behind, with what
// was done of it so far, and what is planned of it next.
func paired(ctx context.Context, tx *store.Tx, today day.Day) error {
	carpenter, coach := ClientID("Dario Vance"), id("account", SignIns[0].Email)
	trial := decide.Trial{ID: id("trial", "Dario Vance"), Started: today - trialBegan, Weeks: trialWeeks,
		Left: movement.Shipped.Get("overhead_cable_one_arm").Default(), Right: movement.Shipped.Get("kickback_cable").Default()}
	if err := tx.AddTrial(ctx, carpenter, &trial, coach); err != nil {
		return err
	}
	all, err := tx.Sessions(ctx, carpenter, movement.Shipped)
	if err != nil {
		return err
	}
	at := slices.IndexFunc(all, func(s store.Session) bool {
		return s.On >= today && slices.ContainsFunc(s.Slots, func(x plan.Slot) bool { return x.SetUp.Key() == trial.Right.Key() })
	})
	next := all[at]
	was := slices.IndexFunc(next.Slots, func(x plan.Slot) bool { return x.SetUp.Key() == trial.Right.Key() })
	planned := next.Slots[was]
	floor := plan.Floor{Room: &sailLoft, BodyMass: 88}
	left := floor.Rack(trial.Left)
	load := map[entry.Side]float64{entry.Left: left.Carry.PerHand(left.Nearest(20), left.Rigging), entry.Right: *next.Hand(was, 0, &floor)}
	if !trial.Split(&next.Session, 0) {
		return nil
	}
	for i := range next.Slots {
		if next.Slots[i].Starts == plan.LeftOnly {
			next.Slots[i].Take(dose.Carried(left, load[entry.Left]))
		}
	}
	if _, err := tx.SaveSession(ctx, next, coach, id("write", "trial"), movement.Shipped); err != nil {
		return err
	}
	r := rand.New(rand.NewPCG(7, 44))
	for k := range 12 {
		on := trial.Started + day.Day(7*(k/2)+4*(k%2))
		one := planned
		one.ID = id("slot", "trial", k)
		s := store.Session{ClientID: carpenter, Planned: plan.Planned{ID: id("session", "trial", k), Name: "A short finish", On: on,
			Session: plan.Session{WarmUpMin: 5, Slots: []plan.Slot{one}}}}
		if !trial.Split(&s.Session, k) {
			continue
		}
		for i := range s.Slots {
			if x := &s.Slots[i]; x.Starts == plan.LeftOnly {
				x.Take(dose.Carried(left, load[entry.Left]))
			}
		}
		if err := tx.AddSession(ctx, s, coach, id("write", "trial", k), movement.Shipped); err != nil {
			return err
		}
		when := time.Unix(int64(on)*24*60*60, 0).UTC().Add(18 * time.Hour)
		for i := range s.Slots {
			slot := &s.Slots[i]
			side := entry.Right
			if slot.Starts == plan.LeftOnly {
				side = entry.Left
			}
			for n := 1; n <= slot.Sets(); n++ {
				when = when.Add(2 * time.Minute)
				e := entry.Entry{ID: id("entry", "trial", k, i, n), ClientID: carpenter, SessionID: s.ID, SlotID: slot.ID, SetUp: slot.SetUp,
					Side: side, SetNo: n, Reps: slot.First().RepsLow + k/4 + r.IntN(2) - (n-1)/2, LoadKg: load[side],
					Reserve: slot.First().Reserve, DoneAt: when}
				if err := tx.AddEntry(ctx, e, id("account", SignIns[1].Email)); err != nil {
					return err
				}
			}
		}
	}
	return nil
}
