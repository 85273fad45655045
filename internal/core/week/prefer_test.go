package week_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/stance"
	"musculus/internal/core/week"
)

func prefer(p person.Preferences) person.Preferred { return person.PreferredOf(p, nil) }

// What the client prefers shapes what is new and nothing else; what is typed stays.
func TestPreferencesShapeNewSlots(t *testing.T) {
	fill := func(p person.Preferences, id string, turned movement.Settings) plan.Slot {
		tr := aimed(t)
		tr.Prefer = prefer(p)
		room := *tr.Room
		room.Partner, room.Pins, tr.Room = false, false, &room
		set, err := movement.Shipped.Get(id).SetUp(turned)
		require.NoError(t, err)
		slot := plan.Slot{SetUp: set}
		tr.Fill(&slot)
		return slot
	}
	one := func(axis person.AxisID, choice string) person.Preferences { return person.Preferences{axis: choice} }
	usual := fill(nil, "curl_pad_one_dumbbell", nil)
	assert.Equal(t, []plan.Row{{Dose: dose.Usual(person.Caps{})}}, usual.Rows)
	assert.Equal(t, "curl_pad_one_dumbbell", usual.SetUp.Key())

	guarded := fill(
		one(person.AxisRange, "guarded"),
		"curl_pad_one_dumbbell",
		movement.Settings{movement.PadSlope: movement.Num(45)},
	)
	assert.Equal(t, 45.0, guarded.SetUp.Number(movement.ElbowFrom), "a level forearm on a pad at 45°")
	typed := fill(
		one(person.AxisRange, "guarded"),
		"curl_pad_one_dumbbell",
		movement.Settings{movement.ElbowFrom: movement.Num(15)},
	)
	assert.Equal(t, 15.0, typed.SetUp.Number(movement.ElbowFrom), "what is typed stays")
	partials := fill(one(person.AxisRange, "long_partials"), "curl_reclined", nil)
	assert.Equal(t, 75.0, partials.SetUp.Number(movement.ElbowTo))

	for choice, want := range map[string][2]int{"heavy": {5, 8}, "middle": {8, 12}, "high": {12, 20}, "light": {20, 35}} {
		row := fill(one(person.AxisReps, choice), "curl_reclined", nil).Rows[0]
		assert.Equal(t, want, [2]int{row.RepsLow, row.RepsHigh}, choice)
	}
	assert.Equal(t, 5, fill(one(person.AxisReps, "mixed"), "press_bench_close", nil).Rows[0].RepsLow)
	assert.Equal(t, 12, fill(one(person.AxisReps, "mixed"), "curl_reclined", nil).Rows[0].RepsLow)
	assert.Equal(t, 0, fill(one(person.AxisReps, "light"), "curl_reclined", nil).Rows[0].Reserve, "to the limit, safe alone")
	assert.Equal(t, 2, fill(one(person.AxisReps, "light"), "curl_pad_bar", nil).Rows[0].Reserve, "a bar on a pad is not")

	limit := fill(one(person.AxisEffort, "limit"), "curl_reclined", nil)
	require.Len(t, limit.Rows, 2)
	assert.Equal(t, [2]int{1, 0}, [2]int{limit.Rows[0].Reserve, limit.Rows[1].Reserve}, "the last set alone goes to the limit")
	assert.Len(t, fill(one(person.AxisEffort, "limit"), "overhead_two_dumbbells", nil).Rows, 1, "not what is unsafe alone")
	assert.Equal(t, effort.Tempo{3, 0, 1, 0}, fill(one(person.AxisTempo, "slow"), "curl_reclined", nil).Rows[0].Tempo)

	assert.Equal(t, 0.0, fill(one(person.AxisFinish, "upright"), "lying_bar", nil).SetUp.Number(movement.Tilt))
	helped := fill(one(person.AxisOverhead, "help"), "overhead_two_dumbbells", nil).SetUp
	assert.Equal(t, 155.0, helped.Number(movement.ShoulderTo), "the first step more than 8° below 165°")
	assert.Equal(t, "loose", fill(one(person.AxisHold, "loose"), "curl_reclined", nil).SetUp.HoldWord())
	assert.Equal(
		t,
		"middle",
		fill(one(person.AxisHold, "thumb_over"), "lying_bar", nil).SetUp.HoldWord(),
		"a bar over the body could roll out",
	)
	assert.Equal(t, "thumb_over", fill(one(person.AxisHold, "thumb_over"), "curl_palms_down_bar", nil).SetUp.HoldWord())
	assert.Equal(t, "level", fill(one(person.AxisHold, "cupped"), "curl_reclined", nil).SetUp.WristWord(), "cupped on pads only")
	short := fill(one(person.AxisTop, "short"), "curl_reclined", nil).SetUp
	assert.Equal(t, 125.0, short.Number(movement.ElbowTo))
	ended := fill(one(person.AxisTop, "demand"), "curl_pad_one_dumbbell", nil).SetUp
	assert.Less(t, ended.Number(movement.ElbowTo), 130.0, "hardly anything pulls at the top of a pad curl")
}

