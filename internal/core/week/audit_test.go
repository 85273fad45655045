package week_test

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
	"musculus/internal/core/series"
	"musculus/internal/core/week"
)

const monday = day.Day(20_780) // 23 November 2026

// everything is a room in which every movement can be done, with somebody to spot.
func everything() *person.Room {
	r := &person.Room{
		Name:    "The Loft",
		Pads:    true,
		Pins:    true,
		Rails:   true,
		Partner: true,
		Bench:   &person.Bench{Min: 0, Max: 85},
	}
	var pairs []float64
	for kg := 2.0; kg <= 40; kg += 2 {
		pairs = append(pairs, kg)
	}
	r.Things = []person.Thing{person.Pairs(pairs...), person.There(movement.DipBars), person.Columns(2, 2, 5, 10, 20, 30, 40, 60)}
	for _, k := range []movement.ImplementID{movement.BarStraight, movement.BarCambered} {
		r.Things = append(r.Things, person.BarOf(k, 0, 10, 20, 30, 40, 60, 80))
	}
	for _, k := range []movement.ImplementID{movement.BarStraight, movement.Rope, movement.Handle} {
		r.Things = append(r.Things, person.There(person.OnCable(k)))
	}
	for id := range person.Stations() {
		r.Things = append(r.Things, person.There(id))
	}
	return r
}

func without(things []person.Thing, kind movement.ImplementID) []person.Thing {
	return slices.DeleteFunc(things, func(t person.Thing) bool { return t.Kind == kind })
}

// aimed is a trainee in that room whose every head is maintained.
func aimed(t testing.TB) *week.Trainee {
	tr := trainee(t)
	tr.Room = everything()
	tr.Aims = &week.Aims{Minutes: 90, Today: monday}
	return tr
}

// planned makes a week: the sessions' slots by days after Monday.
func planned(sessions map[int][]plan.Slot) week.Week {
	var out week.Week
	for after := range 7 {
		slots, ok := sessions[after]
		if !ok {
			continue
		}
		s := plan.Planned{
			ID:      named("s%d", after),
			Name:    fmt.Sprint("Day ", after),
			On:      monday + day.Day(after),
			Session: plan.Session{WarmUpMin: 5, Slots: slots, Combos: combos(slots)},
		}
		for i := range s.Slots {
			s.Slots[i].ID = named("s%d-%d", after, i)
		}
		out.Sessions = append(out.Sessions, s)
	}
	return out
}

// names are what the ids of test weeks stand for.
var names = map[string]string{uuid.Nil.String(): ""}

func named(format string, args ...any) uuid.UUID {
	name := fmt.Sprintf(format, args...)
	id := uuid.NewSHA1(uuid.Nil, []byte(name))
	names[id.String()] = name
	return id
}

// combos are those that some slots are in: the walk between, 90 s after a round.
func combos(slots []plan.Slot) (out []plan.Combo) {
	for i := range slots {
		if id := slots[i].Combo; id != "" && !slices.ContainsFunc(out, func(c plan.Combo) bool { return c.ID == id }) {
			out = append(out, plan.Combo{ID: id, AfterS: 90})
		}
	}
	return out
}

var idIn = regexp.MustCompile(`[0-9a-f]{8}-[0-9a-f-]{27}`)

func audit(w *week.Week, tr *week.Trainee, shelf *week.Shelf) map[string]week.Found {
	l := w.Count(tr)
	out := map[string]week.Found{}
	for _, f := range w.Audit(tr, shelf, &l, 1000) {
		out[idIn.ReplaceAllStringFunc(f.Key, func(id string) string { return names[id] })] = f
	}
	return out
}

func levels(of map[arm.HeadIndex]priority.Level) (out [arm.HeadCount]priority.Level) {
	for h, l := range of {
		out[h] = l
	}
	return out
}

func with(s plan.Slot, do func(*plan.Slot)) plan.Slot {
	do(&s)
	return s
}

