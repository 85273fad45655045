package plan_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
)

func ids(n int) (out []uuid.UUID) {
	for i := range n {
		out = append(out, id(fmt.Sprint("new", i)))
	}
	return out
}

// arranged is a session of the slots after some commands to the first of them.
func arranged(t *testing.T, slots []plan.Slot, steps ...plan.Arrange) plan.Session {
	s := plan.Session{Slots: slots}
	for i := range steps {
		steps[i].IDs = ids(40)
		if steps[i].Slot == uuid.Nil {
			steps[i].Slot = slots[0].ID
		}
		require.Nil(t, s.Arrange(&steps[i], person.Caps{}))
		require.Empty(t, s.Resolve(movement.Shipped))
	}
	return s
}

// What coaches do to three straight sets, a command each.
func TestRowsAreArranged(t *testing.T) {
	const curl = "curl_standing_dumbbells"
	three := row(3, 8, 12, 2, dose.Kg(14))
	for _, c := range []struct {
		name  string
		rows  []dose.Dose
		steps []plan.Arrange
		done  string
		loads string
	}{
		{"a last set that drops", []dose.Dose{three}, []plan.Arrange{{Do: plan.LastMethod, Method: "drops"}},
			"2 × 8–12; then 1 × 8–12, drops, 2 rungs after the first", "14 kg a hand; then 14 → 10 → 8 kg a hand"},
		{"the only set drops", []dose.Dose{row(1, 8, 12, 2, dose.Kg(14))}, []plan.Arrange{{Do: plan.LastMethod, Method: "drops"}},
			"1 × 8–12, drops, 2 rungs after the first", "14 → 10 → 8 kg a hand"},
		{"a back-off", []dose.Dose{three}, []plan.Arrange{{Do: plan.BackOff}}, "3 × 8–12; then 1 × 15–20", "14 kg a hand; then 8 kg a hand"},
		{"the last set by itself", []dose.Dose{three}, []plan.Arrange{{Do: plan.Split}}, "3 × 8–12", "14 kg a hand"},
		{"as one again", []dose.Dose{row(2, 8, 12, 2, dose.Kg(14)), row(1, 5, 8, 0, dose.Kg(16))},
			[]plan.Arrange{{Do: plan.Merge, Row: 1}}, "3 × 8–12", "14 kg a hand"},
		{"the heavier one first", []dose.Dose{row(2, 8, 12, 2, dose.Kg(14)), row(1, 5, 8, 1, dose.Kg(16))},
			[]plan.Arrange{{Do: plan.MoveRow, Row: 1, By: -1}}, "1 × 5–8; then 2 × 8–12", "16 kg a hand; then 14 kg a hand"},
		{"once more", []dose.Dose{row(1, 8, 12, 2, dose.Kg(14))}, []plan.Arrange{{Do: plan.CopyRow}}, "2 × 8–12", "14 kg a hand"},
		{"without the first, its load stays", []dose.Dose{row(1, 5, 8, 1, dose.Kg(16)), row(2, 8, 12, 2, nil)},
			[]plan.Arrange{{Do: plan.RemoveRow}}, "2 × 8–12", "16 kg a hand"},
		{"like the first", []dose.Dose{row(1, 5, 8, 1, dose.Kg(16)), row(2, 8, 12, 2, dose.Kg(10))},
			[]plan.Arrange{{Do: plan.Alike}}, "3 × 5–8", "16 kg a hand"},
	} {
		s := arranged(t, []plan.Slot{slot(curl, c.rows...)}, c.steps...)
		assert.Equal(t, c.done, s.DoneWords(0), c.name)
		assert.Equal(t, c.loads, s.LoadWords(0, loft()), c.name)
	}
	dips := arranged(t, []plan.Slot{slot("dip_bars", row(3, 6, 10, 2, dose.Added(10)))}, plan.Arrange{Do: plan.BackOff})
	assert.Nil(t, dips.Slots[0].Rows[1].Load, "there are no shares of body weight")

	hands := arranged(t, []plan.Slot{slot(curl, three)}, plan.Arrange{Do: plan.ByHands, Hands: []plan.Hand{{Movement: "curl_neutral"}, {}}})
	require.Len(t, hands.Slots[0].Rows, 2, "sets that are alike are one row")
	assert.Equal(t, "curl_neutral", hands.Slots[0].SetUpOf(0).Movement.ID)
	assert.Equal(t, curl, hands.Slots[0].SetUpOf(2).Movement.ID)
}