// Caps come before every preference, at every axis.
func TestCapsComeBeforePreferences(t *testing.T) {
	for _, id := range []person.CapID{person.Cautious, person.BloodPressure, person.Pregnant} {
		for _, axis := range person.Axes {
			for _, c := range axis.Choices {
				tr := aimed(t)
				tr.Caps = person.CapsOf([]person.CapID{id})
				tr.Prefer = prefer(person.Preferences{axis.ID: c.ID})
				for _, m := range []string{"curl_reclined", "pushdown_bar", "curl_pad_one_dumbbell", "overhead_cable_low", "dip_bars"} {
					s := plan.Session{Slots: []plan.Slot{{SetUp: movement.Shipped.Get(m).Default()}}}
					tr.Fill(&s.Slots[0])
					for _, e := range tr.Check(&s) {
						assert.NotContains(t, e.Reason, "caps", "%s %s %s %s", id, axis.ID, c.ID, m)
					}
				}
			}
		}
	}
}

// Preferences that speak against each other, or against the week, are told with the
// axis to change.
func TestClashesOfPreferences(t *testing.T) {
	said := func(tr *week.Trainee, slots ...plan.Slot) (text string) {
		w := planned(map[int][]plan.Slot{0: slots})
		for _, f := range audit(&w, tr, nil) {
			if f.Code == "prefer" {
				assert.Contains(t, f.Why, "Dossier")
				text += f.Text + "\n"
			}
		}
		return text
	}
	for _, c := range []struct {
		p    person.Preferences
		says string
		slot plan.Slot
	}{
		{person.Preferences{person.AxisSpread: "daily", person.AxisEffort: "beyond"}, "Often and little", slot("curl_reclined", 3, 2)},
		{person.Preferences{person.AxisSpread: "one_day"}, "One big day holds 12 hard sets", slot("curl_reclined", 12, 2)},
		{person.Preferences{person.AxisTempo: "slow", person.AxisReps: "heavy"}, "heavy band", slot("curl_reclined", 3, 2)},
		{person.Preferences{person.AxisHold: "thumb_over"}, "not offered on presses", slot("press_bench_close", 3, 2)},
	} {
		tr := aimed(t)
		tr.Prefer = prefer(c.p)
		assert.Contains(t, said(tr, c.slot), c.says)
	}
	tr := aimed(t)
	tr.Prefer, tr.Stance = prefer(person.Preferences{person.AxisRange: "guarded"}), stance.ByID("stretch")
	assert.Contains(t, said(tr, slot("curl_reclined", 3, 2)), "does not go with the Stretch")
	tr = aimed(t)
	tr.Prefer, tr.Caps = prefer(
		person.Preferences{person.AxisEffort: "beyond"},
	), person.CapsOf(
		[]person.CapID{person.BloodPressure},
	)
	assert.Contains(t, said(tr, slot("curl_reclined", 3, 2)), "caps do not allow it")
	tr = aimed(t)
	tr.Prefer = prefer(nil)
	assert.Empty(t, said(tr, slot("curl_reclined", 3, 2)))
}

// The spread says which days are too near: not for often and little, nor for one big day.
func TestTheSpreadSaysWhichDaysAreTooNear(t *testing.T) {
	w := planned(map[int][]plan.Slot{0: {slot("curl_reclined", 4, 2)}, 1: {slot("curl_reclined", 4, 2)}})
	for choice, near := range map[string]bool{"days": true, "daily": false, "one_day": false} {
		tr := aimed(t)
		tr.Prefer = prefer(person.Preferences{person.AxisSpread: choice})
		found := false
		for key := range audit(&w, tr, nil) {
			found = found || strings.HasPrefix(key, "spacing:")
		}
		assert.Equal(t, near, found, choice)
	}
}

// A client's choice goes before the studio's, the studio's before the default.
func TestWhosePreferenceHolds(t *testing.T) {
	got := person.PreferredOf(
		person.Preferences{person.AxisReps: "high"},
		person.Preferences{person.AxisReps: "heavy", person.AxisTempo: "slow"},
	)
	assert.Equal(t, "client", got[person.AxisReps].Whose)
	assert.True(t, got.Is(person.AxisReps, "high"))
	assert.Equal(t, "studio", got[person.AxisTempo].Whose)
	assert.Equal(t, "default", got[person.AxisRange].Whose)
	assert.True(t, got.Is(person.AxisVariety, "rotate"))
	assert.NotEmpty(t, person.Preferences{"moon": "full"}.Check())
	assert.NotEmpty(t, person.Preferences{person.AxisReps: "many"}.Check())
}
