package httpapi_test

import (
	"strings"
	"testing"

	"musculus/internal/httpapi/sheet"
	"musculus/internal/httpapi/week"
	"musculus/internal/view"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// gripped is a row of so many sets in another grip as it is sent.
func gripped(sets, reserve int, movement string) map[string]any {
	return rows(sets, 8, 12, reserve, 90, map[string]any{"movement": movement})[0].(map[string]any)
}

// A grip for each set, the arm that begins and locks are kept, told on the sheet,
// logged as series of their own, and leave and come back in every format.
func TestGripsStartsAndLocksAreKept(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := sessionPath("Aurelio Finch")
	d := draft(c, path)
	first := slot(d, 1)
	first["movement"], first["settings"] = "curl_standing_dumbbells", map[string]any{"hands": "alternate"}
	first["starts"], first["locked"] = "right", true
	first["rows"] = []any{gripped(1, 3, "curl_neutral"), rows(1, 8, 12, 2, 90, nil)[0], rows(1, 8, 12, 1, 90, nil)[0]}
	require.Equal(t, 200, c.call("PUT", path, d).status)

	kept := got[view.SessionView](c, 200, c.call("GET", path, nil))
	assert.True(t, kept.Slots[1].Locked)
	assert.Contains(t, kept.Slots[1].GripWords, "set 1: Thumbs-up curl")
	assert.Contains(t, kept.Slots[1].GripWords, "sets 2–3: Standing curl")
	page := got[sheet.SheetView](c, 200, c.call("GET", path+"/sheet", nil))
	assert.Equal(t, kept.Slots[1].GripWords, page.Slots[1].Grips)
	assert.Contains(t, page.Slots[1].Starts, "right arm first")
	assert.Equal(t, "set by set, stop with 3, 2, 1 reps left", page.Slots[1].Effort)
	assert.Equal(t, 3, kept.Slots[1].Rows[0].Reserve, "the first set's")

	type log struct {
		Slots []struct {
			Title   string
			Entries []struct{ Side string }
			Next    struct {
				Side, Grip string
				Reserve    int
				WholeKg    float64 `json:"whole_kg"`
				SetNo      int     `json:"set_no"`
			}
		}
	}
	l := got[log](c, 200, c.call("GET", path+"/log", nil))
	assert.Equal(t, "right", l.Slots[1].Next.Side, "the right arm begins")
	assert.Contains(t, l.Slots[1].Next.Grip, "Thumbs-up")
	assert.Equal(t, 3, l.Slots[1].Next.Reserve)
	for n, side := range []string{"right", "left", "right"} {
		require.Equal(
			t,
			200,
			c.call(
				"POST",
				path+"/log",
				map[string]any{
					"id":       newID(),
					"slot":     first["id"],
					"side":     side,
					"set_no":   n/2 + 1,
					"reps":     8,
					"whole_kg": 10,
					"reserve":  2,
					"note":     "",
				},
			).status,
		)
	}
	l = got[log](c, 200, c.call("GET", path+"/log", nil))
	assert.Equal(t, [2]any{2, "left"}, [2]any{l.Slots[1].Next.SetNo, l.Slots[1].Next.Side})
	assert.Contains(t, l.Slots[1].Next.Grip, "Standing")
	assert.Equal(t, 2, l.Slots[1].Next.Reserve, "as planned for that set")
	known := got[week.Proposal](
		c,
		200,
		c.call(
			"POST",
			clientPath("Aurelio Finch")+"/propose",
			map[string]any{
				"movement":  "curl_neutral",
				"settings":  map[string]any{"hands": "alternate"},
				"reps_low":  8,
				"reps_high": 12,
				"reserve":   2,
			},
		),
	).Known
	names := ""
	for _, k := range known {
		names += k.Name + "\n"
	}
	assert.Contains(t, names, "Thumbs-up curl", "the first set is a series of its own")
	assert.Contains(t, names, "Standing curl")

	for _, format := range []string{"json", "csv", "xlsx"} {
		out := c.call("GET", clientPath("Aurelio Finch")+"/plan?format="+format, nil)
		back := got[imported](
			c,
			200,
			c.call("POST", clientPath("Aurelio Finch")+"/plan?format="+format, form{"application/octet-stream", []byte(out.body)}),
		)
		require.Empty(t, back.Problems, format)
		require.Empty(t, back.Unknown, format)
		assert.Equal(t, 2, back.Same, "%s: grips, starts, reserves and locks came back as they were", format)
	}

	// What is no grip of the same weight, and what is no arm.
	d = draft(c, path)
	slot(d, 1)["rows"] = []any{gripped(2, 2, "curl_reclined")}
	p := got[problem](c, 422, c.call("PUT", path, d))
	assert.Equal(t, []string{"body.slots[1].rows[0].movement"}, p.locations())
	slot(d, 1)["rows"] = []any{gripped(2, 2, "curl_of_the_moon")}
	p = got[problem](c, 422, c.call("PUT", path, d))
	assert.Equal(t, []string{"body.slots[1].rows[0].movement"}, p.locations())
	slot(d, 1)["rows"] = []any{}
	slot(d, 1)["starts"] = "middle"
	assert.Equal(t, 422, c.call("PUT", path, d).status)
}

// A grip plan is offered from weak to strong, and the smaller arm begins where a
// tape shows a real gap.
func TestGripsAndWhoStartsAreProposed(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	ask := map[string]any{
		"movement":  "curl_standing_dumbbells",
		"settings":  map[string]any{"hands": "alternate"},
		"reps_low":  8,
		"reps_high": 12,
		"reserve":   2,
		"sets":      3,
	}
	p := got[week.Proposal](c, 200, c.call("POST", clientPath("Tobias Quill")+"/propose", ask))
	require.Greater(t, len(p.Grips), 2)
	assert.Equal(t, 1.0, p.Grips[len(p.Grips)-1].Part)
	assert.Less(t, p.Grips[0].Part, 0.9)
	require.Len(t, p.Plan, 3)
	assert.Equal(t, "curl_palms_down_dumbbells", p.Plan[0].Movement)
	assert.True(t, p.TakesTurns)
	assert.Equal(t, "left", p.Starts, "his right arm is really bigger")
	assert.Contains(t, p.StartsWhy, "That is real")
	ask["settings"] = map[string]any{}
	both := got[week.Proposal](c, 200, c.call("POST", clientPath("Tobias Quill")+"/propose", ask))
	assert.False(t, both.TakesTurns)
	assert.Empty(t, both.Starts)
}

// weekDrafts are the sessions of a week as they are saved.
func weekDrafts(c *caller, path string) []map[string]any {
	w := got[struct{ Sessions []map[string]any }](c, 200, c.call("GET", path+"/week", nil))
	var out []map[string]any
	for _, v := range w.Sessions {
		d := map[string]any{}
		for _, k := range []string{"id", "version", "name", "planned_on", "warm_up_min", "intent", "combos", "slots"} {
			if x, ok := v[k]; ok {
				d[k] = x
			}
		}
		out = append(out, d)
	}
	return writes(out)
}

// A session is taken out of the plan and brought back; one with logged sets stays.
func TestASessionIsTakenOutAndBroughtBack(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := clientPath("Aurelio Finch")
	issue := map[string]any{"id": newID(), "version": 1}
	require.Equal(t, 200, c.call("POST", sessionPath("Aurelio Finch")+"/issues", issue).status)
	link := got[struct{ Path string }](c, 200, c.call("POST", path+"/links", map[string]any{"id": newID(), "days": 14})).Path
	sheets := func() int {
		return len(got[struct{ Sheets []any }](c, 200, c.call("GET", "/links/"+strings.TrimPrefix(link, "/s/"), nil)).Sheets)
	}
	require.Equal(t, 1, sheets())

	all := weekDrafts(c, path)
	require.Len(t, all, 2)
	out := all[0]
	out["removed"] = true
	type answer struct {
		Sessions []struct{ ID string }
		Removed  []struct {
			ID      string
			Version int
		}
	}
	after := got[answer](c, 200, c.call("PUT", path+"/week", map[string]any{"sessions": []any{out}}))
	require.Len(t, after.Sessions, 1)
	require.Len(t, after.Removed, 1)
	assert.Equal(t, 2, after.Removed[0].Version)
	assert.Zero(t, sheets(), "its sheet is no longer shown")
	again := got[answer](c, 200, c.call("PUT", path+"/week", map[string]any{"sessions": []any{out}}))
	assert.Equal(t, after.Removed, again.Removed, "sent twice, taken out once")

	out["removed"], out["version"], out["write"] = false, 2, newID()
	back := got[answer](c, 200, c.call("PUT", path+"/week", map[string]any{"sessions": []any{out}}))
	assert.Len(t, back.Sessions, 2)
	assert.Equal(t, 1, sheets())

	require.Equal(t, 200, c.call("POST", sessionPath("Aurelio Finch")+"/log", loggedSet()).status)
	out["removed"], out["version"], out["write"] = true, 3, newID()
	p := got[problem](c, 422, c.call("PUT", path+"/week", map[string]any{"sessions": []any{out}}))
	assert.Contains(t, p.Detail, "1 set is logged in Gallery day")
}

// A week that was copied says that nothing changed; its fix is held by a lock.
func TestACopiedWeekHasChangedNothing(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := clientPath("Ines Karlova")
	var copied []any
	for _, d := range weekDrafts(c, path) {
		d["id"], d["version"], d["write"], d["planned_on"] = newID(), 0, newID(), "2026-12-02"
		for _, x := range d["slots"].([]any) {
			x.(map[string]any)["id"] = newID()
		}
		copied = append(copied, d)
	}
	find := func(of string) *struct {
		Held bool
		Fix  *struct{ Words string }
	} {
		w := got[struct {
			Findings []struct {
				Code string
				Held bool
				Fix  *struct{ Words string }
			}
		}](c, 200, c.call("GET", path+"/week?of="+of, nil))
		for _, f := range w.Findings {
			if f.Code == "unchanged" {
				return &struct {
					Held bool
					Fix  *struct{ Words string }
				}{f.Held, f.Fix}
			}
		}
		return nil
	}
	assert.Nil(t, find("2026-11-25"), "nothing was planned the week before")
	require.Equal(t, 200, c.call("PUT", path+"/week?of=2026-12-02", map[string]any{"sessions": copied}).status)
	f := find("2026-12-02")
	require.NotNil(t, f)
	require.NotNil(t, f.Fix)
	assert.Contains(t, f.Fix.Words, "One rep more of")
	locked := copied[0].(map[string]any)
	locked["locked"], locked["version"], locked["write"] = true, 1, newID()
	require.Equal(t, 200, c.call("PUT", path+"/week?of=2026-12-02", map[string]any{"sessions": copied}).status)
	if f = find("2026-12-02"); assert.NotNil(t, f) {
		assert.Nil(t, f.Fix, "everything is locked")
	}
}

// On the board each slot says whether the room has a load for it.
func TestTheBoardSaysWhatIsTooLight(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := clientPath("Bettina Groos")
	type board struct {
		Sessions []struct {
			Board []struct {
				ID  string
				Fit view.LoadFit
			}
		}
		Findings []struct {
			Code, Text string
			Fix        *struct{ Words string }
		}
	}
	w := got[board](c, 200, c.call("GET", path+"/week?of=2026-11-30", nil))
	first := w.Sessions[0].Board[0]
	for range 3 { // far more than the one dumbbell at the digs
		require.Equal(
			t,
			200,
			c.call(
				"POST",
				sessionPath("Bettina Groos")+"/log",
				map[string]any{
					"id":       newID(),
					"slot":     first.ID,
					"side":     "both",
					"set_no":   1,
					"reps":     4,
					"whole_kg": 60,
					"reserve":  2,
					"note":     "",
					"sure":     true,
				},
			).status,
		)
	}
	w = got[board](c, 200, c.call("GET", path+"/week?of=2026-11-30", nil))
	fit := w.Sessions[0].Board[0].Fit
	assert.Equal(t, "too_light", fit.Fit)
	assert.NotEmpty(t, fit.Instead)
	told := false
	for _, f := range w.Findings {
		if f.Code == "load" && strings.Contains(f.Text, "Too light") {
			told = true
			require.NotNil(t, f.Fix)
			assert.Contains(t, f.Fix.Words, "20–35 reps with 2 left", "her blood pressure is treated: never to the limit")
		}
	}
	assert.True(t, told)
}

// What an unsaved session's sheet reads like is what it reads like once saved.
func TestASheetIsReadBeforeItIsSaved(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := sessionPath("Aurelio Finch")
	d := draft(c, path)
	row(d, 0)["sets"], row(d, 0)["reserve"] = 5, 1
	version, write := d["version"], d["write"]
	delete(d, "version")
	delete(d, "write")
	before := got[sheet.SheetView](c, 200, c.call("POST", path+"/sheet", d))
	assert.Equal(t, "5 × 6–8", before.Slots[0].Sets)
	assert.Contains(t, before.Ramp, "bar 30 kg × 8")
	assert.NotEqual(t, before, got[sheet.SheetView](c, 200, c.call("GET", path+"/sheet", nil)), "nothing was kept")
	d["version"], d["write"] = version, write
	require.Equal(t, 200, c.call("PUT", path, d).status)
	assert.Equal(t, before, got[sheet.SheetView](c, 200, c.call("GET", path+"/sheet", nil)))
	d["planned_on"] = "tomorrow"
	assert.Equal(t, 422, c.call("POST", path+"/sheet", d).status)
}

// A word for the client at a row goes the whole way: board, builder, sheet, paper's
// words, every format and back.
func TestAWordAtARowGoesEverywhere(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := sessionPath("Aurelio Finch")
	d := draft(c, path)
	row(d, 0)["word"] = "push the floor away"
	kept := got[view.SessionView](c, 200, c.call("PUT", path, d))
	assert.Equal(t, "push the floor away", kept.Slots[0].Rows[0].Word)
	assert.Contains(t, kept.Slots[0].DoseWords, "“push the floor away”")
	assert.Contains(t, got[sheet.SheetView](c, 200, c.call("GET", path+"/sheet", nil)).Slots[0].Sets, "“push the floor away”")
	board := c.call("GET", clientPath("Aurelio Finch")+"/week", nil)
	assert.Contains(t, board.body, "3 × 6–8 “push the floor away”")
	for _, format := range []string{"json", "csv", "xlsx"} {
		out := c.call("GET", clientPath("Aurelio Finch")+"/plan?format="+format, nil)
		back := got[imported](
			c,
			200,
			c.call("POST", clientPath("Aurelio Finch")+"/plan?format="+format, form{"application/octet-stream", []byte(out.body)}),
		)
		assert.Equal(t, 2, back.Same, format)
	}
	row(d, 0)["word"] = "two\nlines"
	assert.Equal(t, []string{"body.slots[0].rows[0].word"}, got[problem](c, 422, c.call("PUT", path, d)).locations())
}
