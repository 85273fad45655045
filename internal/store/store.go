package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"net"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/pgx/v5/pgxpool"
	_ "github.com/jackc/pgx/v5/stdlib" // goose speaks database/sql
	"github.com/pressly/goose/v3"

	"musculus/internal/store/db"
)

//go:embed migrations/*.sql
var migrations embed.FS

// ErrNotFound says that there is no such row in the studio.
var ErrNotFound = errors.New("not found")

// ErrAway says that the database cannot be reached; nothing was written.
var ErrAway = errors.New("the database cannot be reached")

// Store is the pool of connections of the role that owns nothing.
type Store struct {
	Pool *pgxpool.Pool
	read *read
}

// Open connects; the database may still be away.
func Open(ctx context.Context, url string) (*Store, error) {
	config, err := pgxpool.ParseConfig(url)
	if err != nil {
		return nil, err
	}
	config.MaxConns = 16
	config.ConnConfig.ConnectTimeout = 3 * time.Second
	config.ConnConfig.Tracer = watcher{}
	config.AfterConnect = func(_ context.Context, conn *pgx.Conn) error {
		speakDays(conn.TypeMap())
		return nil
	}
	pool, err := pgxpool.NewWithConfig(ctx, config)
	if err != nil {
		return nil, err
	}
	return &Store{pool, newRead()}, nil
}

// Close ends the pool.
func (s *Store) Close() { s.Pool.Close() }

// appendOnly tables may be read and added to, never changed.
var appendOnly = []string{
	"session_version",
	"set_entry",
	"dossier_change",
	"screening_round",
	"joint_report",
	"verdict_override",
	"pose_rating",
	"try_out",
	"studio_event",
	"accepted_finding",
	"issued_sheet",
	"measuring_version",
	"floor_event",
	"decision",
}

// erasing are the functions that take out of those what the role itself may not;
// nobody else may call them.
var erasing = []string{"erase_client(uuid)", "erase_consented(uuid, text, uuid)"}

// Migrate brings the schema up to date with the role that owns it and grants
// the app's role what it needs.
func Migrate(ctx context.Context, migrateURL, appURL string) error {
	conn, err := sql.Open("pgx", migrateURL)
	if err != nil {
		return err
	}
	defer conn.Close()
	// goose looks for the folder's files at the root.
	sub, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	provider, err := goose.NewProvider(goose.DialectPostgres, conn, sub)
	if err != nil {
		return err
	}
	if _, err := provider.Up(ctx); err != nil {
		return fmt.Errorf("migrate: %w", err)
	}
	app, err := pgx.ParseConfig(appURL)
	if err != nil {
		return err
	}
	role := pgx.Identifier{app.User}.Sanitize()
	grants := "GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO " + role
	for _, table := range appendOnly {
		grants += "; REVOKE UPDATE, DELETE ON " + table + " FROM " + role
	}
	for _, f := range erasing {
		grants += "; GRANT EXECUTE ON FUNCTION " + f + " TO " + role
	}
	grants += "; REVOKE ALL ON goose_db_version FROM " + role
	if _, err := conn.ExecContext(ctx, grants); err != nil {
		return fmt.Errorf("grant: %w", err)
	}
	return nil
}

// Tx is one transaction inside one studio.
type Tx struct {
	q  *db.Queries
	tx pgx.Tx
	setting
	read *read
}

// In runs do in one transaction that sees only the given studio's rows; it is
// committed when do returns nil. Errors of the connection come back as ErrAway.
func (s *Store) In(ctx context.Context, studio uuid.UUID, do func(*Tx) error) error {
	// Local to the transaction: a pooled connection never carries it on. Both
	// statements go in one round trip; an id needs no quoting.
	begin := "begin; select set_config('musculus.studio', '" + studio.String() + "', true)"
	return classify(pgx.BeginTxFunc(ctx, s.Pool, pgx.TxOptions{BeginQuery: begin}, func(tx pgx.Tx) error {
		return do(&Tx{db.New(tx), tx, settingOf(ctx), s.read})
	}))
}

// classify tells a lost database from everything else.
func classify(err error) error {
	switch {
	case err == nil:
		return nil
	case errors.Is(err, pgx.ErrNoRows):
		return ErrNotFound
	case Away(err):
		return fmt.Errorf("%w: %w", ErrAway, err)
	}
	return err
}

// Away says whether an error means that the database cannot be reached.
func Away(err error) bool {
	var connect *pgconn.ConnectError
	var network net.Error
	var answer *pgconn.PgError
	switch {
	case errors.Is(err, ErrAway), errors.As(err, &connect), errors.As(err, &network):
		return true
	case errors.As(err, &answer): // 57P01–57P03: shutting down, crashed, starting up; 08: connection
		return answer.Code[:3] == "57P" || answer.Code[:2] == "08"
	}
	return pgconn.SafeToRetry(err) || errors.Is(err, net.ErrClosed) || errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF)
}
