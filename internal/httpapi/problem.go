package httpapi

import (
	"context"

	"github.com/google/uuid"

	"musculus/internal/core/draft"
	"musculus/internal/httpapi/drafts"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// ProblemOf is the problem of a client's week without a server: of is a day of the week, ""
// for next week.
func ProblemOf(ctx context.Context, s *store.Store, studio, client uuid.UUID, of string) (*draft.Problem, error) {
	return drafts.ProblemOf(ctx, op.New(s, "", nil), studio, client, of)
}
