package store_test

import (
	"encoding/json"
	"maps"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/day"
	"musculus/internal/core/entry"
	"musculus/internal/core/measure"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
	"musculus/internal/core/stance"
	"musculus/internal/store"
	"musculus/internal/testenv"
)

// Whatever is kept under an id made by the client: the same again is kept once, any
// other content under it is a conflict, and so is the id of another client or studio.
func TestAnIDSentAgainWithOtherContent(t *testing.T) {
	s := testenv.Store(t)
	a, b := makeStudio(t, s, "a"), makeStudio(t, s, "b")
	curl := movement.Shipped.Get("curl_neutral").Default()
	no := map[string]person.Answer{"chest": {}}
	yes := map[string]person.Answer{"chest": {Yes: true}}
	entry := func(id uuid.UUID, x studio, reps int) entry.Entry {
		return entry.Entry{
			ID:        id,
			ClientID:  x.client,
			SessionID: x.session,
			SlotID:    uuid.Nil,
			SetUp:     curl,
			Side:      entry.BothSides,
			SetNo:     1,
			Reps:      reps,
			LoadKg:    10,
			DoneAt:    at,
		}
	}
	room := func(name string) person.Room { return person.Room{Name: name} }
	writes := map[string]func(tx *store.Tx, x studio, id uuid.UUID, other bool) error{
		"screening": func(tx *store.Tx, x studio, id uuid.UUID, other bool) error {
			return tx.AddScreening(ctx, id, x.client, person.Screening{On: now, Answers: pick(other, no, yes)}, x.coach, at)
		},
		"joint report": func(tx *store.Tx, x studio, id uuid.UUID, other bool) error {
			return tx.AddJointReport(
				ctx,
				id,
				x.client,
				person.JointReport{On: now, Joint: movement.Wrist, Side: person.Left, Score: pick(other, 2, 7)},
				x.coach,
				at,
			)
		},
		"override": func(tx *store.Tx, x studio, id uuid.UUID, other bool) error {
			return tx.AddOverride(ctx, id, x.client, store.Override{Movement: "lying_bar", Allowed: !other, Reason: "x"}, x.coach)
		},
		"rating": func(tx *store.Tx, x studio, id uuid.UUID, other bool) error {
			return tx.AddRating(
				ctx,
				id,
				x.client,
				priority.Rating{On: now, Heads: map[string]int{"brachialis": pick(other, 1, -1)}},
				x.coach,
			)
		},
		"try-out": func(tx *store.Tx, x studio, id uuid.UUID, other bool) error {
			return tx.AddTryOut(
				ctx,
				x.client,
				store.TryOut{ID: id, On: now, Movement: "lying_bar", Comfort: pick(other, 3, 9), Outcome: "kept"},
				x.coach,
			)
		},
		"accepted finding": func(tx *store.Tx, x studio, id uuid.UUID, other bool) error {
			return tx.AcceptFinding(ctx, id, x.client, "under:triceps_long", !other, "x", x.coach)
		},
		"issue": func(tx *store.Tx, x studio, id uuid.UUID, other bool) error {
			return tx.AddIssue(
				ctx,
				x.client,
				store.Issue{
					ID:             id,
					SessionID:      x.session,
					SessionVersion: pick(other, 1, 2),
					PlannedOn:      day.At(monday),
					Sheet:          json.RawMessage(`{}`),
				},
				x.coach,
			)
		},
		"link": func(tx *store.Tx, x studio, id uuid.UUID, other bool) error {
			return tx.AddLink(ctx, id, x.client, store.NewToken(), at.AddDate(0, 0, pick(other, 14, 100)), false, x.coach)
		},
		"template": func(tx *store.Tx, x studio, id uuid.UUID, other bool) error {
			return tx.AddTemplate(
				ctx,
				store.Template{ID: id, Name: pick(other, "A", "B"), Monday: now, Plan: json.RawMessage(`{}`)},
				x.coach,
			)
		},
		"stance": func(tx *store.Tx, x studio, id uuid.UUID, other bool) error {
			return tx.AddStance(ctx, id, pick(other, "A", "B"), stance.ByID("hand"), x.coach)
		},
		"client": func(tx *store.Tx, x studio, id uuid.UUID, other bool) error {
			return tx.AddClient(ctx, id, person.NewDossier(pick(other, "Odile", "Otto")), a.coach)
		},
		"room": func(tx *store.Tx, x studio, id uuid.UUID, other bool) error {
			return tx.AddRoom(ctx, id, room(pick(other, "Loft", "Cellar")))
		},
		"set-up": func(tx *store.Tx, x studio, id uuid.UUID, other bool) error {
			return tx.AddOwnSetUp(
				ctx,
				store.OwnSetUp{ID: id, Name: pick(other, "A", "B"), Movement: "lying_bar", Settings: map[movement.Key]movement.Value{}},
				x.coach,
			)
		},
		"photo": func(tx *store.Tx, x studio, id uuid.UUID, other bool) error {
			return tx.AddPhoto(
				ctx,
				x.client,
				store.Photo{ID: id, On: now, Pose: "front_bent", Width: 3, Height: 4, Digest: pick(other, "x", "y")},
				x.coach,
			)
		},
		"set": func(tx *store.Tx, x studio, id uuid.UUID, other bool) error {
			return tx.AddEntry(ctx, entry(id, x, pick(other, 8, 9)), x.coach)
		},
		"measuring": func(tx *store.Tx, x studio, id uuid.UUID, other bool) error {
			return tx.PutMeasuring(
				ctx,
				x.client,
				store.Measuring{
					ID:      id,
					Session: measure.Session{On: now, Girths: map[measure.Site][]float64{measure.FlexedLeft: {pick(other, 36.0, 39.0)}}},
				},
				x.coach,
				at,
			)
		},
		"session": func(tx *store.Tx, x studio, id uuid.UUID, other bool) error {
			return tx.AddSession(
				ctx,
				store.Session{
					ClientID: x.client,
					Planned:  plan.Planned{ID: id, Name: pick(other, "Monday", "Tuesday"), On: day.At(monday), Session: plan.Session{}},
				},
				x.coach,
				id,
				movement.Shipped,
			)
		},
	}
	for _, what := range slices.Sorted(maps.Keys(writes)) {
		write, made := writes[what], id()
		send := func(x studio, other bool) error {
			return s.In(ctx, x.id, func(tx *store.Tx) error { return write(tx, x, made, other) })
		}
		require.NoError(t, send(a, false), what)
		assert.NoError(t, send(a, false), "%s, sent again", what)
		assert.ErrorIs(t, send(a, true), store.ErrTaken, "%s, with other content", what)
		assert.ErrorIs(t, send(b, false), store.ErrTaken, "%s, from another studio", what)
		assert.NoError(t, send(a, false), "%s, as it was", what)
	}
}

