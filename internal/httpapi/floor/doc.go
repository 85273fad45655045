// Package floor holds the operations of what is done: the log, and the session while it
// happens, by accounts and by a client's link. Every set comes in by keep.go, whoever tells it.
package floor

import (
	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/httpapi/op"
)

// place is the server as this place sees it.
type place struct{ *op.Server }

// Register adds the operations of this place.
func Register(api huma.API, s *op.Server) {
	p := &place{s}
	p.registerLog(api)
	p.registerFloor(api)
	p.registerLink(api)
}
