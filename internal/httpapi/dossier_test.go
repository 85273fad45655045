package httpapi_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"image"
	"image/png"
	"io"
	"mime/multipart"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/person"
	"musculus/internal/demo"
)

func clientPath(name string) string { return "/clients/" + demo.ClientID(name).String() }

// changes is a change of one field.
func changes(field string, was, value any) map[string]any {
	return map[string]any{"changes": []any{map[string]any{"field": field, "was": was, "value": value}}}
}

// screened is a round with no to everything but the given questions.
func screened(on string, yes ...string) map[string]any {
	answers := map[string]any{}
	for _, q := range person.Questions {
		answers[q.ID] = map[string]any{"yes": false}
	}
	for _, id := range yes {
		answers[id] = map[string]any{"yes": true}
	}
	return map[string]any{"id": newID(), "on": on, "answers": answers}
}

func plainRoom() map[string]any {
	return map[string]any{
		"name":      "Annexe",
		"pairs":     "2–20 by 2",
		"singles":   "",
		"bars":      []any{},
		"cable":     nil,
		"bench":     nil,
		"pads":      false,
		"slopes":    "",
		"pins":      false,
		"rails":     false,
		"partner":   false,
		"dip_bars":  false,
		"dip_loads": "",
		"others":    []string{},
	}
}

func pixels(t testing.TB, w, h int) []byte {
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, image.NewRGBA(image.Rect(0, 0, w, h))))
	return b.Bytes()
}

func photoForm(t testing.TB, picture []byte, on string) form {
	var b bytes.Buffer
	w := multipart.NewWriter(&b)
	for k, v := range map[string]string{"id": newID(), "on": on, "pose": "front_bent"} {
		require.NoError(t, w.WriteField(k, v))
	}
	part, err := w.CreateFormFile("photo", "x.png")
	require.NoError(t, err)
	_, err = part.Write(picture)
	require.NoError(t, err)
	require.NoError(t, w.Close())
	return form{w.FormDataContentType(), b.Bytes()}
}

type dossier struct {
	Dossier  map[string]json.RawMessage
	Says     []string
	Caps     []string
	Standing struct {
		Level    string
		MayTrain bool `json:"may_train"`
		Said     []struct{ Words string }
	}
	Verdicts struct {
		Allowed, Modify, Avoid, Lacking int
		Lines                           []struct{ Movement, Ruling, Words, Reason string }
	}
}

