package week_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
	"musculus/internal/core/week"
)

// under is a trainee under caps.
func under(t *testing.T, ids ...person.CapID) *week.Trainee {
	tr := aimed(t)
	tr.Caps = person.CapsOf(ids)
	return tr
}

func fields(s *plan.Session, tr *week.Trainee) (out []string) {
	for _, e := range tr.Check(s) {
		out = append(out, e.Field)
	}
	return
}

// A hold over 3 s at either end of a rep falls under the caps that close holds, and
// the fix brings it within.
func TestLongHoldsFallUnderTheCaps(t *testing.T) {
	for _, id := range []person.CapID{person.BloodPressure, person.Pregnant, person.PregnantLate} {
		tr := under(t, id)
		for _, c := range []struct {
			tempo effort.Tempo
			fault bool
		}{{effort.Tempo{2, 20, 1, 20}, true}, {effort.Tempo{2, 3.5, 1, 0}, true}, {effort.Tempo{2, 0, 1, 3.5}, true},
			{effort.Tempo{8, 3, 8, 3}, false}, {effort.Tempo{}, false}} {
			s := plan.Session{Slots: []plan.Slot{slot("curl_standing_dumbbells", 2, 3)}}
			s.Slots[0].Rows[0].Tempo = c.tempo
			if c.fault {
				assert.Equal(t, []string{"slots[0].rows[0].tempo"}, fields(&s, tr), "%s %v", id, c.tempo)
			} else {
				assert.Empty(t, fields(&s, tr), "%s %v", id, c.tempo)
			}
		}
		for _, m := range []string{"last_rep_hold", dose.StaticHold} {
			s := plan.Session{Slots: []plan.Slot{slot("curl_standing_dumbbells", 2, 3)}}
			s.Slots[0].Rows[0].Method.ID = m
			assert.Equal(t, []string{"slots[0].rows[0].method"}, fields(&s, tr), "%s closes %s", id, m)
		}
	}
	s := plan.Session{Slots: []plan.Slot{slot("curl_standing_dumbbells", 2, 3)}}
	s.Slots[0].Rows[0].Tempo = effort.Tempo{2, 20, 1, 20}
	assert.Empty(t, fields(&s, under(t)), "without caps it is the coach's affair")
	tr := under(t, person.BloodPressure)
	w := planned(map[int][]plan.Slot{0: s.Slots})
	for key, f := range audit(&w, tr, nil) {
		if strings.HasPrefix(key, "dose:") {
			require.NotNil(t, f.Fix)
			assert.Equal(t, effort.Tempo{2, 3, 1, 3}, f.Fix.Week.Sessions[0].Slots[0].Rows[0].Tempo)
		}
	}
}

// What turns the caps close follows from the members; the rest between members is
// held to the rest cap like every other.
func TestCombosFallUnderTheCapsByTheirMembers(t *testing.T) {
	combo := func(rest int, ids ...string) *plan.Session {
		s := &plan.Session{}
		for _, id := range ids {
			x := slot(id, 2, 3)
			x.Combo = "a"
			s.Slots = append(s.Slots, x)
		}
		s.Combos = []plan.Combo{{ID: "a", BetweenS: rest, AfterS: rest}}
		return s
	}
	pressure, cautious := under(t, person.BloodPressure), under(t, person.Cautious)
	curls := []string{"curl_standing_dumbbells", "curl_neutral", "curl_turning"}
	assert.Equal(t, []string{"slots[0].combo"}, fields(combo(90, curls[:2]...), pressure))
	assert.Empty(t, fields(combo(90, curls[:2]...), cautious), "caution closes three, not two")
	assert.Equal(t, []string{"slots[0].combo"}, fields(combo(90, curls...), cautious))
	assert.Empty(t, fields(combo(90, "curl_standing_dumbbells", "lying_dumbbells"), pressure))
	assert.Equal(
		t,
		[]string{"combos[0].between_s"},
		fields(combo(0, "curl_standing_dumbbells", "lying_dumbbells"), pressure),
		"no rest between members",
	)
	c := combo(90, curls[:2]...)
	found := pressure.Findings(c, week.Count(c, pressure.Yardstick, pressure.Stance), 0)
	assert.True(t, contains(found, "combo", week.Stop), "a plan from before the caps does not leave")
}

