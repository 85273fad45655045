// Package growth holds the operations of what a client wants and what became of it:
// priorities, measures, photographs.
package growth

import (
	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/httpapi/op"
)

// place is the server as this place sees it.
type place struct{ *op.Server }

// Register adds the operations of this place.
func Register(api huma.API, s *op.Server) {
	p := &place{s}
	p.registerMeasures(api)
	p.registerPhotos(api)
	p.registerPriorities(api)
}