// Whatever is done to rows: no set is lost or made but where that is what is asked
// for, each keeps what it lifts, ids are one each, and what there was stays as it was.
func TestArrangingKeepsSets(t *testing.T) {
	r := rand.New(rand.NewPCG(12, 1))
	keep := []plan.Command{plan.EachSet, plan.Split, plan.Merge, plan.MoveRow, plan.Alike}
	for range 400 {
		curl := plan.Slot{ID: id("a"), SetUp: movement.Shipped.Get("curl_turning").Default()}
		s := plan.Session{Slots: []plan.Slot{curl, slot("dip_bars", row(3, 6, 10, 2, nil))}}
		for k := range 1 + r.IntN(3) {
			load := []*dose.Load{dose.Kg(float64(2 * (1 + r.IntN(10)))), nil, {Share: 0.6}}[r.IntN(3)]
			if k == 0 {
				load = dose.Kg(14)
			}
			dose := row(1+r.IntN(3), 5+r.IntN(5), 12, r.IntN(3), load)
			s.Slots[0].Rows = append(s.Slots[0].Rows, plan.Row{ID: id(fmt.Sprint("r", k)), Dose: dose})
		}
		before, err := s.Write()
		require.NoError(t, err)
		was := plan.Session{Slots: s.Slots, Combos: s.Combos}
		sets := s.Slots[0].Sets()
		for range 6 {
			rows := len(s.Slots[0].Rows)
			a := plan.Arrange{Do: keep[r.IntN(len(keep))], Slot: id("a"), Row: r.IntN(rows), By: r.IntN(5) - 2, IDs: []uuid.UUID{}}
			for range 20 {
				a.IDs = append(a.IDs, uuid.Must(uuid.NewRandom()))
			}
			asked := map[float64]int{}
			for n := range s.Slots[0].Sets() {
				if hand := s.Hand(0, s.Slots[0].RowOf(n), loft()); hand != nil && s.Slots[0].Asked(s.Slots[0].RowOf(n)).Kg != nil {
					asked[*hand]++
				}
			}
			tooMany := a.Do == plan.EachSet && s.Slots[0].Sets() > plan.MostRows || a.Do == plan.Split && rows == plan.MostRows
			fault := s.Arrange(&a, person.Caps{})
			if fault != nil {
				require.True(t, a.Do == plan.Merge && a.Row == 0 || tooMany, "%+v", a)
				require.Len(t, s.Slots[0].Rows, rows, "nothing has changed")
			}
			require.Equal(t, sets, s.Slots[0].Sets(), "%+v", a)
			if a.Do == plan.EachSet || a.Do == plan.Split || a.Do == plan.MoveRow {
				now := map[float64]int{}
				for n := range s.Slots[0].Sets() {
					row := s.Slots[0].RowOf(n)
					if l := s.Slots[0].Asked(row); l != nil && l.Kg != nil {
						now[*l.Kg]++
					}
				}
				require.Equal(t, asked, now, "%+v", a)
			}
			seen := map[uuid.UUID]bool{}
			for _, x := range s.Slots[0].Rows {
				require.False(t, seen[x.ID])
				seen[x.ID] = true
			}
		}
		after, err := was.Write()
		require.NoError(t, err)
		require.JSONEq(t, string(before), string(after), "what there was stays as it was")
	}
}

// Slots in turns: the rests between come from the caps, those after a round from the
// last member; a third one joins; apart, each has its own again.
func TestSlotsAreJoined(t *testing.T) {
	caps := person.Caps{MinRestS: 20}
	names := []string{"curl_turning", "overhead_cable_low", "dip_bars"}
	s := plan.Session{}
	for i, n := range names {
		s.Slots = append(s.Slots, slot(n, row(3, 8, 12, 2, nil)))
		s.Slots[i].Rows[0].RestS = []int{90, 120, 0}[i]
	}
	do := func(cmd plan.Command, i int) *movement.FieldError {
		return s.Arrange(&plan.Arrange{Do: cmd, Slot: s.Slots[i].ID, IDs: ids(1)}, caps)
	}
	require.Nil(t, do(plan.Join, 0))
	assert.Equal(t, []plan.Combo{{ID: ids(1)[0].String(), BetweenS: 20, AfterS: 120}}, s.Combos)
	assert.True(t, s.Joined(0, 1))
	assert.Empty(t, s.Slots[2].Combo)
	s.Combos[0].BetweenS = 45
	require.Nil(t, do(plan.Join, 1))
	assert.True(t, s.Joined(0, 1) && s.Joined(1, 2))
	assert.Equal(t, []plan.Combo{{ID: ids(1)[0].String(), BetweenS: 45, AfterS: 90}}, s.Combos, "typed rests stay")
	require.Nil(t, do(plan.Join, 0), "joined already")
	assert.Len(t, s.Combos, 1)
	assert.NotNil(t, do(plan.Join, 2), "there is none after the last")
	require.Nil(t, do(plan.Part, 1))
	assert.Empty(t, s.Combos)
	for i := range s.Slots {
		assert.Empty(t, s.Slots[i].Combo)
		assert.Equal(t, []int{90, 120, 90}[i], s.Slots[i].Rows[0].RestS)
	}
	assert.NotNil(t, s.Arrange(&plan.Arrange{Do: plan.Join, Slot: id("nobody")}, caps))
	assert.NotNil(t, s.Arrange(&plan.Arrange{Do: "turn", Slot: s.Slots[0].ID}, caps))
	assert.NotNil(t, s.Arrange(&plan.Arrange{Do: plan.Split, Slot: s.Slots[0].ID, Row: 7}, caps))
	assert.NotNil(t, s.Arrange(&plan.Arrange{Do: plan.Split, Slot: s.Slots[0].ID, Row: -1}, caps))
	for _, sets := range []int{9, 1 << 30} { // more rows than a slot has, half-typed numbers
		s.Slots[0].Rows[0].Sets = sets
		before := s.Slots[0]
		assert.NotNil(t, s.Arrange(&plan.Arrange{Do: plan.EachSet, Slot: s.Slots[0].ID, IDs: ids(40)}, caps))
		assert.Equal(t, before, s.Slots[0], "nothing has changed")
	}
}
