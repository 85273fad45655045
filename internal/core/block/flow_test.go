package block

import (
	"fmt"
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
	"musculus/internal/core/stance"
	"musculus/internal/core/week"
)

const monday = day.Day(20_780) // 23 November 2026

func trainee(t testing.TB) *week.Trainee {
	t.Helper()
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	aims := &week.Aims{Today: monday}
	for h := range aims.Levels {
		aims.Levels[h] = priority.Build
	}
	return &week.Trainee{
		Yardstick: y,
		Stance:    stance.ByID(stance.Default),
		Aims:      aims,
		Fence:     &person.Fence{},
		Room: &person.Room{
			Name: "Here",
			Things: []person.Thing{person.Pairs(4, 6, 8, 10, 12, 14, 16), person.There(person.OnCable(movement.Rope)),
				{ID: "cable", Kind: person.Cable, Count: 2, Ratio: 2, Loads: []float64{5, 10, 12, 15, 20}, Low: 0.1, High: 2.2}},
		},
	}
}

func slotOf(id string, sets, reserve int) plan.Slot {
	hand := map[string]float64{"curl_standing_dumbbells": 12, "pushdown_rope": 3}[id]
	out := plan.Of(movement.Shipped.Get(id).Default(),
		dose.Dose{Sets: sets, RepsLow: 8, RepsHigh: 12, Reserve: reserve, RestS: 120, Load: dose.Kg(hand)})
	out.ID = uuid.NewSHA1(uuid.Nil, []byte(id))
	out.Rows[0].ID = uuid.NewSHA1(out.ID, []byte("row"))
	return out
}

// eight is a block of eight weeks on Mondays, Wednesdays and Fridays, 3 to 1 in reserve, the
// last one lighter.
func eight() *Block {
	b := &Block{ID: uuid.NewSHA1(uuid.Nil, []byte("block")), Start: monday, Every: Week, Turns: 8,
		Course: Course{From: 3, To: 1, Lighter: true, Change: Kept}}
	for i, after := range []int{0, 2, 4} {
		b.Days = append(b.Days, Day{ID: uuid.NewSHA1(b.ID, []byte{byte(i)}), Name: fmt.Sprint("Day ", i+1), After: after,
			Session: plan.Session{
				WarmUpMin: 5,
				Slots:     []plan.Slot{slotOf("curl_standing_dumbbells", 3, 2), slotOf("pushdown_rope", 3, 2)},
			}})
	}
	return b
}

// madeOf is what was made of a block by a day, with what was done before it.
func madeOf(t *testing.T, b *Block, today day.Day) (out []Made) {
	for _, s := range b.Flow(trainee(t), nil, nil, nil, b.Start) {
		require.Equal(t, Added, s.What)
	}
	all := b.All(trainee(t), nil)
	for turn := range all {
		if b.Date(turn, 0) > today+Ahead {
			break
		}
		for i := range all[turn] {
			s := all[turn][i]
			m := Made{Turn: turn, Day: b.Days[i].ID, As: s, Now: s}
			if s.On < today {
				m.Shut = "done"
			}
			out = append(out, m)
		}
	}
	return out
}

