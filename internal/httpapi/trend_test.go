package httpapi_test

import (
	"context"
	"errors"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/checkin"
	"musculus/internal/core/decide"
	"musculus/internal/core/movement"
	"musculus/internal/demo"
	"musculus/internal/httpapi"
	"musculus/internal/httpapi/checkins"
	trendapi "musculus/internal/httpapi/trend"
	"musculus/internal/store"
	"musculus/internal/testenv"
	"musculus/internal/view"
)

func openHistories(t *testing.T) *served {
	return serveOn(t, testenv.Filled(t, "histories", func(s *store.Store) error {
		return errors.Join(demo.Load(context.Background(), s, now), demo.Histories(context.Background(), s, now))
	}))
}

func trendPath(name string) string { return "/clients/" + demo.ClientID(name).String() + "/trend" }

func (c *caller) trend(name string) trendapi.TrendView {
	return got[trendapi.TrendView](c, 200, c.call("GET", trendPath(name), nil))
}

func courseOf(t *testing.T, v *trendapi.TrendView, name string) view.CourseShown {
	for _, x := range v.Courses {
		if strings.HasPrefix(x.Name, name) {
			return x
		}
	}
	require.Fail(t, "no course", name)
	return view.CourseShown{}
}

// The histories of the demo say what they were made for: a plateau, a rise, a pain that led to a
// swap, a missed fortnight, a side that catches up, a decision whose outcome is in.
func TestTrendOfTheDemo(t *testing.T) {
	s := openHistories(t)
	c := s.signedIn(t, wren)
	v := c.trend("Aurelio Finch")
	require.Len(t, v.Weeks, 16)
	assert.Equal(t, "plateau", courseOf(t, &v, "Pad 40°").State)
	press := courseOf(t, &v, "Close-grip")
	assert.Equal(t, "rising", press.State)
	assert.NotEmpty(t, press.Band)
	require.Len(t, press.Ticks, 1)
	assert.Regexp(t, `sessions since, on the average .* scatter`, press.Ticks[0].Words)

	v = c.trend("Dario Vance")
	require.Len(t, v.Decisions, 1)
	assert.Contains(t, v.Decisions[0].Outcome, "in it since, joints at most 2 of 10")
	v = c.trend("Tobias Quill")
	assert.Contains(t, courseOf(t, &v, "Turning curl").Arms, "The right is")
	v = c.trend("Marguerite Oseland")
	missed := 0
	for _, w := range v.Weeks {
		if strings.Contains(w.Words, "0 of 0") {
			missed++
		}
	}
	assert.Equal(t, 2, missed)
	v = c.trend("Pelle Sandoval")
	require.NotNil(t, v.Whole)
	assert.Equal(t, "screen", v.Whole.Kind)

	csv := c.call("GET", trendPath("Aurelio Finch")+".csv", nil)
	assert.Equal(t, 200, csv.status)
	for _, what := range []string{"planned,", "done,", "girth,", "mass,", "joint,", "decision,"} {
		assert.Contains(t, csv.body, "\n"+what)
	}
	assert.Contains(t, csv.body, "Close-grip bench press, straight bar\",")
}

// What is kept is what would be read again; what is written makes it stale, by whichever door.
func TestReadingsAreKept(t *testing.T) {
	s := openHistories(t)
	c := s.signedIn(t, wren)
	kept := func(name string) (out decide.Reading, holds bool) {
		require.NoError(t, s.store.In(context.Background(), demo.Studio, func(tx *store.Tx) (err error) {
			client, err := tx.Client(context.Background(), demo.ClientID(name))
			require.NoError(t, err)
			out, holds, err = tx.Reading(context.Background(), client.ID, out.For)
			return err
		}))
		return out, holds
	}
	for _, name := range []string{"Aurelio Finch", "Tobias Quill", "Ines Karlova"} {
		first := c.trend(name)
		before, _ := kept(name)
		assert.Len(t, before.Hash, 64)
		require.NoError(t, s.store.In(context.Background(), demo.Studio, func(tx *store.Tx) error {
			_, err := tx.Raw().Exec(context.Background(), "UPDATE client_reading SET stale = true")
			return err
		}))
		assert.Equal(t, first, c.trend(name))
		again, _ := kept(name)
		assert.Equal(t, before, again, name)
	}
	stale := func() (n int) {
		require.NoError(t, s.store.In(context.Background(), demo.Studio, func(tx *store.Tx) error {
			return tx.Raw().QueryRow(context.Background(), "SELECT count(*) FROM client_reading WHERE stale").Scan(&n)
		}))
		return n
	}
	for _, name := range []string{"Aurelio Finch", "Tobias Quill", "Ines Karlova"} {
		c.trend(name)
	}
	require.Zero(t, stale())
	require.NoError(t, httpapi.ReadAgain(s.store)(context.Background())) // by today's clock: another day
	f := s.floorOf(c, "Tobias Quill")
	f.tell(f.event("set", map[string]any{"set": f.planned(0)}))
	assert.Equal(t, 1, stale())
	require.NoError(t, httpapi.ReadAgain(s.store)(context.Background()))
	assert.Zero(t, stale(), "the background reads it again")
}

