package blocks

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"net/http"
	"slices"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"musculus/internal/core/block"
	"musculus/internal/core/plan"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

type clientInput struct {
	Client uuid.UUID `path:"client"`
}

type draftInput struct {
	Client uuid.UUID `path:"client"`
	Body   BlockDraft
}

type endInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		ID uuid.UUID `json:"id"`
	}
}

type missedInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		Session uuid.UUID `json:"session"`
		Way     block.Way `json:"way" enum:"slide,drop,fold"`
	}
}

type stripOutput struct{ Body StripView }

func (s *place) get(ctx context.Context, in *clientInput) (*stripOutput, error) {
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *read) (err error) {
		*r, err = s.read(ctx, tx, in.Client)
		return err
	}, func(r *read) (*stripOutput, error) { return &stripOutput{r.show(nil)}, nil })
}

func (s *place) preview(ctx context.Context, in *draftInput) (*stripOutput, error) {
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *read) (err error) {
		if *r, err = s.read(ctx, tx, in.Client); err != nil {
			return err
		}
		return s.lay(ctx, tx, r, &in.Body)
	}, func(r *read) (*stripOutput, error) { return &stripOutput{r.show(r.flow())}, nil })
}

// save keeps a block and lets the plan to come follow it, all or nothing. Sent again it finds
// everything as it asks for.
func (s *place) save(ctx context.Context, in *draftInput) (*stripOutput, error) {
	err := s.InStudio(ctx, func(tx *store.Tx, a store.Account) error {
		r, err := s.read(ctx, tx, in.Client)
		if err != nil {
			return err
		}
		asked, err := hashOf(&in.Body)
		if err != nil || r.kept != nil && r.kept.ID == in.Body.ID && r.kept.Asked == asked { // sent again
			return err
		}
		if err := s.lay(ctx, tx, &r, &in.Body); err != nil {
			return err
		}
		r.block.Asked = asked
		steps := r.flow()
		if r.kept != nil && r.kept.ID == r.block.ID {
			err = tx.SaveBlock(ctx, r.c.ID, r.block, in.Body.Version, a.ID, op.Movements(ctx))
		} else {
			if r.kept != nil { // one that had not begun gives way
				if err := tx.EndBlock(ctx, r.c.ID, r.kept.ID, r.today-1, a.ID); err != nil {
					return err
				}
			} else if err := tx.EndOver(ctx, r.c.ID); err != nil {
				return err
			}
			err = tx.AddBlock(ctx, r.c.ID, r.block, a.ID, op.Movements(ctx))
		}
		if stale := (*store.StaleBlock)(nil); errors.As(err, &stale) {
			return op.Problem(http.StatusConflict, stale.Error()+": look at it again")
		} else if err != nil {
			return err
		}
		for _, i := range r.adopts {
			m := &r.made[i]
			if err := tx.KeepMade(ctx, r.c.ID, r.block.ID, m.Turn, m.Day, len(r.taken), &m.As); err != nil {
				return err
			}
		}
		return s.write(ctx, tx, &r, steps, a.ID)
	})
	if err != nil {
		return nil, err
	}
	return s.get(ctx, &clientInput{in.Client})
}

// hashOf tells requests apart.
func hashOf(d *BlockDraft) (string, error) {
	b, err := json.Marshal(d)
	sum := sha256.Sum256(b)
	return hex.EncodeToString(sum[:]), err
}

// write writes what flows into the plan.
func (s *place) write(ctx context.Context, tx *store.Tx, r *read, steps []block.Step, by uuid.UUID) error {
	for i := range steps {
		step := &steps[i]
		if !step.Writes() {
			continue
		}
		var saved store.Session
		var err error
		switch step.What {
		case block.Gone:
			saved, err = s.put(ctx, tx, r, &step.Was, true, by)
		default:
			saved, err = s.put(ctx, tx, r, &step.Want, false, by)
		}
		if err != nil {
			return err
		}
		if err := tx.KeepMade(ctx, r.c.ID, r.block.ID, step.Turn, step.Day, len(r.taken), &saved.Planned); err != nil {
			return err
		}
	}
	return nil
}

