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
	"syscall"
	"time"

	"musculus/internal/httpapi"
	"musculus/internal/photos"

	"musculus/internal/store"
	"musculus/web"
)

func runServe(args []string) int {
	flags := flag.NewFlagSet("serve", flag.ExitOnError)
	database := flags.String("database-url", "", "the database, with the role that owns nothing")
	migrate := flags.String("migrate-url", "", "the database, with the role that owns the schema; without it nothing is migrated")
	listen := flags.String("listen", "127.0.0.1:8321", "address to listen on")
	files := flags.String("files", "musculus-files", "folder where clients' photos are kept")
	tls := flags.Bool("behind-tls", false, "the address people use is https: cookies are Secure")
	_ = flags.Parse(args)
	if *database == "" {
		return fail(errors.New("serve needs --database-url"))
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if *migrate != "" {
		if err := store.Migrate(ctx, *migrate, *database); err != nil {
			return fail(err)
		}
	}
	s, err := store.Open(ctx, *database)
	if err != nil {
		return fail(err)
	}
	defer s.Close()
	if err := fitRole(ctx, s, stop); err != nil {
		return fail(err)
	}
	err = listenAndServe(ctx, *listen, httpapi.Config{Store: s, Photos: photos.Folder(*files), Web: web.Dist(), BehindTLS: *tls}, func() {
		fmt.Printf("Musculus serves at http://%s\n", *listen)
	})
	if err != nil {
		return fail(err)
	}
	return 0
}

// fitRole refuses a database role for which studios would not be kept apart. While
// the database is away it is asked again, and unfit ends the server then.
func fitRole(ctx context.Context, s *store.Store, unfit func()) error {
	err := s.CheckRole(ctx)
	if !errors.Is(err, store.ErrAway) {
		return err
	}
	slog.Warn("the database cannot be reached yet; its role is checked as soon as it can")
	go func() {
		for ctx.Err() == nil {
			time.Sleep(time.Second)
			switch err := s.CheckRole(ctx); {
			case err == nil:
				return
			case !errors.Is(err, store.ErrAway):
				slog.Error("unfit role", "err", err.Error())
				unfit()
				return
			}
		}
	}()
	return nil
}

// listenAndServe serves until ctx ends, then lets requests under way finish;
// ready is called once the address answers.
func listenAndServe(ctx context.Context, listen string, c httpapi.Config, ready func()) error {
	listener, err := net.Listen("tcp", listen)
	if err != nil {
		return err
	}
	go eraseRounds(ctx, c.Store, c.Photos)

	server := &http.Server{
		Handler:           httpapi.New(c),
		ReadHeaderTimeout: 10 * time.Second,
		ReadTimeout:       30 * time.Second,
		WriteTimeout:      60 * time.Second,
		IdleTimeout:       2 * time.Minute,
	}
	done := make(chan error, 1)
	go func() { done <- server.Serve(listener) }()
	ready()
	select {
	case err := <-done:
		return err
	case <-ctx.Done():
	}
	grace, cancel := context.WithTimeout(context.Background(), 10*time.Second)
	defer cancel()
	return server.Shutdown(grace)
}
