// Package localpg runs a private PostgreSQL on loopback, from Debian's server
// package, for the demo and the tests: own data folder, own free port, own
// passwords, never the system's cluster. It knows nothing of the product.
package localpg

import (
	"context"
	"crypto/rand"
	"encoding/json"
	"errors"
	"fmt"
	"net"
	"os"
	"os/exec"
	"os/user"
	"path/filepath"
	"runtime"
	"slices"
	"strconv"
	"strings"
	"syscall"
	"time"

	"github.com/jackc/pgx/v5"
)

// ErrNoServer says that PostgreSQL's server programs are not installed.
var ErrNoServer = errors.New("the PostgreSQL server is not installed; as root: apt-get install postgresql")

// Options says how a server is run.
type Options struct {
	Dir    string // data folder; made when it does not exist
	NoSync bool   // fsync off: for tests only
}

// Server is a running private PostgreSQL.
type Server struct {
	dir     string
	port    int
	secrets secrets
	cmd     *exec.Cmd
	done    chan struct{} // closed when the server has ended
}

// secrets are the passwords of a data folder, kept beside it.
type secrets struct {
	Superuser string `json:"superuser"`
	Owner     string `json:"owner"`
	App       string `json:"app"`
}

// Roles of every database: the owner migrates, the app owns nothing.
const (
	superuser = "postgres"
	owner     = "musculus_owner"
	app       = "musculus_app"
)

// Start initialises the data folder if it is new and runs the server on a free
// port of 127.0.0.1 until Stop, or until this process dies. As root it runs as
// the postgres user, since PostgreSQL refuses root.
func Start(ctx context.Context, o Options) (*Server, error) {
	bin, err := programs()
	if err != nil {
		return nil, err
	}
	as, err := serverUser()
	if err != nil {
		return nil, err
	}
	s := &Server{dir: o.Dir, done: make(chan struct{})}
	if err := s.prepare(ctx, bin, as); err != nil {
		return nil, err
	}
	if s.port, err = freePort(); err != nil {
		return nil, err
	}
	if err := s.run(bin, as, o.NoSync); err != nil {
		return nil, err
	}
	if err := s.await(ctx); err != nil {
		s.Stop()
		return nil, err
	}
	return s, s.roles(ctx)
}

// programs finds the folder of the newest installed server.
func programs() (string, error) {
	found, _ := filepath.Glob("/usr/lib/postgresql/*/bin/initdb")
	if len(found) == 0 {
		return "", ErrNoServer
	}
	version := func(path string) int {
		n, _ := strconv.Atoi(filepath.Base(filepath.Dir(filepath.Dir(path))))
		return n
	}
	return filepath.Dir(slices.MaxFunc(found, func(a, b string) int { return version(a) - version(b) })), nil
}

// serverUser is whom the server runs as: nil for the current user, the postgres
// user for root.
func serverUser() (*syscall.Credential, error) {
	if os.Geteuid() != 0 {
		return nil, nil
	}
	u, err := user.Lookup("postgres")
	if err != nil {
		return nil, fmt.Errorf("PostgreSQL refuses to run as root and there is no postgres user: %w", err)
	}
	uid, _ := strconv.Atoi(u.Uid)
	gid, _ := strconv.Atoi(u.Gid)
	return &syscall.Credential{Uid: uint32(uid), Gid: uint32(gid)}, nil
}

func (s *Server) data() string        { return filepath.Join(s.dir, "data") }
func (s *Server) secretsFile() string { return filepath.Join(s.dir, "secrets.json") }
func (s *Server) logFile() string     { return filepath.Join(s.dir, "postgres.log") }

