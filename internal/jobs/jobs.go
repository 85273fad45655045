// Package jobs does what may happen later, in the background and once for all processes:
// letters leave, what is counted no longer is swept away. The queue is in the same
// database, so that what is part of a write is queued with it or not at all.
package jobs

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgxpool"
	"github.com/riverqueue/river"
	"github.com/riverqueue/river/riverdriver/riverpgxv5"
	"github.com/riverqueue/river/rivermigrate"

	"musculus/internal/mail"
	"musculus/internal/store"
)

// schema is where the queue has its own tables, apart from those of studios.
const schema = "jobs"

// Migrate brings the queue's tables up to date with the role that owns the schema, and
// grants the app's role what it needs.
func Migrate(ctx context.Context, migrateURL, appURL string) error {
	pool, err := pgxpool.New(ctx, migrateURL)
	if err != nil {
		return err
	}
	defer pool.Close()
	app, err := pgx.ParseConfig(appURL)
	if err != nil {
		return err
	}
	role := pgx.Identifier{app.User}.Sanitize()
	if _, err := pool.Exec(ctx, "CREATE SCHEMA IF NOT EXISTS "+schema); err != nil {
		return fmt.Errorf("the queue's schema: %w", err)
	}
	migrator, err := rivermigrate.New(riverpgxv5.New(pool), &rivermigrate.Config{Schema: schema, Logger: quiet()})
	if err != nil {
		return err
	}
	if _, err := migrator.Migrate(ctx, rivermigrate.DirectionUp, nil); err != nil {
		return fmt.Errorf("the queue's tables: %w", err)
	}
	_, err = pool.Exec(ctx, fmt.Sprintf(
		"GRANT USAGE ON SCHEMA %[1]s TO %[2]s; GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA %[1]s TO %[2]s; "+
			"GRANT USAGE, SELECT ON ALL SEQUENCES IN SCHEMA %[1]s TO %[2]s; GRANT EXECUTE ON ALL FUNCTIONS IN SCHEMA %[1]s TO %[2]s",
		schema, role,
	))
	return err
}

// quiet logs what goes wrong and nothing else.
func quiet() *slog.Logger {
	return slog.New(levelled{slog.Default().Handler()})
}

type levelled struct{ slog.Handler }

func (l levelled) Enabled(ctx context.Context, level slog.Level) bool {
	return level >= slog.LevelWarn && l.Handler.Enabled(ctx, level)
}

func (l levelled) WithAttrs(attrs []slog.Attr) slog.Handler {
	return levelled{l.Handler.WithAttrs(attrs)}
}
func (l levelled) WithGroup(name string) slog.Handler { return levelled{l.Handler.WithGroup(name)} }

// Office is where letters wait and leave.
type Office struct{ client *river.Client[pgx.Tx] }

// letter is one to be handed over.
type letter struct {
	ID uuid.UUID `json:"id"`
}

// Kind names it in the queue.
func (letter) Kind() string { return "letter" }

// Letters are tried for so long: a mail server may be away for days.
const (
	mostTries  = 300
	letterTime = 30 * time.Second
	mostWait   = 10 * time.Minute
)

type handOver struct {
	river.WorkerDefaults[letter]
	store *store.Store
	send  func(context.Context, mail.Letter) error
}

func (h *handOver) Timeout(*river.Job[letter]) time.Duration { return letterTime }

// NextRetry tries again soon at first, then every ten minutes.
func (h *handOver) NextRetry(j *river.Job[letter]) time.Time {
	return time.Now().Add(min(time.Second<<min(j.Attempt, 10), mostWait))
}

func (h *handOver) Work(ctx context.Context, j *river.Job[letter]) error {
	l, err := h.store.Letter(ctx, j.Args.ID)
	if errors.Is(err, store.ErrNotFound) || err == nil && l.Sent != nil { // it has left already
		return nil
	}
	if err != nil {
		return err
	}
	if err := h.send(ctx, mail.Letter{ID: l.ID.String(), To: l.To, Subject: l.Subject, Says: l.Says}); err != nil {
		return err
	}
	return h.store.LetterSent(ctx, l.ID, time.Now())
}

// sweep forgets what is counted no longer.
type sweep struct{}

// Kind names it in the queue.
func (sweep) Kind() string { return "sweep" }

type sweeper struct {
	river.WorkerDefaults[sweep]
	store *store.Store
}

func (s *sweeper) Work(ctx context.Context, _ *river.Job[sweep]) error {
	return s.store.SweepAttempts(ctx, time.Now())
}

// Open opens an office over a store; letters are handed to send, links in them begin with
// address; read reads the logs that have to be read again, nil: nobody does.
func Open(
	s *store.Store,
	send func(context.Context, mail.Letter) error,
	address string,
	read func(context.Context) error,
) (*Office, error) {
	office := &Office{}
	workers := river.NewWorkers()
	river.AddWorker(workers, &reminder{store: s, office: office, address: address})
	river.AddWorker(workers, &summariser{store: s, office: office, address: address})
	river.AddWorker(workers, &handOver{store: s, send: send})
	river.AddWorker(workers, &sweeper{store: s})
	river.AddWorker(workers, &logReader{read: read})
	client, err := river.NewClient(riverpgxv5.New(s.Pool), &river.Config{
		Schema:  schema,
		Logger:  quiet(),
		Queues:  map[string]river.QueueConfig{river.QueueDefault: {MaxWorkers: 4}},
		Workers: workers,
		PeriodicJobs: []*river.PeriodicJob{
			river.NewPeriodicJob(river.PeriodicInterval(time.Hour), func() (river.JobArgs, *river.InsertOpts) { return sweep{}, nil }, nil),
			river.NewPeriodicJob(river.PeriodicInterval(remindEvery), func() (river.JobArgs, *river.InsertOpts) { return remind{}, nil }, nil),
			river.NewPeriodicJob(river.PeriodicInterval(remindEvery), func() (river.JobArgs, *river.InsertOpts) { return summarise{}, nil }, nil),
			river.NewPeriodicJob(river.PeriodicInterval(readEvery), readings, &river.PeriodicJobOpts{RunOnStart: true}),
		},
		FetchCooldown:     100 * time.Millisecond,
		FetchPollInterval: time.Second,
	})
	if err != nil {
		return nil, err
	}
	office.client = client
	return office, nil
}

// Start begins to work until Stop; what is under way then is finished first.
func (o *Office) Start(ctx context.Context) error { return o.client.Start(ctx) }

// Stop ends it.
func (o *Office) Stop(ctx context.Context) error { return o.client.Stop(ctx) }

// Send leaves a letter with the transaction: it goes once that is kept.
func (o *Office) Send(ctx context.Context, tx pgx.Tx, l store.Letter, now time.Time) error {
	_, err := o.send(ctx, tx, l, now)
	return err
}

// sendOnce is Send for a letter that may have been left before; it says whether it was not.
func (o *Office) sendOnce(ctx context.Context, tx *store.Tx, l store.Letter, now time.Time) (bool, error) {
	return o.send(ctx, tx.Raw(), l, now)
}

func (o *Office) send(ctx context.Context, tx pgx.Tx, l store.Letter, now time.Time) (bool, error) {
	fresh, err := store.AddLetter(ctx, tx, l, now)
	if err != nil || !fresh { // it waits, or has left, already
		return false, err
	}
	_, err = o.client.InsertTx(ctx, tx, letter{l.ID}, &river.InsertOpts{MaxAttempts: mostTries})
	return true, err
}