// put keeps one session as it should be, over whatever version is there.
func (s *place) put(ctx context.Context, tx *store.Tx, r *read, p *plan.Planned, gone bool, by uuid.UUID) (store.Session, error) {
	draft, err := s.Checked(ctx, &r.c, p)
	if err != nil && !gone {
		return draft, err
	}
	was, err := tx.Session(ctx, r.c.ID, p.ID, op.Movements(ctx))
	version := 0
	if err == nil {
		version = was.Version
	} else if !errors.Is(err, pgx.ErrNoRows) {
		return draft, err
	}
	if gone {
		draft = was
	}
	draft.ID, draft.ClientID, draft.Version, draft.Removed = p.ID, r.c.ID, version, gone
	content, err := json.Marshal(p)
	if err != nil {
		return draft, err
	}
	write := uuid.NewSHA1(p.ID, append(content, byte(version)))
	if version == 0 {
		if err := tx.AddSession(ctx, draft, by, write, op.Movements(ctx)); err != nil {
			return draft, err
		}
		return draft, s.WeekHolds(ctx, tx, &r.c, draft.On)
	}
	saved, err := tx.SaveSession(ctx, draft, by, write, op.Movements(ctx))
	if err != nil {
		return saved, s.StaleProblem(ctx, tx, &r.c, err)
	}
	return saved, s.WeekHolds(ctx, tx, &r.c, saved.On)
}

// end ends a block; what was made of it stays in the plan.
func (s *place) end(ctx context.Context, in *endInput) (*stripOutput, error) {
	err := s.InClient(ctx, in.Client, func(tx *store.Tx, a store.Account, c *store.Client) error {
		if _, err := tx.Block(ctx, c.ID, in.Body.ID, op.Movements(ctx)); err != nil {
			return err
		}
		return tx.EndBlock(ctx, c.ID, in.Body.ID, s.DayOf(c)-1, a.ID)
	})
	if err != nil {
		return nil, err
	}
	return s.get(ctx, &clientInput{in.Client})
}

// missed does what was chosen about a missed day; said again it is done once.
func (s *place) missed(ctx context.Context, in *missedInput) (*stripOutput, error) {
	err := s.InStudio(ctx, func(tx *store.Tx, a store.Account) error {
		r, err := s.read(ctx, tx, in.Client)
		if err != nil {
			return err
		}
		if r.block == nil {
			return store.ErrNotFound
		}
		all := r.block.Missed(r.t, r.made, plans(r.others), r.today)
		i := slices.IndexFunc(all, func(m block.MissedDay) bool { return m.Session.ID == in.Body.Session })
		if i < 0 {
			k := slices.IndexFunc(r.made, func(m block.Made) bool { return m.Now.ID == in.Body.Session })
			switch {
			case k < 0:
				return store.ErrNotFound
			case r.made[k].Missed == in.Body.Way:
				return nil // said already
			}
			return op.Problem(http.StatusConflict, "this is settled already: it was done, moved or answered since")
		}
		k := slices.IndexFunc(all[i].Options, func(o block.Option) bool { return o.Way == in.Body.Way })
		if k < 0 {
			return op.FieldProblem("body.way", "not for this day")
		}
		o := &all[i].Options[k]
		if o.Slides != nil { // the whole rotation moves on
			r.block.Slides = o.Slides
			if err := tx.SaveBlock(ctx, r.c.ID, r.block, r.kept.Version, a.ID, op.Movements(ctx)); err != nil {
				return err
			}
			return s.write(ctx, tx, &r, r.flow(), a.ID)
		}
		for j := range o.Moved {
			if _, err := s.put(ctx, tx, &r, &o.Moved[j], false, a.ID); err != nil {
				return err
			}
		}
		return tx.SayMissed(ctx, in.Body.Session, in.Body.Way)
	})
	if err != nil {
		return nil, err
	}
	return s.get(ctx, &clientInput{in.Client})
}
