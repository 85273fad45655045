package httpapi

import (
	"context"

	"musculus/internal/httpapi/op"
	"musculus/internal/httpapi/trend"
	"musculus/internal/photos"
	"musculus/internal/store"
)

// ReadAgain reads what logs say, of every studio and client that has to be read again; for the
// background.
func ReadAgain(s *store.Store) func(context.Context) error {
	server := op.New(s, photos.Folder(""), nil)
	return func(ctx context.Context) error { return trend.ReadAgain(ctx, server) }
}