// An eight-week block changed in its second week, on its Wednesday: what flows, what stays.
func TestAChangeFlowsOn(t *testing.T) {
	const today = monday + 9
	more := func(b *Block) { // a set more of the first slot on every day
		for i := range b.Days {
			b.Days[i].Slots[0].Add(1)
		}
	}
	own := func(m *Made) { // somebody changed it
		m.Now.Session = copyOf(&m.Now.Session)
		m.Now.Slots[1].Less()
	}
	const week2, week3 = 3, 6 // the first of each among those made
	for _, c := range []struct {
		name   string
		change func(b *Block)
		by     func(made []Made)
		others []plan.Planned
		carry  Carry
		wants  string
	}{
		{name: "nothing changes", change: func(*Block) {}, wants: "2b alike, 2c alike, 3a alike, 3b alike, 3c alike"},
		{name: "a set more", change: more,
			wants: "2b changed, 2c changed, 3a changed, 3b changed, 3c changed"},
		{name: "one is issued", change: more, by: func(m []Made) { m[week2+1].Shut = "issued" },
			wants: "2b stays: issued, 2c changed, 3a changed, 3b changed, 3c changed"},
		{name: "one is begun", change: more, by: func(m []Made) { m[week2+1].Shut = "begun" },
			wants: "2b stays: begun, 2c changed, 3a changed, 3b changed, 3c changed"},
		{name: "one was changed by hand", change: more, by: func(m []Made) { own(&m[week3]) },
			wants: "2b changed, 2c changed, 3a stays: changed by hand, 3b changed, 3c changed"},
		{name: "one was moved by hand", change: more, by: func(m []Made) { m[week3].Now.On++ },
			wants: "2b changed, 2c changed, 3a stays: changed by hand, 3b changed, 3c changed"},
		{name: "one was named by hand", change: more, by: func(m []Made) { m[week3].Now.Name = "Before the matinee" },
			wants: "2b changed, 2c changed, 3a stays: changed by hand, 3b changed, 3c changed"},
		{name: "one was taken out", change: more, by: func(m []Made) { m[week3+2].Removed = true },
			wants: "2b changed, 2c changed, 3a changed, 3b changed, 3c stays: taken out by hand"},
		{name: "one is locked", change: more, by: func(m []Made) { m[week3+1].Now.Locked, m[week3+1].As.Locked = true, true },
			wants: "2b changed, 2c changed, 3a changed, 3b stays: locked, 3c changed"},
		{name: "a day was missed", change: more, by: func(m []Made) { m[week2].Shut = "" },
			wants: "2b changed, 2c changed, 3a changed, 3b changed, 3c changed"},
		{name: "a folded one stays", change: more, by: func(m []Made) { m[week2+2].Missed = FoldIn },
			wants: "2b changed, 2c stays: changed by hand, 3a changed, 3b changed, 3c changed"},
		{name: "what was decided is nobody’s hand", change: more, by: func(m []Made) {
			after := copyOf(&m[week3].As.Session)
			after.Slots[0].Take(dose.Kg(14))
			m[week3].After, m[week3].Now.Session = &after, copyOf(&after)
		}, carry: func(_ *Day, s *plan.Session) { s.Slots[0].Take(dose.Kg(14)) },
			wants: "2b changed, 2c changed, 3a changed, 3b changed, 3c changed"},
		{name: "a decision that went everywhere changes nothing", change: func(*Block) {}, by: func(m []Made) {
			for i := week2 + 1; i < len(m); i++ {
				after := copyOf(&m[i].As.Session)
				after.Slots[0].Take(dose.Kg(14))
				m[i].After, m[i].Now.Session = &after, copyOf(&after)
			}
			for i := range week2 + 1 {
				m[i].Now.Session = copyOf(&m[i].Now.Session)
				m[i].Now.Slots[0].Take(dose.Kg(14))
			}
		}, carry: func(_ *Day, s *plan.Session) { s.Slots[0].Take(dose.Kg(14)) },
			wants: "2b alike, 2c alike, 3a alike, 3b alike, 3c alike"},
		{name: "a day less", change: func(b *Block) { b.Days = b.Days[:2] },
			wants: "2b alike, 2c gone, 3a alike, 3b alike, 3c gone"},
		{name: "a day less, changed by hand", change: func(b *Block) { b.Days = b.Days[:2] }, by: func(m []Made) { own(&m[week3+2]) },
			wants: "2b alike, 2c gone, 3a alike, 3b alike, 3c stays: changed by hand"},
		{name: "a day more", change: func(b *Block) {
			d := b.Days[0]
			d.ID, d.Name, d.After = uuid.NewSHA1(b.ID, []byte("new")), "Day 4", 5
			b.Days = append(b.Days, d)
		}, wants: "2b alike, 2c alike, 3a alike, 3b alike, 3c alike, 2d made, 3d made"},
		{name: "a day more where something is planned", change: func(b *Block) {
			d := b.Days[0]
			d.ID, d.Name, d.After = uuid.NewSHA1(b.ID, []byte("new")), "Day 4", 5
			b.Days = append(b.Days, d)
		}, others: []plan.Planned{{ID: uuid.New(), Name: "Warm-up show", On: monday + 12}},
			wants: "2b alike, 2c alike, 3a alike, 3b alike, 3c alike, 2d stays: Warm-up show is planned on that day, 3d made"},
		{name: "another weekday", change: func(b *Block) { b.Days[2].After = 5 },
			wants: "2b alike, 2c changed, 3a alike, 3b alike, 3c changed"},
		{name: "harder from the start: week two as it was", change: func(b *Block) { b.From = 2 },
			wants: "2b changed, 2c changed, 3a alike, 3b alike, 3c alike"},
		{name: "shorter: the effort climbs sooner", change: func(b *Block) { b.Turns = 4 },
			wants: "2b changed, 2c changed, 3a changed, 3b changed, 3c changed"},
		{name: "today’s is done", change: more, by: func(m []Made) { m[week2+1].Shut = "done" },
			wants: "2b stays: done, 2c changed, 3a changed, 3b changed, 3c changed"},
	} {
		t.Run(c.name, func(t *testing.T) {
			b := eight()
			made := madeOf(t, b, today)
			if c.by != nil {
				c.by(made)
			}
			c.change(b)
			require.Empty(t, b.Says())
			var got []string
			for _, s := range b.Flow(trainee(t), made, c.others, c.carry, today) {
				letter := "?"
				for i := range b.Days {
					if b.Days[i].ID == s.Day {
						letter = string(rune('a' + i))
					}
				}
				if letter == "?" {
					letter = "c"
				}
				one := fmt.Sprintf("%d%s %s", s.Turn+1, letter, s.What)
				if s.Why != "" {
					one += ": " + s.Why
				}
				got = append(got, one)
				if s.What == Changed {
					assert.Equal(t, s.Was.ID, s.Want.ID)
					assert.False(t, alike(&s.Want, &s.Was))
				}
			}
			assert.Equal(t, c.wants, strings.Join(got, ", "))
		})
	}
}
