package checkin

import (
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/decide"
	"musculus/internal/core/dose"
	"musculus/internal/core/entry"
	"musculus/internal/core/floor"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
)

func facts() *Facts {
	p := &plan.Planned{Name: "Arms"}
	f := &Facts{Session: p, First: map[string]bool{}, When: func(*plan.Planned) string { return "Monday" },
		Load: func(movement.SetUp, float64) string { return "12 kg a hand" }}
	for _, id := range []string{"curl_standing_dumbbells", "curl_neutral", "pushdown_rope"} {
		s := plan.Of(movement.Shipped.Get(id).Default(), dose.Dose{Sets: 2, RepsLow: 8, RepsHigh: 12, Reserve: 2})
		s.ID = uuid.New()
		p.Slots = append(p.Slots, s)
		for n := 1; n <= 2; n++ {
			f.Entries = append(f.Entries, entry.Entry{ID: uuid.New(), SlotID: s.ID, SetUp: s.SetUp, SetNo: n, Side: entry.BothSides,
				Reps: 10, LoadKg: 12, Reserve: 2})
		}
	}
	return f
}

// The question follows from what happened, in its order; a session like any other asks for none.
func TestTheQuestion(t *testing.T) {
	assert.Nil(t, Of(facts()).Question)
	steps := []struct {
		key    string
		change func(f *Facts)
	}{
		{AskSoreness, func(f *Facts) { f.After = true }},
		{AskStress, func(f *Facts) { f.Events = []floor.Event{{Content: floor.Content{End: &floor.End{Hard: 6, Good: 2}}}} }},
		{AskSleep, func(f *Facts) { f.Events[0].End.Hard = 9 }},
		{AskRests, func(f *Facts) {
			for i := range f.Entries[:3] {
				f.Entries[i].Reserve = 0
			}
		}},
		{AskKinder, func(f *Facts) { f.First[f.Session.Slots[1].SetUp.Key()] = true }},
		{"joint:elbow_back:left", func(f *Facts) {
			f.Joints = []person.JointReport{{Joint: movement.Wrist, Side: person.Left, Score: 2},
				{Joint: movement.ElbowBack, Side: person.Left, Score: 4}}
		}},
	}
	f := facts()
	for _, s := range steps { // each outranks those before it
		s.change(f)
		q := Of(f).Question
		require.NotNil(t, q, s.key)
		assert.Equal(t, s.key, q.Key)
	}
	j, side, ok := JointOf("joint:elbow_back:left")
	assert.True(t, ok && j == movement.ElbowBack && side == person.Left)
	_, _, ok = JointOf("joint:nose:left")
	assert.False(t, ok)
}

// Who does not want to see weights sees none, in nothing that is told.
func TestHiddenWeights(t *testing.T) {
	f := facts()
	taken := func(k decide.Kind, says string, x decide.Steps) decide.Taken {
		return decide.Taken{Proposal: decide.Proposal{Kind: k, Name: "Curl", Says: says, Steps: x}}
	}
	f.Before = []decide.Taken{
		taken(decide.Heavier, "Go up to 14 kg a hand", decide.Steps{HandKg: 14}),
		taken(decide.MoreReps, "A rep more: 9–13 at 12 kg", decide.Steps{Reps: 1}),
		taken(decide.ToleranceStep, "The reps of the beginning with 14 kg", decide.Steps{HandKg: 14, Reps: -3}),
		taken(decide.MoreSets, "One set more", decide.Steps{Sets: 1}),
		taken(decide.LighterWeek, "A lighter week, 20 kg", decide.Steps{Halve: true, Reserve: 3}),
		taken(decide.Hold, "Stay at 12 kg", decide.Steps{}),
	}
	f.Next = &plan.Planned{Name: "Arms again"}
	s := Of(f)
	assert.Contains(t, strings.Join(s.Done, " "), "12 kg")
	assert.Len(t, s.Changed, 5)
	assert.Contains(t, strings.Join(s.Changed, " "), "14 kg")
	assert.Equal(t, "Arms again, Monday.", s.Next)
	f.Load = nil
	s = Of(f)
	assert.NotContains(t, strings.Join(append(s.Done, s.Changed...), " "), "kg")
	assert.Equal(t, []string{"Curl: Another mark.", "Curl: A rep more.", "Curl: Another mark, 3 reps fewer.", "Curl: A set more.",
		"Curl: A lighter week: half the sets, the same loads."}, s.Changed)
}

func TestAnAnswerIsChecked(t *testing.T) {
	scale := &Question{Key: "joint:wrist:left", Kind: Scale}
	choice := &Question{Key: AskRests, Kind: Choice, Options: []string{"yes", "no"}}
	for _, c := range []struct {
		t     Told
		asked *Question
		wrong string
	}{
		{Told{Key: "joint:wrist:left", Answer: "3"}, scale, ""},
		{Told{Key: "joint:wrist:left", Answer: "11"}, scale, "answer"},
		{Told{Key: "joint:wrist:left", Answer: "3 kg"}, scale, "answer"},
		{Told{Key: AskRests, Answer: "yes"}, choice, ""},
		{Told{Key: AskRests, Answer: "perhaps"}, choice, "answer"},
		{Told{Key: AskSleep, Answer: "well"}, choice, "key"},
		{Told{Key: AskSleep, Answer: "well"}, nil, "key"},
		{Told{Asks: "May I swim?"}, nil, ""},
		{Told{}, choice, "answer"},
		{Told{Asks: strings.Repeat("x", 301)}, nil, "asks"},
	} {
		out := c.t.Check(c.asked)
		if c.wrong == "" {
			assert.Empty(t, out, c.t)
		} else if assert.NotEmpty(t, out, c.t) {
			assert.Equal(t, c.wrong, out[0].Field)
		}
	}
}
