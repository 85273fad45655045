package draft

import (
	"fmt"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
	"musculus/internal/core/series"
	"musculus/internal/core/stance"
	"musculus/internal/core/week"
)

// This file makes clients up, so that weeks can be composed and checked for many of them:
// every room, one to six days, twenty to seventy-five minutes, caps, sore joints, locks and
// preferences.

// madeRooms are rooms from all there is to one dumbbell.
func madeRooms() []*person.Room {
	return []*person.Room{
		{Name: "All there is", Things: []person.Thing{
			person.Pairs(append(spaced(2, 20, 2), 25, 30)...), person.BarOf(movement.BarStraight, 10, spaced(10, 80, 2.5)...),
			person.BarOf(movement.BarCambered, 8, spaced(8, 63, 2.5)...),
			{ID: "cable", Kind: person.Cable, Count: 2, Ratio: 2, Loads: spaced(5, 75, 5), Low: 0.1, High: 2.2},
			person.There(person.OnCable(movement.BarStraight)), person.There(person.OnCable(movement.Rope)),
			person.There(person.OnCable(movement.Handle)), person.There(movement.DipBars), person.BeltOf(spaced(2.5, 30, 2.5)...),
		}, Bench: &person.Bench{Min: 0, Max: 85}, Pads: true, Pins: true},
		{Name: "Dumbbells and a bench", Things: []person.Thing{person.Pairs(spaced(2, 24, 2)...)}, Bench: &person.Bench{Min: 0, Max: 75}},
		{Name: "Cables", Things: []person.Thing{
			{ID: "cable", Kind: person.Cable, Count: 2, Ratio: 2, Loads: spaced(5, 60, 5), Low: 0.1, High: 2.2},
			person.There(person.OnCable(movement.BarStraight)), person.There(person.OnCable(movement.Rope)),
			person.There(person.OnCable(movement.Handle)),
		}},
		{Name: "One pair and a bar", Things: []person.Thing{person.Pairs(10), person.BarOf(movement.BarStraight, 10, 10)},
			Bench: &person.Bench{Min: 0, Max: 75}},
		{Name: "One dumbbell", Things: []person.Thing{person.Singles(10)}},
	}
}

// madeMonday is the week that made clients are drafted for.
var madeMonday = day.Of(2026, 11, 23)

// Made makes a client up with what her week is asked for; the same seed and number make the
// same.
func Made(seed uint64, n int) (*Client, *Ask, error) {
	rng := newDice(seed, uint64(n))
	y, err := effort.NewYardstick(arm.Body{Stature: 1.55 + 0.4*rng.Float64(), BodyMass: 50 + 45*rng.Float64()})
	if err != nil {
		return nil, nil, err
	}
	rooms := madeRooms()
	days := [][]string{
		{"wed"}, {"mon", "thu"}, {"tue", "fri"}, {"mon", "wed", "fri"}, {"tue", "thu", "sat"}, {"mon", "tue", "thu", "fri"},
		{"mon", "wed", "fri", "sat", "sun"}, {"mon", "tue", "wed", "thu", "fri", "sat"},
	}
	monday := madeMonday.Monday()
	aims := &week.Aims{FirstYear: rng.IntN(4) == 0, Minutes: 20 + 5*rng.IntN(12), Weekdays: days[n%len(days)], Today: monday}
	for h := range aims.Levels {
		aims.Levels[h] = priority.Maintain
	}
	for range 2 + rng.IntN(3) {
		aims.Levels[rng.IntN(int(arm.HeadCount))] = priority.Build
	}
	for range 1 + rng.IntN(2) {
		aims.Levels[rng.IntN(int(arm.HeadCount))] = priority.Prioritise
	}
	for range rng.IntN(3) {
		aims.Elsewhere = append(aims.Elsewhere, person.Elsewhere{Weekday: week.Weekdays[rng.IntN(week.Days)],
			Kind: []string{"press", "pull"}[rng.IntN(2)], Sets: 2 + rng.IntN(6)})
	}
	t := &week.Trainee{Yardstick: y, Room: rooms[n%len(rooms)], Stance: &stance.Stances[rng.IntN(len(stance.Stances))], Aims: aims,
		Own: map[string]series.Own{}}
	if rng.IntN(4) == 0 {
		t.Caps = person.CapsOf([]person.CapID{[]person.CapID{person.Cautious, person.BloodPressure}[rng.IntN(2)]})
	}
	fence := &person.Fence{Caps: t.Caps, Scores: person.Scores{person.Right: {}}, Mobility: person.Mobility{OneWeight: "yes",
		TwoWeights: []string{"yes", "no"}[rng.IntN(2)], DipLevel: []string{"assisted", "bars", "loaded"}[rng.IntN(3)], CleanDips: 12}}
	for range rng.IntN(3) {
		fence.Scores[person.Right][movement.Joints[rng.IntN(movement.JointCount)]] = 1 + rng.IntN(2)
	}
	t.Fence = fence
	chosen := person.Preferences{}
	for range rng.IntN(3) {
		axis := &person.Axes[rng.IntN(len(person.Axes))]
		chosen[axis.ID] = axis.Choices[rng.IntN(len(axis.Choices))].ID
	}
	t.Prefer = person.PreferredOf(chosen, nil)
	cl := &Client{Trainee: t, Catalogue: movement.Shipped}
	for _, m := range movement.Shipped.Movements {
		if rng.IntN(6) == 0 { // she has trained it
			t.Own[m.Default().Key()] = series.Own{SetUp: m.Default(), Logged: 6}
		}
	}
	ask := &Ask{Monday: monday}
	if rng.IntN(3) == 0 { // a locked slot
		all := movement.Shipped.Movements
		for range 20 {
			s := all[rng.IntN(len(all))].Default()
			if on := week.Weekday(aims.Weekdays[0]); t.May(s) && s.Movement.Action != movement.Turn {
				slot := plan.Of(s, dose.Usual(t.Caps))
				slot.Locked = true
				ask.Board = &week.Week{Sessions: []plan.Planned{{Name: "What stays", On: monday + day.Day(on),
					Session: plan.Session{WarmUpMin: 5, Slots: []plan.Slot{slot}}}}}
				break
			}
		}
	}
	return cl, ask, nil
}

// Examples makes problems up, n of them.
func Examples(seed uint64, n int) ([]*Problem, error) {
	var out []*Problem
	for i := range n {
		cl, ask, err := Made(seed, i)
		if err != nil {
			return nil, err
		}
		p := Build(cl, Stock(cl), ask)
		p.Name = fmt.Sprintf("made %d of seed %d", i, seed)
		out = append(out, p.Problem)
	}
	return out, nil
}
