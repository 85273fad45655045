package week_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
	"musculus/internal/core/week"
)

// Sets in other grips count by their own profiles: two of one and one of the other
// come to the sum of the slots they would be.
func TestGripsCountSetBySet(t *testing.T) {
	tr := aimed(t)
	mixed := with(
		slot("curl_standing_dumbbells", 3, 2),
		func(s *plan.Slot) { gripped(s, "curl_neutral", "curl_standing_dumbbells") },
	)
	one, two := slot("curl_neutral", 1, 2), slot("curl_standing_dumbbells", 2, 2)
	got, a, b := week.CountSlot(
		&mixed,
		tr.Yardstick,
		tr.Stance,
	), week.CountSlot(
		&one,
		tr.Yardstick,
		tr.Stance,
	), week.CountSlot(
		&two,
		tr.Yardstick,
		tr.Stance,
	)
	for h := range got.Heads {
		assert.InDelta(t, a.Heads[h].Mid+b.Heads[h].Mid, got.Heads[h].Mid, 1e-9)
		for z := range got.Zones[h] {
			assert.InDelta(t, a.Zones[h][z]+b.Zones[h][z], got.Zones[h][z], 1e-9)
		}
	}
	w, parts := planned(map[int][]plan.Slot{0: {mixed}}), planned(map[int][]plan.Slot{0: {one, two}})
	assert.Equal(t, parts.Count(tr).Joints, w.Count(tr).Joints)
	assert.Equal(
		t,
		"set 1: Thumbs-up curl, two dumbbells, thumbs up; sets 2–3: Standing curl, two dumbbells, palms up",
		mixed.GripWords(),
	)
	assert.Empty(t, one.GripWords())
}

// Hand phases are split by the phases' own profiles: a third palms up, two thirds
// neutral, together one and a half sets.
func TestHandPhasesAreSplit(t *testing.T) {
	tr := aimed(t)
	phases := with(slot("curl_standing_dumbbells", 2, 2), func(s *plan.Slot) { s.Rows[0].Method = dose.Use{ID: dose.HandPhases} })
	got := week.CountSlot(&phases, tr.Yardstick, tr.Stance).Heads
	up, neutral := slot("curl_standing_dumbbells", 1, 2), plan.Of(phases.SetUp.InHand(0), slot("curl_neutral", 1, 2).Rows[0].Dose)
	for h, e := range week.CountSlot(&up, tr.Yardstick, tr.Stance).Heads {
		assert.InDelta(t, e.Mid+2*week.CountSlot(&neutral, tr.Yardstick, tr.Stance).Heads[h].Mid, got[h].Mid, 1e-9)
	}
	assert.Greater(t, got[arm.Brachioradialis].Mid, got[arm.BicepsShort].Mid, "most of it is neutral")
}

func TestAGripIsTheSameWeightHeldOtherwise(t *testing.T) {
	tr := aimed(t)
	for id, want := range map[string]string{"curl_neutral": "", "curl_turning": "", "curl_standing_bar": "not the same weight",
		"curl_reclined": "not the same weight", "kickback_dumbbell": "not the same weight"} {
		s := plan.Session{
			Slots: []plan.Slot{
				with(slot("curl_standing_dumbbells", 2, 2), func(s *plan.Slot) { gripped(s, id, "curl_standing_dumbbells") }),
			},
		}
		errs := tr.Check(&s)
		if want == "" {
			assert.Empty(t, errs, id)
			continue
		}
		require.Len(t, errs, 1, id)
		assert.Equal(t, "slots[0].rows[0].movement", errs[0].Field)
		assert.Contains(t, errs[0].Reason, want)
	}
	both := plan.Session{
		Slots: []plan.Slot{with(slot("curl_standing_dumbbells", 1, 2), func(s *plan.Slot) { s.Starts = "both" })},
	}
	assert.Len(t, both.Says(), 1)
}

// The weakest first: by the model and the hand factors, or by the log where every
// grip has a series.
func TestGripsArePlannedFromWeakToStrong(t *testing.T) {
	tr := aimed(t)
	all := grips("curl_standing_dumbbells", "curl_neutral", "curl_palms_down_dumbbells")
	ordered := series.OrderGrips(all, tr.Yardstick, nil)
	require.Len(t, ordered, 3)
	assert.Equal(t, "curl_palms_down_dumbbells", ordered[0].SetUp.Movement.ID)
	assert.Equal(t, 1.0, ordered[2].Part)
	sets := series.PlanGrips(ordered, 4)
	require.Len(t, sets, 4)
	assert.Equal(t, ordered[0].SetUp.Key(), sets[0].Key())
	assert.Equal(t, ordered[2].SetUp.Key(), sets[3].Key())
	assert.Nil(t, series.PlanGrips(ordered, 1), "one set needs no plan")
	assert.Nil(t, series.PlanGrips(ordered[:1], 3), "one grip is none")
	byLog := series.OrderGrips(
		all,
		tr.Yardstick,
		map[string]float64{"curl_standing_dumbbells": 10, "curl_neutral": 20, "curl_palms_down_dumbbells": 15},
	)
	assert.Equal(t, "curl_standing_dumbbells", byLog[0].SetUp.Movement.ID)
	assert.InDelta(t, 0.5, byLog[0].Part, 1e-9)
	assert.True(t, byLog[0].FromLog)
}