// A proposal that is taken is written into the sessions to come, once; taken back they are as
// before. What was shown before something changed is not written.
func TestAProposalIsTaken(t *testing.T) {
	s := openHistories(t)
	c := s.signedIn(t, wren)
	v := c.trend("Marguerite Oseland")
	course := courseOf(t, &v, "Thumbs-up curl")
	require.NotNil(t, course.Proposal)
	require.Equal(t, "more_reps", course.Proposal.Kind)
	path := "/clients/" + demo.ClientID("Marguerite Oseland").String() + "/decisions"
	body := map[string]any{"id": newID(), "series": course.Key, "kind": "more_reps", "answer": "taken"}
	session := func() (out store.Session) {
		require.NoError(t, s.store.In(context.Background(), demo.Studio, func(tx *store.Tx) (err error) {
			out, err = tx.Session(
				context.Background(),
				demo.ClientID("Marguerite Oseland"),
				demo.SessionID("Marguerite Oseland"),
				movement.Shipped,
			)
			return err
		}))
		return out
	}
	before := session()
	a := got[trendapi.AnsweredView](c, 200, c.call("POST", path, body))
	assert.Contains(t, a.Words, "Written into 1 session")
	assert.Equal(t, a, got[trendapi.AnsweredView](c, 200, c.call("POST", path, body)), "sent again it is the same")
	after := session()
	assert.NotEqual(t, before.Version, after.Version)
	i := len(after.Slots) - 1
	assert.Equal(t, before.Slots[i].First().RepsHigh+1, after.Slots[i].First().RepsHigh)
	other := map[string]any{"id": body["id"], "series": course.Key, "kind": "more_reps", "answer": "not_now"}
	assert.Equal(t, 409, c.call("POST", path, other).status)
	v = c.trend("Marguerite Oseland")
	assert.Contains(t, courseOf(t, &v, "Thumbs-up curl").Watching, "is watched: 0 of 2 sessions since")
	assert.Nil(t, courseOf(t, &v, "Thumbs-up curl").Proposal)
	body["id"] = newID()
	assert.Equal(t, 409, c.call("POST", path, body).status)

	undo := map[string]any{"id": newID()}
	for range 2 {
		got[trendapi.AnsweredView](c, 200, c.call("POST", path+"/"+a.Undo.String()+"/undo", undo))
	}
	assert.Equal(t, before.Slots[i].First().RepsHigh, session().Slots[i].First().RepsHigh)
	v = c.trend("Marguerite Oseland")
	require.NotNil(t, courseOf(t, &v, "Thumbs-up curl").Proposal)
	body["answer"] = "not_now"
	got[trendapi.AnsweredView](c, 200, c.call("POST", path, body))
	v = c.trend("Marguerite Oseland")
	assert.Nil(t, courseOf(t, &v, "Thumbs-up curl").Proposal, "asked again after two sessions")
	assert.Equal(t, 404, c.call("POST", path+"/"+uuid.NewString()+"/undo", undo).status)
}

// The day's first page has who trains, in order, and what is due, the oldest first; an
// assistant's has only what she may do.
func TestToday(t *testing.T) {
	s := openHistories(t)
	require.NoError(t, demo.HalfDone(context.Background(), s.store, now))
	c := s.signedIn(t, wren)
	c.trend("Marguerite Oseland")
	v := got[trendapi.TodayView](c, 200, c.call("GET", "/today", nil))
	require.Len(t, v.People, 2)
	for _, p := range v.People {
		assert.Positive(t, p.Done)
		assert.Greater(t, p.Sets, p.Done)
		assert.Positive(t, p.Minutes)
	}
	kinds := map[string]int{}
	for _, d := range v.Due {
		kinds[d.Kind]++
		assert.NotEmpty(t, d.Action)
	}
	assert.Equal(t, 1, kinds["decision"], "Marguerite's, whose log was read")
	assert.Positive(t, kinds["screening"], "Pelle has to be asked")
	j := s.signedIn(t, jory)
	own := got[trendapi.TodayView](j, 200, j.call("GET", "/today", nil))
	assert.Len(t, own.People, 2)
	for _, d := range own.Due {
		assert.Contains(t, []string{"screening", "measuring"}, d.Kind)
	}
}