func pick[T any](other bool, one, two T) T {
	if other {
		return two
	}
	return one
}

// A write of a session that was taken is done; with other content it is a conflict.
// What is planned already is no new version.
func TestAWriteOfASessionIsTakenOnce(t *testing.T) {
	s := testenv.Store(t)
	a := makeStudio(t, s, "a")
	var was store.Session
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) (err error) {
		was, err = tx.Session(ctx, a.client, a.session, movement.Shipped)
		return err
	}))
	save := func(name string, version int, write uuid.UUID) (out store.Session, err error) {
		next := was
		next.Name, next.Version = name, version
		err = s.In(ctx, a.id, func(tx *store.Tx) (err error) {
			out, err = tx.SaveSession(ctx, next, a.coach, write, movement.Shipped)
			return err
		})
		return out, err
	}
	same, err := save(was.Name, 1, id())
	require.NoError(t, err)
	assert.Equal(t, 1, same.Version, "unchanged: no new version")
	write := id()
	one, err := save("Tuesday", 1, write)
	require.NoError(t, err)
	assert.Equal(t, 2, one.Version)
	again, err := save("Tuesday", 1, write)
	require.NoError(t, err)
	assert.Equal(t, 2, again.Version, "sent again, saved once")
	_, err = save("Wednesday", 1, write)
	assert.ErrorIs(t, err, store.ErrTaken, "the write is another one")
	_, err = save("Wednesday", 2, write)
	assert.ErrorIs(t, err, store.ErrTaken, "over whatever version")
	_, err = save("Thursday", 2, id())
	require.NoError(t, err)
	var stale *store.Stale
	_, err = save("Tuesday", 1, write)
	assert.ErrorAs(t, err, &stale, "it was done, and somebody saved since")
}