func TestOtherGripsAreFound(t *testing.T) {
	for id, want := range map[string][]string{
		"curl_standing_dumbbells": {"curl_neutral", "curl_palms_down_dumbbells"},
		"curl_standing_bar":       {"curl_palms_down_bar", "curl_standing_bar?grip_width=0.6", "curl_standing_bar?grip_width=1.6"},
		"press_bench_close":       nil, // graded: nothing is known of its grips
	} {
		all := plan.OtherGrips(movement.Shipped.Get(id).Default(), movement.Shipped)
		assert.Equal(t, id, all[0].Key(), "itself first")
		var keys []string
		for _, g := range all {
			keys = append(keys, g.Key())
			assert.True(t, plan.OnlyTheHand(all[0], g), "%s: %s", id, g.Key())
		}
		assert.Subset(t, keys, want, id)
		assert.NotContains(t, keys, "curl_drag", "it is another path, not another grip")
	}
	alternate, err := movement.Shipped.Get("curl_standing_dumbbells").
		SetUp(map[movement.Key]movement.Value{movement.Hands: movement.Word(movement.Alternate)})
	require.NoError(t, err)
	for _, g := range plan.OtherGrips(alternate, movement.Shipped) {
		assert.Equal(t, 2, g.ArmsInTurn(), g.Key())
	}
}

func TestWhoStarts(t *testing.T) {
	across := slot("curl_neutral_across", 2, 2)
	assert.Equal(t, "take turns in which arm begins", across.StartsWords())
	across.Starts = plan.StartsLeft
	assert.Contains(t, across.StartsWords(), "left arm first")
	both := slot("curl_standing_dumbbells", 2, 2)
	assert.Empty(t, both.StartsWords())
	both.Rows[0].Method = dose.Use{ID: dose.Ladder}
	assert.NotEmpty(t, both.StartsWords(), "a ladder begins with one arm")
}

// What stands between two slots that are done in turns is counted, not forbidden; only
// what cannot be stops.
func TestWhatStandsBetweenTwoSlotsInTurns(t *testing.T) {
	tr := aimed(t)
	at := func(id string, k movement.Key, v movement.Value) plan.Slot {
		set, err := movement.Shipped.Get(id).SetUp(map[movement.Key]movement.Value{k: v})
		require.NoError(t, err)
		s := slot(id, 3, 2)
		s.SetUp = set
		return s
	}
	heavy, light := weighing(slot("curl_standing_bar", 3, 2), 10), weighing(slot("curl_palms_down_bar", 3, 2), 20)
	between := func(a, b plan.Slot, rest int) week.Between {
		return tr.Between(&plan.Session{Slots: []plan.Slot{a, b}}, 0, 1, rest)
	}
	for _, c := range []struct {
		a, b plan.Slot
		says string
		s    int
	}{
		{slot("curl_standing_dumbbells", 3, 2), slot("curl_neutral", 3, 2), "", 0},
		{slot("curl_reclined", 3, 2), at("curl_reclined", movement.Bench, movement.Num(60)), "the bench", 30},
		{slot("curl_standing_dumbbells", 3, 2), slot("curl_cable_low", 3, 2), "", 0}, // the dumbbells come along
		{slot("press_bench_close", 3, 2), slot("overhead_cable_low", 3, 2), "the walk", 30},
		{slot("pushdown_bar", 3, 2), slot("dip_bench", 3, 2), "the walk", 30},
		{slot("curl_cable_low", 3, 2), slot("pushdown_bar", 3, 2), "", 0}, // two columns
		{heavy, light, "the plates", 45},
	} {
		b := between(c.a, c.b, 60)
		assert.Equal(t, c.s, b.Seconds, "%s, %s", c.a.SetUp.Title(), c.b.SetUp.Title())
		assert.Empty(t, b.Cannot)
		if c.says != "" {
			assert.Contains(t, b.Words(), c.says)
		}
	}
	assert.Contains(t, between(heavy, light, 0).Cannot, "20 kg for one")
	tr.Room.Thing(person.Cable).Count = 1
	both := between(slot("curl_cable_low", 3, 2), slot("pushdown_rope", 3, 2), 0)
	assert.Equal(t, "the pulley and the attachment, 40 s", both.Words())
	near := between(slot("pushdown_bar", 3, 2), slot("pushdown_underhand", 3, 2), 0)
	assert.Zero(t, near.Seconds, "pulleys within 5 cm above the floor are one height: %v", near.Changes)
	tr.Room.Changes = &person.Changes{PulleyS: 60}
	both = between(slot("curl_cable_low", 3, 2), slot("pushdown_rope", 3, 2), 0)
	assert.Equal(t, 80, both.Seconds, "a room has times of its own")
	// In the second place the bar carries 15 % less, down to a step.
	first, second := weighing(slot("curl_standing_bar", 3, 2), 10), weighing(slot("curl_drag", 3, 2), 15)
	assert.Zero(t, between(first, second, 0).Seconds, "30 kg less 15 % is 20 kg in this room")
}