// A tolerance plan is begun by who plans, where nothing is open, once a set-up.
func TestAToleranceIsBegun(t *testing.T) {
	s := openHistories(t)
	c := s.signedIn(t, wren)
	v := c.trend("Dario Vance")
	course := courseOf(t, &v, "Lying extension")
	path := "/clients/" + demo.ClientID("Dario Vance").String() + "/tolerance"
	body := map[string]any{"id": newID(), "series": course.Key, "joint": "elbow_back", "side": "right"}
	for range 2 {
		assert.Equal(t, 204, c.call("POST", path, body).status)
	}
	again := map[string]any{"id": newID(), "series": course.Key, "joint": "elbow_back", "side": "right"}
	assert.Equal(t, 409, c.call("POST", path, again).status, "it has one already")
	v = c.trend("Dario Vance")
	course = courseOf(t, &v, "Lying extension")
	assert.Contains(t, course.Led, "a load without pain")
	assert.Equal(t, 204, c.call("DELETE", path+"/"+course.LedID.String(), nil).status)
	v = c.trend("Dario Vance")
	assert.Empty(t, courseOf(t, &v, "Lying extension").Led)
	pelle := "/clients/" + demo.ClientID("Pelle Sandoval").String() + "/tolerance"
	assert.Equal(t, 422, c.call("POST", pelle, again).status, "the questions come first")
}

// What a client reads after a session and answers by her link: the question follows from it, a
// joint that is worse is recorded, weights stay hidden where she wishes, and the coach answers in
// a line.
func TestCheckIn(t *testing.T) {
	s := openHistories(t)
	require.NoError(t, demo.HalfDone(context.Background(), s.store, now))
	c := s.signedIn(t, wren)
	dario := "/clients/" + demo.ClientID("Dario Vance").String()
	link := got[struct{ Path string }](c, 200, c.call("POST", dario+"/links", map[string]any{"id": newID(), "days": 7}))
	path := "/links/" + strings.TrimPrefix(link.Path, "/s/") + "/check-in"
	nobody := s.caller(t)
	v := got[checkins.CheckInView](nobody, 200, nobody.call("GET", path, nil))
	require.NotNil(t, v.Question)
	assert.Contains(t, v.Question.Says, "How is it today?")
	assert.Equal(t, checkin.Scale, v.Question.Kind)
	assert.NotEmpty(t, v.Done)
	body := map[string]any{"id": newID(), "key": v.Question.Key, "answer": "7", "asks": "Shall I rest it?"}
	for range 2 {
		v = got[checkins.CheckInView](nobody, 200, nobody.call("POST", path, body))
	}
	assert.Nil(t, v.Question, "it is answered for today")
	require.Len(t, v.Answered, 1)
	other := map[string]any{"id": body["id"], "key": body["key"], "answer": "1", "asks": ""}
	assert.Equal(t, 409, nobody.call("POST", path, other).status)
	assert.Equal(t, 422, nobody.call("POST", path, map[string]any{"id": newID(), "key": "sleep", "answer": "well", "asks": ""}).status)

	today := got[trendapi.TodayView](c, 200, c.call("GET", "/today", nil))
	found := false
	for _, d := range today.Due {
		if d.Kind == "answer" {
			found = true
			assert.Contains(t, d.Says, "Shall I rest it?")
		}
	}
	assert.True(t, found)
	list := got[checkins.CheckInAnswers](c, 200, c.call("GET", dario+"/check-ins", nil))
	require.Len(t, list.Answers, 1)
	seen := dario + "/check-ins/" + list.Answers[0].ID.String()
	got[checkins.CheckInAnswers](c, 200, c.call("POST", seen, map[string]any{"reply": "Two days off, then the rope."}))
	v = got[checkins.CheckInView](nobody, 200, nobody.call("GET", path, nil))
	assert.Equal(t, "Two days off, then the rope.", v.Answered[0].Reply)
	// Who does not want to see weights reads none, whatever was decided.
	assert.Contains(t, nobody.call("GET", path, nil).body, " kg")
	require.Equal(t, 200, c.call("PATCH", dario+"/dossier", changes("hide_weights", false, true)).status)
	assert.NotContains(t, nobody.call("GET", path, nil).body, " kg")
	require.NoError(t, s.store.In(context.Background(), demo.Studio, func(tx *store.Tx) error {
		client, err := tx.Client(context.Background(), demo.ClientID("Dario Vance"))
		last := client.Joints[len(client.Joints)-1]
		assert.Equal(t, 7, last.Score)
		return err
	}))
}