func contains(found []week.Finding, code string, severity week.Severity) bool {
	for _, f := range found {
		if f.Code == code && f.Severity == severity {
			return true
		}
	}
	return false
}

// A cue of the coach's own that asks for what a cap forbids is asked back; with a
// reason it stays, and the audit says so.
func TestACueAgainstTheCapsNeedsAReason(t *testing.T) {
	tr := under(t, person.BloodPressure)
	s := plan.Session{Slots: []plan.Slot{slot("curl_standing_dumbbells", 2, 3)}}
	s.Slots[0].Cues = []string{"Elbows still", "Hold your breath at the bottom"}
	wrong := tr.Check(&s)
	require.Len(t, wrong, 1)
	assert.Equal(t, "slots[0].cues", wrong[0].Field)
	assert.True(t, wrong[0].Asks)
	assert.Contains(t, wrong[0].Reason, "holding the breath")
	assert.True(t, contains(tr.Findings(&s, week.Count(&s, tr.Yardstick, tr.Stance), 0), "dose", week.Stop), "it does not leave as it is")
	s.Slots[0].CueReason = "he means the plank, agreed with his doctor"
	assert.Empty(t, tr.Check(&s))
	w := planned(map[int][]plan.Slot{0: s.Slots})
	found, ok := audit(&w, tr, nil)["cue:s0:s0-0"]
	require.True(t, ok)
	assert.Contains(t, found.Text, "agreed with his doctor")
	assert.Empty(t, under(t).Check(&s), "without caps nothing is asked")
}

// Nothing on the chest in late pregnancy, nothing flat on the back.
func TestHowSomebodyLies(t *testing.T) {
	late := under(t, person.PregnantLate)
	for id, fault := range map[string]bool{"lying_dumbbells": true, "curl_chest_supported": true,
		"kickback_chest_supported": true, "curl_standing_dumbbells": false, "incline_dumbbells": false} {
		s := plan.Session{Slots: []plan.Slot{slot(id, 2, 3)}}
		assert.Equal(t, fault, len(late.Check(&s)) > 0, id)
		v := (&person.Fence{Caps: late.Caps}).Judge(movement.Shipped.Get(id).Default(), nil)
		assert.Equal(t, fault, v.Barred() && v.ByCaps, id)
	}
}

// The load decides, not the name: bars with 30 kg for nine clean reps are avoided,
// methods that add load are counted in, and to the limit alone is refused.
func TestLoadOnDipsIsFound(t *testing.T) {
	tr := aimed(t)
	tr.Room.Things = append(tr.Room.Things, person.BeltOf(5, 10, 20, 30))
	tr.Fence = &person.Fence{Mobility: person.Mobility{DipLevel: "bars", CleanDips: 9}}
	dip := func(added float64, method dose.Use, reserve int) *plan.Session {
		x := slot("dip_bars", 3, reserve)
		x.Rows[0].Load, x.Rows[0].Method = dose.Added(added), method
		return &plan.Session{Slots: []plan.Slot{x}}
	}
	found := func(s *plan.Session) []week.Finding { return tr.Findings(s, week.Count(s, tr.Yardstick, tr.Stance), 0) }
	assert.True(t, contains(found(dip(30, dose.Use{}, 2)), "ladder", week.Warn))
	assert.False(t, contains(found(dip(0, dose.Use{}, 2)), "ladder", week.Warn))
	climb := dip(0, dose.Use{}, 2)
	climb.Slots[0].Rows[0].Sets = 1
	climb.Slots[0].Rows = append(climb.Slots[0].Rows, climb.Slots[0].Rows[0])
	climb.Slots[0].Rows[1].Load = dose.StepsOff(1)
	assert.True(t, contains(found(climb), "ladder", week.Warn), "a climb adds load row by row")
	tr.Fence.Mobility.CleanDips = 0
	assert.True(t, contains(found(dip(30, dose.Use{}, 2)), "ladder", week.Note), "none recorded: the check is offered")
	tr.Fence.Mobility.CleanDips = 12
	assert.False(t, contains(found(dip(30, dose.Use{}, 2)), "ladder", week.Warn))
	tr.Room.Partner = false
	assert.Equal(t, []string{"slots[0].rows[0].reserve"}, fields(dip(30, dose.Use{}, 0), tr), "with load not to the limit alone")
	assert.Empty(t, fields(dip(0, dose.Use{}, 0), tr))

	tr.Fence.Mobility.CleanDips = 9
	w := planned(map[int][]plan.Slot{0: climb.Slots})
	fix := audit(&w, tr, nil)["ladder:s0:s0-0"].Fix
	require.NotNil(t, fix)
	assert.Equal(t, "Use body weight alone", fix.Words)
	assert.NotContains(t, audit(&fix.Week, tr, nil), "ladder:s0:s0-0")
}

