package store_test

import (
	"encoding/json"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/day"
	"musculus/internal/core/measure"
	"musculus/internal/core/person"
	"musculus/internal/core/priority"
	"musculus/internal/store"
	"musculus/internal/testenv"
)

const now = day.Day(20_780)

var at = time.Date(2026, 11, 23, 12, 0, 0, 0, time.UTC)

// grown is a client about whom everything there is has been recorded.
func grown(t *testing.T, s *store.Store, a studio) (photo uuid.UUID) {
	photo = id()
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
		require.NoError(
			t,
			tx.AddScreening(ctx, id(), a.client, person.Screening{On: now, Answers: map[string]person.Answer{"chest": {}}}, a.coach, at),
		)
		require.NoError(
			t,
			tx.AddJointReport(ctx, id(), a.client, person.JointReport{On: now, Joint: "wrist", Side: person.Left, Score: 2}, a.coach, at),
		)
		require.NoError(
			t,
			tx.AddOverride(ctx, id(), a.client, store.Override{Movement: "lying_bar", Allowed: true, Reason: "tried"}, a.coach),
		)
		require.NoError(
			t,
			tx.PutMeasuring(
				ctx,
				a.client,
				store.Measuring{ID: id(), Session: measure.Session{On: now, Girths: map[measure.Site][]float64{measure.FlexedLeft: {36}}}},
				a.coach,
				at,
			),
		)
		require.NoError(t, tx.AddPhoto(ctx, a.client, store.Photo{ID: photo, On: now, Pose: "front_bent", Width: 3, Height: 4}, a.coach))
		require.NoError(
			t,
			tx.AddRating(ctx, id(), a.client, priority.Rating{On: now, Heads: map[string]int{"brachialis": 1}, Confidence: 2}, a.coach),
		)
		_, err := tx.SetEmphasis(
			ctx,
			a.client,
			priority.Emphasis{Levels: map[string]priority.Level{"brachialis": priority.Build}},
			0,
			a.coach,
		)
		require.NoError(t, err)
		require.NoError(t, tx.PutPresentAnswer(ctx, a.client, "curls", "curl_standing_bar"))
		require.NoError(t, tx.AddTryOut(ctx, a.client, store.TryOut{ID: id(), On: now, Movement: "lying_bar", Outcome: "kept"}, a.coach))
		_, _, err = tx.ChangeDossier(
			ctx,
			a.client,
			[]person.Change{
				{Field: "minutes", Was: json.RawMessage("45"), Value: json.RawMessage("50")},
				{Field: "health_consent", Was: json.RawMessage("null"), Value: json.RawMessage(`"` + now.String() + `"`)},
			},
			a.coach,
			now,
			at,
		)
		return err
	}))
	return photo
}

func TestWhatIsRecordedOfAClientComesBack(t *testing.T) {
	s := testenv.Store(t)
	a, b := makeStudio(t, s, "a"), makeStudio(t, s, "b")
	grown(t, s, a)
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
		c, err := tx.Client(ctx, a.client)
		require.NoError(t, err)
		assert.Equal(t, now, c.Screening.On)
		assert.Len(t, c.Joints, 1)
		assert.Equal(t, map[string]string{"lying_bar": "tried"}, c.Overrides)
		assert.Equal(t, 50, c.Dossier.Minutes)
		last, err := tx.LastChange(ctx, a.client, "minutes")
		require.NoError(t, err)
		assert.Equal(t, "Coach of a", last.Name)
		require.NoError(t, tx.AddOverride(ctx, id(), a.client, store.Override{Movement: "lying_bar"}, a.coach))
		c, err = tx.Client(ctx, a.client)
		require.NoError(t, err)
		assert.Empty(t, c.Overrides, "the latest word counts")
		history, err := tx.Overrides(ctx, a.client)
		require.NoError(t, err)
		assert.Len(t, history, 2, "and what was said before is kept")
		clashes, _, err := tx.ChangeDossier(
			ctx,
			a.client,
			[]person.Change{{Field: "minutes", Was: json.RawMessage("45"), Value: json.RawMessage("30")}},
			a.coach,
			now,
			at,
		)
		require.NoError(t, err)
		require.Len(t, clashes, 1)
		assert.JSONEq(t, "50", string(clashes[0].Now))
		done, err := tx.SetEmphasis(ctx, a.client, priority.Emphasis{}, 0, a.coach)
		require.NoError(t, err)
		assert.False(t, done, "somebody set one already")
		return nil
	}))
	// Another studio sees and writes nothing of it.
	require.NoError(t, s.In(ctx, b.id, func(tx *store.Tx) error {
		for what, list := range map[string]func() (int, error){
			"screenings": func() (int, error) { l, err := tx.Screenings(ctx, a.client); return len(l), err },
			"measurings": func() (int, error) { l, err := tx.Measurings(ctx, a.client); return len(l), err },
			"photos":     func() (int, error) { l, err := tx.Photos(ctx, a.client); return len(l), err },
			"ratings":    func() (int, error) { l, err := tx.Ratings(ctx, a.client); return len(l), err },
			"try-outs":   func() (int, error) { l, err := tx.TryOuts(ctx, a.client); return len(l), err },
			"answers":    func() (int, error) { l, err := tx.PresentAnswers(ctx, a.client); return len(l), err },
		} {
			n, err := list()
			require.NoError(t, err, what)
			assert.Zero(t, n, what)
		}
		assert.ErrorIs(t, tx.DeleteClient(ctx, a.client, b.coach, time.Now()), store.ErrNotFound)
		return nil
	}))
	assert.Error(t, s.In(ctx, b.id, func(tx *store.Tx) error {
		return tx.AddJointReport(ctx, id(), a.client, person.JointReport{On: now, Joint: "wrist", Side: person.Left}, b.coach, at)
	}))
}

