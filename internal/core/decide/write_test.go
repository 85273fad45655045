package decide

import (
	"testing"

	"github.com/google/uuid"
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

func trainee(t *testing.T) *week.Trainee {
	t.Helper()
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	return &week.Trainee{
		Yardstick: y,
		Stance:    stance.ByID(stance.Default),
		Aims:      &week.Aims{Today: today},
		Fence:     &person.Fence{},
		Room: &person.Room{
			Name: "Here",
			Things: []person.Thing{person.Pairs(4, 6, 8, 10, 12, 14, 16), person.There(person.OnCable(movement.Rope)),
				{ID: "cable", Kind: person.Cable, Count: 2, Ratio: 2, Loads: []float64{5, 10, 12, 15, 20}, Low: 0.1, High: 2.2}},
		},
	}
}

func slotOf(id string, sets int) plan.Slot {
	return plan.Of(movement.Shipped.Get(id).Default(),
		dose.Dose{Sets: sets, RepsLow: 8, RepsHigh: 12, Reserve: 2, RestS: 90, Load: dose.Kg(12)})
}

// What is taken changes the slots of its series and no others; locked ones stay, caps hold, and
// the session that was read stays as it was.
func TestWriting(t *testing.T) {
	tr := trainee(t)
	key := movement.Shipped.Get("curl_standing_dumbbells").Default().Key()
	was := plan.Session{Slots: []plan.Slot{slotOf("curl_standing_dumbbells", 3), slotOf("pushdown_rope", 4)}}
	write := func(steps Steps) (plan.Session, bool) {
		s := was
		ok := Write(tr, &Proposal{Series: key, Steps: steps}, &s)
		return s, ok
	}
	for name, c := range map[string]struct {
		steps Steps
		holds func(r *plan.Row) bool
	}{
		"load":     {Steps{HandKg: 14}, func(r *plan.Row) bool { return *r.Load.Kg == 14 }},
		"reps":     {Steps{Reps: 1}, func(r *plan.Row) bool { return r.RepsLow == 9 && r.RepsHigh == 13 }},
		"more":     {Steps{Sets: 1}, func(r *plan.Row) bool { return r.Sets == 4 }},
		"less":     {Steps{Sets: -1}, func(r *plan.Row) bool { return r.Sets == 2 }},
		"rest":     {Steps{RestS: 60}, func(r *plan.Row) bool { return r.RestS == 60 }},
		"lowering": {Steps{LowerS: 3}, func(r *plan.Row) bool { return r.Tempo[0] == 3 }},
	} {
		s, ok := write(c.steps)
		require.True(t, ok, name)
		assert.True(t, c.holds(&s.Slots[0].Rows[0]), name)
		assert.True(t, s.Slots[1].Same(&was.Slots[1]), "%s: the other slot stays", name)
		assert.Equal(t, 3, was.Slots[0].Rows[0].Sets, "%s: what was read stays", name)
	}
	s, ok := write(Steps{Cue: "f_up_elbow_forward"})
	require.True(t, ok)
	assert.Len(t, s.Slots[0].Cues, 1)
	to := movement.Shipped.Get("curl_neutral").Default()
	s, ok = write(Steps{To: to, ToID: to.Movement.ID})
	require.True(t, ok)
	assert.Equal(t, to.Key(), s.Slots[0].SetUp.Key())
	s, ok = write(Steps{Halve: true, Reserve: 3})
	require.True(t, ok)
	assert.Equal(t, []int{2, 2}, []int{s.Slots[0].Sets(), s.Slots[1].Sets()})
	assert.Equal(t, 3, s.Slots[1].Rows[0].Reserve)

	was.Slots[0].Locked = true
	_, ok = write(Steps{HandKg: 14})
	assert.False(t, ok, "a locked slot stays")
	was.Slots[0].Locked = false
	tr.Caps = person.Caps{MostSets: 3}
	_, ok = write(Steps{Sets: 1})
	assert.False(t, ok, "caps hold")
	assert.Equal(
		t,
		[]int{1},
		Into(&Proposal{}, []plan.Planned{{On: today - 1}, {On: today}, {On: today + 1, ID: uuid.UUID{1}}}, today,
			func(id uuid.UUID) bool { return id == uuid.UUID{1} }),
	)
}