// A top-range press is held to the full range: above its course a warning, over
// 120 % a stop, without a full-range press to be found.
func TestTopRangePressesAreHeldToTheFullRange(t *testing.T) {
	tr := aimed(t)
	set := func(id string, width float64) movement.SetUp {
		s, err := movement.Shipped.Get(id).SetUp(map[movement.Key]movement.Value{movement.GripWidth: movement.Num(width)})
		require.NoError(t, err)
		return s
	}
	full := set("press_bench_close", 1.2)
	for _, c := range []struct {
		name         string
		full         movement.SetUp
		e1rm, whole  float64 // whole bar, kg
		weeks        int
		stop, warned bool
	}{
		{"80 where the full press is 77: above the course", full, 77, 80, 0, false, true},
		{"80 where the full press is 60: over 120 %", full, 60, 80, 0, true, false},
		{"the band's own load", full, 86, 60, 0, false, false},
		{"above it in the first week", full, 70, 60, 0, false, true},
		{"after four clean weeks", full, 74, 60, 4, false, false},
		{"another width, by ratio", set("press_bench_close", 1.0), 86, 60, 0, false, true},
		{"another width over 120 %", set("press_bench_close", 1.0), 60, 80, 0, true, false},
	} {
		pin := set("press_pin_top", 1.2)
		hand := c.whole / 2
		tr.Own = map[string]series.Own{c.full.Key(): {SetUp: c.full, E1RM: c.e1rm / 2, Logged: 9}, pin.Key(): {SetUp: pin, Weeks: c.weeks}}
		s := plan.Session{Slots: []plan.Slot{slot("press_pin_top", 3, 2)}}
		s.Slots[0].SetUp, s.Slots[0].Rows[0].Load = pin, dose.Kg(hand)
		s.Slots[0].Rows[0].RepsLow, s.Slots[0].Rows[0].RepsHigh = 6, 10
		found := tr.Findings(&s, week.Count(&s, tr.Yardstick, tr.Stance), 0)
		assert.Equal(t, c.stop, contains(found, "top_range", week.Stop), c.name)
		assert.Equal(t, c.warned, contains(found, "top_range", week.Warn), c.name)
	}
	tr.Own = nil
	s := plan.Session{Slots: []plan.Slot{slot("press_pin_top", 3, 2)}}
	s.Slots[0].Rows[0].Load = dose.Kg(30)
	assert.True(
		t,
		contains(tr.Findings(&s, week.Count(&s, tr.Yardstick, tr.Stance), 0), "top_range", week.Warn),
		"nothing to hold it against",
	)
	s.Slots[0].Rows[0].Load = dose.ToFind()
	assert.False(t, contains(tr.Findings(&s, week.Count(&s, tr.Yardstick, tr.Stance), 0), "top_range", week.Warn), "it is to be found")

	// The method of that name is held to the same.
	close := movement.Shipped.Get("press_bench_close").Default()
	tr.Own = map[string]series.Own{close.Key(): {SetUp: close, E1RM: 30}}
	s = plan.Session{Slots: []plan.Slot{slot("press_bench_close", 3, 2)}}
	s.Slots[0].Rows[0].Method.ID, s.Slots[0].Rows[0].Load = dose.StrongPartials, dose.Kg(40)
	assert.True(t, contains(tr.Findings(&s, week.Count(&s, tr.Yardstick, tr.Stance), 0), "top_range", week.Stop))
}

