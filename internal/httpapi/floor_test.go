package httpapi_test

import (
	"context"
	"encoding/json"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
	"musculus/internal/httpapi"
	floorapi "musculus/internal/httpapi/floor"
	weekapi "musculus/internal/httpapi/week"
	"musculus/internal/live"
	"musculus/internal/view"
)

// onFloor is a client's session on the floor, and a device that tells of it.
type onFloor struct {
	*caller
	path   string
	device uuid.UUID
	no     int64
	ready  floorapi.ReadyView
}

func (s *served) floorOf(c *caller, name string) *onFloor {
	f := &onFloor{caller: c, device: uuid.New(), path: sessionPath(name) + "/floor"}
	f.ready = got[floorapi.ReadyView](c, 200, c.call("GET", f.path, nil))
	return f
}

// event is an event of the device, with what is changed of it.
func (f *onFloor) event(kind string, content map[string]any) map[string]any {
	f.no++
	out := map[string]any{
		"id":        newID(),
		"no":        f.no,
		"kind":      kind,
		"at":        now.Add(time.Duration(f.no) * time.Second),
		"offset_ms": 0,
		"version":   f.ready.Version,
	}
	for k, v := range content {
		out[k] = v
	}
	return out
}

// planned is a step of the session done as planned.
func (f *onFloor) planned(step int) map[string]any {
	st := f.ready.Steps[step]
	slot := f.ready.Slots[st.Slot]
	row := slot.Rows[st.Row]
	whole := 0.0
	if len(row.Loads) > 0 {
		whole = slot.Loads[row.Loads[0]].WholeKg
	} else if len(slot.Loads) > 0 {
		whole = slot.Loads[0].WholeKg
	}
	return map[string]any{
		"slot":     slot.ID,
		"side":     st.Side,
		"set_no":   st.Set + 1,
		"reps":     row.Aim,
		"whole_kg": whole,
		"reserve":  row.Reserve,
		"set_up":   row.In,
	}
}

func (f *onFloor) tell(events ...map[string]any) floorapi.ToldAnswer {
	return got[floorapi.ToldAnswer](f.caller, 200, f.call("POST", f.path, map[string]any{"device": f.device, "events": events}))
}