// Every rule: a week that triggers it, one that must not, and its fix clearing it.
func TestEveryRuleTriggersIsQuietAndIsCleared(t *testing.T) {
	both := []plan.Slot{slot("curl_standing_dumbbells", 5, 2), slot("pushdown_bar", 5, 2)}
	plain := map[int][]plan.Slot{0: both}
	for code, c := range map[string]struct {
		tr        func(*week.Trainee)
		bad, fine map[int][]plan.Slot
		says      string
		fixed     string
	}{
		"under": {
			tr: func(tr *week.Trainee) {
				tr.Aims.Levels = levels(map[arm.HeadIndex]priority.Level{arm.TricepsLong: priority.Build})
			},
			bad: plain, fine: map[int][]plan.Slot{0: both, 3: {slot("pushdown_bar", 4, 2)}},
			says: "triceps, long head 5.0 effective sets against 8–12 (build)", fixed: "Add ",
		},
		"over": {
			bad: map[int][]plan.Slot{0: {slot("curl_standing_dumbbells", 5, 2)}, 3: {slot("curl_standing_dumbbells", 5, 2)}}, fine: plain,
			says: "against 4–6 (maintain)", fixed: "less of",
		},
		"length": {
			tr: func(tr *week.Trainee) {
				tr.Aims.Levels = levels(map[arm.HeadIndex]priority.Level{arm.TricepsLong: priority.Prioritise})
			},
			bad: plain, fine: map[int][]plan.Slot{0: {slot("overhead_cable_low", 5, 2), slot("kickback_cable", 5, 2)}},
			says: "at long length, under 2", fixed: "Add ",
		},
		"twice": {bad: map[int][]plan.Slot{0: {slot("pushdown_bar", 2, 2), slot("pushdown_rope", 2, 2)}}, fine: plain,
			says: "one idea twice", fixed: "Make them one: 4 sets"},
		"order": {bad: map[int][]plan.Slot{0: {slot("pushdown_bar", 3, 2), with(slot("press_bench_close", 3, 2), heavy)}},
			fine: map[int][]plan.Slot{0: {with(slot("press_bench_close", 3, 2), heavy), slot("pushdown_bar", 3, 2)}},
			says: "costs the chest", fixed: "in that order"},
		"spacing": {bad: map[int][]plan.Slot{0: both, 1: both}, fine: map[int][]plan.Slot{0: both, 3: both}, says: "a day apart",
			fixed: "Move Day 1 to"},
		"minutes": {tr: func(tr *week.Trainee) { tr.Aims.Minutes = 25 },
			bad:  map[int][]plan.Slot{0: {slot("curl_standing_dumbbells", 5, 2), slot("pushdown_bar", 5, 2), slot("curl_neutral", 3, 2)}},
			fine: map[int][]plan.Slot{0: {slot("curl_standing_dumbbells", 3, 2), slot("pushdown_bar", 3, 2)}},
			says: "minutes against the 25", fixed: "less of"},
		"group_session": {bad: map[int][]plan.Slot{0: {slot("curl_standing_dumbbells", 6, 2), slot("curl_reclined", 6, 2)}},
			fine: plain, says: "12 hard sets", fixed: "less of"},
		"group_week": {bad: map[int][]plan.Slot{0: {slot("curl_standing_dumbbells", 9, 2)}, 2: {slot("curl_reclined", 9, 2)},
			4: {slot("curl_neutral", 9, 2)}}, fine: plain, says: "27 hard sets", fixed: "less of"},
		"joint": {tr: func(tr *week.Trainee) {
			tr.Fence = &person.Fence{Scores: person.Scores{person.Left: {movement.ElbowBack: 1}}}
		}, bad: map[int][]plan.Slot{0: {slot("overhead_two_dumbbells", 6, 2)}, 3: {slot("lying_bar", 6, 2)}},
			fine: map[int][]plan.Slot{0: {slot("overhead_two_dumbbells", 3, 2)}}, says: "of a week’s 25", fixed: "less of"},
		"failure": {bad: map[int][]plan.Slot{0: {slot("curl_standing_dumbbells", 4, 0), slot("pushdown_bar", 4, 0)}},
			fine: map[int][]plan.Slot{0: {slot("curl_standing_dumbbells", 4, 2), slot("pushdown_bar", 2, 0)}},
			says: "go to the limit", fixed: "Leave 1 in reserve"},
		"equipment": {tr: func(tr *week.Trainee) { tr.Room.Things = without(tr.Room.Things, person.Cable) },
			bad:  map[int][]plan.Slot{0: {slot("overhead_cable_low", 3, 2)}},
			fine: map[int][]plan.Slot{0: {slot("overhead_two_dumbbells", 3, 2)}}, says: "lacks", fixed: "instead"},
		"avoid": {tr: func(tr *week.Trainee) {
			tr.Fence = &person.Fence{Scores: person.Scores{person.Left: {movement.ShoulderFront: 3}}}
		}, bad: map[int][]plan.Slot{0: {slot("curl_reclined", 3, 2)}}, fine: plain, says: "to be avoided", fixed: "Turn it"},
		"modify": {tr: func(tr *week.Trainee) {
			tr.Fence = &person.Fence{Scores: person.Scores{person.Right: {movement.Wrist: 3}}}
		}, bad: map[int][]plan.Slot{0: {slot("curl_standing_bar", 3, 2)}},
			fine: map[int][]plan.Slot{0: {slot("curl_standing_dumbbells", 5, 2)}}, says: "to modify", fixed: "Turn it"},
		"refused": {tr: func(tr *week.Trainee) {
			y, err := effort.NewYardstick(arm.Body{Stature: 1.1, BodyMass: 40})
			require.NoError(t, err)
			tr.Yardstick = y
		}, bad: map[int][]plan.Slot{0: {nearPulley(t)}}, fine: plain, says: "cannot be done as set", fixed: "Remove it"},
		"dose": {tr: func(tr *week.Trainee) { tr.Caps = person.CapsOf([]person.CapID{person.Cautious}) },
			bad:  map[int][]plan.Slot{0: {with(slot("curl_reclined", 3, 1), func(s *plan.Slot) { s.Rows[0].Method = dose.Use{ID: "drops"} })}},
			fine: map[int][]plan.Slot{0: {slot("curl_standing_dumbbells", 3, 3)}}, says: "caps", fixed: "as the caps and the room allow"},
		"same": {tr: func(tr *week.Trainee) {
			tr.Aims.Since = map[string]day.Day{"curl_reclined": monday - 60, "pushdown_bar": monday - 20}
		}, bad: map[int][]plan.Slot{0: {slot("curl_reclined", 3, 2)}}, fine: plain, says: "the same since", fixed: "one thing at a time"},
		"cold": {bad: map[int][]plan.Slot{0: {slot("overhead_two_dumbbells", 3, 2)}}, fine: plain,
			says: "after 0 minutes of warm-up", fixed: "Warm up"},
		"apart": {bad: map[int][]plan.Slot{0: {with(weighing(slot("curl_standing_bar", 3, 2), 10), inCombo),
			with(weighing(slot("curl_palms_down_bar", 3, 2), 20), inCombo)}},
			fine: map[int][]plan.Slot{0: {with(slot("curl_standing_dumbbells", 3, 2), inCombo),
				with(slot("curl_neutral", 3, 2), inCombo)}}, says: "the bar would have to carry", fixed: "between them"},
		"one_movement": {bad: map[int][]plan.Slot{0: {slot("curl_standing_dumbbells", 4, 2)}, 3: {slot("curl_standing_dumbbells", 4, 2)}},
			fine: map[int][]plan.Slot{0: {slot("curl_standing_dumbbells", 4, 2)}, 3: {slot("curl_reclined", 4, 2)}},
			says: "8 of the week’s 8 hard sets", fixed: "of its sets to"},
		"one_part": {bad: map[int][]plan.Slot{0: {slot("curl_standing_dumbbells", 2, 2)}, 2: {slot("curl_neutral", 2, 2)},
			4: {slot("curl_turning", 2, 2)}}, fine: map[int][]plan.Slot{0: {slot("curl_standing_dumbbells", 2, 2)},
			2: {slot("curl_pad_one_dumbbell", 2, 2)}, 4: {slot("curl_turning", 2, 2)}},
			says: "is hardest at the shortened end", fixed: "instead"},
		"weekday": {tr: func(tr *week.Trainee) { tr.Aims.Weekdays = []string{"tue", "thu", "sat"} },
			bad: map[int][]plan.Slot{0: {slot("curl_reclined", 3, 2)}}, fine: map[int][]plan.Slot{1: {slot("curl_reclined", 3, 2)}},
			says: "is on a Monday; this client’s days are Tuesday", fixed: "Move"},
		"unchanged": {tr: func(tr *week.Trainee) { before := planned(plain); tr.Aims.Before = &before }, bad: plain,
			fine: map[int][]plan.Slot{0: {slot("curl_standing_dumbbells", 5, 2), slot("pushdown_bar", 4, 2)}},
			says: "Nothing has changed", fixed: "One rep more of"},
		"grips": {bad: map[int][]plan.Slot{0: {with(slot("curl_standing_dumbbells", 3, 2),
			func(s *plan.Slot) { gripped(s, "curl_standing_dumbbells", "curl_neutral") })}},
			fine: map[int][]plan.Slot{0: {with(slot("curl_standing_dumbbells", 3, 2),
				func(s *plan.Slot) { gripped(s, "curl_neutral", "curl_standing_dumbbells") })}},
			says: "from the stronger grip", fixed: "where the client is weaker"},
		"load": {tr: func(tr *week.Trainee) { // 20 kg once: 14–15 kg for 8–12 with 2 left
			tr.Own = map[string]series.Own{"curl_standing_dumbbells": {E1RM: 20, Logged: 6}, "curl_neutral": {E1RM: 90, Logged: 6},
				"curl_reclined": {E1RM: 2.6, Logged: 6}, "curl_turning": {E1RM: 1, Logged: 6}}
		}, bad: map[int][]plan.Slot{0: {weighing(slot("curl_standing_dumbbells", 2, 2), 18)},
			2: {slot("curl_neutral", 2, 2), slot("curl_reclined", 2, 2)}, 4: {slot("curl_turning", 2, 2)}},
			fine: map[int][]plan.Slot{0: {weighing(slot("curl_standing_dumbbells", 2, 2), 14)}},
			says: "18 kg a hand gives about 1 reps", fixed: "Use "},
		"disputed": {tr: func(tr *week.Trainee) {
			tr.Aims.Levels = levels(map[arm.HeadIndex]priority.Level{arm.TricepsLateral: priority.Build})
		},
			bad:  map[int][]plan.Slot{0: {slot("press_bench_close", 5, 2)}, 3: {slot("press_bench_close", 5, 2)}},
			fine: map[int][]plan.Slot{0: {slot("curl_standing_dumbbells", 5, 2)}, 3: {slot("curl_standing_dumbbells", 5, 2)}},
			says: "only ", fixed: "Add "},
	} {
		t.Run(code, func(t *testing.T) {
			tr := aimed(t)
			if c.tr != nil {
				c.tr(tr)
			}
			shelf := week.Stock(movement.Shipped, tr.Yardstick, tr.Stance)
			bad, fine := planned(c.bad), planned(c.fine)
			if code == "cold" {
				bad.Sessions[0].WarmUpMin = 0
			}
			held := bad
			held.Sessions = slices.Clone(bad.Sessions)
			for i := range held.Sessions {
				held.Sessions[i].Locked = true
			}
			n := 0
			for key, f := range audit(&held, tr, shelf) {
				assert.Nil(t, f.Fix, "%s: everything is locked: %v", key, f.Fix)
			}
			for key, f := range audit(&bad, tr, shelf) {
				assert.NotEmpty(t, f.Why, key)
				if f.Code != code {
					continue
				}
				n++
				if code != "over" && code != "under" && code != "length" && code != "joint" && code != "load" {
					assert.Contains(t, f.Text, c.says)
				}
				if !assert.NotNil(t, f.Fix, "%s: %s", key, f.Text) {
					continue
				}
				assert.Contains(t, f.Fix.Words, c.fixed)
				_, still := audit(&f.Fix.Week, tr, shelf)[key]
				assert.False(t, still, "%s: %s → %s", key, f.Text, f.Fix.Words)
			}
			assert.Positive(t, n, "never triggered")
			said := ""
			for _, f := range audit(&bad, tr, shelf) {
				said += f.Text + "\n"
			}
			assert.Contains(t, said, c.says)
			for key, f := range audit(&fine, tr, shelf) {
				if code == "under" || code == "over" || code == "length" { // of that head
					continue
				}
				assert.NotEqual(t, code, f.Code, "%s: %s", key, f.Text)
			}
			if code == "under" {
				assert.NotContains(t, audit(&fine, tr, shelf), "under:triceps_long")
			}
			if code == "length" {
				assert.NotContains(t, audit(&fine, tr, shelf), "length:triceps_long:long")
			}
			if code == "over" {
				assert.NotContains(t, audit(&fine, tr, shelf), "over:biceps_long")
			}
		})
	}
}

