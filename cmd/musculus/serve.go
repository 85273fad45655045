package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"net/netip"
	"os"
	"os/signal"
	"strings"
	"syscall"
	"time"

	"musculus/internal/httpapi"
	"musculus/internal/jobs"
	"musculus/internal/live"
	"musculus/internal/mail"
	"musculus/internal/photos"

	"musculus/internal/store"
	"musculus/web"
)

func runServe(args []string) int {
	flags := flag.NewFlagSet("serve", flag.ExitOnError)
	database := flags.String(
		"database-url",
		"",
		"the database, with the role that owns nothing; better in "+databaseEnv+" or "+databaseEnv+"_FILE",
	)
	migrate := flags.String(
		"migrate-url",
		"",
		"the database, with the role that owns the schema, or "+migrateEnv+"; without it nothing is migrated",
	)
	listen := flags.String("listen", "127.0.0.1:8321", "address to listen on")
	address := flags.String("address", "", "the address people use, for links in letters; without it http://LISTEN")
	files := flags.String("files", "musculus-files", "folder where clients' photos are kept")
	tls := flags.Bool("behind-tls", false, "the address people use is https: cookies are Secure")
	proxies := flags.String(
		"trusted-proxy",
		"",
		"addresses of proxies whose word on where a request comes from is taken, such as 10.0.0.0/8,127.0.0.1/32",
	)
	_ = flags.Parse(args)
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if err := serve(ctx, stop, *database, *migrate, *listen, *address, *files, *proxies, *tls); err != nil {
		return fail(err)
	}
	return 0
}

func serve(ctx context.Context, stop func(), database, migrate, listen, address, files, proxies string, tls bool) error {
	databaseURL, err := secretOf(database, databaseEnv)
	if err != nil {
		return err
	}
	migrateURL, err := secretOf(migrate, migrateEnv)
	if err != nil {
		return err
	}
	mailURL, err := secretOf("", mailEnv)
	if err != nil {
		return err
	}
	if databaseURL == "" {
		return errors.New("serve needs a database: --database-url, " + databaseEnv + " or " + databaseEnv + "_FILE")
	}
	if !tls && !onlyHere(listen) {
		return fmt.Errorf("%s can be reached from elsewhere, and what is sent there could be read on the way: "+
			"put a proxy with TLS in front and say --behind-tls, or listen on 127.0.0.1", listen)
	}
	if address == "" {
		address = "http://" + listen
	}
	trusted, err := prefixes(proxies)
	if err != nil {
		return err
	}
	if migrateURL != "" {
		if err := errors.Join(store.Migrate(ctx, migrateURL, databaseURL), jobs.Migrate(ctx, migrateURL, databaseURL)); err != nil {
			return err
		}
	}
	s, err := store.Open(ctx, databaseURL)
	if err != nil {
		return err
	}
	defer s.Close()
	if err := fitRole(ctx, s, stop); err != nil {
		return err
	}
	config := httpapi.Config{
		Store: s, Photos: photos.Folder(files), Web: web.Dist(), BehindTLS: tls, Proxies: trusted, Address: address,
	}
	if mailURL != "" {
		send, err := mail.New(mailURL)
		if err != nil {
			return err
		}
		office, err := openOffice(ctx, s, send, address)
		if err != nil {
			return err
		}
		defer closeOffice(office)
		config.Post = office
	}
	return listenAndServe(ctx, listen, config, func() {
		fmt.Printf("Musculus serves at %s\n", address)
		if mailURL == "" {
			fmt.Printf(
				"No letters are sent from here: %s is not set. Invitations are copied, forgotten passwords reset with `musculus account reset`.\n",
				mailEnv,
			)
		}
		if err := sayFirstOwner(ctx, s, address); err != nil {
			slog.Error("the first owner's link", "err", err.Error())
		}
	})
}

// sayFirstOwner prints the link that begins the first studio, where there is none.
func sayFirstOwner(ctx context.Context, s *store.Store, address string) error {
	token, err := s.FirstOwnerLink(ctx, time.Now())
	if err != nil || token == "" {
		return err
	}
	fmt.Printf(
		"\nThere is no studio here yet. Whoever opens this link begins one and is its owner; it opens once, within %d hours:\n\n  %s/once/%s\n\n",
		int(store.FirstOwnerFor.Hours()),
		strings.TrimSuffix(address, "/"),
		token,
	)
	return nil
}

func openOffice(ctx context.Context, s *store.Store, send *mail.Sender, address string) (*jobs.Office, error) {
	office, err := jobs.Open(s, send.Send, strings.TrimSuffix(address, "/"), httpapi.ReadAgain(s))
	if err != nil {
		return nil, err
	}
	return office, office.Start(context.WithoutCancel(ctx))
}

// closeOffice lets the letters that are being handed over finish.
func closeOffice(office *jobs.Office) {
	ctx, cancel := context.WithTimeout(context.Background(), 10*time.Second)
	defer cancel()
	if err := office.Stop(ctx); err != nil {
		slog.Warn("letters were still being handed over; they are tried again", "err", err.Error())
	}
}

// onlyHere says whether an address can be reached from this machine alone.
func onlyHere(listen string) bool {
	host, _, err := net.SplitHostPort(listen)
	if err != nil {
		return false
	}
	ip := net.ParseIP(host)
	return host == "localhost" || ip != nil && ip.IsLoopback()
}

// prefixes reads addresses of proxies.
func prefixes(list string) (out []netip.Prefix, err error) {
	for _, one := range strings.FieldsFunc(list, func(r rune) bool { return r == ',' || r == ' ' }) {
		if !strings.Contains(one, "/") {
			one += "/128"
			if strings.Contains(one, ".") {
				one = strings.TrimSuffix(one, "/128") + "/32"
			}
		}
		p, err := netip.ParsePrefix(one)
		if err != nil {
			return nil, fmt.Errorf("--trusted-proxy: %w", err)
		}
		out = append(out, p)
	}
	return out, nil
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
	c.Live = live.NewHub()
	go c.Live.Run(ctx, c.Store.Pool)

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
	c.Live.Close() // streams end by themselves only when told to
	grace, cancel := context.WithTimeout(context.Background(), 10*time.Second)
	defer cancel()
	return server.Shutdown(grace)
}
