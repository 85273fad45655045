package httpapi_test

import (
	"strings"
	"testing"

	"musculus/internal/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

type imported struct {
	Sessions []map[string]any
	Changes  []string
	Unknown  []string
	Same     int
	Problems []struct{ Where, Reason string }

	Questions []struct{ Where, Reason string }
}

// A plan leaves in every format and comes back: importing says what it would
// change and keeps nothing; saving what it brought gives the same plan.
func TestAPlanLeavesAndComesBack(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := clientPath("Aurelio Finch")
	for _, format := range []string{"json", "csv", "xlsx"} {
		out := c.call("GET", path+"/plan?format="+format, nil)
		require.Equal(t, 200, out.status)
		assert.Contains(t, out.header.Get("Content-Disposition"), "plan-2026-11-23."+format)
		into := clientPath("Dario Vance")
		other := got[imported](c, 200, c.call("POST", into+"/plan?format="+format, form{"application/octet-stream", []byte(out.body)}))
		require.Len(t, other.Sessions, 2, format)
		assert.Equal(t, "New: Gallery day on 2026-11-27, 4 slots.", other.Changes[0])
		assert.Empty(t, other.Problems, "a dip is body weight, whoever’s body it is")
		before := got[weekView](c, 200, c.call("GET", into+"/week", nil))
		assert.Len(t, before.Sessions, 2, "nothing is kept by looking")
		same := got[imported](c, 200, c.call("POST", path+"/plan?format="+format, form{"application/octet-stream", []byte(out.body)}))
		assert.Empty(t, same.Problems, format)
		assert.Empty(t, same.Unknown, format)
		assert.Empty(t, same.Sessions, "%s: unchanged, so there is nothing to save", format)
		assert.Empty(t, same.Changes, format)
		assert.Equal(t, 2, same.Same, format)
	}
	calendar := c.call("GET", path+"/plan?format=ics", nil)
	assert.Contains(t, calendar.body, "SUMMARY:Gallery day")
	assert.Equal(t, 422, c.call("GET", path+"/plan?format=doc", nil).status)
}

// What cannot be kept is told with its place, and the rest can be.
func TestAnImportRefusesNothingSilently(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	text := "session,date,movement,sets,reps_low,reps_high,reserve,rest_s,load_kg,mood\n" +
		"Good,2026-12-01,curl_reclined,3,8,12,2,90,14,fine\n" +
		"Bad,2026-12-02,curl_of_the_moon,3,8,12,2,90,,\n" +
		"Heavy,2026-12-03,curl_reclined,3,8,12,2,90,15,\n"
	v := got[imported](c, 200, c.call("POST", clientPath("Aurelio Finch")+"/plan?format=csv", form{"text/csv", []byte(text)}))
	assert.Equal(t, []string{"mood"}, v.Unknown)
	require.Len(t, v.Sessions, 1)
	require.Len(t, v.Problems, 2)
	assert.Contains(t, v.Problems[0].Where, "Bad on 2026-12-02, slot 1, movement")
	assert.Contains(t, v.Problems[1].Reason, "there is no 15 kg in The Sail Loft")
	big := c.call("POST", clientPath("Aurelio Finch")+"/plan?format=csv", form{"text/csv", []byte(strings.Repeat("x", 5<<20))})
	assert.Contains(t, []int{400, 413}, big.status)
}

// What was seen is ticked, a set that form ended says nothing of the muscle, and
// the next cue comes from the tick.
func TestWhatIsSeenDecidesTheNextCue(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, jory)
	type proposal struct {
		Load  struct{ Words string }
		Fit   struct{ Fit, Words string }
		Cues  []struct{ Cue, Why string }
		Known []struct{ Name string }
	}
	ask := map[string]any{"movement": "press_bench_close", "reps_low": 6, "reps_high": 8, "reserve": 2}
	propose := func() proposal {
		return got[proposal](c, 200, c.call("POST", clientPath("Aurelio Finch")+"/propose", ask))
	}
	before := propose()
	assert.Contains(t, before.Load.Words, "from its own series")
	assert.NotEmpty(t, before.Known)
	assert.Equal(t, "fits", before.Fit.Fit, before.Fit.Words)
	set := loggedSet().(map[string]any)
	set["faults"], set["technical"], set["reps"] = []string{"g_uneven"}, true, 3
	log := got[struct {
		Slots []struct {
			Ticks   []struct{ ID string }
			Entries []struct {
				Seen      []string
				Technical bool
				E1RM      string `json:"e1rm"`
			}
		}
	}](c, 200, c.call("POST", sessionPath("Aurelio Finch")+"/log", set))
	require.Len(t, log.Slots[0].Entries, 1)
	assert.True(t, log.Slots[0].Entries[0].Technical)
	assert.Empty(t, log.Slots[0].Entries[0].E1RM)
	assert.Len(t, log.Slots[0].Entries[0].Seen, 1)
	assert.NotEmpty(t, log.Slots[0].Ticks)
	after := propose()
	assert.Equal(t, before.Load, after.Load, "the technical stop changes no load")
	assert.Equal(t, "Let the slower hand set the pace", after.Cues[0].Cue)
	assert.Contains(t, after.Cues[0].Why, "seen last")
	set["id"], set["faults"] = newID(), []string{"f_up_far_pulley"}
	assert.Equal(t, 422, c.call("POST", sessionPath("Aurelio Finch")+"/log", set).status, "not seen in a press")
}

