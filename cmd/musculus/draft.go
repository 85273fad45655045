package main

import (
	"bufio"
	"context"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"os"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/draft"
	"musculus/internal/formats"
	"musculus/internal/httpapi"
	"musculus/internal/store"
)

const draftUsage = `usage: musculus draft [flags] < problems.jsonl
  reads problems, one a line (docs/formats/draft.schema.json), and writes a composed week for each
  --lp                  writes the problem for an outside solver instead (docs/draft.md)
  --examples N          writes N made problems, one a line
  --client ID           writes the problem of a client's week from a database
`

// runDraft composes weeks without a browser.
func runDraft(args []string) int {
	flags := flag.NewFlagSet("draft", flag.ExitOnError)
	way := flags.String("way", string(draft.Robust), "what the week is for: robust, stance or least_time")
	lp := flags.Bool("lp", false, "write the problem in the text format of linear solvers")
	examples := flags.Int("examples", 0, "write so many made problems")
	seed := flags.Uint64("seed", 1, "of made problems, and of taste")
	steps := flags.Int("steps", 0, "how long to search; 0: as on the board")
	client := flags.String("client", "", "the id of a client in a database, whose problem is written")
	studio := flags.String("studio", "", "the client's studio, by id or name; may be left out where there is one")
	of := flags.String("of", "", "a day of the client's week; absent: next week")
	database := flags.String("database-url", "", "the database, or "+databaseEnv+" or "+databaseEnv+"_FILE")
	flags.Usage = func() {
		fmt.Fprint(os.Stderr, draftUsage)
		flags.PrintDefaults()
	}
	_ = flags.Parse(args)
	out := bufio.NewWriter(os.Stdout)
	defer out.Flush()
	switch {
	case *examples > 0:
		problems, err := draft.Examples(*seed, min(*examples, formats.MostDraftExamples))
		if err != nil {
			return fail(err)
		}
		for _, p := range problems {
			if err := json.NewEncoder(out).Encode(p); err != nil {
				return fail(err)
			}
		}
		return 0
	case *client != "":
		p, err := problemOf(*database, *studio, *client, *of)
		if err == nil {
			err = json.NewEncoder(out).Encode(p)
		}
		if err != nil {
			return fail(err)
		}
		return 0
	}
	d := formats.Drafts{Way: draft.Way(*way), Seed: *seed, Steps: *steps, Now: time.Now}
	if err := d.Check(); err != nil {
		return fail(err)
	}
	if *lp {
		if err := d.WriteLP(os.Stdin, out); err != nil {
			return fail(err)
		}
		return 0
	}
	return answerLines(d.Answer)
}

// problemOf reads a client's problem from a database.
func problemOf(database, studio, client, of string) (*draft.Problem, error) {
	id, err := uuid.Parse(client)
	if err != nil {
		return nil, fmt.Errorf("%q is no client's id", client)
	}
	url, err := secretOf(database, databaseEnv)
	if err == nil && url == "" {
		err = errors.New("draft --client needs a database: --database-url, " + databaseEnv + " or " + databaseEnv + "_FILE")
	}
	if err != nil {
		return nil, err
	}
	ctx := context.Background()
	s, err := store.Open(ctx, url)
	if err != nil {
		return nil, err
	}
	defer s.Close()
	at, err := theStudio(ctx, s, studio)
	if err != nil {
		return nil, err
	}
	return httpapi.ProblemOf(ctx, s, at, id, of)
}

// theStudio is a studio by its name or id, or the only one there is.
func theStudio(ctx context.Context, s *store.Store, named string) (uuid.UUID, error) {
	if named != "" {
		return studioOf(ctx, s, named)
	}
	all, err := s.Studios(ctx)
	if err != nil {
		return uuid.Nil, err
	}
	if len(all) != 1 {
		return uuid.Nil, fmt.Errorf("there are %d studios: say which with --studio", len(all))
	}
	return all[0].ID, nil
}
