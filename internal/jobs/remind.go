package jobs

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"
	"github.com/riverqueue/river"

	"musculus/internal/core/day"
	"musculus/internal/store"
)

// The evening before a session its client gets a letter, where she wants one: looked for
// every so often, from an hour of the studio's day on.
const (
	remindEvery = 20 * time.Minute
	remindFrom  = 17
	remindDays  = 3 // how long the letter's link opens
)

// remind looks for whom to remind.
type remind struct{}

// Kind names it in the queue.
func (remind) Kind() string { return "remind" }

type reminder struct {
	river.WorkerDefaults[remind]
	store   *store.Store
	office  *Office
	address string
}

func (r *reminder) Work(ctx context.Context, _ *river.Job[remind]) error {
	return r.office.Remind(ctx, r.store, r.address, time.Now())
}

// Remind leaves letters to all who train tomorrow, have a sheet and want to be reminded;
// however often it is run, one a session and day.
func (o *Office) Remind(ctx context.Context, s *store.Store, address string, now time.Time) error {
	studios, err := s.Studios(ctx)
	if err != nil {
		return err
	}
	for _, st := range studios {
		if err := o.remindOf(ctx, s, st, address, now); err != nil {
			return fmt.Errorf("reminders of studio %s: %w", st.ID, err)
		}
	}
	return nil
}

func (o *Office) remindOf(ctx context.Context, s *store.Store, st store.StudioNamed, address string, now time.Time) error {
	return s.In(ctx, st.ID, func(tx *store.Tx) error {
		studio, err := tx.Studio(ctx)
		if err != nil {
			return err
		}
		local := now.In(studio.Location())
		if local.Hour() < remindFrom {
			return nil
		}
		tomorrow := day.At(local) + 1
		sessions, err := tx.IssuedOn(ctx, tomorrow)
		if err != nil || len(sessions) == 0 {
			return err
		}
		owner, err := anOwner(ctx, tx)
		if err != nil {
			return err
		}
		for _, t := range sessions {
			c, err := tx.Client(ctx, t.Client)
			if err != nil {
				return err
			}
			if !c.Dossier.Reminders || c.Dossier.MayWrite() != "" {
				continue
			}
			err = o.sendLink(ctx, tx, &c, owner, &linked{
				id:      uuid.NewSHA1(t.Session, []byte("reminder "+tomorrow.String())),
				subject: "Tomorrow: " + t.Name, says: "tomorrow is " + t.Name + ". What to do, and how:", studio: st.Name, address: address,
			}, now)
			if err != nil {
				return err
			}
		}
		return nil
	})
}

// linked is a letter to a client with a link to her own page.
type linked struct {
	id                             uuid.UUID // the same letter has the same, however often it is looked for
	subject, says, studio, address string
}

// sendLink leaves a letter with a link that opens for some days; one that was left before is not
// left again.
func (o *Office) sendLink(ctx context.Context, tx *store.Tx, c *store.Client, owner uuid.UUID, l *linked, now time.Time) error {
	token := store.NewToken()
	sent, err := o.sendOnce(ctx, tx, store.Letter{
		ID: l.id, To: c.Dossier.Letters, Subject: l.subject,
		Says: fmt.Sprintf(`Hello %s,

%s
%s/s/%s

The link opens for %d days. If you do not want such letters, tell your coach at %s.
`, c.Dossier.Name, l.says, l.address, token, remindDays, l.studio),
	}, now)
	if err != nil || !sent {
		return err
	}
	return tx.AddLink(ctx, l.id, c.ID, token, now.AddDate(0, 0, remindDays), false, owner)
}

// anOwner is in whose name the studio writes.
func anOwner(ctx context.Context, tx *store.Tx) (uuid.UUID, error) {
	list, err := tx.Colleagues(ctx)
	for _, c := range list {
		if c.Role == store.Owner {
			return c.ID, err
		}
	}
	return uuid.Nil, err
}