// prepare makes the data folder, or takes over one whose last server was not
// stopped.
func (s *Server) prepare(ctx context.Context, bin string, as *syscall.Credential) error {
	if err := os.MkdirAll(s.dir, 0o755); err != nil {
		return err
	}
	if b, err := os.ReadFile(s.secretsFile()); err == nil {
		if err := json.Unmarshal(b, &s.secrets); err != nil {
			return fmt.Errorf("%s: %w", s.secretsFile(), err)
		}
		return s.stopLeftover(bin, as)
	}
	if err := os.RemoveAll(s.data()); err != nil {
		return err
	}
	if err := os.Mkdir(s.data(), 0o700); err != nil {
		return err
	}
	if as != nil {
		if err := os.Chown(s.data(), int(as.Uid), int(as.Gid)); err != nil {
			return err
		}
	}
	s.secrets = secrets{rand.Text(), rand.Text(), rand.Text()}
	password := filepath.Join(s.data(), "..", "pw")
	if err := os.WriteFile(password, []byte(s.secrets.Superuser), 0o600); err != nil {
		return err
	}
	defer os.Remove(password)
	if as != nil {
		if err := os.Chown(password, int(as.Uid), int(as.Gid)); err != nil {
			return err
		}
	}
	cmd := exec.CommandContext(ctx, filepath.Join(bin, "initdb"), "-D", s.data(), "-U", superuser, "-E", "UTF8", "--locale=C.UTF-8",
		"--auth=scram-sha-256", "--pwfile="+password, "--no-sync")
	cmd.SysProcAttr = &syscall.SysProcAttr{Credential: as}
	cmd.Dir = "/"
	if out, err := cmd.CombinedOutput(); err != nil {
		return fmt.Errorf("initdb: %w\n%s", err, out)
	}
	b, err := json.Marshal(s.secrets)
	if err != nil {
		return err
	}
	return os.WriteFile(s.secretsFile(), b, 0o600) // last: it says that the folder is complete
}

// stopLeftover ends a server that still runs on the data folder.
func (s *Server) stopLeftover(bin string, as *syscall.Credential) error {
	if _, err := os.Stat(filepath.Join(s.data(), "postmaster.pid")); err != nil {
		return nil
	}
	cmd := exec.Command(filepath.Join(bin, "pg_ctl"), "stop", "-D", s.data(), "-m", "fast", "-w", "-t", "30")
	cmd.SysProcAttr = &syscall.SysProcAttr{Credential: as}
	cmd.Dir = "/"
	_ = cmd.Run() // fails when the pid file is stale, which PostgreSQL sorts out itself
	return nil
}

// freePort asks the system for one.
func freePort() (int, error) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return 0, err
	}
	defer l.Close()
	return l.Addr().(*net.TCPAddr).Port, nil
}

// run starts the server so that it gets a fast shutdown when this process dies.
func (s *Server) run(bin string, as *syscall.Credential, noSync bool) error {
	args := []string{"-D", s.data(), "-p", strconv.Itoa(s.port), "-c", "listen_addresses=127.0.0.1", "-c", "unix_socket_directories=",
		"-c", "max_connections=60", "-c", "log_min_messages=warning"}
	if noSync {
		args = append(args, "-c", "fsync=off", "-c", "synchronous_commit=off", "-c", "full_page_writes=off")
	}
	log, err := os.OpenFile(s.logFile(), os.O_CREATE|os.O_WRONLY|os.O_APPEND, 0o600)
	if err != nil {
		return err
	}
	cmd := exec.Command(filepath.Join(bin, "postgres"), args...)
	cmd.Dir = "/"
	cmd.Stdout, cmd.Stderr = log, log
	// Its own process group: a Ctrl-C at the terminal is for us, and we stop the
	// server after the requests under way.
	cmd.SysProcAttr = &syscall.SysProcAttr{Credential: as, Setpgid: true, Pdeathsig: syscall.SIGINT}
	started := make(chan error)
	go func() {
		// The parent-death signal follows the thread, so it must outlive the server.
		runtime.LockOSThread()
		err := cmd.Start()
		started <- err
		if err == nil {
			_ = cmd.Wait()
		}
		log.Close()
		close(s.done)
	}()
	s.cmd = cmd
	return <-started
}

