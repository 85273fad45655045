package httpapi_test

import (
	"testing"

	"musculus/internal/httpapi/library"
	"musculus/internal/httpapi/stances"
	"musculus/internal/view"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
)

func TestTheLibraryUnderAStanceAndARoom(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	type answer struct {
		Stance  string
		Entries []library.LibraryEntry
	}
	all := got[answer](c, 200, c.call("GET", "/library", nil))
	assert.Len(t, all.Entries, 95)
	assert.Equal(t, "Balanced", all.Stance)
	stretch := got[answer](c, 200, c.call("GET", "/library?stance=stretch", nil))
	assert.NotEqual(t, all.Entries[6].Heads[0].Bias, stretch.Entries[6].Heads[0].Bias)
	digs := got[answer](c, 200, c.call("GET", "/library?client="+demo.ClientID("Bettina Groos").String(), nil))
	possible := 0
	for _, e := range digs.Entries {
		if len(e.Lacks) == 0 {
			possible++
		}
	}
	assert.True(t, possible > 5 && possible < 30, "one dumbbell allows %d", possible)
	assert.Equal(t, 422, c.call("GET", "/library?stance=moon", nil).status)
	assert.Equal(t, 422, c.call("GET", "/library?client=moon", nil).status)
}

func TestNearTuneAndFaults(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	wagon := demo.ClientID("Ines Karlova")
	near := got[struct{ Near []library.NearView }](
		c,
		200,
		c.call("POST", "/near", map[string]any{"movement": "overhead_cable_low", "client": wagon, "room": true}),
	)
	require.NotEmpty(t, near.Near)
	for _, n := range near.Near {
		assert.Empty(t, n.Lacks, n.Name)
		assert.NotContains(t, n.Movement, "cable")
	}
	type tuned struct {
		Now   float64
		Found []library.TunedView
	}
	tune := got[tuned](
		c,
		200,
		c.call("POST", "/tune", map[string]any{"movement": "curl_reclined", "head": "biceps_long", "zone": "long", "keep_range": true}),
	)
	require.NotEmpty(t, tune.Found)
	assert.GreaterOrEqual(t, tune.Found[0].Score, tune.Now)
	none := got[tuned](c, 200, c.call("POST", "/tune", map[string]any{"movement": "pushdown_bar", "head": "triceps_long", "client": wagon}))
	assert.Empty(t, none.Found, "the wagon has no cable")
	assert.Contains(
		t,
		got[problem](c, 422, c.call("POST", "/tune", map[string]any{"movement": "curl_reclined", "head": "nose"})).locations(),
		"body.head",
	)
	faults := got[struct{ Faults []library.FaultView }](
		c,
		200,
		c.call("POST", "/fault-costs", map[string]any{"movement": "curl_standing_bar"}),
	)
	assert.Equal(t, "f_up_elbow_forward", faults.Faults[0].ID)
	assert.Contains(t, faults.Faults[0].Costs, "the end of the range is loaded less: 28 %")
}

// Without a series the fit is asked for, and what suits the one weight better is offered.
func TestCleanRepsOfferWhatSuitsTheWeight(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	ask := func(reps int) (out struct {
		Fit, Words string
		Near       []library.NearView
	}) {
		return got[struct {
			Fit, Words string
			Near       []library.NearView
		}](c, 200, c.call("POST", "/near", map[string]any{"movement": "kickback_dumbbell", "clean_reps": reps}))
	}
	heavy, right, light := ask(5), ask(10), ask(20)
	assert.Equal(t, "too_heavy", heavy.Fit)
	require.NotEmpty(t, heavy.Near)
	assert.Equal(t, "fits", right.Fit)
	assert.Empty(t, right.Near)
	assert.Equal(t, "too_light", light.Fit)
	for _, n := range heavy.Near {
		for _, o := range light.Near {
			assert.NotEqual(t, n.Name, o.Name, "nothing is offered both ways")
		}
	}
	assert.Equal(t, 422, c.call("POST", "/near", map[string]any{"movement": "kickback_dumbbell", "clean_reps": -1}).status)
}