// A measuring session is never overwritten or brought back without a trace.
func TestMeasuringSessionsKeepTheirVersions(t *testing.T) {
	s := testenv.Store(t)
	a := makeStudio(t, s, "a")
	helper := store.Account{ID: id(), Email: "helper@example.test", Name: "Helper", Role: store.Assistant}
	m := store.Measuring{ID: id(), Session: measure.Session{On: now, Girths: map[measure.Site][]float64{measure.FlexedLeft: {36, 36.2}}}}
	in := func(do func(tx *store.Tx) error) error { return s.In(ctx, a.id, do) }
	put := func(version int, cm float64, by uuid.UUID) error {
		next := m
		next.Version = version
		next.Girths = map[measure.Site][]float64{measure.FlexedLeft: {cm}}
		return in(func(tx *store.Tx) error { return tx.PutMeasuring(ctx, a.client, next, by, at) })
	}
	withdraw := func(version int, by uuid.UUID) error {
		return in(func(tx *store.Tx) error { return tx.WithdrawMeasuring(ctx, a.client, m.ID, version, by, at) })
	}
	require.NoError(t, in(func(tx *store.Tx) error { return tx.AddAccount(ctx, helper, "a long secret") }))
	require.NoError(t, put(0, 36, a.coach))
	assert.ErrorIs(t, put(0, 40, helper.ID), store.ErrTaken, "a new one under the same id")
	require.NoError(t, put(1, 36.5, helper.ID), "a correction of what was read, in her own name")
	assert.NoError(t, put(1, 36.5, helper.ID), "sent again")
	var stale *store.StaleMeasuring
	require.ErrorAs(t, put(1, 37, a.coach), &stale)
	assert.Equal(t, "Helper", stale.By)
	require.NoError(t, withdraw(2, a.coach))
	assert.NoError(t, withdraw(2, a.coach), "sent again")
	require.ErrorAs(t, put(2, 36.5, helper.ID), &stale)
	assert.True(t, stale.Withdrawn, "it is not brought back unseen")
	require.NoError(t, in(func(tx *store.Tx) error {
		list, err := tx.Measurings(ctx, a.client)
		require.NoError(t, err)
		assert.Empty(t, list)
		history, err := tx.MeasuringHistory(ctx, a.client)
		require.NoError(t, err)
		var told []string
		for _, h := range history {
			told = append(told, h.By)
		}
		assert.Equal(t, []string{"Coach of a", "Helper", "Coach of a"}, told)
		assert.True(t, history[0].Withdrawn)
		return nil
	}))
	require.NoError(t, put(3, 36.5, helper.ID), "knowingly, it can be")
	_, err := s.Pool.Exec(ctx, "UPDATE measuring_version SET content = '{}'")
	assert.ErrorContains(t, err, "42501")
}

// Two who issue at the same moment get two numbers.
func TestTheNextNumberWaits(t *testing.T) {
	s := testenv.Store(t)
	a := makeStudio(t, s, "a")
	var wait sync.WaitGroup
	errs := make([]error, 12)
	for i := range errs {
		wait.Add(1)
		go func() {
			defer wait.Done()
			errs[i] = s.In(ctx, a.id, func(tx *store.Tx) error {
				return tx.AddIssue(
					ctx,
					a.client,
					store.Issue{ID: id(), SessionID: a.session, SessionVersion: 1, PlannedOn: day.At(monday), Sheet: json.RawMessage(`{}`)},
					a.coach,
				)
			})
		}()
	}
	wait.Wait()
	for _, err := range errs {
		assert.NoError(t, err)
	}
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
		list, err := tx.Issues(ctx, a.client, a.session, movement.Shipped)
		assert.Len(t, list, len(errs))
		assert.Equal(t, len(errs), list[0].Number)
		return err
	}))
}

// A set that was logged and taken out again is no training day.
func TestASetTakenOutIsNoTrainingDay(t *testing.T) {
	s := testenv.Store(t)
	a := makeStudio(t, s, "a")
	e := entry.Entry{
		ID:        id(),
		ClientID:  a.client,
		SessionID: a.session,
		SlotID:    id(),
		SetUp:     movement.Shipped.Get("curl_neutral").Default(),
		Side:      entry.BothSides,
		SetNo:     1,
		Reps:      8,
		LoadKg:    10,
		DoneAt:    at,
	}
	gone := e
	gone.ID, gone.Replaces, gone.Withdrawn = id(), &e.ID, true
	last := func() (out map[uuid.UUID]time.Time) {
		require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) (err error) { out, err = tx.LastTraining(ctx); return }))
		return
	}
	add := func(e entry.Entry) {
		require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error { return tx.AddEntry(ctx, e, a.coach) }))
	}
	add(e)
	assert.Len(t, last(), 1)
	add(gone)
	assert.Empty(t, last())
}

