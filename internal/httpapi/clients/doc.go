// Package clients holds the operations of the wall and of one client: the record,
// the dossier, what a client does now.
package clients

import (
	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/httpapi/op"
	"musculus/internal/httpapi/remember"
)

// place is the server as this place sees it.
type place struct {
	*op.Server
	cards *remember.Memory[cardKey, ClientCard]
}

// Register adds the operations of this place.
func Register(api huma.API, s *op.Server) {
	p := &place{s, remember.New[cardKey, ClientCard](mostCards, rememberCards)}
	p.registerClients(api)
	p.registerDossier(api)
	p.registerClientLife(api)
	p.registerPresent(api)
}
