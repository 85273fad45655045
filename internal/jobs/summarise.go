package jobs

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"
	"github.com/riverqueue/river"

	"musculus/internal/core/day"
	"musculus/internal/core/person"
	"musculus/internal/store"
)

// In the evening who trained gets a letter to her own page, where she wants one: after each
// session, or once on Sunday. Nothing of what she did stands in the letter itself.
const summariseFrom = 19

// summarise looks for whom to write to.
type summarise struct{}

// Kind names it in the queue.
func (summarise) Kind() string { return "summarise" }

type summariser struct {
	river.WorkerDefaults[summarise]
	store   *store.Store
	office  *Office
	address string
}

func (s *summariser) Work(ctx context.Context, _ *river.Job[summarise]) error {
	return s.office.Summarise(ctx, s.store, s.address, time.Now())
}

// Summarise leaves letters to all who trained and want to read of it; however often it is run,
// one a session, or one a week.
func (o *Office) Summarise(ctx context.Context, s *store.Store, address string, now time.Time) error {
	studios, err := s.Studios(ctx)
	if err != nil {
		return err
	}
	for _, st := range studios {
		err := s.In(ctx, st.ID, func(tx *store.Tx) error { return o.summariseOf(ctx, tx, st.Name, address, now) })
		if err != nil {
			return fmt.Errorf("summaries of studio %s: %w", st.ID, err)
		}
	}
	return nil
}

func (o *Office) summariseOf(ctx context.Context, tx *store.Tx, name, address string, now time.Time) error {
	studio, err := tx.Studio(ctx)
	if err != nil {
		return err
	}
	local := now.In(studio.Location())
	if local.Hour() < summariseFrom {
		return nil
	}
	today := day.At(local)
	monday := today.Monday()
	arounds, err := tx.Arounds(ctx, now, monday, today)
	if err != nil {
		return err
	}
	owner, err := anOwner(ctx, tx)
	if err != nil {
		return err
	}
	for id, a := range arounds {
		if !a.Known { // nothing was done this week
			continue
		}
		c, err := tx.Client(ctx, id)
		if err != nil {
			return err
		}
		if c.Dossier.MayWrite() != "" {
			continue
		}
		says := "what you did, what changed, and a question perhaps:"
		if c.Dossier.Summaries == person.Weekly && today == monday+6 {
			err = o.sendLink(ctx, tx, &c, owner, &linked{uuid.NewSHA1(id, []byte("week "+monday.String())), "Your week",
				says, name, address}, now)
		}
		for i := range a.Sessions {
			x := &a.Sessions[i]
			if err == nil && c.Dossier.Summaries == person.AfterSession && x.On == today && x.Sets > 0 {
				err = o.sendLink(ctx, tx, &c, owner, &linked{uuid.NewSHA1(x.ID, []byte("summary")), x.Name, says, name, address}, now)
			}
		}
		if err != nil {
			return err
		}
	}
	return nil
}