// grips are the default set-ups of some movements, one a set.
func grips(ids ...string) (out []movement.SetUp) {
	for _, id := range ids {
		out = append(out, movement.Shipped.Get(id).Default())
	}
	return out
}

// gripped makes a row of each of a slot's sets, held as the movements say; the last
// one holds on.
func gripped(s *plan.Slot, ids ...string) {
	row := s.Rows[0]
	s.Rows = nil
	for n := range row.Sets {
		one, set := row, movement.Shipped.Get(ids[min(n, len(ids)-1)]).Default()
		one.Sets = 1
		if set.Key() != s.SetUp.Key() {
			one.SetUp = &set
		}
		s.Rows = append(s.Rows, one)
	}
}

// weighing gives a slot a load, kg a hand.
func weighing(s plan.Slot, kg float64) plan.Slot {
	s.Rows[0].Load = dose.Kg(kg)
	return s
}

// nearPulley stands so near a low pulley that a small body cannot reach it.
func nearPulley(t *testing.T) plan.Slot {
	s := slot("curl_cable_facing_away", 3, 2)
	near, err := s.SetUp.With(movement.PulleyDistance, movement.Num(0.4))
	require.NoError(t, err)
	s.SetUp = near
	return s
}

func heavy(s *plan.Slot) { s.Rows[0].RepsLow, s.Rows[0].RepsHigh = 5, 8 }
func inCombo(s *plan.Slot) {
	s.Combo = "a"
}

