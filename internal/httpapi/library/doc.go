// Package library holds the operations of movements and set-ups: the Library, the
// Fitting and what is fitted there, a studio's own movements, verdicts on a set-up.
package library

import (
	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/httpapi/op"
	"musculus/internal/httpapi/remember"
)

// place is the server as this place sees it.
type place struct {
	*op.Server
	shown *remember.Memory[readKey, []shown]
}

// Register adds the operations of this place.
func Register(api huma.API, s *op.Server) {
	p := &place{s, remember.New[readKey, []shown](mostReadings, 0)}
	p.registerFront(api)
	p.registerCatalogue(api)
	p.registerFitting(api)
	p.registerLibrary(api)
	p.registerOwn(api)
	p.registerWords(api)
	p.registerVerdicts(api)
}