// A method that changes the load says so where the load is read.
func TestAMethodsLoadsAreRead(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := sessionPath("Aurelio Finch")
	load := func(method string) string {
		d := draft(c, path)
		row(d, 1)["method"] = map[string]any{"id": method}
		require.Equal(t, 200, c.call("PUT", path, d).status, method)
		sheet := got[struct {
			Slots []struct{ Load, Sets string }
		}](c, 200, c.call("GET", path+"/sheet", nil))
		return sheet.Slots[1].Sets + ": " + sheet.Slots[1].Load
	}
	assert.Equal(t, "3 × 8–12, drops, 2 rungs after the first: 14 → 10 → 8 kg a hand", load("drops"))
	assert.Contains(t, load("thirds"), ": 8 kg a hand")
	assert.Equal(t, "3 × 8–12: 14 kg a hand", load("straight"))
}

// A week is kept as a template without its loads, and laid on another client's
// week: what her room or caps do not allow is told.
func TestATemplateIsKeptAndLaid(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	id := newID()
	keep := map[string]any{"client": demo.ClientID("Aurelio Finch"), "of": "2026-11-25", "name": "Two days"}
	require.Equal(t, 204, c.call("PUT", "/templates/"+id, keep).status)
	require.Equal(t, 204, c.call("PUT", "/templates/"+id, keep).status, "sent twice, kept once")
	list := got[struct {
		Templates []struct{ Name, Holds string }
	}](c, 200, c.call("GET", "/templates", nil)).Templates
	require.Len(t, list, 1)
	assert.Equal(t, "Gallery day, Before the matinee", list[0].Holds)
	laid := got[imported](c, 200, c.call("POST", clientPath("Dario Vance")+"/templates/"+id+"?of=2026-12-02", nil))
	assert.Empty(t, laid.Problems)
	assert.Equal(t, []string{"New: Gallery day on 2026-12-04, 4 slots.", "New: Before the matinee on 2026-12-06, 3 slots."}, laid.Changes)
	require.Equal(
		t,
		200,
		c.call("PUT", clientPath("Dario Vance")+"/week?of=2026-12-02", map[string]any{"sessions": writes(laid.Sessions)}).status,
	)
	cautious := got[imported](c, 200, c.call("POST", clientPath("Noor Halloran")+"/templates/"+id, nil))
	assert.NotEmpty(t, cautious.Problems, "her caps ask for more in reserve")
	assert.Equal(
		t,
		422,
		c.call(
			"PUT",
			"/templates/"+newID(),
			map[string]any{"client": demo.ClientID("Aurelio Finch"), "of": "2020-01-01", "name": "Empty"},
		).status,
	)
	require.Equal(t, 204, c.call("DELETE", "/templates/"+id, nil).status)
	assert.Equal(t, 404, c.call("DELETE", "/templates/"+id, nil).status)
}
