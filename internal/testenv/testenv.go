// Package testenv gives tests a real PostgreSQL: one private server for a test
// binary, one fresh database for a test, copied from a migrated template.
package testenv

import (
	"context"
	"errors"
	"fmt"
	"os"
	"strings"
	"sync"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/require"

	"musculus/internal/jobs"
	"musculus/internal/localpg"
	"musculus/internal/store"
)

var (
	server *localpg.Server
	count  atomic.Int64
)

const template = "template_musculus"

// Main runs a package's tests with a server of their own; call it from TestMain.
func Main(m *testing.M) int {
	dir, err := os.MkdirTemp("", "musculus-test-")
	if err != nil {
		panic(err)
	}
	defer os.RemoveAll(dir)
	if err := os.Chmod(dir, 0o755); err != nil { // the server's user must get in
		panic(err)
	}
	ctx := context.Background()
	server, err = localpg.Start(ctx, localpg.Options{Dir: dir, NoSync: true})
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	defer server.Stop()
	db, err := server.Database(ctx, template, "")
	if err == nil {
		err = errors.Join(store.Migrate(ctx, db.MigrateURL, db.URL), jobs.Migrate(ctx, db.MigrateURL, db.URL))
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	return m.Run()
}

// Database makes a fresh migrated database.
func Database(t testing.TB) localpg.Database {
	db, err := server.Database(context.Background(), fmt.Sprintf("test_%d", count.Add(1)), template)
	require.NoError(t, err)
	return db
}

// filled are databases that are copied rather than filled again, by what fills them.
var filled struct {
	sync.Mutex
	names map[string]string
}

// Filled makes a fresh database filled by something that is always the same for a key: it is done
// once and copied.
func Filled(t testing.TB, key string, fill func(*store.Store) error) localpg.Database {
	t.Helper()
	ctx := context.Background()
	filled.Lock()
	defer filled.Unlock()
	name, there := filled.names[key]
	if !there {
		name = fmt.Sprintf("filled_%d", len(filled.names))
		db, err := server.Database(ctx, name, template)
		require.NoError(t, err)
		s, err := store.Open(ctx, db.URL)
		require.NoError(t, err)
		err = fill(s)
		s.Close() // nobody may look at what is copied
		require.NoError(t, err)
		if filled.names == nil {
			filled.names = map[string]string{}
		}
		filled.names[key] = name
	}
	db, err := server.Database(ctx, fmt.Sprintf("test_%d", count.Add(1)), name)
	require.NoError(t, err)
	return db
}

// Store opens a store on a fresh database.
func Store(t testing.TB) *store.Store {
	s, err := store.Open(context.Background(), Database(t).URL)
	require.NoError(t, err)
	t.Cleanup(s.Close)
	return s
}

// AdminURL is a database as the superuser opens it, by its app's address.
func AdminURL(d localpg.Database) string {
	name := d.URL[strings.LastIndex(d.URL, "/")+1:]
	name, _, _ = strings.Cut(name, "?")
	return server.AdminURL(name)
}

// Empty makes a database with nothing in it, not even the schema.
func Empty(t testing.TB) localpg.Database {
	db, err := server.Database(context.Background(), fmt.Sprintf("test_%d", count.Add(1)), "")
	require.NoError(t, err)
	return db
}
