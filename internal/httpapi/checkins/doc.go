// Package checkins holds what a client is told after a session by her link, the one question she
// is asked, and what a coach says to her answer.
package checkins

import (
	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/httpapi/op"
)

// place is the server as this place sees it.
type place struct{ *op.Server }

// Register adds the operations of this place.
func Register(api huma.API, s *op.Server) {
	p := &place{s}
	p.registerByLink(api)
	p.registerAnswers(api)
}
