package httpapi_test

import (
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"strings"
	"testing"
	"time"

	"musculus/internal/httpapi/floor"
	"musculus/internal/httpapi/sheet"
	"musculus/internal/httpapi/week"
	"musculus/internal/view"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/demo"
	"musculus/internal/store"
)

// asked is what a request that asks back answers.
type asked struct {
	Status int
	Ask    *struct{ Question, Field, Needs string }
	Errors []struct{ Location, Message string }
}

// screen answers the questions for a client: yes to some of them.
func (c *caller) screen(client string, answers map[string]any) answer {
	all := screened("2026-11-25")
	maps.Copy(all["answers"].(map[string]any), answers)
	return c.call("POST", clientPath(client)+"/screenings", all)
}

// A tempo that holds for 20 s under "no long breath holds" is refused by every door.
func TestALongHoldReachesNobodyUnderTheCap(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path, client := sessionPath("Bettina Groos"), clientPath("Bettina Groos")
	long := []float64{2, 20, 1, 20}
	at := []string{"body.slots[0].rows[0].tempo"}

	d := draft(c, path) // builder, row by row, the sheet that is edited
	row(d, 0)["tempo"] = long
	assert.Equal(t, at, got[problem](c, 422, c.call("PUT", path, d)).locations())
	preview := maps.Clone(d)
	delete(preview, "version")
	delete(preview, "write")
	faults := got[struct {
		Faults []struct{ Field, Reason string }
	}](c, 200, c.call("POST", path+"/preview", preview)).Faults
	require.NotEmpty(t, faults, "it is told while it is typed")
	assert.Equal(t, "slots[0].rows[0].tempo", faults[0].Field)

	fresh := with(maps.Clone(preview), map[string]any{"id": newID(), "write": newID(), "planned_on": "2026-12-02"})
	assert.Equal(t, at, got[problem](c, 422, c.call("POST", client+"/sessions", fresh)).locations(), "a new session")
	fresh["version"] = 0
	assert.Equal(
		t,
		[]string{"body.slots[0].rows[0].tempo"},
		got[problem](c, 422, c.call("PUT", client+"/week", map[string]any{"sessions": []any{fresh}})).locations(),
		"the board, a copy",
	)

	csv := "session,date,movement,sets,reps_low,reps_high,reserve,rest_s,tempo\nX,2026-12-02,curl_upright_two_hand,2,10,15,2,90,2-20-1-20\n"
	v := got[imported](c, 200, c.call("POST", client+"/plan?format=csv", form{"text/csv", []byte(csv)}))
	assert.Empty(t, v.Sessions, "a file")
	require.Len(t, v.Problems, 1)
	assert.Contains(t, v.Problems[0].Where, "slot 1, row 1, tempo")

	other := draft(c, sessionPath("Aurelio Finch")) // a template of somebody without the cap
	row(other, 0)["tempo"] = long
	require.Equal(t, 200, c.call("PUT", sessionPath("Aurelio Finch"), other).status)
	template := newID()
	require.Equal(
		t,
		204,
		c.call(
			"PUT",
			"/templates/"+template,
			map[string]any{"client": demo.ClientID("Aurelio Finch"), "of": "2026-11-25", "name": "X"},
		).status,
	)
	v = got[imported](c, 200, c.call("POST", client+"/templates/"+template+"?of=2026-12-07", nil))
	said, _ := json.Marshal(v.Problems)
	assert.Contains(t, string(said), "no hold over 3 s")

	// One that was planned before the cap leaves neither as a sheet nor on paper.
	require.Equal(
		t,
		200,
		c.screen("Aurelio Finch", map[string]any{"pressure": map[string]any{"yes": true, "cleared_on": "2026-11-20"}}).status,
	)
	now := draft(c, sessionPath("Aurelio Finch"))
	assert.Equal(
		t,
		422,
		c.call("POST", sessionPath("Aurelio Finch")+"/issues", map[string]any{"id": newID(), "version": now["version"]}).status,
	)
	pdf := got[problem](c, 422, c.call("GET", sessionPath("Aurelio Finch")+"/sheet.pdf", nil))
	assert.Contains(t, pdf.Detail, "does not leave as it is")
	week := got[weekView](c, 200, c.call("GET", clientPath("Aurelio Finch")+"/week", nil))
	for _, f := range week.Findings {
		if f.Code == "dose" && strings.Contains(f.Text, "no hold over 3 s") {
			assert.NotNil(t, f.Fix, "and the audit has the way out")
		}
	}
}

