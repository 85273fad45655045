package floor

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/stance"
	"musculus/internal/core/week"
)

func trainee(t *testing.T, things ...person.Thing) *week.Trainee {
	t.Helper()
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	out := &week.Trainee{Yardstick: y, Stance: stance.ByID(stance.Default), Fence: &person.Fence{Mobility: person.Mobility{
		OneWeight: "yes", TwoWeights: "yes", DipLevel: "loaded", CleanDips: 14}},
		Room: &person.Room{Name: "Here", Things: things, Bench: &person.Bench{Min: 0, Max: 85}, Pads: true, Pins: true}}
	out.Memo = week.NewMemo(y, out.Stance)
	return out
}

func dumbbells() person.Thing { return person.Pairs(4, 6, 8, 10, 12, 14, 16) }

func ample() []person.Thing {
	return []person.Thing{
		dumbbells(),
		person.BarOf(movement.BarStraight, 10, 10, 15, 20, 30, 40),
		person.BarOf(movement.BarCambered, 8, 8, 13, 18, 28),
		{ID: "cable", Kind: person.Cable, Count: 2, Ratio: 2, Loads: []float64{5, 10, 15, 20, 30, 40}, Low: 0.1, High: 2.2},
		person.There(person.OnCable(movement.BarStraight)),
		person.There(person.OnCable(movement.Rope)),
		person.There(person.OnCable(movement.Handle)),
		person.There(movement.DipBars),
	}
}

// What is asked first, what ends a set, and when there is one try.
func TestWhatPainAsks(t *testing.T) {
	for i, c := range []struct {
		r           Report
		flags, ends bool
		now         int
		after       float64
		try         bool
	}{
		{Report{Joint: movement.Wrist, Score: 2, First: -1}, false, false, 2, 30, true},
		{Report{Joint: movement.Wrist, Score: 3, First: -1}, false, false, 2, 30, true},
		{Report{Joint: movement.Wrist, Score: 4, First: -1}, true, true, 3, 119, true},
		{Report{Joint: movement.Wrist, Score: 4, First: -1}, true, true, 3, 121, false},
		{Report{Joint: movement.Wrist, Score: 4, First: -1}, true, true, 4, 60, false},
		{Report{Joint: movement.ElbowBack, Score: 3, First: 1}, false, true, 1, 60, true}, // two above the first
		{Report{Joint: movement.ElbowBack, Score: 3, First: 2}, false, false, 1, 60, true},
		{Report{Joint: movement.ElbowBack, Score: 2, First: 0}, false, true, 0, 60, true},
		{Report{Joint: movement.ElbowBack, Score: 1, First: -1, Sudden: true}, true, true, 1, 60, true},
		{Report{Joint: movement.ElbowBack, Score: 5, First: 2, Again: true}, true, true, 1, 60, false},
		{Report{Score: 1, First: -1}, true, false, 0, 10, false}, // elsewhere has no ladder
		{Report{Score: 6, First: -1}, true, true, 0, 10, false},
	} {
		assert.Equal(t, c.flags, c.r.FlagsFirst(), i)
		assert.Equal(t, c.ends, c.r.EndsSet(), i)
		assert.Equal(t, c.try, c.r.MayTry(c.now, c.after), i)
	}
}

// Over every movement, joint, room and score: nothing is offered that the verdict at that score
// avoids, that the room lacks or that is among the hardest on the joint; what is kinder is.
func TestNoOfferIsToBeAvoided(t *testing.T) {
	for _, things := range [][]person.Thing{ample(), {dumbbells()}, {person.Singles(10)}} {
		tr := trainee(t, things...)
		for _, m := range movement.Shipped.Movements {
			s := m.Default()
			for _, j := range movement.Joints {
				if s.Joints().Of(j) == 0 || len(tr.Room.Missing(s)) > 0 {
					continue
				}
				for _, now := range []int{0, 3} {
					r := &Report{Side: person.Right, Joint: j, Score: 5, First: -1}
					hurt := hurting(tr, r, now)
					offers := Ladder(tr, movement.Shipped, s, r, now)
					order := []Kind{Lighter, OtherHand, ByCable, ShortRange, Kinder}
					last := -1
					for _, o := range offers {
						at := 0
						for order[at] != o.Kind {
							at++
						}
						require.Greater(t, at, last, "in the order in which it is tried")
						last = at
						v := hurt.Fence.Judge(o.SetUp, tr.Profile(o.SetUp))
						require.NotEqual(t, person.Avoid, v.Ruling, "%s %s: %s", s.Key(), j, o.SetUp.Key())
						require.Less(t, o.SetUp.Joints().Of(j), hardJoint)
						require.Empty(t, tr.Room.Missing(o.SetUp))
						require.GreaterOrEqual(t, o.Reserve, 3)
						if o.Kind == Kinder {
							require.Less(t, o.SetUp.Joints().Of(j), s.Joints().Of(j))
						}
					}
				}
			}
		}
	}
	assert.Empty(t, tr0(t).Fence.Scores, "the record is not touched")
	assert.Empty(
		t,
		Ladder(tr0(t), movement.Shipped, movement.Shipped.Get("lying_bar").Default(), &Report{Score: 5}, 2),
		"elsewhere",
	)
}

func tr0(t *testing.T) *week.Trainee { return trainee(t, ample()...) }

// What is first in the usual retreats, and what becomes of what is still to come.
func TestTheUsualRetreats(t *testing.T) {
	tr := tr0(t)
	first := func(id string, j movement.Joint) Kind {
		offers := Ladder(
			tr,
			movement.Shipped,
			movement.Shipped.Get(id).Default(),
			&Report{Side: person.Left, Joint: j, Score: 5, First: -1},
			2,
		)
		if len(offers) == 0 {
			return ""
		}
		return offers[0].Kind
	}
	assert.Equal(
		t,
		ByCable,
		first("overhead_two_dumbbells", movement.ElbowBack),
		"free weight overhead: a cable, and not the same again",
	)
	assert.Equal(t, Lighter, first("pushdown_bar", movement.ElbowBack))
	assert.NotEqual(t, Lighter, first("lying_bar", movement.ElbowBack), "the hardest on the joint is not tried again")

	slot := func(id string) *plan.Slot {
		s := plan.Of(movement.Shipped.Get(id).Default(), dose.Dose{Sets: 3})
		return &s
	}
	assert.Equal(t, Out, AfterPain(slot("lying_bar"), movement.ElbowBack))
	assert.Equal(t, Stays, AfterPain(slot("curl_standing_dumbbells"), movement.ElbowBack))
	words := Referral(
		"Noor",
		&Report{Side: person.Right, Joint: movement.ElbowBack, Sudden: true},
		6,
		"27 November 2026",
		[]string{"Push-down"},
	)
	assert.Contains(t, words, "right, back of the elbow, at most 6 of 10")
	assert.Contains(t, words, "not a diagnosis")
}