// A press in turns with a cable extension is ordinary: it is told what it takes, and
// the minutes count the longer of rest and change.
func TestAPressInTurnsWithACable(t *testing.T) {
	tr := aimed(t)
	s := plan.Session{
		Combos: []plan.Combo{{ID: "c", AfterS: 90}},
		Slots:  []plan.Slot{slot("press_bench_close", 3, 2), slot("overhead_cable_low", 3, 2)},
	}
	for i := range s.Slots {
		s.Slots[i].Combo = "c"
	}
	for _, c := range []struct {
		between  int
		severity week.Severity
	}{{0, week.Note}, {20, week.Warn}, {60, week.Note}} {
		s.Combos[0].BetweenS = c.between
		seen := 0
		for _, f := range tr.Findings(&s, tr.Count(&s), 0) {
			if f.Code == "apart" || f.Code == "turns" {
				seen++
				assert.Equal(t, c.severity, f.Severity, "%d s: %s", c.between, f.Text)
			}
		}
		assert.Equal(t, 1, seen, "%d s between", c.between)
	}
	s.Combos[0].BetweenS = 0
	walking := tr.Count(&s).Minutes
	s.Combos[0].BetweenS = 30
	assert.InDelta(t, walking, tr.Count(&s).Minutes, 1e-9, "no rest lasts as long as the walk")
	s.Combos[0].BetweenS = 60
	assert.InDelta(t, walking+3*0.5, tr.Count(&s).Minutes, 1e-9)
}

// A fix leaves what is locked alone and takes what is not.
func TestFixesGoRoundWhatIsLocked(t *testing.T) {
	tr := aimed(t)
	tr.Aims.Minutes = 30
	slots := []plan.Slot{slot("curl_standing_dumbbells", 5, 2), slot("pushdown_bar", 5, 2), slot("curl_neutral", 3, 2)}
	for locked := range slots {
		w := planned(map[int][]plan.Slot{0: slices.Clone(slots)})
		w.Sessions[0].Slots[locked].Locked = true
		f, ok := audit(&w, tr, nil)["minutes:s0"]
		require.True(t, ok)
		require.NotNil(t, f.Fix)
		assert.Equal(t, 5-2*(locked/2), f.Fix.Week.Sessions[0].Slots[locked].Sets(), "the locked one keeps its sets")
	}
	near := planned(map[int][]plan.Slot{0: {slot("curl_standing_dumbbells", 5, 2)}, 1: {slot("curl_standing_dumbbells", 5, 2)}})
	near.Sessions[1].Locked = true
	f := audit(&near, tr, nil)["spacing:s0:s1"]
	require.NotNil(t, f.Fix)
	assert.Contains(t, f.Fix.Words, "Move Day 0", "the other one moves")
	near.Sessions[0].Locked = true
	f = audit(&near, tr, nil)["spacing:s0:s1"]
	assert.Nil(t, f.Fix)
	assert.Equal(t, day.Day(monday), near.Sessions[0].On)
	odd := planned(map[int][]plan.Slot{0: {slot("pushdown_bar", 2, 2), slot("pushdown_rope", 2, 2)}})
	odd.Sessions[0].Slots[1].Locked = true
	twice := audit(&odd, tr, nil)["twice:s0-0:s0-1"]
	assert.Nil(t, twice.Fix)
	assert.True(t, twice.Held, "there is one, but it is locked")
}

// A client whose loads are unknown is told nothing of them.
func TestALoadIsJudgedOnlyByItsOwnSeries(t *testing.T) {
	tr := aimed(t)
	s := weighing(slot("curl_standing_dumbbells", 2, 2), 40)
	assert.Equal(t, series.NotKnown, tr.FitOf(&s).Fit)
	tr.Own = map[string]series.Own{"curl_standing_dumbbells": {E1RM: 200, Logged: 3}}
	assert.Equal(t, series.TooLight, tr.FitOf(&s).Fit)
	tr.Room = &person.Room{Name: "Digs", Things: []person.Thing{person.Singles(14)}}
	assert.Equal(t, series.NotKnown, tr.FitOf(&s).Fit, "there is no pair")
}
