package running

import (
	"context"

	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// EachStudio does something in every studio in turn, as the background does: in nobody's name,
// with the studio's own catalogue and zone.
func EachStudio(ctx context.Context, s *op.Server, do func(in context.Context, studio store.StudioNamed) error) error {
	studios, err := s.Store.Studios(ctx)
	if err != nil {
		return err
	}
	for _, st := range studios {
		own, err := s.OwnOfStudio(ctx, st.ID)
		if err != nil {
			return err
		}
		if err := do(op.InStudioOf(ctx, store.Account{Studio: st.ID, Role: store.Owner}, own), st); err != nil {
			return err
		}
	}
	return nil
}