// The week of docs/example-week.md: every number there is one of these.
func TestTheHandWorkedWeek(t *testing.T) {
	tr := aimed(t)
	tr.Aims.Elsewhere = []person.Elsewhere{{Weekday: "tue", Kind: "press", Sets: 6}, {Weekday: "fri", Kind: "pull", Sets: 4}}
	press := with(slot("press_bench_close", 4, 2), func(s *plan.Slot) { heavy(s); s.Rows[0].RestS = 150 })
	drops := with(slot("curl_standing_dumbbells", 3, 1), func(s *plan.Slot) { s.Rows[0].Method = dose.Use{ID: "drops", N: 2} })
	pause := with(slot("pushdown_bar", 2, 2), func(s *plan.Slot) { s.Rows[0].Method = dose.Use{ID: "rest_pause", N: 2} })
	w := planned(
		map[int][]plan.Slot{0: {press, slot("pushdown_bar", 3, 1), drops}, 3: {slot("curl_standing_dumbbells", 2, 4), pause}},
	)
	l := w.Count(tr)
	for h, want := range map[arm.HeadIndex][3]float64{ // direct, elsewhere, total
		arm.BicepsLong: {6.5, 1.6, 8.1}, arm.BicepsShort: {6.5, 1.6, 8.1}, arm.Brachialis: {6.5, 2.4, 8.9}, arm.Brachioradialis: {6.5, 2.4, 8.9},
		arm.TricepsLong: {7.6, 1.0, 8.6}, arm.TricepsLateral: {10.0, 4.8, 14.8}, arm.TricepsMedial: {9.6, 3.6, 13.2},
	} {
		line := l.Heads[h]
		assert.InDelta(t, want[0], line.Direct.Mid, 1e-9, arm.Heads[h].Name)
		assert.InDelta(t, want[1], line.Elsewhere.Mid, 1e-9, arm.Heads[h].Name)
		assert.InDelta(t, want[2], line.Total.Mid, 1e-9, arm.Heads[h].Name)
	}
	assert.Equal(t, [2]int{3, 9}, [2]int{l.Flexors, l.Extensors})
	assert.InDelta(t, 2284.0/60, l.Sessions[0].Minutes, 1e-9)
	assert.InDelta(t, 1068.0/60, l.Sessions[1].Minutes, 1e-9)
	assert.Equal(t, week.JointLoad{16, 3, 13, 16, 4}, l.Joints)
	for h := range l.Heads { // every number says what it adds up from
		sum := 0.0
		for _, term := range w.Terms(tr, &l, arm.HeadIndex(h)) {
			sum += term.Value
		}
		assert.InDelta(t, l.Heads[h].Total.Mid, sum, 1e-9, arm.Heads[h].Name)
	}
	assert.Equal(
		t,
		"Standing curl, two dumbbells, palms up: 3 sets × 1.00 × 1.7 (drops, 2 rungs after the first)",
		w.Terms(tr, &l, arm.BicepsLong)[0].Words,
	)
	assert.Equal(
		t,
		"Standing curl, two dumbbells, palms up: 2 sets × 1.00 × 0.70 (effort)",
		w.Terms(tr, &l, arm.BicepsLong)[1].Words,
	)
	assert.Equal(t, "pulling elsewhere: 4 sets × 0.40", w.Terms(tr, &l, arm.BicepsLong)[2].Words)
	var said []string
	for _, f := range w.Audit(tr, nil, &l, 1000) {
		said = append(said, f.Text)
	}
	assert.Contains(t, strings.Join(said, "\n"), "14.8 effective sets against 4–6")
}

