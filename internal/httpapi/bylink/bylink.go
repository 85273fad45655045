// Package bylink lets in who holds a client's link: told once, whatever the link is for.
package bylink

import (
	"context"
	"net/http"

	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// Open lets in the holder of a link: what it opens, and the context of its studio, in which
// nobody is signed in.
func Open(ctx context.Context, s *op.Server, token string) (context.Context, store.Opened, *op.Own, error) {
	opened, err := s.Store.OpenLink(ctx, token, s.Now())
	switch {
	case err == store.ErrNotFound:
		return ctx, opened, nil, op.Problem(http.StatusNotFound, "this link leads nowhere; ask your coach for a new one")
	case err != nil:
		return ctx, opened, nil, op.ProblemOf(err)
	case opened.Over != "":
		return ctx, opened, nil, op.Problem(http.StatusGone, "this link was "+opened.Over+"; ask your coach for a new one")
	}
	own, err := s.OwnOfStudio(ctx, opened.Studio)
	if err != nil {
		return ctx, opened, nil, op.ProblemOf(err)
	}
	return op.InStudioOf(ctx, store.Account{Studio: opened.Studio}, own), opened, own, nil
}