// A deleted client is out of sight at once, comes back within a month, and is
// erased for good after it, photo first, with nothing left but the event.
func TestADeletedClientIsErasedAfterAMonth(t *testing.T) {
	s := testenv.Store(t)
	a, b := makeStudio(t, s, "a"), makeStudio(t, s, "b")
	photo := grown(t, s, a)
	grown(t, s, b)
	// The database counts the month by its own clock.
	at := time.Now().AddDate(0, 0, -store.UndoDays)
	in := func(do func(tx *store.Tx) error) { t.Helper(); require.NoError(t, s.In(ctx, a.id, do)) }
	clients := func() (n int) {
		in(func(tx *store.Tx) error { l, err := tx.Clients(ctx); n = len(l); return err })
		return
	}
	in(func(tx *store.Tx) error { return tx.DeleteClient(ctx, a.client, a.coach, at) })
	assert.Zero(t, clients())
	in(func(tx *store.Tx) error { return tx.RestoreClient(ctx, a.client, a.coach) })
	assert.Equal(t, 1, clients())
	in(func(tx *store.Tx) error { return tx.DeleteClient(ctx, a.client, a.coach, at) })

	var forgotten []uuid.UUID
	forget := func(_, photo uuid.UUID) error { forgotten = append(forgotten, photo); return nil }
	n, err := s.EraseDue(ctx, at.AddDate(0, 0, store.UndoDays-1), forget)
	require.NoError(t, err)
	assert.Zero(t, n, "a day is left")
	in(func(tx *store.Tx) error { return tx.RestoreClient(ctx, a.client, a.coach) })
	in(func(tx *store.Tx) error { return tx.DeleteClient(ctx, a.client, a.coach, at.Add(2*time.Hour)) })
	n, err = s.EraseDue(ctx, at.AddDate(1, 0, 0), forget)
	require.NoError(t, err)
	assert.Zero(t, n, "whatever the server believes it is: the database says two hours are left")
	assert.Empty(t, forgotten, "and no photo goes")
	in(func(tx *store.Tx) error { return tx.RestoreClient(ctx, a.client, a.coach) })
	in(func(tx *store.Tx) error { return tx.DeleteClient(ctx, a.client, a.coach, at.Add(-time.Hour)) })
	n, err = s.EraseDue(ctx, time.Now(), forget)
	require.NoError(t, err)
	assert.Equal(t, 1, n)
	assert.Equal(t, []uuid.UUID{photo}, forgotten)
	in(func(tx *store.Tx) error {
		assert.ErrorIs(t, tx.RestoreClient(ctx, a.client, a.coach), store.ErrNotFound)
		measured, err := tx.Measurings(ctx, a.client)
		require.NoError(t, err)
		assert.Empty(t, measured)
		events, err := tx.Events(ctx)
		require.NoError(t, err)
		var what []string
		for _, e := range events {
			what = append(what, e.What)
		}
		assert.Equal(t, []string{"erased", "deleted", "restored", "deleted", "restored", "deleted", "restored", "deleted"}, what)
		return nil
	})
	require.NoError(t, s.In(ctx, b.id, func(tx *store.Tx) error {
		kept, err := tx.Client(ctx, b.client)
		assert.Len(t, kept.Joints, 1, "another studio's client is untouched")
		return err
	}))
	for _, sql := range []string{"DELETE FROM joint_report", "UPDATE screening_round SET answers = '{}'",
		"DELETE FROM studio_event", "UPDATE dossier_change SET value = '1'"} {
		_, err := s.Pool.Exec(ctx, sql)
		assert.ErrorContains(t, err, "42501", sql)
	}
}
