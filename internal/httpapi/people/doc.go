// Package people holds the operations of people: signing in and out, one's own account,
// the people of a studio, invitations, forgotten passwords, and the first owner.
package people

import (
	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/httpapi/op"
)

// place is the server as this place sees it.
type place struct{ *op.Server }

// Register adds the operations of this place.
func Register(api huma.API, s *op.Server) {
	p := &place{s}
	p.registerSignIn(api)
	p.registerMine(api)
	p.registerFactor(api)
	p.registerOneTime(api)
	p.registerPeople(api)
}