func TestStancesChangeAClientsNumbers(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := sessionPath("Aurelio Finch")
	before := got[view.SessionView](c, 200, c.call("GET", path, nil))
	told := got[stances.SwitchView](c, 200, c.call("POST", path+"/switch-rule", map[string]any{"rule": "r_arm_behind_long"}))
	assert.True(t, told.On)
	require.NotEmpty(t, told.Heads)
	assert.Less(t, told.Heads[0].Change, 0.0, "without it the reclined curl counts less for the long head")
	assert.Contains(t, told.Words, "Switched off")
	folklore := got[stances.SwitchView](c, 200, c.call("POST", path+"/switch-rule", map[string]any{"rule": "r_hand_neutral_long"}))
	assert.Contains(t, folklore.Words, "does not hold")
	client := "/clients/" + demo.ClientID("Aurelio Finch").String()
	tried := got[stances.TryView](c, 200, c.call("POST", client+"/try-stance", map[string]any{"stance": "squeeze"}))
	require.NotEmpty(t, tried.Heads, "the week of the demo is planned")
	assert.Contains(t, tried.Words, "By Squeeze this week would count "+tried.Heads[0].Name)
	assert.NotEqual(t, tried.Heads[0].Now, tried.Heads[0].Then)
	assert.Equal(t, 422, c.call("POST", client+"/try-stance", map[string]any{"stance": "moon"}).status)
	assert.Equal(t, 204, c.call("PUT", client+"/stance", map[string]any{"stance": "leverage"}).status)
	after := got[view.SessionView](c, 200, c.call("GET", path, nil))
	assert.NotEqual(t, before.Total.Heads[0].Value, after.Total.Heads[0].Value)
	assert.Equal(t, 422, c.call("PUT", client+"/stance", map[string]any{"stance": "moon"}).status)
	assert.Equal(t, 422, c.call("POST", path+"/switch-rule", map[string]any{"rule": "r_moon"}).status)
}

func TestTheBookAndATip(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, jory)
	book := got[stances.BookView](c, 200, c.call("GET", "/stances", nil))
	assert.Len(t, book.Rules, 122)
	assert.Len(t, book.Stances, 7)
	assert.NotEmpty(t, book.Levers)
	tip := got[stances.HeardView](
		c,
		200,
		c.call("POST", "/check-tip", map[string]any{"lever": "bar_narrow", "head": "biceps_long", "up": true}),
	)
	require.NotNil(t, tip.Tip)
	assert.Contains(t, tip.Tip.Verdict, "hardly notices")
	require.NotNil(t, tip.Tip.Dispute)
	assert.Equal(t, 422, c.call("POST", "/check-tip", map[string]any{"lever": "moon", "head": "biceps_long", "up": true}).status)
}

func TestAStudiosOwnStance(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	mine := newID()
	copyIt := map[string]any{"id": mine, "of": "arm_path", "name": " Wren’s reading "}
	assert.Equal(t, 204, c.call("POST", "/stances", copyIt).status)
	assert.Equal(t, 204, c.call("POST", "/stances", copyIt).status, "sent twice, copied once")
	book := got[stances.BookView](c, 200, c.call("GET", "/stances", nil))
	require.Len(t, book.Stances, 8)
	own := book.Stances[7]
	assert.True(t, own.Own)
	assert.Equal(t, "Wren’s reading", own.Name)

	client := "/clients/" + demo.ClientID("Aurelio Finch").String()
	assert.Equal(t, 204, c.call("PUT", client+"/stance", map[string]any{"stance": mine}).status)
	with := got[view.SessionView](c, 200, c.call("GET", sessionPath("Aurelio Finch"), nil))
	off := map[string]any{"rule": "r_arm_behind_long", "on": false, "version": own.Version}
	assert.Equal(t, 204, c.call("POST", "/stances/"+mine+"/switch", off).status)
	assert.Equal(t, 409, c.call("POST", "/stances/"+mine+"/switch", off).status, "switched in between")
	without := got[view.SessionView](c, 200, c.call("GET", sessionPath("Aurelio Finch"), nil))
	assert.Less(t, without.Total.Heads[0].Value, with.Total.Heads[0].Value, "the client's numbers follow the switched stance")
	fitted := got[view.Fitted](c, 200, c.call("POST", "/fit", map[string]any{"movement": "curl_reclined", "stance": mine}))
	assert.Equal(t, "Wren’s reading", fitted.View.Stance)

	assert.Equal(
		t,
		422,
		c.call("POST", "/stances/"+mine+"/switch", map[string]any{"rule": "r_arm_behind_both", "on": true, "version": 2}).status,
		"a rule without a tilt changes nothing",
	)
	assert.Equal(t, 404, c.call("POST", "/stances/"+newID()+"/switch", off).status)
	assert.Equal(t, 422, c.call("POST", "/stances", map[string]any{"id": newID(), "of": "moon", "name": "x"}).status)
	assert.Equal(t, 422, c.call("POST", "/stances", map[string]any{"id": newID(), "of": "hand", "name": "  "}).status)

	assert.Equal(t, 204, c.call("PUT", "/rules/r_arm_behind_long/note", map[string]any{"note": " seen with two clients "}).status)
	assert.Equal(t, 404, c.call("PUT", "/rules/r_moon/note", map[string]any{"note": "x"}).status)
	book = got[stances.BookView](c, 200, c.call("GET", "/stances", nil))
	assert.Equal(t, "seen with two clients", book.Rules[0].Note)
	assert.Equal(t, "C", book.Rules[0].Grade)
}
