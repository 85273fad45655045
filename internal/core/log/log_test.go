package log_test

import (
	"fmt"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/dose"
	"musculus/internal/core/entry"
	"musculus/internal/core/log"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
)

func id(name string) uuid.UUID { return uuid.NewSHA1(uuid.Nil, []byte(name)) }

func floor() *plan.Floor {
	r := &person.Room{Name: "Loft", Things: []person.Thing{person.Pairs(2, 4, 6, 8, 10, 12, 14, 16, 18, 20)}}
	return &plan.Floor{Room: r, BodyMass: 75}
}

func slot(movementID string, rows ...dose.Dose) plan.Slot {
	out := plan.Slot{ID: id(movementID), SetUp: movement.Shipped.Get(movementID).Default()}
	for i, d := range rows {
		out.Rows = append(out.Rows, plan.Row{ID: id(fmt.Sprint(movementID, i)), Dose: d})
	}
	return out
}

func row(sets, low, high, reserve int, load *dose.Load) dose.Dose {
	return dose.Dose{Sets: sets, RepsLow: low, RepsHigh: high, Reserve: reserve, RestS: 90, Load: load}
}

func did(s *plan.Session, i, set int, side entry.Side, reps, reserve int, kg float64) entry.Entry {
	return entry.Entry{
		SlotID:  s.Slots[i].ID,
		SetUp:   s.Slots[i].SetUpOf(set - 1),
		Side:    side,
		SetNo:   set,
		Reps:    reps,
		Reserve: reserve,
		LoadKg:  kg,
	}
}

func whole(e *entry.Entry) float64 { return e.LoadKg }

// Each arm starts from its own last set; before its first, and where a row begins, from
// the plan.
func TestWhatComesNext(t *testing.T) {
	s := &plan.Session{
		Slots: []plan.Slot{slot("curl_neutral_across", row(2, 8, 12, 2, dose.Kg(10)), row(1, 15, 20, 0, &dose.Load{Share: 0.6}))},
	}
	s.Slots[0].Starts = plan.StartsRight
	sides := log.Sides(&s.Slots[0])
	require.Equal(t, []entry.Side{entry.Right, entry.Left}, sides)
	next := func(done ...entry.Entry) (log.Next, bool, []log.Next) {
		arms := log.NextOf(s, 0, sides, done, floor(), whole)
		first, all := log.First(arms, s.Slots[0].Sets())
		return first, all, arms
	}
	first, all, _ := next()
	assert.Equal(t, [3]any{entry.Right, 12, 2}, [3]any{first.Side, first.Reps, first.Reserve})
	assert.Equal(t, 10.0, *first.Whole)
	assert.False(t, all)
	first, _, arms := next(did(s, 0, 1, entry.Right, 9, 1, 12))
	assert.Equal(t, entry.Left, first.Side, "the other arm has done less")
	assert.Equal(t, [3]int{2, 9, 1}, [3]int{arms[0].SetNo, arms[0].Reps, arms[0].Reserve}, "as it did last")
	assert.Equal(t, 12.0, *arms[0].Whole)
	_, _, arms = next(did(s, 0, 1, entry.Right, 9, 1, 12), did(s, 0, 2, entry.Right, 8, 1, 12))
	assert.Equal(t, [3]int{3, 20, 0}, [3]int{arms[0].SetNo, arms[0].Reps, arms[0].Reserve}, "a new row begins")
	assert.Equal(t, 6.0, *arms[0].Whole)
	_, all, _ = next(did(s, 0, 3, entry.Right, 15, 0, 6), did(s, 0, 3, entry.Left, 15, 0, 6))
	assert.True(t, all)
	gone := log.NextOf(s, -1, []entry.Side{entry.BothSides}, nil, floor(), whole)
	assert.Equal(t, log.Next{Side: entry.BothSides, SetNo: 1}, gone[0], "taken out of the plan")
}

// A series is fed by clean straight sets at their own load.
func TestWhatFeedsASeries(t *testing.T) {
	drops := row(1, 8, 12, 1, nil)
	drops.Method = dose.Use{ID: "drops"}
	s := &plan.Session{Combos: []plan.Combo{{ID: "a"}}, Slots: []plan.Slot{
		slot("curl_turning", row(2, 8, 12, 2, dose.Kg(14)), row(1, 15, 20, 2, &dose.Load{Share: 0.6}), drops),
		slot(
			"curl_reclined",
			row(1, 8, 8, 2, dose.Kg(10)),
			row(1, 8, 8, 2, dose.StepsOff(1)),
			dose.Dose{Sets: 1, SecondsLow: 20, SecondsHigh: 20},
		),
		slot("curl_neutral", row(2, 8, 12, 2, nil)), slot("curl_standing_dumbbells", row(2, 8, 12, 2, nil)),
	}}
	s.Slots[2].Combo, s.Slots[3].Combo = "a", "a"
	for _, c := range []struct {
		slot, row int
		why       string
	}{{0, 0, ""}, {0, 1, "after a heavier row"}, {0, 2, "drops"}, {1, 1, ""}, {1, 2, "a hold"},
		{2, 0, "in turns with the same muscle"}, {3, 0, "in turns with the same muscle"}, {0, 9, ""}} {
		assert.Equal(t, c.why, log.Hollow(s, c.slot, c.row, floor()), "slot %d, row %d", c.slot, c.row)
	}
}

