package person_test

import (
	"encoding/json"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

const today = day.Day(20_782) // 25 November 2026

func ago(days int) *day.Day { d := today - day.Day(days); return &d }

func allNo() *person.Screening {
	s := &person.Screening{On: today, Answers: map[string]person.Answer{}}
	for _, q := range person.Questions {
		s.Answers[q.ID] = person.Answer{}
	}
	return s
}

func TestEveryYesLeadsToItsLevel(t *testing.T) {
	d := consenting()
	clear := person.StandingOf(&d, allNo(), nil, today)
	assert.Equal(t, person.Clear, clear.Level)
	assert.True(t, clear.MayTrain())
	unasked := person.StandingOf(&d, nil, nil, today)
	assert.False(t, unasked.MayTrain())
	for _, q := range person.Questions {
		s := allNo()
		s.Answers[q.ID] = person.Answer{Yes: true}
		st := person.StandingOf(&d, s, nil, today)
		assert.Equal(t, q.Level, st.Level, q.ID)
		assert.Equal(t, q.Level < person.StopFirst, st.MayTrain(), q.ID)
		assert.NotEmpty(t, st.Level.Heading())
		if q.Clears {
			s.Answers[q.ID] = person.Answer{Yes: true, ClearedOn: ago(3)}
			st := person.StandingOf(&d, s, nil, today)
			assert.True(t, st.MayTrain(), q.ID)
			assert.Equal(t, len(q.Caps), len(st.Caps), q.ID)
		}
	}
}

func TestARoundIsWhole(t *testing.T) {
	s := allNo()
	assert.Empty(t, s.Check(today, nil))
	delete(s.Answers, "chest")
	s.Answers["ache"] = person.Answer{ClearedOn: ago(1)}
	s.Answers["surgery"] = person.Answer{Yes: true, ClearedOn: ago(-3)}
	s.Answers["dark_urine"] = person.Answer{Yes: true, ClearedOn: ago(3)}
	s.Answers["mood"] = person.Answer{}
	s.On++
	var fields []string
	for _, f := range s.Check(today, nil) {
		fields = append(fields, f.Field)
	}
	assert.Equal(
		t,
		[]string{
			"answers.ache.cleared_on",
			"answers.chest",
			"answers.dark_urine.cleared_on",
			"answers.mood",
			"answers.surgery.cleared_on",
			"on",
		},
		fields,
	)
}

func TestCapsFollowByThemselves(t *testing.T) {
	capsOf := func(change func(*person.Dossier)) []person.CapID {
		d := consenting()
		change(&d)
		st := person.StandingOf(&d, allNo(), nil, today)
		return st.Caps
	}
	assert.Equal(t, []person.CapID{person.CautiousFirst}, capsOf(func(d *person.Dossier) { d.ComebackOn = ago(6) }))
	assert.Equal(t, []person.CapID{person.Cautious}, capsOf(func(d *person.Dossier) { d.ComebackOn = ago(7) }))
	assert.Empty(t, capsOf(func(d *person.Dossier) { d.ComebackOn = ago(21) }))
	assert.Equal(t, []person.CapID{person.Cautious}, capsOf(func(d *person.Dossier) { d.TrainingSince = ago(20) }))
	assert.Equal(t, []person.CapID{person.Cautious}, capsOf(func(d *person.Dossier) { d.BornYear, d.GuardianOn = 2010, ago(5) }))
	minor := consenting()
	minor.BornYear = 2008 // 18 this year, perhaps not yet
	st := person.StandingOf(&minor, allNo(), nil, today)
	assert.False(t, st.MayTrain(), "a guardian's consent is missing")
}

// Where caps meet the strictest of each field holds, in whatever order.
func TestTheStrictestOfEachFieldHolds(t *testing.T) {
	all := []person.CapID{person.Cautious, person.CautiousFirst, person.BloodPressure, person.Pregnant, person.PregnantLate}
	r := rand.New(rand.NewPCG(1, 2))
	for range 200 {
		r.Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
		some := all[:r.IntN(len(all)+1)]
		joined := person.CapsOf(some)
		for _, id := range some {
			one := person.CapsOf([]person.CapID{id})
			assert.GreaterOrEqual(t, joined.MinReserve, one.MinReserve)
			assert.GreaterOrEqual(t, joined.MinRestS, one.MinRestS)
			assert.True(t, one.MostSets == 0 || joined.MostSets > 0 && joined.MostSets <= one.MostSets)
			assert.True(t, joined.NoFlatOnBack || !one.NoFlatOnBack)
			assert.True(t, joined.NoBreathHold || !one.NoBreathHold)
			for _, m := range one.Closed {
				assert.Contains(t, joined.Closed, m)
			}
			assert.NotEmpty(t, id.Words())
		}
		back := slices.Clone(some)
		slices.Reverse(back)
		again := person.CapsOf(back)
		again.From, joined.From = nil, nil
		assert.Equal(t, joined, again)
	}
}

func TestAnAcheMovesUp(t *testing.T) {
	report := func(daysAgo, score int, outside bool) person.JointReport {
		return person.JointReport{On: *ago(daysAgo), Joint: movement.ElbowBack, Side: person.Left, Score: score, Outside: outside}
	}
	for name, c := range map[string]struct {
		reports []person.JointReport
		up      bool
	}{
		"stable at 3":         {[]person.JointReport{report(30, 3, false), report(3, 3, true)}, false},
		"once over 3":         {[]person.JointReport{report(3, 5, false)}, false},
		"over 3 outside":      {[]person.JointReport{report(3, 4, true)}, true},
		"twice":               {[]person.JointReport{report(9, 4, false), report(2, 4, false)}, true},
		"rising":              {[]person.JointReport{report(20, 1, false), report(10, 2, false), report(2, 3, false)}, true},
		"eased":               {[]person.JointReport{report(20, 5, true), report(10, 4, true), report(2, 0, false)}, false},
		"two weeks, unscored": {[]person.JointReport{report(15, 4, false)}, true},
		"in whatever order":   {[]person.JointReport{report(2, 3, false), report(20, 1, false), report(10, 2, false)}, true},
		"nothing ever":        {nil, false},
	} {
		d := consenting()
		st := person.StandingOf(&d, allNo(), c.reports, today)
		assert.Equal(t, !c.up, st.MayTrain(), name)
	}
	bad := person.JointReport{On: today + 1, Joint: "knee", Side: "middle", Score: 11}
	assert.Len(t, bad.Check(today), 4)
	scores := person.ScoresOf([]person.JointReport{report(2, 1, false), report(9, 4, false)})
	assert.Equal(t, 1, scores.Worse(movement.ElbowBack), "the latest counts")
}

// Clean dips and pull-ups, one weight and two: what is recorded without consent is
// out of sight, cannot be changed, and speaks for nothing.
func TestConsentThatIsWithdrawnHidesHealth(t *testing.T) {
	d := consenting()
	d.Mobility = person.Mobility{OneWeight: "no", DipLevel: "bars", CleanDips: 12}
	aches := []person.JointReport{{On: today - 3, Joint: movement.Wrist, Side: person.Left, Score: 2}}
	assert.True(t, must(person.StandingOf(&d, allNo(), aches, today)).MayTrain())
	gone, clashes, faults := d.Apply(
		[]person.Change{
			{Field: "health_consent", Was: json.RawMessage(`"` + d.HealthConsent.String() + `"`), Value: json.RawMessage("null")},
		},
		today,
	)
	require.Empty(t, clashes)
	require.Empty(t, faults, "withdrawing is never refused")
	assert.Equal(t, d.Mobility, gone.Mobility, "kept until it is erased")
	assert.Equal(t, person.Mobility{}, gone.Seen().Mobility)
	st := person.StandingOf(&gone, allNo(), aches, today)
	assert.False(t, st.MayTrain())
	require.Len(t, st.Said, 1)
	assert.Contains(t, st.Said[0].Words, "No consent")
	assert.Equal(t, "No sheet yet: something has to be asked or recorded first.", st.Heading())
	m, _ := json.Marshal(person.Mobility{})
	to, _ := json.Marshal(person.Mobility{OneWeight: "yes"})
	_, _, faults = gone.Apply([]person.Change{{Field: "mobility", Was: m, Value: to}}, today)
	_, clashes, _ = gone.Apply([]person.Change{{Field: "mobility", Was: m, Value: to}}, today)
	assert.True(t, len(faults) > 0 || len(clashes) > 0)

	assert.NotEmpty(t, d.MayMeasure(today))
	d.BodyConsent = ago(1)
	assert.Empty(t, d.MayMeasure(today))
	d.BornYear = today.Year() - 16
	assert.Contains(t, d.MayMeasure(today), "guardian")
	d.GuardianOn = ago(1)
	assert.Empty(t, d.MayMeasure(today))
}

// One press renews no clearance: one that was known before is asked about.
func TestAnOldClearanceIsAskedAbout(t *testing.T) {
	last, s := allNo(), allNo()
	last.Answers["pressure"] = person.Answer{Yes: true, ClearedOn: ago(200), ClearedBy: "her doctor"}
	s.Answers["pressure"] = last.Answers["pressure"]
	wrong := s.Check(today, last)
	require.Len(t, wrong, 1)
	assert.Equal(t, "answers.pressure.still_holds", wrong[0].Field)
	assert.Empty(t, s.Check(today, nil), "known for the first time")
	held := s.Answers["pressure"]
	held.Holds = true
	s.Answers["pressure"] = held
	assert.Empty(t, s.Check(today, last))
	s.Answers["pressure"] = person.Answer{Yes: true, ClearedOn: ago(1), ClearedBy: "her doctor"}
	assert.Empty(t, s.Check(today, last), "a new one")
	s.Answers["pressure"] = person.Answer{Yes: true, ClearedOn: ago(300)}
	assert.NotEmpty(t, s.Check(today, last), "an older one is no new one")
}

// consenting is somebody who lets health notes be kept.
func consenting() person.Dossier {
	d := person.NewDossier("Somebody")
	d.HealthConsent = ago(400)
	return d
}

func must(s person.Standing) *person.Standing { return &s }

func TestADossierIsChangedFieldByField(t *testing.T) {
	d := person.NewDossier("Somebody")
	change := func(field, was, value string) person.Change {
		return person.Change{Field: field, Was: []byte(was), Value: []byte(value)}
	}
	next, clashes, faults := d.Apply(
		[]person.Change{change("minutes", "45", "60"), change("wishes", "[]", `[{"text": "height", "heads": ["biceps_long"]}]`)},
		today,
	)
	require.Empty(t, clashes)
	require.Empty(t, faults)
	assert.Equal(t, 60, next.Minutes)
	assert.Equal(t, "height", next.Wish())
	assert.Equal(t, 45, d.Minutes, "the one it was made from stays")

	_, clashes, _ = next.Apply([]person.Change{change("minutes", "45", "30"), change("about", `""`, `"x"`)}, today)
	require.Len(t, clashes, 1)
	assert.Equal(t, "minutes", clashes[0].Field)
	assert.Equal(t, "60", string(clashes[0].Now))
	again, clashes, _ := next.Apply([]person.Change{change("minutes", "45", "60")}, today)
	assert.Empty(t, clashes, "the same change sent twice is none")
	assert.Equal(t, next, again)

	for field, c := range map[string]person.Change{
		"stature_m": change("stature_m", "0", "175"),
		"minutes":   change("minutes", "45", `"long"`),
		"born_year": change("born_year", "0", "1066"),
		"height":    change("height", "0", "1"),
		"mobility": change("mobility", `{"one_weight":"","two_weights":"","dip_level":"","clean_dips":0,"clean_pulls":0}`,
			`{"one_weight":"no","two_weights":"","dip_level":"","clean_dips":0,"clean_pulls":0}`),
		"training_since":    change("training_since", "null", `"2030-01-01"`),
		"elsewhere[0].sets": change("elsewhere", "[]", `[{"weekday":"mon","kind":"press","sets":0}]`),
		"wishes[0].heads":   change("wishes", "[]", `[{"text":"x","heads":["calf"]}]`),
	} {
		same, _, faults := d.Apply([]person.Change{c}, today)
		require.NotEmpty(t, faults, field)
		assert.Equal(t, field, faults[0].Field)
		assert.Equal(t, d, same)
	}
}

func TestWishesAreReadInPlainWords(t *testing.T) {
	first := func(text string) string {
		kinds := person.WishHeads(text)
		if len(kinds) == 0 {
			return ""
		}
		return kinds[0].ID
	}
	for text, want := range map[string]string{
		"a side view that reads from the gallery": "height", "width from the front": "width", "the long head of the triceps": "long",
		"strong arms that do not ache": "sturdy", "the left arm to catch up": "even", "bigger arms without an evening lost": "bigger",
		"to lift the prompt box without help": "lift", "": "", "peace": "",
	} {
		assert.Equal(t, want, first(text), text)
	}
}
