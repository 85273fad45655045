// Package blocks holds the operations of a block: its strip, what a change to it overwrites,
// days that were missed, and what is made of it ahead.
package blocks

import (
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/httpapi/op"
)

// place is the server as this place sees it.
type place struct{ *op.Server }

// Register adds the operations of this place.
func Register(api huma.API, s *op.Server) {
	p := &place{s}
	const path = "/clients/{client}/block"
	huma.Register(api, op.Operation("get-block", op.Everybody, http.MethodGet, path, "The block a client is in, turn by turn"), p.get)
	huma.Register(
		api,
		op.Operation("preview-block", op.Planners, http.MethodPost, path, "What a block would be, and what it would overwrite; nothing is kept"),
		p.preview,
	)
	huma.Register(
		api,
		op.Operation("save-block", op.Planners, http.MethodPut, path, "Lay a block, or change it; what is to come and free follows"),
		p.save,
	)
	huma.Register(api, op.Operation("end-block", op.Planners, http.MethodPost, path+"/end", "End a block; what was made of it stays"), p.end)
	huma.Register(
		api,
		op.Operation("missed-day", op.Planners, http.MethodPost, path+"/missed", "Slide, drop or fold in a day that was missed"),
		p.missed,
	)
}