// A cue that asks for what a cap forbids is asked back, wherever it comes in; with a
// reason it is kept, and the audit shows it.
func TestACueAgainstACapIsAskedBack(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path, client := sessionPath("Bettina Groos"), clientPath("Bettina Groos")
	d := draft(c, path)
	slot(d, 0)["cues"] = []string{"Hold your breath at the bottom"}
	a := got[asked](c, 422, c.call("PUT", path, d))
	require.NotNil(t, a.Ask)
	assert.Equal(t, "reason", a.Ask.Needs)
	assert.Equal(t, "body.slots[0].cues", a.Ask.Field)
	assert.Contains(t, a.Ask.Question, "holding the breath")
	csv := "session,date,movement,sets,reps_low,reps_high,reserve,rest_s,cues\nX,2026-12-02,curl_upright_two_hand,2,10,15,2,90,Go to failure\n"
	v := got[imported](c, 200, c.call("POST", client+"/plan?format=csv", form{"text/csv", []byte(csv)}))
	assert.Empty(t, v.Sessions)
	assert.Contains(t, v.Problems[0].Reason, "going to the limit")

	slot(d, 0)["cue_reason"] = "her doctor knows; it is a sip of air"
	require.Equal(t, 200, c.call("PUT", path, d).status, "the same write, answered")
	w := got[weekView](c, 200, c.call("GET", client+"/week?of=2026-11-30", nil))
	told := false
	for _, f := range w.Findings {
		told = told || f.Code == "cue" && strings.Contains(f.Text, "it is a sip of air")
	}
	assert.True(t, told)
	// The reason belongs to her: neither file nor template carries it to somebody else.
	out := c.call("GET", client+"/plan?format=json&from=2026-11-30", nil)
	assert.Contains(t, out.body, "Hold your breath")
	assert.NotContains(t, out.body, "sip of air")
	back := got[imported](c, 200, c.call("POST", client+"/plan?format=json", form{"application/json", []byte(out.body)}))
	assert.Equal(t, 1, back.Same, "brought back it is still hers")
}

// After a stopping answer everything says so, and a set done after it is refused
// until a clearance; what was done before, corrections and what waited without
// network are kept and marked.
func TestAStoppingAnswerStopsTheFloor(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	who, path := "Aurelio Finch", sessionPath("Aurelio Finch")
	type log struct {
		Blocked string
		Slots   []struct {
			Entries []struct {
				ID, Mark string
				Reps     int
			}
		}
	}
	first := loggedSet().(map[string]any)
	require.Equal(t, 200, c.call("POST", path+"/log", first).status)
	before := got[map[string]any](c, 200, c.call("GET", "/me", nil))
	require.NotEmpty(t, before)
	require.Equal(t, 200, c.screen(who, map[string]any{"chest": map[string]any{"yes": true}}).status)

	blocked := "Call emergency services now."
	client := demo.ClientID(who).String()
	assert.Equal(t, blocked, got[log](c, 200, c.call("GET", path+"/log", nil)).Blocked, "Log")
	assert.Equal(t, blocked, got[view.SessionView](c, 200, c.call("GET", path, nil)).Blocked, "builder")
	assert.Equal(t, blocked, got[week.WeekView](c, 200, c.call("GET", clientPath(who)+"/week", nil)).Blocked, "board")
	assert.Equal(
		t,
		blocked,
		got[view.Fitted](c, 200, c.call("POST", "/fit", map[string]any{"movement": "lying_bar", "client": client})).Blocked,
		"Fitting",
	)
	assert.Equal(t, blocked, got[sheet.SheetView](c, 200, c.call("GET", path+"/sheet", nil)).Blocked, "Sheet")

	refused := got[problem](c, 422, c.call("POST", path+"/log", with(loggedSet().(map[string]any), map[string]any{"set_no": 2})))
	assert.Contains(t, refused.Detail, "no training now")
	assert.Equal(
		t,
		422,
		c.call("POST", path+"/log", with(loggedSet().(map[string]any), map[string]any{"set_no": 2, "sure": true})).status,
		"being sure is no clearance",
	)
	mark := func(more map[string]any) string {
		id := newID()
		a := got[log](c, 200, c.call("POST", path+"/log", with(loggedSet().(map[string]any), with(map[string]any{"id": id}, more))))
		for _, slot := range a.Slots {
			for _, e := range slot.Entries {
				if e.ID == id {
					return e.Mark
				}
			}
		}
		return "not there"
	}
	assert.Contains(t, mark(map[string]any{"set_no": 2, "done_at": now.Add(-time.Hour)}), "before training was stopped")
	assert.Contains(t, mark(map[string]any{"set_no": 3, "done_at": now.Add(time.Minute), "waited": true}), "without network")
	assert.Contains(t, mark(map[string]any{"reps": 7, "replaces": first["id"]}), "corrected")

	// No to all again: a clearance, and sets are taken as ever.
	require.Equal(t, 200, c.screen(who, nil).status)
	assert.Empty(t, mark(map[string]any{"set_no": 4}))
}

