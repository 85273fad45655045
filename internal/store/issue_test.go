package store_test

import (
	"encoding/json"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/store"
	"musculus/internal/testenv"
)

// Sheets are numbered, never changed, and kept once however often they are sent,
// by many at once.
func TestSheetsAreNumberedAndNeverChanged(t *testing.T) {
	s := testenv.Store(t)
	a, b := makeStudio(t, s, "a"), makeStudio(t, s, "b")
	issue := func(id uuid.UUID, client, session uuid.UUID, sheet string) error {
		return s.In(ctx, a.id, func(tx *store.Tx) error {
			return tx.AddIssue(
				ctx,
				client,
				store.Issue{ID: id, SessionID: session, SessionVersion: 1, PlannedOn: day.At(monday), Sheet: json.RawMessage(sheet)},
				a.coach,
			)
		})
	}
	first := id()
	require.NoError(t, issue(first, a.client, a.session, `{"n": 1}`))
	require.NoError(t, issue(first, a.client, a.session, `{"n": 2}`), "the same issue again")
	var wait sync.WaitGroup
	failed := 0
	var mu sync.Mutex
	for range 6 {
		wait.Go(func() {
			if issue(id(), a.client, a.session, `{"n": 3}`) != nil {
				mu.Lock()
				failed++
				mu.Unlock()
			}
		})
	}
	wait.Wait()
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
		list, err := tx.Issues(ctx, a.client, a.session, movement.Shipped)
		require.NoError(t, err)
		require.Len(t, list, 7-failed)
		for i, one := range list {
			assert.Equal(t, len(list)-i, one.Number, "no number twice, none left out")
		}
		assert.JSONEq(t, `{"n": 1}`, string(list[len(list)-1].Sheet), "as it left")
		latest, err := tx.LatestIssues(ctx, a.client, day.At(monday), day.At(monday))
		require.NoError(t, err)
		require.Len(t, latest, 1)
		assert.Equal(t, len(list), latest[0].Number)
		return nil
	}))
	assert.Error(t, issue(id(), b.client, b.session, `{}`), "not for another studio's client")
	for _, sql := range []string{"UPDATE issued_sheet SET sheet = '{}'", "DELETE FROM issued_sheet", "DELETE FROM accepted_finding"} {
		_, err := s.Pool.Exec(ctx, sql)
		assert.ErrorContains(t, err, "42501", sql)
	}
}

// A token opens its own link and nothing else; without one nothing is seen.
func TestALinkOpensOnlyWhatItIsFor(t *testing.T) {
	s := testenv.Store(t)
	a, b := makeStudio(t, s, "a"), makeStudio(t, s, "b")
	at := time.Date(2026, 11, 25, 12, 0, 0, 0, time.UTC)
	tokens := map[string]studio{}
	link := id()
	for i, of := range []studio{a, b} {
		token := store.NewToken()
		tokens[token] = of
		require.NoError(t, s.In(ctx, of.id, func(tx *store.Tx) error {
			which := id()
			if i == 0 {
				which = link
			}
			return tx.AddLink(ctx, which, of.client, token, at.AddDate(0, 0, 7), false, of.coach)
		}))
	}
	for token, of := range tokens {
		got, err := s.OpenLink(ctx, token, at)
		require.NoError(t, err)
		assert.Equal(t, of.id, got.Studio)
		assert.Equal(t, of.client, got.Client)
		assert.Empty(t, got.Over)
		late, err := s.OpenLink(ctx, token, at.AddDate(0, 0, 7))
		require.NoError(t, err)
		assert.Equal(t, "expired", late.Over)
		_, err = s.OpenLink(ctx, token[1:], at)
		assert.ErrorIs(t, err, store.ErrNotFound)
	}
	_, err := s.OpenLink(ctx, "", at)
	assert.ErrorIs(t, err, store.ErrNotFound)
	var seen int
	require.NoError(t, s.Pool.QueryRow(ctx, "SELECT count(*) FROM sheet_link").Scan(&seen))
	assert.Zero(t, seen)
	require.NoError(t, s.In(ctx, a.id, func(tx *store.Tx) error {
		require.NoError(t, tx.MarkOpened(ctx, link, at))
		links, err := tx.Links(ctx, a.client)
		require.NoError(t, err)
		require.Len(t, links, 1)
		assert.Equal(t, 1, links[0].Opened)
		require.NoError(t, tx.RevokeLink(ctx, a.client, link))
		assert.ErrorIs(t, tx.RevokeLink(ctx, a.client, link), store.ErrNotFound, "ended already")
		return nil
	}))
	for token, of := range tokens {
		got, err := s.OpenLink(ctx, token, at)
		require.NoError(t, err)
		assert.Equal(t, of.id == a.id, got.Over == "revoked")
	}
}
