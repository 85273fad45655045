package httpapi_test

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strings"
	"testing"

	"musculus/internal/httpapi/floor"
	"musculus/internal/httpapi/sheet"
	"musculus/internal/httpapi/week"
	"musculus/internal/view"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
)

// A changed file keeps every slot whose movement and settings it kept, so that
// logged sets never part from the plan; one that did not change saves nothing.
func TestAFileThatComesBackKeepsItsSlots(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path, client := sessionPath("Aurelio Finch"), clientPath("Aurelio Finch")
	require.Equal(t, 200, c.call("POST", path+"/log", loggedSet()).status)
	before := got[view.SessionView](c, 200, c.call("GET", path, nil))
	file := c.call("GET", client+"/plan?format=csv", nil).body
	lines, err := csv.NewReader(strings.NewReader(file)).ReadAll()
	require.NoError(t, err)
	head := lines[0]
	at := func(name string) int {
		for i, h := range head {
			if h == name {
				return i
			}
		}
		t.Fatalf("no column %s in %v", name, head)
		return -1
	}
	bring := func(lines [][]string) imported {
		var b bytes.Buffer
		require.NoError(t, csv.NewWriter(&b).WriteAll(lines))
		return got[imported](c, 200, c.call("POST", client+"/plan?format=csv", form{"text/csv", b.Bytes()}))
	}
	same := bring(lines)
	assert.Empty(t, same.Sessions)
	assert.Equal(t, 2, same.Same)
	assert.Equal(t, before.Version, got[view.SessionView](c, 200, c.call("GET", path, nil)).Version, "no new version")

	// The second slot goes, one more set of the first, a new slot at the end.
	lines[1][at("sets")] = "4"
	extra := slices.Clone(lines[2])
	extra[at("movement")], extra[at("settings")], extra[at("load_kg")], extra[at("load_marked")] = "curl_neutral", "", "", ""
	v := bring(slices.Insert(slices.Delete(lines, 2, 3), 4, extra))
	require.Empty(t, v.Problems)
	require.Len(t, v.Sessions, 1)
	assert.Contains(t, v.Changes[0], "3 slots keep their movement")
	require.Equal(t, 200, c.call("PUT", client+"/week", map[string]any{"sessions": writes(v.Sessions)}).status)
	after := got[view.SessionView](c, 200, c.call("GET", path, nil))
	assert.Equal(t, before.Version+1, after.Version)
	assert.Equal(t, before.Slots[0].ID, after.Slots[0].ID)
	assert.Equal(t, 4, after.Slots[0].Rows[0].Sets)
	assert.Equal(t, before.Slots[2].ID, after.Slots[1].ID)
	assert.Equal(t, before.Slots[3].ID, after.Slots[2].ID)
	log := got[floor.LogView](c, 200, c.call("GET", path+"/log", nil))
	assert.True(t, log.Slots[0].Planned)
	assert.Len(t, log.Slots[0].Entries, 1, "the logged set is where it was")
}

// A load has a column as it is marked and one as a hand carries it; where they
// disagree a question is asked.
func TestALoadToldTwiceIsAskedAbout(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	client := clientPath("Bettina Groos") // one dumbbell of 14 kg in two hands
	file := c.call("GET", client+"/plan?format=csv&from=2026-11-30", nil).body
	assert.Contains(t, file, "load_kg,load_marked,load_unit,load_means")
	assert.Contains(t, file, `7,14,,"kg, the dumbbell"`)
	wrong := strings.Replace(file, `7,14,,"kg, the dumbbell"`, `14,14,,"kg, the dumbbell"`, 1)
	bring := func(text, query string) imported {
		return got[imported](c, 200, c.call("POST", client+"/plan?format=csv"+query, form{"text/csv", []byte(text)}))
	}
	v := bring(wrong, "")
	require.Len(t, v.Questions, 1)
	assert.Equal(t, "one dumbbell 14 kg as marked, but 14 kg in one hand would be one dumbbell 28 kg. Which holds?", v.Questions[0].Reason)
	assert.Empty(t, v.Sessions, "nothing of it is saved before it is answered")
	assert.Equal(t, 1, bring(wrong, "&load=marked").Same, "as marked it is what is planned")
	hand := bring(wrong, "&load=hand")
	require.Len(t, hand.Problems, 1)
	assert.Contains(t, hand.Problems[0].Reason, "there is no 28 kg in The Digs")
	alone := strings.Replace(file, `7,14,,"kg, the dumbbell"`, `,14,,"kg, the dumbbell"`, 1)
	assert.Equal(t, 1, bring(alone, "").Same, "the mark alone is enough")
}

