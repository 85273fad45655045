package store_test

import (
	"encoding/json"
	"errors"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/store"
	"musculus/internal/testenv"
)

// What was read once is not read again, and whatever is changed shows at once: the
// session, the dossier, a room; what was written and undone is never seen.
func TestWhatIsRememberedIsNeverOld(t *testing.T) {
	s := testenv.Store(t)
	a := makeStudio(t, s, "a")
	read := func() (out *store.Session, c store.Client) {
		require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
			current, err := tx.CurrentSessions(ctx, nil, day.At(monday), movement.Shipped)
			require.NoError(t, err)
			all, err := tx.Clients(ctx)
			require.Len(t, all, 1)
			out, c = current[a.client], all[0]
			return err
		}))
		return out, c
	}
	save := func(tx *store.Tx, version int, name string) {
		_, err := tx.SaveSession(ctx, store.Session{ClientID: a.client, Version: version,
			Planned: plan.Planned{ID: a.session, Name: name, On: day.At(monday), Session: content()}}, a.coach, id(), movement.Shipped)
		require.NoError(t, err)
	}
	was, client := read()
	again, clientAgain := read()
	assert.Same(t, was, again)
	assert.Equal(t, client.Mark, clientAgain.Mark)

	undone := errors.New("undone")
	require.ErrorIs(t, s.In(ctx, a.id, func(tx *store.Tx) error {
		save(tx, 1, "Never")
		current, err := tx.CurrentSessions(ctx, nil, day.At(monday), movement.Shipped)
		require.NoError(t, err)
		require.Equal(t, "Never", current[a.client].Name)
		return undone
	}), undone)
	back, _ := read()
	assert.Same(t, was, back)
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error { save(tx, 1, "Second"); return nil }))
	saved, _ := read()
	assert.Equal(t, "Second", saved.Name)

	room := id()
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error { return tx.AddRoom(ctx, room, person.Room{Name: "Loft"}) }))
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
		clashes, faults, err := tx.ChangeDossier(ctx, a.client, []person.Change{
			{Field: "rooms", Was: written(t, client.Dossier.Rooms), Value: written(t, []string{room.String()})}}, a.coach, day.At(monday), monday)
		require.Empty(t, clashes)
		require.Empty(t, faults)
		return err
	}))
	_, moved := read()
	assert.NotEqual(t, client.Mark, moved.Mark)
	assert.Equal(t, "Loft", moved.Room().Name)
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
		rooms, err := tx.Rooms(ctx)
		require.NoError(t, err)
		rooms[1].Name = "Attic" // after the Hall
		ok, err := tx.PutRoom(ctx, rooms[1])
		require.True(t, ok)
		return err
	}))
	_, painted := read()
	assert.Equal(t, "Attic", painted.Room().Name)
	assert.Equal(t, "Loft", moved.Room().Name, "what somebody else holds stays as it was read")
}

func written(t *testing.T, v any) []byte {
	b, err := json.Marshal(v)
	require.NoError(t, err)
	return b
}