// What a cap closes is closed in every row of a slot and in every member of a combo, back-off sets
// of a share and sets by time included: rows and combos are no way round it.
func TestNoRowAndNoMemberGoesRoundTheCaps(t *testing.T) {
	violations := map[string]func(r *plan.Row){
		"reserve": func(r *plan.Row) { r.Reserve = 0 },
		"rest_s":  func(r *plan.Row) { r.RestS = 5 },
		"tempo":   func(r *plan.Row) { r.Tempo = effort.Tempo{2, 20, 1, 20} },
		"method":  func(r *plan.Row) { r.Method = dose.Use{ID: dose.StaticHold} },
	}
	type door struct {
		path  string
		build func(bend func(*plan.Row)) *plan.Session
	}
	twoRows := func(bend func(*plan.Row), of func(*plan.Row)) *plan.Session {
		x := slot("curl_standing_dumbbells", 2, 3)
		x.Rows = append(x.Rows, x.Rows[0])
		of(&x.Rows[1])
		bend(&x.Rows[1])
		return &plan.Session{Slots: []plan.Slot{x}}
	}
	doors := []door{
		{"slots[0].rows[0].", func(bend func(*plan.Row)) *plan.Session {
			x := slot("curl_standing_dumbbells", 2, 3)
			bend(&x.Rows[0])
			return &plan.Session{Slots: []plan.Slot{x}}
		}},
		{"slots[0].rows[1].", func(bend func(*plan.Row)) *plan.Session { return twoRows(bend, func(*plan.Row) {}) }},
		{"slots[0].rows[1].", func(bend func(*plan.Row)) *plan.Session {
			return twoRows(bend, func(r *plan.Row) { r.Load = &dose.Load{Share: 0.6} })
		}},
		{"slots[0].rows[1].", func(bend func(*plan.Row)) *plan.Session {
			return twoRows(bend, func(r *plan.Row) { r.RepsLow, r.RepsHigh = 15, 20 })
		}},
		{"slots[1].rows[0].", func(bend func(*plan.Row)) *plan.Session { // a press with a cable, in turns
			a, b := slot("press_bench_close", 2, 3), slot("overhead_cable_low", 2, 3)
			a.Combo, b.Combo = "a", "a"
			bend(&b.Rows[0])
			return &plan.Session{Slots: []plan.Slot{a, b}, Combos: []plan.Combo{{ID: "a", BetweenS: 120, AfterS: 120}}}
		}},
	}
	closed := map[person.CapID]int{}
	for _, id := range []person.CapID{person.BloodPressure, person.Cautious, person.CautiousFirst, person.Pregnant, person.PregnantLate} {
		tr := under(t, id)
		for field, bend := range violations {
			if !slices.Contains(fields(doors[0].build(bend), tr), doors[0].path+field) {
				continue // not what this cap closes
			}
			closed[id]++
			for i, d := range doors[1:] {
				if field == "rest_s" && d.path == "slots[1].rows[0]." {
					continue // inside a combo the rest is the combo's own, which is held to the cap
				}
				assert.Contains(t, fields(d.build(bend), tr), d.path+field, "%s, door %d", id, i+1)
			}
		}
	}
	assert.Equal(t, 4, closed[person.BloodPressure], "reserve, rest, holds in the tempo, holds as a method")
	assert.GreaterOrEqual(t, closed[person.Cautious], 1)
}
