// Package studio holds the operations of a studio: its zone and its rooms.
package studio

import (
	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/httpapi/op"
)

// place is the server as this place sees it.
type place struct{ *op.Server }

// Register adds the operations of this place.
func Register(api huma.API, s *op.Server) {
	p := &place{s}
	p.registerStudio(api)
	p.registerRooms(api)
}