// A client from her first line to her last: nothing is issued before the
// questions are answered, caps follow, and deleting can be undone.
func TestAClientFromFirstToLast(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	id := newID()
	path := "/clients/" + id
	assert.Equal(t, 422, c.call("POST", "/clients", map[string]any{"id": id, "name": "  "}).status)
	require.Equal(t, 200, c.call("POST", "/clients", map[string]any{"id": id, "name": "Odile"}).status)
	require.Equal(t, 200, c.call("POST", "/clients", map[string]any{"id": id, "name": "Odile"}).status, "sent twice, added once")
	d := got[dossier](c, 200, c.call("GET", path+"/dossier", nil))
	assert.Equal(t, "stop", d.Standing.Level)
	assert.Contains(t, strings.Join(d.Says, " "), "No consent to health notes yet")
	refused := got[problem](c, 422, c.call("POST", path+"/screenings", screened("2026-11-25")))
	assert.Equal(t, []string{"body.health_consent"}, refused.locations())
	require.Equal(t, 200, c.call("PATCH", path+"/dossier", changes("health_consent", nil, "2026-11-25")).status)
	d = got[dossier](c, 200, c.call("POST", path+"/screenings", screened("2026-11-25")))
	assert.Equal(t, "clear", d.Standing.Level)
	asked := screened("2026-11-25", "pressure")
	d = got[dossier](c, 200, c.call("POST", path+"/screenings", asked))
	assert.Equal(t, "stop", d.Standing.Level)
	asked["id"] = newID()
	asked["answers"].(map[string]any)["pressure"] = map[string]any{"yes": true, "cleared_on": "2026-11-20", "cleared_by": "her doctor"}
	d = got[dossier](c, 200, c.call("POST", path+"/screenings", asked))
	assert.True(t, d.Standing.MayTrain)
	assert.Contains(t, strings.Join(d.Caps, " "), "90 s")
	d = got[dossier](c, 200, c.call("PATCH", path+"/dossier", changes("born_year", 0, 2011)))
	assert.False(t, d.Standing.MayTrain, "a minor needs a guardian's consent")
	d = got[dossier](c, 200, c.call("PATCH", path+"/dossier", changes("guardian_on", nil, "2026-11-24")))
	assert.True(t, d.Standing.MayTrain)
	for score, on := range map[int]string{4: "2026-11-01", 5: "2026-11-20"} {
		require.Equal(
			t,
			200,
			c.call(
				"POST",
				path+"/joints",
				map[string]any{"id": newID(), "on": on, "joint": "elbow_back", "side": "left", "score": score},
			).status,
		)
	}
	d = got[dossier](c, 200, c.call("GET", path+"/dossier", nil))
	assert.False(t, d.Standing.MayTrain, "over 3 twice in a row")
	assert.Positive(t, d.Verdicts.Avoid)

	export := c.call("GET", path+"/export", nil)
	require.Equal(t, 200, export.status)
	all := unzip(t, []byte(export.body))
	assert.Contains(t, all["client.json"], `"Odile"`)
	assert.Contains(t, all["client.json"], `"her doctor"`)
	require.Equal(t, 204, c.call("DELETE", path, nil).status)
	for _, at := range []string{"", "/dossier", "/measures", "/priorities", "/export"} {
		assert.Equal(t, 404, c.call("GET", path+at, nil).status, at)
	}
	gone := got[struct {
		Deleted []struct{ ID, Name string }
		Events  []struct{ What, Who, By string }
	}](c, 200, c.call("GET", "/deleted-clients", nil))
	require.Len(t, gone.Deleted, 1)
	assert.Equal(t, "Odile", gone.Deleted[0].Name)
	assert.Equal(t, "deleted", gone.Events[0].What)
	assert.Equal(t, wren.Name, gone.Events[0].By)
	require.Equal(t, 204, c.call("POST", path+"/restore", nil).status)
	assert.Equal(t, 200, c.call("GET", path, nil).status)
}

func unzip(t *testing.T, b []byte) map[string]string {
	r, err := zip.NewReader(bytes.NewReader(b), int64(len(b)))
	require.NoError(t, err)
	out := map[string]string{}
	for _, f := range r.File {
		file, err := f.Open()
		require.NoError(t, err)
		content, err := io.ReadAll(file)
		require.NoError(t, err)
		out[f.Name] = string(content)
	}
	return out
}

// Two coaches in one dossier: different fields both stay; the same field is shown
// with who wrote it, and nothing is overwritten.
func TestTwoCoachesInOneDossier(t *testing.T) {
	s := open(t)
	a, b := s.signedIn(t, wren), s.signedIn(t, wren)
	path := clientPath("Aurelio Finch") + "/dossier"
	require.Equal(t, 200, a.call("PATCH", path, changes("minutes", 65, 60)).status)
	require.Equal(t, 200, b.call("PATCH", path, changes("contact", "dressing room 2", "dressing room 3")).status)
	answer := b.call("PATCH", path, changes("minutes", 65, 45))
	clash := got[struct {
		Clashes []struct {
			Field, By string
			Now       int
		}
	}](b, http.StatusConflict, answer)
	require.Len(t, clash.Clashes, 1)
	assert.Equal(t, "minutes", clash.Clashes[0].Field)
	assert.Equal(t, 60, clash.Clashes[0].Now)
	assert.Equal(t, wren.Name, clash.Clashes[0].By)
	for field, bad := range map[string][2]any{
		"stature_m":    {1.81, 181},
		"born_year":    {1992, 1700},
		"minutes":      {60, 5},
		"elsewhere":    {[]any{}, []any{map[string]any{"weekday": "mon", "kind": "press", "sets": 400}}},
		"wishes":       {nil, "text"},
		"rooms":        {nil, []string{newID()}},
		"no_such":      {nil, 1},
		"ready_on":     {"2027-01-20", "someday"},
		"guardian_on":  {nil, "2027-01-01"},
		"mass_kg":      {79.0, 7900},
		"mobility":     {nil, map[string]any{"one_weight": "maybe"}},
		"units":        {"metric", "furlong"},
		"hide_weights": {false, "yes"},
	} {
		d := got[dossier](a, 200, a.call("GET", path, nil))
		var was any = bad[0]
		if was == nil && d.Dossier[field] != nil {
			was = d.Dossier[field]
		}
		p := got[problem](a, 422, a.call("PATCH", path, changes(field, was, bad[1])))
		require.NotEmpty(t, p.Errors, field)
		assert.True(t, strings.HasPrefix(p.Errors[0].Location, "body."+field), "%s: %v", field, p.locations())
	}
}

