package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"os"
	"strings"
	"text/tabwriter"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/text"
	"musculus/internal/store"
)

const accountUsage = `usage: musculus account [flags] WHAT
  list                              studios and who belongs to them
  studio-add NAME EMAIL OWNER       begin a studio; prints its owner's link
  add STUDIO EMAIL ROLE             ask somebody to join; prints the link (role: owner, coach, assistant)
  reset EMAIL                       prints a link to a new password
  disable STUDIO EMAIL              shut somebody out of a studio, enable STUDIO EMAIL lets in again
A studio is named by its id or its name. Passwords are typed by their owners, never here.`

// runAccount does what must work without a browser, and without anybody signed in.
func runAccount(args []string) int {
	flags := flag.NewFlagSet("account", flag.ExitOnError)
	database := flags.String("database-url", "", "the database, or "+databaseEnv+" or "+databaseEnv+"_FILE")
	address := flags.String("address", "http://127.0.0.1:8321", "the address people use, for links")
	flags.Usage = func() {
		fmt.Fprintln(os.Stderr, accountUsage)
		flags.PrintDefaults()
	}
	_ = flags.Parse(args)
	url, err := secretOf(*database, databaseEnv)
	if err == nil && url == "" {
		err = errors.New("account needs a database: --database-url, " + databaseEnv + " or " + databaseEnv + "_FILE")
	}
	if err != nil {
		return fail(err)
	}
	ctx := context.Background()
	s, err := store.Open(ctx, url)
	if err != nil {
		return fail(err)
	}
	defer s.Close()
	if err := s.CheckRole(ctx); err != nil {
		return fail(err)
	}
	if err := account(ctx, s, strings.TrimSuffix(*address, "/"), flags.Args()); err != nil {
		return fail(err)
	}
	return 0
}

func account(ctx context.Context, s *store.Store, address string, args []string) error {
	what := ""
	if len(args) > 0 {
		what = args[0]
	}
	switch {
	case what == "list" && len(args) == 1:
		return listAccounts(ctx, s)
	case what == "studio-add" && len(args) == 4:
		return addStudio(ctx, s, address, args[1], args[2], args[3])
	case what == "add" && len(args) == 4:
		return inviteTo(ctx, s, address, args[1], args[2], store.Role(args[3]))
	case what == "reset" && len(args) == 2:
		return resetPassword(ctx, s, address, args[1])
	case (what == "disable" || what == "enable") && len(args) == 3:
		return disable(ctx, s, args[1], args[2], what == "disable")
	}
	return errors.New("there is no such thing to do with accounts\n" + strings.TrimSuffix(accountUsage, "."))
}

func listAccounts(ctx context.Context, s *store.Store) error {
	studios, err := s.Studios(ctx)
	if err != nil {
		return err
	}
	out := tabwriter.NewWriter(os.Stdout, 2, 4, 2, ' ', 0)
	for _, st := range studios {
		fmt.Fprintf(out, "%s\t%s\n", st.Name, st.ID)
		if err := s.In(ctx, st.ID, func(tx *store.Tx) error {
			list, err := tx.Colleagues(ctx)
			for _, c := range list {
				state := ""
				if c.Disabled != nil {
					state = "disabled"
				}
				fmt.Fprintf(out, "  %s\t%s\t%s\t%s\n", c.Email, c.Name, c.Role, state)
			}
			return err
		}); err != nil {
			return err
		}
	}
	return out.Flush()
}

// studioOf is a studio by its id or its name.
func studioOf(ctx context.Context, s *store.Store, named string) (uuid.UUID, error) {
	studios, err := s.Studios(ctx)
	if err != nil {
		return uuid.Nil, err
	}
	var found []uuid.UUID
	for _, st := range studios {
		if st.ID.String() == named || st.Name == named {
			found = append(found, st.ID)
		}
	}
	if len(found) != 1 {
		return uuid.Nil, fmt.Errorf("%d studios are called %q; `musculus account list` tells their ids", len(found), named)
	}
	return found[0], nil
}

func addStudio(ctx context.Context, s *store.Store, address, name, email, owner string) error {
	if !text.IsAddress(email) || strings.TrimSpace(name) == "" || strings.TrimSpace(owner) == "" {
		return errors.New("a name of the studio, an e-mail address and a name of its owner, please")
	}
	login, err := s.LoginOf(ctx, email)
	if err != nil {
		return err
	}
	studio, id := uuid.Must(uuid.NewV7()), uuid.Must(uuid.NewV7())
	a := store.Account{ID: id, Studio: studio, Login: login.ID, Email: email, Name: owner, Role: store.Owner}
	if err := s.In(ctx, studio, func(tx *store.Tx) error {
		if err := tx.AddStudio(ctx, studio, name); err != nil {
			return err
		}
		return tx.AddAccount(ctx, a, store.NewToken()+store.NewToken()) // nobody knows it; the link sets another
	}); err != nil {
		return err
	}
	fmt.Printf("%s begins, with %s as its owner.\n", name, email)
	if login.ID != uuid.Nil {
		return nil // who signs in already does so here too
	}
	return resetPassword(ctx, s, address, email)
}

func inviteTo(ctx context.Context, s *store.Store, address, named, email string, role store.Role) error {
	if role != store.Owner && role != store.Coach && role != store.Assistant {
		return errors.New("a role is owner, coach or assistant")
	}
	if !text.IsAddress(email) {
		return errors.New("an e-mail address, please")
	}
	studio, err := studioOf(ctx, s, named)
	if err != nil {
		return err
	}
	return s.In(ctx, studio, func(tx *store.Tx) error {
		list, err := tx.Colleagues(ctx)
		if err != nil {
			return err
		}
		for _, c := range list {
			if c.Role == store.Owner && c.Disabled == nil {
				token, _, err := tx.Invite(ctx, c.Account, uuid.New(), email, role, time.Now(), true)
				if err == nil {
					fmt.Printf(
						"It opens once, within %d hours:\n  %s/once/%s\n",
						int(store.InvitationFor.Hours()),
						address,
						token,
					)
				}
				return err
			}
		}
		return errors.New("the studio has no owner who could ask somebody")
	})
}

func resetPassword(ctx context.Context, s *store.Store, address, email string) error {
	login, err := s.LoginOf(ctx, email)
	if err != nil {
		return err
	}
	if login.ID == uuid.Nil {
		return errors.New("nobody signs in with this address")
	}
	return s.InLogin(ctx, login.ID, func(tx *store.LoginTx) error {
		token, err := tx.NewPassword(ctx, login.Email, time.Now())
		if err == nil {
			fmt.Printf(
				"A new password is set here, once, within %d minutes:\n  %s/once/%s\n",
				int(store.NewPasswordFor.Minutes()),
				address,
				token,
			)
		}
		return err
	})
}

func disable(ctx context.Context, s *store.Store, named, email string, off bool) error {
	studio, err := studioOf(ctx, s, named)
	if err != nil {
		return err
	}
	return s.In(ctx, studio, func(tx *store.Tx) error {
		list, err := tx.Colleagues(ctx)
		if err != nil {
			return err
		}
		for _, c := range list {
			if c.Email != text.Address(email) {
				continue
			}
			var at *time.Time
			if off {
				now := time.Now()
				at = &now
			}
			return tx.SetAccount(ctx, c.ID, c.Role, at)
		}
		return errors.New("nobody of this studio has this address")
	})
}
