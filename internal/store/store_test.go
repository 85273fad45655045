package store_test

import (
	"context"
	"os"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/entry"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/store"
	"musculus/internal/testenv"
)

func TestMain(m *testing.M) { os.Exit(testenv.Main(m)) }

var ctx = context.Background()

func id() uuid.UUID { return uuid.Must(uuid.NewV7()) }

// studio is a studio with a coach, a client and a planned session.
type studio struct {
	id, coach, client, session uuid.UUID
}

func makeStudio(t *testing.T, s *store.Store, name string) studio {
	out := studio{id(), id(), id(), id()}
	require.NoError(t, s.In(ctx, out.id, func(tx *store.Tx) error {
		require.NoError(t, tx.AddStudio(ctx, out.id, name))
		require.NoError(
			t,
			tx.AddAccount(
				ctx,
				store.Account{ID: out.coach, Email: name + "@example.test", Name: "Coach of " + name, Role: store.Coach},
				"a long secret",
			),
		)
		room := id()
		require.NoError(t, tx.AddRoom(ctx, room, person.Room{Name: "Hall", Things: []person.Thing{person.Pairs(10)}}))
		d := person.NewDossier("Client of " + name)
		d.Rooms = []string{room.String()}
		require.NoError(t, tx.AddClient(ctx, out.client, d, out.coach))
		return tx.AddSession(
			ctx,
			store.Session{
				ClientID: out.client,
				Planned:  plan.Planned{ID: out.session, Name: "Monday", On: day.At(monday), Session: content()},
			},
			out.coach,
			id(),
			movement.Shipped,
		)
	}))
	return out
}

var monday = time.Date(2026, 11, 23, 0, 0, 0, 0, time.UTC)

// content is a session of one slot.
func content() plan.Session {
	set, err := movement.Shipped.Get("curl_turning").
		SetUp(movement.Settings{movement.PhiFrom: movement.Num(-40), movement.Hands: movement.Word("one")})
	if err != nil {
		panic(err)
	}
	slot := plan.Of(set, dose.Usual(person.Caps{}))
	slot.ID, slot.Rows[0].ID, slot.Cues = id(), id(), []string{"Palm up before the elbow is square"}
	return plan.Session{WarmUpMin: 5, Slots: []plan.Slot{slot}}
}

func TestWhatIsKeptComesBack(t *testing.T) {
	s := testenv.Store(t)
	a := makeStudio(t, s, "a")
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
		c, err := tx.Client(ctx, a.client)
		require.NoError(t, err)
		assert.Equal(t, arm.DefaultBody, c.Dossier.Body())
		assert.Equal(t, 10.0, c.Room().Things[0].Loads[0])
		assert.Nil(t, c.Screening)
		got, err := tx.Session(ctx, a.client, a.session, movement.Shipped)
		require.NoError(t, err)
		assert.Equal(t, 1, got.Version)
		assert.Equal(t, "Coach of a", got.SavedBy)
		assert.Equal(t, day.At(monday), got.On)
		session, faults := got.Session, got.Faults
		require.Empty(t, faults)
		assert.Equal(t, "curl_turning?hands=one&phi_from=-40", session.Slots[0].SetUp.Key())
		return nil
	}))
}

func TestNothingOfAnotherStudioIsSeenOrWritten(t *testing.T) {
	s := testenv.Store(t)
	a, b := makeStudio(t, s, "a"), makeStudio(t, s, "b")
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
		clients, err := tx.Clients(ctx)
		require.NoError(t, err)
		assert.Len(t, clients, 1)
		_, err = tx.Client(ctx, b.client)
		assert.ErrorIs(t, err, pgx.ErrNoRows)
		_, err = tx.Session(ctx, b.client, b.session, movement.Shipped)
		assert.ErrorIs(t, err, pgx.ErrNoRows)
		_, err = tx.SaveSession(
			ctx,
			store.Session{
				ClientID: b.client,
				Planned:  plan.Planned{ID: b.session, Name: "stolen", On: day.At(monday), Session: plan.Session{}},
				Version:  1,
			},
			a.coach,
			id(),
			movement.Shipped,
		)
		assert.ErrorIs(t, err, pgx.ErrNoRows)
		return nil
	}))
	err := s.In(ctx, a.id, func(tx *store.Tx) error {
		return tx.AddSession(
			ctx,
			store.Session{ClientID: b.client, Planned: plan.Planned{ID: id(), Name: "x"}},
			a.coach,
			id(),
			movement.Shipped,
		)
	})
	assert.Error(t, err, "a session cannot be hung on another studio's client")
	err = s.In(ctx, b.id, func(tx *store.Tx) error { return tx.AddStudio(ctx, id(), "third") })
	assert.Error(t, err, "a row of another studio cannot be written")
}