// A past day is asked about before anything is planned on it; what was there stays.
func TestAPastDayIsAskedAbout(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	client := clientPath("Aurelio Finch")
	fresh := with(plainSession(), map[string]any{"id": newID(), "write": newID(), "planned_on": "2026-11-20"})
	a := got[asked](c, 422, c.call("POST", client+"/sessions", fresh))
	require.NotNil(t, a.Ask)
	assert.Contains(t, a.Ask.Question, "is past: plan Extra on it all the same?")
	require.Equal(t, 200, c.call("POST", client+"/sessions", with(maps.Clone(fresh), map[string]any{"sure": true})).status)
	stays := with(maps.Clone(fresh), map[string]any{"name": "Renamed", "version": 1, "write": newID()})
	require.Equal(t, 200, c.call("PUT", client+"/sessions/"+fresh["id"].(string), stays).status, "it is on that day already")

	d := draft(c, sessionPath("Aurelio Finch"))
	d["planned_on"] = "2026-11-24"
	assert.Equal(t, "body.planned_on", got[asked](c, 422, c.call("PUT", sessionPath("Aurelio Finch"), d)).Ask.Field)
	d["id"] = demo.SessionID("Aurelio Finch").String()
	board := got[asked](c, 422, c.call("PUT", client+"/week", map[string]any{"sessions": []any{d}}))
	assert.Equal(t, "body.sessions[0].planned_on", board.Ask.Field)
	require.Equal(t, 200, c.call("PUT", client+"/week", map[string]any{"sessions": []any{d}, "sure": true}).status)
	d["planned_on"], d["version"], d["write"] = "2026-11-25", 2, newID()
	require.Equal(t, 200, c.call("PUT", client+"/week", map[string]any{"sessions": []any{d}}).status, "today is not past")
}

// A week is issued whole or not at all, and what keeps a session back is told by its
// name.
func TestAWeekIsIssuedWhole(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	client := clientPath("Aurelio Finch")
	w := got[weekView](c, 200, c.call("GET", client+"/week", nil))
	require.Len(t, w.Sessions, 2)
	sheets := func() (out []any) {
		w := got[week.WeekView](c, 200, c.call("GET", client+"/week", nil))
		for _, one := range w.Sessions {
			out = append(out, map[string]any{"id": newID(), "session": one.ID, "version": one.Version})
		}
		return out
	}
	other := draft(c, sessionPath("Aurelio Finch"))
	row(other, 0)["rest_s"] = 0
	require.Equal(t, 200, c.call("PUT", sessionPath("Aurelio Finch"), other).status)
	p := got[problem](c, 422, c.call("POST", client+"/issues", map[string]any{"sheets": sheets()}))
	require.Len(t, p.Errors, 1)
	assert.Contains(t, p.Errors[0].Message, "Gallery day: ")
	issues := func(session string) int {
		return len(got[sheet.IssuesView](c, 200, c.call("GET", client+"/sessions/"+session+"/issues", nil)).Issues)
	}
	for _, one := range got[week.WeekView](c, 200, c.call("GET", client+"/week", nil)).Sessions {
		assert.Zero(t, issues(one.ID.String()), "%s did not leave either", one.Name)
	}
	other = draft(c, sessionPath("Aurelio Finch"))
	row(other, 0)["rest_s"] = 150
	require.Equal(t, 200, c.call("PUT", sessionPath("Aurelio Finch"), other).status)
	all := map[string]any{"sheets": sheets()}
	for range 2 { // sent twice, issued once
		issued := got[struct {
			Issued []struct {
				Name   string
				Number int
			}
		}](c, 200, c.call("POST", client+"/issues", all)).Issued
		assert.Equal(t, "[{Gallery day 1} {Before the matinee 1}]", fmt.Sprint(issued))
	}
}

// The answer to "no to all" was lost; "chest pain: yes" sent then under the same id
// is never thrown away with "clear".
func TestACorrectedScreeningIsNotThrownAway(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := clientPath("Aurelio Finch") + "/screenings"
	round := screened("2026-11-25")
	require.Equal(t, 200, c.call("POST", path, round).status)
	corrected := screened("2026-11-25", "chest")
	corrected["id"] = round["id"]
	assert.Equal(t, 409, c.call("POST", path, corrected).status)
	corrected["id"] = newID()
	d := got[dossier](c, 200, c.call("POST", path, corrected))
	assert.Equal(t, "emergency", d.Standing.Level)
	require.Equal(t, 200, c.call("POST", path, round).status, "the first, sent once more")
	d = got[dossier](c, 200, c.call("GET", clientPath("Aurelio Finch")+"/dossier", nil))
	assert.Equal(t, "emergency", d.Standing.Level, "and it does not come back to the top")
}

