// Package week holds the operations of the board: a week counted and audited, drafts
// proposed, plans and templates out and in.
package week

import (
	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/httpapi/op"
)

// place is the server as this place sees it.
type place struct{ *op.Server }

// Register adds the operations of this place.
func Register(api huma.API, s *op.Server) {
	p := &place{s}
	p.registerWeek(api)
	p.registerProposals(api)
	p.registerPlans(api)
	p.registerTemplates(api)
}