func TestTheTapeAnswers(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, jory)
	path := clientPath("Tobias Quill") + "/measures"
	type answer struct {
		Real      bool
		By, Least float64
	}
	v := got[struct {
		Kinds []struct {
			ID        string
			Threshold float64
			Gap       answer
		}
		Sessions []struct{ ID string }
		Area     []any
	}](c, 200, c.call("GET", path, nil))
	require.Len(t, v.Kinds, 4)
	assert.True(t, v.Kinds[1].Gap.Real, "his flexed arms differ by more than the tape can mistake")
	assert.False(t, v.Kinds[3].Gap.Real, "his wrists do not")
	assert.NotEqual(t, 0.83, v.Kinds[1].Threshold, "his own repeats speak")
	assert.NotEmpty(t, v.Area)
	put := func(id string, body any) (int, string) {
		a := c.call("PUT", path+"/"+id, body)
		return a.status, a.body
	}
	status, body := put(newID(), map[string]any{"on": "2026-11-25", "girths": map[string]any{"flexed_left": []float64{14.5}}})
	assert.Equal(t, 422, status)
	assert.Contains(t, body, "were these inches?")
	assert.Contains(t, body, "body.girths.flexed_left[0]")
	status, body = put(newID(), map[string]any{"on": "2027-11-25", "girths": map[string]any{"flexed_left": []float64{36.5}}})
	assert.Equal(t, 422, status)
	assert.Contains(t, body, "future")
	status, _ = put(newID(), map[string]any{"on": "2026-11-25", "girths": map[string]any{}})
	assert.Equal(t, 422, status)
	id := newID()
	status, _ = put(id, map[string]any{"on": "2026-11-25", "girths": map[string]any{"flexed_left": []float64{36.5, 37.2}}})
	assert.Equal(t, 200, status)
	status, _ = put(id, map[string]any{"on": "2026-11-25", "girths": map[string]any{"flexed_left": []float64{36.5, 37.3}}})
	assert.Equal(t, 409, status, "another session under the same id")
	status, body = put(
		id,
		map[string]any{"version": 1, "on": "2026-11-25", "girths": map[string]any{"flexed_left": []float64{36.5, 37.2, 36.6}}},
	)
	assert.Equal(t, 200, status, "corrected, not doubled")
	assert.Equal(t, len(v.Sessions)+1, strings.Count(body, `"medians"`))
	status, _ = put(id, map[string]any{"version": 2, "on": "2026-11-25", "girths": map[string]any{"flexed_left": []float64{36.5}}})
	require.Equal(t, 200, status)
	other := c.call(
		"PUT",
		clientPath("Noor Halloran")+"/measures/"+id,
		map[string]any{"on": "2026-11-25", "girths": map[string]any{"flexed_left": []float64{28}}},
	)
	assert.Equal(t, 409, other.status, "another client's session is none here")
}