// Targets that the client's minutes cannot hold are one card that asks which gives
// way, not a finding for each head and each session; with time enough there is none.
func TestTargetsAgainstMinutesAreOneCard(t *testing.T) {
	tr := aimed(t)
	tr.Aims.Minutes, tr.Aims.Weekdays = 30, []string{"mon"}
	for h := range tr.Aims.Levels {
		tr.Aims.Levels[h] = priority.Prioritise
	}
	shelf := week.Stock(movement.Shipped, tr.Yardstick, tr.Stance)
	w := planned(
		map[int][]plan.Slot{0: {slot("curl_standing_dumbbells", 5, 2), slot("pushdown_bar", 5, 2), slot("curl_reclined", 3, 2)}},
	)
	found := audit(&w, tr, shelf)
	card, ok := found["clash:minutes"]
	require.True(t, ok)
	assert.Regexp(
		t,
		`^30 minutes hold about \d+ hard sets of these movements; the targets ask about \d+\. Which gives way\?$`,
		card.Text,
	)
	assert.Equal(t, []week.Way{{"More minutes or days", "dossier"}, {"Lower targets", "priorities"}}, card.Ways)
	for key, f := range found {
		assert.NotContains(t, []string{"under", "minutes"}, f.Code, key)
	}
	tr.Aims.Minutes = 200
	assert.NotContains(t, audit(&w, tr, shelf), "clash:minutes")
	assert.Contains(t, audit(&w, tr, shelf), "under:triceps_long")
	for h := range tr.Aims.Levels {
		tr.Aims.Levels[h] = priority.Maintain
	}
	tr.Aims.Minutes = 30
	assert.NotContains(t, audit(&w, tr, shelf), "clash:minutes", "nothing is short: it is too long, no more")
}