func TestASessionOnTheFloor(t *testing.T) {
	s := open(t)
	f := s.floorOf(s.signedIn(t, wren), "Tobias Quill")
	require.NotEmpty(t, f.ready.Steps)
	require.NotEmpty(t, f.ready.Slots)
	for _, slot := range f.ready.Slots {
		assert.NotEmpty(t, slot.Ends, slot.Title)
		assert.Len(t, slot.Ladder, 5)
		b, err := json.Marshal(slot.Table)
		require.NoError(t, err)
		assert.Less(t, len(b), 64<<10)
	}
	before := len(f.ready.Done.Sets)
	set := f.event("set", map[string]any{"set": f.planned(0)})
	a := f.tell(set)
	assert.Equal(t, "kept", a.Answers[0].State, a.Answers[0].Words)
	assert.Len(t, a.Done.Sets, before+1)
	assert.Equal(t, "Wren Adeyemi-Holt", a.Done.Sets[0].By)
	a = f.tell(set)
	assert.Equal(t, "kept", a.Answers[0].State, "sent again it is the same")
	assert.Len(t, a.Done.Sets, before+1)
	other := map[string]any{}
	for k, v := range set {
		other[k] = v
	}
	worse := f.planned(0)
	worse["reps"] = 3
	other["set"] = worse
	assert.Equal(t, "refused", f.tell(other).Answers[0].State, "another set under the same id")

	// Another device tells the same set a minute later, and another one in its place after that.
	second := &onFloor{caller: f.caller, path: f.path, device: uuid.New(), ready: f.ready}
	same := second.event("set", map[string]any{"set": f.planned(0), "at": now.Add(61 * time.Second)})
	assert.Len(t, second.tell(same).Done.Sets, before+1, "told by two devices it is one set")
	a = second.tell(second.event("set", map[string]any{"set": worse, "at": now.Add(2 * time.Minute)}))
	require.Len(t, a.Done.Sets, before+2)
	var twice view.SetDone
	for _, d := range a.Done.Sets {
		if d.Twice {
			twice = d
		}
	}
	require.NotEmpty(t, twice.Ask, "both are kept, and it is asked")
	// It was another set: it has the next place, and sent again it is the same.
	worse["replaces"], worse["sure"] = twice.ID, true
	right := second.event("set", map[string]any{"set": worse})
	for range 2 {
		a = second.tell(right)
		require.Equal(t, "kept", a.Answers[0].State, a.Answers[0].Words)
	}
	require.Len(t, a.Done.Sets, before+2)
	for _, d := range a.Done.Sets {
		assert.False(t, d.Twice)
		assert.Empty(t, d.Ask)
	}

	// What is not done keeps its reason, and can be taken back.
	slot := f.ready.Slots[len(f.ready.Slots)-1]
	out := f.event("left_out", map[string]any{"left_out": map[string]any{"slot": slot.ID, "sets": 2, "reason": "time"}})
	a = f.tell(out)
	assert.Len(t, a.Done.Events, 1)
	a = f.tell(f.event("undone", map[string]any{"undone": out["id"]}))
	assert.Empty(t, a.Done.Events)
	// Two of opposing muscles may go on in turns, others may not.
	for i := range f.ready.Slots {
		pair := f.event("paired", map[string]any{"paired": map[string]any{"slot": f.ready.Slots[i].ID, "done": 0}})
		want := "refused"
		if f.ready.Slots[i].Pair != nil {
			want = "kept"
		}
		assert.Equal(t, want, f.tell(pair).Answers[0].State, f.ready.Slots[i].Short)
		if want == "kept" {
			f.tell(f.event("undone", map[string]any{"undone": pair["id"]}))
		}
	}
	// On the board it is told, and the ledger knows what was done and what will not be.
	board := got[weekapi.WeekView](f.caller, 200, f.call("GET", strings.Split(f.path, "/sessions")[0]+"/week", nil))
	for _, b := range board.Sessions {
		if b.ID == f.ready.Session {
			require.NotNil(t, b.Done)
			assert.Equal(t, before+2, b.Done.Sets)
			assert.Empty(t, b.Done.Words, "today is not over")
		}
	}
	out["id"] = newID()
	f.tell(out)
	board = got[weekapi.WeekView](f.caller, 200, f.call("GET", strings.Split(f.path, "/sessions")[0]+"/week", nil))
	undone := 0.0
	for _, h := range board.Ledger.Heads {
		require.NotNil(t, h.Done)
		undone += h.Done.Undone
	}
	assert.Positive(t, undone)
	for _, b := range board.Sessions {
		if b.ID == f.ready.Session {
			assert.Contains(t, b.Done.Words, "(no time)")
		}
	}
	// One that cannot be kept holds up no other.
	bad := f.planned(1)
	bad["faults"] = []string{"f_nothing"}
	a = f.tell(
		f.event("set", map[string]any{"set": bad}),
		f.event("end", map[string]any{"end": map[string]any{"hard": 8, "good": 4}}),
	)
	assert.Equal(t, []string{"refused", "kept"}, []string{a.Answers[0].State, a.Answers[1].State})
	assert.Contains(t, a.Answers[0].Words, "f_nothing")
	// A line is a coach's.
	assert.Equal(t, "kept", f.tell(f.event("line", map[string]any{"line": "stay at 14"})).Answers[0].State)
	j := s.floorOf(s.signedIn(t, jory), "Tobias Quill")
	assert.Equal(t, "refused", j.tell(j.event("line", map[string]any{"line": "go heavier"})).Answers[0].State)
	assert.Equal(
		t,
		"kept",
		j.tell(j.event("set", map[string]any{"set": j.planned(1)})).Answers[0].State,
		"an assistant runs sessions",
	)
}