func TestPhotosAreKeptStrippedAndRefusedInWords(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := clientPath("Aurelio Finch") + "/photos"
	type photos struct {
		Photos []struct {
			ID            string
			Width, Height int
		}
	}
	kept := photoForm(t, pixels(t, 900, 600), "2026-11-24")
	v := got[photos](c, 200, c.call("POST", path, kept))
	require.Len(t, v.Photos, 1)
	v = got[photos](c, 200, c.call("POST", path, kept))
	require.Len(t, v.Photos, 1, "sent twice, kept once")
	assert.Equal(t, 404, c.call("GET", clientPath("Noor Halloran")+"/photos/"+v.Photos[0].ID, nil).status)
	picture := c.call("GET", path+"/"+v.Photos[0].ID+"?thumb=true", nil)
	require.Equal(t, 200, picture.status)
	assert.Equal(t, "image/jpeg", picture.header.Get("Content-Type"))
	for says, body := range map[string]form{
		"no JPEG or PNG": photoForm(t, []byte("just text"), "2026-11-24"),
		"future":         photoForm(t, pixels(t, 10, 10), "2027-01-01"),
		"over 25 MB":     photoForm(t, make([]byte, 25<<20+200), "2026-11-24"),
	} {
		p := got[problem](c, 422, c.call("POST", path, body))
		assert.Contains(t, p.Detail, says)
	}
	big := c.call("POST", path, photoForm(t, make([]byte, 40<<20), "2026-11-24"))
	assert.Contains(t, []int{400, 413, 422}, big.status, big.body)
	plain := unzip(t, []byte(c.call("GET", clientPath("Aurelio Finch")+"/export", nil).body))
	assert.Len(t, plain, 1, "no photos unless asked")
	with := unzip(t, []byte(c.call("GET", clientPath("Aurelio Finch")+"/export?photos=true", nil).body))
	assert.Len(t, with, 2)
	v = got[photos](c, 200, c.call("DELETE", path+"/"+v.Photos[0].ID, nil))
	assert.Empty(t, v.Photos)
}

func TestRoomsAreTyped(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	type room struct {
		ID, Mark string
		Form     map[string]any
		Gaps     []string
		Allows   int
		Of       int
		Missing  []struct{ What string }
	}
	rooms := got[struct{ Rooms []room }](c, 200, c.call("GET", "/rooms", nil)).Rooms
	require.Len(t, rooms, 3)
	loft := rooms[1]
	assert.Equal(t, "2–20 by 2, 25, 30", loft.Form["pairs"])
	assert.Contains(t, loft.Gaps[0], "from 20 straight to 25 kg")
	assert.Greater(t, loft.Allows, rooms[0].Allows)
	form := loft.Form
	form["pairs"] = "2–20 by"
	form["bars"].([]any)[0].(map[string]any)["loads"] = "80–10 by 5"
	p := got[problem](c, 422, c.call("PUT", "/rooms/"+loft.ID, map[string]any{"mark": loft.Mark, "form": form}))
	assert.Equal(t, []string{"body.form.pairs", "body.form.bars[0].loads"}, p.locations())
	form["pairs"], form["bars"] = "2–30 by 2", []any{}
	changed := got[room](c, 200, c.call("PUT", "/rooms/"+loft.ID, map[string]any{"mark": loft.Mark, "form": form}))
	assert.Less(t, changed.Allows, loft.Allows)
	assert.Less(t, len(changed.Gaps), len(loft.Gaps))
	assert.Equal(
		t,
		409,
		c.call("PUT", "/rooms/"+loft.ID, map[string]any{"mark": loft.Mark, "form": form}).status,
		"somebody was there in between",
	)
}

func TestPrioritiesAreProposedAndSet(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := clientPath("Dario Vance")
	type head struct {
		ID, Proposed, Level string
		Reasons             []string
		Low                 float64 `json:"target_low"`
	}
	type priorities struct {
		Heads   []head
		Version int
		Notes   []string
	}
	long := func(p priorities) head { return p.Heads[4] }
	v := got[priorities](c, 200, c.call("GET", path+"/priorities", nil))
	require.Equal(t, "triceps_long", long(v).ID)
	assert.Equal(t, "prioritise", long(v).Proposed)
	assert.Equal(t, 12.0, long(v).Low)
	set := map[string]any{"version": v.Version, "levels": map[string]any{"triceps_long": "build"}, "until": "2027-01-10"}
	v = got[priorities](c, 200, c.call("PUT", path+"/emphasis", set))
	assert.Equal(t, "build", long(v).Level)
	assert.Equal(t, 8.0, long(v).Low)
	assert.Equal(t, 409, c.call("PUT", path+"/emphasis", set).status, "set from a second tab")
	set["version"], set["until"] = v.Version, "2026-01-01"
	assert.Equal(t, 422, c.call("PUT", path+"/emphasis", set).status)
	v = got[priorities](
		c,
		200,
		c.call(
			"POST",
			path+"/ratings",
			map[string]any{
				"id":         newID(),
				"on":         "2026-11-25",
				"heads":      map[string]any{"triceps_long": 2},
				"confidence": 3,
				"views":      []string{"back_bent"},
			},
		),
	)
	assert.NotEqual(t, "prioritise", long(v).Proposed, "it looks far ahead now")
	tobias := got[priorities](c, 200, c.call("GET", clientPath("Tobias Quill")+"/priorities", nil))
	assert.Contains(t, strings.Join(tobias.Notes, " "), "one-arm work")
}