// "Ask again" does not renew a clearance by itself: whether it holds is asked.
func TestAnOldClearanceIsNotRenewedByOnePress(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	who := "Bettina Groos"
	d := got[struct {
		Asked struct{ Answers map[string]map[string]any }
	}](c, 200, c.call("GET", clientPath(who)+"/dossier", nil))
	again := map[string]any{"pressure": maps.Clone(d.Asked.Answers["pressure"])}
	p := got[problem](c, 422, c.screen(who, again))
	assert.Equal(t, []string{"body.answers.pressure.still_holds"}, p.locations())
	d.Asked.Answers["pressure"]["still_holds"] = true
	body := screened("2026-11-25")
	body["answers"].(map[string]any)["pressure"] = d.Asked.Answers["pressure"]
	require.Equal(t, 200, c.call("POST", clientPath(who)+"/screenings", body).status)
	require.Equal(t, 200, c.call("POST", clientPath(who)+"/screenings", body).status, "sent again it is the same round")
	assert.Equal(t, 422, c.screen(who, again).status, "and it is asked each time")
}

// Loads that are not earned, or over the full range, are found by the load.
func TestLoadsAreJudgedByTheLoad(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	who := "Tobias Quill" // on the bars, nine clean reps
	for _, name := range []string{"Tobias Quill", "Aurelio Finch", "Dario Vance", "Noor Halloran"} {
		m := got[struct {
			Dossier struct{ Mobility map[string]any }
		}](c, 200, c.call("GET", clientPath(name)+"/dossier", nil)).Dossier.Mobility
		if m["clean_dips"] == 9.0 {
			who = name
		}
	}
	path := sessionPath(who)
	d := draft(c, path)
	d["slots"] = []any{map[string]any{"id": newID(), "movement": "dip_bars", "settings": map[string]any{}, "cues": []any{},
		"rows": rows(3, 6, 10, 2, 120, map[string]any{"load": map[string]any{"added_kg": 10}})}}
	saved := c.call("PUT", path, d)
	require.Equal(t, 200, saved.status, saved.body)
	found := got[view.SessionView](c, 200, saved).Findings
	said, _ := json.Marshal(found)
	assert.Contains(t, string(said), "No load on dips before 10 clean reps")
	assert.Contains(t, string(said), "(9 recorded)")
}