// What a coach measured is not overwritten or brought back by an assistant without a
// trace.
func TestMeasuresKeepWhoMadeThem(t *testing.T) {
	s := open(t)
	coach, helper := s.signedIn(t, wren), s.signedIn(t, jory)
	path := clientPath("Aurelio Finch") + "/measures/" + newID()
	girths := func(cm float64, version int) map[string]any {
		return map[string]any{"on": "2026-11-25", "girths": map[string]any{"flexed_left": []float64{cm, cm}}, "version": version}
	}
	type view struct {
		Sessions, Gone []struct {
			By      string
			Version int
			Was     []struct{ By, Words string }
		}
	}
	require.Equal(t, 200, coach.call("PUT", path, girths(36, 0)).status)
	assert.Equal(t, 409, helper.call("PUT", path, girths(40, 0)).status)
	v := got[view](helper, 200, helper.call("PUT", path, girths(36.4, 1)))
	assert.Equal(t, jory.Name, v.Sessions[0].By)
	require.Len(t, v.Sessions[0].Was, 1)
	assert.Equal(t, wren.Name, v.Sessions[0].Was[0].By)
	assert.Contains(t, v.Sessions[0].Was[0].Words, "36.0 cm")
	v = got[view](coach, 200, coach.call("DELETE", path+"?version=2", nil))
	require.Len(t, v.Gone, 1, "withdrawn, with what it was")
	stale := got[problem](helper, 409, helper.call("PUT", path, girths(36.4, 2)))
	assert.Contains(t, stale.Detail, "withdrawn by "+wren.Name)
	assert.Equal(t, 422, coach.call("DELETE", path, nil).status, "without what was read nothing is taken away")
}

// The same id with other content is a conflict wherever an id is sent.
func TestEveryWriteWithAnID(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	client := clientPath("Aurelio Finch")
	for name, w := range map[string]struct {
		method, path string
		body         map[string]any
		other        map[string]any
	}{
		"joint": {"POST", client + "/joints", map[string]any{"id": newID(), "on": "2026-11-25", "joint": "wrist",
			"side": "left", "score": 1}, map[string]any{"score": 6}},
		"override": {"POST", client + "/overrides/lying_bar", map[string]any{"id": newID(), "allowed": true, "reason": "x"},
			map[string]any{"allowed": false}},
		"rating": {"POST", client + "/ratings", map[string]any{"id": newID(), "on": "2026-11-25",
			"heads": map[string]any{"brachialis": -1}, "confidence": 2, "views": []string{"side_bent"}}, map[string]any{"confidence": 1}},
		"try-out": {"POST", client + "/try-outs", map[string]any{"id": newID(), "movement": "lying_bar", "comfort": 7,
			"felt": "x", "outcome": "kept"}, map[string]any{"comfort": 2}},
		"accepted": {"POST", client + "/accepted", map[string]any{"id": newID(), "key": "under:triceps_long", "accepted": true,
			"reason": "x"}, map[string]any{"reason": "y"}},
		"stance": {"POST", "/stances", map[string]any{"id": newID(), "of": "hand", "name": "Mine"}, map[string]any{"name": "Yours"}},
		"client": {"POST", "/clients", map[string]any{"id": newID(), "name": "Odile"}, map[string]any{"name": "Otto"}},
		"set-up": {"PUT", "/own/set-ups/" + newID(), map[string]any{"name": "Ours", "movement": "lying_bar"}, map[string]any{"name": "Theirs"}},
		"template": {"PUT", "/templates/" + newID(), map[string]any{"client": demo.ClientID("Aurelio Finch"), "of": "2026-11-25",
			"name": "X"}, map[string]any{"name": "Y"}},
		"room": {"PUT", "/rooms/" + newID(), map[string]any{"mark": "", "form": plainRoom()},
			map[string]any{"form": with(plainRoom(), map[string]any{"name": "Other"})}},
		"session": {"POST", client + "/sessions", newSession().(map[string]any), map[string]any{"name": "Other"}},
		"set":     {"POST", sessionPath("Aurelio Finch") + "/log", loggedSet().(map[string]any), map[string]any{"reps": 9}},
		"link":    {"POST", client + "/links", map[string]any{"id": newID(), "days": 14}, map[string]any{"days": 100}},
	} {
		first := c.call(w.method, w.path, w.body)
		require.Contains(t, []int{200, 204}, first.status, "%s: %s", name, first.body)
		again := c.call(w.method, w.path, w.body)
		assert.Contains(t, []int{200, 204}, again.status, "%s, sent again: %s", name, again.body)
		other := c.call(w.method, w.path, with(maps.Clone(w.body), w.other))
		assert.Equal(t, 409, other.status, "%s, with other content: %s", name, other.body)
	}
	// A link whose answer was lost: the token told last is the one that opens.
	body := map[string]any{"id": newID(), "days": 14}
	var paths []string
	for range 2 {
		var made struct{ Path string }
		require.NoError(t, json.Unmarshal([]byte(c.call("POST", client+"/links", body).body), &made))
		paths = append(paths, "/links/"+strings.TrimPrefix(made.Path, "/s/"))
	}
	assert.Equal(t, 404, s.caller(t).call("GET", paths[0], nil).status)
	assert.Equal(t, 200, s.caller(t).call("GET", paths[1], nil).status)
}