// What is to be avoided is offered nowhere, until the coach says why it may be.
func TestVerdictsAtTheChoice(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	client := demo.ClientID("Noor Halloran").String()
	type entry struct {
		ID      string
		Verdict struct {
			Ruling     string
			Barred     bool
			Overridden string
			Reasons    []struct {
				Words  string
				Follow map[string]any
			}
		}
	}
	entries := func() map[string]entry {
		out := map[string]entry{}
		for _, e := range got[struct{ Entries []entry }](c, 200, c.call("GET", "/library?client="+client, nil)).Entries {
			out[e.ID] = e
		}
		return out
	}
	barred := map[string]bool{}
	pick := ""
	for id, e := range entries() {
		if e.Verdict.Barred {
			barred[id] = true
			if pick == "" || id < pick {
				pick = id
			}
		}
	}
	require.NotEmpty(t, barred, "sore elbows rule something out")
	near := got[struct{ Near []struct{ Movement string } }](
		c,
		200,
		c.call("POST", "/near", map[string]any{"movement": "pushdown_bar", "client": client}),
	)
	for _, n := range near.Near {
		assert.False(t, barred[n.Movement], n.Movement)
	}
	require.Equal(
		t,
		422,
		c.call("POST", "/clients/"+client+"/overrides/"+pick, map[string]any{"id": newID(), "allowed": true, "reason": " "}).status,
	)
	require.Equal(
		t,
		200,
		c.call(
			"POST",
			"/clients/"+client+"/overrides/"+pick,
			map[string]any{"id": newID(), "allowed": true, "reason": "tried slowly, no ache"},
		).status,
	)
	after := entries()[pick]
	assert.False(t, after.Verdict.Barred)
	assert.Equal(t, "tried slowly, no ache", after.Verdict.Overridden)
	require.Equal(
		t,
		200,
		c.call("POST", "/clients/"+client+"/overrides/"+pick, map[string]any{"id": newID(), "allowed": false, "reason": ""}).status,
	)
	assert.True(t, entries()[pick].Verdict.Barred)
	type record struct {
		Loads   struct{ Fit, Words string }
		TryOuts []struct{ Felt string } `json:"try_outs"`
	}
	of := func(name, movement string, settings map[string]any) record {
		return got[record](c, 200, c.call("POST", clientPath(name)+"/record", map[string]any{"movement": movement, "settings": settings}))
	}
	cut := of("Noor Halloran", "pushdown_bar", map[string]any{"e_from": 95})
	assert.Contains(t, cut.Loads.Words, "above 12 reps", "a rep series tells no load")
	assert.NotEmpty(t, cut.TryOuts)
	known := of("Aurelio Finch", "press_bench_close", nil)
	assert.Equal(t, "fits", known.Loads.Fit, known.Loads.Words)
	assert.Equal(t, "not_known", of("Noor Halloran", "lying_bar", nil).Loads.Fit)
}

func TestThePresentListIsReadAndAnswered(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	path := clientPath("Pelle Sandoval") + "/present"
	type present struct {
		Lines []struct {
			Text, Chosen, Ask string
			Choices           []struct{ Value string }
		}
		Never   []string
		Open    int
		Repeats []string
	}
	text := "Reverse curl 2x15\nRope push-downs 3x12 40 kg\nPush-down with the bar 3x10"
	v := got[present](c, 200, c.call("POST", path, map[string]any{"text": text}))
	require.Len(t, v.Lines, 3)
	open := v.Open
	for _, l := range v.Lines {
		if l.Chosen != "" || len(l.Choices) == 0 {
			continue
		}
		v = got[present](
			c,
			200,
			c.call("PUT", path+"/answers", map[string]any{"text": text, "line": l.Text, "movement": l.Choices[0].Value}),
		)
	}
	assert.Less(t, v.Open, open+1)
	assert.Zero(t, v.Open)
	assert.NotEmpty(t, v.Repeats)
	assert.Equal(t, 422, c.call("PUT", path+"/answers", map[string]any{"text": text, "line": "3x10 60 kg", "movement": "lying_bar"}).status)
}
