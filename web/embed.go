// Package web holds the built front end.
package web

import (
	"embed"
	"io/fs"
)

// The dist folder is made by the front end's build; .gitkeep lets the Go code
// compile before that.
//
//go:embed all:dist
var dist embed.FS

// Dist is the built front end; it has no index.html before it was built.
func Dist() fs.FS {
	sub, err := fs.Sub(dist, "dist")
	if err != nil {
		panic(err) // the embed directive above guarantees the folder
	}
	return sub
}
