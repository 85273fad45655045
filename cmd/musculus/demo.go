package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"os"
	"os/signal"
	"path/filepath"
	"strconv"
	"syscall"
	"time"

	"musculus/internal/demo"
	"musculus/internal/httpapi"
	"musculus/internal/jobs"
	"musculus/internal/localpg"
	"musculus/internal/mail"
	"musculus/internal/photos"

	"musculus/internal/store"
	"musculus/web"
)

func runDemo(args []string) int {
	logLevel.Set(slog.LevelWarn)
	flags := flag.NewFlagSet("demo", flag.ExitOnError)
	dir := flags.String("dir", demoDir(), "folder of the demo's database")
	listen := flags.String("listen", "127.0.0.1:8321", "address to listen on")
	reset := flags.Bool("reset", false, "start afresh")
	_ = flags.Parse(args)
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if err := serveDemo(ctx, *dir, *listen, *reset); err != nil {
		return fail(err)
	}
	return 0
}

// demoDir is outside private homes for root, whose server runs as another user.
func demoDir() string {
	if os.Geteuid() == 0 {
		return "/var/lib/musculus-demo"
	}
	if dir := os.Getenv("XDG_DATA_HOME"); dir != "" {
		return filepath.Join(dir, "musculus-demo")
	}
	home, err := os.UserHomeDir()
	if err != nil {
		return filepath.Join(os.TempDir(), "musculus-demo")
	}
	return filepath.Join(home, ".local", "share", "musculus-demo")
}

func serveDemo(ctx context.Context, dir, listen string, reset bool) error {
	if !onlyHere(listen) {
		return fmt.Errorf("the demo's passwords are known to everybody: it serves on this machine alone, "+
			"such as 127.0.0.1:8321, not at %s", listen)
	}
	// Before anything is touched: is another one running here?
	probe, err := net.Listen("tcp", listen)
	if err != nil {
		return fmt.Errorf("%w (is the demo already running? another address: --listen 127.0.0.1:PORT)", err)
	}
	probe.Close()
	if reset {
		if err := clear(dir); err != nil {
			return err
		}
	}
	server, err := localpg.Start(ctx, localpg.Options{Dir: dir})
	if err != nil {
		return err
	}
	defer func() {
		if err := server.Stop(); err != nil {
			fmt.Fprintln(os.Stderr, "musculus:", err)
		}
	}()
	db, err := server.Database(ctx, "musculus", "")
	if err != nil {
		return err
	}
	if err := errors.Join(store.Migrate(ctx, db.MigrateURL, db.URL), jobs.Migrate(ctx, db.MigrateURL, db.URL)); err != nil {
		return err
	}
	s, err := store.Open(ctx, db.URL)
	if err != nil {
		return err
	}
	defer s.Close()
	if err := errors.Join(demo.Load(ctx, s, time.Now()), demo.HalfDone(ctx, s, time.Now()), demo.Histories(ctx, s, time.Now())); err != nil {
		return err
	}
	box, err := mail.OpenBox("127.0.0.1:0")
	if err != nil {
		return err
	}
	defer box.Close()
	send, err := mail.New(box.Address)
	if err != nil {
		return err
	}
	office, err := openOffice(ctx, s, send, "http://"+listen)
	if err != nil {
		return err
	}
	defer closeOffice(office)
	boxAt, err := serveBox(box, listen)
	if err != nil {
		return err
	}
	return listenAndServe(ctx, listen, httpapi.Config{
		Store: s, Photos: photos.Folder(dir + "-files"), Web: web.Dist(), Post: office, Address: "http://" + listen,
	}, func() {
		fmt.Printf("\nMusculus, with the made-up Saltmarsh Players: http://%s\n\n", listen)
		for _, a := range demo.SignIns {
			fmt.Printf("  %-10s %-24s password: %s\n", a.Role, a.Email, a.Password)
		}
		fmt.Printf("\nLetters go nowhere but into the letter-box: http://%s\n", boxAt)
		fmt.Print("\nCtrl-C stops it; the data stays. `make demo-reset` starts afresh.\n")
	})
}

// clear removes a demo's folder, and only one that is a demo's.
func clear(dir string) error {
	if _, err := os.Stat(dir); os.IsNotExist(err) {
		return nil
	}
	if _, err := os.Stat(filepath.Join(dir, "secrets.json")); err != nil {
		return fmt.Errorf("%s is no folder of the demo; it is left alone", dir)
	}
	return errors.Join(os.RemoveAll(dir), os.RemoveAll(dir+"-files"))
}

// serveBox shows the letter-box at the port after the demo's own, or at any that is free.
func serveBox(box *mail.Box, listen string) (string, error) {
	host, port, _ := net.SplitHostPort(listen)
	n, _ := strconv.Atoi(port)
	l, err := net.Listen("tcp", net.JoinHostPort(host, strconv.Itoa(n+1)))
	if err != nil {
		if l, err = net.Listen("tcp", net.JoinHostPort(host, "0")); err != nil {
			return "", err
		}
	}
	go func() { _ = http.Serve(l, box) }() // until the demo ends
	return l.Addr().String(), nil
}
