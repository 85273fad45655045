package httpapi

import (
	"context"
	"errors"

	"musculus/internal/httpapi/blocks"
	"musculus/internal/httpapi/op"
	"musculus/internal/httpapi/trend"
	"musculus/internal/photos"
	"musculus/internal/store"
)

// ReadAgain makes what blocks plan for the week to come, and reads what logs say, of every studio
// and client for whom it is due; for the background.
func ReadAgain(s *store.Store) func(context.Context) error {
	server := op.New(s, photos.Folder(""), nil)
	maker := blocks.NewMaker(server) // rounds follow one another, never two at once
	return func(ctx context.Context) error {
		return errors.Join(maker.MakeAhead(ctx), trend.ReadAgain(ctx, server))
	}
}
