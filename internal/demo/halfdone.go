package demo

import (
	"context"
	"errors"
	"time"

	"musculus/internal/core/day"
	"musculus/internal/core/effort"
	"musculus/internal/core/entry"
	"musculus/internal/core/floor"
	"musculus/internal/core/log"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/stance"
	"musculus/internal/core/week"
	"musculus/internal/store"
)

// HalfDone has two of today's sessions half done: Tobias in his second exercise, Dario after a
// sore elbow that asked for a lighter way, with an exercise left out for time. What is there
// already is left alone.
func HalfDone(ctx context.Context, s *store.Store, now time.Time) error {
	return s.In(ctx, Studio, func(tx *store.Tx) error {
		done, err := tx.SessionEntries(ctx, SessionID("Tobias Quill"), movement.Shipped)
		if err != nil || len(done) > 0 {
			return err
		}
		if err := half(ctx, tx, "Tobias Quill", now, 8); err != nil {
			return err
		}
		if err := half(ctx, tx, "Dario Vance", now, 2); err != nil {
			return err
		}
		return sore(ctx, tx, "Dario Vance", now)
	})
}

// half does the first sets of a client's session, the last one a minute ago.
func half(ctx context.Context, tx *store.Tx, name string, now time.Time, sets int) error {
	kept, err := tx.Session(ctx, ClientID(name), SessionID(name), movement.Shipped)
	if err != nil {
		return err
	}
	c, err := tx.Client(ctx, ClientID(name))
	if err != nil {
		return err
	}
	f := plan.Floor{Room: c.Room(), BodyMass: c.Dossier.Body().BodyMass}
	n := 0
	for i := range kept.Slots {
		slot := &kept.Slots[i]
		for set := range slot.Sets() {
			for _, side := range log.Sides(slot) {
				if n == sets {
					return nil
				}
				hand := kept.Hand(i, slot.RowOf(set), &f)
				at := now.Add(-time.Minute - time.Duration(sets-1-n)*150*time.Second).UTC().Truncate(time.Second)
				row := slot.Rows[slot.RowOf(set)].ID
				e := entry.Entry{
					ID:        id("half", name, i, set, side),
					ClientID:  c.ID,
					SessionID: kept.ID,
					SlotID:    slot.ID,
					RowID:     &row,
					SetUp: slot.SetUpOf(
						set,
					),
					Side:    side,
					SetNo:   set + 1,
					Reps:    slot.DoseOf(set).RepsHigh - 1 - set/2,
					LoadKg:  *hand,
					Reserve: slot.DoseOf(set).Reserve,
					DoneAt:  at,
				}
				if err := tx.AddEntry(ctx, e, id("account", SignIns[1].Email)); err != nil {
					return err
				}
				n++
			}
		}
	}
	return nil
}

// sore has an elbow hurt in the first exercise, what is tried instead, and the last one left out.
func sore(ctx context.Context, tx *store.Tx, name string, now time.Time) error {
	kept, err := tx.Session(ctx, ClientID(name), SessionID(name), movement.Shipped)
	if err != nil {
		return err
	}
	c, err := tx.Client(ctx, ClientID(name))
	if err != nil {
		return err
	}
	y, err := effort.NewYardstick(c.Dossier.Body())
	if err != nil {
		return err
	}
	t := &week.Trainee{Yardstick: y, Room: c.Room(), Stance: stance.ByID(stance.Default),
		Fence: &person.Fence{Scores: person.ScoresOf(c.Joints), Mobility: c.Dossier.Mobility}}
	const joint, peak, settled = movement.ElbowBack, 5, 2
	first, last := &kept.Slots[0], &kept.Slots[len(kept.Slots)-1]
	offers := floor.Ladder(
		t,
		movement.Shipped,
		first.SetUp,
		&floor.Report{Side: person.Right, Joint: joint, Score: peak, First: -1},
		settled,
	)
	if len(offers) == 0 {
		return errors.New("nothing is offered for a sore elbow")
	}
	assistant := id("account", SignIns[1].Email)
	told := func(kind string, ago time.Duration, content floor.Content) error {
		e := floor.Event{
			ID:      id("told", name, kind),
			Session: kept.ID,
			Kind:    kind,
			At:      now.Add(-ago).UTC().Truncate(time.Second),
			Content: content,
		}
		return tx.AddFloorEvent(ctx, c.ID, &e, store.Teller{Account: assistant})
	}
	pain := floor.PainTold{Slot: first.ID, Side: person.Right, Joint: joint, Score: peak, When: "end"}
	if err := told(floor.TellsPain, 50*time.Second, floor.Content{Pain: &pain}); err != nil {
		return err
	}
	report := person.JointReport{
		On:       day.At(now.In(c.Zone)),
		Joint:    joint,
		Side:     person.Right,
		Score:    peak,
		Provokes: first.SetUp.Title(),
		In:       kept.ID.String(),
	}
	if err := tx.AddJointReport(ctx, id("told", name, "joint"), c.ID, report, assistant, now.Add(-50*time.Second)); err != nil {
		return err
	}
	o := offers[0]
	swap := floor.Swap{
		Slot:     first.ID,
		Kind:     o.Kind,
		Joint:    joint,
		Movement: o.SetUp.Movement.ID,
		Settings: o.SetUp.Turned(),
		Reserve:  o.Reserve,
		Now:      settled,
	}
	if err := told(floor.TellsSwap, 30*time.Second, floor.Content{Swap: &swap}); err != nil {
		return err
	}
	left := floor.LeftOut{Slot: last.ID, Sets: last.Sets() * len(log.Sides(last)), Reason: floor.ForTime}
	return told(floor.TellsLeftOut, 20*time.Second, floor.Content{LeftOut: &left})
}