// await waits until the server answers.
func (s *Server) await(ctx context.Context) error {
	ctx, cancel := context.WithTimeout(ctx, 30*time.Second)
	defer cancel()
	for {
		conn, err := pgx.Connect(ctx, s.url(superuser, s.secrets.Superuser, "postgres"))
		if err == nil {
			return conn.Close(ctx)
		}
		select {
		case <-s.done:
			tail, _ := os.ReadFile(s.logFile())
			return fmt.Errorf("PostgreSQL ended at once: %s", tail[max(0, len(tail)-2000):])
		case <-ctx.Done():
			return fmt.Errorf("PostgreSQL did not answer: %w", err)
		case <-time.After(20 * time.Millisecond):
		}
	}
}

// roles makes the two roles every database uses.
func (s *Server) roles(ctx context.Context) error {
	return s.admin(ctx, func(conn *pgx.Conn) error {
		for role, password := range map[string]string{owner: s.secrets.Owner, app: s.secrets.App} {
			var there bool
			if err := conn.QueryRow(ctx, "SELECT EXISTS (SELECT 1 FROM pg_roles WHERE rolname = $1)", role).Scan(&there); err != nil {
				return err
			}
			if there {
				continue
			}
			if _, err := conn.Exec(ctx, fmt.Sprintf("CREATE ROLE %s LOGIN PASSWORD '%s'", role, password)); err != nil {
				return err
			}
		}
		return nil
	})
}

func (s *Server) admin(ctx context.Context, do func(*pgx.Conn) error) error {
	conn, err := pgx.Connect(ctx, s.url(superuser, s.secrets.Superuser, "postgres"))
	if err != nil {
		return err
	}
	defer conn.Close(ctx)
	return do(conn)
}

func (s *Server) url(role, password, database string) string {
	return fmt.Sprintf("postgres://%s:%s@127.0.0.1:%d/%s?sslmode=disable", role, password, s.port, database)
}

// Database is one database's two addresses.
type Database struct {
	MigrateURL string // owns the schema
	URL        string // owns nothing
}

// Database makes the database if it is not there, as a copy of template unless
// that is empty. Names are the caller's: they must be plain identifiers.
func (s *Server) Database(ctx context.Context, name, template string) (Database, error) {
	d := Database{s.url(owner, s.secrets.Owner, name), s.url(app, s.secrets.App, name)}
	if strings.Trim(name, "abcdefghijklmnopqrstuvwxyz0123456789_") != "" {
		return d, fmt.Errorf("%q is no plain database name", name)
	}
	return d, s.admin(ctx, func(conn *pgx.Conn) error {
		var there bool
		if err := conn.QueryRow(ctx, "SELECT EXISTS (SELECT 1 FROM pg_database WHERE datname = $1)", name).Scan(&there); err != nil || there {
			return err
		}
		sql := "CREATE DATABASE " + name + " OWNER " + owner
		if template != "" {
			sql += " TEMPLATE " + template
		}
		_, err := conn.Exec(ctx, sql)
		return err
	})
}

// AdminURL is a database as the server's superuser opens it. For tests.
func (s *Server) AdminURL(database string) string {
	return s.url(superuser, s.secrets.Superuser, database)
}

// Restart stops the server and starts it again on the same port after a pause.
// For tests of what a lost database does.
func (s *Server) Restart(ctx context.Context, pause time.Duration) error {
	bin, err := programs()
	if err != nil {
		return err
	}
	as, err := serverUser()
	if err != nil {
		return err
	}
	if err := s.Stop(); err != nil {
		return err
	}
	select {
	case <-ctx.Done():
		return ctx.Err()
	case <-time.After(pause):
	}
	s.done = make(chan struct{})
	if err := s.run(bin, as, false); err != nil {
		return err
	}
	return s.await(ctx)
}

// Stop asks for a fast shutdown and waits for it.
func (s *Server) Stop() error {
	if s.cmd == nil || s.cmd.Process == nil {
		return nil
	}
	_ = s.cmd.Process.Signal(syscall.SIGINT)
	select {
	case <-s.done:
		return nil
	case <-time.After(20 * time.Second):
		_ = s.cmd.Process.Kill()
		<-s.done
		return errors.New("PostgreSQL did not stop in 20 s and was killed")
	}
}