func TestPainOnTheFloor(t *testing.T) {
	s := open(t)
	f := s.floorOf(s.signedIn(t, jory), "Tobias Quill")
	slot := f.ready.Slots[0]
	pain := func(score int, more map[string]any) map[string]any {
		p := map[string]any{"slot": slot.ID, "side": "left", "joint": "elbow_front", "score": score, "when": "middle"}
		for k, v := range more {
			p[k] = v
		}
		return f.event("pain", map[string]any{"pain": p})
	}
	a := f.tell(pain(5, nil))
	require.Equal(t, "kept", a.Answers[0].State, a.Answers[0].Words)
	assert.Contains(t, a.Done.Referral, "at most 5 of 10")
	assert.Empty(t, a.Done.Blocked)
	// What may be tried is what the ladder has, nothing else.
	k := 1 // elbow, front
	try := slot.Tries[slot.Ladder[k][0]]
	swap := map[string]any{
		"slot":     slot.ID,
		"kind":     try.Kind,
		"joint":    "elbow_front",
		"movement": try.In.Movement,
		"settings": try.In.Settings,
		"reserve":  try.Reserve,
		"now":      2,
	}
	a = f.tell(f.event("swap", map[string]any{"swap": swap}))
	require.Equal(t, "kept", a.Answers[0].State, a.Answers[0].Words)
	set := f.planned(0)
	set["set_up"], set["whole_kg"], set["reserve"] = try.In, try.Loads[try.Start].WholeKg, 3
	set["side"] = try.Sides[0]
	a = f.tell(f.event("set", map[string]any{"set": set}))
	require.Equal(t, "kept", a.Answers[0].State, a.Answers[0].Words)
	wild := map[string]any{
		"slot":     slot.ID,
		"kind":     "kinder",
		"joint":    "elbow_front",
		"movement": "press_bench_wide",
		"reserve":  0,
		"now":      2,
	}
	assert.Equal(t, "refused", f.tell(f.event("swap", map[string]any{"swap": wild})).Answers[0].State)
	set["set_up"] = map[string]any{"movement": "press_bench_wide"}
	set["side"], set["set_no"] = "both", 2
	assert.Equal(t, "refused", f.tell(f.event("set", map[string]any{"set": set})).Answers[0].State, "nor may a set be done in it")
	// Once more over 3 in the same session is one report at its peak, not two in a row.
	a = f.tell(pain(7, nil))
	assert.Empty(t, a.Done.Blocked)
	assert.Contains(t, a.Done.Referral, "at most 7 of 10")
	// What followed from pain, only a coach takes back; and there is one try a joint.
	var swapped uuid.UUID
	for _, e := range a.Done.Events {
		if e.Kind == "swap" {
			swapped = e.ID
		}
	}
	assert.Equal(t, "refused", f.tell(f.event("undone", map[string]any{"undone": swapped})).Answers[0].State, "an assistant eases nothing")
	assert.Equal(t, "refused", f.tell(f.event("swap", map[string]any{"swap": swap})).Answers[0].State, "one was made")
	// A report is not taken back here.
	assert.Equal(t, "refused", f.tell(f.event("undone", map[string]any{"undone": a.Done.Events[0].ID})).Answers[0].State)
	// Without the consent nothing of it is shown any more, here, in the log, on the board.
	w := s.signedIn(t, wren)
	base := "/clients/" + demo.ClientID("Tobias Quill").String()
	consent := got[struct{ Dossier map[string]any }](w, 200, w.call("GET", base+"/dossier", nil)).Dossier["health_consent"]
	f.tell(f.event("left_out", map[string]any{"left_out": map[string]any{"slot": slot.ID, "sets": 1, "reason": "pain"}}))
	for _, x := range []struct {
		was, is any
		shown   bool
	}{{consent, nil, false}, {nil, consent, true}} {
		require.Equal(t, 200, w.call("PATCH", base+"/dossier", changes("health_consent", x.was, x.is)).status)
		for _, path := range []string{f.path + "/done", strings.TrimSuffix(f.path, "/floor") + "/log", base + "/week"} {
			body := w.call("GET", path, nil).body
			assert.Equal(t, x.shown, strings.Contains(body, "pain") || strings.Contains(body, "7 of 10"), "%s %v", path, x.is)
		}
	}
	// A warning sign stops everything.
	a = f.tell(pain(8, map[string]any{"flags": []string{"snap"}}))
	require.Equal(t, "kept", a.Answers[0].State, a.Answers[0].Words)
	assert.Contains(t, a.Done.Blocked, "Same-day")
	late := f.event("set", map[string]any{"set": f.planned(1), "at": now.Add(time.Hour)})
	assert.Equal(t, "refused", f.tell(late).Answers[0].State)
	early := f.event("set", map[string]any{"set": f.planned(1), "at": now.Add(-time.Hour)})
	assert.Equal(t, "kept", f.tell(early).Answers[0].State, "what was done before it is taken")
}

