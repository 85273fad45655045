package op

import (
	"context"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/datafile"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/words"
	"musculus/internal/store"
)

// Own is what a studio added: movements, put into its catalogue, and set-ups.
type Own struct {
	Catalogue *movement.Catalogue
	Movements []store.OwnMovement
	Faults    []*datafile.Fault
	SetUps    []keptSetUp
	Words     []words.Own
	Reader    *words.Reader // of plain words, with the studio's own
	Zone      *time.Location
	Prefers   person.Preferences // where a client says nothing of her own
}

type keptSetUp struct{ store.OwnSetUp }

// SetUp reads a kept set-up; it fails when its movement is gone or has changed
// its limits since.
func (k *keptSetUp) SetUp(c *movement.Catalogue) (movement.SetUp, error) {
	m := c.Get(k.Movement)
	if m == nil {
		return movement.SetUp{}, fmt.Errorf("there is no movement %q any more", k.Movement)
	}
	return m.SetUp(k.Settings)
}

type ownKey struct{}

// OwnOf is the signed-in studio’s own things; nil where nobody is signed in.
func OwnOf(ctx context.Context) *Own {
	o, _ := ctx.Value(ownKey{}).(*Own)
	return o
}

// Movements is the signed-in studio's catalogue.
func Movements(ctx context.Context) *movement.Catalogue { return OwnOf(ctx).Catalogue }

// What is remembered of a studio: a change made here shows at once, one made by
// another server when the moment is over.
const (
	rememberOwn = 2 * time.Second
	mostStudios = 1000
)

// OwnOfStudio is what a studio added, and its zone.
func (s *Server) OwnOfStudio(ctx context.Context, studio uuid.UUID) (*Own, error) {
	return s.Catalogues.Of(ctx, studio, func(ctx context.Context) (*Own, error) {
		fresh := &Own{}
		if err := s.Store.In(ctx, studio, func(tx *store.Tx) (err error) {
			if fresh.Movements, err = tx.OwnMovements(ctx); err != nil {
				return err
			}
			studio, err := tx.Studio(ctx)
			if err != nil {
				return err
			}
			fresh.Zone, fresh.Prefers = studio.Location(), studio.Preferences
			if fresh.Words, err = tx.OwnWords(ctx); err != nil {
				return err
			}
			kept, err := tx.OwnSetUps(ctx)
			for _, k := range kept {
				fresh.SetUps = append(fresh.SetUps, keptSetUp{k})
			}
			return err
		}); err != nil {
			return nil, err
		}
		if seen, ok := s.lastRead.Get(studio); ok && slices.Equal(seen.Movements, fresh.Movements) { // nothing to read again
			fresh.Catalogue, fresh.Faults = seen.Catalogue, seen.Faults
			fresh.Reader = words.New(fresh.Catalogue, fresh.Words, words.Near)
			return fresh, nil
		}
		texts := make([]movement.Own, len(fresh.Movements))
		for i, m := range fresh.Movements {
			texts[i] = m.Own
		}
		fresh.Catalogue, fresh.Faults = movement.Shipped.With(texts)
		fresh.Reader = words.New(fresh.Catalogue, fresh.Words, words.Near)
		s.lastRead.Put(studio, fresh)
		return fresh, nil
	})
}
