// Package drafts holds the operations that compose weeks for a client: three weeks beside
// what is on the board, what they give up, what lifting a limit would buy, and the clients
// who have no next week yet. Nothing of it is kept until a coach lays it on the board.
package drafts

import (
	"time"

	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/core/draft"
	"musculus/internal/httpapi/op"
	"musculus/internal/httpapi/remember"
)

// place is the server as this place sees it.
type place struct {
	*op.Server
	pools    *remember.Memory[string, *draft.Pool]
	composed *remember.Memory[string, [3]draft.Composed]
}

// What is remembered: what may be used for a client while nothing about her changes, and
// weeks that are asked for again a moment later.
const (
	mostPools    = 200
	mostComposed = 300
	rememberFor  = 30 * time.Minute
)

func newPlace(s *op.Server) *place {
	return &place{s, remember.New[string, *draft.Pool](mostPools, rememberFor),
		remember.New[string, [3]draft.Composed](mostComposed, rememberFor)}
}

// Register adds the operations of this place.
func Register(api huma.API, s *op.Server) {
	p := newPlace(s)
	p.registerDrafts(api)
	p.registerNext(api)
}