// What keeps a client safe in a set-up is told wherever the set-up is.
func TestCautionsReachEveryPlace(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	bodyOrPad := 0
	for _, m := range movement.Shipped.Movements {
		v := got[view.Fitted](c, 200, c.call("POST", "/fit", map[string]any{"movement": m.ID})).View
		require.NotEmpty(t, v.Cautions, m.ID)
		assert.Regexp(t, "(?i)safe to end alone|to the limit", v.Cautions[0], m.ID)
		assert.Equal(t, m.Stop, v.Stop)
		if m.Anchor == "pad" || m.Default().Pulls() == "body" {
			bodyOrPad++
			assert.Regexp(t, "to get out|To get out|let go rather", strings.Join(v.Cautions, " "), "%s says how to get out", m.ID)
		}
	}
	assert.Greater(t, bodyOrPad, 10)
	lever := movement.Shipped.Get("turn_lever")
	assert.NotContains(t, lever.Stop, "hand turns", "turning is what it is for")
	assert.Contains(t, strings.Join(lever.Default().Cautions(), " "), "never fast")

	path := sessionPath("Aurelio Finch") // a dip among others
	want := "A step within reach to get out."
	assert.Contains(t, got[view.SessionView](c, 200, c.call("GET", path, nil)).Slots[2].Cautions, want, "builder")
	assert.Contains(t, got[sheet.SheetView](c, 200, c.call("GET", path+"/sheet", nil)).Slots[2].Keeps, want, "sheet")
	log := got[floor.LogView](c, 200, c.call("GET", path+"/log", nil))
	assert.Contains(t, log.Slots[2].Cautions, want, "Log")
	version := got[view.SessionView](c, 200, c.call("GET", path, nil)).Version
	require.Equal(t, 200, c.call("POST", path+"/issues", map[string]any{"id": newID(), "version": version}).status)
	assert.Contains(t, s.byLink(c, "Aurelio Finch").body, want, "link")
}

// byLink opens a client's sheets as she does.
func (s *served) byLink(c *caller, who string) answer {
	link := got[struct{ Path string }](c, 200, c.call("POST", clientPath(who)+"/links", map[string]any{"id": newID(), "days": 14}))
	return s.caller(c.t).call("GET", "/links/"+strings.TrimPrefix(link.Path, "/s/"), nil)
}

// What leaves for the client says what to do: no screening, no diagnosis, no health
// reason; sheets that left before are shown without them.
func TestTheSheetHoldsNoHealthReason(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	who := "Bettina Groos"
	path := sessionPath(who)
	old := `{"studio":"S","client":"Bettina Groos","room":"Digs","session":"Before","date":"Monday, 30 November 2026",
		"minutes":20,"warm_up":"5 min","ramp":"","screened":true,"screening":"screened 3 May 2026","blocked":"",
		"caps":["Blood pressure, cleared: at least 2 reps in reserve, rests of 90 s or more, breathe out on the effort, no long breath holds.","Pregnant, cleared: at least 3 reps in reserve, no breath holds."],
		"slots":[{"title":"Curl","details":"","slice":{"heads":[],"text":""},"pose":{},"range":"","sets":"2 × 8","effort":"",
			"rest":"","tempo":"","load":"14 kg","cues":[],"stop":"x","upper_arm":"fixed","grips":"","starts":""}],"total":{"heads":[],
			"text":""},"cautions":[],"why":[]}`
	require.NoError(t, s.store.In(context.Background(), demo.Studio, func(tx *store.Tx) error {
		coach := uuid.NewSHA1(uuid.NameSpaceOID, []byte("saltmarsh/account"+wren.Email))
		return tx.AddIssue(
			context.Background(),
			demo.ClientID(who),
			store.Issue{
				ID:             uuid.New(),
				SessionID:      demo.SessionID(who),
				SessionVersion: 1,
				PlannedOn:      day.At(now) + 5,
				Sheet:          json.RawMessage(old),
			},
			coach,
		)
	}))
	health := func(name, text string) {
		for _, word := range []string{"screen", "3 May", "pressure", "regnan", "clear", "autious", "doctor"} {
			assert.NotContains(t, text, word, name)
		}
	}
	first := s.byLink(c, who)
	require.Equal(t, 200, first.status)
	assert.Contains(t, first.body, "rests of 90 s or more", "what it asks for stays")
	health("by link, as it left before", first.body)
	kept := c.call("GET", path+"/issues", nil)
	assert.NotContains(t, kept.body, "screened 3 May")

	version := got[view.SessionView](c, 200, c.call("GET", path, nil)).Version
	issued := c.call("POST", path+"/issues", map[string]any{"id": newID(), "version": version})
	require.Equal(t, 200, issued.status, issued.body)
	link := s.byLink(c, who)
	assert.Contains(t, link.body, "Rest at least 90 s")
	assert.Contains(t, link.body, "Hold no position longer than 3 s.")
	health("by link", link.body)
	sheet := c.call("GET", path+"/sheet", nil)
	health("the sheet as it is planned", sheet.body)
}

