package demo_test

import (
	"context"
	"os"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/day"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/week"
	"musculus/internal/demo"
	"musculus/internal/store"
	"musculus/internal/testenv"
)

func TestMain(m *testing.M) { os.Exit(testenv.Main(m)) }

// Every client has a session that her room, caps and time allow; loading twice
// changes nothing.
func TestTheDemoIsSound(t *testing.T) {
	ctx := context.Background()
	s := testenv.Store(t)
	now := time.Date(2026, 11, 25, 10, 0, 0, 0, time.UTC)
	require.NoError(t, demo.Load(ctx, s, now))
	require.NoError(t, demo.Load(ctx, s, now))
	require.NoError(t, s.In(ctx, demo.Studio, func(tx *store.Tx) error {
		clients, err := tx.Clients(ctx)
		require.NoError(t, err)
		require.Len(t, clients, 8)
		trained, err := tx.LastTraining(ctx)
		require.NoError(t, err)
		assert.GreaterOrEqual(t, len(trained), 4, "a few have logged")
		screened := 0
		for _, c := range clients {
			if c.Screening != nil {
				screened++
			}
			sessions, err := tx.Sessions(ctx, c.ID, movement.Shipped)
			require.NoError(t, err)
			require.NotEmpty(t, sessions)
			y, err := effort.NewYardstick(c.Dossier.Body())
			require.NoError(t, err)
			standing := c.Standing(day.At(now))
			assert.Equal(t, c.Dossier.Name != "Pelle Sandoval", standing.MayTrain(), "%s: %v", c.Dossier.Name, standing.Said)
			tr := &week.Trainee{Yardstick: y, Room: c.Room(), Caps: person.CapsOf(standing.Caps), Stance: c.Stance,
				Fence: &person.Fence{
					Scores:    person.ScoresOf(c.Joints),
					Mobility:  c.Dossier.Mobility,
					Caps:      person.CapsOf(standing.Caps),
					Overrides: c.Overrides,
				}}
			for _, one := range sessions {
				require.Empty(t, one.Faults)
				session := one.Session
				assert.Empty(t, tr.Check(&session), c.Dossier.Name)
				for _, f := range tr.Findings(&session, week.Count(&session, y, tr.Stance), c.Dossier.Minutes) {
					assert.Equal(t, week.Note, f.Severity, "%s: %s", c.Dossier.Name, f.Text)
				}
			}
			_, err = tx.Session(ctx, c.ID, demo.SessionID(c.Dossier.Name), movement.Shipped)
			assert.NoError(t, err)
		}
		assert.Equal(t, 7, screened, "one client is not screened yet")
		return nil
	}))
	// Half done it is sound too, and a second start leaves it as it is.
	for range 2 {
		require.NoError(t, demo.HalfDone(ctx, s, time.Now()))
	}
	require.NoError(t, s.In(ctx, demo.Studio, func(tx *store.Tx) error {
		for name, want := range map[string][2]int{"Tobias Quill": {8, 0}, "Dario Vance": {2, 3}} {
			sets, err := tx.SessionEntries(ctx, demo.SessionID(name), movement.Shipped)
			require.NoError(t, err)
			events, err := tx.FloorEvents(ctx, demo.ClientID(name), demo.SessionID(name))
			require.NoError(t, err)
			assert.Equal(t, want, [2]int{len(sets), len(events)}, name)
		}
		dario, err := tx.Client(ctx, demo.ClientID("Dario Vance"))
		require.NoError(t, err)
		standing := dario.Standing(day.At(time.Now()))
		assert.True(t, standing.MayTrain(), "%v", standing.Said)
		return nil
	}))
	for _, a := range demo.SignIns {
		got, err := s.LoginOf(ctx, a.Email)
		require.NoError(t, err)
		assert.True(t, got.Is(a.Password))
	}
}
