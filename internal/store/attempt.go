package store

import (
	"context"
	"slices"
	"time"

	"github.com/jackc/pgx/v5"

	"musculus/internal/core/secret"
	"musculus/internal/store/db"
)

// Guess is a try at a door: which one, and what stands behind it.
type Guess struct {
	Door secret.Door
	What string
}

func (g Guess) key() string { return string(rune('a'+int(g.Door))) + HashToken(g.What) }

// Try takes a try at all doors at once, or says how long to wait for the next one, when
// none is taken. It counts as failed until Passed says that it was none, so that however
// many try at the same moment, on however many servers, no more get through.
func (s *Store) Try(ctx context.Context, now time.Time, guesses ...Guess) (wait time.Duration, err error) {
	slices.SortFunc(guesses, func(a, b Guess) int { return int(a.Door) - int(b.Door) }) // no two wait for one another
	err = classify(pgx.BeginFunc(ctx, s.Pool, func(tx pgx.Tx) error {
		q := db.New(tx)
		var next []db.PutAttemptParams
		for _, g := range guesses {
			if err := q.BeginAttempt(ctx, db.BeginAttemptParams{Key: g.key(), Since: now}); err != nil {
				return err
			}
			a, err := q.LockAttempt(ctx, g.key())
			if err != nil {
				return err
			}
			if now.Sub(a.Since) > secret.Counted {
				a.Failures, a.Since, a.NextAt = 0, now, now
			}
			wait = max(wait, a.NextAt.Sub(now))
			a.Failures++
			next = append(next, db.PutAttemptParams{
				Key: a.Key, Failures: a.Failures, Since: a.Since, NextAt: now.Add(secret.Wait(g.Door, a.Failures)),
			})
		}
		if wait > 0 {
			return nil
		}
		for _, n := range next {
			if err := q.PutAttempt(ctx, n); err != nil {
				return err
			}
		}
		return nil
	}))
	return wait, err
}

// Passed takes back that tries failed: an account's or a browser's count begins anew, an
// address of the network gets back the one.
func (s *Store) Passed(ctx context.Context, guesses ...Guess) error {
	return classify(pgx.BeginFunc(ctx, s.Pool, func(tx pgx.Tx) error {
		q := db.New(tx)
		for _, g := range guesses {
			forget := q.ForgetAttempt
			if g.Door == secret.Address {
				forget = q.LessAttempt
			}
			if err := forget(ctx, g.key()); err != nil {
				return err
			}
		}
		return nil
	}))
}

// SweepAttempts forgets what is counted no longer.
func (s *Store) SweepAttempts(ctx context.Context, now time.Time) error {
	return classify(db.New(s.Pool).SweepAttempts(ctx, now.Add(-2*secret.Counted)))
}