// The plan is changed while a device is without network: what it tells of the old one is kept as
// it was done there, and it learns that there is another.
func TestThePlanIsChangedMeanwhile(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	f := s.floorOf(c, "Tobias Quill")
	gone := f.ready.Slots[3]
	d := draft(c, sessionPath("Tobias Quill"))
	slots := d["slots"].([]any)
	d["slots"] = slots[:3]
	slots[0].(map[string]any)["settings"] = map[string]any{"hands": "one"} // another series
	require.Equal(t, 200, c.call("PUT", sessionPath("Tobias Quill"), d).status)
	last := 0
	for i, st := range f.ready.Steps {
		if st.Slot == 3 {
			last = i
			break
		}
	}
	a := f.tell(f.event("set", map[string]any{"set": f.planned(0)}), f.event("set", map[string]any{"set": f.planned(last)}))
	for _, x := range a.Answers {
		assert.Equal(t, "kept", x.State, x.Words)
	}
	assert.NotEqual(t, f.ready.Version, a.Done.Version)
	titles := map[string]bool{}
	for _, d := range a.Done.Sets {
		titles[d.Title] = true
	}
	assert.True(t, titles[f.ready.Slots[0].Title], "as it was done")
	assert.True(t, titles[gone.Title], "though its slot is gone")
}

// A disabled account's sets are refused, with words, for as long as it is; nobody else's sign-in
// sends them.
func TestADisabledAccountTellsNothing(t *testing.T) {
	s := open(t)
	j := s.signedIn(t, jory)
	f := s.floorOf(j, "Tobias Quill")
	set := f.event("set", map[string]any{"set": f.planned(0)})
	c := s.signedIn(t, wren)
	for _, p := range got[struct{ People []struct{ ID, Email string } }](c, 200, c.call("GET", "/people", nil)).People {
		if p.Email == jory.Email {
			r := c.call("PUT", "/people/"+p.ID, map[string]any{"role": "assistant", "disabled": true})
			require.Less(t, r.status, 300, r.body)
		}
	}
	time.Sleep(2500 * time.Millisecond) // what is remembered of a sign-in
	r := f.call("POST", f.path, map[string]any{"device": f.device, "events": []any{set}})
	assert.Equal(t, http.StatusUnauthorized, r.status, r.body)
	assert.Contains(t, r.body, "disabled")
	assert.Empty(t, got[floorapi.DoneView](c, 200, c.call("GET", f.path+"/done", nil)).Sets)
}

// A client's link logs where it may, only her sessions that were sent, as what was sent.
func TestALinkOnTheFloor(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	base := "/clients/" + demo.ClientID("Tobias Quill").String()
	link := func(may bool) string {
		out := got[struct{ Path string }](
			c,
			200,
			c.call("POST", base+"/links", map[string]any{"id": newID(), "days": 7, "may_log": may}),
		)
		return strings.TrimPrefix(out.Path, "/s/")
	}
	version := got[map[string]any](c, 200, c.call("GET", sessionPath("Tobias Quill"), nil))["version"]
	got[any](c, 200, c.call("POST", sessionPath("Tobias Quill")+"/issues", map[string]any{"id": newID(), "version": version}))
	anybody := s.caller(t)
	at := func(token string) string {
		return "/links/" + token + "/floor/" + demo.SessionID("Tobias Quill").String()
	}
	reads, logs := link(false), link(true)
	assert.Equal(t, http.StatusForbidden, anybody.call("GET", at(reads), nil).status)
	assert.Equal(t, http.StatusNotFound, anybody.call("GET", "/links/"+logs+"/floor/"+newID(), nil).status)
	r := anybody.call("GET", at(logs), nil)
	require.Equal(t, http.StatusOK, r.status, r.body)
	f := &onFloor{caller: anybody, path: at(logs), device: uuid.New(), ready: got[floorapi.ReadyView](anybody, 200, r)}
	before := len(f.ready.Done.Sets)
	a := f.tell(f.event("set", map[string]any{"set": f.planned(0)}))
	require.Equal(t, "kept", a.Answers[0].State, a.Answers[0].Words)
	require.Len(t, a.Done.Sets, before+1)
	assert.True(t, a.Done.Sets[0].ByLink)
	assert.Equal(t, "refused", f.tell(f.event("line", map[string]any{"line": "hello"})).Answers[0].State)
	p := map[string]any{"slot": f.ready.Slots[0].ID, "side": "left", "joint": "wrist", "score": 2, "when": "after"}
	a = f.tell(f.event("pain", map[string]any{"pain": p}))
	assert.Equal(t, "kept", a.Answers[0].State, a.Answers[0].Words)
	assert.Equal(t, http.StatusUnauthorized, anybody.call("GET", base, nil).status, "and opens nothing else")

	// Whose weights are kept from her steps by marks: no load is told in words.
	r = c.call("PATCH", base+"/dossier", changes("hide_weights", false, true))
	require.Equal(t, 200, r.status, r.body)
	hidden := got[floorapi.ReadyView](anybody, 200, anybody.call("GET", at(logs), nil))
	assert.True(t, hidden.Hidden)
	for _, slot := range hidden.Slots {
		assert.Empty(t, slot.Last)
		for _, l := range slot.Loads {
			assert.Empty(t, l.Words)
		}
	}
	assert.Empty(t, hidden.Done.Next)
	for _, d := range hidden.Done.Sets {
		assert.Empty(t, d.Load)
	}
	assert.NotEmpty(t, got[floorapi.ReadyView](c, 200, c.call("GET", sessionPath("Tobias Quill")+"/floor", nil)).Slots[0].Loads[0].Words)
}