// Heads that only ride along over their target are one quiet line.
func TestWhatRidesAlongIsOneLine(t *testing.T) {
	tr := aimed(t)
	tr.Aims.Levels[arm.BicepsLong], tr.Aims.Levels[arm.BicepsShort] = priority.Prioritise, priority.Prioritise
	w := planned(map[int][]plan.Slot{0: {slot("curl_standing_dumbbells", 6, 2)}, 3: {slot("curl_standing_dumbbells", 6, 2)}})
	found := audit(&w, tr, nil)
	require.Contains(t, found, "along")
	assert.Equal(t, "BA and BD ride along over the target: nothing in the week is for that alone.", found["along"].Text)
	assert.Equal(t, week.Note, found["along"].Severity)
	assert.NotContains(t, found, "over:brachialis")
}

// With its profiles already asked for once, a six-day week of ten slots.
func BenchmarkLedgerAndAudit(b *testing.B) {
	tr := aimed(b)
	sessions := map[int][]plan.Slot{}
	ids := []string{
		"press_bench_close",
		"curl_reclined",
		"overhead_cable_low",
		"curl_neutral",
		"pushdown_bar",
		"kickback_cable",
		"curl_pad_bar",
		"lying_bar",
		"curl_palms_down_bar",
		"dip_bars",
	}
	for d := range 6 {
		for _, id := range ids {
			sessions[d] = append(sessions[d], slot(id, 1, 2))
		}
	}
	w := planned(sessions)
	shelf := week.Stock(movement.Shipped, tr.Yardstick, tr.Stance)
	for b.Loop() {
		l := w.Count(tr)
		w.Audit(tr, shelf, &l, 1000)
	}
}
