// Package trend holds what the log says: courses, weeks, what is decided, and the day's first
// page that gathers it.
package trend

import (
	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/httpapi/op"
)

// place is the server as this place sees it.
type place struct{ *op.Server }

// Register adds the operations of this place.
func Register(api huma.API, s *op.Server) {
	p := &place{s}
	p.registerTrend(api)
	p.registerDecisions(api)
	p.registerToday(api)
	p.registerTolerance(api)
}