// One connection, used by one studio and then by nobody and by another one:
// the studio never stays on it.
func TestAPooledConnectionForgetsTheStudio(t *testing.T) {
	s := testenv.Store(t)
	a, b := makeStudio(t, s, "a"), makeStudio(t, s, "b")
	count := func() (n int) {
		require.NoError(t, s.Pool.QueryRow(ctx, "SELECT count(*) FROM client").Scan(&n))
		return
	}
	var wait sync.WaitGroup
	for i := range 60 {
		wait.Go(func() {
			of := a
			if i%2 == 1 {
				of = b
			}
			_ = s.In(ctx, of.id, func(tx *store.Tx) error {
				clients, err := tx.Clients(ctx)
				assert.NoError(t, err)
				if assert.Len(t, clients, 1) {
					assert.Equal(t, of.client, clients[0].ID)
				}
				if i%3 == 0 {
					return assert.AnError // rolled back
				}
				return nil
			})
			assert.Zero(t, count())
		})
	}
	wait.Wait()
}

func TestSavingIsVersionedAndCountsOnce(t *testing.T) {
	s := testenv.Store(t)
	a := makeStudio(t, s, "a")
	planned := content()
	save := func(version int, name string, write uuid.UUID) (got store.Session, err error) {
		err = s.In(ctx, a.id, func(tx *store.Tx) error {
			got, err = tx.SaveSession(
				ctx,
				store.Session{
					ClientID: a.client,
					Planned:  plan.Planned{ID: a.session, Name: name, On: day.At(monday), Session: planned},
					Version:  version,
				},
				a.coach,
				write,
				movement.Shipped,
			)
			return err
		})
		return
	}
	first := id()
	got, err := save(1, "Tuesday", first)
	require.NoError(t, err)
	assert.Equal(t, 2, got.Version)
	got, err = save(1, "Tuesday", first)
	require.NoError(t, err, "the answer was lost and the same write came again")
	assert.Equal(t, 2, got.Version)
	_, err = save(1, "Friday", id())
	var stale *store.Stale
	require.ErrorAs(t, err, &stale)
	assert.Equal(t, "Tuesday", stale.Current.Name)
	assert.Equal(t, 2, stale.Current.Version)
	got, err = save(2, "Friday", id())
	require.NoError(t, err)
	assert.Equal(t, 3, got.Version)
	_, err = save(2, "Tuesday", first)
	assert.ErrorAs(t, err, &stale, "an old write is not taken for the newest")
}

func TestHistoryCannotBeChanged(t *testing.T) {
	s := testenv.Store(t)
	makeStudio(t, s, "a")
	for _, sql := range []string{"UPDATE set_entry SET reps = 1", "DELETE FROM set_entry",
		"UPDATE session_version SET name = 'x'", "DELETE FROM session_version", "DROP TABLE client", "SELECT * FROM goose_db_version"} {
		_, err := s.Pool.Exec(ctx, sql)
		assert.ErrorContains(t, err, "42501", sql)
	}
}

func TestTheLogIsAppendOnlyAndCorrected(t *testing.T) {
	s := testenv.Store(t)
	a, b := makeStudio(t, s, "a"), makeStudio(t, s, "b")
	setUp := movement.Shipped.Get("curl_turning").Default()
	anEntry := func(reps int) entry.Entry {
		return entry.Entry{
			ID:        id(),
			ClientID:  a.client,
			SessionID: a.session,
			SlotID:    id(),
			SetUp:     setUp,
			Side:      entry.Left,
			SetNo:     1,
			Reps:      reps,
			LoadKg:    10,
			Reserve:   2,
			DoneAt:    monday,
		}
	}
	add := func(e entry.Entry) error {
		return s.In(ctx, a.id, func(tx *store.Tx) error { return tx.AddEntry(ctx, e, a.coach) })
	}
	reps := func() (out []int) {
		require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
			list, err := tx.SessionEntries(ctx, a.session, movement.Shipped)
			for _, e := range list {
				out = append(out, e.Reps)
				assert.Equal(t, "curl_turning", e.SetUp.Key())
			}
			return err
		}))
		return
	}
	first := anEntry(8)
	require.NoError(t, add(first))
	require.NoError(t, add(first), "sent twice, logged once")
	assert.Equal(t, []int{8}, reps())
	better := anEntry(9)
	better.Replaces = &first.ID
	require.NoError(t, add(better))
	assert.Equal(t, []int{9}, reps())
	again := anEntry(10)
	again.Replaces = &first.ID
	assert.Error(t, add(again), "corrected from two places at once")
	gone := anEntry(0)
	gone.Replaces, gone.Withdrawn = &better.ID, true
	require.NoError(t, add(gone))
	assert.Empty(t, reps())
	foreign := anEntry(5)
	foreign.SessionID = b.session
	assert.Error(t, add(foreign))
}

func TestALostDatabaseIsTold(t *testing.T) {
	s, err := store.Open(ctx, "postgres://nobody:x@127.0.0.1:1/none?sslmode=disable")
	require.NoError(t, err)
	defer s.Close()
	assert.ErrorIs(t, s.In(ctx, id(), func(*store.Tx) error { return nil }), store.ErrAway)
}