// Two devices were half an hour without network and tell it in any order: each set is there once,
// at the time it was done.
func TestHalfAnHourApart(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	a := s.floorOf(c, "Dario Vance")
	b := &onFloor{caller: c, path: a.path, device: uuid.New(), ready: a.ready}
	var fromA, fromB []map[string]any
	for i := range 6 {
		at := now.Add(time.Duration(i-12) * 150 * time.Second)
		from, to := a, &fromA
		if i%2 == 1 {
			from, to = b, &fromB
		}
		*to = append(*to, from.event("set", map[string]any{"set": from.planned(i), "at": at.Add(2 * time.Hour), "offset_ms": -7200000}))
	}
	b.tell(fromB...)
	b.tell(fromB...) // its answer was lost
	done := a.tell(fromA...).Done
	require.Len(t, done.Sets, 6)
	for i, d := range done.Sets {
		assert.False(t, d.Twice)
		assert.True(t, d.At.Before(now.Add(-10*time.Minute)), "%d: by a clock two hours wrong, put right: %s", i, d.At)
	}
}

// A set told to one process is heard of by whoever watches another one, within three seconds.
func TestTwoProcessesHearOfEachOther(t *testing.T) {
	s := open(t)
	ctx, cancel := context.WithCancel(context.Background())
	defer cancel()
	hub := live.NewHub()
	go hub.Run(ctx, s.store.Pool)
	other := httptest.NewServer(httpapi.New(httpapi.Config{Store: s.store, Live: hub, Now: clock()}))
	t.Cleanup(other.Close)
	t.Cleanup(hub.Close)
	c := s.signedIn(t, wren)
	heard := make(chan string, 100)
	there := &caller{t, other.URL + "/api", s.caller(t).http}
	got[any](there, 200, there.call("POST", "/sign-in", map[string]any{"email": wren.Email, "password": wren.Password}))
	res, err := there.http.Get(other.URL + "/api/events/live")
	require.NoError(t, err)
	defer res.Body.Close()
	require.Equal(t, 200, res.StatusCode)
	go func() {
		b := make([]byte, 4096)
		for {
			n, err := res.Body.Read(b)
			if err != nil {
				return
			}
			heard <- string(b[:n])
		}
	}()
	assert.Contains(t, <-heard, "gap")
	f := s.floorOf(c, "Tobias Quill")
	time.Sleep(200 * time.Millisecond) // it listens by now
	start := time.Now()
	f.tell(f.event("set", map[string]any{"set": f.planned(0)}))
	for until := time.After(3 * time.Second); ; {
		select {
		case m := <-heard:
			if strings.Contains(m, f.ready.Session.String()) {
				t.Logf("heard after %s", time.Since(start))
				return
			}
		case <-until:
			t.Fatal("not heard of within 3 s")
		}
	}
}
