package store_test

import (
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/secret"
	"musculus/internal/store"
	"musculus/internal/testenv"
)

func TestSigningIn(t *testing.T) {
	s := testenv.Store(t)
	a := makeStudio(t, s, "a")
	l, err := s.LoginOf(ctx, " A@example.test ")
	require.NoError(t, err)
	assert.True(t, l.Is("a long secret"))
	assert.False(t, l.Is("another"))
	assert.False(t, l.Outdated())
	nobody, err := s.LoginOf(ctx, "nobody@example.test")
	require.NoError(t, err)
	assert.False(t, nobody.Is("a long secret"))
	assert.NotEqual(t, store.HashPassword("x"), store.HashPassword("x"), "each hash has its own salt")
	require.NoError(t, s.InLogin(ctx, l.ID, func(tx *store.LoginTx) error {
		places, err := tx.Places(ctx)
		require.Len(t, places, 1)
		assert.Equal(t, a.id, places[0].Studio)
		return err
	}))
}

// What a login holds is seen by nobody else, and by a studio no more than it needs.
func TestALoginIsItsOwn(t *testing.T) {
	s := testenv.Store(t)
	a, b := makeStudio(t, s, "a"), makeStudio(t, s, "b")
	now := time.Now()
	in := uuid.New()
	require.NoError(t, s.InLogin(ctx, a.coach, func(tx *store.LoginTx) error {
		require.NoError(t, tx.AddSignIn(ctx, store.SignIn{ID: in, Agent: "a browser"}, now))
		return tx.KnowDevice(ctx, "token", now)
	}))
	require.NoError(t, s.InLogin(ctx, b.coach, func(tx *store.LoginTx) error {
		list, err := tx.SignIns(ctx)
		require.NoError(t, err)
		assert.Empty(t, list)
		n, err := tx.EndSignIns(ctx, &in, nil, now)
		require.NoError(t, err)
		assert.Zero(t, n)
		known, err := tx.IsKnownDevice(ctx, "token")
		require.NoError(t, err)
		assert.False(t, known)
		l, err := tx.Login(ctx)
		assert.Equal(t, "b@example.test", l.Email)
		return err
	}))
	require.NoError(t, s.In(ctx, b.id, func(tx *store.Tx) error {
		list, err := tx.Colleagues(ctx)
		require.Len(t, list, 1)
		assert.Equal(t, "b@example.test", list[0].Email)
		return err
	}))
	_, _, err := s.SignedIn(ctx, b.id, a.coach, a.coach, in, now, time.Minute)
	assert.ErrorIs(t, err, store.ErrNotFound, "an account of another studio")
}

// However many try at once, no more get through than may.
func TestGuessesAreCountedTogether(t *testing.T) {
	s := testenv.Store(t)
	now := time.Now()
	door := store.Guess{Door: secret.Account, What: "somebody"}
	var mu sync.Mutex
	tried := 0
	var all sync.WaitGroup
	for range 60 {
		all.Go(func() {
			wait, err := s.Try(ctx, now, door, store.Guess{Door: secret.Address, What: uuid.NewString()})
			assert.NoError(t, err)
			mu.Lock()
			defer mu.Unlock()
			if wait == 0 {
				tried++
			}
		})
	}
	all.Wait()
	assert.Equal(t, 5, tried)
	require.NoError(t, s.Passed(ctx, door))
	wait, err := s.Try(ctx, now, door)
	require.NoError(t, err)
	assert.Zero(t, wait, "it was she after all")
}

// A link opens once, of two at the same moment for one; and of two owners who take each
// other out one stays.
func TestOnceIsOnceAndTheLastOwnerStays(t *testing.T) {
	s := testenv.Store(t)
	a := makeStudio(t, s, "a")
	now := time.Now()
	second := store.Account{ID: uuid.New(), Studio: a.id, Email: "second@example.test", Name: "Second", Role: store.Owner}
	var token string
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) (err error) {
		require.NoError(t, tx.AddAccount(ctx, second, "a long secret"))
		require.NoError(t, tx.SetAccount(ctx, a.coach, store.Owner, nil))
		id := uuid.New()
		_, fresh, err := tx.Invite(ctx, second, id, "third@example.test", store.Coach, now, true)
		require.NoError(t, err)
		assert.True(t, fresh)
		token, fresh, err = tx.Invite(ctx, second, id, " Third@example.test", store.Coach, now, true)
		assert.False(t, fresh, "the same sent again")
		_, _, other := tx.Invite(ctx, second, id, "third@example.test", store.Owner, now, true)
		assert.ErrorIs(t, other, store.ErrTaken, "another one under the same id")
		return err
	}))
	opened := make([]error, 4)
	var all sync.WaitGroup
	for i := range opened {
		all.Go(func() {
			opened[i] = s.Redeem(
				ctx,
				token,
				uuid.New(),
				a.id,
				now,
				func(*store.Tx, *store.LoginTx, store.OneTime) error { return nil },
			)
		})
	}
	all.Wait()
	assert.Equal(t, 1, count(opened, nil))
	assert.Equal(t, 3, count(opened, store.ErrNotFound))
	late := s.Redeem(
		ctx,
		token,
		uuid.New(),
		a.id,
		now.Add(store.InvitationFor),
		func(*store.Tx, *store.LoginTx, store.OneTime) error { return nil },
	)
	assert.ErrorIs(t, late, store.ErrNotFound)

	out := make([]error, 2)
	for i, of := range []uuid.UUID{a.coach, second.ID} {
		all.Go(func() {
			out[i] = s.In(ctx, a.id, func(tx *store.Tx) error { return tx.SetAccount(ctx, of, store.Owner, &now) })
		})
	}
	all.Wait()
	assert.Equal(t, 1, count(out, nil))
	assert.Equal(t, 1, count(out, store.ErrLastOwner))

	first, err := s.FirstOwnerLink(ctx, now)
	require.NoError(t, err)
	assert.Empty(t, first, "there is a studio")
}

func count(list []error, of error) (n int) {
	for _, err := range list {
		if err == of {
			n++
		}
	}
	return n
}
