package plan_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
)

func id(name string) uuid.UUID { return uuid.NewSHA1(uuid.Nil, []byte(name)) }

// loft has pairs of 2 to 20 kg, a stack, bars to dip between.
func loft() *plan.Floor {
	r := &person.Room{Name: "Loft", Things: []person.Thing{person.There(movement.DipBars), person.BeltOf(5, 10, 20),
		person.Columns(2, 1, 5, 10, 15, 20, 25, 30), person.There(person.OnCable(movement.Rope)),
		person.There(person.OnCable(movement.Handle)), person.There(person.OnCable(movement.BarStraight)),
		person.Pairs(2, 4, 6, 8, 10, 12, 14, 16, 18, 20)}}
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

// What a coach says in one line is rows, and reads as it was said.
func TestRowsAsCoachesSayThem(t *testing.T) {
	f := loft()
	drops := row(1, 8, 12, 0, nil)
	drops.Method = dose.Use{ID: "drops"}
	held := dose.Dose{Sets: 1, SecondsLow: 20, SecondsHigh: 30, Reserve: 2, RestS: 60, Load: dose.StepsOff(-1)}
	for _, c := range []struct {
		rows                []dose.Dose
		done, load, effort  string
		sets, hard, failing int
	}{
		{[]dose.Dose{row(3, 8, 12, 2, dose.Kg(12))}, "3 × 8–12", "12 kg a hand", "stop with 2 reps left", 3, 3, 0},
		{[]dose.Dose{row(2, 8, 12, 2, dose.Kg(12)), drops}, "2 × 8–12; then 1 × 8–12, drops, 2 rungs after the first",
			"12 kg a hand; then 12 → 8 → 6 kg a hand", "set by set, stop with 2, 2, 0 reps left", 3, 3, 1},
		{[]dose.Dose{row(3, 5, 8, 1, dose.Kg(16)), row(1, 15, 20, 1, &dose.Load{Share: 0.6})}, "3 × 5–8; then 1 × 15–20",
			"16 kg a hand; then 8 kg a hand", "stop with 1 rep left", 4, 4, 0},
		{[]dose.Dose{row(1, 8, 8, 3, dose.Kg(12)), row(1, 8, 8, 3, dose.StepsOff(1)), row(1, 8, 8, 0, dose.StepsOff(2))},
			"3 × 8, pyramid, 1 steps a set", "12 → 14 → 16 kg a hand", "set by set, stop with 3, 3, 0 reps left", 3, 3, 1},
		{[]dose.Dose{row(2, 8, 12, 4, dose.ToFind()), held}, "2 × 8–12; then 1 × 20–30 s held",
			"find it: two sets, stop 3 before the limit; then -1 steps from what you found", "set by set, stop with 4, 4, 2 reps left", 3, 1, 0},
	} {
		s := plan.Session{Slots: []plan.Slot{slot("curl_standing_dumbbells", c.rows...)}}
		assert.Equal(t, c.done, s.DoneWords(0))
		assert.Equal(t, c.load, s.LoadWords(0, f), c.done)
		assert.Equal(t, c.effort, s.Slots[0].EffortWords(), c.done)
		assert.Equal(t, [3]int{c.sets, c.hard, c.failing}, [3]int{s.Slots[0].Sets(), s.Slots[0].HardSets(), s.Slots[0].Failures()}, c.done)
	}
}

// A slot of version 1 is a row for each run of sets with equal reserve and grip; a
// climb one for each set; what joined slots is the combo's.
func TestAPlanOfVersion1Converts(t *testing.T) {
	old := `{"warm_up_min":5,"intent":"heavy","locked":true,"slots":[
	 {"id":"` + id("a").String() + `","movement":"curl_standing_dumbbells","settings":{"hands":"alternate"},"cues":["x"],
	 	"starts":"right","locked":true,"combo":"c",
	  "dose":{"sets":4,"reps_low":8,"reps_high":12,"reserve":3,"reserves":[3,2],"rest_s":20,"tempo":[3,1,1,0],"load_kg":12,
	  	"method":{"id":"superset_same"}},
	  "grips":[{"movement":"curl_neutral","settings":{"hands":"alternate"}},{"movement":"curl_standing_dumbbells",
	  	"settings":{"hands":"alternate"}}]},
	 {"id":"` + id("b").String() + `","movement":"curl_turning","settings":{},"cues":[],"combo":"c","dose":{"sets":3,
	 	"reps_low":8,"reps_high":12,"reserve":1,"rest_s":120,"tempo":[0,0,0,0],"load_kg":null,"method":{"id":"superset_same"}}},
	 {"id":"` + id("d").String() + `","movement":"curl_reclined","settings":{},"cues":[],"dose":{"sets":3,"reps_low":8,
	 	"reps_high":12,"reserve":1,"rest_s":120,"tempo":[0,0,0,0],"load_kg":10,"method":{"id":"pyramid","n":2}}}]}`
	s, err := plan.Read([]byte(old))
	require.NoError(t, err)
	require.Empty(t, s.Resolve(movement.Shipped))
	assert.Equal(t, []plan.Combo{{ID: "c", BetweenS: 20, AfterS: 120}}, s.Combos)
	first := &s.Slots[0]
	require.Len(t, first.Rows, 2)
	assert.Equal(t, [2]int{1, 3}, [2]int{first.Rows[0].Sets, first.Rows[1].Sets})
	assert.Equal(t, [2]int{3, 2}, [2]int{first.Rows[0].Reserve, first.Rows[1].Reserve})
	assert.Equal(t, "curl_neutral?hands=alternate", first.SetUpOf(0).Key())
	assert.Equal(t, first.SetUp.Key(), first.SetUpOf(3).Key())
	assert.Equal(t, dose.Use{}, first.Rows[0].Method, "joining is the combo's")
	assert.Equal(t, 12.0, *s.Hand(0, 1, loft()), "as the row above")
	assert.Equal(t, dose.SupersetSame, s.TurnsOf(1).Kind)
	assert.Equal(t, "curl_turning", s.Slots[1].SetUp.Movement.ID)
	assert.Nil(t, s.Hand(1, 0, loft()))
	climb := &s.Slots[2]
	require.Len(t, climb.Rows, 3)
	assert.Equal(t, []float64{18}, s.Loads(2, 2, loft()), "two steps a set from 10")
	assert.Equal(t, uuid.NewSHA1(climb.ID, []byte("2")), climb.Rows[2].ID, "the same id each time it is read")
	// Written, it is version 2 and reads as it was.
	b, err := s.Write()
	require.NoError(t, err)
	assert.Contains(t, string(b), `"version":2`)
	again, err := plan.Read(b)
	require.NoError(t, err)
	require.Empty(t, again.Resolve(movement.Shipped))
	second, err := again.Write()
	require.NoError(t, err)
	assert.Equal(t, string(b), string(second))
	_, err = plan.Read([]byte(`{"version":3}`))
	assert.Error(t, err)
}

// Whatever a slot says comes back from its JSON, its rows' own settings included.
func TestASlotComesBack(t *testing.T) {
	r := rand.New(rand.NewPCG(2, 7))
	for range 300 {
		m := movement.Shipped.Movements[r.IntN(len(movement.Shipped.Movements))]
		others := plan.OtherGrips(m.Default(), movement.Shipped)
		s := plan.Slot{ID: id("s"), SetUp: others[r.IntN(len(others))], Cues: []string{}, Locked: r.IntN(2) == 0}
		for k := range 1 + r.IntN(4) {
			one := plan.Row{ID: id(fmt.Sprint(k)), Dose: row(1+r.IntN(4), 8, 12, r.IntN(4), nil)}
			if other := others[r.IntN(len(others))]; other.Key() != s.SetUp.Key() {
				one.SetUp = &other
			}
			s.Rows = append(s.Rows, one)
		}
		b, err := json.Marshal(s)
		require.NoError(t, err)
		session := plan.Session{Slots: make([]plan.Slot, 1)}
		require.NoError(t, json.Unmarshal(b, &session.Slots[0]))
		require.Empty(t, session.Resolve(movement.Shipped), "%s", b)
		for n := range s.Sets() {
			assert.Equal(t, s.SetUpOf(n).Key(), session.Slots[0].SetUpOf(n).Key(), "%s", b)
		}
		again, err := json.Marshal(session.Slots[0])
		require.NoError(t, err)
		assert.JSONEq(t, string(b), string(again))
	}
}

// Faults stand in the paths in which a session is written.
func TestFaultsStandWhereTheyAreWritten(t *testing.T) {
	check := func(s plan.Session) (out []string) {
		for _, e := range append(s.Says(), s.Check(&plan.For{Floor: *loft()})...) {
			out = append(out, e.Field)
		}
		return out
	}
	good := func() plan.Session {
		return plan.Session{
			Slots: []plan.Slot{slot("curl_standing_dumbbells", row(3, 8, 12, 2, dose.Kg(12)), row(1, 15, 20, 2, &dose.Load{Share: 0.5}))},
		}
	}
	assert.Empty(t, check(good()))
	other, bench := movement.Shipped.Get("curl_reclined").Default(), movement.Shipped.Get("curl_neutral").Default()
	for field, change := range map[string]func(s *plan.Session){
		"warm_up_min":                    func(s *plan.Session) { s.WarmUpMin = 61 },
		"slots[0].rows[1].sets":          func(s *plan.Session) { s.Slots[0].Rows[1].Sets = 0 },
		"slots[0].rows[0].reps_low":      func(s *plan.Session) { s.Slots[0].Rows[0].RepsLow = 0 },
		"slots[0].rows[0].load":          func(s *plan.Session) { s.Slots[0].Rows[0].Load = dose.StepsOff(1) },
		"slots[0].rows[0].load.kg":       func(s *plan.Session) { s.Slots[0].Rows[0].Load = dose.Kg(13) },
		"slots[0].rows[1].load.share":    func(s *plan.Session) { s.Slots[0].Rows[0].Load = dose.Kg(2) },
		"slots[0].rows[1].load.combo":    func(s *plan.Session) { s.Slots[0].Rows[1].Load = &dose.Load{Combo: true} },
		"slots[0].rows[0].load.added_kg": func(s *plan.Session) { s.Slots[0].Rows[0].Load = dose.Added(5) },
		"slots[0].rows[1].movement":      func(s *plan.Session) { s.Slots[0].Rows[1].SetUp = &other },
		"slots[0].rows[1].id":            func(s *plan.Session) { s.Slots[0].Rows[1].ID = s.Slots[0].Rows[0].ID },
		"slots[0].combo":                 func(s *plan.Session) { s.Slots[0].Combo = "nobody" },
		"combos[0].after_s":              func(s *plan.Session) { s.Combos = []plan.Combo{{ID: "a", AfterS: -1}} },
		"slots[0].starts":                func(s *plan.Session) { s.Slots[0].Starts = "both" },
		"slots[0].cues":                  func(s *plan.Session) { s.Slots[0].Cues = []string{strings.Repeat("x", 61)} },
	} {
		s := good()
		change(&s)
		assert.Contains(t, check(s), field)
	}
	s := good()
	s.Slots[0].Rows[1].SetUp = &bench
	assert.Empty(t, check(s), "the same weight in another hand")
	s.Slots[0].Rows = append(s.Slots[0].Rows, s.Slots[0].Rows...)
	s.Slots[0].Rows[0].Sets, s.Slots[0].Rows[2].Sets = 12, 12
	assert.Contains(t, check(s), "slots[0].rows[0].sets", "caps on sets count the slot")
}

// The load of a row follows from what it refers to; a dip stays what it is whatever
// the client weighs; one load for all is the largest that every member still lifts.
func TestLoadsOfRows(t *testing.T) {
	f := loft()
	dip := plan.Session{Slots: []plan.Slot{slot("dip_bars", row(3, 6, 8, 2, dose.Added(10)))}}
	for _, mass := range []float64{60, 75, 90} {
		f.BodyMass = mass
		assert.Equal(t, "body weight + 10 kg", dip.LoadWords(0, f))
		assert.Nil(t, dip.Check(&plan.For{Floor: *f}))
	}
	f.BodyMass = 75
	hand := person.BodyWeight.PerHand(10, f.Room.Rigging(75))
	dip.Slots[0].Rows[0].Load = dose.Kg(hand)
	f.BodyMass = 75.8 // a version 1 load whose body has changed: the nearest there is
	assert.Equal(t, "body weight + 10 kg", dip.LoadWords(0, f))
	dip.Settle(f)
	assert.Equal(t, 10.0, *dip.Slots[0].Rows[0].Load.AddedKg)

	pair := plan.Session{Combos: []plan.Combo{{ID: "p", AfterS: 90, Loads: plan.OneLoad}}, Slots: []plan.Slot{
		slot(
			"curl_standing_dumbbells",
			row(3, 8, 12, 2, &dose.Load{Combo: true}),
		), slot("curl_palms_down_dumbbells", row(3, 8, 12, 2, &dose.Load{Combo: true}))}}
	pair.Slots[0].Combo, pair.Slots[1].Combo = "p", "p"
	assert.Contains(t, pair.LoadWords(0, f), "one load for all: find it", "nothing is known of the members")
	f.Most = func(s movement.SetUp, reps, reserve int) (float64, bool) {
		assert.Equal(t, [2]int{8, 2}, [2]int{reps, reserve})
		return map[string]float64{"curl_standing_dumbbells": 15, "curl_palms_down_dumbbells": 9.5}[s.Movement.ID], true
	}
	for i := range pair.Slots {
		assert.Equal(t, "8 kg a hand", pair.LoadWords(i, f), "the weaker one decides, down to a real step, and nothing is taken off twice")
	}
}

// Combos: what their members are to each other, what that makes of load and credit,
// and how long they rest.
func TestCombos(t *testing.T) {
	join := func(ids ...string) *plan.Session {
		s := &plan.Session{Combos: []plan.Combo{{ID: "a", BetweenS: 20, AfterS: 90}}}
		for i, m := range ids {
			x := slot(m, row(3-i%2, 8, 12, 2, dose.Kg(20)))
			x.Combo = "a"
			s.Slots = append(s.Slots, x)
		}
		return s
	}
	curls := []string{"curl_standing_dumbbells", "curl_neutral", "curl_turning"}
	for _, c := range []struct {
		ids          []string
		kind         string
		load, credit []float64
	}{
		{curls[:2], dose.SupersetSame, []float64{1, 0.85}, []float64{1, 1}},
		{curls, dose.ThreeInRow, []float64{1, 0.85, 0.75}, []float64{1, 0.9, 0.8}},
		{[]string{curls[0], "pushdown_bar"}, dose.Opposing, []float64{1, 1}, []float64{1, 1}},
		{[]string{curls[0], curls[1], "pushdown_bar"}, plan.InTurns, []float64{1, 0.85, 1}, []float64{1, 1, 1}},
	} {
		s := join(c.ids...)
		for i := range s.Slots {
			turns := s.TurnsOf(i)
			assert.Equal(t, c.kind, turns.Kind)
			assert.InDelta(t, c.load[i], turns.Load(), 1e-9)
			assert.InDelta(t, c.credit[i], turns.Credit(), 1e-9)
			assert.Contains(t, s.DoneWords(i), turns.Words())
		}
	}
	two := join(curls[:2]...) // 3 and 2 sets: two whole rounds, one of the first alone
	assert.InDelta(t, 2*(20+90), two.RestSeconds(nil), 1e-9, "no rest after the last set")
	assert.Equal(t, [2]int{20, 90}, [2]int{two.RestAfter(0, 0), two.RestAfter(1, 0)})
	assert.Equal(t, "16 kg a hand", two.LoadWords(1, loft()), "20 less 15 % is 17, down to a step")
	apart := plan.Session{
		Slots: []plan.Slot{
			slot("curl_turning", row(2, 8, 12, 2, nil), dose.Dose{Sets: 1, RestS: 30}),
			slot("lying_bar", row(1, 8, 12, 2, nil)),
		},
	}
	assert.InDelta(t, 90+90+30, apart.RestSeconds(nil), 1e-9)
}

// What arrives without ids gets those of what stands where; rows likewise.
func TestWhatArrivesKeepsItsIds(t *testing.T) {
	kept := plan.Session{
		Slots: []plan.Slot{
			slot("curl_turning", row(3, 8, 12, 2, nil)),
			slot("lying_bar", row(2, 8, 12, 2, nil), row(1, 15, 20, 1, nil)),
			slot("curl_neutral", row(3, 8, 12, 2, nil)),
		},
	}
	in := plan.Session{
		Slots: []plan.Slot{
			slot("lying_bar", row(2, 8, 12, 2, nil), row(1, 15, 20, 1, nil), row(1, 20, 30, 0, nil)),
			slot("kickback_cable", row(3, 8, 12, 2, nil)),
		},
	}
	for i := range in.Slots {
		in.Slots[i].ID = uuid.Nil
		in.Slots[i].Each(func(r *plan.Row) { r.ID = uuid.Nil })
	}
	fresh := 0
	m := in.Arrive(&kept, func() uuid.UUID { fresh++; return id(fmt.Sprint("fresh", fresh)) })
	assert.Equal(t, plan.Matched{Same: 1, Other: 1, Gone: 1}, m)
	assert.Equal(t, "1 slot keeps its movement, 1 another movement or set-up, 1 gone.", m.Words())
	assert.Equal(t, id("lying_bar"), in.Slots[0].ID)
	assert.Equal(t, id("curl_neutral"), in.Slots[1].ID)
	assert.Equal(
		t,
		[]uuid.UUID{id("lying_bar0"), id("lying_bar1"), id("fresh1")},
		[]uuid.UUID{in.Slots[0].Rows[0].ID, in.Slots[0].Rows[1].ID, in.Slots[0].Rows[2].ID},
	)
}

// A slot that is changed leaves the one it came from as it was.
func TestAChangedSlotLeavesTheOldAlone(t *testing.T) {
	was := slot("curl_turning", row(2, 8, 12, 2, dose.Kg(10)), row(1, 8, 12, 0, &dose.Load{Share: 0.5}))
	before, err := json.Marshal(was)
	require.NoError(t, err)
	for _, change := range []func(s *plan.Slot){
		func(s *plan.Slot) { s.Add(2) }, func(s *plan.Slot) { s.Less(); s.Less() }, func(s *plan.Slot) { s.AtMost(1) },
		func(s *plan.Slot) { s.KeepAtLeast(3) },
		func(s *plan.Slot) { s.RestAtLeast(200) }, func(s *plan.Slot) { s.Take(dose.Kg(20)) },
		func(s *plan.Slot) { s.Turn(movement.Shipped.Get("lying_bar").Default()) },
	} {
		is := was
		change(&is)
		after, err := json.Marshal(was)
		require.NoError(t, err)
		assert.Equal(t, string(before), string(after))
		assert.False(t, is.SameWork(&was))
	}
	less := was
	less.Less()
	assert.Len(t, less.Rows, 1, "a row goes with its last set")
}

func ExampleSession_DoneWords() {
	s := plan.Session{Slots: []plan.Slot{{SetUp: movement.Shipped.Get("curl_turning").Default(), Rows: []plan.Row{
		{Dose: dose.Dose{Sets: 3, RepsLow: 5, RepsHigh: 8, Reserve: 1, RestS: 120, Load: dose.Kg(16)}},
		{Dose: dose.Dose{Sets: 1, RepsLow: 15, RepsHigh: 20, Reserve: 1, RestS: 60, Load: &dose.Load{Share: 0.6}}},
	}}}}
	fmt.Println(s.DoneWords(0))
	// Output: 3 × 5–8; then 1 × 15–20
}

// Where a room holds one load it is what is lifted: the reps are what is to be found.
func TestTheOneLoadThereIs(t *testing.T) {
	f := &plan.Floor{Room: &person.Room{Name: "Digs", Things: []person.Thing{person.Pairs(14)}}, BodyMass: 75}
	for reserve, says := range map[int]string{1: "14 kg a hand, as many as leave 2", 3: "14 kg a hand, as many as leave 3"} {
		s := plan.Session{Slots: []plan.Slot{slot("curl_standing_dumbbells", row(3, 8, 12, reserve, dose.ToFind()))}}
		assert.Equal(t, says, s.LoadWords(0, f))
	}
	known := plan.Session{Slots: []plan.Slot{slot("curl_standing_dumbbells", row(3, 8, 12, 1, dose.Kg(14)))}}
	assert.Equal(t, "14 kg a hand", known.LoadWords(0, f), "a load that is prescribed has its reps")
}