// A role that could get round row-level security is refused, and what erases may be
// called by the app's role only, never early.
func TestRolesThatCouldGetRound(t *testing.T) {
	d := testenv.Database(t)
	for url, why := range map[string]string{d.URL: "", d.MigrateURL: "owns tables", testenv.AdminURL(d): "superuser"} {
		s, err := store.Open(ctx, url)
		require.NoError(t, err)
		err = s.CheckRole(ctx)
		s.Close()
		if why == "" {
			assert.NoError(t, err)
			continue
		}
		var unfit *store.UnfitRole
		require.ErrorAs(t, err, &unfit)
		assert.Contains(t, unfit.Error(), why)
	}
	admin, err := pgx.Connect(ctx, testenv.AdminURL(d))
	require.NoError(t, err)
	defer admin.Close(ctx)
	for _, sql := range []string{"CREATE ROLE passerby LOGIN PASSWORD 'x'", "CREATE ROLE sly LOGIN BYPASSRLS PASSWORD 'x'",
		"CREATE ROLE slier LOGIN PASSWORD 'x'", "GRANT sly TO slier"} {
		_, err = admin.Exec(ctx, sql)
		require.NoError(t, err, sql)
	}
	defer func() { // roles are the server's, not the database's
		_, err := admin.Exec(ctx, "DROP ROLE passerby, slier, sly")
		assert.NoError(t, err)
	}()
	for role, fit := range map[string]bool{"passerby": true, "sly": false, "slier": false} {
		s, err := store.Open(
			ctx,
			strings.Replace(
				testenv.AdminURL(d),
				strings.Split(strings.TrimPrefix(testenv.AdminURL(d), "postgres://"), "@")[0],
				role+":x",
				1,
			),
		)
		require.NoError(t, err)
		assert.Equal(t, fit, s.CheckRole(ctx) == nil, role)
		for _, call := range []string{"SELECT erase_client(gen_random_uuid())",
			"SELECT erase_consented(gen_random_uuid(), 'health', gen_random_uuid())"} {
			_, err = s.Pool.Exec(ctx, call)
			assert.ErrorContains(t, err, "42501", "%s by %s", call, role)
		}
		s.Close()
	}
}

// What a withdrawn consent let be kept is out of sight at once, and can be erased
// then, and not before.
func TestWhatAConsentLetBeKept(t *testing.T) {
	s := testenv.Store(t)
	a := makeStudio(t, s, "a")
	grown(t, s, a)
	erase := func(what store.Consented) (done bool) {
		require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) (err error) {
			done, err = tx.EraseConsented(ctx, a.client, what, a.coach)
			return err
		}))
		return
	}
	count := func(table string) (n int) {
		require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
			all, err := tx.Records(ctx, a.client)
			n = len(all[table])
			return err
		}))
		return
	}
	assert.False(t, erase(store.Health), "the consent holds")
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
		_, faults, err := tx.ChangeDossier(
			ctx,
			a.client,
			[]person.Change{{Field: "health_consent", Was: json.RawMessage(`"` + now.String() + `"`), Value: json.RawMessage("null")}},
			a.coach,
			now,
			at,
		)
		assert.Empty(t, faults)
		return err
	}))
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
		c, err := tx.Client(ctx, a.client)
		assert.Nil(t, c.Screening)
		assert.Empty(t, c.Joints)
		assert.Empty(t, c.Overrides)
		st := c.Standing(now)
		assert.False(t, st.MayTrain())
		return err
	}))
	assert.Equal(t, 1, count("screening_round"), "kept until it is erased")
	assert.True(t, erase(store.Health))
	for _, table := range []string{"screening_round", "joint_report", "verdict_override"} {
		assert.Zero(t, count(table), table)
	}
	assert.Equal(t, 1, count("measuring"), "the other consent is another one")
	assert.True(t, erase(store.Body), "it was never given")
	assert.Zero(t, count("measuring"))
	assert.Zero(t, count("photo"))
	assert.False(t, erase("anything"))
}

// The list of what the export holds is every table in which something of a client
// stands.
func TestTheRecordsAreEveryTableOfAClient(t *testing.T) {
	d := testenv.Database(t)
	conn, err := pgx.Connect(ctx, d.MigrateURL)
	require.NoError(t, err)
	defer conn.Close(ctx)
	rows, err := conn.Query(
		ctx,
		`SELECT DISTINCT c.table_name FROM information_schema.columns c JOIN information_schema.tables t USING (table_schema, table_name)
		WHERE c.table_schema = 'public' AND t.table_type = 'BASE TABLE' AND c.column_name IN ('client_id', 'session_id') ORDER BY 1`,
	)
	require.NoError(t, err)
	tables, err := pgx.CollectRows(rows, pgx.RowTo[string])
	require.NoError(t, err)
	s, err := store.Open(ctx, d.URL)
	require.NoError(t, err)
	defer s.Close()
	a := makeStudio(t, s, "a")
	grown(t, s, a)
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
		require.NoError(t, tx.AddLink(ctx, id(), a.client, store.NewToken(), at, false, a.coach))
		all, err := tx.Records(ctx, a.client)
		require.NoError(t, err)
		assert.Equal(t, tables, slices.Sorted(maps.Keys(all)))
		assert.NotContains(t, string(all["sheet_link"][0]), "token", "what could open a link does not leave")
		return nil
	}))
}
