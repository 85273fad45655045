package httpapi

import (
	"io/fs"
	"net/http"
	"path"
	"regexp"
	"strings"

	"musculus/internal/httpapi/op"
)

// serveWeb serves the front end: files by name, everything else the page
// itself, since places have addresses of their own.
func serveWeb(web fs.FS) http.HandlerFunc {
	files := http.FileServerFS(web)
	return func(w http.ResponseWriter, r *http.Request) {
		if r.Method != http.MethodGet && r.Method != http.MethodHead {
			op.WriteProblem(w, op.Problem(http.StatusMethodNotAllowed, "this address does not take that method"))
			return
		}
		name := strings.TrimPrefix(path.Clean(r.URL.Path), "/")
		if info, err := fs.Stat(web, name); name != "" && err == nil && !info.IsDir() {
			if strings.HasPrefix(name, "assets/") { // named by their content
				w.Header().Set("Cache-Control", "public, max-age=31536000, immutable")
			}
			files.ServeHTTP(w, r)
			return
		}
		if strings.HasPrefix(name, "assets/") {
			http.NotFound(w, r)
			return
		}
		file := "index.html"
		if strings.HasPrefix(name, "s/") { // a client's page is one of its own
			file = "link.html"
		}
		page, err := fs.ReadFile(web, file)
		if err != nil {
			http.NotFound(w, r)
			return
		}
		w.Header().Set("Cache-Control", "no-cache")
		w.Header().Set("Content-Type", "text/html; charset=utf-8")
		if name != "" && !pages.MatchString(name) {
			w.WriteHeader(http.StatusNotFound) // the page itself says that there is nothing here
		}
		_, _ = w.Write(page)
	}
}

// pages are the addresses the front end has something at; its router (web/src/app)
// is held against them by a test.
var pages = regexp.MustCompile(
	`^(?:s/[^/]+|clients(?:/[^/]+(?:/(?:dossier(?:/(?:measures|now))?|priorities|week(?:/[^/]+)?|sheet(?:/[^/]+)?|log(?:/[^/]+)?|trend))?)?|today|fitting|library(?:/ours(?:/[^/]+)?)?|stances|studio)$`,
)