// An entry that cannot be asks back, is kept when it was so, and waits as unsure
// where nobody could be asked.
func TestAnEntryThatCannotBeAsksBack(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, jory)
	path := sessionPath("Bettina Groos")
	set := func(more map[string]any) map[string]any {
		slot := uuid.NewSHA1(uuid.NameSpaceOID, []byte("saltmarsh/slotBettina Groos0 0")).String()
		return with(
			map[string]any{"id": newID(), "slot": slot, "side": "both", "set_no": 1, "reps": 12, "whole_kg": 14, "reserve": 2, "note": ""},
			more,
		)
	}
	heavy := set(map[string]any{"whole_kg": 140})
	a := got[asked](c, 422, c.call("POST", path+"/log", heavy))
	require.NotNil(t, a.Ask)
	assert.Equal(t, "One dumbbell 140 kg? The Digs has one dumbbell 14 kg.", a.Ask.Question)
	assert.Equal(t, [2]string{"body.whole_kg", "sure"}, [2]string{a.Ask.Field, a.Ask.Needs})
	many := got[asked](c, 422, c.call("POST", path+"/log", set(map[string]any{"reps": 31})))
	assert.Equal(t, "31 reps? The band ends at 15.", many.Ask.Question)
	require.Equal(
		t,
		200,
		c.call("POST", path+"/log", with(heavy, map[string]any{"sure": true})).status,
		"the same id: nothing was kept under it",
	)
	require.Equal(t, 200, c.call("POST", path+"/log", set(map[string]any{"set_no": 2})).status)

	type log struct {
		Slots []struct {
			Entries []struct{ ID, Unsure string }
		}
	}
	waited := set(map[string]any{"whole_kg": 140, "set_no": 3, "waited": true})
	entries := got[log](c, 200, c.call("POST", path+"/log", waited)).Slots[0].Entries
	unsure := ""
	for _, e := range entries {
		if e.ID == waited["id"] {
			unsure = e.Unsure
		}
	}
	assert.Contains(t, unsure, "140 kg?", "kept, and asked later")
	confirmed := set(map[string]any{"whole_kg": 140, "set_no": 3, "replaces": waited["id"], "sure": true})
	for _, e := range got[log](c, 200, c.call("POST", path+"/log", confirmed)).Slots[0].Entries {
		assert.Empty(t, e.Unsure)
	}
}

// Each arm is offered its own last load and reps.
func TestEachArmIsOfferedItsOwn(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, jory)
	path := sessionPath("Tobias Quill") // a one-arm curl first
	type log struct {
		Slots []struct {
			ID   string
			Next struct {
				Side    string
				Reps    int
				WholeKg float64 `json:"whole_kg"`
				Arms    []struct {
					Side    string
					Reps    int
					SetNo   int     `json:"set_no"`
					WholeKg float64 `json:"whole_kg"`
				}
			}
		}
	}
	l := got[log](c, 200, c.call("GET", path+"/log", nil))
	put := func(side string, n, reps int, kg float64) {
		l = got[log](
			c,
			200,
			c.call(
				"POST",
				path+"/log",
				map[string]any{
					"id":       newID(),
					"slot":     l.Slots[0].ID,
					"side":     side,
					"set_no":   n,
					"reps":     reps,
					"whole_kg": kg,
					"reserve":  1,
					"note":     "",
				},
			),
		)
	}
	put("left", 1, 8, 12)
	next := l.Slots[0].Next
	assert.Equal(t, "right", next.Side)
	assert.Equal(t, [2]any{12, 14.0}, [2]any{next.Reps, next.WholeKg}, "as planned, not what the left did")
	put("right", 1, 11, 14)
	next = l.Slots[0].Next
	assert.Equal(t, [3]any{"left", 8, 12.0}, [3]any{next.Side, next.Reps, next.WholeKg})
	assert.Equal(
		t,
		"left 8 12 right 11 14",
		fmt.Sprint(
			next.Arms[0].Side,
			" ",
			next.Arms[0].Reps,
			" ",
			next.Arms[0].WholeKg,
			" ",
			next.Arms[1].Side,
			" ",
			next.Arms[1].Reps,
			" ",
			next.Arms[1].WholeKg,
		),
	)
}