// What a session came to is the plan as it was done.
func TestWhatASessionCameTo(t *testing.T) {
	s := &plan.Session{
		WarmUpMin: 5,
		Slots: []plan.Slot{
			slot("curl_turning", row(3, 8, 12, 2, dose.Kg(14))),
			slot("curl_neutral_across", row(2, 8, 12, 1, nil)),
			slot("lying_bar", row(2, 8, 12, 2, nil)),
		},
	}
	done := []entry.Entry{
		did(s, 0, 1, entry.BothSides, 10, 4, 14),
		did(s, 0, 2, entry.BothSides, 9, 0, 14),
		did(s, 1, 1, entry.Left, 8, 1, 10),
		did(s, 1, 1, entry.Right, 8, 1, 10),
		did(s, 1, 2, entry.Left, 8, 1, 10),
	}
	came := log.Came(s, done)
	require.Len(t, came.Slots, 2, "what was not done is not there")
	assert.Equal(
		t,
		[3]int{2, 1, 1},
		[3]int{came.Slots[0].Sets(), came.Slots[0].HardSets(), came.Slots[0].Failures()},
		"by the reserve that was told",
	)
	assert.Equal(t, 1, came.Slots[1].Sets(), "both arms have done one")
	assert.Equal(t, 10, came.Slots[0].Rows[0].RepsLow)
	assert.Equal(t, []log.Missed{{0, 1}, {1, 1}, {2, 2}}, log.MissedOf(s, done))
	assert.Equal(
		t,
		"5 of 9 sets; to do: 1 of Turning curl, two dumbbells, thumbs up to palms up, 1 of "+s.Slots[1].SetUp.Title()+", 2 of "+
			""+s.Slots[2].SetUp.Title(),
		log.Words(s, done),
	)
	assert.Equal(t, "0 of 9 sets", log.Words(s, nil))
}

func ExampleWords() {
	s := &plan.Session{Slots: []plan.Slot{slot("curl_turning", row(3, 8, 12, 2, nil))}}
	fmt.Println(log.Words(s, []entry.Entry{did(s, 0, 1, entry.BothSides, 10, 2, 14)}))
	// Output: 1 of 3 sets; to do: 2 of Turning curl, two dumbbells, thumbs up to palms up
}

// A method counts as it was done: one rung of two is one, none is a straight set.
func TestAMethodIsCountedAsItWasDone(t *testing.T) {
	s := &plan.Session{Slots: []plan.Slot{slot("curl_standing_dumbbells", row(1, 8, 12, 0, dose.Kg(12)))}}
	s.Slots[0].Rows[0].Method = dose.Use{ID: "drops", N: 2}
	kg := 10.0
	came := func(parts ...entry.Part) dose.Use {
		e := did(s, 0, 1, entry.BothSides, 12, 0, 12)
		e.Parts = parts
		out := log.Came(s, []entry.Entry{e})
		return out.Slots[0].Rows[0].Method
	}
	clean, rung := entry.Part{Kind: entry.Clean, Reps: 12}, entry.Part{Kind: entry.Clean, Reps: 6, LoadKg: &kg}
	assert.Equal(t, dose.Use{ID: "drops", N: 2}, came(), "nothing was said: as planned")
	assert.Equal(t, dose.Use{ID: "drops", N: 2}, came(clean, rung, rung))
	assert.Equal(t, dose.Use{ID: "drops", N: 1}, came(clean, rung))
	assert.Equal(t, dose.Use{}, came(clean))
}

// What was not done is a plan's last sets, and counts as such; what a slot starts with the next
// time is the load most of its sets ended at.
func TestWhatWasNotDone(t *testing.T) {
	s := &plan.Session{Slots: []plan.Slot{
		slot("curl_standing_dumbbells", row(2, 8, 12, 2, dose.Kg(12)), row(1, 15, 20, 2, dose.Kg(8))),
		slot("curl_turning", row(3, 8, 12, 2, dose.Kg(10))),
	}}
	s.Slots[1].SetUp = movement.Shipped.Get("curl_pad_one_dumbbell").Default() // arm after arm
	left := log.Undone(s, map[uuid.UUID]int{s.Slots[0].ID: 2, s.Slots[1].ID: 3})
	require.Len(t, left.Slots, 2)
	assert.Equal(t, []int{1, 1}, []int{left.Slots[0].Rows[0].Sets, left.Slots[0].Rows[1].Sets})
	assert.Equal(t, 2, left.Slots[1].Sets(), "three of both arms are two sets")
	assert.Equal(t, 3, s.Slots[0].Sets(), "the plan is not touched")
	assert.Empty(t, log.Undone(s, nil).Slots)

	done := []entry.Entry{
		did(s, 0, 1, entry.BothSides, 12, 2, 12),
		did(s, 0, 2, entry.BothSides, 9, 2, 14),
		did(s, 0, 3, entry.BothSides, 8, 2, 14),
	}
	assert.Equal(t, []log.StartsAt{{Slot: 0, LoadKg: 14}}, log.NextLoads(s, done))
	done[2].Hollow = "after pain"
	assert.Equal(t, []log.StartsAt{{Slot: 0, LoadKg: 14}}, log.NextLoads(s, done), "of two that tie the heavier")
}
